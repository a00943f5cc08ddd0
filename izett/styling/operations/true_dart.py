"""True a dart: fold it shut, run the seam line across the mouth without a corner, unfold.

The line on both sides is turned by half of what it broke; the peak of the dart's cap follows. Common practice, no
single source.
"""

from collections.abc import Iterator
from dataclasses import replace
from math import degrees

from pydantic import Field

from izett.errors import StepRefused
from izett.pattern.paper import trued_across
from izett.pattern.piece import dart_angle
from izett.pattern.working import Readable
from izett.styling.operation import SHAPES, Context, Group, Keeps, Offer, Operation, Outcome, Sum
from izett.styling.references import DartRef, Params
from izett.styling.subject import Subject
from izett.styling.words import dart_words

#: rad. A line that breaks by less when the dart is shut runs on.
RUNS_ON = 1e-4


class TrueDart(Params):
    """Which dart."""

    dart: DartRef = Field(description="the dart's name")


def apply(params: TrueDart, context: Context) -> Outcome:
    """Turn the line on both sides of the mouth until it runs on."""
    piece, (dart, *_) = context.darts(params.dart)
    edges, broken = trued_across(piece.edges, dart.mouth, dart_angle(piece, dart))
    if tuple(edges) == piece.edges and abs(broken) > RUNS_ON:
        raise StepRefused(
            f"{dart_words(dart.name, begins=True)} opens on a straight line, which cannot be run across.",
            fix="On a straight seam the dart gets its peak by itself; there is nothing to true.",
            where=(dart.name,),
        )
    trued = replace(piece, edges=tuple(edges))
    return Outcome(context.garment.with_pieces(trued), (Sum("the line broke by", degrees(broken), "°"),))


def describe(params: TrueDart) -> str:
    """Return the step in the maker's words."""
    return f"True the line across {dart_words(params.dart)}"


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer to true a dart."""
    if subject.dart is not None:
        yield Offer("True the line across it", {"dart": subject.name})


OPERATION = Operation(
    key="true_dart",
    title="True a dart",
    params=TrueDart,
    apply=apply,
    describe=describe,
    sections=SHAPES,
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.DARTS,
    offers=offers,
    examples=({"dart": "front.waist_dart"}, {"dart": "back.waist_dart"}),
)
