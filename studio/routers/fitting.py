"""Muslins: cut, judged, answered, closed."""

from typing import Annotated
from uuid import UUID, uuid4

from django.http import HttpRequest
from ninja import Query, Router, Status

from izett.catalogue import catalogue
from izett.files.recipe_json import RecipeDoc, StepDoc
from izett.finishing.sheet import sheet_pieces
from izett.fitting.finding import finding_kinds
from izett.fitting.garment import lacks
from izett.fitting.marked import guides_of, parts_of
from izett.fitting.plan import Planned, Way, plan, ways_of
from izett.fitting.pointing import Pointed, marked_on
from izett.fitting.working_out import Adding, Seen, Turned, asked_for, refuse, turned
from izett.pattern.facts import Half
from studio.actions.answer_finding import answer_finding
from studio.actions.apply_remedy import apply_remedy
from studio.actions.close_muslin import close_muslin
from studio.actions.cut_muslin import cut_muslin
from studio.actions.record_finding import call_normal, edit_finding, record_finding, withdraw_finding
from studio.drawing import drawn, piece_key
from studio.fittings import (
    added_steps,
    amended_steps,
    fitted,
    recorded,
    tried_before,
    typed,
    without_remedy,
    works_out,
)
from studio.lanes import SAVE, in_turn
from studio.locking import job_of, round_of, version_named
from studio.models import Finding
from studio.muslins import as_cut
from studio.routers.jobs import answer
from studio.schemas import (
    AmendedOut,
    AnswerIn,
    AppliesOut,
    CloseIn,
    ConflictOut,
    FactorOut,
    FindingIn,
    GuidesOut,
    JobOut,
    LineEndsOut,
    NormalIn,
    PlannedOut,
    PlannedWayOut,
    PlanOut,
    ReadOut,
    RemedyIn,
    RoundIn,
    TurnedOut,
    WorkedOut,
    WorkIn,
)
from studio.state import head_of, readable_recipe
from studio.table_schemas import PieceOut
from studio.wire import IfMatch, RowInPath

router = Router(tags=["fitting"])


@router.get("/jobs/{job_id}/findings", response=list[AppliesOut])
def findings_here(request: HttpRequest, job_id: UUID) -> list[AppliesOut]:
    """Say of each kind of finding whether this garment can show it."""
    job = job_of(job_id)
    head = head_of(job)
    garment = fitted(readable_recipe(job), head.sheet, job)
    return [
        AppliesOut(
            key=kind.key,
            missing=lacks(garment, kind.needs),
            inputs=[entry.symbol for entry in asked_for(kind, garment)],
        )
        for kind in finding_kinds().values()
    ]


@router.get("/jobs/{job_id}/guides", response=GuidesOut)
def guides(
    request: HttpRequest,
    job_id: UUID,
    piece: Annotated[str, Query(max_length=200)],
    line: Annotated[str, Query(max_length=200)],
    side: Half = Half.BOTH,
) -> GuidesOut:
    """Say from where the marks of a line of a piece are measured, and how the line lies now."""
    job = job_of(job_id)
    garment = fitted(readable_recipe(job), head_of(job).sheet, job)
    own, name, _ = marked_on(garment, Pointed(piece, line), side)
    from_ = guides_of(own, name)
    return GuidesOut(
        origin=[from_.upright, from_.level],
        across_from=from_.across_from,
        along_from=from_.along_from,
        parts=[
            LineEndsOut(
                starts=list(from_.measured(part.ends[0])), ends=list(from_.measured(part.ends[1])), length=part.length
            )
            for part in parts_of(own, name)
        ],
    )


@router.post("/jobs/{job_id}/remedies", response=list[WorkedOut])
def remedies(request: HttpRequest, job_id: UUID, data: WorkIn) -> list[WorkedOut]:
    """Work out and try the remedies of a finding on a job's garment; nothing is kept."""
    job = job_of(job_id)
    head = head_of(job)
    document = readable_recipe(job)
    own = Finding.objects.filter(round__job=job, uid=data.finding).first() if data.finding else None
    if own is not None:
        document = without_remedy(document, own)
    garment = fitted(document, head.sheet, job)
    last = job.rounds.order_by("-number").values_list("number", flat=True).first() or 0
    seen = typed(data, tried=tried_before(job, data.kind, last))
    refuse(seen, None, garment)
    amounts = list(turned(seen, garment).values())
    ways = ways_of(seen, garment, lambda recipe: works_out(recipe, job))
    return [_worked(way, seen, amounts, document) for way in ways]


