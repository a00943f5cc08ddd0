"""Findings of a fitting and their remedies: data, with the arithmetic worked out into steps.

What is pinned on one muslin becomes amounts on edges: a folded pinch is half of the cloth, a girth is shared over
the edges that are cut. Each remedy says its sum before it is applied.
"""

import tomllib
from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import StrEnum
from functools import cache
from pathlib import Path
from types import MappingProxyType
from typing import Any

from izett.errors import UnknownName, ValueOutOfRange
from izett.pattern.facts import Half
from izett.rules.formula import Formula
from izett.wording import cm

#: What formulas call the number of edges that a remedy cuts.
EDGES = "edges"


class Taken(StrEnum):
    """How an amount of cloth was measured."""

    WHOLE = "whole"
    PINCH = "pinch"


class Outcome(StrEnum):
    """What the next muslin showed of an earlier finding."""

    SOLVED = "solved"
    BETTER = "better"
    SAME = "same"
    WORSE = "worse"
    NOT_LOOKED_AT = "not_looked_at"


@dataclass(frozen=True, slots=True)
class Input:
    """An amount that the maker gives, in cm; `pinch` says that it may be a folded pinch."""

    symbol: str
    label: str
    default: float
    low: float
    high: float
    pinch: bool


@dataclass(frozen=True, slots=True)
class StepPlan:
    """A step of a remedy: its kind, fixed values, and amounts as formulas over the inputs."""

    kind: str
    values: Mapping[str, Any]
    amounts: Mapping[str, Formula]


@dataclass(frozen=True, slots=True)
class Remedy:
    """A paper change that answers a finding; `edges` is how many it cuts where both halves are changed."""

    key: str
    title: str
    reason: str
    sum: Formula
    sum_label: str
    edges: int
    follows: tuple[str, ...]
    steps: tuple[StepPlan, ...]

    def edges_on(self, half: Half) -> int:
        """Return how many edges it cuts on both halves, or on one."""
        return self.edges if half is Half.BOTH else max(self.edges // 2, 1)


@dataclass(frozen=True, slots=True)
class Spot:
    """Where a finding lies on the figure: view, share of the body's width at a level, level."""

    view: str
    across: float
    level: str


@dataclass(frozen=True, slots=True)
class FindingKind:
    """Something that a muslin shows."""

    key: str
    seen: str
    cause: str
    spot: Spot
    movement: str
    inputs: tuple[Input, ...]
    remedies: tuple[Remedy, ...]

    def remedy(self, key: str) -> Remedy:
        """Return a remedy by key.

        Raises:
            UnknownName: the finding has none of that name.
        """
        for remedy in self.remedies:
            if remedy.key == key:
                return remedy
        raise UnknownName(
            f"“{self.seen}” has no remedy “{key}”.",
            fix=f"Available: {', '.join(r.key for r in self.remedies)}.",
            where=(key,),
        )


@dataclass(frozen=True, slots=True)
class Worked:
    """A remedy with its amounts worked out.

    Attributes:
        remedy: the remedy.
        steps: kind and parameters of each step (lengths in cm).
        sum_text: the arithmetic with the numbers put in.
        sum_value: its result.
    """

    remedy: Remedy
    steps: tuple[tuple[str, dict[str, Any]], ...]
    sum_text: str
    sum_value: float
    whole: Mapping[str, float] = field(default_factory=dict)


@cache
def finding_kinds() -> Mapping[str, FindingKind]:
    """Return the kinds of finding by key."""
    data = tomllib.loads((Path(__file__).parent / "findings.toml").read_text(encoding="utf-8"))
    return MappingProxyType({entry["key"]: _kind(entry) for entry in data["finding"]})


def finding_kind(key: str) -> FindingKind:
    """Return a kind of finding.

    Raises:
        UnknownName: there is none of that name.
    """
    kinds = finding_kinds()
    if key not in kinds:
        raise UnknownName(f"There is no finding “{key}”.", fix="Choose one from the list.", where=(key,))
    return kinds[key]


def whole_amounts(kind: FindingKind, given: Mapping[str, float], taken: Taken) -> dict[str, float]:
    """Return each input as whole cloth in cm.

    Raises:
        UnknownName: an amount is given that the finding does not ask for.
        ValueOutOfRange: an amount lies outside its range.
    """
    known = {entry.symbol: entry for entry in kind.inputs}
    for symbol in given:
        if symbol not in known:
            raise UnknownName(
                f"“{kind.seen}” does not ask for “{symbol}”.",
                fix=f"Needed: {', '.join(known)}.",
                where=(symbol,),
            )
    whole: dict[str, float] = {}
    for symbol, entry in known.items():
        taken_in = given.get(symbol, entry.default)
        if not entry.low <= taken_in <= entry.high:
            raise ValueOutOfRange(
                f"{entry.label}: {cm(taken_in, 2)} is outside {cm(entry.low, 2)} to {cm(entry.high, 2)}.",
                fix="Measure the pin again; larger changes are better made in two rounds.",
                where=(symbol,),
            )
        whole[symbol] = taken_in * 2 if entry.pinch and taken is Taken.PINCH else taken_in
    return whole


def worked(
    kind: FindingKind,
    remedy: Remedy,
    given: Mapping[str, float],
    taken: Taken = Taken.WHOLE,
    half: Half = Half.BOTH,
) -> Worked:
    """Return a remedy with its amounts worked out from what was pinned, on both halves or all of it on one.

    Raises:
        UnknownName, ValueOutOfRange: as `whole_amounts`.
    """
    whole = whole_amounts(kind, given, taken)
    values = {**whole, EDGES: float(remedy.edges_on(half))}
    steps = tuple(
        (
            plan.kind,
            {**plan.values, **{name: formula.evaluate(values) for name, formula in plan.amounts.items()}},
        )
        for plan in remedy.steps
    )
    return Worked(remedy, steps, remedy.sum.worked(values, _shown), remedy.sum.evaluate(values), whole)


def _shown(symbol: str, value: float) -> str:
    return f"{value:g}" if symbol == EDGES else cm(value, 2)


def _kind(entry: dict[str, Any]) -> FindingKind:
    return FindingKind(
        entry["key"],
        entry["seen"],
        entry["cause"],
        Spot(**entry["spot"]),
        entry["movement"],
        tuple(Input(**item) for item in entry["input"]),
        tuple(_remedy(item) for item in entry["remedy"]),
    )


def _remedy(entry: dict[str, Any]) -> Remedy:
    steps = tuple(
        StepPlan(
            step["kind"],
            step["values"],
            {name: Formula.parse(text) for name, text in step["amounts"].items()},
        )
        for step in entry["steps"]
    )
    return Remedy(
        entry["key"],
        entry["title"],
        entry["reason"],
        Formula.parse(entry["sum"]),
        entry["sum_label"],
        entry["edges"],
        tuple(entry["follows"]),
        steps,
    )
