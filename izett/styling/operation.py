"""What a step is: parameters with units, limits and meaning, and a function from a pattern to a pattern.

A step reaches geometry only through its `Context`, which records what was read, so that 'what depends on this' is
known and not guessed.
"""

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field
from enum import StrEnum
from types import MappingProxyType
from typing import Any, NamedTuple, TypeVar

from pydantic import BaseModel, ConfigDict, Field

from izett.errors import ReferenceLost
from izett.pattern.document import Edge, Intake, Pattern, Piece, Span
from izett.pattern.sewn import holding, place_on, resolved, span_length
from izett.styling.subject import Subject


class Params(BaseModel):
    """The parameters of a step; lengths are in cm."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)


def length(default: float, *, low: float, high: float, meaning: str) -> Any:
    """Declare a length in cm with its default, range and meaning."""
    return Field(default, ge=low, le=high, description=meaning, json_schema_extra={"unit": "cm"})


def angle(default: float, *, low: float, high: float, meaning: str) -> Any:
    """Declare an angle in degrees with its default, range and meaning."""
    return Field(default, ge=low, le=high, description=meaning, json_schema_extra={"unit": "°"})


def ratio(default: float, *, low: float, high: float, meaning: str) -> Any:
    """Declare a plain number with its default, range and meaning."""
    return Field(default, ge=low, le=high, description=meaning, json_schema_extra={"unit": ""})


def count(default: int, *, low: int, high: int, meaning: str) -> Any:
    """Declare a whole number with its default, range and meaning."""
    return Field(default, ge=low, le=high, description=meaning, json_schema_extra={"unit": ""})


def share(default: float, *, low: float, high: float, meaning: str) -> Any:
    """Declare a share (1 is the whole) with its default, range and meaning."""
    return Field(default, ge=low, le=high, description=meaning, json_schema_extra={"unit": "share"})


class Line(Params):
    """A line of the outline by its two ends; where cuts parted it, all its parts."""

    start: str = Field(description="vertex where the line starts")
    end: str = Field(description="vertex where it ends")
    along: str = Field(description="lineage of the line, such as front.neck")

    @property
    def span(self) -> Span:
        """The line."""
        return Span(self.start, self.end, self.along)

    @classmethod
    def of(cls, span: Span) -> "Line":
        """Return the line along a span."""
        return cls(start=span.start, end=span.end, along=span.along)


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
        body: the body's measures and the draft's values, cm by symbol.
        read: names of the vertices, lines and darts that were asked for.
    """

    def __init__(
        self,
        uid: str,
        pattern: Pattern,
        body: Mapping[str, float] = MappingProxyType({}),
        operations: "Mapping[str, Operation]" = MappingProxyType({}),
    ) -> None:
        self.uid = uid
        self.pattern = pattern
        self.body = body
        self.read: set[str] = set()
        self._operations = operations

    def on(self, pattern: Pattern, label: str = "") -> "Context":
        """Return the context for going on with a pattern; what it reads is read by this step."""
        inner = Context(self.named(label) if label else self.uid, pattern, self.body, self._operations)
        inner.read = self.read
        return inner

    def work(self, kind: str, params: Mapping[str, Any], *, on: Pattern, label: str = "") -> "Outcome":
        """Work another step as a part of this one: steps do not know each other, only what they are called.

        Args:
            kind, params: the other step.
            on: the pattern that it acts on.
            label: tells apart what several such steps make.

        Raises:
            IzettError: whatever the other step raises.
        """
        operation = self._operations[kind]
        return operation.apply(operation.params.model_validate(dict(params)), self.on(on, label))

    def named(self, label: str) -> str:
        """Return the name of something that this step makes."""
        return f"{self.uid}.{label}"

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
        return sum(span_length(self.piece_with(part.start), part) for part in self.chain(span))

    def chain(self, span: Span) -> tuple[Span, ...]:
        """Return a line as spans that each lie on one piece.

        Raises:
            ReferenceLost: there is no such line.
        """
        self.read.update((span.start, span.end, span.along))
        return resolved(self.pattern, span)

    def place(self, place: Place) -> tuple[Piece, Edge, float]:
        """Return the piece, the edge, and how far (cm) along it in ring order a place lies.

        Raises:
            ReferenceLost: there is no such line.
        """
        chain = self.chain(place.span)
        along = place.fraction * sum(span_length(self.piece_with(part.start), part) for part in chain)
        for part in chain:
            piece = self.piece_with(part.start)
            length = span_length(piece, part)
            if along <= length or part is chain[-1]:
                stretch, on_edge = place_on(piece, part, min(along, length))
                whole = stretch.edge.curve.length
                return piece, stretch.edge, on_edge if stretch.forward else whole - on_edge
            along -= length
        raise AssertionError("a line has at least one part")

    def piece(self, name: str) -> Piece:
        """Return a piece by name.

        Raises:
            ReferenceLost: there is none.
        """
        self.read.add(name)
        for piece in self.pattern:
            if piece.name == name:
                return piece
        raise ReferenceLost(
            f"The pattern has no piece “{name}”.",
            mend=f"Its pieces are: {', '.join(piece.name for piece in self.pattern)}.",
            where=(name,),
        )

    def measured(self, symbol: str) -> float:
        """Return a measure of the body in cm.

        Raises:
            ReferenceLost: it was not taken, nor estimated for these blocks.
        """
        if symbol not in self.body:
            raise ReferenceLost(
                f"This step asks for {symbol.replace('_', ' ')}, which is not known.",
                mend="Take it on the measure sheet, or give the amount yourself.",
                where=(symbol,),
            )
        return self.body[symbol]


