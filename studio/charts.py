"""Size charts: those that ship, and the maker's own, read by the same names."""

from collections.abc import Iterator, Mapping
from uuid import UUID

from izett.errors import UnknownName
from izett.measuring.measure import read_measure
from izett.measuring.size_chart import SizeChart, standard_charts
from izett.units import Unit
from studio import models
from studio.sheet_schemas import SizeIn


def all_charts() -> Iterator[SizeChart]:
    """Yield the charts that ship, then the maker's own by title."""
    yield from standard_charts().values()
    yield from (_own(chart) for chart in models.SizeChart.objects.all())


def chart_of(key: str) -> SizeChart:
    """Return a chart by its key: its file's name, or its id.

    Raises:
        UnknownName: there is none.
    """
    if key in standard_charts():
        return standard_charts()[key]
    own = models.SizeChart.objects.filter(id=_id(key)).first() if _id(key) else None
    if own is None:
        raise UnknownName(
            f"There is no size chart “{key}”.", fix="It may have been deleted: choose another.", where=(key,)
        )
    return _own(own)


def body_of_size(data: SizeIn) -> dict[str, float]:
    """Return a size's measures in cm by symbol.

    Raises:
        UnknownName: there is no such chart or size.
        UnreadableMeasure: the height is not one.
    """
    height = read_measure("height", data.height.text, unit=data.height.unit).cm if data.height else None
    return chart_of(data.chart).body(data.size, height=height)


def _id(key: str) -> UUID | None:
    try:
        return UUID(key)
    except ValueError:
        return None


def _own(chart: models.SizeChart) -> SizeChart:
    sizes: Mapping[str, Mapping[str, dict[str, str]]] = chart.sizes
    return SizeChart(
        str(chart.id),
        chart.title,
        chart.source,
        {
            name: {s: read_measure(s, typed["text"], unit=Unit(typed["unit"])).cm for s, typed in size.items()}
            for name, size in sizes.items()
        },
    )
