"""What a step is: parameters with units, limits and meaning, and a function that changes the garment.

A step reaches the garment only through its `Context`: what it asks is kept with the answers, what it changes is returned.
"""

import re
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from enum import StrEnum
from types import MappingProxyType
from typing import Any, NamedTuple, TypeVar

from pydantic import Field, ValidationError

from izett.errors import ReferenceLost, StepRefused
from izett.pattern.document import Pattern
from izett.pattern.facts import SeamKind
from izett.pattern.levels import settled_since
from izett.pattern.naming import readable
from izett.pattern.piece import Edge, Intake, Piece, Span, darts_on
from izett.pattern.record import OTHER, Record, RecordedBody
from izett.pattern.sewn import holding, place_on, resolved, span_length
from izett.pattern.working import Readable, Working
from izett.styling.limits import invalid_params
from izett.styling.references import Params, PointRef
from izett.styling.subject import Subject
from izett.wording import titled


def length(
    default: float,
    *,
    low: float,
    high: float,
    meaning: str,
    only: Sequence[str] = (),
    called: Mapping[str, str] = MappingProxyType({}),
) -> Any:
    """Declare a length in cm with its default, range and meaning.

    Where the step has kinds, `only` says for which it is, and `called` what it means for some of them.
    """
    return _amount(default, low, high, meaning, "cm", only, called)


def angle(default: float, *, low: float, high: float, meaning: str) -> Any:
    """Declare an angle in degrees with its default, range and meaning."""
    return _amount(default, low, high, meaning, "°")


def ratio(
    default: float,
    *,
    low: float,
    high: float,
    meaning: str,
    only: Sequence[str] = (),
    called: Mapping[str, str] = MappingProxyType({}),
) -> Any:
    """Declare a plain number with its default, range and meaning; `only` and `called` as of a length."""
    return _amount(default, low, high, meaning, "", only, called)


def count(default: int, *, low: int, high: int, meaning: str, only: Sequence[str] = ()) -> Any:
    """Declare a whole number with its default, range and meaning; `only` for some kinds of the step."""
    return _amount(default, low, high, meaning, "", only)


def share(default: float, *, low: float, high: float, meaning: str, only: Sequence[str] = ()) -> Any:
    """Declare a share (1 is the whole) with its default, range and meaning; `only` for some kinds of the step."""
    return _amount(default, low, high, meaning, "share", only)


def _amount(
    default: float,
    low: float,
    high: float,
    meaning: str,
    unit: str,
    only: Sequence[str] = (),
    called: Mapping[str, str] = MappingProxyType({}),
) -> Any:
    extra: dict[str, Any] = {"unit": unit, "only": list(only), "called": {str(k): words for k, words in called.items()}}
    return Field(default, ge=low, le=high, description=meaning, json_schema_extra=extra)


