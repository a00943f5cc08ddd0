"""Carry a whole job out of the studio and back in, as an open `izett-job` document.

Nothing in the document depends on this database: sheets, revisions and rounds are told by their numbers, so that a
job exported, imported and exported again is the same document.
"""

import json
from datetime import date, datetime
from typing import Annotated, Any, Literal
from uuid import UUID

from django.db import transaction
from pydantic import BaseModel, ConfigDict, Field, ValidationError

from izett.errors import UnreadableFile
from izett.files.older import allowances_step
from izett.files.pattern_json import PatternDoc
from izett.files.recipe_json import RecipeDoc, StepDoc
from izett.fitting.finding import Outcome, Taken
from izett.units import Unit
from studio.locking import job_of, tell
from studio.models import Answer, Finding, Job, LogEntry, MeasureSheet, Revision, Round, Wearer
from studio.readings import all_taken, write_readings
from studio.schemas import LengthIn, TakenIn
from studio.state import head_of

#: Bytes. A job with fifty muslins is about 5 MB; what is much larger is no job.
LARGEST_FILE = 20 * 1024 * 1024

FORMAT: Literal["izett-job"] = "izett-job"


class _Part(BaseModel):
    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)


class WearerPart(_Part):
    """The wearer."""

    name: str = Field(min_length=1, max_length=120)
    note: str = ""
    size: str = ""


class ReadingPart(_Part):
    """A reading as typed; its length follows from text and unit."""

    symbol: str
    text: str
    unit: Unit
    again: list[LengthIn] = []


class SheetPart(_Part):
    """A sheet."""

    number: int
    taken_on: date
    taken_by: str
    worn: str
    readings: list[ReadingPart]


class RevisionPart(_Part):
    """A revision; `parent` and `sheet` are numbers."""

    number: int
    parent: int | None
    sheet: int
    recipe: RecipeDoc
    why: str
    created: datetime


class AnswerPart(_Part):
    """An answer given in a round to an earlier finding."""

    finding: str
    outcome: Outcome
    note: str


class FindingPart(_Part):
    """A finding."""

    uid: str
    kind: str
    side: str
    movement: str
    words: str
    given: dict[str, float]
    taken: Taken
    remedy: str
    steps: list[str]
    created: datetime


class RoundPart(_Part):
    """A round with its as-cut geometry."""

    number: int
    opened: datetime
    closed: datetime | None
    cloth: str
    worn: str
    note: str
    cut_from: int
    closed_at: int | None
    core_version: str
    as_cut: PatternDoc
    findings: list[FindingPart]
    answers: list[AnswerPart]


class CuttingPart(_Part):
    """Seam allowances as jobs had them beside their recipes."""

    purpose: str = "muslin"
    by_lineage: dict[str, float] = {}


class LogPart(_Part):
    """A line of the story."""

    at: datetime
    deed: str
    text: str


class JobDocument(_Part):
    """An `izett-job` document."""

    format: Literal["izett-job"] = FORMAT
    version: Literal[1] = 1
    garment: str = Field(min_length=1, max_length=120)
    due: date | None
    created: datetime
    wearer: WearerPart
    sheets: list[SheetPart] = Field(min_length=1)
    head: int
    revisions: list[RevisionPart] = Field(min_length=1)
    rounds: list[RoundPart]
    log: list[LogPart]
    #: Of files of before seam allowances were steps: they become one.
    cutting: Annotated[CuttingPart | None, Field(exclude=True)] = None


def export_job(job_id: UUID) -> JobDocument:
    """Return the whole job.

    Raises:
        Refusal: there is none.
    """
    job = job_of(job_id)
    revisions = list(job.revisions.select_related("parent", "sheet"))
    used = {revision.sheet.pk for revision in revisions}
    return JobDocument(
        garment=job.garment,
        due=job.due,
        created=job.created,
        wearer=WearerPart(name=job.wearer.name, note=job.wearer.note, size=job.wearer.size),
        sheets=[_sheet_part(sheet) for sheet in job.wearer.sheets.all() if sheet.pk in used],
        head=head_of(job).number,
        revisions=[
            RevisionPart(
                number=r.number,
                parent=r.parent.number if r.parent else None,
                sheet=r.sheet.number,
                recipe=RecipeDoc.model_validate(r.document),
                why=r.why,
                created=r.created,
            )
            for r in revisions
        ],
        rounds=[_round_part(round_) for round_ in job.rounds.all()],
        log=[LogPart(at=entry.at, deed=entry.deed, text=entry.text) for entry in job.log.all()],
    )


def _sheet_part(sheet: MeasureSheet) -> SheetPart:
    return SheetPart(
        number=sheet.number,
        taken_on=sheet.taken_on,
        taken_by=sheet.taken_by,
        worn=sheet.worn,
        readings=[
            ReadingPart(symbol=r.symbol, text=r.text, unit=Unit(r.unit), again=[LengthIn(**one) for one in r.again])
            for r in sheet.readings.all()
        ],
    )


