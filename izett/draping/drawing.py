"""Drawing the lines of a panel: straight through their crosses, or curved along their dots.

Curves go from cross to cross with as few cubics as the dots allow, bending one way unless the dots say otherwise. Neckline,
upper edge, waist and hem leave the centre line square for the first 2.5 cm, unless their dots plainly do not. A dot more
than 3 mm off its line is told, never smoothed over: it is wrong, or the line is to go through all. Common practice, no
single source.
"""

from collections.abc import Iterable, Mapping, Sequence
from math import asin, degrees, sqrt
from types import MappingProxyType

from izett.draping.panel import LineSaid, Panel, Way
from izett.draping.ring import Line, Query, Round, Wrong, in_words, is_dart, role_of
from izett.geometry.blend import refitted
from izett.geometry.curve import Curve, joined, straight
from izett.geometry.dots import AlongDots, along_dots, through_all
from izett.geometry.motion import Motion
from izett.geometry.outline import gap
from izett.geometry.point import Point, Vector, add, distance, dot, left_of, negated, scale, subtract, unit
from izett.pattern.facts import CENTRE_LINES, Corner, Role, Zone
from izett.pattern.piece import Edge
from izett.wording import cm

#: cm. How far a dot of a pencil on muslin is usually off its line, and from where on it is told.
NOISE, TOLD = 0.15, 0.3
#: cm. How long a line stays square to the centre, the longest that its dots allow, and of a short line at most which share.
SQUARE_FOR, SQUARE_SHARE = (2.5, 1.0, 0.0), 1 / 3
#: A line that stays square for longer may scatter its dots so much more than one that is square at the centre alone.
AS_NEAR = 1.2
#: Degrees. Dots that begin further off square than this mean it; those that begin nearer, and fit no square line, are asked about.
MEANT_ASKEW, ASKED_ABOUT = 40.0, 12.0
#: Lines that leave the centre square.
SQUARE_ROLES = (Role.NECK, Role.WAIST, Role.HEM)
#: Of the squares of its dots' distances from a straight line, what a curve must leave for the line to be curved: dots of a
#: straight line scatter as much about either.
CURVED_LEAVES = 0.25
#: cm. Dots so near to a straight line that nobody sees the difference.
STRAIGHT_ENOUGH = 0.03
#: cm. Crosses on a fold may be so far off one upright line.
FOLD_OFF = 0.5
#: Which corner it is where two lines meet, by their roles: the names of the trade.
CORNER_OF: Mapping[frozenset[Role], Corner] = MappingProxyType(
    {
        frozenset({Role.NECK, Role.CENTRE_FRONT}): Corner.NECK_CF,
        frozenset({Role.NECK, Role.CENTRE_BACK}): Corner.NECK_CB,
        frozenset({Role.NECK, Role.SHOULDER}): Corner.NECK_SHOULDER,
        frozenset({Role.SHOULDER, Role.ARMHOLE}): Corner.SHOULDER_TIP,
        frozenset({Role.ARMHOLE, Role.SIDE}): Corner.UNDERARM,
        frozenset({Role.NECK, Role.SIDE}): Corner.UNDERARM,
        frozenset({Role.WAIST, Role.SIDE}): Corner.WAIST_SIDE,
        frozenset({Role.WAIST, Role.CENTRE_FRONT}): Corner.WAIST_CF,
        frozenset({Role.WAIST, Role.CENTRE_BACK}): Corner.WAIST_CB,
        frozenset({Role.HEM, Role.SIDE}): Corner.HEM_SIDE,
        frozenset({Role.HEM, Role.CENTRE_FRONT}): Corner.HEM_CF,
        frozenset({Role.HEM, Role.CENTRE_BACK}): Corner.HEM_CB,
        frozenset({Role.HEM, Role.INSEAM}): Corner.HEM_INSEAM,
        frozenset({Role.CROTCH, Role.INSEAM}): Corner.FORK,
    }
)

#: The corners of a sleeve, at its front and at its back.
_SLEEVE_ENDS: Mapping[frozenset[Role], tuple[Corner, ...]] = MappingProxyType(
    {
        frozenset({Role.CAP}): (Corner.CAP_TOP,),
        frozenset({Role.CAP, Role.UNDERARM}): (Corner.UNDERARM_FRONT, Corner.UNDERARM_BACK),
        frozenset({Role.HEM, Role.UNDERARM}): (Corner.WRIST_FRONT, Corner.WRIST_BACK),
    }
)


