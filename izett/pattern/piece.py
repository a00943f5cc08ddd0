"""A piece: a named ring of edges with darts, level lines, notches and facts.

Glossary. *Ring*: a piece's edges in counter-clockwise order, x to the side, y up; a piece on the fold is its half.
*Vertex*: a named end of an edge, scoped by the draft part (`front.underarm`), not by the piece. *Lineage*: the
drafted edge that an edge comes from; it never changes. *Role*: what class of edge it is. *Intake*: a dart, with a
*pivot* (the point about which it turns and closes) apart from the drawn *tip*. *As sewn*: with darts shut.

Nothing here is ever changed: a step makes new pieces, and an untouched piece stays the same object.
"""

from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from enum import StrEnum
from functools import cached_property
from types import MappingProxyType

from izett.geometry.curve import Curve, straight
from izett.geometry.point import Point, add, between, distance, left_of, scale, subtract, turn, unit
from izett.geometry.tolerance import FLATNESS, SAME_POINT
from izett.pattern.facts import Corner, Half, Layer, Lie, Region, Role, Zone
from izett.pattern.remembered import Remembered

#: cm. No piece reaches further from the origin of its frame: ten times as far as any train.
LARGEST_PIECE = 1000.0

#: Of the pieces of a garment or two, at both fineness: points take room.
_outlines: Remembered[list[Point]] = Remembered(most=128)


@dataclass(frozen=True, slots=True)
class Edge:
    """One edge of a ring, from vertex `start` to vertex `end`.

    `zone` says whether the edge of a piece that goes around the arm lies in front or behind; elsewhere the piece's
    own zone counts.
    """

    role: Role
    lineage: str
    start: str
    end: str
    curve: Curve
    zone: Zone | None = None

    @property
    def is_leg(self) -> bool:
        """Whether this is the leg of a dart, which no seam runs along."""
        return self.role is Role.DART_LEG


class Form(StrEnum):
    """Where a dart opens."""

    EDGE = "edge"
    DIAMOND = "diamond"


@dataclass(frozen=True, slots=True)
class Diamond:
    """A dart within the piece, widest between its two tips; no edge runs along it.

    Attributes:
        name, family: as an intake's.
        top, bottom: its two drawn tips.
        left, right: its widest place.
    """

    name: str
    family: str
    top: Point
    bottom: Point
    left: Point
    right: Point

    @property
    def intake(self) -> float:
        """What it takes in at its widest, cm."""
        return distance(self.left, self.right)

    @property
    def outline(self) -> tuple[Point, Point, Point, Point]:
        """Its corners, counter-clockwise from the top."""
        return (self.top, self.left, self.bottom, self.right)


@dataclass(frozen=True, slots=True)
class Intake:
    """A dart that opens on an edge.

    Attributes:
        name: `front.bust_dart`; kept however the dart is moved.
        family: `bust`, `waist` or `shoulder`: what it shapes.
        pivot: the point about which it turns and closes, cm.
        set_back: how far (cm) the drawn tip stays short of the pivot, along the bisector.
        mouth: the two vertices of its mouth, in ring order.
        tip: the vertex at its drawn tip.
        sewn: sewn as a dart, or left as ease.
        bow: how far (cm) each leg bulges into the paper in its middle: what the dart takes in more on its way to the tip.
    """

    name: str
    family: str
    pivot: Point
    set_back: float
    mouth: tuple[str, str]
    tip: str
    sewn: bool = True
    form: Form = Form.EDGE
    bow: float = 0.0


@dataclass(frozen=True, slots=True)
class LevelLine:
    """A line at a body level (`bust`), carried along by rigid moves; a level may be in several parts.

    Its ends lie on the outline, or on a dart's leg where it goes on beyond the dart.
    """

    level: str
    points: tuple[Point, ...]

    def moved(self, move: Callable[[Point], Point]) -> "LevelLine":
        """Return the line with every point moved."""
        return LevelLine(self.level, tuple(move(point) for point in self.points))

    @property
    def reversed(self) -> "LevelLine":
        """The same line walked the other way."""
        return LevelLine(self.level, self.points[::-1])

    @property
    def length(self) -> float:
        """Its length in cm."""
        return sum(distance(a, b) for a, b in zip(self.points, self.points[1:], strict=False))


@dataclass(frozen=True, slots=True)
class Span:
    """A stretch of a ring from one vertex to another along edges of one lineage, darts on the way shut."""

    start: str
    end: str
    along: str


class NotchKind(StrEnum):
    """Single for the front, double for the back: common practice."""

    SINGLE = "single"
    DOUBLE = "double"


