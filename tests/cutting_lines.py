"""A cutting line looked at all along: at its allowance, no spike, no crossing. Shapely alone reads it."""

from shapely import LineString, Polygon
from shapely import Point as ShapelyPoint

from izett.finishing.cut_line import MITRE_LIMIT

#: cm. How closely a cutting line lies at its allowance, beside what flattening a curve takes.
CLOSE = 0.02


def looked_at(sheet, allowances):
    """Look at a sheet's cutting line all along; return how many places were looked at."""
    cut, sewn = Polygon(sheet.cutting), Polygon(sheet.sewing)
    assert cut.is_valid and cut.buffer(1e-6).covers(sewn), sheet.piece.name
    widest = max(line.width for line in sheet.lines)
    # No spike: nothing that is cut lies further out than a corner may.
    reach = MITRE_LIMIT * max(widest, 0.01) * 1.5
    assert all(sewn.exterior.distance(ShapelyPoint(spot)) <= reach for spot in sheet.cutting)
    seen = 0
    for edge in sheet.piece.edges:
        if edge.is_leg:
            continue
        width, line = allowances.of(sheet.piece, edge), LineString(edge.curve.flattened())
        # Near its ends the corners decide, and where a dart opens its cap.
        clear = 2.5 * widest
        if line.length < 2 * clear + 1:
            continue
        for share in (0.0, 0.25, 0.5, 0.75, 1.0):
            spot = line.interpolate(clear + share * (line.length - 2 * clear))
            if any(LineString(dart.cap).distance(spot) < 2 * widest for dart in sheet.darts):
                continue
            far = cut.exterior.distance(spot)
            assert far <= width + CLOSE, (sheet.piece.name, edge.lineage)
            # Nearer only where another edge of the piece comes near as well.
            other = min(
                (LineString(o.curve.flattened()).distance(spot) for o in sheet.piece.edges if o is not edge), default=99
            )
            assert far >= width - CLOSE or other < width + widest, (sheet.piece.name, edge.lineage)
            seen += 1
    return seen
