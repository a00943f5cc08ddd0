"""Slash and spread: the paper is cut along lines from one edge to another, the parts are moved, the edges drawn anew.

Each part moves rigidly: hinged at one end of the slash, parallel, or more at one end than at the other. One part, the
one with the centre, stays. What lies on the paper goes with its part; both edges are drawn as one smooth line again.
"""

import itertools
from collections.abc import Sequence
from dataclasses import dataclass, replace
from math import asin

from izett.errors import StepRefused
from izett.geometry.curve import straight
from izett.geometry.fit import smoothed
from izett.geometry.motion import STILL, Motion
from izett.geometry.point import Point, between, cross, distance, left_of, scale, subtract, unit
from izett.pattern.copies import moved_diamond
from izett.pattern.facts import CENTRES
from izett.pattern.naming import readable
from izett.pattern.paper import crossings
from izett.pattern.piece import Edge, LevelLine, Piece
from izett.styling.words import dart_words
from izett.wording import cm

#: cm. Two slashes, or a slash and a corner, lie at least so far apart on an edge.
NEAREST = 0.3


@dataclass(frozen=True, slots=True)
class Slash:
    """A slash from `start` on one edge to `end` on the opposite one, with what each end opens by (cm).

    `start` is met before the other slashes' starts in ring order, `end` after their ends.
    """

    start: tuple[Edge, float]
    end: tuple[Edge, float]
    open_start: float
    open_end: float

    @property
    def line(self) -> tuple[Point, Point]:
        """The slash as it lies on the paper, from start to end."""
        (a, along), (b, other) = self.start, self.end
        return a.curve.at_distance(along), b.curve.at_distance(other)


@dataclass(frozen=True, slots=True)
class Spread:
    """A piece spread, with how far (cm) its edges drawn anew leave the spread paper at most."""

    piece: Piece
    off: float


def spread(piece: Piece, slashes: Sequence[Slash]) -> Spread:
    """Return a piece spread along slashes that do not cross.

    Args:
        piece: the piece.
        slashes: in ring order of their starts.

    Raises:
        StepRefused: a slash runs through a dart, or too near to a corner.
    """
    pieces = _cut_up(piece, slashes)
    anchor = _anchor(pieces)
    motions = _motions(slashes, anchor)
    ring: list[Edge] = []
    for run in pieces:
        edges = [replace(e, curve=e.curve.mapped(motions[run.part])) for e in run.edges]
        if ring and edges:
            gap = straight(ring[-1].curve.end, edges[0].curve.start)
            if gap.length > 0:
                ring.append(Edge(ring[-1].role, ring[-1].lineage, ring[-1].end, edges[0].start, gap))
        ring += edges
    closing = straight(ring[-1].curve.end, ring[0].curve.start)
    if closing.length > 1e-9:
        ring.append(Edge(ring[-1].role, ring[-1].lineage, ring[-1].end, ring[0].start, closing))
    edges, off = _drawn_anew(ring)
    start = next((i for i, e in enumerate(edges) if e.start == piece.edges[0].start), 0)
    edges = [*edges[start:], *edges[:start]]

    def part_of(point: Point) -> Motion:
        return motions[_part(slashes, point)]

    return Spread(
        replace(
            piece,
            edges=tuple(edges),
            darts=tuple(replace(d, pivot=_motion_of(d.mouth[0], pieces, motions)(d.pivot)) for d in piece.darts),
            diamonds=tuple(moved_diamond(d, part_of(between(d.left, d.right, 0.5))) for d in piece.diamonds),
            marks={key: part_of(point)(point) for key, point in piece.marks.items()},
            lines=tuple(_carried(line, slashes, motions) for line in piece.lines),
        ),
        off,
    )


@dataclass(frozen=True, slots=True)
class _Run:
    part: int
    edges: list[Edge]


