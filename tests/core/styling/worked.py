"""A short way to work steps on blocks in tests."""

from izett.pattern.document import Pattern
from izett.pattern.piece import Piece, Span
from izett.pattern.sewn import holding, resolved, seam_lengths, span_length
from izett.recipe.evaluation import Evaluation
from izett.recipe.model import Recipe, Step

DRESS = ("bodice", "sleeve", "skirt")


def worked(evaluator, body, *steps, blocks=DRESS) -> Evaluation:
    made = tuple(Step(f"s{i}", kind, params) for i, (kind, params) in enumerate(steps))
    return evaluator.evaluate(Recipe(blocks[0], body, also=blocks[1:], steps=made))


def line(part: str, start: str, end: str, along: str, fraction: float | None = None) -> dict:
    span = {"start": f"{part}.{start}", "end": f"{part}.{end}", "along": f"{part}.{along}"}
    return span if fraction is None else {**span, "fraction": fraction}


def length(pattern: Pattern, start: str, end: str, along: str) -> float:
    """The length of a line as sewn, over cuts."""
    return sum(span_length(holding(pattern, s.start), s) for s in resolved(pattern, Span(start, end, along)))


def sides(pattern: Pattern, name: str) -> tuple[float, float]:
    """The lengths of a seam by its name, or by the last part of the name that a step gave it."""
    return seam_lengths(pattern, next(seam for seam in pattern.seams if seam.name.split(".")[-1] == name))


def sums(evaluation: Evaluation, index: int = -1) -> dict[str, float]:
    return {line.what: line.value for line in evaluation.stages[index].sums}


def height(piece: Piece) -> float:
    ys = [p[1] for p in piece.outline()]
    return max(ys) - min(ys)
