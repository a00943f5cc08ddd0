"""The one-piece set-in sleeve, straight, solved to the armhole of the body block that it is set into.

The cap's halves measure the armhole's halves and half of the cap ease each; its height follows from the width that the
arm needs. Where that comes out too flat or too high, cap ease, ease at the upper arm and the armhole's depth give way
in that order, within limits, and the maker is told. Common practice; the figures are tuned over many bodies.
"""

from pathlib import Path

from izett.drafting.method import Method, Tell
from izett.drafting.schools import MEASURES_USED
from izett.drafting.sleeve.cap import CapShape
from izett.drafting.sleeve.piece import settle_armhole, sleeve_piece, sleeve_seams
from izett.drafting.sleeve.solve import Limits, solved_cap
from izett.measuring.estimates import estimates
from izett.pattern.document import Pattern
from izett.rules.sheet import borrow, load_sheet
from izett.rules.worksheet import Worksheet

LIMITS = Limits(cap_ease=(1.0, 3.5), bicep_ease=(3.0, 9.0), drop=(0.5, 4.5))
#: Shares of the way to the tangents' meeting: above the fullest place, below it, at the underarm. Tuned by eye.
FRONT_UPPER, FRONT_LOWER = 0.70, (0.50, 0.90)
BACK_UPPER, BACK_LOWER = 0.74, (0.42, 0.76)


def draft(sums: Worksheet, tell: Tell, before: Pattern) -> Pattern:
    """Set a sleeve into the armhole of the blocks drafted before.

    Raises:
        DraftRefused: no cap suits the armhole.
        Adjustment: the armhole has to change first.
    """
    settle_armhole(sums, before)
    steeper = sums["cap_steeper"]
    shapes = (
        CapShape(sums["front_cap_fullest"], steeper, FRONT_UPPER, FRONT_LOWER),
        CapShape(sums["back_cap_fullest"], steeper, BACK_UPPER, BACK_LOWER),
    )
    cap = solved_cap(sums, tell, shapes, LIMITS)
    piece = sleeve_piece(sums, cap, title="Sleeve")
    return before.joined((piece,), sleeve_seams(sums), ease={"bicep": sums["sleeve_width"] - sums["bicep_girth"]})


METHOD = Method(
    key="sleeve",
    title="Sleeve",
    sheet=borrow(load_sheet(MEASURES_USED, Path(__file__).with_suffix(".toml")), estimates(), never=("bust_girth",)),
    requires=(),
    draft=draft,
    stands_on=("bodice", "torso"),
)
