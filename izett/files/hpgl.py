"""Plot files in HPGL, from memory of the published language: pens, moves, and words, in steps of a fortieth of a millimetre.

`IN` initialises, `SP` takes a pen (1 cuts, 2 draws what is sewn, 3 the marks and words), `PU` and `PD` move with the pen up
or down, `LB` writes up to an ETX, `PG` ends the sheet.
"""

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from izett.errors import UnreadableFile
from izett.files.stacks import in_rows, stacked
from izett.finishing.sheet import SheetPiece, label_place
from izett.geometry.point import Point

#: Steps a centimetre: 40 a millimetre.
STEPS = 400
#: Pens.
CUT, SEW, MARK = 1, 2, 3
#: cm between pieces, and around them; letters' height and the step from line to line.
SPACE, LETTERING, LINE_STEP = 2.0, 0.5, 0.6
ETX = "\x03"
#: Instructions, and steps, that are read at most; no plotter reaches further than its steps go.
MOST_INSTRUCTIONS, FARTHEST = 400_000, 10_000_000
LARGEST = 8 * 2**20
_LETTERING = re.compile(r"\s*[Ll][Bb]")
_INSTRUCTION = re.compile(r"\s*([A-Za-z]{2})([^A-Za-z\x03;]*)(?:;|(?=[A-Za-z])|$)")


@dataclass(frozen=True, slots=True)
class Stroke:
    """What a pen drew without being lifted: its number, and the places in cm."""

    pen: int
    points: tuple[Point, ...]


@dataclass(frozen=True, slots=True)
class Lettering:
    """Words that were written, from a place on, cm."""

    at: Point
    text: str


def write_hpgl(sheets: Sequence[SheetPiece], *, width: float) -> str:
    """Return the plot file of pieces on a roll, `width` cm wide: side by side, row by row along the roll (x).

    A piece wider than the roll is plotted at the beginning of a row of its own, and runs off it: the plotter tells.
    """
    parts = ["IN;", f"SI{LETTERING * 0.6:.2f},{LETTERING:.2f};"]
    for stack, shift in in_rows(stacked(sheets), width=width, space=SPACE):
        parts += _piece(stack.sheets[0], shift)
    return "".join([*parts, "PU;SP0;PG;\n"])


def _piece(sheet: SheetPiece, shift: Point) -> Iterator[str]:
    def line(points: Sequence[Point], *, closed: bool = False) -> str:
        spots = [_steps((x + shift[0], y + shift[1])) for x, y in (*points, *(points[:1] if closed else ()))]
        return f"PU{spots[0]};PD{','.join(spots[1:])};PU;"

    yield f"SP{CUT};"
    yield line(sheet.cutting, closed=True)
    if sheet.cutting != sheet.sewing:
        yield f"SP{SEW};"
        yield line(sheet.sewing, closed=True)
    yield f"SP{MARK};"
    legs = [dart.legs for dart in sheet.darts if dart.sewn]
    for mark in (*legs, *sheet.diamonds, *sheet.levels, *sheet.notches, sheet.grain):
        yield line(mark)
    x, y = label_place(sheet)
    for number, text in enumerate(sheet.label):
        yield f"PU{_steps((x + shift[0], y + shift[1] - number * LINE_STEP))};LB{_plain(text)}{ETX};"


def _steps(spot: Point) -> str:
    return f"{round(spot[0] * STEPS)},{round(spot[1] * STEPS)}"


def _plain(text: str) -> str:
    """Return words without what would end them: a plotter's letters are printable."""
    return "".join(c for c in text if c.isprintable())


def read_hpgl(content: bytes) -> list[Stroke | Lettering]:
    """Return what a plotter draws of a plot file, in cm.

    Raises:
        UnreadableFile: it is no plot file, is damaged or too large.
    """
    if len(content) > LARGEST:
        raise UnreadableFile(
            f"The plot file has {len(content) / 2**20:.1f} MB; at most {LARGEST // 2**20} MB are plotted.",
            fix="Plot fewer pieces at a time.",
        )
    text = content.decode("latin-1")
    if "IN" not in text[:200].upper():
        raise UnreadableFile("This is no plot file: it does not begin with IN.", fix="Choose an HPGL file.")
    return list(_drawn(text))


def _drawn(text: str) -> Iterator[Stroke | Lettering]:
    pen, at, down, relative = 0, (0.0, 0.0), False, False
    line: list[Point] = []
    for name, rest in _instructions(text):
        if name == "LB":
            yield Lettering(at, rest)
            continue
        if name == "SP":
            pen = int(_numbers(rest)[0]) if rest.strip() else 0
        elif name in ("PU", "PD", "PA", "PR"):
            if name in ("PU", "PD") and (name == "PD") != down:
                if len(line) > 1:
                    yield Stroke(pen, tuple(line))
                down, line = name == "PD", [at]
            relative = {"PA": False, "PR": True}.get(name, relative)
            numbers = _numbers(rest)
            if len(numbers) % 2:
                raise UnreadableFile(f"{name}{rest[:20]}: a place needs two numbers.", fix="Write the plot file again.")
            for x, y in zip(numbers[::2], numbers[1::2], strict=True):
                here = (x / STEPS, y / STEPS)
                at = (at[0] + here[0], at[1] + here[1]) if relative else here
                line.append(at)
            if not down:
                line = [at]
    if down and len(line) > 1:
        yield Stroke(pen, tuple(line))


def _instructions(text: str) -> Iterator[tuple[str, str]]:
    """Yield each instruction with what follows it: numbers, or the words of a lettering."""
    at = number = 0
    end = len(text.rstrip())
    while at < end:
        number += 1
        if number > MOST_INSTRUCTIONS:
            raise UnreadableFile("The plot file never ends.", fix="Plot fewer pieces at a time.")
        if (lettering := _LETTERING.match(text, at)) is not None:
            until = text.find(ETX, lettering.end())
            if until < 0:
                raise UnreadableFile("Words of the plot file have no end.", fix="Write the plot file again.")
            yield "LB", text[lettering.end() : until]
            at = until + 1 + text.startswith(";", until + 1)
            continue
        match = _INSTRUCTION.match(text, at)
        if match is None:
            raise UnreadableFile(f"{text[at : at + 12]!r} is no instruction of a plotter.", fix="Write it again.")
        yield match[1].upper(), match[2]
        at = match.end()


def _numbers(text: str) -> list[float]:
    try:
        found = [float(part) for part in re.split(r"[,\s]+", text.strip()) if part]
    except ValueError as error:
        raise UnreadableFile(f"“{text[:20]}” are no numbers.", fix="Write the plot file again.") from error
    if any(not abs(number) < FARTHEST for number in found):
        raise UnreadableFile("The plot file reaches further than any plotter.", fix="Write the plot file again.")
    return found
