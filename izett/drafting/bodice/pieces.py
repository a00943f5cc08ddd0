"""Front and back of the bodice as pieces: rings of named edges with their darts, lines, notches, and the seams."""

from dataclasses import replace
from math import radians
from types import MappingProxyType

from izett.drafting.bodice.bust_dart import bust_mouths
from izett.drafting.bodice.frame import Frame, Half
from izett.drafting.bodice.waist import Waist
from izett.drafting.waistline import WaistDart
from izett.geometry.curve import Curve, straight
from izett.geometry.motion import Motion
from izett.geometry.point import Point, between
from izett.pattern.document import (
    Edge,
    Intake,
    LevelLine,
    Notch,
    NotchKind,
    Piece,
    Role,
    Seam,
    Span,
    legs,
)
from izett.rules.worksheet import Worksheet

#: Along which the waist of the half body is measured.
WAIST_SPANS = (
    Span("front.waist_cf", "front.waist_side", "front.waist"),
    Span("back.waist_cb", "back.waist_side", "back.waist"),
)


def front_piece(sums: Worksheet, frame: Frame, pit: float, neck: Curve, centre: Point, waist: Waist) -> Piece:
    """Return the front, its ring from the neck down the centre and round."""
    part = "front"
    apex = (sums["apex_x"], sums["apex_level"])
    edges: list[Edge] = [
        Edge(Role.CENTRE_FRONT, "front.centre", "front.neck_cf", "front.waist_cf", straight((0.0, pit), centre))
    ]
    set_back = sums["dart_set_back"]
    pivots = [apex if i == 0 else (dart.x, dart.tip) for i, dart in enumerate(waist.front_darts)]
    if sums.school("darts") == "one" and waist.front_darts and frame.angle:
        darts = _all_in_waist(frame, waist, pivots, edges)
    else:
        darts = _waist_edges(part, "waist_cf", edges, waist.front_panels, waist.front_darts, pivots)
        darts += _front_side(sums, frame, waist, apex, set_back, edges)
    edges += [
        Edge(Role.ARMHOLE, "front.armhole", "front.underarm", "front.shoulder_tip", frame.front.armhole),
        Edge(
            Role.SHOULDER,
            "front.shoulder",
            "front.shoulder_tip",
            "front.neck_shoulder",
            straight(frame.front.tip, frame.front.neck_point),
        ),
        Edge(Role.NECK, "front.neck", "front.neck_shoulder", "front.neck_cf", neck),
    ]
    return Piece(
        name="bodice_front",
        title="Bodice front",
        part=part,
        cut=1,
        on_fold="front.centre",
        grain=((0.45 * apex[0], 0.15 * apex[1]), (0.45 * apex[0], pit - 3)),
        edges=tuple(edges),
        darts=tuple(darts),
        marks=MappingProxyType({"apex": apex}),
        lines=_front_bust_line(sums, frame, apex),
        notches=(
            Notch(
                Span("front.underarm", "front.shoulder_tip", "front.armhole"),
                0.36 * frame.front.armhole.length,
                NotchKind.SINGLE,
            ),
        ),
    )


def _waist_edges(
    part: str,
    centre: str,
    edges: list[Edge],
    panels: tuple[Curve, ...],
    placed: tuple[WaistDart, ...],
    pivots: list[Point],
) -> list[Intake]:
    """Add the waist panels with their darts' legs to the ring; return the darts."""
    darts: list[Intake] = []
    # Only the first front dart ends short of its pivot, the bust point; the others' pivots are their tips.
    set_backs = [pivots[i][1] - dart.tip if i == 0 else 0.0 for i, dart in enumerate(placed)]
    start = f"{part}.{centre}"
    for i, panel in enumerate(panels):
        if i == len(placed):
            edges.append(Edge(Role.WAIST, f"{part}.waist", start, f"{part}.waist_side", panel))
            break
        number = "" if i == 0 else str(i + 1)
        a, b, tip = (f"{part}.waist{number}_{end}" for end in ("a", "b", "tip"))
        edges.append(Edge(Role.WAIST, f"{part}.waist", start, a, panel))
        dart = Intake(
            name=f"{part}.waist_dart" + (f"_{number}" if number else ""),
            family="waist",
            pivot=pivots[i],
            set_back=set_backs[i],
            mouth=(a, b),
            tip=tip,
        )
        edges.extend(legs(dart, panel.end, panels[i + 1].start))
        darts.append(dart)
        start = b
    return darts


