"""Style lines over many bodies: princess panels that a hand would cut, contours solved to the body, lines cut away."""

from itertools import pairwise
from math import cos, pi

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st
from shapely import LineString, Point

from izett.checking.check import Verdict
from izett.geometry.point import distance, subtract, turn
from izett.pattern.facts import Role
from izett.pattern.worn import around, width
from izett.recipe.model import Recipe, Step
from izett.styling.subject import Kind, subject_of
from tests.bodies import some_bodies
from tests.builds import FULL_CUP
from tests.core.styling.worked import length, line, sides, sums, worked

BODIES = st.sampled_from([{"height": 165.0, **body} for body in some_bodies(20)])
BODICE = ("bodice",)


def princess(half, along, fraction=0.55, bow=1.2):
    start = ("underarm", "shoulder_tip") if along == "armhole" else ("neck_shoulder", "shoulder_tip")
    return ("princess", {"start": line(half, *start, along, fraction), "bow": bow if along == "armhole" else 0.0})


def panel_edges(pattern):
    return [(piece, edge) for piece in pattern for edge in piece.edges if edge.role in (Role.SIDE, Role.PANEL)
            and edge.lineage.startswith("s0.")]  # fmt: skip


@given(BODIES, st.sampled_from(["front", "back"]), st.sampled_from(["armhole", "shoulder"]))
def test_a_princess_line_bends_and_never_bumps(evaluator, body, half, along):
    """From top to waist each panel's edge turns over at most twice, and no two stretches of it meet in a corner."""
    evaluation = worked(evaluator, body, princess(half, along), blocks=BODICE)
    assume(evaluation.stages[0].failure is None)
    edges = panel_edges(evaluation.pattern)
    assert len(edges) == 2
    for _, edge in edges:
        flat = edge.curve.flattened(flatness=0.002)
        turned = [turn(subtract(b, a), subtract(c, b)) for a, b, c in zip(flat, flat[1:], flat[2:], strict=False)]
        senses = [t > 0 for t in turned if abs(t) > 2e-3]
        assert sum(a != b for a, b in pairwise(senses)) <= 2
        assert max(map(abs, turned)) < 0.2


@given(BODIES, st.sampled_from(["front", "back"]), st.sampled_from(["armhole", "shoulder"]))
def test_the_two_panels_are_sewn_with_what_eases_in_and_keep_bust_and_waist(evaluator, body, half, along):
    """Common practice: 0 to 0.6 cm of ease over the bust. What the pieces measured around, the panels measure."""
    evaluation = worked(evaluator, body, princess(half, along), blocks=BODICE)
    assume(evaluation.stages[0].failure is None)
    before, after = evaluation.draft.pattern, evaluation.pattern
    first, second = sides(after, f"princess_{half}")
    assert 0 <= second - first <= 0.6
    assert width(after, "waist") == pytest.approx(width(before, "waist"), abs=0.3)
    assert width(after, "bust") == pytest.approx(width(before, "bust"), abs=0.6)
    if half == "front":
        (centre,) = [p for p in after if p.name == "bodice_front"]
        (edge,) = [e for e in centre.edges if e.lineage.startswith("s0.")]
        apex = before.piece("bodice_front").marks["apex"]
        # The handbook's rule: through the bust point, or within 2.5 cm of it.
        assert min(distance(p, apex) for p in edge.curve.flattened()) <= 2.5
        assert all(dart.family != "bust" for piece in after for dart in piece.darts)


def test_a_full_cup_has_both_its_bust_darts_taken_up(evaluator):
    evaluation = worked(evaluator, FULL_CUP, princess("front", "armhole"), blocks=BODICE)
    assert sum(d.family == "bust" for d in evaluation.draft.pattern.piece("bodice_front").darts) == 2
    assert evaluation.stages[0].failure is None
    assert all(dart.family != "bust" for piece in evaluation.pattern for dart in piece.darts)
    side = ("front.waist_side", "front.underarm", "front.side")
    assert length(evaluation.pattern, *side) == pytest.approx(length(evaluation.draft.pattern, *side), abs=1e-6)


