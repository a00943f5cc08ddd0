"""Left and right: a step on one half leaves the other as it is, and what is laid together is paper that can be cut."""

from dataclasses import replace
from itertools import pairwise

import pytest

from izett.catalogue import catalogue
from izett.checking.check import Verdict
from izett.checking.ease_map import ease_map
from izett.errors import MissingMeasure, StepRefused
from izett.files.pattern_json import evaluated_document, read_pattern, write_pattern
from izett.files.recipe_json import RecipeDoc
from izett.geometry.motion import Motion
from izett.geometry.outline import crossing, signed_area
from izett.geometry.point import distance
from izett.pattern.copies import moved
from izett.pattern.facts import Half
from izett.pattern.halves import marked, origin
from izett.pattern.sewn import seam_lengths
from izett.pattern.worn import width
from izett.recipe.evaluator import Evaluator
from izett.recipe.model import Recipe, Section, Step
from izett.styling.operation import Operation, Outcome
from izett.styling.references import Params
from tests.bodies import with_hips
from tests.garments import BODY, DRESS, DRESS_BLOCKS

BODIES = [{"height": 165.0, **body} for body in with_hips(69)][:12]
SIDED = [
    pytest.param(key, example, id=f"{key}-{i}")
    for key, operation in catalogue().operations.items()
    if operation.sided
    for i, example in enumerate(operation.examples)
]


def recipe(body, kind, params=None, half=Half.BOTH) -> Recipe:
    operation = catalogue().operations[kind]
    steps = [Step(f"s{i}", k, p) for i, (k, p) in enumerate(operation.before)]
    if params is not None:
        steps.append(Step("it", kind, params, half=half))
    return Recipe(operation.blocks[0], body, also=operation.blocks[1:], steps=tuple(steps))


@pytest.mark.parametrize(("kind", "params"), SIDED)
def test_a_step_on_the_left_half_leaves_the_right_as_it_is(evaluator, kind, params):
    acted = 0
    for body in BODIES:
        plain = evaluator.evaluate(recipe(body, kind))
        both = evaluator.evaluate(recipe(body, kind, params))
        left = evaluator.evaluate(recipe(body, kind, params, Half.LEFT))
        right = evaluator.evaluate(recipe(body, kind, params, Half.RIGHT))
        if both.stages[-1].failure is not None:
            assert left.stages[-1].failure is not None
            continue
        if left.stages[-1].failure is not None:
            # What goes over both halves has no left half, and says so.
            assert "one piece over both halves" in left.stages[-1].failure.message
            continue
        acted += 1
        assert left.left == both.left
        assert left.right == plain.left
        assert (right.left, right.right) == (left.right, left.left)
        for piece in left.pattern:
            assert crossing(piece.outline()) is None, piece.name
            assert signed_area(piece.outline()) > 0, piece.name
            for edge, following in pairwise((*piece.edges, piece.edges[0])):
                assert edge.end == following.start
                assert edge.curve.end == following.curve.start
            for dart in piece.darts:
                a, b = (piece.vertex(v) for v in dart.mouth)
                assert distance(a, piece.vertex(dart.tip)) == pytest.approx(
                    distance(b, piece.vertex(dart.tip)), abs=1e-6
                )
        for seam in left.pattern.seams:
            half = plain.left if seam.half is Half.RIGHT else both.left
            alone = half.find_seam(origin(seam.name).name)
            assert seam_lengths(left.pattern, seam) == pytest.approx(seam_lengths(half, alone), abs=1e-9)
        evaluator.forget()
        assert evaluator.evaluate(recipe(body, kind)).pattern == plain.pattern
    assert acted >= 6


