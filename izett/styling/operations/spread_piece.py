"""Slash and spread: fullness along an edge, hinged at the opposite one, parallel, or more here than there.

Flare, puff, full sleeves, soft backs are all this. Slashes are shared evenly over both edges. Where the spread stops at
a level line, the paper beyond it stays: the strips below turn about it, and what folds out there is told. What the edge
is sewn to is told with its ratio. Common practice, no single source.
"""

import itertools
from collections.abc import Callable, Iterator
from dataclasses import replace
from math import sin

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.blend import refitted
from izett.geometry.corners import over_corners
from izett.geometry.curve import Curve
from izett.geometry.fit import through
from izett.geometry.motion import Motion
from izett.geometry.outline import along_line, crossing_of
from izett.geometry.point import Point, Vector, add, between, distance, scale, subtract, turn, unit
from izett.geometry.root import root
from izett.geometry.tolerance import SAME_POINT
from izett.pattern.facts import Role, SeamKind, Zone
from izett.pattern.levels import AROUND
from izett.pattern.piece import Edge, LevelLine, Piece, Span
from izett.pattern.sewn import span_length, walk
from izett.pattern.working import Readable
from izett.styling.fullness import meant
from izett.styling.operation import SHAPES, Context, Group, Offer, Operation, Outcome, Sum, as_fullness, count, length
from izett.styling.references import Params, SpanRef
from izett.styling.spreading import Slash, spread
from izett.styling.subject import Kind, Subject, others_by_nearness, run_of
from izett.styling.words import line_words, signed
from izett.wording import cm

#: rad. Strips turned further would lie over each other.
MOST_TURN = 0.9
#: cm. Where the seam bends at the level that the spread stops at, it is blended so far up and down.
BLENDED = 8.0
#: cm. What is taken out in front of the elbow at first; the back has as much to ease.
SLIM = -1.0

#: The back of the arm is the first half of the way round.
HALF_WAY = 0.5
#: So that a share s of the way round is longer by s²(1 − s)³ times this, which is 1 where it is most, at two fifths.
BACK_PEAK = 3125 / 108


class SpreadPiece(Params):
    """Which edge gains how much, and where the slashes run to."""

    edge: SpanRef = Field(description="the edge that becomes fuller")
    opposite: SpanRef = Field(description="the edge that the slashes run to")
    amount: float = length(4.0, low=-20, high=80, meaning="added to the edge as drawn, over all lines")
    at_opposite: float = length(0.0, low=-20, high=80, meaning="added to the opposite edge (0: hinged there)")
    lines: int = count(3, low=1, high=12, meaning="how many lines the paper is slashed along")
    stop: str = Field("", max_length=40, description="a level that the spread stops at: elbow")
    back: float = length(
        0.0, low=-10, high=10, meaning="longer at the back half of the edge, where it stops at a level"
    )
    run_out: bool = Field(True, description="what is longer behind runs out to the front, without a crest")


def apply(params: SpreadPiece, context: Context) -> Outcome:
    """Open the slashes and draw both edges anew."""
    (span,), (far,) = _one(context, params.edge), _one(context, params.opposite)
    piece = context.piece_with(span.start)
    if not piece.holds(far.start):
        raise StepRefused(
            "The two edges lie on two pieces.", fix="Choose the opposite edge on the same piece.", where=(span.along,)
        )
    before = span_length(piece, span)
    if params.stop:
        new, folded = _stopped(piece, params)
        told = [Sum(f"folds out at the {params.stop}", folded)]
    else:
        opened = spread(piece, _slashes(piece, params))
        new, told = opened.piece, [Sum("drawn anew within", opened.off)]
    pattern, sums = meant(context.garment, context.garment.with_pieces(new), lies="as gathers or flare")
    after = span_length(new, span)
    return Outcome(
        pattern, (Sum("edge before", before), Sum("edge now", after), Sum("added", after - before), *sums, *told)
    )


def _one(context: Context, line: SpanRef) -> tuple[Span, ...]:
    chain = context.chain(line.span)
    if len(chain) != 1:
        raise StepRefused(
            f"{line_words(line.along, begins=True)} runs over several pieces.",
            fix="Choose the part of it on one piece.",
            where=(line.along,),
        )
    return chain


def _slashes(piece: Piece, params: SpreadPiece) -> list[Slash]:
    near, far = _in_ring(piece, params.edge), _in_ring(piece, params.opposite)
    n = params.lines
    found = []
    for i in range(n):
        share = (i + 1) / (n + 1)
        found.append(
            Slash(_at(near, share), _at(far, 1 - share), params.amount / n, params.at_opposite / n),
        )
    return found


def _in_ring(piece: Piece, line: SpanRef) -> list[Edge]:
    stretches = walk(piece, line.span)
    edges = [stretch.edge for stretch in stretches]
    return edges if stretches[0].forward else edges[::-1]