def _worked(way: Way, seen: Seen, amounts: list[Turned], document: RecipeDoc) -> WorkedOut:
    remedy = way.remedy
    out = WorkedOut(
        key=remedy.key,
        title=remedy.title,
        reason=remedy.reason,
        sum_text="",
        sum_value=0.0,
        sum_label=remedy.sum_label,
        edges=remedy.edges_on(seen.half),
        steps=[],
        amends=[],
        under=False,
        was_tried=way.was_tried,
    )
    if way.refused is not None:
        return out.model_copy(update={"refused": way.refused.message, "fix": way.refused.fix})
    assert way.worked is not None
    deeds, came = way.worked.deeds, way.came
    names = [f"s{uuid4().hex[:12]}" for deed in deeds if isinstance(deed, Adding)]
    before = {step.uid: step for step in document.steps}
    changed = {
        "sum_text": way.worked.sum_text,
        "sum_value": way.worked.sum_value,
        "steps": added_steps(deeds, names, seen.kind.seen),
        "amends": [
            AmendedOut(step=step, words=_amended_words(before[step.uid], step))
            for step in amended_steps(deeds, document)
        ],
        "under": way.worked.under,
        "turned": [
            TurnedOut(
                label=one.label,
                given=one.given,
                ways=[FactorOut(words=words, by=by) for words, by in one.ways],
                whole=one.whole,
                unit=one.unit,
            )
            for one in amounts
        ],
    }
    if came is not None:
        changed |= {
            "read": [
                ReadOut(what=name, asked=asked, came=came.read[name], worn=came.worn[name])
                for name, asked in way.worked.promised.items()
            ],
            "farthest": came.moved[0].lineage if came.moved else "",
            "farthest_by": came.moved[0].distance if came.moved else 0.0,
            "touched": list(came.touched),
            "follows": list(came.follows),
            "odd": list(came.odd),
            "failing": came.failing,
            "beyond": came.beyond,
        }
    return out.model_copy(update=changed)


def _amended_words(before: StepDoc, after: StepDoc) -> list[str]:
    """Return a step of the style in words as it is and as it would be."""
    operation = catalogue().operations[before.kind]
    return [
        operation.describe(operation.params.model_validate(operation.upgraded(step.params, step.version)))
        for step in (before, after)
    ]


@router.get("/jobs/{job_id}/rounds/{number}/plan", response=PlanOut)
def round_plan(request: HttpRequest, job_id: UUID, number: RowInPath) -> PlanOut:
    """Return the plan of a round: its findings in the order of work, on the garment without what their remedies did."""
    job = job_of(job_id)
    round_ = round_of(job, number)
    head = head_of(job)
    found = [finding for finding in round_.findings.all() if not finding.normal and finding.kind in finding_kinds()]
    document = readable_recipe(job)
    for finding in found:
        document = without_remedy(document, finding)
    garment = fitted(document, head.sheet, job)
    chosen = {finding.uid: finding.remedy for finding in found if finding.remedy}
    seen = [recorded(finding, tried=tried_before(job, finding.kind, number)) for finding in found]
    made = plan(seen, garment.recipe, garment.evaluation, lambda recipe: works_out(recipe, job), chosen=chosen)
    return PlanOut(
        order=[
            PlannedOut(
                finding=one.seen.uid,
                seen=one.seen.kind.seen,
                remedy=one.chosen.remedy.key if one.chosen else "",
                title=one.chosen.remedy.title if one.chosen else "",
                refused=_why_not(one),
                ways=[
                    PlannedWayOut(
                        remedy=way.remedy.key,
                        title=way.remedy.title,
                        refused=way.refused.message if way.refused else "",
                    )
                    for way in one.ways
                ],
            )
            for one in made.findings
        ],
        together=[list(one.uids) for one in made.deeds if len(one.uids) > 1],
        conflicts=[ConflictOut(findings=list(one.uids), words=one.words) for one in made.conflicts],
        touched=list(made.came.touched) if made.came else [],
        follows=list(made.came.follows) if made.came else [],
        odd=list(made.came.odd) if made.came else [],
    )


