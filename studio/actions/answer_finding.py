"""Answer whether an earlier remedy helped, on the muslin that is on the table now."""

from uuid import UUID

from studio.fittings import seen_of
from studio.locking import changing, job_of, round_of, tell
from studio.models import Answer, Finding, Job
from studio.problems import not_found
from studio.schemas import AnswerIn


def answer_finding(job_id: UUID, version: int, number: int, data: AnswerIn) -> Job:
    """Record the outcome; a second answer in the same round replaces the first.

    Raises:
        Refusal: the round is closed, the finding is not an earlier one, or the job has moved on.
    """
    job = job_of(job_id)
    round_ = round_of(job, number, to_change=True)
    finding = Finding.objects.filter(round__job=job, round__number__lt=number, uid=data.finding).first()
    if finding is None:
        raise not_found("earlier finding")
    with changing(job, version):
        Answer.objects.update_or_create(
            finding=finding, round=round_, defaults={"outcome": data.outcome.value, "note": data.note}
        )
        tell(job, "answer", f"Muslin {number}: {seen_of(finding)}: {data.outcome.value.replace('_', ' ')}")
    return job
