"""A simulated dress form: what marking a drape on it would give, from a shape that is known.

It stands in for the cloth, the pins and the tape: a piece of which the truth is known is 'draped' with so much ease and
slack, marked as a hand marks, walking round it, and each mark is read off its two guides with so much scatter. Demo and
tests use it, so that what truing comes to can be compared with the truth.
"""

import random
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from math import sqrt

from izett.draping.panel import Given, Mark, MarkKind, Panel, SeamEnd, SeamSaid
from izett.draping.ring import APEX
from izett.geometry.point import Point
from izett.pattern.document import Pattern, Seam
from izett.pattern.facts import CENTRE_LINES, Role
from izett.pattern.piece import Edge, Piece


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


def draped(pattern: Pattern, hand: Hand, *, level: str = "bust") -> Given:
    """Return what marking the pieces of a pattern on the form gives.

    Args:
        pattern: the truth.
        hand: how it is marked.
        level: the body level on which the level guide is drawn.
    """
    chance = random.Random(hand.seed)
    heights = {line.level: line.points[0][1] for piece in pattern for line in piece.lines}
    guide = heights.get(level, 0.0)
    panels = tuple(_panel(piece, hand, chance, guide) for piece in pattern)
    levels = {name: height - guide for name, height in {"waist": 0.0, **heights}.items() if name in ("bust", "underbust", "waist", "hip")}
    return Given(panels=panels, seams=tuple(_said(pattern)), levels=levels)


def line_name(edge: Edge) -> str:
    """Return what a line is called on the form: its own name without its part's."""
    return edge.lineage.rsplit(".", 1)[-1] if not edge.is_leg else f"{edge.lineage.rsplit('.', 1)[-1]}"


def _panel(piece: Piece, hand: Hand, chance: random.Random, guide: float) -> Panel:
    xs = [x for x, _ in piece.outline()]
    ys = [y for _, y in piece.outline()]
    wide, tall = max(xs) - min(xs), max(ys) - min(ys)
    # A centre panel hangs from its centre line, a side panel from a balance line midway.
    upright = 0.0 if any(edge.role in CENTRE_LINES for edge in piece.edges) else round((max(xs) + min(xs)) / 2, 1)
    scatter = hand.scatter / sqrt(2)

    def read(spot: Point, *, on_guide: bool = False) -> tuple[float, float]:
        x, y = (spot[0] - upright) * (1 + hand.ease / wide), (spot[1] - guide) * (1 + hand.slack / tall)
        across = x if on_guide else x + chance.gauss(0.0, scatter)
        along = y + chance.gauss(0.0, scatter)
        return (_to(across, hand.tape), _to(along, hand.tape))

    marks = []
    edges = piece.edges
    for before, edge in zip((edges[-1], *edges[:-1]), edges, strict=True):
        on_guide = abs(edge.curve.start[0] - upright) < hand.tape
        at_centre = Role.FOLD in (before.role, edge.role) or {before.role, edge.role} & set(CENTRE_LINES)
        across, along = read(edge.curve.start, on_guide=on_guide)
        names = tuple(dict.fromkeys((line_name(before), line_name(edge))))
        marks.append(Mark(kind=MarkKind.DASH if at_centre else MarkKind.CROSS, across=across, along=along, lines=names))
        for spot in _dots(edge, hand.apart):
            across, along = read(spot, on_guide=False)
            marks.append(Mark(kind=MarkKind.DOT, across=across, along=along, lines=(line_name(edge),)))
    for diamond in piece.diamonds:
        for spot in diamond.outline:
            across, along = read(spot)
            marks.append(Mark(kind=MarkKind.CROSS, across=across, along=along, lines=(diamond.name.rsplit(".", 1)[-1],)))
    if "apex" in piece.marks:
        across, along = read(piece.marks["apex"])
        marks.append(Mark(kind=MarkKind.CROSS, across=across, along=along, name=APEX))
    fold = next((line_name(e) for e in edges if e.lineage == piece.on_fold), "")
    said = {line_name(edge): {"role": edge.role} for edge in edges if not edge.is_leg}
    return Panel.model_validate(
        {
            "name": called(piece),
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


def called(piece: Piece) -> str:
    """Return a piece's name as that of a panel."""
    return "".join(c if c.isalnum() else "_" for c in piece.name.lower())


def _dots(edge: Edge, apart: float) -> Iterator[Point]:
    """Yield the places of dots along a line; a straight line has none but its ends."""
    if edge.is_leg or edge.curve.is_straight:
        return
    count = max(round(edge.curve.length / apart) - 1, 1)
    for i in range(count):
        yield edge.curve.at_distance(edge.curve.length * (i + 1) / (count + 1))


def _to(value: float, tape: float) -> float:
    return round(value / tape) * tape if tape else value


def _said(pattern: Pattern) -> Iterable[SeamSaid]:
    """Yield the seams of one line to one line, as the maker would say them."""
    for seam in pattern.seams:
        ends = [_end(pattern, seam, i) for i in (0, 1)]
        if ends[0] is not None and ends[1] is not None:
            yield SeamSaid(sides=(ends[0], ends[1]), ease=sum(seam.ease) / 2)


def _end(pattern: Pattern, seam: Seam, side: int) -> SeamEnd | None:
    if len(seam.sides[side]) != 1:
        return None
    span = seam.sides[side][0]
    piece = pattern.find(span.start)
    return SeamEnd(panel=called(piece), line=span.along.rsplit(".", 1)[-1]) if piece is not None else None
