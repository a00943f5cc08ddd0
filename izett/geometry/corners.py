"""One line over corners, as a hip curve is laid over them: it keeps bending the same way and never makes a nose."""

import itertools
from collections.abc import Sequence

from izett.geometry.blend import towards_meeting, with_handles
from izett.geometry.curve import Cubic, Curve, joined, straight
from izett.geometry.point import Point, scale
from izett.geometry.tolerance import SAME_POINT

#: Share of a stretch that the rounding of the corner at its end may take: the other end has a corner, too.
ROOM = 0.47
#: Share of the way to the corner that a handle goes: between a circle's and a parabola's, so that the bend eases in.
FULLNESS = 0.6
#: Points of a line or one cubic: parted by its parameter, since a rounding need not begin to the hair.
PLAIN = 4


def over_corners(stretches: Sequence[Curve], reach: Sequence[float]) -> Curve:
    """Return stretches that follow on each other as one line, each corner between them rounded off inside.

    Args:
        stretches: each starts where the one before it ends.
        reach: how far (cm) before and after each corner the rounding begins, held to a little less than half of a
            stretch; one number fewer than stretches.

    Returns:
        The line. Where every stretch is a line or one cubic, those of its cubics with odd numbers are the roundings.
    """
    if len(stretches) == 1:
        return stretches[0]
    lengths = [curve.length for curve in stretches]
    rooms = [
        min(far, ROOM * before, ROOM * after) for far, before, after in zip(reach, lengths, lengths[1:], strict=False)
    ]
    kept: list[Curve] = []
    for i, curve in enumerate(stretches):
        first = rooms[i - 1] if i > 0 else 0.0
        last = rooms[i] if i < len(rooms) else 0.0
        if len(curve.points) <= PLAIN:
            up_to = 1 - last / lengths[i]
            kept.append(curve.parted(up_to)[0].parted(first / (lengths[i] * up_to))[1])
        else:
            kept.append(curve.split(lengths[i] - last)[0].split(first)[1])
    cubics: list[Cubic] = list(kept[0].cubics())
    for before, after in itertools.pairwise(kept):
        cubics += [_rounding(before, after), *after.cubics()]
    return joined(cubics)


def _rounding(before: Curve, after: Curve) -> Cubic:
    leaving, arriving = before.end_direction, scale(after.start_direction, -1.0)
    found = towards_meeting(
        before.end, leaving, after.start, arriving, start_fraction=FULLNESS, end_fraction=FULLNESS, least=SAME_POINT
    )
    if found is not None:
        return found
    # Nearly one line: the two directions meet nowhere, and the chord is the line.
    third = straight(before.end, after.start).length / 3
    return with_handles(before.end, leaving, after.start, arriving, start_handle=third, end_handle=third)


def passes_at(line: Curve, corner: int) -> Point:
    """Return the middle of the rounding of a corner, of a line made by `over_corners` of plain stretches."""
    a, b, c, d = list(line.cubics())[2 * corner + 1]
    return ((a[0] + 3 * b[0] + 3 * c[0] + d[0]) / 8, (a[1] + 3 * b[1] + 3 * c[1] + d[1]) / 8)
