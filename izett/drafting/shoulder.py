"""The shoulder by triangle: neck point, shoulder length, and the diagonal to the centre waist."""

from math import acos, atan2, degrees, pi

from izett.geometry.point import Point, distance, subtract


def slope_by_diagonal(neck_point: Point, waist_centre: Point, shoulder: float, diagonal: float) -> float | None:
    """Return the shoulder's slope in degrees, or None where the two lengths do not meet.

    The tip is the outer meeting of the circle of `shoulder` about the neck point with the circle of `diagonal`
    about the waist at the centre.
    """
    base = distance(neck_point, waist_centre)
    cosine = (base * base + shoulder * shoulder - diagonal * diagonal) / (2 * base * shoulder)
    if not -1 < cosine < 1:
        return None
    down = subtract(waist_centre, neck_point)
    # The shoulder lies on the side away from the centre: turned from the line to the waist towards +x.
    towards_waist = atan2(down[1], down[0])
    return degrees(-_wrapped(towards_waist + acos(cosine)))


def _wrapped(angle: float) -> float:
    return (angle + pi) % (2 * pi) - pi
