"""A garment with every part, piece, corner, line, dart and seam named anew is found, offered, checked and measured alike.

The draft is renamed before the first step, so the steps too meet names that say nothing.
"""

from collections.abc import Mapping
from dataclasses import fields, is_dataclass, replace
from enum import Enum
from types import MappingProxyType

import pytest

from izett.catalogue import catalogue
from izett.checking.ease_map import ease_map
from izett.drafting.sets import starter_sets
from izett.finishing.sheet import sheet_pieces
from izett.fitting.compare import moves
from izett.pattern.document import Pattern
from izett.pattern.facts import Half
from izett.pattern.sewn import seam_lengths
from izett.pattern.worn import edges_around, hem_width, levels, width
from izett.recipe.evaluator import Evaluator
from izett.recipe.model import Recipe, Step
from izett.styling.operation import Section
from izett.styling.references import DartsRef, Ref, renamed
from izett.styling.subject import Kind, subject_of
from tests.garments import BODY, DRESS, GARMENTS, garment

#: Fields whose text is no name: what a level or a dart is, and what is told of it.
FACTS = {"level", "family", "words", "closure", "lies", "check", "reason", "aspect", "fit", "purpose"}
#: Mappings whose keys are no names.
KEYED_BY_FACTS = {"marks", "ease", "along"}
SAME = 1e-9


class Renaming:
    """Gives every name that a draft has a number instead; steps' own names stay."""

    def __init__(self) -> None:
        self.new: dict[str, str] = {}

    def name(self, old: str) -> str:
        return self.new.setdefault(old, f"n{len(self.new)}")

    def of(self, value, field=""):
        """A value with all names in it renamed, whatever it holds."""
        if isinstance(value, Enum) or field in FACTS:
            return value
        if isinstance(value, str):
            return f"Title {len(value)}" if field == "title" else self.name(value)
        return self._holding(value, field)

    def _holding(self, value, field):
        if is_dataclass(value):
            return type(value)(**{f.name: self.of(getattr(value, f.name), f.name) for f in fields(value) if f.init})
        if isinstance(value, tuple):
            return type(value)(*map(self.of, value)) if hasattr(value, "_fields") else tuple(map(self.of, value))
        if isinstance(value, Mapping):
            kept = field in KEYED_BY_FACTS
            return MappingProxyType({k if kept else self.of(k): self.of(v) for k, v in value.items()})
        return value

    def pattern(self, pattern: Pattern) -> Pattern:
        titles = MappingProxyType({self.name(name): f"Title {i}" for i, name in enumerate(pattern.titles)})
        return replace(
            pattern,
            pieces=self.of(pattern.pieces),
            seams=self.of(pattern.seams),
            links=self.of(pattern.links),
            intent=replace(pattern.intent, along=self.of(pattern.intent.along, "along")),
            titles=titles,
        )

    def reference(self, ref: Ref) -> str:
        """The new name of a thing; darts of a family are named by their part and the family."""
        part, _, family = ref.rpartition(".")
        if isinstance(ref, DartsRef):
            return f"{self.new[part]}.{family}"
        return self.new.get(ref) or (f"{self.new[part]}.{family}" if part in self.new else ref)

    def recipe(self, recipe: Recipe) -> Recipe:
        return replace(recipe, steps=tuple(map(self._step, recipe.steps)))

    def _step(self, step: Step) -> Step:
        operation = catalogue().operations[step.kind]
        params = operation.params.model_validate(operation.upgraded(step.params, step.version))
        return replace(step, params=renamed(params, self.reference), version=operation.version)


class Nameless(Evaluator):
    """Drafts the same blocks, and names everything on them anew."""

    def __init__(self, renaming: Renaming) -> None:
        super().__init__(catalogue())
        self.renaming = renaming

    def _draft(self, recipe, half):
        drafted = super()._draft(recipe, half)
        return replace(drafted, pattern=self.renaming.pattern(drafted.pattern))


def both(evaluator, recipe):
    """A recipe worked out with its names, and with names that say nothing."""
    renaming = Renaming()
    renaming.pattern(evaluator.evaluate(replace(recipe, steps=())).pattern)
    return evaluator.evaluate(recipe), Nameless(renaming).evaluate(renaming.recipe(recipe))


def bones(value):
    """A step's parameters without the names in them."""
    return renamed(value, lambda _ref: "·")


