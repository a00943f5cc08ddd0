"""The straight-cut shirt with a pleated collar: rectangles only, their allowances included.

Sums of common practice, no single source. Two body panels with the collar built on, two sleeves, stays that hold the
pleats at neck and wrists, square gussets.
"""

from pathlib import Path

from izett.drafting.method import Method, Notice, Tell
from izett.drafting.schools import MEASURES_USED
from izett.drafting.straight_cut import rectangle
from izett.errors import DraftRefused
from izett.measuring.estimates import estimates
from izett.pattern.document import Pattern, Seam
from izett.pattern.facts import Region, SeamKind, Zone
from izett.pattern.piece import LevelLine, Piece, Span
from izett.rules.sheet import borrow, load_sheet
from izett.rules.worksheet import Worksheet
from izett.wording import cm

#: cm. A sleeve less wide over the upper arm than this pulls on the gusset.
LEAST_OVER_ARM = 8.0


def draft(sums: Worksheet, tell: Tell, before: Pattern) -> Pattern:
    """Work the sums into rectangles.

    Raises:
        DraftRefused: the shirt is shorter than its sleeves are wide.
    """
    if sums["collar_height"] > sums["neck_height"]:
        tell(
            Notice(
                "collar-above-neck",
                f"A collar of {cm(sums['collar_height'])} stands higher than the neck ({cm(sums['neck_height'])}): lower it, "
                "or let it fold.",
                ("collar_height", "neck_height"),
            )
        )
    if sums["shirt_sleeve_width"] < sums["bicep_girth"] + LEAST_OVER_ARM:
        tell(
            Notice(
                "sleeve-narrow",
                f"A sleeve of {cm(sums['shirt_sleeve_width'])} is narrow for an upper arm of {cm(sums['bicep_girth'])}.",
                ("shirt_sleeve_width", "bicep_girth"),
            )
        )
    body = _body(sums)
    s = sums["shirt_seam"]
    sleeve = rectangle(
        "shirt_sleeve",
        "Shirt sleeve",
        zone=Zone.SLEEVE,
        region=Region.ARM,
        cut=2,
        width=sums["shirt_sleeve_cut"],
        length=sums["shirt_sleeve_length"],
    )
    pieces = (
        body,
        sleeve,
        _strip("shirt_neck_stay", "Neck stay", 1, sums["neck_stay_length"], sums["neck_stay_height"]),
        _strip("shirt_wrist_stay", "Wrist stay", 2, sums["wrist_stay_length"], sums["wrist_stay_cut_height"]),
        _strip("shirt_gusset", "Gusset", 2, sums["gusset_side"], sums["gusset_side"], zone=Zone.GUSSET),
    )
    return before.joined(pieces, _seams(2 * s), ease={})


def _body(sums: Worksheet) -> Piece:
    s, width, length = sums["shirt_seam"], sums["shirt_body_width"], sums["shirt_body_length"]
    neck = length - s - sums["collar_height"]
    shoulder_end = neck - sums["shoulder_drop"]
    armhole = shoulder_end - sums["shirt_armhole"]
    slit = s + sums["side_slit"]
    if armhole < slit + 2:
        raise DraftRefused(
            f"The sleeves, {cm(sums['shirt_sleeve_width'])} wide, reach down to the side slits of a shirt "
            f"{cm(sums['shirt_neck_to_hem'])} long.",
            fix="Retake neck to hem, or choose narrower sleeves.",
            where=("neck_to_hem", "shirt_sleeve_width"),
        )
    left, right = s + sums["shoulder_length"], width - s - sums["shoulder_length"]
    middle = width / 2
    return rectangle(
        "shirt_body",
        "Shirt body",
        zone=Zone.BODY,
        region=Region.UPPER,
        cut=2,
        width=width,
        length=length,
        stops=(("slit", slit), ("armhole", armhole), ("shoulder", shoulder_end)),
        lines=(
            LevelLine("collar", ((left, length), (left, neck), (right, neck), (right, length))),
            LevelLine("shoulder", ((0.0, shoulder_end), (left, neck))),
            LevelLine("shoulder", ((right, neck), (width, shoulder_end))),
            LevelLine("slit", ((middle, neck - sums["neck_slit"]), (middle, neck))),
        ),
    )


def _strip(name: str, title: str, cut: int, long: float, high: float, *, zone: Zone = Zone.ADDED) -> Piece:
    return rectangle(name, title, zone=zone, cut=cut, width=long, length=high)


def _seams(turnings: float) -> tuple[Seam, ...]:
    """Return the seams; a sleeve's edge is longer than the armholes by its own two allowances."""
    right = Span("shirt_body.armhole_right", "shirt_body.shoulder_right", "shirt_body.right")
    left = Span("shirt_body.shoulder_left", "shirt_body.armhole_left", "shirt_body.left")
    head = Span("shirt_sleeve.top_right", "shirt_sleeve.top_left", "shirt_sleeve.top")
    return (
        Seam(
            "shirt_side",
            (
                (Span("shirt_body.slit_right", "shirt_body.armhole_right", "shirt_body.right"),),
                (Span("shirt_body.slit_left", "shirt_body.armhole_left", "shirt_body.left"),),
            ),
            (0.0, 0.0),
            kind=SeamKind.SIDE,
        ),
        Seam(
            "shirt_armhole",
            ((right, left), (head,)),
            (turnings, turnings),
            "the sleeve's own allowances, which the armholes do not have",
            ("armhole", "sleeve"),
            kind=SeamKind.CAP,
        ),
        Seam(
            "shirt_underarm",
            (
                (Span("shirt_sleeve.bottom_right", "shirt_sleeve.top_right", "shirt_sleeve.right"),),
                (Span("shirt_sleeve.bottom_left", "shirt_sleeve.top_left", "shirt_sleeve.left"),),
            ),
            (0.0, 0.0),
            kind=SeamKind.UNDERARM,
        ),
    )


METHOD = Method(
    key="straight_shirt",
    title="Straight-cut shirt",
    sheet=borrow(
        load_sheet(MEASURES_USED, Path(__file__).with_suffix(".toml")),
        estimates(),
        also=("neck_height", "bicep_girth"),
        never=("bust_girth", "waist_girth"),
    ),
    requires=(("neck_girth", "bust_girth"), ("height", "neck_to_hem"), ("height", "shoulder_to_knuckle")),
    draft=draft,
    clothes=("above", "below"),
)
