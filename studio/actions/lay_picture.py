"""Lay a traced picture under a panel of a job, or take it away."""

from uuid import UUID

from studio.limits import MOST_PHOTOS_OF_A_JOB, refuse_more
from studio.locking import changing, job_of, tell
from studio.models import Job, Photo
from studio.problems import not_found
from studio.storage import incoming, photos
from studio.trace_schemas import LayIn


def lay_picture(job_id: UUID, version: int, data: LayIn) -> Job:
    """Keep the picture of a panel with the job; one picture lies under a panel.

    Raises:
        Refusal: the picture is not kept any more, there are too many, or the job has moved on.
    """
    job = job_of(job_id)
    if Photo.objects.filter(uid=data.picture).exists():
        return job
    others = job.pictures.exclude(lies__panel=data.lies.panel)
    refuse_more(others.count() + 1, MOST_PHOTOS_OF_A_JOB, "pictures under panels")
    made = photos.made_safe(incoming.read(data.picture))
    with changing(job, version, adding=made.jpeg.hex()):
        job.pictures.filter(lies__panel=data.lies.panel).delete()
        photo = Photo.objects.create(
            uid=data.picture,
            job=job,
            lies=data.lies.model_dump(mode="json"),
            width=made.width,
            height=made.height,
            size=len(made.jpeg),
        )
        photos.keep(photo, made.jpeg)
        tell(job, "photo", f"Traced: a picture lies under the {data.lies.panel.replace('_', ' ')}")
    return job


def take_picture_away(job_id: UUID, version: int, uid: UUID) -> Job:
    """Delete the picture under a panel, for good.

    Raises:
        Refusal: there is none, or the job has moved on.
    """
    job = job_of(job_id)
    photo = job.pictures.filter(uid=uid).first()
    if photo is None:
        raise not_found("picture")
    with changing(job, version):
        photo.delete()
        tell(job, "photo", f"The picture under the {photo.lies['panel'].replace('_', ' ')} was taken away")
    return job
