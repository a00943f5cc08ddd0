"""Front and back of the bodice as pieces: rings of named edges with their darts, lines, notches, and the seams."""

from dataclasses import replace
from math import radians

from izett.drafting.bodice.bust_dart import bust_mouths
from izett.drafting.bodice.frame import Frame
from izett.drafting.bodice.halves import back_half, front_half
from izett.drafting.bodice.upper import Upper
from izett.drafting.bodice.waist import Waist
from izett.drafting.waistline import WaistDart
from izett.geometry.curve import Curve, straight
from izett.geometry.motion import Motion
from izett.geometry.point import Point, between
from izett.pattern.document import Seam, matching
from izett.pattern.facts import Role, SeamKind
from izett.pattern.piece import Edge, Intake, Piece, Span, legs
from izett.rules.worksheet import Worksheet

PARTS = ("front", "back")
#: Along which the waist of the half body is measured.
WAIST_SPANS = (
    Span("front.waist_cf", "front.waist_side", "front.waist"),
    Span("back.waist_cb", "back.waist_side", "back.waist"),
)


def front_piece(sums: Worksheet, above: Upper, centre: Point, waist: Waist) -> Piece:
    """Return the front to the waist, its ring from the neck down the centre and round."""
    frame = above.frame
    apex = (sums["apex_x"], sums["apex_level"])
    edges: list[Edge] = [
        Edge(Role.CENTRE_FRONT, "front.centre", "front.neck_cf", "front.waist_cf", straight((0.0, above.pit), centre))
    ]
    pivots = [apex if i == 0 else (dart.x, dart.tip) for i, dart in enumerate(waist.front_darts)]
    if sums.school("darts") == "one" and waist.front_darts and frame.angle:
        darts = _all_in_waist(frame, waist, pivots, edges)
    else:
        darts = _waist_edges("front", "waist_cf", edges, waist.front_panels, waist.front_darts, pivots)
        darts += front_side(sums, frame, waist.front_side, edges)
    return front_half(sums, above, edges, darts, block="bodice", low=0.15 * apex[1])


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


def front_side(
    sums: Worksheet, frame: Frame, low: Point, edges: list[Edge], *, above: tuple[str, Point] | None = None
) -> list[Intake]:
    """Add the side seam with the bust dart turned open in it; return the darts.

    Args:
        sums, frame: the worksheet and the frame.
        low: where the side begins at the waist.
        edges: the ring so far.
        above: from which vertex on the side its straight part begins; None for the waist itself.
    """
    apex, top = (sums["apex_x"], sums["apex_level"]), frame.closed_underarm
    start_name, start = above or ("front.waist_side", low)

    def on_side(y: float) -> Point:
        return between(low, top, (y - low[1]) / (top[1] - low[1]))

    if frame.angle == 0.0:
        edges.append(
            Edge(
                Role.SIDE,
                "front.side",
                start_name,
                "front.underarm",
                straight(start, frame.front.underarm),
            )
        )
        return []
    mouths = bust_mouths(sums, frame.angle)
    turn_each = radians(frame.angle) / len(mouths)
    darts: list[Intake] = []
    for i, y in enumerate(mouths):
        number = "" if i == 0 else str(i + 1)
        dart = Intake(
            name="front.bust_dart" + (f"_{number}" if number else ""),
            family="bust",
            pivot=apex,
            set_back=sums["dart_set_back"],
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


def back_piece(sums: Worksheet, above: Upper, waist: Waist) -> Piece:
    """Return the back to the waist."""
    edges: list[Edge] = []
    pivots = [(dart.x, dart.tip) for dart in waist.back_darts]
    darts = _waist_edges("back", "waist_cb", edges, waist.back_panels, waist.back_darts, pivots)
    edges.append(
        Edge(
            Role.SIDE,
            "back.side",
            "back.waist_side",
            "back.underarm",
            straight(waist.back_side, above.frame.back.underarm),
        )
    )
    return back_half(sums, above, edges, darts, block="bodice", low=0.1 * sums["back_waist_length"])


def seams_of(sums: Worksheet) -> tuple[Seam, ...]:
    """Return the shoulder and side seams with the ease meant."""
    ease = sums["back_shoulder_eased"]
    return (
        Seam(
            "shoulder",
            matching(PARTS, "shoulder", "neck_shoulder", "shoulder_tip"),
            (ease, ease),
            "the back is eased in over the middle third" if ease else "",
            kind=SeamKind.SHOULDER,
        ),
        Seam("side", matching(PARTS, "side", "waist_side", "underarm"), (0.0, 0.0), kind=SeamKind.SIDE),
    )


def ease_of(sums: Worksheet) -> dict[str, float]:
    """Return the ease that the draft was given at each level, over the girth as read (cm, total around)."""
    return {"bust": sums["bust_ease"] + sums["back_expansion"], "waist": sums["waist_ease"]}
