"""What a step is: parameters with units, limits and meaning, and a function from a pattern to a pattern.

A step reaches geometry only through its `Context`, which records what was read, so that 'what depends on this' is
known and not guessed.
"""

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any, TypeVar

from pydantic import BaseModel, ConfigDict, Field

from izett.errors import ReferenceLost
from izett.pattern.document import Intake, Pattern, Piece, Span
from izett.pattern.sewn import holding, span_length


class Params(BaseModel):
    """The parameters of a step; lengths are in cm."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)


def length(default: float, *, low: float, high: float, meaning: str) -> Any:
    """Declare a length in cm with its default, range and meaning."""
    return Field(default, ge=low, le=high, description=meaning, json_schema_extra={"unit": "cm"})


def share(default: float, *, low: float, high: float, meaning: str) -> Any:
    """Declare a share (1 is the whole) with its default, range and meaning."""
    return Field(default, ge=low, le=high, description=meaning, json_schema_extra={"unit": "share"})


class Place(Params):
    """A point on the outline: a line by its two ends, and the fraction of its length as sewn."""

    start: str = Field(description="vertex where the line starts")
    end: str = Field(description="vertex where it ends")
    along: str = Field(description="lineage of the line, such as front.shoulder")
    fraction: float = share(0.5, low=0, high=1, meaning="how far along the line, as sewn")

    @property
    def span(self) -> Span:
        """The line."""
        return Span(self.start, self.end, self.along)


class Context:
    """What a step may ask of the pattern, remembered in `read`.

    Attributes:
        uid: the step's own name, which prefixes what it makes.
        pattern: the pattern before the step.
        read: names of the vertices, lines and darts that were asked for.
    """

    def __init__(self, uid: str, pattern: Pattern) -> None:
        self.uid = uid
        self.pattern = pattern
        self.read: set[str] = set()

    def piece_with(self, vertex: str) -> Piece:
        """Return the piece that holds a vertex.

        Raises:
            ReferenceLost: none does.
        """
        self.read.add(vertex)
        return holding(self.pattern, vertex)

    def darts(self, reference: str) -> tuple[Piece, tuple[Intake, ...]]:
        """Return a dart by name, or all of a family (`front.bust`), with the piece that has them.

        Raises:
            ReferenceLost: there is none.
        """
        self.read.add(reference)
        for piece in self.pattern:
            found = tuple(dart for dart in piece.darts if reference in (dart.name, f"{piece.part}.{dart.family}"))
            if found:
                return piece, found
        have = [dart.name for piece in self.pattern for dart in piece.darts]
        raise ReferenceLost(
            f"The pattern has no dart “{reference}”.",
            mend=f"Its darts are: {', '.join(have) or 'none'}. A step before this one may have closed it.",
            where=(reference,),
        )

    def span_length(self, span: Span) -> float:
        """Return the length in cm of a line as sewn.

        Raises:
            ReferenceLost: there is no such line.
        """
        self.read.update((span.start, span.end, span.along))
        return span_length(self.piece_with(span.start), span)


@dataclass(frozen=True, slots=True)
class Outcome:
    """What a step did.

    Attributes:
        pattern: the pattern after it.
        sums: its arithmetic, line by line in words with cm: (what, value in cm).
        made: names of what it made.
    """

    pattern: Pattern
    sums: tuple[tuple[str, float], ...] = ()
    made: tuple[str, ...] = ()


P = TypeVar("P", bound=Params)


@dataclass(frozen=True, slots=True)
class Operation:
    """A kind of step.

    Attributes:
        key: stored in documents; a rename needs a migration.
        title: in the maker's words.
        params: its parameters.
        apply: works it; raises ReferenceLost or StepRefused.
        describe: one line in the maker's words.
        examples: parameters that act on a fresh bodice, for the tests that every step gets.
        version: raised when the same parameters come to mean something else.
    """

    key: str
    title: str
    params: type[Params]
    apply: Callable[[Any, Context], Outcome]
    describe: Callable[[Any], str]
    examples: tuple[dict[str, Any], ...] = field(default=())
    version: int = 1
