"""Two states of a pattern laid over each other: how far each line moved, the largest move first."""

from dataclasses import dataclass, replace

from izett.errors import ReferenceLost
from izett.geometry.motion import Motion
from izett.geometry.outline import farthest_apart
from izett.geometry.point import Point, subtract, turn
from izett.pattern.copies import moved
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


@dataclass(frozen=True, slots=True)
class LaidAt:
    """Where two sheets are held: a piece, the corner that is pinned, and the line from it that is laid on itself."""

    piece: str
    corner: str
    line: str


def laid_at(under: Pattern, over: Pattern, at: LaidAt) -> Pattern:
    """Return the sheet under another with one piece shifted and turned: its corner on the same corner, its line on its line.

    The other pieces lie as they were drafted.

    Raises:
        ReferenceLost: one of the sheets has no such piece, corner, or line that begins or ends there.
    """
    under = doubled(under, over)
    own, to = (_held(sheet, at) for sheet in (under, over))
    slid = Motion.sliding(subtract(to[0], own[0]))
    motion = slid.then(Motion.turning(turn(own[1], to[1]), about=to[0]))
    return replace(under, pieces=tuple(moved(p, motion) if p.name == at.piece else p for p in under))


def _held(sheet: Pattern, at: LaidAt) -> tuple[Point, Point]:
    """Return where a corner lies, and which way the chord of the line goes from it."""
    piece = sheet.find_piece(at.piece)
    corner = piece.aliases.get(at.corner, at.corner) if piece else at.corner
    for edge in piece.edges if piece else ():
        if edge.lineage == at.line and corner in (edge.start, edge.end):
            a, b = edge.curve.start, edge.curve.end
            return (a, subtract(b, a)) if edge.start == corner else (b, subtract(a, b))
    raise ReferenceLost(
        "The sheets cannot be laid together there: one of them has no such corner on that line.",
        fix="Choose a piece, a corner and a line that both sheets have.",
        where=(at.piece, at.corner, at.line),
    )


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
