"""Tracing: the printed sheets, a picture sent, its outline read, the picture laid under its panel; drawings read."""

from base64 import b64decode
from typing import Literal
from uuid import UUID, uuid4

from django.http import HttpRequest, HttpResponse
from ninja import File, Router, Status, UploadedFile

from izett.errors import UnreadableFile
from izett.units import Unit
from studio.actions.lay_picture import lay_picture, take_picture_away
from studio.downloads import attachment, files
from studio.lanes import LOOK, printing, turn
from studio.locking import job_of, version_named
from studio.long_work import desk
from studio.long_work.schemas import WorkOut
from studio.routers.jobs import answer
from studio.schemas import JobOut
from studio.storage import incoming, photos
from studio.trace_schemas import LayIn, PictureOut, ShapesIn, ShapesOut, TraceIn
from studio.tracing import named, question_of, shapes_of
from studio.wire import IfMatch

router = Router(tags=["tracing"])


@router.get("/trace-sheets", openapi_extra=files("application/pdf"))
def print_sheets(request: HttpRequest, paper: Literal["a4", "letter"] = "a4", unit: Unit = Unit.CM) -> HttpResponse:
    """Return the printed sheets that tell a photo its scale, as a PDF."""
    # What draws the sheets takes a while to load.
    from izett.files.trace_sheets_pdf import write_trace_sheets_pdf  # noqa: PLC0415

    with printing():
        content = write_trace_sheets_pdf(paper=paper, unit=unit)
    return attachment(content, "application/pdf", f"sheets-to-trace-by-{paper}.pdf")


@router.post("/jobs/{job_id}/pictures", response={201: PictureOut})
def post_picture(request: HttpRequest, job_id: UUID, file: File[UploadedFile]) -> Status[PictureOut]:
    """Send a picture to be traced; it is kept for a day, and nothing of it is shown to anybody."""
    job_of(job_id)
    sent = file.read(photos.LARGEST + 1)
    width, height = photos.looked_at(sent)
    uid = uuid4()
    incoming.keep(uid, sent)
    return Status(201, PictureOut(uid=uid, width=width, height=height))


@router.post("/jobs/{job_id}/trace", response={202: WorkOut})
def trace(request: HttpRequest, job_id: UUID, data: TraceIn) -> Status[WorkOut]:
    """Begin to trace a picture; what comes of it is a proposal, and nothing of the job is changed."""
    job = job_of(job_id)
    work = desk.begin("trace", question_of(data), uid=data.uid, place=named(data.picture), wearer=job.wearer)
    return Status(202, WorkOut.model_validate(work))


@router.post("/jobs/{job_id}/under-panels", response={201: JobOut})
def lay(request: HttpRequest, job_id: UUID, data: LayIn, if_match: IfMatch = None) -> Status[JobOut]:
    """Keep a traced picture under its panel."""
    with printing():
        return Status(201, answer(lay_picture(job_id, version_named(if_match), data)))


@router.delete("/jobs/{job_id}/under-panels/{picture}", response=JobOut)
def take_away(request: HttpRequest, job_id: UUID, picture: UUID, if_match: IfMatch = None) -> JobOut:
    """Delete the picture under a panel, for good."""
    return answer(take_picture_away(job_id, version_named(if_match), picture))


@router.post("/shapes", response=ShapesOut)
def post_shapes(request: HttpRequest, data: ShapesIn) -> ShapesOut:
    """Read the pieces that a drawing has; nothing is kept."""
    try:
        content = b64decode(data.content, validate=True)
    except ValueError as error:
        raise UnreadableFile("The file did not arrive whole.", fix="Send it again.") from error
    with turn(LOOK):
        return ShapesOut(given=shapes_of(data, content))
