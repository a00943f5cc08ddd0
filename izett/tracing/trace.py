"""A traced piece: what a picture of it comes to, and the panel that this makes.

A trace is a proposal. Its outline, corners, notches, darts and marks are looked at over the picture and corrected there; the
panel that is kept has marks and drawn lines like any other given panel.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from math import atan2, cos, pi, sin

import numpy as np
from shapely import LinearRing
from shapely import Point as Spot

from izett.draping.outlines import DECIMALS, Named, panel_from_lines, three_at_least
from izett.draping.panel import CORNERS, Mark, MarkKind, Panel, name_of
from izett.draping.ring import INSIDE, LEAST_CORNERS
from izett.geometry.curve import Curve, straight
from izett.geometry.dots import along_dots
from izett.geometry.outline import gap
from izett.geometry.point import Point
from izett.tracing.corners import Read, read, read_anew
from izett.tracing.look import Look
from izett.tracing.mapping import Picture, Spots, straightened
from izett.tracing.pencil import nearest

#: cm. How far an edge that was cut with scissors is off its line, and how far a line may lie off the edge.
CUT_NOISE, CUT_MOST = 0.05, 0.2
#: An edge is drawn along so many of its places.
PLACES = 28
#: cm. A line within so much of its chord is straight.
STRAIGHT = 0.06
#: A line of more cubics than this is ragged, and told.
RAGGED = 4


@dataclass(frozen=True)
class Line:
    """A line of a traced outline.

    Attributes:
        curve: cm, y up.
        off: how far the edge lies off it at most, cm.
    """

    curve: Curve
    off: float

    @property
    def ragged(self) -> bool:
        """Whether the edge is too uneven to be drawn."""
        return self.off > CUT_MOST or sum(1 for _ in self.curve.cubics()) > RAGGED


@dataclass(frozen=True)
class Trace:
    """What a picture comes to. All places are cm, x right and y up, turned so that the picture's own upright stays upright.

    Attributes:
        look: what the picture shows.
        lines: from corner to corner, counter-clockwise.
        notches: places on them.
        darts: the corners that are a dart's tip, by number.
        ghosts: marks that are proposed, with their kind.
        marks: those that a person took; None where nobody said.
    """

    look: Look
    lines: tuple[Line, ...]
    notches: tuple[Point, ...]
    darts: tuple[int, ...]
    ghosts: tuple[tuple[MarkKind, Point], ...]
    marks: tuple[tuple[MarkKind, Point], ...] | None = None


class Kind(StrEnum):
    """What a person takes, moves or drops over a picture."""

    CORNER = "corner"
    NOTCH = "notch"
    DOT = "dot"
    CROSS = "cross"
    DASH = "dash"


@dataclass(frozen=True)
class Taken:
    """Something that a person took over the picture.

    Attributes:
        kind: what it is.
        at: where it was pointed at, pixels.
        exact: whether it lies just there; else it goes to what is near: a mark, a corner, the outline.
    """

    kind: Kind
    at: tuple[float, float]
    exact: bool = False


#: What a pencil makes.
PENCILLED = (Kind.DOT, Kind.CROSS, Kind.DASH)


def trace_of(look: Look, taken: Sequence[Taken] | None = None, *, outline: bool = True) -> Trace:
    """Return what a picture comes to.

    Args:
        look: what it shows.
        taken: all corners, notches and marks that a person takes; None leaves what was found.
        outline: whether what is taken tells the outline too, or its marks alone.

    Raises:
        PictureRefused: too few corners are left.
    """
    told = list(taken or ())
    spots: Spots = look.mapping.spots(np.array([one.at for one in told]).reshape(-1, 2))
    found = look.read
    if taken is not None and outline:
        corners = [(spot, one.exact) for one, spot in zip(told, spots, strict=True) if one.kind is Kind.CORNER]
        notches = [spot for one, spot in zip(told, spots, strict=True) if one.kind is Kind.NOTCH]
        found = read_anew(found, corners, notches)
    marks = [_mark_at(look, one, spot) for one, spot in zip(told, spots, strict=True) if one.kind in PENCILLED]
    return Trace(
        look,
        lines_of(found),
        tuple(_up(notch.at) for notch in found.notches),
        found.darts,
        tuple((ghost.kind, _up(ghost.at)) for ghost in look.ghosts),
        None if taken is None else tuple(dict.fromkeys(marks)),
    )


def _mark_at(look: Look, taken: Taken, spot: Spots) -> tuple[MarkKind, Point]:
    """Return the mark that was pointed at: the nearest that was proposed, or one of one's own."""
    ghost = None if taken.exact else nearest(look.ghosts, spot)
    return (ghost.kind, _up(ghost.at)) if ghost is not None else (MarkKind(taken.kind.value), _up(spot))


def _up(spot: Spots) -> Point:
    """Return a spot of the table with y up."""
    return (float(spot[0]), -float(spot[1]))


def lines_of(found: Read) -> tuple[Line, ...]:
    """Return the lines of an outline, drawn."""
    lines = tuple(_drawn(_thinned(line)) for line in found.lines)
    if len(lines) >= LEAST_CORNERS:
        return lines
    off = max(line.off for line in lines)
    return tuple(Line(curve, off) for curve in three_at_least([line.curve for line in lines]))


def _thinned(line: Spots) -> list[Point]:
    every = np.unique(np.rint(np.linspace(0, len(line) - 1, min(len(line), PLACES + 2))).astype(int))
    return [_up(line[i]) for i in every]


