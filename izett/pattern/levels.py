"""Level lines end on the outline: where a step moved the outline, they run on to it or are cut at it.

So the width at a level is always what the outline has there. A level that runs off the piece at a hem or a neckline no
longer goes around the body, and is no level of the garment any more. Common practice: redraw the guide lines whenever an
outline changes; no single source.
"""

from collections.abc import Sequence
from dataclasses import replace
from itertools import pairwise, permutations

import numpy as np
import shapely

from izett.geometry.motion import Motion
from izett.geometry.outline import region, runs_within
from izett.geometry.point import (
    Point,
    Vector,
    add,
    between,
    distance,
    dot,
    left_of,
    meeting,
    scale,
    subtract,
    turn,
    unit,
)
from izett.pattern.facts import Role
from izett.pattern.piece import Diamond, Edge, Intake, LevelLine, Piece, dart_angle
from izett.pattern.remembered import Remembered
from izett.pattern.working import Working

#: Levels that go around the body or a limb. Other lines are guides: a crease, a pocket's place, the bust circle.
AROUND = frozenset(
    {"bust", "underbust", "waist", "stomach", "high_hip", "hip", "thigh", "knee", "hem", "bicep", "elbow", "wrist"}
)
#: The guide that marks the centre where the piece goes on beyond it.
CENTRE = "centre"
#: Edges that a level around the body may not end on: what lies beyond them is not cloth.
RIMS = (Role.HEM, Role.NECK, Role.ARMHOLE, Role.WAIST)
#: cm. A line that ends so near to the outline ends on it.
ON_OUTLINE = 0.02
#: cm. A level that ended at the end of a hem and lies so near to it still ends there.
AT_HEM_END = 0.1
#: cm. Ends within a piece so near to each other met in a seam, or over the point of a dart.
ONE_PLACE = 5.0
#: cm. So much of a gap may lie between them; over a point they pass each other.
GAP = 0.3
#: Radians. A step that moves a dart's mouth turns its legs by no more.
TURNED = 0.1
#: cm. So wide a dart may have been, whose cloth now lies between the two parts of a level.
OPENED = 8.0
#: A straight level is parted by darts so often at most.
MOST_PARTS = 24
#: Cosine of the angle up to which a dart points along a level.
ALONG = 0.7
#: A share of a stretch by which a line may miss its end, and still meets it.
HAIR = 1e-9
#: cm. A level drawn anew ends where it did, if it ends so near to there.
SAME_END = 1.0
#: cm. A level so little over the underarm is measured at it, and one so little over the end of a hem as well.
BESIDE_SEAM = {Role.ARMHOLE: 4.0, Role.HEM: 1.0}
#: cm. No piece is so wide.
FAR = 2000.0


#: What is read of a garment's pieces, as they lie.
_read: Remembered[tuple[Piece, frozenset[str]]] = Remembered()


def settled(piece: Piece) -> tuple[Piece, frozenset[str]]:
    """Return a piece whose level lines all end on its outline, and the levels that it has no more."""
    found = _read.of(piece, (), lambda: _settled(piece))
    if found[0] is not piece:
        # What was drawn anew is asked again by each check and by the step after.
        _read.of(found[0], (), lambda: (found[0], frozenset()))
    return found


def _settled(piece: Piece) -> tuple[Piece, frozenset[str]]:
    piece = _along_hem(piece)
    lines = [line for line in piece.lines if line.level in AROUND]
    if not lines:
        return piece, frozenset()
    border = _borders(piece)
    off = dict.fromkeys(lines[i].level for i, _ in _off(lines, border))
    if not off:
        return piece, frozenset()
    sewn = _sewn(piece)
    redrawn = {level: _redrawn(piece, level, border, sewn) for level in off}
    kept: list[LevelLine] = []
    for line in piece.lines:
        if line.level not in redrawn:
            kept.append(line)
        elif all(other.level != line.level for other in kept):
            kept += redrawn[line.level]
    return replace(piece, lines=tuple(kept)), frozenset(level for level, parts in redrawn.items() if not parts)


