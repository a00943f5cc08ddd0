"""Set what the sheets are cut for: purpose and single lines' allowances."""

from uuid import UUID

from izett.finishing.allowances import Allowances, purposes
from studio.locking import changing, job_of, tell
from studio.models import Job
from studio.schemas import CuttingIn


def set_cutting(job_id: UUID, version: int, data: CuttingIn) -> Job:
    """Keep the allowances with the job.

    Raises:
        UnknownName, ValueOutOfRange: the purpose or a width is not one.
        Refusal: the job has moved on.
    """
    Allowances(data.purpose, data.by_lineage)
    job = job_of(job_id)
    if job.cutting == data.model_dump():
        return job
    with changing(job, version):
        job.cutting = data.model_dump()
        job.save(update_fields=["cutting"])
        tell(job, "cutting", f"Seam allowances: {purposes()[data.purpose].title.lower()}")
    return job
