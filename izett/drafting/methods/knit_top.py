"""The dartless knit top, on the fold front and back: the body block of a T-shirt.

What a bust dart would raise is not lost: half stays as length in the front armhole, the rest is eased into the side as
far as the cloth takes it; beyond that the maker is told to keep a dart. Common practice.
"""

from pathlib import Path

from izett.drafting.bodice.upper import Upper, necklines_of, refuse_crossing
from izett.drafting.hip import HIP_SHEET
from izett.drafting.knit.top import knit_frame, knit_pieces, knit_seams
from izett.drafting.method import Method, Notice, Tell
from izett.drafting.methods import bodice
from izett.drafting.schools import MEASURES_USED
from izett.errors import DraftRefused
from izett.measuring.estimates import estimates
from izett.pattern.document import Pattern
from izett.rules.sheet import RuleSheet, borrow, load_sheet, sharing
from izett.rules.worksheet import Worksheet
from izett.wording import cm

#: Cup difference (cm) and stretch (%) at which a dart had better be kept.
LARGE_CUP, LITTLE_STRETCH = 10.0, 30.0

#: cm below the waist.
SHORTEST = 1.0

#: What the top has from the fitted bodice.
SHARED = (
    "bust_ease", "waist_ease", "underarm_drop", "across_back_ease", "across_front_ease",
    "default_back_slope", "default_front_slope", "neck_width_less", "front_neck_less", "neck_rise_share", "loosening",
    "front_armhole_scoop", "back_armhole_scoop", "neck_scoop", "front_neck_width", "back_neck_rise",
    "armhole_deepening", "apex_x", "balance", "dart_by_cup", "dart_by_proportion", "apex_rise", "back_slope",
    "front_slope", "shoulder_extension", "neck_depth", "across_share",
)  # fmt: skip


def draft(sums: Worksheet, tell: Tell, before: Pattern) -> Pattern:
    """Work the sums into a front and a back.

    Raises:
        DraftRefused: the measures do not make a top; the error names those to retake.
    """
    if sums["top_length"] < SHORTEST:
        raise DraftRefused(
            f"The hem would lie {cm(sums['top_length'])} below the waist; this block ends at the waist at the shortest.",
            fix="Let the hem down, or retake waist to hip.",
            where=("top_below_hip", "waist_to_hip"),
        )
    stretch = before.intent.stretch
    side = sums["underarm_level"] + sums["top_length"]
    takes = sums["side_ease_for_stretch"] * stretch / 100 * side
    wanted = sums["bust_rise"] - sums["kept_in_armhole"]
    sums.settle("front_side_ease", min(wanted, takes))
    frame = knit_frame(sums)
    for notice in frame.notices:
        tell(notice)
    above = Upper(frame, *necklines_of(sums, frame, tell))
    pieces = knit_pieces(sums, above)
    refuse_crossing(*pieces)
    _tell_about(sums, tell, stretch, wanted - sums["front_side_ease"])
    ease = {
        "bust": sums["bust_ease"],
        "waist": 4 * sums["knit_waist"] - sums["waist_girth"],
        **({"hip": sums["hip_ease"]} if sums["top_length"] >= sums["waist_to_hip"] else {}),
    }
    return before.joined(pieces, knit_seams(sums), ease=ease)


def _tell_about(sums: Worksheet, tell: Tell, stretch: float, dropped: float) -> None:
    if sums["cup_difference"] > LARGE_CUP and stretch < LITTLE_STRETCH:
        tell(
            Notice(
                "keep-a-dart",
                f"The cup difference is {cm(sums['cup_difference'])} and the cloth stretches {stretch:g} %: keep a dart "
                f"({cm(dropped)} of length over the bust are not drawn), or take a cloth of {LITTLE_STRETCH:g} % and more.",
                ("high_bust_girth", "bust_girth"),
            )
        )
    around = 2 * (sums["neck_girth"] / 2 + sums["neck_ease"]) * (1 + stretch / 100)
    if around < sums["head_girth"]:
        tell(
            Notice(
                "neck-too-small-for-head",
                f"The neckline stretches to {cm(around)}, and the head measures {cm(sums['head_girth'])}: lower or widen "
                "the neck, or give it an opening.",
                ("head_girth", "neck_ease"),
            )
        )


def _sheet() -> RuleSheet:
    own = load_sheet(MEASURES_USED, HIP_SHEET, Path(__file__).with_suffix(".toml"))
    own = sharing(own, bodice.METHOD.sheet, SHARED)
    return borrow(own, estimates(), also=("cup_difference", "head_girth"), never=("bust_girth", "waist_girth"))


METHOD = Method(
    key="knit_top",
    title="Knit top",
    sheet=_sheet(),
    requires=(("bust_girth",), ("waist_girth",), ("height", "back_waist_length"), ("height", "waist_to_hip")),
    draft=draft,
    clothes=("above", "below"),
)
