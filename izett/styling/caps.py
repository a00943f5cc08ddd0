"""A sleeve's cap grown, shrunk or raised: the cap is moved, the seams below are drawn to it and kept equal."""

from collections.abc import Callable
from dataclasses import replace

from izett.geometry.blend import refitted
from izett.geometry.curve import Curve
from izett.geometry.motion import Motion
from izett.geometry.outline import crossing_of
from izett.geometry.point import Point, add, distance, scale, subtract, turn
from izett.pattern.facts import Role
from izett.pattern.piece import Piece
from izett.pattern.redraw import redrawn

#: A level is sought so many times its own length beyond its ends.
FAR = 2.0


def warped(sleeve: Piece, move: Callable[[Point], Point]) -> Piece:
    """Return a sleeve with its cap, and what lies at the bicep line, moved; the rest is drawn to it."""
    return _to_seams(outline_warped(sleeve, move))


def outline_warped(sleeve: Piece, move: Callable[[Point], Point]) -> Piece:
    """Return a sleeve warped in its outline alone: while a place is sought, the levels need not be drawn to it."""
    curves = {e.start: _as_square(e.curve, e.curve.mapped(move)) for e in sleeve.edges if e.role is Role.CAP}
    corners = {name for e in sleeve.edges if e.role is Role.CAP for name in (e.start, e.end)}
    moves = {name: move(sleeve.vertex(name)) for name in corners}
    lines = [
        replace(line, points=tuple(move(p) for p in line.points)) if line.level == "bicep" else line
        for line in sleeve.lines
    ]
    marks = {key: move(p) if key == "shoulder_notch" else p for key, p in sleeve.marks.items()}
    return _even_below(redrawn(sleeve, moves=moves, curves=curves, lines=lines, marks=marks))


def _to_seams(sleeve: Piece) -> Piece:
    """Return the sleeve with the levels below the bicep line carried out, or cut back, to its seams."""
    seams = [edge.curve.flattened() for edge in sleeve.edges if edge.role is Role.UNDERARM]
    lines = []
    for line in sleeve.lines:
        a, b = line.points[0], line.points[-1]
        reach = scale(subtract(b, a), FAR)
        met = [crossing_of(seam, (subtract(a, reach), add(b, reach))) for seam in seams]
        ends = [point for point in met if point is not None]
        if line.level == "bicep" or len(ends) != 2:
            lines.append(line)
        else:
            ends.sort(key=lambda point: distance(point, a))
            lines.append(replace(line, points=(ends[0], ends[1])))
    return replace(sleeve, lines=tuple(lines))


def _as_square(old: Curve, new: Curve) -> Curve:
    """Return a moved half of the cap with the direction that it had at its underarm corner: the lower of its ends."""
    if old.start[1] < old.end[1]:
        back = turn(new.start_direction, old.start_direction)
        return refitted(new, turn_start=Motion.turning(back, about=(0.0, 0.0)).direction)
    back = turn(new.end_direction, old.end_direction)
    return refitted(new, turn_end=Motion.turning(back, about=(0.0, 0.0)).direction)


def _even_below(sleeve: Piece) -> Piece:
    """Return the sleeve with both underarm seams equal: the wrist slides by what one is longer."""
    sides = [e for e in sleeve.edges if e.role is Role.UNDERARM]
    if len(sides) != 2:
        return sleeve
    longer, shorter = sorted(sides, key=lambda e: -e.curve.length)
    excess = longer.curve.length - shorter.curve.length
    if excess < 1e-9:
        return sleeve
    low = longer.start if sleeve.vertex(longer.start)[1] < sleeve.vertex(longer.end)[1] else longer.end
    up = longer.curve.start_direction if low == longer.start else subtract((0.0, 0.0), longer.curve.end_direction)
    return redrawn(sleeve, moves={low: add(sleeve.vertex(low), (up[0] * excess, up[1] * excess))})
