"""The one evaluator of this server, and what it is fed: a revision's recipe with its sheet's measures."""

from collections.abc import Hashable
from functools import cache
from typing import Any

from izett.catalogue import catalogue
from izett.checking.check import Result
from izett.files.recipe_json import RecipeDoc
from izett.measuring.taking import settled, taken_apart
from izett.recipe.evaluation import Evaluation
from izett.recipe.evaluator import Evaluator
from studio.lanes import SAVE, turn
from studio.models import MeasureSheet, Revision


@cache
def evaluator() -> Evaluator:
    """Return the evaluator that all requests share; what it remembers stands on a shelf a job."""
    return Evaluator(catalogue())


def measures_of(sheet: MeasureSheet) -> dict[str, float]:
    """Return a sheet's measures in cm by symbol: where left and right were taken apart, their mean."""
    return settled({reading.symbol: reading.cm for reading in sheet.readings.all()})


def sides_of(sheet: MeasureSheet) -> dict[str, tuple[float, float]]:
    """Return left and right, in cm by symbol, of the measures of a sheet that were taken on both sides."""
    return taken_apart({reading.symbol: reading.cm for reading in sheet.readings.all()})


def recipe_document(data: dict[str, Any]) -> RecipeDoc:
    """Return a stored recipe, as this version understands it."""
    return RecipeDoc.model_validate(data)


def evaluate(document: RecipeDoc, sheet: MeasureSheet, *, owner: Hashable = None) -> Evaluation:
    """Work a recipe out for the body of a sheet; `owner` is the job by which it is remembered."""
    recipe = document.recipe(measures_of(sheet), sides_of(sheet))
    with turn(SAVE):
        return evaluator().evaluate(recipe, owner=owner or ("sheet", sheet.pk))


def proven(
    document: RecipeDoc, sheet: MeasureSheet, found: Evaluation, *, owner: Hashable = None
) -> tuple[Result, ...]:
    """Return what the checks found on a recipe that was worked out, each with the fixes that were tried and help."""
    recipe = document.recipe(measures_of(sheet), sides_of(sheet))
    with turn(SAVE):
        return evaluator().proven(recipe, found, owner=owner or ("sheet", sheet.pk))


def refuse_undraftable(document: RecipeDoc, sheet: MeasureSheet, *, owner: Hashable) -> None:
    """Let pass a recipe that drafts for the body of a sheet.

    Raises:
        IzettError: there is no draft.
    """
    with turn(SAVE):
        evaluator().refuse_undraftable(document.recipe(measures_of(sheet), sides_of(sheet)), owner=owner)


def evaluate_revision(revision: Revision) -> Evaluation:
    """Work a revision out."""
    return evaluate(recipe_document(revision.document), revision.sheet, owner=revision.job_id)
