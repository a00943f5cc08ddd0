"""Lengths as people type and read them: centimetres, or inches with fractions.

Inside the program a length is a float in centimetres. 1 in = 2.54 cm exactly (international inch, 1959). Reading
goes through exact fractions, so `37 1/2` inches is 95.25 cm and comes back as `37½` in. Values are rounded only
when they are shown.
"""

import re
from dataclasses import dataclass
from enum import StrEnum
from fractions import Fraction
from math import floor

CM_PER_INCH = Fraction(254, 100)

#: The finest inch division that is shown; a tape measure has no finer one.
INCH_DIVISION = 16

#: Decimals of a centimetre that are shown: the millimetre on a tape.
CM_DECIMALS = 1


class Unit(StrEnum):
    """A unit in which a person types and reads lengths."""

    CM = "cm"
    INCH = "in"


@dataclass(frozen=True, slots=True)
class Reading:
    """A length as it was typed.

    Attributes:
        text: what the person typed, unchanged.
        unit: the unit it was read in: stated in the text, or else the one that the field had.
        cm: the length in centimetres.
    """

    text: str
    unit: Unit
    cm: float


class UnreadableNumber(ValueError):
    """The text is not a number; the message says what can be typed instead."""


class UnreadableLength(UnreadableNumber):
    """The text is not a length; the message says what can be typed instead."""


_VULGAR = {
    "¼": (1, 4),
    "½": (1, 2),
    "¾": (3, 4),
    "⅐": (1, 7),
    "⅓": (1, 3),
    "⅔": (2, 3),
    "⅕": (1, 5),
    "⅖": (2, 5),
    "⅗": (3, 5),
    "⅘": (4, 5),
    "⅙": (1, 6),
    "⅚": (5, 6),
    "⅛": (1, 8),
    "⅜": (3, 8),
    "⅝": (5, 8),
    "⅞": (7, 8),
}
_UNIT_WORDS = {
    "": None,
    "cm": Unit.CM,
    "centimetre": Unit.CM,
    "centimetres": Unit.CM,
    "centimeter": Unit.CM,
    "centimeters": Unit.CM,
    "in": Unit.INCH,
    "inch": Unit.INCH,
    "inches": Unit.INCH,
    '"': Unit.INCH,
    "″": Unit.INCH,
    "”": Unit.INCH,
    "''": Unit.INCH,
}
_LENGTH = re.compile(
    r"^(?P<sign>[-−+])?\s*"
    r"(?:(?P<whole>\d+)(?:[\s-]+|(?=[¼½¾⅐⅓⅔⅕⅖⅗⅘⅙⅚⅛⅜⅝⅞]))(?P<mixed>\d+\s*[/⁄]\s*\d+|[¼½¾⅐⅓⅔⅕⅖⅗⅘⅙⅚⅛⅜⅝⅞])"
    r"|(?P<fraction>\d+\s*[/⁄]\s*\d+|[¼½¾⅐⅓⅔⅕⅖⅗⅘⅙⅚⅛⅜⅝⅞])"
    r"|(?P<decimal>\d+(?:[.,]\d*)?|[.,]\d+))"
    r"\s*(?P<unit>mm|[a-z]+\.?|\"|″|”|'')?$"
)
#: Decimals of a centimetre beyond which a computed length holds only float noise.
FLOAT_NOISE_DECIMALS = 9
#: What a sample measured before over what it measures after.
_SAMPLE = re.compile(r"^(?P<before>\d+(?:[.,]\d+)?)\s*[/⁄]\s*(?P<after>\d+(?:[.,]\d+)?)$")
_PER_CENT = 100
#: Longer texts are not lengths; the bound also keeps the exact arithmetic small.
_LONGEST_TEXT = 32


