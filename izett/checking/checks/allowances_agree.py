"""The allowance that the machine sews is the one on paper; if not, how much the garment changes around the body is told.

Every seam edge around the body gives or takes the difference: two side seams are four edges. Common practice, no single
source.
"""

from collections.abc import Iterator

from izett.checking.check import Check, CheckParams, Finding, Fix, Garment, Verdict, tolerance, verdict
from izett.pattern.worn import edges_around
from izett.wording import cm


class Params(CheckParams):
    """How much the garment may change."""

    around: float = tolerance(0.2, low=0, high=2, unit="cm", meaning="change all around the body")


def find(garment: Garment, params: Params) -> Iterator[Finding]:
    """Yield how much the two allowances, where the maker gave them, change the garment all around."""
    machine = garment.pattern.machine
    if machine is None:
        return
    edges = float(edges_around(garment.pattern))
    change = (machine.paper - machine.sewn) * edges
    found = verdict(change, params.around)
    fix = Fix(
        "Sew the allowance that is on paper", "machine_allowance", {"paper": machine.paper, "machine": machine.paper}
    )
    yield Finding(
        found, ("side",), change, params.around, beside=edges, fixes=(fix,) if found is not Verdict.PASSES else ()
    )


def word(finding: Finding) -> str:
    """Return the finding in words."""
    if finding.verdict is Verdict.PASSES:
        return "The machine sews the allowance that is on paper"
    how = "bigger" if finding.amount > 0 else "smaller"
    return f"Sewn like that the garment is {cm(abs(finding.amount))} {how} around ({finding.beside:.0f} edges)"


CHECK = Check(
    key="allowances_agree",
    claim="The allowance sewn is the allowance on paper",
    params=Params,
    find=find,
    word=word,
    fix="Set the machine's guide to the allowance on paper, or cut with the one that it sews.",
)
