"""The cutting line: each line of a piece with its allowance beside it, and the corners built where they meet.

A hem is turned up against the piece: where it meets a side, its end is folded back, cut as a mirror image of what it will
lie against, or it would pull or stand out at a flare. Elsewhere corners are mitred, or squared where the maker says so.
Common practice, no single source.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

from izett.finishing.allowances import Allowances
from izett.finishing.dart_caps import cap_peak
from izett.geometry.outline import (
    LEAST_CORNERS,
    CornerCut,
    apart_from,
    corner_between,
    covers,
    crossing,
    folded_back,
    parallel,
    region,
    squared,
    stretch,
    united,
    without_repeats,
)
from izett.geometry.point import Point, distance, subtract, unit
from izett.pattern import document
from izett.pattern.facts import Role
from izett.pattern.halves import origin
from izett.pattern.piece import Edge, Piece

#: A corner's spike beyond this many times the wider allowance is cut off.
MITRE_LIMIT = 4.0
#: What a hem is folded back at: lines that run up from it.
BESIDE_HEMS = frozenset({Role.SIDE, Role.PANEL, Role.CENTRE_FRONT, Role.CENTRE_BACK, Role.INSEAM, Role.UNDERARM})
#: Cosine of the turn at a corner up to which a parallel line follows by itself: 45°.
RUNS_ON = 0.7


@dataclass(frozen=True, slots=True)
class CutLine:
    """A line of the ring with its allowance.

    Attributes:
        points: its sewing line.
        width: its allowance, cm.
        end: how the corner at its end is cut, and whether it is the line that is turned up or squared, or the next.
        name: of the line that it is, on either half.
    """

    points: tuple[Point, ...]
    width: float
    end: tuple[document.CornerCut, bool] = (document.CornerCut.MITRE, True)
    name: str = ""


def finished_lines(piece: Piece, allowances: Allowances, corners: Mapping[str, document.CutCorner]) -> list[CutLine]:
    """Return the ring as lines with their allowances, each dart replaced by its cap.

    A cap is cut with the allowance of the edge that it interrupts.
    """
    lines: list[CutLine] = []
    width = 0.0
    ring = piece.edges
    for index, edge in enumerate(ring):
        if not edge.is_leg:
            width = allowances.of(piece, edge)
            after = ring[(index + 1) % len(ring)]
            end = _corner(edge, after, (width, allowances.of(piece, after)), corners)
            lines.append(CutLine(tuple(edge.curve.flattened()), width, end, origin(edge.lineage).name))
            continue
        dart = piece.dart(edge.lineage)
        if edge.start == dart.mouth[0]:
            a, b = (piece.vertex(name) for name in dart.mouth)
            # A dart opens into the line that it interrupts.
            name = lines[-1].name if lines else ""
            lines.append(CutLine((a, cap_peak(piece, dart), b), width, name=name))
    return _merged(lines)


def _corner(
    edge: Edge, after: Edge, widths: tuple[float, float], corners: Mapping[str, document.CutCorner]
) -> tuple[document.CornerCut, bool]:
    """Return how the corner after an edge is cut: as the maker says, or as a hem asks for."""
    said = corners.get(origin(edge.end).name)
    if said is not None:
        return said.kind, origin(after.lineage).name != said.along
    roles = (edge.role, after.role)
    if min(widths) > 0 and Role.HEM in roles and BESIDE_HEMS & set(roles):
        return document.CornerCut.FOLDED, edge.role is Role.HEM
    return document.CornerCut.MITRE, True


def _merged(lines: Sequence[CutLine]) -> list[CutLine]:
    """Join neighbouring lines of equal allowance, so that corners are made only where they are needed."""
    joined: list[CutLine] = []
    for line in lines:
        same = joined and (joined[-1].width, joined[-1].name) == (line.width, line.name)
        if same and _runs_on(joined[-1].points, line.points):
            joined[-1] = CutLine((*joined[-1].points, *line.points[1:]), line.width, line.end, joined[-1].name)
        else:
            joined.append(line)
    return joined


def _runs_on(before: Sequence[Point], after: Sequence[Point]) -> bool:
    a, b = unit(subtract(before[-1], before[-2])), unit(subtract(after[1], after[0]))
    return a[0] * b[0] + a[1] * b[1] > RUNS_ON


@dataclass(frozen=True, slots=True)
class _Beside:
    """A line beside its sewing line: the cut."""

    points: list[Point]
    line: CutLine


def cutting_line(lines: Sequence[CutLine]) -> list[Point]:
    """Return the line that is cut along, closed, around lines and their allowances.

    Where a corner cannot be cut as it is meant to be (a strip narrower than its turning), all of them are mitred.
    """
    sewing = region([point for line in lines for point in line.points[:-1]])
    meant = _ring(lines)
    if meant is not None and covers(meant, sewing):
        return meant
    mitred = _ring([replace(line, end=(document.CornerCut.MITRE, True)) for line in lines])
    return _around(lines) if mitred is None else mitred


def turned_under(lines: Sequence[CutLine], turnings: Mapping[str, document.Turning]) -> list[tuple[Point, ...]]:
    """Return where the raw edge of each turned line is folded under: beside its sewing line, at the depth of its turning.

    One that has no more allowance than its depth is turned once: its fold is the sewing line itself.
    """
    found: list[tuple[Point, ...]] = []
    cut = cutting_line(lines)
    for name, turning in turnings.items():
        turned = [replace(x, width=turning.depth) if x.name == name and x.width > turning.depth else x for x in lines]
        if turning.under > 0 and turned != list(lines):
            found += [tuple(part) for part in apart_from(cutting_line(turned), cut)]
    return found


def _ring(lines: Sequence[CutLine]) -> list[Point] | None:
    """Return lines beside each other joined at their corners; None where that gives no sound ring."""
    # An inner curve tighter than its allowance leaves no line beside it: its neighbours then meet.
    beside = [
        _Beside(points, line) for line in lines if len(points := without_repeats(parallel(line.points, line.width))) > 1
    ]
    limit = MITRE_LIMIT * max(line.width for line in lines)
    if len(beside) < LEAST_CORNERS:
        # Lines that meet at both ends are parted: each corner is then one of its own two lines.
        beside = [part for one in beside for part in _parted(one)]
    while len(beside) >= LEAST_CORNERS:
        corners = [_built(one, after, limit) for one, after in pairwise([*beside, beside[0]])]
        starts = [corners[-1].after, *(corner.after for corner in corners[:-1])]
        left = [corner.before - start for corner, start in zip(corners, starts, strict=True)]
        if min(left) > 0:
            spots = [
                spot
                for one, start, corner in zip(beside, starts, corners, strict=True)
                for spot in (*stretch(one.points, start, corner.before), *corner.points)
            ]
            ring = without_repeats([*spots, spots[0]])[:-1]
            return ring if crossing(ring) is None else None
        # A line shorter than what its corners take of it goes: its neighbours meet.
        del beside[left.index(min(left))]
    return None


def _built(one: _Beside, after: _Beside, limit: float) -> CornerCut:
    """Return how two lines meet at their corner; mitred, where they do not meet at the same corner as their sewing lines."""
    plain = corner_between(one.points, after.points, limit=limit)
    kind, of_first = one.line.end
    if kind is document.CornerCut.MITRE or one.line.points[-1] != after.line.points[0]:
        return plain
    build = folded_back if kind is document.CornerCut.FOLDED else squared
    found = build((one.points, after.points), (one.line.points, after.line.points), of_first=of_first, limit=limit)
    return plain if found is None else found


def _around(lines: Sequence[CutLine]) -> list[Point]:
    """Return the line around a piece and the allowance beside each of its lines, where its corners leave no cleaner one."""
    sewing = [point for line in lines for point in line.points[:-1]]
    strips = [[*line.points, *reversed(parallel(line.points, line.width))] for line in lines if line.width > 0]
    return united([sewing, *strips])


def _parted(one: _Beside) -> list[_Beside]:
    """Return a line in three parts of one length."""
    third = sum(distance(a, b) for a, b in pairwise(one.points)) / 3
    plain = CutLine(one.line.points, one.line.width)
    return [_Beside(stretch(one.points, i * third, (i + 1) * third), plain) for i in range(3)]
