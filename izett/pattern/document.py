"""The pattern: pieces as named rings of edges, with darts, level lines, notches, and the seams that join them.

Glossary. *Ring*: a piece's edges in counter-clockwise order, x to the side, y up; a piece on the fold is its half.
*Vertex*: a named end of an edge, scoped by the draft part (`front.underarm`), not by the piece. *Lineage*: the
drafted edge that an edge comes from; it never changes. *Role*: what class of edge it is. *Intake*: a dart, with a
*pivot* (the point about which it turns and closes) apart from the drawn *tip*. *As sewn*: with darts shut.

Nothing here is ever changed: a step makes new pieces, and an untouched piece stays the same object.
"""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field, replace
from enum import StrEnum
from functools import cached_property
from types import MappingProxyType

from izett.geometry.curve import Curve, straight
from izett.geometry.point import Point, add, between, distance, left_of, scale, subtract, turn, unit
from izett.geometry.tolerance import FLATNESS


class Role(StrEnum):
    """The class of an edge, for checks, allowances and display."""

    CENTRE_FRONT = "centre_front"
    CENTRE_BACK = "centre_back"
    NECK = "neck"
    SHOULDER = "shoulder"
    ARMHOLE = "armhole"
    SIDE = "side"
    WAIST = "waist"
    HEM = "hem"
    CAP = "cap"
    UNDERARM = "underarm"
    INSEAM = "inseam"
    CROTCH = "crotch"
    #: A seam within a block: a style line, the edge of a godet, of a gusset or of what is sewn on.
    PANEL = "panel"
    FOLD = "fold"
    #: Cut as it is drawn: turnings and allowances lie inside it.
    CUT_EDGE = "cut_edge"
    DART_LEG = "dart_leg"


@dataclass(frozen=True, slots=True)
class Edge:
    """One edge of a ring, from vertex `start` to vertex `end`."""

    role: Role
    lineage: str
    start: str
    end: str
    curve: Curve

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
    """A line at a body level (`bust`), carried along by rigid moves; a level may be in several parts."""

    level: str
    points: tuple[Point, ...]

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
class Seam:
    """A seam: two sides, each a chain of spans in sewing order.

    Attributes:
        name: `shoulder`, `side`.
        sides: the two chains; both start at the same end of the seam.
        ease: the intended length of the second side less the first, from … to, in cm.
        lies: where that ease lies, in words for the sewing sheet.
        words: the two sides in words.
        offset: how far (cm) the second side begins before the first, where the two are not sewn end to end.
    """

    name: str
    sides: tuple[tuple[Span, ...], tuple[Span, ...]]
    ease: tuple[float, float]
    lies: str = ""
    words: tuple[str, str] = ("front", "back")
    offset: float = 0.0


def matching(parts: tuple[str, str], line: str, start: str, end: str) -> tuple[tuple[Span, ...], tuple[Span, ...]]:
    """Return the two sides of a seam whose line and ends are named alike on two draft parts.

    Args:
        parts: `("skirt_front", "skirt_back")`.
        line, start, end: their names within the part: `side`, `hem_side`, `waist_side`.
    """
    first, second = ((Span(f"{part}.{start}", f"{part}.{end}", f"{part}.{line}"),) for part in parts)
    return first, second


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

    def dart(self, name: str) -> Intake:
        """Return a dart by name (KeyError where there is none)."""
        for dart in self.darts:
            if dart.name == name:
                return dart
        raise KeyError(name)

    def outline(self, *, flatness: float = FLATNESS) -> list[Point]:
        """Return the ring with the darts' legs in it, flattened to within `flatness` cm."""
        return [point for edge in self.edges for point in edge.curve.flattened(flatness=flatness)[:-1]]

    @property
    def of_half(self) -> float:
        """How often half a garment has what is drawn: a half on the fold or one of a pair once, a whole piece half."""
        return self.cut * (2 if self.on_fold else 1) / 2

    def level(self, name: str) -> float:
        """Return the length in cm of what this piece has of a level."""
        return sum(line.length for line in self.lines if line.level == name)


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


