"""Plot files in HPGL, from memory of the published language: pens, moves, and words, in steps of a fortieth of a millimetre.

`IN` initialises, `SP` takes a pen (1 cuts, 2 draws what is sewn, 3 the marks and words), `PU` and `PD` move with the pen up
or down, `DI` says which way words run, `LB` writes them up to an ETX, `PG` ends the sheet. x runs along the roll.
"""

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise

from izett.errors import UnreadableFile
from izett.files.stacks import in_rows, stacked
from izett.finishing.sheet import SheetPiece, label_place, name_place
from izett.geometry.point import Point, distance, unit

#: Steps a centimetre: 40 a millimetre.
STEPS = 400
#: Pens.
CUT, SEW, MARK = 1, 2, 3
#: cm between pieces, and around them; letters' height and the step from line to line.
SPACE, LETTERING, LINE_STEP = 2.0, 0.5, 0.6
#: cm. The arms of the cross where something is drilled.
DRILL = 0.15
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

    @property
    def length(self) -> float:
        """How far the pen went, cm."""
        return sum(distance(a, b) for a, b in pairwise(self.points))


@dataclass(frozen=True, slots=True)
class Lettering:
    """Words that were written, from a place on, cm; `runs` is the way they run."""

    at: Point
    text: str
    runs: Point = (1.0, 0.0)


def write_hpgl(sheets: Sequence[SheetPiece], *, width: float) -> str:
    """Return the plot file of pieces on a roll, `width` cm wide: side by side across it, row by row along it.

    The pieces are turned by a quarter, so that what lies up on the paper runs along the roll. A piece wider than the roll
    has a row of its own, and runs off it: the plotter tells.
    """
    parts = ["IN;", f"SI{LETTERING * 0.6:.2f},{LETTERING:.2f};", "DI0,-1;"]
    for stack, shift in in_rows(stacked(sheets), width=width, space=SPACE):
        parts += _piece(stack.sheets[0], shift, width)
    return "".join([*parts, "PU;SP0;PG;\n"])


def _piece(sheet: SheetPiece, shift: Point, width: float) -> Iterator[str]:
    def at(x: float, y: float) -> str:
        return f"{round((y + shift[1]) * STEPS)},{round((width - x - shift[0]) * STEPS)}"

    def line(points: Sequence[Point], *, closed: bool = False) -> str:
        spots = [at(*spot) for spot in (*points, *(points[:1] if closed else ()))]
        return f"PU{spots[0]};PD{','.join(spots[1:])};PU;"

    yield f"SP{CUT};"
    yield line(sheet.cutting, closed=True)
    if sheet.cutting != sheet.sewing:
        yield f"SP{SEW};"
        yield line(sheet.sewing, closed=True)
    yield f"SP{MARK};"
    legs = [dart.legs for dart in sheet.darts if dart.sewn]
    places = [place.points for place in sheet.places]
    drills = [stroke for hole in sheet.drills for stroke in _crossed(hole)]
    inner = (*legs, *sheet.diamonds, *sheet.inner_lines, *places, *drills)
    for mark in (*inner, *sheet.notches, sheet.grain, *sheet.signs):
        yield line(mark)
    for place in sheet.places:
        yield f"PU{at(*name_place(place))};LB{_plain(place.level)}{ETX};"
    x, y = label_place(sheet)
    for number, text in enumerate(sheet.label):
        yield f"PU{at(x, y - number * LINE_STEP)};LB{_plain(text)}{ETX};"


def _crossed(hole: Point) -> list[tuple[Point, Point]]:
    """Return the two strokes of a pen for what is drilled."""
    x, y = hole
    return [((x - DRILL, y - DRILL), (x + DRILL, y + DRILL)), ((x - DRILL, y + DRILL), (x + DRILL, y - DRILL))]


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
    runs = (1.0, 0.0)
    line: list[Point] = []
    for name, rest in _instructions(text):
        if name == "LB":
            yield Lettering(at, rest, runs)
            continue
        if name == "DI":
            runs = _way(rest)
        elif name == "SP":
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


def _way(text: str) -> Point:
    """Return which way words run: to the right, if nothing else is said."""
    numbers = _numbers(text)
    if not numbers:
        return (1.0, 0.0)
    if len(numbers) != 2 or not any(numbers):
        raise UnreadableFile(f"DI{text[:20]}: a direction needs two numbers.", fix="Write the plot file again.")
    return unit((numbers[0], numbers[1]))


def _numbers(text: str) -> list[float]:
    try:
        found = [float(part) for part in re.split(r"[,\s]+", text.strip()) if part]
    except ValueError as error:
        raise UnreadableFile(f"“{text[:20]}” are no numbers.", fix="Write the plot file again.") from error
    if any(not abs(number) < FARTHEST for number in found):
        raise UnreadableFile("The plot file reaches further than any plotter.", fix="Write the plot file again.")
    return found
