"""A measuring sheet: who measured, when, over what, and every reading as it was read."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import date
from types import MappingProxyType

from izett.measuring.measure import check_length, measure, symbol_of
from izett.measuring.taking import Taken, settled, taken_apart
from izett.units import Reading, Unit, exact_text

#: Who may have measured.
TAKERS = ("helper", "alone", "scan", "chart")


@dataclass(frozen=True, slots=True)
class Sheet:
    """A sheet of measures.

    Attributes:
        taken: what was taken, by key (`arm_length`, or `arm_length.left` and `.right`).
        taken_on: the day, where it is known.
        taken_by: one of TAKERS.
        worn: over which foundation garments.
        wearer: whose measures, where the sheet says so.
    """

    taken: Mapping[str, Taken] = field(default_factory=lambda: MappingProxyType({}))
    taken_on: date | None = None
    taken_by: str = "helper"
    worn: str = ""
    wearer: str = ""

    @property
    def cm(self) -> dict[str, float]:
        """One length a measure, in cm by symbol: medians of readings, means of sides."""
        return settled({key: taken.cm for key, taken in self.taken.items()})

    @property
    def sides(self) -> dict[str, tuple[float, float]]:
        """Left and right of the measures that were taken on both sides, in cm by symbol."""
        return taken_apart({key: taken.cm for key, taken in self.taken.items()})


def sheet_of(cm: Mapping[str, float], **about: str) -> Sheet:
    """Return a sheet with one reading in cm for each key.

    Raises:
        UnknownName: a symbol is not in the catalogue.
        UnreadableMeasure: a value cannot be a length on a body.
    """
    taken: dict[str, Taken] = {}
    for key, length in cm.items():
        check_length(measure(symbol_of(key)), length)
        taken[key] = Taken(key, (Reading(exact_text(length), Unit.CM, length),))
    return Sheet(MappingProxyType(taken), **about)  # type: ignore[arg-type]  # about holds the text fields only
