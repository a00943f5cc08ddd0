"""How wide the garment is at the levels of the body, total around, and where those levels lie on the pieces."""

from collections.abc import Mapping
from itertools import pairwise

from izett.errors import ReferenceLost
from izett.pattern.document import Pattern, Piece, Role
from izett.pattern.remembered import Remembered
from izett.pattern.sewn import holding, resolved, seam_lengths, span_length

#: Where the pattern has a level more than once around the body: half the garment is drawn; a sleeve is drawn whole.
SIDES: Mapping[str, int] = {"bicep": 1, "elbow": 1, "wrist": 1}

#: cm. From the bust line to the ribs under it, where that was not measured.
BREADTH = 7.0

#: cm. Ease wanted at places that the fit does not name, until a step means to move it: a neck, a wrist that the hand
#: passes, a shoulder. Common practice, no single source.
PLACES: Mapping[str, float] = {"neck": 1.5, "wrist": 6.0, "shoulder": 0.0}


def place_width(pattern: Pattern, place: str) -> float:
    """Return how wide a place that is no level is, cm: neck and wrist around, a shoulder along; 0 where there is none."""
    if place == "neck":
        return 2 * sum(e.curve.length * p.of_half for p in pattern for e in p.edges if e.role is Role.NECK)
    if place == "wrist":
        return sum(e.curve.length for p in pattern if is_sleeve(p) for e in p.edges if e.role is Role.HEM)
    seam = next((s for s in pattern.seams if s.name == place), None)
    try:
        return seam_lengths(pattern, seam)[0] if seam is not None else 0.0
    except ReferenceLost:
        return 0.0


def sides_of(level: str) -> int:
    """Return how often what is drawn of a level goes around the body."""
    return SIDES.get(level, 2)


def width(pattern: Pattern, level: str) -> float:
    """Return the garment's width at a level, total around in cm, darts shut; 0 where it has none."""
    return _widths.of(pattern, level, lambda: _width(pattern, level))


#: What a step leaves is what the next one begins with: its widths are asked for twice.
_widths: Remembered[float] = Remembered(256)


def _width(pattern: Pattern, level: str) -> float:
    spans = pattern.intent.along.get(level)
    if spans is None:
        half = sum(piece.level(level) * piece.of_half for piece in pattern)
    else:
        try:
            parts = [part for span in spans for part in resolved(pattern, span)]
            half = 0.0
            for part in parts:
                piece = holding(pattern, part.start)
                # A span runs over one half, of a whole piece too; a half on the fold that is cut twice is front and back.
                half += span_length(piece, part) * (piece.of_half if piece.on_fold else 1)
        except ReferenceLost:
            return 0.0
    return half * sides_of(level)


def levels(pattern: Pattern) -> list[str]:
    """Return the levels that a pattern has, from lines on its pieces and from spans."""
    return list(dict.fromkeys([*(line.level for piece in pattern for line in piece.lines), *pattern.intent.along]))


def is_sleeve(piece: Piece) -> bool:
    """Return whether a piece goes around an arm."""
    return any(line.level in SIDES for line in piece.lines)


def height_of(pattern: Pattern, body: Mapping[str, float], key: str) -> float | None:
    """Return the height over the waist (cm) at which the body has a level, on an unaltered draft's frame; or None."""
    below = {"stomach": "waist_to_stomach", "high_hip": "waist_to_high_hip", "underbust": "waist_to_underbust"}
    if key in below and below[key] in body:
        return body[below[key]] if key == "underbust" else -body[below[key]]
    if key == "waist":
        return 0.0
    bust = next((line.points[0][1] for p in pattern for line in p.lines if line.level == "bust"), None)
    if bust is None:
        return None
    # A hand's breadth below the bust line, where it was not measured.
    return bust - BREADTH if key == "underbust" else None


def around(pattern: Pattern, height: float) -> float:
    """Return the garment's width at a height, total around in cm, straight across the paper of front and back."""
    return 2 * sum(
        across(piece, height) * piece.of_half
        for piece in pattern
        if not is_sleeve(piece) and ("front" in piece.part or "back" in piece.part)
    )


def across(piece: Piece, height: float) -> float:
    """Return how much paper lies straight across a piece at a height, cm; what darts take in is left out."""
    points = piece.outline()
    xs = sorted(
        a[0] + (b[0] - a[0]) * (height - a[1]) / (b[1] - a[1])
        for a, b in pairwise([*points, points[0]])
        if (a[1] - height) * (b[1] - height) < 0
    )
    return sum(b - a for a, b in zip(xs[::2], xs[1::2], strict=False)) - sum(
        d.intake for d in piece.diamonds if min(d.top[1], d.bottom[1]) < height < max(d.top[1], d.bottom[1])
    )
