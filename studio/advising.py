"""Advice on a sheet, for the screen: what to take next, what each measure moves, the bust dart by each source."""

from functools import cache
from math import isfinite

from pydantic import BaseModel

from izett.advice.darts import darts_by_source
from izett.advice.effect import advise
from izett.catalogue import catalogue
from izett.errors import IzettError
from izett.files.recipe_json import RecipeDoc
from izett.measuring.taking import settled, taken_apart
from izett.progress import Progress
from izett.recipe.evaluator import Evaluator
from studio.locking import job_of
from studio.readings import all_taken
from studio.sheet_schemas import AdviceIn, AdviceOut, DartSourceOut, EffectOut, NextOut
from studio.state import head_of
from studio.workroom import recipe_document


class AdviceQuestion(BaseModel):
    """What advice depends on: the measures as settled, those taken left and right apart, and the recipe to draft."""

    body: dict[str, float]
    sides: dict[str, tuple[float, float]]
    recipe: RecipeDoc


def advice_asked(data: AdviceIn) -> AdviceQuestion:
    """Return what is asked on a sheet under way, for a job's recipe or else for the plain block.

    Raises:
        UnknownName, UnreadableMeasure: a reading is not one.
        Refusal: there is no such job.
    """
    taken = {key: found.cm for key, found in all_taken(data.readings).items()}
    recipe = recipe_document(head_of(job_of(data.job)).document) if data.job else RecipeDoc()
    return AdviceQuestion(body=settled(taken), sides=taken_apart(taken), recipe=recipe)


@cache
def trying() -> Evaluator:
    """Return an evaluator for advice alone: what is tried here must not push out what the table remembers."""
    return Evaluator(catalogue())


def advised(question: AdviceQuestion, progress: Progress) -> AdviceOut:
    """Work out what to take next, what each measure moves, and the bust dart by each source."""
    try:
        advice = advise(trying(), question.recipe.recipe(question.body, question.sides), progress)
    except IzettError as error:
        return AdviceOut(next=[], effects=[], darts=[], refused=f"{error.message} {error.fix}")
    return AdviceOut(
        next=[
            NextOut(
                symbol=n.estimate.symbol,
                spread=n.estimate.spread,
                by_spread=_finite(n.by_spread.moves),
                by_tolerance=_finite(n.by_tolerance.moves),
                line=n.by_spread.line,
            )
            for n in advice.next
        ],
        effects=[
            EffectOut(symbol=e.symbol, off=e.off, moves=_finite(e.moves), lines=list(e.lines)) for e in advice.effects
        ],
        darts=[
            DartSourceOut(
                key=d.source.key,
                name=d.source.name,
                degrees=d.degrees,
                mouth=d.mouth,
                counts=d.counts,
                missing=list(d.missing),
            )
            for d in darts_by_source(question.body)
        ],
    )


def _finite(value: float) -> float | None:
    return value if isfinite(value) else None
