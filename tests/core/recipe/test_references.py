"""A reference means one thing for ever: recipes changed at random never act on something else than they named."""

import random
from collections import Counter
from dataclasses import replace

import pytest

from izett.catalogue import catalogue
from izett.errors import ReferenceLost, StepRefused
from izett.pattern.facts import Half
from izett.recipe.model import Recipe, Step
from izett.styling.operation import Section
from izett.styling.references import DartRef, DartsRef, LineRef, PieceRef, SeamRef, VertexRef, references
from tests.bodies import with_hips
from tests.garments import BODY, DRESS, GARMENTS, WHOLE_GARMENTS

BODIES = [BODY, *({"underbust_girth": body["bust_girth"] - 12, **body} for body in with_hips(40))]
SEEDS, RECIPES = 8, 250


def yoke(part, neck, title):
    centre, low = ("neck_cb", "waist_cb") if part == "back" else ("neck_cf", "waist_cf")
    return "style_line", {
        "start": {"start": f"{part}.{centre}", "end": f"{part}.{low}", "along": f"{part}.centre", "fraction": neck},
        "end": {"start": f"{part}.underarm", "end": f"{part}.shoulder_tip", "along": f"{part}.armhole", "fraction": 0.5},
        "title": title,
    }  # fmt: skip


YOKES = [yoke("back", 0.3, "Yoke"), yoke("front", 0.25, "Yoke"), ("join_pieces", {"seam": "s0.yoke"})]
BASES = [
    (("bodice", "sleeve", "skirt"), DRESS),
    (("bodice",), YOKES),
    *GARMENTS.values(),
    # Twice: a whole garment names far more than the example of one step.
    *(2 * [(blocks, steps) for blocks, steps, _ in WHOLE_GARMENTS.values()]),
    *((o.blocks, [*o.before, (key, example)]) for key, o in catalogue().operations.items() for example in o.examples),
]


def _piece(pattern, ref):
    piece = pattern.find_piece(ref)
    return piece and (piece.zone, piece.region, piece.layer)


def _corner(pattern, ref):
    piece = pattern.find(ref)
    return piece and (piece.zone, piece.region, piece.layer, piece.corner_at(ref))


def _seam(pattern, ref):
    seam = pattern.find_seam(ref)
    # Not by zones: of two pieces that were joined, one gives its zone to both.
    return seam and (seam.kind, min(span.along for side in seam.sides for span in side))


def _line(pattern, ref):
    return next(((e.role, p.zone_of(e), p.layer) for p in pattern for e in p.edges if e.lineage == ref), None)


def _dart(pattern, ref):
    # Not by zones either.
    return next((d.family for p in pattern for d in p.darts if ref in (d.name, f"{p.part}.{d.family}")), None)


#: What a reference is bound to, by facts; None where there is no such thing.
THINGS = {VertexRef: _corner, LineRef: _line, DartsRef: _dart, DartRef: _dart, PieceRef: _piece, SeamRef: _seam}


def thing(pattern, ref):
    return THINGS.get(type(ref), lambda *_: None)(pattern, ref)


def bound(evaluation, half):
    """What each reference of each step that acted was bound to: by step, reference and place in its parameters."""
    before = evaluation.draft.pattern
    found = {}
    for stage in evaluation.stages:
        operation = catalogue().operations[stage.step.kind]
        if stage.failure is None and stage.step.on and not stage.follows:
            params = operation.params.model_validate(operation.upgraded(stage.step.params, stage.step.version))
            for i, ref in enumerate(references(params)):
                what = thing(before, ref)
                if what is not None:
                    found[stage.step.uid, i] = (str(ref), what)
        before = stage.left if half is not Half.RIGHT else stage.right
    return found


