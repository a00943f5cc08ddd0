"""The lines that run up from an edge that goes around: seams, a fold, a centre, from the corner where they meet it."""

from dataclasses import dataclass

from izett.geometry.curve import Curve
from izett.pattern.piece import Edge, Piece


@dataclass(frozen=True, slots=True)
class Upright:
    """A line of a piece from one of its ends up, darts on the way left out.

    Attributes:
        corner: where it begins.
        edges: its edges in the order in which they are walked.
        forward: whether that is ring order.
    """

    corner: str
    edges: tuple[Edge, ...]
    forward: bool

    @property
    def length(self) -> float:
        """How long it is as sewn, cm."""
        return sum(edge.curve.length for edge in self.edges)

    @property
    def lineage(self) -> str:
        """The line that it is."""
        return self.edges[0].lineage

    def curve(self, edge: Edge) -> Curve:
        """Return one of its edges in walking direction."""
        return edge.curve if self.forward else edge.curve.reversed()

    def at(self, along: float) -> tuple[Edge, float]:
        """Return the edge that lies `along` cm from the corner, and how far along it in ring order that is."""
        for edge in self.edges:
            if along <= edge.curve.length or edge is self.edges[-1]:
                here = min(along, edge.curve.length)
                return edge, here if self.forward else edge.curve.length - here
            along -= edge.curve.length
        raise AssertionError("a line has at least one edge")


def upright_from(piece: Piece, corner: str, around: frozenset[str]) -> Upright | None:
    """Return the line that runs up from a corner of an edge that goes around, whose lines are `around`.

    None at a dart's mouth, where no line runs up.
    """
    first = next(
        (e for e in piece.edges if corner in (e.start, e.end) and not e.is_leg and e.lineage not in around), None
    )
    if first is None:
        return None
    forward = first.start == corner
    ring = piece.edges if forward else piece.edges[::-1]
    at = next(i for i, edge in enumerate(ring) if edge is first)
    run: list[Edge] = []
    for edge in (*ring[at:], *ring[:at]):
        if edge.is_leg:
            continue
        if edge.lineage != first.lineage:
            break
        run.append(edge)
    return Upright(corner, tuple(run), forward)
