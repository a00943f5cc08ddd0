"""What is known of a picture's scale, and looking at it by that: sheets, two points, a rectangle, or a grid."""

from collections.abc import Sequence
from dataclasses import dataclass

import cv2
import numpy as np

from izett.progress import Progress, untold
from izett.tracing.calibration import TOLD_SHARE
from izett.tracing.look import Look, look_at_flat, look_at_photo
from izett.tracing.mapping import Mapping, Picture
from izett.tracing.scales import LEAST_APART, Gridded, by_grid, by_rectangle, by_two_points
from izett.tracing.sheets import BAR
from izett.tracing.told import PictureRefused, Why, refused
from izett.wording import cm

#: A bar that was printed by more than this share otherwise is misread.
BAR_OFF = 0.1
#: How many spots and lengths each way takes.
ASKED = {"points": (2, 1), "rectangle": (4, 2), "grid": (1, 1)}
#: Squares that a piece may reach beyond the grid that was read.
BEYOND = 1.5
#: cm. A tape in the picture is measured over so much at least, best over so much.
LEAST_TAPE, USUAL_TAPE = 20.0, 50.0
#: Pixels of a picture that are looked at.
MOST_PIXELS = 60_000_000


@dataclass(frozen=True)
class Known:
    """What tells the scale.

    Attributes:
        by: `sheets`, `points`, `rectangle` or `grid`.
        paper: what the sheets were printed on.
        bar: what a ruler reads on their bar, cm.
        spots: clicked pixels: two points, four corners, or a place in the grid.
        lengths: cm: between the points; the rectangle's width and height; a square of the grid.
        thick: how thick a piece among sheets is, cm.
    """

    by: str = "sheets"
    paper: str = "a4"
    bar: float = BAR
    spots: tuple[tuple[float, float], ...] = ()
    lengths: tuple[float, ...] = ()
    thick: float = 0.0


def picture_from(content: bytes) -> Picture:
    """Return a picture file's pixels: blue, green, red; upright as its camera says.

    Raises:
        PictureRefused: it is no picture that can be read, or has too many pixels.
    """
    from io import BytesIO  # noqa: PLC0415

    from PIL import Image, ImageOps, UnidentifiedImageError  # noqa: PLC0415

    try:
        opened = Image.open(BytesIO(content), formats=("JPEG", "PNG", "WEBP"))
        wide, high = opened.size
        if wide * high > MOST_PIXELS:
            raise refused(
                Why.COARSE, f"The picture has {wide:,} × {high:,} pixels: more than are looked at.", "Send it smaller."
            )
        upright = ImageOps.exif_transpose(opened).convert("RGB")
    except PictureRefused:
        raise
    except (UnidentifiedImageError, OSError, ValueError, SyntaxError, Image.DecompressionBombError) as error:
        raise refused(Why.NO_PIECE, "This is no picture that can be read.", "Send a JPEG, PNG or WebP.") from error
    return np.asarray(cv2.cvtColor(np.asarray(upright), cv2.COLOR_RGB2BGR), np.uint8)


def mapping_of(picture: Picture, known: Known) -> Mapping:
    """Return how a picture and the table hang together by points, a rectangle or a grid.

    Raises:
        PictureRefused: what is known tells no scale.
    """
    spots, lengths = ASKED[known.by]
    if len(known.spots) != spots or len(known.lengths) != lengths:
        raise refused(
            Why.POINTS,
            f"{len(known.spots)} places and {len(known.lengths)} lengths were given; {spots} and {lengths} are needed.",
            "Click each place, and type its length.",
        )
    if known.by == "points":
        return by_two_points(picture, known.spots, known.lengths[0])
    if known.by == "rectangle":
        return by_rectangle(picture, known.spots, known.lengths[0], known.lengths[1])
    return by_grid(picture, known.spots[0], known.lengths[0])


def look_at(picture: Picture, tap: tuple[float, float], known: Known, *, progress: Progress = untold) -> Look:
    """Return what a picture shows.

    Raises:
        PictureRefused: nothing can be measured in it, or no piece is found; its reason is told.
    """
    if known.by != "sheets":
        mapping = mapping_of(picture, known)
        found = look_at_flat(picture, mapping, tap, progress=progress)
        if isinstance(mapping, Gridded):
            _refuse_beyond(mapping, found)
        return found
    if abs(known.bar / BAR - 1) > BAR_OFF:
        raise refused(
            Why.WRONG_SIZE,
            f"The bar was read as {known.bar:g} cm; it is drawn {BAR:g} cm long.",
            "Measure it again; if that is what it is, print the sheets at 100 %.",
        )
    return look_at_photo(picture, tap, paper=known.paper, bar=known.bar / BAR, thick=known.thick, progress=progress)


def _refuse_beyond(grid: Gridded, found: Look) -> None:
    """Let pass a piece that lies within the grid as far as it was read: beyond it a page's curl is anybody's guess."""
    spots = found.read.places / grid.square
    beyond = float(max((grid.low - spots).max(), (spots - grid.high).max()))
    if beyond > BEYOND:
        raise refused(
            Why.NO_GRID,
            f"The piece reaches {beyond:.0f} squares beyond the part of the grid that can be read.",
            "Take the page flatter and larger in the picture; or tell the scale by four corners.",
        )


@dataclass(frozen=True)
class Taped:
    """A known length in a picture that took no part in its scale, beside what it is measured as there, cm."""

    known: float
    measured: float

    @property
    def agrees(self) -> bool:
        """Whether the picture measures it as truly as it promises."""
        return abs(self.measured / self.known - 1) <= TOLD_SHARE


def taped(mapping: Mapping, ends: Sequence[tuple[float, float]], known: float) -> Taped:
    """Return how a picture measures a tape that lies in it, from two clicks on it.

    Raises:
        PictureRefused: the places lie too near to each other to check anything by.
    """
    first, last = np.array(ends, float)
    if known < LEAST_TAPE or np.linalg.norm(last - first) < LEAST_APART:
        raise refused(
            Why.POINTS,
            f"A tape of {cm(known)} checks nothing: a click alone is that rough.",
            f"Click two lines of the tape at least {cm(LEAST_TAPE)} apart; {cm(USUAL_TAPE)} is best.",
        )
    return Taped(known, float(np.linalg.norm(np.subtract(*mapping.spots(np.array([last, first]))))))
