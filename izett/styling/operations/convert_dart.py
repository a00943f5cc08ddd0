"""Convert a dart: what it took in is gathered, tucked, eased, hung loose or kept as room in the armhole.

The mouth becomes part of the line that it opened on, drawn as one; the seam's ease, or the ease meant at that level,
grows by the mouth. Common practice, no single source.
"""

from collections.abc import Iterator
from dataclasses import replace
from enum import StrEnum

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.curve import straight
from izett.geometry.point import add, between, scale, subtract, unit
from izett.pattern.facts import Role
from izett.pattern.paper import without_dart
from izett.pattern.piece import Intake, LevelLine, Notch, NotchKind, Piece, mouth_width
from izett.pattern.sewn import place_on, span_length
from izett.pattern.working import Readable
from izett.styling.fullness import meant, ratio_of
from izett.styling.operation import Context, Group, Offer, Operation, Outcome, Sum, as_fullness
from izett.styling.references import DartRef, Params
from izett.styling.subject import Subject, run_of
from izett.styling.words import dart_words
from izett.wording import cm

#: cm. More than this does not go into a seam without a pucker.
MOST_EASE = 1.5
#: cm. A larger unsewn dart bags at the armhole.
MOST_IN_ARMHOLE = 3.0
#: The mark of a tuck, and how long (cm) its folds are marked.
TUCK, TUCK_LONG = "tuck", 4.0


class Into(StrEnum):
    """What becomes of a dart."""

    GATHERS = "gathers"
    TUCKS = "tucks"
    EASE = "ease"
    ARMHOLE_EASE = "armhole_ease"
    LOOSE = "loose"


WORDS = {
    Into.GATHERS: "gathers",
    Into.TUCKS: "soft tucks",
    Into.EASE: "ease in the seam",
    Into.ARMHOLE_EASE: "room left in the armhole",
    Into.LOOSE: "cloth that hangs loose",
}


class ConvertDart(Params):
    """Which dart, and into what."""

    dart: DartRef = Field(description="the dart's name")
    into: Into = Field(Into.GATHERS, description="what it becomes")


def apply(params: ConvertDart, context: Context) -> Outcome:
    """Take the dart's legs out and draw its line as one."""
    piece, (dart, *_) = context.darts(params.dart)
    width = mouth_width(piece, dart)
    edge = next(e for e in piece.edges if e.end == dart.mouth[0])
    _refuse(params.into, dart, width, edge.role)
    a, b = (piece.vertex(name) for name in dart.mouth)
    after, off = without_dart(piece, dart, straight(a, b), swing=True)
    if params.into is Into.TUCKS:
        after = _tucked(context, after, piece, dart, edge.lineage)
    pattern, sums = meant(context.garment, context.garment.with_pieces(after), lies=f"as {WORDS[params.into]}")
    span = run_of(pattern, after, edge.lineage)
    longer = span_length(after, span) if span else 0.0
    told = [Sum("mouth of the dart", width)]
    if longer > width and not sums:
        told += [Sum("edge as cut", longer), ratio_of(longer, longer - width)]
    return Outcome(pattern, (*told, *sums, Sum("line drawn anew within", off)))


def _refuse(into: Into, dart: Intake, width: float, role: Role) -> None:
    if into is Into.EASE and width > MOST_EASE:
        raise StepRefused(
            f"{dart_words(dart.name, begins=True)} of {cm(width)} is more than the {cm(MOST_EASE, 2)} that ease in.",
            fix="Gather it, or move a share of it elsewhere first.",
            where=(dart.name,),
        )
    if into is Into.ARMHOLE_EASE and role is not Role.ARMHOLE:
        raise StepRefused(
            f"{dart_words(dart.name, begins=True)} does not open in the armhole.",
            fix="Move it, or a share of it, to the armhole first.",
            where=(dart.name,),
        )
    if into is Into.ARMHOLE_EASE and width > MOST_IN_ARMHOLE:
        raise StepRefused(
            f"{cm(width)} left open in the armhole would bag: at most {cm(MOST_IN_ARMHOLE, 2)}.",
            fix="Move a smaller share of the dart there.",
            where=(dart.name,),
        )


def _tucked(context: Context, after: Piece, before: Piece, dart: Intake, lineage: str) -> Piece:
    """Return the piece with the tuck marked: a notch at each end of the old mouth, and its two folds into the paper."""
    span = run_of(context.garment, before, lineage)
    if span is None or not after.holds(span.start) or not after.holds(span.end):
        return after
    first = 0.0
    for edge in before.edges:
        if edge.lineage == lineage:
            first += edge.curve.length
        if edge.end == dart.mouth[0]:
            break
    mouth = between(before.vertex(dart.mouth[0]), before.vertex(dart.mouth[1]), 0.5)
    fold = scale(unit(subtract(dart.pivot, mouth)), TUCK_LONG)
    notches, folds = [], []
    for along in (first, first + mouth_width(before, dart)):
        stretch, here = place_on(after, span, along)
        spot = stretch.open_curve.at_distance(here)
        notches.append(Notch(span, along, NotchKind.SINGLE))
        folds.append(LevelLine(TUCK, (spot, add(spot, fold))))
    return replace(after, notches=(*after.notches, *notches), lines=(*after.lines, *folds))


def describe(params: ConvertDart) -> str:
    """Return the step in the maker's words."""
    return f"Turn {dart_words(params.dart)} into {WORDS[params.into]}"


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer every conversion that the dart's place allows."""
    dart = subject.dart
    if dart is None or subject.piece is None:
        return
    edge = next(e for e in subject.piece.edges if e.end == dart.mouth[0])
    for into in Into:
        if (into is Into.ARMHOLE_EASE) == (edge.role is Role.ARMHOLE) or into in (Into.GATHERS, Into.TUCKS):
            yield Offer(f"Turn into {WORDS[into]}", {"dart": dart.name, "into": into.value})


OPERATION = Operation(
    key="convert_dart",
    title="Turn a dart into something else",
    params=ConvertDart,
    apply=apply,
    describe=describe,
    width=as_fullness,
    group=Group.DARTS,
    offers=offers,
    examples=(
        {"dart": "front.waist_dart", "into": "gathers"},
        {"dart": "back.waist_dart", "into": "tucks"},
        {"dart": "front.waist_dart", "into": "loose"},
    ),
)
