"""The waist of a garment as a ring: where it lies, what opens it, and the first closed ring beyond its opening.

An opening opens it only where it runs through it: across a waist seam it must go on beyond it.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property

from izett.checking.rings import REACHES, shortest
from izett.errors import ReferenceLost
from izett.pattern.document import Opening
from izett.pattern.facts import Region, Role, SeamKind
from izett.pattern.piece import Piece
from izett.pattern.sewn import holding, place_on, resolved, span_length
from izett.pattern.working import Readable
from izett.pattern.worn import across, is_sleeve, on_body, width
from izett.styling.rims import under_waist

#: cm. Further than any garment reaches.
FAR = 1000.0


@dataclass(frozen=True)
class Opened:
    """Where an opening lies: the corners at both ends of its line that it reaches, and the heights between which it opens."""

    corners: frozenset[str]
    low: float
    high: float
    upper: bool


@dataclass(frozen=True)
class Waist:
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
            around = sum(
                edge.curve.length * piece.times
                for piece, start in self.edges
                for edge in piece.edges
                if edge.start == start
            )
            return shortest(self.pattern, self._own_corners(), around)
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
    def _openings(self) -> list[Opened]:
        return [where for opening in self.pattern.openings if (where := self._where(opening)) is not None]

    def _where(self, opening: Opening) -> Opened | None:
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
        return Opened(frozenset(corners), min(heights), max(heights), piece.region is Region.UPPER)

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
