"""The outline of a piece that lies on a table of another tone, to a few hundredths of a cm.

First roughly: the table seen from above, its light evened out by its rim, and each spot told piece or table by where its
colour lies between the table's and the tapped one. Then finely: in a band along that outline, the edge is where the light
is half way between what lies within and without, nearby. Light is measured as light, not as a picture's tones: those would
move an edge by 0.1 to 0.2 mm.
"""

from collections.abc import Mapping as Map
from dataclasses import dataclass
from typing import Any

import cv2
import numpy as np
from contourpy import contour_generator
from numpy.typing import NDArray
from shapely.geometry import Polygon

from izett.tracing.mapping import Mapping, Picture, Spots, straightened
from izett.tracing.told import Why, refused

#: Pixels a cm of the first look and of the fine one.
COARSE, SHARP = 8.0, 25.0
#: Pixels of the fine look at most: a very large piece is looked at a little less finely, and stays within its memory.
MOST_SEEN = 7_000_000
#: cm. Nothing larger is looked over at once.
WIDEST = 250.0
#: cm. The fine edge lies within so much of the rough one; what lies nearer to it than the second is neither piece nor table.
BAND, UNSURE = 0.7, 0.15
#: cm. How far around a tap its colour is read, and how far around a printed sheet nothing is.
TAP, KEPT_OFF = 0.4, 0.3
#: The rim of the picture that shows the table, as a share of its shorter side.
RIM = 0.06
#: In logarithms of light: a tapped colour nearer than this to the table's is the table.
LEAST_TONE = 0.12
#: The contrast over the noise along the outline, of which nineteen twentieths lie above.
LEAST_CONTRAST = 8.0
#: Spots of a line that closes on nothing.
LEAST_SPOTS = 8
#: cm². Smaller things are no piece.
LEAST_AREA = 4.0
#: The exponent of a picture's tones.
GAMMA = 2.2

Grey = NDArray[Any]


@dataclass(frozen=True)
class Seen:
    """An outline as seen.

    Attributes:
        ring: n × 2, cm on the table, without the first spot again at its end.
        contrast: of the edge over the noise, at its weakest twentieth.
    """

    ring: Spots
    contrast: float


def outline(picture: Picture, mapping: Mapping, tap: Spots, sheets: Map[int, Spots]) -> Seen:
    """Return the outline of the piece that was tapped.

    Args:
        picture: as taken.
        mapping: of the picture.
        tap: a spot on the piece, cm on the table.
        sheets: what else lies there: the corners of each sheet's paper.

    Raises:
        PictureRefused: no piece, too little contrast, or one that touches a sheet or the picture's edge.
    """
    rough = _rough(picture, mapping, tap, sheets)
    return _sharp(picture, mapping, rough)


def light_of(picture: Picture) -> Grey:
    """Return the light of a picture's tones, 0 to 1."""
    table = ((np.arange(256) / 255) ** GAMMA).astype(np.float32)
    return np.asarray(table[picture], np.float32)


def _rough(picture: Picture, mapping: Mapping, tap: Spots, sheets: Map[int, Spots]) -> Polygon:
    high, wide = picture.shape[:2]
    rim = np.array(
        [[0, 0], [wide / 2, 0], [wide, 0], [wide, high / 2], [wide, high], [wide / 2, high], [0, high], [0, high / 2]]
    )
    spots = mapping.spots(np.clip(rim, 0, (wide - 1, high - 1)))
    low, top = spots.min(axis=0), spots.max(axis=0)
    middle = (low + top) / 2
    low, top = np.maximum(low, middle - WIDEST / 2), np.minimum(top, middle + WIDEST / 2)
    size = tuple(int(n) for n in np.ceil((top - low) * COARSE))
    seen = light_of(straightened(picture, mapping, low, (size[0], size[1]), COARSE))
    on_picture = _filled(mapping.spots(_around(wide, high)), low, COARSE, seen.shape[:2])
    paper = np.zeros(seen.shape[:2], np.uint8)
    for corners in sheets.values():
        paper |= _filled(np.asarray(Polygon(corners).buffer(KEPT_OFF).exterior.coords), low, COARSE, seen.shape[:2])
    tone = np.log(cv2.GaussianBlur(seen, (0, 0), 0.7) + 0.004)
    near = max(3, int(RIM * min(size)))
    inner = cv2.erode(on_picture, np.ones((2 * near + 1, 2 * near + 1), np.uint8), borderValue=0)
    even = tone - _table_tone(tone, (on_picture > 0) & (inner == 0) & (paper == 0))
    y, x = np.mgrid[0 : size[1], 0 : size[0]]
    spot = (np.asarray(tap) - low) * COARSE
    here = np.hypot(x - spot[0], y - spot[1]) <= TAP * COARSE
    if not here.any() or paper[here].any():
        raise refused(Why.NO_PIECE, "There is no piece where it was tapped.", "Tap the middle of the piece.")
    tapped = np.median(even[here], axis=0)
    if np.linalg.norm(tapped) < LEAST_TONE:
        raise refused(
            Why.FAINT,
            "Where it was tapped it looks like the table.",
            "Tap the piece itself. If you did, lay it on a darker or plainer table, in even light.",
        )
    share = even @ (tapped / float(tapped @ tapped))
    mask = ((share > 0.5) & (paper == 0) & (on_picture > 0)).astype(np.uint8)
    mask = cv2.morphologyEx(mask, cv2.MORPH_OPEN, np.ones((3, 3), np.uint8))
    return _component(mask, spot, low, paper, on_picture)


