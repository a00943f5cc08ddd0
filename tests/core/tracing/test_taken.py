"""What a person takes, moves and drops over a picture; how thick a piece is; a tape that checks the scale."""

from dataclasses import replace

import numpy as np
import pytest
import shapely

from izett.draping.given import drawn
from izett.draping.panel import Given, MarkKind, Source
from izett.tracing.camera_stand_in import Pencil, Shot, cut_out, photographed, scene_middle
from izett.tracing.known import taped
from izett.tracing.look import look_at_photo
from izett.tracing.told import PictureRefused
from izett.tracing.trace import Kind, Taken, panel_of, panel_of_marks, placing, trace_of
from tests.core.tracing.test_photos import a_piece
from tests.pictured import pencilled, pictured

BODY = {"bust_girth": 92.0, "waist_girth": 74.0, "hip_girth": 98.0, "height": 168.0}


@pytest.fixture(scope="module")
def lying():
    piece = a_piece("bustier", "", BODY)
    shot = Shot(seed=6, above=80, width=1640, height=1230)
    taken = pictured(piece, shot=shot, pencil=pencilled(piece, 6, seed=3))
    return taken, look_at_photo(taken.picture, taken.tap)


def pixels(look, spots):
    return [tuple(at) for at in look.mapping.pixels(np.array(spots).reshape(-1, 2) * (1, -1))]


def standing(look, trace, *, exact=True):
    corners = [line.curve.start for line in trace.lines]
    at = [(Kind.CORNER, spot) for spot in pixels(look, corners)]
    at += [(Kind.NOTCH, spot) for spot in pixels(look, trace.notches)]
    return [Taken(kind, spot, exact) for kind, spot in at]


def test_what_stands_comes_back_the_same_whether_exact_or_pointed_at(lying):
    _, look = lying
    first = trace_of(look)
    for exact in (True, False):
        again = trace_of(look, standing(look, first, exact=exact))
        assert len(again.lines) == len(first.lines) and again.darts == first.darts
        for one, other in zip(first.lines, again.lines, strict=True):
            assert np.allclose(one.curve.points, other.curve.points, atol=1e-6)
        assert np.allclose(again.notches, first.notches, atol=1e-6)


def test_a_corner_dropped_joins_two_lines_and_a_click_near_it_takes_it_again(lying):
    _, look = lying
    first = trace_of(look)
    stands = standing(look, first)
    corner = next(i for i, one in enumerate(stands) if one.kind is Kind.CORNER)
    less = trace_of(look, [one for i, one in enumerate(stands) if i != corner])
    assert len(less.lines) == len(first.lines) - 1
    assert sum(line.curve.length for line in less.lines) == pytest.approx(
        sum(line.curve.length for line in first.lines), abs=0.5
    )
    # Clicked 3 mm beside it: it lies where the outline turns.
    (x, y), px = stands[corner].at, look.px_per_cm
    clicked = Taken(Kind.CORNER, (x + 0.2 * px, y + 0.2 * px))
    again = trace_of(look, [*(one for i, one in enumerate(stands) if i != corner), clicked])
    assert len(again.lines) == len(first.lines)
    spots = np.array([line.curve.start for line in again.lines])
    assert np.linalg.norm(spots - first.lines[corner].curve.start, axis=1).min() < 1e-6


def test_a_corner_told_exactly_lies_there_and_the_outline_runs_to_it(lying):
    _, look = lying
    first = trace_of(look)
    stands = standing(look, first)
    moved = np.add(first.lines[0].curve.start, (0.3, 0.4))
    told = trace_of(look, [replace(stands[0], at=pixels(look, [moved])[0]), *stands[1:]])
    starts = np.array([line.curve.start for line in told.lines])
    assert np.linalg.norm(starts - moved, axis=1).min() < 1e-6
    assert len(told.lines) == len(first.lines)
    panel = panel_of(told, "Centre front")
    assert len(drawn(Given(source=Source.TRACE, panels=(panel,))).pieces) == 1


