"""Contour a close bodice without straps: take in at the panel seam under the bust, at the waist and below, and above it.

How much is solved, not guessed: at each level the pattern's width less what is wanted there (the body with its ease),
shared over the edges of the panel seam; at no level more than the trade's start of 5 cm around (3.8 above the bust),
never past what is wanted, and never nearer to the bust point than 1.2 cm. The bust circle, of the bust's radius about
the bust point, is drawn as a guide. Common practice, no single source.
"""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import replace
from math import cos, pi, sin
from typing import NamedTuple

from pydantic import Field

from izett.errors import ReferenceLost, StepRefused
from izett.geometry.blend import refitted, with_handles
from izett.geometry.curve import Curve, joined
from izett.geometry.fit import through
from izett.geometry.outline import runs_within
from izett.geometry.point import Point, Vector, add, distance, left_of, scale, subtract
from izett.pattern.document import Seam
from izett.pattern.facts import Role, SeamKind, Zone
from izett.pattern.levels import settled_since
from izett.pattern.naming import readable
from izett.pattern.paper import shortened
from izett.pattern.piece import Edge, LevelLine, Piece
from izett.pattern.sewn import holding, walk
from izett.pattern.working import Readable, Working
from izett.pattern.worn import around, height_of, width
from izett.styling.operation import SHAPES, Context, Group, Offer, Operation, Outcome, Sum, as_ease, length
from izett.styling.parting import seam_named
from izett.styling.references import Params, SeamRef
from izett.styling.subject import Kind, Subject, seam_at
from izett.styling.words import line_words
from izett.wording import cm

#: cm. The intake stops so far from the bust point.
CLEAR_OF_APEX = 1.2
#: Edges of a panel seam all around: two seams (left and right) with two edges each.
EDGES = 4
#: cm. Marks on the seam lie about so far apart.
MARKS_APART = 0.8
#: cm. The line that the seam ends on above is drawn anew over so much.
BLENDED = 6.0
#: cm. So much of the line that the seam ends on is left.
LEAST_LEFT = 1.0
#: cm. A level so far beyond the end of the seam is taken in there: a waist line rises and falls by about as much.
BEYOND = 1.5
#: The guide: the level's name of the bust circle, and into how many chords it is drawn.
BUST_CIRCLE, CHORDS = "bust_circle", 48


class Contour(Params):
    """Which panel seam, and what ease is wanted at the levels."""

    seam: SeamRef = Field(description="the panel seam over the bust")
    underbust_ease: float = length(0.5, low=-4, high=4, meaning="ease wanted under the bust, all around")
    waist_ease: float = length(0.5, low=-12, high=4, meaning="ease wanted at the waist, all around")
    stomach_ease: float = length(1.5, low=-4, high=6, meaning="ease wanted at the stomach, all around")
    above: float = length(3.0, low=0, high=3.8, meaning="taken in above the bust at the upper edge, all around")
    most: float = length(5.0, low=0, high=5, meaning="most that is taken in at a level under the bust, all around")
    run_on: bool = Field(True, description="the lines across both ends of the seam run on over it again")


def apply(params: Contour, context: Context) -> Outcome:
    """Bend both edges of the seam inwards under and above the bust."""
    seam = seam_named(context, params.seam)
    pieces = [holding(context.garment, side[0].start) for side in seam.sides]
    if any(len(side) != 1 for side in seam.sides) or any(_edge(p, seam, i).is_leg for i, p in enumerate(pieces)):
        raise StepRefused("That seam runs over several pieces.", fix="Choose a panel seam.", where=(seam.name,))
    apex = next((piece.marks["apex"] for piece in pieces if "apex" in piece.marks), None)
    if apex is None:
        raise StepRefused(
            "That seam does not run over a bust point.", fix="Choose the seam over the bust.", where=(seam.name,)
        )
    lowest = min(min(p[1] for p in _edge(piece, seam, i).curve.flattened()) for i, piece in enumerate(pieces))
    intakes = [level for level in _levels(context, params) if level.height > lowest - BEYOND]
    pattern = context.garment
    for side, piece in enumerate(pieces):
        bent = _bent(piece, seam, side, apex, intakes, params.above / EDGES)
        pattern = pattern.with_pieces(_with_circle(bent, apex, context.body.get("bust_radius")))
    # The seam leans otherwise at its ends now: the lines across it run on again.
    for at_start in (True, False) if params.run_on else ():
        across = {"how": "across", "line": seam.name, "at_start": at_start}
        pattern = context.work("true_line", across, on=pattern, label="across").garment
    now = settled_since(context.garment, pattern)
    taken = [Sum(f"taken in {at.words}, around", at.has - _around(now, at), both=True) for at in intakes]
    return Outcome(
        pattern,
        (
            *taken,
            Sum("taken in above the bust, around", _above(pieces, now, seam), both=True),
            Sum("edges", float(EDGES), "", both=True),
            Sum("clear of the bust point by", CLEAR_OF_APEX),
        ),
    )


