"""Move a dart, or a share of it, to another place on the outline.

By hand: slash from the new place to the bust point, close the old dart, the slash opens by the same angle. In
geometry: the part of the piece between the two places that does not hold the centre turns about the dart's pivot.
The angle is kept, so the mouth grows with the distance from the pivot. Common practice, no single source.
"""

from collections.abc import Iterator
from dataclasses import replace

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.curve import Curve
from izett.geometry.motion import Motion
from izett.geometry.point import Point, between
from izett.pattern.facts import CENTRES, SeamKind
from izett.pattern.paper import trued_across
from izett.pattern.piece import Edge, Intake, Piece, dart_angle, legs, mouth_width
from izett.pattern.sewn import place_on
from izett.pattern.working import Readable
from izett.styling.carrying import carried, region_of
from izett.styling.operation import SHAPES, Context, Group, Keeps, Offer, Operation, Outcome, Sum, share
from izett.styling.references import DartRef, Params, PointRef
from izett.styling.subject import Subject, others_by_nearness, run_of
from izett.styling.words import dart_words, line_words
from izett.wording import cm

#: cm. A dart's mouth stays this far from a corner: closer, the corner could not be sewn.
NEAREST_CORNER = 0.5
#: cm. The tip of a new dart stays this far from the pivot that it shares with the old one: two tips in one point poke.
SHARED_SET_BACK = 1.0

#: rad. A line that breaks by more at a closed dart has a corner that is no slip of the pencil; it is left to be seen.
MOST_TRUED = 0.25


class MoveDart(Params):
    """Which dart, how much of it, and where to."""

    dart: DartRef = Field(description="the dart")
    to: PointRef = Field(description="where it shall open")
    share: float = share(1.0, low=0.05, high=1, meaning="how much of the dart's angle is moved; 1 moves all of it")


def apply(params: MoveDart, context: Context) -> Outcome:
    """Turn the part between the old and the new place about the pivot."""
    piece, (dart, *_) = context.darts(params.dart)
    target = context.piece_with(params.to.start)
    if target is not piece:
        raise StepRefused(
            f"{dart_words(dart.name, begins=True)} lies on {piece.title.lower()}, {line_words(params.to.along)} does not.",
            fix="Choose a line of the same piece.",
            where=(params.dart, params.to.along),
        )
    if params.share == 1:
        # What closes is trued: the line that the dart interrupted runs on without a corner.
        trued, broken = trued_across(piece.edges, dart.mouth, dart_angle(piece, dart))
        piece = replace(piece, edges=tuple(trued)) if abs(broken) <= MOST_TRUED else piece
    before, edge, along, after = _ring_around(piece, dart, params.to, context)
    names = (f"{context.uid}.a", f"{context.uid}.b")
    first, second = edge.curve.split(along)
    near = [*before, replace(edge, curve=first, end=names[0])]
    far = [replace(edge, curve=second, start=names[1]), *after]
    angle = dart_angle(piece, dart) * params.share
    # The ring starts at the old dart's second leg: `near` follows it and turns back to close, or `far` turns on.
    near_moves = not any(e.role in CENTRES for e in near)
    motion = Motion.turning(-angle if near_moves else angle, about=dart.pivot)
    if near_moves:
        near = [_turned(e, motion) for e in near]
    else:
        far = [_turned(e, motion) for e in far]
    moved = _assembled(piece, dart, near, far, names, params.share, context.uid)
    slashes = (
        (dart.pivot, between(piece.vertex(dart.mouth[0]), piece.vertex(dart.mouth[1]), 0.5)),
        (dart.pivot, first.end),
    )
    still = region_of(dart.pivot, _still_part(before, edge, first, second, after, near_moves=near_moves))
    turned_names = {e.start for e in (near if near_moves else far)}
    moved = replace(
        moved,
        darts=tuple(
            replace(d, pivot=motion(d.pivot)) if d.mouth[0] in turned_names and d.name != dart.name else d
            for d in moved.darts
        ),
        lines=carried(piece.lines, slashes, still, motion),
    )
    new_name = dart.name if params.share == 1 else f"{context.uid}.{dart.family}_dart"
    made = moved.dart(new_name)
    sums = (
        Sum("mouth before", mouth_width(piece, dart)),
        Sum("mouth at the new place", mouth_width(moved, made)),
    )
    return Outcome(context.garment.with_pieces(moved), sums, made=(new_name, *names, made.tip))


