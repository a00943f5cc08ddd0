"""A curve through two ends and along dots: as few cubics as the dots allow, smooth, bending one way where they let it.

Dots are marks of a pencil on cloth: each is off a little, so the curve goes between them. It is found by least squares
over the distances of the dots from it; where they say too little, handles of a plain bend are taken. More cubics, or a
bend the other way, must earn their place by an F test. A dot that alone keeps a plain curve from fitting is left out and
its distance told: nothing is smoothed over silently. scipy does the solving.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from itertools import pairwise
from math import atan2, cos, hypot, sin, sqrt

import numpy as np
from numpy.typing import NDArray

from izett.geometry.curve import Curve
from izett.geometry.outline import without_repeats
from izett.geometry.point import Point, Vector, distance

#: A handle as a share of its cubic's chord where the dots say nothing, and how far dots may easily take it from there: a
#: third draws a parabola, more a rounder bend.
HANDLE, HANDLE_SPREAD = 0.37, 0.35
#: Beyond these shares a cubic makes a corner, or a loop.
SHORTEST_HANDLE, LONGEST_HANDLE = 0.15, 0.95
#: Radians. A curve leaves the direction of its chord at an end no further than this, and bends alike at both ends where
#: the dots do not say otherwise, within so much.
MOST_TURN, EVEN_SPREAD = 2.2, 1.2
#: Radians. Nor does it leave its end further off the way to the nearest mark.
MOST_HOOK = 0.7
MIDDLE_HANDLE, HANDLE_ROOM = (SHORTEST_HANDLE + LONGEST_HANDLE) / 2, (LONGEST_HANDLE - SHORTEST_HANDLE) / 2
#: Beside a dot that is off by the noise: how lightly a plain bend counts, and how hard what a line may not do, for each
#: share of a handle and each radian of a turn.
LIGHTLY, FORBIDDEN = 0.1, 40.0
#: Of the numbers that are chosen: steps in which their slopes are read, how near they settle, and in how many rounds.
STEP, SETTLED, MOST_ROUNDS = 1e-6, 1e-4, 30
#: Points on each cubic between which distances are measured.
SAMPLES = 48
#: Cubics in one line at most; a line that bends oftener is two lines.
MOST_CUBICS = 4
#: F of one model over another from which on it is believed: by chance one line in some hundreds reaches it.
BELIEVED = 9.0
#: So many squares of the noise a line must gain that bends both ways, to be believed over one that bends one way.
TURNS = 4.0
#: A misfit of so small a share of the noise is seen by nobody.
UNSEEN = 0.15
#: A dot may be left out from so many dots on, and must then lie so many times further off than any other; so many are tried.
LEAST_DOTS, STANDS_OUT, SUSPECTS = 4, 2.5, 3
#: Radians. A dot that is wrong makes the line turn out and back by at least this in all; in a tight bend all turns go one way.
ZIGZAG = 0.35
#: Radians, a share, radians. A curve swings that turns by so much more than the line from mark to mark, or is so much longer,
#: or leaves its end so far off the nearest mark.
SWINGS, LONGER, HOOK = 0.7, 1.15, 0.8


@dataclass(frozen=True, slots=True)
class AlongDots:
    """A curve along dots.

    Attributes:
        curve: the curve.
        off: how far each dot lies from it, cm, in their order.
    """

    curve: Curve
    off: tuple[float, ...]

    @property
    def cubics(self) -> int:
        """How many cubics it took."""
        return sum(1 for _ in self.curve.cubics())

    @property
    def farthest(self) -> float:
        """The largest distance of a dot, cm; nothing where there are none."""
        return max(self.off, default=0.0)


@dataclass(frozen=True, slots=True)
class _Asked:
    """What is drawn along: two ends, the dots between them, directions at the ends where they are given; and how far a dot is
    usually, and may be, off (cm)."""

    start: Point
    dots: tuple[Point, ...]
    end: Point
    leaving: Vector | None
    arriving: Vector | None
    noise: float
    most: float

    @property
    def marks(self) -> tuple[Point, ...]:
        """All places from end to end."""
        return (self.start, *self.dots, self.end)

    @property
    def fixed(self) -> int:
        """At how many ends the direction is given."""
        return (self.leaving is not None) + (self.arriving is not None)


@dataclass(frozen=True, slots=True)
class _Model:
    """So many cubics, bending one way or as they like."""

    cubics: int
    one_way: bool

    def free(self, fixed_ends: int) -> int:
        """Return how many numbers it may choose."""
        return 5 * (self.cubics - 1) + 4 - fixed_ends


@dataclass(frozen=True, slots=True)
class _Fit:
    model: _Model
    curve: Curve
    off: NDArray[np.float64]
    free: int

    @property
    def squares(self) -> float:
        return float(self.off @ self.off)

    def is_good(self, asked: _Asked) -> bool:
        return bool(np.max(self.off) <= asked.most and sqrt(self.squares / len(self.off)) <= asked.noise)


def forget() -> None:
    """Forget all lines that were drawn along dots."""
    along_dots.cache_clear()


@lru_cache(maxsize=2048)
def along_dots(
    start: Point,
    dots: tuple[Point, ...],
    end: Point,
    *,
    leaving: Vector | None = None,
    arriving: Vector | None = None,
    noise: float,
    most: float,
) -> AlongDots:
    """Return the curve from one point to another along dots.

    Args:
        start, end: its ends, which it keeps.
        dots: in their order from start to end.
        leaving, arriving: its directions at the ends, where they are given (both looking along the line).
        noise: how far a dot is usually off, cm.
        most: how far a dot may be off before a plainer curve is given up for it, cm.
    """
    asked = _Asked(start, dots, end, leaving, arriving, noise, most)
    plainest, *freer = _models()
    if not dots:
        return AlongDots(_solved(plainest, asked)[0], ())
    best, left_out_of = _fitted(plainest, asked), None
    for model in freer:
        if best.is_good(asked):
            seen = sqrt(best.squares / len(dots)) > UNSEEN * noise
            if not seen or model.cubics > best.model.cubics + 1 or model.free(asked.fixed) >= len(dots):
                break
        elif left_out_of is not best:
            left_out_of = best
            alone = _without_one(best.model, asked)
            if alone is not None:
                best = alone
                break
        fit = _fitted(model, asked)
        if _earns(fit, best, asked) and not _swings(fit.curve, asked.marks):
            best = fit
    return AlongDots(best.curve, tuple(float(d) for d in best.off))


def _models() -> Iterator[_Model]:
    """Yield what is tried, the plainest first."""
    for cubics in range(1, MOST_CUBICS + 1):
        yield _Model(cubics, True)
        yield _Model(cubics, False)


def _earns(fit: _Fit, best: _Fit, asked: _Asked) -> bool:
    """Return whether a freer model is to be believed over the best so far."""
    count, unseen = len(fit.off), UNSEEN * asked.noise
    if sqrt(best.squares / count) <= unseen:
        return False
    if not best.is_good(asked) and (fit.is_good(asked) or fit.squares < best.squares / 2):
        # It may choose more numbers than there are dots; that it does not swing between them is asked of it besides.
        return True
    if fit.free == best.free and best.squares - fit.squares > TURNS * asked.noise**2:
        return True
    # One that may turn the other way has no more numbers to choose, only more of their values: it counts as one.
    more, spare = max(fit.free - best.free, 1), count - fit.free
    if spare < 1:
        return False
    gained = (best.squares - fit.squares) / more
    return gained > BELIEVED * max(fit.squares / spare, unseen**2)


def _fitted(model: _Model, asked: _Asked) -> _Fit:
    curve, off = _solved(model, asked)
    return _Fit(model, curve, off, model.free(asked.fixed))


def _without_one(model: _Model, asked: _Asked) -> _Fit | None:
    """Return the curve along all dots but one that alone keeps it from fitting; None where it is not one alone."""
    if len(asked.dots) < LEAST_DOTS:
        return None
    off = _fitted(model, asked).off
    # One that stands out pulls the curve to itself, or its neighbours away: it is among those that are off the most.
    for i in np.argsort(off)[::-1][:SUSPECTS]:
        rest = replace(asked, dots=(*asked.dots[:i], *asked.dots[i + 1 :]))
        fit = _fitted(model, rest)
        if fit.free > len(rest.dots) or not fit.is_good(asked):
            continue
        off = _distances(fit.curve, np.asarray(asked.dots, dtype=np.float64))
        zigzag = _turning(asked.marks) - _turning(rest.marks)
        if off[i] > max(asked.most, STANDS_OUT * float(np.max(fit.off))) and zigzag > ZIGZAG:
            return _Fit(model, fit.curve, off, fit.free)
    return None


def _solved(model: _Model, asked: _Asked) -> tuple[Curve, NDArray[np.float64]]:
    """Return the best curve of a model and the distance of each dot."""
    # scipy takes long to import: only a program that draws along dots waits for it.
    from scipy.optimize import least_squares  # noqa: PLC0415

    line = _Line(model, asked)
    found = least_squares(
        line.misfit, line.first_guess(), line.slopes, method="lm", xtol=SETTLED, ftol=SETTLED, max_nfev=MOST_ROUNDS
    )
    controls = _held(line.controls(found.x), asked.start, asked.end)
    curve = Curve(tuple((float(x), float(y)) for x, y in controls))
    return curve, _distances(curve, line.spots)


def _held(controls: NDArray[np.float64], start: Point, end: Point) -> NDArray[np.float64]:
    controls[0], controls[-1] = start, end
    return controls


class _Line:
    """The numbers that a model chooses: at each joint its place and direction, and two handles for each cubic."""

    def __init__(self, model: _Model, asked: _Asked) -> None:
        self.model = model
        self.start, self.end = (np.asarray(spot, dtype=np.float64) for spot in (asked.start, asked.end))
        self._ends = (asked.start, asked.end)
        self.chord = max(*(distance(asked.start, spot) for spot in asked.marks), 1e-9)
        self.fixed = [None if way is None else atan2(way[1], way[0]) for way in (asked.leaving, asked.arriving)]
        self.spots, self.noise = np.asarray(asked.dots, dtype=np.float64).reshape(-1, 2), asked.noise
        spots = self.spots
        self.along = np.vstack([self.start, spots, self.end])
        #: To which side the dots lie of the chord: where a line bends one way, it is this.
        chord = self.end - self.start
        rel = spots - self.start
        aside = float(np.sum(chord[0] * rel[:, 1] - chord[1] * rel[:, 0])) if len(spots) else 0.0
        if not aside and any(way is not None for way in self.fixed):
            aside = self._aside_of_ends(chord)
        self.side = -1.0 if aside > 0 else 1.0

    def _aside_of_ends(self, chord: NDArray[np.float64]) -> float:
        """Return to which side a line without dots bends, by the directions at its ends."""
        ahead = atan2(chord[1], chord[0])
        first, last = self.fixed
        return (sin(first - ahead) if first is not None else 0.0) - (sin(last - ahead) if last is not None else 0.0)

    def first_guess(self) -> NDArray[np.float64]:
        """Return the numbers to begin with: joints on the dots, directions of the stretches between them."""
        joints = self._first_joints()
        ways = self._first_ways(joints)
        numbers: list[float] = []
        for i, (joint, way) in enumerate(zip(joints, ways, strict=True)):
            if 0 < i < self.model.cubics:
                numbers += [float(joint[0]) / self.chord, float(joint[1]) / self.chord]
            if not (i == 0 and self.fixed[0] is not None) and not (
                i == self.model.cubics and self.fixed[1] is not None
            ):
                numbers.append(way)
        return np.asarray([*numbers, *([HANDLE] * (2 * self.model.cubics))])

    def _first_joints(self) -> NDArray[np.float64]:
        gone = np.concatenate(([0.0], np.cumsum(np.hypot(*np.diff(self.along, axis=0).T))))
        at = gone[-1] * np.arange(self.model.cubics + 1) / self.model.cubics
        return np.stack([np.interp(at, gone, self.along[:, 0]), np.interp(at, gone, self.along[:, 1])], axis=1)

    def _first_ways(self, joints: NDArray[np.float64]) -> list[float]:
        """Return the directions at the joints: of the circle through it and its neighbours, as a hand would see it."""
        if len(joints) == 2:
            mid = self.along[len(self.along) // 2] if len(self.along) > 2 else (joints[0] + joints[1]) / 2
            joints = np.vstack([joints[0], mid, joints[1]])
            ways = self._first_ways(joints)
            return [ways[0], ways[-1]]
        steps = np.diff(joints, axis=0)
        angles = [atan2(y, x) for x, y in steps]
        turned = [_turn(a, b) for a, b in pairwise(angles)]
        inner = [a + t / 2 for a, t in zip(angles, turned, strict=False)]
        return [angles[0] - turned[0] / 2, *inner, angles[-1] + turned[-1] / 2]

    def controls(self, numbers: NDArray[np.float64]) -> NDArray[np.float64]:
        """Return the control points of a choice of numbers, as a (3n + 1, 2) array."""
        n = self.model.cubics
        given = numbers.tolist()
        first, last = self.fixed
        joints = [self._ends[0]]
        ways = [first if first is not None else given.pop(0)]
        for _ in range(n - 1):
            x, y, way = given.pop(0), given.pop(0), given.pop(0)
            joints.append((x * self.chord, y * self.chord))
            ways.append(way)
        joints.append(self._ends[1])
        ways.append(last if last is not None else given.pop(0))
        points = [self._ends[0]]
        for i in range(n):
            (ax, ay), (bx, by) = joints[i], joints[i + 1]
            chord = hypot(bx - ax, by - ay)
            out, back = (chord * min(max(h, SHORTEST_HANDLE), LONGEST_HANDLE) for h in given[2 * i : 2 * i + 2])
            points += [
                (ax + out * cos(ways[i]), ay + out * sin(ways[i])),
                (bx - back * cos(ways[i + 1]), by - back * sin(ways[i + 1])),
                (bx, by),
            ]
        return np.asarray(points)

    def misfit(self, numbers: NDArray[np.float64]) -> NDArray[np.float64]:
        """Return what is to be made small: distances by the noise, and what a plain hand would not do."""
        points = self.controls(numbers)
        away, _, _ = _from_cubics(points, self.spots)
        return np.concatenate((away / self.noise, self._unlike_a_hand(numbers, points)))

    def slopes(self, numbers: NDArray[np.float64]) -> NDArray[np.float64]:
        """Return how the misfit changes with each number.

        The place on the curve that is nearest to a dot may stand still meanwhile: moving along the curve does not bring it
        nearer. So a distance changes as that place does, square to the curve.
        """
        points = self.controls(numbers)
        _, weights, square = _from_cubics(points, self.spots)
        at_rest = self._unlike_a_hand(numbers, points)
        found = np.empty((len(self.spots) + len(at_rest), len(numbers)))
        for k in range(len(numbers)):
            moved = numbers.copy()
            moved[k] += STEP
            there = self.controls(moved)
            shift = weights @ ((there - points) / STEP)
            found[: len(self.spots), k] = -np.einsum("ij,ij->i", square, shift) / self.noise
            found[len(self.spots) :, k] = (self._unlike_a_hand(moved, there) - at_rest) / STEP
        return found

    def _unlike_a_hand(self, numbers: NDArray[np.float64], points: NDArray[np.float64]) -> NDArray[np.float64]:
        """Return what a plain hand would not do: odd handles, an uneven bend, turning back, a bend the wrong way."""
        handles = numbers[-2 * self.model.cubics :]
        steps = np.diff(points, axis=0)
        turns = np.arctan2(
            steps[:-1, 0] * steps[1:, 1] - steps[:-1, 1] * steps[1:, 0], np.einsum("ij,ij->i", steps[:-1], steps[1:])
        )
        chord = self.end - self.start
        ends = steps[[0, -1]]
        out = np.arctan2(chord[0] * ends[:, 1] - chord[1] * ends[:, 0], ends @ chord)
        # Beside its ends it goes about where the nearest marks lie.
        near = np.stack((self.along[1] - self.along[0], self.along[-1] - self.along[-2]))
        beside = np.arctan2(near[:, 0] * ends[:, 1] - near[:, 1] * ends[:, 0], np.einsum("ij,ij->i", near, ends))
        return np.concatenate(
            (
                (handles - HANDLE) * (LIGHTLY / HANDLE_SPREAD),
                [(out[0] + out[1]) * (LIGHTLY / EVEN_SPREAD)],
                (np.abs(handles - MIDDLE_HANDLE) - HANDLE_ROOM).clip(min=0.0) * FORBIDDEN,
                (np.abs(out) - MOST_TURN).clip(min=0.0) * FORBIDDEN,
                (np.abs(beside) - MOST_HOOK).clip(min=0.0) * FORBIDDEN,
                (-self.side * turns).clip(min=0.0) * (FORBIDDEN if self.model.one_way else 0.0),
            )
        )


def _swings(curve: Curve, marks: Sequence[Point]) -> bool:
    """Return whether a curve turns further, or is longer, than any hand would join its marks."""
    drawn = [(float(x), float(y)) for x, y in _sampled(curve)]
    along = sum(distance(a, b) for a, b in pairwise(marks))
    # Beside its ends it goes about where the nearest mark lies.
    hooks = (
        abs(_turn(_way(marks[0], marks[1]), _way(drawn[0], drawn[1]))),
        abs(_turn(_way(marks[-2], marks[-1]), _way(drawn[-2], drawn[-1]))),
    )
    return _turning(drawn) > _turning(marks) + SWINGS or curve.length > LONGER * along or max(hooks) > HOOK


def _turning(points: Sequence[Point]) -> float:
    """Return by how much (radians) a line from point to point turns in all, to either side."""
    steps = [(b[0] - a[0], b[1] - a[1]) for a, b in pairwise(points)]
    return sum(abs(atan2(a[0] * b[1] - a[1] * b[0], a[0] * b[0] + a[1] * b[1])) for a, b in pairwise(steps))


def _way(a: Point, b: Point) -> float:
    return atan2(b[1] - a[1], b[0] - a[0])


def _turn(a: float, b: float) -> float:
    return atan2(sin(b - a), cos(b - a))


_T = np.linspace(0.0, 1.0, SAMPLES + 1)


def _weights(t: NDArray[np.float64]) -> NDArray[np.float64]:
    """Return the weights of a cubic's four control points at each parameter, as an array (…, 4)."""
    u = 1 - t
    return np.stack([u**3, 3 * u**2 * t, 3 * u * t**2, t**3], axis=-1)


