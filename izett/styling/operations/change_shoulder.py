"""Extend or shorten the shoulder seam at its tip, front and back alike; the armhole is blended to the new tip.

Common practice, no single source: the armhole below the across line stays as it was.
"""

from izett.errors import StepRefused
from izett.geometry.point import Point, add, scale
from izett.pattern.document import Span
from izett.pattern.redraw import redrawn
from izett.pattern.sewn import walk
from izett.styling.operation import Context, Operation, Outcome, Params, Sum, length
from izett.styling.words import signed

#: cm. A shorter shoulder carries no sleeve.
SHORTEST_SHOULDER = 4.0


class ChangeShoulder(Params):
    """How much longer the shoulder seam becomes."""

    amount: float = length(0.0, low=-4, high=4, meaning="longer at the tip (−: shorter), front and back")


def apply(params: ChangeShoulder, context: Context) -> Outcome:
    """Move both tips along their shoulder lines."""
    pieces = []
    lengths = []
    for part in ("front", "back"):
        span = Span(f"{part}.neck_shoulder", f"{part}.shoulder_tip", f"{part}.shoulder")
        whole = context.span_length(span)
        piece = context.piece_with(span.start)
        outer = walk(piece, span)[-1].open_curve
        if outer.length + params.amount < min(SHORTEST_SHOULDER, outer.length):
            raise StepRefused(
                f"The {part} shoulder of {whole:.1f} cm cannot be shortened by {-params.amount:g} cm.",
                mend=f"Leave at least {SHORTEST_SHOULDER:g} cm, beyond any dart in it.",
                where=(f"{part}.shoulder",),
            )
        tip: Point = add(outer.end, scale(outer.end_direction, params.amount))
        pieces.append(redrawn(piece, moves={f"{part}.shoulder_tip": tip}))
        lengths.append(Sum(f"{part} shoulder", whole + params.amount))
    return Outcome(context.pattern.with_pieces(*pieces), (Sum("longer at the tip", params.amount), *lengths))


def describe(params: ChangeShoulder) -> str:
    """Return the step in the maker's words."""
    return f"Shoulder seam: {signed(params.amount, 'extend', 'shorten')} at the tip"


OPERATION = Operation(
    key="change_shoulder",
    title="Extend or shorten the shoulder",
    params=ChangeShoulder,
    apply=apply,
    describe=describe,
    examples=({"amount": 0.8}, {"amount": -1.0}),
)
