"""Shape a dart's legs: straight, or bowed into the dart (it takes in more on the way) or out of it.

A bubble at the tip goes when the legs run out slowly: bow them. Both legs are bowed alike, so that they stay equal.
Common practice, no single source.
"""

from collections.abc import Iterator, Sequence
from dataclasses import replace

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.point import between, dot, left_of, subtract, unit
from izett.pattern.paper import with_leg_shapes
from izett.pattern.piece import Intake, Piece, mouth_width
from izett.pattern.working import Readable
from izett.styling.operation import SHAPES, Context, Group, Keeps, Offer, Operation, Outcome, length
from izett.styling.references import DartRef, Params
from izett.styling.subject import Subject
from izett.styling.told import told_alike
from izett.styling.words import dart_words
from izett.wording import cm

#: Bowed further into the dart than this share of its mouth, the legs would meet before the tip.
INWARDS = 0.1


class ShapeDart(Params):
    """Which dart, and how its legs run."""

    dart: DartRef = Field(description="a dart's name, or all of a family: front.bust")
    bow: float = length(
        0.3, low=-1, high=1, meaning="bulge of each leg into the paper in its middle (−: into the dart)"
    )


def apply(params: ShapeDart, context: Context) -> Outcome:
    """Draw the legs of each dart meant anew."""
    piece, darts = context.darts(params.dart)
    for dart in darts:
        if -params.bow > mouth_width(piece, dart) * INWARDS:
            raise StepRefused(
                f"{dart_words(dart.name, begins=True)} is too narrow for legs bowed in by {cm(-params.bow, 2)}.",
                fix=f"Bow them by at most {cm(mouth_width(piece, dart) * INWARDS)}.",
                where=(dart.name,),
            )
    shaped = with_leg_shapes(piece, [replace(dart, bow=params.bow) for dart in darts])
    return Outcome(context.garment.with_pieces(shaped), (*told_alike("bulge of each leg", _bulges(shaped, darts)),))


def _bulges(piece: Piece, darts: Sequence[Intake]) -> dict[str, float]:
    """Return how far (cm) the legs of darts stand off their chords in the middle, by the name of the dart."""
    found: dict[str, float] = {}
    for dart in darts:
        leg = next(edge.curve for edge in piece.edges if edge.is_leg and edge.lineage == dart.name)
        off = subtract(leg.at_distance(leg.length / 2), between(leg.start, leg.end, 0.5))
        found[dart_words(dart.name)] = dot(off, left_of(unit(subtract(leg.end, leg.start))))
    return found


def describe(params: ShapeDart) -> str:
    """Return the step in the maker's words."""
    if params.bow == 0:
        return f"Draw the legs of {dart_words(params.dart)} straight"
    return f"Bow the legs of {dart_words(params.dart)} {'out' if params.bow > 0 else 'in'} by {cm(abs(params.bow), 2)}"


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer to bow a dart's legs."""
    if subject.dart is not None:
        yield Offer("Bow its legs", {"dart": subject.name, "bow": 0.3})


OPERATION = Operation(
    key="shape_dart",
    title="Shape a dart's legs",
    params=ShapeDart,
    apply=apply,
    describe=describe,
    sections=SHAPES,
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.DARTS,
    offers=offers,
    examples=({"dart": "front.waist_dart", "bow": 0.3}, {"dart": "back.waist_dart", "bow": -0.15}),
)
