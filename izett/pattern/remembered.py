"""What was worked out of a piece, remembered as long as the piece is the same object: an untouched piece is not read twice."""

from collections import OrderedDict
from collections.abc import Callable, Hashable
from typing import Generic, TypeVar

from izett.pattern.document import Piece

T = TypeVar("T")


class ByPiece(Generic[T]):
    """A bounded memory; the piece is kept with its result, so that no other takes its place in it.

    Args:
        most: how many results are kept; the oldest goes first.
    """

    def __init__(self, most: int = 2048) -> None:
        self._known: OrderedDict[tuple[Hashable, int], tuple[Piece, T]] = OrderedDict()
        self._most = most

    def of(self, piece: Piece, key: Hashable, work: Callable[[], T]) -> T:
        """Return what `work` gives for a piece under a key: worked once for the same object."""
        at = (key, id(piece))
        known = self._known.get(at)
        if known is not None and known[0] is piece:
            return known[1]
        result = work()
        self._known[at] = (piece, result)
        if len(self._known) > self._most:
            self._known.popitem(last=False)
        return result
