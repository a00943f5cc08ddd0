"""Two states of a pattern laid over each other: how far each line moved, the largest move first."""

from dataclasses import dataclass

from izett.geometry.outline import farthest_apart
from izett.geometry.point import Point
from izett.pattern.document import Pattern
from izett.pattern.halves import doubled
from izett.pattern.piece import Piece

#: cm. Lines closer than this count as unmoved: a hair of the pencil.
UNMOVED = 0.01
#: cm. Lines are compared as chords this close to them: under half of what is shown.
COMPARED = 0.02


@dataclass(frozen=True, slots=True)
class LineMove:
    """How one line moved.

    Attributes:
        piece, lineage: the line.
        distance: the largest distance between old and new, cm.
        length_before, length_after: its length without dart mouths, cm.
        leg: whether it is a dart's legs, not a line of the outline.
    """

    piece: str
    lineage: str
    distance: float
    length_before: float
    length_after: float
    leg: bool = False


def moves(before: Pattern, after: Pattern) -> list[LineMove]:
    """Return the lines that moved, the largest move first, of each half. Unchanged pieces cost nothing."""
    before, after = doubled(before, after), doubled(after, before)
    old = {piece.name: piece for piece in before}
    found: list[LineMove] = []
    for piece in after:
        was = old.get(piece.name)
        if was is None or was is piece:
            continue
        lines, old_lines = _lines(piece), _lines(was)
        for lineage, curves in lines.items():
            if lineage not in old_lines:
                continue
            apart = farthest_apart(old_lines[lineage], curves)
            if apart >= UNMOVED:
                legs = any(e.is_leg for e in piece.edges if e.lineage == lineage)
                long = _length(was, lineage), _length(piece, lineage)
                found.append(LineMove(piece.name, lineage, apart, *long, legs))
    return sorted(found, key=lambda move: -move.distance)


def _lines(piece: Piece) -> dict[str, list[list[Point]]]:
    lines: dict[str, list[list[Point]]] = {}
    for edge in piece.edges:
        lines.setdefault(edge.lineage, []).append(edge.curve.flattened(flatness=COMPARED))
    return lines


def _length(piece: Piece, lineage: str) -> float:
    return sum(edge.curve.length for edge in piece.edges if edge.lineage == lineage)