def _around(wide: int, high: int) -> Spots:
    """Return places close together along a picture's edge."""
    t = np.linspace(0, 1, 24, endpoint=False)
    w, h = wide - 1, high - 1
    return np.vstack(
        [np.c_[t * w, 0 * t], np.c_[0 * t + w, t * h], np.c_[w - t * w, 0 * t + h], np.c_[0 * t, h - t * h]]
    )


def _filled(ring: Spots, low: Spots, scale: float, shape: tuple[int, ...]) -> NDArray[Any]:
    mask = np.zeros(shape[:2], np.uint8)
    cv2.fillPoly(mask, [np.rint(((ring - low) * scale - 0.5) * 16).astype(np.int32)], 1, shift=4)
    return mask


def _table_tone(tone: Grey, rim: NDArray[Any]) -> Grey:
    """Return what tone the table has everywhere, by a plain bend of its light through the rim."""
    y, x = np.nonzero(rim)
    if len(x) < 50:
        raise refused(Why.NO_PIECE, "Too little of the table is in the picture.", "Leave some table around the sheets.")
    high, wide = tone.shape[:2]
    some = np.linspace(0, len(x) - 1, min(len(x), 6000)).astype(int)
    x, y = x[some], y[some]

    def terms(x: Spots, y: Spots) -> Spots:
        u, v = x / wide - 0.5, y / high - 0.5
        return np.stack([np.ones_like(u), u, v, u * u, u * v, v * v], axis=-1)

    a, b = terms(x.astype(float), y.astype(float)), tone[y, x].astype(float)
    weight = np.ones(len(x))
    fit = np.zeros((6, 3))
    for _ in range(6):
        fit = np.linalg.lstsq(a * weight[:, None], b * weight[:, None], rcond=None)[0]
        off = np.linalg.norm(a @ fit - b, axis=1)
        spread = max(float(np.median(off)), 1e-3)
        weight = 1 / np.maximum(1.0, off / (2 * spread))
    yy, xx = np.mgrid[0:high, 0:wide]
    return np.asarray(terms(xx.astype(float), yy.astype(float)) @ fit, np.float32)


def _component(mask: NDArray[Any], spot: Spots, low: Spots, paper: NDArray[Any], on_picture: NDArray[Any]) -> Polygon:
    _, labels = cv2.connectedComponents(mask, connectivity=4)
    around = labels[max(0, int(spot[1]) - 3) : int(spot[1]) + 4, max(0, int(spot[0]) - 3) : int(spot[0]) + 4].ravel()
    around = around[around > 0]
    if not len(around):
        raise refused(Why.NO_PIECE, "There is no piece where it was tapped.", "Tap the middle of the piece.")
    piece = (labels == np.bincount(around).argmax()).astype(np.uint8)
    contours, _ = cv2.findContours(piece, cv2.RETR_EXTERNAL, cv2.CHAIN_APPROX_NONE)
    ring = max(contours, key=cv2.contourArea).reshape(-1, 2)
    grown = cv2.dilate(piece, np.ones((3, 3), np.uint8))
    if (grown & (1 - on_picture)).any() or ring.min() <= 0 or (ring >= np.array(mask.shape[::-1]) - 1).any():
        raise refused(
            Why.AT_THE_EDGE,
            "The piece, or what has its colour, runs over the picture's edge.",
            "Have the whole piece in the picture with table all around it, on a table of another tone.",
        )
    if cv2.dilate(piece, np.ones((5, 5), np.uint8))[paper > 0].any():
        raise refused(
            Why.AT_A_SHEET,
            "The piece touches a printed sheet, or the table is as bright as the piece.",
            "Leave a finger's breadth of table between the piece and each sheet; choose a darker or plainer table.",
        )
    shape = Polygon((ring + 0.5) / COARSE + low).buffer(0)
    if shape.geom_type != "Polygon":
        shape = max(shape.geoms, key=lambda part: part.area)
    if shape.area < LEAST_AREA:
        raise refused(Why.NO_PIECE, "What was tapped is too small to be a piece.", "Tap the middle of the piece.")
    return shape


