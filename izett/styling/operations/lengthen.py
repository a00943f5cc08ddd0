"""Lengthen or shorten at a line across: everything below slides down or up, on all pieces that meet at that seam.

Pointed at on a seam, the line lies at the same distance along it on both pieces, so that their edges stay equal. Straight
lines are joined again, curves keep their character, darts grow or shrink in length only. Common practice, no single
source.
"""

from collections.abc import Iterator
from dataclasses import replace
from types import MappingProxyType

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.motion import Motion
from izett.geometry.point import Point, Vector, add, between, scale, subtract, unit
from izett.pattern.copies import moved_diamond
from izett.pattern.document import Seam
from izett.pattern.facts import Role, SeamKind
from izett.pattern.piece import Piece
from izett.pattern.redraw import redrawn
from izett.pattern.sewn import place_on, span_length
from izett.pattern.working import Readable
from izett.styling.operation import SHAPES, Context, Group, Keeps, Offer, Operation, Outcome, Sum, length
from izett.styling.references import Params, PointRef
from izett.styling.subject import Kind, Subject, seam_at
from izett.styling.words import line_words, signed
from izett.wording import cm

#: cm. Of a line that is shortened, this much must be left.
LEAST_LEFT = 1.5


class Lengthen(Params):
    """Where, and how much."""

    at: PointRef = Field(description="the place on a seam or an edge through which the line runs across")
    amount: float = length(2.0, low=-30, high=80, meaning="longer below that line (−: shorter)")


def apply(params: Lengthen, context: Context) -> Outcome:
    """Slide what lies below the line on every piece of the seam."""
    piece, edge, along = context.place(params.at)
    heights = {piece.name: edge.curve.at_distance(along)[1]}
    seam = seam_at(context.garment, piece, edge.lineage)
    if seam is not None:
        heights.update(_partners(context, seam, piece, params.at))
    pattern = context.garment.with_pieces(
        *(_slid(context.piece(name), height, params.amount) for name, height in heights.items())
    )
    told = [Sum("longer", params.amount), Sum("pieces", float(len(heights)), "")]
    return Outcome(pattern, tuple(told))


def _partners(context: Context, seam: Seam, piece: Piece, at: PointRef) -> dict[str, float]:
    """Return the height of the line on the pieces on the other side of the seam, at the same distance as sewn."""
    found: dict[str, float] = {}
    for number, side in enumerate(seam.sides):
        if not any(span.along == at.along and piece.holds(span.start) for span in side):
            continue
        (own,) = [span for span in side if span.along == at.along and piece.holds(span.start)][:1]
        whole = span_length(piece, own)
        fraction = at.fraction if (at.start == own.start or at.end == own.end) else 1 - at.fraction
        gone = sum(span_length(context.piece_with(s.start), s) for s in side[: side.index(own)]) + fraction * whole
        for span in seam.sides[1 - number]:
            other = context.piece_with(span.start)
            long = span_length(other, span)
            if gone <= long:
                stretch, along = place_on(other, span, gone)
                found[other.name] = stretch.open_curve.at_distance(along)[1]
                break
            gone -= long
    return found


def _slid(piece: Piece, height: float, amount: float) -> Piece:
    down = (0.0, -amount)
    slide = Motion.sliding(down)
    below = {name for name, spot in piece.vertices.items() if spot[1] < height}
    if not below or len(below) == len(piece.vertices):
        raise StepRefused(
            f"Nothing of {piece.title.lower()} lies {'below' if not below else 'above'} that line.",
            fix="Point at a place between two corners.",
            where=(piece.name,),
        )
    moves: dict[str, Point] = {name: slide(piece.vertex(name)) for name in below}
    darts = []
    for dart in piece.darts:
        mouth_below = dart.mouth[0] in below
        if mouth_below and dart.pivot[1] < height:
            darts.append(replace(dart, pivot=slide(dart.pivot)))
            continue
        if mouth_below:
            # Along its own axis, so that both legs stay equal.
            shift = _along_axis(piece, dart.mouth, dart.pivot, amount)
            moves.update({name: add(piece.vertex(name), shift) for name in dart.mouth})
        elif dart.pivot[1] < height:
            shift = _along_axis(piece, dart.mouth, dart.pivot, -amount)
            darts.append(replace(dart, pivot=add(dart.pivot, shift)))
            continue
        darts.append(dart)
    curves = {}
    for edge in piece.edges:
        if not edge.is_leg and edge.start in below and edge.end in below and not edge.curve.is_straight:
            curves[edge.start] = edge.curve.mapped(slide)
        elif (
            not edge.is_leg and (edge.start in below) != (edge.end in below) and edge.curve.length + amount < LEAST_LEFT
        ):
            raise StepRefused(
                f"{piece.title}: shortening by {cm(-amount, 2)} leaves less than {cm(LEAST_LEFT, 2)} of "
                f"{line_words(edge.lineage)}.",
                fix="Shorten less, or elsewhere.",
                where=(edge.lineage,),
            )
    new = redrawn(
        piece,
        moves=moves,
        darts=darts,
        curves=curves,
        lines=[
            replace(line, points=tuple(slide(p) for p in line.points)) if line.points[0][1] < height else line
            for line in piece.lines
        ],
        marks=MappingProxyType({k: slide(p) if p[1] < height else p for k, p in piece.marks.items()}),
    )
    diamonds = tuple(moved_diamond(d, slide) if d.left[1] < height else d for d in piece.diamonds)
    low, high = sorted(piece.grain, key=lambda p: p[1])
    return replace(new, diamonds=diamonds, grain=(slide(low) if low[1] < height else low, high))


def _along_axis(piece: Piece, mouth: tuple[str, str], pivot: Point, amount: float) -> Vector:
    middle = between(piece.vertex(mouth[0]), piece.vertex(mouth[1]), 0.5)
    return scale(unit(subtract(middle, pivot)), amount)


def describe(params: Lengthen) -> str:
    """Return the step in the maker's words."""
    return f"{signed(params.amount, 'Lengthen by', 'Shorten by')} across {line_words(params.at.along)}"


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer to lengthen at the place pointed at on an upright line."""
    upright = (Role.SIDE, Role.UNDERARM, Role.INSEAM, Role.PANEL, Role.CENTRE_FRONT, Role.CENTRE_BACK)
    if subject.kind is Kind.LINE and subject.role in upright:
        yield Offer("Lengthen or shorten here", {"at": subject.place()})


OPERATION = Operation(
    key="lengthen",
    title="Lengthen or shorten here",
    params=Lengthen,
    apply=apply,
    describe=describe,
    sections=SHAPES,
    moves=(SeamKind.CAP,),
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.SIZE,
    offers=offers,
    blocks=("bodice", "sleeve", "skirt"),
    examples=(
        {
            "at": {
                "start": "skirt_front.hem_side",
                "end": "skirt_front.waist_side",
                "along": "skirt_front.side",
                "fraction": 0.4,
            },
            "amount": 10.0,
        },
        {
            "at": {
                "start": "sleeve.wrist_front",
                "end": "sleeve.underarm_front",
                "along": "sleeve.front_underarm",
                "fraction": 0.2,
            },
            "amount": -4.0,
        },
    ),
)