def _along_hem(piece: Piece) -> Piece:
    """Return a piece whose levels that run along its hem reach the hem's ends: a corner that moved takes them along."""
    hems = [edge for edge in piece.edges if edge.role is Role.HEM]
    lines = tuple(
        replace(
            line,
            points=(*line.points[:-1], _hem_end(hems, line.points[-1]) or _clear_of_rims(piece, *line.points[-2:])),
        )
        if line.level in AROUND and any(_beside(edge, line.points[-1]) for edge in hems)
        else line
        for line in piece.lines
    )
    return piece if lines == piece.lines else replace(piece, lines=lines)


def _hem_end(hems: Sequence[Edge], spot: Point) -> Point | None:
    """Return the end of a hem that a place lies at but for a pencil line: a hem that was trued has left it behind."""
    ends = (end for hem in hems for end in (hem.curve.start, hem.curve.end))
    return next((end for end in ends if distance(end, spot) <= AT_HEM_END), None)


def _beside(hem: Edge, spot: Point) -> bool:
    """Return whether a place is so high as the end of a hem that it may lie on it, and is not that end."""
    ends = (hem.curve.start, hem.curve.end)
    return min(abs(end[1] - spot[1]) for end in ends) <= BESIDE_SEAM[Role.HEM] and all(
        distance(end, spot) > ON_OUTLINE for end in ends
    )


def width_at(piece: Piece, level: str) -> float:
    """Return how wide (cm) a piece is at a level as sewn, read from its outline; 0 where it does not have it."""
    return settled(piece)[0].level(level)


def left_behind(piece: Piece) -> tuple[str, ...]:
    """Return the levels whose lines do not end on the outline of a piece."""
    if settled(piece)[0] is piece:
        return ()
    border = _borders(piece)
    levels = dict.fromkeys(line.level for line in piece.lines if line.level in AROUND)
    return tuple(level for level in levels if _loose(piece, parts := _parts(piece, level), _off(parts, border)))


def settled_since(before: Working, after: Working) -> Working:
    """Return the garment with the level lines of the pieces that changed ended on their outlines.

    A level that one of them has no more does not go around the body any more: no piece has it.
    """
    gone: set[str] = set()
    for piece in after.since(before)[1]:
        anew, lost = settled(piece)
        gone |= lost
        if anew is not piece:
            after = after.with_pieces(anew)
    for level in sorted(gone):
        after = after.with_pieces(*(without_level(piece, level) for piece in after.with_level(level)))
    return after


def without_level(piece: Piece, level: str) -> Piece:
    """Return a piece without a level."""
    return replace(piece, lines=tuple(line for line in piece.lines if line.level != level))


def _parts(piece: Piece, level: str) -> list[LevelLine]:
    return [line for line in piece.lines if line.level == level]


def _off(parts: Sequence[LevelLine], border: shapely.Geometry) -> list[tuple[int, int]]:
    """Return the ends that lie off the outline, as the number of the part and of the point, 0 or −1."""
    ends = [(i, at) for i in range(len(parts)) for at in (0, -1)]
    spots = shapely.points(np.asarray([parts[i].points[at] for i, at in ends]))
    apart = shapely.distance(border, spots) > ON_OUTLINE
    return [end for end, is_off in zip(ends, apart, strict=True) if is_off]


def _loose(piece: Piece, parts: Sequence[LevelLine], off: Sequence[tuple[int, int]]) -> list[tuple[int, int]]:
    """Return the ends off the outline that do not lie close to another part's: such two are one place, as sewn."""
    ends = [(i, at) for i in range(len(parts)) for at in (0, -1)]
    return [
        end
        for end in off
        if not any(
            end[0] != other[0] and _one_place(piece, parts[end[0]], end[1], parts[other[0]].points[other[1]])
            for other in ends
        )
    ]


