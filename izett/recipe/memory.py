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
VARIANTS = 8
#: Steps, checks and drafts of one owner; a garment of thirty steps has about sixty.
MOST_PER_OWNER = 400
MOST_OWNERS = 64


#: What a step, a check has before it: the half that is worked, the other half, and the body.
Before = tuple[Pattern, Pattern, Mapping[str, float]]
#: Two halves that come to the same share a result: each has its garment.
HALVES = 2


@dataclass(slots=True)
class _Entry:
    """A result with what was read for it, and the garments for which it was given last: for those no question is asked."""

    params: Hashable
    record: Record | None
    result: Any
    given: tuple[Before, ...] = ()

    def is_of(self, before: Before) -> bool:
        return any(all(a is b for a, b in zip(known, before, strict=True)) for known in self.given)

    def give(self, before: Before) -> Any:
        self.given = (before, *self.given[: HALVES - 1])
        return self.result


@dataclass(slots=True)
class _Shelf:
    known: OrderedDict[Hashable, list[_Entry]] = field(default_factory=OrderedDict)


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

    def kept(self, owner: Hashable, of: Hashable, params: Hashable, work: Callable[[], Any]) -> Any:
        """Return a result that depends on nothing but its parameters."""
        for entry in self._entries(owner, of, params):
            return self._used(owner, of, entry).result
        return self._keep(owner, of, _Entry(params, None, work())).result

    def read(
        self,
        owner: Hashable,
        of: Hashable,
        params: Hashable,
        before: Before,
        work: Callable[[], tuple[Record, Any]],
    ) -> Any:
        """Return a result for the garment before it: one that is known where every question has the same answer today.

        Args:
            owner, of: whose it is, and what it is of: a step, a check.
            params: with what parameters it is worked; a step that is pulled to and fro stays one step.
            before: the half that is worked, the other half, and the body.
            work: works it, and returns with the result what was read for it.
        """
        entries = self._entries(owner, of, params)
        for entry in entries:
            if entry.is_of(before):
                return self._used(owner, of, entry).result
        for entry in entries:
            if entry.record is not None and entry.record.holds(*before):
                return self._used(owner, of, entry).give(before)
        for entry in entries:
            # Only of what was given last the garment is kept: it holds on to every piece.
            entry.given = ()
        return self._keep(owner, of, _Entry(params, *work())).give(before)

    def _entries(self, owner: Hashable, of: Hashable, params: Hashable) -> list[_Entry]:
        with self._lock:
            shelf = self._shelves.get(owner)
            if shelf is None or of not in shelf.known:
                return []
            self._shelves.move_to_end(owner)
            shelf.known.move_to_end(of)
            return [entry for entry in shelf.known[of] if entry.params == params]

    def _used(self, owner: Hashable, of: Hashable, entry: _Entry) -> _Entry:
        """Put an entry first: the one unused for longest goes when there are too many."""
        with self._lock:
            shelf = self._shelves.get(owner)
            known = shelf.known.get(of, []) if shelf is not None else []
            if any(entry is other for other in known[1:]):
                known[:] = [entry, *(other for other in known if other is not entry)]
        return entry

    def _keep(self, owner: Hashable, of: Hashable, entry: _Entry) -> _Entry:
        with self._lock:
            shelf = self._shelves.setdefault(owner, _Shelf())
            self._shelves.move_to_end(owner)
            entries = shelf.known.setdefault(of, [])
            entries.insert(0, entry)
            del entries[VARIANTS:]
            shelf.known.move_to_end(of)
            while len(shelf.known) > self._per_owner:
                shelf.known.popitem(last=False)
            while len(self._shelves) > self._owners:
                self._shelves.popitem(last=False)
        return entry

    def forget(self) -> None:
        """Forget everything (for benchmarks and tests)."""
        with self._lock:
            self._shelves.clear()
