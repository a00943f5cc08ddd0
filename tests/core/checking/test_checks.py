"""Each check is shown a garment that breaks it: a check that cannot fail would be none."""

from dataclasses import replace
from math import cos, radians, sin

import pytest

from izett.catalogue import catalogue
from izett.checking.check import Garment, Verdict, run
from izett.geometry.curve import Curve, straight
from izett.recipe.model import Recipe
from tests.bodies import some_bodies
from tests.core.blocks import with_pieces


@pytest.fixture
def drafted(evaluator, middling):
    evaluation = evaluator.evaluate(Recipe("bodice", middling))
    return evaluation.pattern, evaluation.draft.values


def verdicts(key, pattern, values):
    return [(r.finding.verdict, r.finding, r.words) for r in run(catalogue().checks[key], Garment(pattern, values))]


def with_edge(pattern, lineage, change):
    def changed(piece):
        edges = tuple(change(edge) if edge.lineage == lineage else edge for edge in piece.edges)
        return replace(piece, edges=edges)

    return replace(pattern, pieces=tuple(changed(piece) for piece in pattern.pieces))


def bent(edge, by):
    a, b = edge.curve.points[0], edge.curve.points[1]
    turn = radians(by)
    x, y = b[0] - a[0], b[1] - a[1]
    first = (a[0] + x * cos(turn) - y * sin(turn), a[1] + x * sin(turn) + y * cos(turn))
    return replace(edge, curve=Curve((a, first, *edge.curve.points[2:])))


def test_all_checks_pass_on_a_fresh_draft(drafted):
    pattern, values = drafted
    for check in catalogue().checks.values():
        for result in run(check, Garment(pattern, values)):
            if result.check == "passes_over" and result.finding.verdict is not Verdict.PASSES:
                # A block has no opening yet: it is asked for, with the seams where it could lie.
                assert result.finding.fixes or result.finding.verdict is Verdict.NOT_APPLICABLE
                continue
            assert result.finding.verdict is Verdict.PASSES, result.words


def test_no_check_fails_on_any_body(evaluator):
    for body in some_bodies(40):
        evaluation = evaluator.evaluate(Recipe("bodice", body))
        assert [r.words for r in evaluation.results if r.finding.verdict is Verdict.FAILS] == []


def test_a_longer_front_side_is_found_with_its_amount(drafted):
    pattern, values = drafted

    def longer(edge):
        if edge.end != "front.underarm":
            return edge
        (x0, y0), (x1, y1) = edge.curve.points
        return replace(edge, curve=straight((x0, y0), (x1 + (x1 - x0) * 0.1, y1 + (y1 - y0) * 0.1)))

    spoilt = with_edge(pattern, "front.side", longer)
    added = next(e for e in pattern.piece("bodice_front").edges if e.end == "front.underarm").curve.length * 0.1
    verdict, finding, words = next(v for v in verdicts("seams_match", spoilt, values) if v[1].where == ("side",))
    assert verdict is Verdict.FAILS
    assert finding.amount == pytest.approx(-added, abs=1e-6)
    assert "front is" in words


def test_uneven_legs_and_a_large_intake_are_found(drafted):
    pattern, values = drafted
    front = pattern.piece("bodice_front")
    # A dart whose mouth has slipped: the waist line shortened at one side of it.
    slipped = []
    for edge in front.edges:
        if edge.end == "front.waist_a":
            x, y = edge.curve.end
            slipped.append(replace(edge, curve=Curve((*edge.curve.points[:-1], (x, y + 0.8)))))
        elif edge.start == "front.waist_a":
            x, y = edge.curve.start
            slipped.append(replace(edge, curve=straight((x, y + 0.8), edge.curve.end)))
        else:
            slipped.append(edge)
    spoilt = with_pieces(pattern, replace(front, edges=tuple(slipped)))
    found = [v for v in verdicts("darts_true", spoilt, values) if v[1].where == ("front.waist_dart",)]
    assert any(v[0] is Verdict.FAILS and v[1].aspect == "legs" for v in found)


