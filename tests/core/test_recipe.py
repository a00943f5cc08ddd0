import pytest

from izett.catalogue import catalogue
from izett.errors import StepRefused, UnknownName
from izett.recipe.model import Recipe, Step
from izett.recipe.shelf import Catalogue
from izett.recipe.evaluator import Evaluator

SIDE = Step("a1", "change_side", {"underarm": 0.5, "waist": 0.2})
SHOULDER = Step("a2", "change_shoulder", {"amount": 0.6})


def counted():
    """A catalogue whose operations count how often they act."""
    from dataclasses import replace

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


def test_an_edit_at_the_start_works_all_that_follows(middling):
    shelf, calls = counted()
    evaluator = Evaluator(shelf)
    evaluator.evaluate(Recipe("bodice", middling, steps=(SIDE, SHOULDER)))
    evaluator.evaluate(Recipe("bodice", {**middling, "waist_girth": 75.0}, steps=(SIDE, SHOULDER)))
    assert calls == ["a1", "a2", "a1", "a2"]


def test_memory_is_bounded_and_forgets_the_longest_unused(middling):
    shelf, calls = counted()
    evaluator = Evaluator(shelf, remembered=3)
    for waist in (70.0, 71.0, 72.0, 70.0):
        evaluator.evaluate(Recipe("bodice", {**middling, "waist_girth": waist}, steps=(SIDE,)))
    assert len(evaluator._memory) == 3
    assert calls == ["a1"] * 4


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

    root = Path(__file__).parent.parent.parent / "izett"
    for folder, found, below in (
        (
            "drafting/methods",
            catalogue().methods,
            {"drafting", "measuring", "pattern", "rules", "geometry", "errors", "units"},
        ),
        ("styling/operations", catalogue().operations, {"styling", "pattern", "geometry", "rules", "errors", "units"}),
        (
            "checking/checks",
            catalogue().checks,
            {"checking", "finishing", "styling", "pattern", "geometry", "rules", "errors", "units"},
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
