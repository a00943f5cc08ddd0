"""Mark button places: buttonholes at even distances along an edge, and the buttons opposite them.

The first and the last are set from the ends; the strain lies at the bust and the waist, so that one of them should fall
there. A buttonhole is as long as the button is wide, and 3 mm more for its thickness; across an edge it begins 3 mm
beyond the centre line. Common practice, no single source.
"""

from collections.abc import Iterator
from dataclasses import replace
from enum import StrEnum

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.point import add, scale
from izett.pattern.facts import Role
from izett.pattern.piece import LevelLine
from izett.pattern.placed import BUTTONHOLE, THICKNESS, beside
from izett.pattern.sewn import span_length
from izett.pattern.working import Readable
from izett.styling.operation import Context, Group, Keeps, Offer, Operation, Outcome, Section, Sum, count, length
from izett.styling.references import Params, SpanRef
from izett.styling.subject import Kind, Subject
from izett.styling.words import line_words
from izett.wording import cm


class Way(StrEnum):
    """How the buttonholes lie."""

    ACROSS = "across"
    ALONG = "along"


class ButtonPlaces(Params):
    """How many, where, and how large."""

    line: SpanRef = Field(description="the edge that closes")
    number: int = count(6, low=1, high=40, meaning="number of buttons")
    first: float = length(1.5, low=0.5, high=100, meaning="the first, from the start of the line")
    last: float = length(8.0, low=0.5, high=150, meaning="the last, from its end")
    inwards: float = length(1.8, low=0.3, high=15, meaning="from the edge to the middle of the buttons")
    button: float = length(1.8, low=0.5, high=6, meaning="diameter of a button")
    way: Way = Field(Way.ACROSS, description="how the buttonholes lie: across the edge or along it")


def apply(params: ButtonPlaces, context: Context) -> Outcome:
    """Mark each buttonhole on the piece."""
    chain = context.chain(params.line.span)
    piece = context.piece_with(chain[0].start)
    whole = span_length(piece, chain[0])
    between = whole - params.first - params.last
    if len(chain) != 1 or between < 0 or (between == 0 and params.number > 1):
        raise StepRefused(
            f"{line_words(params.line.along, begins=True)} is {cm(whole)} long: no buttons fit between "
            f"{cm(params.first, 2)} from its start and {cm(params.last, 2)} from its end.",
            fix="Set the first and the last nearer to the ends.",
            where=(params.line.along,),
        )
    step = between / (params.number - 1) if params.number > 1 else 0.0
    if params.number > 1 and step < params.button:
        raise StepRefused(
            f"{params.number} buttons of {cm(params.button, 2)} would lie over each other, {cm(step, 2)} apart.",
            fix="Use fewer, or smaller ones.",
            where=(params.line.along,),
        )
    lines = list(piece.lines)
    long = params.button + THICKNESS
    for number in range(params.number):
        middle, way, inside = beside(piece, chain[0], params.first + number * step, params.inwards)
        if params.way is Way.ACROSS:
            begins = add(middle, scale(inside, -THICKNESS))
            ends = add(begins, scale(inside, long))
        else:
            begins, ends = add(middle, scale(way, -long / 2)), add(middle, scale(way, long / 2))
        lines.append(LevelLine(BUTTONHOLE, (begins, ends)))
    told = (Sum("buttons", float(params.number), ""), Sum("from one to the next", step), Sum("buttonhole", long))
    return Outcome(context.garment.with_pieces(replace(piece, lines=tuple(lines))), told)


def describe(params: ButtonPlaces) -> str:
    """Return the step in the maker's words."""
    return f"Buttons along {line_words(params.line.along)}: {params.number}, {cm(params.button, 2)} wide"


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer button places along a centre line that is no fold, and along a band."""
    piece = subject.piece
    if subject.kind is not Kind.LINE or piece is None or subject.span is None or piece.on_fold == subject.name:
        return
    if subject.role in (Role.CENTRE_FRONT, Role.CENTRE_BACK):
        yield Offer("Mark button places", {"line": subject.line()})
    elif subject.role is Role.PANEL and not piece.region:
        yield Offer("Mark button places along it", {"line": subject.line(), "way": "along", "inwards": 1.5})


OPERATION = Operation(
    key="button_places",
    title="Mark button places",
    params=ButtonPlaces,
    apply=apply,
    describe=describe,
    keeps=frozenset({Keeps.SEAMS, Keeps.PAPER}),
    group=Group.HEM,
    offers=offers,
    sections=(Section.FOLLOW,),
    before=(
        (
            "open_up",
            {
                "closure": "buttons",
                "at": {"start": "front.neck_cf", "end": "front.waist_cf", "along": "front.centre"},
                "long": 0.0,
                "stand": 1.8,
            },
        ),
    ),
    examples=(
        {"line": {"start": "s0.stand_start", "end": "s0.stand_end", "along": "front.centre"}, "number": 5, "last": 4.0},
    ),
)
