"""Record what the muslin on the table shows."""

from uuid import UUID

from izett.errors import ValueOutOfRange
from izett.fitting.finding import finding_kind, whole_amounts
from izett.units import UnreadableLength, read_length
from studio.limits import MOST_FINDINGS, refuse_more
from studio.locking import changing, job_of, round_of, tell
from studio.models import Finding, Job
from studio.schemas import FindingIn, LengthIn


def amounts_in_cm(given: dict[str, LengthIn]) -> dict[str, float]:
    """Return typed amounts in cm.

    Raises:
        ValueOutOfRange: one of them is not a length.
    """
    read: dict[str, float] = {}
    for symbol, entry in given.items():
        try:
            read[symbol] = read_length(entry.text, unit=entry.unit).cm
        except UnreadableLength as error:
            raise ValueOutOfRange(f"{symbol}: {error}.", fix="Type it again.", where=(symbol,)) from error
    return read


def record_finding(job_id: UUID, version: int, number: int, data: FindingIn) -> Job:
    """Add a finding to an open round; the same name twice records once.

    Raises:
        Refusal: the round is closed or missing, or the job has moved on.
        UnknownName, ValueOutOfRange: the finding or an amount is not one.
    """
    job = job_of(job_id)
    round_ = round_of(job, number, to_change=True)
    if round_.findings.filter(uid=data.uid).exists():
        return job
    refuse_more(round_.findings.count() + 1, MOST_FINDINGS, "findings on one muslin")
    kind = finding_kind(data.kind)
    given = amounts_in_cm(data.given)
    whole_amounts(kind, given, data.taken)
    with changing(job, version):
        Finding.objects.create(
            round=round_,
            uid=data.uid,
            kind=data.kind,
            side=data.side,
            movement=data.movement or kind.movement,
            words=data.words,
            given=given,
            taken=data.taken.value,
        )
        tell(job, "finding", f"Muslin {number}: {kind.seen}" + (f": “{data.words}”" if data.words else ""))
    return job
