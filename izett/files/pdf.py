"""Patterns on paper at true size: tiled PDF for A4 or Letter, with a page map and test squares.

Sheets overlap by 10 mm; each join carries a pair of half diamonds with a number of its own, so that sheets can be
joined in one way only. The first page has a 10 cm and a 4 in square to measure before anything is cut.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from io import BytesIO
from math import ceil
from typing import TYPE_CHECKING

from reportlab.lib import units
from reportlab.lib.pagesizes import A0, A4, LETTER

from izett.errors import UnknownName
from izett.files.lettering import PLAIN, write
from izett.files.piece_pdf import INK, draw_stack, polyline
from izett.files.stacks import Placed, Stack, in_a_row, in_rows
from izett.finishing.sheet import SheetPiece
from izett.geometry.point import Point

if TYPE_CHECKING:
    from reportlab.pdfgen.canvas import Canvas

POINTS_PER_CM: float = units.cm
POINTS_PER_INCH: float = units.inch

#: What sheets are printed on at home.
PAPERS: dict[str, tuple[float, float]] = {"a4": A4, "letter": LETTER}
#: What patterns are printed on: also large sheets, and a roll, as long as it takes.
LARGE: dict[str, tuple[float, float]] = {**PAPERS, "a0": A0}
ROLL = "roll"
#: cm. A roll's usual width: 36 in.
ROLL_WIDTH = 91.4

#: cm. Unprinted rim: home printers reach no further.
RIM = 1.0
#: cm. How much neighbouring sheets share.
OVERLAP = 1.0
#: cm. Space between pieces.
GAP = 2.0
#: cm. Half diamonds at the joins.
DIAMOND = 0.4
#: Rows are lettered.
LETTERS = 26
#: cm. What the squares and the words take of a roll.
HEAD_HEIGHT = 12.0
TRUE_SIZE = "Print at 100 % (no “fit to page”). Measure both squares before cutting: 10 cm, and 4 in."


@dataclass(frozen=True, slots=True)
class Tiling:
    """How a large sheet is cut into pages: columns and rows, and the printed size of a page in cm."""

    columns: int
    rows: int
    width: float
    height: float
    used: frozenset[tuple[int, int]]

    def corner(self, column: int, row: int) -> Point:
        """Return the lower left corner of a page on the large sheet, rows counted from the top."""
        return (
            column * (self.width - OVERLAP),
            (self.rows - 1 - row) * (self.height - OVERLAP),
        )


def page_name(column: int, row: int) -> str:
    """Return a page's name: row letters and column number, `A1` at the top left; after row Z comes row AA.

    >>> page_name(0, 0), page_name(3, 27)
    ('A1', 'AB4')
    """
    letters = chr(ord("A") + row % LETTERS)
    return f"{page_name(column, row // LETTERS - 1)[: -len(str(column + 1))] if row >= LETTERS else ''}{letters}{column + 1}"


def blank(stream: BytesIO, size: tuple[float, float]) -> "Canvas":
    """Return an empty document to draw on, its pages of a size in points."""
    # The library takes long to import: only who prints waits for it.
    from reportlab.pdfgen.canvas import Canvas  # noqa: PLC0415

    return Canvas(stream, pagesize=size, pageCompression=1, invariant=1)


def in_lines(text: str, *, font: str, size: float, width: float) -> list[str]:
    """Return a text in lines no wider than `width` points."""
    from reportlab.lib.utils import simpleSplit  # noqa: PLC0415  (as above)

    lines: list[str] = simpleSplit(text, font, size, width)
    return lines


def write_pdf(
    sheets: Sequence[SheetPiece] | Sequence[Stack],
    *,
    paper: str = "a4",
    title: str = "Izett",
    notes: Sequence[str] = (),
) -> bytes:
    """Return a PDF of the pieces at true size: tiled, or on one length of a roll.

    Args:
        sheets: the pieces ready for paper; or stacks, sizes nested.
        paper: `a4`, `letter`, `a0` or `roll`.
        title: printed on every page.
        notes: lines for the first page: scale, allowance, cautions.

    Raises:
        UnknownName: there is no such paper.
    """
    if paper == ROLL:
        return _on_a_roll(_stacks(sheets), title, notes)
    if paper not in LARGE:
        raise UnknownName(f"There is no paper “{paper}”.", fix="Choose a4, letter, a0 or roll.", where=(paper,))
    size = LARGE[paper]
    placed, width, height = in_a_row(_stacks(sheets), space=GAP)
    tiling = _tiling(placed, width, height, size)
    stream = BytesIO()
    # The drawn size is the true size: viewers are told not to scale it to the paper.
    canvas = blank(stream, size)
    canvas.setTitle(title)
    canvas.setAuthor("Izett")
    canvas.setViewerPreference("PrintScaling", "None")
    _map_page(canvas, placed, tiling, size, title, notes)
    canvas.showPage()
    for row in range(tiling.rows):
        for column in range(tiling.columns):
            if (column, row) in tiling.used:
                _tile_page(canvas, placed, tiling, column, row, title)
                canvas.showPage()
    canvas.save()
    return stream.getvalue()


def _stacks(sheets: Sequence[SheetPiece] | Sequence[Stack]) -> list[Stack]:
    return [one if isinstance(one, Stack) else Stack((one,)) for one in sheets]


def _on_a_roll(stacks: Sequence[Stack], title: str, notes: Sequence[str]) -> bytes:
    """Return one page as wide as a roll and as long as the pieces need, the squares to measure at its foot."""
    foot = HEAD_HEIGHT
    widest = max(stack.bounds[2] - stack.bounds[0] for stack in stacks) + 2 * GAP
    width = max(ROLL_WIDTH, widest)
    placed = [(stack, (x, y + foot)) for stack, (x, y) in in_rows(stacks, width=width, space=GAP)]
    height = max(stack.bounds[3] + shift[1] for stack, shift in placed) + GAP
    stream = BytesIO()
    canvas = blank(stream, (width * POINTS_PER_CM, height * POINTS_PER_CM))
    canvas.setTitle(title)
    canvas.setAuthor("Izett")
    canvas.setViewerPreference("PrintScaling", "None")
    _squares(canvas, (RIM, RIM), (RIM + 11, RIM))
    write(canvas, ((RIM + 23) * POINTS_PER_CM, (RIM + 9) * POINTS_PER_CM), title, size=16, bold=True)
    for number, line in enumerate((TRUE_SIZE, *notes)):
        spot = ((RIM + 23) * POINTS_PER_CM, (RIM + 8 - number * 0.6) * POINTS_PER_CM)
        write(canvas, spot, line, size=10)
    for stack, shift in placed:
        draw_stack(canvas, stack, shift)
    canvas.showPage()
    canvas.save()
    return stream.getvalue()


def pages_of(sheets: Sequence[SheetPiece] | Sequence[Stack], *, paper: str = "a4") -> int:
    """Return how many sheets of paper the pieces fill, the map not counted: to be asked before they are printed."""
    if paper == ROLL:
        return 1
    placed, width, height = in_a_row(_stacks(sheets), space=GAP)
    return len(_tiling(placed, width, height, LARGE[paper]).used)


def _tiling(placed: list[Placed], width: float, height: float, size: tuple[float, float]) -> Tiling:
    page_width = size[0] / POINTS_PER_CM - 2 * RIM
    page_height = size[1] / POINTS_PER_CM - 2 * RIM
    columns = max(1, ceil((width - OVERLAP) / (page_width - OVERLAP)))
    rows = max(1, ceil((height - OVERLAP) / (page_height - OVERLAP)))
    everything = Tiling(columns, rows, page_width, page_height, frozenset())
    used = frozenset(
        (column, row)
        for column in range(columns)
        for row in range(rows)
        if any(_touches(stack, shift, everything.corner(column, row), everything) for stack, shift in placed)
    )
    return Tiling(columns, rows, page_width, page_height, used)


def _touches(stack: Stack, shift: Point, corner: Point, tiling: Tiling) -> bool:
    x0, y0, x1, y1 = stack.bounds
    return (
        x0 + shift[0] < corner[0] + tiling.width
        and x1 + shift[0] > corner[0]
        and y0 + shift[1] < corner[1] + tiling.height
        and y1 + shift[1] > corner[1]
    )


def _tile_page(canvas: "Canvas", placed: list[Placed], tiling: Tiling, column: int, row: int, title: str) -> None:
    corner = tiling.corner(column, row)
    # Beneath the lines: it must cover none.
    canvas.setFillGray(0.8)
    canvas.setFont("Helvetica-Bold", 30)
    canvas.drawString(
        (RIM + OVERLAP + 0.3) * POINTS_PER_CM, (RIM + OVERLAP + 0.3) * POINTS_PER_CM, page_name(column, row)
    )
    canvas.saveState()
    frame = canvas.beginPath()
    frame.rect(*(v * POINTS_PER_CM for v in (RIM, RIM, tiling.width, tiling.height)))
    canvas.clipPath(frame, stroke=0)
    for stack, shift in placed:
        draw_stack(canvas, stack, (shift[0] - corner[0] + RIM, shift[1] - corner[1] + RIM))
    canvas.restoreState()
    _joins(canvas, tiling, column, row)
    canvas.setFillGray(0.35)
    foot = f"{title}   page {page_name(column, row)}   true size, print at 100 %"
    write(canvas, (RIM * POINTS_PER_CM, 0.45 * POINTS_PER_CM), foot, size=8)


def _joins(canvas: "Canvas", tiling: Tiling, column: int, row: int) -> None:
    """Draw the page's frame with a half diamond and its number at each join to a page that is printed."""
    canvas.setStrokeGray(0.55)
    canvas.setFillGray(0.35)
    canvas.setLineWidth(0.3)
    canvas.rect(*(v * POINTS_PER_CM for v in (RIM, RIM, tiling.width, tiling.height)))
    canvas.setFont("Helvetica", 7)
    w, h = tiling.width, tiling.height
    half = OVERLAP / 2
    neighbours = (
        ((column - 1, row), (RIM + half, RIM + h / 2)),
        ((column + 1, row), (RIM + w - half, RIM + h / 2)),
        ((column, row - 1), (RIM + w / 2, RIM + h - half)),
        ((column, row + 1), (RIM + w / 2, RIM + half)),
    )
    for other, centre in neighbours:
        if other not in tiling.used:
            continue
        # The number is that of the pair, the same on both sheets: laid over each other the diamonds cover.
        first, second = sorted(((column, row), other))
        name = f"{page_name(*first)}·{page_name(*second)}"
        x, y = centre
        diamond = ((x - DIAMOND, y), (x, y - DIAMOND), (x + DIAMOND, y), (x, y + DIAMOND))
        polyline(canvas, diamond, (0.0, 0.0), width=0.5, closed=True)
        canvas.drawCentredString(x * POINTS_PER_CM, (y + DIAMOND + 0.1) * POINTS_PER_CM, name)


