"""Finish steps: hems and facings turned, bones, pieces whole on paper, on the bias, of another cloth; what labels say."""

from dataclasses import replace
from math import atan2, degrees

import pytest
from shapely import LineString, Point, Polygon

from izett.cutting.cloth import Cloth, Fold
from izett.cutting.lay.cutouts import Wanted, sections
from izett.cutting.lay.search import Effort, best_plan
from izett.finishing.allowances import Allowances
from izett.finishing.sheet import BRACKET_WITHIN, sheet_pieces
from izett.recipe.model import Recipe, Step
from tests import laying
from tests.bodies import with_hips
from tests.cutting_lines import looked_at

SKIRT = ("skirt",)
SIDE = {"start": "front.underarm", "end": "front.waist_side", "along": "front.side"}


def worked(evaluator, body, *steps, also=SKIRT):
    named = tuple(Step(f"s{i}", kind, params) for i, (kind, params) in enumerate(steps))
    found = evaluator.evaluate(Recipe("bodice", body, also=also, steps=named))
    assert not [stage.failure for stage in found.stages if stage.failure]
    return found


def sheet_of(evaluation, name):
    return next(sheet for sheet in sheet_pieces(evaluation.pattern) if sheet.piece.name == name)


@pytest.mark.parametrize(("depth", "under"), [(4.0, 1.0), (2.0, 0.7), (5.0, 0.0)])
def test_a_turned_hem_is_cut_deeper_and_says_where_its_raw_edge_is_folded(evaluator, depth, under):
    acted = 0
    for body in with_hips(60):
        found = worked(evaluator, body, ("turn_edge", {"line": "skirt_front.hem", "depth": depth, "under": under}))
        sheet = sheet_of(found, "skirt_front")
        hem = LineString([p for e in sheet.piece.edges if e.role.value == "hem" for p in e.curve.flattened()])
        cut = Polygon(sheet.cutting)
        middle = hem.interpolate(0.5, normalized=True)
        assert cut.exterior.distance(middle) == pytest.approx(depth + under, abs=0.02)
        if not under:
            assert sheet.turnings == ()
            continue
        (turned,) = (LineString(points) for points in sheet.turnings)
        # Beside the hem at its depth, from one side of what is cut to the other, and nowhere beyond it.
        assert turned.distance(middle) == pytest.approx(depth, abs=0.02)
        assert cut.buffer(0.01).covers(turned)
        assert cut.exterior.distance(turned.interpolate(0.0)) < 0.05
        assert turned.length == pytest.approx(hem.length, rel=0.25)
        # Turned up, the hem lies against the piece and does not stand out beyond it.
        assert looked_at(sheet, Allowances.of_pattern(found.pattern)) > 0
        acted += 1
    assert acted >= 3 or not under


def test_more_cannot_be_turned_under_than_a_turning_is_deep(evaluator, middling):
    step = Step("s", "turn_edge", {"line": "skirt_front.hem", "depth": 1.0, "under": 1.5})
    (stage,) = evaluator.evaluate(Recipe("bodice", middling, also=SKIRT, steps=(step,))).stages
    assert stage.failure is not None and "under" in str(stage.failure) and stage.failure.fix


def test_a_bone_is_shorter_than_its_channel_and_lies_beside_its_line(evaluator):
    kinds = set()
    for body in with_hips(250):
        found = worked(evaluator, body, ("bone_channel", {"line": SIDE, "inwards": 0.6, "short": 1.3}))
        (stage,) = found.stages
        (_, channel), (kind, bone) = ((one.what, one.value) for one in stage.sums)
        # Handbook, cutting: a bone is its channel less 1.3 cm.
        assert bone == pytest.approx(channel - 1.3)
        kinds.add(kind)
        piece = found.pattern.find_piece("bodice_front")
        (mark,) = (LineString(line.points) for line in piece.lines if line.level == "bone")
        side = LineString([p for e in piece.edges if e.lineage == "front.side" for p in e.curve.flattened()])
        assert Polygon(piece.outline()).buffer(0.01).covers(mark)
        assert side.distance(mark) == pytest.approx(0.6, abs=0.1)
    assert kinds <= {"flat bone", "spiral bone"}


def test_a_bone_in_a_curved_channel_is_a_spiral_one(evaluator):
    neck = {"start": "skirt_front.waist_side", "end": "skirt_front.hem_side", "along": "skirt_front.side"}
    found = worked(evaluator, with_hips(400)[0], ("bone_channel", {"line": neck}))
    assert {one.what for one in found.stages[0].sums} == {"channel", "spiral bone"}


def test_a_bracket_within_a_piece_touches_the_fold_it_is_laid_on(evaluator):
    acted = 0
    for body in with_hips(120):
        for sheet in sheet_pieces(worked(evaluator, body).pattern):
            heads, bracket = sheet.signs[:2], sheet.signs[2:]
            for head, tip in zip(heads, sheet.grain, strict=True):
                assert head[1] == pytest.approx(tip)
                # Its wings lie back along the grain, alike on both sides of it.
                assert LineString(head).intersection(LineString(sheet.grain).buffer(0.01)).length > 0
                assert LineString(sheet.grain).distance(LineString((head[0], head[2])).centroid) < 1e-9
            assert (len(bracket) == 3) is (sheet.fold is not None)
            if sheet.fold is None:
                continue
            fold, (turned, *arrows) = LineString(sheet.fold), bracket
            assert Polygon(sheet.piece.outline()).buffer(1e-6).covers(LineString(turned))
            for foot, arrow in zip((turned[0], turned[-1]), arrows, strict=True):
                assert arrow[1] == pytest.approx(foot) and fold.distance(Point(foot)) < 1e-6
            assert fold.distance(LineString(turned[1:3])) == pytest.approx(BRACKET_WITHIN)
            acted += 1
    assert acted >= 9