def _round_part(round_: Round) -> RoundPart:
    return RoundPart(
        number=round_.number,
        opened=round_.opened,
        closed=round_.closed,
        cloth=round_.cloth,
        worn=round_.worn,
        note=round_.note,
        cut_from=round_.cut_from.number,
        closed_at=round_.closed_at.number if round_.closed_at else None,
        core_version=round_.core_version,
        as_cut=PatternDoc.model_validate(round_.as_cut),
        findings=[
            FindingPart(
                uid=f.uid,
                kind=f.kind,
                side=f.side,
                movement=f.movement,
                words=f.words,
                given=f.given,
                taken=Taken(f.taken),
                remedy=f.remedy,
                steps=f.steps,
                created=f.created,
            )
            for f in round_.findings.all()
        ],
        answers=[
            AnswerPart(finding=a.finding.uid, outcome=Outcome(a.outcome), note=a.note)
            for a in round_.answers.select_related("finding")
        ],
    )


def import_job(text: bytes) -> Job:
    """Add the job of a document of at most 20 MB, with a wearer of its own.

    Raises:
        UnreadableFile: the document is damaged, foreign or contradicts itself; nothing is added then.
        UnknownName, UnreadableMeasure: a reading in it is not one.
    """
    if len(text) > LARGEST_FILE:
        raise UnreadableFile(
            f"The file has {len(text) / 1e6:.0f} MB; a job file has at most {LARGEST_FILE / 1e6:.0f} MB.",
            fix="Choose a file that was exported from a job.",
        )
    document = read_job(text)
    try:
        with transaction.atomic():
            return _added(document)
    except KeyError as error:
        raise UnreadableFile(
            f"The job file contradicts itself: it names number {error}, which it does not have.",
            fix="Take an undamaged copy; nothing was added.",
        ) from error


def read_job(text: bytes) -> JobDocument:
    """Read an `izett-job` document.

    Raises:
        UnreadableFile: it is damaged or foreign; the message says where.
    """
    try:
        _refuse_later(text)
        return JobDocument.model_validate_json(text)
    except ValidationError as error:
        first = error.errors()[0]
        place = " → ".join(str(part) for part in first["loc"]) or "its beginning"
        raise UnreadableFile(
            f"This is not a whole izett-job file: at {place}: {first['msg'].lower()}.",
            fix="Choose a file that was exported from a job; nothing was added.",
        ) from error


def _refuse_later(text: bytes) -> None:
    """Refuse a job file of a later version than this program reads.

    Raises:
        UnreadableFile: it is one.
    """
    try:
        data = json.loads(text)
    except ValueError:
        return
    if isinstance(data, dict) and data.get("format") == FORMAT and data.get("version", 1) != 1:
        raise UnreadableFile(
            f"The job file has version {data['version']!r}; this program reads version 1.",
            fix="Use a newer version of the program; nothing was added.",
        )


def _added(document: JobDocument) -> Job:
    wearer = Wearer.objects.create(**document.wearer.model_dump())
    sheets = {part.number: _add_sheet(wearer, part) for part in document.sheets}
    first = document.revisions[0]
    job = Job.objects.create(
        wearer=wearer,
        sheet=sheets[first.sheet],
        garment=document.garment,
        due=document.due,
    )
    revisions: dict[int, Revision] = {}
    for part in sorted(document.revisions, key=lambda r: r.number):
        revisions[part.number] = Revision.objects.create(
            job=job,
            number=part.number,
            parent=revisions[part.parent] if part.parent is not None else None,
            sheet=sheets[part.sheet],
            document=_with_allowances(part.recipe, document.cutting),
            why=part.why,
        )
        Revision.objects.filter(pk=revisions[part.number].pk).update(created=part.created)
    findings: dict[str, Finding] = {}
    for part in document.rounds:
        _add_round(job, part, revisions, findings)
    for entry in document.log:
        added = LogEntry.objects.create(job=job, deed=entry.deed, text=entry.text)
        LogEntry.objects.filter(pk=added.pk).update(at=entry.at)
    job.head = revisions[document.head]
    job.sheet = job.head.sheet
    job.save(update_fields=["head", "sheet"])
    Job.objects.filter(pk=job.pk).update(created=document.created)
    if not document.log:
        tell(job, "import", f"{document.garment} for {wearer.name} imported")
    return job


def _with_allowances(recipe: RecipeDoc, cutting: CuttingPart | None) -> dict[str, Any]:
    """Return a revision's recipe as it is stored, with the allowances that an older file has beside it."""
    step = allowances_step(cutting.model_dump()) if cutting else None
    known = any(one.kind == "set_allowances" for one in recipe.steps)
    if step is not None and not known:
        recipe = recipe.model_copy(update={"steps": [*recipe.steps, StepDoc(**step)]})
    return dict(recipe.model_dump(mode="json"))


def _add_sheet(wearer: Wearer, part: SheetPart) -> MeasureSheet:
    sheet = MeasureSheet.objects.create(
        wearer=wearer, number=part.number, taken_on=part.taken_on, taken_by=part.taken_by, worn=part.worn
    )
    typed = {r.symbol: TakenIn(text=r.text, unit=r.unit, again=r.again) for r in part.readings}
    write_readings(sheet, all_taken(typed))
    return sheet


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
    )
    Round.objects.filter(pk=round_.pk).update(opened=part.opened)
    for entry in part.findings:
        findings[entry.uid] = Finding.objects.create(round=round_, **entry.model_dump(mode="json", exclude={"created"}))
        Finding.objects.filter(pk=findings[entry.uid].pk).update(created=entry.created)
    for answer in part.answers:
        Answer.objects.create(
            round=round_, finding=findings[answer.finding], outcome=answer.outcome.value, note=answer.note
        )
