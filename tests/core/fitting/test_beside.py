"""A drape beside the draft of the same body: what differs is read, and what is offered brings the draft there."""

import pytest

from izett.draping.form import Hand, draped
from izett.fitting.beside import SEEN, changes_taught, differences, eases_taught
from izett.fitting.garment import Fitted
from izett.fitting.plan import with_deeds
from izett.fitting.readings import reading
from izett.recipe.model import Recipe, Step
from tests.bodies import with_hips

BODIES = [{"height": 165.0, **body} for body in with_hips(240)]
#: What hangs on the form, by the reading that it is meant to change, and by how much, cm.
HUNG = {
    "across the back": (("widen_across", {"part": "back", "amount": 0.35, "surplus": "off_tip"}), 0.7),
    "shoulder": (("change_shoulder", {"amount": 0.8}), 0.8),
}
EXACT = Hand(scatter=0.0, tape=0.0, seed=1)


def drape_of(evaluator, body, *steps, **about):
    """The recipe of what a session on the form made of a bodice that hangs there."""
    made = tuple(Step(f"h{i}", kind, params) for i, (kind, params) in enumerate(steps))
    hung = evaluator.evaluate(Recipe("bodice", body, steps=made, **about))
    assert [stage.failure for stage in hung.stages] == [None] * len(steps)
    return Recipe("", body, given=draped(hung.pattern, EXACT))


def draft_of(evaluator, body):
    recipe = Recipe("bodice", body)
    return Fitted(recipe, evaluator.evaluate(recipe, owner="beside"))


def test_a_drape_of_the_draft_itself_differs_by_nothing_but_the_pencil(evaluator):
    compared = 0
    for body in BODIES:
        draft = draft_of(evaluator, body)
        found = differences(evaluator.evaluate(drape_of(evaluator, body)), draft.evaluation)
        assert {"around the bust", "around the waist", "across the back", "shoulder"} <= {one.what for one in found}
        odd = [(one.what, round(one.by, 2)) for one in found if abs(one.by) > 2 * SEEN]
        assert odd == []
        compared += len(found)
    assert compared >= 10 * len(BODIES)


@pytest.mark.parametrize("what", list(HUNG))
def test_what_the_drape_let_out_is_told_and_what_is_offered_brings_the_draft_there(evaluator, what):
    step, by = HUNG[what]
    acted = 0
    for body in BODIES:
        draft = draft_of(evaluator, body)
        drape = evaluator.evaluate(drape_of(evaluator, body, step))
        (told,) = [one for one in differences(drape, draft.evaluation) if one.what == what]
        assert told.by == pytest.approx(by, abs=0.25)
        for way in changes_taught(told, draft):
            names = [f"learned{i}" for i in range(len(way.worked.deeds))]
            after = evaluator.evaluate(with_deeds(draft.recipe, way.worked.deeds, names), owner="beside")
            if any(stage.failure for stage in after.stages):
                continue
            assert reading(after, what) == pytest.approx(told.drape, abs=0.15), way.worked.remedy.key
            acted += 1
    assert acted >= len(BODIES)


def test_an_ease_that_was_draped_is_offered_as_the_blocks(evaluator, middling):
    draft = draft_of(evaluator, middling)
    usual = {ease.key: ease for ease in draft.evaluation.draft.eases()}["bust"]
    wanted = usual.total / usual.around + 0.5
    drape = evaluator.evaluate(drape_of(evaluator, middling, overrides={usual.symbol: wanted}))
    (told,) = [one for one in differences(drape, draft.evaluation) if one.what == "around the bust"]
    (ease,) = eases_taught(told, draft.evaluation)
    assert (ease.symbol, ease.around) == (usual.symbol, pytest.approx(usual.total + 0.5 * usual.around, abs=0.3))
    again = evaluator.evaluate(Recipe("bodice", middling, overrides={ease.symbol: ease.value}))
    assert reading(again, "around the bust") == pytest.approx(told.drape, abs=0.1)


def test_what_ends_elsewhere_is_not_compared_to_its_end(evaluator, middling):
    """A top to the hip beside a bodice to the waist: their centre fronts are no comparison, their shoulders are."""
    top = evaluator.evaluate(Recipe("torso", middling))
    found = {one.what for one in differences(top, draft_of(evaluator, middling).evaluation)}
    assert "shoulder" in found
    assert not found & {"centre front", "centre back", "side behind"}
