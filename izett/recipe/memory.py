"""What was worked out, remembered by what was read: a result holds wherever every question has the same answer.

Each owner (a job, a size run) has a shelf of its own, so that one does not drive out another; shelves and what stands on
them are bounded, the longest unused goes first. Safe to share between threads.
"""

from collections import OrderedDict
from collections.abc import Callable, Hashable, Mapping
from dataclasses import dataclass, field
from threading import Lock
from typing import Any

from izett.pattern.document import Pattern
from izett.pattern.record import Record

#: What one step, one check or one draft came to is remembered so often: with other amounts before it, for either half.
VARIANTS = 6
#: Steps, checks and drafts of one owner; a garment of thirty steps has about sixty.
MOST_PER_OWNER = 400
MOST_OWNERS = 64


@dataclass(slots=True)
class _Shelf:
    known: OrderedDict[Hashable, list[tuple[Record | None, Any]]] = field(default_factory=OrderedDict)


class Memory:
    """Results by owner, by what they are of, and by what was read for them.

    Args:
        owners, per_owner: how many are kept.
    """

    def __init__(self, *, owners: int = MOST_OWNERS, per_owner: int = MOST_PER_OWNER) -> None:
        self._shelves: OrderedDict[Hashable, _Shelf] = OrderedDict()
        self._owners, self._per_owner = owners, per_owner
        self._lock = Lock()

    def __len__(self) -> int:
        """The number of results that are remembered."""
        return sum(len(entries) for shelf in self._shelves.values() for entries in shelf.known.values())

    def kept(self, owner: Hashable, of: Hashable, work: Callable[[], Any]) -> Any:
        """Return a result that depends on nothing but what it is of."""
        for _, result in self._entries(owner, of):
            return result
        result = work()
        self._keep(owner, of, None, result)
        return result

    def read(
        self,
        owner: Hashable,
        of: Hashable,
        before: tuple[Pattern, Pattern, Mapping[str, float]],
        work: Callable[[], tuple[Record, Any]],
    ) -> Any:
        """Return a result for the garment before it: one that is known where every question has the same answer today.

        Args:
            owner, of: whose it is, and what it is of.
            before: the half that is worked, the other half, and the body.
            work: works it, and returns with the result what was read for it.
        """
        for record, result in self._entries(owner, of):
            if record is not None and record.holds(*before):
                return result
        record, result = work()
        self._keep(owner, of, record, result)
        return result

    def _entries(self, owner: Hashable, of: Hashable) -> list[tuple[Record | None, Any]]:
        with self._lock:
            shelf = self._shelves.get(owner)
            if shelf is None or of not in shelf.known:
                return []
            self._shelves.move_to_end(owner)
            shelf.known.move_to_end(of)
            return list(shelf.known[of])

    def _keep(self, owner: Hashable, of: Hashable, record: Record | None, result: Any) -> None:
        with self._lock:
            shelf = self._shelves.setdefault(owner, _Shelf())
            self._shelves.move_to_end(owner)
            entries = shelf.known.setdefault(of, [])
            entries.insert(0, (record, result))
            del entries[VARIANTS:]
            shelf.known.move_to_end(of)
            while len(shelf.known) > self._per_owner:
                shelf.known.popitem(last=False)
            while len(self._shelves) > self._owners:
                self._shelves.popitem(last=False)

    def forget(self) -> None:
        """Forget everything (for benchmarks and tests)."""
        with self._lock:
            self._shelves.clear()
