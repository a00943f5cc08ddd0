import pytest
from hypothesis import given
from hypothesis import strategies as st

from izett.measuring.measure import measures
from izett.measuring.taking import Taken, settled, uneven
from izett.units import Reading, Unit


def taken(key, *cm):
    return Taken(key, tuple(Reading(f"{c}", Unit.CM, c) for c in cm))


def test_two_readings_within_the_tolerance_need_no_third_and_their_middle_counts():
    twice = taken("bust_girth", 92.0, 92.8)
    assert not twice.asks_again
    assert twice.cm == pytest.approx(92.4)


def test_two_readings_further_apart_ask_for_a_third_and_the_middle_one_then_counts():
    assert taken("bust_girth", 92.0, 97.0).asks_again
    thrice = taken("bust_girth", 92.0, 97.0, 92.4)
    assert not thrice.asks_again
    assert thrice.cm == 92.4


def test_small_measures_are_read_more_closely_than_large_ones():
    assert taken("wrist_girth", 16.0, 16.6).asks_again
    assert not taken("waist_girth", 74.0, 74.6).asks_again


@given(
    st.sampled_from(sorted(measures())),
    st.lists(st.floats(10, 200), min_size=3, max_size=5),
    st.floats(-50, 50),
)
def test_one_slip_among_three_never_moves_the_result_beyond_the_others(symbol, cm, slip):
    slipped = taken(symbol, *cm[:-1], cm[-1] + slip).cm
    assert min(cm[:-1]) <= slipped <= max(cm[:-1]) or slipped == cm[-1] + slip


def test_left_and_right_are_drafted_by_their_mean_and_told_where_they_differ():
    cm = {"arm_length.left": 58.0, "arm_length.right": 59.0, "wrist_girth": 16.0, "bicep_girth.left": 28.0}
    assert settled(cm) == {"arm_length": 58.5, "wrist_girth": 16.0, "bicep_girth": 28.0}
    assert [(u.symbol, u.left, u.right) for u in uneven(cm)] == [("arm_length", 58.0, 59.0)]


def test_a_side_that_was_not_taken_is_as_the_whole():
    assert settled({"arm_length": 58.0, "arm_length.right": 59.0}) == {"arm_length": 58.5}
