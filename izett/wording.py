"""Words for people: sentences that hold lengths and names as what they are, until somebody reads them.

A length stands in a sentence as a quantity (`⟦12.5 cm⟧`), which the page shows in the reader's unit; the name of a line,
a dart, a seam or a piece as a mark (`⟦=front.neck⟧`), in whose place its title is put. So no sentence has centimetres
baked into it, and no internal name ever reaches a reader.
"""

import re
from collections.abc import Mapping

from izett.units import Unit, show_length

_QUANTITY = re.compile(r"⟦([-−]?[0-9.]+ cm)⟧")
#: A length in a sum: its number alone, in the reader's unit.
_BARE = re.compile(r"⟦~([-−]?[0-9.]+)⟧")
_NAME = re.compile(r"⟦=([^⟧|]*)(?:\|([^⟧]*))?⟧")
#: Decimals of a length in a sentence, where its writer wants no others: the millimetre on a tape.
DECIMALS = 1


def cm(length: float, decimals: int = DECIMALS) -> str:
    """Return a length in cm as a quantity for a sentence, zeros at its end left off.

    >>> cm(12.04), cm(-0.25, 2)
    ('⟦12 cm⟧', '⟦−0.25 cm⟧')
    """
    text = f"{abs(length):.{decimals}f}"
    text = text.rstrip("0").rstrip(".") if "." in text else text
    return f"⟦{'−' if length < 0 and float(text) else ''}{text} cm⟧"


def bare(length: float) -> str:
    """Return a length in cm as it stands in a sum: its number alone, which is shown in the reader's unit.

    >>> bare(92.0), bare(-0.25)
    ('⟦~92⟧', '(⟦~−0.25⟧)')
    """
    text = f"{round(length, 3):g}".replace("-", "−")
    return f"(⟦~{text}⟧)" if length < 0 else f"⟦~{text}⟧"


def named(name: str, untitled: str = "") -> str:
    """Return the mark in whose place a thing's title is put: a line, a dart, a seam or a piece by its name.

    `untitled` is added where it has no title of its own, as the darts of a family have none.
    """
    return f"⟦={name}|{untitled}⟧" if untitled else f"⟦={name}⟧"


def titled(text: str, titles: Mapping[str, str]) -> str:
    """Return a sentence with titles in the place of names; what has no title is called by what its name ends with.

    >>> titled("Close ⟦=s1.yoke⟧ and ⟦=front.neck⟧", {"front.neck": "front neck"})
    'Close yoke and front neck'
    """
    found = _NAME.sub(lambda mark: titles.get(mark[1]) or _untitled(mark[1], mark[2], titles), text)
    return found[:1].upper() + found[1:] if text.startswith("⟦=") else found


def _untitled(name: str, added: str | None, titles: Mapping[str, str]) -> str:
    words = _fallback(name, titles)
    return f"{words} {added}" if added and added[:-1] not in words else words


def _fallback(name: str, titles: Mapping[str, str]) -> str:
    """Return the words for a name without a title: by its part where that is known, else what the name ends with."""
    part, _, label = name.rpartition(".")
    known = any(other.startswith(f"{part}.") for other in titles) if part and "." not in part else False
    return f"{part} {label}".replace("_", " ") if known else label.replace("_", " ").replace(":", " ")


def plain(text: str, unit: Unit = Unit.CM) -> str:
    """Return a sentence as it is read in a unit, for the command line and for print.

    >>> plain("The sleeve is ⟦0.8 cm⟧ shorter than ⟦=front.armhole⟧")
    'The sleeve is 0.8 cm shorter than armhole'
    >>> plain("⟦−0.64 cm⟧ each", Unit.INCH)
    '−¼ in each'
    """

    def length(mark: re.Match[str], *, with_unit: bool) -> str:
        number = mark[1].removesuffix(" cm")
        if unit is Unit.CM:
            return mark[1]
        return show_length(float(number.replace("−", "-")), unit=unit, with_unit=with_unit)

    told = _QUANTITY.sub(lambda mark: length(mark, with_unit=True), text)
    return titled(_BARE.sub(lambda mark: length(mark, with_unit=False), told), {})
