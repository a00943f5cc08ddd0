"""Say what allowance the machine will sew: it must be the one that is on paper.

Two side seams sewn at 0.6 on a pattern cut with 1.25 make the garment about 2.6 cm bigger around. Common practice, no
single source.
"""

from collections.abc import Iterator

from izett.pattern.document import Machine
from izett.pattern.working import Readable
from izett.styling.operation import Context, Group, Keeps, Offer, Operation, Outcome, Section, Sum, length
from izett.styling.references import Params
from izett.styling.subject import Kind, Subject
from izett.wording import cm


class MachineAllowance(Params):
    """The two allowances."""

    paper: float = length(1.5, low=0, high=5, meaning="seam allowance on paper")
    machine: float = length(1.5, low=0, high=5, meaning="seam allowance that the machine will sew")


def apply(params: MachineAllowance, context: Context) -> Outcome:
    """Note both; no shape changes."""
    pattern = context.garment.with_machine(Machine(params.paper, params.machine))
    return Outcome(pattern, (Sum("on paper", params.paper), Sum("sewn", params.machine)))


def describe(params: MachineAllowance) -> str:
    """Return the step in the maker's words."""
    return f"The machine sews {cm(params.machine, 2)}; on paper there are {cm(params.paper, 2)}"


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer it for the garment."""
    if subject.kind is Kind.GARMENT:
        yield Offer("Say what allowance the machine will sew", {"paper": 1.5, "machine": 1.5})


OPERATION = Operation(
    key="machine_allowance",
    title="The machine's seam allowance",
    params=MachineAllowance,
    apply=apply,
    describe=describe,
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.AGREE,
    offers=offers,
    sections=(Section.FINISH,),
    examples=({"paper": 1.5, "machine": 1.5},),
)
