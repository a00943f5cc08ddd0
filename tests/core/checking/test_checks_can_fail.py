"""The checks of styled garments, each shown one that breaks it, and what is offered to fix it."""

from dataclasses import replace

import pytest

from izett.catalogue import catalogue
from izett.checking.check import Garment, Verdict, run
from izett.checking.ease_map import ease_map
from izett.pattern.facts import Role
from izett.pattern.piece import Notch, NotchKind, Span
from izett.recipe.model import Recipe, Step
from tests.core.blocks import drafted, with_pieces
from tests.core.styling.worked import DRESS, line, worked

BODY = {"bust_girth": 92.0, "waist_girth": 74.0, "hip_girth": 98.0, "height": 168.0, "high_bust_girth": 87.0}


def found(check, pattern, body=BODY, aspect=None):
    results = run(catalogue().checks[check], Garment(pattern, body))
    return [r for r in results if aspect is None or r.finding.aspect == aspect]


def moved(pattern, name, vertex, by):
    """The pattern with a corner moved and nothing drawn to it but the lines that end there."""

    def edge_moved(edge):
        points = list(edge.curve.points)
        if edge.start == vertex:
            points[0] = (points[0][0] + by[0], points[0][1] + by[1])
        if edge.end == vertex:
            points[-1] = (points[-1][0] + by[0], points[-1][1] + by[1])
        return replace(edge, curve=replace(edge.curve, points=tuple(points)))

    piece = pattern.piece(name)
    return with_pieces(pattern, replace(piece, edges=tuple(edge_moved(e) for e in piece.edges)))


def test_a_shoulder_that_bends_and_one_that_no_shoulder_slopes_like_are_told(evaluator):
    pattern = worked(evaluator, BODY, blocks=("bodice",)).pattern
    steep = moved(pattern, "bodice_front", "front.shoulder_tip", (0.0, -9.0))
    (slope,) = [r for r in found("shoulder_straight", steep, aspect="slope") if "front" in r.finding.where[0]]
    assert slope.finding.verdict is Verdict.WARNS
    assert "which no shoulder does" in slope.words
    edge = next(e for e in pattern.piece("bodice_back").edges if e.role is Role.SHOULDER)
    (ax, ay), (bx, by) = edge.curve.start, edge.curve.end
    thirds = [(ax + (bx - ax) * t, ay + (by - ay) * t + 0.9) for t in (1 / 3, 2 / 3)]
    humped = replace(edge, curve=replace(edge.curve, points=((ax, ay), *thirds, (bx, by))))
    back = pattern.piece("bodice_back")
    bent = with_pieces(pattern, replace(back, edges=tuple(humped if e is edge else e for e in back.edges)))
    (result,) = [
        r for r in found("shoulder_straight", bent) if r.finding.where == ("back.shoulder",) and not r.finding.aspect
    ]
    assert result.finding.verdict is Verdict.WARNS
    assert result.finding.amount > 0.5
    fix = result.finding.fixes[0]
    assert (fix.kind, fix.params["how"]) == ("true_line", "straight")


def test_a_missing_notch_is_told_and_carried_over_with_a_click(evaluator):
    evaluation = worked(evaluator, BODY, blocks=("bodice", "sleeve"))
    front = evaluation.pattern.piece("bodice_front")
    span = Span("front.underarm", "front.shoulder_tip", "front.armhole")
    more = replace(front, notches=(*front.notches, Notch(span, 4.0, NotchKind.SINGLE)))
    (cap,) = [r for r in found("notches_meet", with_pieces(evaluation.pattern, more)) if r.finding.where == ("cap",)]
    assert (cap.finding.verdict, cap.finding.aspect) == (Verdict.WARNS, "missing")
    assert "One notch is missing" in cap.words
    assert cap.finding.fixes[0].kind == "match_notches"


def test_a_crotch_shorter_than_the_body_is_told_by_how_much():
    draft = drafted(["trousers"], {**BODY, "crotch_length": 70.0})
    (fresh,) = found("crotch_long", draft.pattern, draft.values)
    assert fresh.finding.verdict is Verdict.PASSES
    assert fresh.finding.amount == pytest.approx(0.0, abs=0.05)
    values = {**draft.values, "crotch_length": 74.0}
    (result,) = found("crotch_long", draft.pattern, values)
    assert result.finding.verdict is Verdict.WARNS
    assert result.finding.amount == pytest.approx(-4.0, abs=0.05)
    assert "shorter" in result.words


def test_a_straight_cut_piece_off_the_thread_and_a_crooked_gusset_are_found():
    draft = drafted(["straight_shirt"], BODY)
    assert all(r.finding.verdict is Verdict.PASSES for r in found("straight_pieces", draft.pattern))
    for name in ("shirt_gusset", "shirt_body"):
        piece = draft.pattern.piece(name)
        corner = piece.edges[1].start
        crooked = moved(draft.pattern, name, corner, (0.8, 0.3))
        failing = [r for r in found("straight_pieces", crooked) if r.finding.verdict is Verdict.FAILS]
        assert {r.finding.where[0] for r in failing} == {name}
        assert {"corner"} <= {r.finding.aspect for r in failing} <= {"corner", "gusset"}


