"""Take a standard size as a wearer, so that a job can be drafted for it like for anyone."""

from datetime import date

from django.db import transaction

from izett.measuring.sheet import sheet_of
from studio.actions.keep_sheet import keep_sheet
from studio.charts import body_of_size, chart_of
from studio.models import Wearer
from studio.readings import sheet_in
from studio.sheet_schemas import SizeIn


def take_size(data: SizeIn) -> Wearer:
    """Return the wearer that stands for a size; made where there is none yet.

    A maker's own chart may have changed since: the size's measures are then kept as a new sheet.

    Raises:
        UnknownName: there is no such chart or size.
        UnreadableMeasure: the height is not one.
    """
    chart = chart_of(data.chart)
    body = body_of_size(data)
    height = f"{body['height']:g}" if "height" in body else ""
    size = f"{data.chart}:{data.size}@{height}"
    with transaction.atomic():
        wearer = Wearer.objects.filter(size=size).first()
        if wearer is None:
            tall = f"/{height}" if height else ""
            wearer = Wearer.objects.create(
                name=f"Size {data.size}{tall}", note=f"{chart.title} ({chart.source})", size=size
            )
        sheet = sheet_in(sheet_of(body, taken_by="chart"), today=date.today())
        newest = wearer.sheets.order_by("-number").first()
        if newest is None or {r.symbol: r.cm for r in newest.readings.all()} != body:
            keep_sheet(wearer.id, sheet)
    return wearer