@dataclass(frozen=True)
class Intent:
    """What the garment is meant to be.

    Attributes:
        fit, cloth: in words; `stretch` of the cloth in %.
        ease: what is wanted at each level (total around, cm; negative where the cloth is stretched on the body).
        along: levels that are measured along edges: the spans of the half body. Others have level lines.
    """

    fit: str = "fitted"
    cloth: str = "woven"
    ease: Mapping[str, float] = field(default_factory=lambda: MappingProxyType({}))
    stretch: float = 0.0
    along: Mapping[str, tuple[Span, ...]] = field(default_factory=lambda: MappingProxyType({}))

    def with_ease(self, added: Mapping[str, float]) -> "Intent":
        """Return the intent with ease added at some levels."""
        return replace(
            self,
            ease=MappingProxyType({**self.ease, **{k: self.ease.get(k, 0.0) + v for k, v in added.items()}}),
        )


class Closure(StrEnum):
    """How an opening is closed, or that it stays open."""

    ZIP = "zip"
    BUTTONS = "buttons"
    PLACKET = "placket"
    LACING = "lacing"
    SLIT = "slit"


@dataclass(frozen=True, slots=True)
class Opening:
    """An opening: `length` cm from the start of a span that no seam closes for good."""

    name: str
    closure: Closure
    span: Span
    length: float


@dataclass(frozen=True, slots=True)
class Accepted:
    """A finding that the maker accepts: up to an amount, for a reason."""

    check: str
    where: tuple[str, ...]
    up_to: float
    reason: str


@dataclass(frozen=True, slots=True)
class Machine:
    """The seam allowance on paper, and the one that will be sewn, cm."""

    paper: float
    sewn: float


@dataclass(frozen=True)
class Pattern:
    """All pieces of a garment, its seams, and what it is meant to be.

    Attributes:
        pieces, seams, intent: see there.
        links: corners that were one before a cut parted the paper: from each, a line goes on at the other.
        openings: where the garment opens.
        accepted: findings that the maker accepts.
        machine: the allowances on paper and under the needle, where the maker said them.
    """

    pieces: tuple[Piece, ...]
    seams: tuple[Seam, ...]
    intent: Intent
    links: Mapping[str, str] = field(default_factory=lambda: MappingProxyType({}))
    openings: tuple[Opening, ...] = ()
    accepted: tuple[Accepted, ...] = ()
    machine: Machine | None = None

    def __iter__(self) -> Iterator[Piece]:
        return iter(self.pieces)

    def piece(self, name: str) -> Piece:
        """Return a piece by name (KeyError where there is none)."""
        for piece in self.pieces:
            if piece.name == name:
                return piece
        raise KeyError(name)

    def holding(self, vertex: str) -> Piece:
        """Return the piece that holds a vertex (KeyError where none does)."""
        for piece in self.pieces:
            if piece.holds(vertex):
                return piece
        raise KeyError(vertex)

    def joined(
        self,
        pieces: tuple[Piece, ...],
        seams: tuple[Seam, ...],
        *,
        ease: Mapping[str, float],
        along: Mapping[str, tuple[Span, ...]] | None = None,
    ) -> "Pattern":
        """Return the pattern with a block's pieces and seams added, and the ease that it was given.

        A level that an earlier block has already stays that block's.
        """
        intent = replace(
            self.intent,
            ease=MappingProxyType({**ease, **self.intent.ease}),
            along=MappingProxyType({**(along or {}), **self.intent.along}),
        )
        return replace(self, pieces=(*self.pieces, *pieces), seams=(*self.seams, *seams), intent=intent)

    def with_pieces(self, *changed: Piece) -> "Pattern":
        """Return the pattern with pieces replaced by those of the same name."""
        by_name = {piece.name: piece for piece in changed}
        return replace(self, pieces=tuple(by_name.get(piece.name, piece) for piece in self.pieces))

    def with_parts(self, of: Piece, *parts: Piece) -> "Pattern":
        """Return the pattern with a piece replaced by its parts, at its place in the order."""
        pieces = [new for piece in self.pieces for new in (parts if piece is of else (piece,))]
        return replace(self, pieces=tuple(pieces))

    def with_seam(self, changed: Seam) -> "Pattern":
        """Return the pattern with a seam replaced by the one of the same name."""
        return replace(self, seams=tuple(changed if seam.name == changed.name else seam for seam in self.seams))
