"""The first engine: pieces dropped one after another on a skyline of columns, their order and poses found by annealing.

The cloth is parted into narrow columns, each filled up to some height. A piece comes to lie where it reaches least far;
what lies beneath it in its columns is lost to those after it, so their order decides. It expresses every fold, and
matching: places across and heights are taken from those allowed. The same seed gives the same plan.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache
from math import ceil, exp, floor, inf
from random import Random

import numpy as np
import shapely

from izett.cutting.lay.cutouts import Cutout, Outline, Pose

#: cm. Columns are about so wide.
COLUMN = 0.5
#: How many fewer, and how many more, columns there may be than that, so that they suit the pieces' widths.
FEWER, MORE = 0.7, 1.4
#: Corners of an outline with room around it stay sharp up to this many times the room.
SHARP = 2.0
#: A skyline that is high on average counts as so much of its highest place.
EVENNESS = 0.02
#: Of the length, what a worse plan may cost at first, and at last.
HOT, COLD = 0.03, 0.0005
#: cm. A rounding error in a place.
HAIR = 1e-9


@dataclass(frozen=True, slots=True)
class Ground:
    """What an engine lays on: a strip in its own frame, its fold (if it has one) at x = 0.

    Attributes:
        width: how wide it is.
        gap: what is left free between pieces.
        repeat: of the cloth: across and along, 0 for none.
        origin: the x at which a stripe's middle lies.
    """

    width: float
    gap: float
    repeat: tuple[float, float] = (0.0, 0.0)
    origin: float = 0.0


@dataclass(frozen=True, slots=True)
class Spot:
    """Where a cutout lies on its strip: its pose, with its lower left corner at x, y."""

    cutout: Cutout
    pose: Pose
    strip: int
    x: float
    y: float

    @property
    def top(self) -> float:
        """How far along the cloth it reaches."""
        return self.y + self.pose.height


def length_of(spots: Sequence[Spot]) -> float:
    """Return how much length spots take, cm."""
    return max((spot.top for spot in spots), default=0.0)


class _Shape:
    """A pose over columns, with half the gap around it: how low and how high it reaches in each, where it may begin."""

    def __init__(self, pose: Pose, ground: Ground, column: float, *, on_fold: bool) -> None:
        self.pose = pose
        half, across = ground.gap / 2, ground.repeat[0]
        first = (ground.origin - pose.upright) % across if pose.upright is not None and across else 0.0
        # A rounding error short of a whole repeat is none.
        first = 0.0 if across and across - first < HAIR else first
        self.shift = first % column
        self.low, self.high = _reach(np.add(grown(pose, half), (half + self.shift, 0.0)), column)
        last = floor((ground.width - pose.width - self.shift) / column + HAIR)
        if on_fold:
            self.starts = np.array([0] if first < HAIR else [], dtype=int)
        elif across and pose.upright is not None:
            self.starts = np.arange(round((first - self.shift) / column), last + 1, round(across / column))
        else:
            self.starts = np.arange(0, last + 1)
        self.starts = self.starts[self.starts <= last]


@lru_cache(maxsize=4096)
def grown(pose: Pose, by: float) -> Outline:
    """Return a pose's outline with so much room around it: nowhere more than that beyond the piece, however sharp its corners."""
    if not by:
        return pose.outline
    own = shapely.polygons(pose.outline)
    left, low, right, high = own.bounds
    paper = shapely.buffer(own, by, join_style="mitre", mitre_limit=SHARP)
    # The point of a mitre would stand out beyond the strip, into columns that are not there.
    paper = paper & shapely.box(left - by, low - by, right + by, high + by)
    return np.array(shapely.orient_polygons(paper).exterior.coords)[:-1]


def _reach(outline: Outline, column: float) -> tuple[Outline, Outline]:
    """Return how low and how high an outline reaches in each column, from the one at x = 0 on."""
    x, y = outline[:, 0], outline[:, 1]
    nx, ny = np.roll(x, -1), np.roll(y, -1)
    columns = ceil((x.max() - HAIR) / column)
    edges = np.arange(1, columns) * column
    inside = (np.minimum(x, nx)[:, None] < edges) & (edges < np.maximum(x, nx)[:, None])
    which, at = np.nonzero(inside)
    share = (edges[at] - x[which]) / (nx[which] - x[which])
    cut = y[which] + share * (ny[which] - y[which])
    column_of = np.clip(np.floor(x / column + HAIR).astype(int), 0, columns - 1)
    before = np.clip(np.ceil(x / column - HAIR).astype(int) - 1, 0, columns - 1)
    low, high = np.full(columns, inf), np.full(columns, -inf)
    for places, heights in ((column_of, y), (before, y), (at, cut), (at + 1, cut)):
        np.minimum.at(low, places, heights)
        np.maximum.at(high, places, heights)
    return low, high


def _column(ground: Ground, cutouts: Sequence[Cutout]) -> float:
    """Return how wide columns are: so that pieces take as little more than their width as may be.

    What is cut straight is as wide all along: two such pieces lie side by side only where columns end at their sides.
    """
    across, whole = ground.repeat[0], ground.width + ground.gap
    if across:
        return across / ceil(across / COLUMN)
    widths = {pose.width + ground.gap for cutout in cutouts for pose in cutout.poses}

    def lost(number: int) -> float:
        column = whole / number
        return sum(ceil(width / column - HAIR) * column - width for width in widths)

    usual = ceil(whole / COLUMN)
    numbers = range(max(round(usual * FEWER), 1), round(usual * MORE) + 1)
    return whole / min(numbers, key=lambda number: (lost(number), number))


