"""Keep what lies on a job's cutting table: its cloths, its sums, how many garments are cut."""

from uuid import UUID

from izett.cutting.worksheets import summed
from izett.files.stacks import refuse_run
from studio.charts import chart_of
from studio.cutting_schemas import CutTable, CutTableIn, SizesOfRun
from studio.lays import table_of
from studio.locking import changing, job_of, tell
from studio.models import Job


def keep_cut_table(job_id: UUID, version: int, data: CutTableIn) -> Job:
    """Keep the cutting table; plans that were kept stay, and the same again changes nothing.

    Raises:
        Refusal: the job has moved on.
        UnknownName, ValueOutOfRange: a sum is none, or has no result for its numbers; a size is none, or there are too many.
    """
    job = job_of(job_id)
    for one in data.sums:
        summed(one.kind, one.values)
    before = table_of(job)
    after = CutTable(**dict(data), plans=before.plans)
    after.run = _with_bodies(data.run, before.run)
    if after == before:
        return job
    return put_table(job, version, after, "The cutting table is laid out")


def _with_bodies(run: SizesOfRun | None, before: SizesOfRun | None) -> SizesOfRun | None:
    """Return a run of sizes with their measures: those it has already, where the same sizes were chosen before.

    Raises:
        ValueOutOfRange: there are too many of them.
        UnknownName: there is no such chart or size.
    """
    if run is None:
        return None
    asked = SizesOfRun(chart=run.chart, sizes=list(dict.fromkeys(run.sizes)), height=run.height)
    if before is not None and before.model_copy(update={"bodies": {}}) == asked:
        return before
    refuse_run(asked.sizes)
    chart = chart_of(asked.chart)
    return asked.model_copy(update={"bodies": {size: chart.body(size, height=asked.height) for size in asked.sizes}})


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
