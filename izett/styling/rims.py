"""One edge across all pieces: a hem, a waist, a neckline as one line over the panels that are sewn to each other.

From any of its lines it is followed over the seams, from the centre or fold where it begins round to where it ends. So
what is done to it comes out alike on both sides of each seam, however the panels lie on the paper.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from izett.pattern.document import Seam
from izett.pattern.facts import CENTRES, Region, Role
from izett.pattern.piece import Edge, Piece, Span
from izett.pattern.working import Readable
from izett.styling.subject import run_of

#: An edge goes on over so many panels at most.
MOST_PANELS = 64


@dataclass(frozen=True, slots=True)
class RimPart:
    """What one piece has of an edge that runs over several, between two seams.

    Attributes:
        piece: its name.
        edges: its edges in the order in which they are walked.
        forward: whether that is ring order.
        start, end: the corners where it begins and ends.
        gone: how long (cm) the edge is before this part, darts left out.
    """

    piece: str
    edges: tuple[Edge, ...]
    forward: bool
    gone: float

    @property
    def start(self) -> str:
        """The corner where it begins."""
        return self.edges[0].start if self.forward else self.edges[0].end

    @property
    def end(self) -> str:
        """The corner where it ends."""
        return self.edges[-1].end if self.forward else self.edges[-1].start

    @property
    def length(self) -> float:
        """How long it is on paper, cm, without its darts' mouths."""
        return sum(edge.curve.length for edge in self.edges)


def rim_of(pattern: Readable, piece: Piece, role: Role, lineage: str | None = None) -> tuple[RimPart, ...]:
    """Return the whole edge of a role that a piece has a part in, over all panels; its first where it has several.

    It begins at the centre of the front where it reaches it, else at the centre of the back, else at an open end.
    """
    edge = next((e for e in piece.edges if e.role is role and lineage in (None, e.lineage)), None)
    if edge is None:
        return ()
    back = _followed(pattern, piece, edge, forward=False)
    ahead = _followed(pattern, piece, edge, forward=True)
    first = _joined(back[0], ahead[0])
    parts = [*_turned(back[1:]), first, *ahead[1:]]
    if parts[0][0].name == parts[-1][0].name and len(parts) > 1 and parts[0][1][0] == parts[-1][1][0]:
        parts.pop()  # a closed round: walked from one place back to it
    return _measured(parts if _begins_at_front(parts) else _turned(parts))


_Part = tuple[Piece, list[Edge], bool]


def _followed(pattern: Readable, piece: Piece, edge: Edge, *, forward: bool) -> list[_Part]:
    """Return the parts of an edge from one edge on, walked in ring order or against it."""
    parts: list[_Part] = []
    seen: set[tuple[str, str]] = set()
    for _ in range(MOST_PANELS):
        run = _run(piece, edge, forward=forward)
        parts.append((piece, run, forward))
        seen |= {(piece.name, each.start) for each in run}
        corner = run[-1].end if forward else run[-1].start
        beyond = _beyond(pattern, piece, corner, edge.role)
        if beyond is None or (beyond[0].name, beyond[1].start) in seen:
            break
        piece, edge, forward = beyond
    return parts


def _run(piece: Piece, edge: Edge, *, forward: bool) -> list[Edge]:
    """Return the edges of one role that follow on each other from one of them, darts on the way left out."""
    ring = piece.edges if forward else piece.edges[::-1]
    at = next(i for i, e in enumerate(ring) if e is edge)
    found = []
    for each in (*ring[at:], *ring[:at]):
        if each.is_leg:
            continue
        if each.role is not edge.role:
            break
        found.append(each)
    return found


def _beyond(pattern: Readable, piece: Piece, corner: str, role: Role) -> tuple[Piece, Edge, bool] | None:
    """Return where an edge goes on beyond a seam: the piece, its edge there, and whether that is walked in ring order."""
    for seam in _seams_at(pattern, piece, corner, role):
        for number, side in enumerate(seam.sides):
            for at_start in (True, False):
                own, other = (s[0] if at_start else s[-1] for s in (side, seam.sides[1 - number]))
                there = own.start if at_start else own.end
                if piece.aliases.get(there, there) != corner or not piece.holds(there):
                    continue
                name = other.start if at_start else other.end
                partner = pattern.find(name)
                if partner is None:
                    continue
                vertex = partner.aliases.get(name, name)
                for edge in partner.edges:
                    if edge.role is role and vertex in (edge.start, edge.end):
                        return partner, edge, edge.start == vertex
    return None


