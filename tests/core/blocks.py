"""What must hold of every block, whichever it is, and a short way to draft one or several."""

from collections.abc import Iterator
from dataclasses import replace
from itertools import pairwise

from izett.catalogue import catalogue
from izett.checking.check import Garment, Verdict, run
from izett.drafting.method import Choices, Draft, draft
from izett.drafting.sets import StarterSet
from izett.drafting.sleeve.piece import BACK_ARMHOLE, FRONT_ARMHOLE
from izett.geometry.outline import crossing, signed_area
from izett.pattern.document import CutFor, Pattern, Seam
from izett.pattern.piece import Piece
from izett.pattern.sewn import seam_lengths, span_length
from izett.pattern.working import Working

#: cm. How far sums and seams may be off.
SUM = 0.05


def drafted(blocks, body, **choices) -> Draft:
    first, *also = catalogue().in_order(blocks)
    return draft(first, body, also=also, choices=Choices(**choices))


def cut_for(pattern: Pattern, purpose: str = "muslin", by_lineage: dict[str, float] | None = None) -> Pattern:
    """The pattern with the seam allowances of a purpose, and lines set apart."""
    return replace(pattern, allowances=CutFor(purpose, by_lineage or {}))


def with_pieces(pattern: Pattern, *pieces: Piece) -> Pattern:
    """The pattern with pieces in place of those of the same name."""
    return Working(pattern).with_pieces(*pieces).changes.on(pattern)


def with_seam(pattern: Pattern, seam: Seam) -> Pattern:
    """The pattern with a seam in place of the one of the same name."""
    return Working(pattern).with_seam(seam).changes.on(pattern)


def drafted_set(of: StarterSet, body) -> Draft:
    return drafted(of.blocks, body, fit=of.fit, cloth=of.cloth)


def faults(found: Draft) -> Iterator[str]:
    """Yield what does not hold: rings, crossings, seams as sewn, sums against body and ease, all checks that ship."""
    pattern = found.pattern
    for piece in pattern:
        for edge, following in pairwise((*piece.edges, piece.edges[0])):
            if edge.curve.end != following.curve.start or edge.end != following.start:
                yield f"{piece.name} ring open at {edge.end}"
        if signed_area(piece.outline()) <= 0:
            yield f"{piece.name} runs clockwise"
        if (spot := crossing(piece.outline())) is not None:
            yield f"{piece.name} crosses itself at {spot}"
    yield from _proportions(found)
    for seam in pattern.seams:
        first, second = seam_lengths(pattern, seam)
        if not seam.ease[0] - SUM <= second - first <= seam.ease[1] + SUM:
            yield f"seam {seam.name}: {first:.3f} against {second:.3f}"
    for check in catalogue().checks.values():
        for result in run(check, Garment(pattern, found.values)):
            off = abs(result.finding.amount) if result.check == "ease_as_meant" else 0.0
            if result.finding.verdict is Verdict.FAILS or off > SUM:
                yield result.words


def _proportions(found: Draft) -> Iterator[str]:
    """Yield what leaves the trade's proportions: armhole over the frame's bust, cap over armhole, shoulder slopes."""
    names = {piece.name: piece for piece in found.pattern}
    for block in ("bodice", "torso"):
        if f"{block}_front" in names:
            halves = ((names[f"{block}_front"], FRONT_ARMHOLE), (names[f"{block}_back"], BACK_ARMHOLE))
            ratio = sum(span_length(piece, span) for piece, span in halves) / found.values["frame_bust"]
            if not 0.38 <= ratio <= 0.57:
                yield f"armhole ratio {ratio:.3f}"
    if "sleeve" in names:
        knit = "knit_top_front" in names
        low, high = (0.24, 0.32) if knit else (0.28 - 0.009 * found.values["loosening"], 0.40)
        if "highest_cap" in found.sums.overrides:
            high = found.values["highest_cap"] + 0.01
        if not low - 1e-6 <= found.values["cap_ratio"] <= high + 1e-6:
            yield f"cap ratio {found.values['cap_ratio']:.3f}"
    if "front_slope" in found.sums.sheet.found:
        for side in ("front", "back"):
            if not 8 <= found.values[f"{side}_slope"] <= 34:
                yield f"{side} slope {found.values[f'{side}_slope']:.1f}"