class Sum(NamedTuple):
    """A line of a step's arithmetic: what, how much, and the unit (`cm`, `°`, or none for a plain number)."""

    what: str
    value: float
    unit: str = "cm"


@dataclass(frozen=True, slots=True)
class Outcome:
    """What a step did.

    Attributes:
        pattern: the pattern after it.
        sums: its arithmetic, line by line.
        made: names of what it made.
    """

    pattern: Pattern
    sums: tuple[Sum, ...] = ()
    made: tuple[str, ...] = ()


class Phase(StrEnum):
    """When a step is worked, whatever its place in the list: what follows the final edges comes after what shapes them."""

    SHAPE = "shape"
    FOLLOW = "follow"
    ACCEPT = "accept"


class Keeps(StrEnum):
    """What a step does not change: all of its paper, or how well its seams agree."""

    PAPER = "paper"
    SEAMS = "seams"


class Group(StrEnum):
    """The families of steps, as listed."""

    DARTS = "Darts"
    LINES = "Style lines"
    FULLNESS = "Fullness"
    SIZE = "Length and width"
    NECK = "Neck, shoulder and armhole"
    HEM = "Hems and openings"
    SLEEVE = "Sleeve"
    ADDED = "Added pieces"
    AGREE = "Bring into agreement"


class Offer(NamedTuple):
    """Something that can be done to the thing pointed at: in words, with the parameters to begin with."""

    words: str
    params: dict[str, Any]


def _nothing(_subject: Subject, _pattern: Pattern) -> Iterable[Offer]:
    return ()


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
        examples: parameters that act on fresh `blocks`, for the tests that every step gets.
        group: its family.
        offers: what it can do to a thing pointed at.
        phase: when it is worked.
        blocks: the blocks that its examples act on.
        before: steps (kind, parameters) that make what its examples act on.
        keeps: what it must not change, read after it (`styling/kept.py`).
        version: raised when the same parameters come to mean something else.
    """

    key: str
    title: str
    params: type[Params]
    apply: Callable[[Any, Context], Outcome]
    describe: Callable[[Any], str]
    examples: tuple[dict[str, Any], ...] = field(default=())
    group: Group = Group.SIZE
    offers: Callable[[Subject, Pattern], Iterable[Offer]] = _nothing
    phase: Phase = Phase.SHAPE
    blocks: tuple[str, ...] = ("bodice",)
    before: tuple[tuple[str, dict[str, Any]], ...] = ()
    keeps: frozenset[Keeps] = frozenset()
    version: int = 1
