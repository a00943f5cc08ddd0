from dataclasses import replace

import pytest

from izett.catalogue import catalogue
from izett.errors import StepRefused, UnknownName
from izett.pattern.facts import Half
from izett.recipe.evaluator import Evaluator
from izett.recipe.memory import VARIANTS, Memory
from izett.recipe.model import Recipe, Step
from izett.recipe.shelf import Catalogue

SIDE = Step("a1", "change_side", {"underarm": 0.5, "waist": 0.2})
SHOULDER = Step("a2", "change_shoulder", {"amount": 0.6})


def counted():
    """A catalogue whose operations count how often they act."""
    calls: list[str] = []
    real = catalogue()

    def counting(operation):
        def apply(params, context):
            calls.append(context.uid)
            return operation.apply(params, context)

        return replace(operation, apply=apply)

    operations = {key: counting(operation) for key, operation in real.operations.items()}
    return Catalogue(real.methods, operations, real.checks), calls


def test_an_edit_at_the_end_works_only_the_last_step(middling):
    shelf, calls = counted()
    evaluator = Evaluator(shelf)
    evaluator.evaluate(Recipe("bodice", middling, steps=(SIDE, SHOULDER)))
    evaluator.evaluate(Recipe("bodice", middling, steps=(SIDE, Step("a2", "change_shoulder", {"amount": 0.7}))))
    assert calls == ["a1", "a2", "a2"]
    evaluator.evaluate(Recipe("bodice", middling, steps=(SIDE, SHOULDER)))
    assert calls == ["a1", "a2", "a2"]


def test_a_change_of_the_draft_works_what_reads_it(middling):
    shelf, calls = counted()
    evaluator = Evaluator(shelf)
    evaluator.evaluate(Recipe("bodice", middling, steps=(SIDE, SHOULDER)))
    evaluator.evaluate(Recipe("bodice", {**middling, "waist_girth": 75.0}, steps=(SIDE, SHOULDER)))
    assert calls == ["a1", "a2", "a1", "a2"]


def test_an_edit_works_again_only_what_reads_what_it_touched(middling):
    shelf, calls = counted()
    evaluator = Evaluator(shelf)

    def dress(hem: float) -> Recipe:
        steps = (
            Step("hem", "shape_hem", {"front": hem}),
            SHOULDER,
            Step("cap", "recap_sleeve", {"ease": 2.0}),
            Step("neck", "change_neckline", {"front": 3.0}),
        )
        return Recipe("bodice", middling, also=("sleeve", "skirt"), steps=steps)

    evaluator.evaluate(dress(2.0))
    assert calls == ["hem", "a2", "neck", "cap"]
    edited = evaluator.evaluate(dress(3.0))
    assert calls[4:] == ["hem"]
    evaluator.forget()
    assert evaluator.evaluate(dress(3.0)).pattern == edited.pattern


def test_a_reason_typed_works_nothing_again(middling):
    shelf, calls = counted()
    evaluator = Evaluator(shelf)
    for why in ("", "it pulls", "it pulls across the back"):
        evaluator.evaluate(Recipe("bodice", middling, steps=(replace(SIDE, why=why), SHOULDER)))
    assert calls == ["a1", "a2"]


def test_the_second_half_costs_only_what_differs(middling):
    shelf, calls = counted()
    evaluator = Evaluator(shelf)
    left = Step("left", "change_shoulder", {"amount": -0.5}, half=Half.LEFT)
    hem = Step("hem", "shape_hem", {"front": 2.0})
    evaluator.evaluate(Recipe("bodice", middling, also=("skirt",), steps=(left, hem)))
    assert calls == ["left", "hem"]


