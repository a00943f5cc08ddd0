"""Size charts as bodies: a chart's size at a height is a body like any other, with few measures and the rest estimated.

The charts that ship stand in `sizes/*.toml`; makers' own charts have the same form.
"""

import tomllib
from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache
from pathlib import Path
from types import MappingProxyType

from izett.errors import UnknownName
from izett.measuring.measure import check_length, measure

SIZES = Path(__file__).parent / "sizes"


@dataclass(frozen=True, slots=True)
class SizeChart:
    """Bodies by size name.

    Attributes:
        key: stable name.
        title, source: for people.
        sizes: by size name, measures in cm by symbol.
        heights: body heights to choose from, in cm; empty where each size states its own or none is needed.
        usual_height: the one that is chosen at first, in cm; 0 where there is none to choose.
    """

    key: str
    title: str
    source: str
    sizes: Mapping[str, Mapping[str, float]]
    heights: tuple[float, ...] = ()
    usual_height: float = 0.0

    def body(self, size: str, *, height: float | None = None) -> dict[str, float]:
        """Return a size's measures in cm by symbol; a height that the size states itself stays.

        Raises:
            UnknownName: the chart has no such size.
            UnreadableMeasure: the height cannot be one.
        """
        if size not in self.sizes:
            raise UnknownName(
                f"The chart “{self.title}” has no size “{size}”.",
                fix=f"Choose one of {', '.join(self.sizes)}.",
                where=(size,),
            )
        body = dict(self.sizes[size])
        chosen = height if height is not None else self.usual_height
        if "height" not in body and chosen:
            check_length(measure("height"), chosen)
            body["height"] = chosen
        return body


@cache
def standard_charts() -> Mapping[str, SizeChart]:
    """Return the charts that ship, by key."""
    charts: dict[str, SizeChart] = {}
    for path in sorted(SIZES.glob("*.toml"), reverse=True):
        data = tomllib.loads(path.read_text(encoding="utf-8"))
        sizes = {
            entry["name"]: MappingProxyType({s: float(cm) for s, cm in entry.items() if s != "name"})
            for entry in data["size"]
        }
        charts[path.stem] = SizeChart(
            path.stem,
            data["title"],
            data["source"],
            MappingProxyType(sizes),
            tuple(float(height) for height in data.get("heights", ())),
            float(data.get("usual_height", 0.0)),
        )
    return MappingProxyType(charts)