def _map_page(
    canvas: "Canvas",
    placed: list[Placed],
    tiling: Tiling,
    size: tuple[float, float],
    title: str,
    notes: Sequence[str],
) -> None:
    page_width, page_height = (v / POINTS_PER_CM for v in size)
    canvas.setFillGray(INK)
    write(canvas, (RIM * POINTS_PER_CM, (page_height - RIM - 0.6) * POINTS_PER_CM), title, size=16, bold=True)
    y = page_height - RIM - 1.4
    for line in (
        "Print every page at 100 % (no “fit to page”). Measure both squares before cutting.",
        "A square that is too small or too large: the printer scaled the page. Do not cut; print again at “actual size”.",
        f"Join sheets so that diamonds with the same number cover each other; sheets overlap {OVERLAP * 10:.0f} mm.",
        *notes,
    ):
        write(canvas, (RIM * POINTS_PER_CM, y * POINTS_PER_CM), line, size=9)
        y -= 0.5
    bottom = y - 10.4
    # 4 in are 10.16 cm: set inside the free strip beside it, lowered so that their edges cannot be confused.
    left = page_width - RIM - 4 * POINTS_PER_INCH / POINTS_PER_CM
    if left > RIM + 10.3:
        inch_bottom = bottom
    else:
        left, inch_bottom = RIM, bottom - 10.7
    _squares(canvas, (RIM, bottom), (left, inch_bottom))
    # The page map goes inside the lower square's column, to the right of the stacked squares.
    _page_map(canvas, placed, tiling, (RIM + 10.8, bottom), (page_width - 2 * RIM - 10.8, 10.0))


