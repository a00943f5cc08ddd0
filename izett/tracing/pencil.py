"""Pencil marks on a traced piece: dots, crosses and dashes, as proposals that a person takes or leaves.

A mark is darker than the cloth around it, small, and shaped like one. Faint marks are missed and threads are taken for
marks: so nothing is taken by itself, and a click snaps to the nearest of them.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import hypot, pi, sqrt
from typing import Any

import cv2
import numpy as np
import shapely
from numpy.typing import NDArray

from izett.draping.panel import MarkKind
from izett.tracing.mapping import Mapping, Picture, Spots, straightened

#: Pixels a cm in which marks are sought, and how many cm of piece are looked at in one go.
SHARP, TILE = 30.0, 40.0
#: cm. The tone of the cloth is the middle one of so wide a neighbourhood.
AROUND = 1.6
#: How much darker than the cloth a mark is, in logarithms of light, at least; and how many times the cloth's own unevenness.
DARKER, OVER_NOISE = 0.10, 4.5
#: cm². The smallest and the largest mark.
SMALLEST, LARGEST = 0.018, 1.6
#: cm. Nearer to the edge than this lies its shadow.
OFF_EDGE = 0.25
#: How much longer than wide a dash is; how much of its ellipse a dot fills, and a cross does not.
DASH_LONGER, DOT_FILLS, CROSS_FILLS = 3.2, 0.80, 0.62
#: cm. A dot is no wider; a cross is no smaller.
DOT_WIDE, CROSS_WIDE = 0.6, 0.6
#: cm. A click takes the mark that lies so near.
SNAPS = 0.5
MOST_FOUND = 400


@dataclass(frozen=True)
class Ghost:
    """A mark that is proposed: what it is, where (cm on the table), how dark beside the cloth."""

    kind: MarkKind
    at: Spots
    strength: float


def pencil_marks(picture: Picture, mapping: Mapping, ring: Spots) -> list[Ghost]:
    """Return the marks on a piece, the darkest first; of more than anybody pencils, the darkest.

    Args:
        picture, mapping: as taken, and calibrated.
        ring: the outline of the piece, cm on the table.
    """
    inner = shapely.Polygon(ring).buffer(-OFF_EDGE)
    if inner.is_empty:
        return []
    x0, y0, x1, y1 = inner.bounds
    found: list[Ghost] = []
    for left in np.arange(x0, x1, TILE):
        for top in np.arange(y0, y1, TILE):
            # Tiles reach over each other by the neighbourhood, and each keeps the marks whose middle is its own.
            low = np.array([left, top]) - AROUND
            size = (int(min(TILE, x1 - left) + 2 * AROUND + 1), int(min(TILE, y1 - top) + 2 * AROUND + 1))
            for ghost in _in_tile(picture, mapping, low, size):
                own = left <= ghost.at[0] < left + TILE and top <= ghost.at[1] < top + TILE
                if own and shapely.contains_xy(inner, *ghost.at):
                    found.append(ghost)
    return sorted(found, key=lambda ghost: -ghost.strength)[:MOST_FOUND]


def nearest(ghosts: Sequence[Ghost], spot: Spots) -> Ghost | None:
    """Return the mark that a click takes, or None where none is near."""
    near = [ghost for ghost in ghosts if hypot(*(ghost.at - spot)) <= SNAPS]
    return min(near, key=lambda ghost: hypot(*(ghost.at - spot)), default=None)


def _in_tile(picture: Picture, mapping: Mapping, low: Spots, size: tuple[int, int]) -> list[Ghost]:
    wide, high = (int(n * SHARP) for n in size)
    seen = cv2.cvtColor(straightened(picture, mapping, low, (wide, high), SHARP), cv2.COLOR_BGR2GRAY)
    around = int(AROUND * SHARP) | 1
    # The middle tone at a third of the size is the same, in a ninth of the time.
    small = cv2.resize(seen, None, fx=1 / 3, fy=1 / 3, interpolation=cv2.INTER_AREA)
    cloth = cv2.resize(cv2.medianBlur(small, (around // 3) | 1), (wide, high), interpolation=cv2.INTER_LINEAR)
    darker = np.log(cloth.astype(np.float32) + 1) - np.log(seen.astype(np.float32) + 1)
    darker = cv2.GaussianBlur(darker * 2.2, (0, 0), 0.8)
    noise = 1.4826 * float(np.median(np.abs(darker - np.median(darker))))
    mask = (darker > max(DARKER, OVER_NOISE * noise)).astype(np.uint8)
    count, labels, stats, _ = cv2.connectedComponentsWithStats(mask, connectivity=8)
    found = []
    for i in range(1, count):
        area = stats[i, cv2.CC_STAT_AREA] / SHARP**2
        if SMALLEST <= area <= LARGEST:
            x, y, w, h = (int(n) for n in stats[i, :4])
            ghost = _shaped(labels[y : y + h, x : x + w] == i, darker[y : y + h, x : x + w])
            if ghost is not None:
                kind, at, strength = ghost
                found.append(Ghost(kind, low + (at + (x, y) + 0.5) / SHARP, strength))
    return found


def _shaped(mask: NDArray[Any], darker: NDArray[Any]) -> tuple[MarkKind, Spots, float] | None:
    """Return what a dark spot is, by its moments: its kind, its middle in pixels, and how dark it is."""
    y, x = np.nonzero(mask)
    weight = darker[y, x].astype(float)
    at = np.array([(x * weight).sum(), (y * weight).sum()]) / weight.sum()
    off = np.stack([x - at[0], y - at[1]])
    spread = np.linalg.eigvalsh(off @ off.T / len(x) + np.eye(2) / 12)
    short, long = (4 * sqrt(max(s, 1e-6)) for s in spread)
    fills = len(x) / (pi / 4 * short * long)
    strength = float(weight.mean())
    if long / short >= DASH_LONGER:
        return MarkKind.DASH, at, strength
    if fills >= DOT_FILLS and long / SHARP <= DOT_WIDE:
        return MarkKind.DOT, at, strength
    if fills <= CROSS_FILLS and long / SHARP >= CROSS_WIDE:
        return MarkKind.CROSS, at, strength
    return None
