"""Draping: what there is to drape, the tear list, the session, marks as a table."""

from typing import Literal
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import Router

from izett.draping.tearing import drapes
from izett.files.marks_csv import read_marks, write_marks
from izett.files.tear_file import write_tear_pdf
from izett.units import Unit
from studio.actions.prepare_drape import prepare_drape
from studio.beside import beside_draft
from studio.downloads import attachment, filename, files, paper_of
from studio.drape_schemas import BesideOut, DrapesOut, MarksIn, MarksOut, TearOut
from studio.drapes import catalogue_of_drapes, tear_state, torn
from studio.form_schemas import OnForm
from studio.lanes import LOOK, SAVE, in_turn, printing, turn
from studio.locking import job_of, version_named
from studio.problems import Refusal
from studio.routers.jobs import answer
from studio.schemas import JobOut
from studio.state import readable_recipe
from studio.wire import IfMatch

router = Router(tags=["draping"])


@router.get("/drapes", response=DrapesOut)
def get_drapes(request: HttpRequest) -> DrapesOut:
    """Return what there is to drape, and how a session goes."""
    return catalogue_of_drapes()


@router.post("/tear", response=TearOut)
def tear(request: HttpRequest, data: OnForm) -> TearOut:
    """Work out the tear list of what the form measures; nothing is kept."""
    return tear_state(data)


@router.put("/jobs/{job_id}/on-form", response=JobOut)
@in_turn(SAVE)
def put_on_form(request: HttpRequest, job_id: UUID, data: OnForm, if_match: IfMatch = None) -> JobOut:
    """Keep a draping session as it is prepared."""
    return answer(prepare_drape(job_id, version_named(if_match), data))


@router.get("/jobs/{job_id}/beside/{other_id}", response=BesideOut)
def get_beside(request: HttpRequest, job_id: UUID, other_id: UUID) -> BesideOut:
    """Return a job's garment beside a draft of the same wearer, and how the draft could learn from it; nothing is kept."""
    with turn(LOOK):
        return beside_draft(job_of(job_id), job_of(other_id))


@router.get("/jobs/{job_id}/tear-list", openapi_extra=files("application/pdf"))
def print_tear_list(
    request: HttpRequest, job_id: UUID, paper: Literal["a4", "letter"] = "a4", unit: Unit = Unit.CM
) -> HttpResponse:
    """Return the tear list of a job's draping session as a PDF."""
    job = job_of(job_id)
    form = OnForm.model_validate(job.on_form or {})
    found = torn(form)
    if found is None:
        raise Refusal(
            409, "nothing-measured", "No panel is measured yet.", fix="Type a length and a width for one of them."
        )
    drape = drapes().get(form.drape)
    with printing():
        content = write_tear_pdf(
            found, title=f"Tear list, {job.garment}", tape=drape.tape if drape else (), paper=paper, unit=unit
        )
    return paper_of(content, f"{job.garment} tear list")


@router.post("/marks", response=MarksOut)
def post_marks(request: HttpRequest, data: MarksIn) -> MarksOut:
    """Read a table of marks; nothing is kept."""
    with turn(LOOK):
        return MarksOut(given=read_marks(data.text, unit=data.unit))


@router.get("/jobs/{job_id}/files/marks", openapi_extra=files("text/csv"))
def get_marks(request: HttpRequest, job_id: UUID) -> HttpResponse:
    """Return the marks of a job's given panels as a table."""
    job = job_of(job_id)
    content = write_marks(readable_recipe(job).given)
    return attachment(content, "text/csv", f"{filename(f'{job.garment} marks')}.csv")
