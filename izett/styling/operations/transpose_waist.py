"""Transpose the waist seam: place it higher or lower on the same shape.

What the bodice loses, the piece sewn to it gains, and follows it in width. The shape stays, so the seam's length changes with the body's
width at its new level; to keep the width, lengthen or shorten instead. Common practice, no single source.
"""

from collections.abc import Iterator

from izett.errors import StepRefused
from izett.geometry.point import Point, Vector, add, between, dot, scale, subtract, unit
from izett.pattern.facts import Corner, Region, Role, SeamKind, Zone
from izett.pattern.naming import readable
from izett.pattern.piece import Edge, Piece
from izett.pattern.redraw import redrawn
from izett.pattern.sewn import holding, span_length
from izett.pattern.working import Readable
from izett.styling.blocks import line_of
from izett.styling.operation import SHAPES, Context, Group, Keeps, Offer, Operation, Outcome, Sum, length
from izett.styling.references import Params
from izett.styling.subject import Kind, Subject
from izett.styling.told import gone, size, told_alike
from izett.styling.words import signed
from izett.wording import cm

#: cm. Of a dart or a seam at the waist, this much must be left.
LEAST_LEFT = 1.5
#: A line that rises by less than this share of its length runs across, not up.
LEAST_RISE = 0.3


class TransposeWaist(Params):
    """How far the seam moves."""

    up: float = length(0.0, low=-6, high=6, meaning="up (−: down), front and back")


def apply(params: TransposeWaist, context: Context) -> Outcome:
    """Slide each corner of the waist along its own seam or dart leg."""
    pieces = []
    change = 0.0
    raised: dict[str, float] = {}
    for zone, centre in ((Zone.FRONT, Corner.WAIST_CF), (Zone.BACK, Corner.WAIST_CB)):
        waist = line_of(context.garment, zone, Role.WAIST, (centre, Corner.WAIST_SIDE))
        before = context.span_length(waist)
        piece = _transposed(context.piece_with(waist.start), params.up)
        change += span_length(piece, waist) - before
        raised[zone] = gone(context.piece_with(waist.start), piece, waist.start, (0.0, 1.0))
        pieces.append(piece)
    pattern = context.garment.with_pieces(*pieces)
    sewn = [_gaining(piece, params.up) for piece in _below(context)]
    gained = {now.title.lower(): size(now)[1] - size(context.piece(now.name))[1] for now in sewn}
    around = 2 * change
    return Outcome(
        pattern.with_pieces(*sewn).with_ease({"waist": around}),
        (
            *told_alike("waist seam up", raised),
            Sum("waist seam longer, around", around, both=True),
            *told_alike("what is sewn there, longer", gained),
        ),
    )


def _below(context: Context) -> list[Piece]:
    """Return the pieces on the other side of the waist seam, each once."""
    spans = [span for seam in context.garment.seams_of(SeamKind.WAIST) for side in seam.sides for span in side]
    pieces = {(piece := holding(context.garment, span.start)).name: piece for span in spans}
    return [piece for piece in pieces.values() if piece.region is not Region.UPPER]


def _gaining(piece: Piece, up: float) -> Piece:
    """Return a piece below the waist that gains what the bodice lost: each corner runs on along the line that ends there."""
    moves: dict[str, Point] = {}
    for before, edge, after in _waist_edges(piece):
        if before.role is not Role.WAIST:
            moves[edge.start] = _run_on(piece, edge.start, before.curve.end_direction, before.curve.length, up)
        if after.role is not Role.WAIST:
            back = scale(after.curve.start_direction, -1.0)
            moves[edge.end] = _run_on(piece, edge.end, back, after.curve.length, up)
    return redrawn(piece, moves=moves)


def _waist_edges(piece: Piece) -> Iterator[tuple[Edge, Edge, Edge]]:
    """Yield each edge of a waist between its neighbours in ring order."""
    edges = piece.edges
    for i, edge in enumerate(edges):
        if edge.role is Role.WAIST:
            yield edges[i - 1], edge, edges[(i + 1) % len(edges)]


def _run_on(piece: Piece, corner: str, onwards: Vector, long: float, up: float) -> Point:
    step = up / onwards[1] if abs(onwards[1]) > LEAST_RISE else up
    if long + step < LEAST_LEFT:
        raise StepRefused(
            f"{piece.title}: lowering the waist by {cm(-up, 2)} leaves less than {cm(LEAST_LEFT, 2)} of a seam below it.",
            fix="Lower it less.",
            where=(piece.name,),
        )
    return add(piece.vertex(corner), scale(onwards, step))


def _transposed(piece: Piece, up: float) -> Piece:
    moves: dict[str, Point] = {}
    for before, edge, after in _waist_edges(piece):
        if before.role is Role.WAIST:
            # On an unfolded piece the centre is a corner of the waist alone.
            moves[edge.start] = add(piece.vertex(edge.start), (0.0, up))
        else:
            moves[edge.start] = _slid(piece, before, edge.start, up, into=before.curve.end_direction)
        if after.role is not Role.WAIST:
            moves[edge.end] = _slid(piece, after, edge.end, up, into=after.curve.start_direction)
    return redrawn(piece, moves=moves)


def _slid(piece: Piece, along: Edge, corner: str, up: float, *, into: Vector) -> Point:
    """Return a waist corner slid along a seam or leg so that it rises by `up` along the seam's or dart's axis."""
    upwards = into if into[1] > 0 else (-into[0], -into[1])
    axis = (0.0, 1.0)
    for dart in piece.darts:
        if corner in dart.mouth:
            a, b = (piece.vertex(name) for name in dart.mouth)
            axis = unit(subtract(dart.pivot, between(a, b, 0.5)))
            upwards = into if dot(into, axis) > 0 else (-into[0], -into[1])
    step = up / dot(upwards, axis)
    if along.curve.length - step < LEAST_LEFT:
        raise StepRefused(
            f"{piece.title}: raising the waist by {cm(up, 2)} leaves less than {cm(LEAST_LEFT, 2)} of {readable(along.lineage)}.",
            fix="Raise it less, or move the dart that is in the way first.",
            where=(along.lineage,),
        )
    return add(piece.vertex(corner), scale(upwards, step))


def describe(params: TransposeWaist) -> str:
    """Return the step in the maker's words."""
    return f"Waist seam: {signed(params.up, 'raise', 'lower')} on the same shape"


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer to transpose the waist seam pointed at."""
    if subject.kind is Kind.LINE and subject.role is Role.WAIST:
        yield Offer("Raise or lower the waist seam on the same shape", {"up": 1.0})


OPERATION = Operation(
    key="transpose_waist",
    title="Transpose the waist seam",
    params=TransposeWaist,
    apply=apply,
    describe=describe,
    sections=SHAPES,
    moves=(SeamKind.WAIST,),
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.SIZE,
    offers=offers,
    examples=({"up": 1.5}, {"up": -1.0}),
)
