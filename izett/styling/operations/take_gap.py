"""Take out a gap: a wedge at the neckline, the armhole or an upper edge is closed and its intake goes into a dart.

A low or wide neckline stands away from the body. By hand: pinch the gap, slash to the bust point, close it; the dart
opens by the same angle. The deeper the neckline, the more is taken. Common practice, no single source.
"""

from collections.abc import Iterator
from dataclasses import replace
from math import asin

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.curve import straight
from izett.geometry.fit import smoothed
from izett.geometry.motion import Motion
from izett.geometry.point import between, distance
from izett.pattern.facts import CENTRES, Role, SeamKind
from izett.pattern.piece import Edge, Intake, Piece, legs, mouth_width
from izett.pattern.working import Readable
from izett.styling.carrying import carried, region_of
from izett.styling.fullness import meant
from izett.styling.operation import SHAPES, Context, Group, Keeps, Offer, Operation, Outcome, Sum, as_ease, length
from izett.styling.references import DartRef, Params, PointRef
from izett.styling.subject import Kind, Subject
from izett.styling.words import dart_words, line_words
from izett.wording import cm

#: A gap lies at least so many times its width from the dart's point: nearer, closing it would throw the paper about.
LEAST_REACH = 4.0
#: The wedge is closed again so often at most, until the line has lost what was asked within so much, cm.
ROUNDS, NEAR = 4, 0.01
#: It is closed by so many times of what was asked, at least and at most.
LEAST_SHARE, MOST_SHARE = 0.5, 2.0


class TakeGap(Params):
    """Where the gap is, how much, and the dart that takes it up."""

    at: PointRef = Field(description="the place on the neckline, armhole or upper edge")
    intake: float = length(1.0, low=0.1, high=4, meaning="taken out there")
    dart: DartRef = Field(description="the dart that grows by it")
    exact: bool = Field(True, description="drawn smooth again, the line has lost what was asked")


def apply(params: TakeGap, context: Context) -> Outcome:
    """Close the wedge about the dart's pivot; drawing the line smooth gives some of it back, so that much more is closed."""
    wanted, outcome = params.intake, _closed(params, context)
    for _ in range(ROUNDS if params.exact else 0):
        taken = outcome.sums[0].value
        if abs(taken - wanted) <= NEAR or taken <= 0:
            break
        intake = params.intake + wanted - taken
        if not LEAST_SHARE * wanted <= intake <= MOST_SHARE * wanted:
            break
        params = params.model_copy(update={"intake": intake})
        outcome = _closed(params, context)
    return outcome


def _closed(params: TakeGap, context: Context) -> Outcome:
    piece, (dart, *_) = context.darts(params.dart)
    other, edge, along = context.place(params.at)
    if other is not piece:
        raise StepRefused(
            f"{dart_words(dart.name, begins=True)} does not lie on {other.title.lower()}.",
            fix="Choose a dart of the same piece.",
            where=(params.dart,),
        )
    half = params.intake / 2
    if min(along, edge.curve.length - along) < half + 0.3:
        raise StepRefused(
            f"The gap lies too near to a corner of {line_words(edge.lineage)}.",
            fix="Choose a place further along.",
            where=(edge.lineage,),
        )
    first, rest = edge.curve.split(along - half)
    second = rest.split(params.intake)[1]
    reach = distance(dart.pivot, edge.curve.at_distance(along))
    if reach < LEAST_REACH * params.intake:
        raise StepRefused(
            f"{dart_words(dart.name, begins=True)} ends too near to the gap.",
            fix="Choose another dart.",
            where=(dart.name,),
        )
    angle = 2 * asin(half / reach)
    ring = list(piece.edges)
    start = next(i for i, e in enumerate(ring) if e.start == dart.mouth[1])
    ring = [e for e in [*ring[start:], *ring[:start]] if not (e.is_leg and e.lineage == dart.name)]
    index = ring.index(edge)
    near, far = ring[:index], ring[index + 1 :]
    near_turns = not any(e.role in CENTRES for e in near)
    # Counter-clockwise after the dart's second leg comes `near`: turning it on closes the gap and opens the dart.
    motion = Motion.turning(angle if near_turns else -angle, about=dart.pivot)
    still = region_of(
        dart.pivot,
        [*near, replace(edge, curve=first)] if near_turns else [replace(edge, curve=second), *far],
    )
    slashes = (
        (dart.pivot, between(piece.vertex(dart.mouth[0]), piece.vertex(dart.mouth[1]), 0.5)),
        (dart.pivot, edge.curve.at_distance(along)),
    )
    if near_turns:
        near, first = [replace(e, curve=e.curve.mapped(motion)) for e in near], first.mapped(motion)
    else:
        far, second = [replace(e, curve=e.curve.mapped(motion)) for e in far], second.mapped(motion)
    line, off = smoothed([first, straight(first.end, second.start), second])
    closed = replace(edge, curve=line)
    whole = _ring([*near, closed, *far], piece, dart)
    turned = {e.start for e in (near if near_turns else far)}
    after = replace(
        piece,
        edges=whole,
        darts=tuple(
            replace(d, pivot=motion(d.pivot)) if d.name != dart.name and d.mouth[0] in turned else d
            for d in piece.darts
        ),
        lines=carried(piece.lines, slashes, still, motion),
    )
    pattern, sums = meant(context.garment, context.garment.with_pieces(after), lies="")
    told = (
        Sum("taken out", edge.curve.length - line.length),
        Sum("dart before", mouth_width(piece, dart)),
        Sum("dart now", mouth_width(after, after.dart(dart.name))),
        Sum("line drawn anew within", off),
    )
    return Outcome(pattern, (*told, *sums))


def _ring(edges: list[Edge], piece: Piece, dart: Intake) -> tuple[Edge, ...]:
    new_legs = legs(dart, edges[-1].curve.end, edges[0].curve.start)
    ring = [*edges, *new_legs]
    first = next(i for i, e in enumerate(ring) if e.start == piece.edges[0].start)
    return (*ring[first:], *ring[:first])


def describe(params: TakeGap) -> str:
    """Return the step in the maker's words."""
    return f"Take a gap of {cm(params.intake, 2)} out of {line_words(params.at.along)}, into {dart_words(params.dart)}"


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer to close a gap at the place pointed at into each dart of the piece."""
    roles = (Role.NECK, Role.ARMHOLE, Role.PANEL)
    if subject.kind is Kind.LINE and subject.role in roles and subject.piece is not None and subject.span:
        for dart in subject.piece.darts:
            yield Offer(
                f"Take a gap out here, into {dart_words(dart.name)}",
                {"at": subject.place(), "dart": dart.name, "intake": 1.0},
            )


OPERATION = Operation(
    key="take_gap",
    title="Take out a gap",
    params=TakeGap,
    apply=apply,
    describe=describe,
    width=as_ease,
    sections=SHAPES,
    moves=(SeamKind.CAP,),
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.NECK,
    offers=offers,
    version=2,
    upgrades={1: lambda params: {"exact": False, **params}},
    examples=(
        {
            "at": {"start": "front.neck_shoulder", "end": "front.neck_cf", "along": "front.neck", "fraction": 0.5},
            "intake": 0.8,
            "dart": "front.bust_dart",
        },
        {
            "at": {"start": "front.underarm", "end": "front.shoulder_tip", "along": "front.armhole", "fraction": 0.4},
            "intake": 0.6,
            "dart": "front.bust_dart",
        },
    ),
)
