"""What was worked out of a piece or a pattern, remembered as long as it is the same object: what is untouched is not read twice."""

from collections import OrderedDict
from collections.abc import Callable, Hashable
from typing import Any, Generic, TypeVar
from weakref import WeakSet

T = TypeVar("T")

_ALL: "WeakSet[Remembered[Any]]" = WeakSet()


def forget_all() -> None:
    """Forget all that is remembered of any object: where somebody is deleted, nothing of them stays."""
    for one in list(_ALL):
        one.forget()


class Remembered(Generic[T]):
    """A bounded memory by object; the object is kept with its result, so that no other takes its place in it.

    Args:
        most: how many results are kept; the oldest goes first.
    """

    def __init__(self, most: int = 2048) -> None:
        _ALL.add(self)
        self._known: OrderedDict[tuple[Hashable, int, int], tuple[object, object, T]] = OrderedDict()
        self._most = most

    def of(self, read: object, key: Hashable, work: Callable[[], T], *, beside: object = None) -> T:
        """Return what `work` gives for an object that does not change, under a key: worked once for the same object.

        Args:
            read, key: the object, and what is asked of it.
            work: gives the answer.
            beside: another object on which the answer depends.
        """
        at = (key, id(read), id(beside))
        known = self._known.get(at)
        # Both are kept with the answer: while it stands, no other object can have their identities.
        if known is not None:
            return known[2]
        result = work()
        self._known[at] = (read, beside, result)
        if len(self._known) > self._most:
            self._known.popitem(last=False)
        return result

    def forget(self) -> None:
        """Forget everything (for benchmarks and tests)."""
        self._known.clear()
