"""What a step tells of its own work, read from the outlines before it and after it: never repeated from what was asked."""

from collections.abc import Iterable, Iterator, Mapping

from izett.geometry.outline import crossing_of
from izett.geometry.point import Point, Vector, dot, subtract
from izett.pattern.facts import Corner, Role
from izett.pattern.piece import LARGEST_PIECE, Piece
from izett.pattern.working import Readable
from izett.styling.operation import Sum

#: The levels around the body at which ease is wanted.
AROUND_BODY = ("bust", "waist", "hip")
#: cm. Amounts that differ by less are told as one.
ALIKE = 0.005


def told_alike(what: str, by: Mapping[str, float]) -> tuple[Sum, ...]:
    """Return amounts by the name of what each was read from: one line where all are alike, else a line for each.

    >>> told_alike("lower at the underarm", {"front": 1.0, "back": 1.0})
    (Sum(what='lower at the underarm', value=1.0, unit='cm', both=False),)
    >>> [line.what for line in told_alike("lower at the underarm", {"front": 1.0, "back": 0.8})]
    ['lower at the underarm, front', 'lower at the underarm, back']
    """
    if not by:
        return ()
    if max(by.values()) - min(by.values()) <= ALIKE:
        return (Sum(what, next(iter(by.values()))),)
    return tuple(Sum(f"{what}, {name}", value) for name, value in by.items())


def long_in(piece: Piece, role: Role) -> float:
    """Return how long (cm) all the edges of a role on a piece are together."""
    return sum(edge.curve.length for edge in piece.edges if edge.role is role)


def told_armholes(before: Readable, after: Readable) -> Iterator[Sum]:
    """Yield by how much the armhole of each piece that has one has become longer."""
    for piece in before.with_role(Role.ARMHOLE):
        longer = long_in(after.piece(piece.name), Role.ARMHOLE) - long_in(piece, Role.ARMHOLE)
        yield Sum(f"armhole of the {piece.title.lower()}, longer", longer)


def told_underarms(before: Readable, after: Readable) -> tuple[Sum, ...]:
    """Return how far the underarm has gone down, on each piece that has its corner."""
    down = {
        piece.title.lower(): gone(piece, after.piece(piece.name), corner, (0.0, -1.0))
        for piece in before.with_role(Role.ARMHOLE)
        if (corner := piece.corner(Corner.UNDERARM)) is not None
    }
    return told_alike("underarm lower", down)


def told_around(before: Readable, moved: Mapping[str, float]) -> Iterator[Sum]:
    """Yield by how much the garment has become wider around at the levels at which it has a wanted ease."""
    for level in AROUND_BODY:
        if before.ease(level) is not None:
            yield Sum(f"wider around at the {level}", moved.get(level, 0.0), both=True)


def gone(before: Piece, after: Piece, vertex: str, way: Vector) -> float:
    """Return how far (cm) a corner has gone in a direction, given as a vector of length 1."""
    return dot(subtract(after.vertex(vertex), before.vertex(vertex)), way)


def size(piece: Piece) -> tuple[float, float]:
    """Return how wide and how high (cm) the paper of a piece is."""
    xs, ys = zip(*piece.outline(), strict=True)
    return max(xs) - min(xs), max(ys) - min(ys)


def out_at(piece: Piece, role: Role, height: float) -> float:
    """Return how far out (cm) the edges of a role pass a height; 0 where they do not."""
    level = ((-LARGEST_PIECE, height), (LARGEST_PIECE, height))
    met = (crossing_of(edge.curve.flattened(), level) for edge in piece.edges if edge.role is role)
    return max((spot[0] for spot in met if spot is not None), default=0.0)


def top(points: Iterable[Point]) -> float:
    """Return the height (cm) of the highest of some places."""
    return max(y for _, y in points)
