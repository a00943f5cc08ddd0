"""Pieces as they lie on a large sheet: each alone, or its sizes nested over each other, in a row or in rows."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from izett.errors import ValueOutOfRange
from izett.finishing.sheet import SheetPiece
from izett.geometry.point import Point


@dataclass(frozen=True)
class Stack:
    """A piece, or its sizes over each other as they were drafted: from the same centre and waist.

    Attributes:
        sheets: the sizes, the first one with all its words.
        sizes: what they are called; empty for a piece alone.
    """

    sheets: tuple[SheetPiece, ...]
    sizes: tuple[str, ...] = ()

    @property
    def bounds(self) -> tuple[float, float, float, float]:
        """The smallest and largest x and y of all of them: (left, bottom, right, top) in cm."""
        lefts, lows, rights, tops = zip(*(sheet.bounds for sheet in self.sheets), strict=True)
        return min(lefts), min(lows), max(rights), max(tops)


Placed = tuple[Stack, Point]

#: Sizes nested over each other that can be told apart by their kinds of line.
MOST_SIZES = 12


def refuse_run(sizes: Sequence[str]) -> None:
    """Let pass a run of sizes that can be told apart on paper.

    Raises:
        ValueOutOfRange: there are none, or too many.
    """
    if not 1 <= len(sizes) <= MOST_SIZES:
        raise ValueOutOfRange(
            f"A run of {len(sizes)} sizes cannot be told apart on paper.",
            fix=f"Name 1 to {MOST_SIZES} sizes; lay a longer run in parts.",
            where=("sizes",),
        )


def stacked(sheets: Sequence[SheetPiece]) -> list[Stack]:
    """Return pieces each alone."""
    return [Stack((sheet,)) for sheet in sheets]


def nested(sizes: Mapping[str, Sequence[SheetPiece]]) -> list[Stack]:
    """Return the pieces of several sizes nested: a piece that a size does not have is left out of its stack."""
    names = dict.fromkeys(sheet.piece.name for sheets in sizes.values() for sheet in sheets)
    found: list[Stack] = []
    for name in names:
        own = {size: sheet for size, sheets in sizes.items() for sheet in sheets if sheet.piece.name == name}
        found.append(Stack(tuple(own.values()), tuple(own)))
    return found


def in_a_row(stacks: Sequence[Stack], *, space: float) -> tuple[list[Placed], float, float]:
    """Return pieces side by side, feet on one line, with the width and the height that they take, cm."""
    placed: list[Placed] = []
    left, top = space / 2, 0.0
    for stack in stacks:
        x0, y0, x1, y1 = stack.bounds
        placed.append((stack, (left - x0, space / 2 - y0)))
        left += x1 - x0 + space
        top = max(top, y1 - y0 + space)
    return placed, left, top


def in_rows(stacks: Sequence[Stack], *, width: float, space: float) -> list[Placed]:
    """Return pieces in rows across paper of a width, the longest first, each row above the one before, cm."""
    placed: list[Placed] = []
    across, along, tallest = space, space, 0.0
    for stack in sorted(stacks, key=lambda stack: stack.bounds[1] - stack.bounds[3]):
        x0, y0, x1, y1 = stack.bounds
        if across > space and across + (x1 - x0) + space > width:
            across, along, tallest = space, along + tallest + space, 0.0
        placed.append((stack, (across - x0, along - y0)))
        across += x1 - x0 + space
        tallest = max(tallest, y1 - y0)
    return placed
