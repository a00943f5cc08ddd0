"""The halves of a whole piece meet at the centre: no step along it, and no corner in a line that runs across it.

Where left and right differ, a piece that lay on the fold is one whole piece. What was changed on one half only must run on
into the other, else the neckline, the waist or the hem steps at the centre. Common practice, no single source.
"""

from collections.abc import Iterator
from itertools import pairwise
from math import degrees

from izett.checking.check import Check, CheckParams, Finding, Fix, Garment, Verdict, tolerance, verdict
from izett.geometry.point import turn
from izett.pattern.facts import CENTRE_CORNERS, CENTRES
from izett.pattern.halves import origin
from izett.pattern.naming import readable
from izett.pattern.piece import Edge, Piece
from izett.wording import cm


class Params(CheckParams):
    """How far the halves may be apart."""

    step: float = tolerance(0.1, low=0, high=1, unit="cm", meaning="from one half's end of a line to the other's")
    angle: float = tolerance(4.0, low=0.5, high=20, unit="°", meaning="corner of a line where the halves meet")


def find(garment: Garment, params: Params) -> Iterator[Finding]:
    """Yield each step along the centre of a whole piece, and each line across it with its corner there."""
    for piece in garment.pattern.pieces:
        if not piece.is_whole:
            continue
        for before, after in pairwise((*piece.edges, piece.edges[0])):
            if before.role in CENTRES and _is_step(piece, before):
                along = _line_before(piece, before)
                found = verdict(before.curve.length, params.step, otherwise=Verdict.WARNS)
                yield Finding(found, (origin(along).name,), before.curve.length, params.step, aspect="step")
            if before.role is after.role and piece.corner_at(after.start) in CENTRE_CORNERS:
                off = degrees(turn(before.curve.end_direction, after.curve.start_direction))
                smooth = (Fix("Smooth it", "true_line", {"how": "smooth", "line": before.lineage}),)
                found = verdict(off, params.angle, otherwise=Verdict.WARNS)
                fixes = () if found is Verdict.PASSES else smooth
                yield Finding(
                    found, (origin(before.lineage).name,), off, params.angle, unit="°", aspect="corner", fixes=fixes
                )


def _is_step(piece: Piece, edge: Edge) -> bool:
    """Return whether an edge along the centre lies between two lines of one role: the halves end apart there."""
    index = piece.edges.index(edge)
    return piece.edges[index - 1].role is piece.edges[(index + 1) % len(piece.edges)].role


def _line_before(piece: Piece, edge: Edge) -> str:
    return piece.edges[piece.edges.index(edge) - 1].lineage


def word(finding: Finding) -> str:
    """Return the finding in words."""
    line = readable(finding.where[0])
    if finding.aspect == "step":
        if finding.verdict is Verdict.PASSES:
            return f"The halves of the {line} meet at the centre"
        return f"At the centre the halves of the {line} end {cm(finding.amount)} apart"
    if finding.verdict is Verdict.PASSES:
        return f"The {line} runs across the centre without a corner"
    return f"The {line} has a corner of {abs(finding.amount):.1f}° at the centre"


CHECK = Check(
    key="halves_meet",
    claim="Where left and right differ, their lines run on across the centre",
    params=Params,
    find=find,
    word=word,
    fix="Change the other half as well, or let the change run out before the centre.",
    by_piece=True,
)
