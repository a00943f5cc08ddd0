"""The measuring sheet on paper, blank to fill by hand or filled: by station, each with its tapes on the wearer's figure."""

from collections.abc import Sequence
from dataclasses import dataclass

from izett import wording
from izett.files.page import HEAD, LINE, RIM, SMALL, TEXT, Page
from izett.files.pdf import POINTS_PER_CM
from izett.geometry.point import Point
from izett.measuring.figure.draw import VIEWS, Figure, figure_of
from izett.measuring.measure import Measure, measures, stations
from izett.measuring.sheet import Sheet
from izett.units import Unit, show_length

#: A body of middling build for a blank sheet, cm: EN 13402-3's 92, from memory.
MIDDLING = {"bust_girth": 92.0, "waist_girth": 76.0, "hip_girth": 100.0, "height": 168.0}

# Everything below is paper, in cm.
FIGURE_WIDTH = 5.4
FIGURE_HEIGHT = 7.2
BOX_WIDTH, BOX_GAP = 2.3, 0.25
ROW_AIR = 0.24
#: A row is as high as a reading with the other unit under it.
FEWEST_LINES = 2
#: cm of the body that are shown above and below the outermost tapes; and the width kept free for numbers beside it.
AROUND = 9.0
NUMBER_COLUMN = 0.45
#: Numbers on a figure keep this far apart, so that each can be read.
NUMBER_APART = 0.27
_TAPE = (0.16, 0.36, 0.62)
_READINGS = 2


def write_measure_sheet(
    sheet: Sheet | None,
    *,
    paper: str = "a4",
    preparation: Sequence[str] = (),
    cautions: Sequence[str] = (),
) -> bytes:
    """Return the measuring sheet as PDF.

    Args:
        sheet: what was taken; None for a blank sheet, with a figure of middling build.
        paper: `a4` or `letter`.
        preparation: what to do before the tape, a line each.
        cautions: printed at the foot.

    Raises:
        UnknownName: the paper is neither.
    """
    body = sheet.cm if sheet else {}
    title = "Measuring sheet" + (f", {sheet.wearer}" if sheet and sheet.wearer else "")
    page = _SheetPage(title, paper, cautions)
    page.head(sheet, preparation)
    figure = figure_of(body if "bust_girth" in body else MIDDLING)
    number = 1
    for station in stations():
        rows = [what for what in measures().values() if what.station == station.key]
        page.station(station.title, station.stand, rows, number, figure, sheet)
        number += len(rows)
    return page.finish()


