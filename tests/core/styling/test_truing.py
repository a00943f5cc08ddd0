"""Truing acts at the end where the difference arose, and a result that no hand would cut is refused; fixes are tried first."""

from dataclasses import replace

import pytest

from izett.checking.check import Verdict
from izett.geometry.curve import Curve
from izett.pattern.ends import arose_at_start
from izett.pattern.facts import Role
from izett.recipe.model import Recipe, Step
from izett.styling.sweep import Fault, fault_in
from tests.core.blocks import drafted

BODY = {"bust_girth": 92.0, "waist_girth": 74.0, "hip_girth": 98.0, "height": 168.0, "high_bust_girth": 87.0}
#: One side of the skirt longer by so much at its hem only: a hem that was shaped on one panel.
LONGER = 1.2


def with_back_longer(pattern):
    """The back's side runs on by LONGER beyond the hem."""
    back = pattern.piece("skirt_back")
    side = next(e for e in back.edges if e.lineage == "skirt_back.side" and e.start == "skirt_back.hem_side")
    ax, ay = side.curve.start
    down = (ax, ay - LONGER)
    edges = []
    for edge in back.edges:
        points = list(edge.curve.points)
        if edge.start == "skirt_back.hem_side":
            points[0] = down
        if edge.end == "skirt_back.hem_side":
            points[-1] = down
        edges.append(replace(edge, curve=replace(edge.curve, points=tuple(points))))
    return replace(pattern, pieces=tuple(replace(p, edges=tuple(edges)) if p is back else p for p in pattern.pieces))


def test_the_end_where_the_difference_arose_is_found_by_the_levels_on_both_sides():
    pattern = with_back_longer(drafted(["skirt"], BODY).pattern)
    (seam,) = [s for s in pattern.seams if s.name == "skirt_side"]
    hem_first = "hem" in seam.sides[0][0].start
    assert arose_at_start(pattern, seam) is hem_first
    assert arose_at_start(
        pattern, replace(seam, sides=tuple(tuple(turned(s) for s in side[::-1]) for side in seam.sides))
    ) is (not hem_first)


def turned(span):
    return replace(span, start=span.end, end=span.start)


def test_a_fix_is_offered_only_where_it_helps(evaluator):
    """Each offer, taken, leaves its finding mended; what was offered without being tried is left out."""
    steps = (
        Step("s0", "change_armhole", {"lower": 2.0}),
        Step("s1", "shape_hem", {"front": -6.0, "side": -2.0, "back": 3.0}),
    )
    recipe = Recipe("bodice", BODY, also=("sleeve", "skirt"), steps=steps)
    evaluation = evaluator.evaluate(recipe)
    tried = 0
    for result in evaluator.proven(recipe, evaluation):
        if result.finding.verdict not in (Verdict.WARNS, Verdict.FAILS):
            continue
        for fix in result.finding.fixes:
            after = evaluator.evaluate(replace(recipe, steps=(*steps, Step("fix", fix.kind, dict(fix.params)))))
            assert after.of("fix").failure is None
            assert not after.of("fix").idle
            left = [
                r
                for r in after.results
                if (r.check, r.finding.where, r.finding.aspect)
                == (result.check, result.finding.where, result.finding.aspect)
                and r.finding.verdict in (Verdict.WARNS, Verdict.FAILS)
            ]
            assert all(abs(r.finding.amount) < abs(result.finding.amount) for r in left), fix.words
            tried += 1
    assert tried >= 3
    offered = sum(len(r.finding.fixes) for r in evaluation.results if r.finding.verdict is not Verdict.PASSES)
    assert tried <= offered


def test_a_truing_that_bends_a_line_the_other_way_is_refused(evaluator):
    """A waist pulled up by 4 cm at its side to make a side seam equal."""
    base = evaluator.evaluate(Recipe("skirt", BODY))
    piece = base.pattern.piece("skirt_back")
    waist = next(e for e in piece.edges if e.role is Role.WAIST)
    (ax, ay), *_, (bx, by) = waist.curve.points
    # The line swings up at one end and down at the other.
    bent = replace(waist, curve=Curve(((ax, ay), (ax + 1, ay + 4), (bx - 1, by - 4), (bx, by))))
    after = replace(piece, edges=tuple(bent if e is waist else e for e in piece.edges))
    assert fault_in(piece, after) == Fault(waist.lineage, "a bend the other way")
    assert fault_in(piece, piece) is None


@pytest.mark.parametrize("kind", ["shape_hem", "change_side"])
def test_a_step_without_amounts_says_that_it_changes_nothing(evaluator, kind):
    evaluation = evaluator.evaluate(
        Recipe("skirt", BODY, steps=(Step("s0", kind, {}), Step("s1", "shape_hem", {"back": 2.0})))
    )
    assert [stage.idle for stage in evaluation.stages] == [True, False]
    assert all(stage.failure is None for stage in evaluation.stages)
