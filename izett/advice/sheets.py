"""Two sheets of one wearer: what moved beyond the tape's tolerance, and what a job would change if drafted again."""

from collections.abc import Mapping
from dataclasses import dataclass

from izett.fitting.compare import moves
from izett.measuring.measure import measure, measures
from izett.recipe import Evaluator, Recipe


@dataclass(frozen=True, slots=True)
class Difference:
    """A measure on two sheets, in cm; None where a sheet has it not.

    `beyond` says whether it moved by more than the tape's tolerance.
    """

    symbol: str
    before: float | None
    after: float | None
    beyond: bool


@dataclass(frozen=True, slots=True)
class PieceChange:
    """How far a piece would change: its line that moves most, in cm."""

    piece: str
    title: str
    lineage: str
    distance: float


def differences(before: Mapping[str, float], after: Mapping[str, float]) -> list[Difference]:
    """Return all measures of two sheets (cm by symbol), in the order of taking."""
    return [
        Difference(symbol, before.get(symbol), after.get(symbol), _beyond(symbol, before, after))
        for symbol in measures()
        if symbol in before or symbol in after
    ]


def _beyond(symbol: str, before: Mapping[str, float], after: Mapping[str, float]) -> bool:
    both = symbol in before and symbol in after
    return not both or abs(after[symbol] - before[symbol]) > measure(symbol).tolerance


def piece_changes(evaluator: Evaluator, before: Recipe, after: Recipe) -> list[PieceChange]:
    """Return how far each piece changes from one recipe to the other, the farthest first; unmoved pieces are left out.

    Raises:
        IzettError: one of them gives no draft.
    """
    old, new = (evaluator.evaluate(recipe).pattern for recipe in (before, after))
    titles = {piece.name: piece.title for piece in new}
    farthest: dict[str, PieceChange] = {}
    for move in moves(old, new):
        farthest.setdefault(move.piece, PieceChange(move.piece, titles[move.piece], move.lineage, move.distance))
    return list(farthest.values())
