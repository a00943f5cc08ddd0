"""Reading what others wrote: JSON and CSV as text, with what is wrong said in words and nothing that runs away.

CSV cells that a spreadsheet would take for a formula are written with an apostrophe before them, and read without it.
"""

import csv
import json
import re
from collections.abc import Iterable, Mapping, Sequence
from io import StringIO
from math import isinf
from pathlib import Path
from typing import Any, NamedTuple, NoReturn

from pydantic import ValidationError

from izett.errors import UnreadableFile

#: Bytes of a file that is read from the command line; a pattern with all its blocks has a tenth of a megabyte.
LARGEST = 6 * 2**20
#: Objects and lists within each other. A job file has nine at most.
MOST_NESTED = 40
#: Objects and lists altogether, and values in them: each takes memory, however little it says. A job gains some fifty
#: lists with a change: it has no more after thousands of them.
MOST_LISTS, MOST_VALUES = 300_000, 1_500_000
#: Rows and columns of a table.
MOST_ROWS, MOST_COLUMNS = 5_000, 500
#: A spreadsheet works out what begins so.
_NUMBER = re.compile(r"[-+]?\d+(\.\d+)?")
FORMULA_MARKS = ("=", "+", "-", "@", "\t", "\r")


def read_json(text: str | bytes) -> Any:
    """Return what a JSON text says.

    Raises:
        UnreadableFile: it is no JSON, has a number that is none or has no end, more lists or values than any file of
            Izett's, or lists within lists without end.
    """
    if _count(text, "[") + _count(text, "{") > MOST_LISTS or _count(text, ",") > MOST_VALUES:
        raise UnreadableFile(
            f"The file has more than {MOST_LISTS:,} lists or {MOST_VALUES:,} values: it is none of Izett's.",
            fix="Choose a file that was written by Izett.",
        )
    try:
        data = json.loads(text, parse_constant=_no_number, parse_float=_finite)
    except RecursionError as error:
        raise _too_deep() from error
    except ValueError as error:
        raise UnreadableFile(f"This is not valid JSON: {error}.", fix="Check that it was copied whole.") from error
    if nesting(data) > MOST_NESTED:
        raise _too_deep()
    return data


def _count(text: str | bytes, mark: str) -> int:
    return text.count(mark) if isinstance(text, str) else text.count(mark.encode())


def _no_number(text: str) -> NoReturn:
    raise ValueError(f"{text} is not a number")


def _finite(text: str) -> float:
    value = float(text)
    if isinf(value):
        raise ValueError(f"{text[:20]} is larger than any number here")
    return value


def _too_deep() -> UnreadableFile:
    return UnreadableFile(
        f"The file has more than {MOST_NESTED} lists within each other: it is none of Izett's.",
        fix="Choose a file that was written by Izett.",
    )


def content_of(path: Path, *, most: int = LARGEST) -> bytes:
    """Return what is in a file of at most so many bytes.

    Raises:
        UnreadableFile: it is larger.
        OSError: it cannot be read at all.
    """
    if (size := path.stat().st_size) > most:
        raise UnreadableFile(
            f"{path} has {size / 2**20:.1f} MB; at most {most / 2**20:.0f} MB are read.",
            fix="Choose another file, or export less at a time.",
        )
    return path.read_bytes()


def text_of(path: Path) -> str:
    """Return what a text file says.

    Raises:
        UnreadableFile: it is no text, or too large.
        OSError: it cannot be read at all.
    """
    try:
        return content_of(path).decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise UnreadableFile(f"{path} is not a text file.", fix="Choose a file that was written as text.") from error


class Wrong(NamedTuple):
    """Where a document is not what it should be, what is wrong there, and of which kind that is."""

    place: str
    words: str
    kind: str


def wrong_in(error: ValidationError) -> Wrong:
    """Return what is wrong with a document, the first of all that is: its place is empty where it is about the whole."""
    first = error.errors()[0]
    words = str(first["msg"]).removeprefix("Value error, ")
    return Wrong(" → ".join(str(part) for part in first["loc"]), f"{words[:1].lower()}{words[1:]}", str(first["type"]))


def nesting(data: Any) -> int:
    """Return how many objects and lists of plain data lie within each other; it stops counting beyond `MOST_NESTED`."""
    level, inner = 0, [data]
    while inner and level <= MOST_NESTED:
        inner = [x for one in inner for x in _within(one)]
        level += 1
    return level - 1


def _within(data: Any) -> Iterable[Any]:
    if isinstance(data, Mapping):
        return data.values()
    return data if isinstance(data, list | tuple) else ()


def read_rows(text: str, delimiter: str) -> list[list[str]]:
    """Return the rows of a CSV text, cells without the space around them.

    Raises:
        UnreadableFile: a cell has no end, or there are more rows or columns than any table here has.
    """
    lines = text.replace("\r\n", "\n").replace("\r", "\n")
    try:
        rows = [[_unescaped(cell.strip()) for cell in row] for row in csv.reader(StringIO(lines), delimiter=delimiter)]
    except csv.Error as error:
        raise UnreadableFile(
            f"The table cannot be read: {error}.", fix="Look for a quotation mark that is not closed."
        ) from error
    if len(rows) > MOST_ROWS or any(len(row) > MOST_COLUMNS for row in rows):
        raise UnreadableFile(
            f"The table has more than {MOST_ROWS} rows or {MOST_COLUMNS} columns.", fix="Choose another file."
        )
    return rows


def write_rows(rows: Iterable[Sequence[str]]) -> str:
    """Return rows as CSV, what a spreadsheet would work out escaped."""
    stream = StringIO()
    table = csv.writer(stream, lineterminator="\n")
    table.writerows([_escaped(cell) for cell in row] for row in rows)
    return stream.getvalue()


def _escaped(cell: str) -> str:
    # A number below nothing begins like a formula, and is none.
    return f"'{cell}" if cell.startswith(FORMULA_MARKS) and not _NUMBER.fullmatch(cell) else cell


def _unescaped(cell: str) -> str:
    return cell[1:] if cell.startswith("'") and cell[1:].startswith(FORMULA_MARKS) else cell
