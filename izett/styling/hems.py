"""Truing a hem: raised at a flared side so that it runs smoothly, square to every seam that it meets.

A hem that was straight across a piece whose side is turned outwards would point down at the seam. By hand the corner is
raised and the hem curved; front and back are raised alike, so that their seam stays equal. Common practice.
"""

from collections.abc import Sequence
from dataclasses import replace
from math import tan

from izett.geometry.blend import with_handles
from izett.geometry.curve import Curve
from izett.geometry.point import Point, Vector, add, distance, left_of, right_of, scale, turn
from izett.pattern.facts import Role
from izett.pattern.piece import Edge, Piece
from izett.pattern.redraw import redrawn
from izett.pattern.working import Working

#: rad. A corner nearer to square than this is left as it is.
SQUARE_ENOUGH = 0.02
#: Handles of a hem, as a share of its chord.
HANDLE = 1 / 3


def trued(pattern: Working, names: Sequence[str], *, before: Working) -> Working:
    """Return the pattern with the hems of the named pieces trued at their side corners, all by the same amount.

    Only what has turned since `before` is trued: a hem that met its seam at another angle was meant to.
    """
    was = {(name, hem.start): off for name in names for hem, _, off in _corners(before.piece(name))}
    corners = [
        (piece, hem, side, off - was.get((piece.name, hem.start), 0.0))
        for piece in map(pattern.piece, names)
        for hem, side, off in _corners(piece)
    ]
    rises = [distance(hem.curve.start, hem.curve.end) * tan(off) / 2 for _, hem, _, off in corners]
    rises = [rise for rise, (*_, off) in zip(rises, corners, strict=True) if abs(off) > SQUARE_ENOUGH]
    rise = sum(rises) / len(rises) if rises else 0.0
    untouched = {edge.curve for name in names for edge in before.piece(name).edges if edge.role is Role.HEM}
    for piece, hem, side, _ in corners:
        if hem.curve in untouched:
            continue
        pattern = pattern.with_pieces(_raised(pattern.piece(piece.name), hem, side, rise))
    return pattern


def _corners(piece: Piece) -> list[tuple[Edge, Edge, float]]:
    """Return hem, side, and how far (rad) the hem points beyond the square at the corner that they share."""
    found = []
    for i, edge in enumerate(piece.edges):
        following = piece.edges[(i + 1) % len(piece.edges)]
        if edge.role is Role.HEM and following.role in (Role.SIDE, Role.PANEL):
            off = turn(left_of(edge.curve.end_direction), following.curve.start_direction)
            found.append((edge, following, off))
        if edge.role in (Role.SIDE, Role.PANEL) and following.role is Role.HEM:
            off = turn(left_of(edge.curve.end_direction), following.curve.start_direction)
            found.append((following, edge, off))
    return found


def _raised(piece: Piece, hem: Edge, side: Edge, rise: float) -> Piece:
    at_end = hem.end == side.start
    corner = hem.end if at_end else hem.start
    up = side.curve.start_direction if at_end else scale(side.curve.end_direction, -1.0)
    spot: Point = add(piece.vertex(corner), scale(up, rise))
    moved = redrawn(piece, moves={corner: spot})
    ring = []
    for edge in moved.edges:
        if edge.lineage == hem.lineage and {edge.start, edge.end} == {hem.start, hem.end}:
            ring.append(
                replace(edge, curve=_square(edge, kept=_kept(piece, hem, at_end=at_end), side_up=up, at_end=at_end))
            )
        else:
            ring.append(edge)
    return replace(moved, edges=tuple(ring))


def _kept(piece: Piece, hem: Edge, *, at_end: bool) -> Vector:
    """Return the hem's direction at its other end: square to the line that it meets there."""
    index = next(i for i, edge in enumerate(piece.edges) if edge.start == hem.start)
    if at_end:
        return left_of(piece.edges[index - 1].curve.end_direction)
    return right_of(piece.edges[(index + 1) % len(piece.edges)].curve.start_direction)


def _square(edge: Edge, *, kept: Vector, side_up: Vector, at_end: bool) -> Curve:
    chord = distance(edge.curve.start, edge.curve.end)
    handle = chord * HANDLE
    if at_end:
        # Walking the ring, the hem comes to the side from its left: looking back it is square to the seam.
        back = left_of(side_up)
        return Curve(with_handles(edge.curve.start, kept, edge.curve.end, back, start_handle=handle, end_handle=handle))
    forth = right_of(side_up)
    back = scale(kept, -1.0)
    return Curve(with_handles(edge.curve.start, forth, edge.curve.end, back, start_handle=handle, end_handle=handle))
