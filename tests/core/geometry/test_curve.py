"""Curves, against svgpathtools for lengths and points (its own adaptive quadrature)."""

from math import cos, isclose, pi, sin, sqrt

import pytest
from hypothesis import given
from hypothesis import strategies as st
from svgpathtools import CubicBezier

from izett.geometry.curve import Curve, straight
from izett.geometry.motion import Motion
from izett.geometry.point import distance


@st.composite
def drawn_curves(draw):
    """Cubics as a hand draws them: three chords that each turn by less than a right angle."""
    points, heading = [(draw(st.floats(-60, 60)), draw(st.floats(-60, 60)))], draw(st.floats(-pi, pi))
    for _ in range(3):
        heading += draw(st.floats(-1.3, 1.3))
        reach = draw(st.floats(1, 25))
        points.append((points[-1][0] + reach * cos(heading), points[-1][1] + reach * sin(heading)))
    return Curve(tuple(points))


ARMHOLE = Curve(((23, 19), (18, 20), (16.5, 23), (16.5, 27), (16.5, 31), (17.5, 35), (18.6, 38)))


def whole(curve):
    return sum(CubicBezier(*(complex(*p) for p in cubic)).length(error=1e-10) for cubic in curve.cubics())


def test_an_armhole_measures_as_svgpathtools_measures_it():
    assert ARMHOLE.length == pytest.approx(whole(ARMHOLE), abs=1e-7)


@given(drawn_curves())
def test_length_agrees_with_svgpathtools(curve):
    assert curve.length == pytest.approx(whole(curve), rel=1e-5)


@given(st.floats(0.05, 2.0))
def test_a_quarter_circle_is_as_long_as_it_should_be(radius):
    """The usual four-thirds-of-(√2 − 1) cubic is within 0.03 % of the circle (a fact of the geometry)."""
    k = 4 / 3 * (sqrt(2) - 1) * radius
    arc = Curve(((radius, 0), (radius, k), (k, radius), (0, radius)))
    assert isclose(arc.length, pi * radius / 2, rel_tol=3e-4)


@pytest.mark.parametrize("factor", [0.001, 1, 1000])
@pytest.mark.parametrize("shift", [(0, 0), (1e5, -3e5)])
def test_length_scales_and_does_not_mind_where_the_origin_is(factor, shift):
    curve = ARMHOLE.mapped(lambda p: (p[0] * factor + shift[0], p[1] * factor + shift[1]))
    assert curve.length == pytest.approx(ARMHOLE.length * factor, rel=1e-6)


@given(st.floats(0, 1), st.floats(-3, 3))
def test_rigid_moves_keep_every_length(share, angle):
    motion = Motion.turning(angle, about=(3, 4)).then(Motion.sliding((2, -7)))
    moved = ARMHOLE.mapped(motion)
    assert moved.length == pytest.approx(ARMHOLE.length, abs=1e-9)
    at = ARMHOLE.length * share
    assert distance(motion(ARMHOLE.at_distance(at)), moved.at_distance(at)) < 1e-7


@given(st.floats(0, 1))
def test_the_parts_of_a_cut_add_up_and_meet(share):
    before, after = ARMHOLE.split(ARMHOLE.length * share)
    assert before.length == pytest.approx(ARMHOLE.length * share, abs=1e-6)
    assert before.length + after.length == pytest.approx(ARMHOLE.length, abs=1e-9)
    assert before.end == after.start
    assert (before.start, after.end) == (ARMHOLE.start, ARMHOLE.end)


def test_a_straight_line_is_cut_where_it_says():
    line = straight((0, 0), (10, 0))
    assert line.split(4)[0].end == pytest.approx((4, 0))
    assert line.split(-1)[0].length == 0
    assert line.split(11)[1].length == 0


def test_walking_back_gives_the_same_curve():
    back = ARMHOLE.reversed()
    assert back.length == pytest.approx(ARMHOLE.length, abs=1e-12)
    assert back.reversed() == ARMHOLE
    assert back.start_direction == pytest.approx([-v for v in ARMHOLE.end_direction])


def test_flattening_stays_within_its_flatness():
    from shapely import LineString, Point

    fine = LineString(ARMHOLE.flattened(flatness=1e-5))
    coarse = LineString(ARMHOLE.flattened(flatness=0.01))
    assert max(coarse.distance(Point(p)) for p in fine.coords) <= 0.01
    assert coarse.length < ARMHOLE.length


def test_directions_at_the_ends_do_without_a_handle():
    stub = Curve(((0, 0), (0, 0), (1, 1), (2, 0)))
    assert stub.start_direction == pytest.approx((sqrt(0.5), sqrt(0.5)))


@pytest.mark.parametrize("count", [0, 1, 3, 5, 6])
def test_a_curve_of_no_known_kind_is_a_programmers_mistake(count):
    with pytest.raises(ValueError, match="control points"):
        Curve(tuple((float(i), 0.0) for i in range(count)))
