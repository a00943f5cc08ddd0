"""Curves: a straight line (2 points) or joined cubics (3n + 1 control points), as a hip curve draws them.

Lengths are measured by 20-point Gauss–Legendre quadrature on each cubic, never by chords: on an armhole ten chords
are 1.5 mm short. A curve knows nothing of garments.
"""

from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from functools import lru_cache
from math import ceil, hypot, isnan, nan, sqrt

from numpy.polynomial.legendre import leggauss

from izett.geometry.point import Point, Vector, between, distance, negated, subtract, turn, unit
from izett.geometry.tolerance import FLATNESS, SAME_POINT

#: Of each node its weight, and the shares of the three control chords in a cubic's speed there. Plain numbers: for one
#: cubic at a time they are summed in a third of the time that arrays take.
_NODES = [
    (float(weight) / 2, 3 * (1 - t) ** 2, 6 * t * (1 - t), 3 * t**2)
    for t, weight in ((float(node + 1) / 2, weight) for node, weight in zip(*leggauss(20), strict=True))
]

Cubic = tuple[Point, Point, Point, Point]

#: cm. A length found along a curve is as near as this; halving alone comes so near in so many steps.
SAME_LENGTH = 1e-12
MOST_STEPS = 60

#: A cubic is drawn with so many chords at most: at any fineness in use that is a bend of tens of metres.
MOST_CHORDS = 2000

#: How many cubics' lengths and chords are remembered: a pattern is measured many times while it is checked and changed.
REMEMBERED = 8192


@dataclass(frozen=True, slots=True)
class Curve:
    """A line or a chain of cubics from its first to its last control point.

    Attributes:
        points: 2 points (straight) or 3n + 1 control points of n joined cubics, in cm.
    """

    points: tuple[Point, ...]
    #: The length once it was measured: a curve is measured by every step and check after the one that drew it.
    _length: float = field(default=nan, init=False, repr=False, compare=False)

    def __post_init__(self) -> None:
        count = len(self.points)
        if count != 2 and (count < 4 or count % 3 != 1):
            raise ValueError(f"a curve has 2 or 3n + 1 control points, not {count}")

    @property
    def start(self) -> Point:
        """The first point."""
        return self.points[0]

    @property
    def end(self) -> Point:
        """The last point."""
        return self.points[-1]

    @property
    def is_straight(self) -> bool:
        """Whether this is a line of two points."""
        return len(self.points) == 2

    def cubics(self) -> Iterator[Cubic]:
        """Yield the cubics; a straight line yields itself raised to a cubic of even speed."""
        if self.is_straight:
            a, b = self.points
            yield (a, between(a, b, 1 / 3), between(a, b, 2 / 3), b)
            return
        p = self.points
        for i in range(0, len(p) - 1, 3):
            yield (p[i], p[i + 1], p[i + 2], p[i + 3])

    @property
    def length(self) -> float:
        """The length along the curve in cm."""
        if isnan(self._length):
            points = self.points
            drawn = sum([_cubic_length(c) for c in self.cubics()]) if len(points) > 2 else distance(*points)
            object.__setattr__(self, "_length", drawn)
        return self._length

    @property
    def start_direction(self) -> Vector:
        """The direction in which the curve leaves its first point, of length 1."""
        return _first_direction(self.points)

    @property
    def end_direction(self) -> Vector:
        """The direction in which the curve arrives at its last point, of length 1."""
        return negated(_first_direction(self.points[::-1]))

    def turns(self) -> list[float]:
        """Return by what angle (radians, to the left) the curve turns at each of its inner joints."""
        p = self.points
        return [
            turn(negated(_first_direction(p[i - 3 : i + 1][::-1])), _first_direction(p[i : i + 4]))
            for i in range(3, len(p) - 1, 3)
        ]

    def reversed(self) -> "Curve":
        """Return the same curve walked the other way."""
        return Curve(self.points[::-1])

    def mapped(self, move: Callable[[Point], Point]) -> "Curve":
        """Return the curve with every control point moved by `move` (exact for rigid moves)."""
        return Curve(tuple(move(point) for point in self.points))

    def at_distance(self, along: float) -> Point:
        """Return the point `along` cm from the start, measured along the curve, held within its ends."""
        return self.split(along)[0].end

    def split(self, along: float) -> tuple["Curve", "Curve"]:
        """Return the two parts of the curve, cut `along` cm from its start.

        A cut at an end gives that end as a part of no length, so that callers need no special case.
        """
        if self.is_straight:
            whole = self.length
            share = min(max(along / whole, 0.0), 1.0) if whole > 0 else 0.0
            cut = between(self.start, self.end, share)
            return Curve((self.start, cut)), Curve((cut, self.end))
        cubics = list(self.cubics())
        gone = 0.0
        for index, cubic in enumerate(cubics):
            part = _cubic_length(cubic)
            if index > 0 and abs(along - gone) <= SAME_POINT:
                # On a joint: a cubic of no length would have no direction.
                return joined(cubics[:index]), joined(cubics[index:])
            if along < gone + part or index == len(cubics) - 1:
                t = _parameter_at(cubic, min(max(along - gone, 0.0), part), part)
                before, after = _split_cubic(cubic, t)
                return joined([*cubics[:index], before]), joined([after, *cubics[index + 1 :]])
            gone += part
        raise AssertionError("a curve has at least one cubic")

    def parted(self, share: float) -> tuple["Curve", "Curve"]:
        """Return the two parts of a line or a plain cubic, parted about a share (0…1) of its length: no length is measured."""
        (cubic,) = self.cubics()
        if self.is_straight:
            spot = between(self.start, self.end, share)
            return Curve((self.start, spot)), Curve((spot, self.end))
        before, after = _split_cubic(cubic, share)
        return Curve(before), Curve(after)

    def flattened(self, *, flatness: float = FLATNESS) -> list[Point]:
        """Return points on the curve, ends included, whose chords stay within `flatness` cm of it."""
        if self.is_straight:
            return [self.start, self.end]
        points = [self.start]
        for cubic in self.cubics():
            points.extend(_flatten_cubic(cubic, flatness))
        return points


