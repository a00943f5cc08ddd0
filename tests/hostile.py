"""Random steps on random garments, as hostile hands would try them: at corners, at ends of ranges, on whatever there is.

`tried` takes a recipe all the way: worked out, checked, drawn, written and read back. Whatever it raises but an
`IzettError` is a fault.
"""

from collections.abc import Iterator, Sequence
from dataclasses import replace
from enum import Enum
from random import Random
from typing import Any, Literal, get_args, get_origin

from pydantic import BaseModel

from izett.catalogue import catalogue
from izett.checking.check import BROKE
from izett.checking.ease_map import ease_map
from izett.drafting.ease import FITS
from izett.drafting.sets import starter_sets
from izett.errors import StepBroke
from izett.files.pattern_doc import PatternDoc
from izett.files.pattern_json import evaluated_document, pattern_of
from izett.files.pdf import write_pdf
from izett.files.svg import write_svg
from izett.finishing.sheet import sheet_pieces
from izett.geometry.outline import LEAST_CORNERS
from izett.pattern.document import Pattern
from izett.pattern.facts import Half
from izett.pattern.piece import Piece
from izett.recipe.evaluation import Evaluation
from izett.recipe.evaluator import Evaluator
from izett.recipe.model import Recipe, Step
from izett.styling.references import (
    AnyRef,
    DartRef,
    DartsRef,
    LineRef,
    PieceRef,
    PointRef,
    Ref,
    SeamRef,
    SpanRef,
    VertexRef,
)
from izett.styling.subject import run_of
from tests.bodies import with_hips

#: Shares of a line that hands choose more often than others: its ends, its middle.
ROUND_SHARES = (0.0, 0.0, 1.0, 1.0, 0.5, 0.02, 0.98)
#: Points of a straight line, and of curves of one and two parts.
CONTROLS = (2, 2, 4, 7)
#: Pieces of the catalogue's starter sets that a random garment begins with.
SETS = tuple(starter_sets().values())
#: Of the steps for one half, so many are tried of kinds that have no halves.
SELDOM = 0.3


def a_start(random: Random) -> Recipe:
    """A plain garment for one of the bodies there are."""
    of = random.choice(SETS)
    body = random.choice(with_hips())
    fit = random.choice(list(FITS)) if random.random() < 0.3 else of.fit
    apart = {}
    if random.random() < 0.1 and "shoulder_length" in body:
        apart = {"shoulder_length": (body["shoulder_length"], body["shoulder_length"] - random.choice((0.4, 1.0)))}
    first, *also = of.blocks
    return Recipe(first, body, also=tuple(also), fit=fit, cloth=of.cloth, apart=apart)


def a_step(random: Random, pattern: Pattern, uid: str, kind: str | None = None, *, sided: float = 0.25) -> Step:
    """A step of a kind, or of any, with random parameters that name what is there; a share of them on one half."""
    operation = catalogue().operations[kind or random.choice(list(catalogue().operations))]
    params = {}
    for name, info in operation.params.model_fields.items():
        if info.is_required() or random.random() < 0.6:
            params[name] = _value(random, info.annotation, info, pattern)
    # A kind that is for both halves only refuses one: that is tried too, but seldom.
    share = sided if operation.sided else sided * SELDOM
    half = random.choice(list(Half)) if random.random() < share else Half.BOTH
    section = random.choice(operation.sections)
    return Step(uid, operation.key, params, section=section, half=half, version=operation.version)


def _value(random: Random, kind: Any, info: Any, pattern: Pattern) -> Any:
    if isinstance(kind, type) and issubclass(kind, PointRef | SpanRef):
        return _line(random, pattern, place=issubclass(kind, PointRef))
    if isinstance(kind, type) and issubclass(kind, Ref):
        return _name(random, kind, pattern)
    if isinstance(kind, type) and issubclass(kind, BaseModel):
        return {n: _value(random, f.annotation, f, pattern) for n, f in kind.model_fields.items()}
    if get_origin(kind) is tuple:
        inner = get_args(kind)
        if inner[-1] is Ellipsis:
            least = next((m.min_length for m in info.metadata if hasattr(m, "min_length")), 0) if info else 0
            count = random.choice(CONTROLS if least > 1 else (1, 1, 1, 2, 3))
            return [_value(random, inner[0], None, pattern) for _ in range(count)]
        return [_value(random, one, None, pattern) for one in inner]
    if get_origin(kind) is Literal:
        return random.choice(get_args(kind))
    if isinstance(kind, type) and issubclass(kind, Enum):
        return random.choice([member.value for member in kind])
    if kind is bool:
        return random.random() < 0.5
    if kind in (int, float):
        return _number(random, kind, info)
    return random.choice(("bust", "waist", "hip", "elbow", "front", "x", *_lineages(pattern)))