def _ring_around(
    piece: Piece, dart: Intake, to: PointRef, context: Context
) -> tuple[list[Edge], Edge, float, list[Edge]]:
    """Return the ring from the dart's second leg round to its first, parted at the edge where the place lies."""
    stretch, along = place_on(piece, to.span, to.fraction * context.span_length(to.span))
    edge = stretch.edge
    along = along if stretch.forward else edge.curve.length - along
    if edge.role in CENTRES:
        raise StepRefused(
            f"{line_words(to.along, begins=True)} is the centre: a dart cannot open there while it is one line.",
            fix="Choose the neck, shoulder, armhole, side or waist.",
            where=(to.along,),
        )
    if min(along, edge.curve.length - along) < NEAREST_CORNER:
        raise StepRefused(
            f"The place on {line_words(to.along)} is closer than {cm(NEAREST_CORNER, 2)} to a corner or a dart.",
            fix="Choose a place further along.",
            where=(to.along,),
        )
    start = next(i for i, e in enumerate(piece.edges) if e.start == dart.mouth[1])
    ring = [*piece.edges[start:], *piece.edges[:start]]
    ring = [e for e in ring if not (e.is_leg and e.lineage == dart.name)]
    index = ring.index(edge)
    return ring[:index], edge, along, ring[index + 1 :]


def _turned(edge: Edge, motion: Motion) -> Edge:
    return replace(edge, curve=edge.curve.mapped(motion))


def _assembled(
    piece: Piece,
    dart: Intake,
    near: list[Edge],
    far: list[Edge],
    names: tuple[str, str],
    part: float,
    uid: str,
) -> Piece:
    """Return the piece with the ring put together: the new dart between near and far, the old one closed or less."""
    whole = part == 1
    new = replace(
        dart,
        mouth=names,
        tip=f"{uid}.tip",
        name=dart.name if whole else f"{uid}.{dart.family}_dart",
        set_back=dart.set_back if whole else max(dart.set_back, SHARED_SET_BACK),
    )
    old_a, old_b = dart.mouth
    new_legs = legs(new, near[-1].curve.end, far[0].curve.start)
    aliases = dict(piece.aliases)
    if whole:
        # The two mouth corners are one again; both names go on meaning it.
        near[0] = _starting_at(near[0], old_a, far[-1].curve.end)
        aliases[old_b] = old_a
        closing: tuple[Edge, ...] = ()
        darts = [new if d.name == dart.name else d for d in piece.darts]
    else:
        closing = legs(dart, far[-1].curve.end, near[0].curve.start)
        darts = [*piece.darts, new]
    ring = (*near, *new_legs, *far, *closing)
    first = next(i for i, e in enumerate(ring) if e.start == piece.edges[0].start)
    return replace(piece, edges=(*ring[first:], *ring[:first]), darts=tuple(darts), aliases=aliases)


def _starting_at(edge: Edge, name: str, place: Point) -> Edge:
    return replace(edge, start=name, curve=Curve((place, *edge.curve.points[1:])))


def _still_part(
    before: list[Edge], edge: Edge, first: Curve, second: Curve, after: list[Edge], *, near_moves: bool
) -> list[Edge]:
    """Return the part that will turn, as it lay before it turned."""
    if near_moves:
        return [*before, replace(edge, curve=first)]
    return [replace(edge, curve=second), *after]


def describe(params: MoveDart) -> str:
    """Return the step in the maker's words."""
    part = "" if params.share == 1 else f"{params.share * 100:.0f} % of "
    return f"Move {part}{dart_words(params.dart)} to {line_words(params.to.along)}"


def offers(subject: Subject, pattern: Readable) -> Iterator[Offer]:
    """Offer every line of the piece that the dart does not open on, whole and half."""
    dart, piece = subject.dart, subject.piece
    if dart is None or piece is None:
        return
    own = next(e.lineage for e in piece.edges if e.end == dart.mouth[0])
    centres = {e.lineage for e in piece.edges if e.role in CENTRES}
    for lineage in (line for line in others_by_nearness(piece, subject) if line not in centres):
        span = run_of(pattern, piece, lineage)
        if span is None or lineage == own:
            continue
        to = {"start": span.start, "end": span.end, "along": span.along, "fraction": 0.5}
        yield Offer(f"Move it to {line_words(lineage)}", {"dart": dart.name, "to": to})
        yield Offer(f"Move half of it to {line_words(lineage)}", {"dart": dart.name, "to": to, "share": 0.5})


OPERATION = Operation(
    key="move_dart",
    title="Move a dart",
    params=MoveDart,
    apply=apply,
    describe=describe,
    sections=SHAPES,
    moves=(
        SeamKind.CAP,
        SeamKind.WAIST,
    ),
    keeps=frozenset(Keeps),
    group=Group.DARTS,
    offers=offers,
    examples=(
        {
            "dart": "front.bust_dart",
            "to": {
                "start": "front.neck_shoulder",
                "end": "front.shoulder_tip",
                "along": "front.shoulder",
                "fraction": 0.5,
            },
        },
        {
            "dart": "front.bust_dart",
            "to": {
                "start": "front.underarm",
                "end": "front.shoulder_tip",
                "along": "front.armhole",
                "fraction": 0.4,
            },
            "share": 0.5,
        },
        {
            "dart": "back.waist_dart",
            "to": {
                "start": "back.neck_shoulder",
                "end": "back.shoulder_tip",
                "along": "back.shoulder",
                "fraction": 0.4,
            },
            "share": 0.3,
        },
    ),
)
