"""The one evaluator of this server, and what it is fed: a revision's recipe with its sheet's measures."""

from functools import cache
from typing import Any

from izett.catalogue import catalogue
from izett.files.recipe_json import RecipeDoc
from izett.measuring.taking import settled
from izett.recipe.evaluator import Evaluation, Evaluator
from studio.models import MeasureSheet, Revision


@cache
def evaluator() -> Evaluator:
    """Return the evaluator that all requests share."""
    return Evaluator(catalogue())


def measures_of(sheet: MeasureSheet) -> dict[str, float]:
    """Return a sheet's measures in cm by symbol: where left and right were taken apart, their mean."""
    return settled({reading.symbol: reading.cm for reading in sheet.readings.all()})


def recipe_document(data: dict[str, Any]) -> RecipeDoc:
    """Return a stored recipe."""
    return RecipeDoc.model_validate(data)


def evaluate(document: RecipeDoc, measures: dict[str, float]) -> Evaluation:
    """Work a recipe out for a body."""
    return evaluator().evaluate(document.recipe(measures))


def evaluate_revision(revision: Revision) -> Evaluation:
    """Work a revision out."""
    return evaluate(recipe_document(revision.document), measures_of(revision.sheet))
