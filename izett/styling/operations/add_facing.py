"""Add a facing: a copy of the piece along an edge, so wide everywhere, that lies behind it.

Its outer edge is the edge itself, its ends run along the neighbouring seams, its inner edge lies parallel. It follows the
edge when that changes. Common practice, no single source.
"""

from collections.abc import Iterator
from itertools import pairwise

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.curve import Curve
from izett.geometry.fit import smoothed, through
from izett.geometry.outline import parallel
from izett.geometry.point import distance, left_of, right_of
from izett.pattern.facts import Layer, Role
from izett.pattern.sewn import walk
from izett.pattern.working import Readable
from izett.styling.making import outlined, sewn_on
from izett.styling.operation import Context, Group, Keeps, Offer, Operation, Outcome, Section, Sum, length
from izett.styling.references import Params, SpanRef
from izett.styling.subject import Kind, Subject
from izett.styling.words import line_words
from izett.wording import cm

#: cm. Marks on the inner edge lie about so far apart.
MARKS_APART = 3.0


class AddFacing(Params):
    """Which edge is faced, and how wide."""

    edge: SpanRef = Field(description="the edge that is faced")
    width: float = length(5.0, low=2, high=15, meaning="width of the facing")


def apply(params: AddFacing, context: Context) -> Outcome:
    """Copy the paper along the edge."""
    chain = context.chain(params.edge.span)
    if len(chain) != 1:
        raise StepRefused(
            f"{line_words(params.edge.along, begins=True)} runs over several pieces.",
            fix="Face each of its parts.",
            where=(params.edge.along,),
        )
    piece = context.piece_with(chain[0].start)
    stretches = walk(piece, chain[0])
    ring = [s.edge for s in (stretches if stretches[0].forward else stretches[::-1])]
    if any(a.end != b.start for a, b in pairwise(ring)):
        raise StepRefused(
            f"A dart opens on {line_words(params.edge.along)}.", fix="Move the dart first.", where=(params.edge.along,)
        )
    outer = ring[0].curve if len(ring) == 1 else smoothed([e.curve for e in ring])[0]
    i, j = piece.edges.index(ring[0]), piece.edges.index(ring[-1])
    before, after = piece.edges[i - 1], piece.edges[(j + 1) % len(piece.edges)]
    for neighbour in (before, after):
        if neighbour.is_leg or neighbour.curve.length < params.width + 0.2:
            raise StepRefused(
                f"The facing is wider than {line_words(neighbour.lineage)} is long.",
                fix="Make it narrower.",
                where=(neighbour.lineage,),
            )
    first = before.curve.split(before.curve.length - params.width)[1]
    last = after.curve.split(params.width)[0]
    inner = _inner(outer, first, last, params.width)
    folded = 0 if before.lineage == piece.on_fold else 2 if after.lineage == piece.on_fold else None
    made = outlined(
        context,
        title=f"Facing, {context.called(params.edge.along)}",
        label="facing",
        cut=piece.cut if folded is not None or piece.on_fold is None else 2,
        edges=[
            (Role.FOLD if folded == 0 else before.role, "begin", first),
            (Role.PANEL, "edge", outer),
            (Role.FOLD if folded == 2 else after.role, "finish", last),
            (Role.HEM, "inner", inner),
        ],
        fold=folded,
        layer=Layer.FACING,
    )
    pattern = sewn_on(context, context.garment, made, chain, context.named("edge"), "facing", lies="")
    return Outcome(pattern, (Sum("edge", outer.length), Sum("inner edge", inner.length)), (made.name,))


def _inner(outer: Curve, first: Curve, last: Curve, width: float) -> Curve:
    """Return the inner edge, from where the last end lies back to the first, square to both ends."""
    start, end = first.start, last.end
    marks = [end]
    for point in reversed(parallel(outer.flattened(), -width)):
        if distance(point, marks[-1]) > MARKS_APART and distance(point, start) > MARKS_APART * 0.6:
            marks.append(point)
    marks.append(start)
    leaving, arriving = left_of(last.end_direction), right_of(first.start_direction)
    return through(marks, leaving=leaving, arriving=arriving)


def describe(params: AddFacing) -> str:
    """Return the step in the maker's words."""
    return f"Face {line_words(params.edge.along)}, {cm(params.width, 2)} wide"


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer a facing for an open edge."""
    roles = (Role.NECK, Role.ARMHOLE, Role.CENTRE_FRONT, Role.HEM, Role.WAIST)
    if subject.kind is not Kind.LINE or subject.role not in roles or subject.span is None or subject.piece is None:
        return
    if subject.name != subject.piece.on_fold:
        yield Offer("Add: facing", {"edge": subject.line(), "width": 5.0})


OPERATION = Operation(
    key="add_facing",
    title="Add a facing",
    params=AddFacing,
    apply=apply,
    describe=describe,
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.ADDED,
    offers=offers,
    sections=(Section.FOLLOW,),
    examples=(
        {"edge": {"start": "front.neck_shoulder", "end": "front.neck_cf", "along": "front.neck"}, "width": 5.0},
        {"edge": {"start": "back.neck_shoulder", "end": "back.neck_cb", "along": "back.neck"}, "width": 4.0},
    ),
)
