"""Truing a panel: from its marks to lines, and from its lines to a piece.

Straight lines run through their crosses; curves go from cross to cross along their dots with as few cubics as the dots
allow, bending one way unless the dots say otherwise. Neckline, upper edge, waist and hem leave the centre line square for
the first 2.5 cm, unless their dots plainly do not. A dot more than 3 mm off its line is told, never smoothed over: it is
wrong, or the line is to go through all. Common practice, no single source.
"""

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from math import asin, cos, degrees, radians, sin
from types import MappingProxyType

from izett.draping.panel import LineSaid, MarkKind, Panel, Way
from izett.draping.ring import APEX, CALLED, Line, Query, Round, Wrong, is_dart, role_of, walked
from izett.geometry.blend import refitted
from izett.geometry.curve import Curve, joined, straight
from izett.geometry.dots import AlongDots, along_dots, through_all
from izett.geometry.motion import Motion
from izett.geometry.outline import along_line, crossing, gap, runs_within
from izett.geometry.point import (
    Point,
    Vector,
    add,
    between,
    cross,
    distance,
    dot,
    left_of,
    meeting,
    negated,
    scale,
    subtract,
    unit,
)
from izett.geometry.tolerance import SAME_POINT
from izett.pattern.facts import CENTRE_LINES, Corner, Region, Role, Zone
from izett.pattern.levels import straight_across
from izett.pattern.piece import Diamond, Edge, Intake, LevelLine, Notch, NotchKind, Piece, Span, legs
from izett.wording import cm

#: cm. How far a dot of a pencil on muslin is usually off its line, and from where on it is told.
NOISE, TOLD = 0.15, 0.3
#: cm. How long a line stays square to the centre, and of a short line at most which share.
SQUARE_FOR, SQUARE_SHARE = 2.5, 1 / 3
#: Degrees. Dots that begin further off square than this mean it.
MEANT_ASKEW = 12.0
#: Lines that leave the centre square.
SQUARE_ROLES = (Role.NECK, Role.WAIST, Role.HEM)
#: Of the squares of its dots' distances from a straight line, what a curve must leave for the line to be curved: dots of a
#: straight line scatter as much about either.
CURVED_LEAVES = 0.25
#: cm. Dots so near to a straight line that nobody sees the difference.
STRAIGHT_ENOUGH = 0.03
#: cm. Crosses on a fold may be so far off one upright line.
FOLD_OFF = 0.5
#: cm. A dart whose axis passes so near to the bust point is aimed at it.
AIMED = 1.5
#: Of a panel's height, how long the grain line is drawn.
GRAIN_SHARE = 0.6
#: cm. Beyond any panel.
FAR = 2000.0

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
#: Families of darts, by a word in their name.
FAMILIES = ("bust", "waist", "shoulder")


@dataclass(frozen=True)
class Trued:
    """A panel trued.

    Attributes:
        round: the panel as walked.
        piece: what is drawn of it; None where it does not close.
        fits: each line that goes along dots or is curved, by its place in the round.
        off: how far each dot lies from its line, cm, by its place in the list of marks.
        queries: what is to be looked at again.
        frame: from the panel's guides to the piece's frame, whose waist lies at 0.
    """

    round: Round
    piece: Piece | None
    fits: Mapping[int, AlongDots]
    off: Mapping[int, float]
    queries: tuple[Query, ...]
    frame: Motion

    @property
    def panel(self) -> Panel:
        """The panel."""
        return self.round.panel

    def spot(self, mark: int) -> Point:
        """Return where a mark lies in the piece's frame, by its place in the list."""
        return self.frame(self.round.spot(mark))

    @property
    def cubics(self) -> int:
        """How many cubics its curved lines took."""
        return sum(fit.cubics for fit in self.fits.values())


