"""A formula as one writes it on paper: `the larger of 12 and 92 ÷ 8`, `√(a² + b²)`, `tan 12°`; never as code.

Numbers that are lengths are told apart from plain ones, so that they can be read in centimetres or in inches: a symbol
is a length where its unit says so, a constant where it is added to one, compared with one, or chosen between with one.
"""

import ast
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cache

#: How tightly parts hold together: what binds less stands in brackets within what binds more.
CHOICE, SUM, PRODUCT, ATOM = range(4)
#: Functions that tell an angle.
INVERSE = {"asin": "arcsin", "acos": "arccos", "atan": "arctan", "atan2": "arctan"}
COMPARED = {ast.Lt: "<", ast.LtE: "≤", ast.Gt: ">", ast.GtE: "≥"}


@dataclass(frozen=True, slots=True)
class Part:
    """A piece of a formula on paper: text, a symbol's value, or a number.

    Attributes:
        text: what is written as it is.
        symbol: the symbol whose number, or whose name, is written here.
        number: a constant.
        length: whether that is a length, in cm.
    """

    text: str = ""
    symbol: str = ""
    number: float | None = None
    length: bool = False


@cache
def written(text: str, lengths: frozenset[str] = frozenset(), *, length: bool = False) -> tuple[Part, ...]:
    """Return a formula's parts in writing order.

    Args:
        text: a formula that parses.
        lengths: which of its symbols are lengths.
        length: whether its result is one.
    """
    tree = ast.parse(text, mode="eval").body
    return tuple(_Writer(lengths).of(tree, CHOICE, length=length or None))


#: What is written after a number that is rounded.
ROUNDED = {"ceil": ", rounded up", "floor": ", rounded down"}


