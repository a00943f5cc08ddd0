"""Notches meet: walked along each other, the notches of both sides of a seam come together.

Where the second side has ease, the notches before and behind the eased stretch are measured from their own end. Common
practice, no single source.
"""

from collections.abc import Iterator

from izett.checking.check import Check, CheckParams, Finding, Fix, Garment, Verdict, tolerance, verdict
from izett.errors import ReferenceLost
from izett.pattern.document import Seam
from izett.pattern.naming import readable
from izett.pattern.sewn import seam_lengths
from izett.pattern.walking import Met, notches_on
from izett.wording import cm


class Params(CheckParams):
    """How far notches may be apart."""

    apart: float = tolerance(0.15, low=0.02, high=1, unit="cm", meaning="from a notch to its partner, as sewn")


def find(garment: Garment, params: Params) -> Iterator[Finding]:
    """Yield each seam that has notches with the farthest that two of them are apart."""
    for seam in garment.pattern.seams:
        try:
            lengths = seam_lengths(garment.pattern, seam)
            first, second = (notches_on(garment.pattern, side) for side in seam.sides)
        except ReferenceLost:
            continue
        if not first and not second:
            continue
        fix = (Fix("Walk the seam and carry its notches over", "match_notches", {"seam": seam.name}),)
        if len(first) != len(second):
            missing = float(len(first) - len(second))
            yield Finding(Verdict.WARNS, (seam.name,), missing, 0.0, unit="", aspect="missing", fixes=fix)
            continue
        worst = max((_apart(a, b, lengths, seam) for a, b in zip(first, second, strict=True)), key=abs)
        found = verdict(worst, params.apart)
        yield Finding(found, (seam.name,), worst, params.apart, fixes=fix if found is not Verdict.PASSES else ())


def _apart(one: Met, other: Met, lengths: tuple[float, float], seam: Seam) -> float:
    """Return how far (cm) two notches are apart, from the end of the seam at which they agree best."""
    from_start = other.along - one.along + seam.offset
    from_end = (lengths[1] - other.along) - (lengths[0] - one.along) - seam.offset
    return min(from_start, from_end, key=abs)


def word(finding: Finding) -> str:
    """Return the finding in words."""
    name = readable(finding.where[0])
    if finding.aspect == "missing":
        side = "second" if finding.amount > 0 else "first"
        count = abs(finding.amount)
        missing = "One notch is" if count == 1 else f"{count:.0f} notches are"
        return f"{missing} missing on the {side} side of the {name} seam"
    if finding.verdict is Verdict.PASSES:
        return f"The notches of the {name} seam meet"
    return f"Two notches of the {name} seam are {cm(abs(finding.amount), 2)} apart"


CHECK = Check(
    key="notches_meet",
    claim="Walked along each other, the notches of a seam meet",
    params=Params,
    find=find,
    word=word,
    fix="Walk the seam and carry its notches over.",
)
