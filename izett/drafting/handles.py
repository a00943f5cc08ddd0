"""Handles: where the few allowances that shape a curve can be taken hold of on the drafted pattern."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from izett.geometry.point import Point, Vector, right_of
from izett.pattern.document import Pattern
from izett.pattern.piece import Edge
from izett.rules.sheet import Allowance, RuleSheet


@dataclass(frozen=True, slots=True)
class Handle:
    """A place on a line at which an allowance can be pulled.

    Attributes:
        symbol: the allowance.
        piece: the piece that the line lies on.
        at: the place, cm.
        outwards: the direction square to the line, out of the piece, of length 1.
        moves: cm by which the line moves outwards there for one unit more.
    """

    symbol: str
    piece: str
    at: Point
    outwards: Vector
    moves: float


def handles_of(sheet: RuleSheet, pattern: Pattern) -> Iterator[Handle]:
    """Yield the handles of those shapes whose line lies on the pattern."""
    for allowance in sheet.allowances.values():
        if allowance.handle is not None and (found := _handle(allowance, *allowance.handle, pattern)) is not None:
            yield found


def _handle(allowance: Allowance, lineage: str, share: float, moves: float, pattern: Pattern) -> Handle | None:
    for piece in pattern:
        edges = [edge for edge in piece.edges if edge.lineage == lineage and not edge.is_leg]
        if edges:
            at, outwards = _place(edges, share)
            return Handle(allowance.symbol, piece.name, at, outwards, moves)
    return None


def _place(edges: Sequence[Edge], share: float) -> tuple[Point, Vector]:
    along = share * sum(edge.curve.length for edge in edges)
    for edge in edges[:-1]:
        if along <= edge.curve.length:
            break
        along -= edge.curve.length
    else:
        edge = edges[-1]
    _, after = edge.curve.split(min(along, 0.999 * edge.curve.length))
    # Rings run counter-clockwise: outside lies to the right.
    return after.start, right_of(after.start_direction)
