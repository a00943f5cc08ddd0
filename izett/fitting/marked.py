"""Lines that were draped anew: marks as they were measured on the muslin, from its guide lines, and the step that draws them.

A mark is measured across from an upright guide towards the side and up from a level guide: the centre and a body level where
the piece has them, else its grain and the line's own lower end. The marks were taken on the piece as it was cut. So the step
keeps them beside the ends that the line had there, and finds its place on any pattern that has the line.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from pydantic import Field

from izett.draping.panel import Distance, Said, Way
from izett.errors import ReferenceLost, StepRefused
from izett.geometry.outline import gap
from izett.geometry.point import Point, distance
from izett.pattern.document import Pattern
from izett.pattern.facts import CENTRE_LINES
from izett.pattern.levels import CENTRE
from izett.pattern.naming import readable
from izett.pattern.piece import Piece
from izett.styling.operations.redraw_edge import MOST_NEW_MARKS, MarkedAs
from izett.styling.replacing import Run, runs
from izett.styling.words import line_words

#: Levels from which marks are measured: the first that a piece has.
LEVELS = ("bust", "hip", "bicep", "waist", "knee")
#: cm. A line that lies so near to where it was drafted is the drafted one.
SAME_LINE = 0.05


class LaidMark(Said):
    """A mark of a line that was draped anew: what it is, how far across from the upright guide and along from the level one, cm."""

    kind: MarkedAs = MarkedAs.DOT
    across: Distance
    along: Distance


class Marked(Said):
    """The marks of a line, in the order of walking along it, and how the line is drawn through them."""

    marks: tuple[LaidMark, ...] = Field(min_length=1, max_length=MOST_NEW_MARKS)
    way: Way = Way.DOTS


@dataclass(frozen=True, slots=True)
class Guides:
    """The guide lines of a piece from which a line's marks are measured.

    Attributes:
        upright, level: where they lie in the piece's frame, cm.
        across_from, along_from: what they are, in words.
    """

    upright: float
    level: float
    across_from: str
    along_from: str

    def spot(self, across: float, along: float) -> Point:
        """Return where a mark lies in the piece's frame."""
        return (self.upright + across, self.level + along)

    def measured(self, spot: Point) -> tuple[float, float]:
        """Return how far across and along a spot of the piece lies."""
        return (spot[0] - self.upright, spot[1] - self.level)


def guides_of(piece: Piece, line: str) -> Guides:
    """Return the guides from which the marks of a line of a piece are measured.

    Raises:
        ReferenceLost: the piece does not have that line.
    """
    found = parts_of(piece, line)
    level = next((one for name in LEVELS for one in piece.lines if one.level == name), None)
    ends = [end for run in found for end in run.ends]
    height = level.points[0][1] if level is not None else min(y for _, y in ends)
    along_from = f"the {level.level} line" if level is not None else f"the lower end of {line_words(line)}"
    upright, across_from = _upright(piece, height)
    return Guides(upright, height, across_from, along_from)


def _upright(piece: Piece, height: float) -> tuple[float, str]:
    centre = next((one for one in piece.lines if one.level == CENTRE), None)
    if centre is not None:
        return centre.points[0][0], "the centre line"
    spots = [p for e in piece.edges if e.role in CENTRE_LINES for p in e.curve.flattened(flatness=0.1)]
    if spots:
        return min(spots, key=lambda spot: abs(spot[1] - height))[0], "the centre line"
    (ax, ay), (bx, by) = piece.grain
    share = (height - ay) / (by - ay) if by != ay else 0.0
    return ax + (bx - ax) * min(max(share, 0.0), 1.0), "the grain line"


def parts_of(piece: Piece, line: str) -> list[Run]:
    """Return the parts of a line of a piece that darts leave.

    Raises:
        ReferenceLost: the piece does not have that line.
    """
    found = runs(piece, line)
    if not found:
        raise ReferenceLost(
            f"{piece.title} has no such line.", fix="Point at the line on the table.", where=(piece.name, line)
        )
    return found


def marked_piece(pattern: Pattern, name: str) -> Piece:
    """Return the piece on which a line was marked.

    Raises:
        ReferenceLost: it is gone.
    """
    piece = pattern.find_piece(name)
    if piece is None:
        raise ReferenceLost(
            f"The piece {readable(name)} is gone.", fix="Point at the line on the table.", where=(name,)
        )
    return piece


def drawn_anew(marked: Marked, piece: Piece, line: str, source: Pattern | None) -> dict[str, Any]:
    """Return the parameters of the step that draws a line along its marks.

    Args:
        marked: its marks, as measured on the finished piece.
        piece, line: where they were taken: a finished piece, and a line of it.
        source: the source pieces where the line is drawn there, under the style; None where it is drawn on the finished ones.

    Raises:
        ReferenceLost: it does not have that line.
        StepRefused: the style draws that line, so it is not on the source pieces as it was marked.
    """
    guides = guides_of(piece, line)
    spots = [guides.spot(mark.across, mark.along) for mark in marked.marks]
    run = min(parts_of(piece, line), key=lambda part: _off(part, spots))
    on = piece if source is None else _under(source, line, run)
    return {
        "piece": on.name,
        "line": line,
        "marks": tuple({"kind": mark.kind.value, "at": spot} for mark, spot in zip(marked.marks, spots, strict=True)),
        "was": run.ends,
        "way": marked.way.value,
    }


def _off(part: Run, spots: Sequence[Point]) -> float:
    line = [point for edge in part.edges for point in edge.curve.flattened()]
    return sum(gap(line, spot) for spot in spots)


def _under(source: Pattern, line: str, run: Run) -> Piece:
    """Return the source piece on which a line of a finished piece lies as it is there."""
    for piece in source.with_lineage(line):
        parts = runs(piece, line)
        if any(_is_same(part, run) for part in parts):
            return piece
    raise StepRefused(
        f"The style draws {line_words(line)}: on the source pieces it is another line.",
        fix="Draw it on the finished pattern.",
        where=(line,),
    )


def _is_same(one: Run, other: Run) -> bool:
    """Return whether two runs are the same line, wherever they lie."""
    apart = (distance(*one.ends) - distance(*other.ends), one.length - other.length)
    return max(map(abs, apart)) <= SAME_LINE


def marks_told(marked: Marked, line: str) -> str:
    """Return in words how many marks of which line were taken."""
    dots = sum(mark.kind is MarkedAs.DOT for mark in marked.marks)
    crosses = len(marked.marks) - dots
    counted = [
        f"{n} {word}{'' if n == 1 else 'es' if word == 'cross' else 's'}"
        for n, word in ((dots, "dot"), (crosses, "cross"))
        if n
    ]
    return f"{line_words(line, begins=True)}: {' and '.join(counted)}"
