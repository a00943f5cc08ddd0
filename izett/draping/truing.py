"""Truing a panel: from its marks to lines (`drawing.py`), and from its lines to a piece with darts, levels and notches."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from math import cos, radians, sin
from types import MappingProxyType

from izett.draping.drawing import Drawing, corner_kind, fold_of
from izett.draping.panel import MarkKind, Panel
from izett.draping.ring import APEX, DIAMOND_MARKS, Query, Round, Wrong, in_words, walked
from izett.geometry.blend import refitted
from izett.geometry.curve import Curve
from izett.geometry.dots import AlongDots
from izett.geometry.motion import Motion
from izett.geometry.outline import along_line, crossing, crossing_of, gap, runs_within, without_repeats
from izett.geometry.point import Point, add, between, cross, distance, dot, scale, subtract, turn, unit
from izett.pattern.facts import Corner, Region, Role, Zone
from izett.pattern.levels import straight_across
from izett.pattern.piece import Diamond, Edge, Intake, LevelLine, Notch, NotchKind, Piece, Span, legs, opens_on
from izett.wording import cm

#: cm. A dart whose axis passes so near to the bust point is aimed at it.
AIMED = 1.5
#: cm. A corner on the side or the centre so near to a body level lies at it.
AT_LEVEL = 1.5
#: Which corner it is where a line passes a body level.
ON_LEVEL: Mapping[tuple[Role, str], Corner] = MappingProxyType(
    {
        (Role.SIDE, "bust"): Corner.BUST_SIDE,
        (Role.SIDE, "waist"): Corner.WAIST_SIDE,
        (Role.SIDE, "hip"): Corner.HIP_SIDE,
        (Role.CENTRE_FRONT, "waist"): Corner.WAIST_CF,
        (Role.CENTRE_BACK, "waist"): Corner.WAIST_CB,
    }
)
#: Of a panel's height, how long the grain line is drawn.
GRAIN_SHARE = 0.6
#: cm. Beyond any panel.
FAR = 2000.0

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
    drawing = Drawing(round_, up)
    edges = drawing.edges()
    queries = [*round_.queries, *drawing.queries]
    met = crossing([point for edge in edges for point in edge.curve.flattened()[:-1]])
    if met is not None:
        queries.append(_crossed(panel, edges, met, up))
        return Trued(round_, None, drawing.fits, drawing.off, tuple(queries), up)
    return Trued(round_, _piece(round_, edges, up, levels), drawing.fits, drawing.off, tuple(queries), up)


def _crossed(panel: Panel, edges: Sequence[Edge], met: Point, up: Motion) -> Query:
    """Return the query of an outline that crosses itself: which lines, and where by the guides."""
    near = sorted(edges, key=lambda edge: gap(edge.curve.flattened(), met))[:2]
    names = [edge.lineage.split(".", 1)[1] for edge in near]
    across, along = up.inverse()(met)
    return Query(
        Wrong.CROSSING,
        panel.name,
        f"Two lines of the {panel.called.lower()} cross, {' and '.join(in_words(n) for n in names)}, "
        f"at {cm(across)} across and {cm(along)} along.",
        "Look at the marks there: a sign lost, two distances changed over, or a mark out of the order of the walk.",
        lines=tuple(names),
        stops=True,
    )


def _piece(round_: Round, edges: tuple[Edge, ...], up: Motion, levels: Mapping[str, float]) -> Piece:
    panel = round_.panel
    edges, darts = _with_darts(round_, edges, up)
    roles = {edge.role for edge in edges}
    fold = fold_of(round_, [edge.role for edge in edges])
    marks = {(mark.name or f"mark_{i + 1}"): up(mark.spot) for i in round_.inside for mark in [panel.marks[i]]}
    corners = {
        edge.start: corner
        for before, edge in zip((edges[-1], *edges[:-1]), edges, strict=True)
        if (corner := corner_kind((before.lineage, before.role), (edge.lineage, edge.role))) is not None
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
    corners = {**piece.corners, **_corners_at(piece, heights)}
    return replace(
        piece,
        lines=lines,
        notches=tuple(_notches(found.round, piece, found.frame)),
        corners=MappingProxyType(corners),
    )


def _corners_at(piece: Piece, heights: Mapping[str, float]) -> dict[str, Corner]:
    """Return the corners that lie on a line where it passes a body level: the side at the waist, the centre at the waist."""
    found: dict[str, Corner] = {}
    for before, edge in zip((piece.edges[-1], *piece.edges[:-1]), piece.edges, strict=True):
        for level, height in heights.items():
            corner = ON_LEVEL.get((edge.role, level)) if before.role is edge.role else None
            if corner is not None and abs(edge.curve.start[1] - height) <= AT_LEVEL:
                found.setdefault(edge.start, corner)
    return found


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
        if len(spots) != DIAMOND_MARKS:
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
    """Yield a body level across a piece, straight as sewn; nothing where it lies beyond it."""
    bent = _over_side_dart(piece, height)
    if bent is not None:
        yield LevelLine(level, bent)
        return
    runs = runs_within(piece.outline(), [(-FAR, height), (FAR, height)])
    if runs:
        start = min((point for run in runs for point in run), key=lambda point: point[0])
        parts = straight_across(piece, start, (1.0, 0.0))
        yield from (LevelLine(level, part) for part in parts)


def _over_side_dart(piece: Piece, height: float) -> tuple[Point, ...] | None:
    """Return a level over a dart that opens on the side under it: from its pivot on it lies in the cloth that the dart turned.

    None where no such dart lies there.
    """
    darts = [dart for dart in piece.darts if opens_on(piece, dart) is Role.SIDE]
    if len(darts) != 1:
        return None
    pivot = darts[0].pivot
    low, high = sorted((piece.vertex(name) for name in darts[0].mouth), key=lambda spot: spot[1])
    if low[1] >= height:
        return None
    opened = Motion.turning(turn(subtract(low, pivot), subtract(high, pivot)), about=pivot)
    outwards = 1.0 if low[0] > pivot[0] else -1.0
    bend = opened((pivot[0], height))
    ray = [bend, add(bend, scale(opened.direction((outwards, 0.0)), FAR))]
    over = (edge for edge in piece.edges if edge.role in (Role.SIDE, Role.ARMHOLE))
    ends = [met for edge in over if (met := crossing_of(edge.curve.flattened(), ray)) is not None]
    inner = crossing_of(_closed(piece), [(pivot[0], height), (pivot[0] - outwards * FAR, height)])
    if not ends or inner is None:
        return None
    end = min(ends, key=lambda spot: distance(spot, bend))
    return tuple(without_repeats([inner, (pivot[0], height), bend, end]))


def _closed(piece: Piece) -> list[Point]:
    outline = piece.outline()
    return [*outline, outline[0]]


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
