"""Leave a note to look at a job again: the bench says it from that day on."""

from datetime import date, timedelta
from uuid import UUID

from studio.locking import changing, job_of, tell
from studio.models import Job


def look_again(job_id: UUID, version: int, words: str, on: date | None) -> Job:
    """Leave a note for a day, tomorrow where none is named; without words it is taken away.

    Raises:
        Refusal: the job has moved on.
    """
    job = job_of(job_id)
    day = (on or date.today() + timedelta(days=1)) if words else None
    if (job.look_again, job.look_again_on) == (words, day):
        return job
    with changing(job, version):
        Job.objects.filter(pk=job.pk).update(look_again=words, look_again_on=day)
        tell(job, "look_again", f"Look again: {words}" if words else "Looked again")
    return job
