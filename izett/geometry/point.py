"""Points and directions in the plane: pairs of floats in cm, x to the side, y up."""

from math import atan2, hypot

from izett.geometry.tolerance import PARALLEL

Point = tuple[float, float]
#: A direction or a displacement; a pair like a point, kept apart in names only.
Vector = tuple[float, float]


def add(a: Point, b: Vector) -> Point:
    """Return point `a` displaced by `b`."""
    return (a[0] + b[0], a[1] + b[1])


def subtract(a: Point, b: Point) -> Vector:
    """Return the displacement from `b` to `a`."""
    return (a[0] - b[0], a[1] - b[1])


def scale(a: Vector, factor: float) -> Vector:
    """Return `a` made longer by `factor`."""
    return (a[0] * factor, a[1] * factor)


def negated(a: Vector) -> Vector:
    """Return the displacement the other way."""
    return (-a[0], -a[1])


def between(a: Point, b: Point, share: float) -> Point:
    """Return the point at `share` of the way from `a` (0) to `b` (1)."""
    return (a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share)


def distance(a: Point, b: Point) -> float:
    """Return the distance from `a` to `b` in cm."""
    return hypot(a[0] - b[0], a[1] - b[1])


class Undrawable(ValueError):
    """What is asked for cannot be drawn: two places fall into one, or nothing is as long as it would have to be."""


def norm(a: Vector) -> float:
    """Return the length of `a`."""
    return hypot(a[0], a[1])


def unit(a: Vector) -> Vector:
    """Return the direction of `a`, of length 1.

    Raises:
        Undrawable: `a` has no length, hence no direction.
    """
    length = hypot(a[0], a[1])
    if length == 0.0:
        raise Undrawable("a displacement of no length has no direction")
    return (a[0] / length, a[1] / length)


def dot(a: Vector, b: Vector) -> float:
    """Return the scalar product."""
    return a[0] * b[0] + a[1] * b[1]


def cross(a: Vector, b: Vector) -> float:
    """Return the cross product: positive where `b` lies to the left of `a`."""
    return a[0] * b[1] - a[1] * b[0]


def left_of(a: Vector) -> Vector:
    """Return `a` turned a quarter turn to the left."""
    return (-a[1], a[0])


def right_of(a: Vector) -> Vector:
    """Return `a` turned a quarter turn to the right."""
    return (a[1], -a[0])


def turn(a: Vector, b: Vector) -> float:
    """Return the signed angle in radians from direction `a` to direction `b`, in (−π, π]."""
    return atan2(cross(a, b), dot(a, b))


def meeting(a: Point, along_a: Vector, b: Point, along_b: Vector) -> tuple[float, float] | None:
    """Return how far along each direction two straight lines meet, or None where they are parallel.

    Returns:
        (s, t) such that a + s·along_a = b + t·along_b.
    """
    across = cross(along_a, along_b)
    if abs(across) <= PARALLEL * norm(along_a) * norm(along_b):
        return None
    gap = subtract(b, a)
    return (cross(gap, along_b) / across, cross(gap, along_a) / across)
