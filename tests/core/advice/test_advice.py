"""What a measure is worth: effects by re-drafting, darts by source, sheets compared."""

from math import isfinite

import pytest

from izett.advice.darts import darts_by_source
from izett.advice.effect import advise, effect_of
from izett.advice.sheets import differences, piece_changes
from izett.catalogue import catalogue
from izett.drafting.method import measures_used
from izett.measuring.measure import measure
from izett.recipe.evaluator import Evaluator
from izett.recipe.model import Recipe, Step
from tests.bodies import some_bodies

BODY = {"bust_girth": 92.0, "waist_girth": 74.0, "height": 168.0, "high_bust_girth": 87.0}
RECIPE = Recipe("bodice", BODY)


@pytest.fixture(scope="module")
def evaluator():
    return Evaluator(catalogue())


def test_what_to_take_next_is_ranked_by_how_far_its_estimate_may_move_the_draft(evaluator):
    following = advise(evaluator, RECIPE).next
    moves = [n.by_spread.moves for n in following]
    assert moves == sorted(moves, reverse=True)
    used = measures_used(catalogue().method("bodice"))
    assert {n.estimate.symbol for n in following} == {s for s in used if s not in BODY and measure(s).body}
    for n in following:
        assert n.by_tolerance.off == measure(n.estimate.symbol).tolerance
        assert n.by_tolerance.moves <= n.by_spread.moves + 0.01


def test_advice_says_how_far_it_has_come_and_can_be_stopped_at_any_measure(evaluator):
    told = []
    advise(evaluator, RECIPE, lambda done, of: told.append((done, of)))
    used = measures_used(catalogue().method("bodice"))
    assert told == [(done, len(used)) for done in range(1, len(used) + 1)]

    class Enough(Exception):
        pass

    def stop(done, of):
        if done == 2:
            raise Enough

    with pytest.raises(Enough):
        advise(evaluator, RECIPE, stop)


def test_the_effect_is_what_drafting_again_shows(evaluator):
    """1 cm of nape to waist moves the back's neck by 1 cm: everything above the waist hangs on it. Common practice."""
    body = {**BODY, "back_waist_length": 41.0, "armhole_depth": 19.5, "front_length": 44.5}
    effect = effect_of(evaluator, Recipe("bodice", body), "back_waist_length", around=41.0, off=1.0)
    assert "bodice_back: back.neck" in effect.lines
    assert 0.9 < effect.moves < 2.0


def test_a_measure_that_the_draft_does_not_use_moves_nothing(evaluator):
    effect = effect_of(evaluator, RECIPE, "ankle_girth", around=22.0, off=3.0)
    assert effect.moves == 0
    assert effect.lines == ()


def test_a_measure_that_makes_the_draft_impossible_has_no_end_of_effect(evaluator):
    effect = effect_of(evaluator, RECIPE, "neck_to_apex", around=14.0, off=10.0)
    assert not isfinite(effect.moves)


def test_effects_are_worked_through_the_steps_of_the_recipe(evaluator):
    moved = Step("s-wider", "widen_across", {"part": "back", "by": 0.4})
    for effect in advise(evaluator, Recipe("bodice", BODY, steps=(moved,))).effects:
        assert effect.symbol in BODY
        assert effect.off == measure(effect.symbol).tolerance
        assert effect.moves >= 0


@pytest.mark.parametrize("body", some_bodies(12))
def test_of_the_darts_by_source_the_drawn_one_is_the_drafts(evaluator, body):
    darts = darts_by_source(body)
    drawn = [dart for dart in darts if dart.counts]
    assert len(drawn) == 1
    values = evaluator.evaluate(Recipe("bodice", body)).draft.values
    if drawn[0].source.key in ("lengths", "bust_difference"):
        assert drawn[0].degrees == pytest.approx(values["bust_dart_angle"], abs=1e-6)


def test_a_cup_letter_counts_only_where_nothing_better_was_taken():
    """A cup difference of 5 cm gives 15°: a B, by the rule of the block."""
    few = {"bust_girth": 92.0, "waist_girth": 74.0, "height": 168.0, "cup": 15.0}
    by_cup = {d.source.key: d for d in darts_by_source(few)}
    assert by_cup["cup"].counts
    assert by_cup["cup"].degrees == pytest.approx(15.0)
    assert by_cup["lengths"].missing == ("front_length", "back_waist_length")
    better = {d.source.key: d for d in darts_by_source({**few, "high_bust_girth": 84.0})}
    assert better["bust_difference"].counts
    assert not better["cup"].counts


def test_two_sheets_are_compared_by_the_tapes_tolerance():
    found = {
        d.symbol: d
        for d in differences(
            {"bust_girth": 92.0, "waist_girth": 74.0}, {"bust_girth": 92.8, "waist_girth": 76.0, "hip_girth": 98.0}
        )
    }
    assert not found["bust_girth"].beyond
    assert found["waist_girth"].beyond
    assert found["hip_girth"].before is None


def test_a_draft_from_another_sheet_tells_which_pieces_change_most(evaluator):
    other = Recipe("bodice", {**BODY, "waist_girth": 79.0})
    changes = piece_changes(evaluator, RECIPE, other)
    assert {c.piece for c in changes} == {"bodice_front", "bodice_back"}
    assert [c.distance for c in changes] == sorted((c.distance for c in changes), reverse=True)
    assert piece_changes(evaluator, RECIPE, RECIPE) == []
    # A waist that is 5 cm larger shows in the waist: each quarter gains more of it than of any other line.
    assert {c.stretched.split(".")[1] for c in changes} <= {"waist", "side", "centre"}
    assert all(abs(c.length_after - c.length_before) > 0.2 for c in changes)


def test_what_to_take_next_is_asked_of_all_blocks_that_are_drafted(evaluator, middling):
    recipe = Recipe("bodice", {**middling, "hip_girth": 98.0}, also=("sleeve", "skirt"))
    following = {n.estimate.symbol: n for n in advise(evaluator, recipe).next}
    assert {"arm_length", "waist_to_hip", "bicep_girth", "armhole_depth"} <= set(following)
    assert all(line.startswith("sleeve: ") for line in following["arm_length"].by_spread.lines)
    assert following["waist_to_knee"].by_spread.lines[0].startswith("skirt_")
    effects = {effect.symbol: effect for effect in advise(evaluator, recipe).effects}
    assert any(line.startswith("skirt_") for line in effects["hip_girth"].lines)
    assert not any(line.startswith(("bodice", "sleeve")) for line in effects["hip_girth"].lines)
