"""A traced piece: what a picture of it comes to, and the panel that this makes.

A trace is a proposal. Its outline, corners, notches, darts and marks are looked at over the picture and corrected there; the
panel that is kept has marks and drawn lines like any other given panel.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import atan2, cos, pi, sin

import numpy as np

from izett.draping.outlines import DECIMALS, Named, panel_from_lines, three_at_least
from izett.draping.panel import CORNERS, Mark, MarkKind, Panel, name_of
from izett.draping.ring import LEAST_CORNERS
from izett.geometry.curve import Curve, straight
from izett.geometry.dots import along_dots
from izett.geometry.outline import gap
from izett.geometry.point import Point
from izett.progress import Progress, untold
from izett.tracing.calibration import Calibrated, calibrated
from izett.tracing.corners import Read, read
from izett.tracing.mapping import Mapping, Picture, Spots, scale_at, straightened
from izett.tracing.outline import outline
from izett.tracing.pencil import pencil_marks
from izett.tracing.told import Why, refused

#: cm. How far an edge that was cut with scissors is off its line, and how far a line may lie off the edge.
CUT_NOISE, CUT_MOST = 0.05, 0.2
#: An edge is drawn along so many of its places.
PLACES = 28
#: cm. A line within so much of its chord is straight.
STRAIGHT = 0.06
#: A line of more cubics than this is ragged, and told.
RAGGED = 4
#: Parts of the work that are told as it goes on.
PARTS = 5


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
        lines: from corner to corner, counter-clockwise.
        notches: places on them.
        darts: the corners that are a dart's tip, by number.
        ghosts: marks that are proposed, with their kind.
        contrast: of the edge over the noise.
        px_per_cm: pixels a cm at the piece.
        mapping: of the picture.
        calibration: of a photo among sheets; None where the scale was told otherwise.
    """

    lines: tuple[Line, ...]
    notches: tuple[Point, ...]
    darts: tuple[int, ...]
    ghosts: tuple[tuple[MarkKind, Point], ...]
    contrast: float
    px_per_cm: float
    mapping: Mapping
    calibration: Calibrated | None = None


def traced_photo(
    picture: Picture, tap: tuple[float, float], *, paper: str = "a4", bar: float = 1.0, progress: Progress = untold
) -> Trace:
    """Return what a photo of a piece among printed sheets comes to.

    Args:
        picture: height × width × 3, blue, green, red.
        tap: a pixel on the piece.
        paper: what the sheets were printed on.
        bar: by which share they were printed larger than drawn.
        progress: told how far the work has come.

    Raises:
        PictureRefused: nothing can be measured in it, or no piece is found; its reason is told.
    """
    progress(0, PARTS)
    known = calibrated(picture, paper=paper, bar=bar)
    progress(1, PARTS)
    return _traced(picture, known.mapping, tap, known, progress)


def traced_flat(picture: Picture, mapping: Mapping, tap: tuple[float, float], *, progress: Progress = untold) -> Trace:
    """Return what a picture comes to whose scale is told by points, a rectangle or a grid."""
    progress(1, PARTS)
    return _traced(picture, mapping, tap, None, progress)


def _traced(
    picture: Picture, mapping: Mapping, tap: tuple[float, float], known: Calibrated | None, progress: Progress
) -> Trace:
    high, wide = picture.shape[:2]
    if not (0 <= tap[0] < wide and 0 <= tap[1] < high):
        raise refused(Why.NO_PIECE, "The tap lies outside the picture.", "Tap the middle of the piece.")
    spot = mapping.spots(np.array([tap]))[0]
    seen = outline(picture, mapping, spot, known.sheets if known else {})
    progress(2, PARTS)
    found = read(seen.ring)
    progress(3, PARTS)
    ghosts = pencil_marks(picture, mapping, seen.ring)
    progress(4, PARTS)
    lines = lines_of(found)
    progress(PARTS, PARTS)
    return Trace(
        lines,
        tuple(_up(notch.at) for notch in found.notches),
        found.darts,
        tuple((ghost.kind, _up(ghost.at)) for ghost in ghosts),
        seen.contrast,
        scale_at(mapping, spot),
        mapping,
        known,
    )


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

    Args:
        trace: of a piece.
        title: what the panel is called.
        upright: the line that is to stand upright: on the fold, or along the grain; as the picture has it where None.
    """
    moved = placing(trace, upright).moved
    lines = [Named(name, line.curve.mapped(moved)) for name, line in zip(line_names(trace), trace.lines, strict=True)]
    return panel_from_lines(title, lines, notches=[moved(spot) for spot in trace.notches])


def panel_of_marks(trace: Trace, title: str, *, upright: int | None = None) -> Panel:
    """Return the panel that the pencil marks on a muslin make: in the order of walking round its middle, as they were told.

    The cloth's own edge is no line of it. Crosses and dashes are its corners, and each line has a number until it is named.

    Args:
        trace, title, upright: as of `panel_of`.
    """
    moved = placing(trace, upright).moved
    marks = [(kind, moved(spot)) for kind, spot in trace.ghosts]
    middle = [sum(spot[i] for _, spot in marks) / max(len(marks), 1) for i in (0, 1)]
    round_it = sorted(marks, key=lambda mark: atan2(mark[1][1] - middle[1], mark[1][0] - middle[0]))
    first = next((i for i, (kind, _) in enumerate(round_it) if kind in CORNERS), 0)
    walk = [*round_it[first:], *round_it[:first]]
    count = max(sum(1 for kind, _ in walk if kind in CORNERS), 1)
    found, number = [], 0
    for kind, (x, y) in walk:
        if kind in CORNERS:
            number += 1
            lines = tuple(dict.fromkeys((f"line_{(number - 2) % count + 1}", f"line_{number}")))
        else:
            lines = (f"line_{max(number, 1)}",)
        found.append(Mark(kind=kind, across=round(x, DECIMALS), along=round(y, DECIMALS), lines=lines))
    return Panel(name=name_of(title), title=title, marks=tuple(found))


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
        straightened(picture, trace.mapping, np.array([x0, -y1]), size, scale), float(x0), float(y1), float(scale)
    )


def lines_through(spots: Sequence[Point]) -> list[Curve]:
    """Return the lines of an outline that came as many points, drawn from corner to corner."""
    return [line.curve for line in lines_of(read(np.asarray(spots, float) * (1, -1)))]