class Drawing:
    """The lines of a panel, drawn one by one."""

    def __init__(self, round_: Round, up: Motion) -> None:
        self.round, self.panel, self.up = round_, round_.panel, up
        self.fits: dict[int, AlongDots] = {}
        self.off: dict[int, float] = {}
        self.queries: list[Query] = []
        self.roles = [self._role(line) for line in round_.lines]
        self.names = _corner_names(round_, self.roles)
        self.fold = fold_of(round_, self.roles)
        self.spots = self._spots()

    def _role(self, line: Line) -> Role:
        return Role.DART_LEG if is_dart(line.name) else role_in(self.panel, line.name)

    def _spots(self) -> dict[int, Point]:
        """Return where the marks lie; those at the ends of a fold on one upright line."""
        spots = {i: self.up(mark.spot) for i, mark in enumerate(self.panel.marks)}
        if self.fold is not None:
            ends = [i for line in self.round.lines if line.name == self.fold for i in (line.start, line.end)]
            across = [spots[i][0] for i in ends]
            middle = sum(across) / len(across)
            if max(across) - min(across) > FOLD_OFF:
                self.queries.append(
                    Query(
                        Wrong.FOLD_BENT,
                        self.panel.name,
                        f"The fold of the {self.panel.called.lower()} is not upright: its ends lie {cm(max(across) - min(across))} apart.",
                        "Correct the marks, or say that it is not cut on the fold.",
                        tuple(ends),
                        (self.fold,),
                    )
                )
            spots |= {i: (middle, spots[i][1]) for i in ends}
        return spots

    def edges(self) -> tuple[Edge, ...]:
        """Return the ring."""
        found = []
        for i, (line, role) in enumerate(zip(self.round.lines, self.roles, strict=True)):
            curve = self._curve(i, line, role)
            lineage = f"{self.panel.name}.{line.name or f'line_{line.start + 1}'}"
            found.append(Edge(role, lineage, self.names[line.start], self.names[line.end], curve))
        return tuple(found)

    def _curve(self, i: int, line: Line, role: Role) -> Curve:
        start, end = self.spots[line.start], self.spots[line.end]
        if role is Role.DART_LEG:
            return straight(start, end)
        said = self.panel.said(line.name)
        if said.drawn:
            parts = [Curve(tuple(self.up((x, y)) for x, y in part)) for part in said.drawn]
            return _between_ends(parts, start, end)
        dots = tuple(self.spots[mark] for mark in line.dots)
        if line.name == self.fold:
            return self._noted(i, straight(start, end), dots)
        fixed = said.way in (Way.STRAIGHT, Way.THROUGH_ALL)
        leaving, arriving = (None if fixed else self._square(i, role, said, at_start=at) for at in (True, False))
        curve = line_along(start, dots, end, way=said.way, leaving=leaving, arriving=arriving)
        off = farthest_off(curve, dots)
        if off > TOLD and said.square is None and (leaving is not None or arriving is not None):
            free = along_dots(start, dots, end, noise=NOISE, most=TOLD)
            if free.farthest <= TOLD:
                self._asked_square(i, off, asked=self._askew(i, at_start=leaving is not None) <= ASKED_ABOUT)
                curve = free.curve
        return self._noted(i, curve, dots)

    def _asked_square(self, i: int, off: float, *, asked: bool) -> None:
        line = self.round.lines[i]
        if asked:
            self.queries.append(
                Query(
                    Wrong.NOT_SQUARE,
                    self.panel.name,
                    f"The {in_words(line.name)} of the {self.panel.called.lower()} does not leave the centre square: "
                    f"its dots lie up to {cm(off)} off a line that does.",
                    "Say that it is to be square, or that it is not.",
                    lines=(line.name,),
                )
            )

    def _noted(self, i: int, curve: Curve, dots: tuple[Point, ...]) -> Curve:
        """Return a line, with the distances of its dots written down and what lies too far off told."""
        line = self.round.lines[i]
        off = _gaps(curve, dots)
        if dots or not curve.is_straight:
            self.fits[i] = AlongDots(curve, tuple(off))
        self.off |= dict(zip(line.dots, off, strict=True))
        for mark, far in zip(line.dots, off, strict=True):
            if far > TOLD:
                self.queries.append(
                    Query(
                        Wrong.DOT_OFF,
                        self.panel.name,
                        f"Mark {mark + 1} of the {self.panel.called.lower()} lies {cm(far, 2)} off the {in_words(line.name)} "
                        "drawn along the others.",
                        "Measure it again; or let the line go through all of its dots.",
                        (mark,),
                        (line.name,),
                    )
                )
        return curve

    def _square(self, i: int, role: Role, said: LineSaid, *, at_start: bool) -> Vector | None:
        """Return the direction in which a line leaves the centre at one of its ends (looking along it), or None."""
        other = i - 1 if at_start else (i + 1) % len(self.round.lines)
        if self.roles[other] not in CENTRE_LINES or role not in SQUARE_ROLES or said.square is False:
            return None
        centre = self.round.lines[other]
        along = unit(subtract(self.spots[centre.end], self.spots[centre.start]))
        # The ring goes counter-clockwise: the cloth lies to the left of the centre line.
        square = left_of(along)
        if said.square is None and self._askew(i, at_start=at_start) > MEANT_ASKEW:
            return None
        return square if at_start else negated(square)

    def _askew(self, i: int, *, at_start: bool) -> float:
        """Return by how many degrees a line begins off square to the centre line that it meets at an end."""
        line = self.round.lines[i]
        centre = self.round.lines[i - 1 if at_start else (i + 1) % len(self.round.lines)]
        along = unit(subtract(self.spots[centre.end], self.spots[centre.start]))
        end = self.spots[line.start if at_start else line.end]
        marks = [*(line.dots if at_start else line.dots[::-1]), line.end if at_start else line.start]
        first = next((m for m in marks if distance(self.spots[m], end) >= SQUARE_FOR[0]), marks[-1])
        return degrees(asin(max(-1.0, min(1.0, abs(dot(unit(subtract(self.spots[first], end)), along))))))


