"""Around a fitting: preparing, photos, time, the note to look again, the wearer's fit, the story."""

from typing import Literal
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import File, Router, Status
from ninja.files import UploadedFile

from izett.files.fitting_sheet_pdf import write_fitting_sheet
from izett.files.story_pdf import write_story
from izett.fitting.story import forecast_told
from izett.units import Unit
from studio.actions.keep_fit import confirm_fit, forget_fit, keep_fit, take_fit
from studio.actions.look_again import look_again
from studio.actions.photograph import add_photo, remove_photo
from studio.actions.prepare_muslin import prepare_muslin
from studio.actions.spend_time import start_clock, stop_clock, type_time
from studio.downloads import files, paper_of
from studio.lanes import LOOK, SAVE, in_turn, printing, turn
from studio.locking import job_of, version_named
from studio.models import Photo
from studio.papers import laid_over
from studio.preparing import fitting_sheet, muslin_state
from studio.problems import not_found
from studio.round_schemas import (
    ClockIn,
    ConfirmIn,
    FittingIn,
    KeptFitOut,
    LessonOut,
    LookAgainIn,
    MuslinOut,
    PapersIn,
    StoryOut,
    TakeFitIn,
    TimeIn,
)
from studio.routers.jobs import answer
from studio.schemas import JobOut
from studio.storage import photos
from studio.story import story_of
from studio.table_schemas import PapersOut
from studio.wearer_fit import lessons, offered_fit
from studio.wire import IfMatch, RowInPath

router = Router(tags=["rounds"])


@router.get("/jobs/{job_id}/muslin", response=MuslinOut)
def muslin(request: HttpRequest, job_id: UUID) -> MuslinOut:
    """Return what is to be seen to, and to be asked, before the open or the next muslin is fitted."""
    with turn(LOOK):
        return muslin_state(job_of(job_id))


@router.get("/jobs/{job_id}/fitting-sheet", openapi_extra=files("application/pdf"))
def print_fitting_sheet(
    request: HttpRequest, job_id: UUID, paper: Literal["a4", "letter"] = "a4", unit: Unit = Unit.CM
) -> HttpResponse:
    """Return the fitting sheet of the open or the next muslin as a PDF."""
    job = job_of(job_id)
    with printing():
        with turn(LOOK):
            sheet = fitting_sheet(job)
        content = write_fitting_sheet(sheet, paper=paper, unit=unit)
    return paper_of(content, f"{job.garment} muslin {sheet.muslin}")


@router.post("/jobs/{job_id}/papers", response=PapersOut)
def papers(request: HttpRequest, job_id: UUID, data: PapersIn) -> PapersOut:
    """Lay two states of a job over each other; nothing is kept."""
    with turn(LOOK):
        return laid_over(job_of(job_id), data)


@router.patch("/jobs/{job_id}/rounds/{number}", response=JobOut)
@in_turn(SAVE)
def patch_round(
    request: HttpRequest,
    job_id: UUID,
    number: RowInPath,
    data: FittingIn,
    if_match: IfMatch = None,
) -> JobOut:
    """Keep what of an open muslin is prepared, watched and counted."""
    return answer(prepare_muslin(job_id, version_named(if_match), number, data))


@router.post("/jobs/{job_id}/rounds/{number}/findings/{uid}/photos/{photo}", response={201: JobOut})
def post_photo(
    request: HttpRequest,
    job_id: UUID,
    number: RowInPath,
    uid: str,
    photo: UUID,
    file: File[UploadedFile],
    if_match: IfMatch = None,
) -> Status[JobOut]:
    """Put a photo beside a finding; its name is made by the sender, so that sending twice keeps one."""
    # One picture is decoded at a time: each takes memory.
    with printing():
        sent = file.read(photos.LARGEST + 1)
        return Status(201, answer(add_photo(job_id, version_named(if_match), number, uid, photo, sent)))


@router.delete("/jobs/{job_id}/rounds/{number}/findings/{uid}/photos/{photo}", response=JobOut)
@in_turn(SAVE)
def delete_photo(
    request: HttpRequest,
    job_id: UUID,
    number: RowInPath,
    uid: str,
    photo: UUID,
    if_match: IfMatch = None,
) -> JobOut:
    """Delete a photo of an open muslin, for good."""
    return answer(remove_photo(job_id, version_named(if_match), number, uid, photo))