_SAMPLED = _weights(_T)


def _sampled(curve: Curve) -> NDArray[np.float64]:
    lines = [_SAMPLED @ np.asarray(cubic) for cubic in curve.cubics()]
    return np.vstack([lines[0], *(line[1:] for line in lines[1:])])


def _from_cubics(
    points: NDArray[np.float64], spots: NDArray[np.float64]
) -> tuple[NDArray[np.float64], NDArray[np.float64], NDArray[np.float64]]:
    """Return of each spot how far it lies from the cubics of control points, to the left of them positive; the weights of
    the control points in the place nearest to it; and the direction from there to the left, square to the curve."""
    count = len(points) // 3
    lines = np.stack([_SAMPLED @ points[3 * i : 3 * i + 4] for i in range(count)])
    a, step = lines[:, :-1].reshape(-1, 2), np.diff(lines, axis=1).reshape(-1, 2)
    long = np.maximum(np.einsum("ij,ij->i", step, step), 1e-18)
    rel = spots[:, None, :] - a[None, :, :]
    share = np.clip(np.einsum("ijk,jk->ij", rel, step) / long, 0.0, 1.0)
    gap = rel - share[..., None] * step[None, :, :]
    away = np.einsum("ijk,ijk->ij", gap, gap)
    nearest = np.argmin(away, axis=1) if len(spots) else np.zeros(0, dtype=int)
    rows = np.arange(len(spots))
    cubic, t = nearest // SAMPLES, (nearest % SAMPLES + share[rows, nearest]) / SAMPLES
    own = _weights(t)
    weights = np.zeros((len(spots), len(points)))
    for j in range(4):
        weights[rows, 3 * cubic + j] = own[:, j]
    direction = step[nearest] / np.sqrt(long[nearest])[:, None]
    left = np.stack([-direction[:, 1], direction[:, 0]], axis=1)
    off = spots - weights @ points
    return np.einsum("ij,ij->i", off, left), weights, left


