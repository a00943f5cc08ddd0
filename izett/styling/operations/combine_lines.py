"""Combine: take lines of another pattern that is laid over this piece, and keep the rest.

The two are laid together at a named point; line by line it is chosen which one counts (keep the neckline so that its band
still fits; take armhole, shoulder and side from the other). The corners of what is taken count, what is kept is drawn to
them. Both originals stay as they are. Common practice, no single source.
"""

from typing import Self

from pydantic import Field, model_validator

from izett.errors import StepRefused
from izett.geometry.curve import Curve
from izett.geometry.point import Point, add, distance, subtract
from izett.pattern.naming import readable
from izett.styling.operation import Context, Group, Operation, Outcome, Sum, as_ease, length
from izett.styling.references import LineRef, Params, PieceRef, VertexRef
from izett.styling.replacing import Run, followers, whole_run, with_lines
from izett.styling.words import line_words
from izett.wording import cm


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
    follows: bool = Field(
        True, description="whether the sleeve follows an armhole that is taken, and the skirt a waist"
    )
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
    taken: list[tuple[Run, Curve]] = []
    for line in params.lines:
        run = whole_run(piece, line.along)
        curve = Curve(tuple(add(point, shift) for point in line.points))
        if distance(curve.start, run.ends[0]) > distance(curve.end, run.ends[0]):
            curve = curve.reversed()
        taken.append((run, curve))
    furthest = max(
        distance(was, now) for run, curve in taken for was, now in zip(run.ends, (curve.start, curve.end), strict=True)
    )
    if furthest > params.most_moved:
        raise StepRefused(
            f"Laid at {readable(params.at)}, a corner would move by {cm(furthest)}.",
            fix="Lay the two together at another point, or allow more.",
            where=(params.piece,),
        )
    new = with_lines(piece, taken)
    pattern = context.garment.with_pieces(new)
    told = [Sum("lines taken", float(len(params.lines)), ""), Sum("corner moved furthest by", furthest)]
    asks = followers(context.garment, [run for run, _ in taken]) if params.follows else ()
    return Outcome(pattern, tuple(told), asks=asks)


def describe(params: CombineLines) -> str:
    """Return the step in the maker's words."""
    lines = ", ".join(line_words(line.along) for line in params.lines)
    return f"Take {lines} from {params.source}"


OPERATION = Operation(
    key="combine_lines",
    version=2,
    # Before, what is sewn to a line that was taken was left as it was.
    upgrades={1: lambda params: {**params, "follows": False}},
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
