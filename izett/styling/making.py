"""Making new pieces: rectangles and other plain shapes, tied to the edges that they are sewn to."""

from collections.abc import Sequence

from izett.geometry.curve import Curve, straight
from izett.geometry.outline import region, signed_area
from izett.geometry.point import between
from izett.pattern.document import Seam
from izett.pattern.facts import Layer, Role, SeamKind, Zone
from izett.pattern.paper import grain_on
from izett.pattern.piece import Edge, Piece, Span
from izett.pattern.sewn import holding, span_length
from izett.pattern.working import Working
from izett.pattern.worn import is_sleeve
from izett.styling.operation import Context
from izett.styling.references import SpanRef

#: cm. A grain line so long lies inside no piece: it is cut to one that does.
FAR = 1000.0


def rectangle(
    context: Context,
    *,
    title: str,
    width: float,
    height: float,
    cut: int,
    on_fold: bool,
    roles: tuple[Role, Role, Role],
    layer: Layer = Layer.OUTER,
    bias: bool = False,
) -> Piece:
    """Return a rectangle from (0, 0), its sewn edge at the foot.

    Args:
        context: the step that makes it, whose name prefixes the corners.
        title, width, height, cut: of the piece; a half on the fold is drawn `width` wide.
        on_fold: whether its left edge lies on the fold.
        roles: of the foot, of the top, and of the two ends.
        layer: the layer of the garment that it is cut for.
        bias: whether it is cut at half a right angle to the thread.
    """
    short = min(width, height) * 0.6
    upright = (between((0.0, 0.0), (width, height), 0.2), (width * 0.2, height * 0.8))
    slanting = ((width - short) / 2, (height - short) / 2), ((width + short) / 2, (height + short) / 2)
    corners = ((0.0, 0.0), (width, 0.0), (width, height), (0.0, height))
    names = [context.named(n) for n in ("foot_start", "foot_end", "top_end", "top_start")]
    lines = [context.named(n) for n in ("sewn_edge", "end", "top", "start")]
    kinds = (roles[0], roles[2], roles[1], Role.FOLD if on_fold else roles[2])
    edges = tuple(
        Edge(kinds[i], lines[i], names[i], names[(i + 1) % 4], straight(corners[i], corners[(i + 1) % 4]))
        for i in range(4)
    )
    return Piece(
        name=context.named("_".join(title.lower().split())),
        title=title,
        part=context.uid,
        cut=cut,
        on_fold=lines[3] if on_fold else None,
        grain=slanting if bias else upright,
        edges=edges,
        layer=layer,
    )


def outlined(
    context: Context,
    *,
    title: str,
    cut: int,
    edges: Sequence[tuple[Role, str, Curve]],
    fold: int | None,
    zone: Zone = Zone.ADDED,
    layer: Layer = Layer.OUTER,
    label: str = "",
) -> Piece:
    """Return a piece from edges that follow on each other, in either direction around.

    Args:
        context: the step that makes it.
        title, cut: of the piece.
        edges: role, label and curve of each.
        fold: the number of the edge on the fold.
        zone, layer: what it is.
        label: its name after the step's; empty for its title.
    """
    ring = list(edges)
    points = [point for _, _, curve in ring for point in curve.flattened()[:-1]]
    if signed_area(points) < 0:
        ring = [(role, label, curve.reversed()) for role, label, curve in reversed(ring)]
    folded = edges[fold][1] if fold is not None else None
    made = tuple(
        Edge(
            role,
            context.named(label),
            context.named(f"{ring[i - 1][1]}_{label}"),
            context.named(f"{label}_{ring[(i + 1) % len(ring)][1]}"),
            curve,
        )
        for i, (role, label, curve) in enumerate(ring)
    )
    return Piece(
        name=context.named(label or "_".join(title.lower().split())),
        title=title,
        part=context.uid,
        cut=cut,
        on_fold=context.named(folded) if folded else None,
        grain=grain_on(region(points), ((0.0, -FAR), (0.0, FAR))),
        edges=made,
        zone=zone,
        layer=layer,
    )


def chain_of(context: Context, lines: Sequence[SpanRef]) -> tuple[Span, ...]:
    """Return the spans of several lines, one after another, over cuts."""
    return tuple(part for line in lines for part in context.chain(line.span))


def length_of(pattern: Working, chain: Sequence[Span]) -> float:
    """Return the length of a chain of spans as sewn, in cm."""
    return sum(span_length(holding(pattern, span.start), span) for span in chain)


def is_half(pattern: Working, chain: Sequence[Span]) -> bool:
    """Return whether a chain runs over half the garment only: a sleeve's and an unfolded piece's edge is whole."""
    pieces = [holding(pattern, span.start) for span in chain]
    return not any(is_sleeve(piece) for piece in pieces) and all(piece.times == 2 for piece in pieces)


def sewn_on(
    context: Context, pattern: Working, piece: Piece, chain: tuple[Span, ...], edge: str, name: str, *, lies: str
) -> Working:
    """Return the pattern with a new piece and the seam that ties it to a chain of edges.

    Its ease is what the new edge has more (or, negative, less) than the chain: it is meant.
    """
    (own,) = (e for e in piece.edges if e.lineage == edge)
    span = Span(own.start, own.end, own.lineage)
    over = own.curve.length - length_of(pattern, chain)
    words = ("garment", piece.title.lower())
    seam = Seam(context.named(name), (chain, (span,)), (over, over), lies, words, kind=SeamKind.ADDED)
    return pattern.adding(piece, seams=(seam,))