def _drawn(places: Sequence[Point]) -> Line:
    start, end, dots = places[0], places[-1], tuple(places[1:-1])
    chord = straight(start, end)
    off = max((gap([start, end], spot) for spot in dots), default=0.0)
    if off <= STRAIGHT:
        return Line(chord, off)
    fit = along_dots(start, dots, end, noise=CUT_NOISE, most=CUT_MOST)
    return Line(fit.curve, fit.farthest)


def panel_of(trace: Trace, title: str, *, upright: int | None = None) -> Panel:
    """Return the panel that a traced outline makes: a cross at each corner, its lines as drawn, a notch at each notch.

    Pencil marks that were taken lie within it.

    Args:
        trace: of a piece.
        title: what the panel is called.
        upright: the line that is to stand upright: on the fold, or along the grain; as the picture has it where None.
    """
    moved = placing(trace, upright).moved
    lines = [Named(name, line.curve.mapped(moved)) for name, line in zip(line_names(trace), trace.lines, strict=True)]
    panel = panel_from_lines(title, lines, notches=[moved(spot) for spot in trace.notches])
    within = [(kind, moved(spot)) for kind, spot in trace.marks or ()]
    return panel.model_copy(update={"marks": (*panel.marks, *(_mark(kind, spot, (INSIDE,)) for kind, spot in within))})


def panel_of_marks(trace: Trace, title: str, *, upright: int | None = None) -> Panel:
    """Return the panel that the pencil marks on a muslin make: in the order of walking round it, as they were told.

    The cloth's own edge is no line of it, but runs beside its lines: each mark comes where the edge next to it does. Crosses
    and dashes are its corners, and each line has a number until it is named.

    Args:
        trace, title, upright: as of `panel_of`.
    """
    moved = placing(trace, upright).moved
    edge = LinearRing(trace.look.read.places * (1, -1))
    edge = edge if edge.is_ccw else edge.reverse()
    marks = sorted(trace.ghosts if trace.marks is None else trace.marks, key=lambda mark: edge.project(Spot(mark[1])))
    round_it = [(kind, moved(spot)) for kind, spot in marks]
    first = next((i for i, (kind, _) in enumerate(round_it) if kind in CORNERS), 0)
    walk = [*round_it[first:], *round_it[:first]]
    count = max(sum(1 for kind, _ in walk if kind in CORNERS), 1)
    found, number = [], 0
    for kind, spot in walk:
        if kind in CORNERS:
            number += 1
            lines = tuple(dict.fromkeys((f"line_{(number - 2) % count + 1}", f"line_{number}")))
        else:
            lines = (f"line_{max(number, 1)}",)
        found.append(_mark(kind, spot, lines))
    return Panel(name=name_of(title), title=title, marks=tuple(found))


def _mark(kind: MarkKind, spot: Point, lines: tuple[str, ...]) -> Mark:
    return Mark(kind=kind, across=round(spot[0], DECIMALS), along=round(spot[1], DECIMALS), lines=lines)


def line_names(trace: Trace) -> list[str]:
    """Return what the lines of a trace are called until somebody says what they are: by number; a dart's legs by the dart."""
    names = [f"line_{i + 1}" for i in range(len(trace.lines))]
    for number, tip in enumerate(trace.darts, start=1):
        dart = f"dart_{number}"
        names[tip - 1] = names[tip] = dart
        # What a dart parts is one line.
        names[(tip + 1) % len(names)] = names[tip - 2]
    return names


@dataclass(frozen=True, slots=True)
class Placing:
    """What brings a trace's places into its panel's frame: a turn (radians), then a shift."""

    turn: float
    across: float
    along: float

    def moved(self, spot: Point) -> Point:
        """Return a place in the panel's frame."""
        c, s = cos(self.turn), sin(self.turn)
        return (c * spot[0] - s * spot[1] + self.across, s * spot[0] + c * spot[1] + self.along)


def placing(trace: Trace, upright: int | None) -> Placing:
    """Return what brings a trace about its lower left corner, with a line upright where one is given."""
    turn = 0.0
    if upright is not None:
        (ax, ay), (bx, by) = trace.lines[upright].curve.start, trace.lines[upright].curve.end
        turn = (pi / 2 - atan2(by - ay, bx - ax) + pi / 2) % pi - pi / 2
    alone = Placing(turn, 0.0, 0.0)
    spots = [alone.moved(spot) for line in trace.lines for spot in line.curve.flattened()]
    return Placing(turn, -min(x for x, _ in spots), -min(y for _, y in spots))


#: Pixels a cm, and pixels along the longer edge, of the picture that is kept under a piece; cm that it shows beyond it.
KEPT_SHARP, KEPT_LONG, KEPT_BEYOND = 20.0, 1900, 2.0


@dataclass(frozen=True)
class Kept:
    """The picture of a piece as seen from straight above: its pixels, its upper left corner (cm, y up), pixels a cm."""

    picture: Picture
    left: float
    top: float
    px_per_cm: float


def kept_picture(picture: Picture, trace: Trace) -> Kept:
    """Return the part of a picture that shows the piece, seen from straight above, to be laid under it."""
    spots = np.array([spot for line in trace.lines for spot in line.curve.flattened()])
    (x0, y0), (x1, y1) = spots.min(axis=0) - KEPT_BEYOND, spots.max(axis=0) + KEPT_BEYOND
    scale = min(KEPT_SHARP, KEPT_LONG / max(x1 - x0, y1 - y0))
    size = (int((x1 - x0) * scale), int((y1 - y0) * scale))
    return Kept(
        straightened(picture, trace.look.mapping, np.array([x0, -y1]), size, scale), float(x0), float(y1), float(scale)
    )


def lines_through(spots: Sequence[Point]) -> list[Curve]:
    """Return the lines of an outline that came as many points, drawn from corner to corner."""
    return [line.curve for line in lines_of(read(np.asarray(spots, float) * (1, -1)))]
