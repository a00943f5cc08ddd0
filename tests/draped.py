"""Garments draped on the simulated form, and how what was trued compares with the truth."""

from dataclasses import dataclass

import shapely

from izett.catalogue import catalogue
from izett.draping.form import Hand, draped, upright_of
from izett.draping.given import Drawn, drawn
from izett.draping.panel import Given
from izett.pattern.document import Pattern
from izett.pattern.sewn import seam_lengths
from izett.recipe.evaluator import Evaluator
from izett.recipe.model import Recipe, Step
from tests.garments import BACK_ARMHOLE, FRONT_ARMHOLE, _on

BUSTIER = (
    ("princess", {"start": _on(*FRONT_ARMHOLE, 0.55), "bow": 1.2}),
    ("princess", {"start": _on(*BACK_ARMHOLE, 0.6), "bow": 1.0}),
    ("upper_edge", {"front": 3.0, "peak": 5.0, "side": 1.0, "back": 0.5}),
)
#: cm. A line that was trued is compared with the truth at places so far apart.
APART = 0.5


def truth_of(kind: str, body: dict[str, float]) -> Pattern:
    """The shape that hangs on the form: a bustier in four panels, or a sheath."""
    steps, block = (BUSTIER, "bodice") if kind == "bustier" else ((), "torso")
    made = tuple(Step(f"s{i}", key, params) for i, (key, params) in enumerate(steps))
    return Evaluator(catalogue()).evaluate(Recipe(block, body, steps=made)).pattern


@dataclass(frozen=True)
class Compared:
    """What truing came to, beside the truth: distances of lines in cm."""

    given: Given
    drawn: Drawn
    off: list[float]
    seams_before: list[float]
    seams_after: list[float]


def compared(truth: Pattern, hand: Hand) -> Compared:
    """Drape a shape on the form, mark it, true the marks, and measure what came of it."""
    given = draped(truth, hand)
    found = drawn(given)
    off: list[float] = []
    for piece, panel in zip(truth.pieces, found.panels, strict=True):
        assert panel.piece is not None, panel.queries
        upright = upright_of(piece)
        ring = shapely.LinearRing([(x - upright, y) for x, y in piece.outline(flatness=0.002)])
        mine = shapely.LinearRing(panel.piece.outline(flatness=0.002))
        count = int(mine.length / APART)
        off += [ring.distance(mine.interpolate(i / count, normalized=True)) for i in range(count)]
    pattern = Pattern(found.pieces, found.sewn, truth.intent)
    after = [abs(b - a - one.seam.ease[0]) for one in found.seams for a, b in [seam_lengths(pattern, one.seam)]]
    return Compared(given, found, off, [abs(one.differs) for one in found.seams], after)
