"""A step keeps the meaning that it was stored with, whatever its kind has become since."""

from dataclasses import replace

import pytest

from izett.catalogue import catalogue
from izett.checking.check import Verdict
from izett.errors import UnknownName
from izett.pattern.document import ANY_ASPECT
from izett.recipe.evaluator import Evaluator
from izett.recipe.model import Recipe, Step

LOWERED = Step("l", "change_armhole", {"lower": 2.0})
CAP = {"check": "sleeve_fits", "where": ["cap"], "up_to": 5.0, "reason": "eased in by hand"}


def results(evaluator, body, *steps):
    evaluation = evaluator.evaluate(Recipe("bodice", body, also=("sleeve",), steps=(LOWERED, *steps)))
    assert [stage.failure for stage in evaluation.stages] == [None] * len(evaluation.stages)
    return evaluation, {r.finding.aspect: r.finding.verdict for r in evaluation.results if r.check == "sleeve_fits"}


def test_an_acceptance_of_the_first_version_still_accepts_every_question(evaluator, middling):
    evaluation, now = results(evaluator, middling, Step("a", "accept", CAP, version=1))
    assert [one.aspect for one in evaluation.pattern.accepted] == [ANY_ASPECT]
    assert Verdict.FAILS not in now.values()
    assert Verdict.ACCEPTED in now.values()
    _, new = results(evaluator, middling, Step("a", "accept", CAP, version=2))
    assert Verdict.FAILS in new.values()


def moved_on():
    """A catalogue in which lowering an armhole has changed twice: its amount was in inches, then called depth."""
    shelf = catalogue()
    kind = shelf.operations["change_armhole"]
    upgrades = {1: lambda p: {"depth": p["lower"] * 2.54}, 2: lambda p: {"lower": p["depth"]}}
    later = replace(kind, version=3, upgrades=upgrades)
    return replace(shelf, operations={**shelf.operations, "change_armhole": later})


def test_a_step_is_brought_forward_version_by_version(middling):
    evaluator = Evaluator(moved_on())

    def depth(params, version):
        step = Step("l", "change_armhole", params, version=version)
        evaluation = evaluator.evaluate(Recipe("bodice", middling, steps=(step,)))
        assert evaluation.stages[0].failure is None
        return evaluation.pattern.piece("bodice_back").vertex("back.underarm")

    assert depth({"lower": 1.0}, 1) == depth({"depth": 2.54}, 2) == depth({"lower": 2.54}, 3)
    assert depth({"lower": 1.0}, 3) != depth({"lower": 1.0}, 1)


def test_a_step_of_a_later_version_is_kept_and_skipped(evaluator, middling):
    step = Step("l", "change_armhole", {"lower": 1.0}, version=9)
    evaluation = evaluator.evaluate(Recipe("bodice", middling, steps=(step,)))
    assert isinstance(evaluation.stages[0].failure, UnknownName)
    assert evaluation.pattern == evaluation.draft.pattern


def test_a_kind_that_does_not_say_how_to_read_its_versions_is_refused():
    kind = catalogue().operations["change_armhole"]
    with pytest.raises(ValueError, match="needs an upgrade from each version before it"):
        replace(kind, version=3, upgrades={2: dict})
