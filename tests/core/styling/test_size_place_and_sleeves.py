"""Length, width, seams shifted, necklines, armholes, sleeves, added pieces: sums meet the amounts asked for on many bodies."""

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from izett.checking.check import Verdict
from izett.pattern.facts import Half
from izett.pattern.sewn import seam_lengths
from izett.pattern.worn import width
from tests.bodies import some_bodies, with_hips
from tests.core.styling.worked import DRESS, height, length, line, sides, sums, worked

BODIES = st.sampled_from(some_bodies(20))
HIPS = st.sampled_from(with_hips(40))
TOP = ("bodice", "sleeve")


@given(HIPS, st.floats(-6, 20), st.floats(0.2, 0.6))
def test_lengthened_at_a_seam_both_pieces_grow_alike(evaluator, body, amount, fraction):
    at = line("skirt_front", "hem_side", "waist_side", "side", fraction)
    evaluation = worked(evaluator, body, ("lengthen", {"at": at, "amount": amount}), blocks=("skirt",))
    assume(evaluation.stages[0].failure is None)
    for name in ("skirt_front", "skirt_back"):
        before, after = evaluation.draft.pattern.piece(name), evaluation.pattern.piece(name)
        assert height(after) == pytest.approx(height(before) + amount, abs=1e-6)
    first, second = sides(evaluation.pattern, "skirt_side")
    assert first == pytest.approx(second, abs=0.02)
    assert width(evaluation.pattern, "hip") == pytest.approx(width(evaluation.draft.pattern, "hip"), abs=0.05)


@given(HIPS, st.floats(-15, 15), st.floats(-6, 6), st.floats(-15, 30))
def test_a_shaped_hem_is_as_long_as_asked_at_centre_and_side(evaluator, body, front, side, back):
    evaluation = worked(evaluator, body, ("shape_hem", {"front": front, "side": side, "back": back}), blocks=("skirt",))
    assume(evaluation.stages[0].failure is None)
    before, after = evaluation.draft.pattern, evaluation.pattern
    for part, end, amount in (("skirt_front", "cf", front), ("skirt_back", "cb", back)):
        centre = (f"{part}.waist_{end}", f"{part}.hem_{end}", f"{part}.centre")
        assert length(after, *centre) == pytest.approx(length(before, *centre) + amount, abs=1e-6)
    first, second = sides(after, "skirt_side")
    # As equal as the draft's own, whose hip is found to a thousandth of a cm.
    assert first == pytest.approx(second, abs=1e-3)
    assert first == pytest.approx(sides(before, "skirt_side")[0] + side, abs=1e-6)
    square = [r for r in evaluation.results if r.check == "square_at_centre" and r.finding.aspect == "angle"]
    assert all(r.finding.verdict is Verdict.PASSES for r in square)


@given(BODIES, st.floats(-1.5, 1.5), st.floats(-1.5, 1.5))
def test_a_shifted_shoulder_keeps_neck_armhole_and_ease(evaluator, body, at_neck, at_tip):
    assume(at_neck * at_tip >= 0 and max(abs(at_neck), abs(at_tip)) > 0.1)
    step = ("shift_seam", {"seam": "shoulder", "at_start": at_neck, "at_end": at_tip})
    evaluation = worked(evaluator, body, step, blocks=("bodice",))
    assume(evaluation.stages[0].failure is None)
    before, after = evaluation.draft.pattern, evaluation.pattern

    def both(pattern, line_of, start, end):
        return sum(
            length(pattern, f"{part}.{start}", f"{part}.{end[part]}", f"{part}.{line_of}") for part in ("front", "back")
        )

    necks = {"front": "neck_cf", "back": "neck_cb"}
    holes = {"front": "shoulder_tip", "back": "shoulder_tip"}
    assert both(after, "neck", "neck_shoulder", necks) == pytest.approx(
        both(before, "neck", "neck_shoulder", necks), abs=0.15
    )
    assert both(after, "armhole", "underarm", holes) == pytest.approx(
        both(before, "armhole", "underarm", holes), abs=0.15
    )
    was, now = sides(before, "shoulder"), sides(after, "shoulder")
    assert now[1] - now[0] == pytest.approx(was[1] - was[0], abs=1e-3)


