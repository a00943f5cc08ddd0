"""All of the bodice above its waist: frame and necklines, as the fitted bodice and the torso share them."""

from dataclasses import dataclass

from izett.drafting import neckline as necklines
from izett.drafting.bodice.frame import Frame
from izett.drafting.bodice.room import relaxed_frame, tell_about
from izett.drafting.method import Notice, Tell
from izett.errors import DraftRefused
from izett.geometry.curve import Curve
from izett.geometry.outline import crossing
from izett.geometry.root import root
from izett.pattern.piece import Piece
from izett.rules.worksheet import Worksheet
from izett.wording import cm

#: Front neck depth as a share of the front neck width.
NECK_DEPTHS = (0.75, 1.9)


@dataclass(frozen=True, slots=True)
class Upper:
    """The frame with the neck: the height of its pit, and its curves from the neck points to the centres."""

    frame: Frame
    pit: float
    neck_front: Curve
    neck_back: Curve


def upper_of(sums: Worksheet, tell: Tell) -> Upper:
    """Return what lies above the waist.

    Raises:
        DraftRefused: the measures do not make it; the error names those to retake.
    """
    for symbol in ("side_shift", "bust_dart_angle"):
        sums.settle(symbol, 0.0)
    _refuse_impossible(sums)
    frame = relaxed_frame(sums, tell)
    for notice in frame.notices:
        tell(notice)
    tell_about(sums, frame, tell)
    return Upper(frame, *necklines_of(sums, frame, tell))


def refuse_crossing(*pieces: Piece) -> None:
    """Raise where an outline crosses itself.

    Raises:
        DraftRefused: it does, and near where.
    """
    for piece in pieces:
        if (spot := crossing(piece.outline())) is not None:
            raise DraftRefused(
                f"{piece.title}: the outline crosses itself near {spot[0]:.1f}, {cm(spot[1])}.",
                fix="Retake the bust, waist, armhole depth and front length; one of them does not belong to this body.",
                where=("front_length", "armhole_depth", "bust_girth", "waist_girth"),
            )


def _refuse_impossible(sums: Worksheet) -> None:
    reach = sums["neck_to_apex"] - abs(sums["apex_x"] - sums["front_neck_width"])
    if reach <= 1:
        raise DraftRefused(
            f"From the neck point to the bust point ({cm(sums['neck_to_apex'])}) does not reach a bust point "
            f"{cm(sums['apex_x'])} from the centre.",
            fix="Retake neck point to bust point and the bust point span.",
            where=("neck_to_apex", "apex_span"),
        )
    if sums["front_radius"] < 2:
        raise DraftRefused(
            f"The bust points lie {cm(sums['apex_span'])} apart: wider than the front of the bust allows.",
            fix="Retake the bust point span and the front bust arc.",
            where=("apex_span", "front_bust_arc"),
        )


def necklines_of(sums: Worksheet, frame: Frame, tell: Tell) -> tuple[float, Curve, Curve]:
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
                f"The neckline measures {cm(2 * (aim + residual))} for a neck of {cm(sums['neck_girth'])}.",
                ("neck_girth",),
            )
        )
    return y - depth, front(depth), back
