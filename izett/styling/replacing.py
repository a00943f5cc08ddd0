"""Lines of a piece replaced by others: the line keeps its name, its ends and all that lies on it.

What lies along a line (corners within it, notches) goes to the same share of the new one; the lines beside it are drawn to
its ends. So a seam, a notch or a step that names the line finds it as before.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

from izett.errors import StepRefused
from izett.geometry.curve import Curve
from izett.geometry.point import Point, distance
from izett.geometry.tolerance import SAME_POINT
from izett.pattern.facts import Role, SeamKind
from izett.pattern.piece import Edge, Notch, Piece, in_ring_order
from izett.pattern.redraw import redrawn
from izett.pattern.sewn import span_length
from izett.pattern.working import Working
from izett.styling.words import line_words

#: What follows a line of a role, in the section for that.
FOLLOWED = {Role.ARMHOLE: SeamKind.CAP, Role.CAP: SeamKind.CAP, Role.WAIST: SeamKind.WAIST}


@dataclass(frozen=True, slots=True)
class Run:
    """Edges of one line that follow each other in ring order, no dart between them."""

    edges: tuple[Edge, ...]

    @property
    def start(self) -> str:
        """The vertex where it starts."""
        return self.edges[0].start

    @property
    def end(self) -> str:
        """The vertex where it ends."""
        return self.edges[-1].end

    @property
    def ends(self) -> tuple[Point, Point]:
        """Where it starts and ends."""
        return (self.edges[0].curve.start, self.edges[-1].curve.end)

    @property
    def length(self) -> float:
        """How long it is, cm."""
        return sum(edge.curve.length for edge in self.edges)


def runs(piece: Piece, lineage: str) -> list[Run]:
    """Return the parts of a line of a piece, in ring order: one, or those that darts leave."""
    edges = in_ring_order(edge for edge in piece.edges if edge.lineage == lineage and not edge.is_leg)
    found: list[list[Edge]] = []
    for edge in edges:
        if found and found[-1][-1].end == edge.start:
            found[-1].append(edge)
        else:
            found.append([edge])
    if len(found) > 1 and found[-1][-1].end == found[0][0].start:
        found[0] = [*found.pop(), *found[0]]
    return [Run(tuple(run)) for run in found]


def whole_run(piece: Piece, lineage: str) -> Run:
    """Return a line of a piece as one run.

    Raises:
        StepRefused: it is not there, or a dart parts it.
    """
    found = runs(piece, lineage)
    if len(found) == 1:
        return found[0]
    raise StepRefused(
        f"{line_words(lineage, begins=True)} is not one line on {piece.title.lower()}: "
        f"{'a dart parts it' if found else 'it is not there'}.",
        fix="Move the dart first, or take another line.",
        where=(lineage,),
    )


def followers(garment: Working, lines: Iterable[Run]) -> tuple[SeamKind, ...]:
    """Return the seams of a garment whose other side follows where lines were replaced: a sleeve its armhole, a skirt its waist."""
    kinds = dict.fromkeys(FOLLOWED[role] for run in lines if (role := run.edges[0].role) in FOLLOWED)
    return tuple(kind for kind in kinds if garment.seams_of(kind))


def with_lines(piece: Piece, lines: Sequence[tuple[Run, Curve]]) -> Piece:
    """Return a piece with curves in the place of its lines.

    Args:
        piece: the piece.
        lines: each run of it with the curve that takes its place, in ring order. Where two meet, the first one's end counts.
    """
    parts = {edge.start: (edge, part) for run, curve in lines for edge, part in _shared_out(run, curve)}
    moves: dict[str, Point] = {}
    for edge, part in parts.values():
        moves.setdefault(edge.start, part.start)
        moves.setdefault(edge.end, part.end)
    drawn = replace(piece, edges=tuple(_with(edge, parts) for edge in piece.edges))
    new = redrawn(drawn, moves=moves)
    exact = replace(new, edges=tuple(_exact(edge, parts) for edge in new.edges))
    return replace(exact, notches=tuple(_carried(piece, exact, {run.edges[0].lineage for run, _ in lines})))


def _shared_out(run: Run, curve: Curve) -> Iterable[tuple[Edge, Curve]]:
    """Yield each edge of a run with its share of a curve."""
    rest, left = curve, run.length
    for edge in run.edges[:-1]:
        part, rest = rest.split(rest.length * edge.curve.length / left)
        left -= edge.curve.length
        yield edge, part
    yield run.edges[-1], rest


def _with(edge: Edge, parts: dict[str, tuple[Edge, Curve]]) -> Edge:
    return replace(edge, curve=parts[edge.start][1]) if not edge.is_leg and edge.start in parts else edge


def _exact(edge: Edge, parts: dict[str, tuple[Edge, Curve]]) -> Edge:
    """Return an edge just as it was given, where its corners are its own: so a band still fits."""
    if edge.is_leg or edge.start not in parts:
        return edge
    curve = parts[edge.start][1]
    own = distance(curve.start, edge.curve.start) + distance(curve.end, edge.curve.end) <= SAME_POINT
    return replace(edge, curve=curve) if own else edge


def _carried(before: Piece, after: Piece, lineages: set[str]) -> Iterable[Notch]:
    """Yield the notches, those on lines that are new at the same share of them."""
    for notch in after.notches:
        if notch.span.along not in lineages:
            yield notch
            continue
        was = span_length(before, notch.span)
        yield replace(notch, distance=notch.distance * span_length(after, notch.span) / was) if was else notch
