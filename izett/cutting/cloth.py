"""A cloth: how wide it is, how it is folded, what runs one way or repeats, how it stretches and shrinks, what it costs.

Shops sell by the 10 cm, or by the eighth of a yard. What is cut from cloth that was washed first is laid on what the
wash has left of it: length to buy = length ÷ (1 − shrinkage). Common practice, no single source.
"""

from base64 import b64decode
from enum import StrEnum
from math import ceil
from typing import Annotated, Self

from pydantic import BaseModel, ConfigDict, Field, model_validator

from izett.errors import ValueOutOfRange
from izett.units import CM_PER_INCH, Unit
from izett.wording import cm

#: cm. Wider cloth is not woven for garments, and nobody cuts from narrower ribbon.
NARROWEST, WIDEST = 10.0, 400.0
#: Longest length at hand, cm: a whole roll.
LONGEST = 20_000.0
#: Share. What shrinks more was measured wrongly, or is felted on purpose.
MOST_SHRINKAGE = 0.3
#: Share to which cloth is stretched at most.
MOST_STRETCH = 4.0
#: What shops sell by: 10 cm, an eighth of a yard.
SOLD_BY = {Unit.CM: 10.0, Unit.INCH: float(36 * CM_PER_INCH / 8)}
#: A length within this of what is sold needs no more of it, cm.
HAIR = 1e-6


class Fold(StrEnum):
    """How the cloth lies when it is cut."""

    OPEN = "open"
    LENGTHWISE = "lengthwise"
    BOTH_TO_MIDDLE = "both_to_middle"
    CROSSWISE = "crosswise"
    FOUR_LAYERS = "four_layers"


#: What a maker calls the folds, and how to fold.
FOLDED = {
    Fold.OPEN: ("opened out, one layer", "Lay the cloth open, right side up, grain straight along the table."),
    Fold.LENGTHWISE: (
        "folded lengthwise, selvedge to selvedge",
        "Fold it lengthwise, right sides together, selvedge on selvedge, until no wrinkle runs from the fold.",
    ),
    Fold.BOTH_TO_MIDDLE: (
        "both selvedges folded inwards",
        "Fold both selvedges inwards until they meet, right sides together: there are two folds to cut on.",
    ),
    Fold.CROSSWISE: (
        "folded crosswise",
        "Fold it across, cut end on cut end, right sides together, selvedges on each other.",
    ),
    Fold.FOUR_LAYERS: (
        "folded lengthwise, then crosswise: four layers",
        "Fold it lengthwise, selvedge on selvedge, then across: four layers. Pin well: the lower ones creep.",
    ),
}


class Use(StrEnum):
    """What of a garment a cloth is for."""

    OUTER = "outer"
    CONTRAST = "contrast"
    LINING = "lining"
    INTERFACING = "interfacing"
    STRENGTH = "strength"
    MUSLIN = "muslin"


USES = {
    Use.OUTER: "outer cloth",
    Use.CONTRAST: "second cloth",
    Use.LINING: "lining",
    Use.INTERFACING: "interfacing",
    Use.STRENGTH: "strength layer",
    Use.MUSLIN: "muslin",
}

#: Characters of a swatch's picture.
LARGEST_SWATCH = 100_000

Share = Annotated[float, Field(ge=0, le=MOST_STRETCH)]
Cm = Annotated[float, Field(ge=0, le=LONGEST, allow_inf_nan=False)]


