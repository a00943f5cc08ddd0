"""Notches of given panels that nobody marked: where the trade puts them on a line between panels.

In front at the bust point and 3.8 cm above and below it, with what is eased in between them; behind 5 cm down and a second
one 3.8 cm below that. Always square to the seam. Common practice, no single source.
"""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import replace

from izett.geometry.outline import along_line, crossing_of
from izett.pattern.document import Seam
from izett.pattern.facts import SeamKind, Zone
from izett.pattern.piece import Notch, NotchKind, Piece, Span, in_ring_order

#: cm. From the bust point up and down; behind, from the top down and on.
BESIDE_POINT, BACK_DOWN, BACK_ON = 3.8, 5.0, 3.8
#: cm. A notch lies at least so far from the end of its line.
FROM_END = 1.0
#: cm. Beyond any panel.
FAR = 2000.0


def notched(pieces: Sequence[Piece], seams: Sequence[Seam], bust: Mapping[str, float]) -> list[Piece]:
    """Return pieces with the usual notches on the lines between panels, where none were marked on either side.

    Args:
        pieces: as they lie at their neighbours.
        seams: the seams between them.
        bust: how high the bust level lies in the frame of each piece, cm, by its name, where it is known.
    """
    found = {piece.name: piece for piece in pieces}
    for seam in seams:
        if seam.kind is not SeamKind.PANEL:
            continue
        spans = [side[0] for side in seam.sides]
        sides = [next(piece for piece in found.values() if piece.holds(span.start)) for span in spans]
        if any(notch.span.along == span.along for p, span in zip(sides, spans, strict=True) for notch in p.notches):
            continue
        for piece, span in zip(sides, spans, strict=True):
            own = tuple(_on(piece, span, bust.get(piece.name)))
            found[piece.name] = replace(found[piece.name], notches=(*found[piece.name].notches, *own))
    return [found[piece.name] for piece in pieces]


def _on(piece: Piece, span: Span, bust: float | None) -> Iterator[Notch]:
    run = in_ring_order(edge for edge in piece.edges if edge.lineage == span.along)
    long = sum(edge.curve.length for edge in run)
    kind = NotchKind.DOUBLE if piece.zone is Zone.BACK else NotchKind.SINGLE
    for at in _places(piece, span, bust, long):
        if FROM_END <= at <= long - FROM_END:
            yield Notch(span, at, kind)


def _places(piece: Piece, span: Span, bust: float | None, long: float) -> Iterator[float]:
    """Yield how far (cm) from the top of a line its notches lie."""
    if piece.zone is Zone.BACK:
        yield from (BACK_DOWN, BACK_DOWN + BACK_ON)
        return
    run = in_ring_order(edge for edge in piece.edges if edge.lineage == span.along)
    line = [point for edge in run for point in edge.curve.flattened()]
    met = crossing_of(line, [(-FAR, bust), (FAR, bust)]) if bust is not None else None
    if met is not None:
        gone = along_line(line, met)
        at = gone if run[0].start == span.start else long - gone
        yield from (at - BESIDE_POINT, at, at + BESIDE_POINT)
