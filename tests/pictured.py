"""Pieces photographed by the stand-in camera, and what tracing came to beside the truth."""

from dataclasses import dataclass, replace

import cv2
import numpy as np
import shapely

from izett.pattern.piece import Piece
from izett.tracing.camera_stand_in import Pencil, Scene, Shot, among_sheets, cut_out, photographed, scene_middle, wobbly
from izett.tracing.look import look_at_photo
from izett.tracing.trace import Trace, trace_of

cv2.setNumThreads(1)
cv2.setRNGSeed(1)


@dataclass(frozen=True)
class Pictured:
    """A piece as it lies, and its photo."""

    outline: np.ndarray
    notches: np.ndarray
    corners: np.ndarray
    scene: Scene
    shot: Shot
    picture: np.ndarray

    @property
    def tap(self):
        """A pixel on the piece, as a person taps it."""
        spot = shapely.Polygon(self.outline).buffer(-1).representative_point()
        return tuple(float(n) for n in self.shot.pixels(np.array(spot.coords), scene_middle(self.scene))[0])

    def on_table(self, trace: Trace, spots):
        """Return true spots in the frame of a trace: y up."""
        pixels = self.shot.pixels(np.asarray(spots).reshape(-1, 2), scene_middle(self.scene))
        return trace.look.mapping.spots(pixels) * (1, -1)

    def traced(self, **known) -> Trace:
        return trace_of(look_at_photo(self.picture, self.tap, **known))


def pictured(piece: Piece, *, shot: Shot, pencil=(), wobble=0.0, notches=True, **scene) -> Pictured:
    """Lay a piece among the sheets and photograph it."""
    outline, cut = cut_out(piece, notches=notches)
    lies = wobbly(outline, wobble, seed=shot.seed) if wobble else outline
    laid = replace(Scene(lies, among_sheets(outline, seed=shot.seed), tuple(pencil)), **scene)
    corners = np.array([(x, -y) for x, y in (edge.curve.start for edge in piece.edges)])
    return Pictured(outline, cut, corners, laid, shot, photographed(laid, shot))


def pencilled(piece: Piece, count: int, *, seed: int) -> list[Pencil]:
    """Return marks of all kinds on a piece, apart from each other."""
    outline, _ = cut_out(piece, notches=False)
    inner = shapely.Polygon(outline).buffer(-1.5)
    rng = np.random.default_rng(seed)
    found: list[Pencil] = []
    while len(found) < count:
        x, y = rng.uniform(inner.bounds[:2], inner.bounds[2:])
        if shapely.contains_xy(inner, x, y) and all(np.hypot(p.x - x, p.y - y) > 2.5 for p in found):
            found.append(Pencil(("dot", "cross", "dash")[len(found) % 3], x, y, float(rng.uniform(0, 90))))
    return found