def test_memory_is_bounded_for_each_owner_and_one_does_not_drive_out_another(middling):
    shelf, calls = counted()
    evaluator = Evaluator(shelf, memory=Memory(owners=3, per_owner=4))
    recipe = Recipe("bodice", middling, steps=(SIDE,))
    evaluator.evaluate(recipe, owner="mine")
    for waist in range(60, 90):
        evaluator.evaluate(Recipe("bodice", {**middling, "waist_girth": float(waist)}, steps=(SIDE,)), owner="run")
    worked = len(calls)
    evaluator.evaluate(recipe, owner="mine")
    assert len(calls) == worked
    assert len(evaluator.memory) <= 3 * 4 * VARIANTS
    for owner in range(3):
        evaluator.evaluate(recipe, owner=owner)
    worked = len(calls)
    evaluator.evaluate(recipe, owner="mine")
    assert len(calls) == worked + 1


def test_a_failing_step_is_kept_and_evaluation_goes_on(evaluator, middling):
    lost = Step("b1", "aim_dart", {"dart": "front.nothing", "upwards": 1})
    evaluation = evaluator.evaluate(Recipe("bodice", middling, steps=(SIDE, lost, SHOULDER)))
    assert [stage.failure is None for stage in evaluation.stages] == [True, False, True]
    without = evaluator.evaluate(Recipe("bodice", middling, steps=(SIDE, SHOULDER)))
    assert evaluation.pattern == without.pattern


def test_an_unknown_step_is_skipped_visibly_and_kept_as_it_was(evaluator, middling):
    unknown = Step("c1", "fold_space", {"anything": [1, 2]})
    evaluation = evaluator.evaluate(Recipe("bodice", middling, steps=(unknown, SIDE)))
    assert isinstance(evaluation.stages[0].failure, UnknownName)
    assert evaluation.stages[0].step.as_data()["params"] == {"anything": [1, 2]}
    newer = Step("c2", "change_side", {"waist": 1.0}, version=99)
    assert evaluator.evaluate(Recipe("bodice", middling, steps=(newer,))).stages[0].failure is not None


@pytest.mark.parametrize(
    "params", [{}, {"dart": 3}, {"dart": "front.bust", "upwards": "x"}, {"dart": "front.bust", "extra": 1}]
)
def test_damaged_parameters_are_told(evaluator, middling, params):
    stage = evaluator.evaluate(Recipe("bodice", middling, steps=(Step("d", "aim_dart", params),))).stages[0]
    assert isinstance(stage.failure, StepRefused)
    assert stage.failure.where


def test_the_order_of_steps_counts_and_each_order_is_itself(evaluator, middling):
    length = Step("e1", "change_length", {"amount": 2})
    transpose = Step("e2", "transpose_waist", {"up": 1})
    one = evaluator.evaluate(Recipe("bodice", middling, steps=(length, transpose))).pattern
    other = evaluator.evaluate(Recipe("bodice", middling, steps=(transpose, length))).pattern
    assert one != other
    assert evaluator.evaluate(Recipe("bodice", middling, steps=(length, transpose))).pattern == one


def test_an_unknown_block_is_told(evaluator, middling):
    with pytest.raises(UnknownName, match="bodice"):
        evaluator.evaluate(Recipe("cape", middling))


def test_every_plug_in_is_found_by_its_folder_and_imports_only_below_itself():
    """One module, one key: what lies in the folder is what the catalogue has."""
    import ast
    from pathlib import Path

    root = Path(__file__).parents[3] / "izett"
    for folder, found, below in (
        (
            "drafting/methods",
            catalogue().methods,
            {"drafting", "measuring", "pattern", "rules", "geometry", "errors", "units", "wording"},
        ),
        (
            "styling/operations",
            catalogue().operations,
            {"styling", "finishing", "draping", "pattern", "geometry", "rules", "errors", "units", "wording"},
        ),
        (
            "checking/checks",
            catalogue().checks,
            {"checking", "finishing", "styling", "pattern", "geometry", "rules", "errors", "units", "wording"},
        ),
    ):
        modules = {path.stem: path for path in (root / folder).glob("*.py") if path.stem != "__init__"}
        assert set(modules) == set(found)
        for path in modules.values():
            for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
                if isinstance(node, ast.ImportFrom) and node.module and node.module.startswith("izett."):
                    assert node.module.split(".")[1] in below, f"{path.name} imports {node.module}"
                    if found is catalogue().operations:
                        assert not node.module.startswith("izett.styling.operations"), f"{path.name} knows another"
