"""Whether both halves go together as one garment; where they do not, the step after which that was so."""

import logging
from collections.abc import Sequence

from izett.errors import IzettError, StepRefused, place_of
from izett.pattern.document import Pattern
from izett.pattern.halves import WHOLE, joined
from izett.pattern.remembered import Remembered
from izett.recipe.evaluation import Stage
from izett.recipe.refusals import broke, unsound_piece

_faults: Remembered[IzettError | None] = Remembered(most=64)


def first_apart(stages: Sequence[Stage]) -> tuple[Stage, IzettError] | None:
    """Return the step that made halves which cannot be cut together, and why; None where the last ones can.

    Only what is cut is asked: halves that a later step brings together again are let be.
    """
    if not stages or _apart(stages[-1].left, stages[-1].right) is None:
        return None
    found = None
    for stage in reversed(stages):
        why = _apart(stage.left, stage.right)
        if why is None:
            break
        if stage.failure is None and stage.step.on:
            found = (stage, why)
    return found


def _apart(left: Pattern, right: Pattern) -> IzettError | None:
    """Return why two halves cannot be one garment: a piece across the centre could not be drawn, cut or kept."""
    if left is right:
        return None
    return _faults.of(left, (), lambda: _fault(left, right), beside=right)


def _fault(left: Pattern, right: Pattern) -> IzettError | None:
    try:
        garment = joined(left, right)
    except Exception as fault:
        # Whatever it is, the other steps must not be lost with it; the tests take it for the fault that it is.
        logging.getLogger(__name__).error("halves together: %s", place_of(fault))
        return broke(fault)
    known = {id(piece) for piece in (*left.pieces, *right.pieces)}
    for piece in garment.pieces:
        # A half by itself was asked after the step that made it.
        if piece.is_whole and id(piece) not in known and (why := unsound_piece(piece)) is not None:
            reason = why.message.replace(WHOLE, "")
            return StepRefused(
                f"The two halves would not go together: {reason[:1].lower()}{reason[1:]}",
                fix=why.fix,
                where=why.where,
            )
    return None
