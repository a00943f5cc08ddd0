"""Draw a line anew along marks that were taken from cloth: a later draping session, laid on the pattern that there is.

The marks are kept beside the two ends that the line had when they were taken. Where measures or another step have moved those
ends since, the marks go with them, so the new line keeps its place to the old one; where the line has become another, the
step refuses. A cross is where an end lies now; without one the end stays. Common practice, no single source.
"""

from collections.abc import Sequence
from enum import StrEnum
from itertools import pairwise
from typing import NamedTuple

from pydantic import Field

from izett.draping.drawing import SQUARE_ROLES, TOLD, farthest_off, line_along
from izett.draping.panel import Way
from izett.errors import StepRefused
from izett.geometry.blend import refitted
from izett.geometry.curve import Curve, joined
from izett.geometry.outline import gap
from izett.geometry.point import Point, Vector, distance, left_of, negated
from izett.pattern.facts import CENTRE_LINES, SeamKind
from izett.pattern.piece import Piece
from izett.styling.operation import SHAPES, Context, Group, Operation, Outcome, Sum, as_ease
from izett.styling.references import LineRef, Params, PieceRef
from izett.styling.replacing import Run, followers, runs, with_lines
from izett.styling.words import line_words
from izett.wording import cm

#: Shares. A line whose ends lie so much nearer to each other, or further apart, than when it was marked is another line.
NEARER, FURTHER = 0.7, 1.4
#: cm. Ends so near to each other tell no direction.
LEAST_APART = 0.5
#: A line has no more marks.
MOST_NEW_MARKS = 200


class MarkedAs(StrEnum):
    """What a mark is: a cross where an end of the line lies now, or a dot along it."""

    CROSS = "cross"
    DOT = "dot"


class NewMark(Params):
    """A mark of the new line."""

    kind: MarkedAs = Field(MarkedAs.DOT, description="a cross at an end that has moved, or a dot along the line")
    at: Point = Field(description="where it lies, in the frame of the old ends, cm")


class RedrawEdge(Params):
    """Which line, its new marks, and where its ends lay when they were taken."""

    piece: PieceRef = Field(description="the piece")
    line: LineRef = Field(description="the line that is drawn anew")
    marks: tuple[NewMark, ...] = Field(
        min_length=1, max_length=MOST_NEW_MARKS, description="its marks, in the order of walking along it"
    )
    was: tuple[Point, ...] = Field(
        min_length=2, max_length=2, description="where its ends lay when it was marked, in ring order, cm"
    )
    way: Way = Field(Way.DOTS, description="how it is drawn through its marks")


def apply(params: RedrawEdge, context: Context) -> Outcome:
    """Draw the line, and the lines beside it to its ends."""
    piece = context.piece(params.piece)
    run = _marked(piece, params)
    (start, end), numbers, dots = _placed(params, piece, run)
    before = joined([cubic for edge in run.edges for cubic in edge.curve.cubics()])
    curve = _drawn(params, piece, run, start, dots, end) if dots else refitted(before, start=start, end=end)
    _refuse_far(numbers, dots, curve, params)
    new = with_lines(piece, [(run, curve)])
    old = before.flattened()
    told = [
        Sum("moved at most", max(gap(old, spot) for spot in curve.flattened())),
        Sum("longer than it was", curve.length - run.length),
        Sum("dots off the line at most", farthest_off(curve, dots)),
    ]
    return Outcome(context.garment.with_pieces(new), tuple(told), asks=followers(context.garment, [run]))


def _marked(piece: Piece, params: RedrawEdge) -> Run:
    """Return the part of the line that was marked: of those that darts leave, the one whose ends lie nearest to the old ones."""
    found = runs(piece, params.line)
    if not found:
        raise StepRefused(
            f"{line_words(params.line, begins=True)} is not on {piece.title.lower()} any more.",
            fix="Mark the line that is there now.",
            where=(params.line,),
        )
    return min(found, key=lambda run: sum(distance(a, b) for a, b in zip(run.ends, params.was, strict=True)))


class _Placed(NamedTuple):
    """Where the new line starts and ends, and its dots between them with the marks' numbers as they were typed, in ring order."""

    ends: tuple[Point, Point]
    numbers: tuple[int, ...]
    dots: tuple[Point, ...]


def _placed(params: RedrawEdge, piece: Piece, run: Run) -> _Placed:
    """Return the marks at the ends that the line has now."""
    was, now = (complex(b[0] - a[0], b[1] - a[1]) for a, b in (params.was, run.ends))
    if min(abs(was), abs(now)) < LEAST_APART:
        raise StepRefused(
            f"The ends of {line_words(params.line)} lie too near to each other to say which way it runs.",
            fix="Mark a part of it, from a corner to a corner.",
            where=(params.line,),
        )
    if not NEARER <= abs(now) / abs(was) <= FURTHER:
        raise StepRefused(
            f"The ends of {line_words(params.line)} lay {cm(abs(was))} apart when it was marked; now it is {cm(abs(now))}.",
            fix="It is another line now: drape it again.",
            where=(params.line,),
        )
    turn, first, to = now / was, complex(*params.was[0]), complex(*run.ends[0])

    def here(mark: NewMark) -> Point:
        spot = to + (complex(*mark.at) - first) * turn
        return (spot.real, spot.imag)

    marks = [(number, mark.kind, here(mark)) for number, mark in enumerate(params.marks, 1)]
    (*_, first_spot), (*_, last_spot) = marks[0], marks[-1]
    if distance(first_spot, run.ends[0]) + distance(last_spot, run.ends[1]) > distance(
        first_spot, run.ends[1]
    ) + distance(last_spot, run.ends[0]):
        marks.reverse()
    ends = _ends([spot for _, kind, spot in marks if kind is MarkedAs.CROSS], piece, run, params)
    dots = [(number, spot) for number, kind, spot in marks if kind is MarkedAs.DOT]
    return _Placed(ends, tuple(number for number, _ in dots), tuple(spot for _, spot in dots))


