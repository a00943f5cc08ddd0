"""What moved between two states is told of each half, also where one of them still had both alike."""

from dataclasses import replace

import pytest

from izett.fitting.compare import moves
from izett.pattern.facts import Half
from izett.pattern.halves import doubled, origin
from izett.recipe.model import Recipe, Step
from izett.styling.operation import Section
from tests.garments import BODY, DRESS


def dress(evaluator, half, *fit):
    style = tuple(Step(f"s{i}", kind, params) for i, (kind, params) in enumerate(DRESS))
    steps = tuple(Step(f"f{i}", kind, params, section=Section.FIT, half=half) for i, (kind, params) in enumerate(fit))
    return evaluator.evaluate(Recipe("bodice", BODY, also=("sleeve", "skirt"), steps=(*style, *steps))).pattern


FIT = (("change_side", {"underarm": -0.6, "waist": -0.4}), ("change_shoulder", {"amount": -0.5}))


@pytest.mark.parametrize("half", [Half.LEFT, Half.RIGHT])
def test_a_change_of_one_half_is_told_of_that_half_and_as_far_as_on_both(evaluator, half):
    before = dress(evaluator, Half.BOTH)
    both = {m.lineage: m.distance for m in moves(before, dress(evaluator, Half.BOTH, *FIT))}
    one = {m.lineage: m.distance for m in moves(before, dress(evaluator, half, *FIT))}
    assert len(both) > 8
    assert {origin(name).half for name in one} == {Half.RIGHT if half is Half.RIGHT else Half.BOTH}
    assert {origin(name).name: far for name, far in one.items()} == pytest.approx(both, abs=1e-6)


def test_what_was_apart_and_is_alike_again_is_told_too(evaluator):
    after = dress(evaluator, Half.BOTH)
    before = dress(evaluator, Half.RIGHT, *FIT)
    there = {m.lineage: round(m.distance, 6) for m in moves(before, after)}
    back = {m.lineage: round(m.distance, 6) for m in moves(after, before)}
    assert there == back != {}


def test_what_is_laid_under_two_halves_is_in_two_halves(evaluator):
    before, after = dress(evaluator, Half.BOTH), dress(evaluator, Half.LEFT, *FIT)
    under = doubled(before, after)
    assert {p.name for p in under} >= {p.name for p in after if "facing" not in p.title.lower()}
    assert doubled(before, before).pieces == before.pieces
    assert moves(under, under) == []
    assert replace(under, pieces=()) == replace(before, pieces=())
