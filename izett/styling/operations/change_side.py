"""Add or take at the side seam, with amounts at named levels, blended between them.

Front and back change alike, so the seam stays equal; where a bodice and a skirt meet at the waist, both do. The amount
is per edge; four edges are cut, so the garment changes by four times as much around: both are said. Common practice,
no single source.
"""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import replace
from itertools import pairwise

from izett.errors import ReferenceLost, StepRefused
from izett.geometry.point import Point, Vector, add, distance, right_of, scale, subtract, unit
from izett.pattern.facts import Corner, Role, SeamKind
from izett.pattern.levels import settled_since
from izett.pattern.piece import LevelLine, Piece, Span
from izett.pattern.redraw import redrawn
from izett.pattern.sewn import Stretch, walk
from izett.pattern.working import Readable, Working
from izett.pattern.worn import moved_levels, on_body
from izett.styling.hems import trued
from izett.styling.operation import SHAPES, Context, Keeps, Offer, Operation, Outcome, Sum, Width, length
from izett.styling.references import Params
from izett.styling.subject import Kind, Subject, ends_of, run_on
from izett.styling.told import gone, told_alike, told_around
from izett.styling.words import signed
from izett.wording import cm

#: Edges that a change at the side seam is cut on: left and right, front and back.
EDGES = 4
#: cm. A level line ends on the seam if it ends within this of it.
ON_SEAM = 1e-3
#: The corners of a side seam, by the level that they lie at.
CORNERS = {
    "underarm": Corner.UNDERARM,
    "waist": Corner.WAIST_SIDE,
    "hip": Corner.HIP_SIDE,
    "hem": Corner.HEM_SIDE,
}


#: Which amount is given at a level.
AT_LEVEL = {"bust": "underarm", "waist": "waist", "hip": "hip"}


class ChangeSide(Params):
    """Amounts at each edge; positive adds width, negative takes in."""

    underarm: float = length(0.0, low=-4, high=8, meaning="at the underarm, each edge")
    waist: float = length(0.0, low=-4, high=8, meaning="at the waist, each edge")
    hip: float = length(0.0, low=-4, high=8, meaning="at the hip, each edge")
    hem: float = length(0.0, low=-8, high=30, meaning="at the hem, each edge")


def apply(params: ChangeSide, context: Context) -> Outcome:
    """Move the side seams out or in, the amounts blended from level to level."""
    amounts = {corner: getattr(params, level) for level, corner in CORNERS.items()}
    pieces: list[Piece] = []
    runs: list[tuple[Piece, Span]] = []
    for piece in context.garment.with_role(Role.SIDE):
        if not on_body(piece):
            continue
        changed = piece
        for lineage in ends_of(piece, Role.SIDE):
            span = run_on(piece, lineage)
            if span is None:
                continue
            changed = _moved(changed, span, amounts)
            runs.append((piece, span))
        if changed is not piece:
            _refuse_narrow(piece, changed, params.waist)
            pieces.append(changed)
    if not pieces:
        raise ReferenceLost(
            "The pattern has no side seam.", fix="Choose the seam that is to be moved instead.", where=("side",)
        )
    pattern = context.garment.with_pieces(*pieces)
    if params.hem:
        pattern = trued(pattern, [piece.name for piece in pieces], before=context.garment)
    pattern = settled_since(context.garment, pattern)
    moved = moved_levels(context.garment, pattern)
    sums = (
        *(line for level, corner in CORNERS.items() for line in _told(pattern, runs, level, corner)),
        Sum("edges cut", float(EDGES), "", both=True),
        *told_around(context.garment, moved),
    )
    return Outcome(pattern, sums)


def _told(after: Working, runs: Sequence[tuple[Piece, Span]], level: str, corner: Corner) -> tuple[Sum, ...]:
    """Return how far the side edges have gone out at a corner, square to the seam."""
    out: dict[str, float] = {}
    for piece, span in runs:
        stretches = walk(piece, span)
        for name, stretch in zip(_corners(piece, span), (stretches[0], *stretches), strict=True):
            if piece.corner_at(name) is corner:
                outwards = stretch.closing.inverse().direction(_outwards(stretches))
                out[piece.title.lower()] = gone(piece, after.piece(piece.name), name, outwards)
    return told_alike(f"wider at the {level}, each edge", out)


def _meant(params: ChangeSide, level: str) -> Width:
    """Mean the ease at a level that has an amount; what spreads from another level is flare."""
    return Width.EASE if getattr(params, AT_LEVEL.get(level, ""), 0.0) else Width.FULLNESS


