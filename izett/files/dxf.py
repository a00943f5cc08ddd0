"""Plain DXF: for each piece its sewing line and its cutting line as closed polylines, in millimetres, on layers of their own."""

from collections.abc import Sequence
from io import StringIO

from izett.finishing.sheet import SheetPiece

#: mm. Space between pieces.
SPACE = 20.0
_MM = 4


def write_dxf(sheets: Sequence[SheetPiece]) -> str:
    """Return a DXF drawing of pieces side by side, 1 unit = 1 mm, y up."""
    from ezdxf.filemanagement import new  # noqa: PLC0415

    document = new("R2010", units=_MM)
    space = document.modelspace()
    left = 0.0
    for sheet in sheets:
        x0, y0, x1, _ = sheet.bounds
        name = sheet.piece.name.upper()
        for suffix, line in (("SEW", sheet.sewing), ("CUT", sheet.cutting)):
            layer = f"{name}_{suffix}"
            document.layers.add(layer)
            spots = [((x - x0) * 10 + left, (y - y0) * 10) for x, y in line]
            space.add_lwpolyline(spots, close=True, dxfattribs={"layer": layer})
        space.add_text(sheet.piece.title, height=8, dxfattribs={"layer": f"{name}_SEW"}).set_placement((left, -12))
        left += (x1 - x0) * 10 + SPACE
    stream = StringIO()
    document.write(stream)
    return stream.getvalue()
