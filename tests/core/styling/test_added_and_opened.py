"""Added pieces, openings, new darts and joined paper over many bodies: tied to their edges, as large as they say."""

from math import hypot

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st
from shapely import LineString, Polygon
from shapely.affinity import scale as scaled
from shapely.affinity import translate

from izett.geometry.point import distance
from izett.pattern.document import Closure
from izett.pattern.facts import Role
from izett.pattern.piece import dart_angle
from izett.pattern.sewn import seam_lengths
from izett.pattern.worn import width
from tests.bodies import some_bodies, with_hips
from tests.core.styling.worked import DRESS, height, length, line, sides, sums, worked

BODIES = st.sampled_from([{"height": 165.0, **body} for body in some_bodies(24)])
HIPS = st.sampled_from([{"height": 165.0, **body} for body in with_hips(48)])
BODICE = ("bodice",)
NECKS = {"front": ("neck_shoulder", "neck_cf", "neck"), "back": ("neck_shoulder", "neck_cb", "neck")}


@given(BODIES, st.sampled_from(["front", "back"]), st.floats(3, 7))
def test_a_facing_lies_on_its_piece_and_is_as_wide_as_it_says(evaluator, body, half, wide):
    """Against shapely: the facing's paper is paper of its piece, and its inner edge keeps its distance."""
    evaluation = worked(
        evaluator, body, ("add_facing", {"edge": line(half, *NECKS[half]), "width": wide}), blocks=BODICE
    )
    assume(evaluation.stages[0].failure is None)
    pattern = evaluation.pattern
    facing, piece = pattern.pieces[-1], pattern.piece(f"bodice_{half}")
    assert Polygon(facing.outline()).difference(Polygon(piece.outline()).buffer(0.05)).area < 0.05
    neck = LineString([p for e in piece.edges if e.role is Role.NECK for p in e.curve.flattened()])
    first, second = seam_lengths(pattern, pattern.seams[-1])
    assert first == pytest.approx(second, abs=1e-3)
    far = max(neck.distance(LineString([p, p])) for p in facing.outline())
    assert wide - 0.1 <= far <= wide * 1.6
    assert facing.on_fold is not None or facing.cut == piece.cut


@given(HIPS, st.sampled_from(["zip", "placket", "lacing", "slit"]), st.floats(4, 18))
def test_an_opening_is_as_long_as_it_says_and_changes_no_line(evaluator, body, closure, long):
    at = line("skirt_back", "waist_cb", "hem_cb", "centre")
    evaluation = worked(evaluator, body, ("open_up", {"closure": closure, "at": at, "long": long}), blocks=("skirt",))
    assume(evaluation.stages[0].failure is None)
    (opening,) = evaluation.pattern.openings
    assert (opening.closure, opening.length) == (Closure(closure), pytest.approx(long))
    for piece, old in zip(evaluation.pattern, evaluation.draft.pattern, strict=True):
        # Where it ends it is notched; nothing else is drawn.
        assert piece.edges == old.edges
        assert len(piece.notches) - len(old.notches) in (0, 1)


@given(BODIES, st.floats(1.0, 4.0))
def test_a_button_stand_goes_past_the_centre_by_a_button(evaluator, body, stand):
    """Common practice: the stand is one button's diameter past the centre front."""
    at = line("front", "neck_cf", "waist_cf", "centre")
    step = ("open_up", {"closure": "buttons", "at": at, "long": 0.0, "stand": stand})
    evaluation = worked(evaluator, body, step, blocks=BODICE)
    assume(evaluation.stages[0].failure is None)
    front, old = (p.piece("bodice_front") for p in (evaluation.pattern, evaluation.draft.pattern))
    assert min(p[0] for p in front.outline()) == pytest.approx(-stand, abs=1e-6)
    assert front.on_fold is None
    assert front.cut == 2
    added = Polygon(front.outline()).area - Polygon(old.outline()).area
    centre = length(evaluation.draft.pattern, "front.neck_cf", "front.waist_cf", "front.centre")
    assert added == pytest.approx(stand * centre, rel=0.03)