def test_a_corner_taken_on_a_plain_line_parts_it_without_bending_it(lying):
    _, look = lying
    first = trace_of(look)
    longest = max(first.lines, key=lambda line: line.curve.length)
    (middle,) = pixels(look, [longest.curve.split(longest.curve.length / 2)[0].end])
    parted = trace_of(look, [*standing(look, first), Taken(Kind.CORNER, middle)])
    assert len(parted.lines) == len(first.lines) + 1
    ring = shapely.LinearRing([spot for line in first.lines for spot in line.curve.flattened()[:-1]])
    off = [ring.distance(shapely.Point(spot)) for line in parted.lines for spot in line.curve.flattened()]
    assert max(off) < 0.08


def test_notches_are_dropped_and_taken_on_the_outline(lying):
    _, look = lying
    first = trace_of(look)
    stands = standing(look, first)
    assert len(first.notches) == 2
    none = trace_of(look, [one for one in stands if one.kind is not Kind.NOTCH])
    assert none.notches == ()
    middle = first.lines[1].curve.split(first.lines[1].curve.length / 2)[0].end
    inwards = np.add(middle, (0.1, 0.1))
    one = trace_of(look, [*stands, Taken(Kind.NOTCH, pixels(look, [inwards])[0])])
    assert len(one.notches) == 3
    ring = shapely.LinearRing(look.read.places * (1, -1))
    assert all(ring.distance(shapely.Point(spot)) < 0.02 for spot in one.notches)


def test_a_click_near_a_mark_takes_it_and_one_elsewhere_makes_its_own(lying):
    _, look = lying
    assert len(look.ghosts) == 6
    ghost = look.ghosts[0]
    near = pixels(look, [ghost.at * (1, -1) + (0.15, -0.1)])[0]
    far = min(pixels(look, [other.at * (1, -1) + (1.0, 0)])[0] for other in look.ghosts)
    asked = [Taken(Kind.DOT, near), Taken(Kind.DOT, near), Taken(Kind.CROSS, far)]
    trace = trace_of(look, [*standing(look, trace_of(look)), *asked])
    assert trace.marks is not None and len(trace.marks) == 2
    (kind, spot), (own, at) = trace.marks
    assert kind is ghost.kind and np.allclose(spot, ghost.at * (1, -1))
    assert own is MarkKind.CROSS and np.allclose(pixels(look, [at])[0], far, atol=1e-6)
    panel = panel_of(trace, "Centre front")
    made = drawn(Given(source=Source.TRACE, panels=(panel,)))
    assert [query.words for query in made.queries] == [] and len(made.pieces[0].marks) == 2
    alone = trace_of(look, asked, outline=False)
    assert len(alone.lines) == len(trace_of(look).lines)
    assert len(panel_of_marks(alone, "Centre front").marks) == 2
    assert len(panel_of_marks(trace_of(look, [], outline=False), "Centre front").marks) == 0


def test_an_outline_without_corners_is_refused(lying):
    _, look = lying
    with pytest.raises(PictureRefused, match="1 is left"):
        trace_of(look, standing(look, trace_of(look))[:1])


def test_two_corners_told_beside_one_place_of_the_outline_are_both_kept_and_a_hundred_are_no_piece(lying):
    _, look = lying
    stands = standing(look, trace_of(look))
    off = np.add(look.read.corners[0] * (1, -1), (-2.0, 2.0))
    told = [Taken(Kind.CORNER, at, exact=True) for at in pixels(look, [off, np.add(off, (0.0, 1.0))])]
    found = trace_of(look, [*stands[1:], *told])
    assert len(found.lines) == len([one for one in stands if one.kind is Kind.CORNER]) + 1
    with pytest.raises(PictureRefused, match="corners: that is no piece"):
        trace_of(look, [*stands, *told * 50])


