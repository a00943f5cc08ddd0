"""A job as the screens need it, and a ticket as the bench shows it."""

from collections import Counter
from typing import Any

from django.db.models import Prefetch, Q, prefetch_related_objects
from pydantic import ValidationError

from izett.catalogue import catalogue
from izett.files.recipe_json import RecipeDoc
from izett.fitting.finding import Outcome
from izett.measuring.measure import read_measure
from izett.measuring.sheet import Sheet
from izett.measuring.taking import Taken
from izett.rules.sheet import Allowance, Rule
from izett.units import Unit
from studio.fittings import marks_of, remedy_title, seen_of
from studio.form_schemas import OnForm
from studio.models import Finding, HouseRule, Job, MeasureSheet, Reading, Revision, Round, SheetUnderWay, Wearer
from studio.problems import Refusal
from studio.schemas import (
    AnswerOut,
    FindingOut,
    HouseRuleOut,
    JobOut,
    LogOut,
    PhotoOut,
    ReadingOut,
    RoundOut,
    SheetOut,
    UnderWayOut,
    WearerOut,
)
from studio.standing import refusal_of
from studio.trace_schemas import Lies, UnderPanelOut
from studio.workroom import recipe_document


def sheet_state(sheet: MeasureSheet) -> SheetOut:
    """Return a sheet with its readings as typed."""
    return SheetOut(
        id=sheet.pk,
        number=sheet.number,
        taken_on=sheet.taken_on,
        taken_by=sheet.taken_by,
        worn=sheet.worn,
        readings=[
            ReadingOut(symbol=r.symbol, text=r.text, unit=r.unit, again=r.again, cm=r.cm) for r in sheet.readings.all()
        ],
    )


def core_sheet(sheet: MeasureSheet) -> Sheet:
    """Return a kept sheet as the core knows it, each reading as it was typed."""
    taken = {
        r.symbol: Taken(
            r.symbol,
            tuple(read_measure(r.symbol, one["text"], unit=Unit(one["unit"])) for one in (_first(r), *r.again)),
        )
        for r in sheet.readings.all()
    }
    return Sheet(taken, sheet.taken_on, sheet.taken_by, sheet.worn, sheet.wearer.name)


def _first(reading: Reading) -> dict[str, str]:
    return {"text": reading.text, "unit": reading.unit}


def under_way_state(wearer: Wearer) -> UnderWayOut | None:
    """Return the wearer's sheet under way, where there is one."""
    found: SheetUnderWay | None = getattr(wearer, "under_way", None)
    return under_way_out(found) if found is not None else None


def under_way_out(kept: SheetUnderWay) -> UnderWayOut:
    """Return a sheet under way as it was kept."""
    return UnderWayOut(**{**kept.document, "version": kept.version}, saved=kept.saved)


def wearer_state(wearer: Wearer, *, read: MeasureSheet | None = None) -> WearerOut:
    """Return a wearer with the newest sheet; one that was read already is not read again."""
    sheets = list(wearer.sheets.order_by("-number").values_list("pk", flat=True))
    newest = read
    if read is None or sheets[:1] != [read.pk]:
        newest = wearer.sheets.filter(pk__in=sheets[:1]).first()
    return WearerOut(
        id=wearer.id,
        name=wearer.name,
        note=wearer.note,
        size=wearer.size,
        sheets=len(sheets),
        newest=sheet_state(newest) if newest else None,
        under_way=under_way_state(wearer),
    )


def head_of(job: Job) -> Revision:
    """Return the revision that a job stands at (every job has one from its start)."""
    if job.head is None:
        raise RuntimeError(f"job {job.id} has no revision")
    return job.head


def readable_recipe(job: Job) -> RecipeDoc:
    """Return the recipe that a job stands at.

    Raises:
        Refusal: this version of the program cannot read it; the job itself stays as it is.
    """
    try:
        return recipe_document(head_of(job).document)
    except ValidationError as error:
        raise Refusal(
            422,
            "job-unreadable",
            f"The recipe of “{job.garment}” cannot be read: {refusal_of(error)}.",
            fix="Export the job as it is, from the bench, for a version of the program that can read it; or delete it.",
        ) from error


def ways_from(job: Job) -> tuple[Revision | None, Revision | None]:
    """Return the revisions that undo and redo go to.

    Undo goes to the parent, unless a muslin stands on the present one; redo to the newest made from it.
    """
    head = head_of(job)
    beside = Revision.objects.filter(Q(pk=head.parent_id) | Q(parent=head)).defer("document", "standing")
    parent, newest = None, None
    for revision in beside.order_by("number"):
        if revision.pk == head.parent_id:
            parent = revision
        else:
            newest = revision
    stands = any(head.pk in (round_.cut_from_id, round_.closed_at_id) for round_ in job.rounds.all())
    return (None if stands else parent), newest


