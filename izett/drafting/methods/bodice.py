"""The woven fitted bodice, front and back, to the waist.

The draft is worked as a hand would: widths at the bust, neck, front with its bust dart, shoulders by triangle,
armholes, then the waist with its darts. What must fit together (side seam shift, neck depth, waist curve) is found,
and each found value says by how much it misses its condition. Where the arm needs more room than the measures
leave, ease is given up in a stated order and the maker is told.

Sources stand with each rule in bodice.toml; the order of work is common practice.
"""

from pathlib import Path

from izett.drafting.bodice.pieces import WAIST_SPANS, back_piece, ease_of, front_piece, seams_of
from izett.drafting.bodice.upper import refuse_crossing, upper_of
from izett.drafting.bodice.waist import waist_of
from izett.drafting.method import Method, Tell
from izett.drafting.schools import MEASURES_USED
from izett.measuring.estimates import estimates
from izett.pattern.document import Pattern
from izett.rules.formula import clamp
from izett.rules.sheet import borrow, load_sheet
from izett.rules.worksheet import Worksheet

#: The front waist point may leave the waist line by this much (cm) where the neck pit to waist was taken.
FRONT_WAIST = (-2.0, 1.2)


def draft(sums: Worksheet, tell: Tell, before: Pattern) -> Pattern:
    """Work the sums into a front and a back.

    Raises:
        DraftRefused: the measures do not make a bodice; the error names those to retake.
    """
    above = upper_of(sums, tell)
    front_waist = (0.0, _front_waist_y(sums, above.pit))
    waist = waist_of(sums, above.frame, front_waist, tell)
    front = front_piece(sums, above, front_waist, waist)
    back = back_piece(sums, above, waist)
    refuse_crossing(front, back)
    return before.joined((front, back), seams_of(sums), ease=ease_of(sums), along={"waist": WAIST_SPANS})


def _front_waist_y(sums: Worksheet, pit: float) -> float:
    if not sums.has("front_waist_length"):
        return 0.0
    return clamp(pit - sums["front_waist_length"], *FRONT_WAIST)


METHOD = Method(
    key="bodice",
    title="Fitted bodice",
    sheet=borrow(
        load_sheet(MEASURES_USED, Path(__file__).with_suffix(".toml")), estimates(), never=("bust_girth", "waist_girth")
    ),
    requires=(("bust_girth",), ("waist_girth",), ("height", "back_waist_length")),
    draft=draft,
    clothes=("above",),
)
