"""Photos of pieces among printed sheets: what is found beside the truth, and what is refused with which reason.

The pictures are simulated, with fixed seeds; the figures to reach are those of tests with other such pictures (no published
source; nothing from a real camera).
"""

import os
from dataclasses import replace
from random import Random

import numpy as np
import pytest
import shapely

from izett.draping.given import drawn
from izett.draping.panel import Given, MarkKind, Source
from izett.tracing.calibration import calibrated
from izett.tracing.camera_stand_in import Shot, among_sheets, photographed, scene_middle
from izett.tracing.look import look_at_photo
from izett.tracing.told import PictureRefused, Why
from izett.tracing.trace import panel_of
from tests.draped import truth_of
from tests.pictured import pencilled, pictured

#: mm. What the outline, corners and notches may be off.
CONTOUR_P95, CONTOUR_MOST, CORNER, NOTCH = 0.35, 1.2, 1.0, 1.0
#: cm and a share: lengths of lines, and the area.
LENGTH, AREA = 0.15, 0.0035


def a_piece(block, name, body):
    from izett.catalogue import catalogue
    from izett.recipe.evaluator import Evaluator
    from izett.recipe.model import Recipe

    if block == "bustier":
        return truth_of("bustier", body).pieces[0]
    return Evaluator(catalogue()).evaluate(Recipe(block, body)).pattern.piece(name)


PICTURES = {
    "a front with darts": (("bodice", "bodice_front"), Shot(seed=1, above=92, tilt=12, lens=(-0.06, 0.01))),
    "a back": (("bodice", "bodice_back"), Shot(seed=2, above=95, tilt=5, towards=200, lens=(0.05, -0.01))),
    "a princess panel": (("bustier", ""), Shot(seed=3, above=80, tilt=18, towards=120)),
}
#: So many good pictures are looked at: three here, two dozen in the sweep, each from another place with another lens.
COUNT = int(os.environ.get("IZETT_PICTURES", "3"))
SUBJECTS = (("bodice", "bodice_front"), ("bodice", "bodice_back"), ("bustier", ""), ("skirt", "skirt_front"))


def pictures():
    """The fixed pictures, then others: seeded, within what the page asks of a photo."""
    yield from PICTURES.items()
    for seed in range(len(PICTURES) + 1, COUNT + 1):
        rng = Random(seed)
        lens = (rng.uniform(-0.06, 0.05), rng.uniform(-0.01, 0.01))
        shot = Shot(
            seed=seed, above=rng.uniform(82, 95), tilt=rng.uniform(0, 18), towards=rng.uniform(0, 360), lens=lens
        )
        yield f"picture {seed}", (SUBJECTS[seed % len(SUBJECTS)], shot)


@pytest.fixture(scope="module", params=list(pictures()), ids=lambda one: one[0])
def photo(request):
    _, ((block, name), shot) = request.param
    body = {"bust_girth": 92.0, "waist_girth": 74.0, "hip_girth": 98.0, "height": 168.0}
    piece = a_piece(block, name, body)
    taken = pictured(piece, shot=shot, pencil=pencilled(piece, 15, seed=shot.seed))
    return piece, taken, taken.traced()


def test_the_lens_and_the_table_are_found_from_the_sheets(photo):
    _, taken, trace = photo
    shot, known = taken.shot, trace.look.calibration
    x, y = np.meshgrid(np.linspace(150, shot.width - 150, 15), np.linspace(150, shot.height - 150, 12))
    pixels = np.c_[x.ravel(), y.ravel()]
    real, found = shot.spots(pixels, scene_middle(taken.scene)), known.mapping.spots(pixels)
    # Distances between all places: where the table's frame begins is nobody's business.
    apart = [np.linalg.norm(s[:, None] - s[None], axis=-1) for s in (real, found)]
    among = np.array(shapely.contains_xy(shapely.MultiPoint(np.vstack(list(known.sheets.values()))).convex_hull, found))
    off = np.abs(apart[0] - apart[1])[np.ix_(among, among)] * 10
    assert among.sum() > 40
    assert np.percentile(off, 95) <= 0.3, f"{np.percentile(off, 95):.2f} mm"
    bend = shot.lens[0] * (np.hypot(shot.width, shot.height) / 2 / (shot.focal * shot.width)) ** 2
    assert known.mapping.bend == pytest.approx(bend, abs=0.01)
    assert known.tilt == pytest.approx(shot.tilt, abs=2)
    assert known.off < 0.06 and known.share < 0.0025 and not known.doubtful