def test_what_differs_is_a_left_and_a_right_and_what_lay_on_the_fold_is_whole(evaluator):
    steps = (Step("it", "change_side", {"underarm": 1.0, "waist": 1.5}, half=Half.LEFT),)
    pattern = evaluator.evaluate(Recipe("bodice", BODY, also=("sleeve", "skirt"), steps=steps)).pattern
    halves = {piece.name: (piece.half, piece.cut, piece.on_fold) for piece in pattern}
    assert halves["bodice_front"] == (Half.BOTH, 1, None)
    assert halves["bodice_back"] == (Half.LEFT, 1, None)
    assert halves["right:bodice_back"] == (Half.RIGHT, 1, None)
    assert halves["sleeve"] == (Half.BOTH, 2, None)
    sides = [(seam.name, seam.half) for seam in pattern.seams if origin(seam.name).name == "side"]
    assert sides == [("side", Half.LEFT), ("right:side", Half.RIGHT)]


def test_around_the_body_the_halves_add_up(evaluator):
    def at(half: Half | None) -> float:
        steps = () if half is None else (Step("it", "change_side", {"underarm": 1.0, "waist": 1.0}, half=half),)
        return width(evaluator.evaluate(Recipe("bodice", BODY, steps=steps)).pattern, "bust")

    assert at(Half.LEFT) == pytest.approx((at(None) + at(Half.BOTH)) / 2, abs=1e-9)


def test_a_whole_dress_with_one_high_shoulder_agrees_on_both_halves(evaluator):
    steps = (
        Step("f1", "change_shoulder", {"amount": 0.0, "slope": 0.8}, half=Half.RIGHT),
        *(Step(f"s{i}", kind, params) for i, (kind, params) in enumerate(DRESS)),
    )
    evaluation = evaluator.evaluate(Recipe(DRESS_BLOCKS[0], BODY, also=DRESS_BLOCKS[1:], steps=steps))
    assert [str(s.failure) for s in evaluation.stages if s.failure] == []
    assert [r.words for r in evaluation.results if r.check == "seams_match" and r.finding.verdict == "fails"] == []
    assert {p.title for p in evaluation.pattern if p.half is Half.RIGHT} >= {"Sleeve, right", "Cuff, right"}
    document = evaluated_document(evaluation, measures=BODY)
    assert read_pattern(write_pattern(document))[0] == evaluation.pattern


@pytest.mark.parametrize("half", [Half.BOTH, Half.LEFT, Half.RIGHT])
def test_what_a_step_says_of_the_round_is_what_the_garment_gained(evaluator, half):
    """Of one half it tells one half: measured from outside, around the body."""
    step = Step("f", "change_side", {"underarm": 0.4, "waist": -0.3}, half=half)
    evaluation = evaluator.evaluate(Recipe("bodice", BODY, steps=(step,)))
    told = {line.what: line.value for line in evaluation.stages[0].sums}
    for level, told_so in (
        ("bust", told["wider around at the bust"]),
        ("waist", -told["narrower around at the waist"]),
    ):
        gained = width(evaluation.pattern, level) - width(evaluation.draft.pattern, level)
        assert told_so == pytest.approx(gained, abs=0.02)
        assert abs(gained) > 0.5
    assert told["edges cut"] == (4 if half is Half.BOTH else 2)


def test_what_is_told_of_two_halves_says_which(evaluator):
    """No two findings read alike, nor two ways to fix one of them, and no mark of a name reaches a reader."""
    steps = (
        Step("f1", "change_shoulder", {"amount": -0.6}, half=Half.RIGHT),
        *(Step(f"s{i}", kind, params) for i, (kind, params) in enumerate(DRESS) if kind != "open_up"),
    )
    results = evaluator.evaluate(Recipe(DRESS_BLOCKS[0], BODY, also=DRESS_BLOCKS[1:], steps=steps)).results
    words = [result.words for result in results]
    assert len(set(words)) == len(words)
    assert sum("right" in text.lower() for text in words) > 10
    offered = [[fix.words for fix in result.finding.fixes] for result in results]
    assert all(len(set(fixes)) == len(fixes) for fixes in offered)
    assert sum(map(len, offered)) >= 4
    told = [*words, *(text for fixes in offered for text in fixes)]
    assert [text for text in told if "right:" in text or "⟦=" in text or "s0." in text] == []