def _seams_at(pattern: Readable, piece: Piece, corner: str, role: Role) -> list[Seam]:
    """Return the seams that end on an edge of a role at one of its corners: not those that run along it."""
    upright = (e for e in piece.edges if corner in (e.start, e.end) and not e.is_leg and e.role is not role)
    lines = dict.fromkeys(e.lineage for e in upright)
    return [seam for line in lines for seam in pattern.seams_along(line)]


def _joined(back: _Part, ahead: _Part) -> _Part:
    piece, before, _ = back
    return piece, [*before[:0:-1], *ahead[1]], True


def _turned(parts: list[_Part]) -> list[_Part]:
    return [(piece, edges[::-1], not forward) for piece, edges, forward in reversed(parts)]


def _begins_at_front(parts: list[_Part]) -> bool:
    """Return whether an edge begins at a centre, the front one before the back one."""
    return _centre(parts[0], first=True) <= _centre(parts[-1], first=False)


def _centre(part: _Part, *, first: bool) -> int:
    piece, edges, forward = part
    edge = edges[0] if first else edges[-1]
    corner = edge.start if first is forward else edge.end
    meets = {e.role for e in piece.edges if corner in (e.start, e.end)}
    if Role.CENTRE_FRONT in meets:
        return 0
    return 1 if Role.CENTRE_BACK in meets else 2 if set(CENTRES) & meets else 3


def _measured(parts: list[_Part]) -> tuple[RimPart, ...]:
    found: list[RimPart] = []
    gone = 0.0
    for piece, edges, forward in parts:
        found.append(RimPart(piece.name, tuple(edges), forward, gone))
        gone += found[-1].length
    return tuple(found)


def rims(pattern: Readable, role: Role, pieces: tuple[Piece, ...]) -> Iterator[tuple[RimPart, ...]]:
    """Yield each edge of a role that some pieces have a part in, once."""
    seen: set[tuple[str, str]] = set()
    for piece in pieces:
        for edge in piece.edges:
            if edge.role is role and (piece.name, edge.start) not in seen:
                found = rim_of(pattern, piece, role, edge.lineage)
                seen |= {(part.piece, each.start) for part in found for each in part.edges}
                yield found


def under_waist(pieces: Sequence[Piece]) -> dict[str, str]:
    """Return the corners of the pieces above a waist seam, with the corner that lies under each: at centres and sides."""
    upper, lower = (
        [(piece, name) for piece in pieces if (piece.region is Region.UPPER) is above for name in _waist_ends(piece)]
        for above in (True, False)
    )
    return {
        name: other
        for piece, name in upper
        for under, other in lower
        if under.zone is piece.zone and _meets(piece, name) is _meets(under, other) is not None
    }


def line_under(pattern: Readable, corner: str) -> Span | None:
    """Return the line that runs down from a corner of the waist; None where that is a fold, or there is none."""
    piece = pattern.find(corner)
    if piece is None:
        return None
    at = piece.aliases.get(corner, corner)
    upright = (e for e in piece.edges if at in (e.start, e.end) and not e.is_leg and e.role is not Role.WAIST)
    line = next((e.lineage for e in upright), None)
    run = run_of(pattern, piece, line) if line is not None and line != piece.on_fold else None
    if run is None:
        return None
    return run if run.start == at else Span(run.end, run.start, run.along)


def _waist_ends(piece: Piece) -> list[str]:
    """Return the corners of a piece where its waist meets a seam, a fold or a centre."""
    mouths = {name for dart in piece.darts for name in dart.mouth}
    ends = dict.fromkeys(n for e in piece.edges if e.role is Role.WAIST for n in (e.start, e.end))
    return [name for name in ends if name not in mouths]


def _meets(piece: Piece, corner: str) -> Role | None:
    """Return the role of the line that a waist meets at a corner, where it is at the middle or the side of the body."""
    meets = (e.role for e in piece.edges if corner in (e.start, e.end) and e.role is not Role.WAIST)
    return next((role for role in meets if role in (*CENTRES, Role.SIDE)), None)
