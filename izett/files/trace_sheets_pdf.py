"""The four printed sheets that tell a photo its scale, on paper, with a bar to measure and how to take the photo."""

from io import BytesIO

from izett.errors import UnknownName
from izett.files.page import SMALL, TEXT, Page
from izett.files.pdf import PAPERS, POINTS_PER_CM
from izett.tracing.sheets import BAR, HIGH, SHEETS, WIDE, picture_of
from izett.units import Unit
from izett.wording import cm

#: cm. The bar lies so far beside the checkers, and the words so far below them.
BAR_ASIDE, WORDS_BELOW = 0.45, 0.6
#: Pixels a cm in which the checkers are laid on the page: every edge of a marker lies between two of them.
SHARP = 32
TITLE = "Sheets to trace by"


def write_trace_sheets_pdf(*, paper: str = "a4", unit: Unit = Unit.CM) -> bytes:
    """Return the four sheets as a PDF, at full size.

    Raises:
        UnknownName: there is no such paper.
    """
    from PIL import Image  # noqa: PLC0415
    from reportlab.lib.utils import ImageReader  # noqa: PLC0415

    if paper not in PAPERS:
        raise UnknownName(f"There is no paper “{paper}”.", fix="Choose a4 or letter.", where=(paper,))
    page = Page(TITLE, paper=paper, unit=unit)
    tall = PAPERS[paper][1] / POINTS_PER_CM
    left, low = (page.width - WIDE) / 2, (tall - HIGH) / 2
    for number in range(1, SHEETS + 1):
        stream = BytesIO()
        Image.fromarray(picture_of(number, SHARP)).save(stream, "PNG")
        stream.seek(0)
        box = [n * POINTS_PER_CM for n in (left, low, WIDE, HIGH)]
        page.canvas.drawImage(ImageReader(stream), box[0], box[1], box[2], box[3])
        page.text(left, low + HIGH + 0.35, f"Sheet {number} of {SHEETS}", size=TEXT, bold=True)
        page.text(left + 3.2, low + HIGH + 0.35, "Print all four at 100 %, from one printer.", size=SMALL)
        # Upright: across the page a printer's rim would cut it off.
        x, foot = left - BAR_ASIDE, low + (HIGH - BAR) / 2
        page.line([(x, foot), (x, foot + BAR)], width=0.8)
        for y in (foot, foot + BAR):
            page.line([(x - 0.15, y), (x + 0.15, y)], width=0.8)
        words = f"The bar on the left is {cm(BAR)} long. Measure it with a ruler, and say what you read."
        page.text(left, low - WORDS_BELOW, words, size=SMALL)
        page.canvas.showPage()
    page.canvas.save()
    return page.stream.getvalue()
