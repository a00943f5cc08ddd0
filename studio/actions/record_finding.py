"""Record what the muslin on the table shows, or set right what was recorded."""

from collections.abc import Callable
from uuid import UUID

from izett.fitting.working_out import refuse, turned
from studio.actions.apply_remedy import changed_by_remedy, keep_change
from studio.fittings import fitted, seen_of, typed, without_remedy
from studio.limits import MOST_FINDINGS, refuse_more
from studio.locking import changing, finding_of, job_of, round_of, tell
from studio.models import Finding, Job, Round
from studio.problems import Refusal
from studio.schemas import FindingIn
from studio.standing import look_later
from studio.state import head_of
from studio.workroom import recipe_document


def record_finding(job_id: UUID, version: int, number: int, data: FindingIn) -> Job:
    """Add a finding to an open round; the same name twice records once.

    Raises:
        Refusal: the round is closed or missing, the same was found already, or the job has moved on.
        UnknownName, ValueOutOfRange, StepRefused: the finding or an amount is not one of this garment.
    """
    job = job_of(job_id)
    round_ = round_of(job, number, to_change=True)
    if round_.findings.filter(uid=data.uid).exists():
        return job
    refuse_more(round_.findings.count() + 1, MOST_FINDINGS, "findings on one muslin")
    seen = typed(data, uid=data.uid)
    head = head_of(job)
    garment = fitted(recipe_document(head.document), head.sheet, job)
    refuse(seen, None, garment)
    turned(seen, garment)
    _refuse_twice(round_, data)
    with changing(job, version):
        Finding.objects.create(round=round_, uid=data.uid, **_fields(data, seen.given, seen.kind.movement))
        tell(job, "finding", f"Muslin {number}: {seen.kind.seen}" + (f": “{data.words}”" if data.words else ""))
    return job


def edit_finding(job_id: UUID, version: int, number: int, finding_uid: str, data: FindingIn) -> Job:
    """Set right a finding of an open round; a remedy that it has is worked again with the new amounts.

    A finding of another kind has no remedy yet: what the one before changed is taken back.

    Raises:
        Refusal: the round is closed or missing, the finding missing, or the job has moved on.
        IzettError: the finding or an amount is not one of this garment, or its remedy cannot act with it.
    """
    job = job_of(job_id)
    round_ = round_of(job, number, to_change=True)
    finding = finding_of(round_, finding_uid)
    seen = typed(data, uid=finding.uid)
    head = head_of(job)
    base = without_remedy(recipe_document(head.document), finding)
    garment = fitted(base, head.sheet, job)
    refuse(seen, None, garment)
    turned(seen, garment)
    _refuse_twice(round_, data, but=finding.uid)
    fields = _fields(data, seen.given, seen.kind.movement)
    changed = {name: value for name, value in fields.items() if getattr(finding, name) != value}
    if not changed:
        return job
    for name, value in changed.items():
        setattr(finding, name, value)
    if "kind" in changed:
        finding.remedy, finding.normal = "", ""
    works = finding.remedy or _worked_in(finding)
    change = changed_by_remedy(job, finding, finding.remedy, finding.steps) if works else None
    with changing(job, version):
        if change is not None:
            keep_change(job, finding, change)
        finding.save()
        tell(job, "finding", f"Muslin {number}: set right: {seen.kind.seen}")
    look_later(job.pk)
    return job


def withdraw_finding(job_id: UUID, version: int, number: int, finding_uid: str) -> Job:
    """Take a finding of an open round back, and what its remedy changed.

    Raises:
        Refusal: the round is closed or missing, the finding missing, or the job has moved on.
    """

    def withdrawn(finding: Finding) -> str:
        finding.delete()
        return f"withdrawn: {seen_of(finding)}"

    return _without_remedy(job_id, version, number, finding_uid, "finding", withdrawn)


def call_normal(job_id: UUID, version: int, number: int, finding_uid: str, why: str) -> Job:
    """Say that a finding is normal for this cut, and why: nothing is changed for it.

    Raises:
        Refusal: the round is closed or missing, the finding missing, or the job has moved on.
    """

    def normal(finding: Finding) -> str:
        finding.normal, finding.remedy = why, ""
        finding.save()
        return f"{seen_of(finding)}: normal for this cut: {why}"

    return _without_remedy(job_id, version, number, finding_uid, "normal", normal)


def _without_remedy(
    job_id: UUID, version: int, number: int, uid: str, deed: str, then: Callable[[Finding], str]
) -> Job:
    """Take back what the remedy of a finding changed, and do something with the finding; it says what to tell of it."""
    job = job_of(job_id)
    finding = finding_of(round_of(job, number, to_change=True), uid)
    change = changed_by_remedy(job, finding, "", ()) if _worked_in(finding) else None
    with changing(job, version):
        if change is not None:
            keep_change(job, finding, change)
        tell(job, deed, f"Muslin {number}: {then(finding)}")
    look_later(job.pk)
    return job


def _worked_in(finding: Finding) -> bool:
    """Return whether a remedy of the finding has changed the recipe."""
    return bool(finding.steps or finding.amended)


def _fields(data: FindingIn, given: object, movement: str) -> dict[str, object]:
    return {
        "kind": data.kind,
        "side": data.side,
        "movement": data.movement or movement,
        "words": data.words,
        "given": given,
        "taken": data.taken.value,
        "counted": data.counted.value if data.counted else "",
        "piece": data.piece,
        "line": data.line,
        "marked": data.marked.model_dump(mode="json") if data.marked else None,
    }


def _refuse_twice(round_: Round, data: FindingIn, *, but: str = "") -> None:
    """Let pass what was not found on this muslin already, on the same half and at the same place."""
    same = round_.findings.filter(kind=data.kind, line=data.line).exclude(uid=but)
    if any("both" in (data.side, one.side) or data.side == one.side for one in same):
        raise Refusal(
            409,
            "finding-twice",
            "That was found on this muslin already.",
            fix="Set that finding right, or withdraw it.",
        )
