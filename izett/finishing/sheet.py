"""A piece made ready for paper: sewing line, cutting line, darts with their caps, notches, grain, label.

The cutting line is what scissors follow; the sewing line is the pattern's own. Both are polylines here: this is
where curves end and output begins.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from functools import cached_property, partial

from izett.errors import ReferenceLost
from izett.finishing.allowances import Allowances
from izett.finishing.cut_line import CutLine, cutting_line, finished_lines, turned_under
from izett.finishing.dart_caps import cap_peak
from izett.geometry.point import Point, Vector, add, between, cross, distance, dot, left_of, scale, subtract, unit
from izett.pattern.document import CutFor, Intent, Pattern, Ready
from izett.pattern.facts import Layer, Lie, Role
from izett.pattern.halves import joined_on_fold, of_right, origin
from izett.pattern.piece import LevelLine, Notch, NotchKind, Piece
from izett.pattern.placed import PLACES, Placed, places_of
from izett.pattern.remembered import Remembered
from izett.pattern.sewn import place_on

#: cm. How far a notch is marked across the sewing line; the two marks of a double notch lie 1 cm apart.
NOTCH_LENGTH = 0.6
DOUBLE_NOTCH_APART = 1.0
#: cm. From the mark of a place to its name.
NAME_APART = 0.2
#: cm. How far before a dart's tip it is drilled, and how far inside its widest place. Common practice, no single source.
DRILL_SHORT, DRILL_INSIDE = 1.3, 0.3
#: cm. The heads of an arrow: how long, and how wide to either side.
HEAD, HEAD_SIDE = 0.5, 0.2
#: The bracket on a fold: how far within the piece (cm), how long at most (cm), and of a short fold.
BRACKET_WITHIN, BRACKET_LONG, BRACKET_SHARE = 1.5, 16.0, 0.6
#: Sine of the angle by which the grain may leave the fold of a piece that is cut on the fold.
ALONG_FOLD = 0.002
#: What a label says of a piece that is not cut straight.
LIES = {Lie.STRAIGHT: "", Lie.BIAS: "on the BIAS", Lie.ACROSS: "ACROSS the grain"}


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
        levels: lines at body levels, and guides across the piece.
        places: what lies on the piece, such as buttons and bones, with its name.
        notches: short marks across the seam.
        grain: the grain line, bottom to top.
        label: lines of text.
        allowances: what it is cut with.
        ready: what else is said of it.
        place: which piece of the garment it is, of how many.
        turnings: where a hem's or a facing's raw edge is turned under.
    """

    piece: Piece
    sewing: tuple[Point, ...]
    lines: tuple[CutLine, ...]
    fold: tuple[Point, Point] | None
    darts: tuple[DartDrawing, ...]
    notches: tuple[tuple[Point, Point], ...]
    grain: tuple[Point, Point]
    label: tuple[str, ...]
    diamonds: tuple[tuple[Point, ...], ...] = ()
    levels: tuple[tuple[Point, ...], ...] = ()
    places: tuple[LevelLine, ...] = ()
    allowances: Allowances = field(default_factory=Allowances)
    ready: Ready = field(default_factory=Ready)
    place: tuple[int, int] = (1, 1)
    turnings: tuple[tuple[Point, ...], ...] = ()

    @cached_property
    def cutting(self) -> tuple[Point, ...]:
        """The cutting line, closed; worked out when it is first wanted."""
        return tuple(cutting_line(self.lines))

    @property
    def inner_lines(self) -> tuple[tuple[Point, ...], ...]:
        """All that is drawn across the piece as a thin line: levels, and where raw edges are turned under."""
        return (*self.levels, *self.turnings)

    @property
    def number(self) -> int:
        """How many are cut."""
        return self.ready.cut or self.piece.cut

    @property
    def drills(self) -> tuple[Point, ...]:
        """Where all layers are drilled: a dart short of its tip, on its fold, so that the stitching covers it; places."""
        found = list(places_of(self.piece, Placed.DRILL))
        found += [
            add(dart.fold[0], scale(unit(subtract(dart.fold[1], dart.fold[0])), DRILL_SHORT))
            for dart in self.darts
            if dart.sewn and distance(*dart.fold) > 2 * DRILL_SHORT
        ]
        for diamond in self.piece.diamonds:
            middle = between(diamond.left, diamond.right, 0.5)
            for tip in (diamond.top, diamond.bottom):
                if distance(tip, middle) > 2 * DRILL_SHORT:
                    found.append(add(tip, scale(unit(subtract(middle, tip)), DRILL_SHORT)))
            for side in (diamond.left, diamond.right):
                if distance(side, middle) > 2 * DRILL_INSIDE:
                    found.append(add(side, scale(unit(subtract(middle, side)), DRILL_INSIDE)))
        return tuple(found)

    @property
    def signs(self) -> tuple[tuple[Point, ...], ...]:
        """What no words are needed for: the heads of the grain's arrow, and the bracket that says “lay this on a fold”."""
        return (*_heads(*self.grain), *(_bracket(*self.fold, self.sewing) if self.fold is not None else ()))

    @property
    def bounds(self) -> tuple[float, float, float, float]:
        """The smallest and largest x and y of what is drawn: (left, bottom, right, top) in cm."""
        xs = [p[0] for p in self.cutting]
        ys = [p[1] for p in self.cutting]
        return min(xs), min(ys), max(xs), max(ys)


