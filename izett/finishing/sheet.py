"""A piece made ready for paper: sewing line, cutting line, darts with their caps, notches, grain, label.

The cutting line is what scissors follow; the sewing line is the pattern's own. Both are polylines here: this is
where curves end and output begins.
"""

from collections.abc import Sequence
from dataclasses import dataclass, field
from functools import cached_property, partial
from itertools import pairwise

from izett.errors import ReferenceLost
from izett.finishing.allowances import Allowances
from izett.finishing.dart_caps import cap_peak
from izett.geometry.outline import LEAST_CORNERS, corner_between, crossing, parallel, stretch, united, without_repeats
from izett.geometry.point import Point, add, between, distance, left_of, scale, subtract, unit
from izett.pattern.document import Intent, Pattern
from izett.pattern.facts import Role
from izett.pattern.piece import Notch, NotchKind, Piece
from izett.pattern.remembered import Remembered
from izett.pattern.sewn import place_on

#: cm. How far a notch is marked across the sewing line; the two marks of a double notch lie 1 cm apart.
NOTCH_LENGTH = 0.6
DOUBLE_NOTCH_APART = 1.0
#: A corner's spike beyond this many times the wider allowance is cut off.
MITRE_LIMIT = 4.0


@dataclass(frozen=True, slots=True)
class DartDrawing:
    """A dart as drawn: its two legs, its cap, and the drill point short of the tip.

    One that is not sewn, a pleat, has a cap, but no legs on the paper: its fold lines are marked.
    """

    name: str
    sewn: bool
    legs: tuple[Point, ...]
    cap: tuple[Point, Point, Point]
    fold: tuple[Point, Point]


@dataclass(frozen=True)
class SheetPiece:
    """A piece ready for paper. Coordinates in cm, y up, in the pattern's own frame.

    Attributes:
        piece: the pattern piece.
        sewing: the sewing line, closed, darts' mouths bridged by their caps.
        lines: the sewing line cut where the allowance changes, each part with its allowance in cm.
        fold: the fold edge, or None.
        darts: as drawn; diamonds: their outlines, closed.
        levels: lines at body levels, and what else is marked across the piece.
        notches: short marks across the seam.
        grain: the grain line, bottom to top.
        label: lines of text.
        allowances: what it is cut with.
    """

    piece: Piece
    sewing: tuple[Point, ...]
    lines: tuple[tuple[tuple[Point, ...], float], ...]
    fold: tuple[Point, Point] | None
    darts: tuple[DartDrawing, ...]
    notches: tuple[tuple[Point, Point], ...]
    grain: tuple[Point, Point]
    label: tuple[str, ...]
    diamonds: tuple[tuple[Point, ...], ...] = ()
    levels: tuple[tuple[Point, ...], ...] = ()
    allowances: Allowances = field(default_factory=Allowances)

    @cached_property
    def cutting(self) -> tuple[Point, ...]:
        """The cutting line, closed; worked out when it is first wanted."""
        return tuple(_cutting_line(self.lines))

    @property
    def bounds(self) -> tuple[float, float, float, float]:
        """The smallest and largest x and y of what is drawn: (left, bottom, right, top) in cm."""
        xs = [p[0] for p in self.cutting]
        ys = [p[1] for p in self.cutting]
        return min(xs), min(ys), max(xs), max(ys)


def sheet_pieces(pattern: Pattern, *, title: str = "", wearer: str = "") -> list[SheetPiece]:
    """Return all pieces ready for paper, cut with the garment's allowances."""
    allowances = Allowances.of_pattern(pattern)
    cut = (allowances.purpose, tuple(sorted(allowances.by_lineage.items())))
    words = (pattern.intent.cloth, pattern.intent.fit, len(pattern.pieces), title, wearer)

    def ready(piece: Piece, number: int) -> SheetPiece:
        return _ready(piece, pattern.intent, allowances, number, len(pattern.pieces), title, wearer)

    return [
        _finished.of(piece, (number, cut, words), partial(ready, piece, number))
        for number, piece in enumerate(pattern.pieces, 1)
    ]


_finished: Remembered[SheetPiece] = Remembered(256)


def _ready(
    piece: Piece, intent: Intent, allowances: Allowances, number: int, of: int, title: str, wearer: str
) -> SheetPiece:
    lines = _finished_lines(piece, allowances)
    fold = [edge.curve for edge in piece.edges if edge.lineage == piece.on_fold]
    included = any(width > 0 for _, width in lines) or any(edge.role is Role.CUT_EDGE for edge in piece.edges)
    return SheetPiece(
        piece=piece,
        sewing=tuple(p for line, _ in lines for p in line[:-1]),
        lines=tuple((tuple(points), width) for points, width in lines),
        fold=(fold[0].start, fold[-1].end) if fold else None,
        darts=tuple(_dart_drawing(piece, name) for name in (dart.name for dart in piece.darts)),
        notches=tuple(mark for notch in piece.notches for mark in _notch_marks(piece, notch, allowances)),
        grain=piece.grain,
        label=tuple(
            text
            for text in (
                title,
                f"{number} of {of}  {piece.title}",
                f"{wearer}" if wearer else "",
                f"cut {piece.cut} on the fold"
                if piece.on_fold
                else f"cut {piece.cut}" + (", mirrored" if piece.cut == 2 else ""),
                f"{intent.cloth} cloth, {intent.fit}",
                "seam allowance INCLUDED" if included else "NO seam allowance",
            )
            if text
        ),
        diamonds=tuple((*diamond.outline, diamond.top) for diamond in piece.diamonds),
        levels=tuple(line.points for line in piece.lines),
        allowances=allowances,
    )


