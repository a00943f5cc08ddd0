"""Ease is as meant: pattern less body at each level, against what was drafted and what steps added on purpose.

Levels are measured along their line, or along the seam that lies there, with darts shut. Common practice, no single
source.
"""

from collections.abc import Iterator

from izett.checking.check import Check, CheckParams, Finding, Garment, Verdict, tolerance, verdict
from izett.errors import ReferenceLost
from izett.pattern.document import Pattern
from izett.pattern.sewn import holding, span_length

#: What is measured at each level: the body's girth, and how often the pattern has the level around the body.
LEVELS = {"bust": ("bust_girth", 2), "waist": ("waist_girth", 2), "hip": ("hip_girth", 2), "bicep": ("bicep_girth", 1)}


class Params(CheckParams):
    """How far the ease may leave what was meant."""

    allowed: float = tolerance(0.5, low=0.1, high=3, unit="cm", meaning="ease off what was meant, total around")


def find(garment: Garment, params: Params) -> Iterator[Finding]:
    """Yield each level that has ease with the total ease (cm) less the ease meant."""
    intent = garment.pattern.intent
    for level, meant in intent.ease.items():
        if level not in LEVELS:
            continue
        girth_of, sides = LEVELS[level]
        width = sides * _width(garment.pattern, level)
        girth = garment.body.get(girth_of)
        if girth is None or not width:
            yield Finding(Verdict.NOT_APPLICABLE, (level,), 0.0, params.allowed)
            continue
        off = width - girth - meant
        yield Finding(verdict(off, params.allowed, otherwise=Verdict.WARNS), (level,), off, params.allowed)


def _width(pattern: Pattern, level: str) -> float:
    spans = pattern.intent.along.get(level)
    if spans is None:
        # A half on the fold that is cut twice is front and back at once.
        return sum(piece.level(level) * (2 if piece.on_fold and piece.cut == 2 else 1) for piece in pattern)
    try:
        return sum(span_length(holding(pattern, span.start), span) for span in spans)
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
    claim="Bust, waist, hip and upper arm have the ease that was meant",
    params=Params,
    find=find,
    word=word,
    mend="Add or take the difference at the side seams: a quarter at each edge.",
)
