"""Eight garments built from the fitted blocks by steps alone, as a maker would; drawn by `make screenshots`, tested in full."""

from izett.catalogue import catalogue
from izett.drafting.ease import Cloth, Kind
from izett.recipe.evaluator import Evaluator
from izett.recipe.model import Recipe, Step
from tests.builds import sheet_of

BODY = {
    "bust_girth": 92.0,
    "waist_girth": 74.0,
    "hip_girth": 98.0,
    "height": 168.0,
    "high_bust_girth": 87.0,
    "underbust_girth": 78.0,
}


def _on(part: str, start: str, end: str, line: str, fraction: float | None = None) -> dict:
    span = {"start": f"{part}.{start}", "end": f"{part}.{end}", "along": f"{part}.{line}"}
    return span if fraction is None else {**span, "fraction": fraction}


FRONT_SHOULDER = ("front", "neck_shoulder", "shoulder_tip", "shoulder")
FRONT_ARMHOLE = ("front", "underarm", "shoulder_tip", "armhole")
BACK_ARMHOLE = ("back", "underarm", "shoulder_tip", "armhole")
FRONT_NECK = ("front", "neck_shoulder", "neck_cf", "neck")
BACK_NECK = ("back", "neck_shoulder", "neck_cb", "neck")
WRIST = ("sleeve", "wrist_back", "wrist_front", "hem")
FRONT_CAP = ("sleeve", "underarm_front", "cap_top", "front_cap")
BACK_OPENING = {"closure": "zip", "at": _on("back", "neck_cb", "waist_cb", "centre"), "long": 0.0}
SKIRT_OPENING = {"closure": "zip", "at": _on("skirt_back", "waist_cb", "hem_cb", "centre"), "long": 20.0}

Steps = list[tuple[str, dict]]

GARMENTS: dict[str, tuple[tuple[str, ...], Steps]] = {
    "Bust dart moved to the shoulder": (
        ("bodice",),
        [
            ("move_dart", {"dart": "front.bust_dart", "to": _on(*FRONT_SHOULDER, 0.5)}),
            ("open_up", BACK_OPENING),
        ],
    ),
    "Armhole princess, front and back": (
        ("bodice",),
        [
            ("princess", {"start": _on(*FRONT_ARMHOLE, 0.55), "bow": 1.2}),
            ("princess", {"start": _on(*BACK_ARMHOLE, 0.6), "bow": 1.0}),
            ("open_up", BACK_OPENING),
        ],
    ),
    "Dartless": (
        ("bodice", "sleeve"),
        [
            ("move_dart", {"dart": "front.bust_dart", "to": _on(*FRONT_ARMHOLE, 0.35), "share": 0.5}),
            ("move_dart", {"dart": "front.bust_dart", "to": _on("front", "waist_cf", "waist_side", "waist", 0.6)}),
            ("convert_dart", {"dart": "s0.bust_dart", "into": "armhole_ease"}),
            ("convert_dart", {"dart": "front.bust_dart", "into": "loose"}),
            ("convert_dart", {"dart": "front.waist_dart", "into": "loose"}),
            ("convert_dart", {"dart": "back.waist_dart", "into": "loose"}),
            ("recap_sleeve", {"by": "width", "ease": 1.5}),
            ("open_up", BACK_OPENING),
        ],
    ),
    "Gathered neckline": (
        ("bodice",),
        [
            ("change_neckline", {"wider": 2.0, "front": 3.0, "back": 1.0}),
            ("move_dart", {"dart": "front.bust_dart", "to": _on(*FRONT_NECK, 0.5)}),
            ("convert_dart", {"dart": "front.bust_dart", "into": "gathers"}),
            ("add_band", {"kind": "binding", "edges": [_on(*FRONT_NECK), _on(*BACK_NECK)], "ratio": 0.75, "height": 1.0}),
            ("open_up", BACK_OPENING),
        ],
    ),
    "A-line skirt": (
        ("skirt",),
        [
            ("move_dart", {"dart": "skirt_front.waist_dart", "to": _on("skirt_front", "hem_cf", "hem_side", "hem", 0.5)}),
            ("convert_dart", {"dart": "skirt_front.waist_dart", "into": "loose"}),
            ("move_dart", {"dart": "skirt_back.waist_dart", "to": _on("skirt_back", "hem_cb", "hem_side", "hem", 0.5)}),
            ("convert_dart", {"dart": "skirt_back.waist_dart", "into": "loose"}),
            ("change_side", {"hem": 4.0}),
            ("open_up", SKIRT_OPENING),
        ],
    ),
    "Bishop sleeve": (
        ("bodice", "sleeve"),
        [
            (
                "spread_piece",
                {"edge": _on(*WRIST), "opposite": _on(*FRONT_CAP), "amount": 16.0, "lines": 5, "stop": "elbow", "back": 2.0},
            ),
            ("add_band", {"kind": "cuff", "edges": [_on(*WRIST)], "ratio": 0.58, "height": 6.0}),
            ("open_up", BACK_OPENING),
        ],
    ),
    "Drop-shoulder tee with reach wedge": (
        ("knit_top", "knit_sleeve"),
        [
            ("change_shoulder", {"amount": 5.0, "slope": 1.2, "sides": 3.0, "lower": 2.0}),
            ("reach_wedge", {"amount": 2.0}),
            ("recap_sleeve", {"by": "height", "ease": 0.5}),
            ("add_band", {"kind": "neckband", "edges": [_on(*FRONT_NECK), _on(*BACK_NECK)], "ratio": 0.9, "height": 2.0}),
        ],
    ),
    "High–low skirt": (
        ("skirt",),
        [
            ("change_side", {"hem": 6.0}),
            ("shape_hem", {"front": -18.0, "side": -4.0, "back": 14.0}),
            ("open_up", SKIRT_OPENING),
        ],
    ),
}  # fmt: skip