def changed(chance, recipe):
    """A recipe with one thing changed, and what was changed."""
    steps = list(recipe.steps)
    at = chance.randrange(len(steps))
    what = chance.choice(("off", "swap", "move", "remove", "section", "body", "more"))
    if what == "off":
        steps[at] = replace(steps[at], on=not steps[at].on)
    elif what == "swap" and len(steps) > 1:
        other = chance.randrange(len(steps))
        steps[at], steps[other] = steps[other], steps[at]
    elif what == "move":
        step = steps.pop(at)
        steps.insert(chance.randrange(len(steps) + 1), step)
    elif what == "remove" and len(steps) > 1:
        steps.pop(at)
    elif what == "section":
        sections = catalogue().operations[steps[at].kind].sections
        steps[at] = replace(steps[at], section=chance.choice(sections))
    elif what == "body":
        return replace(recipe, measures=chance.choice(BODIES)), what
    else:
        _, extra = chance.choice(BASES)
        kind, params = chance.choice(extra)
        steps.insert(at, Step(f"x{chance.randrange(10**9)}", kind, params))
    return replace(recipe, steps=tuple(steps)), what


@pytest.mark.parametrize("seed", range(SEEDS))
def test_a_changed_recipe_acts_on_what_it_named_or_says_that_it_is_gone(evaluator, seed):
    chance = random.Random(seed)
    acted, lost, how = 0, 0, Counter()
    tried = 0
    while tried < RECIPES:
        blocks, made = chance.choice(BASES)
        steps = tuple(Step(f"s{i}", kind, params) for i, (kind, params) in enumerate(made))
        fit = {"fit": "easy"} if blocks[0].startswith("knit") else {}
        recipe = Recipe(blocks[0], chance.choice(BODIES), also=blocks[1:], steps=steps, **fit)
        meant = bound(evaluator.evaluate(recipe, owner=seed), Half.LEFT)
        for _ in range(5):
            recipe, kind = changed(chance, recipe)
            tried += 1
            how[kind] += 1
            evaluation = evaluator.evaluate(recipe, owner=seed)
            for stage in evaluation.stages:
                assert stage.failure is None or isinstance(stage.failure, ReferenceLost | StepRefused), stage.failure
                lost += isinstance(stage.failure, ReferenceLost)
            now = bound(evaluation, Half.LEFT)
            for place, (name, what) in now.items():
                if place not in meant:
                    continue
                acted += 1
                assert (name, what) == meant[place], (place, recipe.steps)
            drafted = evaluation.draft.pattern.titles.keys() | {p.name for p in evaluation.draft.pattern}
            assert {
                name.split(".")[0] for stage in evaluation.stages for name in stage.made if name not in drafted
            } <= {step.uid for step in recipe.steps if step.on}
    assert acted > RECIPES
    assert lost > RECIPES / 25
    assert min(how.values()) > RECIPES / 25
    assert len(how) == 7


def test_with_the_first_of_two_yokes_off_its_seam_is_lost_and_the_other_stays(evaluator):
    steps = tuple(Step(f"s{i}", kind, params) for i, (kind, params) in enumerate(YOKES))
    recipe = Recipe("bodice", BODY, steps=steps)
    whole = evaluator.evaluate(recipe)
    assert [stage.failure for stage in whole.stages] == [None, None, None]
    off = evaluator.evaluate(replace(recipe, steps=(replace(steps[0], on=False), *steps[1:])))
    assert [type(stage.failure) for stage in off.stages] == [type(None), type(None), ReferenceLost]
    assert [seam.name for seam in off.pattern.seams if seam.name.endswith(".yoke")] == ["s1.yoke"]
    assert off.pattern.pieces == off.stages[1].pattern.pieces


def test_a_step_moved_to_the_fit_section_reads_the_source(evaluator):
    line = {"start": "front.waist_side", "end": "front.underarm", "along": "front.side", "fraction": 0.3}
    steps = (Step("p", "princess", dict(DRESS[1][1])), Step("l", "lengthen", {"at": line, "amount": 1.0}))
    style = evaluator.evaluate(Recipe("bodice", BODY, steps=steps))
    fit = evaluator.evaluate(Recipe("bodice", BODY, steps=(steps[0], replace(steps[1], section=Section.FIT))))
    assert [s.step.uid for s in style.stages] == ["p", "l"]
    assert [s.step.uid for s in fit.stages] == ["l", "p"]
    assert [s.failure for s in (*style.stages, *fit.stages)] == [None] * 4