def line_along(
    start: Point,
    dots: tuple[Point, ...],
    end: Point,
    *,
    way: Way = Way.DOTS,
    leaving: Vector | None = None,
    arriving: Vector | None = None,
) -> Curve:
    """Return the line along dots from cross to cross: straight where they lie straight, else as few cubics as they allow.

    Args:
        start, dots, end: where it runs, in order.
        way: how it is drawn through its dots.
        leaving, arriving: the directions in which it leaves its start square and arrives at its end, looking along it. It is
            square for as long as its dots allow.
    """
    if way is Way.STRAIGHT:
        return straight(start, end)
    if way is Way.THROUGH_ALL:
        return through_all(start, dots, end) if dots else straight(start, end)
    if leaving is None and arriving is None and (not dots or (way is Way.DOTS and _is_straight(start, dots, end))):
        return straight(start, end)
    *longer, plain = (_squared(start, dots, end, leaving, arriving, long) for long in SQUARE_FOR)
    # What stays square for longer must not leave its dots for it, nor bend oftener to reach one that is wrong.
    near = _scatter(plain, dots) * AS_NEAR + STRAIGHT_ENOUGH
    most = len(plain.points) + 3 * ((leaving is not None) + (arriving is not None))
    fits = (c for c in longer if farthest_off(c, dots) <= TOLD and _scatter(c, dots) <= near and len(c.points) <= most)
    return next(fits, plain)


def _scatter(curve: Curve, dots: Sequence[Point]) -> float:
    """Return the root mean square of the distances of dots from a line, cm."""
    return sqrt(sum(off * off for off in _gaps(curve, dots)) / max(len(dots), 1))


def farthest_off(curve: Curve, dots: Iterable[Point]) -> float:
    """Return how far the dot that lies farthest off a line lies off it, cm; 0 without dots."""
    return max(_gaps(curve, dots), default=0.0)


def role_in(panel: Panel, line: str) -> Role:
    """Return the role of a line of a panel: what was said of it, else what its name tells, else a seam between panels."""
    said = panel.said(line).role
    if said is None and line.startswith(("centre", "center")) and role_of(line) is None:
        # A line that is called the centre alone: of which half of the body, the panel tells.
        return Role.CENTRE_BACK if Zone.BACK.value in f"{panel.name} {panel.title}".lower() else Role.CENTRE_FRONT
    return said or role_of(line) or Role.PANEL


def fold_of(round_: Round, roles: Sequence[Role]) -> str | None:
    """Return the line on the fold: what was said, where the panel has it, else a straight centre front."""
    panel = round_.panel
    if panel.fold is not None:
        return panel.fold if any(line.name == panel.fold for line in round_.lines) else None
    for line, role in zip(round_.lines, roles, strict=True):
        if role is Role.CENTRE_FRONT and not line.dots and not panel.said(line.name).drawn:
            across = [round_.spot(i)[0] for i in (line.start, line.end)]
            if max(across) - min(across) <= FOLD_OFF and panel.cut in (None, 1):
                return line.name
    return None


