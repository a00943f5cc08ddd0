"""Darts turned into something else, split, merged, shaped; paper slashed and spread: what must hold over many bodies."""

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st
from shapely import Point, Polygon

from izett.geometry.point import distance
from izett.pattern.piece import NotchKind, dart_angle, mouth_width
from izett.pattern.sewn import seam_lengths
from izett.pattern.worn import width
from izett.recipe.model import Recipe, Step
from izett.styling.operation import Section
from tests.bodies import some_bodies, with_hips
from tests.core.styling.worked import length, line, sides, sums, worked

BODIES = st.sampled_from(some_bodies(20))
HIPS = st.sampled_from(with_hips(40))
BODICE = ("bodice",)
WAIST = ("front.waist_cf", "front.waist_side", "front.waist")


@given(BODIES, st.sampled_from(["gathers", "tucks", "loose"]))
def test_a_dart_turned_into_something_else_leaves_its_mouth_in_the_line(evaluator, body, into):
    evaluation = worked(evaluator, body, ("convert_dart", {"dart": "back.waist_dart", "into": into}), blocks=BODICE)
    assume(evaluation.stages[0].failure is None)
    before, after = evaluation.draft.pattern, evaluation.pattern
    dart = before.piece("bodice_back").dart("back.waist_dart")
    mouth = mouth_width(before.piece("bodice_back"), dart)
    span = ("back.waist_cb", "back.waist_side", "back.waist")
    assert length(after, *span) == pytest.approx(length(before, *span) + mouth, abs=0.15)
    assert all(d.name != dart.name for d in after.piece("bodice_back").darts)
    # What was added is fullness: the ease that is wanted at the waist stays what it was.
    assert after.intent.fullness["waist"] == pytest.approx(2 * mouth, abs=0.3)
    assert after.intent.ease["waist"] == before.intent.ease["waist"]
    singles = [n for n in after.piece("bodice_back").notches if n.kind is NotchKind.SINGLE]
    assert len(singles) == (2 if into == "tucks" else 0)


@given(BODIES, st.integers(2, 3))
def test_a_dart_split_keeps_its_angle_and_its_line(evaluator, body, into):
    step = ("split_dart", {"dart": "front.waist_dart", "into": into, "apart": 2.0})
    evaluation = worked(evaluator, body, step, blocks=BODICE)
    assume(evaluation.stages[0].failure is None)
    before, after = (p.piece("bodice_front") for p in (evaluation.draft.pattern, evaluation.pattern))
    pivot = before.dart("front.waist_dart").pivot
    split = [d for d in after.darts if distance(d.pivot, pivot) < 1e-9 and d.family == "waist"]
    assert len(split) == into
    whole = dart_angle(before, before.dart("front.waist_dart"))
    angles = [dart_angle(after, d) for d in split]
    assert sum(angles) == pytest.approx(whole, abs=1e-9)
    assert max(angles) == pytest.approx(min(angles), rel=1e-6)
    assert length(evaluation.pattern, *WAIST) == pytest.approx(length(evaluation.draft.pattern, *WAIST), abs=1e-6)


@given(HIPS)
def test_darts_merged_take_in_what_they_took_in_together(evaluator, body):
    step = ("share_intake", {"darts": "skirt_back.waist", "ways": "one"})
    evaluation = worked(evaluator, body, step, blocks=("skirt",))
    assume(evaluation.stages[0].failure is None)
    before, after = (p.piece("skirt_back") for p in (evaluation.draft.pattern, evaluation.pattern))
    (one,) = after.darts
    whole = sum(mouth_width(before, d) for d in before.darts)
    assert mouth_width(after, one) == pytest.approx(whole, rel=0.25)
    span = ("skirt_back.waist_side", "skirt_back.waist_cb", "skirt_back.waist")
    # On a curved waist the mouth gives a little, so that the seam as sewn stays exactly as long.
    assert length(evaluation.pattern, *span) == pytest.approx(length(evaluation.draft.pattern, *span), abs=1e-3)


@given(BODIES, st.floats(0.05, 0.6))
def test_bowed_legs_are_equal_and_change_no_seam(evaluator, body, bow):
    evaluation = worked(evaluator, body, ("shape_dart", {"dart": "front.waist_dart", "bow": bow}), blocks=BODICE)
    assume(evaluation.stages[0].failure is None)
    piece = evaluation.pattern.piece("bodice_front")
    one, two = (e.curve for e in piece.edges if e.is_leg and e.lineage == "front.waist_dart")
    assert one.length == pytest.approx(two.length, abs=1e-9)
    plain = evaluation.draft.pattern.piece("bodice_front")
    assert Polygon(piece.outline()).area < Polygon(plain.outline()).area
    assert length(evaluation.pattern, *WAIST) == pytest.approx(length(evaluation.draft.pattern, *WAIST), abs=1e-9)


@given(BODIES, st.floats(0.3, 1.2))
def test_a_gap_taken_out_goes_into_the_dart_and_nothing_else_changes(evaluator, body, intake):
    at = line("front", "neck_shoulder", "neck_cf", "neck", 0.5)
    step = ("take_gap", {"at": at, "intake": intake, "dart": "front.bust_dart"})
    evaluation = worked(evaluator, body, step, blocks=BODICE)
    assume(evaluation.stages[0].failure is None)
    before, after = evaluation.draft.pattern, evaluation.pattern
    neck = ("front.neck_shoulder", "front.neck_cf", "front.neck")
    assert length(after, *neck) == pytest.approx(length(before, *neck) - intake, abs=0.45)
    angles = [
        dart_angle(p.piece("bodice_front"), p.piece("bodice_front").dart("front.bust_dart")) for p in (before, after)
    ]
    assert angles[1] > angles[0]
    for span in (
        ("front.waist_side", "front.underarm", "front.side"),
        ("front.underarm", "front.shoulder_tip", "front.armhole"),
    ):
        assert length(after, *span) == pytest.approx(length(before, *span), abs=1e-6)


