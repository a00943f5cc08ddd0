"""A plotter that stands in for a real one: it takes plot files in their order, and draws what the pen does.

It is as fast as a workroom's: what it has drawn at a time follows from when it began and how far its pens travelled, so
nothing has to run in order to watch it.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property
from html import escape
from itertools import pairwise
from math import atan2, degrees

from izett.errors import UnreadableFile
from izett.files.hpgl import CUT, LETTERING, MARK, SEW, Lettering, Stroke, read_hpgl
from izett.files.pdf import ROLL_WIDTH
from izett.geometry.point import Point, between, distance

#: cm a second, with the pen down and lifted; seconds to lift or lower it, to take another pen, and to write a letter.
DRAWS, MOVES, LIFTS, CHANGES, WRITES = 60.0, 100.0, 0.05, 1.5, 0.15
#: cm. What the picture shows around the paper; a pen that left the roll by less than this has not.
RIM, HAIR = 2.0, 0.01


@dataclass(frozen=True, slots=True)
class Drawn:
    """What the pen did: the mark, when it began and when it was done, in seconds from the start."""

    mark: Stroke | Lettering
    began: float
    done: float


@dataclass(frozen=True)
class Plot:
    """A plot file as it is drawn on a roll.

    Attributes:
        drawn: all that the pens draw, in its order.
        roll: how wide the paper is, cm.
    """

    drawn: tuple[Drawn, ...]
    roll: float = ROLL_WIDTH

    @property
    def seconds(self) -> float:
        """How long it takes."""
        return self.drawn[-1].done

    @cached_property
    def bounds(self) -> tuple[float, float, float, float]:
        """The smallest and largest places that a pen reaches, cm: (from, low, to, high), the first along the roll."""
        spots = [spot for one in self.drawn for spot in _spots(one.mark)]
        xs, ys = [x for x, _ in spots], [y for _, y in spots]
        return min(xs), min(ys), max(xs), max(ys)

    @property
    def length(self) -> float:
        """How much of the roll it takes, cm."""
        return self.bounds[2]

    @property
    def travelled(self) -> float:
        """How far the pens draw, cm."""
        return sum(_long(one.mark) for one in self.drawn)

    @property
    def off_the_roll(self) -> float:
        """How far it reaches beyond the paper, cm: a pen cannot follow it there."""
        start, low, _, high = self.bounds
        beyond = max(-start, -low, high - self.roll)
        return beyond if beyond > HAIR else 0.0

    def until(self, seconds: float) -> Iterator[Stroke | Lettering]:
        """Yield what has been drawn after so many seconds, the line under the pen as far as it has come."""
        for one in self.drawn:
            if one.done <= seconds:
                yield one.mark
            elif one.began < seconds and isinstance(one.mark, Stroke):
                part = (seconds - one.began) / (one.done - one.began) * one.mark.length
                yield Stroke(one.mark.pen, tuple(_begun(one.mark.points, part)))


def plotted(content: bytes, *, roll: float = ROLL_WIDTH) -> Plot:
    """Return what the plotter makes of a plot file.

    Raises:
        UnreadableFile: it is no plot file, is damaged or too large, or draws nothing.
    """
    marks = read_hpgl(content)
    if not marks:
        raise UnreadableFile("The plot file draws nothing.", fix="Write it again, with the pen put down.")
    drawn: list[Drawn] = []
    clock, at, pen = 0.0, (0.0, 0.0), 0
    for mark in marks:
        first, *_, last = (*_spots(mark), _spots(mark)[-1])
        clock += distance(at, first) / MOVES + LIFTS
        if isinstance(mark, Stroke) and mark.pen != pen:
            pen = mark.pen
            clock += CHANGES
        took = _long(mark) / DRAWS if isinstance(mark, Stroke) else WRITES * len(mark.text)
        drawn.append(Drawn(mark, clock, clock + took))
        clock, at = clock + took + LIFTS, last
    return Plot(tuple(drawn), roll)


def _spots(mark: Stroke | Lettering) -> tuple[Point, ...]:
    return mark.points if isinstance(mark, Stroke) else (mark.at,)


def _long(mark: Stroke | Lettering) -> float:
    return mark.length if isinstance(mark, Stroke) else 0.0


def _begun(points: Sequence[Point], length: float) -> Iterator[Point]:
    """Yield the places of a line up to a length along it, cm."""
    yield points[0]
    for a, b in pairwise(points):
        step = distance(a, b)
        if step >= length:
            yield between(a, b, length / step) if step else b
            return
        length -= step
        yield b


#: Pens as the picture shows them: cut, sewn, marked.
_STYLE = (
    ".paper{fill:#fdfcf8;stroke:#999;stroke-width:.3}.edge{fill:none;stroke:#a33;stroke-width:.3;stroke-dasharray:2 1}"
    f"path{{fill:none;stroke:#222;stroke-width:.2;stroke-linejoin:round}}.pen{CUT}{{stroke-width:.35}}"
    f".pen{SEW}{{stroke-dasharray:1.2 .8}}.pen{MARK}{{stroke:#456}}text{{font-family:sans-serif;fill:#222}}"
)


def write_plot_svg(plot: Plot, seconds: float) -> str:
    """Return a picture, millimetre for centimetre, of what a plotter has drawn after so many seconds."""
    start, low, end, high = plot.bounds
    left, bottom = min(0.0, start) - RIM, min(0.0, low) - RIM
    wide, tall = max(end, 1.0) + RIM - left, max(plot.roll, high) + RIM - bottom

    def at(spot: Point) -> str:
        return f"{spot[0] - left:.3f} {bottom + tall - spot[1]:.3f}"

    marks = []
    for mark in plot.until(seconds):
        if isinstance(mark, Lettering):
            turned = f"translate({at(mark.at)}) rotate({-degrees(atan2(mark.runs[1], mark.runs[0])):g})"
            size = f'font-size="{LETTERING * 1.4:g}"'
            marks.append(f'<text transform="{turned}" {size}>{escape(mark.text)}</text>')
        else:
            marks.append(f'<path class="pen{mark.pen}" d="M{" L".join(at(spot) for spot in mark.points)}"/>')
    paper = f"M{at((0.0, 0.0))} L{at((end, 0.0))} L{at((end, plot.roll))} L{at((0.0, plot.roll))} Z"
    return (
        '<?xml version="1.0" encoding="UTF-8"?>\n'
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{wide:.3f}mm" height="{tall:.3f}mm" '
        f'viewBox="0 0 {wide:.3f} {tall:.3f}">\n<style>{_STYLE}</style>\n<path class="paper" d="{paper}"/>\n'
        + "\n".join(marks)
        + "\n</svg>\n"
    )


@dataclass(frozen=True, slots=True)
class Waiting:
    """A plot file in the queue: when it came (seconds of any clock), how long it takes, when it was stopped.

    `began` is when the plotter took it up, where that is past and kept.
    """

    came: float
    takes: float
    stopped: float | None = None
    began: float | None = None


@dataclass(frozen=True, slots=True)
class Turn:
    """When a plot begins and ends; one that was stopped while it waited never begins."""

    began: float | None
    ended: float


def turns(queue: Sequence[Waiting]) -> list[Turn]:
    """Return when each of a queue has its turn: one at a time, in the order in which they came."""
    found: list[Turn] = []
    free = float("-inf")
    for one in queue:
        began = one.began if one.began is not None else max(one.came, free)
        if one.stopped is not None and one.stopped <= began:
            found.append(Turn(None, one.stopped))
            continue
        ended = began + one.takes if one.stopped is None else min(began + one.takes, one.stopped)
        found.append(Turn(began, ended))
        free = max(free, ended)
    return found
