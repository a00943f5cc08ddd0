"""The torso below the waist: diamonds on the dart axes, the side smoothed through the waist, the hip squared."""

from dataclasses import dataclass
from math import atan2, cos, degrees, hypot, sin

from izett.drafting.bodice.bust_dart import bust_mouths
from izett.drafting.bodice.frame import Frame
from izett.drafting.bodice.halves import back_half, front_half
from izett.drafting.bodice.pieces import front_side
from izett.drafting.bodice.upper import Upper
from izett.drafting.bodice.waist import placed_behind, placed_in_front, share_darts
from izett.drafting.method import Notice, Tell
from izett.drafting.waistline import NARROWEST_PANEL, WaistDart
from izett.errors import DraftRefused
from izett.geometry.blend import with_handles
from izett.geometry.curve import Curve, joined, straight
from izett.geometry.point import Point, Vector, between, distance
from izett.pattern.facts import Role
from izett.pattern.piece import Diamond, Edge, LevelLine, Piece
from izett.rules.worksheet import Worksheet
from izett.wording import cm

#: The side's straight part ends this share of the way up from the waist to the lowest bust dart's mouth.
SMOOTHED = 0.6
#: Degrees. A side that flares more below the waist is told; beyond the second no torso is drawn.
TOLD_FLARE, LARGEST_FLARE = 22.0, 35.0


@dataclass(frozen=True, slots=True)
class Below:
    """The waist and hip of both halves.

    Attributes:
        front_darts, back_darts: the axes with their intakes.
        front_side, back_side: where the sides pass the waist; they are mirror images.
        flare: by how much the side stands further out at the hip than at the waist, cm.
    """

    front_darts: tuple[WaistDart, ...]
    back_darts: tuple[WaistDart, ...]
    front_side: Point
    back_side: Point
    flare: float


def below_of(sums: Worksheet, frame: Frame, tell: Tell) -> Below:
    """Return the waist and hip for the frame.

    Raises:
        DraftRefused: the hip is too much fuller than the waist for one piece.
    """
    front_intakes, back_intakes = share_darts(sums)
    take, cb = sums["side_take"], sums["centre_back_take"]
    if not front_intakes and not back_intakes:
        take = sums["waist_shaping"] / 2
    back_edge = sums["back_width"] + sums["centre_back_at_bust"]
    front_side, back_side = (sums["front_width"] - take, 0.0), (back_edge - take, 0.0)
    flare = sums["torso_front_hip"] - front_side[0]
    lean = degrees(atan2(abs(flare), sums["waist_to_hip"]))
    if lean > LARGEST_FLARE:
        raise DraftRefused(
            f"From waist to hip the side would lean {lean:.0f}°: the hip is {cm(sums['hip_girth'] - sums['waist_girth'])} "
            "fuller than the waist.",
            fix="Retake hip and waist; for this shape join bodice and skirt at the waist.",
            where=("hip_girth", "waist_girth", "waist_to_hip"),
        )
    if lean > TOLD_FLARE:
        tell(
            Notice(
                "torso-flares",
                f"From waist to hip the side leans {lean:.0f}°: bodice and skirt joined at the waist sit better.",
                ("hip_girth", "waist_girth"),
            )
        )
    front = placed_in_front(sums, front_intakes, front_side[0], frame)
    back = placed_behind(sums, back_intakes, back_side[0], cb)
    for darts, start, side in ((front, 0.0, front_side), (back, cb, back_side)):
        ends = [start, *(x for dart in darts for x in (dart.x - dart.intake / 2, dart.x + dart.intake / 2)), side[0]]
        if any(b - a < NARROWEST_PANEL for a, b in zip(ends[::2], ends[1::2], strict=True)):
            raise DraftRefused(
                "The waist darts leave no paper between them: the bust is "
                f"{cm(sums['bust_girth'] - sums['waist_girth'])} larger than the waist.",
                fix="Retake bust and waist; for such a shape use panels instead of darts.",
                where=("bust_girth", "waist_girth"),
            )
    return Below(tuple(front), tuple(back), front_side, back_side, flare)


