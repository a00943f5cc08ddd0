"""Formulas as data: arithmetic on named values, compiled once from a whitelisted syntax tree.

A formula is one expression of numbers, symbols, + − × ÷, comparisons, `a if b else c`, and the functions below.
Nothing else parses, so a formula from a file can compute a number and do nothing more.
"""

import ast
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from math import acos, asin, atan, atan2, cos, degrees, radians, sin, sqrt, tan
from math import ceil as next_whole
from math import floor as last_whole
from types import CodeType
from typing import Any

from izett.rules.written import Part, written
from izett.wording import bare

#: Decimals beyond which a computed number holds only float noise.
NOISE_DECIMALS = 9


def clamp(value: float, low: float, high: float) -> float:
    """Return `value` held within `low` and `high`."""
    return min(max(value, low), high)


def ceil(value: float) -> float:
    """Return a value rounded up to a whole number; one that is whole but for a rounding error stays.

    >>> ceil(2.1), ceil(0.1 * 30)
    (3.0, 3.0)
    """
    return float(next_whole(round(value, NOISE_DECIMALS)))


def floor(value: float) -> float:
    """Return a value rounded down to a whole number; one that is whole but for a rounding error stays."""
    return float(last_whole(round(value, NOISE_DECIMALS)))


FUNCTIONS: dict[str, Any] = {
    f.__name__: f
    for f in (abs, min, max, clamp, ceil, floor, sqrt, sin, cos, tan, asin, acos, atan, atan2, degrees, radians)
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
        return cls(text, tuple(uses), compile(tree, "<formula>", "eval"))

    def evaluate(self, values: Mapping[str, float]) -> float:
        """Return the formula's value; `values` gives each symbol that it uses."""
        return float(eval(self._code, _GLOBALS, values))

    def decided(self, values: Mapping[str, float]) -> "Formula":
        """Return the formula with each choice between two ways made: as one writes it once the numbers are known.

        >>> Formula.parse("(a if a > 0 else b) / 4").decided({"a": 0.0, "b": 2.0}).text
        'b / 4'
        """

        class Taken(ast.NodeTransformer):
            def visit_IfExp(self, node: ast.IfExp) -> ast.expr:
                holds = Formula.parse(ast.unparse(node.test)).evaluate(values)
                way: ast.expr = self.visit(node.body if holds else node.orelse)
                return way

        return Formula.parse(ast.unparse(Taken().visit(ast.parse(self.text, mode="eval"))))

    def worked(
        self,
        values: Mapping[str, float],
        shown: Callable[[str, float], str] | None = None,
        *,
        lengths: frozenset[str] = frozenset(),
        length: bool = False,
    ) -> str:
        """Return the formula with the numbers put in, as one writes it on paper.

        Args:
            values: each symbol's number.
            shown: writes a symbol's number; left out, it is written plainly.
            lengths, length: which symbols are lengths, and whether the result is one: they are read in the reader's unit.

        >>> Formula.parse("bust_girth / 4 + ease").worked({"bust_girth": 92.0, "ease": 1.5})
        '92 ÷ 4 + 1.5'
        """

        def one(part: Part) -> str:
            if part.symbol:
                value = values[part.symbol]
                return shown(part.symbol, value) if shown else bare(value) if part.length else _number(value)
            return _constant(part)

        return "".join(one(part) for part in written(self.text, lengths, length=length))

    def in_words(self, lengths: frozenset[str] = frozenset(), *, length: bool = False) -> str:
        """Return the formula as one writes it on paper, with its symbols in words.

        >>> Formula.parse("clamp(bust_girth - high_bust_girth, 0, 20) / 2").in_words()
        '(bust girth − high bust girth held within 0 and 20) ÷ 2'
        """
        return "".join(
            part.symbol.replace("_", " ") if part.symbol else _constant(part)
            for part in written(self.text, lengths, length=length)
        )


def _constant(part: Part) -> str:
    if part.number is None:
        return part.text
    return bare(part.number) if part.length else _number(part.number)


def _number(value: float) -> str:
    text = f"{round(value, 3):g}".replace("-", "−")
    return f"({text})" if value < 0 else text
