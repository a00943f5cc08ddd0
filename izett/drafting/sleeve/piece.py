"""The sleeve as a piece, and the seams that join it to the body block."""

from types import MappingProxyType

from izett.drafting.bodice.halves import NOTCH_AT
from izett.drafting.sleeve.solve import Cap
from izett.drafting.standard import as_block
from izett.errors import DraftRefused
from izett.geometry.blend import with_handles
from izett.geometry.curve import Curve, joined, straight
from izett.geometry.point import Point, distance, right_of, unit
from izett.pattern.document import Pattern, Seam
from izett.pattern.facts import Region, Role, SeamKind, Zone
from izett.pattern.piece import Edge, LevelLine, Notch, NotchKind, Piece, Span
from izett.pattern.sewn import span_length
from izett.rules.worksheet import Worksheet
from izett.wording import cm

FRONT_ARMHOLE = Span("front.underarm", "front.shoulder_tip", "front.armhole")
BACK_ARMHOLE = Span("back.underarm", "back.shoulder_tip", "back.armhole")


def settle_armhole(sums: Worksheet, body: Pattern) -> None:
    """Write down the armhole of the body block, front and back, as drafted."""
    for symbol, span in (("front_armhole_length", FRONT_ARMHOLE), ("back_armhole_length", BACK_ARMHOLE)):
        sums.settle(symbol, span_length(body.holding(span.start), span))


def sleeve_piece(sums: Worksheet, cap: Cap, *, title: str) -> Piece:
    """Return the sleeve: its back at −x, its front at +x, the underarm line at y = 0, the wrist below.

    Raises:
        DraftRefused: the arm is too short to be under the cap.
    """
    down = sums["sleeve_length"] - cap.height
    if down < 5 or sums["elbow_level"] > -1:
        raise DraftRefused(
            f"Of an arm of {cm(sums['sleeve_length'])} the cap takes {cm(cap.height)}: too little is left below.",
            fix="Retake the arm length and shoulder to elbow.",
            where=("arm_length", "shoulder_to_elbow"),
        )
    taper = (sums["sleeve_width"] - sums["sleeve_wrist"]) / 2
    crown = (0.0, cap.height)
    front_end, back_end = (cap.front_width, 0.0), (-cap.back_width, 0.0)
    front_wrist, back_wrist = (cap.front_width - taper, -down), (-cap.back_width + taper, -down)
    back_half = cap.back.mapped(lambda p: (-p[0], p[1]))
    elbow = sums["elbow_level"]

    def across(level: float) -> tuple[Point, Point]:
        in_by = taper * -level / down
        return (-cap.back_width + in_by, level), (cap.front_width - in_by, level)

    middle = (front_wrist[0] + back_wrist[0]) / 2
    return as_block(
        Piece(
            name="sleeve",
            title=title,
            part="sleeve",
            cut=2,
            on_fold=None,
            grain=((middle * 0.3, -0.85 * down), (middle * 0.3, -0.08 * down)),
            edges=(
                Edge(
                    Role.HEM,
                    "sleeve.hem",
                    "sleeve.wrist_back",
                    "sleeve.wrist_front",
                    _hem(back_wrist, front_wrist, taper, down),
                ),
                Edge(
                    Role.UNDERARM,
                    "sleeve.front_underarm",
                    "sleeve.wrist_front",
                    "sleeve.underarm_front",
                    straight(front_wrist, front_end),
                    Zone.FRONT,
                ),
                Edge(
                    Role.CAP,
                    "sleeve.front_cap",
                    "sleeve.underarm_front",
                    "sleeve.cap_top",
                    cap.front.reversed(),
                    Zone.FRONT,
                ),
                Edge(Role.CAP, "sleeve.back_cap", "sleeve.cap_top", "sleeve.underarm_back", back_half, Zone.BACK),
                Edge(
                    Role.UNDERARM,
                    "sleeve.back_underarm",
                    "sleeve.underarm_back",
                    "sleeve.wrist_back",
                    straight(back_end, back_wrist),
                    Zone.BACK,
                ),
            ),
            marks=MappingProxyType({"shoulder_notch": crown}),
            lines=(LevelLine("bicep", (back_end, front_end)), LevelLine("elbow", across(elbow))),
            notches=(
                Notch(
                    Span("sleeve.underarm_front", "sleeve.cap_top", "sleeve.front_cap"),
                    NOTCH_AT * sums["front_armhole_length"],
                    NotchKind.SINGLE,
                ),
                Notch(
                    Span("sleeve.underarm_back", "sleeve.cap_top", "sleeve.back_cap"),
                    NOTCH_AT * sums["back_armhole_length"],
                    NotchKind.DOUBLE,
                ),
            ),
        ),
        Zone.SLEEVE,
        Region.ARM,
    )


def _hem(back: Point, front: Point, taper: float, down: float) -> Curve:
    """Return the wrist line, square to both underarm seams: it runs on across the sewn seam."""
    third = distance(back, front) / 3
    seam_down = unit((-taper, -down))
    into_sleeve = right_of(seam_down)
    into_from_back = (-into_sleeve[0], into_sleeve[1])
    return joined([with_handles(back, into_from_back, front, into_sleeve, start_handle=third, end_handle=third)])


def sleeve_seams(sums: Worksheet) -> tuple[Seam, ...]:
    """Return the seam of cap and armhole with its ease, and the underarm seam."""
    ease = sums["cap_ease"]
    return (
        Seam(
            "cap",
            (
                (FRONT_ARMHOLE, Span("back.shoulder_tip", "back.underarm", "back.armhole")),
                (
                    Span("sleeve.underarm_front", "sleeve.cap_top", "sleeve.front_cap"),
                    Span("sleeve.cap_top", "sleeve.underarm_back", "sleeve.back_cap"),
                ),
            ),
            (ease, ease),
            "above the notches, half in front and half behind" if ease else "",
            ("armhole", "cap"),
            kind=SeamKind.CAP,
        ),
        Seam(
            "underarm",
            (
                (Span("sleeve.wrist_front", "sleeve.underarm_front", "sleeve.front_underarm"),),
                (Span("sleeve.wrist_back", "sleeve.underarm_back", "sleeve.back_underarm"),),
            ),
            (0.0, 0.0),
            kind=SeamKind.UNDERARM,
        ),
    )
