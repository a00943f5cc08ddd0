"""A camera that stands in for a real one: photos of a scene that is known, for the demo and for tests.

It has what real photos have: perspective, a lens that bends, a shadow, noise, a tone curve, sharpening, and the losses of a
JPEG. The same scene and the same seed give the same photo.
"""

from collections.abc import Sequence
from dataclasses import dataclass, field
from math import cos, radians, sin
from typing import Any

import cv2
import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.geometry import Polygon

from izett.pattern.piece import Piece, Span, in_ring_order
from izett.tracing.sheets import BAR, HIGH, PAPERS, WIDE, picture_of

#: Pixels a cm in which the scene is laid out before it is photographed; outlines are drawn finer by so much.
FINE, FINER = 40, 2
#: cm. What is laid out beyond the things in the scene.
ROOM = 30.0
#: Each pixel is the mean of so many by so many.
SAMPLES = 2
#: Reflectances of a sheet's paper and ink, and of a pencil line.
PAPER, INK, PENCIL = 0.86, 0.03, 0.18
#: cm. How wide a pencil draws, how long an arm of a cross and a dash are, and how wide a dot is.
PENCIL_WIDE, ARM, DASH_LONG, DOT_WIDE = 0.09, 0.7, 1.2, 0.28
#: The exponent of the tone curve, and how far a photo is sharpened.
GAMMA, SHARPENED = 2.2, 0.5

Colour = tuple[float, float, float]
Picture = NDArray[Any]
Spots = NDArray[Any]


@dataclass(frozen=True)
class SheetAt:
    """A printed sheet as it lies: where its checkers' top left corner is, cm; how it is turned, degrees; its print scale."""

    number: int
    x: float
    y: float
    turned: float = 0.0
    scale: float = 1.0

    def on_table(self, spots: Spots) -> Spots:
        """Return where spots of the sheet lie on the table."""
        c, s = cos(radians(self.turned)), sin(radians(self.turned))
        turned = np.asarray(spots) * self.scale @ np.array([[c, s], [-s, c]])
        return np.asarray(turned + np.array([self.x, self.y]))


@dataclass(frozen=True)
class Pencil:
    """A pencil mark: `dot`, `cross` or `dash`, where it is, cm, and how it is turned, degrees."""

    kind: str
    x: float
    y: float
    turned: float = 0.0


@dataclass(frozen=True)
class Scene:
    """What lies on the table: cm, x to the right, y towards whoever stands before it.

    Attributes:
        outline: of the piece.
        sheets: around it.
        pencil: marks on it.
        piece, table: their colours, as shares of the light that they give back (blue, green, red).
        stripes: how much darker each second stripe of 4 cm on the table is.
    """

    outline: Spots
    sheets: Sequence[SheetAt]
    pencil: Sequence[Pencil] = ()
    piece: Colour = (0.62, 0.72, 0.76)
    table: Colour = (0.07, 0.08, 0.09)
    stripes: float = 0.0


