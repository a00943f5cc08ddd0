"""Marks of given panels as CSV: `panel,kind,across,along,line,name`, rows in the order of walking round each panel.

`across` is measured from the panel's upright guide towards the side, `along` up from its level guide. `line` names the line
that a mark lies on; a cross may name two (`neck+panel`). Lengths are cm, unless the first row says `# unit=in`; a length may
state its own unit, and inches may have fractions. `# level waist=-17.5` says how high a body level lies over the level guide.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from decimal import Decimal

from pydantic import ValidationError

from izett.draping.panel import FARTHEST, MOST_MARKS, MOST_PANELS, Given, Mark, MarkKind, Panel, name_of
from izett.errors import UnreadableFile, ValueOutOfRange
from izett.files.measures_csv import delimiter, unit_of
from izett.files.reading import read_rows, write_rows, wrong_in
from izett.units import Unit, UnreadableLength, read_length

COLUMNS = ("panel", "kind", "across", "along", "line", "name")
_NEEDED = COLUMNS[:4]
_PATTERN = "panel,kind,across,along,line,name"


@dataclass
class _Told:
    """What the rows that begin with # say."""

    unit: Unit
    levels: dict[str, float] = field(default_factory=dict)


def read_marks(text: str, *, unit: Unit = Unit.CM) -> Given:
    """Return the panels of a table of marks.

    Args:
        text: the table; commas, semicolons or tabs part its columns.
        unit: what lengths without a unit are in where the table does not say so.

    Raises:
        UnreadableFile: it is no table of marks, or a row cannot be read; the message says which.
    """
    rows = read_rows(text, delimiter(text))
    told = _Told(unit)
    columns: Mapping[str, int] | None = None
    marks: dict[str, list[Mark]] = {}
    for number, cells in enumerate(rows, 1):
        if not any(cells):
            continue
        if cells[0].startswith("#"):
            _comment(number, " ".join(cells), told)
        elif columns is None:
            columns = _columns(cells)
        else:
            panel, mark = _row(number, cells, columns, told.unit)
            marks.setdefault(panel, []).append(mark)
            _refuse_more(marks, panel)
    if not marks:
        raise UnreadableFile(
            "There is no mark in the table.", fix=f"Its heading is {_PATTERN}, then a row for each mark."
        )
    return Given(
        panels=tuple(Panel(name=name_of(panel), title=panel, marks=tuple(own)) for panel, own in marks.items()),
        levels=told.levels,
    )


def _comment(number: int, text: str, told: _Told) -> None:
    words = text.lstrip("# ").strip()
    key, _, value = words.partition("=")
    if key.strip().lower() == "unit":
        unit = unit_of(value)
        if unit is None:
            raise UnreadableFile(f"Row {number}: the unit “{value.strip()[:20]}” is not known.", fix="Write cm or in.")
        told.unit = unit
    elif key.lower().startswith("level ") and value:
        told.levels[key[len("level ") :].strip().lower()] = _length(number, "level", value, told.unit)


def _columns(cells: Sequence[str]) -> Mapping[str, int]:
    found = {cell.strip().lower(): at for at, cell in enumerate(cells)}
    missing = [name for name in _NEEDED if name not in found]
    if missing:
        raise UnreadableFile(f"The table has no column “{missing[0]}”.", fix=f"Its heading is {_PATTERN}.")
    return found


def _row(number: int, cells: Sequence[str], columns: Mapping[str, int], unit: Unit) -> tuple[str, Mark]:
    def cell(name: str) -> str:
        at = columns.get(name, len(cells))
        return cells[at].strip() if at < len(cells) else ""

    panel, kind = cell("panel"), cell("kind").lower()
    if not panel:
        raise UnreadableFile(f"Row {number} names no panel.", fix="Write the panel in the first column of each row.")
    if kind not in {k.value for k in MarkKind}:
        raise UnreadableFile(
            f"Row {number}: “{kind[:20]}” is no kind of mark.", fix="Write dash, cross, dot, notch or slash."
        )
    across, along = (_length(number, name, cell(name), unit) for name in ("across", "along"))
    lines = [line.strip().lower().replace(" ", "_") for line in cell("line").split("+") if line.strip()]
    try:
        return panel, Mark(kind=MarkKind(kind), across=across, along=along, lines=tuple(lines), name=cell("name"))
    except ValidationError as error:
        where = wrong_in(error)
        raise UnreadableFile(
            f"Row {number}, {where.place}: {where.words}.",
            fix=f"A mark lies within {FARTHEST / 100:g} m of its guides, and on two lines at most.",
        ) from error


def _length(number: int, column: str, text: str, unit: Unit) -> float:
    try:
        return read_length(text.replace("−", "-"), unit=unit).cm
    except UnreadableLength as error:
        raise UnreadableFile(
            f"Row {number}, {column}: “{text[:20]}” is not a length.", fix="Write a number, as 12.5 or 4 7/8 in."
        ) from error


def _refuse_more(marks: Mapping[str, Sequence[Mark]], panel: str) -> None:
    if len(marks) > MOST_PANELS or len(marks[panel]) > MOST_MARKS:
        raise ValueOutOfRange(
            f"The table has more than {MOST_PANELS} panels, or more than {MOST_MARKS} marks on one.",
            fix="Take the marks of one garment, and on a line no more than it needs.",
        )


def write_marks(given: Given) -> str:
    """Return the marks of given panels as CSV, in cm; read again they are the same to the last digit."""
    rows: list[Sequence[str]] = [("# unit=cm",)]
    rows += [(f"# level {level}={_exact(height)}",) for level, height in given.levels.items()]
    rows.append(COLUMNS)
    for panel in given.panels:
        for mark in panel.marks:
            spot = (_exact(mark.across), _exact(mark.along))
            rows.append((panel.title or panel.name, mark.kind.value, *spot, "+".join(mark.lines), mark.name))
    return write_rows(rows)


def _exact(value: float) -> str:
    """Return a number without an exponent, which no hand writes, to its last digit."""
    return format(Decimal(repr(value)), "f")
