"""Accept a finding: what a check reports is meant, up to an amount, for a reason.

An accepted mismatch is intended ease. Beyond the amount the finding opens again.
"""

from pydantic import Field

from izett.pattern.document import Accepted
from izett.styling.operation import Context, Group, Keeps, Operation, Outcome, Section, Sum, ratio
from izett.styling.references import Params


class Accept(Params):
    """Which finding, up to what, and why."""

    check: str = Field(description="the check's key", max_length=60)
    where: tuple[str, ...] = Field(description="what the finding is about")
    up_to: float = ratio(0.0, low=0, high=500, meaning="the amount that is accepted, in the finding's unit")
    reason: str = Field(min_length=1, max_length=300, description="why it is meant")


def apply(params: Accept, context: Context) -> Outcome:
    """Note the acceptance on the pattern; no shape changes."""
    kept = [a for a in context.garment.accepted if (a.check, a.where) != (params.check, params.where)]
    accepted = Accepted(params.check, params.where, params.up_to, params.reason)
    return Outcome(context.garment.with_accepted((*kept, accepted)), (Sum("accepted up to", params.up_to, ""),))


def describe(params: Accept) -> str:
    """Return the step in the maker's words."""
    return f"Accepted ({params.check.replace('_', ' ')}): {', '.join(params.where).replace('_', ' ')}: {params.reason}"


OPERATION = Operation(
    key="accept",
    title="Accept a finding",
    params=Accept,
    apply=apply,
    describe=describe,
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.AGREE,
    sections=(Section.ACCEPT,),
    examples=({"check": "seams_match", "where": ("shoulder",), "up_to": 1.0, "reason": "eased in"},),
)