def sheet_pieces(pattern: Pattern, *, title: str = "", wearer: str = "", whole: bool = True) -> list[SheetPiece]:
    """Return all pieces ready for paper, cut with the garment's allowances.

    Args:
        pattern: the garment; title, wearer: what else its labels say.
        whole: whether halves that are to be put on paper whole are.
    """
    allowances = Allowances.of_pattern(pattern)
    cut_for = pattern.allowances
    cut = (
        allowances.purpose,
        tuple(sorted(allowances.by_lineage.items())),
        allowances.zips,
        tuple(cut_for.corners.items()),
        tuple(cut_for.pieces.items()),
        tuple(cut_for.turnings.items()),
    )
    words = (pattern.intent.cloth, pattern.intent.fit, len(pattern.pieces), title, wearer, whole)

    def ready(piece: Piece, number: int) -> SheetPiece:
        if whole and _put_on_paper_whole(piece, cut_for):
            piece = joined_on_fold(piece, piece, of_right)
        return _ready(piece, pattern.intent, cut_for, allowances, number, len(pattern.pieces), title, wearer)

    return [
        _finished.of(piece, (number, cut, words), partial(ready, piece, number))
        for number, piece in enumerate(pattern.pieces, 1)
    ]


def _put_on_paper_whole(piece: Piece, cut_for: CutFor) -> bool:
    """Return whether a half is put on paper whole: on wish, or since its grain does not run along its fold."""
    if piece.on_fold is None:
        return False
    if cut_for.pieces.get(origin(piece.name).name, Ready()).whole:
        return True
    fold = [edge.curve for edge in piece.edges if edge.lineage == piece.on_fold]
    along = unit(subtract(fold[-1].end, fold[0].start))
    return abs(cross(along, unit(subtract(piece.grain[1], piece.grain[0])))) > ALONG_FOLD


_finished: Remembered[SheetPiece] = Remembered(256)


