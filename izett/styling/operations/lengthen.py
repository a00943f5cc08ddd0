"""Lengthen or shorten at a line across: everything below slides down or up, on all pieces that the line runs over.

Pointed at on a seam, the line lies at the same distance along it on both pieces, and so on over every panel. Common
practice, no single source.
"""

from collections.abc import Iterator

from pydantic import Field

from izett.pattern.facts import SeamKind
from izett.pattern.working import Readable
from izett.styling.across import UPRIGHT, heights_across, slid_below
from izett.styling.operation import SHAPES, Context, Group, Keeps, Offer, Operation, Outcome, Sum, length
from izett.styling.references import Params, PointRef
from izett.styling.subject import Kind, Subject
from izett.styling.words import line_words, signed


class Lengthen(Params):
    """Where, and how much."""

    at: PointRef = Field(description="the place on a seam or an edge through which the line runs across")
    amount: float = length(2.0, low=-30, high=80, meaning="longer below that line (−: shorter)")


def apply(params: Lengthen, context: Context) -> Outcome:
    """Slide what lies below the line on every piece that it runs over."""
    piece, edge, along = context.place(params.at)
    heights = heights_across(context, piece, edge.curve.at_distance(along)[1])
    before = context.span_length(params.at.span)
    pattern = context.garment.with_pieces(
        *(slid_below(context.piece(name), height, params.amount) for name, height in heights.items())
    )
    longer = context.on(pattern).span_length(params.at.span) - before
    told = [Sum(f"longer along {line_words(params.at.along)}", longer), Sum("pieces", float(len(heights)), "")]
    return Outcome(pattern, tuple(told))


def describe(params: Lengthen) -> str:
    """Return the step in the maker's words."""
    return f"{signed(params.amount, 'Lengthen by', 'Shorten by')} across {line_words(params.at.along)}"


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer to lengthen at the place pointed at on an upright line."""
    if subject.kind is Kind.LINE and subject.role in UPRIGHT:
        yield Offer("Lengthen or shorten here", {"at": subject.place()})


OPERATION = Operation(
    key="lengthen",
    title="Lengthen or shorten here",
    params=Lengthen,
    apply=apply,
    describe=describe,
    sections=SHAPES,
    moves=(SeamKind.CAP,),
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.SIZE,
    offers=offers,
    blocks=("bodice", "sleeve", "skirt"),
    examples=(
        {
            "at": {
                "start": "skirt_front.hem_side",
                "end": "skirt_front.waist_side",
                "along": "skirt_front.side",
                "fraction": 0.4,
            },
            "amount": 10.0,
        },
        {
            "at": {
                "start": "sleeve.wrist_front",
                "end": "sleeve.underarm_front",
                "along": "sleeve.front_underarm",
                "fraction": 0.2,
            },
            "amount": -4.0,
        },
    ),
)
