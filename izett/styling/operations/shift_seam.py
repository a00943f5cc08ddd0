"""Shift a seam: what one piece loses the other gains; the garment as sewn stays the same.

The lines that end at the seam are cut off on one piece and laid to the other, exactly as they were, so that neckline
and armhole (or waist and hem) run on as before; the new seam is the same line on both. Common practice, no single source.
"""

from collections.abc import Iterator
from dataclasses import dataclass, replace

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.curve import Curve
from izett.geometry.fit import smoothed
from izett.geometry.point import Point, Vector, add, between, distance, dot, left_of, right_of, scale, subtract
from izett.geometry.tolerance import SAME_POINT
from izett.pattern.document import Seam
from izett.pattern.facts import Role, SeamKind
from izett.pattern.naming import readable
from izett.pattern.paper import one_span
from izett.pattern.piece import Edge, Piece
from izett.pattern.redraw import redrawn
from izett.pattern.sewn import seam_lengths, walk
from izett.pattern.working import Readable, Working
from izett.styling.operation import SHAPES, Context, Group, Keeps, Offer, Operation, Outcome, Sum, as_ease, length
from izett.styling.parting import seam_named
from izett.styling.references import Params, SeamRef
from izett.styling.subject import Kind, Subject, seam_at
from izett.styling.words import signed
from izett.wording import cm

#: cm. Of a line that a seam slides along this much must be left.
LEAST_LEFT = 1.0


class ShiftSeam(Params):
    """Which seam, and how far it moves at its two ends."""

    seam: SeamRef = Field(description="the seam's name")
    at_start: float = length(1.0, low=-6, high=6, meaning="into the first piece where the seam starts (−: the second)")
    at_end: float = length(1.0, low=-6, high=6, meaning="into the first piece where the seam ends (−: the second)")


@dataclass(frozen=True, slots=True)
class _Run:
    """A piece with its side of the seam: corners from the seam's start to its end, and the lines that it ends on."""

    piece: Piece
    corners: tuple[str, ...]
    edges: tuple[Edge, ...]
    forward: bool

    def spot(self, corner: str) -> Point:
        return self.piece.vertex(corner)

    def neighbour(self, *, at_start: bool) -> Edge:
        """Return the line of the ring that meets the seam at its start, or at its end."""
        first = self.edges[0] if at_start else self.edges[-1]
        index = self.piece.edges.index(first)
        before = at_start == self.forward
        return self.piece.edges[index - 1 if before else (index + 1) % len(self.piece.edges)]

    def axes(self, *, at_start: bool) -> tuple[Point, Vector, Vector]:
        """Return the corner, the direction from it along the seam, and the direction into the paper."""
        edge = self.edges[0] if at_start else self.edges[-1]
        curve = edge.curve if self.forward else edge.curve.reversed()
        along = curve.start_direction if at_start else curve.end_direction
        inside = left_of(along) if self.forward else right_of(along)
        if at_start:
            return self.spot(self.corners[0]), along, inside
        return self.spot(self.corners[-1]), scale(along, -1.0), inside


def apply(params: ShiftSeam, context: Context) -> Outcome:
    """Take a strip off one piece at the seam and put it on the other."""
    seam = seam_named(context, params.seam)
    if params.at_start * params.at_end < 0:
        raise StepRefused(
            "The seam would move into both pieces at once.",
            fix="Give both amounts the same direction.",
            where=(seam.name,),
        )
    giving = 0 if params.at_start + params.at_end >= 0 else 1
    giver, taker = (_run(context.garment, seam, side) for side in (giving, 1 - giving))
    if giver.piece is taker.piece:
        raise StepRefused("That seam joins a piece to itself.", fix="Choose another seam.", where=(seam.name,))
    parts = [
        _cut_off(giver, abs(amount), at_start=at_start)
        for amount, at_start in ((params.at_start, True), (params.at_end, False))
    ]
    less = _moved(giver, [part.curve.end for part in parts], [part.kept for part in parts])
    grown = [
        _laid_on(giver, taker, part.curve, at_start=at_start)
        for part, at_start in zip(parts, (True, False), strict=True)
    ]
    more = _moved(taker, [curve.end for curve, _ in grown], [whole for _, whole in grown])
    pattern = context.garment.with_pieces(less, more)
    pattern = _agreeing(context.garment, pattern, seam)
    return Outcome(
        pattern,
        (
            Sum("moved where the seam starts", _told(giver, pattern, giver.corners[0], giving)),
            Sum("moved where it ends", _told(giver, pattern, giver.corners[-1], giving)),
        ),
    )


def _told(giver: _Run, after: Working, corner: str, giving: int) -> float:
    """Return how far (cm) the seam has moved at one of its ends, into the first piece, or (negative) into the second."""
    return distance(giver.spot(corner), after.piece(giver.piece.name).vertex(corner)) * (1 if giving == 0 else -1)


def _agreeing(before: Working, after: Working, seam: Seam) -> Working:
    """Return the pattern with both sides of the seam as far apart in length as they were, half of it taken at each end.

    Beside a curved seam a strip is longer on its outer side than on its inner one.
    """
    was, now = seam_lengths(before, seam), seam_lengths(after, seam)
    off = (now[1] - now[0]) - (was[1] - was[0])
    for side, more in ((0, off / 2), (1, -off / 2)):
        if abs(more) > SAME_POINT:
            run = _run(after, seam, side)
            corner, along, _ = run.axes(at_start=False)
            moves = {run.corners[-1]: add(corner, scale(along, -more))}
            after = after.with_pieces(redrawn(run.piece, moves=moves))
    return after