def trued(panel: Panel, *, levels: Mapping[str, float] = MappingProxyType({})) -> Trued:
    """Return a panel trued.

    Args:
        panel: the panel as taken.
        levels: how high body levels lie over its level guide, cm; the waist, where it is one of them, comes to lie at 0.
    """
    levels = {**levels, **panel.levels}
    up = Motion.sliding((0.0, -levels.get("waist", 0.0)))
    round_ = walked(panel)
    if not round_.lines or any(query.stops for query in round_.queries):
        return Trued(round_, None, {}, {}, round_.queries, up)
    drawing = _Drawing(round_, up)
    edges = drawing.edges()
    queries = [*round_.queries, *drawing.queries]
    met = crossing([point for edge in edges for point in edge.curve.flattened()[:-1]])
    if met is not None:
        queries.append(_crossed(panel, edges, met, up))
        return Trued(round_, None, drawing.fits, drawing.off, tuple(queries), up)
    return Trued(round_, _piece(round_, edges, up, levels), drawing.fits, drawing.off, tuple(queries), up)


class _Drawing:
    """The lines of a panel, drawn one by one."""

    def __init__(self, round_: Round, up: Motion) -> None:
        self.round, self.panel, self.up = round_, round_.panel, up
        self.fits: dict[int, AlongDots] = {}
        self.off: dict[int, float] = {}
        self.queries: list[Query] = []
        self.roles = [self._role(line) for line in round_.lines]
        self.names = _corner_names(round_, self.roles)
        self.fold = _fold(round_, self.roles)
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
                        f"The ends of the fold of the {self.panel.called.lower()} lie {cm(max(across) - min(across))} off one upright line.",
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
            return _between_ends(Curve(tuple(self.up(point) for point in said.drawn)), start, end)
        dots = tuple(self.spots[mark] for mark in line.dots)
        if said.way is Way.STRAIGHT or line.name == self.fold:
            return self._noted(i, straight(start, end), dots)
        if said.way is Way.THROUGH_ALL:
            return self._noted(i, through_all(start, dots, end) if dots else straight(start, end), dots)
        leaving, arriving = self._square(i, role, said, at_start=True), self._square(i, role, said, at_start=False)
        if leaving is None and arriving is None and (not dots or (said.way is Way.DOTS and _is_straight(start, dots, end))):
            return self._noted(i, straight(start, end), dots)
        return self._along(i, said, dots, leaving, arriving)

    def _along(
        self, i: int, said: LineSaid, dots: tuple[Point, ...], leaving: Vector | None, arriving: Vector | None
    ) -> Curve:
        line = self.round.lines[i]
        start, end = self.spots[line.start], self.spots[line.end]
        curve = _squared(start, dots, end, leaving, arriving)
        fit = AlongDots(curve, tuple(_gaps(curve, dots)))
        if fit.farthest > TOLD and said.square is None and (leaving is not None or arriving is not None):
            free = along_dots(start, dots, end, noise=NOISE, most=TOLD)
            if free.farthest <= TOLD:
                self.queries.append(
                    Query(
                        Wrong.NOT_SQUARE,
                        self.panel.name,
                        f"The {line.name.replace('_', ' ')} of the {self.panel.called.lower()} does not leave the centre square: "
                        f"its dots lie up to {cm(fit.farthest)} off a line that does.",
                        "Say that it is to be square, or that it is not.",
                        lines=(line.name,),
                    )
                )
                fit = free
        return self._noted(i, fit.curve, dots)

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
                        f"Mark {mark + 1} of the {self.panel.called.lower()} lies {cm(far)} off the {line.name.replace('_', ' ') or 'line'} "
                        "drawn along the others.",
                        "Measure it again; or let the line go through all of its dots.",
                        (mark,),
                        (line.name,),
                    )
                )
        return curve

    def _square(self, i: int, role: Role, said: LineSaid, *, at_start: bool) -> Vector | None:
        """Return the direction in which a line leaves the centre at one of its ends (looking along it), or None."""
        line = self.round.lines[i]
        other = i - 1 if at_start else (i + 1) % len(self.round.lines)
        if self.roles[other] not in CENTRE_LINES or role not in SQUARE_ROLES or said.square is False:
            return None
        centre = self.round.lines[other]
        along = unit(subtract(self.spots[centre.end], self.spots[centre.start]))
        # The ring goes counter-clockwise: the cloth lies to the left of the centre line.
        square = left_of(along)
        end = self.spots[line.start if at_start else line.end]
        marks = [*(line.dots if at_start else line.dots[::-1]), line.end if at_start else line.start]
        first = next((m for m in marks if distance(self.spots[m], end) >= SQUARE_FOR), marks[-1])
        off = degrees(asin(max(-1.0, min(1.0, abs(dot(unit(subtract(self.spots[first], end)), along))))))
        if said.square is None and off > MEANT_ASKEW:
            return None
        return square if at_start else negated(square)