def _all_in_waist(frame: Frame, waist: Waist, pivots: list[Point], edges: list[Edge]) -> list[Intake]:
    """Add waist and side with the bust dart's angle in the first waist dart; return the darts.

    What lies outside that dart turns about the bust point with the side seam above: the paper cut along the waist
    dart instead of the side dart.
    """
    opening = Motion.turning(radians(frame.angle), about=pivots[0])
    panels = (waist.front_panels[0], *(panel.mapped(opening) for panel in waist.front_panels[1:]))
    pivots = [pivots[0], *(opening(pivot) for pivot in pivots[1:])]
    darts = _waist_edges("front", "waist_cf", edges, panels, waist.front_darts, pivots)
    darts[0] = replace(darts[0], family="bust")
    low = opening(waist.front_side)
    edges.append(
        Edge(Role.SIDE, "front.side", "front.waist_side", "front.underarm", straight(low, frame.front.underarm))
    )
    return darts


def _front_side(
    sums: Worksheet, frame: Frame, waist: Waist, apex: Point, set_back: float, edges: list[Edge]
) -> list[Intake]:
    """Add the side seam with the bust dart turned open in it; return the darts."""
    low, top = waist.front_side, frame.closed_underarm

    def on_side(y: float) -> Point:
        return between(low, top, (y - low[1]) / (top[1] - low[1]))

    if frame.angle == 0.0:
        edges.append(
            Edge(
                Role.SIDE,
                "front.side",
                "front.waist_side",
                "front.underarm",
                straight(low, frame.front.underarm),
            )
        )
        return []
    mouths = bust_mouths(sums, frame.angle)
    turn_each = radians(frame.angle) / len(mouths)
    darts: list[Intake] = []
    start_name, start = "front.waist_side", low
    for i, y in enumerate(mouths):
        number = "" if i == 0 else str(i + 1)
        dart = Intake(
            name="front.bust_dart" + (f"_{number}" if number else ""),
            family="bust",
            pivot=apex,
            set_back=set_back,
            mouth=(f"front.bust{number}_a", f"front.bust{number}_b"),
            tip=f"front.bust{number}_tip",
        )
        a = Motion.turning(i * turn_each, about=apex)(on_side(y))
        b = Motion.turning((i + 1) * turn_each, about=apex)(on_side(y))
        edges.append(Edge(Role.SIDE, "front.side", start_name, dart.mouth[0], straight(start, a)))
        edges.extend(legs(dart, a, b))
        darts.append(dart)
        start_name, start = dart.mouth[1], b
    edges.append(Edge(Role.SIDE, "front.side", start_name, "front.underarm", straight(start, frame.front.underarm)))
    return darts


def _front_bust_line(sums: Worksheet, frame: Frame, apex: Point) -> tuple[LevelLine, ...]:
    y = sums["bust_line_level"]
    end = (sums["front_width"], y)
    if frame.angle == 0.0:
        return (LevelLine("bust", ((0.0, y), end)),)
    opening = Motion.turning(radians(frame.angle), about=apex)
    if y == apex[1]:
        return (LevelLine("bust", ((0.0, y), apex, opening(end))),)
    # Off the bust point the line is in two parts: the outer one has turned with the side.
    middle = (apex[0], y)
    return (LevelLine("bust", ((0.0, y), middle)), LevelLine("bust", (opening(middle), opening(end))))


