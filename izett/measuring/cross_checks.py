"""Cross-checks: which measures contradict each other, by how much, and which to take again first.

Only what was taken is compared, and a body that is merely unusual is not remarked on. Common practice, no single
source, unless said.
"""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from math import cos, radians

#: Degrees. The shoulder's slope where nothing else is known (Bunka adult women's prototype, mean of front and back;
#: from memory).
USUAL_SLOPE = 20.0

#: cm. Sums of several readings agree within this: each reading brings its own half centimetre.
SUM_TOLERANCE = 2.0

Body = Mapping[str, float]


@dataclass(frozen=True, slots=True)
class Contradiction:
    """Measures that cannot all be right.

    Attributes:
        key: stable name of the cross-check.
        message: what contradicts what, in words without lengths.
        symbols: the measures concerned, the one to take again first.
        amount: by how much they disagree, in cm.
    """

    key: str
    message: str
    symbols: tuple[str, ...]
    amount: float


@dataclass(frozen=True, slots=True)
class CrossCheck:
    """A relation between measures.

    Attributes:
        key: stable name.
        symbols: the measures that it needs, the one to take again first.
        excess: by how much the relation is missed, in cm; 0 or less where it holds.
        message: what is said where it is missed.
    """

    key: str
    symbols: tuple[str, ...]
    excess: Callable[[Body], float]
    message: str


def _outside(value: float, low: float, high: float) -> float:
    return max(low - value, value - high)


def _back_neck_width(body: Body) -> float:
    return body["neck_girth"] / 5 - 0.2


CROSS_CHECKS: tuple[CrossCheck, ...] = (
    CrossCheck(
        "front_arc_share",
        ("front_bust_arc", "bust_girth"),
        lambda b: _outside(b["front_bust_arc"], 0.44 * b["bust_girth"], 0.64 * b["bust_girth"]),
        "The front bust arc is usually 44 to 64 % of the bust girth",
    ),
    CrossCheck(
        "bust_over_high_bust",
        ("high_bust_girth", "bust_girth"),
        lambda b: b["high_bust_girth"] - b["bust_girth"],
        "The upper chest is larger than the bust",
    ),
    CrossCheck(
        "underbust_under_bust",
        ("underbust_girth", "bust_girth"),
        lambda b: b["underbust_girth"] - b["bust_girth"],
        "The underbust is larger than the bust",
    ),
    CrossCheck(
        "apex_above_waist",
        ("shoulder_to_apex", "shoulder_to_waist"),
        lambda b: b["shoulder_to_apex"] - b["shoulder_to_waist"],
        "The bust point lies below the waist",
    ),
    CrossCheck(
        "apex_lengths",
        ("neck_to_apex", "shoulder_to_apex"),
        lambda b: b["shoulder_to_apex"] - 1 - b["neck_to_apex"],
        "From the neck point to the bust point is shorter than from the mid-shoulder",
    ),
    CrossCheck(
        "front_lengths",
        ("front_length", "front_waist_length"),
        lambda b: b["front_waist_length"] - b["front_length"],
        "The front length from the neck point is shorter than that from the neck pit",
    ),
    CrossCheck(
        "back_lengths",
        ("back_length", "back_waist_length"),
        lambda b: _outside(b["back_length"] - b["back_waist_length"], 0, 3),
        "The back length from the neck point is usually 0 to 3 cm longer than from the nape",
    ),
    CrossCheck(
        "length_difference",
        ("front_length", "back_length"),
        lambda b: _outside(b["front_length"] - b["back_length"], -2, 12),
        "Front and back length usually differ by −2 to 12 cm",
    ),
    CrossCheck(
        "shoulders_across",
        ("shoulder_length", "across_shoulder", "neck_girth"),
        lambda b: (
            abs(2 * (b["shoulder_length"] * cos(radians(USUAL_SLOPE)) + _back_neck_width(b)) - b["across_shoulder"])
            - SUM_TOLERANCE
        ),
        "Two shoulders and the back neck do not add up to the width across the shoulders",
    ),
    CrossCheck(
        "underarm_level",
        ("armhole_depth", "side_length", "back_waist_length"),
        lambda b: abs(b["armhole_depth"] + b["side_length"] - b["back_waist_length"]) - SUM_TOLERANCE,
        "Nape to underarm and underarm to waist do not add up to nape to waist",
    ),
    CrossCheck(
        "front_diagonal_reach",
        ("front_shoulder_slope_length", "front_length", "shoulder_length"),
        lambda b: b["front_shoulder_slope_length"] - b["front_length"] - b["shoulder_length"] / 2,
        "The front shoulder diagonal is far longer than the front itself",
    ),
    CrossCheck(
        "apex_within_front",
        ("neck_to_apex", "front_length"),
        lambda b: b["neck_to_apex"] - b["front_length"] + 5,
        "The bust point lies at or below the waist",
    ),
    CrossCheck(
        "apex_span_in_front",
        ("apex_span", "front_bust_arc"),
        lambda b: b["apex_span"] - 0.75 * b["front_bust_arc"],
        "The bust points lie wider apart than the front bust allows",
    ),
    CrossCheck(
        "across_back_in_shoulders",
        ("across_back", "across_shoulder"),
        lambda b: b["across_back"] - b["across_shoulder"] - 2,
        "The back is wider across than the shoulders",
    ),
)


def contradictions(body: Body) -> Iterator[Contradiction]:
    """Yield what contradicts what among the taken measures (cm), the largest disagreement first."""
    found = [
        Contradiction(check.key, check.message, check.symbols, excess)
        for check in CROSS_CHECKS
        if all(symbol in body for symbol in check.symbols) and (excess := check.excess(body)) > 0
    ]
    yield from sorted(found, key=lambda c: -c.amount)
