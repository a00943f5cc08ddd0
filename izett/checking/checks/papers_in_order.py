"""Papers are in order: a name, a cut count, a grain line inside the piece, its fold, an allowance where it was folded.

Notches and allowances have checks of their own. Common practice, no single source.
"""

from collections.abc import Iterator
from math import asin, degrees

from izett.checking.check import Check, CheckParams, Finding, Garment, Verdict, tolerance
from izett.geometry.outline import contains
from izett.geometry.point import between, cross, distance, dot, subtract, unit
from izett.pattern.facts import Lie, Role
from izett.pattern.levels import AROUND
from izett.pattern.naming import readable
from izett.pattern.piece import Piece

#: °. A grain line further off the thread than this makes the piece hang askew.
ASKEW = 3.0


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
    outline = piece.outline()
    lies_inside = distance(*piece.grain) >= shortest and contains(outline, between(*piece.grain, 0.5))
    folded = piece.on_fold is None or any(edge.lineage == piece.on_fold for edge in piece.edges)
    asked = (
        ("name", bool(piece.title)),
        ("cut count", piece.cut >= 1),
        ("grain line", lies_inside),
        ("grain line along its cloth", piece.lie is not Lie.STRAIGHT or not lies_inside or _askew(piece) <= ASKEW),
        ("fold edge", folded),
        ("seam allowance where it was folded", not _open_fold(piece)),
    )
    return next((what for what, there in asked if not there), "")


def _askew(piece: Piece) -> float:
    """Return by how many degrees the grain line is off the fold, or off the square to a level; 0 where there is neither."""
    along = unit(subtract(piece.grain[1], piece.grain[0]))
    fold = next((e.curve for e in piece.edges if e.lineage == piece.on_fold and e.curve.is_straight), None)
    if fold is not None:
        return degrees(asin(min(abs(cross(along, unit(subtract(fold.end, fold.start)))), 1.0)))
    # A level that is bent where the paper was spread says nothing of the thread, nor one that turns with the bust dart.
    levels = [x.points for x in piece.lines if x.level in AROUND - {"bust"} and len(x.points) == 2]
    offs = [degrees(asin(min(abs(dot(along, unit(subtract(p[1], p[0])))), 1.0))) for p in levels]
    return min(offs, default=0.0)


def _open_fold(piece: Piece) -> bool:
    """Return whether an edge that was a fold is cut now: whoever unfolded it forgot that a seam needs an allowance."""
    return any(edge.role is Role.FOLD and edge.lineage != piece.on_fold for edge in piece.edges)


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
    fix="Undo the step that made the piece too small, or change where it is cut.",
    by_piece=True,
)
