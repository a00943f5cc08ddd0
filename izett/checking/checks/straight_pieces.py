"""Straight-cut pieces add up: rectangles are rectangles, a gusset is square.

Common practice, no single source.
"""

from collections.abc import Iterator
from itertools import pairwise
from math import asin, degrees

from izett.checking.check import Check, CheckParams, Finding, Garment, Verdict, tolerance, verdict
from izett.geometry.point import dot
from izett.pattern.facts import Role, Zone
from izett.pattern.naming import readable
from izett.wording import cm


class Params(CheckParams):
    """How far off a straight-cut piece may be."""

    angle: float = tolerance(0.2, low=0.01, high=2, unit="°", meaning="off the right angle at a corner")
    side: float = tolerance(0.1, low=0.01, high=1, unit="cm", meaning="difference of a gusset's sides")


def find(garment: Garment, params: Params) -> Iterator[Finding]:
    """Yield each straight-cut piece with its corner farthest off the right angle, and a gusset with its sides."""
    for piece in garment.pattern.pieces:
        if not any(edge.role is Role.CUT_EDGE for edge in piece.edges):
            continue
        offs = [
            degrees(asin(max(-1.0, min(1.0, dot(a.curve.end_direction, b.curve.start_direction)))))
            for a, b in pairwise((*piece.edges, piece.edges[0]))
            if a.lineage != b.lineage
        ]
        worst = max(offs, key=abs, default=0.0)
        yield Finding(verdict(worst, params.angle), (piece.name,), worst, params.angle, unit="°", aspect="corner")
        if piece.zone is Zone.GUSSET:
            lengths = [edge.curve.length for edge in piece.edges]
            off = max(lengths) - min(lengths)
            yield Finding(verdict(off, params.side), (piece.name,), off, params.side, aspect="gusset")


def word(finding: Finding) -> str:
    """Return the finding in words."""
    piece = readable(finding.where[0])
    fine = finding.verdict is Verdict.PASSES
    if finding.aspect == "gusset":
        return f"The {piece} is square" if fine else f"The sides of the {piece} differ by {cm(finding.amount, 2)}"
    return (
        f"The {piece} is cut square"
        if fine
        else f"The {piece} has a corner {abs(finding.amount):.1f}° off the right angle"
    )


CHECK = Check(
    key="straight_pieces",
    claim="Straight-cut pieces are rectangles, gussets are square",
    params=Params,
    find=find,
    word=word,
    fix="Undo the step that bent the piece: straight-cut pieces are torn along the thread.",
    by_piece=True,
)
