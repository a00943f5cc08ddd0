"""A line over corners bends one way, keeps its ends, and does not depend on where or how large it is drawn."""

from itertools import pairwise
from math import degrees

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from izett.geometry.corners import over_corners, passes_at
from izett.geometry.curve import Curve, straight
from izett.geometry.fit import fair
from izett.geometry.point import cross, distance, subtract, turn

TURNS = st.lists(st.floats(0.05, 0.9), min_size=1, max_size=3)


def convex(turns, side=12.0, scale=1.0, at=(0.0, 0.0)):
    """Corners of a line that always turns left."""
    from math import cos, sin

    points, heading = [at], 0.0
    for angle in [*turns, 0.0]:
        x, y = points[-1]
        points.append((x + scale * side * cos(heading), y + scale * side * sin(heading)))
        heading += angle
    return points


def drawn(points, reach):
    return over_corners([straight(a, b) for a, b in pairwise(points)], [reach] * (len(points) - 2))


@given(TURNS, st.floats(0.5, 8))
@pytest.mark.parametrize(
    ("scale", "at"), [(1.0, (0.0, 0.0)), (0.001, (0.0, 0.0)), (1000.0, (0.0, 0.0)), (1.0, (5e3, -8e3))]
)
def test_a_line_over_corners_that_turn_left_only_turns_left(scale, at, turns, reach):
    line = drawn(convex(turns, scale=scale, at=at), reach * scale)
    flat = line.flattened(flatness=0.0005 * scale)
    ways = [subtract(b, a) for a, b in pairwise(flat) if distance(a, b) > 1e-9 * scale]
    turned = [turn(a, b) for a, b in pairwise(ways)]
    assert min(turned) > -1e-6
    assert sum(turned) == pytest.approx(sum(turns), abs=1e-3)
    assert (line.start, line.end) == (convex(turns, scale=scale, at=at)[0], convex(turns, scale=scale, at=at)[-1])


@given(TURNS, st.floats(0.5, 8))
def test_joints_have_no_kink_and_corners_are_cut_inside(turns, reach):
    points = convex(turns)
    line = drawn(points, reach)
    for (_, _, c, d), (e, f, *_) in pairwise(line.cubics()):
        assert d == e
        assert degrees(abs(turn(subtract(d, c), subtract(f, e)))) < 1e-6
    for k, corner in enumerate(points[1:-1]):
        middle = passes_at(line, k)
        before, after = subtract(corner, points[k]), subtract(points[k + 2], corner)
        assert cross(before, subtract(middle, corner)) >= 0
        assert cross(after, subtract(middle, corner)) >= -1e-9
        assert distance(middle, corner) < reach
    assert line.length < sum(distance(a, b) for a, b in pairwise(points))


def test_one_stretch_is_left_as_it_is():
    curve = Curve(((0.0, 0.0), (1.0, 2.0), (3.0, 2.0), (4.0, 0.0)))
    assert over_corners([curve], []) is curve


@given(st.floats(0.2, 6), st.floats(-4, 4), st.floats(2, 9))
def test_strips_moved_apart_are_drawn_in_one_sweep(gap, rise, long):
    """A gathered neckline: it keeps its ends and their directions, and turns over at most once."""
    first = Curve(((0.0, 0.0), (long / 3, 0.0), (long / 2, long / 8), (long, long / 4)))
    start = (long + gap, long / 4 + rise)
    second = first.mapped(lambda p: (p[0] + start[0], p[1] + start[1]))
    assume(start[0] > 1)
    line, off = fair([first, straight(first.end, second.start), second], bridges=[1])
    assert (line.start, line.end) == (first.start, second.end)
    assert abs(turn(line.start_direction, first.start_direction)) < 1e-6
    assert abs(turn(line.end_direction, second.end_direction)) < 1e-6
    flat = line.flattened(flatness=0.001)
    turned = [turn(subtract(b, a), subtract(c, b)) for a, b, c in zip(flat, flat[1:], flat[2:], strict=False)]
    senses = [t > 0 for t in turned if abs(t) > 1e-4]
    assert sum(a != b for a, b in pairwise(senses)) <= 2
    assert 0 <= off < max(4.0, abs(rise))
