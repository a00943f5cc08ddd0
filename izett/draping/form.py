"""A simulated dress form: what marking a drape on it would give, from a shape that is known.

It stands in for the cloth, the pins and the tape: a piece of which the truth is known is 'draped' with so much ease and
slack, marked as a hand marks, walking round it, and each mark is read off its two guides with so much scatter. Demo and
tests use it, so that what truing comes to can be compared with the truth.
"""

import random
from collections import Counter
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, replace
from math import sqrt
from types import MappingProxyType

from izett.draping.panel import Given, Mark, MarkKind, Panel, SeamEnd, SeamSaid, name_of
from izett.draping.ring import APEX
from izett.geometry.point import Point, Vector, add, left_of, negated, scale
from izett.pattern.document import Pattern, Seam
from izett.pattern.facts import CENTRE_LINES, Role
from izett.pattern.piece import Edge, Piece
from izett.pattern.sewn import seam_lengths


@dataclass(frozen=True)
class Hand:
    """How the form is marked.

    Attributes:
        apart: dots lie about so far apart, cm.
        scatter: how far a mark is off, cm: the root mean square of its distance from the truth.
        ease: how much wider the drape is than the shape, of each panel, cm.
        slack: how much longer, of each panel, cm: cloth that was not drawn tight.
        tape: the tape is read to so much, cm.
        seed: the same seed gives the same marks.
    """

    apart: float = 3.0
    scatter: float = 0.15
    ease: float = 0.0
    slack: float = 0.0
    tape: float = 0.05
    seed: int = 1


def draped(
    pattern: Pattern, hand: Hand, *, level: str = "bust", titles: Mapping[str, str] = MappingProxyType({})
) -> Given:
    """Return what marking the pieces of a pattern on the form gives.

    Args:
        pattern: the truth.
        hand: how it is marked.
        level: the body level on which the level guide is drawn.
        titles: what the panels are called, by the names of the pieces; a piece's own title where none is given.
    """
    pattern = replace(
        pattern, pieces=tuple(replace(piece, title=titles.get(piece.name, piece.title)) for piece in pattern)
    )
    pencil = _Pencil(pattern, hand)
    heights = {line.level: line.points[0][1] for piece in pattern for line in piece.lines}
    guide = heights.get(level, 0.0)
    panels = tuple(_panel(piece, pencil, guide) for piece in pattern)
    levels = {
        name: height - guide
        for name, height in {"waist": 0.0, **heights}.items()
        if name in ("bust", "underbust", "waist", "hip")
    }
    return Given(panels=panels, seams=tuple(_said(pattern)), levels=levels)


def line_names(piece: Piece) -> dict[str, str]:
    """Return what the lines of a piece are called on the form, by their lineage: as the trade does, by their roles."""
    found: dict[str, str] = {}
    for edge in piece.edges:
        word = "princess" if edge.role is Role.PANEL else edge.role.value
        if edge.is_leg:
            word = edge.lineage.rsplit(".", 1)[-1]
        elif word in found.values() and edge.lineage not in found:
            word = f"{word}_{edge.lineage.rsplit('.', 1)[-1]}"
        found.setdefault(edge.lineage, word)
    return found


@dataclass(frozen=True, slots=True)
class _Pinned:
    """A line that is pinned to another while both are marked: which seam, and how the two lie to each other."""

    seam: str
    first: bool
    backwards: bool


def _pinned(pattern: Pattern) -> dict[str, _Pinned]:
    """Return the lines of a pattern that are sewn to one other line, by their lineage."""
    found: dict[str, _Pinned] = {}
    for seam in pattern.seams:
        if all(len(side) == 1 for side in seam.sides):
            for side, first in zip(seam.sides, (True, False), strict=True):
                (span,) = side
                piece = pattern.find(span.start)
                run = [edge for edge in piece.edges if edge.lineage == span.along] if piece is not None else []
                found[span.along] = _Pinned(seam.name, first, not any(edge.start == span.start for edge in run))
    return found


class _Pencil:
    """Marks a pattern: what is off is off by the pencil, and by the tape that reads it.

    Two panels are marked where they are pinned together, through both at once: there the pencil is off by the same on both.
    """

    def __init__(self, pattern: Pattern, hand: Hand) -> None:
        self.hand = hand
        self.pinned = _pinned(pattern)
        self.apart = random.Random(hand.seed)

    def off(self, edge: Edge, share: float, *, alone: bool) -> Vector:
        """Return by how much a mark is off at a share of an edge; `alone` says whether the whole line is this edge."""
        sd = self.hand.scatter / sqrt(2)
        pinned = self.pinned.get(edge.lineage)
        if pinned is None or not (alone or share in (0.0, 1.0)):
            return (self.apart.gauss(0.0, sd), self.apart.gauss(0.0, sd))
        from_start = 1 - share if pinned.backwards else share
        both = random.Random(f"{self.hand.seed} {pinned.seam} {from_start:.3f}")
        along, aside = both.gauss(0.0, sd), both.gauss(0.0, sd)
        way = (
            edge.curve.start_direction if share == 0.0 else edge.curve.split(edge.curve.length * share)[0].end_direction
        )
        # Walked from the start of the seam, the seam line moves to one side: out of the one panel, into the other.
        ahead = negated(way) if pinned.backwards else way
        left = left_of(ahead)
        return add(scale(ahead, along), scale(left, aside))

    def read(self, value: float) -> float:
        """Return a distance as the tape reads it."""
        tape = self.hand.tape
        return round(round(value / tape) * tape, 6) if tape else value


