"""The cutting line: at its allowance along every edge, its corners built as they are meant."""

from math import hypot

import pytest
from shapely import LineString, Polygon
from shapely.affinity import affine_transform

from izett.drafting.sets import starter_sets
from izett.finishing.allowances import Allowances, purposes
from izett.finishing.cut_line import CutLine, cutting_line
from izett.finishing.sheet import sheet_pieces
from izett.pattern.document import CornerCut
from izett.recipe.model import Recipe, Step
from tests.bodies import with_hips
from tests.core.blocks import cut_for, drafted_set
from tests.cutting_lines import looked_at
from tests.garments import GARMENTS, WHOLE_GARMENTS, garment, whole_garment

#: A trapezoid, wider at its hem: hem, side, top, side; counter-clockwise.
FLARED = ((0.0, 0.0), (40.0, 0.0), (34.0, 50.0), (6.0, 50.0))


def ring(kind, widths=(4.0, 1.5, 1.0, 1.5), corners=FLARED, *, of_first=(True, True, True, False)):
    """A ring of straight lines, its two lower corners cut in a way, along the hem."""
    ends = [(kind, True), (CornerCut.MITRE, True), (CornerCut.MITRE, True), (kind, of_first[3])]
    return [
        CutLine((corners[i], corners[(i + 1) % 4]), width, end)
        for i, (width, end) in enumerate(zip(widths, ends, strict=True))
    ]


def turned_up(cut):
    """What of a cut piece lies beneath its hem (y = 0), folded up along it."""
    beneath = cut.intersection(Polygon([(-50, -50), (90, -50), (90, 0), (-50, 0)]))
    return affine_transform(beneath, (1, 0, 0, -1, 0, 0))


@pytest.mark.parametrize("lean", [-8.0, -3.0, 0.0, 5.0, 12.0])
def test_a_hem_that_is_folded_back_lies_edge_on_edge_when_it_is_turned_up(lean):
    """A flared or tapered side: the end of the turning is a mirror image of the side that it lies against."""
    corners = ((0.0, 0.0), (40.0, 0.0), (40.0 - lean, 50.0), (lean, 50.0))
    folded = Polygon(cutting_line(ring(CornerCut.FOLDED, corners=corners)))
    mitred = Polygon(cutting_line(ring(CornerCut.MITRE, corners=corners)))
    assert turned_up(folded).difference(folded).area < 1e-6
    # As wide as the piece with its allowances is there, and not narrower.
    band = Polygon([(-50, 0), (90, 0), (90, 4), (-50, 4)])
    assert turned_up(folded).area == pytest.approx(folded.intersection(band).area, rel=1e-6)
    if lean:
        assert abs(folded.area - mitred.area) > 0.05
    if lean > 0:
        assert turned_up(mitred).difference(mitred).area > 0.1


def test_a_squared_corner_ends_square_to_its_line_where_that_runs_out():
    cut = cutting_line(ring(CornerCut.SQUARE))
    # The hem, run out, comes to the side's cut; there its allowance ends at a right angle.
    side = LineString([FLARED[1], FLARED[2]])
    out = hypot(*(b - a for a, b in zip(*side.coords, strict=True)))
    met = (40.0 + 1.5 * out / 50, 0.0)
    assert min(hypot(x - met[0], y - met[1]) for x, y in cut) < 1e-6
    assert min(hypot(x - met[0], y + 4.0) for x, y in cut) < 1e-6


def test_a_strip_narrower_than_its_turning_is_mitred():
    strip = ((0.0, 0.0), (40.0, 0.0), (40.0, 1.0), (0.0, 1.0))
    cut = Polygon(cutting_line(ring(CornerCut.FOLDED, corners=strip)))
    assert cut.is_valid and cut.covers(Polygon(strip))


@pytest.mark.parametrize("purpose", [key for key in purposes() if key != "none"])
def test_along_every_edge_of_every_set_the_cut_lies_at_its_allowance(purpose):
    """Sampled along all edges of all starter sets: no nearer and no farther, no spike, no crossing."""
    sampled = 0
    for of in starter_sets().values():
        for body in with_hips(150):
            pattern = cut_for(drafted_set(of, body).pattern, purpose)
            for sheet in sheet_pieces(pattern):
                sampled += looked_at(sheet, Allowances.of_pattern(pattern))
    assert sampled >= 200


def test_lines_that_run_on_with_another_allowance_step_there_on_large_bodies_too():
    """A crotch curve that bends early meets the centre's wider allowance, prolonged, far from their corner."""
    trousers, acted = starter_sets()["trousers"], 0
    for body in (body for body in with_hips(3) if body["hip_girth"] >= 140):
        for purpose in ("production", "home", "draped"):
            pattern = cut_for(drafted_set(trousers, body).pattern, purpose)
            for sheet in sheet_pieces(pattern):
                assert looked_at(sheet, Allowances.of_pattern(pattern)) > 0
                acted += 1
    assert acted >= 100


def test_a_garment_with_hems_bands_and_facings_is_cut_at_its_allowances(evaluator):
    steps = (
        Step("s0", "change_side", {"hem": 6.0}),
        Step("s1", "change_neckline", {"wider": 2.0, "front": 4.0, "back": 1.0}),
        Step("s2", "add_facing", {"edge": {"start": "front.neck_shoulder", "end": "front.neck_cf", "along": "front.neck"}, "width": 5.0}),
        Step("s3", "add_copy", {"kind": "lining", "pieces": ["skirt_front", "skirt_back"]}),
        Step("s4", "add_band", {"kind": "cuff", "height": 5.0, "edges": [
            {"start": "sleeve.wrist_back", "end": "sleeve.wrist_front", "along": "sleeve.hem"}]}),
    )  # fmt: skip
    for body in with_hips(150):
        found = evaluator.evaluate(Recipe("bodice", body, also=("sleeve", "skirt"), steps=steps))
        assert not [stage.failure for stage in found.stages if stage.failure]
        for purpose in ("home", "bridal"):
            pattern = cut_for(found.pattern, purpose)
            assert sum(looked_at(sheet, Allowances.of_pattern(pattern)) for sheet in sheet_pieces(pattern)) >= 80


@pytest.mark.parametrize("name", [*GARMENTS, *WHOLE_GARMENTS])
def test_styled_garments_are_cut_at_their_allowances_for_every_purpose(evaluator, name):
    seen = 0
    pattern = evaluator.evaluate(garment(name) if name in GARMENTS else whole_garment(name)).pattern
    for purpose in purposes():
        cut = cut_for(pattern, purpose)
        seen += sum(looked_at(sheet, Allowances.of_pattern(cut)) for sheet in sheet_pieces(cut))
    assert seen >= 100
