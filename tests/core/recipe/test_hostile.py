"""Whatever is asked for, it is worked or refused in words; what came of it can be drawn, written and read back."""

import logging
from collections import Counter
from dataclasses import replace

import pytest

from izett.catalogue import catalogue
from izett.checking.check import BROKE, Verdict
from izett.errors import IzettError, ValueOutOfRange
from izett.geometry.outline import crossing
from izett.geometry.tolerance import CROSSING_FLATNESS
from izett.pattern.sound import fault_of
from izett.recipe.evaluator import Evaluator
from izett.recipe.model import Recipe, Step
from izett.rules.sheet import SETTABLE, Allowance
from tests.garments import BODY as MIDDLING
from tests.hostile import random_recipes, tried

#: Of the steps that hands try at random, at least so many act.
LEAST_ACTING = 0.35


@pytest.fixture(autouse=True)
def silent():
    """What breaks down is told by the assertion."""
    logging.disable(logging.CRITICAL)
    yield
    logging.disable(logging.NOTSET)


@pytest.mark.parametrize("seed", range(4))
def test_a_random_step_is_worked_or_refused_and_what_comes_of_it_can_be_read_back(seed):
    acted = Counter()
    for i, (step, evaluation) in enumerate(random_recipes(seed, 150)):
        tried(evaluation, printed=i % 20 == 0)
        acted[evaluation.of(step.uid).failure is None] += 1
    assert acted[True] >= LEAST_ACTING * acted.total()


def test_halves_made_unlike_at_random_are_pieces_that_can_be_cut():
    whole = 0
    for _, evaluation in random_recipes(13, 420, sided=1.0):
        known = {id(piece) for piece in (*evaluation.left.pieces, *evaluation.right.pieces)}
        for piece in evaluation.pattern:
            if piece.is_whole and id(piece) not in known:
                whole += 1
                assert fault_of(piece) is None
                assert crossing(piece.outline(flatness=CROSSING_FLATNESS)) is None
    assert whole >= 50


@pytest.mark.parametrize("kind", list(catalogue().operations))
def test_every_kind_of_step_is_worked_or_refused_in_words(kind):
    seen = Counter()
    for step, evaluation in random_recipes(101, 12, kinds=[kind]):
        tried(evaluation)
        failure = evaluation.of(step.uid).failure
        assert failure is None or (failure.message and failure.fix)
        seen[failure is None] += 1
    assert seen.total() >= 12


def _on(part, start, end, line, fraction=None):
    span = {"start": f"{part}.{start}", "end": f"{part}.{end}", "along": f"{part}.{line}"}
    return span if fraction is None else {**span, "fraction": fraction}


CENTRE_BACK = ("back", "hem_cb", "neck_cb", "centre")


