"""Calibrating a photo by the printed sheets in it, and telling how far that can be trusted.

All sheets are solved for together: one plane, one bend of the lens, and where each further sheet lies. Each sheet is then
left out in turn and measured by the others: what comes out is what the photo is good for, found by lengths that took no part
in its scale.
"""

from collections.abc import Mapping as Map
from collections.abc import Sequence
from dataclasses import dataclass
from math import cos, degrees, sin

import cv2
import numpy as np
from scipy.optimize import least_squares

from izett.tracing.mapping import USUAL_FOCAL, Flat, Picture, Spots, middle_of, scale_at, through
from izett.tracing.sheets import HIGH, NEEDED, PAPERS, SQUARE, WIDE, Sheet, all_sheets, dictionary
from izett.tracing.told import Why, refused
from izett.wording import cm

#: Of the finder of markers: the one window in which pixels are told black or white, and the smallest marker, as a share of the picture.
WINDOW, WINDOW_CONSTANT, SMALLEST = 23, 15, 0.015
#: A saddle is sought within so much of a checker, and taken where it lies within so much (cm) of its sheet's plane.
SOUGHT, TAKEN = 0.11, 0.06
#: A sheet is known by so many saddles.
LEAST_SADDLES = 12
#: How far a lens usually bends, pixels that a saddle is usually off, and from where on it counts less.
USUAL_BEND, USUAL_OFF, SOFT = 0.06, 0.05, 4.0
#: Pixels: a sheet whose saddles lie further off, by their root mean square, is not flat.
NOT_FLAT = 0.6
#: Shares and cm by which a sheet, measured by the others, may differ: told from the first on, refused from the second.
TOLD_SHARE, REFUSED_SHARE = 0.0025, 0.008
TOLD_OFF, REFUSED_OFF = 0.06, 0.15
#: Pixels a cm that are needed, degrees of tilt that are allowed.
LEAST_SCALE, MOST_TILT = 14.0, 32.0
#: Sheets all on one side: their middles lie within so much of one line, as a share of how far they reach.
ON_ONE_LINE = 0.12


@dataclass(frozen=True)
class Found:
    """A sheet that was found: its number, its saddles in its own frame and in the picture."""

    sheet: Sheet
    spots: Spots
    pixels: Spots


@dataclass(frozen=True)
class Calibrated:
    """A photo whose scale is known.

    Attributes:
        mapping: from the table to the picture.
        sheets: the corners of each sheet's paper on the table.
        off: cm that the worst corner of a sheet lies off where the other sheets say, each sheet left out in turn.
        share: by which share its size differs then, at worst.
        residual: pixels that saddles lie off, root mean square.
        tilt: of the camera, degrees.
    """

    mapping: Flat
    sheets: Map[int, Spots]
    off: float
    share: float
    residual: float
    tilt: float

    @property
    def doubtful(self) -> bool:
        """Whether it is told that the calibration is rough."""
        return self.off > TOLD_OFF or self.share > TOLD_SHARE


def found_sheets(picture: Picture) -> list[Found]:
    """Return the sheets that a picture shows, with their saddles to a few hundredths of a pixel."""
    grey = cv2.cvtColor(picture, cv2.COLOR_BGR2GRAY)
    asked = cv2.aruco.DetectorParameters()
    asked.adaptiveThreshWinSizeMin = asked.adaptiveThreshWinSizeMax = WINDOW
    asked.adaptiveThreshConstant = WINDOW_CONSTANT
    asked.minMarkerPerimeterRate = SMALLEST
    corners, ids, _ = cv2.aruco.ArucoDetector(dictionary(), asked).detectMarkers(grey)
    seen = (
        {}
        if ids is None
        else {int(i): np.asarray(c, float).reshape(4, 2) for i, c in zip(np.ravel(ids), corners, strict=True)}
    )
    found = (_saddles(grey, sheet, seen) for sheet in all_sheets())
    return [one for one in found if one is not None]