@dataclass(frozen=True)
class Shot:
    """How it is photographed.

    Attributes:
        width, height: pixels.
        above: cm from the middle of the scene.
        tilt, towards: degrees off square, and in which direction.
        lens: the first two numbers of its bend, over the tangent of the angle off its axis.
        focal: focal length over the picture's width.
        shadow: how much darker the darkest corner is.
        noise: of a pixel's light.
        blur: pixels.
        quality: of the JPEG.
        seed: of the noise.
    """

    width: int = 2000
    height: int = 1500
    above: float = 90.0
    tilt: float = 8.0
    towards: float = 30.0
    lens: tuple[float, float] = (-0.05, 0.01)
    focal: float = 0.8
    shadow: float = 0.25
    noise: float = 0.004
    blur: float = 0.5
    quality: int = 92
    seed: int = 1
    turned: float = field(default=0.0)

    def _pose(self) -> tuple[NDArray[Any], NDArray[Any]]:
        """Return the camera's axes as rows, and where it is, from the middle of the scene: cm, z up."""
        t, a = radians(self.tilt), radians(self.towards)
        away = np.array([sin(t) * cos(a), sin(t) * sin(a), cos(t)])
        r = radians(self.turned)
        right = np.array([cos(r), sin(r), 0.0])
        looks = -away
        right = right - looks * (right @ looks)
        right /= np.linalg.norm(right)
        # The table's y goes towards the viewer, as a picture's y goes down.
        down = np.cross(looks, right) * (-1.0 if np.cross(looks, right)[1] < 0 else 1.0)
        return np.stack([right, down, looks]), away * self.above

    def pixels(self, spots: Spots, middle: Spots) -> Spots:
        """Return where spots of the table come to lie in the picture."""
        axes, at = self._pose()
        rays = np.c_[np.asarray(spots) - middle, np.zeros(len(spots))] - at
        x, y, z = (rays @ axis for axis in axes)
        n = np.c_[x / z, y / z]
        r2 = (n * n).sum(axis=1, keepdims=True)
        bent = n * (1 + self.lens[0] * r2 + self.lens[1] * r2 * r2)
        return np.asarray(bent * self.focal * self.width + (self.width / 2 - 0.5, self.height / 2 - 0.5))

    def spots(self, pixels: Spots, middle: Spots) -> Spots:
        """Return which spots of the table pixels show."""
        axes, at = self._pose()
        bent = (np.asarray(pixels) - (self.width / 2 - 0.5, self.height / 2 - 0.5)) / (self.focal * self.width)
        n = bent.copy()
        for _ in range(8):
            r2 = (n * n).sum(axis=-1, keepdims=True)
            n = bent / (1 + self.lens[0] * r2 + self.lens[1] * r2 * r2)
        rays = n[..., :1] * axes[0] + n[..., 1:] * axes[1] + axes[2]
        far = -at[2] / rays[..., 2:]
        return np.asarray((at + far * rays)[..., :2] + middle)


def photographed(scene: Scene, shot: Shot) -> Picture:
    """Return a photo of a scene: height × width × 3, blue, green, red."""
    low, high = _extent(scene)
    middle = scene_middle(scene)
    light = _light(scene, shot, low, high, middle)
    rng = np.random.default_rng(shot.seed)
    y, x = np.mgrid[0 : shot.height, 0 : shot.width]
    fall = (x / shot.width + y / shot.height) / 2
    light *= (1 - shot.shadow * fall * fall)[..., None].astype(np.float32)
    if shot.blur:
        light = cv2.GaussianBlur(light, (0, 0), shot.blur)
    light += rng.normal(0, shot.noise, light.shape).astype(np.float32)
    toned = np.clip(light, 0, 1) ** (1 / GAMMA) * 255
    toned += SHARPENED * (toned - cv2.GaussianBlur(toned, (0, 0), 1.2))
    written = cv2.imencode(
        ".jpg", np.clip(np.rint(toned), 0, 255).astype(np.uint8), [cv2.IMWRITE_JPEG_QUALITY, shot.quality]
    )[1]
    return np.asarray(cv2.imdecode(written, cv2.IMREAD_COLOR), np.uint8)


def scene_middle(scene: Scene) -> Spots:
    """Return the spot of the table that the camera is held above."""
    low, high = _extent(scene)
    return np.asarray((low + high) / 2)