def read_length(text: str, *, unit: Unit) -> Reading:
    """Read a typed length.

    Args:
        text: `92`, `92,5`, `37 1/2`, `37-1/2`, `37½`, `95.2cm`, `14"`, `3 in`, with an optional sign.
        unit: what a number without a unit is taken to be.

    Returns:
        The reading, with the length in cm as the float nearest to the exact value.

    Raises:
        UnreadableLength: the text is not one of these forms.

    >>> read_length("37½", unit=Unit.INCH).cm
    95.25
    >>> read_length('14"', unit=Unit.CM).cm
    35.56
    >>> read_length("92,5", unit=Unit.CM).cm
    92.5
    """
    stripped = text.strip().lower()
    match = _LENGTH.match(stripped) if len(stripped) <= _LONGEST_TEXT else None
    if match is None:
        raise UnreadableLength(f'“{text.strip()[:_LONGEST_TEXT]}” is not a length: type 92.5, 36 1/4, 36¼, 92cm or 36"')
    value = _number(match)
    word = (match["unit"] or "").rstrip(".")
    if word == "mm":
        return Reading(text=text, unit=Unit.CM, cm=float(value / 10))
    if word not in _UNIT_WORDS:
        raise UnreadableLength(f'“{word}” is not a unit that is known here: use cm, mm, in or "')
    stated = _UNIT_WORDS[word] or unit
    return Reading(text=text, unit=stated, cm=float(value * (CM_PER_INCH if stated is Unit.INCH else 1)))


def whole_millimetres(length: float) -> float:
    """Return a length in cm cut to whole millimetres: what is offered on a line must not be longer than the line.

    >>> whole_millimetres(41.27)
    41.2
    """
    return floor(length * 10 + 1e-9) / 10


#: From so many inches on, a length that is only begun with is said in such parts of an inch.
_HANDY = (
    (Fraction(10), Fraction(1, 2)),
    (Fraction(2), Fraction(1, 4)),
    (Fraction(1, 4), Fraction(1, 8)),
    (Fraction(0), Fraction(1, INCH_DIVISION)),
)
#: From so many inches on it is cut, not rounded: what is offered on a line must not be longer than the line.
_CUT_FROM = Fraction(2)


def handy(cm: float, *, unit: Unit) -> float:
    """Return a length (cm) to begin with as one would say it in a unit: 65 cm is 25½ in, 3 cm is 1⅛ in.

    None becomes nothing.

    >>> [show_length(handy(cm, unit=Unit.INCH), unit=Unit.INCH) for cm in (65.0, 12.0, 3.0, -1.0, 0.2)]
    ['25½ in', '4½ in', '1⅛ in', '−⅜ in', '1⁄16 in']
    >>> handy(65.0, unit=Unit.CM)
    65.0
    """
    if unit is Unit.CM or cm == 0:
        return cm
    inches = abs(Fraction(repr(cm))) / CM_PER_INCH
    part = next(part for bound, part in _HANDY if inches >= bound)
    parts = floor(inches / part + (0 if inches >= _CUT_FROM else Fraction(1, 2)))
    said = parts * part or Fraction(1, INCH_DIVISION)
    return float(said * CM_PER_INCH) * (-1 if cm < 0 else 1)


def read_number(text: str) -> float:
    """Read a typed number that is no length: a share, a count, an angle.

    Args:
        text: `12`, `0,5`, `1/2`, `1 1/2`, `½`, `30%`, with an optional sign; a share of two lengths, `10/3.4`.

    Raises:
        UnreadableNumber: the text is not one of these forms.

    >>> read_number("1 1/2"), read_number("−0,5"), read_number("30 %"), read_number("10/2,5")
    (1.5, -0.5, 0.3, 4.0)
    """
    stripped = text.strip()
    sample = _SAMPLE.match(stripped) if len(stripped) <= _LONGEST_TEXT else None
    if sample is not None and Fraction(sample["after"].replace(",", ".")):
        return float(Fraction(sample["before"].replace(",", ".")) / Fraction(sample["after"].replace(",", ".")))
    bare = stripped.removesuffix("%").rstrip()
    match = _LENGTH.match(bare) if len(bare) <= _LONGEST_TEXT else None
    if match is None or match["unit"]:
        raise UnreadableNumber(f"“{stripped[:_LONGEST_TEXT]}” is not a number: type 12, 0.5, 1/2 or 30%")
    return float(_number(match) / (_PER_CENT if stripped.endswith("%") else 1))


