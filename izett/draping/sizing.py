"""Given shapes brought to the wearer's size: a diagram enlarged by a known length, pieces of another body graded to this one.

Both change what was taken before anything is drawn, so that lines are trued, and partners agree, at the new size.

Enlarging multiplies every distance alike. Grading goes no further than is honest: at each level that was measured on both
bodies, widths go by the ratio of the girths, about the upright guide, and between the levels by what lies between; lengths
go by the ratio of the lengths above and below the waist. The shape itself stays that of the body it was draped on. Common
practice, no single source.
"""

from collections.abc import Callable, Mapping
from itertools import pairwise

from izett.draping.panel import Given, Graded, LineSaid, Panel
from izett.draping.ring import Query, Wrong, in_words, walked
from izett.draping.truing import trued
from izett.geometry.point import Point, distance
from izett.wording import cm

#: The level at which lengths above and below part.
WAIST = "waist"
#: cm of girth. Beyond two sizes a graded shape is a guess: a size is 4 to 5 cm. Common practice, no single source.
TWO_SIZES = 10.0
#: Characters of what a panel is called that are kept before the word that it is graded.
CALLED = 50
#: Rounds in which a line comes to its known length: how it is drawn depends a little on its size.
ROUNDS = 3

Moved = Callable[[Point], Point]


def sized(given: Given) -> tuple[Given, tuple[Query, ...]]:
    """Return given shapes at the size that was asked for, and what is to be told of that.

    Args:
        given: as taken.
    """
    found, told = _enlarged(given)
    if found.graded is None:
        return found, told
    graded = found.graded
    panels = tuple(
        _moved(
            panel.model_copy(update={"title": f"{panel.called[:CALLED]} (graded)"}),
            _grading(graded, {**found.levels, **panel.levels}),
        )
        for panel in found.panels
    )
    common = _grading(graded, found.levels)
    levels = {name: common((0.0, along))[1] for name, along in found.levels.items()}
    return found.model_copy(update={"panels": panels, "levels": levels}), (*told, *_far_graded(given, graded))


def _enlarged(given: Given) -> tuple[Given, tuple[Query, ...]]:
    known = given.enlarged
    if known is None or not given.panels:
        return given, ()
    panel = next((one for one in given.panels if one.name == known.of.panel), None)
    marked = _marked_length(panel, known.of.line) if panel is not None else 0.0
    if panel is None or not marked:
        told = Query(
            Wrong.NO_LENGTH,
            (panel or given.panels[0]).name,
            f"The {in_words(known.of.line)} that tells how large the shapes are is not marked any more.",
            "Say another length that is known, or mark that line again.",
        )
        return given, (told,)
    by = known.length / marked
    for _ in range(ROUNDS):
        long = _drawn_length(_times(panel, by), known.of.line)
        by *= known.length / long if long else 1.0
    panels = tuple(_times(one, by) for one in given.panels)
    levels = {name: along * by for name, along in given.levels.items()}
    return given.model_copy(update={"panels": panels, "levels": levels}), ()


def _marked_length(panel: Panel, name: str) -> float:
    """Return how long a line is from mark to mark, cm; 0 where it is not marked."""
    lines = [line for line in walked(panel).lines if line.name == name]
    spots = [[panel.marks[i].spot for i in (line.start, *line.dots, line.end)] for line in lines]
    return sum(distance(a, b) for line in spots for a, b in pairwise(line))


def _drawn_length(panel: Panel, name: str) -> float:
    """Return how long a line is as it is drawn, cm; 0 where the panel does not close."""
    piece = trued(panel).piece
    if piece is None:
        return 0.0
    return sum(edge.curve.length for edge in piece.edges if edge.lineage == f"{panel.name}.{name}")


def _times(panel: Panel, by: float) -> Panel:
    return _moved(panel, lambda spot: (spot[0] * by, spot[1] * by))


def _moved(panel: Panel, to: Moved) -> Panel:
    """Return a panel with all of its places moved."""

    def at(spot: Point) -> dict[str, float]:
        across, along = to(spot)
        return {"across": across, "along": along}

    def drawn(said: LineSaid) -> LineSaid:
        parts = tuple(tuple(to((spot[0], spot[1])) for spot in part) for part in said.drawn)
        return said.model_copy(update={"drawn": parts})

    return panel.model_copy(
        update={
            "marks": tuple(mark.model_copy(update=at(mark.spot)) for mark in panel.marks),
            "lines": {name: drawn(said) for name, said in panel.lines.items()},
            "levels": {name: to((0.0, along))[1] for name, along in panel.levels.items()},
        }
    )


def _grading(graded: Graded, levels: Mapping[str, float]) -> Moved:
    """Return where grading brings a place of a panel whose levels lie so high: its upright guide stays where it is."""
    wide = sorted((levels[name], bodies.ratio) for name, bodies in graded.widths.items() if name in levels)
    waist = levels.get(WAIST, 0.0)
    above = graded.above.ratio if graded.above is not None else 1.0
    below = graded.below.ratio if graded.below is not None else 1.0

    def height(along: float) -> float:
        return (along - waist) * (above if along > waist else below)

    level = height(0.0)

    def to(spot: Point) -> Point:
        across, along = spot
        return (across * _between(wide, along), height(along) - level)

    return to


def _between(known: list[tuple[float, float]], at: float) -> float:
    """Return the ratio at a height: between two that are known by what lies between, beyond them the nearest."""
    if not known:
        return 1.0
    for (low, a), (high, b) in pairwise(known):
        if low <= at <= high and high > low:
            return a + (b - a) * (at - low) / (high - low)
    return known[0][1] if at < known[0][0] else known[-1][1]


def _far_graded(given: Given, graded: Graded) -> tuple[Query, ...]:
    """Return the query of shapes that are graded further than anybody can answer for."""
    most = max((abs(bodies.to - bodies.of) for bodies in graded.widths.values()), default=0.0)
    if most <= TWO_SIZES or not given.panels:
        return ()
    return (
        Query(
            Wrong.GRADED_FAR,
            given.panels[0].name,
            f"The pieces are graded by {cm(most)} of girth: beyond two sizes a draped shape is a guess.",
            "Drape it again on the other body, or cut a muslin before any cloth.",
        ),
    )
