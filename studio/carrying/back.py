"""Carrying a job back in: read whole, judged whole, and added in one stroke or not at all."""

from base64 import b64decode
from typing import Any, TypeVar

from django.db import transaction
from pydantic import BaseModel, ValidationError

from izett.catalogue import catalogue
from izett.errors import IzettError, UnreadableFile
from izett.files.older import allowances_step
from izett.files.pattern_json import pattern_of
from izett.files.reading import wrong_in
from izett.files.recipe_json import RecipeDoc, StepDoc
from studio.carrying.document import CuttingPart, JobDocument, PhotoPart, RoundPart, SheetPart, WearerPart
from studio.cutting_schemas import CutTable
from studio.limits import LARGEST_FILE
from studio.locking import tell
from studio.models import Answer, Finding, Job, KeptFit, LogEntry, MeasureSheet, Photo, Revision, Round, Spell, Wearer
from studio.problems import Refusal
from studio.readings import all_taken, write_readings
from studio.schemas import TakenIn
from studio.standing import look_later
from studio.storage import photos
from studio.wire import plain_json

Document = TypeVar("Document", bound=BaseModel)


def import_job(text: bytes) -> Job:
    """Add the job of a document, with a wearer of its own.

    Raises:
        UnreadableFile: the document is too large, damaged, foreign, or contradicts itself; nothing is added then.
        UnknownName, UnreadableMeasure, ValueOutOfRange: a reading or a value in it is not one.
    """
    if len(text) > LARGEST_FILE:
        raise UnreadableFile(
            f"The file has more than {LARGEST_FILE / 2**20:.0f} MB: a job file is smaller.",
            fix="Choose a file that was exported from a job.",
        )
    document = judged(plain_json(text))
    with transaction.atomic():
        wearer = Wearer.objects.create(**document.wearer.model_dump(exclude={"fit"}))
        add_fit(wearer, document.wearer)
        job = add_job(document, wearer, {part.number: add_sheet(wearer, part) for part in document.sheets})
    look_later(job.pk)
    return job


def judged(data: Any) -> JobDocument:
    """Return an `izett-job` document, judged whole.

    Raises:
        UnreadableFile: it is damaged or foreign; the message says where.
        ValueOutOfRange: something was set in it that no draft can have.
    """
    document = read_document(JobDocument, data, "job")
    for revision in document.revisions:
        for symbol, value in {**revision.recipe.house, **revision.recipe.overrides}.items():
            catalogue().checked(symbol, value)
    for part in document.rounds:
        _read_muslin(part)
        for finding in part.findings:
            for photo in finding.photos:
                _jpeg(photo)
    for picture in document.pictures:
        _jpeg(picture)
    return document


def _jpeg(part: PhotoPart) -> photos.Taken:
    """Return a photo of the document.

    Raises:
        UnreadableFile: it is none that was kept by this program.
    """
    try:
        return photos.judged(b64decode(part.jpeg, validate=True))
    except Refusal as refusal:
        raise UnreadableFile(refusal.message, fix=f"{refusal.fix} Nothing was added.") from refusal
    except ValueError as error:
        raise UnreadableFile(
            "A photo in the job file is not written in base64.", fix="Take an undamaged copy; nothing was added."
        ) from error


def read_document(kind: type[Document], data: Any, of: str) -> Document:
    """Return a document of a kind, or say why it is none.

    Raises:
        UnreadableFile: it is foreign, damaged, or of a later version.
    """
    name = f"izett-{of}"
    if isinstance(data, dict) and data.get("format") == name and data.get("version", 1) != 1:
        raise UnreadableFile(
            f"The {of} file has version {data['version']!r}; this program reads version 1.",
            fix="Use a newer version of the program; nothing was added.",
        )
    try:
        return kind.model_validate(data)
    except ValidationError as error:
        place, words, _ = wrong_in(error)
        at = f"at {place}: {words}" if place else words
        raise UnreadableFile(
            f"This is not a whole {name} file: {at}.",
            fix=f"Choose a file that was exported from a {of}; nothing was added.",
        ) from error


def _read_muslin(part: RoundPart) -> None:
    """Let pass a muslin that can be drawn as it was cut.

    Raises:
        UnreadableFile: it contradicts itself.
    """
    try:
        pattern_of(part.as_cut)
    except IzettError:
        raise
    except (ArithmeticError, LookupError, ValueError) as error:
        raise UnreadableFile(
            f"Muslin {part.number} in the job file cannot be drawn as it was cut: {error}.",
            fix="Take an undamaged copy; nothing was added.",
        ) from error


