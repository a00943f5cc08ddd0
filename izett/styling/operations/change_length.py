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
from izett.geometry.point import add
from izett.pattern.facts import Corner, Region, Role, SeamKind, Zone
from izett.pattern.piece import Piece
from izett.pattern.redraw import redrawn
from izett.pattern.working import Readable
from izett.styling.across import heights_across, slid_below
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
    if params.between is Between.BUST_WAIST:
        return _between_bust_and_waist(params, context)
    pieces = [
        _neck_slid(corner_of(context.garment, zone, Corner.WAIST_SIDE)[0], params.amount)
        for zone in (Zone.FRONT, Zone.BACK)
    ]
    pattern = context.garment.with_pieces(*pieces)
    rise = [
        max(p[1] for p in piece.outline()) - max(p[1] for p in context.piece(piece.name).outline()) for piece in pieces
    ]
    return Outcome(pattern, (Sum("neck and shoulder up, front", rise[0]), Sum("neck and shoulder up, back", rise[1])))


def _between_bust_and_waist(params: ChangeLength, context: Context) -> Outcome:
    """Cut across the front below its bust dart, over all pieces that meet there, and slide the waist."""
    front = corner_of(context.garment, Zone.FRONT, Corner.WAIST_SIDE)[0]
    waist = front.vertex(front.corner(Corner.WAIST_SIDE) or "")[1]
    waist = max([waist, *(p[1] for e in front.edges if e.role is Role.WAIST for p in (e.curve.start, e.curve.end))])
    sides = [
        front.vertex(name)[1]
        for dart in front.darts
        for name in dart.mouth
        if front.vertex(name)[1] > waist + LEAST_LEFT
    ]
    bust = [line.points[0][1] for line in front.lines if line.level == "bust"]
    above = min([*sides, *bust], default=max(p[1] for p in front.outline()))
    room = above - waist
    if room < 2 * LEAST_LEFT or room + params.amount < 2 * LEAST_LEFT:
        raise _too_short(front, "the side between bust and waist", params.amount)
    heights = heights_across(context, front, waist + room / 2)
    after = context.garment.with_pieces(
        *(slid_below(context.piece(name), height, params.amount) for name, height in heights.items())
    )
    told = [
        Sum(f"longer at the side, {zone.value}", _side_long(after, zone) - _side_long(context.garment, zone))
        for zone in (Zone.FRONT, Zone.BACK)
    ]
    return Outcome(after, tuple(told))


def _side_long(garment: Readable, zone: Zone) -> float:
    """Return how long (cm) the side of a zone is on paper, its darts' mouths left out."""
    pieces = garment.of_block((zone, Region.UPPER))
    return sum(e.curve.length for piece in pieces for e in piece.edges if e.role is Role.SIDE)


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
