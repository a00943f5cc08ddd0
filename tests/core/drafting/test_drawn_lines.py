"""The curves of the draft by themselves: what each meets, over the whole range of shapes that bodies ask for."""

from itertools import pairwise
from math import cos, hypot, radians, sin

import pytest
from hypothesis import given
from hypothesis import strategies as st

from izett.drafting.armhole import BACK_HEIGHT, FRONT_HEIGHT, Scoop, across_point, armhole
from izett.drafting.neckline import BACK as NECK_BACK
from izett.drafting.neckline import FRONT_AT_NECK, neckline
from izett.drafting.waistline import MOUTH_BELOW, WaistDart, intakes, waist_panels
from izett.geometry.curve import joined
from izett.geometry.point import dot

slopes = st.floats(8, 34)
#: The usual scoops, as the bodice's allowances have them.
FRONT, BACK = Scoop(FRONT_HEIGHT, 0.66), Scoop(BACK_HEIGHT, 0.55)
NECK_FRONT = (0.76, FRONT_AT_NECK)


def square_to(slope):
    return (-sin(radians(slope)), -cos(radians(slope)))


@given(slopes, st.floats(15, 26), st.floats(3.5, 12), st.floats(0.5, 4), st.sampled_from([FRONT, BACK]))
def test_an_armhole_is_square_to_both_seams_and_upright_at_the_across_line(slope, height, reach, overhang, scoop):
    across = 18.0
    tip, underarm = (across + overhang, height), (across + reach, 0.0)
    curve = armhole(tip, square_to(slope), underarm, (-1.0, 0.0), across, scoop)
    assert (curve.start, curve.end) == (underarm, tip)
    assert curve.start_direction == pytest.approx((-1, 0), abs=1e-9)
    assert abs(dot(curve.end_direction, (cos(radians(slope)), -sin(radians(slope))))) < 1e-9
    lower, upper = (joined([cubic]) for cubic in curve.cubics())
    assert lower.end == across_point(tip, underarm, across, scoop)
    assert lower.end_direction == pytest.approx((0, 1), abs=1e-9)
    assert upper.start_direction == pytest.approx((0, 1), abs=1e-9)
    assert min(p[0] for p in curve.flattened()) >= across - 0.8, "it does not cut far into the across line"


def test_the_front_scoops_more_than_the_back():
    shapes = [armhole((19.5, 20), square_to(20), (24, 0), (-1, 0), 17, scoop) for scoop in (FRONT, BACK)]
    front, back = (min(hypot(p[0] - 17, p[1]) for p in curve.flattened()) for curve in shapes)
    assert front < back, "the front comes nearer to its corner"


@given(slopes, st.floats(5.5, 9), st.floats(0.8, 1.9))
def test_a_neckline_is_square_to_centre_and_shoulder_and_never_hooks(slope, width, depth):
    for fractions, down in ((NECK_FRONT, depth * width), (NECK_BACK, width / 3)):
        curve = neckline((width, down), square_to(slope), (0.0, 0.0), fractions)
        assert curve.end_direction == pytest.approx((-1, 0), abs=1e-9)
        assert abs(dot(curve.start_direction, (cos(radians(slope)), -sin(radians(slope))))) < 1e-9
        points = curve.flattened()
        assert all(b[0] <= a[0] + 1e-9 and b[1] <= a[1] + 1e-9 for a, b in pairwise(points))


@given(st.floats(0, 16), st.floats(2.5, 5), st.floats(0.3, 1.2))
def test_an_intake_is_shared_evenly_over_as_few_darts_as_allowed(total, largest, smallest):
    shares = intakes(total, largest=largest, smallest=smallest)
    assert sum(shares) == pytest.approx(total if total >= smallest else 0)
    assert len(shares) <= 3
    assert len(set(shares)) <= 1
    if len(shares) in (1, 2):
        assert max(shares) <= largest
    if len(shares) > 1:
        assert total / (len(shares) - 1) > largest, "one dart fewer would have been too large"


@given(st.floats(0.8, 4.5), st.floats(0, 12))
def test_waist_panels_end_square_to_centre_legs_and_side(intake, lean):
    up_side = (sin(radians(lean)), cos(radians(lean)))
    dart = WaistDart(9.0, 15.0, intake)
    first, last = waist_panels((0.0, 0.0), (1.0, 0.0), (22.0, 0.0), up_side, [dart])
    a, b = dart.mouth(0.0)
    assert (first.start, first.end, last.start, last.end) == ((0.0, 0.0), a, b, (22.0, 0.0))
    assert a[1] == pytest.approx(-MOUTH_BELOW * intake)
    for direction, leg in ((first.end_direction, (9 - a[0], 15 - a[1])), (last.start_direction, (9 - b[0], 15 - b[1]))):
        assert abs(dot(direction, leg)) < 1e-9
    assert abs(dot(last.end_direction, up_side)) < 1e-9
    assert first.start_direction == pytest.approx((1, 0))
