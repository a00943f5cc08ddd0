"""The allowance that the machine sews is the one on paper; if not, how much the garment changes around the body is told.

Every seam edge around the body gives or takes the difference: two side seams are four edges. Common practice, no single
source.
"""

from collections.abc import Iterator

from izett.checking.check import Check, CheckParams, Finding, Garment, Mend, Verdict, tolerance, verdict
from izett.pattern.document import Pattern, Role

UPRIGHT = (Role.SIDE, Role.PANEL, Role.CENTRE_BACK, Role.CENTRE_FRONT)


class Params(CheckParams):
    """How much the garment may change."""

    around: float = tolerance(0.2, low=0, high=2, unit="cm", meaning="change all around the body")


def find(garment: Garment, params: Params) -> Iterator[Finding]:
    """Yield what the difference of the two allowances makes, all around, where the maker said them."""
    machine = garment.pattern.machine
    if machine is None:
        return
    edges = edges_around(garment.pattern)
    change = (machine.paper - machine.sewn) * edges
    found = verdict(change, params.around)
    mend = Mend(
        "Sew the allowance that is on paper", "machine_allowance", {"paper": machine.paper, "machine": machine.paper}
    )
    yield Finding(found, (f"{edges:.0f}",), change, params.around, mends=(mend,) if found is not Verdict.PASSES else ())


def edges_around(pattern: Pattern) -> float:
    """Return how many seam edges lie around the body: of the pieces above the waist, or else of all."""
    upper = [p for p in pattern if any(e.role in (Role.ARMHOLE, Role.SHOULDER) for e in p.edges) or p.level("bust")]
    pieces = upper or [p for p in pattern if p.level("hip")]
    count = 0.0
    for piece in pieces:
        lines = {e.lineage for e in piece.edges if e.role in UPRIGHT and e.lineage != piece.on_fold}
        count += len(lines) * (piece.cut if not piece.on_fold else 2 * piece.cut)
    return count


def word(finding: Finding) -> str:
    """Return the finding in words."""
    if finding.verdict is Verdict.PASSES:
        return "The machine sews the allowance that is on paper"
    how = "bigger" if finding.amount > 0 else "smaller"
    return f"Sewn like that the garment is {abs(finding.amount):.1f} cm {how} around ({finding.where[0]} edges)"


CHECK = Check(
    key="allowances_agree",
    claim="The allowance sewn is the allowance on paper",
    params=Params,
    find=find,
    word=word,
    mend="Set the machine's guide to the allowance on paper, or cut with the one that it sews.",
)
