"""Split a dart: an equal share of it is opened beside it on the same line, about the same point.

An intake over 3 to 3.5 cm pokes out in one place and is better split. Common practice, no single source.
"""

from collections.abc import Iterator

from pydantic import Field

from izett.errors import StepRefused
from izett.pattern.piece import Edge
from izett.pattern.sewn import span_length
from izett.pattern.working import Readable
from izett.styling.operation import SHAPES, Context, Group, Keeps, Offer, Operation, Outcome, count, length
from izett.styling.references import DartRef, Params
from izett.styling.subject import Subject, run_of
from izett.styling.words import dart_words
from izett.wording import cm


class SplitDart(Params):
    """Which dart, into how many, and how far apart."""

    dart: DartRef = Field(description="the dart's name")
    into: int = count(2, low=2, high=4, meaning="how many darts it becomes")
    apart: float = length(2.5, low=1, high=8, meaning="from one to the next along the line, as sewn")


def apply(params: SplitDart, context: Context) -> Outcome:
    """Move an equal share beside the dart, once for each further dart."""
    pattern = context.garment
    made: list[str] = []
    outcome = Outcome(pattern)
    for number in range(1, params.into):
        piece, (dart, *_) = context.on(pattern).darts(params.dart)
        edge = next(e for e in piece.edges if e.end == dart.mouth[0])
        span = run_of(pattern, piece, edge.lineage)
        if span is None:
            raise StepRefused("The dart's line goes all around.", fix="Choose another dart.", where=(dart.name,))
        whole = span_length(piece, span)
        at = (_before(piece.edges, edge.lineage, dart.mouth[0]) + number * params.apart) / whole
        place = {"start": span.start, "end": span.end, "along": span.along, "fraction": min(max(at, 0.0), 1.0)}
        # Of what is left in the dart, so that all come out alike.
        share = 1 / (params.into - number + 1)
        moved = {"dart": dart.name, "to": place, "share": share}
        outcome = context.work("move_dart", moved, on=pattern, label=str(number))
        pattern = outcome.garment
        made += outcome.made
    return Outcome(pattern, outcome.sums, tuple(made))


def _before(edges: tuple[Edge, ...], lineage: str, mouth: str) -> float:
    gone = 0.0
    for edge in edges:
        if edge.lineage == lineage:
            gone += edge.curve.length
        if edge.end == mouth:
            break
    return gone


def describe(params: SplitDart) -> str:
    """Return the step in the maker's words."""
    return f"Split {dart_words(params.dart)} into {params.into}, {cm(params.apart, 2)} apart"


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer to split a dart in two."""
    if subject.dart is not None:
        yield Offer("Split in two", {"dart": subject.name})


OPERATION = Operation(
    key="split_dart",
    title="Split a dart",
    params=SplitDart,
    apply=apply,
    describe=describe,
    sections=SHAPES,
    keeps=frozenset(Keeps),
    group=Group.DARTS,
    offers=offers,
    examples=({"dart": "back.waist_dart"}, {"dart": "front.waist_dart", "apart": 2.0}),
)