def test_a_waist_dart_that_pokes_out_warns(evaluator):
    body = {"bust_girth": 96.0, "waist_girth": 66.0, "height": 165.0, "high_bust_girth": 82.0}
    single = {"largest_front_dart": 5.0, "largest_back_dart": 5.0, "side_share": 0.2}
    evaluation = evaluator.evaluate(Recipe("bodice", body, overrides=single))
    widths = [r for r in evaluation.results if r.check == "darts_true" and r.finding.aspect == "intake"]
    assert all(r.finding.verdict is Verdict.WARNS and "split" in r.words for r in widths)


@pytest.mark.parametrize("lineage", ["front.neck", "back.waist"])
def test_a_line_off_the_square_is_found(drafted, lineage):
    pattern, values = drafted

    def tilted(edge):
        centre = edge.start.endswith(("_cf", "_cb"))
        if centre:
            return bent(edge, 4)
        if edge.end.endswith(("_cf", "_cb")):
            return replace(edge, curve=bent(replace(edge, curve=edge.curve.reversed()), 4).curve.reversed())
        return edge

    spoilt = with_edge(pattern, lineage, tilted)
    found = [v for v in verdicts("square_at_centre", spoilt, values) if v[0] is Verdict.FAILS]
    assert len(found) == 1
    assert abs(found[0][1].amount) == pytest.approx(4, abs=0.01)
    assert lineage.replace(".", " ") in found[0][2]


def test_a_corner_across_a_seam_is_found(drafted):
    pattern, values = drafted
    spoilt = with_edge(pattern, "front.armhole", lambda edge: bent(edge, 10))
    found = [v for v in verdicts("runs_across", spoilt, values) if v[0] is Verdict.FAILS]
    assert [v[1].where[0] for v in found] == ["side"]
    assert abs(found[0][1].amount) == pytest.approx(10, abs=0.01)


def test_a_kink_and_a_crossing_are_found(drafted):
    pattern, values = drafted

    def kinked(edge):
        p = list(edge.curve.points)
        p[4] = (p[4][0] + 1.5, p[4][1])
        return replace(edge, curve=Curve(tuple(p)))

    found = verdicts("outline_sound", with_edge(pattern, "back.armhole", kinked), values)
    assert any(v[0] is Verdict.FAILS and v[1].aspect == "kink" and "back armhole" in v[2] for v in found)

    def wild(edge):
        p = list(edge.curve.points)
        p[1], p[2] = (-60.0, p[0][1]), (-60.0, p[3][1])
        return replace(edge, curve=Curve(tuple(p)))

    found = verdicts("outline_sound", with_edge(pattern, "back.armhole", wild), values)
    assert any(v[1].aspect == "crossing" for v in found)


def test_a_bent_fold_is_found(drafted):
    pattern, values = drafted

    def curved(edge):
        a, b = edge.curve.points
        return replace(edge, curve=Curve((a, (a[0], a[1] - 9), (b[0], b[1] + 9), b)))

    found = verdicts("outline_sound", with_edge(pattern, "front.centre", curved), values)
    assert any(v[1].aspect == "fold" for v in found)


def test_ease_that_was_not_meant_is_told(drafted):
    pattern, values = drafted
    fuller = {**values, "bust_girth": values["bust_girth"] + 3}
    verdict, finding, words = next(v for v in verdicts("ease_as_meant", pattern, fuller) if v[1].where == ("bust",))
    assert verdict is Verdict.WARNS
    assert finding.amount == pytest.approx(-3)
    assert "⟦3 cm⟧ tighter" in words
    assert verdicts("ease_as_meant", pattern, {})[0][0] is Verdict.NOT_APPLICABLE


def test_every_check_words_every_finding_and_says_what_would_fix_it(drafted):
    pattern, values = drafted
    for check in catalogue().checks.values():
        assert check.claim and check.fix.endswith(".")
        for _, finding, words in verdicts(check.key, pattern, values):
            assert words and finding.where