def torso_pieces(sums: Worksheet, above: Upper, below: Below) -> tuple[Piece, Piece]:
    """Return front and back as pieces."""
    hem, cb = -sums["waist_to_hip"], sums["centre_back_take"]
    bend, waist_to_bend, hip_to_waist = _side_lines(sums, above.frame, below)
    edges: list[Edge] = [
        Edge(
            Role.CENTRE_FRONT, "front.centre", "front.neck_cf", "front.waist_cf", straight((0.0, above.pit), (0.0, 0.0))
        ),
        *_to_waist("front", "cf", Role.CENTRE_FRONT, 0.0, hip_to_waist, waist_to_bend),
    ]
    darts = front_side(sums, above.frame, below.front_side, edges, above=("front.side_bend", bend))
    front = front_half(
        sums,
        above,
        edges,
        darts,
        block="torso",
        low=0.6 * hem,
        diamonds=_diamonds("front", below.front_darts, sums["torso_front_dart_below"]),
        lines=_levels(0.0, below.front_darts, below.front_side[0], hip_to_waist.start),
    )
    shift = below.back_side[0] - below.front_side[0]

    def moved(point: Point) -> Point:
        return (point[0] + shift, point[1])

    back_hip = hip_to_waist.mapped(moved)
    straight_on = straight(moved(bend), above.frame.back.underarm)
    back = back_half(
        sums,
        above,
        (
            *_to_waist("back", "cb", Role.CENTRE_BACK, cb, back_hip, waist_to_bend.mapped(moved)),
            Edge(Role.SIDE, "back.side", "back.side_bend", "back.underarm", straight_on),
        ),
        (),
        block="torso",
        low=0.6 * hem,
        diamonds=_diamonds("back", below.back_darts, sums["torso_back_dart_below"]),
        lines=_levels(cb, below.back_darts, below.back_side[0], back_hip.start),
    )
    return front, back


def _to_waist(part: str, centre: str, role: Role, x: float, hip_to_waist: Curve, waist_to_bend: Curve) -> list[Edge]:
    """Return the ring from the centre's waist point round the hip to where the side's straight part begins."""
    hem = hip_to_waist.start
    corner = (x, hem[1])
    return [
        Edge(role, f"{part}.centre", f"{part}.waist_{centre}", f"{part}.hem_{centre}", straight((x, 0.0), corner)),
        Edge(Role.HEM, f"{part}.hem", f"{part}.hem_{centre}", f"{part}.hem_side", straight(corner, hem)),
        Edge(Role.SIDE, f"{part}.side", f"{part}.hem_side", f"{part}.waist_side", hip_to_waist),
        Edge(Role.SIDE, f"{part}.side", f"{part}.waist_side", f"{part}.side_bend", waist_to_bend),
    ]


def _side_lines(sums: Worksheet, frame: Frame, below: Below) -> tuple[Point, Curve, Curve]:
    """Return where the front's side begins to be smoothed, and its lines waist to there and hip to waist."""
    low, top = below.front_side, frame.closed_underarm
    mouth = min(bust_mouths(sums, frame.angle)[0], top[1])
    bend = between(low, top, SMOOTHED * mouth / (top[1] - low[1]))
    inwards = atan2(top[0] - low[0], top[1] - low[1])
    outwards = atan2(below.flare, sums["waist_to_hip"])
    lean = (inwards - outwards) / 2
    up: Vector = (sin(lean), cos(lean))
    hip = (low[0] + below.flare, -sums["waist_to_hip"])
    third = distance(low, bend) / 3
    along = (top[0] - low[0], top[1] - low[1])
    long = hypot(*along)
    upper = with_handles(low, up, bend, (-along[0] / long, -along[1] / long), start_handle=third, end_handle=third)
    depth = sums["waist_to_hip"]
    lower = with_handles(
        hip,
        (0.0, 1.0),
        low,
        (-up[0], -up[1]),
        start_handle=sums["hip_upright"] * depth,
        end_handle=sums["hip_fullness"] * depth,
    )
    return bend, joined([upper]), joined([lower])


def _diamonds(part: str, darts: tuple[WaistDart, ...], below: float) -> tuple[Diamond, ...]:
    return tuple(
        Diamond(
            f"{part}.waist_dart" + (f"_{i + 1}" if i else ""),
            "waist",
            (dart.x, dart.tip),
            (dart.x, -below),
            (dart.x - dart.intake / 2, 0.0),
            (dart.x + dart.intake / 2, 0.0),
        )
        for i, dart in enumerate(darts)
    )


def _levels(centre: float, darts: tuple[WaistDart, ...], side: float, hip: Point) -> tuple[LevelLine, ...]:
    """Return the waist line in its parts between the diamonds, and the hip line."""
    ends = [centre, *(x for dart in darts for x in (dart.x - dart.intake / 2, dart.x + dart.intake / 2)), side]
    waist = tuple(LevelLine("waist", ((a, 0.0), (b, 0.0))) for a, b in zip(ends[::2], ends[1::2], strict=True))
    return (*waist, LevelLine("hip", ((centre, hip[1]), hip)))
