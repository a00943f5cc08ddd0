"""Straight-cut pieces: rectangles cut along the thread, their allowances included, with what is marked on them."""

from collections.abc import Sequence

from izett.drafting.standard import as_block
from izett.geometry.curve import straight
from izett.pattern.facts import Region, Role, Zone
from izett.pattern.piece import Edge, LevelLine, Piece


def rectangle(
    name: str,
    title: str,
    *,
    zone: Zone,
    region: Region = Region.NONE,
    cut: int,
    width: float,
    length: float,
    stops: Sequence[tuple[str, float]] = (),
    lines: tuple[LevelLine, ...] = (),
) -> Piece:
    """Return a rectangle; its lower left corner is the origin, its length runs up along the grain.

    Args:
        name, title, cut: the piece's.
        zone, region: what of the body it lies on.
        width, length: cm, allowances included.
        stops: vertices on both long edges, by name and height, from below: `armhole` makes `name.armhole_left` and
            `name.armhole_right`.
        lines: what is marked on it.
    """
    at = [("bottom", 0.0), *stops, ("top", length)]
    right = [(f"{name}.{stop}_right", (width, y)) for stop, y in at]
    left = [(f"{name}.{stop}_left", (0.0, y)) for stop, y in reversed(at)]
    ring = [*right, *left]
    edges = []
    for (start, a), (end, b) in zip(ring, [*ring[1:], ring[0]], strict=True):
        side = "right" if a[0] == b[0] == width else "left" if a[0] == b[0] == 0.0 else "top" if a[1] else "bottom"
        edges.append(Edge(Role.CUT_EDGE, f"{name}.{side}", start, end, straight(a, b)))
    return as_block(
        Piece(
            name=name,
            title=title,
            part=name,
            cut=cut,
            on_fold=None,
            grain=((width / 2, 0.2 * length), (width / 2, 0.8 * length)),
            edges=tuple(edges),
            lines=lines,
        ),
        zone,
        region,
    )