class Taken(NamedTuple):
    """A level that is taken in: its name, in words, its height over the waist, how wide it is around, and by how much less
    it is to be; all in cm."""

    level: str
    words: str
    height: float
    has: float
    by: float


def _around(garment: Working, at: Taken) -> float:
    return width(garment, at.level) or around(garment, at.height)


def _above(before: Sequence[Piece], after: Working, seam: Seam) -> float:
    """Return by how much (cm) both edges of the seam were taken in at their upper ends, on both halves of the body."""
    moved = 0.0
    for side, piece in enumerate(before):
        edge = _edge(piece, seam, side)
        corner = max((edge.start, edge.end), key=lambda name: piece.vertex(name)[1])
        moved += distance(piece.vertex(corner), after.piece(piece.name).vertex(corner))
    return 2 * moved


def _levels(context: Context, params: Contour) -> list[Taken]:
    """Return each level under the bust that is taken in."""
    wanted = (
        ("under the bust", "underbust", params.underbust_ease),
        ("at the waist", "waist", params.waist_ease),
        ("at the stomach", "stomach", params.stomach_ease),
    )
    found = []
    for words, level, ease in wanted:
        height = height_of(context.garment, context.body, level)
        try:
            body = context.measured(f"{level}_girth")
        except ReferenceLost:
            # The waist is known of every body; a level that is not is left as the draft has it.
            continue
        if height is None:
            continue
        has = width(context.garment, level) or around(context.garment, height)
        found.append(Taken(level, words, height, has, min(max(has - body - ease, 0.0), params.most)))
    return found


def _edge(piece: Piece, seam: Seam, side: int) -> Edge:
    return walk(piece, seam.sides[side][0])[0].edge


def _bent(piece: Piece, seam: Seam, side: int, apex: Point, intakes: Sequence[Taken], above: float) -> Piece:
    """Return a panel with its edge bent inwards: under the bust by each level's share, above it more and more."""
    edge = _edge(piece, seam, side)
    curve, whole = edge.curve, edge.curve.length
    falls = curve.start[1] > curve.end[1]
    upper, lower = (edge.start, edge.end) if falls else (edge.end, edge.start)
    at_foot = piece.vertex(lower)[1]
    taken = _sweep(apex[1] - CLEAR_OF_APEX, [(at.height, at.by / EDGES) for at in intakes])
    inwards = (1.0, 0.0) if left_of(_direction(curve, whole / 2))[0] > 0 else (-1.0, 0.0)
    # Square to the seam, so that neither panel's edge grows by it.
    up = scale(left_of(_direction(curve, 0.0 if falls else whole)), above)
    trimmed = _blended(piece, edge, upper, up)
    trimmed, down = _trimmed(trimmed, edge, lower, taken(at_foot))
    top = piece.vertex(upper)[1] - apex[1] - CLEAR_OF_APEX
    count = max(8, round(whole / MARKS_APART))
    marks = []
    for i in range(count + 1):
        along = whole * i / count
        spot = curve.at_distance(along)
        rising = max(spot[1] - apex[1] - CLEAR_OF_APEX, 0.0) / top
        move = scale(up, rising * rising) if rising > 0 else scale(inwards, taken(spot[1]))
        marks.append(add(spot, move))
    # The ends lie on the lines that the seam ends on.
    marks[0 if falls else -1] = add(piece.vertex(upper), up)
    marks[-1 if falls else 0] = add(piece.vertex(lower), down)
    new = through(marks, leaving=subtract(marks[1], marks[0]), arriving=subtract(marks[-1], marks[-2]))
    return replace(
        trimmed,
        edges=tuple(replace(e, curve=new) if (e.start, e.end) == (edge.start, edge.end) else e for e in trimmed.edges),
    )


def _sweep(begins: float, levels: Sequence[tuple[float, float]]) -> Callable[[float], float]:
    """Return what is taken in at a height: nothing at the bust, each level's share at it, smooth, without overshoot."""
    # scipy takes long to import: only a program that contours waits for it.
    from scipy.interpolate import PchipInterpolator  # noqa: PLC0415

    below = sorted((height, by) for height, by in levels if height < begins)
    if not below:
        return lambda _height: 0.0
    lowest, at_lowest = below[0]
    heights = [*(height for height, _ in below), begins, begins + 1.0]
    curve = PchipInterpolator(heights, [*(by for _, by in below), 0.0, 0.0])

    def taken(height: float) -> float:
        return 0.0 if height >= begins else at_lowest if height <= lowest else float(curve(height))

    return taken


