"""The curves below the waist by themselves: hip curve, waist with darts on turned paper, crotch, rectangle."""

import itertools
from math import atan2, cos, degrees, hypot, pi, radians, sin

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from izett.drafting.hip import DrawnWaist, drawn_waist, hip_curve, lean_of, to_measure, upright, waist_edges, wide_at
from izett.drafting.straight_cut import rectangle
from izett.drafting.trousers.crotch import Corner, corner_depth, crotch_curve
from izett.drafting.waistline import WaistDart
from izett.geometry.curve import straight
from izett.geometry.motion import Motion
from izett.geometry.outline import signed_area
from izett.geometry.point import dot, turn
from izett.pattern.facts import Role, Zone
from izett.pattern.piece import LevelLine
from tests.core.blocks import drafted, faults

SUMS = {"waist_to_hip": 21.0, "hip_fullness": 0.33, "hip_upright": 0.36}


@given(st.floats(-3, 6), st.floats(16, 26))
def test_a_hip_curve_leaves_on_its_lean_and_arrives_upright_without_a_hook(take, depth):
    sums = {**SUMS, "waist_to_hip": depth}
    waist, hip = (24.0 - take, -0.8), (24.0, depth)
    curve = hip_curve(waist, hip, take, sums)
    assert curve.start_direction == pytest.approx(lean_of(take, depth))
    assert curve.end_direction == pytest.approx((0, 1), abs=1e-9)
    line = curve.flattened(flatness=0.01)
    assert all(b[1] > a[1] for a, b in itertools.pairwise(line)), "it never turns back up"
    assert max(p[0] for p in line) <= max(24.0, 24.0 - take) + 0.9
    widest = wide_at(curve, DrawnWaist((), ()), depth)
    assert widest == pytest.approx(24.0, abs=0.02)


@given(st.floats(-0.2, 0.2), st.lists(st.floats(0.8, 3.5), min_size=0, max_size=3), st.floats(17, 22))
def test_a_waist_drawn_on_turned_paper_measures_what_it_should_and_is_square(angle, intakes, aim):
    centre, side = (0.0, 0.0), (24.0 * cos(angle), 24.0 * sin(angle))
    turned = Motion.turning(-angle, about=centre)

    def draw(extra):
        end = turned(side)
        grown = [intake + extra / len(intakes) for intake in intakes]
        if not intakes:
            end = (end[0] - extra, end[1])
        step = end[0] / (len(grown) + 1)
        darts = [WaistDart((i + 1) * step, 11.0, intake) for i, intake in enumerate(grown)]
        return drawn_waist(centre, (1.0, 0.0), end, lean_of(2.0, 21.0), darts, turned.inverse())

    assume(not intakes or (24 - aim + sum(intakes)) / len(intakes) < 6)
    waist, extra = to_measure(draw, aim)
    assume(all(intake + extra / len(intakes) > 0.2 for intake in intakes))
    assert waist.length == pytest.approx(aim, abs=1e-9)
    edges, darts = waist_edges("skirt_front", waist, ends=("side", "centre"))
    assert [dart.name for dart in darts] == [
        "skirt_front.waist_dart" + (f"_{n}" if n > 1 else "") for n in range(1, len(intakes) + 1)
    ]
    for edge, following in itertools.pairwise(edges):
        assert edge.curve.end == following.curve.start and edge.end == following.start
        if following.role is Role.DART_LEG and edge.role is Role.WAIST:
            across = dot(edge.curve.end_direction, following.curve.start_direction)
            assert abs(across) < 1e-6, "the waist line is square to the dart's leg"
    assert edges[-1].curve.end == pytest.approx(upright(centre), abs=1e-9)
    for dart, drawn in zip(darts, waist.darts, strict=True):
        assert dart.pivot == pytest.approx(waist.on_paper((drawn.x, drawn.tip)))


@given(st.floats(4.5, 7.5), st.floats(6, 11), st.floats(0, 12), st.floats(2.5, 3.5))
def test_a_crotch_curve_is_as_deep_in_its_corner_as_asked(fork, height, slope, depth):
    corner = Corner((0.0, height), (0.0, -1.0))
    into = (cos(radians(slope)), -sin(radians(slope)))
    curve = crotch_curve(((0.0, 0.0), (0.0, 0.0)), (-fork, height), into, corner, depth)
    assert curve.start == (0.0, 0.0) and curve.end == (-fork, height)
    assert curve.start_direction == pytest.approx((0, 1), abs=1e-9)
    assert (curve.end_direction[0], curve.end_direction[1]) == pytest.approx((-into[0], -into[1]), abs=1e-9)
    assert corner_depth(curve, corner) == pytest.approx(depth, abs=0.9)
    line = curve.flattened(flatness=0.01)
    turns = [
        turn((b[0] - a[0], b[1] - a[1]), (c[0] - b[0], c[1] - b[1]))
        for a, b, c in zip(line, line[1:], line[2:], strict=False)
    ]
    assert all(t >= -1e-6 for t in turns), "it bends one way only"
    assert degrees(sum(turns)) < 95


def test_the_depth_of_a_straight_line_is_its_distance_from_the_corner():
    corner = Corner((0.0, 6.0), (0.0, -1.0))
    assert corner_depth(straight((0.0, 0.0), (-6.0, 6.0)), corner) == pytest.approx(hypot(3, 3))
    quarter = [(-6 + 6 * cos(a), 6 * sin(a)) for a in (i * pi / 400 for i in range(201))]
    arc = min(hypot(x - 0, y - 6) for x, y in quarter)
    assert arc == pytest.approx(6 * (2**0.5 - 1), abs=1e-3), (
        "a quarter circle stays 0.41 of its radius out of its corner"
    )
    assert degrees(atan2(*corner.bisector)) == pytest.approx(-135)


@given(st.floats(5, 90), st.floats(5, 120))
def test_a_rectangle_is_one(width, length):
    piece = rectangle(
        "a",
        "A",
        zone=Zone.BODY,
        cut=2,
        width=width,
        length=length,
        stops=(("slit", length / 3),),
        lines=(LevelLine("fold", ((0, 1), (1, 1))),),
    )
    assert signed_area(piece.outline()) == pytest.approx(width * length)
    assert {edge.role for edge in piece.edges} == {Role.CUT_EDGE}
    assert [edge.lineage for edge in piece.edges] == ["a.right"] * 2 + ["a.top"] + ["a.left"] * 2 + ["a.bottom"]
    assert piece.vertex("a.slit_left") == (0.0, length / 3)


def test_a_skirt_by_itself_needs_waist_and_hip_only():
    for measures in (
        {"waist_girth": 74.0, "hip_girth": 98.0},
        {"waist_girth": 74.0, "hip_girth": 98.0, "height": 168.0},
    ):
        draft = drafted(["skirt"], measures)
        assert list(faults(draft)) == []
        assert "apex_span" not in {line.symbol for line in draft.lines}
