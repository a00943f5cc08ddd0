"""Redrawing a piece whose corners have moved: what a hand does when it joins the new marks.

Straight lines run to the new corners; darts' legs are rebuilt; a curved line keeps its character, and at a moved
corner it turns with the straight line that it meets there, so that it stays as square to it as it was.
"""

from collections.abc import Mapping, Sequence
from dataclasses import replace

from izett.geometry.blend import refitted
from izett.geometry.curve import Curve, straight
from izett.geometry.motion import Motion
from izett.geometry.point import Point, turn
from izett.pattern.piece import Edge, Intake, LevelLine, Piece, legs


def redrawn(
    piece: Piece,
    *,
    moves: Mapping[str, Point],
    darts: Sequence[Intake] | None = None,
    curves: Mapping[str, Curve] | None = None,
    lines: Sequence[LevelLine] | None = None,
    marks: Mapping[str, Point] | None = None,
) -> Piece:
    """Return the piece with corners at new places.

    Args:
        piece: the piece as it was.
        moves: new places of vertices, by name.
        darts: the darts, where their pivots or tips change (same names and mouths as before).
        curves: curved edges drawn anew before the corners move, by the vertex that they start from.
        lines: the level lines, where they change.
        marks: the marks, where they change.

    Returns:
        The piece redrawn, its other properties kept.
    """
    moves = {piece.aliases.get(name, name): place for name, place in moves.items()}
    new_darts = tuple(darts) if darts is not None else piece.darts
    leg_of = _legs(piece, new_darts, moves)
    before = piece.edges
    after: list[Edge | None] = []
    for edge in before:
        if edge.is_leg:
            after.append(leg_of[edge.start, edge.end])
        elif edge.curve.is_straight:
            start = moves.get(edge.start, edge.curve.start)
            end = moves.get(edge.end, edge.curve.end)
            stays = start == edge.curve.start and end == edge.curve.end
            after.append(edge if stays else replace(edge, curve=straight(start, end)))
        else:
            after.append(None)
    ring = tuple(
        edge if edge is not None else _refit(index, before, after, moves, curves or {})
        for index, edge in enumerate(after)
    )
    return replace(
        piece,
        edges=ring,
        darts=new_darts,
        lines=tuple(lines) if lines is not None else piece.lines,
        marks=marks if marks is not None else piece.marks,
    )


def _legs(piece: Piece, darts: Sequence[Intake], moves: Mapping[str, Point]) -> dict[tuple[str, str], Edge]:
    found: dict[tuple[str, str], Edge] = {}
    for dart in darts:
        a, b = (moves.get(name, piece.vertex(name)) for name in dart.mouth)
        for leg in legs(dart, a, b):
            found[leg.start, leg.end] = leg
    return found


def _refit(
    index: int,
    before: Sequence[Edge],
    after: Sequence[Edge | None],
    moves: Mapping[str, Point],
    curves: Mapping[str, Curve],
) -> Edge:
    edge = before[index]
    curve = curves.get(edge.start, edge.curve)
    following = (index + 1) % len(before)
    turn_start = _turn(before[index - 1], after[index - 1], at_end=True)
    turn_end = _turn(before[following], after[following], at_end=False)
    if curve is edge.curve and not (turn_start or turn_end or edge.start in moves or edge.end in moves):
        return edge
    return replace(
        edge,
        curve=refitted(
            curve,
            start=moves.get(edge.start),
            end=moves.get(edge.end),
            turn_start=turn_start.direction if turn_start else None,
            turn_end=turn_end.direction if turn_end else None,
        ),
    )


def _turn(before: Edge, after: Edge | None, *, at_end: bool) -> Motion | None:
    if after is None or after.curve is before.curve:
        return None
    old = before.curve.end_direction if at_end else before.curve.start_direction
    new = after.curve.end_direction if at_end else after.curve.start_direction
    angle = turn(old, new)
    return Motion.turning(angle, about=(0.0, 0.0)) if angle != 0.0 else None
