"""What can be done with paper: cut a piece in two along a line, lay two together, put a line in place of others.

Parts are moved rigidly, so they keep their lengths; a line that a cut parts keeps its lineage on both sides, and the
two corners of the cut are linked, so that the line can still be walked from end to end.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise
from types import MappingProxyType

import numpy as np
import shapely

from izett.errors import ReferenceLost, StepRefused
from izett.geometry.blend import refitted
from izett.geometry.curve import Curve, joined, straight
from izett.geometry.fit import fair, smoothed
from izett.geometry.motion import Motion
from izett.geometry.outline import contains, region
from izett.geometry.point import Point, add, between, distance, meeting, scale, subtract, turn, unit
from izett.geometry.tolerance import PARALLEL, SAME_POINT
from izett.pattern.facts import Role
from izett.pattern.piece import Edge, Intake, LevelLine, Notch, Piece, Span, dart_angle, legs
from izett.pattern.sewn import resolved, span_length, walk
from izett.pattern.working import Working

#: A grain line is so long as a share of the paper that it lies on.
GRAIN_SHARE = 0.7
#: cm. Over a mouth wider than this a line drawn as one may swing, not run straight from corner to corner.
WIDE_MOUTH = 1.5
#: cm. A part of a line shorter than this is not carried on: a cut along the line's end parts nothing off.
LEAST_PART = 0.05


@dataclass(frozen=True, slots=True)
class Gate:
    """Where a cut meets the outline.

    Attributes:
        arrive, leave: the corners at which the ring comes to the cut, and from which it goes on; one place, or the
            mouth of a dart whose legs the cut follows.
        inwards: corners of the cut on its way inwards: the pivot of such a dart.
    """

    arrive: str
    leave: str
    inwards: tuple[Point, ...] = ()


def gate_of(dart: Intake) -> Gate:
    """Return the gate of a dart: the cut runs along its legs to the pivot."""
    return Gate(*dart.mouth, (dart.pivot,))


def parted_at(edges: Sequence[Edge], edge: Edge, along: float, names: tuple[str, str]) -> list[Edge]:
    """Return a ring with one edge parted `along` cm from its start; the two new corners are named apart."""
    first, second = edge.curve.split(along)
    parts = (replace(edge, curve=first, end=names[0]), replace(edge, curve=second, start=names[1]))
    index = next(i for i, e in enumerate(edges) if e is edge or e == edge)
    return [*edges[:index], *parts, *edges[index + 1 :]]


def between_gates(edges: Sequence[Edge], start: str, end: str) -> list[Edge]:
    """Return the run of a ring from the edge that leaves `start` to the one that arrives at `end`."""
    first = next(i for i, edge in enumerate(edges) if edge.start == start)
    run: list[Edge] = []
    for edge in (*edges[first:], *edges[:first]):
        run.append(edge)
        if edge.end == end:
            return run
    raise ValueError(f"the ring does not come to {end}")


@dataclass(frozen=True, slots=True)
class Label:
    """How one of the two parts of a cut is called: its name, its title, and the name of its new edge."""

    name: str
    title: str
    lineage: str


def cut(
    pattern: Working,
    piece: Piece,
    edges: Sequence[Edge],
    gates: tuple[Gate, Gate],
    lines: tuple[Curve, Curve],
    labels: tuple[Label, Label],
    *,
    role: Role,
) -> Working:
    """Cut a piece in two.

    Args:
        pattern, piece: the piece and the pattern that it belongs to.
        edges: its ring, parted at the gates.
        gates: where the cut begins and ends.
        lines: the cut as each part has it: of the part that follows the first gate from the second gate back to the
            first; of the other from the first to the second.
        labels: of the part that follows the first gate in ring order, and of the other.
        role: of the new edges.

    Returns:
        The pattern with the parts in place of the piece, seams and notches carried over, corners linked.
    """
    one, two = gates
    for dart in piece.darts:
        if any(dart.mouth == (gate.arrive, gate.leave) for gate in gates):
            edges, _ = trued_across(edges, dart.mouth, dart_angle(piece, dart))
    rings = (
        [*between_gates(edges, one.leave, two.arrive), Edge(role, labels[0].lineage, two.arrive, one.leave, lines[0])],
        [*between_gates(edges, two.leave, one.arrive), Edge(role, labels[1].lineage, one.arrive, two.leave, lines[1])],
    )
    outlines = [_flat(ring) for ring in rings]
    parts = [
        _part(piece, ring, label, outline, line.flattened())
        for ring, label, outline, line in zip(rings, labels, outlines, lines, strict=True)
    ]
    links: dict[str, str | None] = {}
    for gate in gates:
        links[gate.arrive], links[gate.leave] = gate.leave, gate.arrive
    after = pattern.with_parts(piece, *parts).with_links(links)
    return with_notches(carried_over(after, piece), piece, piece.notches)


def carried_over(pattern: Working, cut_up: Piece) -> Working:
    """Return the garment with the seams and levels along a piece that was cut written as spans that each lie on one piece."""

    def chain(spans: Iterable[Span]) -> tuple[Span, ...]:
        return tuple(part for span in spans for part in _still(pattern, span))

    lines = dict.fromkeys(edge.lineage for edge in cut_up.edges if not edge.is_leg)
    seams = {seam.name: seam for line in lines for seam in pattern.seams_along(line)}
    for seam in seams.values():
        sides = (chain(seam.sides[0]), chain(seam.sides[1]))
        pattern = pattern if sides == seam.sides else pattern.with_seam(replace(seam, sides=sides))
    for level, spans in pattern.measured_along.items():
        if any(span.along in lines for span in spans) and (new := chain(spans)) != spans:
            pattern = pattern.with_along({level: new})
    return pattern


def _still(pattern: Working, span: Span) -> tuple[Span, ...]:
    try:
        return resolved(pattern, span)
    except ReferenceLost:
        # The checks tell a seam that has lost its end; what is not cut here is not lost here.
        return (span,)


def with_notches(pattern: Working, before: Piece, notches: Sequence[Notch]) -> Working:
    """Return the pattern with notches of a piece that was cut put on its parts, at their places as sewn."""
    found: dict[str, list[Notch]] = {}
    for notch in notches:
        gone = 0.0
        for span in _still(pattern, notch.span):
            try:
                piece = pattern.holding(span.start)
                length = span_length(piece, span)
            except (KeyError, ValueError):
                continue
            if notch.distance <= gone + length:
                found.setdefault(piece.name, []).append(replace(notch, span=span, distance=notch.distance - gone))
                break
            gone += length
    for name, carried in found.items():
        part = pattern.piece(name)
        if part is not before:
            pattern = pattern.with_pieces(replace(part, notches=(*part.notches, *carried)))
    return pattern


def _part(piece: Piece, ring: list[Edge], label: Label, outline: list[Point], across: list[Point]) -> Piece:
    corners = {edge.start for edge in ring}
    paper = region(outline)
    folded = piece.on_fold is not None and any(edge.lineage == piece.on_fold for edge in ring)
    return replace(
        piece,
        name=label.name,
        title=label.title,
        cut=piece.cut if folded or piece.on_fold is None else 2 * piece.cut,
        on_fold=piece.on_fold if folded else None,
        grain=grain_on(paper, piece.grain),
        edges=tuple(ring),
        darts=tuple(dart for dart in piece.darts if dart.mouth[0] in corners and dart.mouth[1] in corners),
        diamonds=tuple(d for d in piece.diamonds if contains(paper, between(d.left, d.right, 0.5))),
        marks=MappingProxyType({k: p for k, p in piece.marks.items() if _within(paper, p)}),
        lines=tuple(part for line in piece.lines for part in _lines_within(line, paper, across)),
        notches=(),
        aliases=MappingProxyType({k: v for k, v in piece.aliases.items() if v in corners}),
        corners=MappingProxyType({k: v for k, v in piece.corners.items() if piece.aliases.get(k, k) in corners}),
    )


def _within(paper: shapely.Polygon, point: Point) -> bool:
    return bool(shapely.dwithin(paper, shapely.points(point), 2 * LEAST_PART))


def _lines_within(line: LevelLine, paper: shapely.Polygon, across: list[Point]) -> list[LevelLine]:
    """Return what of a level line lies on a part: parted where the cut crosses it, and nowhere else."""
    parts: list[list[Point]] = [[line.points[0]]]
    cutting = shapely.linestrings(np.asarray(across))
    for a, b in pairwise(line.points):
        for share in crossings(a, b, across):
            spot = between(a, b, share)
            parts[-1].append(spot)
            parts.append([spot])
        parts[-1].append(b)
        if float(shapely.distance(cutting, shapely.points(b))) < SAME_POINT:
            parts.append([b])
    return [
        part
        for part in (replace(line, points=tuple(points)) for points in parts)
        if len(part.points) > 1 and part.length > LEAST_PART and contains(paper, _middle(part.points))
    ]


def _middle(points: Sequence[Point]) -> Point:
    longest = max(pairwise(points), key=lambda pair: distance(*pair))
    return between(*longest, 0.5)


def crossings(a: Point, b: Point, line: Sequence[Point]) -> list[float]:
    """Return at what shares of the way from `a` to `b` a polyline is crossed, in order."""
    found: list[float] = []
    for start, end in pairwise(line):
        met = meeting(a, subtract(b, a), start, subtract(end, start))
        if met is not None and PARALLEL < met[0] < 1 - PARALLEL and 0 <= met[1] < 1:
            found.append(met[0])
    return sorted(found)


def grain_on(paper: shapely.Polygon, grain: tuple[Point, Point]) -> tuple[Point, Point]:
    """Return a grain line in the same direction that lies well inside a piece of paper; the old one where it still does."""
    if not paper.is_valid:
        # A cut that crosses the outline is refused by the recipe; here it must only not break the search for the grain.
        paper = shapely.buffer(paper, 0)
    if bool(shapely.contains(paper, shapely.linestrings(np.asarray(grain)))):
        return grain
    along = unit(subtract(grain[1], grain[0]))
    inner = shapely.point_on_surface(paper) if not _holds_centre(paper) else shapely.centroid(paper)
    middle = (float(inner.x), float(inner.y))
    far = float(shapely.length(shapely.boundary(paper)))
    line = shapely.linestrings(np.asarray([add(middle, scale(along, -far)), add(middle, scale(along, far))]))
    pieces = shapely.get_parts(shapely.intersection(paper, line))
    longest = max(pieces, key=lambda part: float(part.length))
    (ax, ay), (bx, by) = longest.coords[0], longest.coords[-1]
    share = (1 - GRAIN_SHARE) / 2
    a, b = (float(ax), float(ay)), (float(bx), float(by))
    return between(a, b, share), between(a, b, 1 - share)


def _holds_centre(paper: shapely.Polygon) -> bool:
    return bool(shapely.contains(paper, shapely.centroid(paper)))


def _flat(ring: Iterable[Edge]) -> list[Point]:
    return [point for edge in ring for point in edge.curve.flattened()[:-1]]


def without_dart(
    piece: Piece, dart: Intake, between_mouths: Curve | None, *, swing: bool = False
) -> tuple[Piece, float]:
    """Return the piece without a dart: its mouth bridged, and the line that it opened on drawn as one.

    Args:
        piece, dart: the dart's piece.
        between_mouths: the bridge from its first to its second corner; None where these are one place now.
        swing: whether the line may swing over a wide mouth, not run straight from corner to corner.

    Returns:
        The piece, and how far (cm) the line drawn as one leaves the old.
    """
    ring = [edge for edge in piece.edges if not (edge.is_leg and edge.lineage == dart.name)]
    index = next(i for i, edge in enumerate(ring) if edge.end == dart.mouth[0])
    before = ring[index]
    following = ring[(index + 1) % len(ring)]
    bridge = [between_mouths] if between_mouths is not None else []
    if before.lineage == following.lineage:
        wide = swing and bridge and bridge[0].length > WIDE_MOUTH
        parts = [before.curve, *bridge, following.curve]
        curve, off = fair(parts, bridges=[1]) if wide else smoothed(parts)
        one = replace(before, end=following.end, curve=curve)
        ring = [one if e is before else e for e in ring if e is not following]
        gone = {dart.mouth[0], dart.mouth[1]}
    else:
        curve, off = smoothed([before.curve, *bridge])
        ring = [replace(before, end=dart.mouth[1], curve=curve) if e is before else e for e in ring]
        gone = {dart.mouth[0]}
    darts = tuple(d for d in piece.darts if d is not dart)
    aliases = {key: value for key, value in piece.aliases.items() if value not in gone}
    return replace(piece, edges=tuple(ring), darts=darts, aliases=MappingProxyType(aliases)), off


def shortened(piece: Piece, corner: str, lineage: str, by: float) -> Piece:
    """Return the piece with `by` cm cut off one of its lines from a corner on; the corner keeps its name.

    Corners within the line that are cut off go with it; negative amounts run the line on in its own direction. The line
    on the other side of the corner is left with a gap, to be drawn anew.
    """
    leaving = any(edge.start == corner and edge.lineage == lineage for edge in piece.edges)
    ring = list(piece.edges)
    while True:
        index = next(
            i for i, e in enumerate(ring) if (e.start if leaving else e.end) == corner and e.lineage == lineage
        )
        edge = ring[index]
        following = ring[(index + 1) % len(ring)] if leaving else ring[index - 1]
        if by < edge.curve.length or following.lineage != lineage:
            break
        by -= edge.curve.length
        ring = [
            e if e is not following else replace(e, start=corner) if leaving else replace(e, end=corner)
            for e in ring
            if e is not edge
        ]
    curve = edge.curve if leaving else edge.curve.reversed()
    if by >= 0:
        kept = curve.split(by)[1]
    else:
        kept = joined(
            [*straight(add(curve.start, scale(curve.start_direction, by)), curve.start).cubics(), *curve.cubics()]
        )
        kept = straight(kept.start, curve.end) if curve.is_straight else kept
    ring[index] = replace(edge, curve=kept if leaving else kept.reversed())
    return replace(piece, edges=tuple(ring))


def broken_across(edges: Sequence[Edge], mouth: tuple[str, str], angle: float) -> float:
    """Return by how much (rad) the line that a dart interrupts breaks when the dart, of an angle in radians, is shut."""
    before, after = _beside(edges, mouth)
    shut = Motion.turning(-angle, about=(0.0, 0.0))
    return turn(before.curve.end_direction, shut.direction(after.curve.start_direction))


def _beside(edges: Sequence[Edge], mouth: tuple[str, str]) -> tuple[Edge, Edge]:
    before = next(edge for edge in edges if edge.end == mouth[0] and not edge.is_leg)
    after = next(edge for edge in edges if edge.start == mouth[1] and not edge.is_leg)
    return before, after


def trued_across(edges: Sequence[Edge], mouth: tuple[str, str], angle: float) -> tuple[list[Edge], float]:
    """Return a ring in which the line that a dart interrupts runs straight on across it when the dart is shut.

    Args:
        edges: the ring.
        mouth: the dart's two corners in ring order.
        angle: what closing the dart turns, in radians.

    Returns:
        The ring, and by how much (rad) the line broke there.
    """
    before, after = _beside(edges, mouth)
    broken = broken_across(edges, mouth, angle)
    if before.curve.is_straight or after.curve.is_straight:
        return list(edges), broken
    half = Motion.turning(broken / 2, about=(0.0, 0.0))
    back = half.inverse()
    new = {
        id(before): replace(before, curve=refitted(before.curve, turn_end=half.direction)),
        id(after): replace(after, curve=refitted(after.curve, turn_start=back.direction)),
    }
    return [new.get(id(edge), edge) for edge in edges], broken


def with_leg_shapes(piece: Piece, darts: Sequence[Intake]) -> Piece:
    """Return the piece with darts in place of those of the same names, their legs drawn anew."""
    drawn = {
        (leg.start, leg.end): leg
        for dart in darts
        for leg in legs(dart, piece.vertex(dart.mouth[0]), piece.vertex(dart.mouth[1]))
    }
    by_name = {dart.name: dart for dart in darts}
    return replace(
        piece,
        edges=tuple(drawn.get((edge.start, edge.end), edge) for edge in piece.edges),
        darts=tuple(by_name.get(dart.name, dart) for dart in piece.darts),
    )


def one_span(pattern: Working, side: Sequence[Span]) -> tuple[Piece, Span, list[Edge]]:
    """Return the piece, span and edges in ring order of a seam's side that is one span.

    Raises:
        StepRefused: the side is a chain of several.
    """
    if len(side) != 1:
        raise StepRefused(
            f"That seam runs over several pieces ({len(side)}).",
            fix="Join those first, or choose a seam between two pieces.",
            where=tuple(span.along for span in side),
        )
    piece = pattern.holding(side[0].start)
    edges = [stretch.edge for stretch in walk(piece, side[0])]
    stretches = walk(piece, side[0])
    return piece, side[0], edges if stretches[0].forward else edges[::-1]
