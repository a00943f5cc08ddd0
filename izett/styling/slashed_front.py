"""A front slashed through its bust point: its side swung about the armhole, what lies under the bust even again."""

from collections.abc import Mapping, Sequence
from collections.abc import Set as AbstractSet
from dataclasses import replace
from math import cos, sin
from typing import NamedTuple

from izett.errors import ReferenceLost, StepRefused
from izett.geometry.corners import over_corners
from izett.geometry.curve import Curve
from izett.geometry.motion import Motion
from izett.geometry.point import Point, Vector, add, between, distance, dot, left_of, scale, subtract, turn, unit
from izett.geometry.root import root
from izett.pattern.facts import Corner, Role
from izett.pattern.piece import Diamond, Edge, Intake, LevelLine, Piece, dart_angle, mouth_width, opens_on
from izett.styling.bending import Shift, bent_curve, smooth_step, with_ring
from izett.styling.carrying import carried
from izett.styling.told import long_in
from izett.wording import cm

#: The slash ends so far up the armhole, as a share of its length from the underarm: where the front notch lies.
AT_NOTCH = 0.4
#: cm. From the bust point up to that place it must be at least so far: nearer, the paper would swing too far.
LEAST_RISE = 4.0
#: cm. Where the armhole was slashed it is drawn smooth over so much on both sides, and over at most so much of either.
BLENDED, BLENDED_SHARE = 5.0, 0.8
#: The family of the darts that shape the bust.
BUST = "bust"
#: Radians. A dart that is left with less than this has gone.
LEAST_ANGLE = 0.02
#: cm. A mark so near to the bust point is its mark.
ON_POINT = 0.5
#: Radians. As far as the side can swing about the armhole.
FARTHEST = 0.9


class Slashed(NamedTuple):
    """A front and its slash: the ring from the armhole round, the dart by which it is parted, and its places."""

    piece: Piece
    hole: Edge
    hinge: Point
    bust: Intake | None
    waist: Intake | None
    apex: Point


def slashed(piece: Piece, *, into_waist: bool) -> Slashed:
    """Return a front with where it is slashed.

    Raises:
        ReferenceLost: it is in several pieces, or has no dart to take the fullness.
        StepRefused: its bust point lies too near to the armhole.
    """
    holes = [edge for edge in piece.edges if edge.role is Role.ARMHOLE]
    if len(holes) != 1 or piece.corner(Corner.NECK_CF) is None:
        raise ReferenceLost(
            "The front is not in one piece from its centre to its armhole any more.",
            fix="Put this step under the style, before the step that cut the front.",
            where=(piece.name,),
        )
    sides = [dart for dart in piece.darts if opens_on(piece, dart) is Role.SIDE]
    waists = [dart for dart in piece.darts if opens_on(piece, dart) is Role.WAIST]
    bust = next((dart for dart in sides if dart.family == BUST), None)
    waist = max(waists, key=lambda dart: dart.pivot[1], default=None)
    if not into_waist and bust is None:
        raise ReferenceLost(
            "The front has no bust dart at its side.",
            fix="Let the waist dart take the fullness, or put this step before the one that moved the bust dart.",
            where=(piece.name,),
        )
    if into_waist and waist is None:
        raise ReferenceLost(
            "The front has no dart at its waist.", fix="Let the bust dart take the fullness.", where=(piece.name,)
        )
    (hole,) = holes
    rises = hole.curve.end[1] > hole.curve.start[1]
    hinge = hole.curve.at_distance(hole.curve.length * (AT_NOTCH if rises else 1 - AT_NOTCH))
    dart = bust if bust is not None else waist
    apex = dart.pivot if dart is not None else hinge
    if hinge[1] - apex[1] < LEAST_RISE:
        raise StepRefused(
            f"The bust point lies only {cm(max(hinge[1] - apex[1], 0.0))} under the place on the armhole where the slash ends.",
            fix="Let out the sides, or aim the dart lower first.",
            where=(hole.lineage,),
        )
    return Slashed(piece, hole, hinge, bust, waist, apex)


