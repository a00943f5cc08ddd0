"""Cutting and laying paper, against shapely and scipy: areas, lengths, mirror images; lines that stay walkable over cuts."""

import itertools

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.integrate import quad
from scipy.interpolate import CubicSpline
from shapely import Polygon
from shapely.affinity import scale as mirror

from izett.geometry.fit import smoothed, through
from izett.geometry.outline import along_line
from izett.geometry.point import distance
from izett.pattern.copies import flipped, prefixed
from izett.pattern.piece import Span
from izett.pattern.sewn import resolved, span_length
from izett.pattern.walking import walked
from izett.recipe.model import Recipe, Step
from tests.acting import PassedOver, acting
from tests.bodies import some_bodies

ARMHOLE = Span("front.underarm", "front.shoulder_tip", "front.armhole")


def area(piece):
    return Polygon(piece.outline()).area


def on(evaluator, body, *steps, blocks=("bodice",)):
    made = tuple(Step(f"s{i}", kind, params) for i, (kind, params) in enumerate(steps))
    return evaluator.evaluate(Recipe(blocks[0], body, also=blocks[1:], steps=made))


def place(span, fraction):
    return {"start": span.start, "end": span.end, "along": span.along, "fraction": fraction}


@acting(least=0.75)
@given(st.sampled_from(some_bodies(20)), st.floats(0.25, 0.75), st.floats(0.3, 0.7))
def test_a_style_line_neither_loses_nor_adds_paper(evaluator, body, neck, hole):
    """Areas by shapely: two parts are the whole; the parted armhole is as long as before, walked over the cut."""
    neckline = Span("front.neck_shoulder", "front.neck_cf", "front.neck")
    evaluation = on(evaluator, body, ("style_line", {"start": place(neckline, neck), "end": place(ARMHOLE, hole)}))
    if evaluation.stages[0].failure is not None:
        assert "corner" in evaluation.stages[0].failure.message or "paper" in evaluation.stages[0].failure.message
        raise PassedOver
    before, after = evaluation.draft.pattern, evaluation.pattern
    whole = before.piece("bodice_front")
    parts = [piece for piece in after if piece.part == "front"]
    assert len(parts) == 2
    assert sum(area(part) for part in parts) == pytest.approx(area(whole), rel=1e-4)  # flattened
    chain = resolved(after, ARMHOLE)
    assert sum(span_length(after.holding(s.start), s) for s in chain) == pytest.approx(
        span_length(whole, ARMHOLE), abs=1e-6
    )
    new = after.seams[-1]
    lengths = [sum(span_length(after.holding(s.start), s) for s in side) for side in new.sides]
    assert lengths[0] == pytest.approx(lengths[1], abs=1e-9)


@acting(least=0.9)
@given(st.sampled_from(some_bodies(20)), st.floats(0.35, 0.7))
def test_a_princess_keeps_the_armhole_and_matches_its_panels(evaluator, body, hole):
    evaluation = on(evaluator, body, ("princess", {"start": place(ARMHOLE, hole), "bow": 1.0}))
    if evaluation.stages[0].failure is not None:
        raise PassedOver
    before, after = evaluation.draft.pattern.piece("bodice_front"), evaluation.pattern
    chain = resolved(after, ARMHOLE)
    assert len(chain) == 2
    assert sum(span_length(after.holding(s.start), s) for s in chain) == pytest.approx(
        span_length(before, ARMHOLE), abs=1e-6
    )
    seam = next(s for s in after.seams if s.name.startswith("s0.princess"))
    first, second = (sum(span_length(after.holding(s.start), s) for s in side) for side in seam.sides)
    assert 0 <= second - first <= 0.6
    # Close to the body the two panels are as wide as the front with its darts shut, or a little fuller over the bust.
    parts = [p for p in after if p.part == "front"]
    assert sum(p.level("bust") for p in parts) == pytest.approx(before.level("bust"), abs=0.3)


def test_turned_over_a_piece_is_shapelys_mirror_image(evaluator, middling):
    piece = on(evaluator, middling).pattern.piece("bodice_back")
    over = flipped(piece, ((0.0, 0.0), (0.0, 1.0)))
    assert Polygon(over.outline()).exterior.is_ccw
    theirs = mirror(Polygon(piece.outline()), xfact=-1, origin=(0, 0))
    assert Polygon(over.outline()).symmetric_difference(theirs).area < 1e-9
    again = flipped(over, ((0.0, 0.0), (0.0, 1.0)))
    assert {e.start: e.curve.start for e in again.edges} == {e.start: e.curve.start for e in piece.edges}


def test_a_copy_shares_no_name_with_its_original(evaluator, middling):
    piece = on(evaluator, middling).pattern.piece("bodice_front")
    copy = prefixed(piece, "c")
    assert not set(copy.vertices) & set(piece.vertices)
    assert [e.curve for e in copy.edges] == [e.curve for e in piece.edges]
    assert {d.name for d in copy.darts} == {f"c.{d.name}" for d in piece.darts}


@given(st.lists(st.tuples(st.floats(1.0, 6.0), st.floats(-3.0, 3.0)), min_size=3, max_size=9))
def test_a_smooth_line_is_scipys_spline_and_as_long(steps):
    """The cubics drawn are the clamped spline of scipy, and their length is its arc length by scipy's quadrature."""
    points = np.cumsum([(0.0, 0.0), *steps], axis=0)
    marks = [(float(x), float(y)) for x, y in points]
    curve = through(marks, leaving=(1.0, 0.0), arriving=(1.0, 0.0))
    gaps = np.hypot(*np.diff(points, axis=0).T)
    at = np.concatenate(([0.0], np.cumsum(gaps)))
    spline = CubicSpline(at, points, bc_type=((1, (1.0, 0.0)), (1, (1.0, 0.0))))
    length = sum(quad(lambda t: float(np.hypot(*spline(t, 1))), a, b)[0] for a, b in itertools.pairwise(at))
    assert curve.length == pytest.approx(length, rel=1e-6)
    for mark in marks:
        line = curve.flattened()
        near = line[int(np.argmin([distance(p, mark) for p in line]))]
        assert distance(near, mark) < 1.0
        assert along_line(line, mark) >= 0


def test_curves_in_one_line_stay_straight_when_joined():
    from izett.geometry.curve import straight

    line, off = smoothed([straight((0, 0), (3, 1)), straight((3, 1), (9, 3))])
    assert line.is_straight
    assert off == 0.0


def test_a_seam_walked_by_its_notches_has_its_ease_where_it_lies(evaluator, middling):
    """Below the notches armhole and cap are walked alike; the cap's ease lies between them."""
    pattern = on(evaluator, middling, blocks=("bodice", "sleeve")).pattern
    walk = walked(pattern, next(s for s in pattern.seams if s.name == "cap"))
    first, last = walk.notches[0][0], walk.notches[0][-1]
    for step in walk.steps:
        if step.along <= first.along:
            assert step.other == pytest.approx(step.along, abs=1e-6)
        if step.along >= last.along:
            assert walk.lengths[1] - step.other == pytest.approx(walk.lengths[0] - step.along, abs=1e-6)
    assert walk.steps[-1].other == pytest.approx(walk.lengths[1])


def test_equal_edges_do_not_part_when_walked(evaluator, middling):
    pattern = on(evaluator, middling).pattern
    walk = walked(pattern, next(s for s in pattern.seams if s.name == "side"))
    assert max(step.gap for step in walk.steps) < 0.05
