"""One step worked on one half: its changes, or why it could not act, whatever that was."""

import logging
from dataclasses import dataclass, field, replace

from izett.errors import IzettError, place_of
from izett.geometry.outline import region
from izett.geometry.point import Undrawable
from izett.pattern.document import Pattern
from izett.pattern.facts import SeamKind
from izett.pattern.levels import settled_since
from izett.pattern.paper import grain_on
from izett.pattern.piece import closed
from izett.pattern.working import Changes, Working
from izett.pattern.worn import moved_levels
from izett.recipe.memory import HALVES
from izett.recipe.refusals import broke, undrawable, unsound
from izett.styling.kept import Lost, lost
from izett.styling.operation import Context, Operation, Sum, Width, nothing_meant
from izett.styling.references import Params


@dataclass(frozen=True, slots=True)
class Worked:
    """What a step came to on one half: its changes, or why it could not act; `idle` where it left all as it was.

    `laid` holds the garments on which the changes were laid last, with what came of it: what stays the same garment stays
    the same object, so that nothing after it is asked again.
    """

    changes: Changes | None
    sums: tuple[Sum, ...] = ()
    made: tuple[str, ...] = ()
    read: frozenset[str] = frozenset()
    failure: IzettError | None = None
    asks: tuple[SeamKind, ...] = ()
    lost: tuple[Lost, ...] = ()
    idle: bool = False
    laid: list[tuple[Pattern, Pattern]] = field(default_factory=list, compare=False, repr=False)

    def on(self, pattern: Pattern, uid: str) -> Pattern:
        """Return a garment with the changes laid on."""
        for before, after in self.laid:
            if before is pattern:
                return after
        after = self.changes.on(pattern, uid=uid) if self.changes is not None else pattern
        self.laid[:] = [(pattern, after), *self.laid[: HALVES - 1]]
        return after


def acted(operation: Operation, params: Params, context: Context) -> Worked:
    """Work a step on one half; whatever goes wrong with it is its failure, and loses nothing else."""
    try:
        outcome = operation.apply(params, context)
        outcome = replace(
            outcome, garment=_told_apart(operation, params, context.garment, _closed(context.garment, outcome.garment))
        )
        failure = unsound(context.garment, outcome)
        off = lost(operation.keeps, context.garment, outcome.garment)
    except IzettError as error:
        return Worked(None, read=context.record.names(), failure=error)
    except Undrawable:
        return Worked(None, read=context.record.names(), failure=undrawable())
    except Exception as fault:
        # Whatever it is, the other steps must not be lost with it; the tests take it for the fault that it is.
        logging.getLogger(__name__).error("step %s: %s", operation.key, place_of(fault))
        fault_told = broke(fault)
        return Worked(None, read=context.record.names(), failure=fault_told)
    read = context.record.names()
    if failure is not None:
        return Worked(None, read=read, failure=failure)
    idle = outcome.garment.is_as_it_was
    return Worked(outcome.garment.changes, outcome.sums, outcome.made, read, asks=outcome.asks, lost=off, idle=idle)


def _closed(before: Working, after: Working) -> Working:
    """Return the garment with the rings of changed pieces closed to the last bit, and their grain lines on their paper."""
    for piece in after.since(before)[1]:
        ring = closed(piece.edges)
        if any(edge is not was for edge, was in zip(ring, piece.edges, strict=True)):
            piece = replace(piece, edges=ring)  # noqa: PLW2901
        grain = grain_on(region(piece.outline()), piece.grain)
        after = after.with_pieces(piece if grain == piece.grain else replace(piece, grain=grain))
    return after


def _told_apart(operation: Operation, params: Params, before: Working, after: Working) -> Working:
    """Return the garment with its levels read again, and what moved there counted as what it was meant to be."""
    after = settled_since(before, after)
    if operation.width is nothing_meant:
        return after
    ease: dict[str, float] = {}
    fullness: dict[str, float] = {}
    for level, by in moved_levels(before, after).items():
        match operation.width(params, level):
            case Width.EASE:
                ease[level] = by
            case Width.FULLNESS:
                fullness[level] = by
    after = after.with_ease(ease) if ease else after
    return after.with_fullness(fullness) if fullness else after
