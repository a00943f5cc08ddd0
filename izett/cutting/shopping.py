"""What is bought for a garment: each of its cloths with its length, the notions marked on its pieces, those of its sums."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

from izett.cutting.cloth import USES, Cloth, Use, sold, sold_words
from izett.cutting.lay.cutouts import Wanted
from izett.cutting.notions import marked, notions
from izett.units import Unit, show_length


@dataclass(frozen=True, slots=True)
class ToBuy:
    """A row of the shopping list.

    Attributes:
        what: for people.
        amount: a length in cm, or a number; None where no plan says it yet.
        unit: `cm` where it is a length.
        note: words of the maker, or why it is in doubt.
        cost: in whatever the cloth is paid, or None.
        by_shop: whether it is sold in steps, as cloth is; it is rounded up once, in the reader's unit.
    """

    what: str
    amount: float | None
    unit: str
    note: str = ""
    cost: float | None = None
    by_shop: bool = False

    def amount_words(self, unit: Unit) -> str:
        """Return how much is bought, as it is asked for in a shop."""
        if self.amount is None:
            return "lay it first"
        if not self.unit:
            return f"{self.amount:.0f}"
        return sold_words(self.amount, unit=unit) if self.by_shop else show_length(self.amount, unit=unit)


@dataclass(frozen=True, slots=True)
class ClothUsed:
    """A use of the garment, with its cloth and the length that its plan needs (cm), as far as they are known."""

    use: Use
    cloth: Cloth | None
    length: float | None
    stale: bool = False


def shopping(
    cloths: Iterable[ClothUsed],
    cut: Sequence[Wanted],
    sums: Iterable[tuple[str, Mapping[str, float], str]],
    *,
    unit: Unit = Unit.CM,
) -> list[ToBuy]:
    """Return what is bought.

    Args:
        cloths: the garment's; cut: its pieces; sums: its worksheets, each its key, its numbers and a note.
        unit: in which steps the shop sells what is paid for.

    Raises:
        UnknownName, ValueOutOfRange: there is no such worksheet, or its numbers give no result.
    """
    found: list[ToBuy] = []
    for one in cloths:
        cloth, length = one.cloth, None
        if cloth is not None and one.length is not None:
            length = cloth.to_buy(one.length)
        name = f": {cloth.name}" if cloth is not None and cloth.name else ""
        cost = cloth.cost(sold(length, unit=unit)) if cloth is not None and cloth.price and length else None
        note = "the pieces have changed since it was laid" if one.stale else ""
        found.append(ToBuy(f"{USES[one.use]}{name}", length, "cm", note, cost, by_shop=True))
    on_pieces = marked(cut)
    found += [ToBuy(one.what, one.amount, one.unit, "as marked on the pieces") for one in on_pieces]
    twice = {one.kind for one in on_pieces}
    for kind, values, note in sums:
        for notion in notions(kind, values):
            words = [note, "marked on the pieces as well: buy them once"] if notion.kind in twice else [note]
            found.append(ToBuy(notion.what, notion.amount, notion.unit, "; ".join(filter(None, words))))
    return found