def _saddles(grey: Picture, sheet: Sheet, seen: Map[int, Spots]) -> Found | None:
    known = [i for i in sheet.markers if i in seen]
    if len(known) < 4:
        return None
    own = np.vstack([sheet.markers[i] for i in known])
    plane, _ = cv2.findHomography(own, np.vstack([seen[i] for i in known]), cv2.RANSAC, 3.0)
    if np.size(plane) != 9:
        return None
    guess = through(np.asarray(plane, float), sheet.saddles)
    a_square = np.linalg.norm(
        through(np.asarray(plane, float), sheet.saddles + np.array([SQUARE, 0.0])) - guess, axis=1
    )
    high, wide = grey.shape
    room = int(max(3, np.median(a_square) * SOUGHT))
    inside = ((guess > room + 2) & (guess < np.array([wide, high]) - room - 3)).all(axis=1)
    if inside.sum() < LEAST_SADDLES:
        return None
    stop = (cv2.TERM_CRITERIA_EPS + cv2.TERM_CRITERIA_MAX_ITER, 60, 0.001)
    sharp = cv2.cornerSubPix(grey, guess[inside].astype(np.float32).reshape(-1, 1, 2), (room, room), (-1, -1), stop)
    pixels = np.asarray(sharp, float).reshape(-1, 2)
    back, kept = cv2.findHomography(pixels, sheet.saddles[inside], cv2.RANSAC, TAKEN)
    if np.size(back) != 9:
        return None
    taken = np.ravel(kept).astype(bool)
    if taken.sum() < LEAST_SADDLES:
        return None
    return Found(sheet, sheet.saddles[inside][taken], pixels[taken])


def calibrated(picture: Picture, *, paper: str = "a4", bar: float = 1.0) -> Calibrated:
    """Return a photo's calibration.

    Args:
        picture: as taken.
        paper: what the sheets were printed on: a key of `PAPERS`.
        bar: by which share the sheets were printed larger than drawn, as a ruler on their bar tells.

    Raises:
        PictureRefused: too few sheets, one that is not flat or printed otherwise, too few pixels, or too skewed.
    """
    found = found_sheets(picture)
    _refuse_too_few(found)
    middle, half = middle_of(picture)
    solved = _Solved(found, middle, half, bar)
    worst = max(found, key=solved.residual)
    residual = solved.residual(worst)
    off, share = 0.0, 0.0
    for left in found:
        others = [one for one in found if one is not left]
        one_off, one_share = _measured_by(_Solved(others, middle, half, bar).mapping, left, bar)
        off, share = max(off, one_off), max(share, abs(one_share))
    mapping = solved.mapping
    number = worst.sheet.number
    if share > REFUSED_SHARE or off > REFUSED_OFF:
        raise refused(
            Why.WRONG_SIZE,
            f"The sheets do not agree: sheet {number} is off by up to {share * 100:.1f} % or {cm(off, 2)} where the others measure it.",
            "Look whether all four were printed at the same scale and lie flat; print that sheet again.",
        )
    if residual > NOT_FLAT:
        raise refused(
            Why.NOT_FLAT,
            f"Sheet {number} does not lie flat: its checkers are {residual:.1f} pixels off a plane.",
            "Press it flat, or tape its corners down, and take the photo again.",
        )
    spots = {one.sheet.number: solved.corners(one, PAPERS[paper]) for one in found}
    _refuse_one_side(spots)
    tilt = _tilt(mapping, spots)
    if tilt > MOST_TILT:
        raise refused(
            Why.SKEWED,
            f"The camera was tilted by {tilt:.0f}°; up to {MOST_TILT:.0f}° can be measured in.",
            "Hold it straight above the middle of the piece, and take the photo again.",
        )
    _refuse_coarse(mapping, spots)
    return Calibrated(mapping, spots, off, share, residual, tilt)


def _refuse_too_few(found: Sequence[Found]) -> None:
    if len(found) < NEEDED:
        seen = " and ".join(str(one.sheet.number) for one in found) or "none"
        raise refused(
            Why.FEW_SHEETS,
            f"Of the four sheets {len(found)} can be read ({seen}); {NEEDED} are needed.",
            "Lay all four around the piece, flat, none covered or cut off by the picture's edge, and without glare on them.",
        )


def _refuse_one_side(sheets: Map[int, Spots]) -> None:
    middles = np.array([corners.mean(axis=0) for corners in sheets.values()])
    reach = np.linalg.svd(middles - middles.mean(axis=0), compute_uv=False)
    if reach[1] < ON_ONE_LINE * reach[0]:
        raise refused(
            Why.ONE_SIDE,
            "The sheets that can be read lie on one side of the piece.",
            "Lay them around it, one at each corner.",
        )


def _refuse_coarse(mapping: Flat, sheets: Map[int, Spots]) -> None:
    scale = min(scale_at(mapping, corners.mean(axis=0)) for corners in sheets.values())
    if scale < LEAST_SCALE:
        raise refused(
            Why.COARSE,
            f"The picture has {scale:.0f} pixels a cm; {LEAST_SCALE:.0f} are needed.",
            "Go nearer (80 to 140 cm), or send the original file: at least 3,000 pixels long.",
        )


