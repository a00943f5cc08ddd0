"""Fourteen builds on invented bodies, drawn to one scale each: to be judged by eye whenever a block changes."""

from izett.drafting.ease import Cloth
from izett.pattern.document import Pattern
from izett.pattern.piece import Piece
from tests.core.blocks import drafted

MIDDLING = {"bust_girth": 92.0, "waist_girth": 74.0, "hip_girth": 98.0, "height": 168.0, "high_bust_girth": 87.0}
LARGE = {"bust_girth": 124.0, "waist_girth": 112.0, "hip_girth": 126.0, "height": 160.0, "high_bust_girth": 114.0}
FULL_HIP = {"bust_girth": 88.0, "waist_girth": 66.0, "hip_girth": 104.0, "height": 170.0, "high_bust_girth": 85.0}
FULL_CUP = {"bust_girth": 104.0, "waist_girth": 76.0, "hip_girth": 100.0, "height": 172.0, "high_bust_girth": 90.0}

BUILDS = (
    ("Bodice, sleeve and skirt, fitted", ["bodice", "sleeve", "skirt"], MIDDLING, {}),
    ("The same on a large figure", ["bodice", "sleeve", "skirt"], LARGE, {}),
    ("Full cup: the dart in two", ["bodice", "sleeve"], FULL_CUP, {}),
    ("One dart, and a shoulder dart", ["bodice"], MIDDLING, {"schools": {"darts": "one", "shoulder": "dart"}}),
    ("Loose bodice with its sleeve", ["bodice", "sleeve"], MIDDLING, {"fit": "loose"}),
    ("Torso with its sleeve", ["torso", "sleeve"], MIDDLING, {}),
    ("Torso on a full hip", ["torso"], FULL_HIP, {}),
    ("Skirt on a full hip", ["skirt"], FULL_HIP, {}),
    ("Trousers", ["trousers"], MIDDLING, {}),
    ("Loose trousers with a pleat", ["trousers"], LARGE, {"fit": "loose", "schools": {"front_fullness": "pleat"}}),
    (
        "Close knit top, 50 % stretch",
        ["knit_top", "knit_sleeve"],
        MIDDLING,
        {"fit": "close", "cloth": Cloth("knit", 50)},
    ),
    ("Easy knit top, 30 % stretch", ["knit_top", "knit_sleeve"], FULL_CUP, {"fit": "easy", "cloth": Cloth("knit", 30)}),
    ("Knit pencil skirt", ["knit_skirt"], MIDDLING, {"fit": "close", "cloth": Cloth("knit", 50)}),
    ("Straight-cut shirt", ["straight_shirt"], MIDDLING, {}),
)
#: cm between pieces; pixels of a cell and of its title.
GAP, CELL, TITLE = 5.0, (320, 262), 20


def sheet_of_builds() -> tuple[str, int, int]:
    """Return all builds as one SVG, with its width and height in pixels."""
    return sheet_of([(title, drafted(blocks, body, **choices).pattern) for title, blocks, body, choices in BUILDS])


def sheet_of(patterns: list[tuple[str, Pattern]], across: int = 4) -> tuple[str, int, int]:
    """Return patterns with their titles as one SVG, with its width and height in pixels."""
    cells = []
    for i, (title, pattern) in enumerate(patterns):
        x, y = i % across * CELL[0], i // across * CELL[1]
        cells.append(f'<text x="{x + 10}" y="{y + 15}" font-size="12">{title}</text>')
        cells.append(_drawn(pattern, x, y + TITLE))
    width, height = across * CELL[0], -(-len(patterns) // across) * CELL[1]
    body = "".join(cells)
    return f'<svg viewBox="0 0 {width} {height}" width="{width}" font-family="sans-serif">{body}</svg>', width, height


def _drawn(pattern: Pattern, x: float, y: float) -> str:
    boxes = [_box(piece) for piece in pattern]
    wide = sum(box[2] - box[0] for box in boxes) + GAP * (len(boxes) - 1)
    top, foot = max(box[3] for box in boxes), min(box[1] for box in boxes)
    scale = min((CELL[0] - 24) / wide, (CELL[1] - TITLE - 14) / (top - foot))
    parts, left = [], 0.0
    for piece, box in zip(pattern, boxes, strict=True):
        place = f"translate({x + 12 + (left - box[0]) * scale} {y + top * scale}) scale({scale} {-scale})"
        parts.append(
            f'<g transform="{place}" fill="none" stroke="#222" stroke-width="{1.1 / scale}">{_paths(piece)}</g>'
        )
        left += box[2] - box[0] + GAP
    return "".join(parts)


def _box(piece: Piece) -> tuple[float, float, float, float]:
    xs, ys = zip(*piece.outline(), strict=True)
    return min(xs), min(ys), max(xs), max(ys)


def _paths(piece: Piece) -> str:
    def path(points, more: str = "") -> str:
        return f'<path d="M{"L".join(f"{a:.3f} {b:.3f}" for a, b in points)}" {more}/>'

    lines = [path([*piece.outline(), piece.outline()[0]], 'fill="#fbfaf5"')]
    lines += [path([*diamond.outline, diamond.top]) for diamond in piece.diamonds]
    lines += [path(line.points, 'stroke="#999" stroke-dasharray="1 1.4"') for line in piece.lines]
    return "".join(lines)
