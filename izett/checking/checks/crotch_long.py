"""The whole crotch seam is as long as the body's crotch length with its ease.

Common practice, no single source.
"""

from collections.abc import Iterator

from izett.checking.check import Check, CheckParams, Finding, Garment, Verdict, tolerance, verdict
from izett.pattern.facts import CENTRE_LINES, Half, Role
from izett.pattern.worn import halves_of
from izett.wording import cm


class Params(CheckParams):
    """How far the seam may differ."""

    allowed: float = tolerance(1.5, low=0.2, high=5, unit="cm", meaning="off the crotch length with its ease")
    ease: float = tolerance(0.0, low=-4, high=6, unit="cm", meaning="ease wanted where the draft states none")


def find(garment: Garment, params: Params) -> Iterator[Finding]:
    """Yield front and back crotch together, less the body's and the ease drafted."""
    pieces = garment.pattern.with_role(Role.CROTCH)
    if not pieces or "crotch_length" not in garment.body:
        return
    # The ease of the crotch's depth counts in front and behind: as the draft has it, too.
    depth_ease = garment.body.get("crotch_depth_ease")
    wanted = garment.body["crotch_length"] + (2 * depth_ease if depth_ease is not None else params.ease)
    roles = (Role.CROTCH, *CENTRE_LINES)
    for half in halves_of(pieces):
        own = [piece for piece in pieces if piece.half in (Half.BOTH, half)]
        off = sum(e.curve.length for piece in own for e in piece.edges if e.role in roles) - wanted
        found = verdict(off, params.allowed, otherwise=Verdict.WARNS)
        yield Finding(found, ("crotch",), off, params.allowed, half=half)


def word(finding: Finding) -> str:
    """Return the finding in words."""
    if finding.verdict is Verdict.PASSES:
        return "The crotch seam is as long as the body's crotch length with its ease"
    how = "longer" if finding.amount > 0 else "shorter"
    return f"The crotch seam is {cm(abs(finding.amount))} {how} than the body's crotch length with its ease"


CHECK = Check(
    key="crotch_long",
    claim="The crotch seam is as long as the body asks for",
    params=Params,
    find=find,
    word=word,
    fix="Take crotch length and crotch depth again; or lengthen the trousers above the crotch.",
)