def _sharp(picture: Picture, mapping: Mapping, rough: Polygon) -> Seen:
    x0, y0, x1, y1 = rough.bounds
    low = np.array([x0, y0]) - 2 * BAND
    wide, high = np.array([x1, y1]) + 2 * BAND - low
    sharp = min(SHARP, float(np.sqrt(MOST_SEEN / (wide * high))))
    size = np.ceil(np.array([wide, high]) * sharp).astype(int)
    light = light_of(straightened(picture, mapping, low, (int(size[0]), int(size[1])), sharp))
    inside = _filled(np.asarray(rough.exterior.coords), low, sharp, light.shape)
    far = cv2.distanceTransform(inside, cv2.DIST_L2, 5) - cv2.distanceTransform(1 - inside, cv2.DIST_L2, 5)
    band = int(BAND * sharp)
    within, without = far > UNSURE * sharp, far < -UNSURE * sharp
    piece, noise_in = _nearby(light, within & (far < 2 * band), band)
    table, noise_out = _nearby(light, without & (far > -2 * band), band)
    way = piece - table
    contrast = np.linalg.norm(way, axis=-1)
    level = ((light - (piece + table) / 2) * way).sum(axis=-1) / np.maximum(contrast * contrast, 1e-6)
    # Beyond the band it is known what is piece and what is table: marks on the piece are no edge.
    level = np.where(far > band, 0.5, np.where(far < -band, -0.5, level))
    lines = contour_generator(z=level.astype(np.float64)).lines(0.0)
    rings = [np.asarray(line, float) for line in lines]
    closed = [line for line in rings if len(line) > LEAST_SPOTS and np.allclose(line[0], line[-1])]
    if not closed:
        raise _faint()
    ring = max(closed, key=lambda line: abs(_area(line)))
    spots = (ring[:-1] + 0.5) / sharp + low
    at = np.rint(ring[:-1]).astype(int)
    clear = contrast[at[:, 1], at[:, 0]] / np.maximum(np.maximum(noise_in, noise_out)[at[:, 1], at[:, 0]], 1e-4)
    weakest = float(np.percentile(clear, 5))
    if weakest < LEAST_CONTRAST:
        raise _faint(weakest)
    return Seen(spots, weakest)


def _nearby(light: Grey, of: NDArray[Any], band: int) -> tuple[Grey, Grey]:
    """Return the mean light and its scatter, over those pixels near each pixel that a mask has."""
    side = (2 * band + 1, 2 * band + 1)
    weight = of.astype(np.float32)
    count = np.maximum(cv2.boxFilter(weight, -1, side, normalize=False), 1e-3)
    mean = cv2.boxFilter(light * weight[..., None], -1, side, normalize=False) / count[..., None]
    grey = light.mean(axis=-1)
    about = mean.mean(axis=-1)
    square = cv2.boxFilter(grey * grey * weight, -1, side, normalize=False) / count
    return np.asarray(mean, np.float32), np.sqrt(np.maximum(square - about * about, 0))


def _area(ring: Spots) -> float:
    x, y = ring[:, 0], ring[:, 1]
    return float((x * np.roll(y, -1) - y * np.roll(x, -1)).sum() / 2)


def _faint(contrast: float | None = None) -> Exception:
    told = "" if contrast is None else f" ({contrast:.0f} times its noise; {LEAST_CONTRAST:.0f} are needed)"
    return refused(
        Why.FAINT,
        f"The piece stands out too little from the table{told}.",
        "Lay it on a darker or plainer table, in even light, its plain side up.",
    )
