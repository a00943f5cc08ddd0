"""Why a step could not act, in words: not known, not meant for a half, out of its range, or beyond this shape."""

from izett.errors import StepBroke, StepRefused, UnknownName
from izett.geometry.outline import crossing
from izett.geometry.tolerance import CROSSING_FLATNESS
from izett.pattern.facts import Half
from izett.pattern.piece import Piece
from izett.pattern.sound import fault_of
from izett.pattern.working import Working
from izett.recipe.model import Step
from izett.styling.operation import Outcome
from izett.wording import cm

#: What is said of a step that leaves everything as it was.
IDLE = "As the garment is now, this step changes nothing: give it an amount or another place, or remove it."


def unknown_words(step: Step) -> str:
    """Return the words of a step whose kind the program does not know."""
    return f"Unknown step “{step.kind}”"


def unknown(step: Step) -> UnknownName:
    """Return the refusal of a step of an unknown kind or a later version."""
    return UnknownName(
        f"This version of the program does not know the step “{step.kind}” (version {step.version}).",
        fix="It is kept and skipped; a newer version of the program can use it.",
        where=(step.kind,),
    )


def no_half(half: Half) -> StepRefused:
    """Return the refusal of a half by a step that has none."""
    return StepRefused(
        f"This step has no {half.value} half.",
        fix="Set it to both halves.",
        where=(half.value,),
    )


def whole_refused(half: Half, piece: Piece) -> StepRefused:
    """Return the refusal of a step for a piece that lies over both halves."""
    if half is Half.BOTH:
        return StepRefused(
            f"{piece.title} is one piece over both halves, and this step would change it differently from either half.",
            fix="Put the step before the one that joined the halves, or set it to one side of the piece.",
            where=(piece.name,),
        )
    return StepRefused(
        f"{piece.title} is one piece over both halves: it has no {half.value} half any more.",
        fix="Set the step to both halves and point at the side of the piece that you mean, or put it before the unfolding.",
        where=(piece.name, half.value),
    )


def broke(fault: Exception) -> StepBroke:
    """Return the failure of a step that met a shape that nobody foresaw."""
    return StepBroke(
        f"This step cannot handle this shape ({type(fault).__name__}).",
        fix="Put the step earlier, or choose another place or amount. This is a fault in the program: please report it.",
    )


def undrawable() -> StepRefused:
    """Return the refusal of a step that asks for what no line can be drawn for."""
    return StepRefused(
        "What this step asks for cannot be drawn on this shape: two places fall into one, or no line can be so long.",
        fix="Use another amount, or choose another place.",
    )


def unsound(before: Working, outcome: Outcome) -> StepRefused | None:
    """Return the refusal of a step after which a piece could not be drawn, cut or kept, whichever step it is."""
    refusals = (unsound_piece(piece) for piece in outcome.garment.since(before)[1])
    return next((refusal for refusal in refusals if refusal is not None), None)


def unsound_piece(piece: Piece) -> StepRefused | None:
    """Return why a step that leaves this piece must be refused: it could not be drawn, cut or kept."""
    if (fault := fault_of(piece)) is not None:
        words = f"{fault.words[:1].upper()}{fault.words[1:]}"
        return StepRefused(words, fix=fault.fix, where=(piece.name, fault.where))
    if (spot := crossing(piece.outline(flatness=CROSSING_FLATNESS))) is not None:
        return StepRefused(
            f"The outline of the {piece.title.lower()} would cross itself near {cm(spot[0])} across, {cm(spot[1])} up.",
            fix="Use a smaller amount, or choose another place.",
            where=(piece.name,),
        )
    return None
