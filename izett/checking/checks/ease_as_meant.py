"""Ease is as meant: pattern less body at bust and waist, against what was drafted and what steps added on purpose.

The bust is measured along the bust line, the waist along its seam, both with darts shut. Common practice, no single
source.
"""

from collections.abc import Iterator

from izett.checking.check import Check, CheckParams, Finding, Garment, Verdict, tolerance, verdict
from izett.errors import ReferenceLost
from izett.pattern.document import Pattern, Span
from izett.pattern.sewn import holding, span_length

WAIST = (
    Span("front.waist_cf", "front.waist_side", "front.waist"),
    Span("back.waist_cb", "back.waist_side", "back.waist"),
)


class Params(CheckParams):
    """How far the ease may leave what was meant."""

    allowed: float = tolerance(0.5, low=0.1, high=3, unit="cm", meaning="ease off what was meant, total around")


def find(garment: Garment, params: Params) -> Iterator[Finding]:
    """Yield bust and waist with the total ease (cm) less the ease meant."""
    sides = 2
    widths = {
        "bust": sides * sum(piece.level("bust") for piece in garment.pattern),
        "waist": _waist(garment.pattern),
    }
    for level, width in widths.items():
        girth = garment.body.get(f"{level}_girth")
        if girth is None or not width:
            yield Finding(Verdict.NOT_APPLICABLE, (level,), 0.0, params.allowed)
            continue
        meant = garment.pattern.intent.ease.get(level, 0.0)
        off = width - girth - meant
        yield Finding(verdict(off, params.allowed, otherwise=Verdict.WARNS), (level,), off, params.allowed)


def _waist(pattern: Pattern) -> float:
    try:
        return 2 * sum(span_length(holding(pattern, span.start), span) for span in WAIST)
    except ReferenceLost:
        return 0.0


def word(finding: Finding) -> str:
    """Return the finding in words."""
    level = finding.where[0]
    match finding.verdict:
        case Verdict.PASSES:
            return f"The ease at the {level} is as meant"
        case Verdict.NOT_APPLICABLE:
            return f"The {level} cannot be compared with the body"
        case _:
            how = "looser" if finding.amount > 0 else "tighter"
            return f"The {level} is {abs(finding.amount):.1f} cm {how} than meant, total around"


CHECK = Check(
    key="ease_as_meant",
    claim="Bust and waist have the ease that was meant",
    params=Params,
    find=find,
    word=word,
    mend="Add or take the difference at the side seams: a quarter at each edge.",
)
