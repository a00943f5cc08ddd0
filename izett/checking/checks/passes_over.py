"""Closed rings pass what must go through on the body's way in: head, hand, bust or hips; else an opening is needed.

A garment that hangs on the shoulders is pulled on over them, arms up: each closed ring below passes the bust. What has no
shoulders, or is open from its upper edge down, is stepped into: each closed ring passes the hips. A skirt may go either
way, trousers go over the hips. An opening opens a ring only where it runs through it: across a waist seam it must go on
beyond it, and the first closed ring beyond its end must pass as well. A neck with its stretch passes the head, a sleeve's
hem the hand. Common practice, no single source.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any

from izett.checking.check import Check, CheckParams, Finding, Fix, Garment, Verdict, Worse, tolerance
from izett.errors import ReferenceLost
from izett.pattern.document import Opening
from izett.pattern.facts import Half, Region, Role, SeamKind
from izett.pattern.naming import readable
from izett.pattern.piece import Piece, Span
from izett.pattern.sewn import holding, place_on, resolved, span_length
from izett.pattern.working import Readable
from izett.pattern.worn import across, halves_of, is_sleeve, on_body, place_width, width
from izett.styling.rims import line_under, under_waist
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
PASSES = {"neck": "head_girth", "hand": "hand_girth"}
#: The two ways in, with the measure that passes each closed ring.
SHOULDERS, HIPS = "bust", "hips"
WAYS = {SHOULDERS: "bust_girth", HIPS: "hip_girth"}
#: cm. A zip that is offered goes so far below the waist, where its line does.
BELOW_WAIST = 20.0
#: The two edges of an opening stand apart by at most so many times its length: it opens to a right angle.
GAPES = 1.4
#: cm. Further than any garment reaches.
FAR = 1000.0
#: cm. An opening that ends so near to a place reaches it.
REACHES = 0.5
WORDS = {"neck": "head", "hand": "hand", SHOULDERS: "bust", HIPS: "hips"}


def find(garment: Garment, params: Params) -> Iterator[Finding]:
    """Yield each closed ring with how much larger it is than the part that must pass, unless it has an opening."""
    pattern = garment.pattern
    yield from _edges(garment, params)
    waist = _Waist(pattern)
    if not waist.around:
        return
    ways = [way for way in _ways(pattern, waist) if WAYS[way] in garment.body]
    if not ways:
        yield Finding(Verdict.NOT_APPLICABLE, ("waist",), 0.0, params.spare)
        return
    stretch = 1 + pattern.intent.stretch / 100
    found = [_on_way(way, waist, stretch, garment.body[WAYS[way]], params) for way in ways]
    # The first way is the usual one: another is told only where it lets the body in.
    best = next((finding for finding in found if finding.verdict is Verdict.PASSES), found[0])
    if best.verdict is not Verdict.PASSES:
        best = replace(best, fixes=tuple(_waist_fixes(pattern, waist)))
    yield best


def _on_way(way: str, waist: "_Waist", stretch: float, girth: float, params: Params) -> Finding:
    """Return the finding about the closed rings on one way in: the tightest of them."""
    if waist.opened_to is None:
        spare = waist.around * stretch - girth
        fine = spare >= params.spare
        verdict = Verdict.PASSES if fine else Verdict.WARNS
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


def _ways(pattern: Readable, waist: "_Waist") -> tuple[str, ...]:
    """Return the ways in that a garment has."""
    regions = {piece.region for piece in waist.pieces}
    if Region.LEGS in regions:
        return (HIPS,)
    if Region.UPPER not in regions:
        # With an opening a skirt is meant to be stepped into.
        return (HIPS, SHOULDERS) if waist.opened_to is None else (HIPS,)
    hangs = bool(pattern.seams_of(SeamKind.SHOULDER))
    # Open from its upper edge down through the waist it can be stepped into.
    return (SHOULDERS, HIPS) if not hangs or waist.opened_from_top else (SHOULDERS,)


def _edges(garment: Garment, params: Params) -> Iterator[Finding]:
    """Yield what passes the neck and the sleeves' hems: each is a ring by itself."""
    pattern = garment.pattern
    for ring in (_banded(pattern, ring) for ring in _rings(pattern)):
        girth = garment.body.get(PASSES[ring.key])
        if girth is None or not ring.around:
            yield Finding(Verdict.NOT_APPLICABLE, (ring.key,), 0.0, params.spare, half=ring.half)
            continue
        # Both sides of an opening that begins on the ring lengthen what is passed.
        opened = sum(opening.length * 2 for opening in pattern.openings if _begins_on(pattern, opening, ring.corners))
        spare = ring.around * (1 + pattern.intent.stretch / 100) + opened - girth
        fine = spare >= params.spare
        yield Finding(
            Verdict.PASSES if fine else Verdict.WARNS,
            (ring.key,),
            spare,
            params.spare,
            aspect="opened" if opened and fine else "",
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
    """Yield the neck, and a sleeve's hem on each half where the sleeves differ."""
    yield from _ring("neck", Role.NECK, [p for p in pattern.with_role(Role.NECK) if on_body(p)])
    sleeves = [piece for piece in pattern.with_role(Role.HEM) if is_sleeve(piece) and on_body(piece)]
    for half in halves_of(sleeves):
        own = [piece for piece in sleeves if piece.half in (Half.BOTH, half)]
        for ring in _ring("hand", Role.HEM, own):
            yield replace(ring, half=half, around=place_width(pattern, "wrist", half))


def _ring(key: str, role: Role, pieces: Sequence[Piece]) -> Iterator[Ring]:
    edges = [(piece, edge) for piece in pieces for edge in piece.edges if edge.role is role]
    if edges:
        corners = frozenset(name for _, edge in edges for name in (edge.start, edge.end))
        yield Ring(key, Half.BOTH, sum(edge.curve.length * piece.times for piece, edge in edges), corners)


def _banded(pattern: Readable, ring: Ring) -> Ring:
    """Return a ring as long as the shortest band on it, where one is sewn on that is shorter than its edge."""
    lengths = [ring.around]
    for seam in pattern.seams_of(SeamKind.ADDED):
        edges, bands = seam.sides
        if not any({span.start, span.end} & ring.corners for span in edges):
            continue
        try:
            bound = [(holding(pattern, span.start), span) for span in bands]
        except ReferenceLost:
            continue
        if all(on_body(piece) for piece, _ in bound):
            each = sum(span_length(piece, span) * (2 if piece.on_fold else 1) for piece, span in bound)
            lengths.append(each)
    return replace(ring, around=min(lengths))


def _begins_on(pattern: Readable, opening: Opening, corners: frozenset[str]) -> bool:
    """Return whether an opening begins on a ring, or runs the whole length of its line to it."""
    return opening.span.start in corners or (opening.span.end in corners and _whole(pattern, opening))


def _whole(pattern: Readable, opening: Opening) -> bool:
    long = _sewn(pattern, opening.span)
    return long is not None and opening.length >= long - REACHES


def _sewn(pattern: Readable, line: Span) -> float | None:
    """Return how long a line is as sewn, over all its parts; None where it no longer runs from end to end."""
    try:
        return sum(span_length(holding(pattern, span.start), span) for span in resolved(pattern, line))
    except ReferenceLost:
        return None


@dataclass(frozen=True)
class _Opened:
    """Where an opening lies: the corners at both ends of its line that it reaches, and the heights between which it opens."""

    corners: frozenset[str]
    low: float
    high: float
    upper: bool


@dataclass(frozen=True)
class _Waist:
    """The waist of a garment as a ring, with what opens it."""

    pattern: Readable

    @cached_property
    def pieces(self) -> tuple[Piece, ...]:
        """The pieces that go around the body."""
        return tuple(
            piece
            for piece in self.pattern.pieces
            if on_body(piece) and not is_sleeve(piece) and piece.region is not Region.NONE
        )

    @cached_property
    def edges(self) -> list[tuple[Piece, str]]:
        """Its edges: where two blocks meet at the waist, the upper one's, which counts once."""
        lower = (Region.SKIRT, Region.LEGS) if self.sewn else ()
        return [
            (piece, edge.start)
            for piece in self.pieces
            if piece.region not in lower
            for edge in piece.edges
            if edge.role is Role.WAIST
        ]

    @cached_property
    def around(self) -> float:
        """How long it is all around, cm; 0 where the garment has no waist."""
        if self.edges:
            return sum(
                edge.curve.length * piece.times
                for piece, start in self.edges
                for edge in piece.edges
                if edge.start == start
            )
        return width(self.pattern, "waist")

    @cached_property
    def height(self) -> float:
        """How high it lies, cm, on the pieces above it."""
        if self.edges:
            return max(piece.vertex(start)[1] for piece, start in self.edges)
        return next((x.points[0][1] for p in self.pieces for x in p.lines if x.level == "waist"), 0.0)

    @cached_property
    def sewn(self) -> bool:
        """Whether two blocks meet at it."""
        return bool(self.pattern.seams_of(SeamKind.WAIST))

    @cached_property
    def _openings(self) -> list[_Opened]:
        return [where for opening in self.pattern.openings if (where := self._where(opening)) is not None]

    def _where(self, opening: Opening) -> _Opened | None:
        try:
            chain = resolved(self.pattern, opening.span)
            heights, gone, piece = [], 0.0, None
            for span in chain:
                piece = holding(self.pattern, span.start)
                long = span_length(piece, span)
                reach = min(long, opening.length - gone)
                if reach <= 0:
                    break
                heights.append(piece.vertex(span.start)[1])
                stretch, along = place_on(piece, span, reach)
                heights.append(stretch.open_curve.at_distance(along)[1])
                gone += long
        except ReferenceLost:
            return None
        if piece is None or not on_body(piece) or is_sleeve(piece):
            return None
        corners = {opening.span.start} | ({opening.span.end} if opening.length >= gone - REACHES else set())
        return _Opened(frozenset(corners), min(heights), max(heights), piece.region is Region.UPPER)

    @cached_property
    def opened_to(self) -> float | None:
        """How far down (cm) the opening that runs through it goes; None where it is closed."""
        found = [low for low, _ in self._through()]
        return min(found, default=None)

    def _through(self) -> Iterator[tuple[float, float]]:
        """Yield what opens it, from how low to how high."""
        corners = self.under
        if self.sewn:
            uppers = [o for o in self._openings if o.upper and o.corners & corners.keys()]
            lowers = [o for o in self._openings if not o.upper and o.corners & set(corners.values())]
            for above in uppers:
                for below in lowers:
                    if any(corners.get(name) in below.corners for name in above.corners):
                        yield below.low, above.high
            return
        for opening in self._openings:
            if (self.edges and opening.corners & self._own_corners()) or (
                not self.edges and opening.low < self.height - REACHES and opening.high > self.height + REACHES
            ):
                yield opening.low, opening.high

    def _own_corners(self) -> set[str]:
        return {name for p, start in self.edges for e in p.edges if e.start == start for name in (e.start, e.end)}

    @cached_property
    def reach(self) -> float:
        """How far (cm) the opening through it lets it gape: to its nearer end; no limit where it runs out at both edges."""
        return max((self._gape(low, high) for low, high in self._through()), default=0.0)

    def _gape(self, low: float, high: float) -> float:
        ys = [y for piece in self.pieces for _, y in piece.outline()]
        ends = []
        if min(ys) + REACHES < low < self.height - REACHES:
            ends.append(self.height - low)
        if high > self.height + REACHES and min((abs(high - top) for top in self._tops), default=FAR) > REACHES:
            ends.append(high - self.height)
        return min(ends, default=FAR)

    @cached_property
    def _tops(self) -> set[float]:
        """The heights at which its upper edge lies."""
        return {
            piece.vertex(name)[1]
            for piece in self.pieces
            if piece.region is Region.UPPER
            for e in piece.edges
            if e.role is Role.NECK
            for name in (e.start, e.end)
        }

    @cached_property
    def under(self) -> dict[str, str]:
        """The corners of the upper pieces at a waist seam, with what lies under each."""
        return under_waist(self.pieces)

    @cached_property
    def beyond(self) -> float:
        """How wide the first closed ring under its opening is, cm; 0 where it is open to the hem, or the opening ends above."""
        low = self.opened_to
        if low is None:
            return 0.0
        below = [p for p in self.pieces if p.region is not Region.UPPER] or list(self.pieces)
        hem = min(y for piece in below for _, y in piece.outline())
        if low <= hem + REACHES or low >= self.height:
            return 0.0
        return sum(across(piece, low) * piece.times for piece in below)

    @cached_property
    def opened_from_top(self) -> bool:
        """Whether what opens it runs on up to a neckline or another upper edge."""
        return any(
            min((abs(high - top) for top in self._tops), default=REACHES) < REACHES for _, high in self._through()
        )


def _waist_fixes(pattern: Readable, waist: _Waist) -> Iterator[Fix]:
    """Yield an opening in each line that runs through the waist, or begins on it: so far below it as is usual."""
    offered: set[str] = set()
    for piece in waist.pieces:
        above = piece.region is Region.UPPER
        if waist.sewn and not above:
            continue
        for lineage in dict.fromkeys(
            e.lineage
            for e in piece.edges
            if e.role in (Role.CENTRE_BACK, Role.SIDE, Role.CENTRE_FRONT) and e.lineage != piece.on_fold
        ):
            # Both sides of a seam are one place to open.
            seams = {seam.name for seam in pattern.seams_along(lineage)}
            fix = None if seams & offered else _opening_down(pattern, waist, piece, lineage)
            if fix is not None:
                offered |= seams
                yield fix


def _opening_down(pattern: Readable, waist: _Waist, piece: Piece, lineage: str) -> Fix | None:
    span = run_of(pattern, piece, lineage)
    if span is None or not (piece.holds(span.start) and piece.holds(span.end)):
        return None
    top, foot = sorted((span.start, span.end), key=lambda name: -piece.vertex(name)[1])
    long = _sewn(pattern, Span(top, foot, lineage))
    if long is None:
        return None
    words = f"Open it with a zip in the {readable(lineage)}"
    at: dict[str, Any] = {"start": top, "end": foot, "along": lineage}
    under = waist.under.get(foot)
    if under is None:
        over_waist = max(piece.vertex(top)[1] - waist.height, 0.0) if not waist.edges else 0.0
        reach = long if piece.region is Region.UPPER and waist.edges else min(over_waist + BELOW_WAIST, long)
        return Fix(words, "open_up", {"closure": "zip", "at": at, "long": whole_millimetres(reach)})
    on = line_under(pattern, under)
    if on is None:
        return None
    more = min(BELOW_WAIST, _sewn(pattern, on) or 0.0)
    lines = [{"start": on.start, "end": on.end, "along": on.along}]
    params = {"closure": "zip", "at": at, "on": lines, "long": whole_millimetres(long + more)}
    return Fix(f"{words}, on through the waist", "open_up", params)


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
            params = {"closure": "zip", "at": at, "long": min(BELOW_WAIST, whole_millimetres(long))}
            yield Fix(f"Open it with a zip in the {words}", "open_up", params)


def word(finding: Finding) -> str:
    """Return the finding in words."""
    ring = {"neck": "neck opening", "hand": "sleeve's hem", "waist": "waist"}[finding.where[0]]
    part = WORDS[finding.side or finding.where[0]] if finding.where[0] != "waist" or finding.side else "body"
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
