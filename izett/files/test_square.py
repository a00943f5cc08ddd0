"""The square that is measured before anything is cut: what its printed side says of the printer, and what to do."""

from dataclasses import dataclass

from izett.errors import ValueOutOfRange
from izett.wording import cm

#: cm. The side that is printed; how closely a ruler tells it; what a scaled print is made plain on.
SIDE, TOLD, GIRTH = 10.0, 0.03, 100.0
#: Shares between which a printer scales; beyond them something else was measured.
LEAST, MOST = 0.5, 2.0


@dataclass(frozen=True, slots=True)
class Printed:
    """How large a page came out, as a share of its true size, and what to do about it."""

    scale: float
    words: str

    @property
    def true(self) -> bool:
        """Whether it may be cut by."""
        return abs(self.scale - 1) * SIDE <= TOLD


def printed(side: float) -> Printed:
    """Return what the side of the 10 cm square, as it measures on paper (cm), says.

    Raises:
        ValueOutOfRange: it is not the side of that square.
    """
    scale = side / SIDE
    if not LEAST <= scale <= MOST:
        raise ValueOutOfRange(
            f"{cm(side)} is not the side of the {SIDE:.0f} cm square.",
            fix="Measure the smaller of the two squares, along one side; the other one is 4 in.",
            where=("side",),
        )
    found = Printed(scale, f"The print is at true size, as closely as a ruler tells: it can be cut by ({cm(side, 2)}).")
    if found.true:
        return found
    off = cm(abs(scale - 1) * GIRTH)
    way = "small" if scale < 1 else "large"
    return Printed(
        scale,
        f"Do not cut by this print: it came out at {scale:.1%}, {off} too {way} over a girth of {cm(GIRTH)}. Print it "
        "again at 100 % (“actual size”), with “fit to page” off, in the program's window and in the printer's own. "
        f"If it still comes out so, print at {1 / scale:.1%}, and measure again.",
    )