def wobbly(outline: Spots, off: float, *, seed: int) -> Spots:
    """Return an outline as cut by hand: points each 0.2 cm, off by a wave that has so large (cm) a standard deviation."""
    rng = np.random.default_rng(seed)
    ring = np.vstack([outline, outline[:1]])
    gaps = np.linalg.norm(np.diff(ring, axis=0), axis=1)
    along = np.concatenate([[0.0], np.cumsum(gaps)])
    at = np.arange(0.0, along[-1], 0.2)
    spots = np.c_[np.interp(at, along, ring[:, 0]), np.interp(at, along, ring[:, 1])]
    noise = np.fft.irfft(
        np.fft.rfft(rng.normal(size=(2, len(at))), axis=1) * (np.arange(len(at) // 2 + 1) < len(at) // 8)
    )
    noise = noise[:, : len(at)] / noise.std()
    return np.asarray(spots[: noise.shape[1]] + off * noise.T)


def _extent(scene: Scene) -> tuple[Spots, Spots]:
    things = [
        np.asarray(scene.outline),
        *(at.on_table(np.array([[0, 0], [WIDE, 0], [WIDE, HIGH], [0, HIGH]])) for at in scene.sheets),
    ]
    spots = np.vstack(things)
    return spots.min(axis=0), spots.max(axis=0)


def _light(scene: Scene, shot: Shot, low: Spots, high: Spots, middle: Spots) -> NDArray[Any]:
    """Return what light comes from each pixel, before the lens softens it."""
    origin = low - ROOM
    size = np.ceil((high - low + 2 * ROOM) * FINE).astype(int)
    layers = [(_filled(scene.outline, origin, size), scene.piece)]
    layers += [(_pencilled(scene.pencil, origin, size), (PENCIL,) * 3)] * bool(scene.pencil)
    pages = [_printed(at, origin, size) for at in scene.sheets]
    cover = np.maximum.reduce([cover for cover, _ in pages]) if pages else None
    ink = np.minimum.reduce([ink for _, ink in pages]) if pages else None
    wide = shot.width * SAMPLES
    light = np.empty((shot.height, shot.width, 3), np.float32)
    strip = 100
    for top in range(0, shot.height, strip):
        rows = min(strip, shot.height - top)
        spots = _spots(shot, middle, top, rows)
        at = ((spots - origin) * FINE - 0.5).astype(np.float32)
        part = np.full((rows * SAMPLES, wide, 3), scene.table, np.float32)
        if scene.stripes:
            part *= (1 - scene.stripes * (np.sin(spots[..., 0] * np.pi / 2 + 0.3 * spots[..., 1]) > 0))[..., None]
        for layer, colour in layers:
            share = _seen(layer, at)[..., None]
            part += (np.asarray(colour, np.float32) - part) * share
        if cover is not None and ink is not None:
            share = _seen(cover, at)[..., None]
            part += (np.float32(INK) + np.float32(PAPER - INK) * _seen(ink, at)[..., None] - part) * share
        light[top : top + rows] = cv2.resize(part, (shot.width, rows), interpolation=cv2.INTER_AREA)
    return light


def _spots(shot: Shot, middle: Spots, top: int, rows: int) -> Spots:
    """Return which spots of the table the samples of some rows show.

    Each eighth is worked out; between them the table runs straight enough for any eye.
    """
    step = 8
    x = np.arange(0, shot.width + step, step, dtype=float)
    y = np.arange(top, top + rows + step, step, dtype=float)
    coarse = shot.spots(np.stack(np.meshgrid(x, y), axis=-1), middle)
    at_x = ((np.arange(shot.width * SAMPLES) + 0.5) / SAMPLES - 0.5) / step
    at_y = ((np.arange(rows * SAMPLES) + 0.5) / SAMPLES - 0.5) / step
    i, j = np.clip(np.floor(at_y).astype(int), 0, len(y) - 2), np.clip(np.floor(at_x).astype(int), 0, len(x) - 2)
    v, u = (at_y - i)[:, None, None], (at_x - j)[:, None]
    left = coarse[:, j] * (1 - u) + coarse[:, j + 1] * u
    return np.asarray(left[i] * (1 - v) + left[i + 1] * v)


def _seen(layer: Picture, at: NDArray[Any]) -> NDArray[Any]:
    found = cv2.remap(layer, at[..., 0], at[..., 1], cv2.INTER_LINEAR, borderValue=0)
    return np.asarray(found, np.float32) / np.float32(255)


def _filled(outline: Spots, origin: Spots, size: NDArray[Any]) -> Picture:
    """Return how much of each pixel a piece covers."""
    # fillPoly colours every pixel that it touches: half a pixel less makes up for that.
    shape = Polygon(outline).buffer(-0.5 / (FINE * FINER), join_style="mitre")
    fine = np.zeros((size[1] * FINER, size[0] * FINER), np.uint8)
    at = (np.asarray(shape.exterior.coords) - origin) * FINE * FINER - 0.5
    cv2.fillPoly(fine, [np.rint(at * 256).astype(np.int32)], 255, shift=8)
    return np.asarray(cv2.resize(fine, (int(size[0]), int(size[1])), interpolation=cv2.INTER_AREA), np.uint8)


def _pencilled(marks: Sequence[Pencil], origin: Spots, size: NDArray[Any]) -> Picture:
    layer = np.zeros((size[1], size[0]), np.uint8)
    for mark in marks:
        spot = (np.array([mark.x, mark.y]) - origin) * FINE - 0.5
        if mark.kind == "dot":
            cv2.circle(layer, _fixed(spot), round(DOT_WIDE / 2 * FINE * 256), 255, -1, cv2.LINE_AA, 8)
            continue
        turns = (mark.turned, mark.turned + 90) if mark.kind == "cross" else (mark.turned,)
        for turn in turns:
            way = (
                np.array([cos(radians(turn)), sin(radians(turn))])
                * (ARM if mark.kind == "cross" else DASH_LONG / 2)
                * FINE
            )
            wide = round(PENCIL_WIDE * FINE)
            cv2.line(layer, _fixed(spot - way), _fixed(spot + way), 255, wide, cv2.LINE_AA, 8)
    return layer


def _fixed(spot: Spots) -> tuple[int, int]:
    x, y = np.rint(spot * 256).astype(int)
    return int(x), int(y)


def _printed(at: SheetAt, origin: Spots, size: NDArray[Any]) -> tuple[Picture, Picture]:
    """Return how much of each pixel a sheet's paper covers, and how bright its print is there."""
    wide, high = PAPERS["a4"]
    page = np.full((round(high * FINE), round(wide * FINE)), 255, np.uint8)
    left, top = round((wide - WIDE) / 2 * FINE), round((high - HIGH) / 2 * FINE)
    page[top : top + round(HIGH * FINE), left : left + round(WIDE * FINE)] = picture_of(at.number, FINE)
    aside, above = left - round(0.45 * FINE), round((high - BAR) / 2 * FINE)
    page[above : above + round(BAR * FINE), aside : aside + 2] = 0
    # Where the page's pixel centres lie on the layer.
    edges = np.array([[0, 0], [page.shape[1], 0], [0, page.shape[0]]], float)
    lies = (at.on_table(edges / FINE - (left / FINE, top / FINE)) - origin) * FINE
    moved = cv2.getAffineTransform((edges - 0.5).astype(np.float32), (lies - 0.5).astype(np.float32))
    to = (int(size[0]), int(size[1]))
    ink = cv2.warpAffine(page, moved, to, flags=cv2.INTER_LINEAR, borderValue=255)
    cover = cv2.warpAffine(np.full_like(page, 255), moved, to, flags=cv2.INTER_LINEAR, borderValue=0)
    return np.asarray(cover, np.uint8), np.asarray(ink, np.uint8)


#: cm. A notch is cut so deep, and is so wide at its mouth.
CUT_DEEP, CUT_WIDE = 0.45, 0.4


def cut_out(piece: Piece, *, notches: bool = True) -> tuple[Spots, Spots]:
    """Return a piece as cut from paper along its sewing lines: its outline, notches cut into it, and where those are.

    Both in cm, y down. Every other notch of a dart's mouth or a corner is left out: nobody cuts one there.
    """
    ring = np.asarray(piece.outline(flatness=0.002), float) * (1, -1)
    places = [
        spot
        for notch in piece.notches
        if notches and (spot := _on_piece(piece, notch.span, notch.distance)) is not None
    ]
    shape = Polygon(ring)
    kept: list[Spots] = []
    for spot in places:
        along = shape.exterior.project(shapely.Point(*spot))
        a, b = (np.asarray(shape.exterior.interpolate(along + off).coords[0]) for off in (-CUT_WIDE / 2, CUT_WIDE / 2))
        way = (b - a) / np.linalg.norm(b - a)
        normal = np.array([-way[1], way[0]])
        inward = normal if shape.contains(shapely.Point(*(spot + 0.1 * normal))) else -normal
        straight = np.linalg.norm(b - a) > 0.98 * CUT_WIDE
        clear = all(
            np.linalg.norm(spot - corner) > 2.5
            for corner in ([e.curve.start[0], -e.curve.start[1]] for e in piece.edges)
        )
        apart = all(np.linalg.norm(spot - other) > 2.0 for other in kept)
        if straight and clear and apart:
            cut = Polygon([a - 0.02 * inward, spot + CUT_DEEP * inward, b - 0.02 * inward, (a + b) / 2 - 0.2 * inward])
            shape = shape.difference(cut)
            kept.append(spot)
    return np.asarray(shape.exterior.coords)[:-1], np.array(kept).reshape(-1, 2)


def _on_piece(piece: Piece, span: Span, distance: float) -> Spots | None:
    """Return where on a piece a notch is, y down, or None where its line begins on another."""
    run = in_ring_order(edge for edge in piece.edges if edge.lineage == span.along)
    curves = [edge.curve for edge in run]
    names = [edge.start for edge in run]
    if span.start not in names:
        # Walked from the other end of the line.
        curves, names = [curve.reversed() for curve in reversed(curves)], [edge.end for edge in reversed(run)]
    if span.start not in names:
        return None
    left = distance
    for curve in curves[names.index(span.start) :]:
        if left <= curve.length:
            x, y = curve.at_distance(left)
            return np.array([x, -y])
        left -= curve.length
    return None


#: cm. A sheet that is laid so far from the piece and turned a little leaves a finger's breadth of table beside it.
ASIDE = 4.5


def among_sheets(outline: Spots, *, seed: int = 1, scales: Sequence[float] = (1, 1, 1, 1)) -> tuple[SheetAt, ...]:
    """Return four sheets as somebody lays them around a piece: at its corners, each turned a little."""
    rng = np.random.default_rng(seed)
    (x0, y0), (x1, y1) = outline.min(axis=0), outline.max(axis=0)
    page = np.array(PAPERS["a4"])
    y_top, y_low = y0 - 2, max(y1 + 2 - page[1], y0 + page[1])
    left, right = x0 - page[0] - ASIDE, x1 + ASIDE
    at = [(left, y_top), (right, y_top), (left, y_low), (right, y_low)]
    inset = (page - (WIDE, HIGH)) / 2
    laid = []
    for number, (x, y) in enumerate(at, start=1):
        turn = float(rng.uniform(-5, 5))
        moved = rng.uniform(-0.5, 0.5, 2)
        laid.append(SheetAt(number, x + inset[0] + moved[0], y + inset[1] + moved[1], turn, scales[number - 1]))
    return tuple(laid)


def diagram(
    outline: Spots, *, square: float, px: int = 1500, curl: float = 0.0, seed: int = 1
) -> tuple[Picture, Spots]:
    """Return the photo of a page with a small drawing of a piece over a grid, and where the outline lies in it, pixels.

    Args:
        outline: cm, y down.
        square: cm that a square of the grid stands for.
        px: width of the picture.
        curl: squares by which the page bows at its middle.
        seed: of the noise.
    """
    low = outline.min(axis=0) - 2 * square
    high = outline.max(axis=0) + 2 * square
    scale = px / float(high[0] - low[0])
    tall = int((high[1] - low[1]) * scale)

    def on_page(spots: Spots) -> Spots:
        at = (spots - low) / (high - low)
        bowed = np.stack([0.02 * at[:, 1], curl * square * scale / tall * np.sin(np.pi * at[:, 0])], axis=1)
        return np.asarray((at + bowed) * (px, tall) * 0.94 + 10)

    page = np.full((tall, px), 232, np.uint8)
    for axis in (0, 1):
        for at in np.arange(np.ceil(low[axis] / square), high[axis] / square) * square:
            t = np.linspace(low[1 - axis], high[1 - axis], 200)
            spots = np.stack([np.full_like(t, at), t] if axis == 0 else [t, np.full_like(t, at)], axis=1)
            cv2.polylines(page, [np.rint(on_page(spots) * 16).astype(np.int32)], False, 185, 1, cv2.LINE_AA, 4)
    seen = on_page(outline)
    cv2.polylines(page, [np.rint(seen * 16).astype(np.int32)], True, 20, 3, cv2.LINE_AA, 4)
    noise = np.random.default_rng(seed).normal(0, 3, page.shape)
    soft = cv2.GaussianBlur(page.astype(np.float32), (0, 0), 0.6) + noise
    return cv2.cvtColor(np.clip(soft, 0, 255).astype(np.uint8), cv2.COLOR_GRAY2BGR), seen
