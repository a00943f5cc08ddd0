"""Edges are sewn: every line that only a seam can close lies in one, along its whole length.

A lost seam is worse than an uneven one: nothing compares its two sides any more, so everything that is left agrees.
Common practice, no single source.
"""

from collections.abc import Iterator, Set
from itertools import chain

from izett.checking.check import Check, CheckParams, Finding, Garment, Verdict, tolerance
from izett.errors import ReferenceLost
from izett.pattern.document import Closure
from izett.pattern.facts import Layer, Role, SeamKind, Zone
from izett.pattern.naming import readable
from izett.pattern.piece import Edge, Piece, Span, has_role
from izett.pattern.sewn import holding, resolved, walk
from izett.pattern.working import Readable
from izett.wording import cm

#: Lines that lie against another one on any garment; a neck, a waist or a hem may well be left to a facing or a turning.
CLOSED_BY_A_SEAM = frozenset({Role.SHOULDER, Role.SIDE, Role.CAP, Role.UNDERARM, Role.INSEAM, Role.PANEL})
#: Layers that are sewn together like the garment; a pocket is sewn down.
LAYERS = (Layer.OUTER, Layer.LINING)
#: What is sewn on or let in is closed on itself or folded over: one of its lines is sewn, or it lies in a slit of its own.
SEWN_ON = (Zone.ADDED, Zone.GUSSET)

#: cm. What is let in fits a slit that differs from it by no more.
FITS = 0.3
ATTACHED = (Layer.OUTER, Layer.STRENGTH, Layer.FACING)

#: The seams of a garment cut from straight lines, whose edges do not say what they are, by what its pieces lie on.
STRAIGHT_CUT = {Zone.BODY: (SeamKind.SIDE,), Zone.SLEEVE: (SeamKind.UNDERARM, SeamKind.CAP)}


class Params(CheckParams):
    """How much may be open."""

    open: float = tolerance(0.2, low=0, high=2, unit="cm", meaning="length of a line that no seam closes")


def find(garment: Garment, params: Params) -> Iterator[Finding]:
    """Yield each piece with the length in cm of its lines that a seam should close and none does."""
    sewn = _sewn(garment.pattern)
    for piece in garment.pattern.pieces:
        if piece.zone in SEWN_ON:
            yield from _attached(garment.pattern, piece, sewn, params)
            continue
        if piece.layer not in LAYERS:
            continue
        closed = [e for e in piece.edges if e.role in CLOSED_BY_A_SEAM and e.lineage != piece.on_fold]
        lost = [e for e in closed if (piece.name, e.start) not in sewn]
        for line in dict.fromkeys(e.lineage for e in lost):
            long = sum(e.curve.length for e in lost if e.lineage == line)
            if long > params.open:
                yield Finding(Verdict.FAILS, (piece.name, line), long, params.open)
        gone = [kind for kind in _needed(piece) if not garment.pattern.seams_of(kind)]
        for kind in gone:
            yield Finding(Verdict.FAILS, (piece.name, kind.value), 0.0, params.open, aspect="seam")
        if closed and not lost:
            yield Finding(Verdict.PASSES, (piece.name,), 0.0, params.open)


def _attached(pattern: Readable, piece: Piece, sewn: Set[tuple[str, str]], params: Params) -> Iterator[Finding]:
    """Yield whether a band, a ruffle, a facing or an elastic is sewn to anything, or what is let in fits a slit."""
    if piece.layer not in ATTACHED or not has_role(piece, Role.PANEL):
        return
    attached = any((piece.name, edge.start) in sewn for edge in piece.edges) or _let_in(pattern, piece)
    verdict = Verdict.PASSES if attached else Verdict.FAILS
    yield Finding(verdict, (piece.name,), 0.0, params.open, aspect="" if attached else "loose")


def _let_in(pattern: Readable, piece: Piece) -> bool:
    """Return whether there is a slit as long as a piece that is let in: a godet's two sides, a gusset's one, a flounce's edge."""
    sides = [edge.curve.length for edge in piece.edges if edge.role is Role.PANEL]
    fits = (sum(sides) / 2, max(sides) / 2, max(sides))
    slits = [opening.length for opening in pattern.openings if opening.closure is Closure.SLIT]
    return any(abs(slit - long) <= FITS for slit in slits for long in fits)


def _needed(piece: Piece) -> tuple[SeamKind, ...]:
    """Return the seams that a piece cut from straight lines needs."""
    return STRAIGHT_CUT.get(piece.zone, ()) if has_role(piece, Role.CUT_EDGE) else ()


def _sewn(pattern: Readable) -> Set[tuple[str, str]]:
    """Return the edges that lie in a seam, each as its piece's name and its first corner."""
    return frozenset(
        (piece.name, edge.start)
        for seam in pattern.seams
        for span in chain(*seam.sides)
        for piece, edge in _along(pattern, span)
    )


def _along(pattern: Readable, span: Span) -> Iterator[tuple[Piece, Edge]]:
    try:
        for one in resolved(pattern, span):
            piece = holding(pattern, one.start)
            yield from ((piece, stretch.edge) for stretch in walk(piece, one))
    except ReferenceLost:
        return  # A seam that lost an end is told by the check of seams.


def word(finding: Finding) -> str:
    """Return the finding in words."""
    piece = readable(finding.where[0])
    if finding.aspect == "loose":
        return f"The {piece} is sewn to nothing, and fits no slit"
    if finding.aspect == "seam":
        return f"The {piece} has no {finding.where[1]} seam"
    if finding.verdict is Verdict.PASSES:
        return f"Every line of the {piece} that needs a seam lies in one"
    return f"No seam closes {cm(finding.amount)} of the {readable(finding.where[1])} line of the {piece}"


CHECK = Check(
    key="edges_sewn",
    claim="Every shoulder, side, cap, inseam and panel line lies in a seam along its whole length",
    params=Params,
    find=find,
    word=word,
    fix="Join it to the line that it is sewn to, or go back to the step that lost the seam.",
)