def role_in(panel: Panel, line: str) -> Role:
    """Return the role of a line of a panel: what was said of it, else what its name tells, else a seam between panels."""
    return panel.said(line).role or role_of(line) or Role.PANEL


def _fold(round_: Round, roles: Sequence[Role]) -> str | None:
    """Return the line on the fold: what was said, else a straight centre front."""
    panel = round_.panel
    if panel.fold is not None:
        return panel.fold or None
    for line, role in zip(round_.lines, roles, strict=True):
        if role is Role.CENTRE_FRONT and not line.dots and not panel.said(line.name).drawn:
            across = [round_.spot(i)[0] for i in (line.start, line.end)]
            if max(across) - min(across) <= FOLD_OFF and panel.cut in (None, 1):
                return line.name
    return None


def _corner_names(round_: Round, roles: Sequence[Role]) -> dict[int, str]:
    """Return the corners' names by their marks: as marked, else the trade's, else the two lines that meet there."""
    panel = round_.panel
    found: dict[int, str] = {}
    lines = round_.lines
    for i, line in enumerate(lines):
        mark = panel.marks[line.start]
        corner = CORNER_OF.get(frozenset({roles[i - 1], roles[i]}))
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
    start: Point, dots: tuple[Point, ...], end: Point, leaving: Vector | None, arriving: Vector | None
) -> Curve:
    """Return the curve along dots that lies square to the centre at an end for the first few cm."""
    long = min(SQUARE_FOR, distance(start, end) * SQUARE_SHARE)
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


def _between_ends(curve: Curve, start: Point, end: Point) -> Curve:
    """Return a drawn line walked from start to end, its ends on them."""
    turned = distance(curve.start, start) + distance(curve.end, end) > distance(curve.start, end) + distance(curve.end, start)
    curve = curve.reversed() if turned else curve
    return curve if (curve.start, curve.end) == (start, end) else refitted(curve, start=start, end=end)


def _gaps(curve: Curve, dots: Iterable[Point]) -> list[float]:
    line = curve.flattened()
    return [gap(line, spot) for spot in dots]


def _crossed(panel: Panel, edges: Sequence[Edge], met: Point, up: Motion) -> Query:
    """Return the query of an outline that crosses itself: which lines, and where by the guides."""
    near = sorted(edges, key=lambda edge: gap(edge.curve.flattened(), met))[:2]
    names = [edge.lineage.split(".", 1)[1] for edge in near]
    across, along = up.inverse()(met)
    return Query(
        Wrong.CROSSING,
        panel.name,
        f"Lines of the {panel.called.lower()} cross: {' and '.join(n.replace('_', ' ') for n in names)}, at {cm(across)} across and {cm(along)} along.",
        "Look at the marks there: a sign lost, two distances changed over, or a mark out of the order of the walk.",
        lines=tuple(names),
        stops=True,
    )


