"""A corner moved so that a seam that ends there stays as long as it is."""

from izett.errors import StepRefused
from izett.geometry.point import Vector, add
from izett.geometry.root import root
from izett.pattern.facts import Role
from izett.pattern.piece import Piece
from izett.pattern.redraw import redrawn
from izett.styling.told import long_in
from izett.styling.words import line_words

#: cm. The corner rises or drops by at most so much beyond what is asked.
MOST_DROP = 3.0
#: cm. The seam is as long as it was within this.
WITHIN = 1e-6


def moved_as_long(piece: Piece, corner: str, by: Vector, role: Role) -> Piece:
    """Return a piece with a corner moved by a shift and then up or down, so that its edges of a role keep their length.

    Args:
        piece: the piece.
        corner: the vertex.
        by: the shift, cm.
        role: the role of the edges that keep their length.

    Raises:
        StepRefused: it cannot be kept.
    """
    wanted, spot = long_in(piece, role), add(piece.vertex(corner), by)

    def at(drop: float) -> Piece:
        return redrawn(piece, moves={corner: add(spot, (0.0, -drop))})

    def over(drop: float) -> float:
        return long_in(at(drop), role) - wanted

    if over(-MOST_DROP) * over(MOST_DROP) > 0:
        line = next(edge.lineage for edge in piece.edges if edge.role is role)
        raise StepRefused(
            f"{piece.title}: {line_words(line)} cannot keep its length with that much.",
            fix="Change it by less.",
            where=(piece.name, line),
        )
    return at(root(over, -MOST_DROP, MOST_DROP, within=WITHIN))
