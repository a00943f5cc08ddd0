"""Combine: take lines of another pattern that is laid over this piece, and keep the rest.

The two are laid together at a named point; line by line it is chosen which one counts (keep the neckline so that its band
still fits; take armhole, shoulder and side from the other). The corners of what is taken count, what is kept is drawn to
them. Both originals stay as they are. Common practice, no single source.
"""

from collections.abc import Mapping
from dataclasses import replace
from itertools import pairwise
from typing import Self

from pydantic import Field, model_validator

from izett.errors import StepRefused
from izett.geometry.curve import Curve
from izett.geometry.point import Point, distance, subtract
from izett.geometry.tolerance import SAME_POINT
from izett.pattern.naming import readable
from izett.pattern.piece import Edge, Piece
from izett.pattern.redraw import redrawn
from izett.styling.operation import Context, Group, Operation, Outcome, Sum, as_ease, length
from izett.styling.references import LineRef, Params, PieceRef, VertexRef
from izett.styling.words import line_words
from izett.wording import cm

#: cm. Parts of a given line that lie further apart are not one line.
GAP = 0.05


class GivenLine(Params):
    """A line of the other pattern, in its own frame."""

    along: LineRef = Field(description="the line of this piece that it takes the place of")
    points: tuple[Point, ...] = Field(min_length=2, max_length=400, description="its control points, in ring order")

    @model_validator(mode="after")
    def _whole(self) -> Self:
        if len(self.points) != 2 and len(self.points) % 3 != 1:
            raise ValueError("a line has 2 or 3n + 1 control points")
        return self


class CombineLines(Params):
    """Which piece, where the other is laid, and which of its lines count."""

    piece: PieceRef = Field(description="the piece that is redrawn")
    at: VertexRef = Field(description="the corner of the piece at which the two are laid together")
    given_at: Point = Field(description="the same point of the other pattern")
    lines: tuple[GivenLine, ...] = Field(min_length=1, max_length=12, description="the lines that are taken")
    source: str = Field("another pattern", max_length=120, description="what they are taken from")
    most_moved: float = length(15.0, low=0.1, high=60, meaning="refuse where a corner would move further")


def apply(params: CombineLines, context: Context) -> Outcome:
    """Put the given lines in place and draw the others to their corners."""
    piece = context.piece(params.piece)
    if not piece.holds(params.at):
        raise StepRefused(
            f"{piece.title} has no point {readable(params.at)}.",
            fix="Choose one of its corners.",
            where=(params.piece, params.at),
        )
    shift = subtract(piece.vertex(params.at), params.given_at)
    moves: dict[str, Point] = {}
    curves: dict[str, Curve] = {}
    for line in params.lines:
        edges = _run(piece, line.along)
        curve = Curve(tuple((p[0] + shift[0], p[1] + shift[1]) for p in line.points))
        if distance(curve.start, edges[0].curve.start) > distance(curve.end, edges[0].curve.start):
            curve = curve.reversed()
        piece = _as_one(piece, edges, curve)
        moves[edges[0].start], moves[edges[-1].end] = curve.start, curve.end
        curves[edges[0].start] = curve
    before = context.piece(params.piece)
    furthest = max(distance(before.vertex(name), spot) for name, spot in moves.items())
    if furthest > params.most_moved:
        raise StepRefused(
            f"Laid at {readable(params.at)}, a corner would move by {cm(furthest)}.",
            fix="Lay the two together at another point, or allow more.",
            where=(params.piece,),
        )
    # Where two taken lines meet, the first one's corner counts; what is kept is drawn to the corners.
    new = _as_given(redrawn(piece, moves=moves, curves=curves), curves)
    pattern = context.garment.with_pieces(new)
    told = [Sum("lines taken", float(len(params.lines)), ""), Sum("corner moved furthest by", furthest)]
    return Outcome(pattern, tuple(told))


def _as_given(piece: Piece, curves: Mapping[str, Curve]) -> Piece:
    """Return the piece with each taken line just as it was given, where its corners are its own: so a band still fits."""

    def exact(edge: Edge) -> Edge:
        curve = curves.get(edge.start)
        if curve is None or edge.is_leg:
            return edge
        own = distance(curve.start, edge.curve.start) + distance(curve.end, edge.curve.end) <= SAME_POINT
        return replace(edge, curve=curve) if own else edge

    return replace(piece, edges=tuple(exact(edge) for edge in piece.edges))


def _run(piece: Piece, lineage: str) -> list[Edge]:
    edges = [edge for edge in piece.edges if edge.lineage == lineage]
    start = next((i for i, e in enumerate(edges) if not any(o.end == e.start for o in edges)), 0)
    edges = [*edges[start:], *edges[:start]]
    if not edges or any(a.end != b.start for a, b in pairwise(edges)):
        raise StepRefused(
            f"{line_words(lineage, begins=True)} is not one line on {piece.title.lower()}: a dart parts it, or it is not there.",
            fix="Move the dart first, or take another line.",
            where=(lineage,),
        )
    return edges


def _as_one(piece: Piece, edges: list[Edge], curve: Curve) -> Piece:
    """Return the piece with a run of edges as one, so that a curve can take its place."""
    one = replace(edges[0], end=edges[-1].end, curve=curve)
    ring = [one if e is edges[0] else e for e in piece.edges if e is edges[0] or e not in edges]
    return replace(piece, edges=tuple(ring))


def describe(params: CombineLines) -> str:
    """Return the step in the maker's words."""
    lines = ", ".join(line_words(line.along) for line in params.lines)
    return f"Take {lines} from {params.source}"


OPERATION = Operation(
    key="combine_lines",
    title="Take lines of another pattern",
    params=CombineLines,
    apply=apply,
    describe=describe,
    width=as_ease,
    group=Group.LINES,
    examples=(
        {
            "piece": "bodice_front",
            "at": "front.neck_cf",
            "given_at": (0.0, 30.0),
            "lines": ({"along": "front.neck", "points": ((7.5, 38.0), (6.8, 33.5), (4.0, 30.0), (0.0, 30.0))},),
        },
    ),
)
