"""References: how a step names the things that it acts on, one class for each kind of thing.

They are stored as plain text and stay what they are: all references of a recipe can be listed, and renamed where a
recipe is taken over to other blocks. A name is only ever compared, never read.
"""

from collections.abc import Callable, Iterator
from typing import Any, ClassVar

from pydantic import BaseModel, ConfigDict, Field, GetCoreSchemaHandler
from pydantic_core import core_schema

from izett.pattern.piece import Span

#: Characters of a name: a step within steps names what it makes after all of them.
LONGEST_NAME = 200


class Ref(str):
    """A reference to a thing by its name; `kind` says what a form asks for."""

    __slots__ = ()
    kind: ClassVar[str] = "text"

    @classmethod
    def __get_pydantic_core_schema__(cls, _source: Any, _handler: GetCoreSchemaHandler) -> core_schema.CoreSchema:
        return core_schema.no_info_after_validator_function(
            cls, core_schema.str_schema(max_length=LONGEST_NAME), serialization=core_schema.to_string_ser_schema()
        )


class VertexRef(Ref):
    """A corner, by its name."""

    __slots__ = ()


class LineRef(Ref):
    """A line of the outline, by its lineage."""

    __slots__ = ()


class DartRef(Ref):
    """A dart by its name (`front.bust_dart`), or all of a family on a part (`front.bust`)."""

    __slots__ = ()
    kind: ClassVar[str] = "dart"


class DartsRef(DartRef):
    """All darts of a family on a part (`back.waist`)."""

    __slots__ = ()
    kind: ClassVar[str] = "darts"


class PieceRef(Ref):
    """A piece, by its name."""

    __slots__ = ()
    kind: ClassVar[str] = "piece"


class SeamRef(Ref):
    """A seam, by its name."""

    __slots__ = ()
    kind: ClassVar[str] = "seam"


class AnyRef(Ref):
    """A line, a dart, a seam, a piece or a level: what a finding is about."""

    __slots__ = ()


class Params(BaseModel):
    """The parameters of a step; lengths are in cm."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)


class SpanRef(Params):
    """A line of the outline by its two ends; where cuts parted it, all its parts."""

    start: VertexRef = Field(description="vertex where the line starts")
    end: VertexRef = Field(description="vertex where it ends")
    along: LineRef = Field(description="lineage of the line, such as front.neck")

    @property
    def span(self) -> Span:
        """The line."""
        return Span(self.start, self.end, self.along)

    @classmethod
    def of(cls, span: Span) -> "SpanRef":
        """Return the line along a span."""
        return cls(start=VertexRef(span.start), end=VertexRef(span.end), along=LineRef(span.along))


class PointRef(Params):
    """A point on the outline: a line by its two ends, and the fraction of its length as sewn."""

    start: VertexRef = Field(description="vertex where the line starts")
    end: VertexRef = Field(description="vertex where it ends")
    along: LineRef = Field(description="lineage of the line, such as front.shoulder")
    fraction: float = Field(
        0.5, ge=0, le=1, description="how far along the line, as sewn", json_schema_extra={"unit": "share"}
    )

    @property
    def span(self) -> Span:
        """The line."""
        return Span(self.start, self.end, self.along)


def references(params: Params) -> Iterator[Ref]:
    """Yield every reference of a step's parameters, in their order."""
    for name in type(params).model_fields:
        yield from _within(getattr(params, name))


def _within(value: Any) -> Iterator[Ref]:
    if isinstance(value, Ref):
        # One that may be left out is empty then.
        if value:
            yield value
    elif isinstance(value, Params):
        yield from references(value)
    elif isinstance(value, tuple):
        for one in value:
            yield from _within(one)


def renamed(params: Params, rename: Callable[[Ref], str]) -> dict[str, Any]:
    """Return a step's parameters as plain data, every reference by the name that `rename` gives it."""
    return {name: _renamed(getattr(params, name), rename) for name in params.model_fields_set}


def _renamed(value: Any, rename: Callable[[Ref], str]) -> Any:
    if isinstance(value, Ref):
        return rename(value) if value else ""
    if isinstance(value, Params):
        return renamed(value, rename)
    if isinstance(value, tuple):
        return [_renamed(one, rename) for one in value]
    return getattr(value, "value", value)
