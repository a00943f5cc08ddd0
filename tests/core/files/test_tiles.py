"""Tiled pages as a reader renders them: every line runs on over every join, and lies where it should on each page."""

from collections import Counter
from math import hypot

import numpy as np
import pypdfium2
import pytest
from shapely import LineString

from izett.files import pdf
from izett.finishing.sheet import sheet_pieces
from izett.recipe.model import Recipe
from tests.bodies import with_hips
from tests.core.blocks import cut_for

#: Pixels a cm of a rendered page; how far a line may lie from where it should, cm; what is dark, of 255.
FINE, OFF, DARK = 40, 0.03, 170
#: cm. How closely the lines are looked at; the rim of a page's frame that its own line covers.
EVERY, FRAME = 0.2, 0.06


def looked_at(sheets, paper):
    """Look at the cutting line of all pieces on every page; return how often, and how often on more than one page."""
    placed, width, height = pdf.in_a_row(pdf._stacks(sheets), space=pdf.GAP)
    tiling = pdf._tiling(placed, width, height, pdf.LARGE[paper])
    document = pypdfium2.PdfDocument(pdf.write_pdf(sheets, paper=paper, title="Joined"))
    order = [(c, r) for r in range(tiling.rows) for c in range(tiling.columns) if (c, r) in tiling.used]
    assert len(document) == len(order) + 1
    scale = FINE / pdf.POINTS_PER_CM
    pages = {
        at: np.asarray(document[number].render(scale=scale, grayscale=True).to_pil())
        for number, at in enumerate(order, start=1)
    }
    seen, joined = 0, Counter()
    for stack, shift in placed:
        ring = [*stack.sheets[0].cutting, stack.sheets[0].cutting[0]]
        line = LineString([(x + shift[0], y + shift[1]) for x, y in ring])
        for at in np.arange(0, line.length, EVERY):
            spot = line.interpolate(at)
            on = [one for one in order if inside(spot, tiling, one)]
            for one in on:
                assert is_dark(pages[one], spot, tiling.corner(*one)), (pdf.page_name(*one), stack.sheets[0].piece.name)
            seen += len(on)
            if len(on) > 1:
                joined.update(pair for i, pair in enumerate([(a, b) for a in on for b in on if a < b]))
    return seen, joined, order


def inside(spot, tiling, page):
    x, y = tiling.corner(*page)
    across, up = spot.x - x, spot.y - y
    return FRAME < across < tiling.width - FRAME and FRAME < up < tiling.height - FRAME


def is_dark(page, spot, corner):
    """Whether a line is drawn at a spot, or a hair beside it."""
    x = (spot.x - corner[0] + pdf.RIM) * FINE
    y = page.shape[0] - (spot.y - corner[1] + pdf.RIM) * FINE
    reach = int(OFF * FINE) + 1
    around = [(i, j) for i in range(-reach, reach + 1) for j in range(-reach, reach + 1) if hypot(i, j) <= reach]
    return any(page[int(y) + j, int(x) + i] < DARK for i, j in around)


@pytest.mark.parametrize("paper", ["a4", "letter", "a0"])
def test_every_line_runs_on_over_every_join_of_the_sheets(evaluator, paper):
    joins = set()
    for body in with_hips(400):
        pattern = evaluator.evaluate(Recipe("bodice", body, also=("sleeve", "skirt"))).pattern
        seen, joined, order = looked_at(sheet_pieces(cut_for(pattern, "home")), paper)
        assert seen > 1000
        joins |= set(joined)
        # Where a line crosses from page to page, both show the strip that they share.
        neighbours = {(a, b) for a in order for b in order if a < b and abs(a[0] - b[0]) + abs(a[1] - b[1]) == 1}
        assert len(set(joined) & neighbours) >= (0.5 * len(neighbours) if paper != "a0" else 1)
    assert len(joins) >= (20 if paper != "a0" else 1)