class _Strip:
    """A strip being filled."""

    def __init__(self, ground: Ground, number: int, cutouts: Sequence[Cutout]) -> None:
        self.column = _column(ground, cutouts)
        self.columns = floor((ground.width + ground.gap) / self.column + HAIR)
        self.ground, self.number = ground, number
        self.shapes = {
            cutout: [_Shape(p, ground, self.column, on_fold=cutout.on_fold) for p in cutout.poses] for cutout in cutouts
        }
        self.sky = self.fresh()

    def fresh(self) -> Outline:
        return np.full(self.columns + 1, -self.ground.gap / 2)

    def best(self, cutout: Cutout, pose: int, phase: float) -> tuple[float, int, float]:
        """Return how far a pose would reach at its best place, where that begins, and how far along it lies."""
        shape = self.shapes[cutout][pose]
        starts = shape.starts
        if not len(starts):
            return inf, 0, 0.0
        # One row for each column of the shape, in it one place for each start: this way round numpy takes the highest quickest.
        sky, stride = self.sky, self.sky.strides[0]
        begins = range(int(starts[0]), int(starts[-1]) + 1)
        rows: Outline = np.ndarray(
            (len(shape.low), len(begins)), sky.dtype, sky, begins.start * stride, (stride, stride)
        )
        if len(starts) != len(begins):
            rows = rows[:, starts - starts[0]]
        heights = (rows - shape.low[:, None]).max(axis=0)
        along = self.ground.repeat[1]
        if along and shape.pose.level is not None:
            heights = np.ceil((heights + shape.pose.level - phase) / along - HAIR) * along - shape.pose.level + phase
        at = int(heights.argmin())
        y = float(heights[at])
        return y + shape.pose.height, int(starts[at]), y

    def put(self, cutout: Cutout, pose: int, start: int, y: float) -> Spot:
        shape = self.shapes[cutout][pose]
        part = self.sky[start : start + len(shape.high)]
        np.maximum(part, shape.high + y, out=part)
        return Spot(cutout, shape.pose, self.number, start * self.column + shape.shift, y)


@dataclass
class _State:
    """A way to lay everything: the order, a pose of each cutout (None where the better is taken), the stripes' start."""

    order: list[Cutout]
    pose: dict[Cutout, int | None]
    phase: float = 0.0

    def copy(self) -> "_State":
        return _State(list(self.order), dict(self.pose), self.phase)


class Columns:
    """Lays cutouts on strips, better and better.

    Args:
        grounds: the strips that lie beside each other.
        cutouts: what is laid.
        seed: the same seed gives the same plans.
    """

    def __init__(self, grounds: Sequence[Ground], cutouts: Sequence[Cutout], *, seed: int) -> None:
        self._strips = [_Strip(ground, number, cutouts) for number, ground in enumerate(grounds)]
        self._random = Random(seed)
        along = grounds[0].repeat[1]
        levels = {p.level % along for c in cutouts for p in c.poses if p.level is not None} if along else set()
        self._phases = sorted(levels) or [0.0]
        largest = sorted(cutouts, key=lambda cutout: -cutout.area)
        # What lies on a fold has no other place: it goes first.
        first = [c for c in largest if c.on_fold] + [c for c in largest if not c.on_fold]
        self._state = _State(first, dict.fromkeys(cutouts), self._phases[0])

    def plans(self, rounds: int) -> Iterator[list[Spot]]:
        """Yield a first plan, and then each better one that is found within so many rounds."""
        now = self._state
        spots, cost = self._laid(now)
        yield spots
        # A first order that finds no place for a piece is worse than any that does.
        best, best_length = now.copy(), length_of(spots) if cost < inf else inf
        for number in range(rounds):
            warm = HOT * (COLD / HOT) ** (number / rounds)
            tried = self._varied(now)
            spots, new = self._laid(tried)
            if new <= cost or (new < inf and self._random.random() < exp((cost - new) / (warm * cost))):
                now, cost = tried, new
            if length_of(spots) < best_length - HAIR and new < inf:
                best, best_length = tried, length_of(spots)
                yield spots
        self._state = best

    def _varied(self, state: _State) -> _State:
        tried = state.copy()
        roll = self._random.random()
        order = tried.order
        if roll < 0.15 and len(self._phases) > 1:
            tried.phase = self._random.choice(self._phases)
        elif roll < 0.4:
            cutout = self._random.choice(order)
            tried.pose[cutout] = self._random.choice([None, *range(len(cutout.poses))])
        elif roll < 0.7 and len(order) > 1:
            i, j = self._random.sample(range(len(order)), 2)
            order[i], order[j] = order[j], order[i]
        else:
            moved = order.pop(self._random.randrange(len(order)))
            order.insert(self._random.randint(0, len(order)), moved)
        return tried

    def _laid(self, state: _State) -> tuple[list[Spot], float]:
        """Return where everything comes to lie, and what that costs."""
        for strip in self._strips:
            strip.sky = strip.fresh()
        spots: list[Spot] = []
        for cutout in state.order:
            chosen = state.pose[cutout]
            poses = range(len(cutout.poses)) if chosen is None else (chosen,)
            tried = (
                (*strip.best(cutout, pose, state.phase), number, pose)
                for number, strip in enumerate(self._strips)
                for pose in poses
            )
            reach, start, y, number, pose = min(tried)
            if reach == inf:
                return spots, inf
            spots.append(self._strips[number].put(cutout, pose, start, y))
        long = length_of(spots)
        return spots, long + EVENNESS * sum(float(strip.sky.mean()) for strip in self._strips)
