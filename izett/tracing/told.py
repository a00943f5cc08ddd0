"""Why a picture is not good enough, in numbers, and what to do about it."""

from enum import StrEnum

from izett.errors import IzettError


class PictureRefused(IzettError):
    """A picture that nothing can be measured in, or nothing is found in."""

    code = "picture-refused"


class Why(StrEnum):
    """The reasons, by name: what a caller may tell apart."""

    FEW_SHEETS = "few-sheets"
    ONE_SIDE = "sheets-on-one-side"
    NOT_FLAT = "sheet-not-flat"
    WRONG_SIZE = "sheet-wrong-size"
    COARSE = "too-few-pixels"
    SKEWED = "too-skewed"
    FAINT = "too-little-contrast"
    NO_PIECE = "no-piece"
    AT_THE_EDGE = "piece-at-the-edge"
    AT_A_SHEET = "piece-at-a-sheet"
    RAGGED = "ragged"
    CORNERS = "too-few-corners"
    NO_GRID = "no-grid"
    POINTS = "points"


def refused(why: Why, message: str, fix: str) -> PictureRefused:
    """Return the refusal to raise; it carries its reason beside the words."""
    return PictureRefused(message, fix=fix, where=(why.value,))
