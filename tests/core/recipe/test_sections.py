"""Sections of a recipe: what a fitting told acts under the style and reaches all that is sewn to it."""

import pytest

from izett.catalogue import catalogue
from izett.checking.check import Verdict
from izett.drafting.ease import Cloth, Kind
from izett.errors import ReferenceLost, StepRefused
from izett.fitting.finding import finding_kinds, worked
from izett.geometry.outline import crossing
from izett.pattern.facts import Half, SeamKind
from izett.recipe.model import Recipe, Step
from izett.styling.operation import Section
from tests.bodies import with_hips
from tests.garments import BODY, DRESS

KNIT = {"fit": "easy", "cloth": Cloth(Kind.KNIT, 40)}
GARMENTS = {
    "bodice": (("bodice",), [], {}),
    "bodice, sleeve and skirt": (("bodice", "sleeve", "skirt"), [], {}),
    "princess dress": (("bodice", "sleeve", "skirt"), DRESS, {}),
    "torso and sleeve": (("torso", "sleeve"), [], {}),
    "knit top and sleeve": (("knit_top", "knit_sleeve"), [], KNIT),
}
REMEDIES = [(kind, remedy) for kind in finding_kinds().values() for remedy in kind.remedies]
#: Remedies that a garment has no use for: no waist seam, no dart to aim, no room inside the shoulder tip.
NOT_ON = {
    "torso and sleeve": {"waist_low/transpose", "waist_high/transpose", "bust_dart_aims/aim"},
    "knit top and sleeve": {
        "waist_low/transpose", "waist_high/transpose", "bust_dart_aims/aim", "bust_dart_aims/aim_bust_only",
        "dart_bubble/set_back", "dart_bubble/share", "back_tight/off_tip",
    },
}  # fmt: skip


@pytest.mark.parametrize("half", [Half.BOTH, Half.LEFT])
@pytest.mark.parametrize("garment", GARMENTS)
def test_every_remedy_under_the_style_leaves_all_in_agreement(evaluator, garment, half):
    blocks, steps, about = GARMENTS[garment]
    style = tuple(Step(f"s{i}", kind, params) for i, (kind, params) in enumerate(steps))
    acted, bodies = 0, (BODY, *with_hips(400))
    for body in bodies:
        plain = evaluator.evaluate(Recipe(blocks[0], body, also=blocks[1:], steps=style, **about))
        before = _told(plain)
        for kind, remedy in REMEDIES:
            plan = worked(kind, remedy, {}, half=half)
            fit = tuple(
                Step(f"f{i}", key, params, section=Section.FIT, half=half) for i, (key, params) in enumerate(plan.steps)
            )
            after = evaluator.evaluate(Recipe(blocks[0], body, also=blocks[1:], steps=(*style, *fit), **about))
            failed = [stage for stage in after.stages if stage.failure is not None]
            if f"{kind.key}/{remedy.key}" in NOT_ON.get(garment, ()):
                assert all(isinstance(stage.failure, StepRefused | ReferenceLost) for stage in failed)
                continue
            if failed and remedy.key == "off_tip" and "past the shoulder tip" in str(failed[0].failure):
                continue
            acted += 1
            assert [str(stage.failure) for stage in failed] == [], (kind.key, remedy.key)
            assert _told(after) - before == set(), (kind.key, remedy.key)
            assert [piece.name for piece in after.pattern if crossing(piece.outline())] == []
    meant = len(REMEDIES) - len(NOT_ON.get(garment, ()))
    assert acted >= 0.9 * meant * len(bodies)


def _told(evaluation) -> set[str]:
    return {result.words for result in evaluation.results if result.finding.verdict is Verdict.FAILS}


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