def test_the_tip_of_a_dart_stays_where_it_was_told():
    piece = a_piece("bodice", "bodice_front", BODY)
    taken = pictured(piece, shot=Shot(seed=1, above=92, tilt=12))
    look = look_at_photo(taken.picture, taken.tap)
    first = trace_of(look)
    assert first.darts
    stands = standing(look, first)
    again = trace_of(look, stands)
    for one, other in zip(first.lines, again.lines, strict=True):
        assert np.allclose(one.curve.points, other.curve.points, atol=0.02)
    tip = first.darts[0]
    moved = np.add(first.lines[tip].curve.start, (0.0, 0.5))
    stands[tip] = replace(stands[tip], at=pixels(look, [moved])[0])
    told = trace_of(look, stands)
    assert tip in told.darts and np.allclose(told.lines[tip].curve.start, moved, atol=1e-6)


@pytest.mark.parametrize("thick", [0.2, 0.5])
def test_a_thick_piece_is_measured_at_its_upper_face(thick):
    piece = a_piece("bustier", "", BODY)
    shot = Shot(seed=8, above=85, tilt=10)
    flat = pictured(piece, shot=shot, notches=False)
    # Its upper face is seen where rays past its edge meet the table: larger, about the place under the camera.
    _, camera = shot._pose()
    foot, high = camera[:2] + scene_middle(flat.scene), camera[2]
    lifted = foot + (flat.outline - foot) * high / (high - thick)
    scene = replace(flat.scene, outline=lifted)
    picture = photographed(scene, shot)
    looks = [look_at_photo(picture, flat.tap, thick=told) for told in (0.0, thick)]
    plain, told = (shapely.Polygon(look.read.places).area for look in looks)
    real = shapely.Polygon(flat.outline).area
    # The stand-in's lens is a telephone's to within a tenth, and so is the correction.
    assert (plain / told) ** 0.5 - 1 == pytest.approx(thick / high, rel=0.1)
    assert plain > real * (1 + thick / high), "without its thickness it comes out too large"
    assert told == pytest.approx(real, rel=0.0035)


def test_a_tape_in_the_picture_checks_the_scale(lying):
    taken, look = lying
    middle = scene_middle(taken.scene)
    ends = taken.shot.pixels(np.array([np.add(middle, (by, 0)) for by in (-25, 25)]), middle)
    read = taped(look.table, ends, 50.0)
    assert read.measured == pytest.approx(50.0, abs=0.05) and read.agrees
    assert not taped(look.table, ends, 49.0).agrees
    with pytest.raises(PictureRefused, match="checks nothing"):
        taped(look.table, ends, 5.0)
    with pytest.raises(PictureRefused, match="checks nothing"):
        taped(look.table, [ends[0], ends[0]], 50.0)


def test_marks_come_in_the_order_of_walking_round_a_piece_that_turns_inwards():
    piece = a_piece("bodice", "bodice_back", BODY)
    outline, _ = cut_out(piece, notches=False)
    line = shapely.Polygon(outline).buffer(-2).exterior
    line = line if not line.is_ccw else line.reverse()
    count = 14
    spots = [line.interpolate((i + 0.5) / count, normalized=True).coords[0] for i in range(count)]
    kinds = ["cross" if i % 3 == 0 else "dot" for i in range(count)]
    pencil = [Pencil(kind, x, y) for kind, (x, y) in zip(kinds, spots, strict=True)]
    taken = pictured(piece, shot=Shot(seed=9, above=92, tilt=8), pencil=pencil)
    trace = trace_of(look_at_photo(taken.picture, taken.tap))
    assert len(trace.ghosts) == count
    panel = panel_of_marks(trace, "Back")
    lying = placing(trace, None).moved
    real = np.array([lying(spot) for spot in taken.on_table(trace, spots)])
    order = [int(np.linalg.norm(real - mark.spot, axis=1).argmin()) for mark in panel.marks]
    # Counter-clockwise seen from above, as every outline is; it begins at a corner.
    assert sorted(order) == list(range(count))
    assert {(a - b) % count for a, b in zip(order, [*order[1:], order[0]], strict=True)} in ({1}, {count - 1})
    assert panel.marks[0].kind is MarkKind.CROSS