@given(
    BODIES, st.floats(0, 5), st.floats(0, 9), st.sampled_from(["round", "scoop", "v", "square", "boat", "sweetheart"])
)
def test_a_neckline_in_any_shape_runs_on_over_the_shoulder(evaluator, body, wider, deeper, shape):
    step = ("change_neckline", {"wider": wider, "front": deeper, "back": deeper / 4, "shape": shape})
    evaluation = worked(evaluator, body, step, blocks=("bodice",))
    assume(evaluation.stages[0].failure is None)
    at_neck = [
        r
        for r in evaluation.results
        if r.check == "runs_across" and r.finding.where[:2] == ("shoulder", "front.neck_shoulder")
    ]
    assert all(r.finding.verdict is Verdict.PASSES for r in at_neck)
    shoulder = sides(evaluation.draft.pattern, "shoulder")[0]
    assert sides(evaluation.pattern, "shoulder")[0] == pytest.approx(shoulder - wider, abs=1e-6)
    point = [r for r in evaluation.results if r.check == "square_at_centre" and r.finding.verdict is Verdict.ACCEPTED]
    assert bool(point) == (shape in ("v", "sweetheart"))


@given(HIPS, st.floats(0.5, 3), st.floats(0, 4), st.sampled_from(["width", "height"]))
def test_a_sleeve_capped_again_fits_the_armhole_that_there_is(evaluator, body, lower, ease, by):
    steps = (("change_armhole", {"lower": lower}), ("recap_sleeve", {"by": by, "ease": ease}))
    evaluation = worked(evaluator, body, *steps, blocks=TOP)
    assume(all(stage.failure is None for stage in evaluation.stages))
    hole, cap = sides(evaluation.pattern, "cap")
    assert cap - hole == pytest.approx(ease, abs=1e-3)
    first, second = sides(evaluation.pattern, "underarm")
    assert first == pytest.approx(second, abs=1e-6)
    before, after = (p.piece("sleeve") for p in (evaluation.draft.pattern, evaluation.pattern))
    if by == "height":
        assert after.level("bicep") == pytest.approx(before.level("bicep"), abs=0.2)


@given(HIPS, st.floats(-3, 1.5))
def test_a_lower_cap_is_wider_and_as_long(evaluator, body, higher):
    assume(abs(higher) > 0.2)
    evaluation = worked(evaluator, body, ("shape_cap", {"height": higher}), blocks=TOP)
    assume(evaluation.stages[0].failure is None)
    before, after = evaluation.draft.pattern, evaluation.pattern
    assert sides(after, "cap")[1] == pytest.approx(sides(before, "cap")[1], abs=1e-3)
    wider = after.piece("sleeve").level("bicep") - before.piece("sleeve").level("bicep")
    assert wider * higher < 0


@given(HIPS, st.floats(0.8, 1.2), st.floats(1.5, 8))
def test_a_band_follows_its_edge_through_later_changes(evaluator, body, ratio, tall):
    edges = (line("front", "neck_shoulder", "neck_cf", "neck"), line("back", "neck_shoulder", "neck_cb", "neck"))
    band = ("add_band", {"kind": "neckband", "edges": edges, "ratio": ratio, "height": tall})
    evaluation = worked(evaluator, body, band, ("change_neckline", {"wider": 2.0, "front": 3.0}), blocks=("bodice",))
    assert [stage.step.kind for stage in evaluation.stages] == ["change_neckline", "add_band"], "followers come after"
    assume(all(stage.failure is None for stage in evaluation.stages))
    opening, strip = sides(evaluation.pattern, "neckband")
    assert strip == pytest.approx(ratio * opening, abs=1e-9)
    piece = evaluation.pattern.pieces[-1]
    assert height(piece) == pytest.approx(2 * tall)
    assert piece.on_fold
    assert sums(evaluation)["finished length"] == pytest.approx(2 * strip, abs=1e-6)


@given(HIPS, st.sampled_from([0.25, 0.5, 0.75]), st.floats(8, 30))
def test_a_flounce_has_its_circles_hem(evaluator, body, circle, deep):
    """Inner and outer edge are arcs about one centre: the hem is longer by the circle's share of 2π times the depth."""
    from math import pi

    edges = (line("skirt_front", "hem_cf", "hem_side", "hem"), line("skirt_back", "hem_side", "hem_cb", "hem"))
    step = ("add_gore", {"kind": "flounce", "edges": edges, "width": deep, "circle": circle})
    evaluation = worked(evaluator, body, step, blocks=("skirt",))
    assume(evaluation.stages[0].failure is None)
    told = sums(evaluation)
    # The pattern has half of the hem: the whole flounce is `circle` of a circle around all of it.
    assert told["hem"] == pytest.approx(2 * told["edge"] + 2 * pi * circle * deep, rel=1e-4)
    first, second = sides(evaluation.pattern, "flounce")
    assert first == pytest.approx(second, abs=1e-3)


