"""Fixes that have been worked: only what helps is offered.

A check names steps that may mend what it found. Each is tried as a last step of the recipe: it must act, leave less of the
finding or none, and let nothing else fail. A fix that only moves the fault elsewhere is worse than none.
"""

from collections.abc import Callable, Sequence
from dataclasses import replace

from izett.checking.check import ODD, Finding, Fix, Result, Verdict
from izett.pattern.facts import Half
from izett.recipe.evaluation import Evaluation
from izett.recipe.model import Recipe, Step
from izett.recipe.shelf import Catalogue

#: A finding is helped where at most this share of it is left.
LEFT_OVER = 0.5
#: The name of the step by which a fix is tried.
TRIED = "tried"

Evaluate = Callable[[Recipe], Evaluation]


def proven(recipe: Recipe, found: Evaluation, evaluate: Evaluate, catalogue: Catalogue) -> tuple[Result, ...]:
    """Return what the checks found, each with those of its fixes that help.

    Args:
        recipe, found: the recipe, and what it came to.
        evaluate: works a recipe out.
        catalogue: the kinds of steps.
    """
    return tuple(
        replace(result, finding=replace(result.finding, fixes=_helpful(result, recipe, found, evaluate, catalogue)))
        if result.finding.fixes and result.finding.verdict in ODD
        else result
        for result in found.results
    )


def _helpful(
    result: Result, recipe: Recipe, found: Evaluation, evaluate: Evaluate, catalogue: Catalogue
) -> tuple[Fix, ...]:
    return tuple(fix for fix in result.finding.fixes if _helps(fix, result, recipe, found, evaluate, catalogue))


def _helps(
    fix: Fix, result: Result, recipe: Recipe, found: Evaluation, evaluate: Evaluate, catalogue: Catalogue
) -> bool:
    operation = catalogue.operations.get(fix.kind)
    if operation is None:
        return False
    taken = {step.uid for step in recipe.steps}
    uid = next(name for name in (TRIED, *(f"{TRIED}{n}" for n in range(len(taken) + 1))) if name not in taken)
    half = result.finding.half if operation.sided else Half.BOTH
    step = Step(uid, fix.kind, dict(fix.params), version=operation.version, half=half)
    after = evaluate(replace(recipe, steps=(*recipe.steps, step)))
    stage = after.of(uid)
    if stage.failure is not None or stage.idle:
        return False
    return _is_helped(result, after.results) and _failing(after.results) <= _failing(found.results) | {_about(result)}


def _about(result: Result) -> tuple[str, tuple[str, ...], str, Half]:
    finding = result.finding
    return (result.check, finding.where, finding.aspect, finding.half)


def _failing(results: Sequence[Result]) -> set[tuple[str, tuple[str, ...], str, Half]]:
    return {_about(result) for result in results if result.finding.verdict is Verdict.FAILS}


def _is_helped(result: Result, after: Sequence[Result]) -> bool:
    """Return whether less is left of a finding, and nothing else that the same check says of the same thing came up."""
    was = result.finding

    def same(finding: Finding) -> bool:
        return finding.where == was.where and finding.half is was.half

    left = [r.finding for r in after if r.check == result.check and r.finding.verdict in ODD and same(r.finding)]
    if any(finding.aspect != was.aspect and abs(finding.amount) >= abs(was.amount) * LEFT_OVER for finding in left):
        return False
    return all(_beyond(finding) <= _beyond(was) * LEFT_OVER for finding in left if finding.aspect == was.aspect)


def _beyond(finding: Finding) -> float:
    """Return how far a finding lies beyond what is allowed."""
    return max(abs(finding.amount) - abs(finding.tolerance), 0.0)
