"""The bench and the jobs: open, revise, undo, redo, delete, carry out and in."""

from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import File, Router, Status
from ninja.files import UploadedFile

from studio.actions.delete_job import delete_job
from studio.actions.move_head import move_head
from studio.actions.open_job import open_job
from studio.actions.revise import revise
from studio.bench import tickets
from studio.carrying.back import import_job
from studio.carrying.out import as_text, job_document
from studio.downloads import attachment, filename, files
from studio.lanes import SAVE, in_turn
from studio.limits import LARGEST_FILE
from studio.locking import job_of, version_named
from studio.models import Job
from studio.schemas import JobIn, JobOut, MoveIn, RevisionIn, TicketOut
from studio.standing import is_known, look_later
from studio.state import job_state
from studio.wire import IfMatch

router = Router(tags=["jobs"])


def answer(job: Job) -> JobOut:
    """Return the job afresh, as every deed does."""
    return job_state(job_of(job.id))


@router.get("/bench", response=list[TicketOut])
def bench(request: HttpRequest) -> list[TicketOut]:
    """List the jobs as tickets: due first, then the ones touched last."""
    return tickets()


@router.post("/jobs", response={201: JobOut})
@in_turn(SAVE)
def add_job(request: HttpRequest, data: JobIn) -> Status[JobOut]:
    """Open a job."""
    return Status(201, answer(open_job(data)))


@router.post("/jobs/import", response={201: JobOut})
def carry_in(request: HttpRequest, file: File[UploadedFile]) -> Status[JobOut]:
    """Add the job of an izett-job file."""
    return Status(201, answer(import_job(file.read(LARGEST_FILE + 1))))


@router.get("/jobs/{job_id}", response=JobOut)
def job(request: HttpRequest, job_id: UUID) -> JobOut:
    """Return a job, whole."""
    found = job_of(job_id)
    state = job_state(found)
    if not is_known(found):
        look_later(found.pk)
    return state


@router.put("/jobs/{job_id}/recipe", response=JobOut)
@in_turn(SAVE)
def put_recipe(request: HttpRequest, job_id: UUID, data: RevisionIn, if_match: IfMatch = None) -> HttpResponse:
    """Give the job a new state of its recipe."""
    # Made very often: what the deed has read is not read again, and the answer not validated a second time.
    state = job_state(revise(job_id, version_named(if_match), data))
    return HttpResponse(state.model_dump_json(), content_type="application/json")


@router.post("/jobs/{job_id}/head", response=JobOut)
@in_turn(SAVE)
def post_head(request: HttpRequest, job_id: UUID, data: MoveIn, if_match: IfMatch = None) -> JobOut:
    """Undo or redo."""
    return answer(move_head(job_id, version_named(if_match), data.way))


@router.delete("/jobs/{job_id}", response={204: None})
def remove_job(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """Delete a job with its muslins and its story, for good; the wearer and the sheets stay."""
    delete_job(job_id)
    return HttpResponse(status=204)


@router.get("/jobs/{job_id}/export", openapi_extra=files("application/json"))
def carry_out(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """Return the whole job as an izett-job file; one that cannot be read any more as it is stored."""
    document = job_document(job_id)
    content = as_text(document)
    return attachment(content, "application/json", f"{filename(document['garment'])}.izett-job.json")
