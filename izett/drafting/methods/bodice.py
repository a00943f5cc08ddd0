"""The woven fitted bodice, front and back, to the waist.

The draft is worked as a hand would: widths at the bust, neck, front with its bust dart, shoulders by triangle,
armholes, then the waist with its darts. What must fit together (side seam shift, neck depth, waist curve) is found,
and each found value says by how much it misses its condition. Where the arm needs more room than the measures
leave, ease is given up in a stated order and the maker is told.

Sources stand with each rule in bodice.toml; the order of work is common practice.
"""

from pathlib import Path

from izett.drafting import neckline as necklines
from izett.drafting.bodice.frame import Frame
from izett.drafting.bodice.pieces import WAIST_SPANS, back_piece, ease_of, front_piece, seams_of
from izett.drafting.bodice.room import relaxed_frame, tell_about
from izett.drafting.bodice.waist import waist_of
from izett.drafting.method import Method, Notice, Tell
from izett.drafting.schools import MEASURES_USED
from izett.errors import DraftRefused
from izett.geometry.curve import Curve
from izett.geometry.outline import crossing
from izett.geometry.root import root
from izett.measuring.estimates import estimates
from izett.pattern.document import Pattern
from izett.rules.formula import clamp
from izett.rules.sheet import borrow, load_sheet
from izett.rules.worksheet import Worksheet

#: Front neck depth as a share of the front neck width.
NECK_DEPTHS = (0.75, 1.9)
#: The front waist point may leave the waist line by this much (cm) where the neck pit to waist was taken.
FRONT_WAIST = (-2.0, 1.2)


def draft(sums: Worksheet, tell: Tell, before: Pattern) -> Pattern:
    """Work the sums into a front and a back.

    Raises:
        DraftRefused: the measures do not make a bodice; the error names those to retake.
    """
    for symbol in ("side_shift", "bust_dart_angle"):
        sums.settle(symbol, 0.0)
    _refuse_impossible(sums)
    frame = relaxed_frame(sums, tell)
    for notice in frame.notices:
        tell(notice)
    tell_about(sums, frame, tell)
    pit, neck_front, neck_back = _necklines(sums, frame, tell)
    front_waist = (0.0, _front_waist_y(sums, pit))
    waist = waist_of(sums, frame, front_waist, tell)
    front = front_piece(sums, frame, pit, neck_front, front_waist, waist)
    back = back_piece(sums, frame, neck_back, waist)
    for piece in (front, back):
        if (spot := crossing(piece.outline())) is not None:
            raise DraftRefused(
                f"{piece.title}: the outline crosses itself near {spot[0]:.1f}, {spot[1]:.1f} cm.",
                mend="Retake the bust, waist, armhole depth and front length; one of them does not belong to this body.",
                where=("front_length", "armhole_depth", "bust_girth", "waist_girth"),
            )
    return before.joined((front, back), seams_of(sums), ease=ease_of(sums), along={"waist": WAIST_SPANS})


def _refuse_impossible(sums: Worksheet) -> None:
    reach = sums["neck_to_apex"] - abs(sums["apex_x"] - sums["front_neck_width"])
    if reach <= 1:
        raise DraftRefused(
            f"From the neck point to the bust point ({sums['neck_to_apex']:.1f} cm) does not reach a bust point "
            f"{sums['apex_x']:.1f} cm from the centre.",
            mend="Retake neck point to bust point and the bust point span.",
            where=("neck_to_apex", "apex_span"),
        )
    if sums["front_radius"] < 2:
        raise DraftRefused(
            f"The bust points lie {sums['apex_span']:.1f} cm apart: wider than the front of the bust allows.",
            mend="Retake the bust point span and the front bust arc.",
            where=("apex_span", "front_bust_arc"),
        )


def _necklines(sums: Worksheet, frame: Frame, tell: Tell) -> tuple[float, Curve, Curve]:
    """Return the height of the neck pit and the two neck curves, from neck point to centre."""
    nape = (0.0, sums["back_waist_length"])
    back = necklines.neckline(frame.back.neck_point, frame.back.below_neck, nape, necklines.BACK)
    scoop = (sums["neck_scoop"], necklines.FRONT_AT_NECK)
    aim = sums["neck_girth"] / 2 + sums["neck_ease"]
    x, y = frame.front.neck_point

    def front(depth: float) -> Curve:
        return necklines.neckline((x, y), frame.front.below_neck, (0.0, y - depth), scoop)

    def missed(depth: float) -> float:
        return front(depth).length + back.length - aim

    low, high = NECK_DEPTHS[0] * x, NECK_DEPTHS[1] * x
    if missed(low) > 0:
        depth = low
    elif missed(high) < 0:
        depth = high
    else:
        depth = root(missed, low, high)
    sums.settle("neck_depth", depth)
    depth = sums["neck_depth"]
    residual = missed(depth)
    sums.settle("neck_depth", depth, residual=residual)
    if abs(residual) > 0.5:
        tell(
            Notice(
                "neck-misses-girth",
                f"The neckline measures {2 * (aim + residual):.1f} cm for a neck of {sums['neck_girth']:.1f} cm.",
                ("neck_girth",),
            )
        )
    return y - depth, front(depth), back


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