def _ready(
    piece: Piece,
    intent: Intent,
    cut_for: CutFor,
    allowances: Allowances,
    number: int,
    of: int,
    title: str,
    wearer: str,
) -> SheetPiece:
    lines = finished_lines(piece, allowances, cut_for.corners)
    fold = [edge.curve for edge in piece.edges if edge.lineage == piece.on_fold]
    said = cut_for.pieces.get(origin(piece.name).name, Ready())
    times = said.cut or piece.cut
    return SheetPiece(
        piece=piece,
        sewing=tuple(p for line in lines for p in line.points[:-1]),
        lines=tuple(lines),
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
                f"cut {times} on the fold"
                if piece.on_fold
                else f"cut {times}" + (", mirrored" if times % 2 == 0 else ""),
                f"{_cloth_words(piece, said)}{intent.cloth} cloth, {intent.fit}",
                LIES[piece.lie],
                said.says,
                _included(piece, lines),
            )
            if text
        ),
        diamonds=tuple((*diamond.outline, diamond.top) for diamond in piece.diamonds),
        levels=tuple(line.points for line in piece.lines if line.level not in PLACES),
        # What is drilled has a mark of its own.
        places=tuple(x for x in piece.lines if x.level in PLACES and x.level != Placed.DRILL.value),
        allowances=allowances,
        ready=said,
        place=(number, of),
        turnings=tuple(turned_under(lines, cut_for.turnings)),
    )


def _cloth_words(piece: Piece, said: Ready) -> str:
    """Return which cloth of the garment a piece is cut from, where it is not the outer one."""
    layer = said.cloth or ("" if piece.layer in (Layer.OUTER, Layer.APPLIED) else piece.layer.value)
    return f"{layer.upper()}, " if layer and layer != Layer.OUTER.value else ""


def _included(piece: Piece, lines: Sequence[CutLine]) -> str:
    """Return whether a piece has its seam allowances on it: as it says of itself, all or none."""
    some = any(line.width > 0 for line in lines) or any(edge.role is Role.CUT_EDGE for edge in piece.edges)
    return "seam allowance INCLUDED" if some else "NO seam allowance"


def _dart_drawing(piece: Piece, name: str) -> DartDrawing:
    dart = piece.dart(name)
    a, b = (piece.vertex(vertex) for vertex in dart.mouth)
    tip = piece.vertex(dart.tip)
    peak = cap_peak(piece, dart)
    legs = [edge.curve.flattened() for edge in piece.edges if edge.is_leg and edge.lineage == name]
    return DartDrawing(name, dart.sewn, (*legs[0], *legs[1][1:]), (a, peak, b), (tip, peak))


def _heads(a: Point, b: Point) -> tuple[tuple[Point, ...], ...]:
    """Return the heads at both ends of an arrow."""
    return _head(a, unit(subtract(b, a))), _head(b, unit(subtract(a, b)))


def _head(tip: Point, back: Vector) -> tuple[Point, ...]:
    foot, side = add(tip, scale(back, HEAD)), scale(left_of(back), HEAD_SIDE)
    return add(foot, side), tip, subtract(foot, side)


def _bracket(start: Point, end: Point, outline: Sequence[Point]) -> Iterator[tuple[Point, ...]]:
    """Yield a line along a fold, turned to it at both ends, where its arrows touch it; within half a narrow piece."""
    half = min(BRACKET_LONG, BRACKET_SHARE * distance(start, end)) / 2
    along = unit(subtract(end, start))
    # In ring order the piece lies to the left of its edge.
    inside = left_of(along)
    deep = min(BRACKET_WITHIN, max(dot(subtract(spot, start), inside) for spot in outline) / 2)
    feet = [add(between(start, end, 0.5), scale(along, by)) for by in (-half, half)]
    within = [add(foot, scale(inside, deep)) for foot in feet]
    yield feet[0], *within, feet[1]
    yield from (_head(foot, inside) for foot in feet)


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


def name_place(place: LevelLine) -> Point:
    """Return where the name of a marked place starts: right of it."""
    return max(x for x, _ in place.points) + NAME_APART, place.points[len(place.points) // 2][1]


def label_place(sheet: SheetPiece) -> Point:
    """Return where a label starts: right of the grain line's upper end, clear of the waist darts; beneath one that slants."""
    if sheet.piece.lie is not Lie.STRAIGHT:
        return add(between(*sheet.grain, 0.5), (1.0, -1.0))
    return add(between(*sheet.grain, 0.95), (1.0, 0.0))
