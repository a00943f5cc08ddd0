"""What is known of a picture's scale, and tracing by it: sheets, two points, a rectangle, or a grid."""

from dataclasses import dataclass

import cv2
import numpy as np

from izett.progress import Progress, untold
from izett.tracing.mapping import Mapping, Picture
from izett.tracing.scales import Gridded, by_grid, by_rectangle, by_two_points
from izett.tracing.sheets import BAR
from izett.tracing.told import PictureRefused, Why, refused
from izett.tracing.trace import Trace, traced_flat, traced_photo

#: A bar that was printed by more than this share otherwise is misread.
BAR_OFF = 0.1
#: How many spots and lengths each way takes.
ASKED = {"points": (2, 1), "rectangle": (4, 2), "grid": (1, 1)}
#: Squares that a piece may reach beyond the grid that was read.
BEYOND = 1.5
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
    """

    by: str = "sheets"
    paper: str = "a4"
    bar: float = BAR
    spots: tuple[tuple[float, float], ...] = ()
    lengths: tuple[float, ...] = ()


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


def traced(picture: Picture, tap: tuple[float, float], known: Known, *, progress: Progress = untold) -> Trace:
    """Return what a picture comes to.

    Raises:
        PictureRefused: nothing can be measured in it, or no piece is found; its reason is told.
    """
    if known.by != "sheets":
        mapping = mapping_of(picture, known)
        found = traced_flat(picture, mapping, tap, progress=progress)
        if isinstance(mapping, Gridded):
            _refuse_beyond(mapping, found)
        return found
    if abs(known.bar / BAR - 1) > BAR_OFF:
        raise refused(
            Why.WRONG_SIZE,
            f"The bar was read as {known.bar:g} cm; it is drawn {BAR:g} cm long.",
            "Measure it again; if that is what it is, print the sheets at 100 %.",
        )
    return traced_photo(picture, tap, paper=known.paper, bar=known.bar / BAR, progress=progress)


def _refuse_beyond(grid: Gridded, found: Trace) -> None:
    """Let pass a piece that lies within the grid as far as it was read: beyond it a page's curl is anybody's guess."""
    spots = np.array([(x, -y) for line in found.lines for x, y in line.curve.flattened()]) / grid.square
    beyond = float(max((grid.low - spots).max(), (spots - grid.high).max()))
    if beyond > BEYOND:
        raise refused(
            Why.NO_GRID,
            f"The piece reaches {beyond:.0f} squares beyond the part of the grid that can be read.",
            "Take the page flatter and larger in the picture; or tell the scale by four corners.",
        )
