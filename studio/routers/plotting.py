"""The plotter: what is sent to it, how its queue stands, what the pen has drawn."""

from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import File, Query, Router, Status, UploadedFile

from izett.files.hpgl import LARGEST
from studio.actions.plot import send_plot, stop_plot, take_off
from studio.cut_files import KINDS, FileKind, Paper, written
from studio.downloads import attachment, filename, files
from studio.lanes import LOOK, printing, turn
from studio.locking import job_of
from studio.plot_schemas import PlotterOut
from studio.plotting import picture_of, plot_of, plotter
from studio.state import head_of, readable_recipe
from studio.workroom import evaluate_revision

router = Router(tags=["plotting"])


@router.get("/plotter", response=PlotterOut)
def get_plotter(request: HttpRequest) -> PlotterOut:
    """Return the plotter's queue as it stands."""
    return plotter()


@router.post("/plotter/plots", response={201: PlotterOut})
def post_plot(request: HttpRequest, file: File[UploadedFile]) -> Status[PlotterOut]:
    """Send a plot file to the plotter."""
    with printing():
        send_plot(file.read(LARGEST + 1), file.name or "plot file")
    return Status(201, plotter())


@router.post("/jobs/{job_id}/plots", response={201: PlotterOut})
def plot_job(request: HttpRequest, job_id: UUID) -> Status[PlotterOut]:
    """Send the job's pattern as it stands to the plotter."""
    job = job_of(job_id)
    readable_recipe(job)
    with printing():
        with turn(LOOK):
            evaluation = evaluate_revision(head_of(job))
        content = written(job, evaluation, FileKind.PLOT, Paper.ROLL)
        assert isinstance(content, bytes)
        send_plot(content, f"{job.garment}, revision {head_of(job).number}", job.wearer)
    return Status(201, plotter())


@router.post("/plotter/plots/{plot_id}/stop", response=PlotterOut)
def stop(request: HttpRequest, plot_id: UUID) -> PlotterOut:
    """Stop a plot where the pen is."""
    stop_plot(plot_id)
    return plotter()


@router.delete("/plotter/plots/{plot_id}", response=PlotterOut)
def remove(request: HttpRequest, plot_id: UUID) -> PlotterOut:
    """Take a plot out of the queue."""
    take_off(plot_id)
    return plotter()


@router.get("/plotter/plots/{plot_id}/picture", openapi_extra=files("image/svg+xml"))
def picture(request: HttpRequest, plot_id: UUID, seconds: float = Query(0.0, ge=0, le=1e9)) -> HttpResponse:
    """Return what the pen drew in so many seconds, as far as it has come."""
    with printing():
        content = picture_of(plot_id, seconds)
    return attachment(content, "image/svg+xml", "plot.svg")


@router.get("/plotter/plots/{plot_id}/file", openapi_extra=files(KINDS[FileKind.PLOT].media))
def plot_file(request: HttpRequest, plot_id: UUID) -> HttpResponse:
    """Return a plot file as it was sent."""
    plot = plot_of(plot_id)
    return attachment(bytes(plot.content), KINDS[FileKind.PLOT].media, f"{filename(plot.name)}.plt")