def _trimmed(piece: Piece, edge: Edge, corner: str, by: float) -> tuple[Piece, Vector]:
    """Return the piece with the line that the seam ends on cut back there, and how its corner moved along that line."""
    if by <= 0.0:
        return piece, (0.0, 0.0)
    own = (edge.start, edge.end)
    other = next(e for e in piece.edges if (e.start, e.end) != own and corner in (e.start, e.end))
    if other.curve.length - by < LEAST_LEFT:
        raise StepRefused(
            f"{piece.title}: only {cm(other.curve.length)} of {line_words(other.lineage)} are there to take from.",
            fix="Take in less.",
            where=(other.lineage,),
        )
    trimmed = shortened(piece, corner, other.lineage, by)
    kept = next(
        e
        for e in trimmed.edges
        if e.lineage == other.lineage and corner in (e.start, e.end) and (e.start, e.end) != own
    )
    spot = kept.curve.start if kept.start == corner else kept.curve.end
    return trimmed, subtract(spot, piece.vertex(corner))


def _blended(piece: Piece, edge: Edge, corner: str, move: Vector) -> Piece:
    """Return the piece with the line that the seam ends on drawn to the moved corner, over the last stretch of it.

    Cut back along that line, an armhole that runs nearly along the seam would leave the two panels unequal.
    """
    if move == (0.0, 0.0):
        return piece
    own = (edge.start, edge.end)
    other = next(e for e in piece.edges if (e.start, e.end) != own and corner in (e.start, e.end))
    leaves = other.start == corner
    curve = other.curve.reversed() if leaves else other.curve
    if curve.length < 2 * LEAST_LEFT:
        raise StepRefused(
            f"{piece.title}: only {cm(curve.length)} of {line_words(other.lineage)} are there to take from.",
            fix="Take in less above the bust.",
            where=(other.lineage,),
        )
    kept, last = curve.split(curve.length - min(BLENDED, curve.length / 2))
    new = joined([*kept.cubics(), *refitted(_one_cubic(last), end=add(curve.end, move)).cubics()])
    drawn = new.reversed() if leaves else new
    ring = tuple(replace(e, curve=drawn) if e is other else e for e in piece.edges)
    return replace(piece, edges=ring)


def _one_cubic(curve: Curve) -> Curve:
    handle = curve.length / 3
    return Curve(
        with_handles(
            curve.start,
            curve.start_direction,
            curve.end,
            scale(curve.end_direction, -1.0),
            start_handle=handle,
            end_handle=handle,
        )
    )


def _direction(curve: Curve, along: float) -> Vector:
    before, after = curve.split(min(max(along, 1e-3), curve.length - 1e-3))
    return after.start_direction if after.length else before.end_direction


def _with_circle(piece: Piece, apex: Point, radius: float | None) -> Piece:
    """Return a panel with its part of the bust circle."""
    if radius is None:
        return piece
    circle = [
        add(apex, (radius * cos(2 * pi * i / CHORDS), radius * sin(2 * pi * i / CHORDS))) for i in range(CHORDS + 1)
    ]
    lines = tuple(LevelLine(BUST_CIRCLE, tuple(part)) for part in runs_within(piece.outline(), circle))
    return replace(piece, lines=(*(line for line in piece.lines if line.level != BUST_CIRCLE), *lines))


def describe(params: Contour) -> str:
    """Return the step in the maker's words."""
    return f"Contour the {readable(params.seam)} seam under and above the bust"


def offers(subject: Subject, pattern: Readable) -> Iterator[Offer]:
    """Offer to contour a panel seam of a front."""
    if subject.kind is Kind.LINE and subject.role is Role.PANEL and subject.piece is not None:
        seam = seam_at(pattern, subject.piece, subject.name)
        if seam is not None and subject.piece.zone is Zone.FRONT and len(seam.sides[0]) == 1:
            yield Offer("Contour it for a close fit without straps", {"seam": seam.name})


FRONT_ARMHOLE = {"start": "front.underarm", "end": "front.shoulder_tip", "along": "front.armhole", "fraction": 0.55}

OPERATION = Operation(
    key="contour",
    version=2,
    # Before, the lines across its ends were left with a corner.
    upgrades={1: lambda params: {**params, "run_on": False}},
    title="Contour a close bodice",
    params=Contour,
    apply=apply,
    describe=describe,
    width=as_ease,
    sections=SHAPES,
    moves=(
        SeamKind.CAP,
        SeamKind.WAIST,
    ),
    group=Group.SIZE,
    offers=offers,
    before=(("princess", {"start": FRONT_ARMHOLE, "bow": 1.2}),),
    examples=({"seam": "s0.princess_front"}, {"seam": "s0.princess_front", "above": 1.0, "most": 2.0}),
)
