"""What was asked of a garment and of the body, with the answers: so that it can be asked again instead of working."""

from collections.abc import Callable, Iterator, Mapping
from typing import Any, NamedTuple

from izett.pattern.document import Pattern


class Asked(NamedTuple):
    """A question: of which of the things a step has before it, which one, about what.

    A question is an attribute or a method of a pattern by its name, or a reading of one: a function of it.
    """

    of: str
    question: str | Callable[[Pattern, Any], Any]
    about: Any = None


#: What a step can ask: of the half that it works on, of the other half, of the body.
OWN, OTHER, BODY = "own", "other", "body"


class Record:
    """Questions that were asked, with their answers."""

    __slots__ = ("answers",)

    def __init__(self) -> None:
        self.answers: dict[Asked, Any] = {}

    def answer(self, asked: Asked, work: Callable[[], Any]) -> Any:
        """Return the answer to a question, worked when it is first asked."""
        if asked not in self.answers:
            self.answers[asked] = work()
        return self.answers[asked]

    def holds(self, own: Pattern, other: Pattern, body: Mapping[str, float]) -> bool:
        """Return whether every question would be answered the same today."""
        for (of, question, about), before in self.answers.items():
            now = body.get(about) if of == BODY else asked_of(own if of == OWN else other, question, about)
            if now is not before and now != before:
                return False
        return True

    def names(self) -> frozenset[str]:
        """Return the names that were asked for: of vertices, lines, darts, pieces and seams."""
        return frozenset(asked.about for asked in self.answers if isinstance(asked.about, str))


def asked_of(pattern: Pattern, question: str | Callable[[Pattern, Any], Any], about: Any) -> Any:
    """Return what a pattern answers."""
    if not isinstance(question, str):
        return question(pattern, about)
    answer = getattr(pattern, question)
    return answer(about) if about is not None else answer


class RecordedBody(Mapping[str, float]):
    """The body's measures and the draft's values, cm by symbol; what is asked for is kept."""

    def __init__(self, body: Mapping[str, float], record: Record) -> None:
        self._body, self._record = body, record

    def _asked(self, symbol: str) -> float | None:
        found: float | None = self._record.answer(Asked(BODY, "cm", symbol), lambda: self._body.get(symbol))
        return found

    def __getitem__(self, symbol: str) -> float:
        found = self._asked(symbol)
        if found is None:
            raise KeyError(symbol)
        return found

    def __contains__(self, symbol: object) -> bool:
        return isinstance(symbol, str) and self._asked(symbol) is not None

    def __iter__(self) -> Iterator[str]:
        return iter(self._body)

    def __len__(self) -> int:
        return len(self._body)
