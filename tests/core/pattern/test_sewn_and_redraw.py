"""Reading a ring as sewn, and redrawing it when its corners move."""

from dataclasses import replace
from itertools import pairwise
from math import degrees

import pytest

from izett.errors import ReferenceLost
from izett.geometry.motion import Motion
from izett.geometry.point import distance, subtract, turn
from izett.pattern.facts import Role
from izett.pattern.piece import Span, dart_angle, legs, mouth_width, tip_of
from izett.pattern.redraw import redrawn
from izett.pattern.sewn import holding, place_on, seam_lengths, shutting, span_length, walk
from izett.recipe.model import Recipe, Step
from tests.bodies import some_bodies
from tests.core.blocks import with_seam

SIDE = Span("front.waist_side", "front.underarm", "front.side")
WAIST = Span("front.waist_cf", "front.waist_side", "front.waist")


@pytest.fixture
def pattern(evaluator, middling):
    return evaluator.evaluate(Recipe("bodice", middling)).pattern


@pytest.fixture
def front(pattern):
    return pattern.piece("bodice_front")


def test_a_span_is_walked_over_its_darts(front):
    stretches = walk(front, SIDE)
    assert [s.edge.end for s in stretches] == ["front.bust_a", "front.underarm"]
    assert span_length(front, SIDE) == pytest.approx(sum(s.edge.curve.length for s in stretches))
    # with the dart shut the two stretches meet and lie in one straight line
    first, second = (s.curve for s in stretches)
    assert distance(first.end, second.start) < 1e-9
    assert abs(degrees(turn(first.end_direction, second.start_direction))) < 1e-6


def test_a_span_walked_backwards_is_the_same_length(front):
    back = Span(SIDE.end, SIDE.start, SIDE.along)
    assert span_length(front, back) == pytest.approx(span_length(front, SIDE), abs=1e-12)
    stretches = walk(front, back)
    assert not any(s.forward for s in stretches)
    assert distance(stretches[0].curve.end, stretches[1].curve.start) < 1e-9


def test_the_waist_is_smooth_with_its_darts_shut(evaluator):
    """Square to each leg, so that the line runs on when the dart is folded: on every body."""
    for body in some_bodies(30):
        for piece in evaluator.evaluate(Recipe("bodice", body)).pattern:
            centre = "waist_cf" if piece.part == "front" else "waist_cb"
            span = Span(f"{piece.part}.{centre}", f"{piece.part}.waist_side", f"{piece.part}.waist")
            stretches = walk(piece, span)
            for before, after in pairwise(stretches):
                assert distance(before.curve.end, after.curve.start) < 1e-6
                dart = next(d for d in piece.darts if d.mouth[0] == before.edge.end)
                a, b, tip = (piece.vertex(v) for v in (*dart.mouth, dart.tip))
                # The legs are sewn to the drawn tip: shut about that, the line runs on exactly.
                sewn = Motion.turning(-turn(subtract(a, tip), subtract(b, tip)), about=tip)
                arriving, leaving = before.open_curve.end_direction, sewn.direction(after.open_curve.start_direction)
                assert abs(degrees(turn(arriving, leaving))) < 1e-6


def test_a_place_is_found_across_a_dart(front):
    whole = span_length(front, SIDE)
    lower = walk(front, SIDE)[0].edge.curve.length
    stretch, along = place_on(front, SIDE, lower + 1)
    assert stretch.edge.start == "front.bust_b"
    assert along == pytest.approx(1)
    assert place_on(front, SIDE, whole + 9)[1] == pytest.approx(stretch.edge.curve.length)
    assert place_on(front, SIDE, -1)[1] == 0


@pytest.mark.parametrize(
    "span",
    [
        Span("front.nowhere", "front.underarm", "front.side"),
        Span("front.waist_side", "front.underarm", "front.armhole"),
        Span("front.underarm", "front.underarm", "front.side"),
        Span("front.waist_side", "front.shoulder_tip", "front.side"),
    ],
)
def test_a_span_that_is_none_is_a_typed_failure(front, span):
    with pytest.raises(ReferenceLost) as lost:
        walk(front, span)
    assert lost.value.where == (span.start, span.end)


def test_a_lost_corner_names_itself(pattern):
    with pytest.raises(ReferenceLost, match="point nowhere is gone") as lost:
        holding(pattern, "front.nowhere")
    assert lost.value.where == ("front.nowhere",)
    assert holding(pattern, "back.underarm").name == "bodice_back"


