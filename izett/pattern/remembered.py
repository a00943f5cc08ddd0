"""What was worked out of a piece or a pattern, remembered as long as it is the same object: what is untouched is not read twice."""

from collections import OrderedDict
from collections.abc import Callable, Hashable
from typing import Generic, TypeVar

T = TypeVar("T")


class Remembered(Generic[T]):
    """A bounded memory by object; the object is kept with its result, so that no other takes its place in it.

    Args:
        most: how many results are kept; the oldest goes first.
    """

    def __init__(self, most: int = 2048) -> None:
        self._known: OrderedDict[tuple[Hashable, int], tuple[object, T]] = OrderedDict()
        self._most = most

    def of(self, read: object, key: Hashable, work: Callable[[], T]) -> T:
        """Return what `work` gives for an object that does not change, under a key: worked once for the same object."""
        at = (key, id(read))
        known = self._known.get(at)
        if known is not None and known[0] is read:
            return known[1]
        result = work()
        self._known[at] = (read, result)
        if len(self._known) > self._most:
            self._known.popitem(last=False)
        return result

    def forget(self) -> None:
        """Forget everything (for benchmarks and tests)."""
        self._known.clear()