@given(HIPS, st.floats(0.8, 3), st.floats(5, 9))
def test_a_new_dart_opens_by_its_width_and_the_paper_only_turns(evaluator, body, wide, long):
    at = line("sleeve", "wrist_back", "underarm_back", "back_underarm", 0.55)
    hinge = line("sleeve", "wrist_front", "underarm_front", "front_underarm", 0.55)
    step = ("open_dart", {"at": at, "hinge": hinge, "width": wide, "long": long})
    evaluation = worked(evaluator, body, step, blocks=("bodice", "sleeve"))
    assume(evaluation.stages[0].failure is None)
    before, after = (p.piece("sleeve") for p in (evaluation.draft.pattern, evaluation.pattern))
    (dart,) = after.darts
    a, b = (after.vertex(name) for name in dart.mouth)
    assert distance(a, b) == pytest.approx(wide, abs=1e-3)
    tip = after.vertex(dart.tip)
    assert distance(a, tip) == pytest.approx(long, abs=0.2)
    assert distance(a, tip) == pytest.approx(distance(b, tip), abs=1e-9)
    # The cap lies beyond the hinge: it is not touched, and the underarm seams agree as sewn.
    assert sides(evaluation.pattern, "cap") == pytest.approx(sides(evaluation.draft.pattern, "cap"), abs=1e-6)
    assert dart_angle(after, dart) > 0
    assert height(after) >= height(before) - wide


@given(HIPS, st.floats(2, 20), st.floats(0, 4), st.booleans())
def test_a_puffed_cap_gains_its_fullness_and_keeps_the_lower_cap(evaluator, body, fuller, higher, whole):
    step = ("puff_sleeve", {"fullness": fuller, "height": higher, "whole": whole})
    evaluation = worked(evaluator, body, step, blocks=("bodice", "sleeve"))
    assume(evaluation.stages[0].failure is None)
    before, after = evaluation.draft.pattern, evaluation.pattern
    hole, cap = sides(after, "cap")
    # Opened straight across, the slanting edge of the cap grows by a little less than the paper.
    assert 0.5 * fuller < cap - sides(before, "cap")[1] < 1.5 * fuller + 2 * higher
    seam = next(s for s in after.seams if s.name == "cap")
    assert seam.ease[0] == pytest.approx(cap - hole, abs=0.05), "what was added is meant"
    assert "gather" in seam.lies
    first, second = sides(after, "underarm")
    assert first == pytest.approx(second, abs=0.15)
    hems = [length(p, "sleeve.wrist_back", "sleeve.wrist_front", "sleeve.hem") for p in (before, after)]
    assert hems[1] == pytest.approx(hems[0] + (fuller if whole else 0.0), abs=0.25)


@given(HIPS, st.floats(4, 14))
def test_a_gusset_is_a_square_with_its_slash(evaluator, body, side):
    step = ("add_gore", {"kind": "gusset", "edges": [line("front", "waist_side", "underarm", "side")], "width": side})
    evaluation = worked(evaluator, body, step, blocks=DRESS)
    assume(evaluation.stages[0].failure is None)
    gusset = evaluation.pattern.pieces[-1]
    assert [e.curve.length for e in gusset.edges] == pytest.approx([side] * 4)
    assert Polygon(gusset.outline()).area == pytest.approx(side * side)
    # On the bias: a diagonal lies along the grain, so that the gusset gives.
    (ax, ay), (bx, by) = gusset.grain
    assert hypot(bx - ax, by - ay) > 0


@given(HIPS, st.floats(1.5, 3), st.floats(4, 30), st.floats(90, 160))
def test_a_ruffle_is_cut_in_strips_that_are_counted(evaluator, body, ratio, tall, cloth):
    hems = [line("skirt_front", "hem_cf", "hem_side", "hem"), line("skirt_back", "hem_side", "hem_cb", "hem")]
    step = ("add_band", {"kind": "ruffle", "edges": hems, "ratio": ratio, "height": tall, "cloth_width": cloth})
    evaluation = worked(evaluator, body, step, blocks=("skirt",))
    assume(evaluation.stages[0].failure is None)
    told = sums(evaluation)
    around = told["edge, around"]
    lines = (("skirt_front", "hem_cf", "hem_side"), ("skirt_back", "hem_side", "hem_cb"))
    halves = [length(evaluation.pattern, f"{part}.{a}", f"{part}.{b}", f"{part}.hem") for part, a, b in lines]
    assert around == pytest.approx(2 * sum(halves))
    assert told["finished length"] == pytest.approx(ratio * around)
    strips = told["strips across the cloth"]
    assert (strips - 1) * cloth < ratio * around <= strips * cloth
    assert told["joins"] == strips - 1
    edge, ruffle = sides(evaluation.pattern, "ruffle")
    assert ruffle == pytest.approx(ratio * edge)


