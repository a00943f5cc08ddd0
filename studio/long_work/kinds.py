"""What takes long: each kind of work by its key, from a question to a result."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

from pydantic import BaseModel

from studio.advising import AdviceQuestion, advised
from studio.cutting_schemas import LayQuestion
from studio.lays import laid
from studio.long_work.telling import Teller
from studio.trace_schemas import TraceQuestion
from studio.tracing import traced


@dataclass(frozen=True, slots=True)
class Kind:
    """A kind of long work.

    Attributes:
        key: stable name.
        title: for people, before “was stopped”.
        question: what it is asked; it holds all that the result depends on, since the result is kept by it.
        work: works the answer out, telling of it meanwhile; may raise what a person can put right.
    """

    key: str
    title: str
    question: type[BaseModel]
    work: Callable[[Any, Teller], BaseModel]


KINDS: Mapping[str, Kind] = {
    kind.key: kind
    for kind in (
        Kind("advice", "What to take next", AdviceQuestion, advised),
        Kind("lay", "The lay plan", LayQuestion, laid),
        Kind("trace", "The tracing", TraceQuestion, traced),
    )
}
