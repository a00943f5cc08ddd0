"""The knit pencil skirt: one piece on the fold, cut twice, its turnings cut on.

The cut waist must stretch to the hip girth, so that the skirt can be pulled on; else it is widened and gathered on
elastic, and the maker is told. Common practice.
"""

from pathlib import Path

from izett.drafting.knit.skirt import knit_skirt_piece, knit_skirt_seams
from izett.drafting.method import Method, Notice, Tell
from izett.drafting.schools import MEASURES_USED
from izett.errors import DraftRefused
from izett.measuring.estimates import estimates
from izett.pattern.document import Pattern
from izett.rules.sheet import borrow, load_sheet
from izett.rules.worksheet import Worksheet
from izett.wording import cm


def draft(sums: Worksheet, tell: Tell, before: Pattern) -> Pattern:
    """Work the sums into the skirt.

    Raises:
        DraftRefused: the hem lies above the hip.
    """
    if sums["knit_skirt_finished"] < sums["waist_to_hip"] + 2:
        raise DraftRefused(
            f"The hem would lie {cm(sums['knit_skirt_finished'])} under the waist, and the hip at {cm(sums['waist_to_hip'])}.",
            fix="Retake waist to hem and waist to hip; a pencil skirt goes below the hip.",
            where=("waist_to_hem", "waist_to_hip"),
        )
    stretch = before.intent.stretch / 100
    snug = (sums["waist_girth"] + sums["waist_ease"]) / 4
    least = sums["hip_girth"] / (1 + stretch) / 4
    sums.settle("stretch_to_pull_on", (sums["hip_girth"] / (4 * snug) - 1) * 100)
    sums.settle("knit_skirt_waist", max(snug, min(least, sums["knit_skirt_hip"])))
    if least > snug:
        tell(
            Notice(
                "waist-widened-to-pull-on",
                f"To be pulled on, a waist cut {cm(4 * snug)} on a hip of {cm(sums['hip_girth'])} must stretch "
                f"{sums['stretch_to_pull_on']:.0f} %, and the cloth gives {before.intent.stretch:g} %: it is cut "
                f"{cm(4 * sums['knit_skirt_waist'])} wide, to be gathered on elastic.",
                ("waist_girth", "hip_girth"),
            )
        )
    ease = {"hip": sums["hip_ease"], "waist": 4 * sums["knit_skirt_waist"] - sums["waist_girth"]}
    return before.joined((knit_skirt_piece(sums),), knit_skirt_seams(), ease=ease)


METHOD = Method(
    key="knit_skirt",
    title="Knit pencil skirt",
    sheet=borrow(
        load_sheet(MEASURES_USED, Path(__file__).with_suffix(".toml")),
        estimates(),
        also=("waist_to_hip",),
        never=("waist_girth", "hip_girth", "bust_girth"),
    ),
    requires=(("waist_girth",), ("hip_girth",), ("height", "waist_to_hip")),
    draft=draft,
    clothes=("below",),
)
