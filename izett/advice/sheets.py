"""Two sheets of one wearer: what moved beyond the tape's tolerance, and what a job would change if drafted again."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from izett.fitting.compare import LineMove, moves
from izett.measuring.measure import measure, measures
from izett.recipe.evaluator import Evaluator
from izett.recipe.model import Recipe


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
    """How far a piece would change, in cm.

    Attributes:
        piece, title: which piece.
        lineage, distance: its line that moves farthest, and how far.
        stretched, length_before, length_after: its line whose length changes most, and how.
    """

    piece: str
    title: str
    lineage: str
    distance: float
    stretched: str
    length_before: float
    length_after: float


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
    by_piece: dict[str, list[LineMove]] = {}
    for move in moves(old, new):
        by_piece.setdefault(move.piece, []).append(move)
    titles = {piece.name: piece.title for piece in new}
    return [_change(titles[name], found) for name, found in by_piece.items()]


def _change(title: str, found: Sequence[LineMove]) -> PieceChange:
    farthest = found[0]  # moves come the largest first
    # A dart's legs are as long as the dart: what is sewn shut says nothing of a piece's size.
    edges = [move for move in found if not move.leg] or found
    stretched = max(edges, key=lambda move: abs(move.length_after - move.length_before))
    return PieceChange(
        farthest.piece,
        title,
        farthest.lineage,
        farthest.distance,
        stretched.lineage,
        stretched.length_before,
        stretched.length_after,
    )