class Context:
    """What a step may ask of the garment.

    Attributes:
        uid: the step's own name, which begins the names of what it makes.
        garment: the garment before the step, as it is on the half that is worked.
        other: the same on the other half.
        body: the body's measures and the draft's values, cm by symbol.
    """

    def __init__(
        self,
        uid: str,
        garment: Working,
        body: Mapping[str, float],
        other: Working,
        operations: "Mapping[str, Operation]" = MappingProxyType({}),
    ) -> None:
        self.uid = uid
        self.garment = garment
        self.body = body
        self.other = other
        self._operations = operations

    @classmethod
    def before(
        cls,
        uid: str,
        pattern: Pattern,
        body: Mapping[str, float] = MappingProxyType({}),
        operations: "Mapping[str, Operation]" = MappingProxyType({}),
        *,
        other: Pattern | None = None,
    ) -> "Context":
        """Return the context of a step that is worked on a pattern, with a record of its own.

        Args:
            uid: the step's own name.
            pattern: the half that is worked.
            body, operations: what is known of the body, and the other steps.
            other: the other half; left out where both are alike.
        """
        record = Record()
        beyond = Working(pattern if other is None else other, record, of=OTHER)
        return cls(uid, Working(pattern, record), RecordedBody(body, record), beyond, operations)

    @property
    def record(self) -> Record:
        """The questions that were asked, with their answers."""
        return self.garment.record

    def on(self, garment: Working, label: str = "") -> "Context":
        """Return the context for going on with a garment; what it reads is read by this step."""
        return Context(self.named(label) if label else self.uid, garment, self.body, self.other, self._operations)

    def work(self, kind: str, params: Mapping[str, Any], *, on: Working, label: str = "") -> "Outcome":
        """Work another step as a part of this one: steps do not know each other, only what they are called.

        Args:
            kind, params: the other step.
            on: the garment that it acts on.
            label: tells apart what several such steps make.

        Raises:
            IzettError: whatever the other step raises.
        """
        operation = self._operations[kind]
        try:
            own = operation.params.model_validate(dict(params))
        except ValidationError as error:
            wrong = invalid_params(operation.params, error)
            raise StepRefused(
                f"This step works “{operation.title.lower()}” as a part of it, and there {_begun(wrong.message)}",
                fix=f"Choose a smaller amount. {wrong.fix}",
                where=wrong.where,
            ) from error
        outcome = operation.apply(own, self.on(on, label))
        return replace(outcome, garment=settled_since(on, outcome.garment))

    def named(self, label: str) -> str:
        """Return the name of something that this step makes."""
        return f"{self.uid}.{label}"

    def called(self, name: str) -> str:
        """Return what a line, a dart, a seam or a piece of the garment is called in words."""
        return titled(readable(name), {name: title} if (title := self.garment.title_of(name)) else {})

    def piece_with(self, vertex: str) -> Piece:
        """Return the piece that holds a vertex.

        Raises:
            ReferenceLost: none does.
        """
        return holding(self.garment, vertex)

    def darts(self, reference: str) -> tuple[Piece, tuple[Intake, ...]]:
        """Return a dart by name, or all of a family (`front.bust`), with the piece that has them.

        Raises:
            ReferenceLost: there is none.
        """
        piece = self.garment.with_dart(reference)
        if piece is not None:
            return piece, darts_on(piece, reference)
        have = [readable(dart.name) for piece in self.garment for dart in piece.darts]
        raise ReferenceLost(
            f"There is no {readable(reference)} here.",
            fix=f"Available: {', '.join(have) or 'no darts'}. An earlier step may have closed it.",
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
        return resolved(self.garment, span)

    def place(self, place: PointRef) -> tuple[Piece, Edge, float]:
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
        piece = self.garment.find_piece(name)
        if piece is not None:
            return piece
        raise ReferenceLost(
            f"The piece {readable(name)} is gone.",
            fix=f"Pieces now: {', '.join(piece.title for piece in self.garment)}.",
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
                fix="Take it on the measure sheet, or give the amount yourself.",
                where=(symbol,),
            )
        return self.body[symbol]


def _begun(sentence: str) -> str:
    return sentence[:1].lower() + sentence[1:]


class Sum(NamedTuple):
    """A line of a step's arithmetic: what, how much, and the unit (`cm`, `°`, or none for a plain number).

    `both` says that it is counted over both halves: of a step for one half, half of it is told.
    """

    what: str
    value: float
    unit: str = "cm"
    both: bool = False

    @property
    def plainly(self) -> "Sum":
        """The line as one says it: shorter by 2, not longer by −2.

        >>> Sum("longer at the tip", -2.0).plainly
        Sum(what='shorter at the tip', value=2.0, unit='cm', both=False)
        """
        said = _COMPARED.search(self.what)
        if self.value >= 0 or said is None:
            return self
        return self._replace(what=self.what.replace(said[0], _OPPOSITES[said[0]], 1), value=-self.value)


_OPPOSITES = {
    "longer": "shorter",
    "wider": "narrower",
    "lower": "higher",
    "higher": "lower",
    "up": "down",
    "towards the side": "towards the centre",
    "further back": "nearer to the point",
    "bulge": "hollow",
}
_COMPARED = re.compile(rf"\b({'|'.join(_OPPOSITES)})\b")


@dataclass(frozen=True, slots=True)
class Outcome:
    """What a step did.

    Attributes:
        garment: the garment after it.
        sums: its arithmetic, line by line.
        made: names of what it made.
        asks: seams that it moved and whose other side is to follow, in the section for that.
    """

    garment: Working
    sums: tuple[Sum, ...] = ()
    made: tuple[str, ...] = ()
    asks: tuple[SeamKind, ...] = ()


class Section(StrEnum):
    """The sections of a recipe, worked in this order whatever the order of entry.

    fit: what a fitting told of this body, on the source pieces, under the style. style: what makes the garment. follow:
    what is worked from the final edges. finish: what is cut beside them. accept: what is meant as it is.
    """

    FIT = "fit"
    STYLE = "style"
    FOLLOW = "follow"
    FINISH = "finish"
    ACCEPT = "accept"


#: Sections of steps that shape the garment: as styling unless it is said otherwise.
SHAPES = (Section.STYLE, Section.FIT)


class Keeps(StrEnum):
    """What a step does not change: all of its paper, or how well its seams agree."""

    PAPER = "paper"
    SEAMS = "seams"


class Width(StrEnum):
    """What a change of the garment's width at a level is: ease wanted there from now on, fullness, or not meant at all."""

    EASE = "ease"
    FULLNESS = "fullness"
    NOTHING = "nothing"


def nothing_meant(_params: Params, _level: str) -> Width:
    """Mean no level to change: where one does, the ease map and the checks tell it."""
    return Width.NOTHING


def as_ease(_params: Params, _level: str) -> Width:
    """Mean every level that moves to have that ease from now on."""
    return Width.EASE


def as_fullness(_params: Params, _level: str) -> Width:
    """Add fullness, which is no ease."""
    return Width.FULLNESS


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


def _nothing(_subject: Subject, _pattern: Readable) -> Iterable[Offer]:
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
        sections: where it may stand, its usual section first.
        halves: whether it can be for one half of the body alone.
        joins: whether it joins both halves of a piece: worked once, and laid on both.
        moves: the seams whose length it may change: in the fit section what is sewn there follows.
        blocks: the blocks that its examples act on.
        before: steps (kind, parameters) that make what its examples act on.
        keeps: what it must not change, read after it (`styling/kept.py`).
        width: what a change of the garment's width at a level is meant to be.
        version: raised when the same parameters come to mean something else.
        upgrades: from each older version, its parameters as the next one understands them.
    """

    key: str
    title: str
    params: type[Params]
    apply: Callable[[Any, Context], Outcome]
    describe: Callable[[Any], str]
    examples: tuple[dict[str, Any], ...] = field(default=())
    group: Group = Group.SIZE
    offers: Callable[[Subject, Readable], Iterable[Offer]] = _nothing
    sections: tuple[Section, ...] = (Section.STYLE,)
    halves: bool = True
    joins: bool = False
    moves: tuple[SeamKind, ...] = ()
    blocks: tuple[str, ...] = ("bodice",)
    before: tuple[tuple[str, dict[str, Any]], ...] = ()
    keeps: frozenset[Keeps] = frozenset()
    width: Callable[[Any, str], Width] = nothing_meant
    version: int = 1
    upgrades: Mapping[int, Callable[[dict[str, Any]], dict[str, Any]]] = field(default_factory=dict)

    def __post_init__(self) -> None:
        """Refuse a kind that does not say how to read each version before it."""
        if set(self.upgrades) != set(range(1, self.version)):
            raise ValueError(f"{self.key}: version {self.version} needs an upgrade from each version before it")

    def upgraded(self, params: Mapping[str, Any], version: int | None) -> dict[str, Any]:
        """Return parameters that were written for an older version as this one understands them: it never runs as new.

        What has no version was made now.
        """
        found = dict(params)
        for number in range(version or self.version, self.version):
            found = self.upgrades[number](found)
        return found

    @property
    def section(self) -> Section:
        """Where it stands unless the step says otherwise."""
        return self.sections[0]

    @property
    def sided(self) -> bool:
        """Whether it can be for one half alone: only what shapes the garment can."""
        return self.halves and self.section is Section.STYLE