def corner_kind(before: tuple[str, Role], after: tuple[str, Role]) -> Corner | None:
    """Return which corner it is where two lines (name, role) meet in ring order; None for one that has no name in the trade.

    Which end of a sleeve is its front its lines' names tell; where they do not, it lies with its front to the right.
    """
    roles = (before[1], after[1])
    ends = _SLEEVE_ENDS.get(frozenset(roles))
    if ends is None or Role.UNDERARM not in roles:
        return ends[0] if ends is not None else CORNER_OF.get(frozenset(roles))
    words = f"{before[0]} {after[0]}"
    told = [zone for zone in (Zone.FRONT, Zone.BACK) if zone.value in words]
    to_front = told == [Zone.FRONT] if len(told) == 1 else (before[1] is not Role.CAP and after[1] is not Role.HEM)
    return ends[0] if to_front else ends[1]


def _corner_names(round_: Round, roles: Sequence[Role]) -> dict[int, str]:
    """Return the corners' names by their marks: as marked, else the trade's, else the two lines that meet there."""
    panel = round_.panel
    found: dict[int, str] = {}
    lines = round_.lines
    for i, line in enumerate(lines):
        mark = panel.marks[line.start]
        corner = corner_kind((lines[i - 1].name, roles[i - 1]), (line.name, roles[i]))
        both = "_".join(sorted(name or "line" for name in (lines[i - 1].name, line.name)))
        if is_dart(lines[i - 1].name) and is_dart(line.name):
            both = f"{line.name}_tip"
        elif is_dart(lines[i - 1].name) or is_dart(line.name):
            both = f"{line.name if is_dart(line.name) else lines[i - 1].name}_{'a' if is_dart(line.name) else 'b'}"
        word = mark.name or (corner.value if corner else both)
        name = f"{panel.name}.{word}"
        number = 2
        while name in found.values():
            name = f"{panel.name}.{word}_{number}"
            number += 1
        found[line.start] = name
    return found


def _is_straight(start: Point, dots: tuple[Point, ...], end: Point) -> bool:
    """Return whether dots lie straight: within their scatter of the chord, and no nearer to any curve."""
    chord = straight(start, end)
    off = _gaps(chord, dots)
    if max(off) <= STRAIGHT_ENOUGH:
        return True
    if max(off) > TOLD:
        return False
    curved = along_dots(start, dots, end, noise=NOISE, most=TOLD)
    return sum(d * d for d in curved.off) > CURVED_LEAVES * sum(d * d for d in off)


def _squared(
    start: Point,
    dots: tuple[Point, ...],
    end: Point,
    leaving: Vector | None,
    arriving: Vector | None,
    square_for: float,
) -> Curve:
    """Return the curve along dots that lies square to the centre at an end, for the first cm if that is asked."""
    long = min(square_for, distance(start, end) * SQUARE_SHARE)
    if not long or (leaving is None and arriving is None):
        return along_dots(start, dots, end, leaving=leaving, arriving=arriving, noise=NOISE, most=TOLD).curve
    first = add(start, scale(leaving, long)) if leaving else start
    last = add(end, scale(arriving, -long)) if arriving else end
    beyond = tuple(
        spot
        for spot in dots
        if not (leaving and dot(subtract(spot, start), leaving) < long)
        and not (arriving and dot(subtract(end, spot), arriving) < long)
    )
    middle = along_dots(first, beyond, last, leaving=leaving, arriving=arriving, noise=NOISE, most=TOLD).curve
    parts = [*([straight(start, first)] if leaving else []), middle, *([straight(last, end)] if arriving else [])]
    return joined([cubic for part in parts for cubic in part.cubics()])


def _between_ends(parts: Sequence[Curve], start: Point, end: Point) -> Curve:
    """Return a drawn line walked from start to end, its ends on them: of the parts that darts leave, the one that lies there."""
    both_ways = [way for part in parts for way in (part, part.reversed())]
    curve = min(both_ways, key=lambda way: distance(way.start, start) + distance(way.end, end))
    return curve if (curve.start, curve.end) == (start, end) else refitted(curve, start=start, end=end)


def _gaps(curve: Curve, dots: Iterable[Point]) -> list[float]:
    line = curve.flattened()
    return [gap(line, spot) for spot in dots]