def add_job(document: JobDocument, wearer: Wearer, sheets: dict[int, MeasureSheet]) -> Job:
    """Add a job that was judged, to a wearer with these sheets by number; call within a transaction."""
    job = Job.objects.create(
        wearer=wearer, sheet=sheets[document.revisions[0].sheet], garment=document.garment, due=document.due
    )
    revisions = _add_revisions(job, document, sheets)
    findings: dict[str, Finding] = {}
    for part in sorted(document.rounds, key=lambda part: part.number):
        _add_round(job, part, revisions, findings)
    entries = LogEntry.objects.bulk_create(
        LogEntry(job=job, deed=entry.deed, text=entry.text) for entry in document.log
    )
    for entry, told in zip(entries, document.log, strict=True):
        entry.at = told.at
    LogEntry.objects.bulk_update(entries, ["at"], batch_size=BATCH)
    job.head = revisions[document.head]
    job.sheet = job.head.sheet
    job.save(update_fields=["head", "sheet"])
    Job.objects.filter(pk=job.pk).update(
        created=document.created,
        look_again=document.look_again,
        look_again_on=document.look_again_on,
        on_form=document.on_form.model_dump(mode="json") if document.on_form.drape else {},
        cut_table={} if document.cut_table == CutTable() else document.cut_table.model_dump(mode="json", by_alias=True),
    )
    for picture in document.pictures:
        _add_photo(picture, job=job, lies=picture.lies.model_dump(mode="json"))
    Spell.objects.bulk_create(Spell(job=job, **spell.model_dump()) for spell in document.time)
    if not document.log:
        tell(job, "import", f"{document.garment} for {wearer.name} imported")
    return job


#: Rows that are written at once.
BATCH = 200


def _add_revisions(job: Job, document: JobDocument, sheets: dict[int, MeasureSheet]) -> dict[int, Revision]:
    parts = sorted(document.revisions, key=lambda part: part.number)
    made = Revision.objects.bulk_create(
        (
            Revision(
                job=job,
                number=part.number,
                sheet=sheets[part.sheet],
                document=_with_allowances(part.recipe, document.cutting),
                why=part.why,
            )
            for part in parts
        ),
        batch_size=BATCH,
    )
    revisions = {revision.number: revision for revision in made}
    for part in parts:
        revisions[part.number].parent = revisions[part.parent] if part.parent is not None else None
        revisions[part.number].created = part.created
    Revision.objects.bulk_update(made, ["parent", "created"], batch_size=BATCH)
    return revisions


def _with_allowances(recipe: RecipeDoc, cutting: CuttingPart | None) -> dict[str, Any]:
    """Return a revision's recipe as it is stored, with the allowances that an older file has beside it."""
    step = allowances_step(cutting.model_dump()) if cutting else None
    known = any(one.kind == "set_allowances" for one in recipe.steps)
    if step is not None and not known:
        recipe = recipe.model_copy(update={"steps": [*recipe.steps, StepDoc(**step)]})
    return dict(recipe.model_dump(mode="json"))


def add_sheet(wearer: Wearer, part: SheetPart) -> MeasureSheet:
    """Add a sheet, its readings as they were typed; call within a transaction."""
    sheet = MeasureSheet.objects.create(
        wearer=wearer, number=part.number, taken_on=part.taken_on, taken_by=part.taken_by, worn=part.worn
    )
    typed = {r.symbol: TakenIn(text=r.text, unit=r.unit, again=r.again) for r in part.readings}
    write_readings(sheet, all_taken(typed))
    return sheet


def add_fit(wearer: Wearer, part: WearerPart) -> None:
    """Add what was kept of a wearer's fit; call within a transaction."""
    for kept in part.fit:
        made = KeptFit.objects.create(wearer=wearer, **kept.model_dump(mode="json", exclude={"kept"}))
        KeptFit.objects.filter(pk=made.pk).update(kept=kept.kept)


def _add_round(job: Job, part: RoundPart, revisions: dict[int, Revision], findings: dict[str, Finding]) -> None:
    round_ = Round.objects.create(
        job=job,
        number=part.number,
        closed=part.closed,
        cloth=part.cloth,
        worn=part.worn,
        note=part.note,
        cut_from=revisions[part.cut_from],
        closed_at=revisions[part.closed_at] if part.closed_at is not None else None,
        as_cut=part.as_cut.model_dump(mode="json", by_alias=True),
        core_version=part.core_version,
        prepared=part.prepared,
        watched=part.watched,
        pins_in=part.pins_in,
        pins_out=part.pins_out,
    )
    Round.objects.filter(pk=round_.pk).update(opened=part.opened)
    made = Finding.objects.bulk_create(
        Finding(round=round_, **entry.model_dump(mode="json", exclude={"created", "photos"})) for entry in part.findings
    )
    for finding, entry in zip(made, part.findings, strict=True):
        finding.created = entry.created
        findings[entry.uid] = finding
    Finding.objects.bulk_update(made, ["created"], batch_size=BATCH)
    for finding, entry in zip(made, part.findings, strict=True):
        for shown in entry.photos:
            _add_photo(shown, finding=finding)
    Answer.objects.bulk_create(
        Answer(round=round_, finding=findings[answer.finding], outcome=answer.outcome.value, note=answer.note)
        for answer in part.answers
    )


def _add_photo(part: PhotoPart, **of: Any) -> None:
    taken = _jpeg(part)
    photo = Photo.objects.create(**of, width=taken.width, height=taken.height, size=len(taken.jpeg))
    Photo.objects.filter(pk=photo.pk).update(taken=part.taken)
    photos.keep(photo, taken.jpeg)