def test_unfolded_with_unlike_halves_each_side_is_its_own(evaluator):
    lower = Step("it", "change_side", {"underarm": 1.0}, half=Half.LEFT)
    unfold = Step("u", "fold_open", {"piece": "bodice_front", "what": "unfold"})
    after = evaluator.evaluate(Recipe("bodice", BODY, steps=(lower, unfold)))
    laid = evaluator.evaluate(Recipe("bodice", BODY, steps=(lower,)))
    assert after.stages[-1].failure is None
    whole, before = after.pattern.piece("bodice_front"), laid.pattern.piece("bodice_front")
    assert signed_area(whole.outline()) == pytest.approx(signed_area(before.outline()), abs=1e-9)
    for seam in after.pattern.seams:
        first, second = seam_lengths(after.pattern, seam)
        assert seam.ease[0] - 1e-6 <= second - first <= seam.ease[1] + 1e-6, seam.name


def test_a_step_that_names_a_half_of_a_whole_piece_is_refused_in_words(evaluator):
    unfold = Step("u", "fold_open", {"piece": "bodice_front", "what": "unfold"})
    low = Step("n", "change_neckline", {"front": 3.0}, half=Half.LEFT)
    stage = evaluator.evaluate(Recipe("bodice", BODY, steps=(unfold, low))).stages[-1]
    assert isinstance(stage.failure, StepRefused)
    assert "no left half any more" in stage.failure.message


def test_a_half_that_a_step_cannot_have_is_refused_in_words(evaluator):
    cap = Step("c", "recap_sleeve", {}, half=Half.LEFT)
    stage = evaluator.evaluate(Recipe("bodice", BODY, also=("sleeve",), steps=(cap,))).stages[-1]
    assert isinstance(stage.failure, StepRefused)
    assert "has no left half" in stage.failure.message


@pytest.mark.parametrize("arms", [(28.0, 31.0), (31.0, 28.0)])
def test_halves_drafted_apart_are_checked_against_their_own_half_of_the_body(evaluator, arms):
    body = {**BODY, "bicep_girth": 29.5}
    recipe = RecipeDoc(also=["sleeve"], apart=["bicep_girth"]).recipe(body, {"bicep_girth": arms})
    evaluation = evaluator.evaluate(recipe)
    told = {r.finding.half: r.finding for r in evaluation.results if r.check == "ease_as_meant" and "bicep" in r.words}
    assert set(told) == {Half.LEFT, Half.RIGHT}
    assert all(finding.verdict is Verdict.PASSES for finding in told.values())
    places = {place.half: place for place in ease_map(evaluation.pattern, evaluation.body) if place.key == "bicep"}
    assert [places[half].body for half in (Half.LEFT, Half.RIGHT)] == list(arms)
    assert places[Half.LEFT].ease == pytest.approx(places[Half.RIGHT].ease, abs=1e-6)
    assert {place.label for place in places.values()} == {"Upper arm, left", "Upper arm, right"}
    # What goes around the whole body is judged by both halves of it.
    assert evaluation.body["bicep_girth"] == 29.5


def local_widths(evaluation):
    keys = ("across_front", "across_back", "apex_span", "front_bust_arc")
    return {p.key: p.pattern for p in ease_map(evaluation.pattern, evaluation.body) if p.key in keys}


@pytest.mark.parametrize("half", [Half.LEFT, Half.RIGHT])
@pytest.mark.parametrize("styled", [(), DRESS], ids=["block", "dress"])
def test_local_widths_are_read_on_left_right_and_whole_pieces_as_on_half_ones(evaluator, half, styled):
    taken = {**BODY, "across_front": 32.0, "across_back": 35.0, "apex_span": 18.5, "front_bust_arc": 48.0}

    def of(*fits):
        steps = (*fits, *(Step(f"s{i}", kind, params) for i, (kind, params) in enumerate(styled)))
        return evaluator.evaluate(Recipe("bodice", taken, also=("sleeve", "skirt"), steps=steps))

    plain = local_widths(of())
    assert set(plain) == {"across_front", "across_back", "apex_span", "front_bust_arc"}
    at_side = Step("fit", "change_side", {"underarm": 0.5, "waist": 0.5}, section=Section.FIT, half=half)
    assert local_widths(of(at_side)) == pytest.approx(
        {**plain, "front_bust_arc": plain["front_bust_arc"] + 0.5}, abs=0.07
    )
    wider = {"part": "back", "amount": 0.4, "surplus": "ease"}
    across = Step("fit", "widen_across", wider, section=Section.FIT, half=half)
    assert local_widths(of(across)) == pytest.approx({**plain, "across_back": plain["across_back"] + 0.4}, abs=0.05)


