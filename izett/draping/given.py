"""Given pieces: what panels from outside come to, trued one by one, then laid together."""

import logging
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from functools import cached_property, lru_cache

from izett.draping.agreeing import Agreed, laid_together
from izett.draping.cap import cap_seam, front_cap
from izett.draping.corners import with_corners
from izett.draping.notches import notched
from izett.draping.panel import Given, Panel
from izett.draping.ring import Query, Round, Wrong
from izett.draping.seams import seams_of
from izett.draping.sizing import sized
from izett.draping.truing import Trued, finished, trued
from izett.draping.wrap import unmatched
from izett.errors import place_of
from izett.geometry.motion import STILL
from izett.geometry.outline import gap
from izett.pattern.document import Seam
from izett.pattern.facts import Layer, Region
from izett.pattern.piece import Piece, Span, in_ring_order
from izett.pattern.sound import fault_of

#: The level that a seam lies at.
WAIST = "waist"


@dataclass(frozen=True)
class Drawn:
    """What given shapes came to.

    Attributes:
        given: the shapes as taken, at the size that was asked for.
        panels: each as trued, with its piece as it lies at its neighbours.
        seams: the seams between two lines of them.
    """

    given: Given
    panels: tuple[Trued, ...]
    seams: tuple[Agreed, ...]

    @cached_property
    def pieces(self) -> tuple[Piece, ...]:
        """The pieces of those panels that close, with all of their corners."""
        closed = [panel.piece for panel in self.panels if panel.piece is not None]
        front = front_cap(closed, self.given.open)
        return tuple(with_corners(piece, front_cap=front) for piece in closed)

    @cached_property
    def sewn(self) -> tuple[Seam, ...]:
        """Their seams as a pattern has them."""
        return (*(one.seam for one in self.seams), *((self.cap,) if self.cap is not None else ()))

    @cached_property
    def cap(self) -> Seam | None:
        """The seam of cap and armhole, where a sleeve is among them."""
        return cap_seam(self.pieces, self.given.open)

    @cached_property
    def queries(self) -> tuple[Query, ...]:
        """What is to be looked at again."""
        return tuple(query for panel in self.panels for query in panel.queries)

    @property
    def measured_along(self) -> Mapping[str, tuple[Span, ...]]:
        """The spans of the levels that are an edge of the pieces, over the half body."""
        # Where a skirt hangs from a bodice, the waist is measured on the bodice.
        upper = [p for p in self.pieces if p.layer is Layer.OUTER and p.region is Region.UPPER]
        spans = [span for piece in upper or self.pieces for span in _along(piece, WAIST)]
        return {WAIST: tuple(spans)} if spans else {}

    @property
    def dots_off(self) -> Iterator[tuple[str, str, float]]:
        """Yield of each dot its panel, its line and how far it lies off it, cm."""
        for panel in self.panels:
            lines = {i: line.name for line in panel.round.lines for i in line.dots}
            yield from ((panel.panel.name, lines[i], off) for i, off in panel.off.items())


def drawn(given: Given) -> Drawn:
    """Return the pieces and seams of shapes from outside; the very same shapes are drawn once."""
    return _drawn(given.model_dump_json())


def forget() -> None:
    """Forget all shapes that were drawn."""
    _drawn.cache_clear()


@lru_cache(maxsize=64)
def _drawn(text: str) -> Drawn:
    taken = Given.model_validate_json(text)
    given, of_size = sized(taken)
    one_by_one = [_trued(panel, given.levels) for panel in given.panels]
    pieces = [panel.piece for panel in one_by_one if panel.piece is not None]
    guides = {panel.name: -{**given.levels, **panel.levels}.get("waist", 0.0) for panel in given.panels}
    together, seams = laid_together(pieces, seams_of(given, pieces), guides)
    now = {piece.name: piece for piece in together}
    levels = {panel.name: {**given.levels, **panel.levels} for panel in given.panels}
    panels = [_as_lying(panel, now, levels[panel.panel.name]) for panel in one_by_one]
    left = {panel.panel.name for panel in panels if panel.piece is not None}
    between = tuple(one for one in seams if all(end.panel in left for end in one.of.said.sides))
    bust = {name: of["bust"] - of.get(WAIST, 0.0) for name, of in levels.items() if "bust" in of}
    lying = notched([panel.piece for panel in panels if panel.piece is not None], [one.seam for one in between], bust)
    marked = {piece.name: piece for piece in lying}
    waistless = {query.panel: query for query in unmatched(given, lying)}
    complete = tuple(
        replace(
            panel,
            piece=marked.get(panel.panel.name),
            queries=(
                *panel.queries,
                *((waistless[name],) if (name := panel.panel.name) in waistless else ()),
                *(query for query in of_size if query.panel == name),
            ),
        )
        for panel in panels
    )
    return Drawn(given, complete, between)


def _trued(panel: Panel, levels: Mapping[str, float]) -> Trued:
    """Return a panel trued; where that broke, it is told, and the other panels are drawn."""
    try:
        return trued(panel, levels=levels)
    except Exception as fault:
        logging.getLogger(__name__).error("panel: %s", place_of(fault))
        told = Query(
            Wrong.BROKE,
            panel.name,
            f"The {panel.called.lower()} cannot be drawn: its marks make a shape that Izett was not made for.",
            "Look at the marks that were changed last. They are kept; the other panels are drawn.",
            stops=True,
        )
        return Trued(Round(panel, ()), None, {}, {}, (told,), STILL)


def _as_lying(panel: Trued, pieces: Mapping[str, Piece], levels: Mapping[str, float]) -> Trued:
    """Return a panel with its piece as it lies at its neighbours, and the distances of its dots from that."""
    piece = pieces.get(panel.panel.name)
    if piece is None:
        return panel
    fault = fault_of(piece)
    if fault is not None:
        told = Query(
            Wrong.BROKE,
            panel.panel.name,
            f"The {panel.panel.called.lower()} cannot be cut: {fault.words}",
            "Look at its marks again, and at the seams that it is in.",
            stops=True,
        )
        return replace(panel, piece=None, queries=(*panel.queries, told))
    off = {
        mark: gap(edge.curve.flattened(), panel.spot(mark))
        for line, edge in zip(panel.round.lines, piece.edges, strict=True)
        for mark in line.dots
    }
    return replace(panel, piece=finished(panel, piece, levels), off=off)


def _along(piece: Piece, level: str) -> Iterator[Span]:
    """Yield the edges of a piece that lie at a level, as spans."""
    for lineage in dict.fromkeys(edge.lineage for edge in piece.edges if edge.role.value == level):
        run = in_ring_order(edge for edge in piece.edges if edge.lineage == lineage)
        yield Span(run[0].start, run[-1].end, lineage)
