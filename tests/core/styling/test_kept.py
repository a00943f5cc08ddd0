"""What a step must not change is read after it: a step that loses paper or a seam says so, the shipped ones do not."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely import Polygon

from izett.catalogue import catalogue
from izett.geometry.point import add
from izett.pattern.facts import Half
from izett.pattern.redraw import redrawn
from izett.pattern.working import Working
from izett.recipe.evaluator import Evaluator
from izett.recipe.model import Recipe, Step
from izett.styling.kept import lost, paper
from izett.styling.operation import Keeps, Operation, Outcome, Section
from izett.styling.references import Params
from tests.bodies import with_hips
from tests.core.styling.worked import worked

EXAMPLES = [(key, example) for key, o in catalogue().operations.items() if o.keeps for example in o.examples]
BODIES = [{"height": 165.0, **body} for body in with_hips(75)]


@pytest.mark.parametrize(("kind", "params"), EXAMPLES, ids=lambda value: value if isinstance(value, str) else "")
def test_no_step_changes_what_it_must_not(evaluator, kind, params):
    operation = catalogue().operations[kind]
    for body in BODIES:
        evaluation = worked(evaluator, body, *operation.before, (kind, params), blocks=operation.blocks)
        assert [s for s in evaluation.stages[-1].sums if s.what.startswith("check this")] == []


def _spoilt(params: Params, context):
    """A step with a fault: it moves the underarm of the back, and calls that nothing."""
    piece = context.piece_with("back.underarm")
    spot = add(piece.vertex("back.underarm"), (2.0, 0.8))
    return Outcome(context.garment.with_pieces(redrawn(piece, moves={"back.underarm": spot})))


def test_a_step_that_loses_a_seam_or_paper_says_so_beside_its_sums(middling):
    fault = Operation("spoilt", "Spoilt", Params, _spoilt, lambda _: "Spoilt", keeps=frozenset(Keeps))
    shelf = replace(catalogue(), operations={**catalogue().operations, "spoilt": fault})
    evaluation = Evaluator(shelf).evaluate(Recipe("bodice", middling, steps=(Step("x", "spoilt", {}),)))
    said = {s.what: s.value for s in evaluation.stages[0].sums}
    assert said["check this: paper gained or lost"] > 10
    assert any("side seam" in what for what in said)


@pytest.mark.parametrize("half", [Half.BOTH, Half.LEFT])
def test_a_seam_that_follows_a_fit_step_is_not_lost_and_in_the_style_it_is(evaluator, half):
    """A wider back changes its armhole: in the fit section the cap follows by itself, in the style it must be looked at."""
    wider = Step("w", "widen_across", {"part": "back", "amount": 0.6}, half=half)

    def warned(section):
        steps = (replace(wider, section=section),)
        stages = evaluator.evaluate(Recipe("bodice", BODIES[0], also=("sleeve",), steps=steps)).stages
        return [s.what for stage in stages for s in stage.sums if s.what.startswith("check this")]

    assert warned(Section.FIT) == []
    assert warned(Section.STYLE) == ["check this: the cap seam has changed by"]


@given(st.sampled_from(BODIES), st.floats(0.2, 0.8))
def test_the_paper_of_a_piece_is_its_area_with_the_darts_cut_out_to_their_pivots(evaluator, body, fraction):
    """Against shapely: the outline's polygon less the wedges that the darts leave between mouth and pivot."""
    at = {"start": "front.neck_shoulder", "end": "front.shoulder_tip", "along": "front.shoulder", "fraction": fraction}
    evaluation = worked(
        evaluator, body, ("move_dart", {"dart": "front.bust_dart", "to": at, "share": 0.5}), blocks=("bodice",)
    )
    for pattern in (evaluation.draft.pattern, evaluation.pattern):
        for piece in pattern:
            mouths = [
                (piece.vertex(d.mouth[0]), piece.vertex(d.tip), piece.vertex(d.mouth[1]), d.pivot) for d in piece.darts
            ]
            whole = Polygon(piece.outline())
            for a, tip, b, pivot in mouths:
                whole = whole.difference(Polygon([a, tip, b, pivot]).buffer(0))
            assert paper(piece) == pytest.approx(whole.area, abs=0.5)
    before = Working(evaluation.draft.pattern)
    assert lost(frozenset(Keeps), before, before.with_pieces(*evaluation.pattern)) == ()
