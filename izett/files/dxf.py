"""DXF in millimetres, y up, pieces side by side: a plain one, and one with the layer numbers that cutting rooms use.

Plain: for each piece its cutting line and its sewing line as closed polylines, its marks and its words, each on a layer
called after the piece. By number, after ASTM D6673 (from memory): 1 boundary (the cutting line), 2 its corners, 3 points
of its curves, 4 notches, 6 fold line, 7 grain, 8 lines within the piece, 11 cutouts within it, 13 drill holes, 14 sewing
line, 15 words.
"""

import re
from collections.abc import Mapping, Sequence
from enum import IntEnum
from io import StringIO
from math import cos, radians
from typing import TYPE_CHECKING

from izett.finishing.sheet import SheetPiece, label_place, name_place
from izett.geometry.point import Point, distance, dot, subtract, unit

if TYPE_CHECKING:
    from ezdxf.layouts.layout import Modelspace

#: mm. Space between pieces; how tall letters are, and the step from line to line.
SPACE, LETTERING, LINE_STEP = 20.0, 5.0, 8.0
#: DXF's own number for millimetres.
_MM = 4
#: Cosine of the turn from which a corner of the boundary is a turn of it, and no point of a curve: 20°.
TURNS = cos(radians(20))


class Layer(IntEnum):
    """The layers by number, after ASTM D6673, from memory."""

    BOUNDARY = 1
    TURNS = 2
    CURVES = 3
    NOTCHES = 4
    FOLD = 6
    GRAIN = 7
    WITHIN = 8
    CUTOUTS = 11
    DRILLS = 13
    SEWING = 14
    WORDS = 15


#: What has a layer of its own in a plain drawing; all else is marks.
PLAIN = {Layer.BOUNDARY: "CUT", Layer.SEWING: "SEW", Layer.WORDS: "WORDS"}


def write_dxf(sheets: Sequence[SheetPiece], *, numbered: bool = False) -> str:
    """Return a DXF drawing of pieces, 1 unit = 1 mm; `numbered` for the layers by number."""
    from ezdxf.filemanagement import new  # noqa: PLC0415

    document = new("R2010", units=_MM)
    space = document.modelspace()
    left = 0.0
    for sheet in sheets:
        x0, y0, x1, _ = sheet.bounds
        move = _Move((left / 10 - x0, -y0))
        names = {layer: str(layer.value) for layer in Layer} if numbered else _plain(sheet)
        for name in names.values():
            if name not in document.layers:
                document.layers.add(name)
        _draw(space, sheet, move, names, corners=numbered)
        left += (x1 - x0) * 10 + SPACE
    stream = StringIO()
    document.write(stream)
    return stream.getvalue()


def _plain(sheet: SheetPiece) -> dict[Layer, str]:
    """Return the layers of a piece by its name: some characters no layer can have, such as what marks a right half."""
    name = re.sub(r"[^\w -]", "_", sheet.piece.name).upper()
    return {layer: f"{name}_{PLAIN.get(layer, 'MARKS')}" for layer in Layer}


class _Move:
    """From a piece's cm to the drawing's mm."""

    def __init__(self, by: Point) -> None:
        self.by = by

    def __call__(self, spot: Point) -> Point:
        return (spot[0] + self.by[0]) * 10, (spot[1] + self.by[1]) * 10

    def all(self, spots: Sequence[Point]) -> list[Point]:
        return [self(spot) for spot in spots]


def _draw(space: "Modelspace", sheet: SheetPiece, move: _Move, names: Mapping[Layer, str], *, corners: bool) -> None:
    """Draw a piece on its layers; `corners` for the points of its boundary, told apart."""

    def on(layer: Layer) -> dict[str, str]:
        return {"layer": names[layer]}

    space.add_lwpolyline(move.all(sheet.cutting), close=True, dxfattribs=on(Layer.BOUNDARY))
    for spot, before, after in _around(sheet.cutting) if corners else ():
        layer = Layer.CURVES if _runs_on(before, spot, after) else Layer.TURNS
        space.add_point(move(spot), dxfattribs=on(layer))
    if sheet.cutting != sheet.sewing:
        space.add_lwpolyline(move.all(sheet.sewing), close=True, dxfattribs=on(Layer.SEWING))
    for a, b in sheet.notches:
        space.add_line(move(a), move(b), dxfattribs=on(Layer.NOTCHES))
    if sheet.fold is not None:
        space.add_line(move(sheet.fold[0]), move(sheet.fold[1]), dxfattribs=on(Layer.FOLD))
    space.add_line(move(sheet.grain[0]), move(sheet.grain[1]), dxfattribs=on(Layer.GRAIN))
    # By number the layer says what a line is; by name it is seen.
    for line in () if corners else sheet.signs:
        space.add_lwpolyline(move.all(line), dxfattribs=on(Layer.GRAIN))
    legs = [dart.legs for dart in sheet.darts if dart.sewn]
    for line in (*legs, *sheet.diamonds, *sheet.inner_lines, *(place.points for place in sheet.places)):
        space.add_lwpolyline(move.all(line), dxfattribs=on(Layer.WITHIN))
    for place in sheet.places:
        space.add_text(place.level, height=LETTERING, dxfattribs=on(Layer.WORDS)).set_placement(move(name_place(place)))
    for hole in sheet.drills:
        space.add_point(move(hole), dxfattribs=on(Layer.DRILLS))
    x, y = move(label_place(sheet))
    for number, text in enumerate(sheet.label):
        words = space.add_text(text, height=LETTERING, dxfattribs=on(Layer.WORDS))
        words.set_placement((x, y - number * LINE_STEP))


def _around(ring: Sequence[Point]) -> list[tuple[Point, Point, Point]]:
    """Return each corner of a ring with the one before and the one after it."""
    return list(zip(ring, (ring[-1], *ring[:-1]), (*ring[1:], ring[0]), strict=True))


def _runs_on(before: Point, spot: Point, after: Point) -> bool:
    if distance(before, spot) == 0 or distance(spot, after) == 0:
        return True
    return dot(unit(subtract(spot, before)), unit(subtract(after, spot))) > TURNS