def _finished_lines(piece: Piece, allowances: Allowances) -> list[tuple[list[Point], float]]:
    """Return the ring as lines with their allowances, each dart replaced by its cap.

    A cap is cut with the allowance of the edge that it interrupts.
    """
    lines: list[tuple[list[Point], float]] = []
    width = 0.0
    for edge in piece.edges:
        if not edge.is_leg:
            width = allowances.of(piece, edge)
            lines.append((edge.curve.flattened(), width))
            continue
        dart = piece.dart(edge.lineage)
        if edge.start == dart.mouth[0]:
            a, b = (piece.vertex(name) for name in dart.mouth)
            lines.append(([a, cap_peak(piece, dart), b], width))
    return _merged(lines)


def _merged(lines: list[tuple[list[Point], float]]) -> list[tuple[list[Point], float]]:
    """Join neighbouring lines of equal allowance, so that corners are made only where they are needed."""
    joined: list[tuple[list[Point], float]] = []
    for points, width in lines:
        if joined and joined[-1][1] == width and _runs_on(joined[-1][0], points):
            joined[-1] = ([*joined[-1][0], *points[1:]], width)
        else:
            joined.append((list(points), width))
    return joined


def _runs_on(before: Sequence[Point], after: Sequence[Point]) -> bool:
    a, b = unit(subtract(before[-1], before[-2])), unit(subtract(after[1], after[0]))
    # Under 45° of turn a parallel line follows by itself; a sharper corner is built.
    return a[0] * b[0] + a[1] * b[1] > 0.7


def _cutting_line(lines: Sequence[tuple[Sequence[Point], float]]) -> list[Point]:
    # An inner curve tighter than its allowance leaves no line beside it: its neighbours then meet.
    beside = [line for points, width in lines if len(line := without_repeats(parallel(points, width))) > 1]
    limit = MITRE_LIMIT * max(width for _, width in lines)
    if len(beside) < LEAST_CORNERS:
        # Lines that meet at both ends are parted: each corner is then one of its own two lines.
        beside = [part for line in beside for part in _parted(line)]
    while len(beside) >= LEAST_CORNERS:
        corners = [corner_between(line, after, limit=limit) for line, after in pairwise([*beside, beside[0]])]
        starts = [corners[-1].after, *(corner.after for corner in corners[:-1])]
        left = [corner.before - start for corner, start in zip(corners, starts, strict=True)]
        if min(left) > 0:
            spots = [
                spot
                for line, start, corner in zip(beside, starts, corners, strict=True)
                for spot in (*stretch(line, start, corner.before), *corner.points)
            ]
            ring = without_repeats([*spots, spots[0]])[:-1]
            return ring if crossing(ring) is None else _around(lines)
        # A line shorter than what its corners take of it goes: its neighbours meet.
        del beside[left.index(min(left))]
    return _around(lines)


def _around(lines: Sequence[tuple[Sequence[Point], float]]) -> list[Point]:
    """Return the line around a piece and the allowance beside each of its lines, where its corners leave no cleaner one."""
    sewing = [point for points, _ in lines for point in points[:-1]]
    strips = [[*points, *reversed(parallel(points, width))] for points, width in lines if width > 0]
    return united([sewing, *strips])


def _parted(line: Sequence[Point]) -> list[list[Point]]:
    """Return a line in three parts of one length."""
    third = sum(distance(a, b) for a, b in pairwise(line)) / 3
    return [stretch(line, i * third, (i + 1) * third) for i in range(3)]


def _dart_drawing(piece: Piece, name: str) -> DartDrawing:
    dart = piece.dart(name)
    a, b = (piece.vertex(vertex) for vertex in dart.mouth)
    tip = piece.vertex(dart.tip)
    peak = cap_peak(piece, dart)
    legs = [edge.curve.flattened() for edge in piece.edges if edge.is_leg and edge.lineage == name]
    return DartDrawing(name, dart.sewn, (*legs[0], *legs[1][1:]), (a, peak, b), (tip, peak))


def _notch_marks(piece: Piece, notch: Notch, allowances: Allowances) -> list[tuple[Point, Point]]:
    apart = (-DOUBLE_NOTCH_APART / 2, DOUBLE_NOTCH_APART / 2) if notch.kind is NotchKind.DOUBLE else (0.0,)
    marks: list[tuple[Point, Point]] = []
    for shift in apart:
        try:
            stretch, along = place_on(piece, notch.span, notch.distance + shift)
        except ReferenceLost:
            # Its line is gone: there is nowhere to cut it.
            return []
        before, after = stretch.open_curve.split(along)
        at = before.end
        direction = after.start_direction if after.length > 0 else before.end_direction
        outwards = scale(left_of(direction), -1.0 if stretch.forward else 1.0)
        width = min(allowances.of(piece, stretch.edge), NOTCH_LENGTH) or NOTCH_LENGTH / 2
        marks.append((at, add(at, scale(outwards, width))))
    return marks


def label_place(sheet: SheetPiece) -> Point:
    """Return where a label starts: right of the grain line's upper end, clear of the waist darts."""
    return add(between(*sheet.grain, 0.95), (1.0, 0.0))
