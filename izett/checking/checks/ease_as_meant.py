"""Ease is as meant: pattern less body at each level, against what was drafted and what steps added on purpose.

Levels are measured along their line, or along the seam that lies there, with darts shut. Common practice, no single
source.
"""

from collections.abc import Iterator

from izett.checking.check import Check, CheckParams, Finding, Fix, Garment, Verdict, tolerance, verdict
from izett.pattern.facts import Half
from izett.pattern.halves import of_right, on_half
from izett.pattern.worn import LIMBS, halves_of, width
from izett.wording import cm

#: The body's girth at each level.
LEVELS = {"bust": "bust_girth", "waist": "waist_girth", "hip": "hip_girth", "bicep": "bicep_girth"}

#: Where a change at the side seams sets the ease of a level, and on how many edges.
AT_SIDE = {"bust": "underarm", "waist": "waist", "hip": "hip"}
EDGES = 4


class Params(CheckParams):
    """How far the ease may leave what was meant."""

    allowed: float = tolerance(0.5, low=0.1, high=3, unit="cm", meaning="ease off what was meant, total around")


def find(garment: Garment, params: Params) -> Iterator[Finding]:
    """Yield each level that has ease with the total ease (cm) less the ease meant."""
    intent = garment.pattern.intent
    for level, meant in intent.ease.items():
        if level not in LEVELS:
            continue
        for half in halves_of(garment.pattern.with_level(level)) if level in LIMBS else (Half.BOTH,):
            around, girth = width(garment.pattern, level, half), on_half(garment.body, LEVELS[level], half)
            if girth is None or not around:
                yield Finding(Verdict.NOT_APPLICABLE, (level,), 0.0, params.allowed, half=half)
                continue
            wanted = intent.ease.get(of_right(level), meant) if half is Half.RIGHT else meant
            off = around - garment.pattern.fullness(level) - girth - wanted
            found = verdict(off, params.allowed, otherwise=Verdict.WARNS)
            fixes = () if found is Verdict.PASSES else tuple(_fixes(level, off))
            yield Finding(found, (level,), off, params.allowed, fixes=fixes, half=half)


def _fixes(level: str, off: float) -> Iterator[Fix]:
    if level in AT_SIDE:
        share = max(-4.0, min(8.0, round(-off / EDGES, 2)))
        yield Fix(f"{cm(abs(share), 2)} at each side edge", "change_side", {AT_SIDE[level]: share})


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
            return f"The {level} is {cm(abs(finding.amount))} {how} than meant, total around"


CHECK = Check(
    key="ease_as_meant",
    claim="Bust, waist, hip and upper arm have the ease that was meant",
    params=Params,
    find=find,
    word=word,
    fix="Add or take the difference at the side seams: a quarter at each edge.",
)
