"""What an outline has: notches cut into it, corners, darts cut out of it, and the line from each corner to the next."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from math import acos, degrees

import numpy as np
from scipy.signal import find_peaks
from shapely.geometry import LineString, Point, Polygon

from izett.tracing.mapping import Spots
from izett.tracing.told import Why, refused

#: cm. A notch is narrower than twice this, and at least and at most so large (cm²) and so deep.
NOTCH_HALF = 0.45
NOTCH_AREA, NOTCH_DEEP = (0.03, 0.8), (0.25, 1.6)
#: Degrees. On both sides of a notch the outline runs on in one direction; how far from it (cm) that is read.
RUNS_ON, READ_FROM, READ_TO = 35.0, 0.15, 1.2
#: cm. An outline is read at places so far apart.
APART = 0.1
#: cm. The arms along which the direction before and after a place is read, how far from the place they begin, and how near to
#: each other two corners may be.
ARMS, GAP, CORNERS_APART = (1.8, 3.5), 0.3, 1.0
#: Degrees. How far an outline turns at a corner at least, and how many times the turn of its plain stretches.
LEAST_TURN, OVER_PLAIN = 16.0, 5.0
#: cm, and a share: so much of the least turn happens so near to a corner. A bend of 3 cm turns by less there.
NEAR, SHARE_NEAR = 0.5, 0.7
#: cm. A hand that points at a corner or a notch errs by no more; corners nearer to each other than this are the same.
POINTED, SAME = 0.5, 0.01
LEAST_CORNERS = 2
#: More corners than any piece has: what is looked at is no piece.
MOST_CORNERS = 40
#: A dart that is cut out: how narrow its tip is (degrees), how alike its legs are (a share), how long (cm).
DART_TIP, DART_LEGS, DART_LONG = 50.0, 0.08, (3.0, 30.0)

#: cm. Legs of a dart so near to each other are not read: what lies between them may have closed. Of each so many places must be
#: left, its tip lies no further beyond where it seemed to be, and a leg whose places scatter by less about a straight line is one.
SLIT, LEAST_OF_LEG, FARTHEST_OUT, STRAIGHT = 0.35, 12, 2.5, 0.02


@dataclass(frozen=True)
class Notch:
    """A notch: where it is on the outline (cm on the table), how deep it is cut."""

    at: Spots
    deep: float


@dataclass(frozen=True)
class Read:
    """An outline as read.

    Attributes:
        corners: n × 2, in the order of walking round.
        lines: from each corner to the next, their places about 0.1 cm apart, both corners with them.
        notches: on the lines.
        darts: the corners (by number) that are a dart's tip.
        places: the outline without its notches, at places 0.1 cm apart.
        at: of each corner, the number of the place where it was seen.
    """

    corners: Spots
    lines: tuple[Spots, ...]
    notches: tuple[Notch, ...]
    darts: tuple[int, ...]
    places: Spots
    at: tuple[int, ...]


def read(ring: Spots) -> Read:
    """Return what an outline has.

    Raises:
        PictureRefused: it has more corners than a piece has.
    """
    bridged, notches = _without_notches(Polygon(ring).buffer(0))
    places = _each(bridged)
    at = _corners(places)
    _refuse_ragged(len(at))
    if len(at) < LEAST_CORNERS:
        at = _opposite(places)
    return _from_corners(places, at, [None] * len(at), tuple(notches))


def read_anew(found: Read, corners: Sequence[tuple[Spots, bool]], notches: Sequence[Spots]) -> Read:
    """Return an outline with its corners and notches where a person says.

    A corner that is pointed at lies where the outline turns near there, else on the outline; one pointed at further off the
    outline than a hand errs, or told exactly, lies just there.

    Args:
        found: the outline as read.
        corners: in any order: where each is, and whether that is exact.
        notches: where they are; each lies on the outline.

    Raises:
        PictureRefused: fewer than two corners are left, or more than a piece has.
    """
    _refuse_ragged(len(corners))
    told: dict[int, Spots | None] = {}
    for spot, exact in corners:
        i = _place_of(found, spot)
        off = float(np.linalg.norm(found.places[i] - spot))
        if exact or off > POINTED:
            # Two that lie off the outline may be nearest to one place of it: both are kept.
            while i in told:
                i = (i + 1) % len(found.places)
            told[i] = spot
        else:
            i = _turns_near(found.places, i)
            told.setdefault(i, None)
    if len(told) < LEAST_CORNERS:
        raise refused(
            Why.CORNERS,
            f"An outline has {LEAST_CORNERS} corners at least; {len(told)} {'is' if len(told) == 1 else 'are'} left.",
            "Take a corner wherever one line ends and the next begins.",
        )
    at = sorted(told)
    on = [found.places[int(np.argmin(np.linalg.norm(found.places - spot, axis=1)))] for spot in notches]
    kept = tuple(_same_notch(found, spot) for spot in on)
    return _from_corners(found.places, at, [told[i] for i in at], kept)


def _refuse_ragged(count: int) -> None:
    if count > MOST_CORNERS:
        raise refused(
            Why.RAGGED,
            f"The outline has {count} corners: that is no piece, or its edge is torn.",
            "Lay the piece on a plain table of another tone, its edges flat.",
        )


def _place_of(found: Read, spot: Spots) -> int:
    """Return the number of the place of the outline that a corner belongs to: its own where it is known, else the nearest."""
    for corner, i in zip(found.corners, found.at, strict=True):
        if float(np.linalg.norm(corner - spot)) < SAME:
            return i
    return int(np.argmin(np.linalg.norm(found.places - spot, axis=1)))


def _turns_near(places: Spots, i: int) -> int:
    """Return the place near one where the outline turns most, if it turns as at a corner; else that place."""
    turns = _turns(places, ARMS[0])
    near = (i + np.arange(-round(POINTED / APART), round(POINTED / APART) + 1)) % len(places)
    best = int(near[int(np.argmax(turns[near]))])
    return best if turns[best] >= LEAST_TURN else i


def _same_notch(found: Read, spot: Spots) -> Notch:
    """Return a notch at a spot: one that was read there, or one that nobody measured the depth of."""
    return next((one for one in found.notches if float(np.linalg.norm(one.at - spot)) < POINTED), Notch(spot, 0.0))


def _from_corners(places: Spots, at: Sequence[int], told: Sequence[Spots | None], notches: tuple[Notch, ...]) -> Read:
    """Return an outline parted at its corners; those that nobody told lie where the lines beside them meet."""
    corners = np.array([_sharp_corner(places, i) if spot is None else spot for i, spot in zip(at, told, strict=True)])
    lines = [_between(places, at, corners, n) for n in range(len(at))]
    darts = _darts(corners)
    for tip in darts:
        _run_out(corners, lines, tip, told=told[tip])
    return Read(corners, tuple(lines), notches, tuple(darts), places, tuple(at))


def _without_notches(shape: Polygon) -> tuple[Polygon, list[Notch]]:
    """Return a shape with its notches bridged, and the notches."""
    shape = shape if shape.geom_type == "Polygon" else max(shape.geoms, key=lambda part: part.area)
    closed = shape.buffer(NOTCH_HALF, quad_segs=12).buffer(-NOTCH_HALF, quad_segs=12)
    gaps = closed.difference(shape)
    found, whole = [], shape
    for gap in getattr(gaps, "geoms", [gaps]):
        if gap.is_empty or gap.geom_type != "Polygon" or not NOTCH_AREA[0] <= gap.area <= NOTCH_AREA[1]:
            continue
        notch = _notch(shape, gap)
        if notch is not None:
            found.append(notch[0])
            whole = whole.union(notch[1])
    plain = whole.buffer(0.02).buffer(-0.02)
    plain = plain if plain.geom_type == "Polygon" else max(plain.geoms, key=lambda part: part.area)
    return plain, found


def _notch(shape: Polygon, gap: Polygon) -> tuple[Notch, Polygon] | None:
    """Return the notch that a gap is, with the shape that fills it, or None where the outline turns there."""
    ring = shape.exterior
    length = ring.length
    along = [ring.project(Point(spot)) for spot in gap.exterior.coords if ring.distance(Point(spot)) < 1e-3]
    if len(along) < 3:
        return None
    centre = ring.project(gap.centroid)
    off = sorted((a - centre + length / 2) % length - length / 2 for a in along)
    first, last = centre + off[0], centre + off[-1]
    if last - first > 4 * NOTCH_AREA[1] + 4:
        return None

    def at(a: float) -> Spots:
        return np.asarray(ring.interpolate(a % length).coords[0])

    before = at(first - READ_FROM) - at(first - READ_TO)
    after = at(last + READ_TO) - at(last + READ_FROM)
    if _angle(before, after) > RUNS_ON:
        return None
    a, b = at(first - READ_FROM), at(last + READ_FROM)
    mouth = LineString([a, b])
    rim = [at(t) for t in np.linspace(first - READ_FROM, last + READ_FROM, 60)]
    deep = max(mouth.distance(Point(spot)) for spot in rim)
    if not NOTCH_DEEP[0] <= deep <= NOTCH_DEEP[1]:
        return None
    # Where it is: its tip, straight out to the line that bridges it.
    tip = max(rim, key=lambda spot: mouth.distance(Point(spot)))
    place = np.asarray(mouth.interpolate(mouth.project(Point(tip))).coords[0])
    return Notch(place, deep), Polygon([a, *rim, b]).buffer(0)


def _angle(a: Spots, b: Spots) -> float:
    cos = float(a @ b) / max(float(np.linalg.norm(a) * np.linalg.norm(b)), 1e-12)
    return degrees(acos(max(-1.0, min(1.0, cos))))


def _each(shape: Polygon) -> Spots:
    """Return places along a shape, so far apart, counter-clockwise as one sees it."""
    spots = np.asarray(shape.exterior.coords)
    if shape.exterior.is_ccw:
        spots = spots[::-1]
    gaps = np.linalg.norm(np.diff(spots, axis=0), axis=1)
    along = np.concatenate([[0.0], np.cumsum(gaps)])
    count = max(24, round(along[-1] / APART))
    at = np.arange(count) * along[-1] / count
    return np.stack([np.interp(at, along, spots[:, i]) for i in (0, 1)], axis=1)


def _corners(places: Spots) -> list[int]:
    """Return the places where the outline turns."""
    turns = [_turns(places, arm) for arm in ARMS]
    needed = [max(LEAST_TURN, OVER_PLAIN * float(np.median(np.abs(turn - np.median(turn))))) for turn in turns]
    # Beside each other both arms see one corner: the short one says where it is, and each alone may see it.
    strength = np.maximum.reduce([turn / need for turn, need in zip(turns, needed, strict=True)])
    width = round(CORNERS_APART / APART)
    wrapped = np.concatenate([strength[-3 * width :], strength, strength[: 3 * width]])
    peaks, _ = find_peaks(wrapped, height=1.0, distance=width)
    found = sorted({int(p - 3 * width) % len(places) for p in peaks})
    return [i for i in found if _is_sharp(places, i)]


def _turns(places: Spots, arm: float) -> Spots:
    """Return by how many degrees the outline turns at each place, from parabolas along both arms."""
    before, after = _tangents(places, arm)
    cross = before[:, 0] * after[:, 1] - before[:, 1] * after[:, 0]
    return np.asarray(np.abs(np.degrees(np.arctan2(cross, (before * after).sum(axis=1)))))


def _tangents(places: Spots, arm: float) -> tuple[Spots, Spots]:
    """Return the directions with which the outline comes to each place and leaves it."""
    n = len(places)
    steps = np.arange(round(GAP / APART), round((GAP + arm) / APART) + 1)
    t = steps * APART
    # The slope, at the place itself, of the parabola through the arm.
    slope = np.linalg.pinv(np.stack([np.ones_like(t), t, t * t], axis=1))[1]
    index = np.arange(n)[:, None]
    after = np.einsum("k,nkd->nd", slope, places[(index + steps) % n])
    before = -np.einsum("k,nkd->nd", slope, places[(index - steps) % n])
    return before, after


def _is_sharp(places: Spots, i: int) -> bool:
    """Return whether the outline turns at a place itself: not along a bend, nor at another corner that an arm reaches."""
    near = round(NEAR / APART)
    a, b = places[i] - places[i - near], places[(i + near) % len(places)] - places[i]
    return _angle(a, b) > SHARE_NEAR * LEAST_TURN


def _opposite(places: Spots) -> list[int]:
    """Return two places for an outline without corners: those farthest from each other."""
    middle = places.mean(axis=0)
    first = int(np.argmax(np.linalg.norm(places - middle, axis=1)))
    second = int(np.argmax(np.linalg.norm(places - places[first], axis=1)))
    return sorted({first, second})


def _sharp_corner(places: Spots, i: int) -> Spots:
    """Return where the lines before and after a corner meet: scissors and lens round it."""
    n = len(places)
    arms = []
    for way in (-1, 1):
        steps = np.arange(round(GAP / APART), round((GAP + ARMS[0]) / APART) + 1)
        t = steps * APART
        spots = places[(i + way * steps) % n]
        arms.append(np.linalg.lstsq(np.stack([np.ones_like(t), t, t * t], axis=1), spots, rcond=None)[0])
    at, way_a, way_b = places[i], arms[0], arms[1]
    # Newton's way to where both parabolas meet.
    s = np.zeros(2)
    for _ in range(8):
        a = way_a[0] + way_a[1] * s[0] + way_a[2] * s[0] ** 2
        b = way_b[0] + way_b[1] * s[1] + way_b[2] * s[1] ** 2
        slopes = np.stack([way_a[1] + 2 * way_a[2] * s[0], -(way_b[1] + 2 * way_b[2] * s[1])], axis=1)
        if abs(float(np.linalg.det(slopes))) < 1e-6:
            return np.asarray(at)
        s = s - np.linalg.solve(slopes, a - b)
    met = way_a[0] + way_a[1] * s[0] + way_a[2] * s[0] ** 2
    return np.asarray(met if np.linalg.norm(met - at) < 2 * GAP else at)


def _between(places: Spots, at: Sequence[int], corners: Spots, n: int) -> Spots:
    """Return the places of a line, from corner to corner; those that the corner rounds are left out."""
    start, end = at[n], at[(n + 1) % len(at)]
    count = (end - start) % len(places) or len(places)
    inner = places[(start + np.arange(1, count)) % len(places)]
    a, b = corners[n], corners[(n + 1) % len(at)]
    clear = (np.linalg.norm(inner - a, axis=1) > GAP) & (np.linalg.norm(inner - b, axis=1) > GAP)
    return np.vstack([a, inner[clear], b])


def _darts(corners: Spots) -> list[int]:
    """Return the corners that are a dart's tip: narrow, pointing into the piece, its legs alike."""
    n = len(corners)
    if n < 5:
        return []
    shape = Polygon(corners)
    way = 1 if shape.exterior.is_ccw else -1
    found = []
    for i in range(n):
        a, tip, b = corners[i - 1], corners[i], corners[(i + 1) % n]
        legs = np.linalg.norm(a - tip), np.linalg.norm(b - tip)
        into = way * ((tip - a)[0] * (b - tip)[1] - (tip - a)[1] * (b - tip)[0]) < 0
        alike = abs(legs[0] - legs[1]) <= DART_LEGS * max(legs)
        if (
            into
            and alike
            and DART_LONG[0] <= min(legs) <= max(legs) <= DART_LONG[1]
            and _angle(a - tip, b - tip) < DART_TIP
        ):
            found.append(i)
    return found