def _at(edges: list[Edge], share: float) -> tuple[Edge, float]:
    along = share * sum(edge.curve.length for edge in edges)
    for edge in edges:
        if along <= edge.curve.length:
            return edge, along
        along -= edge.curve.length
    return edges[-1], edges[-1].curve.length


def _stopped(piece: Piece, params: SpreadPiece) -> tuple[Piece, float]:
    """Return the piece with the paper between the edge and a level turned strip by strip about that level."""
    level = next((line for line in piece.lines if line.level == params.stop), None)
    edges = _in_ring(piece, params.edge)
    if level is None or len(edges) != 1:
        raise StepRefused(
            f"{piece.title} has no {params.stop} line that the spread could stop at.",
            fix=f"Available: {', '.join(line.level for line in piece.lines) or 'none'}.",
            where=(piece.name,),
        )
    edge = edges[0]
    n, whole = params.lines + 1, edge.curve.length
    index = piece.edges.index(edge)
    before, after = piece.edges[index - 1], piece.edges[(index + 1) % len(piece.edges)]
    ends = (_on(before, level.points), _on(after, level.points))
    hinges = [between(ends[0], ends[1], i / n) for i in range(n + 1)]
    spots = [edge.curve.at_distance(whole * i / n) for i in range(n + 1)]

    def turned(total: float) -> list[Point]:
        # The outermost strips turn by half of the whole, the middle not at all.
        return [
            Motion.turning(total * (0.5 - i / n) * -1.0, about=hinge)(spot)
            for i, (hinge, spot) in enumerate(zip(hinges, spots, strict=True))
        ]

    def gained(total: float) -> float:
        places = turned(total)
        return sum(distance(a, b) for a, b in itertools.pairwise(places)) - sum(
            distance(a, b) for a, b in itertools.pairwise(spots)
        )

    if gained(MOST_TURN) < params.amount or params.amount < 0:
        raise StepRefused(
            f"{cm(params.amount, 2)} cannot be spread from the {params.stop} down.",
            fix=f"Add at most {cm(gained(MOST_TURN), 0)}, or let the spread run through the whole piece.",
            where=(edge.lineage,),
        )
    total = root(lambda a: gained(a) - params.amount, 0.0, MOST_TURN) if params.amount else 0.0
    places = turned(total)
    if params.back:
        # Longer over the elbow: longest behind the middle, running out towards both ends without a crest.
        shares = [i / n for i in range(n + 1)]
        if params.run_out:
            weights = [BACK_PEAK * s**2 * (1 - s) ** 3 for s in shares]
        else:
            weights = [max(0.0, 1 - abs(4 * s - 1)) if s <= HALF_WAY else 0.0 for s in shares]
        places = [(x, y - params.back * w) for (x, y), w in zip(places, weights, strict=True)]
    seams = (_bent(before, ends[0], -total / 2, at_end=True), _bent(after, ends[1], total / 2, at_end=False))
    curve = through(
        places,
        leaving=_followed(before.curve.end_direction, seams[0].end_direction)(edge.curve.start_direction),
        arriving=_followed(after.curve.start_direction, seams[1].start_direction)(edge.curve.end_direction),
    )
    drawn = {id(before): seams[0], id(edge): curve, id(after): seams[1]}
    new = replace(piece, edges=tuple(replace(e, curve=drawn.get(id(e), e.curve)) for e in piece.edges))
    return _with_level_out(new, level, index), distance(*ends) / n / 2 * sin(total / 2)


def _bent(seam: Edge, hinge: Point, angle: float, *, at_end: bool) -> Curve:
    """Return the seam beside the edge: as it was up to the level, turned with the outermost strip beyond it."""
    curve = seam.curve if at_end else seam.curve.reversed()
    still, turning = curve.split(along_line(curve.flattened(), hinge))
    motion = Motion.turning(angle, about=hinge)
    if min(still.length, turning.length) <= SAME_POINT:
        moved = turning if turning.length > SAME_POINT else still
        new = refitted(moved, end=motion(moved.end), turn_end=motion.direction)
    else:
        new = over_corners([still, turning.mapped(motion)], [BLENDED])
    return new if at_end else new.reversed()


def _followed(old: Vector, new: Vector) -> Callable[[Vector], Vector]:
    """Return how a direction at a corner turns with the seam that ends there, so that it stays as square to it."""
    return Motion.turning(turn(old, new), about=(0.0, 0.0)).direction


def _with_level_out(piece: Piece, level: LevelLine, index: int) -> Piece:
    """Return the piece with a level line carried out to its outline on both sides of an edge."""
    a, b = level.points[0], level.points[-1]
    out = scale(unit(subtract(b, a)), distance(a, b))
    wide = (subtract(a, out), add(b, out))
    sides = (piece.edges[index - 1], piece.edges[(index + 1) % len(piece.edges)])
    met = [crossing_of(side.curve.flattened(), wide) for side in sides]
    if None in met:
        return piece
    ends = sorted((point for point in met if point is not None), key=lambda p: distance(p, a))
    return replace(
        piece, lines=tuple(replace(x, points=tuple(ends)) if x.level == level.level else x for x in piece.lines)
    )


