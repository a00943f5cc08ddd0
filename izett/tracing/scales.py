"""Ways of telling a picture's scale without printed sheets: two points, a rectangle, a diagram's own grid.

Each says how far it can be trusted. Two points tell a scale and no tilt: only for a scan, or a picture taken square on. Four
corners of a known rectangle take the tilt out. A grid takes out the curl of a page as well.
"""

from collections import deque
from collections.abc import Sequence
from dataclasses import dataclass
from math import hypot

import cv2
import numpy as np

from izett.tracing.mapping import Flat, Picture, Spots, middle_of
from izett.tracing.told import Why, refused

#: Pixels. Clicks nearer to each other than this tell no scale.
LEAST_APART = 30.0
#: The corners of a rectangle are seen at no angle flatter than this share of a square's.
LEAST_CORNER = 0.15
#: cm in which a scale is believed.
LEAST_KNOWN, MOST_KNOWN = 0.5, 500.0


def by_two_points(picture: Picture, ends: Sequence[tuple[float, float]], known: float) -> Flat:
    """Return the scale of a scan or a picture taken square on, from two points so many cm apart.

    Raises:
        PictureRefused: the points lie too near to each other, or the length is none.
    """
    _refuse_length(known)
    (ax, ay), (bx, by) = ends
    apart = hypot(bx - ax, by - ay)
    if apart < LEAST_APART:
        raise refused(
            Why.POINTS,
            f"The two points lie {apart:.0f} pixels apart: too near to tell a scale.",
            "Take the longest known length that the picture has.",
        )
    middle, half = middle_of(picture)
    scale = apart / known / half
    return Flat(np.array([[scale, 0, 0], [0, scale, 0], [0, 0, 1.0]]), 0.0, middle, half)


def by_rectangle(picture: Picture, corners: Sequence[tuple[float, float]], width: float, height: float) -> Flat:
    """Return the scale by four corners of a known rectangle, clicked in turn from its top left.

    Raises:
        PictureRefused: the corners make no rectangle that is seen from above, or a length is none.
    """
    _refuse_length(width)
    _refuse_length(height)
    seen = np.asarray(corners, float)
    sides = np.roll(seen, -1, axis=0) - seen
    lengths = np.linalg.norm(sides, axis=1)
    turns = sides[:, 0] * np.roll(sides, -1, axis=0)[:, 1] - sides[:, 1] * np.roll(sides, -1, axis=0)[:, 0]
    square = turns / np.maximum(lengths * np.roll(lengths, -1), 1e-9)
    if (
        len(seen) != 4
        or lengths.min() < LEAST_APART
        or abs(square).min() < LEAST_CORNER
        or len(set(np.sign(square))) > 1
    ):
        raise refused(
            Why.POINTS,
            "The four points make no rectangle seen from above.",
            "Click its corners one after the other, all the way round from the top left.",
        )
    middle, half = middle_of(picture)
    real = np.array([[0, 0], [width, 0], [width, height], [0, height]], float)
    plane, _ = cv2.findHomography(real, (seen - middle) / half, 0)
    return Flat(np.asarray(plane, float), 0.0, middle, half)


def _refuse_length(known: float) -> None:
    if not LEAST_KNOWN <= known <= MOST_KNOWN:
        raise refused(
            Why.POINTS,
            f"A known length of {known:g} cm tells no scale.",
            f"Give a length between {LEAST_KNOWN:g} and {MOST_KNOWN:g} cm.",
        )


#: Of the grid: pixels a square is sought between, how much darker a line is than what is around it (logarithm), how far a
#: crossing may lie from where its neighbours say, as a share of a square, and how many crossings are needed.
SQUARE_PX, DARKER, STRAYS, CROSSINGS = (8, 220), 0.02, 0.22, 24
#: How many times the paper's own unevenness a line is dark.
OVER_PAPER = 2.2
#: Pixels. A line is narrower than this.
LINE_WIDE = 15
#: How likely a crossing is beside the first at least.
LEAST_LIKELY = 0.3
#: Squares. A crossing that lies so far off a flat page was counted wrong: a curled one bows by less.
SLIPPED = 1.0
#: The ways to what lies next to a place.
NEXT = np.array([[1, 0], [-1, 0], [0, 1], [0, -1]], float)
#: How like itself a page is at a step of its grid at least; a step stands out over half of it by this share of the clearest.
LEAST_ALIKE, LATTICE = 0.12, 0.6
#: Degrees of the bend by which a curled page is laid flat; fewer where few crossings tell it.
BENDS = ((90, 5), (40, 3), (0, 1))
#: Rounds in which a bend is taken out of a place.
LAID_FLAT_IN = 8
#: Rounds in which crossings are weighed anew, and the squares that they scatter by at least.
COUNTED_ANEW, LEAST_SCATTER = 8, 0.002
#: Squares that a crossing may lie off the grid that is laid through them, and nine tenths of them; how many must lie so near.
MOST_OFF, MOST_SPREAD, LEAST_SHARE = 0.12, 0.06, 0.6


