"""Seams match: both sides of a seam are equally long as sewn, within the ease that is meant.

Common practice, no single source: 1.5 mm is lost in the needle.
"""

from collections.abc import Iterator

from izett.checking.check import Check, CheckParams, Finding, Fix, Garment, Verdict, tolerance, verdict
from izett.errors import ReferenceLost
from izett.pattern.document import Seam
from izett.pattern.ends import arose_at_start, end_words
from izett.pattern.facts import SeamKind
from izett.pattern.naming import readable
from izett.pattern.sewn import seam_lengths
from izett.pattern.working import Readable
from izett.wording import cm

#: Which side is longer than meant, as an acceptance names it.
SIDES = ("first", "second")


class Params(CheckParams):
    """How much may disappear in the sewing."""

    allowed: float = tolerance(0.15, low=0, high=1, unit="cm", meaning="difference that disappears in sewing")


def find(garment: Garment, params: Params) -> Iterator[Finding]:
    """Yield each seam with the difference in cm that its ease does not explain."""
    for seam in garment.pattern.seams:
        try:
            first, second = seam_lengths(garment.pattern, seam)
        except ReferenceLost as lost:
            # A seam whose ends are gone holds nothing together, whatever its lengths were.
            yield Finding(Verdict.FAILS, (seam.name, *lost.where), 0.0, params.allowed, aspect="lost", half=seam.half)
            continue
        low, high = seam.ease
        over = second - first
        beyond = over - high if over > high else over - low if over < low else 0.0
        longer = 1 if beyond > 0 else 0
        found = verdict(beyond, params.allowed)
        fixes = () if found is Verdict.PASSES else tuple(_fixes(garment.pattern, seam))
        yield Finding(
            found, (seam.name,), beyond, params.allowed, aspect=SIDES[longer], fixes=fixes, half=seam.half,
            side=seam.words[longer],
        )  # fmt: skip


def _fixes(pattern: Readable, seam: Seam) -> Iterator[Fix]:
    """Yield how it can be trued: at the end where the difference arose first, on either side, then at the other end."""
    if seam.kind is SeamKind.CAP:
        usual = next(iter(pattern.seams_of(SeamKind.CAP)), seam)
        # A lining's cap is the second: it is named.
        which = {} if seam.name == usual.name else {"seam": seam.name}
        for by in ("width", "height"):
            params = {"by": by, "ease": round(sum(seam.ease) / 2, 2), **which}
            yield Fix(f"Re-cap the {'lining' if which else 'sleeve'} by {by}", "recap_sleeve", params)
    arose = arose_at_start(pattern, seam)
    for at_start in (arose, not arose):
        place = end_words(pattern, seam, at_start=at_start)
        for takes, who in (
            ("second", f"the {seam.words[1]} takes"),
            ("first", f"the {seam.words[0]} takes"),
            ("both", "share"),
        ):
            params = {"seam": seam.name, "takes": takes, "at_start": at_start}
            yield Fix(f"True it at the {place}: {who} the difference", "true_seam", params)


def word(finding: Finding) -> str:
    """Return the finding in words."""
    name = readable(finding.where[0])
    if finding.aspect == "lost":
        return f"The {name} seam has lost one of its ends ({', '.join(readable(name) for name in finding.where[1:])})"
    if finding.verdict is Verdict.PASSES:
        return f"The {name} seam matches"
    return f"The {name} seam: the {finding.side} is {cm(abs(finding.amount), 2)} longer than meant"


CHECK = Check(
    key="seams_match",
    claim="Both sides of each seam are equally long as sewn, or differ by the ease meant",
    params=Params,
    find=find,
    word=word,
    fix="Take the difference at the end of the seam, or change both pieces by the same step.",
)