def test_the_outline_lies_on_the_edge(photo):
    piece, taken, trace = photo
    ring = shapely.LinearRing(taken.on_table(trace, taken.outline))
    lines = [spot for line in trace.lines for spot in line.curve.flattened()]
    notched = shapely.MultiPoint(taken.on_table(trace, taken.notches)) if len(taken.notches) else shapely.Point(1e6, 0)
    off = [10 * ring.distance(shapely.Point(spot)) for spot in lines if notched.distance(shapely.Point(spot)) > 0.6]
    assert len(off) > 50
    assert np.percentile(off, 95) <= CONTOUR_P95 and max(off) <= CONTOUR_MOST
    area = shapely.Polygon(lines).area
    assert area == pytest.approx(shapely.Polygon(piece.outline()).area, rel=AREA)


def test_every_corner_notch_and_dart_is_found(photo):
    piece, taken, trace = photo
    real = taken.on_table(trace, taken.corners)
    ring = np.array(piece.outline(flatness=0.01))
    sharp = [spot for spot, edge in zip(real, piece.edges, strict=True) if _turn(piece, edge) > 20]
    found = np.array([line.curve.start for line in trace.lines])
    off = [10 * np.linalg.norm(found - spot, axis=1).min() for spot in sharp]
    assert len(ring) > 3 and len(sharp) >= 4
    assert max(off) <= CORNER, off
    assert len(found) <= len(real)
    notches = taken.on_table(trace, taken.notches)
    assert len(trace.notches) == len(notches)
    assert all(10 * np.linalg.norm(np.array(trace.notches) - spot, axis=1).min() <= NOTCH for spot in notches)
    assert len(trace.darts) == len({edge.lineage for edge in piece.edges if edge.is_leg})


def _turn(piece, edge):
    before = piece.edges[piece.edges.index(edge) - 1].curve.end_direction
    after = edge.curve.start_direction
    return abs(np.degrees(np.arctan2(before[0] * after[1] - before[1] * after[0], np.dot(before, after))))


def test_pencil_marks_are_proposed_where_they_are(photo):
    _, taken, trace = photo
    real = taken.on_table(trace, [(mark.x, mark.y) for mark in taken.scene.pencil])
    spots = np.array([spot for _, spot in trace.ghosts])
    right = 0
    for mark, spot in zip(taken.scene.pencil, real, strict=True):
        far = np.linalg.norm(spots - spot, axis=1)
        right += far.min() < 0.05 and trace.ghosts[int(far.argmin())][0] is MarkKind(mark.kind)
    assert right >= len(real) - 1
    assert len(spots) <= len(real) + 2


def test_it_becomes_a_panel_whose_lines_are_as_long_as_they_were(photo):
    piece, _, trace = photo
    panel = panel_of(trace, piece.title)
    found = drawn(Given(source=Source.TRACE, panels=(panel,)))
    assert [query.words for query in found.queries] == []
    (made,) = found.pieces
    assert sum(e.curve.length for e in made.edges) == pytest.approx(
        sum(e.curve.length for e in piece.edges), abs=LENGTH * 3
    )
    assert len(made.darts) == len(piece.darts)
    assert all(10 * line.off <= 1 and not line.ragged for line in trace.lines)


def test_a_wobbly_edge_of_muslin_is_within_2_mm(middling):
    piece = a_piece("bodice", "bodice_back", middling)
    taken = pictured(piece, shot=Shot(seed=5, above=90), wobble=0.04, notches=False)
    trace = taken.traced()
    ring = shapely.LinearRing(taken.on_table(trace, taken.outline))
    off = [10 * ring.distance(shapely.Point(spot)) for line in trace.lines for spot in line.curve.flattened()]
    assert np.percentile(off, 95) <= 2.0 and max(off) <= 3.0