def _run_out(corners: Spots, lines: list[Spots], tip: int, *, told: Spots | None) -> None:
    """Let the legs of a dart run on to where they meet, or to the tip that a person told.

    Near its tip a narrow slit closes, to the lens and to the scissors.
    """
    before, after = lines[tip - 1], lines[tip]
    apart = [
        np.linalg.norm(leg[:, None] - other[None], axis=-1).min(axis=1)
        for leg, other in ((before, after), (after, before))
    ]
    clear = [
        leg[(far > SLIT) & (np.linalg.norm(leg - corners[tip], axis=1) > GAP)]
        for leg, far in zip((before, after), apart, strict=True)
    ]
    if min(map(len, clear)) < LEAST_OF_LEG:
        return
    met = _meeting(clear[0], clear[1], corners[tip]) if told is None else told
    if met is None or float(np.linalg.norm(met - corners[tip])) > FARTHEST_OUT:
        return
    corners[tip] = met
    lines[tip - 1], lines[tip] = np.vstack([clear[0], met]), np.vstack([met, clear[1]])


def _meeting(one: Spots, other: Spots, near: Spots) -> Spots | None:
    """Return where two legs meet that are run on: straight ones straight, bowed ones in their bow; None where they do not."""
    ways = [_way(leg, near) for leg in (one, other)]
    s = np.zeros(2)
    for _ in range(12):
        spots = [np.array([np.polyval(c, t) for c in way]) for way, t in zip(ways, s, strict=True)]
        slopes = np.stack([[np.polyval(np.polyder(c), t) for c in way] for way, t in zip(ways, s, strict=True)], axis=1)
        slopes[:, 1] *= -1
        if abs(float(np.linalg.det(slopes))) < 1e-6:
            return None
        s = s - np.linalg.solve(slopes, spots[0] - spots[1])
    return np.array([np.polyval(c, s[0]) for c in ways[0]])


def _way(leg: Spots, near: Spots) -> list[Spots]:
    """Return a leg as polynomials of the way along it from near its tip: straight, unless its places plainly are not."""
    t = (leg - near) @ _unit(leg.mean(axis=0) - near)
    for degree in (1, 2):
        found = [np.polyfit(t, leg[:, axis], degree) for axis in (0, 1)]
        off = np.hypot(*(np.polyval(found[axis], t) - leg[:, axis] for axis in (0, 1)))
        if float(np.sqrt((off * off).mean())) <= STRAIGHT:
            break
    return found


def _unit(way: Spots) -> Spots:
    return np.asarray(way / max(float(np.linalg.norm(way)), 1e-12))


def lengths(lines: Sequence[Spots]) -> list[float]:
    """Return how long lines are, cm."""
    return [float(sum(np.linalg.norm(b - a) for a, b in pairwise(line))) for line in lines]