@given(st.sampled_from([FULL_CUP, {**FULL_CUP, "bust_girth": 110.0}]), st.sampled_from(["even", "one"]))
def test_darts_about_one_point_are_shared_by_turning_the_strips_between_them(evaluator, body, ways):
    from izett.pattern.piece import dart_angle

    evaluation = worked(evaluator, body, ("share_intake", {"darts": "front.bust", "ways": ways}), blocks=BODICE)
    before, after = (p.piece("bodice_front") for p in (evaluation.draft.pattern, evaluation.pattern))
    old, new = ([d for d in p.darts if d.family == "bust"] for p in (before, after))
    assert len(new) == (1 if ways == "one" else len(old))
    angles = [dart_angle(after, d) for d in new]
    assert sum(angles) == pytest.approx(sum(dart_angle(before, d) for d in old), abs=1e-9)
    assert max(angles) == pytest.approx(min(angles), abs=1e-9)
    side = ("front.waist_side", "front.underarm", "front.side")
    assert length(evaluation.pattern, *side) == pytest.approx(length(evaluation.draft.pattern, *side), abs=1e-6)


LEVELS = (("under the bust", "underbust", 0.5), ("at the waist", "waist", 0.5))


@given(BODIES, st.floats(0, 3.8))
def test_a_contour_takes_what_the_body_asks_and_no_more_than_the_trade_begins_with(evaluator, body, above):
    """At most 5 cm around at each level and never past what is wanted there; nothing within 1.2 cm of the bust point."""
    body = {"underbust_girth": body["bust_girth"] - 12.0, **body}
    steps = (princess("front", "armhole"), ("contour", {"seam": "s0.princess_front", "above": above}))
    evaluation = worked(evaluator, body, *steps, blocks=BODICE)
    assume(all(stage.failure is None for stage in evaluation.stages))
    before, after = evaluation.stages[0].pattern, evaluation.pattern
    told = sums(evaluation)
    for words, level, ease in LEVELS:
        height = 0.0 if level == "waist" else next(
            p[1] for piece in before for x in piece.lines if x.level == "bust" for p in x.points) - 7.0  # fmt: skip
        taken = told[f"taken in {words}, around"]
        has = width(before, level) or around(before, body.get("waist_to_underbust", height))
        # What is told is read from the outline: the bent edge is flattened, and lies aslant where it ends.
        assert -0.02 <= taken <= 5.0 + 0.02
        assert taken <= max(has - body[f"{level}_girth"] - ease, 0.0) + 0.02
    assert width(before, "waist") - width(after, "waist") == pytest.approx(
        told["taken in at the waist, around"], abs=0.3
    )
    apex = evaluation.draft.pattern.piece("bodice_front").marks["apex"]
    old = next(e for e in before.piece("bodice_front").edges if e.lineage.startswith("s0."))
    new = next(e for e in after.piece("bodice_front").edges if e.lineage.startswith("s0."))
    was = LineString(old.curve.flattened(flatness=0.001))
    for point in new.curve.flattened():
        if abs(point[1] - apex[1]) < 1.1:
            assert was.distance(Point(point)) < 0.06
    first, second = sides(after, "princess_front")
    assert abs(second - first) <= 0.6


def test_the_bust_circle_is_drawn_with_the_measured_radius(evaluator, middling):
    body = {**middling, "bust_radius": 8.2}
    steps = (princess("front", "armhole"), ("contour", {"seam": "s0.princess_front"}))
    evaluation = worked(evaluator, body, *steps, blocks=BODICE)
    apex = evaluation.draft.pattern.piece("bodice_front").marks["apex"]
    points = [p for piece in evaluation.pattern for x in piece.lines if x.level == "bust_circle" for p in x.points]
    assert len(points) > 10
    # Chords of the circle, cut off at the panel's edge: on the circle, or on a chord a little inside it.
    assert all(8.2 * cos(pi / 48) - 1e-6 <= distance(p, apex) <= 8.2 + 1e-6 for p in points)