def _piece(round_: Round, edges: tuple[Edge, ...], up: Motion, levels: Mapping[str, float]) -> Piece:
    panel = round_.panel
    edges, darts = _with_darts(round_, edges, up)
    roles = {edge.role for edge in edges}
    fold = _fold(round_, [edge.role for edge in edges])
    marks = {
        (mark.name or f"mark_{i + 1}"): up(mark.spot) for i in round_.inside for mark in [panel.marks[i]]
    }
    corners = {
        edge.start: corner
        for before, edge in zip((edges[-1], *edges[:-1]), edges, strict=True)
        if (corner := CORNER_OF.get(frozenset({before.role, edge.role}))) is not None
    }
    return Piece(
        name=panel.name,
        title=panel.called,
        part=panel.name,
        cut=panel.cut or (1 if fold else 2),
        on_fold=f"{panel.name}.{fold}" if fold else None,
        grain=_grain(edges, panel.grain),
        edges=edges,
        darts=darts,
        diamonds=tuple(_diamonds(round_, up)),
        marks=MappingProxyType(marks),
        zone=panel.zone or _zone(panel, roles),
        region=panel.region or _region(roles, levels),
        half=panel.half,
        layer=panel.layer,
        corners=MappingProxyType(corners),
    )


def finished(found: Trued, piece: Piece, levels: Mapping[str, float]) -> Piece:
    """Return the piece of a panel, its outline settled, with the body's levels and the notches on it.

    A level that is an edge of the piece is measured along that.

    Args:
        found: the panel.
        piece: its piece as it lies at its neighbours.
        levels: how high body levels lie over the panel's level guide, cm.
    """
    heights = {level: found.frame((0.0, along))[1] for level, along in levels.items() if not _is_edge(piece, level)}
    lines = tuple(line for level, height in heights.items() for line in _level(piece, level, height))
    return replace(piece, lines=lines, notches=tuple(_notches(found.round, piece, found.frame)))


def _is_edge(piece: Piece, level: str) -> bool:
    return any(edge.role.value == level for edge in piece.edges)


def _zone(panel: Panel, roles: set[Role]) -> Zone:
    if Role.CAP in roles:
        return Zone.SLEEVE
    if Role.CENTRE_FRONT in roles and Role.CENTRE_BACK in roles:
        return Zone.BODY
    if Role.CENTRE_FRONT in roles:
        return Zone.FRONT
    if Role.CENTRE_BACK in roles:
        return Zone.BACK
    words = f"{panel.name} {panel.title}".lower()
    return next((zone for zone in (Zone.SLEEVE, Zone.BACK, Zone.FRONT) if zone.value in words), Zone.ADDED)


def _region(roles: set[Role], levels: Mapping[str, float]) -> Region:
    if Role.CAP in roles:
        return Region.ARM
    if Role.CROTCH in roles or Role.INSEAM in roles:
        return Region.LEGS
    if roles & {Role.NECK, Role.ARMHOLE, Role.SHOULDER} or "bust" in levels:
        return Region.UPPER
    return Region.SKIRT if roles & {Role.WAIST, Role.HEM} else Region.NONE


def _with_darts(round_: Round, edges: tuple[Edge, ...], up: Motion) -> tuple[tuple[Edge, ...], tuple[Intake, ...]]:
    """Return the ring with its darts known as such, their legs equal, and the darts."""
    found: list[Intake] = []
    ring = list(edges)
    apex = next((up(round_.spot(i)) for i in round_.inside if round_.panel.marks[i].name == APEX), None)
    for i, edge in enumerate(edges):
        following = edges[(i + 1) % len(edges)]
        if not (edge.is_leg and following.is_leg and edge.lineage == following.lineage):
            continue
        a, tip, b = edge.curve.start, edge.curve.end, following.curve.end
        pivot, set_back = tip, 0.0
        if apex is not None and _aims(a, tip, b, apex):
            pivot, set_back = apex, distance(apex, tip)
        long = (distance(pivot, a) + distance(pivot, b)) / 2
        a, b = (add(pivot, scale(unit(subtract(spot, pivot)), long)) for spot in (a, b))
        word = edge.lineage.split(".", 1)[1]
        family = next((name for name in FAMILIES if name in word), FAMILIES[0])
        dart = Intake(edge.lineage, family, pivot, set_back, (edge.start, following.end), edge.end)
        found.append(dart)
        first, second = legs(dart, a, b)
        j = (i + 1) % len(edges)
        ring[i], ring[j] = first, second
        before, after = (i - 1) % len(edges), (i + 2) % len(edges)
        ring[before] = replace(ring[before], curve=refitted(ring[before].curve, end=a))
        ring[after] = replace(ring[after], curve=refitted(ring[after].curve, start=b))
    return tuple(ring), tuple(found)