def stated_length(reading: Reading) -> str:
    """Return the reading's text with its unit, so that it reads the same whatever unit is assumed.

    >>> stated_length(read_length("37 1/2", unit=Unit.INCH))
    '37 1/2 in'
    >>> stated_length(read_length('14"', unit=Unit.CM))
    '14"'
    """
    text = reading.text.strip()
    other = Unit.INCH if reading.unit is Unit.CM else Unit.CM
    try:
        states_its_own = read_length(text, unit=other).unit is reading.unit
    except UnreadableLength:
        # A letter, as a cup's, has no unit to state.
        return text
    return text if states_its_own else f"{text} {reading.unit.value}"


def exact_text(cm: float) -> str:
    """Return a length in cm as text that reads back as the same float.

    >>> exact_text(92.0), exact_text(86.83625)
    ('92', '86.83625')
    """
    return repr(float(cm)).removesuffix(".0")


def _number(match: re.Match[str]) -> Fraction:
    if match["whole"] is not None:
        value = int(match["whole"]) + _fraction(match["mixed"])
    elif match["fraction"] is not None:
        value = _fraction(match["fraction"])
    else:
        value = Fraction(match["decimal"].replace(",", ".").rstrip(".") or "0")
    return -value if match["sign"] in ("-", "−") else value


def _fraction(text: str) -> Fraction:
    if text in _VULGAR:
        return Fraction(*_VULGAR[text])
    above, below = re.split(r"\s*[/⁄]\s*", text)
    if int(below) == 0:
        raise UnreadableLength(f"“{text}” divides by nothing: a fraction of an inch has 2, 4, 8 or 16 below its line")
    return Fraction(int(above), int(below))


def show_length(cm: float, *, unit: Unit, with_unit: bool = True) -> str:
    """Return a length as a person reads it: to 1 mm, or to 1/16 in as a proper fraction.

    >>> show_length(95.25, unit=Unit.INCH)
    '37½ in'
    >>> show_length(-0.4, unit=Unit.INCH)
    '−3⁄16 in'
    >>> show_length(95.25, unit=Unit.CM)
    '95.3 cm'
    """
    # Decimal rounding, as on paper: 0.25 is shown as 0.3. A computed 3.3499999999999996 counts as 3.35.
    exact = abs(Fraction(repr(round(cm, FLOAT_NOISE_DECIMALS))))
    if unit is Unit.CM:
        tenths = _half_up(exact * 10**CM_DECIMALS)
        body = f"{tenths // 10**CM_DECIMALS}.{tenths % 10**CM_DECIMALS:0{CM_DECIMALS}d}"
        rounded = tenths
    else:
        rounded = _half_up(exact / CM_PER_INCH * INCH_DIVISION)
        body = _mixed(rounded)
    sign = "−" if cm < 0 and rounded else ""
    return f"{sign}{body} {unit.value}" if with_unit else f"{sign}{body}"


def _half_up(value: Fraction) -> int:
    return int(value + Fraction(1, 2))


def _mixed(sixteenths: int) -> str:
    whole, rest = divmod(sixteenths, INCH_DIVISION)
    if rest == 0:
        return str(whole)
    part = Fraction(rest, INCH_DIVISION)
    glyphs = {value: glyph for glyph, value in _VULGAR.items()}
    fraction = glyphs.get((part.numerator, part.denominator), f"{part.numerator}⁄{part.denominator}")
    if whole == 0:
        return fraction
    # A built-up fraction needs a space before it, else 3 5⁄16 would read as 35⁄16.
    return f"{whole}{fraction}" if len(fraction) == 1 else f"{whole} {fraction}"
