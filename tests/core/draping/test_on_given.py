"""Steps, checks and fittings on given pieces: what acts on a drafted garment acts on it when it was draped."""

import pytest

from izett.catalogue import catalogue
from izett.checking.check import Verdict
from izett.draping.form import Hand, draped
from izett.draping.panel import Given
from izett.errors import DraftRefused
from izett.files.pattern_json import evaluated_document, read_pattern, write_pattern
from izett.files.recipe_json import RecipeDoc, read_recipe, write_recipe
from izett.finishing.sheet import sheet_pieces
from izett.recipe.evaluator import Evaluator
from izett.recipe.model import Recipe, Step
from tests.core.draping.test_ring import FOUR, panel
from tests.draped import BUSTIER, truth_of
from tests.garments import BODY
from tests.offered import taken

#: What a drape lacks, or has otherwise by what the hand was off: no ease is meant on it until somebody says so, and an
#: armhole that ends a hair within the shoulder tip has no room for more width there.
LACKING = {"bustier": set(), "sheath": {"change_ease", "widen_across"}}


@pytest.fixture(scope="module")
def evaluator():
    return Evaluator(catalogue())


def given_recipe(kind, seed=1, **more):
    return Recipe("", BODY, given=draped(truth_of(kind, BODY), Hand(seed=seed)), **more)


@pytest.mark.parametrize(("kind", "least"), [("bustier", 20), ("sheath", 35)])
def test_every_step_that_acts_on_the_drafted_garment_acts_on_the_draped_one(evaluator, kind, least):
    steps, block = (BUSTIER, "bodice") if kind == "bustier" else ((), "torso")
    made = tuple(Step(f"s{i}", key, params) for i, (key, params) in enumerate(steps))
    drafted, _, broke = taken(evaluator, Recipe(block, BODY, steps=made))
    mine, refused, mine_broke = taken(evaluator, given_recipe(kind))
    assert not broke
    assert not mine_broke
    assert len(drafted) >= least
    assert drafted - mine <= LACKING[kind], {key: refused.get(key, "not offered") for key in drafted - mine}


@pytest.mark.parametrize("kind", ["bustier", "sheath"])
def test_the_checks_of_the_drafted_garment_are_asked_of_the_draped_one_and_none_fails(evaluator, kind):
    drafted = evaluator.evaluate(Recipe("", BODY)).check(truth_of(kind, BODY))
    for seed in range(3):
        found = evaluator.evaluate(given_recipe(kind, seed)).results
        assert asked(drafted) - asked(found) <= {"ease_as_meant", "lift"}
        assert not [r.words for r in found if r.finding.verdict is Verdict.FAILS]


def asked(results):
    return {r.check for r in results if r.finding.verdict is not Verdict.NOT_APPLICABLE}


def test_an_eased_drape_is_checked_against_the_body(evaluator):
    recipe = given_recipe("bustier")
    meant = recipe.given.model_copy(update={"ease": {"bust": 60.0}})
    found = evaluator.evaluate(Recipe("", BODY, given=meant)).results
    (bust,) = [r for r in found if r.check == "ease_as_meant" and r.finding.where == ("bust",)]
    assert bust.finding.verdict is Verdict.WARNS
    assert bust.finding.amount < -40


def test_given_pieces_stand_beside_drafted_ones_and_names_that_clash_are_refused(evaluator):
    shirt = panel(*FOUR, name="plastron")
    both = evaluator.evaluate(Recipe("skirt", BODY, given=Given(panels=(shirt,)))).pattern
    assert {"plastron", "skirt_front"} <= {piece.name for piece in both}
    with pytest.raises(DraftRefused, match="another name|as well as a given one"):
        evaluator.evaluate(Recipe("bodice", BODY, given=Given(panels=(panel(*FOUR, name="front"),))))


def test_a_panel_that_does_not_close_leaves_the_others_and_is_told(evaluator):
    given = Given(panels=(panel(*FOUR), panel(*FOUR[:2], name="back")))
    found = evaluator.evaluate(Recipe("", BODY, given=given))
    assert [piece.name for piece in found.pattern] == ["front"]
    assert "panel-open" in {notice.code for notice in found.notices}


def test_nothing_given_and_nothing_drafted_is_an_empty_table(evaluator):
    found = evaluator.evaluate(Recipe("", BODY))
    assert not found.pattern.pieces
    assert not [r for r in found.results if r.finding.verdict is Verdict.FAILS]


def test_recipe_and_pattern_of_a_draped_garment_come_back_as_they_were_written(evaluator):
    recipe = given_recipe("bustier")
    document = RecipeDoc(block="", given=recipe.given)
    assert read_recipe(write_recipe(document)) == document
    assert document.recipe(BODY).given == recipe.given
    evaluation = evaluator.evaluate(recipe)
    pattern, _ = read_pattern(write_pattern(evaluated_document(evaluation, measures=BODY)))
    assert pattern.pieces == evaluation.pattern.pieces
    assert pattern.seams == evaluation.pattern.seams
    assert len(sheet_pieces(evaluation.pattern)) == 4
