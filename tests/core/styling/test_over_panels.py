"""A neckline and an armhole that panels part are drawn as one line over all of them: as over one piece, on many bodies."""

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from izett.checking.check import Verdict
from izett.pattern.facts import Role, Zone
from tests.bodies import some_bodies
from tests.core.styling.worked import line, sides, worked

BODIES = st.sampled_from(some_bodies(20))


def _parted(part, start, end, along, fraction, bow):
    return ("princess", {"start": line(part, start, end, along, fraction), "bow": bow})


@given(BODIES, st.floats(-0.8, 1.5), st.floats(0.45, 0.65))
def test_an_armhole_parted_by_panels_is_scooped_in_one_line(evaluator, body, scoop, fraction):
    """Over both panels as over one: the same length, no corner at the seam, both sides of the seam cut alike."""
    assume(abs(scoop) > 0.2)
    step = ("change_armhole", {"scoop_front": scoop})
    princess = _parted("front", "underarm", "shoulder_tip", "armhole", fraction, 1.0)
    before = worked(evaluator, body, princess, blocks=("bodice",))
    after = worked(evaluator, body, princess, step, blocks=("bodice",))
    alone = worked(evaluator, body, step, blocks=("bodice",))
    assume(before.stages[-1].failure is None and alone.stages[-1].failure is None)
    assert after.stages[-1].failure is None, after.stages[-1].failure
    longer = _armhole(after.pattern) - _armhole(before.pattern)
    assert longer == pytest.approx(_armhole(alone.pattern) - _armhole(alone.draft.pattern), abs=0.25)
    (was, now) = (sides(each.pattern, "princess_front") for each in (before, after))
    assert now[1] - now[0] == pytest.approx(was[1] - was[0], abs=0.01)
    assert _told(after, "runs_across") <= _told(before, "runs_across")
    assert _told(after, "outline_sound") == set()


@given(BODIES, st.floats(0, 3), st.floats(0.5, 7), st.sampled_from(["round", "scoop", "v", "boat"]))
def test_a_neckline_parted_by_panels_is_drawn_in_one_line(evaluator, body, wider, front, shape):
    step = ("change_neckline", {"wider": wider, "front": front, "shape": shape})
    princess = _parted("front", "neck_cf", "neck_shoulder", "neck", 0.6, 0.5)
    before = worked(evaluator, body, princess, blocks=("bodice",))
    after = worked(evaluator, body, princess, step, blocks=("bodice",))
    alone = worked(evaluator, body, step, blocks=("bodice",))
    assume(before.stages[-1].failure is None and alone.stages[-1].failure is None)
    assert after.stages[-1].failure is None, after.stages[-1].failure
    # The bust dart is closed into the seam: the neck's two parts lie a little otherwise to each other than on one paper.
    assert _neck(after.pattern) == pytest.approx(_neck(alone.pattern), rel=0.04, abs=0.2)
    (was, now) = (sides(each.pattern, "princess_front") for each in (before, after))
    assert now[1] - now[0] == pytest.approx(was[1] - was[0], abs=0.01)
    assert _told(after, "runs_across") <= _told(before, "runs_across")
    # A panel that takes up the bust dart leans at the neck: a boat line then turns there, which is told.
    assert {aspect for _, aspect in _told(after, "outline_sound")} <= ({"hook"} if shape == "boat" else set())


def test_a_square_neckline_over_panels_says_what_to_do(evaluator, middling):
    princess = _parted("front", "neck_cf", "neck_shoulder", "neck", 0.6, 0.5)
    square = ("change_neckline", {"wider": 2.0, "front": 4.0, "shape": "square"})
    failure = worked(evaluator, middling, princess, square, blocks=("bodice",)).stages[-1].failure
    assert "panels part this one" in failure.message
    assert "before that step" in failure.fix


def _armhole(pattern):
    return sum(e.curve.length for p in pattern for e in p.edges if e.role is Role.ARMHOLE and p.zone is Zone.FRONT)


def _neck(pattern):
    return sum(e.curve.length for p in pattern for e in p.edges if e.role is Role.NECK and p.zone is Zone.FRONT)


def _told(evaluation, check):
    return {
        (r.finding.where, r.finding.aspect)
        for r in evaluation.results
        if r.check == check and r.finding.verdict in (Verdict.WARNS, Verdict.FAILS)
    }


@given(BODIES, st.floats(-1, 2), st.floats(-0.8, 1.2))
def test_on_a_front_in_one_piece_both_armholes_change_alike(evaluator, body, lower, scoop):
    """Unfolded, a front has an underarm on either side: both are lowered and scooped, and still fit the back's sides."""
    unfolded = ("fold_open", {"piece": "bodice_front", "what": "unfold"})
    step = ("change_armhole", {"lower": lower, "scoop_front": scoop})
    evaluation = worked(evaluator, body, unfolded, step, blocks=("bodice",))
    assume(all(stage.failure is None for stage in evaluation.stages))
    (front,) = (piece for piece in evaluation.left if piece.zone is Zone.FRONT)
    one, other = (e.curve.length for e in front.edges if e.role is Role.ARMHOLE)
    assert one == pytest.approx(other, abs=0.01)
    alone = worked(evaluator, body, step, blocks=("bodice",))
    assert one == pytest.approx(_armhole(alone.pattern), abs=0.02)
    assert _told(evaluation, "seams_match") <= _told(alone, "seams_match")