def _corners(piece: Piece, span: Span) -> list[str]:
    stretches = walk(piece, span)
    return [stretches[0].edge.start if stretches[0].forward else stretches[0].edge.end, *(_far(s) for s in stretches)]


def _far(stretch: Stretch) -> str:
    return stretch.edge.end if stretch.forward else stretch.edge.start


def _refuse_narrow(before: Piece, after: Piece, waist: float) -> None:
    def long(piece: Piece) -> float:
        return sum(edge.curve.length for edge in piece.edges if edge.role is Role.WAIST)

    if long(after) < long(before) / 2:
        raise StepRefused(
            f"Taking {cm(-waist, 2)} at each side edge leaves less than half of the waist of {before.title.lower()}.",
            fix="Take less at the side and more in the darts.",
            where=(before.name,),
        )


def _moved(piece: Piece, span: Span, amounts: Mapping[Corner, float]) -> Piece:
    stretches = walk(piece, span)
    names = _corners(piece, span)
    gone = [0.0]
    for stretch in stretches:
        gone.append(gone[-1] + stretch.edge.curve.length)
    kinds = [piece.corner_at(name) for name in names]
    known = [(gone[i], amounts[kind]) for i, kind in enumerate(kinds) if kind is not None and kind in amounts]

    def amount(along: float) -> float:
        for (low, a), (high, b) in pairwise(known):
            if low <= along <= high:
                return a + (b - a) * (along - low) / (high - low)
        return known[0][1] if along < known[0][0] else known[-1][1]

    if not known:
        return piece
    moves: dict[str, Point] = {}
    lines = list(piece.lines)
    # Square to the whole seam as sewn: so one amount everywhere shifts it, and front and back stay alike.
    sewn = _outwards(stretches)
    for stretch, start, end in zip(stretches, gone, gone[1:], strict=False):
        near, far = stretch.edge.start if stretch.forward else stretch.edge.end, _far(stretch)
        outwards = stretch.closing.inverse().direction(sewn)
        curve = stretch.open_curve
        moves.setdefault(near, add(curve.start, scale(outwards, amount(start))))
        moves[far] = add(curve.end, scale(outwards, amount(end)))
        for i, line in enumerate(lines):
            lines[i] = _end_moved(line, curve.start, curve.end, outwards, (amount(start), amount(end)))
    return redrawn(piece, moves=moves, lines=lines)


def _outwards(stretches: Sequence[Stretch]) -> Vector:
    # Walked with the piece to its left, the outside lies to the right.
    direction = unit(subtract(stretches[-1].curve.end, stretches[0].curve.start))
    outside = right_of(direction)
    return outside if stretches[0].forward else (-outside[0], -outside[1])


def _end_moved(line: LevelLine, a: Point, b: Point, outwards: Vector, amounts: tuple[float, float]) -> LevelLine:
    end = line.points[-1]
    chord = distance(a, b)
    if abs(distance(a, end) + distance(end, b) - chord) > ON_SEAM:
        return line
    part = distance(a, end) / chord
    # The line is prolonged in its own direction until it meets the seam's new place.
    towards = unit(subtract(end, line.points[-2]))
    slant = towards[0] * outwards[0] + towards[1] * outwards[1]
    new = add(end, scale(towards, (amounts[0] + (amounts[1] - amounts[0]) * part) / slant))
    return replace(line, points=(*line.points[:-1], new))


def describe(params: ChangeSide) -> str:
    """Return the step in the maker's words."""
    parts = [f"{signed(by, 'add', 'take')} at the {level}" for level in CORNERS if (by := getattr(params, level))]
    return f"Side seams, each edge: {', '.join(parts) or 'no change'}"


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer to add or take where a side seam is pointed at, or an A-line flare where its hem is."""
    if subject.kind is Kind.LINE and subject.role is Role.SIDE and subject.piece is not None:
        yield Offer("Add or take at the side seams", {"underarm": 0.5, "waist": 0.5})
        if any(edge.role is Role.HEM for edge in subject.piece.edges):
            yield Offer("Flare the side seams to the hem", {"hem": 4.0})


OPERATION = Operation(
    key="change_side",
    title="Add or take at the side seams",
    params=ChangeSide,
    apply=apply,
    describe=describe,
    width=_meant,
    sections=SHAPES,
    moves=(
        SeamKind.CAP,
        SeamKind.WAIST,
    ),
    keeps=frozenset({Keeps.SEAMS}),
    offers=offers,
    blocks=("bodice", "skirt"),
    examples=(
        {"underarm": 0.6, "waist": 0.3},
        {"underarm": -0.5, "waist": -0.4},
        {"waist": 1.0},
        {"hip": 0.5, "hem": 4.0},
    ),
)
