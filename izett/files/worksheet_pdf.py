"""A worksheet on paper: every sum as one writes it down, with its numbers in it, so that it can be worked again by hand."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

from izett.cutting.worksheets import summed, sums
from izett.files.page import HEAD, LINE, RIM, SMALL, SOFT, TEXT, Page
from izett.measuring.measure import measures
from izett.rules.worksheet import State, SumLine
from izett.units import Unit, show_length

#: cm of paper. How a sum is worked begins so far from the left, its value so far from the right; from row to row.
WORKED, VALUES, STEP = 8.3, 3.6, 0.46
#: cm. From a value to what is said of where it comes from.
STATE = 2.0
#: What is said of where a value comes from; of a sum that is worked, the sum says it.
STATES = {
    State.TAKEN: "taken",
    State.ESTIMATED: "estimated",
    State.FOUND: "found",
    State.CHOSEN: "chosen",
    State.OVERRIDDEN: "set for this job",
    State.HOUSE: "house rule",
    State.USUAL: "usual",
}


@dataclass(frozen=True, slots=True)
class Part:
    """A part of a worksheet: its heading, what it is for, its lines; those of `gives` are what comes of it."""

    title: str
    lines: Sequence[SumLine]
    says: str = ""
    gives: Sequence[str] = ()


def by_group(lines: Iterable[SumLine]) -> list[Part]:
    """Return a draft's lines in their groups."""
    groups: dict[str, list[SumLine]] = {}
    for line in lines:
        groups.setdefault(line.group, []).append(line)
    # Groups are numbered in the order of drafting: that order is the paper's.
    return [Part(name.lstrip("0123456789 "), found) for name, found in groups.items()]


def worked_part(key: str, values: Mapping[str, float], note: str = "") -> Part:
    """Return a worksheet of the cutting table, worked with some numbers; `note` says what it is for.

    Raises:
        UnknownName, ValueOutOfRange: there is no such worksheet, or its numbers give no result.
    """
    worked = summed(key, values)
    of = sums()[key]
    given = [
        SumLine(
            one.symbol,
            one.label,
            "",
            one.unit,
            State.CHOSEN if one.symbol in values else State.USUAL,
            values.get(one.symbol, one.default),
            reason=one.reason,
        )
        for one in of.sheet.allowances.values()
    ]
    return Part(f"{of.title}: {note}" if note else of.title, [*given, *worked], of.says, of.gives)


def write_worksheet(
    parts: Sequence[Part], *, title: str, wearer: str = "", paper: str = "a4", unit: Unit = Unit.CM
) -> bytes:
    """Return a worksheet as PDF.

    Args:
        parts: its parts, in the order of working.
        title: what it is of; wearer: initials or the size.
        paper: `a4` or `letter`; unit: in which its lengths are shown.

    Raises:
        UnknownName: the paper is neither.
    """
    page = Page(title, paper, (f"{title}  {wearer}".strip(),), unit)
    page.y -= 0.5
    page.text(RIM, page.y, title, size=HEAD, bold=True)
    page.y -= 0.25
    for part in parts:
        page.heading(part.title)
        if part.says:
            page.words(part.says, grey=SOFT)
        for line in part.lines:
            _line(page, line, bold=line.symbol in part.gives)
    return page.finish()


def _line(page: Page, line: SumLine, *, bold: bool) -> None:
    """Write a sum: what it is, how it was worked, and its value."""
    known = measures().get(line.symbol) if line.state is State.TAKEN else None
    values = page.right - VALUES
    called = page.split(known.name if known else line.label, WORKED - RIM - 0.2, size=TEXT)
    how = [part for words in _how(line) for part in page.split(words, values - WORKED - 0.2, size=SMALL)]
    rows = max(len(called), len(how), 1)
    page.room(STEP + LINE * (rows - 1))
    page.y -= STEP
    page.text(values, page.y, value_of(line, page.unit), bold=True)
    page.text(values + STATE, page.y, STATES.get(line.state, ""), size=SMALL, grey=SOFT)
    for row in range(rows):
        if row:
            page.y -= LINE
        if row < len(called):
            page.text(RIM, page.y, called[row], bold=bold)
        if row < len(how):
            page.text(WORKED, page.y, how[row], size=SMALL, grey=SOFT)


def _how(line: SumLine) -> list[str]:
    """Return how a value came about."""
    if line.worked:
        return [f"= {line.worked}"]
    if line.state in (State.OVERRIDDEN, State.HOUSE) and line.written:
        return [f"in place of {line.written}. {line.reason}"]
    if line.condition:
        return [f"so that {line.condition}; off by {abs(line.residual):.3f}"]
    return [line.reason] if line.state is not State.TAKEN and line.reason else []


def value_of(line: SumLine, unit: Unit) -> str:
    """Return a value as it is read: a length in the reader's unit, a number with its own.

    >>> value_of(SumLine("waist", "waist", "Body", "cm", State.TAKEN, 71.12), Unit.INCH)
    '28 in'
    """
    if line.unit == "cm":
        return show_length(line.value, unit=unit)
    return f"{line.value:.2f}".rstrip("0").rstrip(".") + line.unit
