"""The ends of a seam: one side slid on or cut back there, what meets it drawn to its new corner."""

from dataclasses import replace

from izett.errors import StepRefused
from izett.pattern.document import Seam
from izett.pattern.naming import readable
from izett.pattern.paper import shortened
from izett.pattern.piece import Piece
from izett.pattern.redraw import redrawn
from izett.pattern.sewn import holding
from izett.pattern.working import Working
from izett.wording import cm

#: cm. Of the last edge of a seam this much must be left.
LEAST_LEFT = 1.0


def slid(pattern: Working, seam: Seam, side: int, longer: float, *, at_start: bool) -> Working:
    """Return the garment with one side of a seam longer by so much (cm; −: shorter) at its start or at its end.

    Raises:
        StepRefused: too little would be left of it.
    """
    span = seam.sides[side][0 if at_start else -1]
    piece = holding(pattern, span.start)
    corner = span.start if at_start else span.end
    return pattern.with_pieces(run_on(piece, piece.aliases.get(corner, corner), span.along, longer))


def run_on(piece: Piece, corner: str, lineage: str, longer: float) -> Piece:
    """Return a piece with one of its lines longer by so much (cm; −: shorter) at a corner; notches keep their places.

    The line is cut off there, or runs on: what lies further along it stays. What meets it is drawn to its new corner.

    Raises:
        StepRefused: too little would be left of it.
    """
    own = next(e for e in piece.edges if corner in (e.start, e.end) and e.lineage == lineage)
    if own.curve.length + longer < LEAST_LEFT:
        raise StepRefused(
            f"{piece.title}: less than {cm(LEAST_LEFT, 2)} of {readable(lineage)} would be left.",
            fix="Let the other side take the difference, or take it at the other end.",
            where=(lineage,),
        )
    cut = shortened(piece, corner, lineage, -longer)
    own = next(e for e in cut.edges if corner in (e.start, e.end) and e.lineage == lineage)
    spot = own.curve.start if own.start == corner else own.curve.end
    drawn = redrawn(piece, moves={corner: spot})
    ring = tuple(own if (e.start, e.end) == (own.start, own.end) else e for e in drawn.edges)
    notches = tuple(
        replace(n, distance=max(n.distance + longer, 0.0))
        if n.span.along == lineage and piece.aliases.get(n.span.start, n.span.start) == corner
        else n
        for n in piece.notches
    )
    return replace(drawn, edges=ring, notches=notches)
