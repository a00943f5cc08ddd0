"""Papers are in order: every piece has a name, a cut count, a grain line inside it, and straight folds.

Notches and allowances are looked after by checks of their own. Common practice, no single source.
"""

from collections.abc import Iterator

from izett.checking.check import Check, CheckParams, Finding, Garment, Verdict, tolerance
from izett.geometry.outline import contains
from izett.geometry.point import between, distance
from izett.pattern.document import Piece
from izett.pattern.naming import readable


class Params(CheckParams):
    """What a grain line needs."""

    grain: float = tolerance(0.8, low=0.3, high=20, unit="cm", meaning="shortest grain line that can be laid straight")


def find(garment: Garment, params: Params) -> Iterator[Finding]:
    """Yield each piece with the first thing that is missing on it."""
    for piece in garment.pattern:
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
    return ""


def word(finding: Finding) -> str:
    """Return the finding in words."""
    piece = readable(finding.where[0])
    return f"The {piece} has no {finding.aspect}" if finding.aspect else f"The papers of the {piece} are in order"


CHECK = Check(
    key="papers_in_order",
    claim="Every piece has a name, a cut count, a grain line and its fold",
    params=Params,
    find=find,
    word=word,
    mend="Undo the step that made the piece too small, or change where it is cut.",
    by_piece=True,
)
