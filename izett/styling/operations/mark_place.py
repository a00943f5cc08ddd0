"""Mark a place of a piece: a notch in its edge, or inside it a button, a snap, a hook, an eyelet, a tie, a pocket's corner.

It lies so far along a line, and so far into the piece, that it moves with the line when that is changed. A notch is
single in front and double behind, and is cut on both sides of the seam; an inner place is a cross, and a drill hole is
drilled. Common practice, no single source.
"""

from collections.abc import Iterator
from dataclasses import replace

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.outline import contains
from izett.pattern.naming import readable
from izett.pattern.placed import Placed, beside, cross_at
from izett.pattern.sewn import span_length
from izett.pattern.working import Readable
from izett.styling.notching import notched
from izett.styling.operation import Context, Group, Keeps, Offer, Operation, Outcome, Section, Sum, length
from izett.styling.references import Params, PointRef
from izett.styling.subject import Kind, Subject
from izett.styling.words import line_words
from izett.wording import cm

#: All that lies inside a piece.
INNER = tuple(kind.value for kind in Placed if kind is not Placed.NOTCH)


class MarkPlace(Params):
    """What is marked, and where."""

    at: PointRef = Field(description="where on the line")
    kind: Placed = Field(Placed.NOTCH, description="what is marked")
    inwards: float = length(2.0, low=0.3, high=60, meaning="from the line into the piece", only=INNER)


def apply(params: MarkPlace, context: Context) -> Outcome:
    """Notch the line, or put a cross on the piece."""
    along = params.at.fraction * context.span_length(params.at.span)
    told = [Sum("from the start", along)]
    if params.kind is Placed.NOTCH:
        return Outcome(notched(context, params.at.span, along), tuple(told))
    for span in context.chain(params.at.span):
        piece = context.piece_with(span.start)
        own = span_length(piece, span)
        if along > own + 1e-9:
            along -= own
            continue
        at, way, _ = beside(piece, span, along, params.inwards)
        if not contains(piece.outline(), at):
            raise StepRefused(
                f"{cm(params.inwards, 2)} beside {line_words(params.at.along)} is not on the piece.",
                fix="Put it nearer to the line.",
                where=(params.at.along,),
            )
        mark = cross_at(params.kind, at, way)
        told.append(Sum("into the piece", params.inwards))
        return Outcome(context.garment.with_pieces(replace(piece, lines=(*piece.lines, mark))), tuple(told))
    raise AssertionError("a place lies on one of the parts of its line")


def describe(params: MarkPlace) -> str:
    """Return the step in the maker's words."""
    if params.kind is Placed.NOTCH:
        return f"Notch in {line_words(params.at.along)}"
    return f"{params.kind.value.capitalize()}: {cm(params.inwards, 2)} beside {line_words(params.at.along)}"


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer a notch at the place pointed at, and a mark beside it."""
    if subject.kind is not Kind.LINE or subject.piece is None or subject.span is None:
        return
    if subject.piece.on_fold != subject.name:
        yield Offer(f"Notch, here in the {readable(subject.name)}", {"at": subject.place(), "kind": "notch"})
    yield Offer("Mark a place beside it: a button, a snap, a pocket…", {"at": subject.place(), "kind": "button"})


OPERATION = Operation(
    key="mark_place",
    title="Mark a place",
    params=MarkPlace,
    apply=apply,
    describe=describe,
    keeps=frozenset({Keeps.SEAMS, Keeps.PAPER}),
    group=Group.HEM,
    offers=offers,
    sections=(Section.FOLLOW,),
    examples=(
        {"at": {"start": "front.waist_side", "end": "front.underarm", "along": "front.side", "fraction": 0.3}},
        {
            "at": {"start": "front.waist_side", "end": "front.underarm", "along": "front.side", "fraction": 0.4},
            "kind": "pocket",
            "inwards": 4.0,
        },
    ),
)
