"""The pattern: pieces, the seams that join them, and what the garment is meant to be. Nothing here is ever changed."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field, replace
from enum import StrEnum
from functools import cached_property
from types import MappingProxyType

from izett.pattern.facts import Half, Region, Role, SeamKind, Zone
from izett.pattern.piece import (
    Piece,
    Span,
    darts_on,
    has_level,
    has_lineage,
    has_role,
    is_of_block,
    things_on,
)


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
        fullness: what of the width at a level is gathers, pleats or flare, total around, cm: no ease, and none is wanted.
    """

    fit: str = "fitted"
    cloth: str = "woven"
    ease: Mapping[str, float] = field(default_factory=lambda: MappingProxyType({}))
    stretch: float = 0.0
    along: Mapping[str, tuple[Span, ...]] = field(default_factory=lambda: MappingProxyType({}))
    fullness: Mapping[str, float] = field(default_factory=lambda: MappingProxyType({}))

    def with_fullness(self, added: Mapping[str, float]) -> "Intent":
        """Return the intent with fullness added at some levels; what is taken away is never more than was there."""
        moved = {level: max(self.fullness.get(level, 0.0) + by, 0.0) for level, by in added.items()}
        return replace(self, fullness=MappingProxyType({**self.fullness, **moved}))

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


class CornerCut(StrEnum):
    """How the seam allowances of two lines meet at their corner.

    Mitred, both run on until they cross. Squared, the end of one line's allowance is cut square to it where the line,
    run on, comes to the cutting line of the other: pressed open, it lies under the other without a gap. Folded back, the
    end is cut as what it will lie against when it is turned up along one line: a mirror image.
    """

    MITRE = "mitre"
    SQUARE = "square"
    FOLDED = "folded"


@dataclass(frozen=True, slots=True)
class CutCorner:
    """How a corner is cut, and along which of its two lines (lineage): the one turned up, or the one that is squared."""

    kind: CornerCut
    along: str = ""


@dataclass(frozen=True, slots=True)
class Turning:
    """How a hem or a facing is turned, cm: to its depth, with so much of the raw edge turned under once more."""

    depth: float
    under: float


@dataclass(frozen=True, slots=True)
class Ready:
    """What is said of one piece when it is made ready.

    Attributes:
        cloth: what it is cut from (`lining`), where its layer does not tell; empty for that.
        cut: how many are cut, where not as many as the block has; 0 for that.
        free: whether it may lie at any angle to the grain.
        says: words for its label.
        whole: whether a piece on the fold is put on paper whole.
    """

    cloth: str = ""
    cut: int = 0
    free: bool = False
    says: str = ""
    whole: bool = False


@dataclass(frozen=True, slots=True)
class CutFor:
    """What the sheets are cut for.

    Attributes:
        purpose: sets the allowance of each role.
        by_lineage: single lines set apart, cm.
        corners: corners that are cut in a way of their own, by vertex.
        pieces: what is said of single pieces, by name.
        turnings: how edges are turned, by line.
    """

    purpose: str = "muslin"
    by_lineage: Mapping[str, float] = field(default_factory=lambda: MappingProxyType({}))
    corners: Mapping[str, CutCorner] = field(default_factory=lambda: MappingProxyType({}))
    pieces: Mapping[str, Ready] = field(default_factory=lambda: MappingProxyType({}))
    turnings: Mapping[str, Turning] = field(default_factory=lambda: MappingProxyType({}))


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
    def _seams_by_line(self) -> Mapping[str, tuple[Seam, ...]]:
        found: dict[str, tuple[Seam, ...]] = {}
        for seam in self.seams:
            for line in dict.fromkeys(span.along for side in seam.sides for span in side):
                found[line] = (*found.get(line, ()), seam)
        return found

    @cached_property
    def in_words(self) -> Mapping[str, str]:
        """What its things are called in words: lines, darts and seams by their titles, pieces by theirs."""
        return {**{piece.name: piece.title.lower() for piece in self.pieces}, **self.titles}

    def title_of(self, name: str) -> str | None:
        """Return the title of a thing, or None."""
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
        return self._seams_by_line.get(lineage, ())

    def link(self, vertex: str) -> str | None:
        """Return the corner at which a line that was cut here goes on, or None."""
        return self.links.get(vertex)

    def ease(self, level: str) -> float | None:
        """Return the ease that is meant at a level, cm total around, or None."""
        return self.intent.ease.get(level)

    @property
    def stretch(self) -> float:
        """How far the cloth stretches, %."""
        return self.intent.stretch

    def fullness(self, level: str) -> float:
        """Return what of the width at a level is gathers, pleats or flare, cm total around."""
        return self.intent.fullness.get(level, 0.0)

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


def runs_along(seam: Seam, lineage: str) -> bool:
    """Return whether a line is sewn in a seam."""
    return any(span.along == lineage for side in seam.sides for span in side)


def in_words(name: str) -> str:
    """Return a name that a block or a step gave, in words: its title where nothing better is known.

    >>> in_words("front.bust_dart_2")
    'front bust dart 2'
    """
    return name.replace(".", " ").replace("_", " ")