@given(BODIES, st.floats(1, 8), st.floats(0, 6))
def test_ease_for_the_whole_garment_comes_out_all_around(evaluator, body, bust, waist):
    """The handbook: shared over the pieces by rule, side seams first; the sleeve and the armhole follow."""
    evaluation = worked(evaluator, body, ("change_ease", {"bust": bust, "waist": waist}), blocks=("bodice", "sleeve"))
    assume(evaluation.stages[0].failure is None)
    before, after = evaluation.draft.pattern, evaluation.pattern
    assert width(after, "bust") - width(before, "bust") == pytest.approx(bust, abs=0.35)
    assert width(after, "waist") - width(before, "waist") == pytest.approx(waist, abs=0.35)
    hole, cap = sides(after, "cap")
    old_hole, old_cap = sides(before, "cap")
    assert cap - hole == pytest.approx(old_cap - old_hole, abs=0.3)
    assert after.intent.ease["bust"] - before.intent.ease["bust"] == pytest.approx(bust, abs=0.35)


@given(HIPS, st.floats(0.3, 1.4))
def test_a_cap_turned_for_an_arm_further_forward_keeps_its_seams(evaluator, body, pitch):
    """The handbook: the crown turns back, so the shoulder notch moves forward by 0.5 to 1.5."""
    evaluation = worked(evaluator, body, ("shape_cap", {"pitch": pitch}), blocks=("bodice", "sleeve"))
    assume(evaluation.stages[0].failure is None)
    before, after = evaluation.draft.pattern, evaluation.pattern
    assert sides(after, "cap") == pytest.approx(sides(before, "cap"), abs=0.2)
    assert sides(after, "underarm")[0] == pytest.approx(sides(after, "underarm")[1], abs=1e-6)
    seams = [next(s for s in p.seams if s.name == "cap") for p in (before, after)]
    assert abs(seams[1].offset - seams[0].offset) == pytest.approx(pitch, abs=1e-6)


@given(BODIES, st.floats(-0.8, 1.2), st.sampled_from(["front", "back"]))
def test_what_one_half_is_widened_across_is_found_there(evaluator, body, amount, part):
    assume(abs(amount) > 0.1)
    step = ("widen_across", {"part": part, "amount": amount, "surplus": "off_tip"})
    evaluation = worked(evaluator, body, step, blocks=BODICE)
    assume(evaluation.stages[0].failure is None)

    def across(pattern, half):
        edges = [e for e in pattern.piece(f"bodice_{half}").edges if e.role is Role.ARMHOLE]
        return min(p[0] for e in edges for p in e.curve.flattened())

    other = "back" if part == "front" else "front"
    before, after = evaluation.draft.pattern, evaluation.pattern
    assert across(after, part) - across(before, part) == pytest.approx(amount, abs=0.25)
    assert across(after, other) == pytest.approx(across(before, other), abs=1e-9)


@given(BODIES)
def test_left_and_right_parted_are_mirror_images_that_are_sewn_alike(evaluator, body):
    """Against shapely: the other half is the mirror image; each has its own seams."""
    evaluation = worked(evaluator, body, ("fold_open", {"piece": "bodice_back", "what": "part"}), blocks=BODICE)
    assume(evaluation.stages[0].failure is None)
    pattern = evaluation.pattern
    halves = [p for p in pattern if "back" in p.part]
    assert len(halves) == 2
    left, right = (Polygon(p.outline()) for p in halves)
    mirrored = scaled(left, -1, 1, origin=(0, 0))
    apart = right.centroid.x - mirrored.centroid.x, right.centroid.y - mirrored.centroid.y
    assert translate(mirrored, *apart).symmetric_difference(right).area < 1e-6
    assert width(pattern, "bust") == pytest.approx(width(evaluation.draft.pattern, "bust"), abs=1e-6)
    for seam in pattern.seams:
        first, second = seam_lengths(pattern, seam)
        assert seam.ease[0] - 0.05 <= second - first <= seam.ease[1] + 0.05
