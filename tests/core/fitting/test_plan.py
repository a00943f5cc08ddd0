"""The plan of a round: the order of work, one change for several findings, what is at odds, what was tried before."""

import pytest

from izett.fitting.finding import Work, finding_kind
from izett.fitting.plan import plan, with_deeds
from izett.fitting.working_out import Adding, Seen
from izett.pattern.facts import Half
from izett.recipe.model import Recipe, Step
from tests.garments import BODY, DRESS, DRESS_BLOCKS


@pytest.fixture(scope="module")
def dress(evaluator):
    steps = tuple(Step(f"s{i}", kind, params) for i, (kind, params) in enumerate(DRESS))
    recipe = Recipe("bodice", BODY, also=DRESS_BLOCKS[1:], steps=steps)
    return recipe, evaluator.evaluate(recipe)


def planned(evaluator, dress, *found, **about):
    recipe, evaluation = dress
    seen = [Seen(finding_kind(kind), given, uid=f"f{i}", **more) for i, (kind, given, more) in enumerate(found)]
    return plan(seen, recipe, evaluation, evaluator.evaluate, **about)


def test_lengths_come_before_widths_the_shoulder_before_the_sleeve_and_the_hem_last(evaluator, dress):
    made = planned(
        evaluator,
        dress,
        ("too_long", {}, {}),
        ("sleeve_twists", {}, {}),
        ("sides_tight", {}, {}),
        ("shoulder_long", {}, {}),
        ("waist_low", {}, {}),
    )
    assert [one.seen.kind.key for one in made.findings] == [
        "waist_low", "shoulder_long", "sides_tight", "sleeve_twists", "too_long",
    ]  # fmt: skip
    order = list(Work)
    assert order.index(Work.BUST) < order.index(Work.DART) < order.index(Work.WIDTH)
    assert order.index(Work.CROTCH) < order.index(Work.LEG)


def test_changes_that_add_up_are_one_for_both_findings(evaluator, dress):
    made = planned(
        evaluator,
        dress,
        ("sides_tight", {"bust": 2.0, "waist": 0.0, "hip": 0.0}, {}),
        ("hip_loose", {"over": 1.0}, {}),
        ("waist_high", {"high": 1.0}, {}),
    )
    (together,) = [one for one in made.deeds if len(one.uids) > 1]
    assert together.uids == ("f0", "f1")
    assert isinstance(together.deed, Adding)
    assert (together.deed.params["underarm"], together.deed.params["hip"]) == (0.5, -0.25)
    assert made.came is not None and made.came.touched and not made.came.failing


def test_what_undoes_another_and_what_may_have_one_cause_is_named(evaluator, dress):
    undo = planned(
        evaluator,
        dress,
        ("sides_tight", {"waist": 2.0, "bust": 0.0}, {}),
        ("sides_loose", {"waist": 1.0, "bust": 0.0}, {}),
    )
    assert any("undo each other" in one.words for one in undo.conflicts)
    cause = planned(evaluator, dress, ("bust_tight", {}, {}), ("armhole_gapes_front", {}, {}), ("waist_low", {}, {}))
    assert not any("undo" in one.words for one in cause.conflicts)
    same = planned(evaluator, dress, ("waist_low", {}, {}), ("waist_low", {"low": 2.0}, {}))
    assert any("recorded twice" in one.words for one in same.conflicts)
    sides = ({"half": Half.LEFT}, {"half": Half.RIGHT})
    apart = planned(evaluator, dress, *(("one_shoulder_low", {}, side) for side in sides))
    assert apart.conflicts == ()


def test_a_remedy_that_did_not_help_is_offered_after_the_others(evaluator, dress):
    fresh = planned(evaluator, dress, ("waist_low", {}, {}))
    assert fresh.findings[0].chosen.remedy.key == "shorten"
    again = planned(evaluator, dress, ("waist_low", {}, {"tried": ("shorten",)}))
    assert again.findings[0].chosen.remedy.key == "transpose"
    assert [way.was_tried for way in again.findings[0].ways] == [False, True]
    wished = planned(evaluator, dress, ("waist_low", {}, {}), chosen={"f0": "transpose"})
    assert wished.findings[0].chosen.remedy.key == "transpose"


def test_what_cannot_be_done_here_says_why(evaluator, dress):
    made = planned(evaluator, dress, ("crotch_cuts", {}, {}), ("waist_low", {}, {}))
    by_key = {one.seen.kind.key: one for one in made.findings}
    assert "trousers" in by_key["crotch_cuts"].refused.message
    assert by_key["crotch_cuts"].chosen is None and by_key["waist_low"].chosen is not None


def test_a_step_let_out_beyond_the_muslins_allowance_is_told(evaluator, dress):
    made = planned(evaluator, dress, ("sides_tight", {"bust": 12.0, "waist": 12.0, "hip": 0.0}, {}))
    assert "the next one shows it" in made.findings[0].ways[0].came.beyond
    little = planned(evaluator, dress, ("sides_tight", {"bust": 2.0, "waist": 2.0, "hip": 0.0}, {}))
    assert little.findings[0].ways[0].came.beyond == ""


def test_a_plan_is_tried_and_changes_nothing(evaluator, dress):
    recipe, evaluation = dress
    made = planned(evaluator, dress, ("back_tight", {"missing": 0.8}, {}))
    assert evaluator.evaluate(recipe).pattern == evaluation.pattern
    after = evaluator.evaluate(with_deeds(recipe, [one.deed for one in made.deeds], ["a"]))
    assert made.came.moved and after.pattern != evaluation.pattern
    assert any("Re-cap" in words for words in made.came.follows)