def _tilt(mapping: Flat, sheets: Map[int, Spots]) -> float:
    """Return how far a camera was tilted, degrees, where its lens is a telephone's main one."""
    middle = np.vstack(list(sheets.values())).mean(axis=0)
    axes = mapping.plane @ np.array([[1, 0, middle[0]], [0, 1, middle[1]], [0, 0, 1.0]])
    seen = axes[:, :2] / np.array([[USUAL_FOCAL], [USUAL_FOCAL], [1.0]])
    normal = np.cross(seen[:, 0], seen[:, 1])
    return degrees(float(np.arccos(min(1.0, abs(normal[2]) / float(np.linalg.norm(normal))))))


class _Solved:
    """Sheets solved for together: the plane, the bend, and where each but the first lies."""

    def __init__(self, found: Sequence[Found], middle: tuple[float, float], half: float, bar: float) -> None:
        self.found = sorted(found, key=lambda one: -len(one.spots))
        self.middle, self.half, self.bar = middle, half, bar
        first, *others = self.found
        flat, _ = cv2.findHomography(first.spots * bar, (first.pixels - middle) / half, 0)
        start = Flat(np.asarray(flat, float) / flat[2, 2], 0.0, middle, half)
        placed = [_placed(one.spots * bar, start.spots(one.pixels)) for one in others]
        x0 = np.concatenate([start.plane.ravel()[:8], [0.0], *placed])
        answer = least_squares(self._residuals, x0, loss="soft_l1", f_scale=SOFT, x_scale="jac", method="trf")
        self.numbers = np.asarray(answer.x, float)

    @property
    def mapping(self) -> Flat:
        return self._mapping(self.numbers)

    def _mapping(self, numbers: Spots) -> Flat:
        return Flat(np.append(numbers[:8], 1.0).reshape(3, 3), float(numbers[8]), self.middle, self.half)

    def _place(self, numbers: Spots, one: Found, spots: Spots) -> Spots:
        i = next(i for i, other in enumerate(self.found) if other is one)
        return spots * self.bar if i == 0 else _moved(numbers[9 + 3 * (i - 1) : 12 + 3 * (i - 1)], spots * self.bar)

    def _residuals(self, numbers: Spots) -> Spots:
        mapping = self._mapping(numbers)
        off = [mapping.pixels(self._place(numbers, one, one.spots)) - one.pixels for one in self.found]
        return np.append(np.vstack(off).ravel() / USUAL_OFF, numbers[8] / USUAL_BEND)

    def residual(self, one: Found) -> float:
        """Return how far a sheet's saddles lie off, pixels, root mean square."""
        off = self.mapping.pixels(self._place(self.numbers, one, one.spots)) - one.pixels
        return float(np.sqrt((off * off).sum(axis=1).mean()))

    def corners(self, one: Found, paper: tuple[float, float]) -> Spots:
        """Return where the corners of a sheet's paper lie on the table: its checkers are printed in the middle of it."""
        x, y = (paper[0] - WIDE) / 2, (paper[1] - HIGH) / 2
        return self._place(
            self.numbers, one, np.array([[-x, -y], [WIDE + x, -y], [WIDE + x, HIGH + y], [-x, HIGH + y]])
        )


def _moved(place: Spots, spots: Spots) -> Spots:
    """Return spots moved by a shift and a turn."""
    x, y, turn = place
    c, s = cos(turn), sin(turn)
    return np.asarray(spots @ np.array([[c, s], [-s, c]]) + (x, y))


def _placed(own: Spots, table: Spots) -> Spots:
    """Return the shift and turn that bring spots nearest to others: x, y, radians."""
    a, b = own - own.mean(axis=0), table - table.mean(axis=0)
    turn = float(np.arctan2((a[:, 0] * b[:, 1] - a[:, 1] * b[:, 0]).sum(), (a * b).sum()))
    x, y = table.mean(axis=0) - _moved(np.array([0.0, 0.0, turn]), own.mean(axis=0)[None])[0]
    return np.array([x, y, turn])


def _measured_by(mapping: Flat, left: Found, bar: float) -> tuple[float, float]:
    """Return how far (cm) the worst saddle of a sheet lies off, and by which share it is larger, where a mapping measures it."""
    own, seen = left.spots * bar, mapping.spots(left.pixels)
    a, b = own - own.mean(axis=0), seen - seen.mean(axis=0)
    share = float(np.sqrt((b * b).sum() / (a * a).sum()) - 1)
    off = np.linalg.norm(_moved(_placed(own, seen), own) - seen, axis=1)
    return float(off.max()), share