def test_a_lining_is_sewn_like_its_pieces_and_shorter(evaluator, middling):
    step = ("add_copy", {"kind": "lining", "pieces": ("skirt_front", "skirt_back"), "shorter": 2.5, "pleat": 1.5})
    evaluation = worked(evaluator, middling, step, blocks=("skirt",))
    pattern = evaluation.pattern
    lining = next(seam for seam in pattern.seams if seam.name == "s0.skirt_side_lining")
    first, second = seam_lengths(pattern, lining)
    assert first == pytest.approx(second, abs=1e-6)
    assert first == pytest.approx(sides(pattern, "skirt_side")[0] - 2.5, abs=1e-6)


@given(HIPS)
def test_pieces_joined_lose_no_paper_and_lengthen_no_other_line(evaluator, body):
    from shapely import Polygon

    evaluation = worked(evaluator, body, ("join_pieces", {"seam": "shoulder"}), blocks=("bodice",))
    assume(evaluation.stages[0].failure is None)
    before, after = evaluation.draft.pattern, evaluation.pattern
    assert len(after.pieces) == len(before.pieces) - 1
    whole = sum(Polygon(p.outline()).area for p in before)
    # The eased shoulder is drawn as one line: a sliver of paper at most.
    assert Polygon(after.pieces[0].outline()).area == pytest.approx(whole, abs=0.02 * whole)
    assert {seam.name for seam in after.seams} == {seam.name for seam in before.seams} - {"shoulder"}


def test_unfolded_and_placed_on_the_fold_again_nothing_is_lost(evaluator, middling):
    evaluation = worked(evaluator, middling, ("fold_open", {"piece": "bodice_front", "what": "unfold"}), blocks=DRESS)
    whole = evaluation.pattern.piece("bodice_front")
    assert whole.on_fold is None
    assert whole.cut == 1
    seams = {seam.name: seam for seam in evaluation.pattern.seams}
    for name in ("shoulder", "side"):
        left, right = seams[name], seams[f"s0.{name}"]
        assert (left.kind, left.half, right.kind, right.half) == (left.kind, Half.LEFT, left.kind, Half.RIGHT)
        assert seam_lengths(evaluation.pattern, right) == pytest.approx(seam_lengths(evaluation.pattern, left))
    for level in ("bust", "waist"):
        assert width(evaluation.pattern, level) == pytest.approx(width(evaluation.draft.pattern, level), abs=1e-6)


@given(HIPS, st.floats(0.5, 3))
def test_a_wedge_lengthens_side_and_underarm_by_what_it_says(evaluator, body, amount):
    evaluation = worked(evaluator, body, ("reach_wedge", {"amount": amount}), blocks=TOP)
    assume(evaluation.stages[0].failure is None)
    before, after = evaluation.draft.pattern, evaluation.stages[0].left
    for seam in ("side", "underarm"):
        for was, now in zip(sides(before, seam), sides(after, seam), strict=True):
            assert now - was == pytest.approx(amount, abs=1e-4)
    # The armhole is drawn round, a little shorter: the cap follows it, and agrees.
    (seam,) = (one for one in evaluation.pattern.seams if one.name == "cap")
    hole, cap = seam_lengths(evaluation.pattern, seam)
    assert seam.ease[0] - 0.02 <= cap - hole <= seam.ease[1] + 0.02
    # A sleeve that becomes narrower by that loses a little of its underarm seam again.
    assert sides(evaluation.pattern, "underarm") == pytest.approx(sides(after, "underarm"), abs=0.15 + 0.1 * amount)
    # The corner goes up more than out: a wing would stand off under the arm.
    for name in ("front.underarm", "back.underarm"):
        piece, old = after.holding(name), before.holding(name)
        (x, y), (ox, oy) = piece.vertex(name), old.vertex(name)
        assert y - oy > abs(x - ox)


