"""Add (or take) across the back or the front at the armhole, and none at the side seam.

By hand, the L-cut: from mid-shoulder down, then out to the armhole above the underarm, and that corner slid out.
The shoulder's surplus is taken off at the tip, or kept as ease. Common practice, no single source.
"""

from collections.abc import Iterator
from dataclasses import replace
from enum import StrEnum
from typing import Literal

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.curve import Curve
from izett.geometry.point import add, scale
from izett.pattern.document import Pattern, Role, Seam, Span
from izett.pattern.redraw import redrawn
from izett.pattern.sewn import walk
from izett.styling.operation import Context, Group, Keeps, Offer, Operation, Outcome, Params, Sum, length
from izett.styling.subject import Kind, Subject
from izett.styling.words import signed

#: cm. The armhole stays this far inside the shoulder tip at the across line, else the sleeve would hang outwards.
INSIDE_TIP = 0.2
#: cm. Of shoulder ease, this much can be eased in over a shoulder blade.
MOST_EASE = 1.2


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
    shoulder = Span(f"{part}.neck_shoulder", f"{part}.shoulder_tip", f"{part}.shoulder")
    context.span_length(shoulder)
    piece = context.piece_with(f"{part}.shoulder_tip")
    armholes = [edge for edge in piece.edges if edge.role is Role.ARMHOLE]
    if len(armholes) != 1 or len(armholes[0].curve.points) != 7:
        raise StepRefused(
            f"The {part} armhole was changed by a step before this one: it cannot be widened in one line.",
            mend="Put this step before the one that moves the dart there.",
            where=(f"{part}.armhole",),
        )
    shift = (params.amount, 0.0)
    points = armholes[0].curve.points
    across = Curve(tuple(add(p, shift) if i in (2, 3, 4) else p for i, p in enumerate(points)))
    moves = {}
    pattern = context.pattern
    if params.surplus is Surplus.EASE:
        outer = walk(piece, shoulder)[-1].open_curve
        moves[f"{part}.shoulder_tip"] = add(outer.end, scale(outer.end_direction, params.amount))
        pattern = pattern.with_seam(_eased(_shoulder(pattern.seams), part, params.amount))
    elif points[3][0] + params.amount > piece.vertex(f"{part}.shoulder_tip")[0] - INSIDE_TIP:
        raise StepRefused(
            f"With {params.amount:g} cm more, the {part} armhole reaches past the shoulder tip.",
            mend="Keep the shoulder's surplus as ease, extend the shoulder, or add less.",
            where=(f"{part}.armhole", f"{part}.shoulder_tip"),
        )
    widened = redrawn(piece, moves=moves, curves={armholes[0].start: across})
    return Outcome(
        pattern.with_pieces(widened),
        (Sum("wider at the armhole, each side", params.amount), Sum("across the whole " + part, 2 * params.amount)),
    )


def _shoulder(seams: tuple[Seam, ...]) -> Seam:
    for seam in seams:
        if seam.name == "shoulder":
            return seam
    raise StepRefused("The pattern has no shoulder seam.", mend="Take the surplus off the tip.", where=("shoulder",))


def _eased(seam: Seam, part: str, amount: float) -> Seam:
    # The seam's ease is the back less the front.
    more = amount if part == "back" else -amount
    low, high = seam.ease[0] + more, seam.ease[1] + more
    if not 0 <= high <= MOST_EASE + 1e-9:
        raise StepRefused(
            f"The back shoulder would be {high:.1f} cm longer than the front: at most {MOST_EASE:g} cm can be eased in.",
            mend="Take the surplus off the tip, or add less.",
            where=("shoulder",),
        )
    return replace(seam, ease=(low, high))


def describe(params: WidenAcross) -> str:
    """Return the step in the maker's words."""
    kept = ", the shoulder's surplus eased in" if params.surplus is Surplus.EASE else ""
    return f"Across the {params.part}: {signed(params.amount, 'add', 'take')} at each armhole{kept}"


def offers(subject: Subject, _pattern: Pattern) -> Iterator[Offer]:
    """Offer to widen the half whose armhole is pointed at."""
    if subject.kind is Kind.LINE and subject.role is Role.ARMHOLE and subject.piece is not None:
        part = "front" if "front" in subject.piece.part else "back"
        yield Offer(f"Widen across the {part}", {"part": part, "amount": 0.5})


OPERATION = Operation(
    key="widen_across",
    title="Widen across the back or front",
    params=WidenAcross,
    apply=apply,
    describe=describe,
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.NECK,
    offers=offers,
    examples=(
        {"part": "back", "amount": 0.4, "surplus": "off_tip"},
        {"part": "back", "amount": 0.5, "surplus": "ease"},
        {"part": "front", "amount": -0.3},
    ),
)
