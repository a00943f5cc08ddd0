"""How wide the garment is at the levels of the body, total around, and where those levels lie on the pieces."""

from collections.abc import Mapping

from izett.errors import ReferenceLost
from izett.pattern.document import Pattern
from izett.pattern.sewn import holding, resolved, span_length

#: Where the pattern has a level more than once around the body: half the garment is drawn; a sleeve is drawn whole.
SIDES: Mapping[str, int] = {"bicep": 1, "elbow": 1, "wrist": 1}


def sides_of(level: str) -> int:
    """Return how often what is drawn of a level goes around the body."""
    return SIDES.get(level, 2)


def width(pattern: Pattern, level: str) -> float:
    """Return the garment's width at a level, total around in cm, darts shut; 0 where it has none."""
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
