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


SLEEVE_HEM = _on(*WRIST)
KNIT_FRONT = _on("front", "neck_cf", "hem_cf", "centre")
ARMHOLE_PRINCESS: Steps = [
    ("princess", {"start": _on(*FRONT_ARMHOLE, 0.55), "bow": 1.2}),
    ("princess", {"start": _on(*BACK_ARMHOLE, 0.6), "bow": 1.0}),
]
SKIRT_HEMS = [_on("skirt_front", "hem_cf", "hem_side", "hem"), _on("skirt_back", "hem_side", "hem_cb", "hem")]


def _gathered(part: str, centre: str) -> tuple[str, dict]:
    """A skirt's half made fuller by as much at the waist as at the hem."""
    waist, hem = _on(part, f"waist_{centre}", "waist_side", "waist"), _on(part, f"hem_{centre}", "hem_side", "hem")
    return "spread_piece", {"edge": waist, "opposite": hem, "amount": 14.0, "at_opposite": 14.0, "lines": 4}


def _all_gathered(part: str) -> Steps:
    """All waist darts of a skirt's half as gathers, however many the body needs: merged first."""
    merged = ("share_intake", {"darts": f"{part}.waist", "ways": "one"})
    return [merged, ("convert_dart", {"dart": f"{part}.waist", "into": "gathers"})]


def _longer(by: float) -> tuple[str, dict]:
    return "shape_hem", {"front": by, "side": by, "back": by}


#: Whole garments, finished as they would be cut; the browser builds the same by pointing.
WHOLE_GARMENTS: dict[str, tuple[tuple[str, ...], Steps, dict]] = {
    "Boxy T-shirt dress": (
        ("knit_top", "knit_sleeve"),
        [
            ("true_line", {"how": "straight", "line": "front.side"}),
            ("change_shoulder", {"amount": 5.0, "slope": 1.2, "sides": 3.0, "lower": 2.0}),
            ("reach_wedge", {"amount": 2.0}),
            _longer(35.0),
            ("recap_sleeve", {"by": "height", "ease": 0.5}),
            ("add_band", {"kind": "neckband", "edges": [_on(*FRONT_NECK), _on(*BACK_NECK)], "ratio": 0.9, "height": 2.0}),
        ],
        {},
    ),
    "Fit-and-flare top": (
        ("torso",),
        [
            *ARMHOLE_PRINCESS,
            ("flare", {"hem": 5.0, "above": 20.0}),
            ("shape_hem", {"front": 4.0, "side": -3.0, "back": 4.0}),
            ("add_tie", {"at": _on("back", "hem_side", "underarm", "side", 0.5)}),
            ("open_up", {"closure": "zip", "at": _on("back", "neck_cb", "hem_cb", "centre"), "long": 60.0}),
        ],
        {},
    ),
    "Long cardigan": (
        ("knit_top", "knit_sleeve"),
        [
            _longer(25.0),
            (
                "spread_piece",
                {"edge": SLEEVE_HEM, "opposite": _on(*FRONT_CAP), "amount": 14.0, "lines": 5, "stop": "elbow", "back": 2.0},
            ),
            ("add_band", {"kind": "cuff", "edges": [SLEEVE_HEM], "ratio": 0.6, "height": 6.0}),
            (
                "add_band",
                {
                    "kind": "front_band",
                    "edges": [_on("back", "neck_cb", "neck_shoulder", "neck"), _on(*FRONT_NECK), KNIT_FRONT],
                    "height": 3.0,
                },
            ),
            (
                "add_band",
                {
                    "kind": "hem_band",
                    "edges": [_on("front", "hem_cf", "hem_side", "hem"), _on("back", "hem_side", "hem_cb", "hem")],
                    "ratio": 0.95,
                    "height": 5.0,
                },
            ),
            ("button_places", {"line": KNIT_FRONT, "number": 7, "way": "along", "inwards": 0.5}),
        ],
        {},
    ),
    "High–low gathered dress": (
        ("bodice", "sleeve", "skirt"),
        [
            *_all_gathered("skirt_front"),
            *_all_gathered("skirt_back"),
            _gathered("skirt_front", "cf"),
            _gathered("skirt_back", "cb"),
            ("shape_hem", {"front": -14.0, "side": -2.0, "back": 16.0}),
            ("add_band", {"kind": "ruffle", "edges": SKIRT_HEMS, "ratio": 2.0, "height": 10.0}),
            (
                "open_up",
                {
                    "closure": "zip",
                    "at": _on("front", "underarm", "waist_side", "side"),
                    "on": [_on("skirt_front", "waist_side", "hem_side", "side")],
                    "long": 40.0,
                },
            ),
            (
                "add_gore",
                {"kind": "slit_flounce", "edges": [_on("skirt_back", "hem_cb", "waist_cb", "centre")], "width": 12.0, "long": 25.0},
            ),
        ],
        {},
    ),
    "Strapless sweetheart bodice": (
        ("bodice",),
        [
            *ARMHOLE_PRINCESS,
            ("contour", {"seam": "s0.princess_front"}),
            ("upper_edge", {"shape": "sweetheart", "front": 2.0, "side": 0.3}),
            (
                "open_up",
                {
                    "closure": "zip",
                    "at": {"start": "s3.bodice_back_falling", "end": "back.waist_cb", "along": "back.centre"},
                    "long": 0.0,
                },
            ),
        ],
        {},
    ),
    "Pleated trousers": (
        ("trousers",),
        [
            (
                "add_band",
                {
                    "kind": "waistband",
                    "edges": [
                        _on("trouser_front", "waist_cf", "waist_side", "waist"),
                        _on("trouser_back", "waist_side", "waist_cb", "waist"),
                    ],
                    "height": 3.5,
                    "overlap": 3.0,
                },
            ),
            ("open_up", {"closure": "zip", "at": _on("trouser_front", "waist_cf", "crotch_top", "centre"), "long": 0.0}),
        ],
        {"schools": {"front_fullness": "pleat"}},
    ),
    "Knit pencil skirt": (
        ("knit_skirt",),
        [
            _longer(6.0),
            ("add_band", {"kind": "elastic", "edges": [_on("knit_skirt", "top_side", "top_fold", "top")], "ratio": 0.87, "height": 3.0}),
        ],
        {},
    ),
    "Straight-cut shirt": (("straight_shirt",), [("add_copy", {"kind": "pocket", "pieces": ["shirt_body"]})], {}),
}  # fmt: skip


def whole_garment(name: str, body: dict[str, float] = BODY) -> Recipe:
    """The recipe of a whole garment, for a body."""
    blocks, steps, more = WHOLE_GARMENTS[name]
    made = tuple(Step(f"s{i}", kind, params) for i, (kind, params) in enumerate(steps))
    knit = {"fit": "easy", "cloth": Cloth(Kind.KNIT, 40)} if blocks[0].startswith("knit") else {}
    return Recipe(blocks[0], body, also=blocks[1:], steps=made, **knit, **more)


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
