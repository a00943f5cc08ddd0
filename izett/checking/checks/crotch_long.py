"""The whole crotch seam is as long as the body's crotch length with its ease.

Common practice, no single source.
"""

from collections.abc import Iterator

from izett.checking.check import Check, CheckParams, Finding, Garment, Mend, Verdict, tolerance, verdict
from izett.pattern.document import Role


class Params(CheckParams):
    """How far the seam may differ."""

    allowed: float = tolerance(1.5, low=0.2, high=5, unit="cm", meaning="off the crotch length with its ease")
    ease: float = tolerance(0.0, low=-4, high=6, unit="cm", meaning="ease wanted where the draft states none")


def find(garment: Garment, params: Params) -> Iterator[Finding]:
    """Yield front and back crotch together, less the body's and the ease drafted."""
    edges = [e for p in garment.pattern for e in p.edges if e.role is Role.CROTCH]
    if not edges or "crotch_length" not in garment.body:
        return
    centres = [
        e
        for p in garment.pattern
        for e in p.edges
        if e.role in (Role.CENTRE_FRONT, Role.CENTRE_BACK) and any(x.role is Role.CROTCH for x in p.edges)
    ]
    whole = sum(e.curve.length for e in (*edges, *centres))
    # The ease of the crotch's depth counts in front and behind: as the draft has it, too.
    depth_ease = garment.body.get("crotch_depth_ease")
    wanted = garment.body["crotch_length"] + (2 * depth_ease if depth_ease is not None else params.ease)
    off = whole - wanted
    found = verdict(off, params.allowed, otherwise=Verdict.WARNS)
    mends: tuple[Mend, ...] = ()
    yield Finding(found, ("crotch",), off, params.allowed, mends=mends)


def word(finding: Finding) -> str:
    """Return the finding in words."""
    if finding.verdict is Verdict.PASSES:
        return "The crotch seam is as long as the body's crotch length with its ease"
    how = "longer" if finding.amount > 0 else "shorter"
    return f"The crotch seam is {abs(finding.amount):.1f} cm {how} than the body's crotch length with its ease"


CHECK = Check(
    key="crotch_long",
    claim="The crotch seam is as long as the body asks for",
    params=Params,
    find=find,
    word=word,
    mend="Take crotch length and crotch depth again; or lengthen the trousers above the crotch.",
)
