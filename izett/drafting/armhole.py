"""The armhole: two cubics through the across line, as a hip curve and a French curve would draw it.

It is vertical at the across line, square to the shoulder at the tip, square to the side seam at the underarm, and
the front scoops more than the back. Fractions are shares of the way to the point where the end tangents meet, so
that no loop or kink can arise. Tuned by eye over many bodies; common practice for the shape itself.
"""

from dataclasses import dataclass

from izett.geometry.blend import towards_meeting, with_handles
from izett.geometry.curve import Curve, joined
from izett.geometry.point import Point, Vector
from izett.rules.formula import clamp


@dataclass(frozen=True, slots=True)
class Scoop:
    """How an armhole half is drawn.

    Attributes:
        height: where on the armhole's height the across line lies in a middling armhole.
        lower: how far the lower curve reaches towards its corner; larger scoops more.
    """

    height: float
    lower: float


#: Heights of the across line in a middling armhole.
BACK_HEIGHT, FRONT_HEIGHT = 0.45, 0.40

#: A wide armhole turns higher up: by this much for each unit of width over height beyond the middling 0.28.
_HEIGHT_BY_WIDTH = 0.35
_MIDDLING_WIDTH = 0.28
_HIGHEST = 0.62
#: Upper curve: share of the way to the meeting point, and the largest handle as a share of the drop.
_UPPER = 0.60
#: Where the tangents do not meet clearly above the across line: a mild S with these handles, shares of the drop.
_S_AT_TIP, _S_AT_ACROSS = 0.30, 0.45
_CLEARLY = 0.15
#: How much of the handle at the underarm is given up where its square runs straight down (none where it is level).
_DIP_HELD = 0.7


def across_point(tip: Point, underarm: Point, across: float, scoop: Scoop) -> Point:
    """Return where the armhole passes the across line, `across` cm from the centre."""
    height = tip[1] - underarm[1]
    wide = (underarm[0] - across) / height - _MIDDLING_WIDTH
    share = clamp(scoop.height + _HEIGHT_BY_WIDTH * wide, scoop.height - 0.03, _HIGHEST)
    return (across, underarm[1] + share * height)


def armhole(
    tip: Point, out_of_tip: Vector, underarm: Point, into_underarm: Vector, across: float, scoop: Scoop
) -> Curve:
    """Return the armhole from the underarm up to the shoulder tip.

    Args:
        tip: the shoulder tip.
        out_of_tip: direction square to the shoulder, downwards.
        underarm: the end of the side seam.
        into_underarm: direction square to the side seam, inwards.
        across: distance of the across line's end from the centre, cm.
        scoop: how the front or the back is drawn.
    """
    p = across_point(tip, underarm, across, scoop)
    drop = tip[1] - p[1]
    upper = towards_meeting(
        p, (0.0, 1.0), tip, out_of_tip, start_fraction=_UPPER, end_fraction=_UPPER, least=_CLEARLY * drop
    )
    if upper is None or max(_handle(upper[0], upper[1]), _handle(upper[3], upper[2])) > _UPPER * drop:
        upper = with_handles(
            p, (0.0, 1.0), tip, out_of_tip, start_handle=_S_AT_ACROSS * drop, end_handle=_S_AT_TIP * drop
        )
    # A large bust dart turns the underarm so that its square runs downwards: a shorter handle then keeps the line
    # from dipping far below the underarm.
    held = 1 - _DIP_HELD * max(-into_underarm[1], 0.0)
    lower = towards_meeting(
        underarm, into_underarm, p, (0.0, -1.0), start_fraction=held * scoop.lower, end_fraction=scoop.lower
    )
    if lower is None:
        reach = underarm[0] - p[0]
        lower = with_handles(
            underarm,
            into_underarm,
            p,
            (0.0, -1.0),
            start_handle=0.5 * reach,
            end_handle=0.5 * (p[1] - underarm[1]),
        )
    return joined([lower, upper])


def _handle(a: Point, b: Point) -> float:
    return float(((a[0] - b[0]) ** 2 + (a[1] - b[1]) ** 2) ** 0.5)
