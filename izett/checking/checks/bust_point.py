"""The bust point lies where it shapes: its darts turn about it, and it is as far from the centre as on the body.

A mark that has slipped makes every later dart aim at nothing. Common practice, no single source.
"""

from collections.abc import Iterator

from izett.checking.check import Check, CheckParams, Finding, Garment, Verdict, tolerance
from izett.geometry.point import Point, cross, distance, subtract, unit
from izett.pattern.facts import Layer, Role
from izett.pattern.halves import marked
from izett.pattern.levels import CENTRE
from izett.pattern.naming import readable
from izett.pattern.piece import Piece
from izett.wording import cm

AT_CENTRE = (Role.CENTRE_FRONT, Role.FOLD)
#: A whole piece has both bust points.
PAIR = 2


class Params(CheckParams):
    """How far the mark may lie off."""

    pivot: float = tolerance(0.6, low=0.1, high=3, unit="cm", meaning="from the bust point to where a bust dart turns")
    centre: float = tolerance(
        1.3, low=0.3, high=4, unit="cm", meaning="nearer to or farther from the centre than on the body"
    )


def find(garment: Garment, params: Params) -> Iterator[Finding]:
    """Yield each marked piece with how far its bust point lies off its darts' turning points, and off its place on the body."""
    span = garment.body.get("apex_span")
    for piece in garment.pattern.pieces:
        marks = marked(piece, "apex") if piece.layer is Layer.OUTER else ()
        if not marks:
            continue
        turns = [dart for dart in piece.darts if dart.family == "bust" and dart.sewn]
        off = max((min(distance(dart.pivot, at) for at in marks) for dart in turns), default=0.0)
        near = _from_centre(piece, marks)
        aside = near - span / 2 if near is not None and span is not None else 0.0
        if abs(off) > params.pivot:
            yield Finding(Verdict.WARNS, (piece.name,), off, params.pivot, aspect="pivot")
        if abs(aside) > params.centre:
            yield Finding(Verdict.WARNS, (piece.name,), aside, params.centre, aspect="centre")
        if abs(off) <= params.pivot and abs(aside) <= params.centre:
            yield Finding(Verdict.PASSES, (piece.name,), off, params.pivot)


def _from_centre(piece: Piece, marks: tuple[Point, ...]) -> float | None:
    """Return how far the bust points lie from the centre front, cm; None on a panel that does not reach it."""
    if piece.is_whole:
        return distance(*marks) / 2 if len(marks) == PAIR else None
    # Under a button stand the centre is a line on the piece; else it is its edge.
    lines = [(line.points[0], line.points[-1]) for line in piece.lines if line.level == CENTRE]
    edges = [(e.curve.start, e.curve.end) for e in piece.edges if e.role in AT_CENTRE and e.curve.is_straight]
    if not lines and not edges:
        return None
    start, end = (*lines, *edges)[0]
    return abs(cross(unit(subtract(end, start)), subtract(marks[0], start)))


def word(finding: Finding) -> str:
    """Return the finding in words."""
    piece = readable(finding.where[0])
    match finding.aspect:
        case "pivot":
            return f"The bust point of the {piece} lies {cm(finding.amount)} from where its dart turns"
        case "centre":
            way = "farther from" if finding.amount > 0 else "nearer to"
            return f"The bust point of the {piece} lies {cm(abs(finding.amount))} {way} the centre than on the body"
        case _:
            return f"The bust point of the {piece} lies where it shapes"


CHECK = Check(
    key="bust_point",
    claim="The bust point lies where its darts turn, and as far from the centre as on the body",
    params=Params,
    find=find,
    word=word,
    fix="Mark it anew where the darts turn, or aim the dart at the point that the fitting showed.",
)
