"""Add or take at the side seam, with amounts at named levels, blended between them.

Front and back change alike, so the seam stays equal. The amount is per edge; four edges are cut, so the garment
changes by four times as much around: both are said. Common practice, no single source.
"""

from collections.abc import Iterator
from dataclasses import replace

from izett.errors import StepRefused
from izett.geometry.point import Point, Vector, add, distance, right_of, scale, subtract, unit
from izett.pattern.document import LevelLine, Piece, Span
from izett.pattern.redraw import redrawn
from izett.pattern.sewn import Stretch, span_length, walk
from izett.styling.operation import Context, Operation, Outcome, Params, length
from izett.styling.words import signed

#: Edges that a change at the side seam is cut on: left and right, front and back.
EDGES = 4
#: cm. A level line ends on the seam if it ends within this of it.
ON_SEAM = 1e-3

PARTS = ("front", "back")


class ChangeSide(Params):
    """Amounts at each edge; positive adds width, negative takes in."""

    underarm: float = length(0.0, low=-4, high=6, meaning="at the underarm, each edge")
    waist: float = length(0.0, low=-4, high=6, meaning="at the waist, each edge")


def apply(params: ChangeSide, context: Context) -> Outcome:
    """Move the side seams out or in, the amounts blended from waist to underarm."""
    pieces: list[Piece] = []
    bust = 0.0
    for part in PARTS:
        span = Span(f"{part}.waist_side", f"{part}.underarm", f"{part}.side")
        context.span_length(span)
        piece = context.piece_with(span.start)
        before = piece.level("bust")
        changed = _moved(piece, span, params)
        bust += changed.level("bust") - before
        pieces.append(changed)
        waist = Span(f"{part}.{'waist_cf' if part == 'front' else 'waist_cb'}", f"{part}.waist_side", f"{part}.waist")
        if span_length(changed, waist) < span_length(piece, waist) / 2:
            raise StepRefused(
                f"Taking {-params.waist:g} cm at each side edge leaves less than half of the {part} waist.",
                mend="Take less at the side and more in the darts.",
                where=(f"{part}.waist",),
            )
    pattern = context.pattern.with_pieces(*pieces)
    around = {"bust": 2 * bust, "waist": EDGES * params.waist}
    return Outcome(
        replace(pattern, intent=pattern.intent.with_ease(around)),
        (
            ("at the underarm, each edge", params.underarm),
            ("at the waist, each edge", params.waist),
            ("edges cut", float(EDGES)),
            ("around at the bust", around["bust"]),
            ("around at the waist", around["waist"]),
        ),
    )


def _moved(piece: Piece, span: Span, params: ChangeSide) -> Piece:
    stretches = walk(piece, span)
    whole = sum(stretch.edge.curve.length for stretch in stretches)
    moves: dict[str, Point] = {}
    lines = list(piece.lines)
    gone = 0.0
    for stretch, start, end in _with_shares(stretches, whole):
        outwards = _outwards(stretch)
        edge = stretch.edge
        names = (edge.start, edge.end) if stretch.forward else (edge.end, edge.start)
        curve = stretch.open_curve
        for name, place, part in ((names[0], curve.start, start), (names[1], curve.end, end)):
            moves[name] = add(place, scale(outwards, _amount(params, part)))
        for i, line in enumerate(lines):
            lines[i] = _end_moved(line, curve.start, curve.end, outwards, (start, end), params)
        gone = end
    if abs(gone - 1) > 1e-9:
        raise ValueError("the walk along a seam ends at its end")
    return redrawn(piece, moves=moves, lines=lines)


def _with_shares(stretches: tuple[Stretch, ...], whole: float) -> Iterator[tuple[Stretch, float, float]]:
    gone = 0.0
    for stretch in stretches:
        length_here = stretch.edge.curve.length
        yield stretch, gone / whole, (gone + length_here) / whole
        gone += length_here


def _outwards(stretch: Stretch) -> Vector:
    # Walked from the waist up with the piece to its left, the outside lies to the right.
    direction = unit(subtract(stretch.open_curve.end, stretch.open_curve.start))
    outside = right_of(direction)
    return outside if stretch.forward else (-outside[0], -outside[1])


def _amount(params: ChangeSide, part: float) -> float:
    return params.waist + (params.underarm - params.waist) * part


def _end_moved(
    line: LevelLine, a: Point, b: Point, outwards: Vector, shares: tuple[float, float], params: ChangeSide
) -> LevelLine:
    end = line.points[-1]
    chord = distance(a, b)
    if abs(distance(a, end) + distance(end, b) - chord) > ON_SEAM:
        return line
    part = shares[0] + (shares[1] - shares[0]) * distance(a, end) / chord
    # The line is prolonged in its own direction until it meets the seam's new place.
    towards = unit(subtract(end, line.points[-2]))
    slant = towards[0] * outwards[0] + towards[1] * outwards[1]
    new = add(end, scale(towards, _amount(params, part) / slant))
    return replace(line, points=(*line.points[:-1], new))


def describe(params: ChangeSide) -> str:
    """Return the step in the maker's words."""
    parts = [
        f"{signed(cm, 'add', 'take')} at the {level}"
        for level, cm in (("underarm", params.underarm), ("waist", params.waist))
        if cm
    ]
    return f"Side seams, each edge: {', '.join(parts) or 'no change'}"


OPERATION = Operation(
    key="change_side",
    title="Add or take at the side seams",
    params=ChangeSide,
    apply=apply,
    describe=describe,
    examples=({"underarm": 0.6, "waist": 0.3}, {"underarm": -0.5, "waist": -0.4}, {"waist": 1.0}),
)
