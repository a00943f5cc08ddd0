"""References: every one of a recipe can be listed, and renamed where a recipe is taken over to other blocks."""

from dataclasses import replace

import pytest

from izett.catalogue import catalogue
from izett.recipe.model import Recipe, Step
from izett.styling.references import DartRef, LineRef, PieceRef, SeamRef, VertexRef, references, renamed
from tests.garments import BODY, DRESS, DRESS_BLOCKS

EXAMPLES = [
    pytest.param(kind, example, id=f"{kind.key}-{i}")
    for kind in catalogue().operations.values()
    for i, example in enumerate(kind.examples)
]


def params(key, given):
    return catalogue().operations[key].params.model_validate(given)


def texts(value):
    """All text in plain data."""
    if isinstance(value, str):
        return [value]
    if isinstance(value, dict):
        return [text for one in value.values() for text in texts(one)]
    return [text for one in value for text in texts(one)] if isinstance(value, list | tuple) else []


def test_a_steps_references_are_listed_by_what_they_name():
    found = list(references(params("move_dart", {"dart": "front.bust_dart", "to": place("front.shoulder")})))
    assert [(type(ref), str(ref)) for ref in found] == [
        (DartRef, "front.bust_dart"), (VertexRef, "front.a"), (VertexRef, "front.b"), (LineRef, "front.shoulder"),
    ]  # fmt: skip
    assert [type(ref) for ref in references(params("join_pieces", {"seam": "side"}))][:1] == [SeamRef]
    lining = {"kind": "lining", "pieces": ("skirt_front", "skirt_back"), "shorter": 2.5}
    assert [type(ref) for ref in references(params("add_copy", lining))] == [PieceRef, PieceRef]


def place(line):
    return {"start": "front.a", "end": "front.b", "along": line, "fraction": 0.5}


@pytest.mark.parametrize(("kind", "example"), EXAMPLES)
def test_no_name_of_a_thing_stands_outside_a_reference(evaluator, middling, kind, example):
    """What names a corner, a line, a dart or a seam of the garment is a reference: else it would not be renamed."""
    given = kind.params.model_validate(example)
    named = {str(ref) for ref in references(given)}
    steps = tuple(Step(f"s{i}", key, p) for i, (key, p) in enumerate(kind.before))
    recipe = Recipe(kind.blocks[0], {**middling, "hip_girth": 98.0}, also=kind.blocks[1:], steps=steps)
    pattern = evaluator.evaluate(recipe).pattern
    things = {name for piece in pattern for name in (*piece.vertices, *(e.lineage for e in piece.edges), piece.name)}
    things |= {dart.name for piece in pattern for dart in piece.darts} | {seam.name for seam in pattern.seams}
    dotted = {text for text in texts(given.model_dump(mode="json")) if text in things and "." in text}
    assert dotted <= named


@pytest.mark.parametrize(("kind", "example"), EXAMPLES)
def test_renamed_there_and_back_a_step_is_what_it_was(kind, example):
    given = kind.params.model_validate(example)
    there = renamed(given, lambda ref: f"other.{ref}")
    moved = kind.params.model_validate(there)
    assert [str(ref) for ref in references(moved)] == [f"other.{ref}" if ref else "" for ref in references(given)]
    back = renamed(moved, lambda ref: ref.removeprefix("other."))
    assert kind.params.model_validate(back) == given


def test_what_steps_made_is_renamed_with_them_and_the_garment_is_the_same(evaluator):
    """All steps called otherwise, and every reference to what they made: nothing else of the dress is another."""
    steps = tuple(Step(f"s{i}", kind, given) for i, (kind, given) in enumerate(DRESS))
    later = (
        Step("low", "lengthen", {"at": made("s1"), "amount": 1.0}),
        Step("walk", "match_notches", {"seam": "s1.princess_front"}),
    )

    def called(step):
        def rename(ref):
            uid, _, label = ref.partition(".")
            return f"t{uid[1:]}.{label}" if uid in {s.uid for s in steps} else str(ref)

        uid = f"t{step.uid[1:]}" if step in steps else step.uid
        return replace(step, uid=uid, params=renamed(params(step.kind, step.params), rename))

    recipe = Recipe(DRESS_BLOCKS[0], BODY, also=DRESS_BLOCKS[1:], steps=(*steps, *later))
    one = evaluator.evaluate(recipe)
    two = evaluator.evaluate(replace(recipe, steps=tuple(map(called, recipe.steps))))
    assert [str(s.failure) for s in one.stages] == [str(s.failure) for s in two.stages] == ["None"] * 17
    assert [p.outline() for p in one.pattern] == [p.outline() for p in two.pattern]
    assert [p.title for p in one.pattern] == [p.title for p in two.pattern]
    assert [r.words for r in one.results] == [r.words for r in two.results]


def made(uid):
    line = f"{uid}.princess_front"
    return {"start": "front.waist_a", "end": f"{uid}.b", "along": line, "fraction": 0.1}
