"""Keep a maker's own size chart, from CSV: a row a size, a column a measure."""

from uuid import UUID

from izett.files.size_chart_csv import read_size_chart
from izett.units import Unit
from studio.limits import MOST_CHARTS, refuse_more
from studio.models import SizeChart
from studio.sheet_schemas import ChartIn


def keep_chart(data: ChartIn) -> SizeChart:
    """Keep a chart.

    Raises:
        UnreadableFile, UnstatedUnit, UnknownName, UnreadableMeasure: the CSV is no chart; nothing is kept then.
    """
    refuse_more(SizeChart.objects.count() + 1, MOST_CHARTS, "size charts of your own")
    sizes = read_size_chart(data.csv, unit=Unit(data.unit) if data.unit else None)
    typed = {
        name: {s: {"text": reading.text, "unit": reading.unit.value} for s, reading in size.items()}
        for name, size in sizes.items()
    }
    return SizeChart.objects.create(title=data.title.strip(), source=data.source.strip(), sizes=typed)


def delete_chart(chart_id: UUID) -> None:
    """Delete a maker's own chart; jobs that were drafted from it keep their sheets."""
    SizeChart.objects.filter(id=chart_id).delete()
