"""A page of a printed sheet, filled from the top: its words, lines, boxes and foot. Everything in cm, y up."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from io import BytesIO
from typing import TYPE_CHECKING

from izett import wording
from izett.errors import UnknownName
from izett.files.lettering import write
from izett.files.pdf import PAPERS, POINTS_PER_CM, blank, in_lines
from izett.geometry.point import Point
from izett.units import Unit

if TYPE_CHECKING:
    from reportlab.pdfgen.canvas import Canvas

RIM = 1.5
LINE = 0.31
SMALL, TEXT, HEAD = 6.6, 8.6, 15
#: Greys: of text, of what stands behind it, of hints, of rules.
INK, SOFT, FAINT, RULE = 0.1, 0.35, 0.45, 0.6
#: What glyphs look like in the printer's own fonts.
_PLAIN = {
    "⅛": "1/8",
    "⅜": "3/8",
    "⅝": "5/8",
    "⅞": "7/8",
    "⅓": "1/3",
    "⅔": "2/3",
    "⁄": "/",
    "−": "-",
    "″": '"',
    "→": "to",
}


def plain(text: str) -> str:
    """Return a text in the characters that the printer's own fonts have."""
    for glyph, written in _PLAIN.items():
        digit_before = f" {written}" if written[0].isdigit() and len(written) > 1 else written
        text = text.replace(glyph, digit_before)
    return text


@dataclass
class Page:
    """The page being filled: `y` is where the next line goes.

    Attributes:
        title: of the document.
        paper: `a4` or `letter`.
        foot: printed at the foot of every page.
        unit: in which lengths in sentences are read.

    Raises:
        UnknownName: there is no such paper.
    """

    title: str
    paper: str = "a4"
    foot: Sequence[str] = ()
    unit: Unit = Unit.CM
    y: float = 0.0
    number: int = 1
    stream: BytesIO = field(default_factory=BytesIO)

    def __post_init__(self) -> None:
        """Begin the document."""
        if self.paper not in PAPERS:
            raise UnknownName(f"There is no paper “{self.paper}”.", fix="Choose a4 or letter.", where=(self.paper,))
        self.canvas: Canvas = blank(self.stream, PAPERS[self.paper])
        self.canvas.setTitle(self.title)
        self.canvas.setAuthor("Izett")
        self.y = self.top

    @property
    def width(self) -> float:
        """The whole width of the paper."""
        return PAPERS[self.paper][0] / POINTS_PER_CM

    @property
    def right(self) -> float:
        """Where the right rim begins."""
        return self.width - RIM

    @property
    def top(self) -> float:
        """Where the first line of a page goes."""
        return PAPERS[self.paper][1] / POINTS_PER_CM - RIM

    @property
    def foot_lines(self) -> list[str]:
        """The foot, in the lines that it takes."""
        return self.split("   ".join(self.foot), self.width - 2 * RIM - 2)

    def told(self, text: str) -> str:
        """Return a sentence as it is printed: lengths in the reader's unit, in letters that the printer has."""
        return plain(wording.plain(text, self.unit))

    def split(self, words: str, width: float, *, size: float = SMALL) -> list[str]:
        """Return words in lines no wider than a width."""
        return in_lines(self.told(words), font="Helvetica", size=size, width=width * POINTS_PER_CM)

    def text(self, x: float, y: float, text: str, *, size: float = TEXT, bold: bool = False, grey: float = INK) -> None:
        """Write a line of text."""
        self.canvas.setFillGray(grey)
        write(self.canvas, (x * POINTS_PER_CM, y * POINTS_PER_CM), self.told(text), size=size, bold=bold)

    def words(
        self, text: str, *, x: float = RIM, width: float | None = None, size: float = TEXT, grey: float = INK
    ) -> None:
        """Write words from where the page stands downwards, on as many lines and pages as they take."""
        line = LINE * size / SMALL * 1.05
        for part in self.split(text, width or self.right - x, size=size):
            self.room(line)
            self.y -= line
            self.text(x, self.y, part, size=size, grey=grey)

    def heading(self, text: str, *, room: float = 2.0) -> None:
        """Write a heading under a rule, on a page that has room for what follows it."""
        self.room(room)
        self.y -= 0.22
        self.line([(RIM, self.y - 0.12), (self.right, self.y - 0.12)], width=0.8, grey=0.2)
        self.y -= 0.58
        self.text(RIM, self.y, text, size=TEXT + 2, bold=True)
        self.y -= 0.1

    def line(
        self,
        points: Sequence[Point],
        *,
        width: float,
        grey: float = INK,
        colour: tuple[float, float, float] | None = None,
    ) -> None:
        """Draw a polyline; a colour goes before the grey."""
        if colour is None:
            self.canvas.setStrokeGray(grey)
        else:
            self.canvas.setStrokeColorRGB(*colour)
        self.canvas.setLineWidth(width)
        path = self.canvas.beginPath()
        for at, (x, y) in enumerate(points):
            (path.moveTo if at == 0 else path.lineTo)(x * POINTS_PER_CM, y * POINTS_PER_CM)
        self.canvas.drawPath(path)

    def box(self, x: float, y: float, side: float, *, ticked: bool = False) -> None:
        """Draw a box to tick, its lower left corner at a place."""
        self.line([(x, y), (x + side, y), (x + side, y + side), (x, y + side), (x, y)], width=0.6, grey=SOFT)
        if ticked:
            self.line(
                [
                    (x + 0.2 * side, y + 0.5 * side),
                    (x + 0.45 * side, y + 0.2 * side),
                    (x + 0.85 * side, y + 0.9 * side),
                ],
                width=1.0,
            )

    @property
    def left_over(self) -> float:
        """The height that is left on this page, above its foot."""
        return self.y - RIM - 0.3 - 0.28 * max(len(self.foot_lines) - 1, 0)

    def room(self, height: float) -> None:
        """Begin the next page where a height has no room on this one."""
        if height > self.left_over:
            self.turn()

    def turn(self) -> None:
        """Finish this page, and begin the next."""
        for down, words in enumerate(self.foot_lines):
            self.text(RIM, RIM - 0.35 - down * 0.28, words, size=SMALL, grey=0.4)
        self.text(self.right - 1, RIM - 0.35, f"page {self.number}", size=SMALL, grey=0.4)
        self.canvas.showPage()
        self.number += 1
        self.y = self.top

    def finish(self) -> bytes:
        """Finish the last page; return the document."""
        self.turn()
        self.canvas.save()
        return self.stream.getvalue()