def _distances(curve: Curve, spots: NDArray[np.float64]) -> NDArray[np.float64]:
    points = np.asarray([point for cubic in curve.cubics() for point in cubic[:3]] + [curve.end])
    _, weights, _ = _from_cubics(points, spots)
    off = spots - weights @ points
    return np.asarray(np.hypot(off[:, 0], off[:, 1]))


def through_all(start: Point, dots: Sequence[Point], end: Point) -> Curve:
    """Return the smooth curve through every dot, as a bent strip would lie; a dot that lies on the one before counts once."""
    from scipy.interpolate import CubicSpline  # noqa: PLC0415

    points = np.asarray([*without_repeats([start, *dots]), end], dtype=np.float64)
    at = np.concatenate(([0.0], np.cumsum(np.hypot(*np.diff(points, axis=0).T))))
    spline = CubicSpline(at, points, bc_type="natural" if len(points) < 4 else "not-a-knot")
    speeds = spline(at, 1)
    controls: list[Point] = [start]
    for i, gap in enumerate(np.diff(at)):
        out, into = points[i] + speeds[i] * gap / 3, points[i + 1] - speeds[i + 1] * gap / 3
        controls += [(float(out[0]), float(out[1])), (float(into[0]), float(into[1]))]
        controls.append((float(points[i + 1][0]), float(points[i + 1][1])))
    return Curve((*controls[:-1], end))
