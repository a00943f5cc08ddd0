"""Curves along dots: as few cubics as the dots allow, and nothing smoothed over silently."""

import random
from math import cos, pi, sin

import numpy as np
import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.interpolate import CubicSpline, splev, splprep

from izett.geometry.curve import Curve
from izett.geometry.dots import along_dots, through_all
from izett.geometry.point import distance

NOISE, MOST = 0.15, 0.3

#: Known cubics: an armhole, a hip, a sweep that turns, a neckline, a nearly straight line.
KNOWN = {
    "armhole": Curve(((0, 0), (-6, 0.5), (-7.5, 8), (-6, 20))),
    "hip": Curve(((0, 0), (0.3, 6), (2.5, 10), (3, 22))),
    "turning": Curve(((0, 0), (8, -1), (10, 4), (22, 3))),
    "neckline": Curve(((0, 0), (0.4, -4.6), (2.9, -7), (7, -7))),
    "gentle": Curve(((0, 0), (8, 0.6), (16, 0.6), (24, 0))),
}


def dots_on(curve, count, scatter=0.0, seed=1):
    chance = random.Random(seed)
    spots = [curve.at_distance(curve.length * (i + 1) / (count + 1)) for i in range(count)]
    return tuple((x + chance.gauss(0, scatter), y + chance.gauss(0, scatter)) for x, y in spots)


def apart(a, b):
    lines = [shapely.linestrings(np.asarray(c.flattened(flatness=0.001))) for c in (a, b)]
    return shapely.hausdorff_distance(*lines)


@pytest.mark.parametrize("name", KNOWN)
def test_exact_dots_of_a_known_cubic_give_that_cubic(name):
    known = KNOWN[name]
    found = along_dots(known.start, dots_on(known, 7), known.end, noise=NOISE, most=MOST)
    assert found.cubics == 1
    assert apart(found.curve, known) < 0.02
    assert found.curve.length == pytest.approx(known.length, abs=0.02)


@pytest.mark.parametrize("name", KNOWN)
def test_scattered_dots_stay_within_three_millimetres_of_the_known_cubic_and_take_one(name):
    known = KNOWN[name]
    for seed in range(6):
        dots = dots_on(known, max(int(known.length / 3), 3), scatter=NOISE / 2**0.5, seed=seed)
        found = along_dots(known.start, dots, known.end, noise=NOISE, most=MOST)
        assert apart(found.curve, known) < 0.35, seed
        assert found.cubics == 1


def test_the_curve_lies_about_as_near_to_the_truth_as_a_smoothing_spline_through_the_same_dots():
    """Against scipy's smoothing spline (splprep), which is free to turn wherever its dots do: at most a quarter further."""
    ours, theirs = [], []
    for seed in range(8):
        for known in KNOWN.values():
            dots = dots_on(known, 8, scatter=NOISE / 2**0.5, seed=seed)
            points = np.asarray([known.start, *dots, known.end])
            weights = np.asarray([1e3, *[1 / (NOISE / 2**0.5)] * 8, 1e3])
            spline, _ = splprep(points.T, w=weights, s=len(dots))
            drawn = Curve(tuple(_as_line(spline)))
            ours.append(apart(along_dots(known.start, dots, known.end, noise=NOISE, most=MOST).curve, known))
            theirs.append(shapely.hausdorff_distance(_line(known), shapely.linestrings(np.asarray(drawn.points))))
    assert np.mean(ours) <= np.mean(theirs) * 1.25


