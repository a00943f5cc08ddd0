"""A measuring sheet as CSV, one measure a row: measure, name, readings, unit. Reads what spreadsheets write as well.

A row names its measure by symbol, by name, or by the term of ISO 8559-1. A unit stands in the reading (`36 1/4 in`), in a
`unit` column, or in the heading of a column (`cm`, `inches`); where it stands nowhere, it is asked for.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from functools import cache
from types import MappingProxyType

from izett.errors import IzettError, UnreadableFile, UnstatedUnit
from izett.files.reading import read_rows, write_rows
from izett.measuring.measure import measures, read_measure, symbol_of
from izett.measuring.sheet import TAKERS, Sheet
from izett.measuring.taking import MOST_READINGS, Taken
from izett.units import Reading, Unit, UnreadableLength, read_length, stated_length

#: Headings under which readings stand, with the unit that they state.
_READINGS: Mapping[str, Unit | None] = {
    **dict.fromkeys(("reading", "value", "measurement", "length", "size"), None),
    **dict.fromkeys(("cm", "centimetres", "centimeters"), Unit.CM),
    **dict.fromkeys(("in", "inch", "inches"), Unit.INCH),
}
_NAMES = ("measure", "symbol", "name", "measurement name", "term")
_ABOUT = ("wearer", "taken on", "taken by", "over")


@dataclass(frozen=True, slots=True)
class SheetRead:
    """A sheet that was read from a file, and what could not be read, each with its line."""

    sheet: Sheet
    left_out: tuple[str, ...] = ()


def write_csv(sheet: Sheet) -> str:
    """Return the sheet as CSV; every reading states its unit, so that it comes back exactly."""
    rows: list[list[str]] = []
    about = (sheet.wearer, sheet.taken_on.isoformat() if sheet.taken_on else "", sheet.taken_by, sheet.worn)
    for what, text in zip(_ABOUT, about, strict=True):
        if text:
            rows.append([f"# {what}", text])
    most = max((len(taken.readings) for taken in sheet.taken.values()), default=1)
    rows.append(["measure", "name", "reading", *(f"reading {number}" for number in range(2, most + 1)), "unit"])
    for key, taken in sheet.taken.items():
        name = measures()[symbol_of(key)].name + {".left": ", left", ".right": ", right"}.get(
            key[len(symbol_of(key)) :], ""
        )
        texts = [stated_length(reading) for reading in taken.readings]
        rows.append([key, name, *texts, *[""] * (most - len(texts)), taken.readings[0].unit.value])
    return write_rows(rows)


def read_csv(text: str, *, unit: Unit | None = None) -> SheetRead:
    """Read a sheet of measures from CSV.

    Args:
        text: the file; commas, semicolons or tabs part its columns.
        unit: what numbers without a unit are in, where the file does not say so.

    Raises:
        UnreadableFile: there is no measure in it.
        UnstatedUnit: neither the file nor `unit` says what its numbers are in.
    """
    rows = read_rows(text, delimiter(text))
    about: dict[str, str] = {}
    columns: _Columns | None = None
    taken: dict[str, Taken] = {}
    left_out: list[str] = []
    for number, cells in enumerate(rows, start=1):
        if not any(cells):
            continue
        if cells[0].startswith("#"):
            about[cells[0].lstrip("# ").lower()] = " ".join(cells[1:]).strip()
        elif columns is None and (columns := _columns(cells)) is not None:
            continue
        else:
            columns = columns or _Columns(0, dict.fromkeys(range(1, min(len(cells), 4))), None)
            try:
                row_taken = _taken(cells, columns, unit)
            except UnstatedUnit:
                raise
            except IzettError as error:
                left_out.append(f"Line {number}: {error}")
                continue
            if row_taken is not None:
                taken[row_taken.key] = row_taken
    if not taken:
        raise UnreadableFile(
            "No measure was found in the file." + (f" {left_out[0]}" if left_out else ""),
            fix="Write a measure and its reading in each row, as in a file that was exported.",
        )
    return SheetRead(_sheet(taken, about), tuple(left_out))


@dataclass(frozen=True, slots=True)
class _Columns:
    name: int
    readings: Mapping[int, Unit | None]
    unit: int | None


def delimiter(text: str) -> str:
    """Return what parts a text's columns: the commonest of comma, semicolon and tab in its first lines."""
    lines = [line for line in text.splitlines() if line.strip() and not line.startswith("#")][:5]
    return max(",;\t", key=lambda mark: sum(line.count(mark) for line in lines))


def _columns(cells: Sequence[str]) -> _Columns | None:
    """Return which column holds what, where the row is a heading."""
    words = [cell.lower() for cell in cells]
    names = [at for word in _NAMES for at, cell in enumerate(words) if cell == word]
    readings = {
        at: _READINGS[word.rstrip("0123456789 ")]
        for at, word in enumerate(words)
        if word.rstrip("0123456789 ") in _READINGS
    }
    if not names or not readings:
        return None
    return _Columns(names[0], readings, words.index("unit") if "unit" in words else None)


def _taken(cells: Sequence[str], columns: _Columns, unit: Unit | None) -> Taken | None:
    texts = [(cells[at], stated) for at, stated in columns.readings.items() if at < len(cells) and cells[at]]
    if not texts:
        return None
    key = key_of(cells[columns.name])
    of_row = cells[columns.unit] if columns.unit is not None and columns.unit < len(cells) else ""
    return Taken(key, tuple(_read(key, text, stated, of_row, unit) for text, stated in texts[:MOST_READINGS]))


def _read(key: str, text: str, stated: Unit | None, of_row: str, unit: Unit | None) -> Reading:
    known = stated or unit_of(of_row) or unit
    if known is None and not states_unit(text) and measures()[symbol_of(key)].kind != "cup":
        raise UnstatedUnit("The file does not say what its lengths are in.", fix="Say whether it is in cm or inches.")
    return read_measure(key, text, unit=known or Unit.CM)


def unit_of(text: str) -> Unit | None:
    """Return the unit that a word names, or None."""
    word = text.lower().strip(" .")
    if word in ("in", "inch", "inches", '"'):
        return Unit.INCH
    return Unit.CM if word in ("cm", "centimetres", "centimeters") else None


def states_unit(text: str) -> bool:
    """Return whether a typed length states its own unit."""
    try:
        return read_length(text, unit=Unit.CM).unit is read_length(text, unit=Unit.INCH).unit
    except UnreadableLength:
        return False


def key_of(text: str) -> str:
    """Return the key that a row's name stands for.

    Raises:
        UnknownName: no measure is called so.
    """
    words = text.strip().lower()
    name, _, side = words.rpartition(",")
    if side.strip() in ("left", "right"):
        return f"{_by_name().get(name.strip(), name.strip())}.{side.strip()}"
    key = _by_name().get(words, words.replace(" ", "_"))
    symbol_of(key)
    return key


@cache
def _by_name() -> Mapping[str, str]:
    terms = {what.term.lower(): symbol for symbol, what in measures().items() if what.term}
    return {**terms, **{what.name.lower(): symbol for symbol, what in measures().items()}}


def _sheet(taken: Mapping[str, Taken], about: Mapping[str, str]) -> Sheet:
    by = about.get("taken by", "")
    try:
        day = date.fromisoformat(about["taken on"]) if about.get("taken on") else None
    except ValueError:
        day = None
    return Sheet(
        MappingProxyType(dict(taken)),
        taken_on=day,
        taken_by=by if by in TAKERS else "helper",
        worn=about.get("over", "")[:200],
        wearer=about.get("wearer", "")[:120],
    )