def _met(piece: Piece, parts: list[LevelLine], border: shapely.Geometry) -> list[LevelLine]:
    """Return parts with those made one that meet within the piece: at a fold that was opened, at a seam that was joined, or
    over the cloth that a dart has left where it is not sewn any more."""
    for one, other in permutations(parts, 2):
        spot, onwards = one.points[-1], other.points[0]
        apart = distance(spot, onwards)
        inside = shapely.distance(border, shapely.points([spot, onwards])) > ON_OUTLINE
        opened = apart <= OPENED and _gap(one, -1, onwards) > GAP and not _turns_about_a_point(piece, spot, onwards)
        if (apart <= ON_OUTLINE or opened) and inside.all():
            rest = [part for part in parts if part is not one and part is not other]
            return _met(piece, [replace(one, points=_run_together(one.points, other.points)), *rest], border)
    return parts


def _run_together(one: Sequence[Point], other: Sequence[Point]) -> tuple[Point, ...]:
    """Return the places of two parts as those of one, each place once: what lies in the bust point has no length."""
    places = list(one)
    places += [spot for spot in other if distance(spot, places[-1]) > ON_OUTLINE]
    return tuple(places)


def _one_place(piece: Piece, line: LevelLine, at: int, there: Point) -> bool:
    """Return whether the end of a part and another's are one place: they pass each other, or turn about a dart's point."""
    end = line.points[at]
    return distance(end, there) <= ONE_PLACE and (
        _gap(line, at, there) <= GAP or _turns_about_a_point(piece, end, there)
    )


def _gap(line: LevelLine, at: int, onwards: Point) -> float:
    """Return how far ahead of the end of a line a place lies, along it, cm: negative where the two pass each other."""
    end, before = (line.points[0], line.points[1]) if at == 0 else (line.points[-1], line.points[-2])
    return dot(subtract(onwards, end), unit(subtract(end, before)))


def _turns_about_a_point(piece: Piece, a: Point, b: Point) -> bool:
    """Return whether two places are one turned about the point of a dart, by no more than the dart takes in."""
    return any(
        abs(distance(a, dart.pivot) - distance(b, dart.pivot)) <= ON_OUTLINE
        and abs(turn(subtract(a, dart.pivot), subtract(b, dart.pivot))) <= abs(dart_angle(piece, dart)) + TURNED
        for dart in piece.darts
        if a != dart.pivot
    )


def _drawn(piece: Piece) -> list[list[Point]]:
    """Return the outline of a piece, and of the darts within it."""
    outline = piece.outline()
    # Beyond a marked centre lies a button stand, which is not around the body.
    centres = [list(line.points) for line in piece.lines if line.level == CENTRE]
    return [[*outline, outline[0]], *centres, *([*diamond.outline, diamond.top] for diamond in piece.diamonds)]


def _borders(piece: Piece) -> shapely.Geometry:
    """Return all that a level line may end on: the outline, the darts' legs as far as their pivots, the diamonds."""
    legs = [[piece.vertex(dart.mouth[0]), dart.pivot, piece.vertex(dart.mouth[1])] for dart in piece.darts]
    return _as_lines([*_drawn(piece), *legs])


def _as_lines(lines: Sequence[Sequence[Point]]) -> shapely.Geometry:
    return shapely.multilinestrings([shapely.linestrings(np.asarray(line)) for line in lines])


def _sewn(piece: Piece) -> shapely.Polygon:
    """Return the cloth of a piece as sewn: without what its darts take in."""
    paper = region(piece.outline())
    if not paper.is_valid:
        paper = shapely.buffer(paper, 0)
    for diamond in piece.diamonds:
        paper = paper.difference(region(diamond.outline))
    return paper