def _squares(canvas: "Canvas", metric: Point, imperial: Point) -> None:
    """Draw the squares that are measured before anything is cut, their lower left corners at two places."""
    canvas.setStrokeGray(INK)
    canvas.setFillGray(INK)
    canvas.setLineWidth(0.6)
    canvas.setFont(PLAIN, 9)
    inches = 4 * POINTS_PER_INCH / POINTS_PER_CM
    for (x, y), side, words in ((metric, 10.0, "10 cm"), (imperial, inches, "4 in")):
        canvas.rect(*(v * POINTS_PER_CM for v in (x, y, side, side)))
        canvas.drawString((x + 0.3) * POINTS_PER_CM, (y + side - 0.6) * POINTS_PER_CM, words)


def _page_map(canvas: "Canvas", placed: list[Placed], tiling: Tiling, corner: Point, room: tuple[float, float]) -> None:
    whole = (
        tiling.columns * (tiling.width - OVERLAP) + OVERLAP,
        tiling.rows * (tiling.height - OVERLAP) + OVERLAP,
    )
    factor = min(room[0] / whole[0], room[1] / whole[1])
    x0, y0 = corner
    canvas.saveState()
    canvas.translate(x0 * POINTS_PER_CM, y0 * POINTS_PER_CM)
    canvas.scale(factor, factor)
    canvas.setStrokeGray(0.6)
    canvas.setFillGray(0.35)
    canvas.setFont("Helvetica", 60)
    for column, row in sorted(tiling.used):
        x, y = tiling.corner(column, row)
        canvas.setLineWidth(1.5)
        canvas.rect(*(v * POINTS_PER_CM for v in (x, y, tiling.width, tiling.height)))
        canvas.drawString((x + 1.5) * POINTS_PER_CM, (y + 1.5) * POINTS_PER_CM, page_name(column, row))
    canvas.setStrokeGray(INK)
    for stack, shift in placed:
        for sheet in stack.sheets:
            polyline(canvas, sheet.cutting, shift, width=4, closed=True)
    canvas.restoreState()