@pytest.mark.parametrize("half", [Half.LEFT, Half.RIGHT])
def test_a_whole_piece_has_the_bust_point_of_each_half(evaluator, half):
    """A dart aimed at its point on one half pokes there, and on the other half not."""
    set_back = Step("fit", "aim_dart", {"dart": "front.bust", "set_back": -3.0}, section=Section.FIT, half=half)
    evaluation = evaluator.evaluate(Recipe("bodice", BODY, steps=(set_back,)))
    front = evaluation.pattern.piece("bodice_front")
    (left, _), (right, _) = sorted(marked(front, "apex"))
    assert front.is_whole and left == pytest.approx(-right)
    poking = [r.finding.half for r in evaluation.results if r.finding.aspect == "set_back"]
    assert poking == [half if half is Half.RIGHT else Half.BOTH]


def test_measures_taken_left_and_right_draft_the_halves_apart_on_wish(evaluator):
    document = RecipeDoc(apart=["shoulder_length"])
    body = {**BODY, "shoulder_length": 12.5}
    apart = evaluator.evaluate(document.recipe(body, {"shoulder_length": (12.8, 12.2)}))
    alike = evaluator.evaluate(RecipeDoc().recipe({**body, "shoulder_length": 12.8}))
    assert apart.left == alike.pattern
    assert apart.left != apart.right
    assert any("12.8 cm⟧ left" in notice.message for notice in apart.notices)
    with pytest.raises(MissingMeasure, match="not taken left and right"):
        document.recipe(body, {})


def test_the_same_on_both_halves_one_after_the_other_is_the_same_as_at_once(evaluator):
    step = Step("it", "change_side", {"underarm": 0.7, "waist": 0.4})
    once = evaluator.evaluate(Recipe("bodice", BODY, steps=(step,)))
    twice = (replace(step, uid="l", half=Half.LEFT), replace(step, uid="r", half=Half.RIGHT))
    assert evaluator.evaluate(Recipe("bodice", BODY, steps=twice)).pattern.pieces == once.pattern.pieces


def _slid_off(params: Params, context):
    """A step with a fault: it lays the front far below where it was, sound by itself."""
    front = moved(context.piece_with("front.underarm"), Motion.sliding((0.0, -100.0)))
    return Outcome(context.garment.with_pieces(front))


def test_halves_that_do_not_go_together_are_told_at_the_step_that_made_them_so(middling):
    """No piece can be cut of a left front that lies below the right: the step is refused, those around it act."""
    fault = Operation("slid", "Slid off", Params, _slid_off, lambda _: "Slid off", keeps=frozenset())
    shelf = replace(catalogue(), operations={**catalogue().operations, "slid": fault})
    around = [Step(name, "change_side", {"underarm": 1.0, "waist": 1.5}) for name in ("before", "after")]
    steps = (around[0], Step("x", "slid", {}, half=Half.LEFT), around[1])
    evaluation = Evaluator(shelf).evaluate(Recipe("bodice", middling, steps=steps))
    failures = {stage.step.uid: stage.failure for stage in evaluation.stages}
    assert isinstance(failures["x"], StepRefused)
    words = "The two halves would not go together: the outline of the bodice front would cross itself near"
    assert words in failures["x"].message
    assert failures["before"] is failures["after"] is None
    without = Evaluator(shelf).evaluate(Recipe("bodice", middling, steps=(around[0], around[1])))
    assert evaluation.pattern == without.pattern