@pytest.fixture(scope="module")
def lying():
    """The centre panel of a bustier: small, so that its pictures are quickly made."""
    piece = a_piece("bustier", "", {"bust_girth": 92.0, "waist_girth": 74.0, "hip_girth": 98.0, "height": 168.0})
    return pictured(piece, shot=Shot(seed=3, above=80, width=1640, height=1230), notches=False)


BAD = {
    "white on white": (Why.FAINT, {"table": (0.60, 0.70, 0.74)}, {}),
    "muslin on light wood": (Why.FAINT, {"table": (0.57, 0.68, 0.74), "stripes": 0.06}, {}),
    "one sheet printed at 97 %": (Why.WRONG_SIZE, {"scales": (1, 0.97, 1, 1)}, {}),
    "two sheets": (Why.FEW_SHEETS, {"only": (1, 4)}, {}),
    "three sheets in a row": (Why.ONE_SIDE, {"row": True}, {}),
    "from too far": (Why.COARSE, {}, {"above": 150}),
    "too skewed": (Why.SKEWED, {}, {"tilt": 42.0, "above": 95}),
    "blurred": (Why.FEW_SHEETS, {}, {"blur": 9.0}),
    "over the picture's edge": (Why.AT_THE_EDGE, {"long": True}, {}),
}


@pytest.mark.parametrize("bad", list(BAD))
def test_a_picture_that_cannot_be_measured_in_is_refused_with_its_reason(lying, bad):
    why, changed, shot = BAD[bad]
    scene = lying.scene
    if "scales" in changed:
        scene = replace(scene, sheets=among_sheets(lying.outline, seed=3, scales=changed["scales"]))
    if "only" in changed:
        scene = replace(scene, sheets=[sheet for sheet in scene.sheets if sheet.number in changed["only"]])
    if "row" in changed:
        scene = replace(
            scene, sheets=[replace(s, x=-36.0, y=-40.0 + 32 * i, turned=0) for i, s in enumerate(scene.sheets[:3])]
        )
    if "long" in changed:
        scene = replace(scene, outline=np.array([[-90, -3.0], [90, -3], [90, 10], [-90, 10]]), sheets=[
            replace(s, x=20 * (i % 2) - 20 + i, y=-32.0 + 50 * (i // 2), turned=0) for i, s in enumerate(scene.sheets)
        ])  # fmt: skip
    scene = replace(scene, **{key: value for key, value in changed.items() if key in ("table", "stripes")})
    shot = replace(lying.shot, **shot)
    taken = replace(lying, outline=np.asarray(scene.outline), scene=scene, shot=shot, picture=photographed(scene, shot))
    with pytest.raises(PictureRefused) as told:
        taken.traced()
    assert told.value.where == (why,), told.value
    assert any(digit.isdigit() for digit in told.value.message) or why in (Why.ONE_SIDE, Why.FAINT, Why.AT_THE_EDGE)


def test_a_tap_beside_the_piece_and_a_sheet_that_it_touches_are_told(lying):
    with pytest.raises(PictureRefused) as told:
        look_at_photo(lying.picture, (40.0, 40.0))
    assert told.value.where in ((Why.FAINT,), (Why.NO_PIECE,), (Why.AT_THE_EDGE,))
    # Its paper reaches half a cm over the piece's edge.
    over = float(lying.outline[:, 0].min()) + 0.5 - 18 - 1.5
    first = replace(lying.scene.sheets[0], x=over, y=0.0, turned=0.0)
    near = replace(lying.scene, sheets=[first, *lying.scene.sheets[1:]])
    taken = replace(lying, scene=near, picture=photographed(near, lying.shot))
    with pytest.raises(PictureRefused) as told:
        taken.traced()
    assert told.value.where == (Why.AT_A_SHEET,)


def test_without_sheets_nothing_is_guessed(lying):
    blank = np.full((900, 1200, 3), 128, np.uint8)
    with pytest.raises(PictureRefused, match="0 can be read"):
        calibrated(blank)
