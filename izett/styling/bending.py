"""Paper bent gently, or parts of it moved as wholes: what is left of a piece when a wedge is opened or a slash is spread.

A curve keeps its joints smooth: a handle goes with its joint and turns with the paper there. A dart goes as a whole, so
that its legs stay equal.
"""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace

from izett.geometry.curve import Curve, straight
from izett.geometry.point import Point, Vector, add, between, cross, distance, dot, scale, subtract, unit
from izett.pattern.piece import Diamond, Edge, Intake, Piece, legs

#: cm. A line that leaves the straight by less is straight.
STRAIGHT = 0.02

#: How the paper turns at a joint is read over this share of a handle.
LITTLE = 0.05

#: Where a place goes: by how much, as a displacement in cm.
Shift = Callable[[Point], Vector]


def bent(piece: Piece, shift: Shift) -> Piece:
    """Return a piece each of whose places has gone by its own shift, darts as wholes.

    Args:
        piece: the piece as it was.
        shift: by how much a place goes, cm; it changes gently from place to place.
    """
    mouths = {name: add(piece.vertex(name), shift(_middle(piece, dart))) for dart in piece.darts for name in dart.mouth}
    places = {name: mouths.get(name, add(spot, shift(spot))) for name, spot in piece.vertices.items()}
    darts = [replace(dart, pivot=_along_axis(dart.pivot, _middle(piece, dart), shift)) for dart in piece.darts]

    def drawn(edge: Edge) -> Curve:
        return bent_curve(edge.curve, shift, start=places[edge.start], end=places[edge.end])

    return replace(
        with_ring(piece, darts, places, drawn),
        lines=tuple(line.moved(lambda spot: add(spot, shift(spot))) for line in piece.lines),
        marks={name: add(spot, shift(spot)) for name, spot in piece.marks.items()},
        diamonds=tuple(_as_whole(diamond, shift) for diamond in piece.diamonds),
    )


def with_ring(
    piece: Piece, darts: Sequence[Intake], places: Mapping[str, Point], drawn: Callable[[Edge], Curve]
) -> Piece:
    """Return a piece with its lines drawn anew and the legs of its darts rebuilt.

    Args:
        piece: the piece as it was.
        darts: its darts as they are now, in the same order.
        places: where the mouths of the darts lie now, by vertex.
        drawn: each line that is no leg as it is now.
    """
    rebuilt = {
        (leg.start, leg.end): leg for dart in darts for leg in legs(dart, *(places[name] for name in dart.mouth))
    }
    ring = tuple(
        rebuilt[edge.start, edge.end] if edge.is_leg else replace(edge, curve=drawn(edge)) for edge in piece.edges
    )
    return replace(piece, edges=ring, darts=tuple(darts))


def bent_curve(curve: Curve, shift: Shift, *, start: Point, end: Point) -> Curve:
    """Return a curve each of whose joints has gone by its own shift, its handles turned with the paper there."""
    if curve.is_straight:
        if not _bends(curve, shift):
            return straight(start, end)
        curve = Curve(tuple(between(curve.start, curve.end, i / 3) for i in range(4)))
    points = curve.points
    joints = [add(spot, shift(spot)) for spot in points[::3]]
    joints[0], joints[-1] = start, end
    found: list[Point] = [joints[0]]
    for i in range(1, len(points)):
        if i % 3 == 0:
            found.append(joints[i // 3])
            continue
        joint = i // 3 if i % 3 == 1 else i // 3 + 1
        handle = subtract(points[i], points[3 * joint])
        little = scale(handle, LITTLE)
        ahead, behind = (shift(spot) for spot in (add(points[3 * joint], little), subtract(points[3 * joint], little)))
        turned = scale(subtract(ahead, behind), 0.5 / LITTLE)
        found.append(add(joints[joint], add(handle, turned)))
    return Curve(tuple(found))


def _bends(curve: Curve, shift: Shift) -> bool:
    """Return whether a straight line is straight no more when each of its places has gone by its own shift."""
    a, b = (add(end, shift(end)) for end in (curve.start, curve.end))
    if distance(a, b) == 0.0:
        return False
    way = unit(subtract(b, a))
    spots = (between(curve.start, curve.end, share) for share in (0.25, 0.5, 0.75))
    return any(abs(cross(way, subtract(add(spot, shift(spot)), a))) > STRAIGHT for spot in spots)


def smooth_step(value: float, low: float, high: float) -> float:
    """Return 0 up to `low`, 1 from `high` on, and a smooth way between them."""
    if value <= low:
        return 0.0
    share = min((value - low) / (high - low), 1.0) if high > low else 1.0
    return share * share * (3 - 2 * share)


def _middle(piece: Piece, dart: Intake) -> Point:
    return between(piece.vertex(dart.mouth[0]), piece.vertex(dart.mouth[1]), 0.5)


def _along_axis(pivot: Point, middle: Point, shift: Shift) -> Point:
    """Return where the point of a dart goes: with its mouth, and by its own shift along its axis, so that the legs stay equal."""
    whole, own = shift(middle), shift(pivot)
    if distance(pivot, middle) == 0.0:
        return add(pivot, own)
    axis = unit(subtract(pivot, middle))
    return add(add(pivot, whole), scale(axis, dot(subtract(own, whole), axis)))


def _as_whole(diamond: Diamond, shift: Shift) -> Diamond:
    whole = shift(between(diamond.left, diamond.right, 0.5))
    return replace(
        diamond,
        left=add(diamond.left, whole),
        right=add(diamond.right, whole),
        top=add(diamond.top, (whole[0], shift(diamond.top)[1])),
        bottom=add(diamond.bottom, (whole[0], shift(diamond.bottom)[1])),
    )
