"""SVG in true size: millimetres, one group a piece, classes for cutting line, sewing line, marks and text."""

from collections.abc import Sequence
from html import escape

from izett.finishing.sheet import SheetPiece, label_place, name_place
from izett.geometry.point import Point

#: mm. Space around and between pieces on the sheet.
MARGIN = 10.0
#: Decimals of a millimetre that are written: a thousandth, far under a pencil line.
DECIMALS = 3
#: mm. Height of the label's lettering and the step from line to line.
LETTERING, LINE_STEP = 4.0, 5.5
#: mm. The ring of what is drilled.
DRILL = 1.5

_STYLE = (
    ".cut{fill:none;stroke:#222;stroke-width:.5}"
    ".sew{fill:none;stroke:#222;stroke-width:.3;stroke-dasharray:4 2}"
    ".mark,.dart,.grain{fill:none;stroke:#222;stroke-width:.3}"
    ".level{fill:none;stroke:#777;stroke-width:.2;stroke-dasharray:4 2}"
    ".fold{fill:none;stroke:#222;stroke-width:1;stroke-dasharray:12 4 2 4}"
    ".place{font-size:3px}"
    f"text{{font:{LETTERING}px sans-serif;fill:#222}}"
)


def write_svg(sheets: Sequence[SheetPiece]) -> str:
    """Return an SVG document with the pieces side by side, 1 unit = 1 mm, y down."""
    groups: list[str] = []
    left = MARGIN
    height = 0.0
    for sheet in sheets:
        x0, y0, x1, y1 = (v * 10 for v in sheet.bounds)
        groups.append(_group(sheet, shift=(left - x0, MARGIN + y1)))
        left += x1 - x0 + MARGIN
        height = max(height, y1 - y0)
    width, height = round(left, DECIMALS), round(height + 2 * MARGIN, DECIMALS)
    return (
        '<?xml version="1.0" encoding="UTF-8"?>\n'
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width}mm" height="{height}mm" '
        f'viewBox="0 0 {width} {height}">\n<style>{_STYLE}</style>\n' + "\n".join(groups) + "\n</svg>\n"
    )


def _group(sheet: SheetPiece, *, shift: Point) -> str:
    def path(points: Sequence[Point], *, closed: bool = False) -> str:
        spots = " L".join(f"{_mm(x, shift[0], 1)} {_mm(y, shift[1], -1)}" for x, y in points)
        return f"M{spots}{' Z' if closed else ''}"

    parts = [
        f'<g id="{escape(sheet.piece.name)}">',
        f'<path class="cut" d="{path(sheet.cutting, closed=True)}"/>',
        f'<path class="sew" d="{path(sheet.sewing, closed=True)}"/>',
    ]
    if sheet.fold is not None:
        parts.append(f'<path class="fold" d="{path(sheet.fold)}"/>')
    parts += [f'<path class="dart" d="{path(dart.legs)}"/>' for dart in sheet.darts if dart.sewn]
    parts += [f'<path class="dart" d="{path(diamond)}"/>' for diamond in sheet.diamonds]
    parts += [f'<path class="level" d="{path(level)}"/>' for level in sheet.inner_lines]
    parts += [f'<path class="mark" d="{path(mark)}"/>' for mark in sheet.notches]
    for place in sheet.places:
        x, y = name_place(place)
        words = f'<text class="place" x="{_mm(x, shift[0], 1)}" y="{_mm(y, shift[1], -1)}">{escape(place.level)}</text>'
        parts += [f'<path class="mark" d="{path(place.points)}"/>', words]
    parts += [
        f'<circle class="mark" cx="{_mm(x, shift[0], 1)}" cy="{_mm(y, shift[1], -1)}" r="{DRILL}"/>'
        for x, y in sheet.drills
    ]
    parts += [f'<path class="grain" d="{path(line)}"/>' for line in (sheet.grain, *sheet.signs)]
    x, y = label_place(sheet)
    for number, text in enumerate(sheet.label):
        parts.append(
            f'<text x="{_mm(x, shift[0], 1)}" y="{round(shift[1] - y * 10 + number * LINE_STEP, DECIMALS)}">{escape(text)}</text>'
        )
    return "\n".join([*parts, "</g>"])


def _mm(cm: float, shift: float, way: int) -> float:
    return round(shift + way * cm * 10, DECIMALS)
