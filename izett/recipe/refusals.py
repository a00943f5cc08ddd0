"""Why a step could not act, in words: not known, not meant for a half, out of its range, or beyond this shape."""

from collections.abc import Sequence
from typing import Any, get_args

from pydantic import BaseModel, ValidationError
from pydantic.fields import FieldInfo

from izett.errors import StepBroke, StepRefused, UnknownName
from izett.geometry.outline import crossing
from izett.geometry.tolerance import CROSSING_FLATNESS
from izett.pattern.facts import Half
from izett.pattern.piece import Piece
from izett.pattern.working import Working
from izett.recipe.model import Step
from izett.styling.operation import Operation, Outcome
from izett.wording import cm


def unknown_words(step: Step) -> str:
    """Return the words of a step whose kind the program does not know."""
    return f"Unknown step “{step.kind}”"


def unknown(step: Step) -> UnknownName:
    """Return the refusal of a step of an unknown kind or a later version."""
    return UnknownName(
        f"This version of the program does not know the step “{step.kind}” (version {step.version}).",
        fix="It is kept and skipped; a newer version of the program can use it.",
        where=(step.kind,),
    )


def no_half(half: Half) -> StepRefused:
    """Return the refusal of a half by a step that has none."""
    return StepRefused(
        f"This step has no {half.value} half.",
        fix="Set it to both halves.",
        where=(half.value,),
    )


def whole_refused(half: Half, piece: Piece) -> StepRefused:
    """Return the refusal of a step for a piece that lies over both halves."""
    if half is Half.BOTH:
        return StepRefused(
            f"{piece.title} is one piece over both halves, and this step would change it differently from either half.",
            fix="Put the step before the one that joined the halves, or set it to one side of the piece.",
            where=(piece.name,),
        )
    return StepRefused(
        f"{piece.title} is one piece over both halves: it has no {half.value} half any more.",
        fix="Set the step to both halves and point at the side of the piece that you mean, or put it before the unfolding.",
        where=(piece.name, half.value),
    )


def broke(fault: Exception) -> StepBroke:
    """Return the failure of a step that met a shape that nobody foresaw."""
    return StepBroke(
        f"This step cannot handle this shape ({type(fault).__name__}).",
        fix="Put the step earlier, or choose another place or amount. This is a fault in the program: please report it.",
    )


def crossed(before: Working, outcome: Outcome) -> StepRefused | None:
    """Return the refusal of a step that makes an outline cross itself, whichever step it is."""
    for piece in outcome.garment.since(before)[1]:
        if (spot := crossing(piece.outline(flatness=CROSSING_FLATNESS))) is not None:
            return StepRefused(
                f"The outline of the {piece.title.lower()} would cross itself near "
                f"{cm(spot[0])} across, {cm(spot[1])} up.",
                fix="Use a smaller amount, or choose another place.",
                where=(piece.name,),
            )
    return None


def invalid_params(operation: Operation, error: ValidationError) -> StepRefused:
    """Return what is wrong with a step's parameters, in words."""
    first = error.errors()[0]
    place = [str(part) for part in first["loc"]]
    name = (place[-1] if place else "entries").replace("_", " ")
    wrong, fix = _wrong(first, name, _field_at(operation.params, first["loc"]))
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