@router.get("/photos/{photo}", openapi_extra=files("image/jpeg"))
def show_photo(request: HttpRequest, photo: UUID) -> HttpResponse:
    """Return a photo."""
    found = Photo.objects.filter(uid=photo).first()
    if found is None:
        raise not_found("photo")
    return HttpResponse(photos.read(found), content_type=photos.MEDIA)


@router.post("/jobs/{job_id}/time", response=JobOut)
@in_turn(SAVE)
def post_time(request: HttpRequest, job_id: UUID, data: TimeIn, if_match: IfMatch = None) -> JobOut:
    """Note time that was spent."""
    return answer(type_time(job_id, version_named(if_match), data.minutes))


@router.post("/jobs/{job_id}/clock", response=JobOut)
@in_turn(SAVE)
def post_clock(request: HttpRequest, job_id: UUID, data: ClockIn, if_match: IfMatch = None) -> JobOut:
    """Start or stop the clock; it goes on while no page is open."""
    version = version_named(if_match)
    return answer(start_clock(job_id, version) if data.runs else stop_clock(job_id, version, data.minutes))


@router.post("/jobs/{job_id}/look-again", response=JobOut)
@in_turn(SAVE)
def post_look_again(request: HttpRequest, job_id: UUID, data: LookAgainIn, if_match: IfMatch = None) -> JobOut:
    """Leave a note that comes back on the bench, or take it away."""
    return answer(look_again(job_id, version_named(if_match), data.words.strip(), data.on))


@router.get("/jobs/{job_id}/wearer-fit", response=list[KeptFitOut])
def wearer_fit(request: HttpRequest, job_id: UUID) -> list[KeptFitOut]:
    """Return the wearer's fit as this garment would take it."""
    with turn(LOOK):
        return offered_fit(job_of(job_id))


@router.post("/jobs/{job_id}/wearer-fit", response=JobOut)
@in_turn(SAVE)
def post_wearer_fit(request: HttpRequest, job_id: UUID, data: TakeFitIn, if_match: IfMatch = None) -> JobOut:
    """Put steps of the wearer's fit under the style of this garment."""
    return answer(take_fit(job_id, version_named(if_match), data.uids))


@router.post("/jobs/{job_id}/rounds/{number}/findings/{uid}/keep", response=JobOut)
@in_turn(SAVE)
def post_keep(
    request: HttpRequest,
    job_id: UUID,
    number: RowInPath,
    uid: str,
    if_match: IfMatch = None,
) -> JobOut:
    """Keep what a solved finding changed under the style as the wearer's fit."""
    return answer(keep_fit(job_id, version_named(if_match), number, uid))


@router.post("/wearers/{wearer_id}/fit/{uid}/confirm", response={204: None})
def post_confirm(request: HttpRequest, wearer_id: UUID, uid: str, data: ConfirmIn) -> HttpResponse:
    """Say that a step of the wearer's fit holds for a newer sheet as well."""
    confirm_fit(wearer_id, uid, data.sheet)
    return HttpResponse(status=204)


@router.delete("/wearers/{wearer_id}/fit/{uid}", response={204: None})
def delete_fit(request: HttpRequest, wearer_id: UUID, uid: str) -> HttpResponse:
    """Forget a step of the wearer's fit; garments that have it keep it."""
    forget_fit(wearer_id, uid)
    return HttpResponse(status=204)


@router.get("/lessons", response=list[LessonOut])
def house_lessons(request: HttpRequest) -> list[LessonOut]:
    """Return what the fittings of several wearers keep changing the same way; nothing is set by it."""
    with turn(LOOK):
        return lessons()


@router.get("/jobs/{job_id}/story", response=StoryOut)
def story(request: HttpRequest, job_id: UUID) -> StoryOut:
    """Return the story of a job, by round."""
    with turn(LOOK):
        told = story_of(job_of(job_id))
    return StoryOut(story=told, forecast=list(forecast_told(told.forecast, told.due)) if told.forecast else [])


@router.get("/jobs/{job_id}/story.pdf", openapi_extra=files("application/pdf"))
def print_story(
    request: HttpRequest, job_id: UUID, paper: Literal["a4", "letter"] = "a4", unit: Unit = Unit.CM
) -> HttpResponse:
    """Return the story as a PDF, with its photos."""
    job = job_of(job_id)
    with printing():
        with turn(LOOK):
            told = story_of(job)
        content = write_story(told, photo=_jpeg, paper=paper, unit=unit)
    return paper_of(content, f"{job.garment} story")


def _jpeg(name: str) -> bytes:
    return photos.read(Photo.objects.get(uid=name))
