"""One error class for each thing that a person can fix. A programmer's mistake is a ValueError instead.

Every error has a stable `code`, a `message` that names piece, value and unit, and `fix`: what to do about it.
"""

from collections.abc import Sequence
from pathlib import Path
from traceback import extract_tb

from izett.wording import plain

#: Places of a fault that are logged, the innermost last.
PLACES = 6


def place_of(fault: BaseException) -> str:
    """Return what a fault is and where it arose, for a log: nothing of what was worked on, which may be somebody's."""
    places = [f"{Path(frame.filename).name}:{frame.lineno}" for frame in extract_tb(fault.__traceback__)[-PLACES:]]
    return f"{type(fault).__name__} at {' > '.join(places)}"


class IzettError(Exception):
    """Something that the person at the table can put right.

    Attributes:
        code: stable, for programs.
        message: what is wrong and where, for people.
        fix: what to do, for people.
        where: the symbols or references concerned (measures to retake, pieces, edges).
    """

    code = "izett"

    def __init__(self, message: str, *, fix: str, where: Sequence[str] = ()) -> None:
        super().__init__(message)
        self.message = message
        self.fix = fix
        self.where = tuple(where)

    def __str__(self) -> str:
        return plain(f"{self.message} {self.fix}")


class UnreadableMeasure(IzettError):
    """A reading is not a length, or cannot be the length of anything on a body."""

    code = "unreadable-measure"


class UnknownName(IzettError):
    """A measure, block, step, check or allowance of that name does not exist."""

    code = "unknown-name"


class MissingMeasure(IzettError):
    """A draft needs a measure that was neither taken nor can be estimated from the others."""

    code = "missing-measure"


class ValueOutOfRange(IzettError):
    """An allowance or a parameter lies outside the range that makes sense for it."""

    code = "value-out-of-range"


class DraftRefused(IzettError):
    """The measures do not make a block; `where` names those to retake, most likely first."""

    code = "draft-refused"


class ReferenceLost(IzettError):
    """A step names a point, edge or dart that the pattern does not have (any more)."""

    code = "reference-lost"


class StepRefused(IzettError):
    """A step cannot act with these amounts on this pattern."""

    code = "step-refused"


class StepBroke(IzettError):
    """A step met a shape that it was not made for: a fault of the program, told so that nothing of the garment is lost."""

    code = "step-broke"


class UnreadableFile(IzettError):
    """A file is damaged, foreign, or of a newer version."""

    code = "unreadable-file"


class UnstatedUnit(IzettError):
    """A file has lengths and does not say what they are in; nothing is guessed, it is asked for."""

    code = "unit-not-stated"


class FormatNotWritten(IzettError):
    """The wished file format is not one of those that can be written."""

    code = "format-not-written"
