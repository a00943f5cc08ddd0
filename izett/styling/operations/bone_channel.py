"""Mark a bone along a seam or an edge: its channel beside the line, and the bone in it, shorter than the channel.

A bone is 1.3 cm shorter than its channel, so that its tips do not wear through; a flat one lies in a straight channel, a
spiral one in a curved one. Common practice, no single source.
"""

from collections.abc import Iterator
from dataclasses import replace
from itertools import pairwise

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.outline import parallel, runs_within, stretch
from izett.geometry.point import Point, distance
from izett.pattern.facts import Role
from izett.pattern.piece import LevelLine
from izett.pattern.placed import BONE, is_straight
from izett.pattern.sewn import span_length, walk
from izett.pattern.working import Readable
from izett.styling.operation import Context, Group, Keeps, Offer, Operation, Outcome, Section, Sum, length
from izett.styling.references import Params, SpanRef
from izett.styling.subject import Kind, Subject
from izett.styling.words import line_words
from izett.wording import cm

#: cm. A shorter bone is none; parts of a line whose ends are so near to each other go on.
SHORTEST, JOINED = 2.0, 0.3
#: Lines that are boned.
BONED = (Role.SIDE, Role.PANEL, Role.CENTRE_FRONT, Role.CENTRE_BACK)


class BoneChannel(Params):
    """Along which line, how far beside it, and how much shorter the bone is."""

    line: SpanRef = Field(description="the seam or edge that is boned")
    inwards: float = length(0.6, low=0, high=10, meaning="from the line to the middle of the channel")
    short: float = length(1.3, low=0.5, high=4, meaning="the bone is shorter than its channel by")


def apply(params: BoneChannel, context: Context) -> Outcome:
    """Mark the bone on the piece."""
    chain = context.chain(params.line.span)
    piece = context.piece_with(chain[0].start)
    words = line_words(params.line.along, begins=True)
    if len(chain) != 1:
        raise StepRefused(
            f"{words} runs over several pieces.", fix="Bone the line of each of them.", where=(params.line.along,)
        )
    channel = span_length(piece, chain[0])
    bone = channel - params.short
    if bone < SHORTEST:
        raise StepRefused(
            f"{words} is {cm(channel)} long: no bone lies in it.", fix="Bone a longer line.", where=(params.line.along,)
        )
    run = walk(piece, chain[0])
    along: list[Point] = []
    for part in run:
        points = list(part.open_curve.flattened())
        along += points[1:] if along and distance(along[-1], points[0]) < JOINED else points
    # In ring order the piece lies to the left of its edge, and a parallel to the right of it is outside.
    middle = parallel(along, -params.inwards if run[0].forward else params.inwards)
    within = runs_within(piece.outline(), middle) if params.inwards else [middle]
    if not within:
        raise StepRefused(
            f"A channel {cm(params.inwards, 2)} beside it does not lie on the piece.",
            fix="Put it nearer to the line.",
            where=(params.line.along,),
        )
    drawn = max(within, key=len)
    long = sum(distance(a, b) for a, b in pairwise(drawn))
    mark = LevelLine(BONE, tuple(stretch(drawn, params.short / 2, long - params.short / 2)))
    kind = "flat bone" if is_straight(mark) else "spiral bone"
    lines = (*piece.lines, mark)
    told = (Sum("channel", channel), Sum(kind, bone))
    return Outcome(context.garment.with_pieces(replace(piece, lines=lines)), told)


def describe(params: BoneChannel) -> str:
    """Return the step in the maker's words."""
    return f"Bone along {line_words(params.line.along)}"


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer it along seams that run up and down."""
    piece = subject.piece
    if subject.kind is not Kind.LINE or piece is None or subject.span is None or piece.on_fold == subject.name:
        return
    if subject.role in BONED:
        yield Offer("Bone it", {"line": subject.line()})


OPERATION = Operation(
    key="bone_channel",
    title="Mark a bone",
    params=BoneChannel,
    apply=apply,
    describe=describe,
    keeps=frozenset({Keeps.SEAMS, Keeps.PAPER}),
    group=Group.HEM,
    offers=offers,
    sections=(Section.FOLLOW,),
    examples=({"line": {"start": "front.underarm", "end": "front.waist_side", "along": "front.side"}},),
)
