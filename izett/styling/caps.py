"""A sleeve's cap grown, shrunk or raised: the cap is moved, the seams below are drawn to it and kept equal."""

from collections.abc import Callable
from dataclasses import replace

from izett.geometry.blend import refitted
from izett.geometry.curve import Curve
from izett.geometry.motion import Motion
from izett.geometry.point import Point, add, subtract, turn
from izett.pattern.document import Piece, Role
from izett.pattern.redraw import redrawn


def warped(sleeve: Piece, move: Callable[[Point], Point]) -> Piece:
    """Return a sleeve with its cap, and what lies at the bicep line, moved; the rest is drawn to it."""
    curves = {e.start: _as_square(e.curve, e.curve.mapped(move)) for e in sleeve.edges if e.role is Role.CAP}
    corners = {name for e in sleeve.edges if e.role is Role.CAP for name in (e.start, e.end)}
    moves = {name: move(sleeve.vertex(name)) for name in corners}
    lines = [
        replace(line, points=tuple(move(p) for p in line.points)) if line.level == "bicep" else line
        for line in sleeve.lines
    ]
    marks = {key: move(p) if key == "shoulder_notch" else p for key, p in sleeve.marks.items()}
    drawn = redrawn(sleeve, moves=moves, curves=curves, lines=lines, marks=marks)
    return _even_below(drawn)


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
