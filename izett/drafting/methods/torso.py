"""The hip-length torso or dress block: bodice and skirt on one waist line, one diamond on each dart axis.

Above the waist it is the fitted bodice. What hip and bust differ goes to the side seams, which are mirror images and
smoothed through the waist. Common practice; the figures are tuned over many bodies.
"""

from dataclasses import replace
from pathlib import Path

from izett.drafting.bodice.pieces import ease_of, seams_of
from izett.drafting.bodice.torso import below_of, torso_pieces
from izett.drafting.bodice.upper import refuse_crossing, upper_of
from izett.drafting.hip import HIP_SHEET
from izett.drafting.method import Method, Tell
from izett.drafting.methods import bodice
from izett.drafting.schools import MEASURES_USED
from izett.measuring.estimates import estimates
from izett.pattern.document import Pattern, Seam, matching
from izett.pattern.facts import SeamKind
from izett.rules.sheet import RuleSheet, borrow, load_sheet
from izett.rules.worksheet import Worksheet

#: Schools of the bodice that ask about a waist seam, which a torso does not have.
ABOUT_THE_WAIST_SEAM = ("darts", "waist_level")


def draft(sums: Worksheet, tell: Tell, before: Pattern) -> Pattern:
    """Work the sums into a front and a back to the hip.

    Raises:
        DraftRefused: the measures do not make a torso; the error names those to retake.
    """
    above = upper_of(sums, tell)
    below = below_of(sums, above.frame, tell)
    pieces = torso_pieces(sums, above, below)
    refuse_crossing(*pieces)
    ease = {**ease_of(sums), "hip": sums["hip_ease"]}
    return before.joined(pieces, tuple(_to_hip(seam) for seam in seams_of(sums)), ease=ease)


def _to_hip(seam: Seam) -> Seam:
    """Return the bodice's seam as the torso has it: its side runs on to the hip."""
    if seam.kind is not SeamKind.SIDE:
        return seam
    return replace(seam, sides=matching(("front", "back"), "side", "hem_side", "underarm"))


def _sheet() -> RuleSheet:
    beside = Path(__file__)
    own = load_sheet(MEASURES_USED, Path(bodice.__file__).with_suffix(".toml"), HIP_SHEET, beside.with_suffix(".toml"))
    kept = {key: school for key, school in own.schools.items() if key not in ABOUT_THE_WAIST_SEAM}
    return borrow(
        replace(own, schools=kept),
        estimates(),
        also=("waist_to_hip",),
        never=("bust_girth", "waist_girth", "hip_girth"),
    )


METHOD = Method(
    key="torso",
    title="Hip-length torso",
    sheet=_sheet(),
    requires=(
        ("bust_girth",),
        ("waist_girth",),
        ("hip_girth",),
        ("height", "back_waist_length"),
        ("height", "waist_to_hip"),
    ),
    draft=draft,
    clothes=("above", "below"),
)
