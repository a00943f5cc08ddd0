"""Measuring alone: what is less certain, what is offered, and what it does to the draft; what to prepare."""

import pytest

from izett.catalogue import catalogue
from izett.checking.check import Garment, Verdict, run
from izett.drafting.method import draft
from izett.drafting.methods.bodice import METHOD
from izett.errors import ValueOutOfRange
from izett.measuring.alone import less_certain, offered, offers
from izett.measuring.derived import DERIVED, derived_from
from izett.measuring.measure import measures
from izett.measuring.preparation import preparation
from tests.bodies import some_bodies
from tests.core.invariants import broken

BODY = {"bust_girth": 92.0, "waist_girth": 74.0, "height": 168.0, "high_bust_girth": 87.0, "across_back": 35.0}


def test_alone_what_lies_behind_is_less_certain_and_with_a_helper_nothing_is():
    assert set(less_certain(BODY, taken_by="alone")) == {"bust_girth", "across_back"}
    assert less_certain(BODY, taken_by="helper") == ()
    for symbol in ("across_back", "back_waist_length", "shoulder_length", "across_shoulder"):
        assert measures()[symbol].needs_help


def test_back_expansion_is_offered_to_whoever_measured_alone_and_is_off_until_chosen():
    assert [offer.allowance for offer in offered(BODY, taken_by="alone")] == ["back_expansion"]
    assert offered(BODY, taken_by="helper") == ()
    for offer in offers():
        allowance = METHOD.sheet.allowance(offer.allowance)
        assert allowance.default == 0
        assert (allowance.low, allowance.high) == (offer.low, offer.high)
        assert offer.low < offer.usual <= offer.high


@pytest.mark.parametrize("body", some_bodies(20))
def test_back_expansion_widens_the_back_by_its_half_and_leaves_the_front(body):
    plain = draft(METHOD, body)
    wide = draft(METHOD, body, overrides={"back_expansion": 2.5})
    assert list(broken(wide)) == []
    shift = wide.values["side_shift"] - plain.values["side_shift"]
    if wide.values["bust_ease"] == plain.values["bust_ease"]:
        assert wide.values["back_width"] - plain.values["back_width"] - shift == pytest.approx(1.25)
        assert wide.values["front_width"] - plain.values["front_width"] + shift == pytest.approx(0)


def test_with_back_expansion_the_ease_is_still_as_meant():
    wide = draft(METHOD, BODY, overrides={"back_expansion": 2.5})
    check = catalogue().checks["ease_as_meant"]
    found = [r.finding for r in run(check, Garment(wide.pattern, wide.values)) if r.finding.where == ("bust",)]
    assert found[0].verdict is Verdict.PASSES
    with pytest.raises(ValueOutOfRange):
        draft(METHOD, BODY, overrides={"back_expansion": 9.0})


def test_what_to_prepare_begins_with_what_is_worn_and_ties_the_elastic():
    items = preparation()
    assert [item.key for item in items[:3]] == ["worn", "waist", "neck"]
    assert all(item.title and item.says.endswith(".") for item in items)
    assert len({item.key for item in items}) == len(items)


def test_plain_sums_follow_from_what_was_taken():
    """Back arc, cup difference, length difference and hood height as the trade reckons them; common practice."""
    taken = {
        "bust_girth": 92.0, "front_bust_arc": 48.0, "high_bust_girth": 87.0, "front_length": 45.0, "back_length": 42.5,
        "waist_girth": 74.0, "hip_girth": 98.0, "apex_span": 19.0, "hood_loop": 72.0, "waist_to_floor": 104.0,
        "underbust_girth": 77.0,
    }  # fmt: skip
    assert {d.key: cm for d, cm in derived_from(taken)} == {
        "back_bust_arc": 44, "half_apex_span": 9.5, "cup_difference": 5, "bust_over_underbust": 15,
        "length_difference": 2.5, "waist_drop": 18, "hip_drop": 24, "hood_height": 36, "trouser_side_length": 102,
    }  # fmt: skip
    assert len(DERIVED) == 9
    assert derived_from({"bust_girth": 92.0}) == []