def _number(random: Random, kind: type, info: Any) -> float:
    marks = info.metadata if info else []
    low = next((m.ge for m in marks if getattr(m, "ge", None) is not None), -10.0)
    high = next((m.le for m in marks if getattr(m, "le", None) is not None), 10.0)
    if random.random() < 0.25:
        return random.choice((low, high))
    if random.random() < 0.3 and info is not None and isinstance(info.default, int | float):
        return info.default
    return random.randint(int(low), int(high)) if kind is int else round(random.uniform(low, high), 2)


def _lineages(pattern: Pattern) -> list[str]:
    return [edge.lineage for piece in pattern for edge in piece.edges if not edge.is_leg]


def _name(random: Random, kind: type[Ref], pattern: Pattern) -> str:
    pieces = list(pattern)
    darts = [(piece, dart) for piece in pieces for dart in piece.darts]
    if issubclass(kind, DartRef) and darts:
        piece, dart = random.choice(darts)
        return f"{piece.part}.{dart.family}" if issubclass(kind, DartsRef) or random.random() < 0.3 else dart.name
    if issubclass(kind, SeamRef) and pattern.seams:
        return random.choice(pattern.seams).name
    if issubclass(kind, PieceRef):
        return random.choice(pieces).name
    if issubclass(kind, VertexRef):
        return random.choice(list(random.choice(pieces).vertices))
    if issubclass(kind, AnyRef) and random.random() < 0.4:
        return random.choice(
            [*(p.name for p in pieces), *(s.name for s in pattern.seams), *(d.name for _, d in darts), "x"]
        )
    if issubclass(kind, LineRef | AnyRef):
        return random.choice(_lineages(pattern))
    return "nothing"


def _line(random: Random, pattern: Pattern, *, place: bool) -> dict[str, Any]:
    piece: Piece = random.choice(list(pattern))
    edge = random.choice([e for e in piece.edges if not e.is_leg] or piece.edges)
    run = run_of(pattern, piece, edge.lineage) if random.random() < 0.8 else None
    start, end = (run.start, run.end) if run else (edge.start, edge.end)
    if random.random() < 0.15:
        start, end = end, start
    found: dict[str, Any] = {"start": start, "end": end, "along": edge.lineage}
    if place:
        found["fraction"] = random.choice(ROUND_SHARES) if random.random() < 0.4 else round(random.random(), 3)
    return found


def random_recipes(
    seed: int, count: int, *, kinds: Sequence[str] = (), sided: float = 0.25
) -> Iterator[tuple[Step, Evaluation]]:
    """Yield `count` steps, each with what the recipe that it ends comes to: recipes grow step by step.

    A step that cannot act is taken out again more often than not, so that garments go on to be changed.

    Args:
        seed: the same seed gives the same steps.
        count: how many.
        kinds: of these kinds only.
        sided: the share of steps that are meant for one half or another.
    """
    random, evaluator = Random(seed), Evaluator(catalogue())
    made = 0
    while made < count:
        recipe, owner = a_start(random), object()
        evaluation = evaluator.evaluate(recipe, owner=owner)
        for _ in range(random.choice((1, 2, 3, 5, 8))):
            pattern = random.choice((evaluation.left, evaluation.right))
            step = a_step(random, pattern, f"s{made}", random.choice(kinds) if kinds else None, sided=sided)
            longer = replace(recipe, steps=(*recipe.steps, step))
            after = evaluator.evaluate(longer, owner=owner)
            made += 1
            yield step, after
            if made == count:
                return
            if after.of(step.uid).failure is None or random.random() < 0.1:
                recipe, evaluation = longer, after


def tried(evaluation: Evaluation, *, printed: bool = False) -> None:
    """Take a recipe that was worked out all the way: checked, measured, drawn, written and read back.

    Raises:
        AssertionError: a step broke down, or what was written reads back as something else.
    """
    for stage in evaluation.stages:
        assert not isinstance(stage.failure, StepBroke), (stage.step, stage.failure)
    pattern = evaluation.pattern
    assert evaluation.source.pieces
    assert all(result.words and result.finding.aspect != BROKE for result in evaluation.results)
    stored = evaluated_document(evaluation, measures={}).model_dump(mode="json", by_alias=True)
    assert pattern_of(PatternDoc.model_validate(stored)).pieces == pattern.pieces
    assert ease_map(pattern, evaluation.body) is not None
    assert [sheet.piece for sheet in sheet_pieces(pattern, whole=False)] == list(pattern.pieces)
    # As they go on paper: some of them whole that were drawn as a half.
    sheets = sheet_pieces(pattern)
    assert [sheet.piece.name for sheet in sheets] == [piece.name for piece in pattern.pieces]
    assert all(len(sheet.cutting) > LEAST_CORNERS for sheet in sheets)
    if printed:
        assert write_svg(sheets).startswith("<")
        assert write_pdf(sheets, paper="a4", title="tried", notes=()).startswith(b"%PDF")
