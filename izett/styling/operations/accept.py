"""Accept a finding: what a check reports is meant, up to an amount, for a reason.

An accepted mismatch is intended ease. It is one finding: the check with its question, the thing, its half and the direction
that would be worse. Beyond the amount the finding opens again.
"""

from typing import Any, Literal

from pydantic import Field

from izett.pattern.document import ANY_ASPECT, Accepted
from izett.pattern.facts import Half
from izett.pattern.naming import readable
from izett.styling.operation import Context, Group, Keeps, Operation, Outcome, Section, Sum, ratio
from izett.styling.references import AnyRef, Params


class Accept(Params):
    """Which finding, up to what, and why."""

    check: str = Field(description="the check's key", max_length=60)
    where: tuple[AnyRef, ...] = Field(description="what the finding is about")
    aspect: str = Field("", max_length=60, description="which of the check's questions; * for all of them")
    up_to: float = ratio(0.0, low=-500, high=500, meaning="the amount that is accepted, in the finding's unit")
    worse: Literal["more", "less"] = Field("more", description="whether more of it, or less, is beyond that")
    on: Half = Field(Half.BOTH, description="the half that the finding is about")
    reason: str = Field(min_length=1, max_length=300, description="why it is meant")


def apply(params: Accept, context: Context) -> Outcome:
    """Note the acceptance on the garment; no shape changes."""
    where = tuple(str(name) for name in params.where)
    accepted = Accepted(params.check, where, params.up_to, params.reason, params.aspect, params.on, params.worse)
    same = (accepted.check, where, accepted.aspect, accepted.half, accepted.worse)
    kept = [a for a in context.garment.accepted if (a.check, a.where, a.aspect, a.half, a.worse) != same]
    return Outcome(context.garment.with_accepted((*kept, accepted)), (Sum("accepted up to", params.up_to, ""),))


def describe(params: Accept) -> str:
    """Return the step in the maker's words."""
    what = ", ".join(readable(name) for name in params.where)
    return f"Accepted ({params.check.replace('_', ' ')}): {what}: {params.reason}"


def _from_first(params: dict[str, Any]) -> dict[str, Any]:
    """Return what an acceptance of the first version meant: every question about the thing, in either direction."""
    return {**params, "aspect": ANY_ASPECT}


OPERATION = Operation(
    key="accept",
    title="Accept a finding",
    params=Accept,
    apply=apply,
    describe=describe,
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.AGREE,
    sections=(Section.ACCEPT,),
    version=2,
    upgrades={1: _from_first},
    examples=({"check": "seams_match", "where": ("shoulder",), "up_to": 1.0, "reason": "eased in"},),
)
