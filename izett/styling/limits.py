"""What is wrong with a step's parameters, in words: which field, what it has, and what it can have."""

from collections.abc import Sequence
from typing import Any, get_args

from pydantic import BaseModel, ValidationError
from pydantic.fields import FieldInfo

from izett.errors import StepRefused
from izett.wording import cm


def invalid_params(params: type[BaseModel], error: ValidationError) -> StepRefused:
    """Return what is wrong with a step's parameters, in words."""
    first = error.errors()[0]
    place = [str(part) for part in first["loc"]]
    name = (place[-1] if place else "entries").replace("_", " ")
    wrong, fix = _wrong(first, name, _field_at(params, first["loc"]))
    return StepRefused(f"{wrong[:1].upper()}{wrong[1:]}", fix=fix, where=(".".join(place) or "parameters",))


def _field_at(params: type[BaseModel], place: Sequence[Any]) -> FieldInfo | None:
    """Return the field at a place in parameters, in lists of models too; None where it is none."""
    model: type[BaseModel] | None = params
    field = None
    for name in (part for part in place if isinstance(part, str)):
        field = model.model_fields.get(name) if model else None
        model = _model_in(field.annotation) if field else None
    return field


def _model_in(annotation: Any) -> type[BaseModel] | None:
    """Return the model that an annotation is, or holds as `tuple[Model, ...]`."""
    if isinstance(annotation, type) and issubclass(annotation, BaseModel):
        return annotation
    return next((found for inner in get_args(annotation) if (found := _model_in(inner)) is not None), None)


def _wrong(first: Any, name: str, field: FieldInfo | None) -> tuple[str, str]:
    """Return what a field has that it cannot have, and what it can have."""
    kind, bound, given = first["type"], first.get("ctx", {}), first.get("input")
    match kind:
        case "missing":
            return f"{name} is missing.", f"Enter the {name}."
        case "extra_forbidden":
            return f"this step has no “{name}”.", "Leave it out."
        case "literal_error" | "enum":
            return f"“{given}” is not a choice for {name}.", f"Available: {bound['expected'].replace(chr(39), '')}."
        case _ if kind.startswith(("float", "int", "finite")):
            return f"{name} cannot be {_number(given, field)}.", "Enter a number."
        case "greater_than_equal" | "less_than_equal":
            return f"{name} cannot be {_number(given, field)}.", _range(bound, field)
        case _:
            return f"{name}: {first['msg'][:1].lower()}{first['msg'][1:]}.", "Correct it."


def _range(bound: Any, field: FieldInfo | None) -> str:
    """Return what a number may be: from and to where its field says both."""
    low, high = _bounds(field)
    if low is not None and high is not None:
        return f"Enter a value from {_number(low, field)} to {_number(high, field)}."
    least = "ge" in bound
    return f"Enter at {'least' if least else 'most'} {_number(bound['ge' if least else 'le'], field)}."


def _bounds(field: FieldInfo | None) -> tuple[Any, Any]:
    """Return the lowest and the highest value of a field, or None."""
    marks = field.metadata if field else []
    low = next((mark.ge for mark in marks if hasattr(mark, "ge")), None)
    return low, next((mark.le for mark in marks if hasattr(mark, "le")), None)


def _number(value: Any, field: FieldInfo | None) -> str:
    """Return a value with its field's unit."""
    if not isinstance(value, int | float):
        return f"“{value}”"
    extra = field.json_schema_extra if field else None
    unit = extra.get("unit", "") if isinstance(extra, dict) else ""
    if unit == "cm":
        return cm(value, 2)
    return f"{value:g}°" if unit == "°" else f"{value:g}"
