"""Who works first: a save before a look, a look before what is done aside; prints have a lane of their own.

Working a pattern out is Python's own work, one thread at a time: several at once only make each other late. So they take
turns, and whoever keeps something goes first. A print takes seconds, so it is not in that row: it goes beside it, one at
a time, and those who wait for it hold up nobody else.
"""

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from functools import wraps
from itertools import count
from threading import BoundedSemaphore, Condition, get_ident
from typing import Any

from studio.problems import Refusal

#: The order of turns.
SAVE, LOOK, ASIDE = 0, 1, 2
#: So many go before somebody of a lower rank, who then comes next.
MOST_PASSED = 10
#: So many wait for a print; more are told to come again.
MOST_WAITING = 8
#: Seconds that somebody waits for a print before being told to come again.
PATIENCE = 60


class Turns:
    """A lock that is handed to the first in order of rank, then of coming; whoever is passed over often comes next."""

    def __init__(self) -> None:
        self._condition = Condition()
        self._waiting: list[tuple[int, int]] = []
        self._coming = count()
        self._passed = 0
        self._holder: int | None = None

    @contextmanager
    def turn(self, rank: int) -> Iterator[None]:
        """Wait for one's turn; whoever has it already goes on."""
        me = get_ident()
        if self._holder == me:
            yield
            return
        ticket = (rank, next(self._coming))
        with self._condition:
            self._waiting.append(ticket)
            self._condition.wait_for(lambda: self._holder is None and self._next() == ticket)
            self._waiting.remove(ticket)
            passes_over = any(waiting > rank for waiting, _ in self._waiting)
            self._passed = self._passed + 1 if passes_over else 0
            self._holder = me
        try:
            yield
        finally:
            with self._condition:
                self._holder = None
                self._condition.notify_all()

    def _next(self) -> tuple[int, int]:
        """Return whose turn it is: the first of the highest rank, or, where those were let pass often, of the next."""
        first = min(self._waiting)
        behind = [ticket for ticket in self._waiting if ticket[0] > first[0]]
        return min(behind) if behind and self._passed >= MOST_PASSED else first


_TURNS = Turns()
turn = _TURNS.turn
_PRINTING = BoundedSemaphore(1)
_WAITING = BoundedSemaphore(MOST_WAITING)


def in_turn(rank: int) -> Callable[[Callable[..., Any]], Callable[..., Any]]:
    """Return a decorator that has a deed or a look wait for its turn."""

    def of(work: Callable[..., Any]) -> Callable[..., Any]:
        @wraps(work)
        def waiting(*args: Any, **kwargs: Any) -> Any:
            with turn(rank):
                return work(*args, **kwargs)

        return waiting

    return of


@contextmanager
def printing() -> Iterator[None]:
    """Take the one lane for prints.

    Raises:
        Refusal: 503 where too many wait for it already.
    """
    if not _WAITING.acquire(blocking=False):
        raise _come_again()
    try:
        if not _PRINTING.acquire(timeout=PATIENCE):
            raise _come_again()
        try:
            yield
        finally:
            _PRINTING.release()
    finally:
        _WAITING.release()


def _come_again() -> Refusal:
    return Refusal(
        503,
        "prints-waiting",
        f"{MOST_WAITING} prints are waiting already.",
        fix="Ask for this one again in a moment.",
        retry_after=5,
    )
