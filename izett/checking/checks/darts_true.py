"""Darts are true: legs equal, tip set back from the bust point, no intake larger than cloth takes in one place.

Common practice, no single source.
"""

from collections.abc import Iterator

from izett.checking.check import Check, CheckParams, Finding, Garment, Verdict, tolerance, verdict
from izett.geometry.point import distance
from izett.pattern.document import mouth_width


class Params(CheckParams):
    """What a dart may differ and take in."""

    legs: float = tolerance(0.1, low=0, high=0.5, unit="cm", meaning="difference of the two legs")
    intake: float = tolerance(5.0, low=2, high=8, unit="cm", meaning="largest waist dart before it is split")
    shortest: float = tolerance(4.0, low=2, high=8, unit="cm", meaning="shortest leg that still shapes")


def find(garment: Garment, params: Params) -> Iterator[Finding]:
    """Yield for each dart its legs, and what is odd about its size."""
    for piece in garment.pattern:
        for dart in piece.darts:
            a, b = (piece.vertex(name) for name in dart.mouth)
            tip = piece.vertex(dart.tip)
            leg = distance(a, tip)
            uneven = leg - distance(b, tip)
            yield Finding(verdict(uneven, params.legs), (dart.name,), uneven, params.legs, aspect="legs")
            width = mouth_width(piece, dart)
            if dart.family == "waist" and width > params.intake:
                yield Finding(Verdict.WARNS, (dart.name,), width, params.intake, aspect="intake")
            if leg < params.shortest:
                yield Finding(Verdict.WARNS, (dart.name,), leg, params.shortest, aspect="short")


def word(finding: Finding) -> str:
    """Return the finding in words."""
    dart = finding.where[0].replace(".", " ").replace("_", " ")
    if finding.aspect == "intake":
        return f"The {dart} takes in {finding.amount:.1f} cm: it pokes out, better split"
    if finding.aspect == "short":
        return f"The {dart} is only {finding.amount:.1f} cm long"
    if finding.verdict is Verdict.PASSES:
        return f"The {dart} has equal legs"
    return f"The legs of the {dart} differ by {abs(finding.amount):.2f} cm"


CHECK = Check(
    key="darts_true",
    claim="Darts have equal legs, a fair length and an intake that cloth takes in one place",
    params=Params,
    find=find,
    word=word,
    mend="Aim the dart again, or share its intake with another one.",
)
