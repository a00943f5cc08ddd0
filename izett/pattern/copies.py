"""The same paper elsewhere: a piece moved, turned over, called otherwise. Nothing of its shape changes."""

from collections.abc import Callable, Mapping
from dataclasses import replace
from types import MappingProxyType

from izett.geometry.motion import Motion
from izett.geometry.point import Point, add, dot, scale, subtract, unit
from izett.pattern.piece import Diamond, Piece, Span


def moved(piece: Piece, motion: Motion) -> Piece:
    """Return the piece moved rigidly, with all that lies on it; its grain line keeps its place on the paper."""
    return replace(
        piece,
        edges=tuple(replace(edge, curve=edge.curve.mapped(motion)) for edge in piece.edges),
        darts=tuple(replace(dart, pivot=motion(dart.pivot)) for dart in piece.darts),
        diamonds=tuple(moved_diamond(diamond, motion) for diamond in piece.diamonds),
        marks=MappingProxyType({key: motion(point) for key, point in piece.marks.items()}),
        lines=tuple(line.moved(motion) for line in piece.lines),
        grain=(motion(piece.grain[0]), motion(piece.grain[1])),
    )


def flipped(piece: Piece, axis: tuple[Point, Point]) -> Piece:
    """Return the piece turned over about a line: its mirror image, with the same names."""
    along = unit(subtract(axis[1], axis[0]))

    def over(point: Point) -> Point:
        off = subtract(point, axis[0])
        return add(axis[0], subtract(scale(along, 2 * dot(off, along)), off))

    return replace(
        piece,
        edges=tuple(
            replace(edge, start=edge.end, end=edge.start, curve=edge.curve.reversed().mapped(over))
            for edge in reversed(piece.edges)
        ),
        darts=tuple(replace(d, pivot=over(d.pivot), mouth=(d.mouth[1], d.mouth[0])) for d in piece.darts),
        diamonds=tuple(
            replace(d, top=over(d.top), bottom=over(d.bottom), left=over(d.right), right=over(d.left))
            for d in piece.diamonds
        ),
        marks=MappingProxyType({key: over(point) for key, point in piece.marks.items()}),
        lines=tuple(line.reversed.moved(over) for line in piece.lines),
        grain=(over(piece.grain[0]), over(piece.grain[1])),
    )


def prefixed(piece: Piece, prefix: str) -> Piece:
    """Return the piece with every name on it begun with a prefix: a copy that can lie beside the original."""
    return replace(called(piece, lambda name: f"{prefix}.{name}"), part=f"{prefix}.{piece.part}")


def called(piece: Piece, rename: Callable[[str], str]) -> Piece:
    """Return the piece with everything on it called by new names."""
    corners = {edge.start: rename(edge.start) for edge in piece.edges}
    new = renamed(piece, corners, {e.lineage: rename(e.lineage) for e in piece.edges})
    darts = {dart.name: rename(dart.name) for dart in piece.darts}
    return replace(
        new,
        darts=tuple(replace(d, name=darts[d.name]) for d in new.darts),
        diamonds=tuple(replace(d, name=rename(d.name)) for d in new.diamonds),
        marks=MappingProxyType({rename(key): point for key, point in new.marks.items()}),
        notches=tuple(
            replace(n, span=Span(rename(n.span.start), rename(n.span.end), rename(n.span.along))) for n in piece.notches
        ),
        aliases=MappingProxyType({rename(key): rename(value) for key, value in piece.aliases.items()}),
        corners=MappingProxyType({rename(key): corner for key, corner in piece.corners.items()}),
    )


def moved_diamond(diamond: Diamond, motion: Motion) -> Diamond:
    """Return a dart within a piece moved rigidly."""
    return replace(
        diamond,
        top=motion(diamond.top),
        bottom=motion(diamond.bottom),
        left=motion(diamond.left),
        right=motion(diamond.right),
    )


def renamed(piece: Piece, names: Mapping[str, str], lineages: Mapping[str, str] | None = None) -> Piece:
    """Return the piece with corners and lines called otherwise; what refers to them on the piece follows."""
    lines = lineages or {}

    def vertex(name: str) -> str:
        return names.get(name, name)

    def span(old: Span) -> Span:
        return Span(vertex(old.start), vertex(old.end), lines.get(old.along, old.along))

    return replace(
        piece,
        on_fold=lines.get(piece.on_fold, piece.on_fold) if piece.on_fold else None,
        edges=tuple(
            replace(e, start=vertex(e.start), end=vertex(e.end), lineage=lines.get(e.lineage, e.lineage))
            for e in piece.edges
        ),
        darts=tuple(replace(d, mouth=(vertex(d.mouth[0]), vertex(d.mouth[1])), tip=vertex(d.tip)) for d in piece.darts),
        notches=tuple(replace(notch, span=span(notch.span)) for notch in piece.notches),
        aliases=MappingProxyType({key: vertex(value) for key, value in piece.aliases.items() if key not in names}),
        corners=MappingProxyType({vertex(key): corner for key, corner in piece.corners.items()}),
    )
