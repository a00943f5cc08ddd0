"""A size chart as CSV: the first column names the size, each further one a measure, by symbol, name or ISO 8559-1 term.

A heading may state its unit (`bust_girth (in)`); otherwise each entry may, or it is asked for.
"""

import re
from collections.abc import Mapping

from izett.errors import IzettError, UnreadableFile, UnstatedUnit
from izett.files.measures_csv import delimiter, key_of, states_unit, unit_of
from izett.files.reading import read_rows, write_rows
from izett.measuring.measure import read_measure
from izett.measuring.size_chart import SizeChart
from izett.units import Reading, Unit, exact_text

_HEADING = re.compile(r"^(?P<name>.*?)\s*(?:\((?P<unit>[^)]*)\))?$")


def write_size_chart(chart: SizeChart) -> str:
    """Return a chart as CSV, in cm."""
    symbols = list(dict.fromkeys(symbol for size in chart.sizes.values() for symbol in size))
    rows: list[list[str]] = []
    rows.append(["size", *(f"{symbol} (cm)" for symbol in symbols)])
    for name, size in chart.sizes.items():
        rows.append([name, *(exact_text(size[symbol]) if symbol in size else "" for symbol in symbols)])
    return write_rows(rows)


def read_size_chart(text: str, *, unit: Unit | None = None) -> Mapping[str, Mapping[str, Reading]]:
    """Read a chart: readings by symbol, by size name.

    Args:
        text: the CSV; commas, semicolons or tabs part its columns.
        unit: what numbers without a unit are in, where the chart does not say so.

    Raises:
        UnreadableFile: it is no chart, or a size stands in it twice; the message says in which line.
        UnstatedUnit: neither the chart nor `unit` says what its numbers are in.
        UnknownName: a heading is none of the catalogue's measures.
        UnreadableMeasure: an entry is no length.
    """
    rows = [row for row in read_rows(text, delimiter(text)) if any(row) and not row[0].startswith("#")]
    if len(rows) < 2 or len(rows[0]) < 2:
        raise UnreadableFile(
            "The chart has no sizes: it needs a heading and at least one row.",
            fix="Write “size” and the measures in the first line, then a size in each line.",
        )
    columns = [_column(cell) for cell in rows[0][1:]]
    sizes: dict[str, dict[str, Reading]] = {}
    for number, row in enumerate(rows[1:], start=2):
        name = row[0]
        if not name or name in sizes:
            raise UnreadableFile(f"Line {number} of the chart has no size name of its own.", fix="Name each size once.")
        sizes[name] = {}
        for (key, stated), cell in zip(columns, row[1:], strict=False):
            if cell:
                try:
                    sizes[name][key] = _entry(key, cell, stated or unit)
                except UnstatedUnit:
                    raise
                except IzettError as error:
                    raise UnreadableFile(f"Line {number}: {error.message}", fix=error.fix) from error
    return sizes


def _column(cell: str) -> tuple[str, Unit | None]:
    match = _HEADING.match(cell)
    name, unit = (match["name"], match["unit"] or "") if match else (cell, "")
    return key_of(name), unit_of(unit)


def _entry(key: str, cell: str, unit: Unit | None) -> Reading:
    if unit is None and not states_unit(cell):
        raise UnstatedUnit("The chart does not say what its lengths are in.", fix="Say whether it is in cm or inches.")
    return read_measure(key, cell, unit=unit or Unit.CM)
