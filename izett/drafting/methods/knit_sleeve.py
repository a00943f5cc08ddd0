"""The knit sleeve, set in flat: a lower cap without ease, front and back nearly alike.

Solved to its armhole as the set-in sleeve is; where the cap would stand too high the sleeve is cut wider. Common
practice.
"""

from pathlib import Path

from izett.drafting.method import Method, Tell
from izett.drafting.methods import sleeve
from izett.drafting.schools import MEASURES_USED
from izett.drafting.sleeve.cap import CapShape
from izett.drafting.sleeve.piece import settle_armhole, sleeve_piece, sleeve_seams
from izett.drafting.sleeve.solve import Limits, solved_cap
from izett.measuring.estimates import estimates
from izett.pattern.document import Pattern
from izett.rules.sheet import borrow, load_sheet, sharing
from izett.rules.worksheet import Worksheet

#: A knit cap keeps its ease; its width is what follows from a low cap.
LIMITS = Limits(cap_ease=(0.0, 0.0), bicep_ease=(-6.0, 18.0), drop=(0.0, 4.5), told=False)
#: Shares of the way to the tangents' meeting, as the set-in sleeve's. Tuned by eye.
UPPER, LOWER = 0.70, (0.50, 0.82)

#: What it has from the set-in sleeve.
SHARED = (
    "bicep_ease", "front_armhole_length", "back_armhole_length", "armhole_length", "cap_height", "front_sleeve_width",
    "cap_ratio", "sleeve_length", "elbow_level",
)  # fmt: skip


def draft(sums: Worksheet, tell: Tell, before: Pattern) -> Pattern:
    """Set a sleeve into the armhole of the top drafted before.

    Raises:
        DraftRefused: no cap suits the armhole.
        Adjustment: the armhole has to change first.
    """
    settle_armhole(sums, before)
    steeper = sums["cap_steeper"]
    front, back = (CapShape(sums[f"{half}_cap_fullest"], steeper, UPPER, LOWER) for half in ("front", "back"))
    cap = solved_cap(sums, tell, (front, back), LIMITS)
    piece = sleeve_piece(sums, cap, title="Knit sleeve")
    return before.joined((piece,), sleeve_seams(sums), ease={"bicep": sums["sleeve_width"] - sums["bicep_girth"]})


METHOD = Method(
    key="knit_sleeve",
    title="Knit sleeve",
    sheet=borrow(
        sharing(load_sheet(MEASURES_USED, Path(__file__).with_suffix(".toml")), sleeve.METHOD.sheet, SHARED),
        estimates(),
        never=("bust_girth",),
    ),
    requires=(),
    draft=draft,
    stands_on=("knit_top",),
)