@pytest.mark.parametrize(
    ("blocks", "steps", "refused"),
    [
        # A dart on the fold would be lost with the fold.
        (
            ("knit_top",),
            [
                (
                    "open_dart",
                    {"at": _on(*CENTRE_BACK, 0.3), "hinge": _on("back", "hem_side", "underarm", "side", 0.5)},
                ),
                ("fold_open", {"piece": "knit_top_back"}),
            ],
            [True, False],
        ),
        # Hinged at a corner: the corner itself is the hinge.
        (
            ("bodice", "sleeve"),
            [
                (
                    "open_dart",
                    {
                        "at": _on("sleeve", "wrist_back", "underarm_back", "back_underarm", 0.5),
                        "hinge": _on("sleeve", "wrist_front", "underarm_front", "front_underarm", 1.0),
                        "width": 1.0,
                    },
                )
            ],
            [False],
        ),
        # Opened at a corner: there is no line on one side of it.
        (
            ("bodice", "sleeve"),
            [
                (
                    "open_dart",
                    {
                        "at": _on("sleeve", "wrist_back", "underarm_back", "back_underarm", 0.0),
                        "hinge": _on("sleeve", "wrist_front", "underarm_front", "front_underarm", 0.5),
                    },
                )
            ],
            [True],
        ),
        (("torso",), [("princess", {"start": _on("front", "underarm", "shoulder_tip", "armhole", 0.0)})], [True]),
        (("bodice", "sleeve"), [("change_ease", {"bust": 14.0, "waist": 32.0})], [False]),
        (("bodice", "sleeve"), [("change_ease", {"bust": 22.0, "waist": -8.0})], [True]),
        (("bodice", "sleeve"), [("puff_sleeve", {"fullness": 8.0}), ("change_ease", {"bust": 8.0})], [False, False]),
        (
            ("bodice", "sleeve"),
            [("open_up", {"at": _on("sleeve", "wrist_back", "underarm_back", "back_underarm"), "long": 0.0})],
            [False],
        ),
    ],
)
def test_a_place_at_a_corner_is_worked_or_refused_in_words(blocks, steps, refused):
    recipe = Recipe(
        blocks[0],
        MIDDLING,
        also=blocks[1:],
        steps=[Step(f"s{i}", kind, params) for i, (kind, params) in enumerate(steps)],
    )
    evaluation = Evaluator(catalogue()).evaluate(recipe)
    assert [stage.failure is not None for stage in evaluation.stages if not stage.follows] == refused
    tried(evaluation, printed=True)


WILD = (1e3, -1e3, 1e11, -1e12, 1e150, -1e300, 1e300)


@pytest.mark.parametrize("where", ["overrides", "house"])
def test_every_symbol_has_bounds(where):
    """Of all blocks, set as an override and as a house rule: refused with the range, before anything is drawn."""
    evaluator = Evaluator(catalogue())
    tested = 0
    for method in catalogue().methods.values():
        stands_on = method.stands_on[:1]
        for symbol in (*method.sheet.allowances, *method.sheet.rules, *method.sheet.found):
            for value in WILD:
                tested += 1
                blocks = (*stands_on, method.key)
                with pytest.raises(ValueOutOfRange) as refused:
                    evaluator.evaluate(Recipe(blocks[0], MIDDLING, also=blocks[1:], **{where: {symbol: value}}))
                assert refused.value.where == (symbol,)
                assert "range" in refused.value.fix
    assert tested > 1000


def test_a_value_at_the_end_of_its_range_makes_a_draft_or_is_refused_in_words():
    evaluator, seen = Evaluator(catalogue()), Counter()
    method = catalogue().methods["bodice"]
    for symbol in (*method.sheet.allowances, *method.sheet.rules, *method.sheet.found):
        entry = method.sheet.entry(symbol)
        low, high = (entry.low, entry.high) if isinstance(entry, Allowance) else SETTABLE[entry.unit][:2]
        for value in (low, high, 0.0 if low < 0 < high else (low + high) / 2):
            try:
                tried(evaluator.evaluate(Recipe("bodice", MIDDLING, overrides={symbol: value})))
            except IzettError as error:
                assert error.message and error.fix
                seen["refused"] += 1
            else:
                seen["drafted"] += 1
    assert seen["drafted"] > seen["refused"] > 0


def test_a_check_that_breaks_down_is_told_and_loses_no_other(evaluator):
    def breaking(garment, params):
        raise LookupError("a shape that nobody foresaw")
        yield

    shelf = catalogue()
    broken = replace(shelf.checks["passes_over"], find=breaking)
    checked = Evaluator(replace(shelf, checks={**shelf.checks, "passes_over": broken})).evaluate(
        Recipe("bodice", MIDDLING)
    )
    found = [result for result in checked.results if result.check == "passes_over"]
    assert [(r.finding.verdict, r.finding.aspect) for r in found] == [(Verdict.WARNS, BROKE)]
    whole = evaluator.evaluate(Recipe("bodice", MIDDLING))
    others = [result for result in whole.results if result.check != "passes_over"]
    assert [r for r in checked.results if r.check != "passes_over"] == others
