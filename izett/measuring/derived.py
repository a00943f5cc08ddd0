"""What follows from the measures by plain sums: the other arc, half spans, differences and drops. Common practice."""

from collections.abc import Mapping
from dataclasses import dataclass

from izett.rules.formula import Formula


@dataclass(frozen=True, slots=True)
class Derived:
    """A value that follows from taken measures; `formula` holds their symbols."""

    key: str
    name: str
    formula: Formula


DERIVED = tuple(
    Derived(key, name, Formula.parse(text))
    for key, name, text in (
        ("back_bust_arc", "Back bust arc", "bust_girth - front_bust_arc"),
        ("half_apex_span", "Half of bust point to bust point", "apex_span / 2"),
        ("cup_difference", "Cup difference", "bust_girth - high_bust_girth"),
        ("bust_over_underbust", "Bust over underbust", "bust_girth - underbust_girth"),
        ("length_difference", "Length difference", "front_length - back_length"),
        ("waist_drop", "Waist drop", "bust_girth - waist_girth"),
        ("hip_drop", "Hip drop", "hip_girth - waist_girth"),
        ("hood_height", "Hood height", "hood_loop / 2"),
        ("trouser_side_length", "Side of trousers", "waist_to_floor - 2"),
    )
)


def derived_from(taken: Mapping[str, float]) -> list[tuple[Derived, float]]:
    """Return what follows from the taken measures (cm), each with its value in cm."""
    return [(d, d.formula.evaluate(taken)) for d in DERIVED if all(symbol in taken for symbol in d.formula.uses)]
