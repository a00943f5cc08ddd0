"""The square that is measured before anything is cut: what its printed side says of the printer, and what to do."""

from dataclasses import dataclass

from izett.errors import ValueOutOfRange
from izett.units import CM_PER_INCH, Unit
from izett.wording import cm

#: cm. The sides of the two squares, one for each reader.
SIDES = {Unit.CM: 10.0, Unit.INCH: float(4 * CM_PER_INCH)}
#: cm. How closely a ruler tells a side; what a scaled print is made plain on.
TOLD, GIRTH = 0.03, 100.0
#: Shares between which a printer scales; beyond them something else was measured.
LEAST, MOST = 0.5, 2.0


@dataclass(frozen=True, slots=True)
class Printed:
    """How large a page came out, as a share of its true size; whether it may be cut by, and what to do about it."""

    scale: float
    true: bool
    words: str


def printed(side: float, square: Unit = Unit.CM) -> Printed:
    """Return what the side of a square, as it measures on paper (cm), says: of the 10 cm square, or of the 4 in one.

    Raises:
        ValueOutOfRange: it is not the side of that square.
    """
    scale = side / SIDES[square]
    if not LEAST <= scale <= MOST:
        raise ValueOutOfRange(
            f"{cm(side)} is not the side of the square of {cm(SIDES[square])}.",
            fix="Measure that one of the two squares, along one side.",
            where=("side",),
        )
    if abs(scale - 1) * SIDES[square] <= TOLD:
        words = f"The print is at true size, as closely as a ruler tells: it can be cut by ({cm(side, 2)})."
        return Printed(scale, true=True, words=words)
    off = cm(abs(scale - 1) * GIRTH)
    way = "small" if scale < 1 else "large"
    return Printed(
        scale,
        true=False,
        words=f"Do not cut by this print: it came out at {scale:.1%}, {off} too {way} over a girth of {cm(GIRTH)}. Print it "
        "again at 100 % (“actual size”), with “fit to page” off, in the program's window and in the printer's own. "
        f"If it still comes out so, print at {1 / scale:.1%}, and measure again.",
    )