def _as_line(spline):
    x, y = splev(np.linspace(0, 1, 202), spline)
    points = [(float(a), float(b)) for a, b in zip(x, y, strict=True)]
    return points[: (len(points) - 1) // 3 * 3 + 1]


def _line(curve):
    return shapely.linestrings(np.asarray(curve.flattened(flatness=0.001)))


def test_a_line_that_no_cubic_draws_takes_as_few_as_it_needs():
    wave = [(x, 3 * sin(x / 24 * 2.5 * pi)) for x in np.linspace(0, 24, 25)]
    found = along_dots(wave[0], tuple(wave[1:-1]), wave[-1], noise=NOISE, most=MOST)
    assert 2 <= found.cubics <= 4
    assert found.farthest <= MOST


@pytest.mark.parametrize("at", [1, 3, 6])
def test_a_dot_that_alone_is_wrong_is_told_and_does_not_bend_the_line(at):
    known = KNOWN["hip"]
    dots = list(dots_on(known, 8))
    x, y = dots[at]
    dots[at] = (x + 0.9, y)
    found = along_dots(known.start, tuple(dots), known.end, noise=NOISE, most=MOST)
    assert found.off[at] > 0.6
    assert max(off for i, off in enumerate(found.off) if i != at) < 0.2
    assert apart(found.curve, known) < 0.25


def test_a_tight_bend_near_an_end_is_no_wrong_dot():
    bend = Curve(((0, 0), (0, 3), (0.5, 4.5), (3, 5), (9, 6), (14, 6), (22, 4)))
    dots = dots_on(bend, 8)
    found = along_dots(bend.start, dots, bend.end, noise=NOISE, most=MOST)
    assert found.farthest <= MOST


def test_a_line_bends_one_way_where_its_dots_only_scatter():
    known = KNOWN["gentle"]
    for seed in range(6):
        found = along_dots(known.start, dots_on(known, 5, scatter=0.08, seed=seed), known.end, noise=NOISE, most=MOST)
        spots = np.asarray(found.curve.flattened())
        (x, y), (u, v) = np.diff(spots, axis=0)[:-1].T, np.diff(spots, axis=0)[1:].T
        turns = x * v - y * u
        assert np.all(turns <= 1e-6) or np.all(turns >= -1e-6)


def test_its_ends_and_their_directions_are_kept():
    leaving, arriving = (0.0, -1.0), (1.0, 0.0)
    known = KNOWN["neckline"]
    found = along_dots(
        known.start, dots_on(known, 3), known.end, leaving=leaving, arriving=arriving, noise=NOISE, most=MOST
    )
    assert (found.curve.start, found.curve.end) == (known.start, known.end)
    assert found.curve.start_direction == pytest.approx(leaving, abs=1e-9)
    assert found.curve.end_direction == pytest.approx(arriving, abs=1e-9)


def test_without_dots_it_is_a_plain_bend_between_its_directions():
    found = along_dots((0.0, 0.0), (), (10.0, 2.0), leaving=(1.0, 0.0), noise=NOISE, most=MOST)
    assert found.off == ()
    assert found.curve.length < 1.05 * distance((0, 0), (10, 2))


@settings(max_examples=25, derandomize=True, deadline=None)
@given(
    scale=st.sampled_from([0.001, 1.0, 1000.0]),
    far=st.tuples(st.floats(-1e4, 1e4), st.floats(-1e4, 1e4)),
    angle=st.floats(-pi, pi),
    name=st.sampled_from(sorted(KNOWN)),
)
def test_it_is_the_same_curve_wherever_and_however_large_it_is_drawn(scale, far, angle, name):
    known = KNOWN[name]

    def moved(point):
        x, y = point
        return (
            scale * (x * cos(angle) - y * sin(angle)) + far[0] * scale,
            scale * (x * sin(angle) + y * cos(angle)) + far[1] * scale,
        )

    dots = dots_on(known, 6, scatter=0.05)
    plain = along_dots(known.start, dots, known.end, noise=NOISE, most=MOST)
    there = along_dots(
        moved(known.start), tuple(map(moved, dots)), moved(known.end), noise=NOISE * scale, most=MOST * scale
    )
    assert there.cubics == plain.cubics
    assert np.asarray(there.off) == pytest.approx(np.asarray(plain.off) * scale, abs=0.02 * scale)


def test_through_all_passes_every_dot_as_scipys_spline_does():
    """Against scipy.interpolate.CubicSpline through the same points, by chord length."""
    dots = [(1.0, 2.0), (4.0, 3.5), (8.0, 2.0), (12.0, 4.0)]
    curve = through_all((0.0, 0.0), dots, (15.0, 3.0))
    points = np.asarray([(0.0, 0.0), *dots, (15.0, 3.0)])
    at = np.concatenate(([0.0], np.cumsum(np.hypot(*np.diff(points, axis=0).T))))
    theirs = CubicSpline(at, points)(np.linspace(0, at[-1], 400))
    assert shapely.hausdorff_distance(_line(curve), shapely.linestrings(theirs)) < 0.01
    for dot in dots:
        assert shapely.distance(_line(curve), shapely.points(dot)) < 0.002
