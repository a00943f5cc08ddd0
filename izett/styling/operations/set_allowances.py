"""Seam allowances: what the sheets are cut for sets each edge's width by what it is; single lines are set apart.

A later step of this kind counts over an earlier one; lines that it does not name keep what they had. No shape changes.
Common practice, no single source.
"""

from collections.abc import Iterator
from dataclasses import replace
from typing import Literal

from pydantic import Field

from izett.finishing.allowances import WIDEST, purposes
from izett.pattern.working import Readable
from izett.styling.operation import Context, Group, Keeps, Offer, Operation, Outcome, Section, Sum, length
from izett.styling.references import LineRef, Params
from izett.styling.subject import Kind, Subject
from izett.styling.words import line_words
from izett.wording import cm


class LineAllowance(Params):
    """One line with its own allowance."""

    line: LineRef = Field(description="the line")
    width: float = length(1.0, low=0, high=WIDEST, meaning="seam allowance of the line")


class SetAllowances(Params):
    """What the sheets are cut for, and lines that are set apart."""

    purpose: Literal["muslin", "draped", "home", "production", "serged", "bridal", "none"] = Field(
        "muslin", description="what the sheets are cut for"
    )
    lines: tuple[LineAllowance, ...] = Field((), max_length=200, description="lines with allowances of their own")


def apply(params: SetAllowances, context: Context) -> Outcome:
    """Note the allowances on the garment."""
    set_apart = {**context.garment.allowances.by_lineage, **{str(one.line): one.width for one in params.lines}}
    told = tuple(Sum(line_words(one.line, begins=True), one.width) for one in params.lines)
    cut_for = replace(context.garment.allowances, purpose=params.purpose, by_lineage=set_apart)
    return Outcome(context.garment.cut_for(cut_for), told)


def describe(params: SetAllowances) -> str:
    """Return the step in the maker's words."""
    words = f"Seam allowances: {purposes()[params.purpose].title.lower()}"
    apart = ", ".join(f"{line_words(one.line)} {cm(one.width, 2)}" for one in params.lines)
    return f"{words}; {apart}" if apart else words


def offers(subject: Subject, pattern: Readable) -> Iterator[Offer]:
    """Offer an allowance of its own where a line is pointed at."""
    if subject.kind is Kind.LINE and subject.role is not None:
        # It is set apart; what the others are cut for stays as it is.
        purpose = pattern.allowances.purpose
        width = purposes()[purpose].by_role[subject.role]
        yield Offer("Set its seam allowance", {"purpose": purpose, "lines": [{"line": subject.name, "width": width}]})


OPERATION = Operation(
    key="set_allowances",
    title="Seam allowances",
    params=SetAllowances,
    apply=apply,
    describe=describe,
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.AGREE,
    offers=offers,
    sections=(Section.FINISH,),
    examples=({"purpose": "home"}, {"purpose": "muslin", "lines": ({"line": "front.neck", "width": 0.7},)}),
)
