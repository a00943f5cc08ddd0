import pytest

from izett.catalogue import catalogue
from izett.errors import UnknownName, ValueOutOfRange
from izett.fitting.compare import moves
from izett.fitting.finding import Taken, finding_kind, finding_kinds, worked
from izett.pattern.facts import Half
from izett.pattern.worn import width
from izett.recipe.model import Recipe, Step
from tests.bodies import some_bodies

REMEDIES = [
    pytest.param(kind.key, remedy.key, id=f"{kind.key}-{remedy.key}")
    for kind in finding_kinds().values()
    for remedy in kind.remedies
]


@pytest.mark.parametrize(("kind", "remedy"), REMEDIES)
def test_every_remedy_acts_on_most_bodies_and_keeps_the_seams(evaluator, kind, remedy):
    acted = 0
    bodies = some_bodies(20)
    for body in bodies:
        found = finding_kind(kind)
        plan = worked(found, found.remedy(remedy), {})
        steps = tuple(Step(f"s{i}", step, params) for i, (step, params) in enumerate(plan.steps))
        evaluation = evaluator.evaluate(Recipe("bodice", body, steps=steps))
        if any(stage.failure for stage in evaluation.stages):
            assert all(stage.failure is None or stage.failure.fix for stage in evaluation.stages)
            continue
        acted += 1
        assert [r.words for r in evaluation.results if r.finding.verdict == "fails"] == []
        assert moves(evaluation.draft.pattern, evaluation.pattern)
    assert acted >= 0.7 * len(bodies)


def test_the_data_is_sound():
    for kind in finding_kinds().values():
        assert kind.remedies and kind.inputs
        assert kind.spot.view in ("front", "back")
        # Amounts around are shared over the edges that are cut.
        symbols = {i.symbol for i in kind.inputs} | {"edges"}
        for remedy in kind.remedies:
            assert set(remedy.sum.uses) <= symbols
            for plan in remedy.steps:
                assert plan.kind in catalogue().operations
                for formula in plan.amounts.values():
                    assert set(formula.uses) <= symbols


def test_a_folded_pinch_is_half_of_the_cloth():
    kind = finding_kind("sides_loose")
    whole = worked(kind, kind.remedies[0], {"bust": 1.0, "waist": 2.0}, Taken.WHOLE)
    pinch = worked(kind, kind.remedies[0], {"bust": 1.0, "waist": 2.0}, Taken.PINCH)
    assert whole.steps[0][1] == {"underarm": -0.25, "waist": -0.5}
    assert pinch.steps[0][1] == {"underarm": -0.5, "waist": -1.0}
    assert pinch.sum_text == "−⟦4 cm⟧ ÷ 4"


@pytest.mark.parametrize("half", [Half.BOTH, Half.LEFT, Half.RIGHT])
@pytest.mark.parametrize(("key", "remedy", "sign"), [("sides_tight", "let_out", 1), ("sides_loose", "take_in", -1)])
def test_all_that_was_pinned_around_is_gained_whichever_side_it_is_on(evaluator, middling, key, remedy, sign, half):
    """Measured from outside, around the body: what was pinned on one side is taken there, on two edges in place of four."""
    kind = finding_kind(key)

    def gained(half):
        plan = worked(kind, kind.remedy(remedy), {"bust": 1.6, "waist": 1.0}, half=half)
        steps = tuple(Step(f"f{i}", step, params, half=half) for i, (step, params) in enumerate(plan.steps))
        before, after = (evaluator.evaluate(Recipe("bodice", middling, steps=s)).pattern for s in ((), steps))
        return {level: width(after, level) - width(before, level) for level in ("bust", "waist")}

    assert gained(half)["waist"] == pytest.approx(sign * 1.0, abs=0.03)
    # Given at the underarm, it runs out towards the waist: at the bust a little less, on one side as on both.
    assert 1.5 < sign * gained(half)["bust"] <= 1.6
    assert gained(half) == pytest.approx(gained(Half.BOTH), abs=0.001)
    assert kind.remedy(remedy).edges_on(half) == (4 if half is Half.BOTH else 2)


def test_a_girth_is_shared_over_the_edges_that_are_cut():
    kind = finding_kind("sides_tight")
    plan = worked(kind, kind.remedies[0], {"bust": 3.0, "waist": 1.0})
    assert plan.steps[0] == ("change_side", {"underarm": 0.75, "waist": 0.25})
    assert (plan.sum_text, plan.sum_value, plan.remedy.edges) == ("⟦3 cm⟧ ÷ 4", 0.75, 4)


def test_what_the_back_misses_is_halved():
    kind = finding_kind("back_tight")
    plan = worked(kind, kind.remedy("off_tip"), {"missing": 1.4})
    assert plan.steps[0][1] == {"part": "back", "surplus": "off_tip", "amount": 0.7}


def test_amounts_out_of_range_and_unknown_names_are_told():
    kind = finding_kind("waist_low")
    with pytest.raises(ValueOutOfRange, match="outside 0.2 cm to 5 cm"):
        worked(kind, kind.remedies[0], {"low": 9})
    with pytest.raises(UnknownName, match="does not ask"):
        worked(kind, kind.remedies[0], {"depth": 1})
    with pytest.raises(UnknownName):
        finding_kind("moon_phase")
    with pytest.raises(UnknownName, match="shorten"):
        kind.remedy("magic")


def test_moves_are_listed_largest_first_with_their_lengths(evaluator, middling):
    before = evaluator.evaluate(Recipe("bodice", middling)).pattern
    step = Step("s", "change_length", {"amount": 1.5})
    after = evaluator.evaluate(Recipe("bodice", middling, steps=(step,))).pattern
    found = moves(before, after)
    assert [m.distance for m in found] == sorted((m.distance for m in found), reverse=True)
    by_line = {m.lineage: m for m in found}
    assert by_line["front.waist"].distance == pytest.approx(1.5, abs=0.05)
    assert by_line["front.centre"].length_after - by_line["front.centre"].length_before == pytest.approx(1.5, abs=1e-6)
    assert "front.neck" not in by_line
    assert moves(before, before) == []


def test_a_change_survives_new_measures(evaluator, middling):
    """The same remedy on a re-drafted block: the amounts stay what the fitting said."""
    step = Step("s", "change_shoulder", {"amount": 0.8})
    for body in (middling, {**middling, "bust_girth": 100.0, "high_bust_girth": 93.0}):
        before = evaluator.evaluate(Recipe("bodice", body)).pattern
        after = evaluator.evaluate(Recipe("bodice", body, steps=(step,))).pattern
        lengths = [
            next(e.curve.length for e in p.piece("bodice_front").edges if e.lineage == "front.shoulder")
            for p in (before, after)
        ]
        assert lengths[1] - lengths[0] == pytest.approx(0.8, abs=1e-9)
