"""Add ties: two strips sewn in at a place of a seam or an edge, at any level, to be tied in front or behind.

The place is notched on every line of the seam, so that it is found on both pieces. Common practice, no single source.
"""

from collections.abc import Iterator

from pydantic import Field

from izett.errors import StepRefused
from izett.pattern.facts import Layer, Role
from izett.pattern.naming import readable
from izett.pattern.working import Readable
from izett.styling.making import rectangle
from izett.styling.notching import notched
from izett.styling.operation import Context, Group, Keeps, Offer, Operation, Outcome, Section, Sum, length
from izett.styling.references import Params, PointRef
from izett.styling.subject import Kind, Subject
from izett.styling.told import size
from izett.styling.words import line_words
from izett.wording import cm

#: Lines that a tie is sewn into.
ROLES = (Role.SIDE, Role.PANEL, Role.CENTRE_FRONT, Role.CENTRE_BACK, Role.NECK, Role.WAIST)


class AddTie(Params):
    """Where the ties are sewn in, and how long and wide they are."""

    at: PointRef = Field(description="the middle of the tie on the seam or edge")
    long: float = length(65.0, low=8, high=200, meaning="finished length of each tie")
    width: float = length(3.0, low=0.5, high=20, meaning="finished width")


def apply(params: AddTie, context: Context) -> Outcome:
    """Make the pair, and notch its place."""
    pattern = context.garment
    whole = context.span_length(params.at.span)
    low, high = (params.at.fraction * whole + way * params.width / 2 for way in (-1, 1))
    if low < 0 or high > whole:
        raise StepRefused(
            f"A tie of {cm(params.width, 2)} does not fit so near to the end of {line_words(params.at.along)}.",
            fix=f"Put it at least {cm(params.width / 2, 2)} from the end, or make it narrower.",
            where=(params.at.along,),
        )
    for along in (low, high):
        pattern = notched(context.on(pattern), params.at.span, along)
    # Folded along its length: it is cut twice as wide as it shows.
    made = rectangle(
        context,
        title="Tie",
        width=params.long,
        height=2 * params.width,
        cut=2,
        on_fold=False,
        roles=(Role.HEM, Role.HEM, Role.PANEL),
        layer=Layer.APPLIED,
    )
    long, wide = size(made)
    told = (
        Sum("finished length", long),
        Sum("cut width", wide),
        Sum("from the start", (low + high) / 2),
    )
    return Outcome(pattern.adding(made), told, (made.name,))


def describe(params: AddTie) -> str:
    """Return the step in the maker's words."""
    return f"Ties in {line_words(params.at.along)}: {cm(params.long)} long, {cm(params.width, 2)} wide"


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer ties at the place pointed at, and at a level that ends there."""
    piece = subject.piece
    if subject.kind is not Kind.LINE or piece is None or subject.span is None or subject.role not in ROLES:
        return
    yield Offer(f"Add: ties, here in the {readable(subject.name)}", {"at": subject.place()})


OPERATION = Operation(
    key="add_tie",
    title="Add ties",
    params=AddTie,
    apply=apply,
    describe=describe,
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.ADDED,
    offers=offers,
    sections=(Section.FOLLOW,),
    examples=(
        {
            "at": {"start": "front.waist_side", "end": "front.underarm", "along": "front.side", "fraction": 0.2},
            "long": 70.0,
        },
    ),
)