@dataclass(frozen=True)
class Gridded:
    """A diagram's page by its own grid: a homography, then a bend in squares that lays the page flat.

    Attributes:
        flat: the homography, in squares.
        terms: how far each place lies from there, squares, as a polynomial of such a degree.
        degree: of it.
        low, high: the squares between which it was found.
        square: cm of a square.
        off: squares that nine tenths of the crossings lie off at most.
        crossings: how many were found.
    """

    flat: Flat
    terms: Spots
    degree: int
    low: Spots
    high: Spots
    square: float
    off: float
    crossings: int

    def pixels(self, spots: Spots) -> Spots:
        """Return where spots of the table come to lie in the picture."""
        grid = np.asarray(spots, float) / self.square
        return self.flat.pixels(grid + self._bend(grid))

    def spots(self, pixels: Spots) -> Spots:
        """Return which spots of the table pixels show."""
        bent = self.flat.spots(pixels)
        grid = bent
        for _ in range(LAID_FLAT_IN):
            grid = bent - self._bend(grid)
        return np.asarray(grid * self.square)

    def _bend(self, grid: Spots) -> Spots:
        """Return how far places of a flat page lie off on this one, squares; beyond what was read, as at its rim."""
        inside = np.clip(grid, self.low, self.high)
        return np.asarray(_powers((inside - self.low) / (self.high - self.low), self.degree) @ self.terms)


def _powers(spots: Spots, degree: int) -> Spots:
    x, y = spots[..., 0] * 2 - 1, spots[..., 1] * 2 - 1
    return np.stack([x**i * y**j for i in range(degree + 1) for j in range(degree + 1 - i)], axis=-1)


def by_grid(picture: Picture, seed: tuple[float, float], square: float) -> Gridded:
    """Return the scale of a diagram by its printed grid, found around a place.

    Args:
        picture: as taken.
        seed: a pixel within the grid.
        square: cm that one of its squares stands for.

    Raises:
        PictureRefused: no grid is found there.
    """
    _refuse_length(square)
    lines = _lines_of(picture)
    across, down = _lattice(lines, seed)
    squares, pixels = _grown(lines, seed, across, down)
    if len(squares) < CROSSINGS:
        raise _no_grid(len(squares))
    middle, half = middle_of(picture)
    plane, kept = cv2.findHomography(
        squares, (pixels - middle) / half, cv2.RANSAC, SLIPPED * float(np.linalg.norm(across)) / half
    )
    if np.size(plane) != 9:
        raise _no_grid(0)
    taken = np.ravel(kept).astype(bool)
    squares, pixels = squares[taken], pixels[taken]
    if len(squares) < CROSSINGS:
        raise _no_grid(len(squares))
    flat = Flat(np.asarray(plane, float), 0.0, middle, half)
    degree = next(degree for least, degree in BENDS if len(squares) >= least)
    low, high = squares.min(axis=0), squares.max(axis=0)
    shift = flat.spots(pixels) - squares
    at = (squares - low) / (high - low)
    on_it = np.ones(len(squares), bool)
    terms, off = np.zeros((1, 2)), np.zeros(len(squares))
    # A plain bend first, then a fuller one: what lies plainly off is a line of the drawing that looked like a crossing.
    for bend, room in ((min(degree, 1), 0.6), (min(degree, 3), 0.35), (degree, 0.2), (degree, MOST_OFF)):
        powers = _powers(at, bend)
        terms = np.linalg.lstsq(powers[on_it], shift[on_it], rcond=None)[0]
        off = np.linalg.norm(powers @ terms - shift, axis=1)
        on_it = off <= max(room, 3 * float(np.median(off)))
    # Beside a thick line a crossing is drawn towards it: the farther off, the less it counts.
    powers = _powers(at, degree)
    for _ in range(COUNTED_ANEW):
        weight = on_it / (1 + (off / max(float(np.median(off)), LEAST_SCATTER)) ** 2)
        terms = np.linalg.lstsq(powers * weight[:, None], shift * weight[:, None], rcond=None)[0]
        off = np.linalg.norm(powers @ terms - shift, axis=1)
    on_it = off <= MOST_OFF
    if on_it.sum() < max(CROSSINGS, LEAST_SHARE * len(off)):
        raise _no_grid(int(on_it.sum()))
    nine_tenths = float(np.percentile(off[on_it], 90))
    if nine_tenths > MOST_SPREAD:
        raise _no_grid(int(on_it.sum()))
    return Gridded(flat, terms, degree, low, high, square, nine_tenths, int(on_it.sum()))