def _why_not(planned: Planned) -> str:
    if planned.refused is not None:
        return planned.refused.message
    if planned.chosen is None and planned.ways:
        return next((way.refused.message for way in planned.ways if way.refused), "")
    return ""


@router.post("/jobs/{job_id}/rounds", response={201: JobOut})
@in_turn(SAVE)
def add_round(request: HttpRequest, job_id: UUID, data: RoundIn, if_match: IfMatch = None) -> Status[JobOut]:
    """Cut a muslin from the pattern as it is now."""
    return Status(201, answer(cut_muslin(job_id, version_named(if_match), data)))


@router.get("/jobs/{job_id}/rounds/{number}/pattern", response=list[PieceOut])
def round_pattern(request: HttpRequest, job_id: UUID, number: RowInPath) -> list[PieceOut]:
    """Return the pattern as it was cut for a muslin."""
    return [drawn(sheet, piece_key(sheet, cut=False), cut=False) for sheet in sheet_pieces(as_cut(job_id, number))]


@router.post("/jobs/{job_id}/rounds/{number}/findings", response={201: JobOut})
@in_turn(SAVE)
def add_finding(
    request: HttpRequest,
    job_id: UUID,
    number: RowInPath,
    data: FindingIn,
    if_match: IfMatch = None,
) -> Status[JobOut]:
    """Record what the muslin shows."""
    return Status(201, answer(record_finding(job_id, version_named(if_match), number, data)))


@router.put("/jobs/{job_id}/rounds/{number}/findings/{uid}", response=JobOut)
@in_turn(SAVE)
def put_finding(
    request: HttpRequest,
    job_id: UUID,
    number: RowInPath,
    uid: str,
    data: FindingIn,
    if_match: IfMatch = None,
) -> JobOut:
    """Set right a finding of an open round."""
    return answer(edit_finding(job_id, version_named(if_match), number, uid, data))


@router.delete("/jobs/{job_id}/rounds/{number}/findings/{uid}", response=JobOut)
@in_turn(SAVE)
def delete_finding(
    request: HttpRequest,
    job_id: UUID,
    number: RowInPath,
    uid: str,
    if_match: IfMatch = None,
) -> JobOut:
    """Withdraw a finding of an open round, with what its remedy changed."""
    return answer(withdraw_finding(job_id, version_named(if_match), number, uid))


@router.post("/jobs/{job_id}/rounds/{number}/findings/{uid}/normal", response=JobOut)
@in_turn(SAVE)
def post_normal(
    request: HttpRequest,
    job_id: UUID,
    number: RowInPath,
    uid: str,
    data: NormalIn,
    if_match: IfMatch = None,
) -> JobOut:
    """Say that a finding is normal for this cut."""
    return answer(call_normal(job_id, version_named(if_match), number, uid, data.why))


@router.post("/jobs/{job_id}/rounds/{number}/findings/{uid}/remedy", response=JobOut)
@in_turn(SAVE)
def post_remedy(
    request: HttpRequest,
    job_id: UUID,
    number: RowInPath,
    uid: str,
    data: RemedyIn,
    if_match: IfMatch = None,
) -> JobOut:
    """Apply a remedy to the paper."""
    return answer(apply_remedy(job_id, version_named(if_match), number, uid, data))


@router.post("/jobs/{job_id}/rounds/{number}/answers", response=JobOut)
@in_turn(SAVE)
def post_answer(
    request: HttpRequest,
    job_id: UUID,
    number: RowInPath,
    data: AnswerIn,
    if_match: IfMatch = None,
) -> JobOut:
    """Say whether an earlier remedy helped."""
    return answer(answer_finding(job_id, version_named(if_match), number, data))


@router.post("/jobs/{job_id}/rounds/{number}/close", response=JobOut)
@in_turn(SAVE)
def post_close(
    request: HttpRequest,
    job_id: UUID,
    number: RowInPath,
    data: CloseIn,
    if_match: IfMatch = None,
) -> JobOut:
    """Close a muslin."""
    return answer(close_muslin(job_id, version_named(if_match), number, data))