@pytest.mark.parametrize(
    ("step", "aspect"),
    [
        (("change_armhole", {"lower": 3.0}), "ease"),
        (("change_armhole", {"scoop_front": 2.5}), "uneven"),
    ],
)
def test_a_sleeve_that_does_not_follow_its_armhole_is_told_and_capped_again(evaluator, step, aspect):
    evaluation = worked(evaluator, BODY, step, blocks=("bodice", "sleeve"))
    odd = [r for r in evaluation.results if r.check == "sleeve_fits" and r.finding.aspect == aspect]
    assert odd
    assert odd[0].finding.verdict is not Verdict.PASSES, odd[0].words
    fix = odd[0].finding.fixes[0]
    after = worked(evaluator, BODY, step, (fix.kind, dict(fix.params)), blocks=("bodice", "sleeve"))
    assert all(r.finding.verdict is Verdict.PASSES for r in after.results if r.finding.aspect == aspect)


@pytest.mark.parametrize("higher", [-4.0, 4.0])
def test_a_cap_beyond_the_trades_heights_is_told_with_which_way_to_go(evaluator, higher):
    """Common practice: near a third of the armhole, 0.28 to 0.40 set in a woven."""
    evaluation = worked(evaluator, BODY, ("shape_cap", {"height": higher}), blocks=("bodice", "sleeve"))
    if evaluation.stages[0].failure is not None:
        pytest.skip("this cap cannot be made so high")
    (height,) = [r for r in evaluation.results if r.check == "sleeve_fits" and r.finding.aspect == "height"]
    if height.finding.verdict is Verdict.PASSES:
        assert 0.28 <= height.finding.amount <= 0.40
    else:
        assert (height.finding.fixes[0].params["height"] > 0) == (higher < 0)


def test_a_dart_too_short_too_wide_or_off_its_partner_is_told(evaluator):
    short = worked(evaluator, BODY, ("aim_dart", {"dart": "back.waist_dart", "set_back": 4.0}), blocks=("bodice",))
    piece = short.pattern.piece("bodice_back")
    low = replace(piece, darts=tuple(replace(d, pivot=(d.pivot[0], 3.0), set_back=0.0) for d in piece.darts))
    from izett.pattern.paper import with_leg_shapes

    stubby = with_pieces(short.pattern, with_leg_shapes(low, low.darts))
    assert [r.finding.aspect for r in found("darts_true", stubby, aspect="short")] == ["short"]
    apart = worked(evaluator, BODY, ("aim_dart", {"dart": "front.waist_dart", "outwards": 1.5}), blocks=DRESS)
    (meet,) = [r for r in apart.results if r.finding.aspect == "meet"]
    assert meet.finding.verdict is Verdict.WARNS
    fix = meet.finding.fixes[0]
    assert fix.kind == "align_darts"
    aimed = ("aim_dart", {"dart": "front.waist_dart", "outwards": 1.5})
    after = worked(evaluator, BODY, aimed, (fix.kind, dict(fix.params)), blocks=DRESS)
    assert not [r for r in after.results if r.finding.aspect == "meet"]


def test_papers_lack_what_was_taken_from_them(evaluator):
    pattern = worked(evaluator, BODY, blocks=("bodice",)).pattern
    front = pattern.piece("bodice_front")
    (x, y) = front.grain[0]
    broken = {
        "name": replace(front, title=""),
        "cut count": replace(front, cut=0),
        "grain line": replace(front, grain=((x, y), (x, y + 0.2))),
        "fold edge": replace(front, on_fold="front.nowhere"),
    }
    for missing, piece in broken.items():
        (result,) = [
            r for r in found("papers_in_order", with_pieces(pattern, piece)) if r.finding.where == (piece.name,)
        ]
        assert result.finding.verdict is Verdict.FAILS
        assert missing in result.words


def test_a_seam_that_lost_its_end_is_not_taken_for_one_that_agrees(evaluator):
    """A check that cannot read says so; it does not pass."""
    pattern = worked(evaluator, BODY, blocks=("bodice",)).pattern
    back = pattern.piece("bodice_back")
    renamed = tuple(
        replace(e, start=e.start.replace("back.underarm", "gone"), end=e.end.replace("back.underarm", "gone"))
        for e in back.edges
    )
    lost = with_pieces(pattern, replace(back, edges=renamed))
    (side,) = [r for r in found("seams_match", lost) if r.finding.where[0] == "side"]
    assert side.finding.verdict is not Verdict.PASSES


def test_the_ease_map_says_tight_and_loose_where_the_body_is_another(evaluator):
    body = {**BODY, "bicep_girth": 29.0, "underbust_girth": 78.0, "waist_to_underbust": 13.0}
    pattern = worked(evaluator, body, blocks=DRESS).pattern
    for girth, wanted in (
        (body["bust_girth"] + 9, "tight"),
        (body["bust_girth"] - 9, "loose"),
        (body["bust_girth"], "as meant"),
    ):
        places = {place.key: place for place in ease_map(pattern, {**body, "bust_girth": girth})}
        assert places["bust"].state == wanted
        assert places["bust"].ease == pytest.approx(places["bust"].pattern - girth)
    assert {"bust", "waist", "hip", "bicep", "underbust"} <= set(places)


def test_a_failed_step_leaves_the_checks_of_all_else(evaluator):
    steps = (
        Step(
            "a",
            "move_dart",
            {"dart": "front.none", "to": line("front", "neck_shoulder", "shoulder_tip", "shoulder", 0.5)},
        ),
        Step("b", "change_side", {"underarm": 1.0}),
    )
    evaluation = evaluator.evaluate(Recipe("bodice", BODY, steps=steps))
    assert [stage.failure is None for stage in evaluation.stages] == [False, True]
    assert {r.check for r in evaluation.results} >= {"seams_match", "darts_true", "ease_as_meant"}
