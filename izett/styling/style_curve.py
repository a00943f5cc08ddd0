"""How a style line is drawn on the two parts that it makes: smooth on both, as wide together, and as long.

Where a line takes up darts its two parts have corners: the points of the darts, and the sides of a dart within the
piece. Each part is drawn over them as a hip curve is laid, with one bend and no nose. At the point of a dart both
parts have the same place, so what one loses by rounding the other is given: the width there stays. How far the line
passes from that place is found so that the fuller part is as long as the other but for what is eased in over the
bust. Common practice (walk the seam, true it at the bust), no single source.
"""

import itertools
from collections.abc import Callable, Sequence
from dataclasses import dataclass

from izett.geometry.corners import over_corners, passes_at
from izett.geometry.curve import Curve, straight
from izett.geometry.point import Point, Vector, add, distance, dot, left_of, norm, scale, subtract, turn, unit
from izett.geometry.tolerance import PARALLEL, SAME_POINT
from izett.pattern.piece import bowed

#: cm. How far before the point of a dart the sharper line begins to round: a bust is about twice as round.
SHARP_REACH = 3.0
#: cm. The flatter line, and both at a dart's sides, round over more.
FLAT_REACH = 6.0
#: cm. Where a dart within the piece ends the two part by a few degrees only: that is rounded short, so that the line
#: goes on from there in its own direction.
END_REACH = 2.0
#: cm. What the fuller part may be longer, to be eased in over the bust, or by rounding shorter; beyond that the line is
#: set aside until it is longer by so much. The check allows 0.6.
MOST_EASED, MOST_SHORT, EASED = 0.45, 0.1, 0.2
#: cm. A line passes no further than this from the point of a dart that it takes up.
MOST_ASIDE = 1.5
#: Rounds in which corners are set out until the line passes where it should: each takes away most of what is left.
ROUNDS = 2
#: cm. How far further aside is tried, to see what that does to the lengths.
TRIED = 0.2


@dataclass(frozen=True, slots=True)
class Corners:
    """A style line as one part has it.

    Attributes:
        points: its ends and, between them, its corners.
        bow: how far (cm) its bowed stretch bulges to the left.
        bowed_first: whether that is the first stretch, not the last.
    """

    points: tuple[Point, ...]
    bow: float = 0.0
    bowed_first: bool = False

    @property
    def inner(self) -> tuple[Point, ...]:
        """The corners."""
        return self.points[1:-1]

    def over(self, shifts: Sequence[Vector], reach: Sequence[float]) -> Curve:
        """Return the line over its corners, each set out by a shift first."""
        moved = [self.points[0], *(add(c, s) for c, s in zip(self.inner, shifts, strict=True)), self.points[-1]]
        stretches = [straight(a, b) for a, b in itertools.pairwise(moved)]
        index = 0 if self.bowed_first else len(stretches) - 1
        stretches[index] = bowed(moved[index], moved[index + 1], self.bow)
        return over_corners(stretches, reach)

    def sharpness(self, corner: int) -> float:
        """Return by how much (rad) the line turns at a corner."""
        a, b, c = self.points[corner : corner + 3]
        return abs(turn(subtract(b, a), subtract(c, b)))

    def inside(self, corner: int) -> Vector:
        """Return the direction in which rounding moves the line at a corner."""
        a, b, c = self.points[corner : corner + 3]
        arriving, leaving = unit(subtract(b, a)), unit(subtract(c, b))
        bent = subtract(leaving, arriving)
        return unit(bent) if norm(bent) > PARALLEL else left_of(arriving)


def both_lines(one: Corners, other: Corners) -> tuple[Curve, Curve]:
    """Return a style line as its two parts have it.

    Args:
        one, other: the line as each part has it; the second runs the other way.
    """
    lines = (one, Corners(other.points[::-1], -other.bow, not other.bowed_first))
    shared = [distance(a, b) <= SAME_POINT for a, b in zip(lines[0].inner, lines[1].inner, strict=True)]
    sharper = [0 if lines[0].sharpness(k) >= lines[1].sharpness(k) else 1 for k in range(len(shared))]
    alike = [shared[k] and dot(lines[0].inside(k), lines[1].inside(k)) > 0 for k in range(len(shared))]
    reach = [
        [
            END_REACH if shared[k] and not alike[k] else SHARP_REACH if alike[k] and sharper[k] == i else FLAT_REACH
            for k in range(len(shared))
        ]
        for i in range(len(lines))
    ]

    fuller = sharper[alike.index(True)] if any(alike) else 0

    def drawn(aside: float) -> tuple[Curve, Curve]:
        wanted = [scale(lines[sharper[k]].inside(k), aside) if alike[k] else (0.0, 0.0) for k in range(len(shared))]
        first, second = (_passing(line, wanted, reach[i]) for i, line in enumerate(lines))
        return first, second

    def longer(aside: float) -> float:
        found = drawn(aside)
        return found[fuller].length - found[1 - fuller].length

    first, second = drawn(_aside(longer, _as_rounded(lines[fuller], alike)) if any(alike) else 0.0)
    return first, second.reversed()


def _as_rounded(line: Corners, alike: Sequence[bool]) -> float:
    """Return how far aside a line passes from the first dart's point, if its corner is only rounded."""
    k = list(alike).index(True)
    drawn = line.over([(0.0, 0.0) for _ in alike], [SHARP_REACH for _ in alike])
    return dot(subtract(passes_at(drawn, k), line.inner[k]), line.inside(k))


def _aside(longer: Callable[[float], float], rounded: float) -> float:
    """Return how far aside the line passes: as it is rounded, or so that one part is not too long for the other."""
    off = longer(rounded) - EASED
    if -MOST_SHORT <= off + EASED <= MOST_EASED:
        return rounded
    at, beside = rounded, rounded - TRIED
    before = longer(beside) - EASED
    for _ in range(ROUNDS):
        slope = (off - before) / (at - beside)
        if abs(slope) < PARALLEL:
            break
        beside, before = at, off
        at = min(max(at - off / slope, -MOST_ASIDE), MOST_ASIDE)
        if abs(at - beside) < SAME_POINT:
            break
        off = longer(at) - EASED
    return at


def _passing(line: Corners, wanted: Sequence[Vector], reach: Sequence[float]) -> Curve:
    """Return the line over its corners, set out so that it passes at the wanted places beside them."""
    ways = [line.inside(k) for k in range(len(wanted))]
    shifts: list[Vector] = [(0.0, 0.0) for _ in wanted]
    drawn = line.over(shifts, reach)
    for _ in range(ROUNDS):
        for k, (corner, want, way) in enumerate(zip(line.inner, wanted, ways, strict=True)):
            missing = dot(subtract(add(corner, want), passes_at(drawn, k)), way)
            shifts[k] = add(shifts[k], scale(way, missing))
        drawn = line.over(shifts, reach)
    return drawn
