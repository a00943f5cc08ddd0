"""Closed openings pass the part that must go through: head, hand, shoulders or hips; else an opening is needed.

A neck opening with its stretch goes over the head; a cuff or sleeve hem over the hand; a waist, with its stretch, over
the hips or the shoulders. A hand passes a ring of about its girth around the knuckles. Common practice, no single source.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Any

from izett.checking.check import Check, CheckParams, Finding, Fix, Garment, Verdict, Worse, tolerance
from izett.errors import ReferenceLost
from izett.pattern.document import Opening
from izett.pattern.facts import Half, Region, Role, SeamKind
from izett.pattern.naming import readable
from izett.pattern.piece import Piece, Span
from izett.pattern.sewn import holding, resolved, span_length
from izett.pattern.working import Readable
from izett.pattern.worn import halves_of, is_body, is_sleeve, on_body, place_width
from izett.styling.subject import run_of
from izett.units import whole_millimetres
from izett.wording import cm


class Params(CheckParams):
    """How much smaller a ring may be than what passes through it."""

    spare: float = tolerance(0.0, low=-3, high=5, unit="cm", meaning="ring, stretched, less what must pass")


#: What passes each ring, the first that is known: the symbols of the measures.
PASSES = {"neck": ("head_girth",), "hand": ("hand_girth",), "waist": ("hip_girth",)}
#: cm. A zip that is offered is so long, where its line is.
ZIP = 20.0
WORDS = {"neck": "head", "hand": "hand", "waist": "hips"}


def find(garment: Garment, params: Params) -> Iterator[Finding]:
    """Yield each closed ring with how much larger it is than the part that must pass, unless it has an opening."""
    pattern = garment.pattern
    for ring in _rings(pattern):
        girth = next((garment.body[s] for s in PASSES[ring.key] if s in garment.body), None)
        if girth is None or not ring.around:
            yield Finding(Verdict.NOT_APPLICABLE, (ring.key,), 0.0, params.spare, half=ring.half)
            continue
        stretched = ring.around * (1 + pattern.intent.stretch / 100)
        if _opened(pattern, ring.corners):
            found = stretched - girth
            yield Finding(Verdict.PASSES, (ring.key,), found, params.spare, aspect="opened", half=ring.half)
            continue
        spare = stretched - girth
        fine = spare >= params.spare
        yield Finding(
            Verdict.PASSES if fine else Verdict.WARNS,
            (ring.key,),
            spare,
            params.spare,
            fixes=() if fine else tuple(_fixes(pattern, ring.corners)),
            half=ring.half,
            worse=Worse.LESS,
        )


@dataclass(frozen=True, slots=True)
class Ring:
    """A ring that a part of the body passes through: its length all around, cm, and the corners that lie on it."""

    key: str
    half: Half
    around: float
    corners: frozenset[str]


def _rings(pattern: Readable) -> Iterator[Ring]:
    """Yield each closed ring; a sleeve's hem on each half where the sleeves differ."""
    yield from _ring("neck", Role.NECK, [p for p in pattern.with_role(Role.NECK) if on_body(p)])
    sleeves = [piece for piece in pattern.with_role(Role.HEM) if is_sleeve(piece) and on_body(piece)]
    for half in halves_of(sleeves):
        own = [piece for piece in sleeves if piece.half in (Half.BOTH, half)]
        for ring in _ring("hand", Role.HEM, own):
            yield replace(ring, half=half, around=place_width(pattern, "wrist", half))
    # Where two blocks meet at the waist, the upper one's edge is the ring: it counts once.
    lower = (Region.SKIRT, Region.LEGS) if pattern.seams_of(SeamKind.WAIST) else ()
    waists = [piece for piece in pattern.with_role(Role.WAIST) if is_body(piece) and piece.region not in lower]
    yield from _ring("waist", Role.WAIST, waists)


def _ring(key: str, role: Role, pieces: Sequence[Piece]) -> Iterator[Ring]:
    edges = [(piece, edge) for piece in pieces for edge in piece.edges if edge.role is role]
    if edges:
        corners = frozenset(name for _, edge in edges for name in (edge.start, edge.end))
        yield Ring(key, Half.BOTH, sum(edge.curve.length * piece.times for piece, edge in edges), corners)


def _opened(pattern: Readable, corners: frozenset[str]) -> bool:
    """Return whether an opening begins on the ring, or runs the whole length of its line to it."""
    return any(
        opening.span.start in corners or (opening.span.end in corners and _whole(pattern, opening))
        for opening in pattern.openings
    )


def _whole(pattern: Readable, opening: Opening) -> bool:
    long = _sewn(pattern, opening.span)
    return long is not None and opening.length >= long - 0.5


def _sewn(pattern: Readable, line: Span) -> float | None:
    """Return how long a line is as sewn, over all its parts; None where it no longer runs from end to end."""
    try:
        return sum(span_length(holding(pattern, span.start), span) for span in resolved(pattern, line))
    except ReferenceLost:
        return None


def _fixes(pattern: Readable, corners: frozenset[str]) -> Iterator[Fix]:
    offered: set[str] = set()
    for piece in pattern.pieces:
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
            long = _sewn(pattern, span)
            if long is None:
                continue
            start, end = (span.start, span.end) if span.start in corners else (span.end, span.start)
            at: dict[str, Any] = {"start": start, "end": end, "along": span.along}
            words = readable(edge.lineage)
            params = {"closure": "zip", "at": at, "long": min(ZIP, whole_millimetres(long))}
            yield Fix(f"Open it with a zip in the {words}", "open_up", params)


def word(finding: Finding) -> str:
    """Return the finding in words."""
    ring = {"neck": "neck opening", "hand": "sleeve's hem", "waist": "waist"}[finding.where[0]]
    part = WORDS[finding.where[0]]
    if finding.aspect == "opened":
        return f"The {ring} opens to let the {part} through"
    if finding.verdict is Verdict.NOT_APPLICABLE:
        return f"The {ring} cannot be compared with the {part}"
    if finding.verdict is Verdict.PASSES:
        return f"The {ring} fits over the {part} with {cm(finding.amount)} to spare"
    return f"The {ring} is {cm(-finding.amount)} too small to go over the {part}: it needs an opening"


CHECK = Check(
    key="passes_over",
    claim="Closed edges fit over head, hand and hips, or have an opening",
    params=Params,
    find=find,
    word=word,
    fix="Add an opening: a zip, a placket, buttons or lacing.",
)