def _on(edge: Edge, line: tuple[Point, ...]) -> Point:
    met = crossing_of(edge.curve.flattened(), line)
    return met if met is not None else min(line, key=lambda p: distance(p, edge.curve.start))


def describe(params: SpreadPiece) -> str:
    """Return the step in the maker's words."""
    how = "hinged at" if params.at_opposite == 0 else f"with {cm(params.at_opposite, 2)} at"
    if params.at_opposite == params.amount:
        how = "parallel, to"
    to = f"stopping at the {params.stop}" if params.stop else f"{how} {line_words(params.opposite.along)}"
    lines = "1 line" if params.lines == 1 else f"{params.lines} lines"
    return f"Spread {line_words(params.edge.along)}: {signed(params.amount, 'add', 'take')} over {lines}, {to}"


def offers(subject: Subject, pattern: Readable) -> Iterator[Offer]:
    """Offer to spread the line pointed at, with slashes to each line that does not touch it."""
    piece = subject.piece
    if subject.kind is not Kind.LINE or piece is None or subject.span is None or subject.name == piece.on_fold:
        return
    nearest = others_by_nearness(piece, subject) if piece.region else []
    for lineage in sorted(_opposites(piece, subject.name), key=nearest.index) if nearest else ():
        span = run_of(pattern, piece, lineage)
        if span is not None:
            opposite = SpanRef.of(span).model_dump()
            yield Offer(
                f"Add fullness here, hinged at {line_words(lineage)}", {"edge": subject.line(), "opposite": opposite}
            )
    if subject.role is Role.UNDERARM and piece.zone_of(subject.name) is Zone.FRONT:
        back = next((e.lineage for e in piece.edges if e.role is Role.UNDERARM and e.lineage != subject.name), None)
        span = run_of(pattern, piece, back) if back else None
        if span is not None:
            # A bent arm: the paper is folded out in front, the back is longer and eased over the elbow.
            yield Offer(
                "Slim: take out length at the front elbow",
                {"edge": subject.line(), "opposite": SpanRef.of(span).model_dump(), "amount": SLIM, "lines": 1},
            )
    if subject.role is Role.HEM:
        for level in dict.fromkeys(line.level for line in piece.lines if line.level in AROUND):
            opposites = _opposites(piece, subject.name)
            span = run_of(pattern, piece, opposites[0]) if opposites else None
            if span is not None:
                yield Offer(
                    f"Add fullness here, stopping at the {level}",
                    {"edge": subject.line(), "opposite": SpanRef.of(span).model_dump(), "stop": level},
                )


def _opposites(piece: Piece, lineage: str) -> list[str]:
    """Return the lines of a piece that share no corner with one of them, the fold and the centre left out."""
    corners = {name for e in piece.edges if e.lineage == lineage for name in (e.start, e.end)}
    touching = {e.lineage for e in piece.edges if {e.start, e.end} & corners}
    centres = (Role.CENTRE_FRONT, Role.CENTRE_BACK)
    return [
        name
        for name in dict.fromkeys(e.lineage for e in piece.edges if not e.is_leg and e.role not in centres)
        if name not in touching and name != piece.on_fold
    ]


def _line(start: str, end: str, along: str) -> dict[str, str]:
    return {"start": start, "end": end, "along": along}


OPERATION = Operation(
    key="spread_piece",
    version=2,
    # Before, it was longest in the middle of the back half and had a crest before the middle.
    upgrades={1: lambda params: {**params, "run_out": False}},
    title="Slash and spread",
    params=SpreadPiece,
    apply=apply,
    describe=describe,
    width=as_fullness,
    sections=SHAPES,
    moves=(
        SeamKind.CAP,
        SeamKind.WAIST,
    ),
    group=Group.FULLNESS,
    offers=offers,
    blocks=("bodice", "sleeve", "skirt"),
    examples=(
        {
            "edge": _line("skirt_front.hem_cf", "skirt_front.hem_side", "skirt_front.hem"),
            "opposite": _line("skirt_front.waist_side", "skirt_front.waist_cf", "skirt_front.waist"),
            "amount": 12.0,
            "lines": 2,
        },
        {
            "edge": _line("sleeve.wrist_back", "sleeve.wrist_front", "sleeve.hem"),
            "opposite": _line("sleeve.underarm_front", "sleeve.cap_top", "sleeve.front_cap"),
            "amount": 14.0,
            "lines": 5,
            "stop": "elbow",
            "back": 1.5,
        },
        {
            "edge": _line("back.waist_cb", "back.waist_side", "back.waist"),
            "opposite": _line("back.shoulder_tip", "back.neck_shoulder", "back.shoulder"),
            "amount": 4.0,
            "at_opposite": 1.0,
            "lines": 1,
        },
    ),
)
