"""Whether lines keep their sweep: no corner, hook or turn the other way that was not there before.

A line that was pulled at one end looks right in figures and wrong on paper: it is judged as a hand with a curve would.
Common practice, no single source.
"""

from itertools import pairwise
from math import degrees
from typing import NamedTuple

from izett.geometry.curve import Curve
from izett.geometry.point import distance, subtract, turn
from izett.pattern.piece import Edge, Piece

#: °. A corner that changes by less is drawn over; a bend inside a line that grows by less is none.
CORNER, KINK = 20.0, 4.0
#: °. A turn the other way smaller than this is the rounding of a curve drawn anew.
TURNED_BACK = 8.0
#: cm. Lines are looked at as fine as this.
FINE = 0.01


class Fault(NamedTuple):
    """A line that lost its sweep, and by what, in words."""

    line: str
    what: str


def fault_in(before: Piece, after: Piece) -> Fault | None:
    """Return what is wrong with a line of a piece that changed; None where all keep their sweep."""
    was = {(edge.start, edge.end): edge for edge in before.edges}
    for i, edge in enumerate(after.edges):
        old = was.get((edge.start, edge.end))
        if edge.is_leg or old is None or old is edge or old.curve == edge.curve:
            continue
        if _kink(edge.curve) > _kink(old.curve) + KINK:
            return Fault(edge.lineage, "a corner inside it")
        if _turns_back(edge.curve) > _turns_back(old.curve) + TURNED_BACK:
            return Fault(edge.lineage, "a bend the other way")
        following = after.edges[(i + 1) % len(after.edges)]
        changed = abs(_corner(edge, following) - _corner_before(before, edge, following))
        if changed > CORNER:
            return Fault(edge.lineage, "a corner that was not there")
    return None


def _kink(curve: Curve) -> float:
    return max((abs(degrees(angle)) for angle in curve.turns()), default=0.0)


def _turns_back(curve: Curve) -> float:
    """Return by how many degrees a line turns against its own sweep: of the turns to either side the smaller sum."""
    points = curve.flattened(flatness=FINE)
    chords = [subtract(b, a) for a, b in pairwise(points) if distance(a, b) > FINE]
    turns = [degrees(turn(a, b)) for a, b in pairwise(chords)]
    return min(sum(t for t in turns if t > 0), -sum(t for t in turns if t < 0))


def _corner(edge: Edge, following: Edge) -> float:
    return degrees(turn(edge.curve.end_direction, following.curve.start_direction))


def _corner_before(piece: Piece, edge: Edge, following: Edge) -> float:
    found = {e.start: e for e in piece.edges}
    ended = next((e for e in piece.edges if e.end == edge.end and e.lineage == edge.lineage), None)
    started = found.get(following.start)
    return _corner(ended, started) if ended is not None and started is not None else _corner(edge, following)