def _redrawn(piece: Piece, level: str, border: shapely.Geometry, sewn: shapely.Polygon) -> list[LevelLine]:
    """Return the parts of a level on a piece, each run on to the outline or cut at it; none where it runs off the piece."""
    drawn = _met(piece, _parts(piece, level), border)
    off = _off(drawn, border)
    loose = _loose(piece, drawn, off)
    if off and len(drawn) > 1 and (anew := _walked_anew(piece, drawn, off, loose)):
        runs_off = any(_runs_off(piece, end) for end in (anew[0][0], anew[-1][1]))
        return [] if runs_off else [LevelLine(level, part) for part in anew]
    drawn_lines = _as_lines(_drawn(piece))
    parts: list[list[Point] | None] = [list(line.points) for line in drawn]
    for i, at in loose:
        part = parts[i]
        if part is None:
            continue
        neighbour = part[1] if at == 0 else part[-2]
        spot = _run_on(part[at], neighbour, drawn_lines) if _within(sewn, part[at]) else _cut_back(part, at, sewn)
        if spot is None:
            # Nothing of this part lies on the cloth any more.
            parts[i] = None
            continue
        spot = _clear_of_rims(piece, neighbour, spot)
        if _runs_off(piece, spot):
            return []
        part[at] = spot
    run_on = {i for i, _ in loose}
    lines = {i: replace(drawn[i], points=tuple(part)) for i, part in enumerate(parts) if part is not None}
    kept: list[int] = []
    for i in sorted(lines, key=lambda i: i in run_on):
        if i not in run_on or not any(_lies_over(lines[i], lines[other]) for other in kept):
            kept.append(i)
    return [lines[i] for i in sorted(kept)]


def _lies_over(line: LevelLine, other: LevelLine) -> bool:
    """Return whether a part that was run on runs along another that is there: the level is not there twice."""
    way = unit(subtract(line.points[-1], line.points[0]))
    here, there = (sorted(dot(spot, way) for spot in (part.points[0], part.points[-1])) for part in (line, other))
    shared = min(here[1], there[1]) - max(here[0], there[0])
    return shared > (here[1] - here[0]) / 2


def _walked_anew(
    piece: Piece, drawn: Sequence[LevelLine], off: Sequence[tuple[int, int]], loose: Sequence[tuple[int, int]]
) -> list[tuple[Point, Point]]:
    """Return a level in several parts drawn anew from an end that still lies on the outline to where the other one was.

    Nothing is returned where neither end does, or the straight line ends elsewhere: its parts have turned.
    """
    last = len(drawn) - 1
    for (i, at), (j, other) in (((0, 0), (last, -1)), ((last, -1), (0, 0))):
        line = drawn[i].points
        start, towards = line[at], line[1] if at == 0 else line[-2]
        if (i, at) in off:
            continue
        parts = straight_across(piece, start, subtract(towards, start))
        if parts and ((j, other) in loose or distance(parts[-1][1], drawn[j].points[other]) <= SAME_END):
            # In the order in which they were: from the first part's end to the last one's.
            return parts if at == 0 else [(b, a) for a, b in reversed(parts)]
    return []


def straight_across(piece: Piece, start: Point, way: Vector) -> list[tuple[Point, Point]]:
    """Return the straight line across a piece as sewn, from a place on its outline, in parts: darts on the way are shut.

    Where it meets the armhole or the hem just beside a seam, its last part goes to that seam. Nothing is returned where it
    meets no outline.
    """
    parts: list[tuple[Point, Point]] = []
    spot, way = start, unit(way)
    rings = _stretches(piece, way)
    for _ in range(MOST_PARTS):
        ahead = [
            (gone, dart, far)
            for a, b, dart, far in rings
            if (met := meeting(spot, way, a, subtract(b, a))) is not None
            and (gone := met[0]) > ON_OUTLINE
            and -HAIR <= met[1] <= 1 + HAIR
        ]
        if not ahead:
            return []
        gone, dart, far = min(ahead, key=lambda found: found[0])
        end = add(spot, scale(way, gone))
        across = isinstance(dart, Diamond) and bool(parts) and parts[-1][1] == spot
        if not across:
            parts.append((spot, end))
        if dart is None:
            return [*parts[:-1], (parts[-1][0], _clear_of_rims(piece, *parts[-1]))]
        if isinstance(dart, Diamond):
            # What lies between its two sides is taken in: the next part begins beyond it.
            spot = end
            continue
        opens = Motion.turning(far, about=dart.pivot)
        spot = opens(end)
        if _points_along(piece, dart, way):
            way = opens.direction(way)
    return []


