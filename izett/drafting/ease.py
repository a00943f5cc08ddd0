"""Ease by fit and cloth: a layer over the rule sheet that sets how much room a garment has at each level.

Woven cloth takes the table's centimetres. A knit that stretches enough is cut under the body's girth at close fit: by a
share that grows with its stretch; for other fits what a woven would have over its close fit is added. A woven with
stretch recovers less than a knit and takes half of a knit's share (judged, no source). The tables stand in ease.toml.
"""

import tomllib
from collections.abc import Mapping
from dataclasses import dataclass, replace
from enum import StrEnum
from functools import cache
from pathlib import Path
from types import MappingProxyType
from typing import Any

from izett.errors import UnknownName, ValueOutOfRange
from izett.rules.formula import Formula
from izett.rules.sheet import Allowance, Rule, RuleSheet, Way
from izett.wording import cm

FITS = ("close", "fitted", "easy", "loose")
FITTED = "fitted"
#: %. No cloth stretches further to comfort.
MOST_STRETCH = 150.0
#: A woven with stretch takes this part of a knit's share.
STRETCH_WOVEN = 0.5


class Kind(StrEnum):
    """Kinds of cloth, by what they do with the body."""

    WOVEN = "woven"
    STRETCH = "stretch"
    KNIT = "knit"


@dataclass(frozen=True, slots=True)
class Cloth:
    """The cloth that a block is drafted for; `stretch` is crosswise, to comfort, in %.

    Raises:
        ValueOutOfRange: no cloth stretches so.
        UnknownName: there is no such kind.
    """

    kind: str = Kind.WOVEN.value
    stretch: float = 0.0

    def __post_init__(self) -> None:
        if self.kind not in tuple(Kind):
            raise UnknownName(
                f"There is no kind of cloth “{self.kind}”.", fix=f"Choose {', '.join(Kind)}.", where=("cloth",)
            )
        if not 0 <= self.stretch <= MOST_STRETCH:
            raise ValueOutOfRange(
                f"A stretch of {self.stretch:g} % is outside 0 to {MOST_STRETCH:g} %.",
                fix="Fold 10 cm of the cloth, stretch it to comfort, and read how much longer it is.",
                where=("cloth",),
            )

    @property
    def words(self) -> str:
        """The cloth in words."""
        return self.kind if self.kind == Kind.WOVEN else f"{self.kind} of {self.stretch:g} % stretch"


WOVEN = Cloth()
#: A knit as most T-shirts are cut of.
KNIT = Cloth(Kind.KNIT.value, 50.0)


@dataclass(frozen=True, slots=True)
class Level:
    """A level at which ease is given.

    Attributes:
        key, label, reason: what it is and why.
        symbol: the allowance (or, for a knit, the rule) that blocks read.
        girth: the measure that a knit's share is taken of; empty for none.
        around: how many of it lie all around.
        shown: whether it is ease as makers speak of it.
        by_fit: least, usual and most, in cm all around, by fit.
    """

    key: str
    label: str
    symbol: str
    reason: str
    girth: str
    around: int
    shown: bool
    by_fit: Mapping[str, tuple[float, float, float]]


@dataclass(frozen=True, slots=True)
class Band:
    """What knits of one band of stretch (%) are cut under the body, as shares of the girth."""

    start: float
    end: float
    low: float
    high: float


@cache
def _data() -> dict[str, Any]:
    return tomllib.loads(Path(__file__).with_suffix(".toml").read_text(encoding="utf-8"))


@cache
def levels() -> Mapping[str, Level]:
    """Return the levels by key."""
    return MappingProxyType(
        {
            key: Level(
                key,
                entry["label"],
                entry["symbol"],
                entry["reason"],
                entry.get("girth", ""),
                entry.get("around", 1),
                entry.get("shown", True),
                MappingProxyType({fit: _three(*entry[fit]) for fit in FITS}),
            )
            for key, entry in _data()["level"].items()
        }
    )