def _aims(a: Point, tip: Point, b: Point, apex: Point) -> bool:
    """Return whether a dart is aimed at the bust point: it lies ahead of the tip, near to the dart's axis."""
    axis = unit(subtract(tip, between(a, b, 0.5)))
    ahead = subtract(apex, tip)
    return dot(ahead, axis) >= 0 and abs(cross(axis, ahead)) <= AIMED


def _diamonds(round_: Round, up: Motion) -> Iterator[Diamond]:
    for name, marks in round_.diamonds:
        spots = [up(round_.spot(i)) for i in marks]
        if len(spots) != 4:
            continue
        top, bottom = max(spots, key=lambda s: s[1]), min(spots, key=lambda s: s[1])
        wide = sorted((s for s in spots if s not in (top, bottom)), key=lambda s: s[0])
        if len(wide) == 2:
            family = next((word for word in FAMILIES if word in name), "waist")
            yield Diamond(f"{round_.panel.name}.{name}", family, top, bottom, wide[0], wide[1])


def _grain(edges: Sequence[Edge], angle: float) -> tuple[Point, Point]:
    """Return the grain line through the middle of a panel, turned from the upright by an angle in degrees."""
    outline = [point for edge in edges for point in edge.curve.flattened()[:-1]]
    low, high = min(y for _, y in outline), max(y for _, y in outline)
    middle = (low + high) / 2
    across = [point for run in runs_within(outline, [(-FAR, middle), (FAR, middle)]) for point in run]
    at = ((min(x for x, _ in across) + max(x for x, _ in across)) / 2 if across else outline[0][0], middle)
    up = (-sin(radians(angle)), cos(radians(angle)))
    half = (high - low) * GRAIN_SHARE / 2
    return (add(at, scale(up, -half)), add(at, scale(up, half)))


def _level(piece: Piece, level: str, height: float) -> Iterator[LevelLine]:
    """Yield a body level straight across a piece; nothing where it lies beyond it."""
    runs = runs_within(piece.outline(), [(-FAR, height), (FAR, height)])
    if runs:
        start = min((point for run in runs for point in run), key=lambda point: point[0])
        parts = straight_across(piece, start, (1.0, 0.0))
        yield from (LevelLine(level, part) for part in parts)


def _notches(round_: Round, piece: Piece, up: Motion) -> Iterator[Notch]:
    """Yield the notches of the outline: square to the seam, where they were marked on it."""
    kind = NotchKind.DOUBLE if piece.zone is Zone.BACK else NotchKind.SINGLE
    edges = {edge.start: edge for edge in piece.edges}
    for line, edge in zip(round_.lines, piece.edges, strict=True):
        for i in line.notches:
            if round_.panel.marks[i].kind is MarkKind.NOTCH:
                along = _nearest_along(edges[edge.start].curve, up(round_.spot(i)))
                yield Notch(Span(edge.start, edge.end, edge.lineage), along, kind)


def _nearest_along(curve: Curve, spot: Point) -> float:
    return min(along_line(curve.flattened(), spot), curve.length)