def _no_grid(crossings: int) -> Exception:
    found = f"{crossings} crossings" if crossings else "none"
    return refused(
        Why.NO_GRID,
        f"No grid can be read around that place ({found}).",
        "Click within the grid, away from thick lines; or tell the scale by a bar or by four corners.",
    )


def _lines_of(picture: Picture) -> Spots:
    """Return how much darker each pixel is than what is around it: thin lines stand out, whatever the page's tone."""
    grey = cv2.cvtColor(picture, cv2.COLOR_BGR2GRAY)
    log = np.log(grey.astype(np.float32) + 1)
    around = cv2.getStructuringElement(cv2.MORPH_RECT, (LINE_WIDE, LINE_WIDE))
    hat = cv2.morphologyEx(log, cv2.MORPH_BLACKHAT, around)
    above = np.maximum(hat - max(DARKER, OVER_PAPER * float(np.median(hat))), 0)
    # The drawing's own lines are darker than the grid's: they count no more than those.
    return np.asarray(
        np.minimum(above, float(np.percentile(above[above > 0], 70)) if (above > 0).any() else 0), np.float32
    )


def _lattice(lines: Spots, seed: tuple[float, float]) -> tuple[Spots, Spots]:
    """Return the two steps of the grid around a place, in pixels: by where the page looks like itself, moved."""
    x, y = (int(n) for n in seed)
    best: tuple[float, Spots, Spots] | None = None
    for half in (160, 320, 80):
        tile = lines[max(0, y - half) : y + half, max(0, x - half) : x + half]
        if min(tile.shape) < 4 * SQUARE_PX[0]:
            continue
        tile = tile - tile.mean()
        high, wide = tile.shape
        power = np.abs(np.fft.fft2(tile, (2 * high, 2 * wide))) ** 2
        alike = np.fft.fftshift(np.fft.ifft2(power).real)
        overlap = np.outer(high - np.abs(np.arange(-high, high)), wide - np.abs(np.arange(-wide, wide))).clip(
            0.2 * high * wide
        )
        alike = alike / overlap
        alike /= max(float(alike[high, wide]), 1e-9)
        found = _steps(alike, high, wide)
        if found is not None and (best is None or found[0] > best[0]):
            best = found
    if best is None:
        raise _no_grid(0)
    return best[1], best[2]


def _steps(alike: Spots, high: int, wide: int) -> tuple[float, Spots, Spots] | None:
    """Return how alike, and the shortest steps to the right and down under which a tile looks like itself."""
    smooth = cv2.GaussianBlur(alike.astype(np.float32), (0, 0), 0.8)
    tops = (smooth == cv2.dilate(smooth, np.ones((5, 5), np.uint8))) & (smooth > LEAST_ALIKE)
    at = np.argwhere(tops) - (high, wide)
    far = np.hypot(at[:, 0], at[:, 1])
    kept = at[(far >= SQUARE_PX[0]) & (far <= SQUARE_PX[1])]
    right = [(r, c) for r, c in kept if c > 0 and abs(r) < 0.6 * c]
    down = [(r, c) for r, c in kept if r > 0 and abs(c) < 0.6 * r]
    if not right or not down:
        return None

    def strength(step: tuple[int, int]) -> float:
        # Moved along one of its lines a grid is half like itself, by whichever length: half a step tells that from a step.
        here, half_way = ((round(step[0] * t) + high, round(step[1] * t) + wide) for t in (1, 0.5))
        return float(smooth[here] - smooth[half_way])

    top = max(strength(s) for s in (*right, *down))
    a = min((s for s in right if strength(s) > LATTICE * top), key=lambda s: hypot(*s), default=None)
    b = min((s for s in down if strength(s) > LATTICE * top), key=lambda s: hypot(*s), default=None)
    if a is None or b is None or not 0.5 < hypot(*a) / hypot(*b) < 2:
        return None
    return min(strength(a), strength(b)), np.array([a[1], a[0]], float), np.array([b[1], b[0]], float)


