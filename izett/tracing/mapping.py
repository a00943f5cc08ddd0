"""From a picture to the table and back: what every way of telling a picture's scale comes to.

Frames. *Pixels*: x right, y down, the middle of the first pixel at 0, 0. *Table*: cm, x right, y down.
"""

from dataclasses import dataclass
from typing import Any, Protocol

import cv2
import numpy as np
from numpy.typing import NDArray

Spots = NDArray[Any]
Picture = NDArray[Any]

#: The focal length of a telephone's main lens, in half diagonals of its picture.
USUAL_FOCAL = 1.25
#: Rounds in which a lens is taken out of a pixel.
STRAIGHTENED_IN = 12


class Mapping(Protocol):
    """How pixels and the table hang together; arrays of places are n × 2."""

    def pixels(self, spots: Spots) -> Spots:
        """Return where spots of the table come to lie in the picture."""
        ...

    def spots(self, pixels: Spots) -> Spots:
        """Return which spots of the table pixels show."""
        ...


@dataclass(frozen=True)
class Flat:
    """A plane seen through a lens: a homography, then a bend that grows with the square of the distance from the middle.

    Attributes:
        plane: 3 × 3, from the table to the picture before the bend, from its middle in half diagonals.
        bend: of the lens, at half a diagonal from the middle.
        middle, half: the picture's middle and half its diagonal, pixels.
    """

    plane: Spots
    bend: float
    middle: tuple[float, float]
    half: float

    def pixels(self, spots: Spots) -> Spots:
        """Return where spots of the table come to lie in the picture."""
        plain = through(self.plane, spots)
        far = (plain * plain).sum(axis=-1, keepdims=True)
        return np.asarray(plain * (1 + self.bend * far) * self.half + self.middle)

    def spots(self, pixels: Spots) -> Spots:
        """Return which spots of the table pixels show."""
        bent = (np.asarray(pixels, float) - self.middle) / self.half
        plain = bent
        for _ in range(STRAIGHTENED_IN):
            plain = bent / (1 + self.bend * (plain * plain).sum(axis=-1, keepdims=True))
        return through(np.linalg.inv(self.plane), plain)

    def raised(self, by: float) -> "Flat":
        """Return the mapping of a plane so many cm nearer to the camera: the upper face of something thick.

        It rests on the focal length that telephones usually have: were that a fifth off, so would be the correction.
        """
        focal = np.array([[USUAL_FOCAL], [USUAL_FOCAL], [1.0]])
        axes = self.plane / focal
        normal = np.cross(axes[:, 0], axes[:, 1])
        normal *= np.sqrt(np.linalg.norm(axes[:, 0]) * np.linalg.norm(axes[:, 1])) / np.linalg.norm(normal)
        # What is nearer has less depth, whichever way the table's frame is turned.
        nearer = -np.sign(normal[2] * axes[2, 2])
        lifted = np.column_stack([axes[:, 0], axes[:, 1], axes[:, 2] + nearer * by * normal]) * focal
        return Flat(lifted, self.bend, self.middle, self.half)


def through(plane: Spots, spots: Spots) -> Spots:
    """Return spots mapped by a homography."""
    flat = np.asarray(spots, float)
    wide = flat @ plane[:, :2].T + plane[:, 2]
    return np.asarray(wide[..., :2] / wide[..., 2:])


def middle_of(picture: Picture) -> tuple[tuple[float, float], float]:
    """Return a picture's middle and half its diagonal, pixels."""
    high, wide = picture.shape[:2]
    return ((wide - 1) / 2, (high - 1) / 2), float(np.hypot(wide, high) / 2)


def scale_at(mapping: Mapping, spot: Spots) -> float:
    """Return how many pixels a cm of the table has around a spot; the fewest of all directions."""
    around = np.asarray(spot, float) + 0.5 * np.array([[1, 0], [-1, 0], [0, 1], [0, -1]])
    seen = mapping.pixels(around)
    grows = np.stack([seen[0] - seen[1], seen[2] - seen[3]], axis=1)
    return float(np.linalg.svd(grows, compute_uv=False)[-1])


def straightened(
    picture: Picture, mapping: Mapping, low: Spots, size: tuple[int, int], px_per_cm: float
) -> NDArray[Any]:
    """Return a part of the table as seen from straight above.

    Args:
        picture: as taken.
        mapping: of the picture.
        low: the spot of its top left corner.
        size: width and height, pixels.
        px_per_cm: pixels a cm.
    """
    wide, high = size
    out = np.zeros((high, wide, 3), np.uint8)
    # In strips: the places of all pixels at once would take more room than the picture.
    strip = max(1, 2**20 // max(wide, 1))
    for top in range(0, high, strip):
        rows = min(strip, high - top)
        y, x = np.mgrid[top : top + rows, 0:wide]
        spots = low + (np.stack([x, y], axis=-1) + 0.5) / px_per_cm
        at = mapping.pixels(spots.reshape(-1, 2)).reshape(rows, wide, 2).astype(np.float32)
        out[top : top + rows] = cv2.remap(
            picture, at[..., 0], at[..., 1], cv2.INTER_LINEAR, borderMode=cv2.BORDER_REPLICATE
        )
    return out