def back_piece(sums: Worksheet, frame: Frame, neck: Curve, waist: Waist) -> Piece:
    """Return the back, its centre a seam where it is shaped, else a fold."""
    part = "back"
    nape, cb = sums["back_waist_length"], sums["centre_back_take"]
    centre_waist = (cb, 0.0)
    edges: list[Edge] = []
    if cb > 0:
        break_point = (0.0, 0.75 * nape)
        edges += [
            Edge(
                Role.CENTRE_BACK,
                "back.centre",
                "back.neck_cb",
                "back.across_cb",
                straight((0.0, nape), break_point),
            ),
            Edge(
                Role.CENTRE_BACK,
                "back.centre",
                "back.across_cb",
                "back.waist_cb",
                straight(break_point, centre_waist),
            ),
        ]
    else:
        edges.append(
            Edge(
                Role.CENTRE_BACK,
                "back.centre",
                "back.neck_cb",
                "back.waist_cb",
                straight((0.0, nape), centre_waist),
            )
        )
    pivots = [(dart.x, dart.tip) for dart in waist.back_darts]
    darts = _waist_edges(part, "waist_cb", edges, waist.back_panels, waist.back_darts, pivots)
    half = frame.back
    edges += [
        Edge(
            Role.SIDE,
            "back.side",
            "back.waist_side",
            "back.underarm",
            straight(waist.back_side, half.underarm),
        ),
        Edge(Role.ARMHOLE, "back.armhole", "back.underarm", "back.shoulder_tip", half.armhole),
        *_back_shoulder(half, darts),
        Edge(Role.NECK, "back.neck", "back.neck_shoulder", "back.neck_cb", neck),
    ]
    y = sums["bust_line_level"]
    given_back = sums["centre_back_at_bust"]
    return Piece(
        name="bodice_back",
        title="Bodice back",
        part=part,
        cut=2 if cb > 0 else 1,
        on_fold=None if cb > 0 else "back.centre",
        grain=((sums["across_back"] / 8, 0.1 * nape), (sums["across_back"] / 8, 0.7 * nape)),
        edges=tuple(edges),
        darts=tuple(darts),
        lines=(LevelLine("bust", ((given_back, y), (given_back + sums["back_width"], y))),),
        notches=(
            Notch(
                Span("back.underarm", "back.shoulder_tip", "back.armhole"),
                0.36 * half.armhole.length,
                NotchKind.DOUBLE,
            ),
        ),
    )


def _back_shoulder(half: Half, darts: list[Intake]) -> list[Edge]:
    """Return the back shoulder from its tip to the neck, with its dart where there is one, which joins `darts`."""
    name, tip, neck = "back.shoulder", "back.shoulder_tip", "back.neck_shoulder"
    if half.dart is None:
        return [Edge(Role.SHOULDER, name, tip, neck, straight(half.tip, half.neck_point))]
    dart = Intake(
        name="back.shoulder_dart",
        family="shoulder",
        pivot=half.dart.pivot,
        set_back=0.0,
        mouth=("back.shoulder_a", "back.shoulder_b"),
        tip="back.shoulder_dart_tip",
    )
    darts.append(dart)
    return [
        Edge(Role.SHOULDER, name, tip, dart.mouth[0], straight(half.tip, half.dart.outer)),
        *legs(dart, half.dart.outer, half.dart.inner),
        Edge(Role.SHOULDER, name, dart.mouth[1], neck, straight(half.dart.inner, half.neck_point)),
    ]


def seams_of(sums: Worksheet) -> tuple[Seam, ...]:
    """Return the shoulder and side seams with the ease meant."""
    ease = sums["back_shoulder_eased"]
    return (
        Seam(
            "shoulder",
            (
                (Span("front.neck_shoulder", "front.shoulder_tip", "front.shoulder"),),
                (Span("back.neck_shoulder", "back.shoulder_tip", "back.shoulder"),),
            ),
            (ease, ease),
            "the back is eased in over the middle third" if ease else "",
        ),
        Seam(
            "side",
            (
                (Span("front.waist_side", "front.underarm", "front.side"),),
                (Span("back.waist_side", "back.underarm", "back.side"),),
            ),
            (0.0, 0.0),
        ),
    )


def ease_of(sums: Worksheet) -> dict[str, float]:
    """Return the ease that the draft was given at each level, over the girth as read (cm, total around)."""
    return {"bust": sums["bust_ease"] + sums["back_expansion"], "waist": sums["waist_ease"]}
