"""A step's parameters as fields of a form: what each means, its kind, unit, range and choices.

Read from the parameters' own schema, so that a new step needs no form of its own.
"""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from enum import Enum
from typing import Any, Literal, get_args, get_origin

from pydantic.fields import FieldInfo
from pydantic_core import PydanticUndefined

from izett.styling.references import Params, PieceRef, PointRef, Ref, SpanRef
from izett.units import Unit, handy


@dataclass(frozen=True, slots=True)
class Field:
    """One parameter.

    Attributes:
        name, meaning: its name, and what it means.
        kind: length, number, count, switch, choice, text, place, line, lines, dart, darts, seam, piece, pieces or other.
        unit: cm, °, share, or empty.
        low, high, default: of a number; default also of a choice, a switch or a text.
        choices: of a choice.
        only: the kinds of the step that it is for, where it has kinds; empty for all.
        called: what it means for some of these kinds.
    """

    name: str
    meaning: str
    kind: str
    unit: str
    low: float | None
    high: float | None
    default: Any
    choices: tuple[str, ...]
    only: tuple[str, ...] = ()
    called: Mapping[str, str] = field(default_factory=dict)


def fields_of(params: type[Params]) -> Iterator[Field]:
    """Yield the fields of a step's parameters, in their order."""
    for name, info in params.model_fields.items():
        extra = info.json_schema_extra if isinstance(info.json_schema_extra, dict) else {}
        unit = str(extra.get("unit", ""))
        low, high = _bounds(info)
        default = None if info.default is PydanticUndefined else info.default
        kind, choices = _kind(info, unit)
        yield Field(
            name,
            info.description or name.replace("_", " "),
            kind,
            unit,
            low,
            high,
            default.value if isinstance(default, Enum) else default,
            choices,
            tuple(str(getattr(one, "value", one)) for one in _only(extra)),
            _called(extra),
        )


def handy_params(params: type[Params], offered: Mapping[str, Any], unit: Unit) -> dict[str, Any]:
    """Return the parameters to begin a step with, its lengths as one says them in the reader's unit.

    Args:
        params: what the step has.
        offered: what the offer gives; every other length begins with its default.
        unit: the reader's.
    """
    found = dict(offered)
    fields = list(fields_of(params))
    kinds = {str(offered.get(one.name, one.default)) for one in fields if one.name == "kind"}
    for one in fields if unit is not Unit.CM else ():
        begun = found.get(one.name, one.default)
        if one.kind != "length" or begun is None or (one.only and not kinds & set(one.only)):
            continue
        low, high = (begun if bound is None else bound for bound in (one.low, one.high))
        found[one.name] = min(max(handy(float(begun), unit=unit), low), high)
    return found


def _only(extra: Mapping[str, Any]) -> Sequence[Any]:
    only = extra.get("only", ())
    return only if isinstance(only, list) else ()


def _called(extra: Mapping[str, Any]) -> Mapping[str, str]:
    called = extra.get("called", {})
    return {str(kind): str(words) for kind, words in called.items()} if isinstance(called, dict) else {}


def _bounds(info: FieldInfo) -> tuple[float | None, float | None]:
    low = next((float(m.ge) for m in info.metadata if getattr(m, "ge", None) is not None), None)
    high = next((float(m.le) for m in info.metadata if getattr(m, "le", None) is not None), None)
    return low, high


#: Kinds by the plain type that a parameter has; a number with a unit of cm is a length.
PLAIN: dict[Any, str] = {
    bool: "switch",
    int: "count",
    float: "number",
    str: "text",
    PointRef: "place",
    SpanRef: "line",
    tuple[SpanRef, ...]: "lines",
    tuple[PieceRef, ...]: "pieces",
}


def _kind(info: FieldInfo, unit: str) -> tuple[str, tuple[str, ...]]:
    kind: Any = info.annotation
    if isinstance(kind, type) and issubclass(kind, Ref):
        return kind.kind, ()
    if get_origin(kind) is Literal:
        return "choice", tuple(str(value) for value in get_args(kind))
    if isinstance(kind, type) and issubclass(kind, Enum):
        return "choice", tuple(str(member.value) for member in kind)
    return ("length" if kind is float and unit == "cm" else PLAIN.get(kind, "other")), ()
