"""Panels from outlines that came as drawn lines: traced, read from a file, or of a piece that there is already."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import atan2, degrees

from izett.draping.form import line_names, upright_of
from izett.draping.panel import LineSaid, Mark, MarkKind, Panel, name_of
from izett.draping.ring import APEX, LEAST_CORNERS, is_dart
from izett.geometry.curve import Curve, joined
from izett.geometry.outline import gap, signed_area
from izett.geometry.point import Point, cross, distance, dot
from izett.pattern.facts import CENTRE_LINES, Role
from izett.pattern.piece import Piece

#: Degrees. Where two parts of an outline meet at less than this, they are one line.
CORNER = 12.0
#: Decimals of a cm in which marks are kept: finer than any tool draws.
DECIMALS = 4


@dataclass(frozen=True, slots=True)
class Named:
    """A line of an outline, and what it is called."""

    name: str
    curve: Curve


def panel_from_lines(
    title: str, lines: Sequence[Named], *, notches: Sequence[Point] = (), roles: Sequence[Role | None] = ()
) -> Panel:
    """Return a panel of lines that came as drawn: a cross at each corner, a notch at each notch.

    Args:
        title: what it is called.
        lines: from corner to corner, all the way round, either way; a dart's legs are called as a dart.
        notches: places on them.
        roles: of the lines, where they are known.
    """
    marks: list[Mark] = []
    drawn: dict[str, list[tuple[Point, ...]]] = {}
    known: dict[str, Role] = {}
    for i, line in enumerate(lines):
        corner = tuple(dict.fromkeys((lines[i - 1].name, line.name)))
        marks.append(_mark(MarkKind.CROSS, line.curve.start, corner))
        here = [spot for spot in notches if _nearest(lines, spot) == i]
        for spot in sorted(here, key=lambda spot: distance(spot, line.curve.start)):
            marks.append(_mark(MarkKind.NOTCH, spot, (line.name,)))
        if not is_dart(line.name):
            drawn.setdefault(line.name, []).append(tuple(_rounded(spot) for spot in line.curve.points))
            role = roles[i] if roles else None
            if role is not None:
                known[line.name] = role
    said = {name: LineSaid(role=known.get(name), drawn=tuple(parts)) for name, parts in drawn.items()}
    return Panel(name=name_of(title), title=title, marks=tuple(marks), lines=said)


def panel_from_piece(piece: Piece, *, level: float = 0.0) -> Panel:
    """Return a piece as a given panel: the same lines to the last point, and what they are.

    Args:
        piece: drafted, or read from a file.
        level: height of the level guide in the piece's frame, cm.
    """
    names = line_names(piece)
    x0 = upright_of(piece)

    def moved(spot: Point) -> Point:
        return (spot[0] - x0, spot[1] - level)

    lines = [Named(names[edge.lineage], edge.curve.mapped(moved)) for edge in piece.edges]
    panel = panel_from_lines(piece.title, lines, roles=[edge.role for edge in piece.edges])
    inside = [_mark(MarkKind.CROSS, moved(piece.marks[APEX]), (), APEX)] if APEX in piece.marks else []
    inside += [
        _mark(MarkKind.CROSS, moved(spot), (diamond.name.rsplit(".", 1)[-1],))
        for diamond in piece.diamonds
        for spot in diamond.outline
    ]
    on_fold = next((names[edge.lineage] for edge in piece.edges if edge.lineage == piece.on_fold), "")
    folds = {Role.FOLD, *CENTRE_LINES}
    return panel.model_copy(
        update={
            "marks": (*panel.marks, *inside),
            "zone": piece.zone,
            "region": piece.region,
            "half": piece.half,
            "layer": piece.layer,
            "cut": piece.cut,
            "fold": on_fold if any(edge.role in folds for edge in piece.edges) else "",
        }
    )


def lines_from_ring(parts: Sequence[Curve]) -> list[Curve]:
    """Return the lines of a closed outline, from corner to corner: parts that run on smoothly are one line.

    Args:
        parts: each begins where the one before ends, and the first where the last ends.
    """
    ring = [part for part in parts if distance(part.start, part.end) > 10**-DECIMALS or len(part.points) > 2]
    corners = [i for i, part in enumerate(ring) if _turn(ring[i - 1], part) > CORNER] or [0]
    lines = []
    for n, start in enumerate(corners):
        end = corners[(n + 1) % len(corners)]
        run = ring[start:end] if end > start else [*ring[start:], *ring[:end]]
        lines.append(run[0] if len(run) == 1 else joined([cubic for part in run for cubic in part.cubics()]))
    lines = three_at_least(lines)
    flat = [spot for line in lines for spot in line.flattened()[:-1]]
    return lines if signed_area(flat) > 0 else [line.reversed() for line in reversed(lines)]


def three_at_least(lines: Sequence[Curve]) -> list[Curve]:
    """Return the lines of an outline; of one with fewer than three corners the longest line is parted until it has three."""
    found = list(lines)
    while len(found) < LEAST_CORNERS:
        longest = max(range(len(found)), key=lambda i: found[i].length)
        found[longest : longest + 1] = found[longest].split(found[longest].length / 2)
    return found


def _turn(before: Curve, after: Curve) -> float:
    a, b = before.end_direction, after.start_direction
    return abs(degrees(atan2(cross(a, b), dot(a, b))))


def _nearest(lines: Sequence[Named], spot: Point) -> int:
    return min(range(len(lines)), key=lambda i: gap(lines[i].curve.flattened(), spot))


def _mark(kind: MarkKind, spot: Point, lines: tuple[str, ...], name: str = "") -> Mark:
    across, along = _rounded(spot)
    return Mark(kind=kind, across=across, along=along, lines=lines, name=name)


def _rounded(spot: Point) -> Point:
    return (round(spot[0], DECIMALS), round(spot[1], DECIMALS))
