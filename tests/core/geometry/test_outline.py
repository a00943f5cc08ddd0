"""Outlines, against shapely's buffers and predicates."""

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely import LineString

from izett.geometry.blend import refitted, towards_meeting, with_handles
from izett.geometry.curve import Curve, joined
from izett.geometry.outline import (
    contains,
    corner_between,
    crossing,
    farthest_apart,
    parallel,
    signed_area,
    without_repeats,
)
from izett.geometry.point import distance

SQUARE = [(0.0, 0.0), (10.0, 0.0), (10.0, 10.0), (0.0, 10.0)]


def test_area_is_positive_counter_clockwise():
    assert signed_area(SQUARE) == 100
    assert signed_area(SQUARE[::-1]) == -100


def test_a_bow_tie_crosses_itself_and_a_square_does_not():
    assert crossing(SQUARE) is None
    assert crossing([(0, 0), (10, 10), (10, 0), (0, 10)]) == pytest.approx((5, 5))


def test_inside_is_inside():
    assert contains(SQUARE, (5, 5))
    assert not contains(SQUARE, (15, 5))


@given(st.floats(0.1, 4))
def test_a_parallel_line_lies_outside_at_its_distance(width):
    curve = Curve(((10.0, 0.0), (14.0, 3.0), (14.0, 8.0), (10.0, 12.0))).flattened()
    moved = parallel(curve, width)
    assert LineString(moved).hausdorff_distance(LineString(curve)) == pytest.approx(width, rel=0.02)
    # counter-clockwise, the outside lies to the right: here at larger x
    assert min(p[0] for p in moved) >= min(p[0] for p in curve) - 1e-6
    assert distance(moved[0], curve[0]) == pytest.approx(width, rel=1e-6)


def test_no_allowance_leaves_the_line_where_it_is():
    assert parallel(SQUARE, 0.0) == SQUARE


def test_corners_of_different_allowances_meet_cleanly():
    """A square cut with 1 and 3 cm: the corner lies 3 to the right and 1 below, as on paper."""
    foot = parallel([(0.0, 0.0), (10.0, 0.0)], 1.0)
    side = parallel([(10.0, 0.0), (10.0, 10.0)], 3.0)
    corner = corner_between(foot, side, limit=8)
    assert corner.points == (pytest.approx((13.0, -1.0)),)
    assert (corner.before, corner.after) == (10.0, 0.0)


def test_lines_that_pass_each_other_are_cut_where_they_cross():
    corner = corner_between([(0.0, 0.0), (10.0, 0.0)], [(8.0, -2.0), (8.0, 10.0)], limit=1)
    assert corner.points == ((8.0, 0.0),)
    assert (corner.before, corner.after) == (8.0, 2.0)


def test_a_spike_longer_than_the_limit_is_cut_square():
    corner = corner_between([(0.0, 0.0), (10.0, 0.0)], [(10.0, 0.2), (0.0, 0.5)], limit=2)
    assert (corner.before, corner.after, corner.points) == (10.0, 0.0, ())


def test_points_that_coincide_count_once():
    assert without_repeats([(0, 0), (0, 0), (1, 0), (1, 1), (0, 0)]) == [(0, 0), (1, 0), (1, 1), (0, 0)]


def test_the_farthest_distance_between_lines():
    assert farthest_apart([SQUARE], [[(x, y + 2) for x, y in SQUARE]]) == pytest.approx(2)


def test_handles_point_at_the_meeting_of_the_tangents():
    cubic = towards_meeting((0, 0), (1, 0), (10, 10), (0, -1), start_fraction=0.5, end_fraction=0.25)
    assert cubic == ((0, 0), (5, 0), (10, 7.5), (10, 10))
    assert towards_meeting((0, 0), (1, 0), (10, 10), (1, 0), start_fraction=0.5, end_fraction=0.5) is None
    assert towards_meeting((0, 0), (-1, 0), (10, 10), (0, -1), start_fraction=0.5, end_fraction=0.5) is None


def test_a_refitted_curve_keeps_its_other_end_and_its_smoothness():
    armhole = Curve(((23, 19), (18, 20), (16.5, 23), (16.5, 27), (16.5, 31), (17.5, 35), (18.6, 38)))
    moved = refitted(armhole, start=(24, 18.5))
    assert moved.start == (24, 18.5)
    assert moved.points[3:] == armhole.points[3:]
    before, after = (joined([cubic]) for cubic in moved.cubics())
    assert before.end_direction == pytest.approx(after.start_direction)
    assert refitted(armhole) == armhole


def test_handles_of_given_lengths():
    cubic = with_handles((0, 0), (2, 0), (10, 0), (-3, 0), start_handle=3, end_handle=4)
    assert cubic == ((0, 0), (3, 0), (6, 0), (10, 0))