#: A whole dress in fifteen steps, each of which acts: what the budgets are measured on.
DRESS_BLOCKS = ("bodice", "sleeve", "skirt")
DRESS: Steps = [
    ("change_shoulder", {"amount": -0.5}),
    ("princess", {"start": _on(*FRONT_ARMHOLE, 0.55), "bow": 1.2}),
    ("princess", {"start": _on(*BACK_ARMHOLE, 0.6), "bow": 1.0}),
    ("change_neckline", {"wider": 2.0, "front": 4.0, "back": 1.0}),
    ("change_armhole", {"lower": 0.5}),
    ("change_side", {"hem": 5.0}),
    ("lengthen", {"at": _on("skirt_front", "hem_side", "waist_side", "side", 0.4), "amount": 4.0}),
    ("shape_hem", {"front": -6.0, "back": 4.0}),
    ("spread_piece", {"edge": _on(*WRIST), "opposite": _on(*FRONT_CAP), "amount": 12.0, "lines": 5, "stop": "elbow"}),
    ("reach_wedge", {"amount": 1.0}),
    ("open_up", BACK_OPENING),
    ("recap_sleeve", {"by": "width", "ease": 2.5}),
    ("match_notches", {"seam": "cap"}),
    ("add_facing", {"edge": _on(*FRONT_NECK), "width": 5.0}),
    ("add_band", {"kind": "cuff", "edges": [_on(*WRIST)], "ratio": 0.6, "height": 5.0}),
]


def garment(name: str, body: dict[str, float] = BODY) -> Recipe:
    """The recipe of one of them, for a body."""
    blocks, steps = GARMENTS[name]
    made = tuple(Step(f"s{i}", kind, params) for i, (kind, params) in enumerate(steps))
    knit = {"fit": "easy", "cloth": Cloth(Kind.KNIT, 40)} if blocks[0].startswith("knit") else {}
    return Recipe(blocks[0], body, also=blocks[1:], steps=made, **knit)


def sheet_of_garments() -> tuple[str, int, int]:
    """All of them as one SVG, with its width and height in pixels."""
    evaluator = Evaluator(catalogue())
    return sheet_of([(name, evaluator.evaluate(garment(name)).pattern) for name in GARMENTS])