def _cut_up(piece: Piece, slashes: Sequence[Slash]) -> list[_Run]:
    """Return the ring as runs, each on one part of the paper; the parts are numbered across the slashes."""
    count = len(slashes)
    cuts: dict[int, list[tuple[float, int, bool]]] = {}
    for i, slash in enumerate(slashes):
        for (edge, along), is_start in ((slash.start, True), (slash.end, False)):
            cuts.setdefault(piece.edges.index(edge), []).append((along, i, is_start))
    runs = [_Run(0, [])]
    for index, edge in enumerate(piece.edges):
        rest, gone = edge, 0.0
        for along, i, is_start in sorted(cuts.get(index, []), key=lambda c: c[0]):
            if min(along - gone, rest.curve.length - (along - gone)) < NEAREST:
                raise StepRefused(
                    f"A slash would meet {readable(edge.lineage)} closer than {cm(NEAREST, 2)} "
                    "to a corner, a dart or another slash.",
                    fix="Use fewer lines, or move them along.",
                    where=(edge.lineage,),
                )
            first, second = rest.curve.split(along - gone)
            name = f"slash.{i}{'s' if is_start else 'e'}"
            runs[-1].edges.append(replace(rest, curve=first, end=name))
            runs.append(_Run(i + 1 if is_start else i, []))
            rest, gone = replace(rest, curve=second, start=name), along
        runs[-1].edges.append(rest)
    # The ring begins within some part: what comes before the first cut belongs to the last part entered.
    if count and runs[0].part != runs[-1].part:
        runs[0] = _Run(runs[-1].part, runs[0].edges)
    for dart in piece.darts:
        parts = {run.part for run in runs for edge in run.edges if {edge.start, edge.end} & set(dart.mouth)}
        if len(parts) > 1:
            raise StepRefused(
                f"A slash would part {dart_words(dart.name)}.",
                fix="Move the dart or the line first.",
                where=(dart.name,),
            )
    return [run for run in runs if run.edges]


def _anchor(runs: Sequence[_Run]) -> int:
    for run in runs:
        if any(edge.role in CENTRES for edge in run.edges):
            return run.part
    parts = sorted({run.part for run in runs})
    return parts[len(parts) // 2]


def _motions(slashes: Sequence[Slash], anchor: int) -> dict[int, Motion]:
    motions = {anchor: STILL}
    for i in range(anchor, len(slashes)):
        motions[i + 1] = opening(slashes[i], onwards=True).then(motions[i])
    for i in range(anchor - 1, -1, -1):
        motions[i] = opening(slashes[i], onwards=False).then(motions[i + 1])
    return motions


def opening(slash: Slash, *, onwards: bool) -> Motion:
    """Return the move of the part beyond a slash (`onwards`: the one after its start in ring order)."""
    start, end = slash.line
    along = unit(subtract(end, start))
    # Counter-clockwise, what follows the start lies to the right of the way from start to end.
    aside = scale(left_of(along), -1.0 if onwards else 1.0)
    slid = Motion.sliding(scale(aside, slash.open_end))
    more = slash.open_start - slash.open_end
    if more == 0.0:
        return slid
    chord = more / (2 * distance(start, end))
    if abs(chord) >= 1:
        raise StepRefused("A slash would open wider than it is long.", fix="Use more lines, or less fullness.")
    angle = 2 * asin(chord)
    return slid.then(Motion.turning(angle if onwards else -angle, about=slid(end)))


def _drawn_anew(ring: list[Edge]) -> tuple[list[Edge], float]:
    """Return the ring with the corners of slashes gone: the edges that met there are drawn as one smooth line."""

    def gone(name: str) -> bool:
        return name.startswith("slash.")

    first = next(i for i, edge in enumerate(ring) if not gone(edge.start))
    ring = [*ring[first:], *ring[:first]]
    edges: list[Edge] = []
    waiting: list[Edge] = []
    off = 0.0
    for edge in ring:
        waiting.append(edge)
        if gone(edge.end):
            continue
        # Wide gaps are swung over; where nothing opened the hinge is only rounded.
        gaps = [i for i, e in enumerate(waiting) if gone(e.start) and gone(e.end) and e.start[:-1] == e.end[:-1]]
        wide = [i for i in gaps if waiting[i].curve.length > NEAREST]
        curve, left = smoothed([e.curve for e in waiting], bridges=wide)
        off = max(off, left)
        edges.append(replace(waiting[0], end=edge.end, curve=curve) if len(waiting) > 1 else edge)
        waiting = []
    return edges, off


def _motion_of(mouth: str, runs: Sequence[_Run], motions: dict[int, Motion]) -> Motion:
    return next(motions[run.part] for run in runs for edge in run.edges if mouth in (edge.start, edge.end))


def _part(slashes: Sequence[Slash], point: Point) -> int:
    """Return the number of the part that a point of the piece lies on."""
    part = 0
    for slash in slashes:
        start, end = slash.line
        if cross(subtract(end, start), subtract(point, start)) < 0:
            part += 1
    return part


def _carried(line: LevelLine, slashes: Sequence[Slash], motions: dict[int, Motion]) -> LevelLine:
    """Return a level line with the paper that it is drawn on spread; over the gaps it runs straight on."""
    points: list[Point] = []
    for a, b in zip(line.points, line.points[1:], strict=False):
        shares = sorted({0.0, 1.0, *(share for slash in slashes for share in crossings(a, b, slash.line))})
        for low, high in itertools.pairwise(shares):
            motion = motions[_part(slashes, between(a, b, (low + high) / 2))]
            for share in (low, high):
                spot = motion(between(a, b, share))
                if not points or distance(points[-1], spot) > 1e-9:
                    points.append(spot)
    return replace(line, points=tuple(points))
