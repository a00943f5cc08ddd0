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
from izett.pattern.facts import Corner, Half, Layer, Region, Role, SeamKind, Zone


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
        kind: which seam of a garment it is.
        half: the half of the body that it lies on, where the halves differ.
    """

    name: str
    sides: tuple[tuple[Span, ...], tuple[Span, ...]]
    ease: tuple[float, float]
    lies: str = ""
    words: tuple[str, str] = ("front", "back")
    offset: float = 0.0
    kind: SeamKind = SeamKind.PANEL
    half: Half = Half.BOTH


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
        zone, region: what of the body it lies on, and which part of the body its block clothes.
        half: the half of the body that it is cut for; `both` is a pair, a piece on the fold, or one that is whole.
        layer: the layer of the garment.
        corners: which corner of its block a vertex is, by the vertex's name.
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
        """Return what of the body one of its lines lies on: the edge's own zone, or else the piece's."""
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
        return [point for edge in self.edges for point in edge.curve.flattened(flatness=flatness)[:-1]]

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


#: cm. Ease wanted at places that the fit does not name, until a step means to move it: a neck, a wrist that the hand
#: passes, a shoulder. Common practice, no single source.
PLACES: Mapping[str, float] = MappingProxyType({"neck": 1.5, "wrist": 6.0, "shoulder": 0.0})


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
            ease=MappingProxyType(
                {**self.ease, **{k: self.ease.get(k, PLACES.get(k, 0.0)) + v for k, v in added.items()}}
            ),
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


#: Stands for every question that a check asks about a thing: so acceptances of older recipes were meant.
ANY_ASPECT = "*"


@dataclass(frozen=True, slots=True)
class Accepted:
    """A finding that the maker accepts: up to an amount, for a reason.

    Attributes:
        check, where, aspect, half: which finding it is.
        up_to: the amount, in the finding's unit; beyond it the finding opens again.
        reason: why it is meant.
        worse: whether `more` or `less` of it is beyond.
    """

    check: str
    where: tuple[str, ...]
    up_to: float
    reason: str
    aspect: str = ANY_ASPECT
    half: Half = Half.BOTH
    worse: str = "more"


@dataclass(frozen=True, slots=True)
class CutFor:
    """What the sheets are cut for: a purpose that sets the allowance of each role, and single lines set apart, cm."""

    purpose: str = "muslin"
    by_lineage: Mapping[str, float] = field(default_factory=lambda: MappingProxyType({}))


@dataclass(frozen=True, slots=True)
class Machine:
    """The seam allowance on paper, and the one that will be sewn, cm."""

    paper: float
    sewn: float


@dataclass(frozen=True)
class Pattern:
    """All pieces of a garment, its seams, and what it is meant to be.

    What can be asked of it, a step and a check ask through `pattern/working.py`, which keeps the questions.

    Attributes:
        pieces, seams, intent: see there.
        links: corners that were one before a cut parted the paper: from each, a line goes on at the other.
        openings: where the garment opens.
        accepted: findings that the maker accepts.
        machine: the allowances on paper and under the needle, where the maker said them.
        titles: lines, darts and seams in words, by name.
        allowances: what the sheets are cut for.
    """

    pieces: tuple[Piece, ...]
    seams: tuple[Seam, ...]
    intent: Intent
    links: Mapping[str, str] = field(default_factory=lambda: MappingProxyType({}))
    openings: tuple[Opening, ...] = ()
    accepted: tuple[Accepted, ...] = ()
    machine: Machine | None = None
    titles: Mapping[str, str] = field(default_factory=lambda: MappingProxyType({}))
    allowances: CutFor = CutFor()

    def __iter__(self) -> Iterator[Piece]:
        return iter(self.pieces)

    @cached_property
    def _by_name(self) -> Mapping[str, Piece]:
        return {piece.name: piece for piece in reversed(self.pieces)}

    @cached_property
    def _by_vertex(self) -> Mapping[str, Piece]:
        found: dict[str, Piece] = {}
        for piece in reversed(self.pieces):
            found |= dict.fromkeys(
                (*piece.vertices, *(k for k, v in piece.aliases.items() if v in piece.vertices)), piece
            )
        return found

    @cached_property
    def in_words(self) -> Mapping[str, str]:
        """What its things are called in words: lines, darts and seams by their titles, pieces by theirs."""
        return {**{piece.name: piece.title.lower() for piece in self.pieces}, **self.titles}

    def title_of(self, name: str) -> str | None:
        """Return what a thing is called in words, or None."""
        return self.in_words.get(name)

    def find(self, vertex: str) -> Piece | None:
        """Return the piece that holds a vertex, or None."""
        return self._by_vertex.get(vertex)

    def find_piece(self, name: str) -> Piece | None:
        """Return a piece by name, or None."""
        return self._by_name.get(name)

    def find_seam(self, name: str) -> Seam | None:
        """Return a seam by name, or None."""
        return next((seam for seam in self.seams if seam.name == name), None)

    def with_dart(self, reference: str) -> Piece | None:
        """Return the piece that has a dart of that name, or darts of that family (`front.bust`); or None."""
        return next((piece for piece in self.pieces if darts_on(piece, reference)), None)

    def with_role(self, role: Role) -> tuple[Piece, ...]:
        """Return the pieces that have an edge of a role."""
        return tuple(piece for piece in self.pieces if has_role(piece, role))

    def with_level(self, level: str) -> tuple[Piece, ...]:
        """Return the pieces that a level is drawn on."""
        return tuple(piece for piece in self.pieces if has_level(piece, level))

    def with_lineage(self, lineage: str) -> tuple[Piece, ...]:
        """Return the pieces that have an edge of a lineage."""
        return tuple(piece for piece in self.pieces if has_lineage(piece, lineage))

    def in_zone(self, zone: Zone) -> tuple[Piece, ...]:
        """Return the pieces that lie on a zone of the body."""
        return tuple(piece for piece in self.pieces if piece.zone is zone)

    def of_block(self, block: tuple[Zone, Region]) -> tuple[Piece, ...]:
        """Return the outer pieces of the block that clothes a part of the body, on a zone."""
        return tuple(piece for piece in self.pieces if is_of_block(piece, block))

    def of_part(self, part: str) -> tuple[Piece, ...]:
        """Return the pieces that were cut from a draft part."""
        return tuple(piece for piece in self.pieces if piece.part == part)

    def seams_of(self, kind: SeamKind) -> tuple[Seam, ...]:
        """Return the seams of a kind."""
        return tuple(seam for seam in self.seams if seam.kind is kind)

    def seams_along(self, lineage: str) -> tuple[Seam, ...]:
        """Return the seams that a line is sewn in."""
        return tuple(seam for seam in self.seams if runs_along(seam, lineage))

    def link(self, vertex: str) -> str | None:
        """Return the corner at which a line that was cut here goes on, or None."""
        return self.links.get(vertex)

    def ease(self, level: str) -> float | None:
        """Return the ease that is meant at a level, cm total around, or None."""
        return self.intent.ease.get(level)

    def along(self, level: str) -> tuple[Span, ...] | None:
        """Return the spans that a level is measured along; None where it has lines, or is not there."""
        return self.intent.along.get(level)

    @property
    def measured_along(self) -> Mapping[str, tuple[Span, ...]]:
        """The spans of every level that is measured along spans."""
        return self.intent.along

    @property
    def levels_meant(self) -> tuple[str, ...]:
        """The levels at which an ease is meant."""
        return tuple(self.intent.ease)

    def piece(self, name: str) -> Piece:
        """Return a piece by name (KeyError where there is none)."""
        return self._by_name[name]

    def holding(self, vertex: str) -> Piece:
        """Return the piece that holds a vertex (KeyError where none does)."""
        return self._by_vertex[vertex]

    def joined(
        self,
        pieces: tuple[Piece, ...],
        seams: tuple[Seam, ...],
        *,
        ease: Mapping[str, float],
        along: Mapping[str, tuple[Span, ...]] | None = None,
    ) -> "Pattern":
        """Return the pattern with a block's pieces and seams added, and the ease that it was given.

        A level that an earlier block has already stays that block's. Lines, darts and seams are called in words as the
        block names them.
        """
        intent = replace(
            self.intent,
            ease=MappingProxyType({**ease, **self.intent.ease}),
            along=MappingProxyType({**(along or {}), **self.intent.along}),
        )
        named = [name for piece in pieces for name in things_on(piece)] + [seam.name for seam in seams]
        return replace(
            self,
            pieces=(*self.pieces, *pieces),
            seams=(*self.seams, *seams),
            intent=intent,
            titles=MappingProxyType({**self.titles, **{name: in_words(name) for name in named}}),
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


def runs_along(seam: Seam, lineage: str) -> bool:
    """Return whether a line is sewn in a seam."""
    return any(span.along == lineage for side in seam.sides for span in side)


def things_on(piece: Piece) -> Iterator[str]:
    """Yield the names of what a reader may be told of on a piece: its lines and its darts."""
    yield from dict.fromkeys(edge.lineage for edge in piece.edges if not edge.is_leg)
    yield from (dart.name for dart in piece.darts)
    yield from (diamond.name for diamond in piece.diamonds)


def in_words(name: str) -> str:
    """Return a name that a block or a step gave, in words: its title where nothing better is known.

    >>> in_words("front.bust_dart_2")
    'front bust dart 2'
    """
    return name.replace(".", " ").replace("_", " ")
