"""Sections of a recipe: what a fitting told acts under the style and reaches all that is sewn to it."""

import pytest

from izett.catalogue import catalogue
from izett.pattern.facts import SeamKind
from izett.recipe.model import Recipe, Step
from izett.styling.operation import Section
from tests.garments import BODY


def test_a_fit_step_acts_before_the_style_wherever_it_was_entered(evaluator):
    style = (Step("p", "princess", {"start": _armhole(0.55), "bow": 1.2}),)
    wide = Step("w", "widen_across", {"part": "front", "amount": 0.3})
    late = Recipe("bodice", BODY, steps=(*style, Step("w", wide.kind, wide.params, section=Section.FIT)))
    early = Recipe("bodice", BODY, steps=(wide, *style))
    assert evaluator.evaluate(late).pattern.pieces == evaluator.evaluate(early).pattern.pieces
    last = evaluator.evaluate(Recipe("bodice", BODY, steps=(*style, wide)))
    assert last.pattern.pieces != evaluator.evaluate(early).pattern.pieces


def _armhole(fraction):
    return {"start": "front.underarm", "end": "front.shoulder_tip", "along": "front.armhole", "fraction": fraction}


def test_what_lies_under_the_style_is_the_block_with_what_the_fitting_told(evaluator):
    fit = Step("f", "change_side", {"underarm": 0.5}, section=Section.FIT)
    style = Step("n", "change_neckline", {"front": 4.0})
    both = evaluator.evaluate(Recipe("bodice", BODY, steps=(style, fit)))
    assert both.source == evaluator.evaluate(Recipe("bodice", BODY, steps=(fit,))).pattern


def test_a_step_stands_where_its_kind_may_stand_whatever_it_says(evaluator):
    cap = Step("c", "recap_sleeve", {}, section=Section.FIT)
    evaluation = evaluator.evaluate(Recipe("bodice", BODY, also=("sleeve",), steps=(cap,)))
    assert evaluation.stages[0].section is Section.FOLLOW
    for operation in catalogue().operations.values():
        assert operation.sections, operation.key


def test_a_sleeve_follows_the_final_armhole_after_a_change_of_ease(evaluator):
    """A later change of the armhole used to leave the cap 3.3 cm off."""
    steps = (Step("e", "change_ease", {"bust": 4.0}), Step("a", "change_armhole", {"lower": 2.0}))
    evaluation = evaluator.evaluate(Recipe("bodice", BODY, also=("sleeve",), steps=steps))
    follower = evaluation.stages[-1]
    assert follower.follows == ("e",)
    assert follower.section is Section.FOLLOW
    assert [r.words for r in evaluation.results if r.check == "seams_match" and r.finding.verdict == "fails"] == []


def test_what_the_recipe_says_of_the_cap_itself_is_not_said_again(evaluator):
    steps = (
        Step("f", "widen_across", {"part": "back", "amount": 0.4}, section=Section.FIT),
        Step("c", "recap_sleeve", {"by": "height", "ease": 2.0}),
    )
    stages = evaluator.evaluate(Recipe("bodice", BODY, also=("sleeve",), steps=steps)).stages
    assert [stage.step.kind for stage in stages] == ["widen_across", "recap_sleeve"]


def test_the_skirt_follows_a_transposed_waist_in_length_and_width(evaluator):
    up = 1.5
    steps = (Step("t", "transpose_waist", {"up": up}, section=Section.FIT),)
    plain = evaluator.evaluate(Recipe("bodice", BODY, also=("skirt",))).pattern
    moved = evaluator.evaluate(Recipe("bodice", BODY, also=("skirt",), steps=steps)).pattern
    centre = [
        sum(e.curve.length for e in p.piece("skirt_front").edges if e.role.value == "centre_front")
        for p in (plain, moved)
    ]
    assert centre[1] - centre[0] == pytest.approx(up, abs=1e-6)
    from izett.pattern.sewn import seam_lengths

    (seam,) = moved.seams_of(SeamKind.WAIST)
    first, second = seam_lengths(moved, seam)
    assert first == pytest.approx(second, abs=1e-4)