def test_names_survive_a_closed_dart(evaluator, middling):
    place = {"start": "front.neck_shoulder", "end": "front.shoulder_tip", "along": "front.shoulder", "fraction": 0.5}
    move = Step("m1", "move_dart", {"dart": "front.bust_dart", "to": place})
    moved = evaluator.evaluate(Recipe("bodice", middling, steps=(move,))).pattern.piece("bodice_front")
    assert moved.vertex("front.bust_b") == moved.vertex("front.bust_a")
    assert moved.dart("front.bust_dart").mouth == ("m1.a", "m1.b")
    assert {e.lineage for e in moved.edges if e.role is Role.SIDE} == {"front.side"}
    again = Step("m2", "move_dart", {"dart": "front.bust_dart", "to": {**place, "fraction": 0.25}, "share": 0.5})
    twice = evaluator.evaluate(Recipe("bodice", middling, steps=(move, again))).pattern.piece("bodice_front")
    assert {d.name for d in twice.darts if d.family == "bust"} == {"front.bust_dart", "m2.bust_dart"}


def test_shutting_a_dart_brings_its_legs_together(front):
    for dart in front.darts:
        a, b = (front.vertex(v) for v in dart.mouth)
        assert shutting(front, dart, forward=True)(b) == pytest.approx(a, abs=1e-9)
        assert shutting(front, dart, forward=False)(a) == pytest.approx(b, abs=1e-9)
        assert dart_angle(front, dart) > 0
        assert mouth_width(front, dart) == pytest.approx(distance(a, b))


def test_a_tip_is_set_back_along_the_bisector():
    assert tip_of((0, 10), ((-1, 0), (1, 0)), 3) == pytest.approx((0, 7))
    assert tip_of((0, 10), ((-1, 0), (1, 0)), 0) == (0, 10)
    assert tip_of((0, 0), ((-1, 0), (1, 0)), 3) == (0, 0)


def test_redrawing_without_moves_changes_nothing(front):
    assert redrawn(front, moves={}) == front


def test_a_moved_corner_takes_its_lines_along_and_leaves_the_rest(front):
    x, y = front.vertex("front.shoulder_tip")
    moved = redrawn(front, moves={"front.shoulder_tip": (x + 1, y - 0.4)})
    assert moved.vertex("front.shoulder_tip") == (x + 1, y - 0.4)
    changed = {e.lineage for e, was in zip(moved.edges, front.edges, strict=True) if e.curve != was.curve}
    # the neckline stays square to the shoulder, which slopes more now
    assert changed == {"front.armhole", "front.shoulder", "front.neck"}
    for edge, following in zip(moved.edges, (*moved.edges[1:], moved.edges[0]), strict=True):
        assert edge.curve.end == following.curve.start


def test_a_curve_turns_with_the_straight_line_it_meets(front):
    """The corner between side seam and armhole stays what it was when the side seam leans more."""

    def corner(piece):
        side = next(e for e in piece.edges if e.end == "front.underarm").curve
        armhole = next(e for e in piece.edges if e.start == "front.underarm").curve
        return degrees(turn(side.end_direction, armhole.start_direction))

    x, y = front.vertex("front.underarm")
    moved = redrawn(front, moves={"front.underarm": (x + 1.5, y)})
    assert corner(moved) == pytest.approx(corner(front), abs=1e-6)


def test_legs_are_rebuilt_from_the_dart_alone(front):
    dart = front.dart("front.bust_dart")
    a, b = (front.vertex(v) for v in dart.mouth)
    first, second = legs(dart, a, b)
    assert first.curve.length == pytest.approx(second.curve.length)
    further = redrawn(front, moves={}, darts=[replace(d, set_back=d.set_back + 1) for d in front.darts])
    assert distance(further.vertex(dart.tip), dart.pivot) == pytest.approx(dart.set_back + 1)


def test_seams_are_measured_side_by_side(pattern):
    shoulder, side = pattern.seams
    first, second = seam_lengths(pattern, shoulder)
    assert second - first == pytest.approx(0.7)
    first, second = seam_lengths(pattern, side)
    assert first == pytest.approx(second)
    assert with_seam(pattern, replace(side, ease=(0.0, 1.0))).seams[1].ease == (0.0, 1.0)
    for name in ("nothing", ""):
        with pytest.raises(KeyError):
            pattern.piece(name)
