"""The bed: cloth as it lies on the table, x across it from its left edge, y along it.

Selvedge to selvedge, the fold is on the left and the selvedges on the right. With both selvedges folded inwards there
is a fold at either side, and between them the selvedges meet: nothing is cut across that. Folded crosswise it is as wide
as the cloth, with its fold at y = 0; folded in four, half as wide, with the lengthwise fold on the left.
"""

from dataclasses import dataclass

from izett.cutting.cloth import Cloth, Fold

#: How many layers lie on each other.
LAYERS = {
    Fold.OPEN: 1,
    Fold.LENGTHWISE: 2,
    Fold.BOTH_TO_MIDDLE: 2,
    Fold.CROSSWISE: 2,
    Fold.FOUR_LAYERS: 4,
}
#: How much cloth a length of the bed takes.
LENGTHS = {Fold.CROSSWISE: 2, Fold.FOUR_LAYERS: 2}


@dataclass(frozen=True, slots=True)
class Strip:
    """A part of the bed over its whole length: what lies in it lies in it alone.

    Attributes:
        left, right: from where to where it can be used.
        fold: the x of the fold that it is bounded by; None where there is none.
    """

    left: float
    right: float
    fold: float | None = None

    @property
    def width(self) -> float:
        """How wide it is."""
        return self.right - self.left


@dataclass(frozen=True, slots=True)
class Bed:
    """The cloth as it lies.

    Attributes:
        fold: how it is folded.
        width: of what lies there, folds and selvedges included.
        strips: what of it can be used.
    """

    fold: Fold
    width: float
    strips: tuple[Strip, ...]

    @property
    def layers(self) -> int:
        """How many layers a cut goes through."""
        return LAYERS[self.fold]

    @property
    def lengths(self) -> int:
        """How many times its length the cloth is long."""
        return LENGTHS.get(self.fold, 1)


def beside_meeting(cloth: Cloth) -> float:
    """Return what is left free on either side of where the selvedges meet: they, or half of what lies between pieces."""
    return max(cloth.selvedge, cloth.gap / 2)


def bed_of(cloth: Cloth, fold: Fold | None = None, *, meet: float | None = None) -> Bed:
    """Return a cloth as it lies.

    Args:
        cloth: the cloth.
        fold: how it is folded; as the cloth says, where None.
        meet: where the selvedges meet, for both folded inwards; in the middle, where None.
    """
    fold = cloth.fold if fold is None else fold
    whole, edge = cloth.left_of_width, cloth.selvedge
    half = whole / 2
    if fold in (Fold.OPEN, Fold.CROSSWISE):
        return Bed(fold, whole, (Strip(edge, whole - edge),))
    if fold is Fold.BOTH_TO_MIDDLE:
        at = half / 2 if meet is None else meet
        edge = beside_meeting(cloth)
        return Bed(fold, half, (Strip(0.0, at - edge, 0.0), Strip(at + edge, half, half)))
    return Bed(fold, half, (Strip(0.0, half - edge, 0.0),))
