"""Keep what of a draping session is prepared: the drape, what the form measures, what is done already."""

from uuid import UUID

from izett.draping.tearing import drapes
from izett.errors import UnknownName
from studio.form_schemas import OnForm
from studio.locking import changing, job_of, tell
from studio.models import Job


def prepare_drape(job_id: UUID, version: int, form: OnForm) -> Job:
    """Keep a draping session as it is prepared; the same again changes nothing.

    Raises:
        Refusal: the job has moved on.
        UnknownName: there is no such drape.
    """
    job = job_of(job_id)
    if form.drape and form.drape not in drapes():
        raise UnknownName(
            f"There is nothing to drape that is called “{form.drape}”.",
            fix=f"Available: {', '.join(drapes())}.",
            where=("drape",),
        )
    document = form.model_dump(mode="json")
    if job.on_form == document:
        return job
    begun = not job.on_form and bool(form.drape)
    with changing(job, version):
        Job.objects.filter(pk=job.pk).update(on_form=document)
        if begun:
            tell(job, "drape", f"A draping session is prepared: {drapes()[form.drape].title.lower()}")
    return job_of(job_id)
