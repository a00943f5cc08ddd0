"""Lengthen or shorten between two levels: cut across both pieces, spread or lap, redraw the lines across.

Below the bust the lower part slides: the waist goes down or up, darts keep their intake and grow or shrink in
length. Above it the upper part slides: neck, shoulder and the upper armhole. Front and back change alike, so their
seams stay equal. Common practice, no single source.
"""

from collections.abc import Iterator
from dataclasses import replace
from enum import StrEnum

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.curve import Curve
from izett.geometry.point import Point, Vector, add, between, distance, scale, subtract, unit
from izett.pattern.facts import Corner, Role, SeamKind, Zone
from izett.pattern.piece import Piece
from izett.pattern.redraw import redrawn
from izett.pattern.working import Readable
from izett.styling.blocks import corner_of
from izett.styling.operation import SHAPES, Context, Group, Keeps, Offer, Operation, Outcome, Sum, length
from izett.styling.references import Params
from izett.styling.subject import Kind, Subject
from izett.styling.words import signed
from izett.wording import cm

#: cm. Of a dart or of the seam under a dart, this much must be left.
LEAST_LEFT = 1.5

UPPER = (Role.NECK, Role.SHOULDER)


class Between(StrEnum):
    """Where the pieces are cut across."""

    BUST_WAIST = "bust_waist"
    NECK_UNDERARM = "neck_underarm"


class ChangeLength(Params):
    """How much, and between which levels."""

    amount: float = length(0.0, low=-5, high=8, meaning="longer (−: shorter), front and back")
    between: Between = Field(Between.BUST_WAIST, description="the levels between which the pieces are cut across")


def apply(params: ChangeLength, context: Context) -> Outcome:
    """Slide one part of each piece away from the other, or over it."""
    slide = _waist_slid if params.between is Between.BUST_WAIST else _neck_slid
    pieces = []
    for zone in (Zone.FRONT, Zone.BACK):
        pieces.append(slide(corner_of(context.garment, zone, Corner.WAIST_SIDE)[0], params.amount))
    return Outcome(context.garment.with_pieces(*pieces), (Sum("longer, front and back", params.amount),))


def _waist_slid(piece: Piece, amount: float) -> Piece:
    moves: dict[str, Point] = {}
    for edge in piece.edges:
        if edge.role is not Role.WAIST:
            continue
        for name in (edge.start, edge.end):
            moves[name] = add(piece.vertex(name), _downwards(piece, name, amount))
    for edge in piece.edges:
        # A line that reaches the waist keeps some of its length, and what hangs on it stays above the cut.
        if edge.is_leg or edge.role is Role.WAIST or not {edge.start, edge.end} & moves.keys():
            continue
        if edge.curve.length + amount < LEAST_LEFT:
            raise _too_short(piece, edge.lineage, amount)
    for dart in piece.darts:
        tip = piece.vertex(dart.tip)
        if dart.mouth[0] in moves and distance(tip, moves[dart.mouth[0]]) < LEAST_LEFT * 2:
            raise _too_short(piece, dart.name, amount)
    return redrawn(piece, moves=moves)


def _downwards(piece: Piece, name: str, amount: float) -> Vector:
    """Return the slide of a waist corner: straight down, or along the axis of the dart whose mouth it is."""
    for dart in piece.darts:
        if name in dart.mouth:
            a, b = (piece.vertex(vertex) for vertex in dart.mouth)
            return scale(unit(subtract(between(a, b, 0.5), dart.pivot)), amount)
    return (0.0, -amount)


def _neck_slid(piece: Piece, amount: float) -> Piece:
    blocked = [d.name for d in piece.darts if _line_of(piece, d.mouth[0]) in (*UPPER, Role.ARMHOLE)]
    if blocked:
        raise StepRefused(
            f"{blocked[0]} opens above the underarm: the cut would run through it.",
            fix="Put this step before the one that moves the dart there.",
            where=tuple(blocked),
        )
    armhole = next(edge for edge in piece.edges if edge.role is Role.ARMHOLE)
    if len(armhole.curve.points) != 7:
        raise StepRefused(
            f"The armhole of {piece.title.lower()} was changed by a step before this one.",
            fix="Put this step before that one.",
            where=(armhole.lineage,),
        )
    rise = (0.0, amount)
    points = armhole.curve.points
    # The last handle before the across line goes up with it, so that the line stays smooth there.
    raised = Curve((*points[:2], *(add(p, rise) for p in points[2:])))
    if amount < 0 and raised.points[3][1] - raised.points[0][1] < LEAST_LEFT:
        raise _too_short(piece, armhole.lineage, amount)
    upper = {e.start for e in piece.edges if e.role in UPPER} | {e.end for e in piece.edges if e.role in UPPER}
    across = piece.corner(Corner.ACROSS_CB)
    if across is not None:
        upper.add(across)
    moves = {name: add(piece.vertex(name), rise) for name in upper}
    # The armhole is drawn anew first, with its tip already raised: nothing is left for the corner to move.
    ring = tuple(replace(e, curve=raised) if e is armhole else e for e in piece.edges)
    return redrawn(replace(piece, edges=ring), moves=moves)


def _line_of(piece: Piece, mouth: str) -> Role:
    return next(edge.role for edge in piece.edges if edge.end == mouth and not edge.is_leg)


def _too_short(piece: Piece, where: str, amount: float) -> StepRefused:
    return StepRefused(
        f"{piece.title}: shortening by {cm(-amount, 2)} leaves less than {cm(LEAST_LEFT, 2)} of {where}.",
        fix="Shorten less, or raise the bust dart first.",
        where=(where,),
    )


def describe(params: ChangeLength) -> str:
    """Return the step in the maker's words."""
    where = "between bust and waist" if params.between is Between.BUST_WAIST else "between neck and underarm"
    return f"{signed(params.amount, 'Lengthen by', 'Shorten by')} {where}"


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer the bodice's two places where a body level or the garment is pointed at."""
    if subject.kind in (Kind.GARMENT, Kind.LEVEL):
        yield Offer("Lengthen between bust and waist", {"amount": 1.0, "between": "bust_waist"})
        yield Offer("Lengthen between neck and underarm", {"amount": 0.5, "between": "neck_underarm"})


OPERATION = Operation(
    key="change_length",
    title="Lengthen or shorten between levels",
    params=ChangeLength,
    apply=apply,
    describe=describe,
    sections=SHAPES,
    moves=(SeamKind.CAP,),
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.SIZE,
    offers=offers,
    examples=(
        {"amount": 1.2, "between": "bust_waist"},
        {"amount": -1.0, "between": "bust_waist"},
        {"amount": 0.8, "between": "neck_underarm"},
    ),
)
