"""Papers are in order: a name, a cut count, a grain line inside the piece, its fold, an allowance on every edge.

A forgotten allowance is the commonest slip: an edge that was a fold before it was unfolded, say. Notches have a check of
their own. Common practice, no single source.
"""

from collections.abc import Iterator

from izett.checking.check import Check, CheckParams, Finding, Garment, Verdict, tolerance
from izett.finishing.allowances import Allowances
from izett.geometry.outline import contains
from izett.geometry.point import between, distance
from izett.pattern.facts import Role
from izett.pattern.naming import readable
from izett.pattern.piece import Edge, Piece

#: The purpose by whose allowances an edge is judged: what is sewn for good.
USUAL = "home"


class Params(CheckParams):
    """What a grain line needs."""

    grain: float = tolerance(0.8, low=0.3, high=20, unit="cm", meaning="shortest grain line that can be laid straight")


def find(garment: Garment, params: Params) -> Iterator[Finding]:
    """Yield each piece with the first thing that is missing on it."""
    for piece in garment.pattern.pieces:
        missing = _missing(piece, params.grain)
        yield Finding(
            Verdict.FAILS if missing else Verdict.PASSES,
            (piece.name,),
            distance(*piece.grain),
            params.grain,
            aspect=missing,
        )


def _missing(piece: Piece, shortest: float) -> str:
    if not piece.title:
        return "name"
    if piece.cut < 1:
        return "cut count"
    outline = piece.outline()
    if distance(*piece.grain) < shortest or not contains(outline, between(*piece.grain, 0.5)):
        return "grain line"
    if piece.on_fold is not None and all(edge.lineage != piece.on_fold for edge in piece.edges):
        return "fold edge"
    if any(_without_allowance(piece, edge) for edge in piece.edges):
        return "seam allowance on one of its edges"
    return ""


def _without_allowance(piece: Piece, edge: Edge) -> bool:
    """Return whether an edge that is cut and sewn has no allowance: a straight-cut edge has it inside, a fold needs none."""
    if edge.is_leg or edge.lineage == piece.on_fold or edge.role is Role.CUT_EDGE:
        return False
    return Allowances(USUAL).of(piece, edge) <= 0


def word(finding: Finding) -> str:
    """Return the finding in words."""
    piece = readable(finding.where[0])
    return f"The {piece} has no {finding.aspect}" if finding.aspect else f"The papers of the {piece} are in order"


CHECK = Check(
    key="papers_in_order",
    claim="Every piece has a name, a cut count, a grain line, its fold, and an allowance on every edge",
    params=Params,
    find=find,
    word=word,
    fix="Undo the step that made the piece too small, or change where it is cut.",
    by_piece=True,
)
