"""Share the intake of several darts of one kind: marked alike wide, or all in one.

By hand: darts about one point are shared by turning the strips between them, which keeps every length. Others are
measured at the mouth, added, and marked again on the same line, which keeps its length as sewn. Common practice, no
single source.
"""

from collections.abc import Iterator, Sequence
from dataclasses import replace
from enum import StrEnum
from itertools import pairwise

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.curve import straight
from izett.geometry.motion import Motion
from izett.geometry.point import add, between, distance, scale, subtract, unit
from izett.geometry.root import root
from izett.geometry.tolerance import SAME_POINT
from izett.pattern.facts import CENTRES, SeamKind
from izett.pattern.paper import with_leg_shapes, without_dart
from izett.pattern.piece import Intake, Piece, dart_angle, mouth_width
from izett.pattern.redraw import redrawn
from izett.pattern.working import Readable
from izett.styling.carrying import carried, region_of
from izett.styling.operation import SHAPES, Context, Group, Keeps, Offer, Operation, Outcome, Sum
from izett.styling.references import DartsRef, Params
from izett.styling.subject import Subject
from izett.styling.words import dart_words
from izett.wording import cm

#: Mouths come out wider or narrower by so much at most for the seam to keep its length.
LEAST_FACTOR, MOST_FACTOR = 0.7, 1.3


class Ways(StrEnum):
    """How the intake is shared."""

    EVEN = "even"
    ONE = "one"


class ShareIntake(Params):
    """Which darts, and how."""

    darts: DartsRef = Field(description="all darts of a kind on a piece: back.waist")
    ways: Ways = Field(Ways.EVEN, description="even: all alike wide; one: all in the first")


def apply(params: ShareIntake, context: Context) -> Outcome:
    """Mark the mouths anew, each about its own middle."""
    piece, darts = context.darts(params.darts)
    if len(darts) < 2:
        raise StepRefused(
            f"There is only one of {dart_words(params.darts)}.",
            fix="Split it, or choose a set of two or more darts.",
            where=(params.darts,),
        )
    whole = sum(mouth_width(piece, dart) for dart in darts)
    if all(distance(dart.pivot, darts[0].pivot) <= SAME_POINT for dart in darts):
        turned = _strips_turned(piece, darts, params.ways)
        by_each = max(mouth_width(turned, dart) for dart in turned.darts if dart.family == darts[0].family)
        return Outcome(context.garment.with_pieces(turned), (Sum("taken in by all", whole), Sum("by each", by_each)))
    widths = {dart.name: whole / len(darts) for dart in darts}
    if params.ways is Ways.ONE:
        widths = {darts[0].name: whole}
        for dart in darts[1:]:
            a, b = (piece.vertex(name) for name in dart.mouth)
            piece, _ = without_dart(piece, dart, straight(a, b))
    lineage = next(edge.lineage for edge in piece.edges if edge.end == darts[0].mouth[0])
    long = _sewn(context.piece_with(darts[0].mouth[0]), lineage)

    def marked(factor: float) -> Piece:
        found = piece
        for name, width in widths.items():
            found = _widened(found, found.dart(name), width * factor)
        return found

    # Marked on a curve, the line as sewn would come out a little longer or shorter: the mouths take that up.
    try:
        factor = root(lambda f: _sewn(marked(f), lineage) - long, LEAST_FACTOR, MOST_FACTOR, within=1e-7)
    except ValueError:
        raise StepRefused(
            f"{dart_words(params.darts, begins=True)} take in {cm(whole)}: marked so, the seam would not keep its length.",
            fix="Leave them apart, or turn one of them into something else first.",
            where=(params.darts,),
        ) from None
    piece, widths = marked(factor), {name: width * factor for name, width in widths.items()}
    return Outcome(
        context.garment.with_pieces(piece), (Sum("taken in by all", whole), Sum("by each", max(widths.values())))
    )


def _strips_turned(piece: Piece, darts: Sequence[Intake], ways: Ways) -> Piece:
    """Return the piece with the strips between darts about one point turned until each dart has its share."""
    ring = list(piece.edges)
    first = next((i for i, edge in enumerate(ring) if edge.role in CENTRES), 0)
    ring = [*ring[first:], *ring[:first]]
    order = sorted(darts, key=lambda dart: next(i for i, edge in enumerate(ring) if edge.end == dart.mouth[0]))
    angles = {dart.name: dart_angle(piece, dart) for dart in darts}
    whole = sum(angles.values())
    share = dict.fromkeys(angles, whole / len(darts)) if ways is Ways.EVEN else {darts[0].name: whole}
    so_far = 0.0
    lines = piece.lines
    for dart, following in pairwise(order):
        so_far += share.get(dart.name, 0.0) - angles[dart.name]
        motion = Motion.turning(so_far, about=dart.pivot)
        start = next(i for i, edge in enumerate(ring) if edge.start == dart.mouth[1])
        end = next(i for i, edge in enumerate(ring) if edge.end == following.mouth[0])
        lines = carried(lines, (), region_of(dart.pivot, ring[start : end + 1]), motion)
        ring[start : end + 1] = [replace(edge, curve=edge.curve.mapped(motion)) for edge in ring[start : end + 1]]
    begins = next(i for i, edge in enumerate(ring) if edge.start == piece.edges[0].start)
    turned = replace(piece, edges=(*ring[begins:], *ring[:begins]), lines=lines)
    for dart in darts:
        if dart.name not in share:
            turned, _ = without_dart(turned, dart, None)
    return with_leg_shapes(turned, [dart for dart in darts if dart.name in share])


def _sewn(piece: Piece, lineage: str) -> float:
    return sum(edge.curve.length for edge in piece.edges if edge.lineage == lineage)


def _widened(piece: Piece, dart: Intake, width: float) -> Piece:
    a, b = (piece.vertex(name) for name in dart.mouth)
    middle, half = between(a, b, 0.5), scale(unit(subtract(b, a)), width / 2)
    moves = {dart.mouth[0]: add(middle, scale(half, -1)), dart.mouth[1]: add(middle, half)}
    if distance(middle, dart.pivot) < width:
        raise StepRefused(
            f"{dart_words(dart.name, begins=True)} would be wider than it is long.",
            fix="Share the intake over more darts.",
            where=(dart.name,),
        )
    return redrawn(piece, moves=moves, darts=[replace(d) if d is dart else d for d in piece.darts])


def describe(params: ShareIntake) -> str:
    """Return the step in the maker's words."""
    how = "make all alike wide" if params.ways is Ways.EVEN else "merge into one"
    return f"{dart_words(params.darts, begins=True).removeprefix('The ').capitalize()}: {how}"


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer to even out or merge where a piece has several darts of the kind."""
    dart, piece = subject.dart, subject.piece
    if dart is None or piece is None or sum(d.family == dart.family for d in piece.darts) < 2:
        return
    family = f"{piece.part}.{dart.family}"
    yield Offer("Even out with the others", {"darts": family, "ways": "even"})
    yield Offer("Merge with the others", {"darts": family, "ways": "one"})


OPERATION = Operation(
    key="share_intake",
    title="Even out or merge darts",
    params=ShareIntake,
    apply=apply,
    describe=describe,
    sections=SHAPES,
    moves=(SeamKind.WAIST,),
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.DARTS,
    offers=offers,
    blocks=("skirt",),
    examples=({"darts": "skirt_back.waist", "ways": "one"},),
)
