"""A lay plan on paper: the picture, how to fold, what to buy, and the pieces in the order of cutting, with boxes."""

from collections.abc import Sequence

from izett.cutting.cloth import FOLDED, Fold
from izett.cutting.lay.cutouts import Wanted
from izett.cutting.lay.plan import Plan
from izett.cutting.order import cutting_order
from izett.files.lay_picture import Ink, Stroke, Word, headline, picture
from izett.files.page import HEAD, RIM, SMALL, SOFT, TEXT, Page
from izett.files.pdf import POINTS_PER_CM
from izett.geometry.point import Point
from izett.units import Unit

#: cm of paper. The picture's greatest height; a box to tick; a row of the list.
HIGHEST, BOX, ROW = 12.0, 0.32, 0.55
#: Widths of lines, in points, and their greys.
_WIDTHS = {Ink.CLOTH: 0.8, Ink.FOLD: 1.2, Ink.SELVEDGE: 0.3, Ink.PIECE: 0.7, Ink.GRAIN: 0.3}
_GREYS = {Ink.SELVEDGE: 0.6}
_FOLD_DASH = (6.0, 2.0, 1.0, 2.0)


def write_lay_pdf(
    plan: Plan,
    wanted: Sequence[Wanted],
    *,
    title: str = "Lay plan",
    paper: str = "a4",
    unit: Unit = Unit.CM,
    notes: Sequence[str] = (),
) -> bytes:
    """Return a plan as PDF.

    Args:
        plan, wanted: the plan, and what is cut.
        title: of the sheet.
        paper: `a4` or `letter`; unit: in which lengths are read, and the shop sells.
        notes: more lines under the picture, such as what would save cloth.

    Raises:
        UnknownName: the paper is neither.
    """
    page = Page(title, paper, (), unit)
    page.y -= 0.5
    page.text(RIM, page.y, title, size=HEAD, bold=True)
    page.y -= 0.2
    page.words(headline(plan, unit), size=TEXT)
    for laid in plan.laid:
        page.words(FOLDED[laid.section.bed.fold][1], size=TEXT, grey=SOFT)
    if plan.cloth.nap and any(laid.section.bed.fold in (Fold.CROSSWISE, Fold.FOUR_LAYERS) for laid in plan.laid):
        page.words(NAP_TURNED, size=TEXT)
    _draw(page, plan)
    for note in notes:
        page.words(note, size=TEXT)
    page.heading("Cut in this order")
    for row in cutting_order(wanted):
        page.room(ROW)
        page.y -= ROW
        page.box(RIM, page.y, BOX)
        says = f"   {row.says}" if row.says else ""
        page.text(RIM + 2 * BOX, page.y + 0.04, f"{row.title} ({row.label}): {row.how}{says}")
    return page.finish()


#: What becomes of a nap when cloth is folded across.
NAP_TURNED = (
    "The nap of the lower layer would run the other way: cut the cloth through at the fold, and turn one half round."
)


def _draw(page: Page, plan: Plan) -> None:
    """Draw the picture, as large as it fits."""
    long = plan.laid[-1].start + plan.laid[-1].length
    wide = max(laid.section.bed.width for laid in plan.laid)
    scale = min((page.right - RIM) / long, HIGHEST / wide)
    page.room(wide * scale + 1)
    top = page.y - 0.4

    def at(spot: Point) -> Point:
        return RIM + spot[0] * scale, top - spot[1] * scale

    for mark in picture(plan):
        if isinstance(mark, Word):
            _word(page, mark, at(mark.at))
        else:
            _stroke(page, mark, [at(spot) for spot in mark.points])
    page.y = top - wide * scale - 0.2
    page.text(RIM, page.y - 0.25, f"Scale 1 : {1 / scale:.0f}", size=SMALL, grey=SOFT)
    page.y -= 0.4


def _stroke(page: Page, mark: Stroke, spots: list[Point]) -> None:
    page.canvas.setDash(*((list(_FOLD_DASH), 0) if mark.ink is Ink.FOLD else ([], 0)))
    page.line([*spots, spots[0]] if mark.closed else spots, width=_WIDTHS[mark.ink], grey=_GREYS.get(mark.ink, 0.1))
    page.canvas.setDash([], 0)


def _word(page: Page, mark: Word, at: Point) -> None:
    text = page.told(mark.text)
    wide = page.canvas.stringWidth(text, "Helvetica", SMALL) / POINTS_PER_CM
    page.text(at[0] - wide / 2, at[1], text, size=SMALL)