def swing_of(front: Slashed, amount: float) -> Motion:
    """Return the turn about the armhole by which the bust point goes out by so much."""
    x, y = subtract(front.apex, front.hinge)

    def out(angle: float) -> float:
        return x * cos(angle) - y * sin(angle) - x - amount

    if out(-FARTHEST) * out(FARTHEST) > 0:
        raise StepRefused(
            f"The front cannot be spread by {cm(amount, 2)} at the bust.",
            fix="Spread less, and let out the sides as well.",
            where=(front.piece.name,),
        )
    return Motion.turning(root(out, -FARTHEST, FARTHEST, within=1e-9), about=front.hinge)


def into_bust(front: Slashed, swing: Motion, at_centre: float) -> Piece:
    """Return the front with its bust dart opened by the swing, and what lies below it slid down beside it."""
    piece, bust = front.piece, front.bust
    assert bust is not None
    grown = turn((1.0, 0.0), swing.direction((1.0, 0.0)))
    if dart_angle(piece, bust) + grown < LEAST_ANGLE:
        raise StepRefused(
            f"The bust dart of {cm(mouth_width(piece, bust))} cannot give as much.",
            fix="Lap less, or take it out of the waist dart and the sides.",
            where=(bust.name,),
        )
    out, down = subtract(swing(front.apex), front.apex)
    below = _Below(out, down, *_evened_over(front))
    moved = _fallen_apart(front, swing, below, at_centre)
    if below.foot is None:
        return moved
    # The side runs more steeply there now: what it lost or gained by that is made good at its lower end.
    return _fallen_apart(
        front, swing, below._replace(lower=long_in(piece, Role.SIDE) - long_in(moved, Role.SIDE)), at_centre
    )


def _fallen_apart(front: Slashed, swing: Motion, below: "_Below", at_centre: float) -> Piece:
    """Return the front with its side swung, and what lies under the bust gone down, outside of the slash also out."""
    piece, bust, down = front.piece, front.bust, below.down
    assert bust is not None
    order = _round_from_neck(piece)
    side = order.index(bust.mouth[0])
    waist = order.index(front.waist.mouth[1]) if front.waist is not None else None
    places: dict[str, Point] = {}
    for i, name in enumerate(order):
        spot = piece.vertex(name)
        if i > side:
            places[name] = swing(spot)
        elif i >= waist if waist is not None else spot[0] > front.apex[0]:
            places[name] = below(spot)
        else:
            places[name] = add(spot, (0.0, down * _falls(spot, front, at_centre)))
    darts = []
    for dart in piece.darts:
        if dart is front.waist:
            darts.append(_between_legs(piece, dart, places, dart.pivot[1] + down))
        elif dart is bust or order.index(dart.mouth[0]) > side:
            darts.append(replace(dart, pivot=swing(dart.pivot)))
        else:
            darts.append(
                replace(dart, pivot=add(dart.pivot, subtract(places[dart.mouth[0]], piece.vertex(dart.mouth[0]))))
            )
    turned = {name for i, name in enumerate(order) if i > side}
    moved = _drawn(front, darts, places, swing, turned, lambda spot: (0.0, down * _falls(spot, front, at_centre)))
    return replace(
        moved,
        marks=_marked(piece, front.apex, swing(front.apex)),
        lines=tuple(_fallen(line, front.apex, below) for line in piece.lines),
        diamonds=tuple(_carried(diamond, front, below) for diamond in piece.diamonds),
    )