@dataclass(frozen=True, slots=True)
class Notch:
    """A notch `distance` cm, as sewn, from the start of a span."""

    span: Span
    distance: float
    kind: NotchKind


@dataclass(frozen=True, slots=True)
class Lining:
    """What a lining follows.

    Attributes:
        of: the piece, by name.
        shorter: how much shorter it is meant to be at the hem, cm.
        lines: for each of its lines the piece's line that it follows.
    """

    of: str
    shorter: float
    lines: tuple[tuple[str, str], ...] = ()


@dataclass(frozen=True)
class Piece:
    """One pattern piece.

    Attributes:
        name, title: `bodice_front`, `Bodice front`.
        part: the draft part that its vertices are scoped by.
        cut: how many are cut (a pair is 2, mirrored); a piece on the fold is cut once.
        on_fold: the lineage of its fold edge, or None.
        grain: the grain line, from bottom to top.
        edges: the ring.
        darts, diamonds, marks, lines, notches: what lies on it.
        aliases: further names of vertices, made when a dart was closed.
        zone, region: what of the body it lies on, and which part of the body its block clothes.
        half: the half of the body that it is cut for; `both` is a pair, a piece on the fold, or one that is whole.
        layer: the layer of the garment.
        corners: which corner of its block a vertex is, by the vertex's name.
        lining: what a lining is meant to follow; None on any other piece.
        lie: how its grain runs beside how it was drafted.
    """

    name: str
    title: str
    part: str
    cut: int
    on_fold: str | None
    grain: tuple[Point, Point]
    edges: tuple[Edge, ...]
    darts: tuple[Intake, ...] = ()
    marks: Mapping[str, Point] = field(default_factory=lambda: MappingProxyType({}))
    lines: tuple[LevelLine, ...] = ()
    notches: tuple[Notch, ...] = ()
    aliases: Mapping[str, str] = field(default_factory=lambda: MappingProxyType({}))
    diamonds: tuple[Diamond, ...] = ()
    zone: Zone = Zone.ADDED
    region: Region = Region.NONE
    half: Half = Half.BOTH
    layer: Layer = Layer.OUTER
    corners: Mapping[str, Corner] = field(default_factory=lambda: MappingProxyType({}))
    lining: Lining | None = None
    lie: Lie = Lie.STRAIGHT

    @cached_property
    def vertices(self) -> Mapping[str, Point]:
        """Its vertices by name, in ring order."""
        return MappingProxyType({edge.start: edge.curve.start for edge in self.edges})

    def vertex(self, name: str) -> Point:
        """Return a vertex's place by any of its names."""
        return self.vertices[self.aliases.get(name, name)]

    def holds(self, name: str) -> bool:
        """Return whether a vertex of that name lies on this piece."""
        return self.aliases.get(name, name) in self.vertices

    def corner(self, kind: Corner) -> str | None:
        """Return the name of the vertex that is a corner of the block; None where the piece does not have it."""
        for name, found in self.corners.items():
            if found is kind and self.holds(name):
                return name
        return None

    def corner_at(self, vertex: str) -> Corner | None:
        """Return which corner of its block a vertex is, by any of its names."""
        found = self.corners.get(vertex)
        return found if found is not None else self.corners.get(self.aliases.get(vertex, vertex))

    def zone_of(self, lineage: str) -> Zone:
        """Return the zone of the body that one of its lines lies on: the edge's own, or else the piece's."""
        return next((e.zone for e in self.edges if e.lineage == lineage and e.zone is not None), self.zone)

    @property
    def times(self) -> int:
        """How often the garment has what is drawn: a half on the fold and one of a pair twice, a whole piece once."""
        return self.cut * (2 if self.on_fold else 1)

    @property
    def is_whole(self) -> bool:
        """Whether it goes over both halves of the body and is drawn as it is cut, once."""
        return self.half is Half.BOTH and self.on_fold is None and self.cut == 1

    def dart(self, name: str) -> Intake:
        """Return a dart by name (KeyError where there is none)."""
        for dart in self.darts:
            if dart.name == name:
                return dart
        raise KeyError(name)

    def outline(self, *, flatness: float = FLATNESS) -> list[Point]:
        """Return the ring with the darts' legs in it, flattened to within `flatness` cm."""
        return list(
            _outlines.of(
                self,
                flatness,
                lambda: [point for edge in self.edges for point in edge.curve.flattened(flatness=flatness)[:-1]],
            )
        )

    def level(self, name: str) -> float:
        """Return the length in cm of what this piece has of a level."""
        return sum(line.length for line in self.lines if line.level == name)


def fits_on_paper(point: Point) -> bool:
    """Return whether a place is one that a piece can have: a number, and no further off than any paper reaches."""
    return abs(point[0]) <= LARGEST_PIECE and abs(point[1]) <= LARGEST_PIECE


