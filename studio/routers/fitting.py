"""Muslins: cut, judged, answered, closed."""

from uuid import UUID, uuid4

from django.http import HttpRequest
from ninja import Header, Router, Status

from izett.finishing.sheet import sheet_pieces
from izett.fitting.finding import finding_kind, worked
from izett.pattern.facts import Half
from studio.actions.answer_finding import answer_finding
from studio.actions.apply_remedy import apply_remedy, fit_step
from studio.actions.close_muslin import close_muslin
from studio.actions.cut_muslin import cut_muslin
from studio.actions.record_finding import amounts_in_cm, record_finding
from studio.drawing import drawn, piece_key
from studio.lanes import SAVE, in_turn
from studio.locking import version_named
from studio.muslins import as_cut
from studio.routers.jobs import answer
from studio.schemas import AnswerIn, CloseIn, FindingIn, JobOut, RemedyIn, RoundIn, WorkedOut, WorkIn
from studio.table_schemas import PieceOut
from studio.wire import RowInPath

router = Router(tags=["fitting"])


@router.post("/remedies", response=list[WorkedOut])
def remedies(request: HttpRequest, data: WorkIn) -> list[WorkedOut]:
    """Work out the remedies of a finding for the amounts given; nothing is kept."""
    kind = finding_kind(data.kind)
    given = amounts_in_cm(data.given)
    found = []
    for remedy in kind.remedies:
        plan = worked(kind, remedy, given, data.taken, Half(data.side))
        found.append(
            WorkedOut(
                key=remedy.key,
                title=remedy.title,
                reason=remedy.reason,
                sum_text=plan.sum_text,
                sum_value=plan.sum_value,
                sum_label=remedy.sum_label,
                edges=remedy.edges_on(Half(data.side)),
                follows=list(remedy.follows),
                steps=[
                    fit_step(f"s{uuid4().hex[:12]}", step, params, data.side, kind.seen) for step, params in plan.steps
                ],
            )
        )
    return found


@router.post("/jobs/{job_id}/rounds", response={201: JobOut})
@in_turn(SAVE)
def add_round(
    request: HttpRequest, job_id: UUID, data: RoundIn, if_match: str | None = Header(None, alias="If-Match")
) -> Status[JobOut]:
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
    if_match: str | None = Header(None, alias="If-Match"),
) -> Status[JobOut]:
    """Record what the muslin shows."""
    return Status(201, answer(record_finding(job_id, version_named(if_match), number, data)))


@router.post("/jobs/{job_id}/rounds/{number}/findings/{uid}/remedy", response=JobOut)
@in_turn(SAVE)
def post_remedy(
    request: HttpRequest,
    job_id: UUID,
    number: RowInPath,
    uid: str,
    data: RemedyIn,
    if_match: str | None = Header(None, alias="If-Match"),
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
    if_match: str | None = Header(None, alias="If-Match"),
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
    if_match: str | None = Header(None, alias="If-Match"),
) -> JobOut:
    """Close a muslin."""
    return answer(close_muslin(job_id, version_named(if_match), number, data))
