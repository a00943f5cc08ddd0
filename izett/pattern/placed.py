"""Places that are marked on a piece: where a button, a bone, an eyelet or a pocket comes to lie, and how they are read back.

Each is a line across the piece, called after what lies there. A place is a cross, a buttonhole and a bone are as long as
they are.
"""

from collections.abc import Iterator
from enum import StrEnum
from typing import NamedTuple

from izett.geometry.outline import gap
from izett.geometry.point import Point, Vector, add, between, left_of, right_of, scale
from izett.pattern.facts import Role
from izett.pattern.levels import RIMS
from izett.pattern.piece import LevelLine, Piece, Span
from izett.pattern.sewn import place_on

#: What a bone is called on a piece, and a buttonhole.
BONE, BUTTONHOLE = "bone", "buttonhole"
#: cm. A buttonhole is so much longer than its button is wide, and begins so far beyond the line that the buttons lie on.
THICKNESS = 0.3
#: cm. The arms of a cross reach so far from its middle.
ARM = 0.5
#: cm. A channel that leaves its chord by no more is straight.
STRAIGHT = 0.3


class Placed(StrEnum):
    """What lies at a place of a piece; a notch is cut into its edge, for the others there is a cross."""

    NOTCH = "notch"
    BUTTON = "button"
    SNAP = "snap"
    HOOK = "hook"
    EYELET = "eyelet"
    TIE = "tie"
    POCKET = "pocket"
    DRILL = "drill hole"


#: All names that lines of a piece have which are places on it; its others are levels and guides.
PLACES = frozenset({BONE, BUTTONHOLE, *(kind.value for kind in Placed)})


class Beside(NamedTuple):
    """A place beside a line: where it is, which way the line runs there, and which way the piece lies (of length 1)."""

    at: Point
    along: Vector
    inside: Vector


def beside(piece: Piece, span: Span, along: float, inwards: float) -> Beside:
    """Return the place `along` cm, as sewn, from the start of a line of the piece, and `inwards` cm into the piece."""
    stretch, gone = place_on(piece, span, along)
    before, after = stretch.open_curve.split(gone)
    way = after.start_direction if after.length > 0 else before.end_direction
    # In ring order the piece lies to the left of its edge.
    inside = left_of(way) if stretch.forward else right_of(way)
    return Beside(add(before.end, scale(inside, inwards)), way, inside)


def cross_at(what: Placed, at: Point, along: Vector) -> LevelLine:
    """Return the mark of a place: a cross with one arm in the direction `along` (of length 1)."""
    ends = [add(at, scale(way, by)) for way in (along, left_of(along)) for by in (-ARM, ARM)]
    # In one stroke: along, back to the middle, then across.
    return LevelLine(what.value, (ends[0], ends[1], at, ends[2], ends[3]))


def places_of(piece: Piece, what: Placed) -> tuple[Point, ...]:
    """Return where it is marked on a piece: the middles of its crosses."""
    return tuple(between(line.points[-2], line.points[-1], 0.5) for line in piece.lines if line.level == what.value)


def lines_called(piece: Piece, name: str) -> Iterator[LevelLine]:
    """Yield a piece's lines of a name, such as its bones."""
    return (line for line in piece.lines if line.level == name)


def is_straight(line: LevelLine) -> bool:
    """Return whether a line is straight enough for a flat bone."""
    return all(gap([line.points[0], line.points[-1]], spot) <= STRAIGHT for spot in line.points)


def closes_with_partner(piece: Piece, at: Point) -> bool:
    """Return whether a place lies where a pair closes over itself: nearer to its centre than to its other upright lines.

    What closes there has buttonholes on the one half, and buttons on the other.
    """
    upright = [edge for edge in piece.edges if not edge.is_leg and edge.role not in RIMS]
    if piece.on_fold is not None or piece.cut % 2 or not upright:
        return False
    nearest = min(upright, key=lambda edge: gap(edge.curve.flattened(), at))
    return nearest.role in (Role.CENTRE_FRONT, Role.CENTRE_BACK)