def forget() -> None:
    """Forget every length and every chord."""
    _cubic_length.cache_clear()
    _flatten_cubic.cache_clear()


def straight(a: Point, b: Point) -> Curve:
    """Return the straight line from `a` to `b`."""
    return Curve((a, b))


def joined(cubics: list[Cubic]) -> Curve:
    """Return the curve that runs through `cubics` in order; each starts where the one before it ends."""
    return Curve((cubics[0][0], *(point for cubic in cubics for point in cubic[1:])))


def _first_direction(points: tuple[Point, ...]) -> Vector:
    # A handle of no length gives no direction: the next control point then does.
    for point in points[1:]:
        if distance(points[0], point) > SAME_POINT:
            return unit(subtract(point, points[0]))
    return (1.0, 0.0)


@lru_cache(maxsize=REMEMBERED)
def _cubic_length(cubic: Cubic) -> float:
    return _measured(cubic)


def _measured(cubic: Cubic) -> float:
    (ax, ay), (bx, by), (cx, cy), (dx, dy) = cubic
    ax, bx, cx = bx - ax, cx - bx, dx - cx
    ay, by, cy = by - ay, cy - by, dy - cy
    return sum([w * hypot(a * ax + b * bx + c * cx, a * ay + b * by + c * cy) for w, a, b, c in _NODES])


def _split_cubic(cubic: Cubic, t: float) -> tuple[Cubic, Cubic]:
    a, b, c, d = cubic
    ab, bc, cd = between(a, b, t), between(b, c, t), between(c, d, t)
    abc, bcd = between(ab, bc, t), between(bc, cd, t)
    cut = between(abc, bcd, t)
    return (a, ab, abc, cut), (cut, bcd, cd, d)


def _parameter_at(cubic: Cubic, along: float, whole: float) -> float:
    """Return the parameter at which a cubic is `along` cm long: by Newton's steps, held between what is known of it."""
    if along <= 0.0:
        return 0.0
    if along >= whole:
        return 1.0
    low, high, t = 0.0, 1.0, along / whole
    for _ in range(MOST_STEPS):
        before, after = _split_cubic(cubic, t)
        off = _measured(before) - along
        if abs(off) <= SAME_LENGTH:
            break
        low, high = (low, t) if off > 0 else (t, high)
        # The speed there, from the first chord of what comes after.
        speed = 3 * distance(after[0], after[1]) / (1 - t)
        step = t - off / speed if speed > 0 else low
        t = step if low < step < high else (low + high) / 2
    return t


@lru_cache(maxsize=REMEMBERED)
def _flatten_cubic(cubic: Cubic, flatness: float) -> tuple[Point, ...]:
    # The bend of a cubic is bounded by the second differences of its control points (a chord of 1/n is off by at
    # most bend/n²), which gives the number of even steps at once.
    a, b, c, d = cubic
    bend = max(
        hypot(a[0] - 2 * b[0] + c[0], a[1] - 2 * b[1] + c[1]),
        hypot(b[0] - 2 * c[0] + d[0], b[1] - 2 * c[1] + d[1]),
    )
    steps = max(1, min(MOST_CHORDS, ceil(sqrt(6 * bend / (8 * flatness)))))
    points: list[Point] = []
    for i in range(1, steps):
        t, s = i / steps, 1 - i / steps
        w = (s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t)
        points.append(
            (
                w[0] * a[0] + w[1] * b[0] + w[2] * c[0] + w[3] * d[0],
                w[0] * a[1] + w[1] * b[1] + w[2] * c[1] + w[3] * d[1],
            )
        )
    points.append(d)
    return tuple(points)