def test_an_elastic_is_a_share_of_the_body_however_wide_the_waist_that_it_draws_in(evaluator, middling):
    """The handbook's ring: 0.87 of the waist finished, cut 2 longer; the trade's '10 cm less' at a 76 waist."""
    waists = [
        line("skirt_front", "waist_side", "waist_cf", "waist"),
        line("skirt_back", "waist_cb", "waist_side", "waist"),
    ]
    band = ("add_band", {"kind": "elastic", "edges": waists, "ratio": 0.87, "height": 3.0})
    for more in (0.0, 6.0):
        body = {**middling, "waist_girth": 76.0}
        evaluation = worked(evaluator, body, ("change_side", {"waist": more / 4}), band, blocks=("skirt",))
        told = sums(evaluation)
        assert told["finished length"] == pytest.approx(0.87 * 76)
        assert abs(told["finished length"] - (76 - 10)) < 0.2
        (ring,) = [p for p in evaluation.pattern if p.title.startswith("Elastic")]
        xs = [p[0] for p in ring.outline()]
        assert max(xs) - min(xs) == pytest.approx(0.87 * 76 + 2)


@given(HIPS, st.floats(0.3, 2.5))
def test_a_slim_sleeve_is_shorter_in_front_of_the_elbow_and_eased_behind(evaluator, body, taken):
    """The handbook: slim (take out the front-elbow length)."""
    from izett.catalogue import catalogue
    from izett.styling.subject import Kind, subject_of

    pattern = worked(evaluator, body, blocks=TOP).pattern
    subject = subject_of(pattern, Kind.LINE, "sleeve.front_underarm", "sleeve", 0.5)
    offers = {o.words: o.params for o in catalogue().operations["spread_piece"].offers(subject, pattern)}
    slim = {**offers["Slim: take out length at the front elbow"], "amount": -taken}
    evaluation = worked(evaluator, body, ("spread_piece", slim), blocks=TOP)
    assume(evaluation.stages[0].failure is None)
    front = ("sleeve.wrist_front", "sleeve.underarm_front", "sleeve.front_underarm")
    back = ("sleeve.wrist_back", "sleeve.underarm_back", "sleeve.back_underarm")
    was, now = evaluation.draft.pattern, evaluation.pattern
    assert length(now, *front) == pytest.approx(length(was, *front) - taken, abs=0.1)
    assert length(now, *back) == pytest.approx(length(was, *back), abs=0.05)
    assert sides(now, "cap") == pytest.approx(sides(was, "cap"), abs=1e-6)
    assert not [r.words for r in evaluation.results if r.check == "seams_match" and r.finding.verdict.name == "FAILS"]


def test_a_gap_too_near_to_the_darts_point_is_refused(evaluator, middling):
    back = line("sleeve", "wrist_back", "underarm_back", "back_underarm", 0.55)
    front = line("sleeve", "wrist_front", "underarm_front", "front_underarm", 0.55)
    elbow = ("open_dart", {"at": back, "hinge": front, "width": 2.0, "long": 8.0})
    gap = ("take_gap", {"at": {**front, "fraction": 0.5}, "intake": 1.0, "dart": "s0.dart"})
    failure = worked(evaluator, middling, elbow, gap, blocks=TOP).stages[1].failure
    assert failure is not None
    assert "too near to the gap" in str(failure)


def test_a_linings_cap_is_fitted_by_its_own_seam(evaluator, middling):
    """A lining drawn before the armhole was lowered: its cap is offered to be fitted, and the sleeve's stays."""
    lined = ("add_copy", {"kind": "lining", "pieces": ["bodice_front", "bodice_back", "sleeve"]})
    lower = ("recap_sleeve", {"by": "width", "ease": 4.0})
    recap = ("recap_sleeve", {"by": "width", "ease": 1.5, "seam": "s0.cap_lining"})
    blocks = ("bodice", "sleeve")
    before = worked(evaluator, middling, lined, lower, blocks=blocks)
    after = worked(evaluator, middling, lined, lower, recap, blocks=blocks)
    assert after.stages[-1].failure is None
    hole, cap = sides(after.pattern, "cap_lining")
    assert cap - hole == pytest.approx(1.5, abs=0.01)
    assert sides(after.pattern, "cap") == sides(before.pattern, "cap")
    wrong = worked(evaluator, middling, lined, ("recap_sleeve", {"seam": "side"}), blocks=blocks)
    assert "no seam of a cap" in wrong.stages[-1].failure.message
