"""A line moved square to itself by amounts given at levels of the body, blended to nothing at the next level."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

from izett.geometry.curve import Curve
from izett.geometry.fit import through
from izett.geometry.motion import Motion
from izett.geometry.outline import gap
from izett.geometry.point import Point, Vector, add, between, dot, right_of, scale, subtract, turn, unit
from izett.pattern.piece import Edge, LevelLine, Piece
from izett.pattern.redraw import redrawn
from izett.styling.bending import smooth_step

#: cm. Marks on a line that is drawn anew lie about so far apart, and are at least so many.
MARKS_APART, LEAST_MARKS = 3.0, 6
#: cm. A level that lies so near to the end of a line lies at it.
AT_END = 1.0
#: cm. A level line ends on a line if it ends within this of it.
ON_LINE = 0.01
#: cm. Two places of a line that go out by amounts so near to each other go out alike.
EVEN = 0.02


@dataclass(frozen=True)
class Amount:
    """How far (cm) a line goes out by height: what is known at some heights, smooth between them.

    At each height it is level, so that a line moved by it leaves its ends in its old directions. Beyond the highest and the
    lowest it stays as it is there.
    """

    known: tuple[tuple[float, float], ...]

    @classmethod
    def blended(cls, at: Mapping[float, float], others: Sequence[float] = ()) -> "Amount":
        """Return an amount that is given at some heights, and nothing at the others."""
        return cls(tuple(sorted((dict.fromkeys(others, 0.0) | dict(at)).items())))

    def __call__(self, height: float) -> float:
        """Return the amount at a height."""
        for (low, a), (high, b) in pairwise(self.known):
            if low <= height <= high:
                return a + (b - a) * smooth_step(height, low, high)
        return self.known[0][1] if height < self.known[0][0] else self.known[-1][1]

    def turns_within(self, low: float, high: float) -> bool:
        """Return whether a height at which it is known lies between two others."""
        return any(low + AT_END < height < high - AT_END for height, _ in self.known)


def let_out(piece: Piece, edges: Sequence[Edge], amount: Amount, *, level: bool = False) -> Piece:
    """Return a piece with some of its edges moved outwards by an amount at each height (cm; −: inwards).

    They move square to themselves, or, where `level` says so, straight across.

    What meets them at their ends is drawn to the new corners; levels that end on them end on them again.
    """
    marks = {edge.start: _moved(edge.curve, amount, level=level) for edge in edges}
    met: dict[str, list[Point]] = {}
    for edge in edges:
        met.setdefault(edge.start, []).append(marks[edge.start][0])
        met.setdefault(edge.end, []).append(marks[edge.start][-1])
    moves = {name: between(spots[0], spots[-1], 0.5) for name, spots in met.items()}
    curves: dict[str, Curve] = {}
    for edge in edges:
        low, high = sorted((edge.curve.start[1], edge.curve.end[1]))
        if edge.curve.is_straight and not amount.turns_within(low, high):
            continue
        spots = [moves[edge.start], *marks[edge.start][1:-1], moves[edge.end]]
        leaving, arriving = (_turned(edge.curve, spots, amount, at_end=at_end) for at_end in (False, True))
        curves[edge.start] = through(spots, leaving=leaving, arriving=arriving)
    new = redrawn(piece, moves=moves)
    ring = tuple(replace(e, curve=curves[e.start]) if e.start in curves and _is_one(e, edges) else e for e in new.edges)
    return replace(new, edges=ring, lines=tuple(_met(line, edges, amount) for line in new.lines))


def _turned(curve: Curve, spots: list[Point], amount: Amount, *, at_end: bool) -> Vector:
    """Return the direction of a moved line at an end: its own, turned as the stretch there has turned."""
    count = len(spots) - 1
    near, far = (count - 1, count) if at_end else (0, 1)
    old = [
        curve.at_distance(curve.length * i / count) if 0 < i < count else (curve.end if i else curve.start)
        for i in (near, far)
    ]
    own = curve.end_direction if at_end else curve.start_direction
    if abs(amount(old[0][1]) - amount(old[1][1])) < EVEN:
        return own
    angle = turn(subtract(old[1], old[0]), subtract(spots[far], spots[near]))
    return Motion.turning(angle, about=(0.0, 0.0)).direction(own)


def _is_one(edge: Edge, edges: Sequence[Edge]) -> bool:
    return any((edge.start, edge.end, edge.lineage) == (one.start, one.end, one.lineage) for one in edges)


def _moved(curve: Curve, amount: Amount, *, level: bool) -> list[Point]:
    count = max(LEAST_MARKS, round(curve.length / MARKS_APART))
    spots = [curve.start, *(curve.at_distance(curve.length * i / count) for i in range(1, count)), curve.end]
    # Square to the line as a whole there: from mark to mark, at its ends as at its last stretch.
    ways = [unit(subtract(spots[min(i + 1, count)], spots[max(i - 1, 0)])) for i in range(count + 1)]
    if level:
        ways = [(0.0, 1.0 if way[1] > 0 else -1.0) for way in ways]
    return [add(spot, _out(way, amount(spot[1]))) for spot, way in zip(spots, ways, strict=True)]


def _out(way: Vector, by: float) -> Vector:
    return scale(right_of(way), by)


def _met(line: LevelLine, edges: Sequence[Edge], amount: Amount) -> LevelLine:
    """Return a level line whose end lay on one of the edges, drawn out to where the edge is now."""
    points = list(line.points)
    for at, beside in ((0, 1), (-1, -2)):
        spot = points[at]
        if any(_lies_on(edge.curve, spot) for edge in edges):
            way = unit(subtract(spot, points[beside]))
            points[at] = add(spot, scale(way, amount(spot[1])))
            # Taken in beyond a place of the line: that place is no more on it.
            while len(points) > 2 and dot(subtract(points[at], points[beside]), way) <= 0:
                points.pop(beside)
    return replace(line, points=tuple(points))


def _lies_on(curve: Curve, spot: Point) -> bool:
    return gap(curve.flattened(), spot) <= ON_LINE
