"""Whether a piece can be drawn, cut and kept at all, whoever made it: a draft, a step, a file."""

from collections.abc import Iterator
from itertools import pairwise
from typing import NamedTuple

from izett.geometry.point import distance
from izett.geometry.tolerance import SAME_POINT
from izett.pattern.naming import readable
from izett.pattern.piece import LARGEST_PIECE, Edge, Piece, fits_on_paper, in_ring_order
from izett.wording import named

#: A ring has an area from two edges on, where one of them is curved.
LEAST_EDGES = 2


class Fault(NamedTuple):
    """What is wrong with a piece, what to do about it, and the line or dart concerned."""

    words: str
    fix: str
    where: str


def fault_of(piece: Piece) -> Fault | None:
    """Return what is wrong with a piece, or None.

    It is too large, nothing is left of it, a line has no length, the outline is open, the fold is interrupted, or a dart
    has lost its mouth.
    """
    return next(_faults(piece), None)


def _faults(piece: Piece) -> Iterator[Fault]:
    if len(piece.edges) < LEAST_EDGES:
        yield Fault(f"nothing would be left of the {piece.title.lower()}.", "Choose another place.", piece.name)
    for edge in piece.edges:
        if not all(fits_on_paper(point) for point in edge.curve.points):
            largest = f"{LARGEST_PIECE / 100:g} m"
            yield Fault(
                f"the {piece.title.lower()} would reach further than {largest}.", "Use a smaller amount.", edge.lineage
            )
        if _has_no_length(edge):
            yield Fault(
                f"the {piece.title.lower()} would have a line of no length at {readable(edge.start)}.",
                "Choose a place further from the corner, or another amount.",
                edge.lineage,
            )
    for edge, following in zip(piece.edges, (*piece.edges[1:], piece.edges[0]), strict=True):
        if edge.end != following.start or edge.curve.end != following.curve.start:
            yield Fault(
                f"the outline of the {piece.title.lower()} would not close at {readable(edge.end)}.",
                "Choose another place or amount, or put the step earlier.",
                edge.lineage,
            )
    fold = in_ring_order(edge for edge in piece.edges if edge.lineage == piece.on_fold)
    if any(edge.end != following.start for edge, following in pairwise(fold)):
        yield Fault(
            f"the fold of the {piece.title.lower()} would be interrupted: nothing can open on a fold.",
            "Choose another line, or unfold the piece first.",
            fold[0].lineage,
        )
    for dart in piece.darts:
        if not all(piece.holds(name) for name in (*dart.mouth, dart.tip)):
            yield Fault(
                f"the {piece.title.lower()} would lose the mouth of the {named(dart.name)}.",
                "Choose a line or a place that the dart does not open on, or move the dart first.",
                dart.name,
            )


def _has_no_length(edge: Edge) -> bool:
    curve = edge.curve
    return distance(curve.start, curve.end) < SAME_POINT and (curve.is_straight or curve.length < SAME_POINT)
