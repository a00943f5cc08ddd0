"""The dartless top: frame without a dart, side through waist and hip, front and back on the fold."""

from math import atan2, cos, sin

from izett.drafting import armhole as armholes
from izett.drafting.bodice.frame import BACK_INSIDE_TIP, FRONT_INSIDE_TIP, Frame, half_of, slopes_of
from izett.drafting.bodice.halves import back_half, front_half
from izett.drafting.bodice.upper import Upper
from izett.drafting.method import Notice
from izett.geometry.blend import with_handles
from izett.geometry.curve import Curve, joined, straight
from izett.geometry.point import Point
from izett.pattern.document import Seam, matching
from izett.pattern.facts import Role, SeamKind
from izett.pattern.piece import Edge, LevelLine, Piece
from izett.rules.worksheet import Worksheet

PARTS = ("front", "back")
#: Handles of the side's curves, as shares of their height: by eye.
SIDE_HANDLE = 0.38


def knit_frame(sums: Worksheet) -> Frame:
    """Return front and back above the waist, their shoulders of one slope, without a dart.

    Raises:
        DraftRefused: there is no armhole.
    """
    notices: list[Notice] = []
    front_neck = (sums["front_neck_width"], sums["front_neck_level"])
    back_neck = (sums["back_neck_width"], sums["back_waist_length"] + sums["back_neck_rise"])
    slope = sum(slopes_of(sums, front_neck, back_neck, notices)) / 2
    low, wide, into = sums["underarm_level"], sums["front_width"], (-1.0, 0.0)
    front_scoop = armholes.Scoop(armholes.FRONT_HEIGHT, sums["front_armhole_scoop"])
    back_scoop = armholes.Scoop(armholes.BACK_HEIGHT, sums["back_armhole_scoop"])
    shoulder, front_underarm = sums["front_shoulder"], (wide, low + sums["front_side_ease"])
    front = half_of(
        front_neck, slope, shoulder, front_underarm, into, sums["across_front_line"], FRONT_INSIDE_TIP, front_scoop
    )
    back = half_of(back_neck, slope, shoulder, (wide, low), into, sums["across_back_line"], BACK_INSIDE_TIP, back_scoop)
    return Frame(front, back, 0.0, front_underarm, tuple(notices))


def knit_pieces(sums: Worksheet, above: Upper) -> tuple[Piece, Piece]:
    """Return front and back, their sides alike."""
    hip_to_waist, waist_to_bust = _side_lines(sums)
    front = front_half(
        sums,
        above,
        (
            Edge(
                Role.CENTRE_FRONT,
                "front.centre",
                "front.neck_cf",
                "front.waist_cf",
                straight((0.0, above.pit), (0.0, 0.0)),
            ),
            *_below("front", "cf", Role.CENTRE_FRONT, hip_to_waist, waist_to_bust, above.frame.front.underarm),
        ),
        (),
        block="knit_top",
        low=-0.6 * sums["top_length"],
        lines=_levels(sums),
    )
    back = back_half(
        sums,
        above,
        _below("back", "cb", Role.CENTRE_BACK, hip_to_waist, waist_to_bust, above.frame.back.underarm),
        (),
        block="knit_top",
        low=-0.6 * sums["top_length"],
        lines=_levels(sums),
    )
    return front, back


def _side_lines(sums: Worksheet) -> tuple[Curve, Curve]:
    """Return the side from the hem to the waist and from there to the bust line."""
    waist = (sums["knit_waist"], 0.0)
    bust = (sums["front_width"], sums["bust_line_level"])
    hip = (sums["knit_hip"], -sums["waist_to_hip"])
    inwards, outwards = atan2(bust[0] - waist[0], bust[1]), atan2(hip[0] - waist[0], -hip[1])
    lean = (inwards - outwards) / 2
    up = (sin(lean), cos(lean))
    upper = with_handles(
        waist, up, bust, (0.0, -1.0), start_handle=SIDE_HANDLE * bust[1], end_handle=SIDE_HANDLE * bust[1]
    )
    depth = SIDE_HANDLE * -hip[1]
    lower = joined([with_handles(hip, (0.0, 1.0), waist, (-up[0], -up[1]), start_handle=depth, end_handle=depth)])
    hem = -sums["top_length"]
    if hem < hip[1] - 1e-9:
        below = ((hip[0], hem), (hip[0], hem + (hip[1] - hem) / 3), (hip[0], hip[1] - (hip[1] - hem) / 3), hip)
        lower = joined([below, *lower.cubics()])
    elif hem > hip[1] + 1e-9:
        lower = _cut_at(lower, hem)
    return lower, joined([upper])


def _cut_at(side: Curve, level: float) -> Curve:
    """Return the part of the side above a level."""
    low, high = 0.0, side.length
    for _ in range(60):
        middle = (low + high) / 2
        low, high = (middle, high) if side.at_distance(middle)[1] < level else (low, middle)
    return side.split(low)[1]


def _below(
    part: str, centre: str, role: Role, hip_to_waist: Curve, waist_to_bust: Curve, underarm: Point
) -> tuple[Edge, ...]:
    hem = hip_to_waist.start
    corner = (0.0, hem[1])
    return (
        Edge(role, f"{part}.centre", f"{part}.waist_{centre}", f"{part}.hem_{centre}", straight((0.0, 0.0), corner)),
        Edge(Role.HEM, f"{part}.hem", f"{part}.hem_{centre}", f"{part}.hem_side", straight(corner, hem)),
        Edge(Role.SIDE, f"{part}.side", f"{part}.hem_side", f"{part}.waist_side", hip_to_waist),
        Edge(Role.SIDE, f"{part}.side", f"{part}.waist_side", f"{part}.bust_side", waist_to_bust),
        Edge(Role.SIDE, f"{part}.side", f"{part}.bust_side", f"{part}.underarm", straight(waist_to_bust.end, underarm)),
    )


def _levels(sums: Worksheet) -> tuple[LevelLine, ...]:
    hip = -sums["waist_to_hip"]
    lines = [LevelLine("waist", ((0.0, 0.0), (sums["knit_waist"], 0.0)))]
    if sums["top_length"] >= sums["waist_to_hip"]:
        lines.append(LevelLine("hip", ((0.0, hip), (sums["knit_hip"], hip))))
    return tuple(lines)


def knit_seams(sums: Worksheet) -> tuple[Seam, ...]:
    """Return shoulder and side, the front eased into the side where its dart was dropped."""

    eased = sums["front_side_ease"]
    return (
        Seam(
            "shoulder", matching(PARTS, "shoulder", "neck_shoulder", "shoulder_tip"), (0.0, 0.0), kind=SeamKind.SHOULDER
        ),
        Seam(
            "side",
            matching(PARTS, "side", "hem_side", "underarm"),
            (-eased, -eased),
            "the front is eased in at the level of the bust" if eased else "",
            kind=SeamKind.SIDE,
        ),
    )
