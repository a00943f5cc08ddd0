"""What a picture of a piece shows, before a person has looked at it: its outline as read, the marks on it, how well it is known."""

from dataclasses import dataclass

import numpy as np

from izett.progress import Progress, untold
from izett.tracing.calibration import Calibrated, calibrated
from izett.tracing.corners import Read, read
from izett.tracing.mapping import Mapping, Picture, Spots, scale_at
from izett.tracing.outline import outline
from izett.tracing.pencil import Ghost, pencil_marks
from izett.tracing.told import Why, refused

#: Parts of the work that are told as it goes on.
PARTS = 4


@dataclass(frozen=True)
class Look:
    """What a picture shows. Places are cm on the table, x right and y down.

    Attributes:
        mapping: of the picture, at the height of the piece's upper face.
        read: the outline, its corners and notches.
        ghosts: marks that are proposed.
        contrast: of the edge over the noise.
        px_per_cm: pixels a cm at the piece.
        calibration: of a photo among sheets; None where the scale was told otherwise.
    """

    mapping: Mapping
    read: Read
    ghosts: tuple[Ghost, ...]
    contrast: float
    px_per_cm: float
    calibration: Calibrated | None = None

    @property
    def table(self) -> Mapping:
        """How the picture and the table itself hang together."""
        return self.mapping if self.calibration is None else self.calibration.mapping


def look_at_photo(
    picture: Picture,
    tap: tuple[float, float],
    *,
    paper: str = "a4",
    bar: float = 1.0,
    thick: float = 0.0,
    progress: Progress = untold,
) -> Look:
    """Return what a photo of a piece among printed sheets shows.

    Args:
        picture: height × width × 3, blue, green, red.
        tap: a pixel on the piece.
        paper: what the sheets were printed on.
        bar: by which share they were printed larger than drawn.
        thick: how thick the piece is, cm: its upper face is nearer to the camera than the sheets.
        progress: told how far the work has come.

    Raises:
        PictureRefused: nothing can be measured in it, or no piece is found; its reason is told.
    """
    progress(0, PARTS)
    known = calibrated(picture, paper=paper, bar=bar)
    progress(1, PARTS)
    return _look(picture, known.mapping.raised(thick) if thick else known.mapping, tap, known, progress)


def look_at_flat(picture: Picture, mapping: Mapping, tap: tuple[float, float], *, progress: Progress = untold) -> Look:
    """Return what a picture shows whose scale is told by points, a rectangle or a grid."""
    progress(1, PARTS)
    return _look(picture, mapping, tap, None, progress)


def _look(
    picture: Picture, mapping: Mapping, tap: tuple[float, float], known: Calibrated | None, progress: Progress
) -> Look:
    high, wide = picture.shape[:2]
    if not (0 <= tap[0] < wide and 0 <= tap[1] < high):
        raise refused(Why.NO_PIECE, "The tap lies outside the picture.", "Tap the middle of the piece.")
    spot: Spots = mapping.spots(np.array([tap]))[0]
    seen = outline(picture, mapping, spot, known.sheets if known else {})
    progress(2, PARTS)
    found = read(seen.ring)
    progress(3, PARTS)
    ghosts = tuple(pencil_marks(picture, mapping, seen.ring))
    progress(PARTS, PARTS)
    return Look(mapping, found, ghosts, seen.contrast, scale_at(mapping, spot), known)
