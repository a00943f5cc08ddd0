from math import cos, pi, sin

import pytest
from hypothesis import given
from hypothesis import strategies as st

from izett.geometry import point as pt
from izett.geometry.motion import STILL, Motion
from tests.acting import PassedOver, acting

near = st.floats(-100, 100, allow_nan=False)
spots = st.tuples(near, near)
angles = st.floats(-pi, pi)


@given(spots, spots, angles)
def test_a_turn_keeps_its_centre_and_all_distances(about, other, angle):
    turn = Motion.turning(angle, about=about)
    assert turn(about) == pytest.approx(about, abs=1e-9)
    assert pt.distance(turn(other), about) == pytest.approx(pt.distance(other, about), abs=1e-9)


@given(spots, spots, angles, spots)
def test_moves_done_one_after_the_other_are_one_move(a, b, angle, shift):
    first, second = Motion.turning(angle, about=a), Motion.sliding(shift)
    assert first.then(second)(b) == pytest.approx(second(first(b)), abs=1e-9)


@given(spots, spots, angles)
def test_the_inverse_undoes(about, other, angle):
    move = Motion.turning(angle, about=about).then(Motion.sliding((3, -2)))
    assert move.then(move.inverse())(other) == pytest.approx(other, abs=1e-8)


def test_staying_still_moves_nothing():
    assert STILL((4.0, 5.0)) == (4.0, 5.0)
    assert STILL.direction((1.0, 0.0)) == (1.0, 0.0)


@acting(least=0.5)
@given(spots, spots, spots, spots)
def test_where_two_lines_meet_both_say_the_same(a, along_a, b, along_b):
    met = pt.meeting(a, along_a, b, along_b)
    if met is None or max(abs(m) for m in met) > 1e6:
        raise PassedOver
    on_a = pt.add(a, pt.scale(along_a, met[0]))
    on_b = pt.add(b, pt.scale(along_b, met[1]))
    assert pt.distance(on_a, on_b) <= 1e-4 * (1 + max(map(abs, (*on_a, *on_b))))


def test_parallel_lines_do_not_meet():
    assert pt.meeting((0, 0), (1, 1), (5, 0), (2, 2)) is None


@pytest.mark.parametrize(("angle", "side"), [(pi / 2, 1), (-pi / 2, -1)])
def test_turns_have_a_sign(angle, side):
    assert pt.turn((1, 0), (cos(angle), sin(angle))) == pytest.approx(angle)
    assert pt.cross((1, 0), (cos(angle), sin(angle))) * side > 0


def test_left_and_right_are_square():
    assert pt.left_of((1, 0)) == (0, 1)
    assert pt.right_of((1, 0)) == (0, -1)
    assert pt.dot(pt.left_of((3, 7)), (3, 7)) == 0


def test_no_length_has_no_direction():
    with pytest.raises(ValueError, match="no direction"):
        pt.unit((0.0, 0.0))
