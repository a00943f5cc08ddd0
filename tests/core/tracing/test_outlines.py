"""What is read of an outline and of a scale, on shapes and cameras that are known exactly: no picture is made."""

import numpy as np
import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st

from izett.tracing.corners import MOST_CORNERS, read
from izett.tracing.mapping import Flat, scale_at
from izett.tracing.scales import by_rectangle, by_two_points
from izett.tracing.told import PictureRefused, Why

BLANK = np.zeros((1500, 2000, 3), np.uint8)


def ring(*spots):
    """A closed outline with a place each 0.03 cm, as one is seen."""
    line = shapely.LinearRing(spots)
    return np.array([line.interpolate(at).coords[0] for at in np.arange(0, line.length, 0.03)])


def near(found, spots, within):
    return all(np.linalg.norm(np.asarray(found) - spot, axis=1).min() < within for spot in np.asarray(spots, float))


@given(st.floats(-0.08, 0.08), st.floats(0.4, 0.9), st.floats(0, 6.28), st.floats(-2e-4, 2e-4), st.floats(-2e-4, 2e-4))
def test_pixels_and_table_are_each_others_way_back(bend, size, turn, lean_x, lean_y):
    c, s = size / 40 * np.cos(turn), size / 40 * np.sin(turn)
    mapping = Flat(np.array([[c, -s, 0.1], [s, c, -0.05], [lean_x, lean_y, 1]]), bend, (999.5, 749.5), 1250.0)
    spots = np.stack(np.meshgrid(np.linspace(-20, 20, 7), np.linspace(-15, 15, 7)), axis=-1).reshape(-1, 2)
    assert mapping.spots(mapping.pixels(spots)) == pytest.approx(spots, abs=1e-4)
    assert scale_at(mapping, np.zeros(2)) == pytest.approx(size / 40 * 1250, rel=0.2)


def test_corners_and_a_notch_of_a_rectangle():
    found = read(ring((0, 0), (12, 0), (12.2, 0.45), (12.4, 0), (30, 0), (30, 20), (0, 20)))
    assert len(found.corners) == 4
    assert near(found.corners, [(0, 0), (30, 0), (30, 20), (0, 20)], 0.05)
    (notch,) = found.notches
    assert notch.at == pytest.approx((12.2, 0), abs=0.06)
    assert notch.deep == pytest.approx(0.45, abs=0.08)
    assert found.darts == ()


def test_a_dart_that_is_cut_out_is_a_dart_and_a_square_bay_is_none():
    dart = read(ring((0, 0), (13, 0), (15, 12), (17, 0), (30, 0), (30, 20), (0, 20)))
    (tip,) = dart.darts
    assert dart.corners[tip] == pytest.approx((15, 12), abs=0.2)
    assert dart.notches == ()
    bay = read(ring((0, 0), (12, 0), (12, 8), (18, 8), (18, 0), (30, 0), (30, 20), (0, 20)))
    assert bay.darts == () and len(bay.corners) == 8


def test_a_round_piece_has_two_places_to_begin_and_no_corner_is_made_up():
    circle = read(ring(*shapely.Point(0, 0).buffer(12, quad_segs=90).exterior.coords[:-1]))
    assert len(circle.corners) == 2
    assert sum(len(line) for line in circle.lines) > 600
    # A tight bend of 4 cm is a bend.
    bent = read(ring(*shapely.box(0, 0, 30, 20).buffer(4, quad_segs=60).exterior.coords[:-1]))
    assert len(bent.corners) == 2


def test_what_is_all_corners_is_no_piece():
    star = [
        (np.cos(a) * r, np.sin(a) * r) for i, a in enumerate(np.linspace(0, 6.28, 91)[:-1]) for r in [20 + 4 * (i % 2)]
    ]
    assert len(star) > 2 * MOST_CORNERS
    with pytest.raises(PictureRefused) as told:
        read(ring(*star))
    assert told.value.where == (Why.RAGGED.value,)


@given(st.floats(-0.2, 0.2), st.floats(-0.2, 0.2), st.floats(20, 120), st.floats(20, 120))
def test_a_rectangle_takes_the_tilt_out(lean_x, lean_y, width, height):
    real = np.array([[0, 0], [width, 0], [width, height], [0, height]])
    size = max(width, height)
    seen = 300 + 900 * (real / size) / (1 + (real / size) @ np.array([[lean_x], [lean_y]]))
    mapping = by_rectangle(BLANK, [(x, y) for x, y in seen], width, height)
    middle = real.mean(axis=0)
    pixel = 300 + 900 * (middle / size) / (1 + (middle / size) @ np.array([lean_x, lean_y]))
    assert mapping.spots(pixel[None])[0] == pytest.approx(middle, abs=1e-4)


def test_two_points_tell_a_scale_whichever_way_they_lie():
    mapping = by_two_points(BLANK, [(100, 100), (400, 500)], 25.0)
    spots = mapping.spots(np.array([[0, 0], [200, 0], [0, 200]], float))
    assert np.linalg.norm(spots[1:] - spots[0], axis=1) == pytest.approx([10, 10])