def _ends(crosses: Sequence[Point], piece: Piece, run: Run, params: RedrawEdge) -> tuple[Point, Point]:
    if len(crosses) > 2:
        raise StepRefused(
            f"{len(crosses)} crosses were marked on {line_words(params.line)}: a line has two ends.",
            fix="Mark what lies between them as dots.",
            where=(params.line,),
        )
    start, end = run.ends
    if len(crosses) == 2:
        start, end = crosses
    elif crosses:
        start, end = (
            (crosses[0], end) if distance(crosses[0], start) <= distance(crosses[0], end) else (start, crosses[0])
        )
    if distance(start, end) < LEAST_APART:
        raise StepRefused(
            f"Both ends of {line_words(params.line)} would lie at one place.",
            fix="Measure the crosses again.",
            where=(params.line,),
        )
    mouths = {name for dart in piece.darts for name in dart.mouth}
    for name, was, now in ((run.start, run.ends[0], start), (run.end, run.ends[1], end)):
        if name in mouths and now != was:
            raise StepRefused(
                f"An end of this part of {line_words(params.line)} is a dart's leg: moved by itself, the dart's legs would differ.",
                fix="Leave the cross at the dart out, or change the dart first.",
                where=(params.line,),
            )
    return start, end


def _drawn(params: RedrawEdge, piece: Piece, run: Run, start: Point, dots: tuple[Point, ...], end: Point) -> Curve:
    """Return the line along its dots, square to the centre where it meets it and its dots let it be."""
    leaving, arriving = _square(piece, run, at_start=True), _square(piece, run, at_start=False)
    if (leaving or arriving) and params.way in (Way.DOTS, Way.CURVED):
        square = line_along(start, dots, end, way=params.way, leaving=leaving, arriving=arriving)
        if farthest_off(square, dots) <= TOLD:
            return square
    return line_along(start, dots, end, way=params.way)


def _square(piece: Piece, run: Run, *, at_start: bool) -> Vector | None:
    edge = run.edges[0 if at_start else -1]
    i = piece.edges.index(edge)
    beside = piece.edges[i - 1 if at_start else (i + 1) % len(piece.edges)]
    if edge.role not in SQUARE_ROLES or beside.role not in CENTRE_LINES:
        return None
    square = left_of(beside.curve.end_direction if at_start else beside.curve.start_direction)
    return square if at_start else negated(square)


def _refuse_far(numbers: Sequence[int], dots: Sequence[Point], curve: Curve, params: RedrawEdge) -> None:
    """Let pass marks that a line can be drawn along: a dot that lies off it is never smoothed over."""
    marks = list(zip(numbers, dots, strict=True))
    twice = next((sorted((n, m)) for (n, a), (m, b) in pairwise(marks) if a == b), None)
    if twice is not None:
        raise StepRefused(
            f"Marks {twice[0]} and {twice[1]} lie at one place.", fix="Remove one of them.", where=(params.line,)
        )
    line = curve.flattened()
    number, off = max(((n, gap(line, dot)) for n, dot in marks), key=lambda one: one[1], default=(0, 0.0))
    if off > TOLD:
        raise StepRefused(
            f"Mark {number} lies {cm(off, 2)} off the line that is drawn along the others.",
            fix="Measure it again; or let the line go through all of its dots.",
            where=(params.line,),
        )


def describe(params: RedrawEdge) -> str:
    """Return the step in the maker's words."""
    count = len(params.marks)
    return f"Draw {line_words(params.line)} along {count} new mark{'s' if count > 1 else ''}"


OPERATION = Operation(
    key="redraw_edge",
    title="Draw a line along new marks",
    params=RedrawEdge,
    apply=apply,
    describe=describe,
    width=as_ease,
    sections=SHAPES,
    moves=(SeamKind.CAP, SeamKind.WAIST),
    group=Group.LINES,
    examples=(
        {
            "piece": "bodice_front",
            "line": "front.armhole",
            "was": ((24.1, 24.7), (18.6, 41.0)),
            "marks": tuple({"at": at} for at in ((21.1, 24.6), (18.6, 25.8), (17.0, 28.5), (16.5, 31.6), (17.2, 37.9))),
        },
        {
            "piece": "bodice_back",
            "line": "back.neck",
            "was": ((7.2, 43.9), (0.0, 41.5)),
            "marks": ({"at": (6.4, 42.3)}, {"at": (3.6, 41.0)}, {"kind": "cross", "at": (0.0, 40.5)}),
        },
    ),
)