def into_waist_dart(front: Slashed, swing: Motion, at_centre: float) -> Piece:
    """Return the front with its waist dart opened by the swing, the side in one down to the waist."""
    piece, waist = front.piece, front.waist
    assert waist is not None
    order = _round_from_neck(piece)
    at = order.index(waist.mouth[1])
    turned = set(order[at:])
    places = {name: swing(piece.vertex(name)) if name in turned else piece.vertex(name) for name in order}
    opened = distance(places[waist.mouth[0]], places[waist.mouth[1]])
    if (
        turn(subtract(places[waist.mouth[0]], waist.pivot), subtract(places[waist.mouth[1]], swing(waist.pivot)))
        < LEAST_ANGLE
        or opened < mouth_width(piece, waist) / 4
    ):
        raise StepRefused(
            f"The waist dart of {cm(mouth_width(piece, waist))} cannot give as much.",
            fix="Lap less, or take it out of the bust dart and the sides.",
            where=(waist.name,),
        )
    # The centre goes down with the other leg, so that the dart stands upright and the waist is even over it.
    fallen = (0.0, places[waist.mouth[1]][1] - piece.vertex(waist.mouth[1])[1])
    places |= {name: add(places[name], scale(fallen, _falls(places[name], front, at_centre))) for name in order[:at]}
    down = subtract(swing(front.apex), front.apex)[1]
    darts = []
    for dart in piece.darts:
        if dart is waist:
            darts.append(_between_legs(piece, dart, places, dart.pivot[1] + down))
        else:
            darts.append(replace(dart, pivot=swing(dart.pivot) if dart.mouth[0] in turned else add(dart.pivot, fallen)))
    moved = _drawn(front, darts, places, swing, turned, lambda spot: scale(fallen, _falls(spot, front, at_centre)))
    slash = ((front.hinge, front.apex), (front.apex, piece.vertex(waist.mouth[1])))
    old = [front.apex, *(piece.vertex(name) for name in order[at:]), front.hinge]
    lines = carried(piece.lines, slash, old, swing)
    return replace(moved, lines=lines, marks=_marked(piece, front.apex, swing(front.apex)))


def _marked(piece: Piece, apex: Point, now: Point) -> dict[str, Point]:
    """Return the marks of a front with its bust point where it is now."""
    return {key: now if distance(spot, apex) <= ON_POINT else spot for key, spot in piece.marks.items()}


def _falls(spot: Point, front: Slashed, at_centre: float) -> float:
    """Return by what share of it a place between centre and dart goes down: all of it, or less and less to the centre."""
    x = front.piece.vertex(front.piece.corner(Corner.NECK_CF) or "")[0]
    dart = front.waist.mouth[0] if front.waist is not None else None
    end = front.piece.vertex(dart)[0] if dart is not None else front.apex[0]
    return at_centre + (1 - at_centre) * smooth_step(spot[0], x, end)


class _Below(NamedTuple):
    """How what lies outside of the slash goes: out and down, under a height out by less and less and lower, to a foot."""

    out: float
    down: float
    top: float
    foot: float | None
    lower: float = 0.0

    def share(self, y: float) -> float:
        return 1.0 if self.foot is None else min(max((y - self.foot) / (self.top - self.foot), 0.0), 1.0)

    def __call__(self, spot: Point) -> Point:
        share = self.share(spot[1])
        return add(spot, (self.out * share, self.down - self.lower * (1 - share)))


def _evened_over(front: Slashed) -> tuple[float, float | None]:
    """Return between which heights a front that was spread comes back to its width.

    A dart at the waist takes up what was spread: the width goes back from there to the hip line, where the front reaches
    that. Where there is none, the side takes it up, from the bust dart down to the waist.
    """
    piece = front.piece
    name = piece.corner(Corner.WAIST_SIDE)
    waist = piece.vertex(name)[1] if name is not None else 0.0
    if front.waist is None and not piece.diamonds and front.bust is not None:
        return piece.vertex(front.bust.mouth[0])[1], waist
    hips = [y for line in piece.lines if line.level == "hip" for _, y in line.points]
    return waist, max(hips) if hips and max(hips) < waist else None


def _round_from_neck(piece: Piece) -> list[str]:
    """Return the vertices from below the neck at the centre front round to the underarm, darts' tips left out."""
    ring = list(piece.edges)
    start = next(i for i, edge in enumerate(ring) if edge.role in (Role.CENTRE_FRONT, Role.FOLD))
    ring = [*ring[start:], *ring[:start]]
    end = next(i for i, edge in enumerate(ring) if edge.role is Role.ARMHOLE)
    tips = {dart.tip for dart in piece.darts}
    return [edge.end for edge in ring[:end] if edge.end not in tips]