class _SheetPage(Page):
    """A page of the measuring sheet."""

    def head(self, sheet: Sheet | None, preparation: Sequence[str]) -> None:
        self.y = self.top
        self.text(RIM, self.y - 0.45, "Measuring sheet", size=HEAD, bold=True)
        self.y -= 1.3
        day = sheet.taken_on.isoformat() if sheet and sheet.taken_on else ""
        about = (
            ("For", sheet.wearer if sheet else "", 6.0),
            ("on", day, 2.6),
            ("by", sheet.taken_by if sheet else "", 2.6),
            ("over", sheet.worn if sheet else "", 0.0),
        )
        x = RIM
        for word, value, wide in about:
            self.text(x, self.y, word, grey=0.4)
            start = x + 0.25 + 0.17 * len(word)
            end = x + wide if wide else self.width - RIM
            self.text(start + 0.05, self.y + 0.02, value)
            self.line([(start, self.y - 0.08), (end - 0.2, self.y - 0.08)], width=0.4, grey=0.6)
            x = end
        self.y -= 0.55
        for words in preparation:
            for part in self.split(words, self.width - 2 * RIM):
                self.text(RIM, self.y, part, size=SMALL, grey=0.3)
                self.y -= LINE
        self.text(
            RIM,
            self.y - 0.1,
            "Read twice; a third time where the two differ by more than the tolerance. Cross one out:  cm  /  inches",
            size=SMALL + 0.6,
        )
        self.y -= 0.5

    def station(
        self,
        title: str,
        stand: str,
        rows: Sequence[Measure],
        first: int,
        figure: Figure,
        sheet: Sheet | None,
    ) -> None:
        left = RIM + FIGURE_WIDTH + 0.5
        text_width = self.width - RIM - left - _READINGS * (BOX_WIDTH + BOX_GAP) - 0.3
        split = [self.split(_how(what), text_width) for what in rows]
        heights = [LINE * (max(len(lines), FEWEST_LINES) + 1.1) + ROW_AIR for lines in split]
        window = _window(figure, rows)
        drawn = (window.top - window.low) * window.scale
        if self.y - max(sum(heights), drawn) - 1.1 < RIM + 0.8:
            self.turn()
        self.line([(RIM, self.y), (self.width - RIM, self.y)], width=0.8, grey=0.2)
        self.text(RIM, self.y - 0.5, title, size=TEXT + 2, bold=True)
        self.text(left, self.y - 0.5, stand, size=SMALL + 0.4, grey=0.35)
        self.y -= 0.95
        self._figure(figure, rows, first, window)
        y = self.y
        for at, (what, lines, height) in enumerate(zip(rows, split, heights, strict=True)):
            self.text(left, y - LINE, f"{first + at}", bold=True)
            self.text(left + 0.65, y - LINE, what.name, bold=True)
            for down, words in enumerate(lines, start=2):
                self.text(left + 0.65, y - LINE * down - 0.03, words, size=SMALL, grey=0.35)
            self._boxes(what, y, sheet)
            y -= height
        self.y = min(y, self.y - drawn) - 0.35

    def _boxes(self, what: Measure, y: float, sheet: Sheet | None) -> None:
        x = self.width - RIM - _READINGS * (BOX_WIDTH + BOX_GAP) + BOX_GAP
        texts = _readings(what, sheet)
        for box in range(_READINGS):
            self.line([(x, y - 0.62), (x + BOX_WIDTH, y - 0.62)], width=0.5, grey=0.35)
            if box < len(texts):
                reading, other = texts[box]
                self.text(x + 0.1, y - 0.5, reading, size=TEXT + 1)
                rest = texts[_READINGS:] if box == _READINGS - 1 else []
                under = ", ".join([other, *(f"then {more} {there}" for more, there in rest)])
                self.text(x + 0.1, y - 0.92, under, size=SMALL, grey=0.45)
            x += BOX_WIDTH + BOX_GAP

    def _figure(self, figure: Figure, rows: Sequence[Measure], first: int, window: "_Window") -> None:
        """Draw the views that this station's tapes run on, with their numbers beside them."""
        top, low, scale = window.top, window.low, window.scale
        column_width = FIGURE_WIDTH / len(window.views)
        for column, view in enumerate(window.views):
            middle = RIM + column_width * (column + 0.5)

            def placed(line: Sequence[Point], middle: float = middle) -> list[Point]:
                return [(middle + x * scale, self.y - (top - y) * scale) for x, y in line]

            self.canvas.saveState()
            frame = self.canvas.beginPath()
            corner = (middle - column_width / 2, self.y - (top - low) * scale)
            frame.rect(*(v * POINTS_PER_CM for v in (*corner, column_width, (top - low) * scale)))
            self.canvas.clipPath(frame, stroke=0)
            outline = placed(figure.outlines[view])
            self.line([*outline, outline[0]], width=0.7, grey=0.35)
            for detail in figure.details[view]:
                self.line(placed(detail), width=0.3, grey=0.7)
            self.canvas.restoreState()
            ends: list[tuple[Point, str]] = []
            for at, what in enumerate(rows):
                if _shown_view(figure, what) == view:
                    for tape in figure.tapes[what.symbol]:
                        if tape.view == view:
                            line = placed(tape.line)
                            self.line(line, width=0.9, colour=_TAPE)
                            lies = abs(line[0][1] - line[-1][1]) < NUMBER_APART
                            ends.append((max(line) if lies else line[-1], str(first + at)))
            self._numbers(ends, middle + window.broad * scale + 0.3)

    def _numbers(self, ends: Sequence[tuple[Point, str]], x: float) -> None:
        """Write the tapes' numbers below each other at their side, each with a hair to its tape."""
        y = float("inf")
        for (end_x, end_y), text in sorted(ends, key=lambda end: -end[0][1]):
            y = min(end_y, y - NUMBER_APART)
            self.line([(end_x, end_y), (x - 0.05, y)], width=0.2, grey=0.6)
            self.canvas.setFillColorRGB(*_TAPE)
            self.canvas.setFont("Helvetica-Bold", 6.4)
            self.canvas.drawString(x * POINTS_PER_CM, (y - 0.08) * POINTS_PER_CM, text)


@dataclass(frozen=True, slots=True)
class _Window:
    """What of the figure a station shows: its views, from which height to which, how broad, and at which scale."""

    views: Sequence[str]
    top: float
    low: float
    broad: float
    scale: float


def _window(figure: Figure, rows: Sequence[Measure]) -> _Window:
    """Return the views that the measures' tapes run on, as near as the tapes allow."""
    views = [v for v in VIEWS if any(_shown_view(figure, what) == v for what in rows)]
    heights = [y for what in rows for tape in figure.tapes[what.symbol] for _, y in tape.line]
    outline = figure.outlines["front"]
    top = min(max(heights) + AROUND, max(y for _, y in outline) + 1)
    low = max(min(heights) - AROUND, min(y for _, y in outline) - 1)
    broad = max(x for x, _ in outline)
    column_width = FIGURE_WIDTH / len(views)
    scale = min(FIGURE_HEIGHT / (top - low), (column_width - 2 * NUMBER_COLUMN) / (2 * broad))
    return _Window(views, top, low, broad, scale)


def _how(what: Measure) -> str:
    return wording.plain(what.how) + ("  Left and right apart where they differ." if what.sides else "")


def _shown_view(figure: Figure, what: Measure) -> str:
    """Return the view in which a measure's tape is shown on paper: the first that it runs on."""
    return figure.tapes[what.symbol][0].view


def _readings(what: Measure, sheet: Sheet | None) -> list[tuple[str, str]]:
    """Return what stands in the boxes: each reading as typed, and under it the same in the other unit."""
    if sheet is None:
        return []
    keys = [key for key in (what.symbol, f"{what.symbol}.left", f"{what.symbol}.right") if key in sheet.taken]
    found: list[tuple[str, str]] = []
    for key in keys:
        side = key[len(what.symbol) :].replace(".", " ")
        for reading in sheet.taken[key].readings:
            other = Unit.INCH if reading.unit is Unit.CM else Unit.CM
            stated = reading.text.strip() if what.kind == "cup" else f"{reading.text.strip()} {reading.unit.value}"
            found.append((stated, f"{show_length(reading.cm, unit=other)}{side}"))
    return found
