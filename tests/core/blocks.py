"""What must hold of every block, whichever it is, and a short way to draft one or several."""

from collections.abc import Iterator
from itertools import pairwise

from izett.catalogue import catalogue
from izett.checking.check import Garment, Verdict, run
from izett.drafting.method import Choices, Draft, draft
from izett.drafting.sets import StarterSet
from izett.geometry.outline import crossing, signed_area
from izett.pattern.sewn import seam_lengths

#: cm. How far sums and seams may be off.
SUM = 0.05


def drafted(blocks, body, **choices) -> Draft:
    first, *also = catalogue().in_order(blocks)
    return draft(first, body, also=also, choices=Choices(**choices))


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
    for seam in pattern.seams:
        first, second = seam_lengths(pattern, seam)
        if not seam.ease[0] - SUM <= second - first <= seam.ease[1] + SUM:
            yield f"seam {seam.name}: {first:.3f} against {second:.3f}"
    for check in catalogue().checks.values():
        for result in run(check, Garment(pattern, found.values)):
            off = abs(result.finding.amount) if result.check == "ease_as_meant" else 0.0
            if result.finding.verdict is Verdict.FAILS or off > SUM:
                yield result.words
