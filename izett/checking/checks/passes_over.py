"""Closed openings pass the part that must go through: head, hand, shoulders or hips; else an opening is needed.

A neck opening with its stretch goes over the head; a cuff or sleeve hem over the hand; a waist, with its stretch, over
the hips or the shoulders. A hand passes a ring of about its girth around the knuckles. Common practice, no single source.
"""

from collections.abc import Iterator, Mapping
from typing import Any

from izett.checking.check import Check, CheckParams, Finding, Garment, Mend, Verdict, tolerance
from izett.errors import ReferenceLost
from izett.pattern.document import Opening, Pattern, Role
from izett.pattern.levels import SIDES
from izett.pattern.naming import readable
from izett.pattern.sewn import holding, resolved, span_length
from izett.styling.subject import run_of


class Params(CheckParams):
    """What a ring may be smaller than what passes."""

    spare: float = tolerance(0.0, low=-3, high=5, unit="cm", meaning="ring, stretched, less what must pass")


#: What passes each ring, the first that is known: the symbols of the measures.
PASSES = {"neck": ("head_girth",), "hand": ("hand_girth",), "waist": ("hip_girth",)}
WORDS = {"neck": "head", "hand": "hand", "waist": "hips"}


def find(garment: Garment, params: Params) -> Iterator[Finding]:
    """Yield each closed ring with what it is larger than the part that must pass, unless an opening lies in it."""
    pattern = garment.pattern
    for ring, (around, lines) in _rings(pattern).items():
        girth = next((garment.body[s] for s in PASSES[ring] if s in garment.body), None)
        if girth is None or not around:
            yield Finding(Verdict.NOT_APPLICABLE, (ring,), 0.0, params.spare)
            continue
        stretched = around * (1 + pattern.intent.stretch / 100)
        if _opened(pattern, lines):
            yield Finding(Verdict.PASSES, (ring,), stretched - girth, params.spare, aspect="opened")
            continue
        spare = stretched - girth
        fine = spare >= params.spare
        yield Finding(
            Verdict.PASSES if fine else Verdict.WARNS,
            (ring,),
            spare,
            params.spare,
            mends=() if fine else tuple(_mends(pattern, lines)),
        )


def _rings(pattern: Pattern) -> Mapping[str, tuple[float, set[str]]]:
    """Return each closed ring's length all around, and the corners that lie on it."""
    found: dict[str, tuple[float, set[str]]] = {}
    seams = {name for name in ("waist",) for seam in pattern.seams if seam.name == name}
    for piece in pattern:
        sleeve = any(line.level in SIDES for line in piece.lines)
        for edge in piece.edges:
            ring = None
            if edge.role is Role.NECK:
                ring = "neck"
            elif edge.role is Role.HEM and sleeve:
                ring = "hand"
            elif edge.role is Role.WAIST and ("front" in piece.part or "back" in piece.part):
                # Where two pieces meet at the waist, the bodice's edge is the ring: it counts once.
                ring = "waist" if not (seams and piece.part.startswith(("skirt", "trouser"))) else None
            if ring is None:
                continue
            times = piece.of_half * (1 if ring == "hand" else 2)
            around, corners = found.get(ring, (0.0, set()))
            corners = corners | {edge.start, edge.end}
            found[ring] = (around + edge.curve.length * times, corners)
    return found


def _opened(pattern: Pattern, corners: set[str]) -> bool:
    """Return whether an opening begins on the ring, or runs the whole length of its line to it."""
    return any(
        opening.span.start in corners or (opening.span.end in corners and _whole(pattern, opening))
        for opening in pattern.openings
    )


def _whole(pattern: Pattern, opening: Opening) -> bool:
    try:
        chain = resolved(pattern, opening.span)
    except ReferenceLost:
        return False
    return opening.length >= sum(span_length(holding(pattern, span.start), span) for span in chain) - 0.5


def _mends(pattern: Pattern, corners: set[str]) -> Iterator[Mend]:
    offered: set[str] = set()
    for piece in pattern:
        for edge in piece.edges:
            if (
                edge.role not in (Role.CENTRE_BACK, Role.SIDE, Role.CENTRE_FRONT, Role.UNDERARM)
                or edge.lineage == piece.on_fold
            ):
                continue
            span = run_of(pattern, piece, edge.lineage)
            if (
                span is None
                or not {span.start, span.end} & corners
                or not (piece.holds(span.start) and piece.holds(span.end))
            ):
                continue
            if edge.lineage in offered:
                continue
            offered.add(edge.lineage)
            start, end = (span.start, span.end) if span.start in corners else (span.end, span.start)
            long = round(min(20.0, span_length(piece, span)), 1)
            at: dict[str, Any] = {"start": start, "end": end, "along": span.along}
            words = readable(edge.lineage)
            yield Mend(f"Open it with a zip in the {words}", "open_up", {"closure": "zip", "at": at, "long": long})


def word(finding: Finding) -> str:
    """Return the finding in words."""
    ring = {"neck": "neck opening", "hand": "sleeve's hem", "waist": "waist"}[finding.where[0]]
    part = WORDS[finding.where[0]]
    if finding.aspect == "opened":
        return f"The {ring} opens to let the {part} through"
    if finding.verdict is Verdict.NOT_APPLICABLE:
        return f"The {ring} cannot be compared with the {part}"
    if finding.verdict is Verdict.PASSES:
        return f"The {ring} passes over the {part} with {finding.amount:.1f} cm to spare"
    return f"The {ring} is {-finding.amount:.1f} cm too small to pass over the {part}: it needs an opening"


CHECK = Check(
    key="passes_over",
    claim="What is closed passes over head, hand and hips, or it opens",
    params=Params,
    find=find,
    word=word,
    mend="Add an opening: a zip, a placket, buttons or lacing.",
)