@given(HIPS, st.floats(2, 25), st.integers(1, 5))
def test_a_hem_spread_from_the_waist_gains_what_was_asked_and_the_waist_nothing(evaluator, body, amount, lines):
    hem = ("skirt_front.hem_cf", "skirt_front.hem_side", "skirt_front.hem")
    waist = ("skirt_front.waist_side", "skirt_front.waist_cf", "skirt_front.waist")
    spread = {
        "edge": dict(zip(("start", "end", "along"), hem, strict=True)),
        "opposite": dict(zip(("start", "end", "along"), waist, strict=True)),
        "amount": amount,
        "lines": lines,
    }
    evaluation = worked(evaluator, body, ("spread_piece", spread), blocks=("skirt",))
    assume(evaluation.stages[0].failure is None)
    before, after = evaluation.draft.pattern, evaluation.pattern
    assert length(after, *hem) == pytest.approx(length(before, *hem) + amount, rel=0.02, abs=0.1)
    assert length(after, *waist) == pytest.approx(length(before, *waist), abs=0.15)
    assert sums(evaluation)["added"] == pytest.approx(length(after, *hem) - length(before, *hem), abs=1e-6)
    # Rigid parts keep the seams that were not slashed.
    assert sides(after, "skirt_side")[0] == pytest.approx(sides(before, "skirt_side")[0], abs=1e-6)


@given(HIPS, st.floats(4, 20))
def test_spread_that_stops_at_the_elbow_leaves_the_cap_alone(evaluator, body, amount):
    spread = {
        "edge": line("sleeve", "wrist_back", "wrist_front", "hem"),
        "opposite": line("sleeve", "underarm_front", "cap_top", "front_cap"),
        "amount": amount,
        "lines": 5,
        "stop": "elbow",
    }
    evaluation = worked(evaluator, body, ("spread_piece", spread), blocks=("bodice", "sleeve"))
    assume(evaluation.stages[0].failure is None)
    before, after = evaluation.draft.pattern, evaluation.pattern
    assert after.piece("sleeve").level("bicep") == pytest.approx(before.piece("sleeve").level("bicep"), abs=1e-9)
    assert sides(after, "cap")[1] == pytest.approx(sides(before, "cap")[1], abs=1e-9)
    # The paper above the elbow stays, but for the blending of the seam there.
    sleeve, old = after.piece("sleeve"), before.piece("sleeve")
    elbow = next(x.points[0][1] for x in old.lines if x.level == "elbow")
    was = Polygon(old.outline())
    for point in sleeve.outline():
        if point[1] > elbow + 8.0:
            assert was.boundary.distance(Point(point)) < 0.02
    assert sleeve.level("elbow") < old.level("elbow") + 0.3 * amount
    first, second = sides(after, "underarm")
    assert first == pytest.approx(second, abs=0.15)


def test_a_dart_that_opens_close_under_the_armhole_goes_down_the_side_with_it(evaluator):
    acted = 0
    for body in with_hips(9):
        lowered = Step("a", "change_armhole", {"lower": 1.5})
        before = evaluator.evaluate(Recipe("bodice", body)).pattern
        evaluation = evaluator.evaluate(Recipe("bodice", body, steps=(lowered,)))
        (stage,) = evaluation.stages
        assert stage.failure is None
        told = [line.value for line in stage.sums if line.what == "dart lower on the side"]
        acted += bool(told)
        front, was = (pattern.piece("bodice_front") for pattern in (evaluation.pattern, before))
        # Each dart takes in as much as before, about the same point; front and back are as long as each other.
        for dart in was.darts:
            now = front.dart(dart.name)
            assert dart_angle(front, now) == pytest.approx(dart_angle(was, dart), abs=1e-9)
            assert distance(now.pivot, dart.pivot) < 1e-9
        uneven = [
            one - other
            for pattern in (before, evaluation.pattern)
            for one, other in [seam_lengths(pattern, pattern.find_seam("side"))]
        ]
        assert uneven[0] == pytest.approx(uneven[1], abs=0.05)
        assert all(value > 0 for value in told)
    assert acted > 3


def test_a_front_without_a_waist_dart_keeps_its_waist_in_a_full_bust_change(evaluator):
    acted = 0
    for body in with_hips(9):
        change = Step("b", "change_bust", {"amount": 1.5}, section=Section.FIT)
        before = evaluator.evaluate(Recipe("bodice", body))
        after = evaluator.evaluate(Recipe("bodice", body, steps=(change,)))
        assert width(after.pattern, "waist") == pytest.approx(width(before.pattern, "waist"), abs=0.25)
        bare = not any(dart.family == "waist" for dart in before.pattern.piece("bodice_front").darts)
        acted += bare and after.stages[0].failure is None
        if after.stages[0].failure is None:
            front, back = seam_lengths(after.pattern, after.pattern.find_seam("side"))
            assert front == pytest.approx(back, abs=0.3)
    assert acted > 2
