"""Add (or take) across the back or the front at the armhole, and none at the side seam.

By hand, the L-cut: from mid-shoulder down, then out to the armhole above the underarm, and that corner slid out.
The shoulder's surplus is taken off at the tip, or eased in as far as a shoulder takes it. Common practice, no single source.
"""

from collections.abc import Iterator
from enum import StrEnum
from typing import Literal

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.curve import Curve
from izett.geometry.point import Point, Vector, add
from izett.geometry.tolerance import SAME_POINT
from izett.pattern.facts import Role, SeamKind, Zone
from izett.pattern.piece import Edge
from izett.pattern.redraw import redrawn
from izett.pattern.working import Readable
from izett.styling.bending import bent_curve, smooth_step
from izett.styling.operation import SHAPES, Context, Group, Keeps, Offer, Operation, Outcome, Sum, as_ease, length
from izett.styling.references import Params
from izett.styling.shoulder_line import eased, room_for_ease, shoulder_of, shoulder_seam, tip_along
from izett.styling.subject import Kind, Subject
from izett.styling.told import out_at
from izett.styling.words import signed
from izett.wording import cm

#: Points of an armhole as it is drafted: two curves that meet at the across line.
AS_DRAFTED = 7
#: cm. At the across line the armhole stays this far inside the shoulder tip: nearer, it would be narrowest above that line,
#: and the sleeve would hang outwards.
INSIDE_TIP = 0.2


class Surplus(StrEnum):
    """What becomes of the shoulder's surplus."""

    OFF_TIP = "off_tip"
    EASE = "ease"


class WidenAcross(Params):
    """Which half, how much, and what becomes of the shoulder's surplus."""

    part: Literal["back", "front"] = Field("back", description="which half is widened")
    amount: float = length(0.0, low=-2, high=3, meaning="wider at the armhole, each side (−: narrower)")
    surplus: Surplus = Field(Surplus.OFF_TIP, description="the shoulder's surplus: off_tip, or ease")


def apply(params: WidenAcross, context: Context) -> Outcome:
    """Slide the armhole at the across line, with the shoulder tip where its surplus is kept."""
    part = params.part
    shoulder = shoulder_of(context.garment, Zone(part))
    context.span_length(shoulder)
    tip = shoulder.end
    piece = context.piece_with(tip)
    armholes = [edge for edge in piece.edges if edge.role is Role.ARMHOLE]
    if len(armholes) != 1:
        raise StepRefused(
            f"The {part} armhole is not in one line.",
            fix="Put this step before the one that parts it.",
            where=tuple(edge.lineage for edge in armholes),
        )
    (armhole,) = armholes
    level = _across(armhole)
    moves = {}
    pattern = context.garment
    eased_in = 0.0
    if params.surplus is Surplus.EASE:
        seam = shoulder_seam(pattern, shoulder)
        eased_in = min(params.amount, room_for_ease(seam, shoulder))
        moves[tip] = tip_along(pattern, shoulder, eased_in)
        pattern = pattern.with_seam(eased(seam, shoulder, eased_in))
    # What is not eased in goes off the tip: there the armhole comes nearer to it.
    off_tip = params.amount - eased_in
    room = max(piece.vertex(tip)[0] - INSIDE_TIP - level[0], 0.0)
    if off_tip > room + SAME_POINT:
        raise StepRefused(
            f"With {cm(params.amount, 2)} more, the {part} armhole reaches past the shoulder tip: at most "
            f"{cm(eased_in + room, 2)} can be added there.",
            fix="Extend the shoulder, or add less."
            if params.surplus is Surplus.EASE
            else "Keep the shoulder's surplus as ease, extend the shoulder, or add less.",
            where=(armhole.lineage, tip),
        )
    told = (Sum("of the shoulder's surplus, off the tip", off_tip),) if eased_in and off_tip > SAME_POINT else ()
    widened = redrawn(piece, moves=moves, curves={armhole.start: _widened(armhole, level, params.amount)})
    wider = out_at(widened, Role.ARMHOLE, level[1]) - out_at(piece, Role.ARMHOLE, level[1])
    return Outcome(
        pattern.with_pieces(widened),
        (
            Sum("wider at the armhole, each side", wider),
            Sum(f"wider across the whole {part}", 2 * wider, both=True),
            *told,
        ),
    )


def _across(armhole: Edge) -> Point:
    """Return where the armhole passes the across line: where its two curves meet, or else where it comes farthest in."""
    if len(armhole.curve.points) == AS_DRAFTED:
        return armhole.curve.points[3]
    return min(armhole.curve.flattened(), key=lambda spot: spot[0])


def _widened(armhole: Edge, level: Point, amount: float) -> Curve:
    """Return the armhole with its across line slid out, run out to nothing at both ends."""
    curve = armhole.curve
    if len(curve.points) == AS_DRAFTED:
        return Curve(tuple(add(p, (amount, 0.0)) if i in (2, 3, 4) else p for i, p in enumerate(curve.points)))
    ends = sorted((curve.start[1], curve.end[1]))

    def shift(spot: Point) -> Vector:
        low, high = (ends[0], level[1]) if spot[1] <= level[1] else (ends[1], level[1])
        return (amount * smooth_step(abs(spot[1] - low), 0.0, abs(high - low)), 0.0)

    return bent_curve(curve, shift, start=curve.start, end=curve.end)


def describe(params: WidenAcross) -> str:
    """Return the step in the maker's words."""
    kept = ", the shoulder's surplus eased in" if params.surplus is Surplus.EASE else ""
    return f"Across the {params.part}: {signed(params.amount, 'add', 'take')} at each armhole{kept}"


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer to widen the half whose armhole is pointed at."""
    if subject.kind is Kind.LINE and subject.role is Role.ARMHOLE and subject.piece is not None:
        part = "front" if subject.piece.zone is Zone.FRONT else "back"
        yield Offer(f"Widen across the {part}", {"part": part, "amount": 0.5})


OPERATION = Operation(
    key="widen_across",
    title="Widen across the back or front",
    params=WidenAcross,
    apply=apply,
    describe=describe,
    width=as_ease,
    sections=SHAPES,
    moves=(SeamKind.CAP,),
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.NECK,
    offers=offers,
    examples=(
        {"part": "back", "amount": 0.4, "surplus": "off_tip"},
        {"part": "back", "amount": 0.5, "surplus": "ease"},
        {"part": "front", "amount": -0.3},
    ),
)
