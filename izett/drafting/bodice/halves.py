"""Front and back above the waist as pieces, upon whatever a block draws below: waist and darts, or a torso's hip."""

from collections.abc import Sequence
from math import radians
from types import MappingProxyType

from izett.drafting.bodice.frame import Frame, Half
from izett.drafting.bodice.upper import Upper
from izett.drafting.standard import as_block
from izett.geometry.curve import straight
from izett.geometry.motion import STILL, Motion
from izett.geometry.point import Point, between, subtract, turn
from izett.geometry.tolerance import SAME_POINT
from izett.pattern.facts import Region, Role, Zone
from izett.pattern.piece import Diamond, Edge, Intake, LevelLine, Notch, NotchKind, Piece, Span, legs
from izett.rules.worksheet import Worksheet

#: Notches of armhole and cap lie at this share of each armhole half from the underarm: all ease lies above them.
NOTCH_AT = 0.36


def front_half(
    sums: Worksheet,
    above: Upper,
    lower: Sequence[Edge],
    darts: Sequence[Intake],
    *,
    block: str,
    low: float,
    diamonds: tuple[Diamond, ...] = (),
    lines: tuple[LevelLine, ...] = (),
) -> Piece:
    """Return the front, on the fold.

    Args:
        sums, above: the worksheet, and what lies above the waist.
        lower: the ring from the neck down the centre and round to the underarm.
        darts, diamonds, lines: what lies on it, beside the bust line.
        block: the block's key, for the piece's name.
        low: where the grain line begins, cm.
    """
    apex = (sums["apex_x"], sums["apex_level"])
    half = above.frame.front
    return as_block(
        Piece(
            name=f"{block}_front",
            title=f"{block.capitalize().replace('_', ' ')} front",
            part="front",
            cut=1,
            on_fold="front.centre",
            grain=((0.45 * apex[0], low), (0.45 * apex[0], above.pit - 3)),
            edges=(
                *lower,
                Edge(Role.ARMHOLE, "front.armhole", "front.underarm", "front.shoulder_tip", half.armhole),
                Edge(
                    Role.SHOULDER,
                    "front.shoulder",
                    "front.shoulder_tip",
                    "front.neck_shoulder",
                    straight(half.tip, half.neck_point),
                ),
                Edge(Role.NECK, "front.neck", "front.neck_shoulder", "front.neck_cf", above.neck_front),
            ),
            darts=tuple(darts),
            marks=MappingProxyType({"apex": apex}),
            lines=(*_front_bust_line(sums, above.frame, apex, lower, darts), *lines),
            notches=(
                Notch(
                    Span("front.underarm", "front.shoulder_tip", "front.armhole"),
                    NOTCH_AT * half.armhole.length,
                    NotchKind.SINGLE,
                ),
            ),
            diamonds=diamonds,
        ),
        Zone.FRONT,
        Region.UPPER,
    )


def back_half(
    sums: Worksheet,
    above: Upper,
    lower: Sequence[Edge],
    darts: Sequence[Intake],
    *,
    block: str,
    low: float,
    diamonds: tuple[Diamond, ...] = (),
    lines: tuple[LevelLine, ...] = (),
) -> Piece:
    """Return the back, its centre a seam where it is shaped, else a fold; arguments as for the front.

    `lower` begins at the centre's waist point: what lies above it is drawn here.
    """
    half, y = above.frame.back, sums["bust_line_level"]
    shaped, nape = sums["centre_back_take"] > 0, sums["back_waist_length"]
    given_back = sums["centre_back_at_bust"]
    shoulder, shoulder_darts = _back_shoulder(half)
    return as_block(
        Piece(
            name=f"{block}_back",
            title=f"{block.capitalize().replace('_', ' ')} back",
            part="back",
            cut=2 if shaped else 1,
            on_fold=None if shaped else "back.centre",
            grain=((sums["across_back"] / 8, low), (sums["across_back"] / 8, 0.7 * nape)),
            edges=(
                *_centre_back(sums),
                *lower,
                Edge(Role.ARMHOLE, "back.armhole", "back.underarm", "back.shoulder_tip", half.armhole),
                *shoulder,
                Edge(Role.NECK, "back.neck", "back.neck_shoulder", "back.neck_cb", above.neck_back),
            ),
            darts=(*darts, *shoulder_darts),
            lines=(LevelLine("bust", ((given_back, y), (given_back + sums["back_width"], y))), *lines),
            notches=(
                Notch(
                    Span("back.underarm", "back.shoulder_tip", "back.armhole"),
                    NOTCH_AT * half.armhole.length,
                    NotchKind.DOUBLE,
                ),
            ),
            diamonds=diamonds,
        ),
        Zone.BACK,
        Region.UPPER,
    )