def _drawn(
    front: Slashed,
    darts: Sequence[Intake],
    places: Mapping[str, Point],
    swing: Motion,
    turned: AbstractSet[str],
    fallen: Shift,
) -> Piece:
    """Return the front with its ring at new places: rigid where it turned, bent gently where its ends went otherwise."""
    piece, hole = front.piece, front.hole
    along = hole.curve.length * (AT_NOTCH if hole.curve.end[1] > hole.curve.start[1] else 1 - AT_NOTCH)
    first, second = hole.curve.split(along)
    parts = [first.mapped(swing), second] if hole.start in turned else [first, second.mapped(swing)]
    swung = over_corners(parts, [min(BLENDED, BLENDED_SHARE * min(part.length for part in parts))])

    def drawn(edge: Edge) -> Curve:
        if edge is hole:
            return swung
        if edge.start in turned and edge.end in turned:
            return edge.curve.mapped(swing)
        ends = [places.get(name, piece.vertex(name)) for name in (edge.start, edge.end)]
        if edge.role is Role.WAIST and max(spot[0] for spot in (edge.curve.start, edge.curve.end)) <= front.apex[0]:
            return bent_curve(edge.curve, fallen, start=ends[0], end=ends[1])
        return _bent(edge.curve, ends[0], ends[1])

    mouths = {name: places.get(name, piece.vertex(name)) for dart in darts for name in dart.mouth}
    return with_ring(piece, darts, mouths, drawn)


def _bent(curve: Curve, start: Point, end: Point) -> Curve:
    """Return a curve whose ends have gone each its own way, and what lies between them by a share of both."""
    here, there = subtract(start, curve.start), subtract(end, curve.end)
    chord = subtract(curve.end, curve.start)
    long = dot(chord, chord)

    def shift(spot: Point) -> Vector:
        share = min(max(dot(subtract(spot, curve.start), chord) / long, 0.0), 1.0)
        return between(here, there, share)

    return bent_curve(curve, shift, start=start, end=end)


def _between_legs(piece: Piece, dart: Intake, places: Mapping[str, Point], height: float) -> Intake:
    """Return a dart whose mouth was moved apart, its point over the middle of it at about a height: its legs stay equal."""
    a, b = (places.get(name, piece.vertex(name)) for name in dart.mouth)
    middle, square = between(a, b, 0.5), left_of(unit(subtract(b, a)))
    return replace(dart, pivot=add(middle, scale(square, (height - middle[1]) / square[1])))


def _fallen(line: LevelLine, apex: Point, below: _Below) -> LevelLine:
    """Return a level under the bust as it lies now; the bust line is drawn anew when the dart is aimed."""
    if line.level == BUST:
        # From the centre: what lies beyond the dart is drawn anew when it is aimed.
        return line.moved(lambda spot: add(spot, (0.0, below.down)))
    return line.moved(lambda spot: below(spot) if spot[0] > apex[0] else add(spot, (0.0, below.down)))


def _carried(diamond: Diamond, front: Slashed, below: _Below) -> Diamond:
    """Return a dart within the piece: the one under the bust point opened by the slash, any other gone as a whole."""
    down, middle = (0.0, below.down), between(diamond.left, diamond.right, 0.5)
    under = min(front.piece.diamonds, key=lambda one: abs(one.top[0] - front.apex[0]))
    out = subtract(below(middle), middle)
    if diamond is under:
        right, half = below(diamond.right), (out[0] / 2, below.down)
    else:
        down = half = out if middle[0] > front.apex[0] else down
        right = add(diamond.right, down)
    return replace(
        diamond, left=add(diamond.left, down), right=right, top=add(diamond.top, half), bottom=add(diamond.bottom, half)
    )
