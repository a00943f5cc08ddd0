"""A piece drawn in a PDF at true size: cutting line solid, sewing line dashed, fold, darts, marks, grain and label."""

from collections.abc import Sequence
from typing import TYPE_CHECKING

from reportlab.lib import units

from izett.files.lettering import write
from izett.files.stacks import Stack
from izett.finishing.sheet import SheetPiece, label_place, name_place
from izett.geometry.point import Point

if TYPE_CHECKING:
    from reportlab.pdfgen.canvas import Canvas

POINTS_PER_CM: float = units.cm
#: The grey of ink, and of lines across nested sizes; widths of lines in points.
INK, SOFT = 0.12, 0.6
_FOLD, _CUT, _SEW, _THIN = 2.6, 0.9, 0.5, 0.4
#: cm. The ring of a drill hole; from line to line of a label.
DRILL, LINE_STEP = 0.15, 0.5
#: Points. The name of a marked place.
NAME = 6
#: Kinds of line of nested sizes, the smallest first, in points.
KINDS: tuple[tuple[float, ...], ...] = ((), (9, 3), (6, 2, 1, 2), (3, 2), (9, 2, 1, 2, 1, 2), (1, 2), (14, 3, 3, 3),
    (1, 5), (4, 1), (12, 2, 4, 2), (18, 2), (2, 2, 2, 6))  # fmt: skip


def draw_stack(canvas: "Canvas", stack: Stack, shift: Point) -> None:
    """Draw a piece, or its sizes nested, each in its own kind of line, moved by cm."""
    canvas.setStrokeGray(INK)
    canvas.setFillGray(INK)
    for number, sheet in enumerate(stack.sheets):
        if stack.sizes:
            _draw_size(canvas, sheet, shift, number)
        else:
            _draw_piece(canvas, sheet, shift)
    if stack.sizes:
        _draw_key(canvas, stack, shift)


def _draw_size(canvas: "Canvas", sheet: SheetPiece, shift: Point, number: int) -> None:
    """Draw one of several sizes: its lines alone, in its kind of line."""
    kind = KINDS[number % len(KINDS)]
    polyline(canvas, sheet.cutting, shift, width=_CUT, dash=kind, closed=True)
    if sheet.cutting != sheet.sewing:
        polyline(canvas, sheet.sewing, shift, width=_THIN, dash=kind, closed=True)
    canvas.setStrokeGray(SOFT)
    for level in sheet.inner_lines:
        polyline(canvas, level, shift, width=_THIN, dash=kind)
    canvas.setStrokeGray(INK)
    places = (place.points for place in sheet.places)
    for line in (*(dart.legs for dart in sheet.darts if dart.sewn), *sheet.diamonds, *places):
        polyline(canvas, line, shift, width=_THIN, dash=kind)
    for hole in sheet.drills:
        _drill(canvas, hole, shift)
    for mark in sheet.notches:
        polyline(canvas, mark, shift, width=_CUT)


def _draw_key(canvas: "Canvas", stack: Stack, shift: Point) -> None:
    """Draw the grain and the words of nested sizes, with the kind of line of each; places are named beside the last."""
    first = stack.sheets[0]
    _grain(canvas, first, shift)
    _names(canvas, stack.sheets[-1], shift)
    x, y = label_place(first)
    _label(canvas, first.label, (x + shift[0], y + shift[1]))
    beneath = y + shift[1] - LINE_STEP * len(first.label)
    for number, size in enumerate(stack.sizes):
        low = beneath - LINE_STEP * number
        dash = KINDS[number % len(KINDS)]
        polyline(canvas, ((x, low + 0.1), (x + 2, low + 0.1)), (shift[0], 0.0), width=_CUT, dash=dash)
        write(canvas, ((x + shift[0] + 2.3) * POINTS_PER_CM, low * POINTS_PER_CM), size, size=10)
    if first.cutting != first.sewing:
        low = beneath - LINE_STEP * len(stack.sizes)
        write(canvas, ((x + shift[0]) * POINTS_PER_CM, low * POINTS_PER_CM), "thick: cut; thin: sew", size=10)


def _draw_piece(canvas: "Canvas", sheet: SheetPiece, shift: Point) -> None:
    if sheet.cutting != sheet.sewing:
        polyline(canvas, sheet.sewing, shift, width=_SEW, dash=(4, 3), closed=True)
    polyline(canvas, sheet.cutting, shift, width=_CUT, closed=True)
    if sheet.fold is not None:
        # Over the cutting line, which paper is cut along: heavier, to be seen on it.
        polyline(canvas, sheet.fold, shift, width=_FOLD, dash=(14, 6, 3, 6))
    for dart in (dart for dart in sheet.darts if dart.sewn):
        polyline(canvas, dart.legs, shift, width=_SEW)
        polyline(canvas, dart.fold, shift, width=_THIN, dash=(1, 3))
    for diamond in sheet.diamonds:
        polyline(canvas, diamond, shift, width=_SEW)
    for level in sheet.inner_lines:
        polyline(canvas, level, shift, width=_THIN, dash=(6, 4))
    for place in sheet.places:
        polyline(canvas, place.points, shift, width=_SEW)
    _names(canvas, sheet, shift)
    for mark in sheet.notches:
        polyline(canvas, mark, shift, width=_CUT)
    _grain(canvas, sheet, shift)
    for hole in sheet.drills:
        _drill(canvas, hole, shift)
    x, y = label_place(sheet)
    _label(canvas, sheet.label, (x + shift[0], y + shift[1]))


def _grain(canvas: "Canvas", sheet: SheetPiece, shift: Point) -> None:
    """Draw the grain's arrow, and the bracket of a fold."""
    for line in (sheet.grain, *sheet.signs):
        polyline(canvas, line, shift, width=_THIN)


def _names(canvas: "Canvas", sheet: SheetPiece, shift: Point) -> None:
    """Write beside each marked place what it is."""
    for place in sheet.places:
        x, y = (at + by for at, by in zip(name_place(place), shift, strict=True))
        write(canvas, (x * POINTS_PER_CM, y * POINTS_PER_CM), place.level, size=NAME)


def _drill(canvas: "Canvas", hole: Point, shift: Point) -> None:
    """Draw where a dart is drilled: a small ring with a dot."""
    x, y = ((at + by) * POINTS_PER_CM for at, by in zip(hole, shift, strict=True))
    canvas.setLineWidth(_THIN)
    canvas.circle(x, y, DRILL * POINTS_PER_CM)
    canvas.circle(x, y, 0.4, stroke=0, fill=1)


def _label(canvas: "Canvas", label: Sequence[str], at: Point) -> None:
    for number, text in enumerate(label):
        place = (at[0] * POINTS_PER_CM, (at[1] - LINE_STEP * number) * POINTS_PER_CM)
        write(canvas, place, text, size=10, bold=number == 0)


def polyline(
    canvas: "Canvas",
    points: Sequence[Point],
    shift: Point,
    *,
    width: float,
    dash: tuple[float, ...] = (),
    closed: bool = False,
) -> None:
    """Draw a polyline, in cm, moved; its width in points."""
    canvas.setLineWidth(width)
    canvas.setDash(*((list(dash), 0) if dash else ([], 0)))
    path = canvas.beginPath()
    for number, (x, y) in enumerate(points):
        place = ((x + shift[0]) * POINTS_PER_CM, (y + shift[1]) * POINTS_PER_CM)
        if number == 0:
            path.moveTo(*place)
        else:
            path.lineTo(*place)
    if closed:
        path.close()
    canvas.drawPath(path)
    canvas.setDash([], 0)