def _three(least: float, usual: float, most: float) -> tuple[float, float, float]:
    return float(least), float(usual), float(most)


@cache
def bands() -> tuple[Band, ...]:
    """Return the bands of knits, the least stretch first."""
    return tuple(Band(b["from"], b["to"], *b["share"]) for b in _data()["knit"])


def band_of(cloth: Cloth) -> Band | None:
    """Return a cloth's band; None where it is drafted as a woven."""
    if cloth.kind == Kind.WOVEN:
        return None
    return next((b for b in reversed(bands()) if cloth.stretch >= b.start), None)


def eased(sheet: RuleSheet, fit: str, cloth: Cloth) -> RuleSheet:
    """Return the sheet with the ease of a fit in a cloth.

    Raises:
        UnknownName: there is no such fit.
    """
    if fit not in FITS:
        raise UnknownName(f"There is no fit “{fit}”.", fix=f"Choose {', '.join(FITS)}.", where=("fit",))
    band = band_of(cloth)
    if band is None and cloth.kind != Kind.WOVEN:
        fit = FITS[0] if fit == FITTED else fit
    allowances, rules, order = dict(sheet.allowances), dict(sheet.rules), list(sheet.order)
    for level in levels().values():
        usual = allowances.get(level.symbol)
        if usual is None:
            continue
        if band is None or not level.girth:
            allowances[level.symbol] = _woven(usual, level, fit)
            continue
        del allowances[level.symbol]
        allowances[_SHARE] = _share(band, cloth)
        over = _over_close(usual, level, fit)
        allowances[over.symbol] = over
        rules[level.symbol] = _knit_rule(usual, level, over.symbol)
        order.append(level.symbol)
    return replace(sheet, allowances=allowances, rules=rules, order=tuple(order))


def _woven(usual: Allowance, level: Level, fit: str) -> Allowance:
    low, middle, high = (value / level.around for value in level.by_fit[fit])
    least = min(by[0] for by in level.by_fit.values()) / level.around
    most = max(by[2] for by in level.by_fit.values()) / level.around
    return replace(
        usual,
        default=middle,
        low=min(usual.low, least),
        high=max(usual.high, most),
        usual=(low, high),
        reason=f"{usual.reason} {low:g} to {cm(high, 2)} is usual for a {fit} fit.",
    )


_SHARE = "knit_share"


def _share(band: Band, cloth: Cloth) -> Allowance:
    part = 1.0 if cloth.kind == Kind.KNIT else STRETCH_WOVEN
    along = min((cloth.stretch - band.start) / (band.end - band.start), 1.0)
    return Allowance(
        _SHARE,
        "Cut under the body, as a share of the girth",
        default=round(part * (band.low + (band.high - band.low) * along), 4),
        low=0.0,
        high=0.2,
        unit="",
        reason=f"A {cloth.words} is usually cut {band.low:.0%} to {band.high:.0%} under the body at close fit"
        + (", half of that where it is a woven." if cloth.kind == Kind.STRETCH else "."),
        usual=(part * band.low, part * band.high),
    )


def _over_close(usual: Allowance, level: Level, fit: str) -> Allowance:
    added = level.by_fit[fit][1] - level.by_fit[FITS[0]][1]
    return Allowance(
        f"{level.symbol}_over_close",
        f"{usual.label} over the close fit",
        default=added,
        low=0.0,
        high=max(by[2] for by in level.by_fit.values()),
        unit="cm",
        reason=f"What a {fit} woven has over a close one.",
        draws=usual.draws,
    )


def _knit_rule(usual: Allowance, level: Level, over: str) -> Rule:
    formula = Formula.parse(f"{over} - {_SHARE} * {level.girth}")
    return Rule(level.symbol, usual.label, "Ease", "cm", (Way(formula),), level.reason, usual.source, draws=usual.draws)
