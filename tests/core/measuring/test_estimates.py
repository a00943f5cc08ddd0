"""Estimates against held-out people of openintro bdims, and what must hold for every rule."""

from math import sqrt
from random import Random

import pytest

from izett.measuring.estimates import estimates, missing_measures, whole_body, worked_out
from izett.measuring.measure import measures
from izett.wording import plain
from tests.core.measuring.completed import measured_people

#: What the estimate is worked out from, and its spread as the rule states it: measures that bdims has.
HELD_OUT = [
    ("bicep_girth", ("high_bust_girth", "bust_girth")),
    ("wrist_girth", ("bicep_girth", "height")),
    ("thigh_girth", ("hip_girth", "height")),
    ("knee_girth", ("hip_girth", "height")),
    ("calf_girth", ("hip_girth", "height")),
    ("calf_girth", ("knee_girth", "height")),
    ("ankle_girth", ("calf_girth", "height")),
    ("ankle_girth", ("calf_girth", "wrist_girth", "height")),
    ("hip_girth", ("waist_girth",)),
    ("hip_girth", ("thigh_girth",)),
    ("stomach_girth", ("waist_girth", "hip_girth")),
    ("waist_girth", ("high_bust_girth", "bust_girth")),
    ("waist_girth", ("high_bust_girth", "bust_girth", "hip_girth")),
]


@pytest.mark.parametrize(("symbol", "known"), HELD_OUT)
def test_the_stated_spread_is_the_error_on_people_on_whom_the_rule_was_not_fitted(symbol, known):
    """Rules were fitted on the people with even numbers of openintro bdims; these are the odd ones."""
    people = measured_people()[1::2]
    errors = [worked_out({s: p[s] for s in known})[symbol] - p[symbol] for p in people]
    rms = sqrt(sum(e * e for e in errors) / len(errors))
    stated = estimates().rules[symbol].way(known).spread
    assert stated == pytest.approx(rms, rel=0.12)
    assert abs(sum(errors) / len(errors)) < 0.5 * rms


def test_two_of_three_held_out_people_lie_within_the_stated_spread():
    inside = total = 0
    for symbol, known in HELD_OUT:
        for person in measured_people()[1::2]:
            sums = worked_out({s: person[s] for s in known})
            inside += abs(sums[symbol] - person[symbol]) <= sums.spread(symbol)
            total += 1
    assert 0.62 < inside / total < 0.78


def test_every_measure_of_the_body_has_a_rule_and_a_spread():
    for symbol, what in measures().items():
        if what.body:
            assert all(way.spread > 0 for way in estimates().rules[symbol].ways), symbol
        else:
            assert symbol not in estimates().rules


def test_whatever_was_taken_every_other_measure_is_estimated_within_what_people_have():
    """No two rules wait for each other, whichever measures are known."""
    random = Random(3)
    for person in measured_people()[::5]:
        whole = whole_body(person)
        known = {s: whole[s] for s in random.sample(sorted(whole), random.randrange(len(whole)))}
        for estimate in missing_measures(known).values():
            what = measures()[estimate.symbol]
            assert 0.6 * what.low < estimate.cm < 1.4 * what.high
            assert estimate.spread > 0
            assert estimate.worked


def test_an_estimate_from_estimates_is_less_certain_than_one_from_measures():
    near = missing_measures({"bust_girth": 92.0, "high_bust_girth": 87.0, "height": 168.0, "bicep_girth": 28.0})
    far = missing_measures({"bust_girth": 92.0})
    assert far["wrist_girth"].spread > near["wrist_girth"].spread
    assert plain(near["wrist_girth"].worked) == "0.22 × 28 + 0.05 × 168 + 1.2"


def test_a_taken_value_always_wins():
    assert whole_body({"bust_girth": 92.0, "neck_girth": 40.0})["neck_girth"] == 40.0
    assert "neck_girth" not in missing_measures({"bust_girth": 92.0, "neck_girth": 40.0})