def job_state(job: Job) -> JobOut:
    """Return a job, whole."""
    head = head_of(job)
    recipe = readable_recipe(job)
    uids = {step["uid"] for step in head.document["steps"] if step.get("on", True)}
    rounds = list(job.rounds.all())
    answered = Prefetch("findings__answers__round", Round.objects.defer("as_cut"))
    prefetch_related_objects(rounds, answered, "findings__photos")
    cut = {pk for round_ in rounds for pk in (round_.cut_from_id, round_.closed_at_id)}
    numbers = dict(job.revisions.filter(pk__in=cut).values_list("pk", "number")) if cut else {}
    undo, redo = ways_from(job)
    spells = list(job.spells.all())
    spent: Counter[int | None] = Counter()
    for spell in spells:
        spent[spell.round] += spell.minutes or 0
    return JobOut(
        id=job.id,
        version=job.version,
        garment=job.garment,
        due=job.due,
        wearer=wearer_state(job.wearer, read=head.sheet),
        sheet=sheet_state(head.sheet),
        revision=head.number,
        recipe=recipe,
        can_undo=undo is not None,
        can_redo=redo is not None,
        undo_words=head.why if undo else "",
        redo_words=redo.why if redo else "",
        rounds=[_round_state(round_, rounds, numbers, uids, spent[round_.number]) for round_ in rounds],
        log=[LogOut(at=at, deed=deed, text=text) for at, deed, text in job.log.values_list("at", "deed", "text")],
        look_again=job.look_again,
        look_again_on=job.look_again_on,
        minutes=spent.total(),
        clock=next((spell.began for spell in spells if spell.minutes is None), None),
        on_form=OnForm.model_validate(job.on_form or {}),
        pictures=[
            UnderPanelOut(uid=photo.uid, width=photo.width, height=photo.height, lies=Lies.model_validate(photo.lies))
            for photo in job.pictures.all()
        ],
    )


def _round_state(round_: Round, rounds: list[Round], numbers: dict[int, int], uids: set[str], minutes: int) -> RoundOut:
    return RoundOut(
        number=round_.number,
        opened=round_.opened,
        closed=round_.closed,
        cloth=round_.cloth,
        worn=round_.worn,
        note=round_.note,
        cut_from=numbers[round_.cut_from_id],
        closed_at=numbers.get(round_.closed_at_id),
        prepared=round_.prepared,
        watched=round_.watched,
        pins_in=round_.pins_in,
        pins_out=round_.pins_out,
        minutes=minutes,
        findings=[finding_state(finding, uids) for finding in round_.findings.all()],
        asks=_asks(rounds, round_.number, uids),
    )


def _asks(rounds: list[Round], number: int, uids: set[str]) -> list[FindingOut]:
    return [
        finding_state(finding, uids)
        for earlier in rounds
        if earlier.number < number
        for finding in earlier.findings.all()
        if _still_asked(finding, number, uids)
    ]


def asked_at(job: Job, number: int) -> list[FindingOut]:
    """Return the earlier findings that the muslin of a number asks again, whether it is cut already or not."""
    uids = {step["uid"] for step in head_of(job).document["steps"] if step.get("on", True)}
    return _asks(list(job.rounds.all()), number, uids)


def _still_asked(finding: Finding, number: int, uids: set[str]) -> bool:
    """Return whether a finding is asked about at a round: until an earlier round found it solved.

    A remedy that was taken back helped nothing: it is not asked about, unless that was answered on this round.
    """
    if finding.normal:
        return False
    taken_back = bool(finding.steps) and not uids & set(finding.steps)
    if taken_back and not any(answer.round.number == number for answer in finding.answers.all()):
        return False
    return not any(
        answer.outcome == Outcome.SOLVED and answer.round.number < number for answer in finding.answers.all()
    )


def finding_state(finding: Finding, uids: set[str]) -> FindingOut:
    """Return a finding; `uids` are the steps that the job's recipe works now."""
    return FindingOut(
        uid=finding.uid,
        kind=finding.kind,
        seen=seen_of(finding),
        side=finding.side,
        movement=finding.movement,
        words=finding.words,
        given=finding.given,
        taken=finding.taken,
        counted=finding.counted,
        piece=finding.piece,
        line=finding.line,
        marked=marks_of(finding),
        normal=finding.normal,
        remedy=finding.remedy,
        remedy_title=remedy_title(finding),
        steps=finding.steps,
        amended=[one["uid"] for one in finding.amended],
        applied=bool(finding.remedy) and all(uid in uids for uid in finding.steps),
        round=finding.round.number,
        answers=[AnswerOut(round=a.round.number, outcome=a.outcome, note=a.note) for a in finding.answers.all()],
        photos=[
            PhotoOut(uid=photo.uid, width=photo.width, height=photo.height, taken=photo.taken)
            for photo in finding.photos.all()
        ],
    )


def house_rule_state(rule: HouseRule) -> HouseRuleOut:
    """Return a house rule beside what it replaces; a rule that no block has any more is shown by its symbol."""
    entry = next(catalogue().entries(rule.symbol), None)
    usual = ""
    if isinstance(entry, Allowance):
        usual = f"{entry.default:g} {entry.unit}".strip()
    elif isinstance(entry, Rule):
        usual = entry.ways[-1].formula.text
    elif entry is not None:
        usual = entry.condition
    return HouseRuleOut(
        symbol=rule.symbol,
        label=entry.label if entry else rule.symbol.replace("_", " "),
        unit=entry.unit if entry else "",
        value=rule.value,
        usual=usual,
        reason=rule.reason,
        since=rule.since,
    )


def document_of(data: Any) -> dict[str, Any]:
    """Return a recipe document as plain data for the database."""
    return dict(data.model_dump(mode="json"))