def _grown(lines: Spots, seed: tuple[float, float], across: Spots, down: Spots) -> tuple[Spots, Spots]:
    """Return the crossings of the grid, grown from a place: their squares and their pixels."""
    size = float(min(np.linalg.norm(across), np.linalg.norm(down)))
    arm = max(4, int(0.32 * size))
    soft = cv2.GaussianBlur(lines, (0, 0), max(0.8, size / 40))
    # A crossing has both lines: as likely as the fainter of them.
    likely = np.minimum(*(cv2.filter2D(soft, -1, _line_mask(arm, step)) for step in (across, down)))
    first = _sharpest(likely, np.asarray(seed, float), 0.75 * size)
    if first is None:
        return np.zeros((0, 2)), np.zeros((0, 2))
    found = {(0, 0): first}
    taken = {_cell(first, size)}
    steps = {(0, 0): (across, down)}
    queue = deque([(0, 0)])
    usual = likely[round(float(first[1])), round(float(first[0]))]
    while queue:
        at = queue.popleft()
        for axis in (0, 1):
            for sign in (1, -1):
                to = (at[0] + sign * (1 - axis), at[1] + sign * axis)
                if to in found:
                    continue
                step = steps[at][axis]
                spot = _sharpest(likely, found[at] + sign * step, STRAYS * size)
                if spot is None or likely[round(float(spot[1])), round(float(spot[0]))] < LEAST_LIKELY * usual:
                    continue
                # Two crossings at one place: the growth has slipped by a line.
                if taken & {_cell(spot + off, size) for off in (np.zeros(2), *NEXT * size / 4)}:
                    continue
                now = sign * (spot - found[at])
                found[to] = spot
                taken.add(_cell(spot, size))
                # The grid's step changes slowly over a curled page: it is followed from crossing to crossing.
                changed = (0.5 * (step + now), steps[at][1 - axis])
                steps[to] = changed if axis == 0 else changed[::-1]
                queue.append(to)
    return np.array(list(found), float), np.array(list(found.values()))


def _cell(spot: Spots, size: float) -> tuple[int, int]:
    """Return the quarter of a square that a spot lies in."""
    return (int(spot[0] // (size / 2)), int(spot[1] // (size / 2)))


def _line_mask(arm: int, step: Spots) -> Spots:
    """Return what a line along a step looks like."""
    mask = np.zeros((2 * arm + 1, 2 * arm + 1), np.float32)
    way = step / np.linalg.norm(step) * arm
    a, b = (np.rint((np.array([arm, arm]) + sign * way) * 16).astype(int) for sign in (-1, 1))
    cv2.line(mask, (int(a[0]), int(a[1])), (int(b[0]), int(b[1])), 1.0, 1, cv2.LINE_AA, 4)
    return np.asarray(mask / mask.sum(), np.float32)


def _sharpest(likely: Spots, guess: Spots, room: float) -> Spots | None:
    """Return the likeliest place near a guess, between pixels, or None outside the picture."""
    r = max(2, round(float(room)))
    x, y = round(float(guess[0])), round(float(guess[1]))
    high, wide = likely.shape
    if not (r + 1 < x < wide - r - 2 and r + 1 < y < high - r - 2):
        return None
    part = likely[y - r : y + r + 1, x - r : x + r + 1]
    j, i = np.unravel_index(int(np.argmax(part)), part.shape)
    px, py = x - r + int(i), y - r + int(j)
    if likely[py, px] <= 0:
        return None

    def top(a: float, b: float, c: float) -> float:
        bend = a - 2 * b + c
        return 0.0 if abs(bend) < 1e-9 else max(-0.5, min(0.5, 0.5 * (a - c) / bend))

    return np.array(
        [
            px + top(likely[py, px - 1], likely[py, px], likely[py, px + 1]),
            py + top(likely[py - 1, px], likely[py, px], likely[py + 1, px]),
        ]
    )
