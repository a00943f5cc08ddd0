"""Size charts, standard sizes as wearers, and the simulated scanner."""

from datetime import date
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import Router, Status

from izett.files.scan_json import write_scan
from izett.files.size_chart_csv import write_size_chart
from izett.measuring.scanner import scan
from izett.measuring.size_chart import SizeChart, standard_charts
from studio.actions.keep_chart import delete_chart, keep_chart
from studio.actions.take_size import take_size
from studio.charts import all_charts, body_of_size, chart_of
from studio.downloads import attachment, filename, files
from studio.schemas import WearerOut
from studio.sheet_schemas import ChartIn, ChartOut, ScanIn, ScanOut, SizeIn, SizeOut
from studio.state import wearer_state

router = Router(tags=["charts"])


@router.get("/charts", response=list[ChartOut])
def charts(request: HttpRequest) -> list[ChartOut]:
    """List the size charts: those that ship, then the maker's own."""
    return [_chart(chart) for chart in all_charts()]


@router.post("/charts", response={201: ChartOut})
def add_chart(request: HttpRequest, data: ChartIn) -> Status[ChartOut]:
    """Keep a chart of the maker's own."""
    return Status(201, _chart(chart_of(str(keep_chart(data).id))))


@router.delete("/charts/{chart_id}", response={204: None})
def remove_chart(request: HttpRequest, chart_id: UUID) -> HttpResponse:
    """Delete a chart of the maker's own."""
    delete_chart(chart_id)
    return HttpResponse(status=204)


@router.get("/charts/{key}/files/csv", openapi_extra=files("text/csv"))
def chart_file(request: HttpRequest, key: str) -> HttpResponse:
    """Return a chart as CSV."""
    chart = chart_of(key)
    return attachment(write_size_chart(chart), "text/csv", f"{filename(chart.title)}.csv")


@router.post("/sizes/take", response=WearerOut)
def take(request: HttpRequest, data: SizeIn) -> WearerOut:
    """Return the wearer that stands for a standard size, made where there is none."""
    return wearer_state(take_size(data))


@router.post("/scans", response=ScanOut)
def scanned(request: HttpRequest, data: ScanIn) -> ScanOut:
    """Let the simulated scanner scan a body of a size chart; it delivers a scan file."""
    return ScanOut(file=write_scan(scan(body_of_size(data.size), seed=data.seed), taken_on=date.today()))


def _chart(chart: SizeChart) -> ChartOut:
    return ChartOut(
        key=chart.key,
        title=chart.title,
        source=chart.source,
        own=chart.key not in standard_charts(),
        sizes=[SizeOut(name=name, cm=dict(cm)) for name, cm in chart.sizes.items()],
        heights=list(chart.heights),
        usual_height=chart.usual_height,
    )
