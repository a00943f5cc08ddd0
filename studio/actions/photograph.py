"""Put a photo beside a finding of an open muslin, or take it away."""

from uuid import UUID

from studio.fittings import seen_of
from studio.limits import MOST_PHOTOS, MOST_PHOTOS_OF_A_JOB, refuse_more
from studio.locking import changing, finding_of, job_of, round_of, tell
from studio.models import Job, Photo
from studio.problems import not_found
from studio.storage import photos


def add_photo(job_id: UUID, version: int, number: int, finding_uid: str, uid: UUID, sent: bytes) -> Job:
    """Keep a photo of what was found; the same name twice keeps one.

    Raises:
        Refusal: the picture cannot be kept, there are too many, the round is closed, or the job has moved on.
    """
    job = job_of(job_id)
    finding = finding_of(round_of(job, number, to_change=True), finding_uid)
    if Photo.objects.filter(uid=uid).exists():
        return job
    refuse_more(finding.photos.count() + 1, MOST_PHOTOS, "photos of one finding")
    held = Photo.objects.filter(finding__round__job=job).count()
    refuse_more(held + 1, MOST_PHOTOS_OF_A_JOB, "photos on one ticket")
    made = photos.made_safe(sent)
    with changing(job, version, adding=made.jpeg.hex()):
        photo = Photo.objects.create(
            uid=uid, finding=finding, width=made.width, height=made.height, size=len(made.jpeg)
        )
        photos.keep(photo, made.jpeg)
        tell(job, "photo", f"Muslin {number}: a photo of “{seen_of(finding)}”")
    return job


def remove_photo(job_id: UUID, version: int, number: int, finding_uid: str, uid: UUID) -> Job:
    """Delete a photo, for good.

    Raises:
        Refusal: there is none, the round is closed, or the job has moved on.
    """
    job = job_of(job_id)
    finding = finding_of(round_of(job, number, to_change=True), finding_uid)
    photo = finding.photos.filter(uid=uid).first()
    if photo is None:
        raise not_found("photo")
    with changing(job, version):
        photo.delete()
        tell(job, "photo", f"Muslin {number}: a photo of “{seen_of(finding)}” taken away")
    return job