class Cloth(BaseModel):
    """A cloth. Lengths in cm; stretch and shrinkage as shares, along the warp and along the weft.

    Attributes:
        name, use, note: for people; what it is for.
        width: from selvedge to selvedge.
        selvedge: what of each edge is not used.
        fold: how it lies.
        nap: whether it has a nap, a pile, or a print that runs one way: all pieces then lie the same way up.
        grainless: whether it has no grain at all, as felt and non-woven interfacing: pieces may lie at any angle.
        repeat: of its stripes, checks or print: across the cloth and along it; 0 where nothing repeats.
        match: the level (`waist`) at which what repeats along the cloth meets over all pieces; empty for none.
        stretch, recovery: how far it stretches to comfort; what of that springs back.
        shrinkage: what a wash takes.
        washed: whether it is washed before it is cut.
        weight: g/m². price: of a metre, in whatever it is paid.
        length: what is at hand, or None.
        gap: what is left free between pieces.
        swatch: a small picture of it: a JPEG, in base64; empty where there is none.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    name: str = Field("", max_length=120)
    use: Use = Use.OUTER
    width: float = Field(140.0, allow_inf_nan=False)
    selvedge: Cm = 1.0
    fold: Fold = Fold.OPEN
    nap: bool = False
    grainless: bool = False
    repeat: tuple[Cm, Cm] = (0.0, 0.0)
    match: str = Field("", max_length=40)
    stretch: tuple[Share, Share] = (0.0, 0.0)
    recovery: Annotated[float, Field(ge=0, le=1)] = 1.0
    shrinkage: tuple[float, float] = (0.0, 0.0)
    washed: bool = True
    weight: Annotated[float, Field(ge=0, le=5000)] = 0.0
    price: Annotated[float, Field(ge=0, le=1_000_000)] = 0.0
    length: Cm | None = None
    gap: Annotated[float, Field(ge=0, le=10)] = 0.3
    note: str = Field("", max_length=2000)
    swatch: str = Field("", max_length=LARGEST_SWATCH)

    @model_validator(mode="after")
    def _sensible(self) -> Self:
        """Refuse what no cloth is.

        Raises:
            ValueOutOfRange: its width, repeat, shrinkage or selvedge cannot be.
        """
        if not NARROWEST <= self.width <= WIDEST:
            raise ValueOutOfRange(
                f"The cloth is {cm(self.width)} wide: cloth is from {cm(NARROWEST)} to {cm(WIDEST)}.",
                fix="Measure it from selvedge to selvedge, and look at the unit.",
                where=("width",),
            )
        if 2 * self.selvedge >= self.width - NARROWEST / 2:
            raise ValueOutOfRange(
                f"Two selvedges of {cm(self.selvedge)} leave nothing of {cm(self.width)}.",
                fix="A selvedge is one or two centimetres: type what of one edge is not used.",
                where=("selvedge",),
            )
        for way, repeat, whole in (("across", self.repeat[0], self.width), ("along", self.repeat[1], LONGEST / 40)):
            if repeat > whole:
                raise ValueOutOfRange(
                    f"A repeat of {cm(repeat)} {way} the cloth is more than there is of it ({cm(whole)}).",
                    fix="Measure from one stripe to the next that looks the same; 0 where nothing repeats.",
                    where=("repeat",),
                )
            if 0 < repeat < LEAST_REPEAT:
                raise ValueOutOfRange(
                    f"A repeat of {cm(repeat, 2)} {way} the cloth is too small to match.",
                    fix="Type 0: stripes so fine need no matching.",
                    where=("repeat",),
                )
        for way, share in zip(("warp", "weft"), self.shrinkage, strict=True):
            if not 0 <= share <= MOST_SHRINKAGE:
                raise ValueOutOfRange(
                    f"Shrinkage of {share:.0%} along the {way} is outside 0 to {MOST_SHRINKAGE:.0%}.",
                    fix="Wash a marked square again and measure it; cloth that shrinks more is no cloth to sew.",
                    where=("shrinkage",),
                )
        if self.swatch and not _is_jpeg(self.swatch):
            raise ValueOutOfRange(
                "The swatch is no picture.", fix="Send a photo of it: JPEG, PNG or WebP.", where=("swatch",)
            )
        return self

    @property
    def left_of_width(self) -> float:
        """Its width when it is cut: after the wash, where it is washed first."""
        return self.width * (1 - self.shrinkage[1]) if self.washed else self.width

    @property
    def usable(self) -> float:
        """The width between its selvedges when it is cut."""
        return self.left_of_width - 2 * self.selvedge

    def to_buy(self, length: float) -> float:
        """Return what is bought for a length to be cut from, before it is rounded to what is sold."""
        return length / (1 - self.shrinkage[0]) if self.washed else length

    def cost(self, length: float) -> float:
        """Return what a length in cm costs."""
        return self.price * length / 100


def _is_jpeg(text: str) -> bool:
    try:
        return b64decode(text, validate=True).startswith(b"\xff\xd8\xff")
    except ValueError:
        return False


#: cm. A finer repeat is not matched by anybody.
LEAST_REPEAT = 0.5


def sold(length: float, *, unit: Unit) -> float:
    """Return a length as shops sell it: rounded up to 10 cm, or to an eighth of a yard.

    >>> sold(212.4, unit=Unit.CM), round(sold(212.4, unit=Unit.INCH) / 91.44 * 8)
    (220.0, 19)
    """
    return ceil((length - HAIR) / SOLD_BY[unit]) * SOLD_BY[unit]


def sold_words(length: float, *, unit: Unit) -> str:
    """Return a length as it is asked for in a shop: metres, or yards with their eighths.

    >>> sold_words(212.4, unit=Unit.CM), sold_words(212.4, unit=Unit.INCH), sold_words(80, unit=Unit.INCH)
    ('2.20 m', '2⅜ yd', '⅞ yd')
    """
    if unit is Unit.CM:
        return f"{sold(length, unit=unit) / 100:.2f} m"
    yards, eighths = divmod(round(sold(length, unit=unit) / SOLD_BY[unit]), EIGHTHS_OF_A_YARD)
    return f"{yards or '' if eighths else yards}{EIGHTHS[eighths]} yd"


#: What a yard is sold by, and how it is written.
EIGHTHS_OF_A_YARD = 8
EIGHTHS = ("", "⅛", "¼", "⅜", "½", "⅝", "¾", "⅞")


def cut_for(finished: float, shrinkage: float) -> float:
    """Return how long to cut what is to be `finished` cm long after its cloth has shrunk by a share.

    >>> round(cut_for(95.0, 0.05), 2)
    100.0
    """
    return finished / (1 - shrinkage)
