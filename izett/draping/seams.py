"""Which lines of given pieces are sewn together: as said, else as their roles, names and lengths agree.

A side and a shoulder join front and back, a line between panels two pieces of one zone, a waist what lies above it and
below. Each line is sewn once; what has no partner, or none as long, is left for the maker to point at.
"""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from itertools import combinations

from izett.draping.panel import Given, SeamEnd, SeamSaid
from izett.pattern.document import Seam
from izett.pattern.facts import Region, Role, SeamKind, Zone
from izett.pattern.piece import Edge, Piece, Span, in_ring_order

#: Roles of lines that are sewn to another piece, and the kind of seam that makes.
SEWN: Mapping[Role, SeamKind] = {
    Role.SHOULDER: SeamKind.SHOULDER,
    Role.SIDE: SeamKind.SIDE,
    Role.PANEL: SeamKind.PANEL,
    Role.WAIST: SeamKind.WAIST,
    Role.INSEAM: SeamKind.INSEAM,
    Role.UNDERARM: SeamKind.UNDERARM,
}
#: Seams whose two sides begin at the centre; the others begin at the top.
FROM_CENTRE = (Role.SHOULDER, Role.WAIST)
#: cm. Lines that differ by more are not taken for a seam unasked.
AGREE = 2.5
#: cm. As so much difference counts another name, and each panel that lies between.
OTHER_NAME, BETWEEN = 1.0, 0.4


@dataclass(frozen=True, slots=True)
class Proposed:
    """A seam with where it comes from: said by the maker, or proposed."""

    said: SeamSaid
    proposed: bool


def seams_of(given: Given, pieces: Sequence[Piece]) -> list[Proposed]:
    """Return the seams between given pieces: those that were said, then those that agree."""
    by_name = {piece.name: piece for piece in pieces}
    said = [seam for seam in given.seams if all(_has(by_name.get(end.panel), end.line) for end in seam.sides)]
    taken = {(end.panel, end.line) for seam in said for end in seam.sides}
    taken |= {(end.panel, end.line) for end in given.open}
    free = [line for line in _lines(pieces) if (line.panel, line.line) not in taken]
    found = [Proposed(seam, proposed=False) for seam in said]
    used: set[tuple[str, str]] = set()
    for _, a, b in sorted(_pairs(free, by_name), key=lambda pair: pair[0]):
        if not used & {(a.panel, a.line), (b.panel, b.line)}:
            used |= {(a.panel, a.line), (b.panel, b.line)}
            first, second = (SeamEnd(panel=line.panel, line=line.line) for line in (a, b))
            found.append(Proposed(SeamSaid(first=first, second=second), proposed=True))
    return found


@dataclass(frozen=True, slots=True)
class _Line:
    panel: str
    line: str
    role: Role
    length: float
    place: int


def _has(piece: Piece | None, line: str) -> bool:
    return piece is not None and any(edge.lineage == f"{piece.name}.{line}" for edge in piece.edges)


def _lines(pieces: Sequence[Piece]) -> Iterator[_Line]:
    for place, piece in enumerate(pieces):
        for lineage in dict.fromkeys(edge.lineage for edge in piece.edges if edge.role in SEWN):
            run = [edge for edge in piece.edges if edge.lineage == lineage]
            long = sum(edge.curve.length for edge in run)
            yield _Line(piece.name, lineage.split(".", 1)[1], run[0].role, long, place)


def _pairs(lines: Sequence[_Line], pieces: Mapping[str, Piece]) -> Iterator[tuple[float, _Line, _Line]]:
    for a, b in combinations(lines, 2):
        if a.role is b.role and abs(a.length - b.length) <= AGREE and _may_meet(a, b, pieces):
            same = a.line.rstrip("_0123456789") == b.line.rstrip("_0123456789")
            apart = max(abs(a.place - b.place) - 1, 0)
            yield abs(a.length - b.length) + (0 if same else OTHER_NAME) + apart * BETWEEN, a, b


def _may_meet(a: _Line, b: _Line, pieces: Mapping[str, Piece]) -> bool:
    one, other = pieces[a.panel], pieces[b.panel]
    if one.layer is not other.layer:
        return False
    if a.role is Role.UNDERARM:
        return one is other
    if one is other:
        return False
    if a.role is Role.WAIST:
        return one.zone is other.zone and {one.region, other.region} == {Region.UPPER, Region.SKIRT}
    if a.role is Role.PANEL:
        return one.zone is other.zone
    return {one.zone, other.zone} == {Zone.FRONT, Zone.BACK} and one.region is other.region


def sewn(said: SeamSaid, pieces: Mapping[str, Piece]) -> Seam:
    """Return a seam as the pattern has it: both sides from the same end.

    Args:
        said: the two lines, which the pieces have.
        pieces: the given pieces by name.
    """
    first, second = (side_of(pieces[end.panel], end.line) for end in said.sides)
    role = _role(pieces[said.sides[0].panel], said.sides[0].line)
    a, b = (f"{end.panel}.{end.line}" for end in said.sides)
    return Seam(
        name=f"{a}+{b}",
        sides=((first,), (second,)),
        ease=(said.ease, said.ease),
        lies="over the bust, between the notches" if said.ease else "",
        words=(pieces[said.sides[0].panel].title.lower(), pieces[said.sides[1].panel].title.lower()),
        kind=SEWN.get(role, SeamKind.PANEL),
    )


def _role(piece: Piece, line: str) -> Role:
    return next(edge.role for edge in piece.edges if edge.lineage == f"{piece.name}.{line}")


def side_of(piece: Piece, line: str) -> Span:
    """Return a line of a piece as a side of a seam: from the centre, or from the top, to its other end."""
    run = in_ring_order(edge for edge in piece.edges if edge.lineage == f"{piece.name}.{line}")
    span = Span(run[0].start, run[-1].end, run[0].lineage)
    return span if _begins(run) else Span(span.end, span.start, span.along)


def _begins(run: Sequence[Edge]) -> bool:
    """Return whether a line, as the ring has it, begins where its seam does."""
    start, end = run[0].curve.start, run[-1].curve.end
    return abs(start[0]) <= abs(end[0]) if run[0].role in FROM_CENTRE else start[1] >= end[1]
