"""Every line has an allowance, and the machine sews the one on paper; if not, how much the garment changes is told.

Every seam edge around the body gives or takes the difference: two side seams are four edges. Common practice, no single
source.
"""

from collections.abc import Iterator

from izett.checking.check import Check, CheckParams, Finding, Fix, Garment, Verdict, Worse, tolerance, verdict
from izett.finishing.allowances import left_without
from izett.pattern.naming import readable
from izett.pattern.working import Readable
from izett.pattern.worn import edges_around
from izett.wording import cm


class Params(CheckParams):
    """How much the garment may change."""

    around: float = tolerance(0.2, low=0, high=2, unit="cm", meaning="change all around the body")


def find(garment: Garment, params: Params) -> Iterator[Finding]:
    """Yield each line that was left without an allowance, and how much the machine's changes the garment all around."""
    yield from _left_without(garment.pattern)
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


def _left_without(pattern: Readable) -> Iterator[Finding]:
    """Yield the lines that a maker cuts at the sewing line."""
    for line, usual in left_without(pattern):
        give = {"purpose": pattern.allowances.purpose, "lines": [{"line": line, "width": usual}]}
        fix = Fix(f"Give it {cm(usual)}", "set_allowances", give)
        yield Finding(Verdict.WARNS, (line,), 0.0, usual, aspect="without", fixes=(fix,), worse=Worse.LESS)


def word(finding: Finding) -> str:
    """Return the finding in words."""
    if finding.aspect == "without":
        return f"The {readable(finding.where[0])} line has no seam allowance"
    if finding.verdict is Verdict.PASSES:
        return "The machine sews the allowance that is on paper"
    how = "bigger" if finding.amount > 0 else "smaller"
    return f"Sewn like that the garment is {cm(abs(finding.amount))} {how} around ({finding.beside:.0f} edges)"


CHECK = Check(
    key="allowances_agree",
    claim="Every line has an allowance, and the one sewn is the one on paper",
    params=Params,
    find=find,
    word=word,
    fix="Set the machine's guide to the allowance on paper, or cut with the one that it sews.",
)
