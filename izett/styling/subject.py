"""What the maker points at: a dart, a line of the outline, a level, a piece, or the garment as a whole."""

from dataclasses import dataclass
from enum import StrEnum

from izett.geometry.outline import gap
from izett.geometry.point import Point
from izett.pattern.document import Seam
from izett.pattern.facts import Role
from izett.pattern.piece import Edge, Intake, Piece, Span
from izett.pattern.sewn import MOST_PARTS, holding, resolved, span_length
from izett.pattern.working import Readable


class Kind(StrEnum):
    """What kind of thing is pointed at."""

    DART = "dart"
    LINE = "line"
    LEVEL = "level"
    PIECE = "piece"
    GARMENT = "garment"


@dataclass(frozen=True)
class Subject:
    """A thing pointed at.

    Attributes:
        kind: what it is.
        name: of the dart, the line (its lineage), the level or the piece.
        piece: the piece that it lies on; None for the garment.
        span: a line's whole run, from end to end over cuts.
        fraction: how far along the line it was pointed at.
    """

    kind: Kind
    name: str = ""
    piece: Piece | None = None
    span: Span | None = None
    fraction: float = 0.5

    @property
    def role(self) -> Role | None:
        """The class of the line pointed at, if it is one."""
        if self.kind is not Kind.LINE or self.piece is None:
            return None
        return next((edge.role for edge in self.piece.edges if edge.lineage == self.name), None)

    @property
    def dart(self) -> Intake | None:
        """The dart pointed at, if it is one."""
        if self.kind is not Kind.DART or self.piece is None:
            return None
        return next((dart for dart in self.piece.darts if dart.name == self.name), None)

    def line(self) -> dict[str, str]:
        """Return the line's run as a step's parameters name it."""
        assert self.span is not None
        return {"start": self.span.start, "end": self.span.end, "along": self.span.along}

    def place(self) -> dict[str, object]:
        """Return the place on the line as a step's parameters name it."""
        return {**self.line(), "fraction": round(self.fraction, 3)}


def others_by_nearness(piece: Piece, subject: Subject) -> list[str]:
    """Return the other lines of a piece, the fold left out, from the one nearest to what is pointed at to the farthest."""
    spot = _pointed_at(piece, subject)
    lines: dict[str, float] = {}
    for edge in piece.edges:
        if not edge.is_leg and edge.lineage not in (subject.name, piece.on_fold):
            far = gap(edge.curve.flattened(), spot)
            lines[edge.lineage] = min(lines.get(edge.lineage, far), far)
    return sorted(lines, key=lambda line: lines[line])


def _pointed_at(piece: Piece, subject: Subject) -> Point:
    dart = subject.dart
    if dart is not None:
        return piece.vertex(dart.tip)
    own = [e for e in piece.edges if e.lineage == subject.name] or list(piece.edges)
    along = subject.fraction * sum(e.curve.length for e in own)
    for edge in own:
        if along <= edge.curve.length or edge is own[-1]:
            return edge.curve.at_distance(min(along, edge.curve.length))
        along -= edge.curve.length
    raise AssertionError("a piece has at least one edge")


def subject_of(pattern: Readable, kind: Kind, name: str, piece_name: str, fraction: float) -> Subject | None:
    """Return what is pointed at, or None where the pattern has no such thing (any more)."""
    if kind is Kind.GARMENT:
        return Subject(kind)
    piece = pattern.find_piece(piece_name)
    if piece is None:
        return None
    if kind is Kind.LINE:
        span = run_of(pattern, piece, name)
        return Subject(kind, name, piece, span, _over_all(pattern, piece, span, fraction)) if span else None
    return Subject(kind, name, piece)


def _over_all(pattern: Readable, piece: Piece, span: Span, fraction: float) -> float:
    """Return a share of one piece's part of a run as a share of the whole run."""
    chain = resolved(pattern, span)
    lengths = [span_length(holding(pattern, part.start), part) for part in chain]
    gone = 0.0
    for part, length in zip(chain, lengths, strict=True):
        if piece.holds(part.start):
            return (gone + fraction * length) / sum(lengths)
        gone += length
    return fraction


def run_of(pattern: Readable, piece: Piece, lineage: str) -> Span | None:
    """Return the whole run of a line from end to end in ring order, darts shut, over cuts; None where there is none."""
    first = _end(pattern, piece, lineage, forward=False)
    last = _end(pattern, piece, lineage, forward=True)
    return Span(first, last, lineage) if first and last else None


def run_on(piece: Piece, lineage: str) -> Span | None:
    """Return the run of a line on one piece from end to end in ring order, darts shut; None where there is none."""
    first, last = (_end_on(piece, lineage, forward=forward) for forward in (False, True))
    return Span(first, last, lineage) if first and last else None


def _end(pattern: Readable, piece: Piece, lineage: str, *, forward: bool) -> str | None:
    for _ in range(MOST_PARTS):
        end = _end_on(piece, lineage, forward=forward)
        following = pattern.link(end) if end is not None else None
        if end is None or following is None:
            return end
        other = pattern.find(following)
        if other is None or _end_on(other, lineage, forward=forward) is None:
            return end
        piece = other
    return None


def _end_on(piece: Piece, lineage: str, *, forward: bool) -> str | None:
    ring: list[Edge] = [edge for edge in piece.edges if not edge.is_leg]
    if not forward:
        ring = ring[::-1]
    for i, edge in enumerate(ring):
        following = ring[(i + 1) % len(ring)]
        if edge.lineage == lineage and following.lineage != lineage:
            return edge.end if forward else edge.start
    return None


def seam_at(pattern: Readable, piece: Piece, lineage: str) -> Seam | None:
    """Return the seam that a line of a piece is sewn in, or None."""
    for seam in pattern.seams_along(lineage):
        for side in seam.sides:
            if any(span.along == lineage and piece.holds(span.start) for span in side):
                return seam
    return None


def ends_of(piece: Piece, role: Role) -> list[str]:
    """Return the names of the lines of a role on a piece, in ring order, each once."""
    return list(dict.fromkeys(edge.lineage for edge in piece.edges if edge.role is role))
