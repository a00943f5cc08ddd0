"""The effect of a measure: how far the draft in hand would move if it were off, and what to take next.

Worked out, not tabled: the recipe is evaluated with the measure a little more and a little less, steps and all, and the
lines are laid over each other. A missing measure is held at its estimate for that, so that nothing else changes with it.
"""

from collections.abc import Mapping
from dataclasses import dataclass, replace

from izett.drafting.method import measures_used
from izett.errors import IzettError
from izett.fitting.compare import moves
from izett.measuring.estimates import Estimate, missing_measures
from izett.measuring.measure import measure
from izett.progress import Progress, untold
from izett.recipe.evaluator import Evaluator
from izett.recipe.model import Recipe


@dataclass(frozen=True, slots=True)
class Effect:
    """How far a draft moves with a measure.

    Attributes:
        symbol: the measure.
        off: by how much it was taken to be off, in cm.
        moves: how far the line that moves most moves for that, in cm; infinite where there is no draft with it so.
        line: that line, as `piece: lineage`; empty where none moves.
        lines: all lines that move, the farthest first.
    """

    symbol: str
    off: float
    moves: float
    line: str
    lines: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Next:
    """A measure worth taking next.

    Attributes:
        estimate: what stands in for it now, and how far that may be off.
        by_spread: how far the draft moves if the estimate is off by its spread: what taking it would settle.
        by_tolerance: how far the draft moves if the measure is off by what a tape is off.
    """

    estimate: Estimate
    by_spread: Effect
    by_tolerance: Effect


def effect_of(evaluator: Evaluator, recipe: Recipe, symbol: str, *, around: float, off: float) -> Effect:
    """Return how far the draft moves if a measure, believed to be `around` cm, is `off` cm off either way.

    Raises:
        IzettError: there is no draft with the measure at `around`.
    """
    middle = evaluator.evaluate(_with(recipe, symbol, around)).pattern
    farthest: dict[str, float] = {}
    for value in (around - off, around + off):
        try:
            pattern = evaluator.evaluate(_with(recipe, symbol, value)).pattern
        except IzettError:
            return Effect(symbol, off, float("inf"), "", ())
        for move in moves(middle, pattern):
            line = f"{move.piece}: {move.lineage}"
            farthest[line] = max(farthest.get(line, 0.0), move.distance)
    lines = tuple(sorted(farthest, key=lambda line: -farthest[line]))
    return Effect(symbol, off, farthest[lines[0]] if lines else 0.0, lines[0] if lines else "", lines)


@dataclass(frozen=True, slots=True)
class Advice:
    """What the draft in hand says of the measures.

    Attributes:
        next: the missing measures that the draft uses, the one first whose uncertainty moves the draft most.
        effects: for each taken measure that the draft uses how far it moves if that is off by its tolerance, most first.
    """

    next: tuple[Next, ...]
    effects: tuple[Effect, ...]


def advise(evaluator: Evaluator, recipe: Recipe, progress: Progress = untold) -> Advice:
    """Return what to take next, and what each measure that was taken moves.

    Args:
        evaluator, recipe: what is drafted, and by whom.
        progress: told after each measure.

    Raises:
        IzettError: there is no draft.
    """
    used = measures_used(*evaluator.catalogue.in_order(recipe.blocks))
    missing = missing_measures(recipe.measures)
    following: list[Next] = []
    effects: list[Effect] = []
    for done, symbol in enumerate(used, 1):
        off = measure(symbol).tolerance
        if symbol in recipe.measures:
            effects.append(effect_of(evaluator, recipe, symbol, around=recipe.measures[symbol], off=off))
        elif (estimate := missing.get(symbol)) is not None:
            by_spread, by_tolerance = (
                effect_of(evaluator, recipe, symbol, around=estimate.cm, off=way) for way in (estimate.spread, off)
            )
            following.append(Next(estimate, by_spread, by_tolerance))
        progress(done, len(used))
    following.sort(key=lambda following: -following.by_spread.moves)
    effects.sort(key=lambda effect: -effect.moves)
    return Advice(tuple(following), tuple(effects))


def _with(recipe: Recipe, symbol: str, cm: float) -> Recipe:
    measures: Mapping[str, float] = {**recipe.measures, symbol: cm}
    return replace(recipe, measures=measures)
