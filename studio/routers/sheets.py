"""Sheets over time: a wearer's sheets, two compared, sheets as files in and out, and the sheet under way."""

from dataclasses import asdict
from datetime import date
from typing import Literal
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import File, Router, Status
from ninja.files import UploadedFile

from izett.advice.sheets import differences, piece_changes
from izett.errors import IzettError
from izett.files.measure_sheet_pdf import write_measure_sheet
from izett.files.measures_csv import write_csv
from izett.files.measures_json import write_measures
from izett.files.sheet_file import LARGEST_FILE, read_sheet_file
from izett.measuring.preparation import preparation
from izett.measuring.sheet import Sheet
from izett.units import Unit
from studio.actions.keep_sheet import keep_sheet
from studio.actions.keep_under_way import drop_under_way, keep_under_way
from studio.cautions import CAUTIONS
from studio.downloads import attachment, filename, files, paper_of
from studio.judging import figure_of_sheet
from studio.lanes import printing
from studio.locking import wearer_of
from studio.models import Job, MeasureSheet, Wearer
from studio.problems import Refusal, not_found
from studio.readings import sheet_in
from studio.schemas import SheetIn, SheetOut, UnderWayIn, UnderWayOut
from studio.sheet_schemas import (
    ComparisonOut,
    DifferenceOut,
    FigureOut,
    JobChangeOut,
    PieceChangeOut,
    SheetReadOut,
)
from studio.state import core_sheet, head_of, readable_recipe, sheet_state, under_way_out
from studio.wire import RowInPath, RowInQuery
from studio.workroom import evaluator, measures_of, sides_of

router = Router(tags=["sheets"])


@router.get("/wearers/{wearer_id}/sheets", response=list[SheetOut])
def sheets(request: HttpRequest, wearer_id: UUID) -> list[SheetOut]:
    """List a wearer's sheets, the newest first."""
    return [sheet_state(sheet) for sheet in wearer_of(wearer_id).sheets.order_by("-number")]


@router.post("/wearers/{wearer_id}/sheets", response={201: SheetOut})
def add_sheet(request: HttpRequest, wearer_id: UUID, data: SheetIn) -> Status[SheetOut]:
    """Keep a sheet of measures; an earlier one stays."""
    return Status(201, sheet_state(keep_sheet(wearer_id, data)))


@router.put("/wearers/{wearer_id}/under-way", response=UnderWayOut)
def put_under_way(request: HttpRequest, wearer_id: UUID, data: UnderWayIn) -> UnderWayOut:
    """Keep the sheet under way, whatever stands on it."""
    return under_way_out(keep_under_way(wearer_id, data))


@router.delete("/wearers/{wearer_id}/under-way", response={204: None})
def delete_under_way(request: HttpRequest, wearer_id: UUID) -> HttpResponse:
    """Drop the sheet under way."""
    drop_under_way(wearer_id)
    return HttpResponse(status=204)


@router.get("/wearers/{wearer_id}/sheets/compare", response=ComparisonOut)
def compare(request: HttpRequest, wearer_id: UUID, before: RowInQuery, after: RowInQuery) -> ComparisonOut:
    """Compare two sheets by their numbers: measures, and what each of the wearer's jobs would change by drafting again."""
    wearer = wearer_of(wearer_id)
    with printing():
        return _compared(wearer, before, after)


def _compared(wearer: Wearer, before: int, after: int) -> ComparisonOut:
    old, new = _numbered(wearer, before), _numbered(wearer, after)
    return ComparisonOut(
        before=before,
        after=after,
        differences=[DifferenceOut(**asdict(d)) for d in differences(measures_of(old), measures_of(new))],
        jobs=[_change(job, old, new) for job in wearer.jobs.select_related("head", "head__sheet").order_by("created")],
    )


def _numbered(wearer: Wearer, number: int) -> MeasureSheet:
    sheet = wearer.sheets.filter(number=number).first()
    if sheet is None:
        raise not_found("sheet of this wearer")
    return sheet


def _change(job: Job, old: MeasureSheet, new: MeasureSheet) -> JobChangeOut:
    head = head_of(job)
    told = JobChangeOut(job=job.id, garment=job.garment, sheet=head.sheet.number, pieces=[])
    try:
        document = readable_recipe(job)
        pieces = piece_changes(
            evaluator(),
            document.recipe(measures_of(old), sides_of(old)),
            document.recipe(measures_of(new), sides_of(new)),
        )
    except (IzettError, Refusal) as error:
        return told.model_copy(update={"refused": f"{error.message} {error.fix}"})
    return told.model_copy(update={"pieces": [PieceChangeOut(**asdict(piece)) for piece in pieces]})


@router.post("/measures/read", response=SheetReadOut)
def read_file(request: HttpRequest, file: File[UploadedFile], unit: Unit | None = None) -> SheetReadOut:
    """Read a sheet of measures from CSV, JSON or a scan; nothing is kept. Without a stated unit it is asked for."""
    read = read_sheet_file(file.read(LARGEST_FILE + 1), unit=unit)
    return SheetReadOut(
        sheet=sheet_in(read.sheet, today=date.today()), wearer=read.sheet.wearer, left_out=list(read.left_out)
    )


@router.get("/measures/sheet.pdf", openapi_extra=files("application/pdf"))
def blank_sheet(request: HttpRequest, paper: Literal["a4", "letter"] = "a4") -> HttpResponse:
    """Return the measuring sheet to fill by hand."""
    with printing():
        return _pdf(None, paper, "measuring sheet")


@router.get("/sheets/{sheet_id}/figure", response=FigureOut)
def figure(request: HttpRequest, sheet_id: RowInPath) -> FigureOut:
    """Return the figure of a kept sheet."""
    return figure_of_sheet(_sheet(sheet_id))


@router.get("/sheets/{sheet_id}/files/{kind}", openapi_extra=files("application/json", "application/pdf", "text/csv"))
def sheet_file(
    request: HttpRequest,
    sheet_id: RowInPath,
    kind: Literal["json", "csv", "pdf"],
    paper: Literal["a4", "letter"] = "a4",
) -> HttpResponse:
    """Return a kept sheet as a file to keep or to print."""
    kept = _sheet(sheet_id)
    sheet, name = core_sheet(kept), f"{kept.wearer.name} sheet {kept.number}"
    if kind == "pdf":
        with printing():
            return _pdf(sheet, paper, name)
    if kind == "json":
        return attachment(write_measures(sheet), "application/json", f"{filename(name)}.izett-measures.json")
    return attachment(write_csv(sheet), "text/csv", f"{filename(name)}.csv")


def _sheet(sheet_id: int) -> MeasureSheet:
    kept = MeasureSheet.objects.filter(id=sheet_id).select_related("wearer").first()
    if kept is None:
        raise not_found("sheet")
    return kept


def _pdf(sheet: Sheet | None, paper: str, name: str) -> HttpResponse:
    content = write_measure_sheet(
        sheet,
        paper=paper,
        preparation=[f"{item.title}: {item.says}" for item in preparation()],
        cautions=CAUTIONS["measure"],
    )
    return paper_of(content, name)