def _run(pattern: Working, seam: Seam, side: int) -> _Run:
    piece, span, _ = one_span(pattern, seam.sides[side])
    stretches = walk(piece, span)
    edges = tuple(stretch.edge for stretch in stretches)
    forward = stretches[0].forward
    ends = [edge.end if forward else edge.start for edge in edges]
    starts = [edge.start if forward else edge.end for edge in edges]
    if any(a != b for a, b in zip(ends, starts[1:], strict=False)):
        raise StepRefused(
            f"A dart opens in the {readable(seam.name)} seam.",
            fix="Move the dart to another line first.",
            where=(seam.name,),
        )
    return _Run(piece, (starts[0], *ends), edges, forward)


@dataclass(frozen=True, slots=True)
class _Part:
    """The part cut off a neighbouring line, walked from the seam's old corner to its new one, and the part kept."""

    curve: Curve
    kept: Edge


def _cut_off(run: _Run, amount: float, *, at_start: bool) -> _Part:
    edge = run.neighbour(at_start=at_start)
    if edge.is_leg or edge.curve.length - amount < LEAST_LEFT:
        raise StepRefused(
            f"{run.piece.title}: the seam would leave less than {cm(LEAST_LEFT, 2)} of {readable(edge.lineage)}.",
            fix="Move it less, or the dart that is in the way first.",
            where=(edge.lineage,),
        )
    corner = run.corners[0] if at_start else run.corners[-1]
    if edge.start == corner:
        off, kept = edge.curve.split(amount)
        return _Part(off, replace(edge, curve=kept))
    kept, off = edge.curve.split(edge.curve.length - amount)
    return _Part(off.reversed(), replace(edge, curve=kept))


def _laid_on(giver: _Run, taker: _Run, part: Curve, *, at_start: bool) -> tuple[Curve, Edge]:
    """Return the part as it lies outside the taker's corner, and the taker's line run on over it."""
    corner, along, inside = giver.axes(at_start=at_start)
    at, on, depth = taker.axes(at_start=at_start)

    def laid(point: Point) -> Point:
        off = subtract(point, corner)
        return add(at, add(scale(on, dot(off, along)), scale(depth, -dot(off, inside))))

    curve = part.mapped(laid)
    edge = taker.neighbour(at_start=at_start)
    if curve.length < SAME_POINT:
        return curve, edge
    if edge.end == (taker.corners[0] if at_start else taker.corners[-1]):
        whole, _ = smoothed([edge.curve, curve])
    else:
        whole, _ = smoothed([curve.reversed(), edge.curve])
    return curve, replace(edge, curve=whole)


def _moved(run: _Run, ends: list[Point], neighbours: list[Edge]) -> Piece:
    """Return a piece with its seam between new ends; corners within the seam go with them by their share."""
    first, last = (
        subtract(end, run.spot(corner)) for end, corner in zip(ends, (run.corners[0], run.corners[-1]), strict=True)
    )
    whole = sum(edge.curve.length for edge in run.edges)
    moves: dict[str, Point] = {}
    gone = 0.0
    for corner, edge in zip(run.corners, (*run.edges, None), strict=True):
        moves[corner] = add(run.spot(corner), between(first, last, gone / whole))
        gone += edge.curve.length if edge else 0.0
    names = {edge.start: edge for edge in neighbours}
    ring = tuple(replace(e, curve=names[e.start].curve) if e.start in names else e for e in run.piece.edges)
    return redrawn(replace(run.piece, edges=ring), moves=moves)


def describe(params: ShiftSeam) -> str:
    """Return the step in the maker's words."""
    most = max((params.at_start, params.at_end), key=abs)
    how = signed(most, "into the first piece by", "into the second piece by")
    return f"Shift the {readable(params.seam)} seam {how}"


def offers(subject: Subject, pattern: Readable) -> Iterator[Offer]:
    """Offer to shift the seam that the line is sewn in: forward or back."""
    if subject.kind is Kind.LINE and subject.piece is not None and subject.role is not Role.CAP:
        seam = seam_at(pattern, subject.piece, subject.name)
        if seam is not None and len(seam.sides[0]) == len(seam.sides[1]) == 1:
            into = f"towards the {seam.words[0]}"
            yield Offer(f"Shift this seam {into}", {"seam": seam.name, "at_start": 1.0, "at_end": 1.0})


OPERATION = Operation(
    key="shift_seam",
    title="Shift a seam",
    params=ShiftSeam,
    apply=apply,
    describe=describe,
    width=as_ease,
    sections=SHAPES,
    moves=(
        SeamKind.CAP,
        SeamKind.WAIST,
    ),
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.SIZE,
    offers=offers,
    blocks=("bodice", "skirt"),
    examples=(
        {"seam": "shoulder", "at_start": 0.0, "at_end": 1.0},
        {"seam": "skirt_side", "at_start": 1.0, "at_end": 1.0},
        {"seam": "shoulder", "at_start": -1.0, "at_end": -1.0},
    ),
)
