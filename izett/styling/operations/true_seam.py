"""True a seam: one side takes the difference at its end, or both take half, so that they are equal as sewn.

The corner slides on along the seam's own direction and the lines that meet it are drawn to it. Common practice, no
single source.
"""

from collections.abc import Iterator
from enum import StrEnum

from pydantic import Field

from izett.errors import StepRefused
from izett.pattern.document import Seam
from izett.pattern.ends import arose_at_start
from izett.pattern.naming import readable
from izett.pattern.sewn import seam_lengths
from izett.pattern.working import Readable, Working
from izett.styling.operation import Context, Group, Offer, Operation, Outcome, Section, Sum
from izett.styling.parting import seam_named
from izett.styling.references import Params, SeamRef
from izett.styling.seam_ends import slid
from izett.styling.subject import Kind, Subject, seam_at
from izett.styling.sweep import fault_in
from izett.styling.words import line_words

#: Sliding a corner on a curve is done so often at most: each time it comes much nearer.
MOST_TIMES = 25
#: cm. Sides that differ by less are equal.
EQUAL = 1e-4
#: cm. More than this left over is not trued.
LEFT_OVER = 0.01


class Takes(StrEnum):
    """Which side takes the difference."""

    FIRST = "first"
    SECOND = "second"
    BOTH = "both"


class TrueSeam(Params):
    """Which seam, which side changes, and at which end."""

    seam: SeamRef = Field(description="the seam's name")
    takes: Takes = Field(Takes.SECOND, description="the side that takes the difference")
    at_start: bool = Field(False, description="at the seam's start, not at its end")


def apply(params: TrueSeam, context: Context) -> Outcome:
    """Slide the corners until the difference is the ease that is meant."""
    seam = seam_named(context, params.seam)
    first = beyond(context.garment, seam)
    pattern = context.garment
    shares = {Takes.FIRST: (1.0, 0.0), Takes.SECOND: (0.0, 1.0), Takes.BOTH: (0.5, 0.5)}[params.takes]
    for _ in range(MOST_TIMES):
        off = beyond(pattern, seam)
        if abs(off) < EQUAL:
            break
        for side, part, sign in ((0, shares[0], 1.0), (1, shares[1], -1.0)):
            if part:
                pattern = slid(pattern, seam, side, sign * part * off, at_start=params.at_start)
    _refuse_bad_sweep(context.garment, pattern)
    return Outcome(pattern, (Sum("difference before", first), Sum("difference now", beyond(pattern, seam))))


def _refuse_bad_sweep(before: Working, after: Working) -> None:
    """Refuse a truing that leaves a line with a corner, a hook or a bend that it did not have."""
    for piece in after.since(before)[1]:
        fault = fault_in(before.piece(piece.name), piece)
        if fault is not None:
            raise StepRefused(
                f"{piece.title}: trued so, {line_words(fault.line)} would have {fault.what}.",
                fix="Take the difference at the other end, on the other side, or on both.",
                where=(fault.line,),
            )


def beyond(pattern: Working, seam: Seam) -> float:
    """Return by how much (cm) the second side of a seam is longer than meant; negative where it is shorter."""
    one, two = seam_lengths(pattern, seam)
    low, high = seam.ease
    over = two - one
    return over - high if over > high else over - low if over < low else 0.0


def describe(params: TrueSeam) -> str:
    """Return the step in the maker's words."""
    who = {Takes.FIRST: "the first side", Takes.SECOND: "the second side", Takes.BOTH: "both sides"}[params.takes]
    where = "start" if params.at_start else "end"
    return f"True the {readable(params.seam)} seam: {who} takes the difference at the {where}"


def offers(subject: Subject, pattern: Readable) -> Iterator[Offer]:
    """Offer to true the seam that the line is sewn in, where its sides differ."""
    if subject.kind is Kind.LINE and subject.piece is not None:
        seam = seam_at(pattern, subject.piece, subject.name)
        if seam is not None:
            at_start = arose_at_start(pattern, seam)
            yield Offer("True this seam", {"seam": seam.name, "takes": "second", "at_start": at_start})


OPERATION = Operation(
    key="true_seam",
    title="True a seam",
    params=TrueSeam,
    apply=apply,
    describe=describe,
    group=Group.AGREE,
    offers=offers,
    sections=(Section.FOLLOW,),
    examples=({"seam": "side", "takes": "second"}, {"seam": "shoulder", "takes": "both"}),
)