class _Writer:
    def __init__(self, lengths: frozenset[str]) -> None:
        self.lengths = lengths

    def power(self, node: ast.expr) -> float | None:
        """Return of which power of a length a part is: 1 for a length, 0 for a plain number, None for a constant."""
        found: float | None = 0.0
        match node:
            case ast.Constant():
                found = None
            case ast.Name(id=name):
                found = 1.0 if name in self.lengths else 0.0
            case ast.UnaryOp(operand=operand):
                found = self.power(operand)
            case ast.BinOp(left=left, op=ast.Add() | ast.Sub(), right=right):
                found = self._first(left, right)
            case ast.BinOp(left=left, op=op, right=right):
                a, b = self.power(left), self.power(right)
                sign = 1 if isinstance(op, ast.Mult) else -1
                found = None if a is None and b is None else (a or 0.0) + (b or 0.0) * sign
            case ast.IfExp(body=body, orelse=other):
                found = self._first(body, other)
            case ast.Call(func=ast.Name(id="sqrt"), args=[inner]):
                power = self.power(inner)
                found = None if power is None else power / 2
            case ast.Call(func=ast.Name(id="abs" | "min" | "max" | "clamp" | "ceil" | "floor"), args=args):
                found = self._first(*args)
        return found

    def _first(self, *nodes: ast.expr) -> float | None:
        return next((power for node in nodes if (power := self.power(node)) is not None), None)

    def of(self, node: ast.expr, within: int, *, length: bool | None = None) -> list[Part]:
        """Return the parts of a node, in brackets where it binds less than what it stands in.

        `length` says whether a constant here is one.
        """
        binds, parts = self._plain(node, length=length)
        return [Part("("), *parts, Part(")")] if binds < within else parts

    def _plain(self, node: ast.expr, *, length: bool | None) -> tuple[int, list[Part]]:
        match node:
            case ast.Constant(value=value):
                binds, parts = ATOM, [Part(number=float(str(value)), length=bool(length))]
            case ast.Name(id=name):
                binds, parts = ATOM, [Part(symbol=name, length=name in self.lengths)]
            case ast.UnaryOp(operand=operand):
                binds, parts = SUM, [Part("−"), *self.of(operand, PRODUCT, length=length)]
            case ast.BinOp():
                binds, parts = self._sum(node, length=length)
            case ast.IfExp() | ast.Compare():
                binds, parts = CHOICE, self._chosen(node, length=length)
            case ast.Call(func=ast.Name(id=name), args=args):
                binds, parts = self._called(name, args, length=length)
            case _:
                raise ValueError(f"{type(node).__name__} stands in no formula")
        return binds, parts

    def _chosen(self, node: ast.IfExp | ast.Compare, *, length: bool | None) -> list[Part]:
        if isinstance(node, ast.IfExp):
            among = self._first(node.body, node.orelse) == 1 or length
            ways = [self.of(way, SUM, length=among) for way in (node.body, node.orelse)]
            return [*ways[0], Part(" where "), *self.of(node.test, CHOICE), Part(", otherwise "), *ways[1]]
        among = self._first(node.left, *node.comparators) == 1
        parts = self.of(node.left, SUM, length=among)
        for op, other in zip(node.ops, node.comparators, strict=True):
            parts += [Part(f" {COMPARED[type(op)]} "), *self.of(other, SUM, length=among)]
        return parts

    def _sum(self, node: ast.BinOp, *, length: bool | None) -> tuple[int, list[Part]]:
        added = isinstance(node.op, ast.Add | ast.Sub)
        if added:
            among = self.power(node) == 1 or bool(length)
            sign = " + " if isinstance(node.op, ast.Add) else " − "
            # What is taken away stands in brackets where it is a sum itself.
            last = self.of(node.right, SUM if isinstance(node.op, ast.Add) else PRODUCT, length=among)
            return SUM, [*self.of(node.left, SUM, length=among), Part(sign), *last]
        if isinstance(node.op, ast.Mult) and ast.dump(node.left) == ast.dump(node.right):
            return ATOM, [*self.of(node.left, ATOM), Part("²")]
        times = isinstance(node.op, ast.Mult)
        right = self.of(node.right, PRODUCT if times else ATOM)
        # A minus that begins a product needs no brackets.
        left = self.of(node.left, SUM if isinstance(node.left, ast.UnaryOp) else PRODUCT)
        return PRODUCT, [*left, Part(" × " if times else " ÷ "), *right]

    def _called(self, name: str, args: Sequence[ast.expr], *, length: bool | None) -> tuple[int, list[Part]]:
        """Return what a function's value is called: one among lengths, or one of numbers and angles."""
        among = self._first(*args) == 1 or bool(length)
        if name in ("max", "min", "clamp", "ceil", "floor", "abs"):
            return CHOICE, self._among(name, [self.of(arg, SUM, length=among) for arg in args])
        inner = [self.of(arg, ATOM) for arg in args]
        if name in INVERSE:
            over = [Part(" ÷ "), *inner[1]] if len(inner) > 1 else []
            return ATOM, [Part(f"{INVERSE[name]}("), *inner[0], *over, Part(")")]
        before, after = {"sqrt": ("√", ""), "radians": ("", "°"), "degrees": ("", "")}.get(name, (f"{name} ", ""))
        return ATOM, [Part(before), *inner[0], Part(after)]

    def _among(self, name: str, args: list[list[Part]]) -> list[Part]:
        if name == "clamp":
            value, low, high = args
            return [*value, Part(" held within "), *low, Part(" and "), *high]
        if name == "abs":
            return [Part("the size of "), *args[0]]
        if name in ROUNDED:
            return [*args[0], Part(ROUNDED[name])]
        # With more than two of them it is the largest.
        words = {"max": ("larger", "largest"), "min": ("smaller", "smallest")}[name][len(args) > len("ab")]
        parts = [Part(f"the {words} of "), *args[0]]
        for number, arg in enumerate(args[1:], start=2):
            parts += [Part(" and " if number == len(args) else ", "), *arg]
        return parts
