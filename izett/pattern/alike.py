"""Whether a step left things as they were: by more than the last digits of a number."""

from collections.abc import Mapping
from dataclasses import fields, is_dataclass
from typing import Any

#: cm. A place that moved by less has not moved: a hundredth of a pencil line.
SAME = 1e-4


def alike(one: Any, other: Any) -> bool:
    """Return whether two things of a pattern are the same but for the rounding of their numbers."""
    match one, other:
        case (float() | int(), float() | int()):
            return abs(one - other) <= SAME
        case (tuple(), tuple()):
            return len(one) == len(other) and all(map(alike, one, other))
        case (Mapping(), Mapping()):
            return one.keys() == other.keys() and all(alike(one[key], other[key]) for key in one)
        case _ if is_dataclass(one) and type(one) is type(other) and one is not other:
            return all(alike(getattr(one, f.name), getattr(other, f.name)) for f in fields(one) if f.compare)
    return bool(one == other)