def test_a_halter_is_offered_at_the_front_neckline_and_keeps_the_strap(evaluator, middling):
    from izett.catalogue import catalogue

    pattern = worked(evaluator, middling, blocks=BODICE).pattern
    subject = subject_of(pattern, Kind.LINE, "front.neck", "bodice_front", 0.5)
    offers = {o.words: o.params for o in catalogue().operations["cut_away"].offers(subject, pattern)}
    evaluation = worked(evaluator, middling, ("cut_away", offers["Halter: cut the shoulder away"]), blocks=BODICE)
    assert evaluation.stages[0].failure is None
    front = evaluation.pattern.piece("bodice_front")
    assert not any(e.role in (Role.SHOULDER, Role.ARMHOLE) for e in front.edges)
    assert any(e.role is Role.NECK for e in front.edges)


@given(st.floats(4, 60), st.floats(10, 50), st.booleans())
def test_a_godet_is_as_long_on_each_side_as_its_slit(evaluator, wide, long, round_top):
    """A pointed one is a sector of a circle: its area is r² θ / 2 (geometry)."""
    from shapely import Polygon

    kind = "round_godet" if round_top else "godet"
    at = line("skirt_back", "waist_cb", "hem_cb", "centre")
    step = ("add_gore", {"kind": kind, "edges": [at], "width": wide, "long": long})
    evaluation = worked(evaluator, {"waist_girth": 74.0, "hip_girth": 98.0, "height": 168.0}, step, blocks=("skirt",))
    assume(evaluation.stages[0].failure is None)
    (godet,) = [p for p in evaluation.pattern if p.title == "Godet"]
    of = {e.lineage.split(".")[-1]: e.curve for e in godet.edges}
    crown = of["crown"].length if round_top else 0.0
    for side in ("left", "right"):
        assert of[side].length + crown / 2 == pytest.approx(long, abs=1e-3)
    if round_top:
        # The crown touches both sides: no corner where they meet.
        assert abs(turn(of["right"].end_direction, of["crown"].start_direction)) < 1e-3
        assert abs(turn(of["crown"].end_direction, of["left"].start_direction)) < 1e-3
    else:
        area = Polygon(godet.outline(flatness=0.0005)).area
        assert area == pytest.approx(long**2 * (wide / long) / 2, rel=1e-3)
        assert of["hem"].length == pytest.approx(wide, rel=1e-4)


@pytest.mark.parametrize("uid", ["s0123456789", "p1", "Princess-of-mine"])
def test_the_lines_of_a_panel_are_named_for_a_reader_whatever_the_step_is_called(evaluator, middling, uid):
    kind, params = princess("front", "armhole")
    steps = (Step(uid, kind, params), Step("n", "true_line", {"how": "smooth", "line": f"{uid}.princess_front"}))
    evaluation = evaluator.evaluate(Recipe("bodice", middling, steps=steps))
    assert evaluation.pattern.titles[f"{uid}.princess_front"] == "princess front"
    told = [stage.words for stage in evaluation.stages] + [result.words for result in evaluation.results]
    assert any("princess front" in words for words in told)
    assert [words for words in told if uid in words] == []


@given(BODIES)
def test_the_shoulder_of_a_turned_panel_is_not_taken_for_a_steep_one(evaluator, body):
    evaluation = worked(evaluator, body, princess("front", "shoulder"), blocks=BODICE)
    assume(evaluation.stages[0].failure is None)
    plain = worked(evaluator, body, blocks=BODICE)
    odd = [
        [r.words for r in e.results if r.finding.aspect == "slope" and r.finding.verdict is Verdict.WARNS]
        for e in (plain, evaluation)
    ]
    assert odd[0] == odd[1]
