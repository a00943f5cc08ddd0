"""Closed rings pass what must go through on the body's way in: head, hand, bust or hips; else an opening is needed.

A garment that hangs on the shoulders is pulled on over them, arms up: each closed ring below passes the bust. What has no
shoulders, or is open from its upper edge down, is stepped into: each closed ring passes the hips. A skirt may go either
way, trousers go over the hips. An opening opens a ring only where it runs through it: across a waist seam it must go on
beyond it, and the first closed ring beyond its end must pass as well. A neck with its stretch passes the head, a sleeve's
hem the hand, a leg's the foot. Pulled on over the shoulders, the hem passes the bust as well. Common practice, no single source.
"""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import replace
from typing import Any

from izett.checking.check import Check, CheckParams, Finding, Fix, Garment, Verdict, Worse, tolerance
from izett.checking.rings import Ring, begins_on, hem_ring, rings, sewn_length
from izett.checking.waist import Waist
from izett.pattern.document import Closure
from izett.pattern.facts import Region, Role, SeamKind
from izett.pattern.naming import readable
from izett.pattern.piece import Piece, Span
from izett.pattern.sewn import beginning
from izett.pattern.working import Readable
from izett.styling.rims import line_under
from izett.styling.subject import run_of
from izett.units import whole_millimetres
from izett.wording import cm


class Params(CheckParams):
    """How much smaller a ring may be than what passes through it."""

    spare: float = tolerance(0.0, low=-3, high=5, unit="cm", meaning="ring, stretched, less what must pass")
    beyond: float = tolerance(
        3.0, low=0, high=8, unit="cm", meaning="closed ring beyond an opening under what passes: body and cloth give"
    )


#: What passes a ring that is asked by itself: the symbol of the measure.
PASSES = {"neck": "head_girth", "hand": "hand_girth", "foot": "heel_girth"}
#: The two ways in, with the measure that passes each closed ring.
SHOULDERS, HIPS = "bust", "hips"
WAYS = {SHOULDERS: "bust_girth", HIPS: "hip_girth"}
#: What is offered first where there is a zip already.
LONGER = "Make the zip longer"
#: cm. A zip that is offered goes so far below the waist, where its line does.
BELOW_WAIST = 20.0
#: The two edges of an opening stand apart by at most so many times its length: it opens to a right angle.
GAPES = 1.4
RINGS = {"neck": "neck opening", "hand": "sleeve's hem", "foot": "leg's hem", "hem": "hem", "waist": "waist"}
PARTS = {"neck": "head", "hand": "hand", "foot": "foot", SHOULDERS: "bust", HIPS: "hips"}


def find(garment: Garment, params: Params) -> Iterator[Finding]:
    """Yield each closed ring with how much larger it is than the part that must pass, unless it has an opening."""
    pattern = garment.pattern
    for ring in rings(pattern):
        yield _of_ring(garment, ring, garment.body.get(PASSES[ring.key]), params)
    waist = Waist(pattern)
    ways = [way for way in _ways(pattern, waist) if WAYS[way] in garment.body]
    if not ways:
        if waist.around:
            yield Finding(Verdict.NOT_APPLICABLE, ("waist",), 0.0, params.spare)
        return
    found = [_on_way(way, waist, garment, params) for way in ways]
    # The first way is the usual one: another is told only where it lets the body in.
    yield from next((findings for findings in found if _all_pass(findings)), found[0])


def _all_pass(findings: Sequence[Finding]) -> bool:
    return all(finding.verdict is Verdict.PASSES for finding in findings)


def _on_way(way: str, waist: Waist, garment: Garment, params: Params) -> list[Finding]:
    """Return what is found on one way in: at the waist, and at the hem where that goes over the bust as well."""
    found = []
    if waist.around:
        at_waist = _at_waist(way, waist, garment, params)
        passes = at_waist.verdict is Verdict.PASSES
        found.append(
            at_waist if passes else replace(at_waist, fixes=_longer_first(_waist_fixes(garment.pattern, waist)))
        )
    hem = hem_ring(garment.pattern) if way == SHOULDERS else None
    if hem is not None:
        found.append(_of_ring(garment, hem, garment.body[WAYS[way]], params, side=way))
    return found


def _longer_first(fixes: Iterable[Fix]) -> tuple[Fix, ...]:
    return tuple(sorted(fixes, key=lambda fix: not fix.words.startswith(LONGER)))


def _at_waist(way: str, waist: Waist, garment: Garment, params: Params) -> Finding:
    stretch, girth = _stretch(garment), garment.body[WAYS[way]]
    if waist.opened_to is None:
        spare = waist.around * stretch - girth
        verdict = Verdict.PASSES if spare >= params.spare else Verdict.WARNS
        return Finding(verdict, ("waist",), spare, params.spare, worse=Worse.LESS, side=way)
    # What is opened must gape wide enough, and the first closed ring beyond its end must pass.
    loop = waist.around * stretch + GAPES * waist.reach - girth
    beyond = min(loop, waist.beyond * stretch - girth) if waist.beyond else loop
    fine = beyond >= -params.beyond
    return Finding(
        Verdict.PASSES if fine else Verdict.WARNS,
        ("waist",),
        beyond,
        -params.beyond,
        aspect="opened" if fine else "short",
        worse=Worse.LESS,
        side=way,
    )


def _stretch(garment: Garment) -> float:
    return 1 + garment.pattern.intent.stretch / 100