def _panel(piece: Piece, pencil: _Pencil, guide: float) -> Panel:
    hand = pencil.hand
    xs = [x for x, _ in piece.outline()]
    ys = [y for _, y in piece.outline()]
    wide, tall = max(xs) - min(xs), max(ys) - min(ys)
    upright = upright_of(piece)

    def read(spot: Point, off: Vector = (0.0, 0.0), *, on_guide: bool = False) -> tuple[float, float]:
        x, y = (spot[0] - upright) * (1 + hand.ease / wide), (spot[1] - guide) * (1 + hand.slack / tall)
        return (pencil.read(x if on_guide else x + off[0]), pencil.read(y + off[1]))

    marks = []
    edges, names_of = piece.edges, line_names(piece)
    counts = Counter(edge.lineage for edge in edges)
    for before, edge in zip((edges[-1], *edges[:-1]), edges, strict=True):
        on_guide = abs(edge.curve.start[0] - upright) < hand.tape
        at_centre = Role.FOLD in (before.role, edge.role) or bool({before.role, edge.role} & set(CENTRE_LINES))
        ends_here = before.lineage in pencil.pinned and before.lineage != edge.lineage
        off = pencil.off(before, 1.0, alone=False) if ends_here else pencil.off(edge, 0.0, alone=False)
        across, along = read(edge.curve.start, off, on_guide=on_guide)
        names = tuple(dict.fromkeys((names_of[before.lineage], names_of[edge.lineage])))
        marks.append(Mark(kind=MarkKind.DASH if at_centre else MarkKind.CROSS, across=across, along=along, lines=names))
        for share in _shares(edge, hand.apart):
            spot = edge.curve.at_distance(edge.curve.length * share)
            across, along = read(spot, pencil.off(edge, share, alone=counts[edge.lineage] == 1))
            marks.append(Mark(kind=MarkKind.DOT, across=across, along=along, lines=(names_of[edge.lineage],)))
    for diamond in piece.diamonds:
        for spot in diamond.outline:
            across, along = read(spot)
            marks.append(
                Mark(kind=MarkKind.CROSS, across=across, along=along, lines=(diamond.name.rsplit(".", 1)[-1],))
            )
    if "apex" in piece.marks:
        across, along = read(piece.marks["apex"])
        marks.append(Mark(kind=MarkKind.CROSS, across=across, along=along, name=APEX))
    fold = next((names_of[e.lineage] for e in edges if e.lineage == piece.on_fold), "")
    said = {names_of[edge.lineage]: {"role": edge.role} for edge in edges if not edge.is_leg}
    return Panel.model_validate(
        {
            "name": name_of(piece.title),
            "title": piece.title,
            "marks": marks,
            "lines": said,
            "zone": piece.zone,
            "region": piece.region,
            "half": piece.half,
            "layer": piece.layer,
            "cut": piece.cut,
            "fold": fold,
        }
    )


def upright_of(piece: Piece) -> float:
    """Return where a piece's upright guide lies in its frame, cm: a centre panel hangs from its centre line, a side panel from
    a balance line midway."""
    if any(edge.role in CENTRE_LINES for edge in piece.edges):
        return 0.0
    xs = [x for x, _ in piece.outline()]
    return round((max(xs) + min(xs)) / 2, 1)


def _shares(edge: Edge, apart: float) -> Iterator[float]:
    """Yield where dots lie along a line, as shares of it; a straight line has none but its ends."""
    if edge.is_leg or edge.curve.is_straight:
        return
    count = max(round(edge.curve.length / apart) - 1, 1)
    yield from ((i + 1) / (count + 1) for i in range(count))


def _said(pattern: Pattern) -> Iterable[SeamSaid]:
    """Yield the seams of one line to one line, as the maker would say them."""
    for seam in pattern.seams:
        ends = [_end(pattern, seam, i) for i in (0, 1)]
        if ends[0] is not None and ends[1] is not None:
            first, second = seam_lengths(pattern, seam)
            yield SeamSaid(first=ends[0], second=ends[1], ease=round(second - first, 2))


def _end(pattern: Pattern, seam: Seam, side: int) -> SeamEnd | None:
    if len(seam.sides[side]) != 1:
        return None
    span = seam.sides[side][0]
    piece = pattern.find(span.start)
    return SeamEnd(panel=name_of(piece.title), line=line_names(piece)[span.along]) if piece is not None else None
