"""The waist of the bodice: darts and panels of both halves, drawn so that the waist measures its share as sewn."""

from dataclasses import dataclass

from izett.drafting.bodice.bust_dart import bust_mouths
from izett.drafting.bodice.frame import Frame
from izett.drafting.method import Notice, Tell
from izett.drafting.waistline import NARROWEST_PANEL, WaistDart, intakes, refuse_crowded, waist_panels
from izett.geometry.curve import Curve
from izett.geometry.point import Point, unit
from izett.rules.worksheet import Worksheet
from izett.wording import cm


@dataclass(frozen=True, slots=True)
class Waist:
    """The waist of both halves: darts and panels from the centre to the side, and where the side begins."""

    front_darts: tuple[WaistDart, ...]
    back_darts: tuple[WaistDart, ...]
    front_panels: tuple[Curve, ...]
    back_panels: tuple[Curve, ...]
    front_side: Point
    back_side: Point


def waist_of(sums: Worksheet, frame: Frame, front_centre: Point, tell: Tell) -> Waist:
    """Place the darts and draw the waist line so that it measures waist and ease as sewn.

    A curved line is longer than the straight one: its excess goes into the darts (or, where a piece has none, to the
    other piece's darts, and where there are none at all, to the side seams), until the sum is exact.
    """
    front_intakes, back_intakes = share_darts(sums)
    level = sums["bust_line_level"]
    take = sums["side_take"]
    cb = sums["centre_back_take"]
    base_front = sums["front_width"] - sum(front_intakes)
    base_back = sums["back_width"] + sums["centre_back_at_bust"] - cb - sum(back_intakes)
    aims = (base_front - take, base_back - take)
    slant = 0.75 * sums["back_waist_length"]
    down_back = unit((-cb, slant))
    extra = [0.0, 0.0]
    sides = 0.0
    for _ in range(40):
        c = take + sides
        up_side = unit((c, level))
        front_side = (sums["front_width"] - c, 0.0)
        back_side = (sums["back_width"] + sums["centre_back_at_bust"] - c, 0.0)
        front_darts = placed_in_front(sums, _grown(front_intakes, extra[0]), front_side[0], frame)
        back_darts = placed_behind(sums, _grown(back_intakes, extra[1]), back_side[0], cb)
        front = waist_panels(front_centre, (1.0, 0.0), front_side, up_side, front_darts)
        back = waist_panels((cb, 0.0), (down_back[1], -down_back[0]), back_side, up_side, back_darts)
        over_front = sum(panel.length for panel in front) - aims[0]
        over_back = sum(panel.length for panel in back) - aims[1]
        if front_darts and back_darts:
            extra = [extra[0] + over_front, extra[1] + over_back]
            missed = max(abs(over_front), abs(over_back))
        else:
            both = over_front + over_back
            missed = abs(both)
            if front_darts:
                extra[0] += both
            elif back_darts:
                extra[1] += both
            else:
                sides += both / 2
        if missed < 1e-9:
            break
    refuse_crowded((*front, *back), sums["bust_girth"] - sums["waist_girth"], over="bust", under="waist")
    sums.settle("front_waist_curve", extra[0] if front_darts else sides, residual=over_front)
    sums.settle("back_waist_curve", extra[1] if back_darts else sides, residual=over_back)
    largest = max((dart.intake for dart in (*front_darts, *back_darts)), default=0.0)
    if largest > 5:
        tell(
            Notice(
                "too-much-shaping",
                f"A waist dart takes in {cm(largest)}: too much shaping for darts, panels would sit better.",
                ("waist_girth", "bust_girth"),
            )
        )
    return Waist(tuple(front_darts), tuple(back_darts), tuple(front), tuple(back), front_side, back_side)


def share_darts(sums: Worksheet) -> tuple[list[float], list[float]]:
    """Return the intakes of front and back, shared over as few darts as may be."""
    front, back = sums["front_dart_intake"], sums["back_dart_intake"]
    if sums["darts_together"] <= 1e-9 or sums["waist_shaping"] < 2:
        return [], []
    if front < sums["smallest_dart"]:
        front, back = 0.0, front + back
    elif back < sums["smallest_dart"]:
        front, back = front + back, 0.0
    # What the smallest dart hands over may still be too little for one dart: it is sewn all the same, since the
    # waist must be met.
    return (
        intakes(front, largest=sums["largest_front_dart"], smallest=1e-9),
        intakes(back, largest=sums["largest_back_dart"], smallest=1e-9),
    )


def _grown(shares: list[float], extra: float) -> list[float]:
    return [share + extra / len(shares) for share in shares]


def placed_in_front(sums: Worksheet, shares: list[float], side_x: float, frame: Frame) -> list[WaistDart]:
    """Return the front's waist darts: the first under the bust point, the others evenly towards the side."""
    first = sums["apex_x"]
    tip = sums["apex_level"] - sums["dart_set_back"]
    below_mouth = bust_mouths(sums, frame.angle)[0] - 2
    step = (side_x - first) / len(shares) if shares else 0.0
    return [
        WaistDart(first + i * step, tip if i == 0 else min(tip, below_mouth), share) for i, share in enumerate(shares)
    ]


def placed_behind(sums: Worksheet, shares: list[float], side_x: float, cb: float) -> list[WaistDart]:
    """Return the back's waist darts: the first at a quarter of the across back, the others evenly towards the side."""
    tip = min(sums["bust_line_level"], sums["apex_level"] + 1)
    first = max(sums["across_back"] / 4, cb + (shares[0] if shares else 0.0) / 2 + NARROWEST_PANEL)
    step = (side_x - first) / len(shares) if shares else 0.0
    return [WaistDart(first + i * step, tip - 2 * i, share) for i, share in enumerate(shares)]