def test_the_bracket_of_a_narrow_piece_stays_within_it(evaluator, middling):
    """A strip two centimetres deep that is laid on a fold along its length."""
    wide = sheet_of(worked(evaluator, middling), "skirt_front")
    low, high = wide.fold
    narrow = replace(wide, sewing=(high, low, (low[0] + 2, low[1]), (high[0] + 2, high[1])))
    turned = LineString(narrow.signs[2])
    assert LineString(wide.fold).distance(LineString(turned.coords[1:3])) == pytest.approx(1.0)
    assert BRACKET_WITHIN > 1.0


def test_a_half_is_put_on_paper_whole_on_wish(evaluator):
    for body in with_hips(400):
        plain = sheet_of(worked(evaluator, body), "bodice_front")
        whole = sheet_of(
            worked(evaluator, body, ("ready_piece", {"pieces": ["bodice_front"], "whole": True})), "bodice_front"
        )
        assert plain.fold is not None and whole.fold is None
        assert Polygon(whole.cutting).area == pytest.approx(2 * Polygon(plain.cutting).area, rel=1e-3)
        left, _, right, _ = Polygon(whole.cutting).bounds
        assert left == pytest.approx(-right, abs=1e-6)
        assert "cut 1 on the fold" in plain.label and "cut 1" in whole.label
        assert len(whole.darts) == 2 * len(plain.darts)


def test_what_is_cut_on_the_bias_is_whole_and_lies_so_on_the_cloth(evaluator, middling):
    steps = ("ready_piece", {"pieces": ["skirt_front"], "lie": "bias"})
    found = worked(evaluator, middling, steps)
    sheet = sheet_of(found, "skirt_front")
    (ax, ay), (bx, by) = sheet.grain
    assert degrees(atan2(by - ay, bx - ax)) == pytest.approx(45)
    assert sheet.fold is None and "on the BIAS" in sheet.label
    cloth = Cloth(width=150, fold=Fold.LENGTHWISE)
    (section,) = sections([Wanted(sheet)], cloth)
    (cutout,) = section.cutouts
    assert not cutout.on_fold and cutout.area == pytest.approx(Polygon(sheet.cutting).area)
    plan = best_plan([Wanted(sheet)], cloth, effort=Effort(50, 0))
    (one,) = plan.placed
    # The level of the hip, square to the grain as drafted, lies at 45° to the selvedges.
    assert plan.length > Polygon(sheet.cutting).bounds[3] - Polygon(sheet.cutting).bounds[1]
    assert Polygon(one.outline).area == pytest.approx(Polygon(sheet.cutting).area, rel=1e-6)
    # Said again, it lies as drafted.
    again = worked(evaluator, middling, steps, ("ready_piece", {"pieces": ["skirt_front"]}))
    assert sheet_of(again, "skirt_front").fold is not None
    assert not any("grain line along its cloth" in r.finding.aspect for r in found.results)


def test_a_whole_piece_keeps_the_corners_turnings_and_notches_of_both_halves(evaluator, middling):
    steps = (
        ("set_allowances", {"purpose": "home"}),
        ("turn_edge", {"line": "skirt_front.hem", "depth": 4.0, "under": 1.0}),
        ("cut_corner", {"line": "skirt_front.side", "at_start": False, "kind": "square"}),
    )
    half = sheet_of(worked(evaluator, middling, *steps), "skirt_front")
    ready = ("ready_piece", {"pieces": ["skirt_front"], "whole": True})
    whole = sheet_of(worked(evaluator, middling, *steps, ready), "skirt_front")
    mirrored = Polygon([(-x, y) for x, y in half.cutting]).union(Polygon(half.cutting))
    assert Polygon(whole.cutting).symmetric_difference(mirrored.buffer(0)).area < 0.05
    assert sum(LineString(t).length for t in whole.turnings) == pytest.approx(
        2 * sum(LineString(t).length for t in half.turnings), abs=0.2
    )
    assert len(whole.notches) == 2 * len(half.notches)


def test_labels_say_which_piece_of_how_many_cloth_count_and_whether_allowances_are_there(evaluator, middling):
    found = worked(
        evaluator, middling, ("ready_piece", {"pieces": ["bodice_back"], "cloth": "lining", "says": "mind the nap"})
    )
    sheets = sheet_pieces(found.pattern, title="Recital dress, revision 3", wearer="M.S.")
    assert [sheet.place for sheet in sheets] == [(i + 1, len(sheets)) for i in range(len(sheets))]
    for sheet in sheets:
        assert sheet.label[0] == "Recital dress, revision 3" and "M.S." in sheet.label
        assert any(text.startswith(f"{sheet.place[0]} of {len(sheets)}") for text in sheet.label)
        assert sheet.label[-1] == "seam allowance INCLUDED"
    back = next(sheet for sheet in sheets if sheet.piece.name == "bodice_back")
    assert any(text.startswith("LINING") for text in back.label) and "mind the nap" in back.label


def test_plans_of_pieces_made_ready_are_sound(evaluator, middling):
    found = worked(
        evaluator,
        middling,
        ("ready_piece", {"pieces": ["bodice_front"], "whole": True}),
        ("ready_piece", {"pieces": ["skirt_back"], "lie": "across"}),
        ("turn_edge", {"line": "skirt_front.hem", "depth": 4.0, "under": 1.0}),
    )
    pieces = [Wanted(sheet) for sheet in sheet_pieces(found.pattern)]
    for fold in Fold:
        cloth = Cloth(width=150, fold=fold)
        plan = best_plan(pieces, cloth, effort=Effort(60, 0))
        assert not list(laying.faults(plan, [one.sheet.piece for one in pieces], cloth))