def _centre_back(sums: Worksheet) -> list[Edge]:
    """Return the centre from the nape to the waist: upright to the across-back level where it is shaped below."""
    nape, take = (0.0, sums["back_waist_length"]), sums["centre_back_take"]
    waist = (take, 0.0)
    role, name = Role.CENTRE_BACK, "back.centre"
    if take <= 0:
        return [Edge(role, name, "back.neck_cb", "back.waist_cb", straight(nape, waist))]
    bend = (0.0, 0.75 * nape[1])
    return [
        Edge(role, name, "back.neck_cb", "back.across_cb", straight(nape, bend)),
        Edge(role, name, "back.across_cb", "back.waist_cb", straight(bend, waist)),
    ]


def _front_bust_line(
    sums: Worksheet, frame: Frame, apex: Point, lower: Sequence[Edge], darts: Sequence[Intake]
) -> tuple[LevelLine, ...]:
    """Return the bust line, its outer part turned with the side above the darts: parted on their legs where it meets them."""
    y = sums["bust_line_level"]
    end = (sums["front_width"], y)
    if frame.angle == 0.0:
        return (LevelLine("bust", ((0.0, y), end)),)
    opening = Motion.turning(radians(frame.angle), about=apex)
    if abs(y - apex[1]) < SAME_POINT:
        return (LevelLine("bust", ((0.0, y), apex, opening(end))),)
    # Where no side dart is met, the outer part has turned all the same, about the bust point.
    crossed = _on_legs(apex, y, lower, darts) or [((apex[0], y), opening((apex[0], y)))]
    starts, ends = [(0.0, y), *(b for _, b in crossed)], [*(a for a, _ in crossed), opening(end)]
    return tuple(LevelLine("bust", part) for part in zip(starts, ends, strict=True))


def _on_legs(apex: Point, y: float, lower: Sequence[Edge], darts: Sequence[Intake]) -> list[tuple[Point, Point]]:
    """Return where a level under the bust point meets the legs of the side's darts, on both legs of each, from below."""
    corners = {name: spot for e in lower for name, spot in ((e.start, e.curve.start), (e.end, e.curve.end))}
    found = []
    turned = STILL
    at_side = {edge.end for edge in lower if edge.role is Role.SIDE}
    for dart in (dart for dart in darts if dart.mouth[0] in at_side):
        a, b = (corners[name] for name in dart.mouth)
        shut = turned.inverse()(a)
        if not shut[1] < y < apex[1]:
            continue
        on_leg = turned(between(apex, shut, (apex[1] - y) / (apex[1] - shut[1])))
        opens = Motion.turning(turn(subtract(a, apex), subtract(b, apex)), about=apex)
        found.append((on_leg, opens(on_leg)))
        turned = turned.then(opens)
    return found


def _back_shoulder(half: Half) -> tuple[list[Edge], list[Intake]]:
    """Return the back shoulder from its tip to the neck, and its dart where there is one."""
    name, tip, neck = "back.shoulder", "back.shoulder_tip", "back.neck_shoulder"
    if half.dart is None:
        return [Edge(Role.SHOULDER, name, tip, neck, straight(half.tip, half.neck_point))], []
    dart = Intake(
        name="back.shoulder_dart",
        family="shoulder",
        pivot=half.dart.pivot,
        set_back=0.0,
        mouth=("back.shoulder_a", "back.shoulder_b"),
        tip="back.shoulder_dart_tip",
    )
    edges = [
        Edge(Role.SHOULDER, name, tip, dart.mouth[0], straight(half.tip, half.dart.outer)),
        *legs(dart, half.dart.outer, half.dart.inner),
        Edge(Role.SHOULDER, name, dart.mouth[1], neck, straight(half.dart.inner, half.neck_point)),
    ]
    return edges, [dart]
