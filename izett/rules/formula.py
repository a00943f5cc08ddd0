"""Formulas as data: arithmetic on named values, compiled once from a whitelisted syntax tree.

A formula is one expression of numbers, symbols, + − × ÷, comparisons, `a if b else c`, and the functions below.
Nothing else parses, so a formula from a file can compute a number and do nothing more.
"""

import ast
import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from itertools import pairwise
from math import acos, asin, atan, atan2, ceil, cos, degrees, radians, sin, sqrt, tan
from types import CodeType
from typing import Any


def clamp(value: float, low: float, high: float) -> float:
    """Return `value` held within `low` and `high`."""
    return min(max(value, low), high)


FUNCTIONS: dict[str, Any] = {
    f.__name__: f for f in (abs, min, max, clamp, ceil, sqrt, sin, cos, tan, asin, acos, atan, atan2, degrees, radians)
}
_GLOBALS: dict[str, Any] = {"__builtins__": {}, **FUNCTIONS}
_ALLOWED = (
    ast.Expression,
    ast.BinOp,
    ast.UnaryOp,
    ast.IfExp,
    ast.Compare,
    ast.Call,
    ast.Name,
    ast.Load,
    ast.Constant,
    ast.Add,
    ast.Sub,
    ast.Mult,
    ast.Div,
    ast.USub,
    ast.Lt,
    ast.LtE,
    ast.Gt,
    ast.GtE,
)


class BadFormula(ValueError):
    """The text is not a formula of the allowed kind."""


@dataclass(frozen=True, slots=True)
class Formula:
    """A compiled formula.

    Attributes:
        text: the formula as written.
        uses: the symbols that it reads, in order of first appearance.
    """

    text: str
    uses: tuple[str, ...]
    _template: tuple[str, ...] = field(repr=False, compare=False)
    _code: CodeType = field(repr=False, compare=False)

    @classmethod
    def parse(cls, text: str) -> "Formula":
        """Compile a formula.

        Raises:
            BadFormula: it does not parse, or holds something other than arithmetic.

        >>> Formula.parse("bust_girth / 4 + ease").evaluate({"bust_girth": 92.0, "ease": 1.5})
        24.5
        """
        try:
            tree = ast.parse(text, mode="eval")
        except SyntaxError as error:
            raise BadFormula(f"“{text}” does not read as a formula: {error.msg}") from error
        uses: dict[str, None] = {}
        called = {node.func for node in ast.walk(tree) if isinstance(node, ast.Call)}
        for node in ast.walk(tree):
            if not isinstance(node, _ALLOWED):
                raise BadFormula(f"“{text}” holds {type(node).__name__}, which no formula may")
            if isinstance(node, ast.Constant) and type(node.value) not in (int, float):
                raise BadFormula(f"“{text}” holds {node.value!r}, which is not a number")
            if isinstance(node, ast.Call) and (
                not isinstance(node.func, ast.Name) or node.func.id not in FUNCTIONS or node.keywords
            ):
                raise BadFormula(f"“{text}” calls something other than {', '.join(sorted(FUNCTIONS))}")
            if isinstance(node, ast.Name) and node not in called:
                uses[node.id] = None
        return cls(text, tuple(uses), _template(tree), compile(tree, "<formula>", "eval"))

    def evaluate(self, values: Mapping[str, float]) -> float:
        """Return the formula's value; `values` gives each symbol that it uses."""
        return float(eval(self._code, _GLOBALS, values))

    def worked(self, values: Mapping[str, float], shown: Callable[[str, float], str] | None = None) -> str:
        """Return the formula with the numbers put in, as one writes it on paper; `shown` writes a symbol's number.

        >>> Formula.parse("bust_girth / 4 + ease").worked({"bust_girth": 92.0, "ease": 1.5})
        '92 ÷ 4 + 1.5'
        """
        return "".join(
            part if i % 2 == 0 else (shown(part, values[part]) if shown else _number(values[part]))
            for i, part in enumerate(self._template)
        )

    @property
    def written(self) -> str:
        """The formula as one writes it on paper, with its symbols in words.

        >>> Formula.parse("clamp(bust_girth - high_bust_girth, 0, 20) / 2").written
        '(bust girth − high bust girth held within 0 and 20) ÷ 2'
        """
        return "".join(part if i % 2 == 0 else part.replace("_", " ") for i, part in enumerate(self._template))


def _template(tree: ast.Expression) -> tuple[str, ...]:
    """Return the formula as written on paper, cut at its symbols: text, symbol, text, … text."""
    parts = re.split(r"\b([A-Za-z_]\w*)\b", _as_written(_clamps_in_words(ast.unparse(tree))))
    # Function names and the words of a condition are text, not symbols.
    joined = [parts[0]]
    for name, text in zip(parts[1::2], parts[2::2], strict=True):
        if name in FUNCTIONS or name in _WORDS:
            joined[-1] += name + text
        else:
            joined += [name, text]
    return tuple(joined)


#: Words that stand in a formula as it is written on paper.
_WORDS = frozenset(("if", "else", "held", "within", "and"))


def _clamps_in_words(text: str) -> str:
    """Return the text with `clamp(v, low, high)` written as a person would: `v held within low and high`."""
    start = text.find("clamp(")
    if start < 0:
        return text
    depth, cuts = 0, [start + len("clamp(") - 1]
    for at in range(cuts[0], len(text)):
        depth += {"(": 1, ")": -1}.get(text[at], 0)
        if depth == 0 or (depth == 1 and text[at] == ","):
            cuts.append(at)
        if depth == 0:
            break
    value, low, high = (text[a + 1 : b].strip() for a, b in pairwise(cuts))
    inside, after = f"{value} held within {low} and {high}", text[cuts[-1] + 1 :]
    before = text[:start]
    return _clamps_in_words(before + (f"({inside})" if before or after else inside) + after)


def _number(value: float) -> str:
    text = f"{round(value, 3):g}".replace("-", "−")
    return f"({text})" if value < 0 else text


def _as_written(text: str) -> str:
    return text.replace(" * ", " × ").replace(" / ", " ÷ ").replace("-", "−")
