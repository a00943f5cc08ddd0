"""What is offered for the things of a garment, and what comes of it when it is taken."""

from collections.abc import Iterator

from izett.errors import StepBroke
from izett.pattern.document import Pattern
from izett.pattern.piece import Span, in_ring_order
from izett.recipe.evaluator import Evaluator
from izett.recipe.model import Recipe, Step
from izett.styling.subject import Kind, Subject


def subjects_of(pattern: Pattern) -> Iterator[Subject]:
    """Everything that can be pointed at: the garment, its pieces, lines, levels and darts."""
    yield Subject(Kind.GARMENT)
    for piece in pattern:
        yield Subject(Kind.PIECE, piece.name, piece)
        for lineage in dict.fromkeys(edge.lineage for edge in piece.edges if not edge.is_leg):
            run = in_ring_order(edge for edge in piece.edges if edge.lineage == lineage)
            yield Subject(Kind.LINE, lineage, piece, Span(run[0].start, run[-1].end, lineage))
        yield from (Subject(Kind.DART, dart.name, piece) for dart in piece.darts)
        yield from (Subject(Kind.LEVEL, level, piece) for level in dict.fromkeys(x.level for x in piece.lines))


def taken(evaluator: Evaluator, recipe: Recipe) -> tuple[set[str], dict[str, str], list[str]]:
    """Take every offer on a garment, one at a time: the kinds that acted, those that were only refused, and what broke."""
    pattern = evaluator.evaluate(recipe).pattern
    acted: set[str] = set()
    refused: dict[str, str] = {}
    broke: list[str] = []
    for subject in subjects_of(pattern):
        for kind, operation in evaluator.catalogue.operations.items():
            if kind in acted:
                continue
            for offer in operation.offers(subject, pattern):
                step = Step("taken", kind, offer.params)
                stage = evaluator.evaluate(Recipe(**{**recipe.__dict__, "steps": (*recipe.steps, step)})).of("taken")
                if isinstance(stage.failure, StepBroke):
                    broke.append(f"{kind} {offer.params}: {stage.failure}")
                elif stage.failure is not None:
                    refused.setdefault(kind, str(stage.failure))
                elif not stage.idle:
                    acted.add(kind)
                    break
    return acted, {kind: why for kind, why in refused.items() if kind not in acted}, broke