def found(pattern):
    """What can be done to each thing that can be pointed at."""
    told = []
    for piece in pattern:
        things = [(Kind.PIECE, piece.name)] + [(Kind.DART, dart.name) for dart in piece.darts]
        things += [(Kind.LINE, name) for name in dict.fromkeys(e.lineage for e in piece.edges if not e.is_leg)]
        things += [(Kind.LEVEL, x.level) for x in piece.lines]
        for i, (kind, name) in enumerate(things):
            subject = subject_of(pattern, kind, name, piece.name, 0.4)
            for key, operation in catalogue().operations.items():
                for offer in operation.offers(subject, pattern) if subject else ():
                    told.append((i, kind, key, bones(operation.params.model_validate(offer.params))))
    return told


def checked(evaluation):
    return sorted(
        (r.check, r.finding.aspect, r.finding.verdict, round(r.finding.amount, 6),
         len(r.finding.where), r.finding.half, [m.kind for m in r.finding.fixes])
        for r in evaluation.results
    )  # fmt: skip


def measured(pattern):
    return (
        [[round(x, 8) for x in seam_lengths(pattern, seam)] + [seam.kind, seam.half] for seam in pattern.seams],
        {level: round(width(pattern, level), 8) for level in levels(pattern)},
        round(hem_width(pattern), 8),
        edges_around(pattern),
        [(place.key, round(place.ease, 6), place.state) for place in ease_map(pattern, BODY)],
    )


def cut(pattern):
    return [(sheet.piece.zone, [(len(line.points), line.width, line.end) for line in sheet.lines], len(sheet.notches))
            for sheet in sheet_pieces(pattern)]  # fmt: skip


def moved(evaluation):
    """What a fitting would be told of the lines that the style moved."""
    return [
        (round(move.distance, 6), round(move.length_after, 6)) for move in moves(evaluation.source, evaluation.pattern)
    ]


def assert_alike(named, nameless):
    assert [str(stage.failure) for stage in nameless.stages if stage.failure] == [
        str(stage.failure) for stage in named.stages if stage.failure
    ]
    for a, b in zip(named.pattern, nameless.pattern, strict=True):
        assert (a.zone, a.region, a.half, a.layer, a.cut) == (b.zone, b.region, b.half, b.layer, b.cut)
        assert sorted(a.corners.values()) == sorted(b.corners.values())
        for p, q in zip(a.outline(), b.outline(), strict=True):
            assert p == pytest.approx(q, abs=SAME)
    assert measured(named.pattern) == measured(nameless.pattern)
    assert cut(named.pattern) == cut(nameless.pattern)
    assert checked(named) == checked(nameless)
    assert found(named.pattern) == found(nameless.pattern)
    assert moved(named) == moved(nameless)


@pytest.mark.parametrize("of", starter_sets().values(), ids=lambda of: of.key)
def test_every_block_is_the_same_without_its_names(evaluator, middling, of):
    recipe = Recipe(of.blocks[0], {**middling, "hip_girth": 98.0}, also=of.blocks[1:], fit=of.fit, cloth=of.cloth)
    named, nameless = both(evaluator, recipe)
    assert {p.name for p in named.pattern} & {p.name for p in nameless.pattern} == set()
    assert_alike(named, nameless)


@pytest.mark.parametrize("name", GARMENTS)
def test_every_garment_is_styled_alike_without_its_names(evaluator, name):
    assert_alike(*both(evaluator, garment(name)))


@pytest.mark.parametrize(
    ("kind", "params"),
    [
        pytest.param(key, params, id=f"{key}-{i}")
        for key, o in catalogue().operations.items()
        for i, params in enumerate(o.examples)
    ],
)
def test_every_step_acts_alike_without_names(evaluator, middling, kind, params):
    operation = catalogue().operations[kind]
    steps = tuple(Step(f"s{i}", key, given) for i, (key, given) in enumerate((*operation.before, (kind, params))))
    recipe = Recipe(operation.blocks[0], {**middling, "hip_girth": 98.0}, also=operation.blocks[1:], steps=steps)
    assert_alike(*both(evaluator, recipe))


def test_a_dress_changed_on_one_half_is_alike_without_its_names(evaluator):
    style = tuple(Step(f"s{i}", kind, params) for i, (kind, params) in enumerate(DRESS))
    fit = Step("f", "widen_across", {"part": "front", "amount": 0.3}, section=Section.FIT, half=Half.LEFT)
    named, nameless = both(evaluator, Recipe("bodice", BODY, also=("sleeve", "skirt"), steps=(*style, fit)))
    assert {p.half for p in named.pattern} >= {Half.LEFT, Half.RIGHT}
    assert_alike(named, nameless)
