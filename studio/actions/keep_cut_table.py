"""Keep what lies on a job's cutting table: its cloths, its sums, how many garments are cut."""

from uuid import UUID

from izett.cutting.worksheets import summed
from studio.cutting_schemas import CutTable, CutTableIn
from studio.lays import table_of
from studio.locking import changing, job_of, tell
from studio.models import Job


def keep_cut_table(job_id: UUID, version: int, data: CutTableIn) -> Job:
    """Keep the cutting table; plans that were kept stay, and the same again changes nothing.

    Raises:
        Refusal: the job has moved on.
        UnknownName, ValueOutOfRange: a sum is none, or has no result for its numbers.
    """
    job = job_of(job_id)
    for one in data.sums:
        summed(one.kind, one.values)
    before = table_of(job)
    after = CutTable(**dict(data), plans=before.plans)
    if after == before:
        return job
    return put_table(job, version, after, "The cutting table is laid out")


def put_table(job: Job, version: int, table: CutTable, words: str) -> Job:
    """Put a cutting table in the place of the one that a job has.

    Raises:
        Refusal: the job has moved on.
    """
    document = table.model_dump(mode="json", by_alias=True)
    with changing(job, version, adding=document):
        Job.objects.filter(pk=job.pk).update(cut_table=document)
        tell(job, "cutting", words)
    return job_of(job.id)