def in_ring_order(edges: Iterable[Edge]) -> list[Edge]:
    """Return edges of one line from the one where the line begins, wherever the ring of their piece does."""
    run = list(edges)
    first = next((i for i, e in enumerate(run) if not any(o.end == e.start for o in run)), 0)
    return [*run[first:], *run[:first]]


def closed(ring: Sequence[Edge]) -> tuple[Edge, ...]:
    """Return a ring closed to the last bit: each edge begins where the one before it ends, if it began within a hair of it."""
    return tuple(_begun(edge, ring[i - 1].curve.end) for i, edge in enumerate(ring))


def _begun(edge: Edge, at: Point) -> Edge:
    near = edge.curve.start != at and distance(edge.curve.start, at) <= SAME_POINT
    return replace(edge, curve=Curve((at, *edge.curve.points[1:]))) if near else edge


def opens_on(piece: Piece, dart: Intake) -> Role:
    """Return the role of the edge on which a dart opens."""
    return next(edge.role for edge in piece.edges if edge.end == dart.mouth[0] and not edge.is_leg)


def mouth_width(piece: Piece, dart: Intake) -> float:
    """Return how wide a dart opens at its mouth, in cm."""
    return distance(piece.vertex(dart.mouth[0]), piece.vertex(dart.mouth[1]))


def dart_angle(piece: Piece, dart: Intake) -> float:
    """Return the angle in radians at a dart's pivot, from its first leg to its second: what closing turns back."""
    a, b = (piece.vertex(name) for name in dart.mouth)
    return turn(subtract(a, dart.pivot), subtract(b, dart.pivot))


def tip_of(pivot: Point, mouth: tuple[Point, Point], set_back: float) -> Point:
    """Return the drawn tip: `set_back` cm from the pivot towards the middle of the mouth."""
    middle = between(*mouth, 0.5)
    if set_back == 0.0 or distance(pivot, middle) == 0.0:
        return pivot
    return add(pivot, scale(unit(subtract(middle, pivot)), set_back))


def bowed(a: Point, b: Point, bow: float) -> Curve:
    """Return the line from `a` to `b` that bulges by `bow` cm to its left in the middle; straight where that is nothing."""
    if bow == 0.0 or distance(a, b) == 0.0:
        return straight(a, b)
    # Handles at a third, four thirds of the bulge aside: a cubic passes its middle at three quarters of its handles.
    aside = scale(left_of(unit(subtract(b, a))), bow * 4 / 3)
    return Curve((a, add(between(a, b, 1 / 3), aside), add(between(a, b, 2 / 3), aside), b))


def legs(piece_dart: Intake, a: Point, b: Point) -> tuple[Edge, Edge]:
    """Return the two leg edges of a dart whose mouth lies at `a` and `b`. Legs are always rebuilt, never edited."""
    tip = tip_of(piece_dart.pivot, (a, b), piece_dart.set_back)
    first, second = piece_dart.mouth
    return (
        Edge(Role.DART_LEG, piece_dart.name, first, piece_dart.tip, bowed(a, tip, piece_dart.bow)),
        Edge(Role.DART_LEG, piece_dart.name, piece_dart.tip, second, bowed(tip, b, piece_dart.bow)),
    )


def has_role(piece: Piece, role: Role) -> bool:
    """Return whether a piece has an edge of a role."""
    return any(edge.role is role for edge in piece.edges)


def is_of_block(piece: Piece, block: tuple[Zone, Region]) -> bool:
    """Return whether a piece is of the outer layer of a block, on a zone of the body."""
    return (piece.zone, piece.region) == block and piece.layer is Layer.OUTER


def has_level(piece: Piece, level: str) -> bool:
    """Return whether a level is drawn on a piece."""
    return any(line.level == level for line in piece.lines)


def has_lineage(piece: Piece, lineage: str) -> bool:
    """Return whether a piece has an edge of a lineage."""
    return any(edge.lineage == lineage for edge in piece.edges)


def darts_on(piece: Piece, reference: str) -> tuple[Intake, ...]:
    """Return the darts of a piece that a reference means: one by its name, or all of a family (`front.bust`)."""
    return tuple(dart for dart in piece.darts if reference in (dart.name, f"{piece.part}.{dart.family}"))


def things_on(piece: Piece) -> Iterator[str]:
    """Yield the names of what a reader may be told of on a piece: its lines and its darts."""
    yield from dict.fromkeys(edge.lineage for edge in piece.edges if not edge.is_leg)
    yield from (dart.name for dart in piece.darts)
    yield from (diamond.name for diamond in piece.diamonds)
