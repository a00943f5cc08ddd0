"""Corners that nobody marks and every pattern has: where a side passes the waist and the hip, and the top of a cap.

Steps and checks find a body's levels on the outline by their corners. On a given piece they are set where its level lines meet
it: the line itself stays as it was drawn. A cap that was drawn in one is parted at its shoulder notch, where it has one near
its highest point; else where the front armhole ends, walked into it with half of its ease; else at its highest point. Common
practice, no single source.
"""

from collections.abc import Iterator
from dataclasses import replace
from types import MappingProxyType

from izett.draping.truing import AT_LEVEL, ON_LEVEL
from izett.geometry.outline import along_line, crossing_of
from izett.pattern.facts import Corner, Role, Zone
from izett.pattern.piece import Edge, Notch, Piece, Span
from izett.pattern.sewn import place_on

#: Levels at which the sides have a corner.
LEVELS = ("waist", "hip")
#: cm. A notch so near to the highest point of a cap is its shoulder notch.
NEAR_TOP = 3.0
#: Halves of a cap.
CAP_HALVES = 2
#: cm. Beyond any piece.
FAR = 2000.0


def with_corners(piece: Piece, *, front_cap: float | None = None) -> Piece:
    """Return a given piece with its corners at waist and hip, and at the top of its cap.

    Args:
        piece: the piece, its outline settled.
        front_cap: how long the front half of its cap is meant to be, cm, where its armhole tells.
    """
    for edge in piece.edges:
        for corner, along in _missing(piece, edge, front_cap):
            piece = _parted(piece, edge, along, corner)
    return _cap_halves(piece)


def _missing(piece: Piece, edge: Edge, front_cap: float | None) -> Iterator[tuple[Corner, float]]:
    """Yield the corner that an edge lacks, and how far along it lies, cm; one at a time, from its end."""
    found: list[tuple[float, Corner]] = []
    for line in piece.lines:
        corner = ON_LEVEL.get((edge.role, line.level)) if line.level in LEVELS else None
        if corner is not None and piece.corner(corner) is None:
            height = line.points[0][1]
            flat = edge.curve.flattened()
            met = crossing_of(flat, [(-FAR, height), (FAR, height)])
            if met is not None:
                found.append((along_line(flat, met), corner))
    if edge.role is Role.CAP and piece.corner(Corner.CAP_TOP) is None and _alone(piece, edge):
        found.append((_top_of_cap(piece, edge, front_cap), Corner.CAP_TOP))
    # The part that is left keeps the edge's start: what lies nearer to its end is parted off first.
    for along, corner in sorted(found, reverse=True):
        if AT_LEVEL < along < edge.curve.length - AT_LEVEL:
            yield corner, along


def _alone(piece: Piece, edge: Edge) -> bool:
    return sum(other.role is edge.role for other in piece.edges) == 1


def _top_of_cap(piece: Piece, edge: Edge, front_cap: float | None) -> float:
    """Return how far along a cap its top lies, cm: at a notch near to its highest point, where its armhole ends, or there."""
    flat = edge.curve.flattened()
    highest = along_line(flat, max(flat, key=lambda spot: spot[1]))
    notches = []
    for notch in piece.notches:
        if notch.span.along == edge.lineage:
            stretch, on_edge = place_on(piece, notch.span, notch.distance)
            notches.append(on_edge if stretch.forward else edge.curve.length - on_edge)
    if front_cap is not None:
        from_front = edge.start == piece.corner(Corner.UNDERARM_FRONT)
        notches.append(front_cap if from_front else edge.curve.length - front_cap)
    return next((along for along in notches if abs(along - highest) <= NEAR_TOP), highest)


def _cap_halves(piece: Piece) -> Piece:
    """Return a sleeve with the halves of its cap as two lines, each of its zone; what lies on them goes with them."""
    caps = [edge for edge in piece.edges if edge.role is Role.CAP]
    if len(caps) != CAP_HALVES or piece.corner(Corner.CAP_TOP) is None:
        return piece
    first = piece.corner(Corner.UNDERARM_FRONT)
    zones = {edge.start: Zone.FRONT if first in (edge.start, edge.end) else Zone.BACK for edge in caps}
    new = {
        edge.start: replace(edge, zone=zones[edge.start], lineage=f"{piece.part}.{zones[edge.start].value}_cap")
        for edge in caps
    }
    ring = tuple(new.get(edge.start, edge) if edge.role is Role.CAP else edge for edge in piece.edges)
    lines = {edge.lineage for edge in caps}
    notches = tuple(_on_half(piece, notch, new) if notch.span.along in lines else notch for notch in piece.notches)
    return replace(piece, edges=ring, notches=notches)


def _on_half(piece: Piece, notch: Notch, halves: dict[str, Edge]) -> Notch:
    """Return a notch of a cap as one of the half that it lies on."""
    stretch, along = place_on(piece, notch.span, notch.distance)
    half = halves[stretch.edge.start]
    distance = along if stretch.forward else half.curve.length - along
    return replace(notch, span=Span(half.start, half.end, half.lineage), distance=distance)


def _parted(piece: Piece, edge: Edge, along: float, corner: Corner) -> Piece:
    """Return a piece with an edge parted so far (cm) along it, the new corner known as what it is."""
    name = f"{piece.part}.{corner.value}"
    if piece.holds(name):
        return piece
    now = next(other for other in piece.edges if other.start == edge.start)
    before, after = now.curve.split(along)
    parts = (replace(now, end=name, curve=before), replace(now, start=name, curve=after))
    ring = [part for other in piece.edges for part in (parts if other is now else (other,))]
    return replace(piece, edges=tuple(ring), corners=MappingProxyType({**piece.corners, name: corner}))