def _of_ring(garment: Garment, ring: Ring, girth: float | None, params: Params, *, side: str = "") -> Finding:
    """Return what is found about a ring by itself; both sides of an opening that begins on it lengthen what is passed."""
    pattern = garment.pattern
    if girth is None or not ring.around:
        return Finding(Verdict.NOT_APPLICABLE, (ring.key,), 0.0, params.spare, half=ring.half)
    opened = sum(opening.length * 2 for opening in pattern.openings if begins_on(pattern, opening, ring.corners))
    spare = ring.around * _stretch(garment) + opened - girth
    fine = spare >= params.spare
    return Finding(
        Verdict.PASSES if fine else Verdict.WARNS,
        (ring.key,),
        spare,
        params.spare,
        aspect="opened" if opened and fine else "",
        fixes=() if fine else tuple(_fixes(pattern, ring)),
        half=ring.half,
        worse=Worse.LESS,
        side=side,
    )


def _ways(pattern: Readable, waist: Waist) -> tuple[str, ...]:
    """Return the ways in that a garment has."""
    regions = {piece.region for piece in waist.pieces}
    if not waist.around:
        return (SHOULDERS,)
    if Region.LEGS in regions:
        return (HIPS,)
    if Region.UPPER not in regions:
        # With an opening a skirt is meant to be stepped into.
        return (HIPS, SHOULDERS) if waist.opened_to is None else (HIPS,)
    hangs = bool(pattern.seams_of(SeamKind.SHOULDER))
    # Open from its upper edge down through the waist it can be stepped into.
    return (SHOULDERS, HIPS) if not hangs or waist.opened_from_top else (SHOULDERS,)


def _waist_fixes(pattern: Readable, waist: Waist) -> Iterator[Fix]:
    """Yield an opening in each line that runs through the waist, or begins on it: so far below it as is usual."""
    offered: set[str] = set()
    for piece in waist.pieces:
        above = piece.region is Region.UPPER
        if waist.sewn and not above:
            continue
        lines = dict.fromkeys(
            e.lineage
            for e in piece.edges
            if e.role in (Role.CENTRE_BACK, Role.SIDE, Role.CENTRE_FRONT) and e.lineage != piece.on_fold
        )
        for lineage in lines:
            # Both sides of a seam are one place to open.
            seams = {seam.name for seam in pattern.seams_along(lineage)}
            fix = None if seams & offered else _opening_down(pattern, waist, piece, lineage)
            if fix is not None:
                offered |= seams
                yield fix


def _opening_down(pattern: Readable, waist: Waist, piece: Piece, lineage: str) -> Fix | None:
    span = run_of(pattern, piece, lineage)
    if span is None or not (piece.holds(span.start) and piece.holds(span.end)):
        return None
    top, foot = sorted((span.start, span.end), key=lambda name: -piece.vertex(name)[1])
    long = sewn_length(pattern, Span(top, foot, lineage))
    if long is None:
        return None
    words = _zip_words(pattern, Span(top, foot, lineage))
    at: dict[str, Any] = {"start": top, "end": foot, "along": lineage}
    under = waist.under.get(foot)
    if under is None:
        over_waist = max(piece.vertex(top)[1] - waist.height, 0.0) if not waist.edges else 0.0
        reach = long if piece.region is Region.UPPER and waist.edges else min(over_waist + BELOW_WAIST, long)
        return Fix(words, "open_up", {"closure": "zip", "at": at, "long": whole_millimetres(reach)})
    on = line_under(pattern, under)
    if on is None:
        return None
    more = min(BELOW_WAIST, sewn_length(pattern, on) or 0.0)
    lines = [{"start": on.start, "end": on.end, "along": on.along}]
    params = {"closure": "zip", "at": at, "on": lines, "long": whole_millimetres(long + more)}
    return Fix(f"{words}, on through the waist", "open_up", params)


def _zip_words(pattern: Readable, line: Span) -> str:
    """Return what a zip from the start of a line is called: a longer one where a zip begins there already."""
    place = beginning(pattern, line)
    has = any(o.closure is Closure.ZIP and beginning(pattern, o.span) == place for o in pattern.openings)
    return f"{LONGER if has else 'Open it with a zip'} in the {readable(line.along)}"


def _fixes(pattern: Readable, ring: Ring) -> Iterator[Fix]:
    """Yield an opening in each line that ends on a ring: a slit from a hem, a zip elsewhere."""
    corners, closure = ring.corners, "slit" if ring.key == "hem" else "zip"
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
            long = sewn_length(pattern, span)
            if long is None:
                continue
            start, end = (span.start, span.end) if span.start in corners else (span.end, span.start)
            at: dict[str, Any] = {"start": start, "end": end, "along": span.along}
            words = readable(edge.lineage)
            params = {"closure": closure, "at": at, "long": min(BELOW_WAIST, whole_millimetres(long))}
            yield Fix(f"Open it with a {closure} in the {words}", "open_up", params)


def word(finding: Finding) -> str:
    """Return the finding in words."""
    ring, part = RINGS[finding.where[0]], PARTS.get(finding.side or finding.where[0], "body")
    if finding.aspect == "opened":
        return f"The {ring} opens to let the {part} through"
    if finding.aspect == "short":
        return f"Its opening is too short: the waist is still {cm(-finding.amount)} too small to go over the {part}"
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
