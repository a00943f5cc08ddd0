"""An acceptance is about one finding: the check with its question, the thing, its half, up to an amount and in one direction."""

from dataclasses import replace

import pytest

from izett.catalogue import catalogue
from izett.checking.check import Finding, Verdict, Worse, told
from izett.pattern.document import ANY_ASPECT, Accepted
from izett.pattern.facts import Half
from izett.recipe.model import Recipe, Step

CHECK = catalogue().checks["darts_true"]


@pytest.fixture
def pattern(evaluator, middling):
    return evaluator.evaluate(Recipe("bodice", middling)).pattern


def verdict_of(pattern, finding, *accepted):
    return told(CHECK, replace(pattern, accepted=accepted), finding).finding.verdict


def accepted(aspect="intake", up_to=5.0, half=Half.BOTH, worse="more"):
    return Accepted("darts_true", ("front.bust_dart",), up_to, "meant so", aspect, half, worse)


def finding(aspect="intake", amount=4.5, half=Half.BOTH, worse=Worse.MORE):
    return Finding(Verdict.WARNS, ("front.bust_dart",), amount, 4.0, aspect=aspect, half=half, worse=worse)


def test_one_question_accepted_leaves_the_others_open(pattern):
    assert verdict_of(pattern, finding("intake"), accepted("intake")) is Verdict.ACCEPTED
    assert verdict_of(pattern, finding("legs"), accepted("intake")) is Verdict.WARNS
    assert verdict_of(pattern, finding("legs"), accepted(ANY_ASPECT)) is Verdict.ACCEPTED


def test_where_less_is_worse_a_smaller_amount_opens_it_again(pattern):
    short = accepted("short", up_to=3.0, worse="less")
    assert verdict_of(pattern, finding("short", 3.2, worse=Worse.LESS), short) is Verdict.ACCEPTED
    assert verdict_of(pattern, finding("short", 2.8, worse=Worse.LESS), short) is Verdict.WARNS


def test_where_more_is_worse_a_larger_amount_opens_it_again(pattern):
    assert verdict_of(pattern, finding(amount=5.0), accepted(up_to=5.0)) is Verdict.ACCEPTED
    assert verdict_of(pattern, finding(amount=5.2), accepted(up_to=5.0)) is Verdict.WARNS


def test_one_half_accepted_leaves_the_other_open(pattern):
    left = accepted(half=Half.LEFT)
    assert verdict_of(pattern, finding(half=Half.LEFT), left) is Verdict.ACCEPTED
    assert verdict_of(pattern, finding(half=Half.RIGHT), left) is Verdict.WARNS
    assert verdict_of(pattern, finding(half=Half.RIGHT), accepted(half=Half.BOTH)) is Verdict.ACCEPTED


def test_a_click_accepts_what_it_shows_and_nothing_else(evaluator, middling):
    """A cap too low for an armhole that was lowered: one of its faults accepted, the others are still told."""
    made = (Step("h", "shape_cap", {"height": -6.0}), Step("l", "change_armhole", {"lower": 2.0}))
    recipe = Recipe("bodice", middling, also=("sleeve",), steps=made)
    cap = [
        r for r in evaluator.evaluate(recipe).results if r.check == "sleeve_fits" and r.finding.verdict is Verdict.WARNS
    ]
    assert len({r.finding.aspect for r in cap}) >= 2
    taken = cap[0].finding
    params = {
        "check": "sleeve_fits", "where": taken.where, "aspect": taken.aspect, "up_to": taken.amount,
        "worse": taken.worse.value, "on": taken.half.value, "reason": "meant so",
    }  # fmt: skip
    accept = Step("a", "accept", params, version=2)
    after = evaluator.evaluate(replace(recipe, steps=(*made, accept)))
    states = {r.finding.aspect: r.finding.verdict for r in after.results if r.check == "sleeve_fits"}
    assert states[taken.aspect] is Verdict.ACCEPTED
    assert [states[r.finding.aspect] for r in cap[1:]] == [r.finding.verdict for r in cap[1:]]
