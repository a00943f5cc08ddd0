"""The fitting sheet on paper: what to see to and to ask, the figure, the garment's own pieces to write pins on, lines to fill."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from izett.files.page import FAINT, HEAD, INK, LINE, RIM, RULE, SMALL, SOFT, TEXT, Page
from izett.finishing.sheet import SheetPiece
from izett.geometry.point import Point
from izett.measuring.figure.draw import VIEWS, figure_of
from izett.units import Unit

#: A body of middling build where none was measured, cm: EN 13402-3's 92, from memory.
MIDDLING = {"bust_girth": 92.0, "waist_girth": 76.0, "hip_girth": 100.0, "height": 168.0}

# Everything below is paper, in cm.
BOX = 0.3
#: Where what an entry says begins, from the left rim; where the boxes of an answer begin.
SAYS_FROM, ANSWER_FROM = 6.6, 8.0
FIGURE_HEIGHT = 8.2
#: The pieces are drawn as large as they fit in what is left of a page, at least so much; no larger than this share of their size.
FEWEST_HEIGHT, LARGEST_SCALE = 11.0, 0.22
PIECE_GAP = 1.1
#: Rows to fill by hand, and their height; the columns with their widths, the last taking what is left.
ROWS, ROW = 12, 0.82
COLUMNS = (
    ("What is seen, where", 6.4),
    ("left / right / both", 2.6),
    ("how much", 2.3),
    ("folded / whole", 2.3),
    ("when, in whose words", 0.0),
)
OUTCOMES = ("solved", "better", "same", "worse", "not looked at")


@dataclass(frozen=True, slots=True)
class FittingSheet:
    """What stands on a fitting sheet.

    Attributes:
        garment, wearer, muslin, day, cloth, worn: what is fitted on whom, when.
        items: what to see to before, with what it says, and whether it is done.
        sewn: with which allowances it is sewn, in words.
        asked: earlier findings to be looked at again, each with what was done about it.
        questions: what else this muslin should answer.
        movements: in their order, with what to look at.
        body: the wearer's measures, cm by symbol, for the figure.
        pieces: the garment's pieces.
        cautions: printed at the foot.
    """

    garment: str
    wearer: str
    muslin: int
    day: str
    cloth: str
    worn: str
    items: Sequence[tuple[str, str, bool]]
    sewn: Sequence[str]
    asked: Sequence[tuple[str, str]]
    questions: Sequence[str]
    movements: Sequence[tuple[str, str]]
    body: Mapping[str, float]
    pieces: Sequence[SheetPiece]
    cautions: Sequence[str]


def write_fitting_sheet(sheet: FittingSheet, *, paper: str = "a4", unit: Unit = Unit.CM) -> bytes:
    """Return the fitting sheet as PDF, on `a4` or `letter`, its lengths in a unit.

    Raises:
        UnknownName: the paper is neither.
    """
    page = Page(f"Fitting sheet, {sheet.garment}, muslin {sheet.muslin}", paper, sheet.cautions, unit)
    _head(page, sheet)
    _before(page, sheet)
    _asked(page, sheet)
    _movements(page, sheet)
    _figures(page, sheet.body)
    _pieces(page, sheet.pieces)
    _to_fill(page)
    return page.finish()


def _head(page: Page, sheet: FittingSheet) -> None:
    page.y -= 0.45
    page.text(RIM, page.y, f"Fitting sheet: muslin {sheet.muslin}", size=HEAD, bold=True)
    page.y -= 0.75
    page.text(RIM, page.y, sheet.garment, size=TEXT + 2)
    page.y -= 0.6
    x = RIM
    for word, value, wide in (
        ("For", sheet.wearer, 5.2),
        ("on", sheet.day, 2.8),
        ("in", sheet.cloth, 4.2),
        ("over", sheet.worn, 0.0),
    ):
        start = x + 0.25 + 0.17 * len(word)
        end = x + wide if wide else page.right
        page.text(x, page.y, word, grey=SOFT)
        page.text(start + 0.05, page.y + 0.02, page.split(value, end - start - 0.3, size=TEXT)[0] if value else "")
        page.line([(start, page.y - 0.08), (end - 0.2, page.y - 0.08)], width=0.4, grey=RULE)
        x = end
    page.y -= 0.5
    x = RIM
    for word in ("Pins counted in:", "Pins counted out:", "Begun at:", "Done at:"):
        page.text(x, page.y, word)
        end = x + 0.2 + 0.155 * len(word)
        page.line([(end, page.y - 0.08), (end + 1.3, page.y - 0.08)], width=0.5, grey=SOFT)
        x = end + 1.75
    page.y -= 0.25


def _before(page: Page, sheet: FittingSheet) -> None:
    page.heading("Before it goes on")
    for title, says, done in sheet.items:
        _tick(page, title, says, done=done)
    if sheet.sewn:
        page.y -= 0.08
        page.words("Sewn with: " + ", ".join(sheet.sewn) + ".", size=SMALL + 0.8, grey=SOFT)


def _tick(page: Page, title: str, says: str, *, done: bool = False) -> None:
    left = RIM + SAYS_FROM
    titles = page.split(title, SAYS_FROM - 0.8, size=TEXT)
    lines = page.split(says, page.right - left)
    page.room(LINE * max(len(lines), len(titles)) + 0.2)
    page.y -= 0.42
    page.box(RIM, page.y - 0.04, BOX, ticked=done)
    for down, words in enumerate(titles):
        page.text(RIM + 0.5, page.y - LINE * 1.15 * down, words)
    for down, words in enumerate(lines):
        page.text(left, page.y - LINE * down, words, size=SMALL, grey=SOFT)
    page.y -= LINE * max(len(lines) - 1, (len(titles) - 1) * 1.15, 0)


def _asked(page: Page, sheet: FittingSheet) -> None:
    if sheet.asked:
        page.heading("Did it help?", room=2.2)
    for seen, done in sheet.asked:
        page.room(1.1)
        page.y -= 0.45
        page.text(RIM, page.y, seen, bold=True)
        page.y -= 0.4
        lines = page.split(done, ANSWER_FROM - 0.6)
        for down, words in enumerate(lines):
            page.text(RIM + 0.3, page.y - LINE * down, words, size=SMALL, grey=SOFT)
        x = RIM + ANSWER_FROM
        for outcome in OUTCOMES:
            page.box(x, page.y - 0.04, BOX)
            page.text(x + 0.42, page.y, outcome, size=SMALL + 0.6)
            x += 0.75 + 0.145 * len(outcome)
        page.y -= LINE * max(len(lines) - 1, 0)
    if sheet.questions:
        page.heading("What this muslin should answer")
        for question in sheet.questions:
            page.words(f"·  {question}", size=TEXT)


def _movements(page: Page, sheet: FittingSheet) -> None:
    page.heading("Movements, in this order", room=3.0)
    for title, says in sheet.movements:
        _tick(page, title[0].upper() + title[1:], says)


def _figures(page: Page, body: Mapping[str, float]) -> None:
    figure = figure_of(body if "bust_girth" in body else MIDDLING)
    page.room(FIGURE_HEIGHT + 1.2)
    page.heading("Put each finding where it is: a number here, its line below")
    page.y -= 0.2
    outline = figure.outlines["front"]
    top, low = max(y for _, y in outline), min(y for _, y in outline)
    scale = FIGURE_HEIGHT / (top - low)
    column = (page.right - RIM) / len(VIEWS)
    for at, view in enumerate(VIEWS):
        middle = RIM + column * (at + 0.5)

        def placed(line: Sequence[Point], middle: float = middle) -> list[Point]:
            return [(middle + x * scale, page.y - (top - y) * scale) for x, y in line]

        outline = placed(figure.outlines[view])
        page.line([*outline, outline[0]], width=0.8, grey=SOFT)
        for detail in figure.details[view]:
            page.line(placed(detail), width=0.3, grey=0.7)
        page.text(middle - column / 2, page.y - 0.2, view, size=SMALL, grey=FAINT)
    page.y -= FIGURE_HEIGHT


def _pieces(page: Page, pieces: Sequence[SheetPiece]) -> None:
    """Draw the pieces to one scale, in rows, with room between them to write on."""
    page.heading("The pieces, to write pins on", room=FEWEST_HEIGHT)
    scale = _scale(pieces, page.right - RIM, page.left_over - PIECE_GAP)
    rows = _rows(pieces, scale, page.right - RIM)
    for row in rows:
        tall = max(_height(piece) for piece in row) * scale
        page.room(tall + PIECE_GAP)
        x = RIM
        for piece in row:
            _piece(page, piece, (x, page.y - 0.35 - tall), scale)
            x += max(_width(piece) * scale, 1.5) + PIECE_GAP
        page.y -= tall + PIECE_GAP


def _piece(page: Page, piece: SheetPiece, corner: Point, scale: float) -> None:
    xs, ys = [p[0] for p in piece.sewing], [p[1] for p in piece.sewing]

    def placed(line: Sequence[Point]) -> list[Point]:
        return [(corner[0] + (x - min(xs)) * scale, corner[1] + (y - min(ys)) * scale) for x, y in line]

    outline = placed(piece.sewing)
    page.line([*outline, outline[0]], width=0.9)
    for dart in piece.darts:
        page.line(placed(dart.legs), width=0.5, grey=SOFT)
    for diamond in piece.diamonds:
        page.line(placed([*diamond, diamond[0]]), width=0.5, grey=SOFT)
    for level in piece.levels:
        page.line(placed(level), width=0.3, grey=RULE)
    page.line(placed(piece.grain), width=0.3, grey=RULE)
    page.text(corner[0], corner[1] - 0.33, piece.piece.title, size=SMALL, grey=INK)


def _width(piece: SheetPiece) -> float:
    return max(p[0] for p in piece.sewing) - min(p[0] for p in piece.sewing)


def _height(piece: SheetPiece) -> float:
    return max(p[1] for p in piece.sewing) - min(p[1] for p in piece.sewing)


def _rows(pieces: Sequence[SheetPiece], scale: float, width: float) -> list[list[SheetPiece]]:
    rows: list[list[SheetPiece]] = []
    left = 0.0
    for piece in sorted(pieces, key=_height, reverse=True):
        wide = max(_width(piece) * scale, 1.5) + PIECE_GAP
        if not rows or left + wide - PIECE_GAP > width:
            rows.append([])
            left = 0.0
        rows[-1].append(piece)
        left += wide
    return rows


def _scale(pieces: Sequence[SheetPiece], width: float, height: float) -> float:
    """Return the largest scale at which all rows fit in a height."""
    scale = LARGEST_SCALE
    while scale > LARGEST_SCALE / 20:
        rows = _rows(pieces, scale, width)
        tall = sum(max(_height(piece) for piece in row) * scale + PIECE_GAP for row in rows)
        if tall <= height and all(_width(piece) * scale <= width for piece in pieces):
            break
        scale *= 0.93
    return scale


def _to_fill(page: Page) -> None:
    page.heading("Found on it", room=ROW * 5)
    page.y -= 0.45
    x = RIM
    edges = []
    for title, wide in COLUMNS:
        page.text(x + 0.08, page.y, title, size=SMALL, grey=SOFT)
        edges.append(x)
        x += wide
    page.y -= 0.15
    for number in range(1, ROWS + 1):
        page.room(ROW)
        page.line([(RIM, page.y), (page.right, page.y)], width=0.4, grey=RULE)
        for edge in edges[1:]:
            page.line([(edge, page.y), (edge, page.y - ROW)], width=0.3, grey=RULE)
        page.text(RIM + 0.05, page.y - 0.3, str(number), size=SMALL, grey=FAINT)
        page.y -= ROW
    page.line([(RIM, page.y), (page.right, page.y)], width=0.4, grey=RULE)
