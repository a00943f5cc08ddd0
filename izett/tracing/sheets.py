"""The sheets that tell a photo its scale: four of them, printed, laid around the piece.

Each is a board of checkers with square markers in its white fields, no two sheets with a marker in common. The markers tell
which sheet and which corner it is; the corners of the checkers are found to a few hundredths of a pixel.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache
from types import MappingProxyType
from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray

#: How many sheets there are, and how many are needed at least.
SHEETS, NEEDED = 4, 3
#: Checkers across and down, cm a side of them and of the markers within them: 18 × 24 cm lie on A4 and Letter alike.
ACROSS, DOWN = 6, 8
SQUARE, MARKER = 3.0, 2.25
WIDE, HIGH = ACROSS * SQUARE, DOWN * SQUARE
MARKERS = ACROSS * DOWN // 2
#: cm. The bar beside the checkers that is measured with a ruler.
BAR = 20.0
#: The papers they are printed on, width and height, cm.
PAPERS: Mapping[str, tuple[float, float]] = MappingProxyType({"a4": (21.0, 29.7), "letter": (21.59, 27.94)})


@dataclass(frozen=True)
class Sheet:
    """One of the sheets, in its own frame: cm from the top left corner of its checkers, y down.

    Attributes:
        number: 1 to 4.
        markers: by their numbers, their four corners.
        saddles: where four checkers meet.
    """

    number: int
    markers: Mapping[int, NDArray[Any]]
    saddles: NDArray[Any]


@cache
def dictionary() -> "cv2.aruco.Dictionary":
    """Return the markers that the sheets take theirs from."""
    return cv2.aruco.getPredefinedDictionary(cv2.aruco.DICT_4X4_250)


@cache
def _board(number: int) -> "cv2.aruco.CharucoBoard":
    first = (number - 1) * MARKERS
    return cv2.aruco.CharucoBoard((ACROSS, DOWN), SQUARE, MARKER, dictionary(), np.arange(first, first + MARKERS))


@cache
def sheet(number: int) -> Sheet:
    """Return a sheet by its number."""
    board = _board(number)
    corners = np.asarray(board.getObjPoints(), float)[:, :, :2]
    markers = dict(zip((int(i) for i in np.ravel(board.getIds())), corners, strict=True))
    return Sheet(number, MappingProxyType(markers), np.asarray(board.getChessboardCorners(), float)[:, :2])


def all_sheets() -> tuple[Sheet, ...]:
    """Return all sheets."""
    return tuple(sheet(number) for number in range(1, SHEETS + 1))


def picture_of(number: int, px_per_cm: int) -> NDArray[Any]:
    """Return the checkers of a sheet as a picture: black 0, white 255.

    Args:
        number: the sheet.
        px_per_cm: a multiple of 8, so that every edge of a marker lies between two pixels.
    """
    drawn = _board(number).generateImage((round(WIDE * px_per_cm), round(HIGH * px_per_cm)), marginSize=0)
    return np.asarray(drawn, np.uint8)