def _stretches(piece: Piece, way: Vector) -> list[tuple[Point, Point, Intake | Diamond | None, float]]:
    """Return all that a level may meet, as straight stretches: of the outline, of a dart's legs with the turn to the other
    leg, and of diamonds."""
    found: list[tuple[Point, Point, Intake | Diamond | None, float]] = []
    for edge in piece.edges:
        if not edge.is_leg:
            found += [(a, b, None, 0.0) for a, b in pairwise(edge.curve.flattened())]
    for dart in piece.darts:
        angle = dart_angle(piece, dart)
        a, b = (piece.vertex(name) for name in dart.mouth)
        # A dart that points along the level is met as far as its pivot: the level lies over or under it. One that stands
        # across it takes in nothing beyond its drawn tip.
        top = dart.pivot if _points_along(piece, dart, way) else piece.vertex(dart.tip)
        found += [(a, top, dart, angle), (b, top, dart, -angle)]
    for diamond in piece.diamonds:
        found += [(a, b, diamond, 0.0) for a, b in pairwise((*diamond.outline, diamond.top))]
    return found


def _points_along(piece: Piece, dart: Intake, way: Vector) -> bool:
    """Return whether a dart points along a level. Such a one turns the level; across one that stands on it, it is drawn on
    level, as on paper."""
    a, b = (piece.vertex(name) for name in dart.mouth)
    return abs(dot(unit(subtract(between(a, b, 0.5), dart.pivot)), way)) > ALONG


def _within(sewn: shapely.Polygon, spot: Point) -> bool:
    return bool(shapely.contains_xy(sewn, *spot))


def _run_on(spot: Point, before: Point, border: shapely.Geometry) -> Point | None:
    """Return where a line that ends within the cloth meets its border, run on straight."""
    far = add(spot, scale(unit(subtract(spot, before)), FAR))
    met = shapely.get_coordinates(shapely.intersection(border, shapely.linestrings(np.asarray([spot, far]))))
    return min(((float(x), float(y)) for x, y in met), key=lambda other: distance(spot, other), default=None)


def _cut_back(part: Sequence[Point], at: int, sewn: shapely.Polygon) -> Point | None:
    """Return where a line that runs out of the cloth leaves it; None where none of its last stretch lies on it."""
    within = runs_within(sewn, [part[0], part[1]] if at == 0 else [part[-2], part[-1]])
    spots = [spot for run in within for spot in (run[0], run[-1])]
    return min(spots, key=lambda spot: distance(spot, part[at]), default=None)


def _clear_of_rims(piece: Piece, before: Point, spot: Point) -> Point:
    """Return where a level ends that would meet the armhole or the hem just beside a seam: at that seam.

    At the underarm the ring around the body is whole; a level along a hem goes around with it. How far off the seam lies is
    measured square to the level: darts have turned it on the paper.
    """
    square = left_of(unit(subtract(spot, before)))
    for edge in piece.edges:
        if edge.role in BESIDE_SEAM and _near(edge, spot):
            ends = (edge.curve.start, edge.curve.end)
            seam = min(ends, key=lambda end: end[1]) if edge.role is Role.ARMHOLE else min(
                ends, key=lambda end: distance(end, spot)
            )  # fmt: skip
            return seam if abs(dot(subtract(seam, spot), square)) <= BESIDE_SEAM[edge.role] else spot
    return spot


def _runs_off(piece: Piece, spot: Point) -> bool:
    """Return whether a level ends on a rim of the piece, and not at one of the rim's ends, where a seam is."""
    return any(
        edge.role in RIMS
        and _near(edge, spot)
        and min(distance(edge.curve.start, spot), distance(edge.curve.end, spot)) > ON_OUTLINE
        for edge in piece.edges
    )


def _near(edge: Edge, spot: Point) -> bool:
    line = shapely.linestrings(np.asarray(edge.curve.flattened()))
    return bool(shapely.dwithin(line, shapely.points(spot), ON_OUTLINE))
