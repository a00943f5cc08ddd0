"""What a muslin can show: kinds of findings with their causes, the amounts that are asked for, and their remedies. All data.

One entry of `findings/*.toml` is one kind. It says by facts which garments it can be found on, where on the figure and on
the pieces it lies, and how each remedy comes to its amounts. Common practice, no single source.
"""

import tomllib
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from enum import StrEnum
from functools import cache
from pathlib import Path
from types import MappingProxyType
from typing import Any

from izett.errors import UnknownName
from izett.pattern.facts import Half, Region, Role, Zone
from izett.rules.formula import Formula

#: cm. A remedy comes to what it promises within this, and within a share of it as well.
WITHIN, SHARE_WITHIN = 0.1, 0.06


class Taken(StrEnum):
    """How an amount of cloth was measured: all of it, or as a folded pinch, which is half."""

    WHOLE = "whole"
    PINCH = "pinch"


class Counted(StrEnum):
    """What an amount is counted over: all around the body, one side of it, or one place."""

    AROUND = "around"
    EACH_SIDE = "each_side"
    HERE = "here"


class Outcome(StrEnum):
    """What the next muslin showed of an earlier finding."""

    SOLVED = "solved"
    BETTER = "better"
    SAME = "same"
    WORSE = "worse"
    NOT_LOOKED_AT = "not_looked_at"


class Work(StrEnum):
    """What a paper change is work on, in the order in which it is done.

    Lengths and balance before widths, the shoulder before the sleeve, the bust before the darts, the crotch before the
    legs; bands and hems last, since all else reaches them.
    """

    LENGTH = "length"
    BALANCE = "balance"
    SHOULDER = "shoulder"
    BUST = "bust"
    DART = "dart"
    WIDTH = "width"
    NECK = "neck"
    ARMHOLE = "armhole"
    SLEEVE = "sleeve"
    CROTCH = "crotch"
    LEG = "leg"
    STYLE = "style"
    BAND = "band"
    HEM = "hem"


@dataclass(frozen=True, slots=True)
class StepPlan:
    """A step that a remedy adds: its kind, whether under the style, fixed values (places by facts, see `pointing`), amounts.

    `on_one_half` are values that it has besides where one half alone changes.
    """

    kind: str
    under: bool
    values: Mapping[str, Any]
    amounts: Mapping[str, Formula]
    on_one_half: Mapping[str, Any]


@dataclass(frozen=True, slots=True)
class AmendPlan:
    """A step of the style that a remedy amends: its kind, what its parameters must be, where it acts, amounts and fixed values.

    In the formulas `now` is the amount that stands there, `along` the length in cm of the line that the step names.
    """

    kind: str
    where: Mapping[str, Any]
    region: Region | None
    zone: Zone | None
    amounts: Mapping[str, Formula]
    values: Mapping[str, Any]


@dataclass(frozen=True, slots=True)
class Tells:
    """What a remedy promises: by how much (cm) a reading of the garment changes (see `readings`), and within what."""

    reading: str
    by: Formula
    within: float


@dataclass(frozen=True, slots=True)
class Remedy:
    """A paper change that answers a finding.

    Attributes:
        key, title, reason: its name, what is done, and why so.
        needs: the facts that it needs besides those of the finding.
        sum, sum_label: its arithmetic, and what the result is.
        edges: how many edges it cuts where both halves are changed.
        centre: whether it opens or closes at a centre, where both halves change or neither.
        tells: what it promises.
        steps: what is done to the recipe, in order; none where the pattern is left as it is.
    """

    key: str
    title: str
    reason: str
    needs: tuple[str, ...]
    sum: Formula | None
    sum_label: str
    edges: int
    centre: bool
    tells: tuple[Tells, ...]
    steps: tuple[StepPlan | AmendPlan, ...]

    def edges_on(self, half: Half) -> int:
        """Return how many edges it cuts on both halves, or on one."""
        return self.edges if half is Half.BOTH else max(self.edges // 2, 1)

    @property
    def amends(self) -> bool:
        """Whether it changes a step of the style that is there."""
        return any(isinstance(step, AmendPlan) for step in self.steps)


@dataclass(frozen=True, slots=True)
class Input:
    """An amount that the maker gives.

    Attributes:
        symbol, label: its name in formulas, and in words.
        default, low, high: in cm, or plain where `unit` is empty.
        pinch: whether it may be a folded pinch.
        counted: what it is counted over unless the maker says otherwise.
        needs: the facts without which it is not asked for.
        within: a reading of the garment that it cannot be larger than, or none.
    """

    symbol: str
    label: str
    default: float
    low: float
    high: float
    unit: str = "cm"
    pinch: bool = False
    counted: Counted = Counted.HERE
    needs: tuple[str, ...] = ()
    within: str = ""


@dataclass(frozen=True, slots=True)
class Spot:
    """Where a finding lies on the figure: view, share of the body's width at a level, level."""

    view: str
    across: float
    level: str


@dataclass(frozen=True, slots=True)
class OnPiece:
    """Where a finding lies on the pieces: edges of a role, darts (no role), on a zone or any."""

    zone: Zone | None
    role: Role | None


@dataclass(frozen=True, slots=True)
class House:
    """What of the house's own rules a finding speaks of where it recurs: an ease or a rule, and by how much it is off."""

    symbol: str
    by: Formula


@dataclass(frozen=True, slots=True)
class FindingKind:
    """Something that a muslin shows.

    Attributes:
        key, seen, cause: its name, what is seen, and what usually causes it.
        words: further words by which it is looked for.
        group: the part of the garment under which it is listed.
        needs: the facts of a garment on which it can be found.
        spot, places: where it lies on the figure and on the pieces.
        movement: when it is usually seen.
        work: what its paper change is work on.
        one_half: whether it is always about one half of the body.
        marks: whether it asks for new marks of a line.
        normal: why it may be normal for this cut; empty where it never is.
        inputs, remedies: what is asked for, and what can be done.
        house: the eases that are off where wearer after wearer shows it.
    """

    key: str
    seen: str
    cause: str
    words: str
    group: str
    needs: tuple[str, ...]
    spot: Spot
    places: tuple[OnPiece, ...]
    movement: str
    work: Work
    one_half: bool
    marks: bool
    normal: str
    inputs: tuple[Input, ...]
    remedies: tuple[Remedy, ...]
    house: tuple[House, ...]

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


@cache
def finding_kinds() -> Mapping[str, FindingKind]:
    """Return the kinds of finding by key, in the order of the garment's parts."""
    found: dict[str, FindingKind] = {}
    for path in sorted((Path(__file__).parent / "findings").glob("*.toml")):
        data = tomllib.loads(path.read_text(encoding="utf-8"))
        for entry in data["finding"]:
            if entry["key"] in found:
                raise ValueError(f"two findings use the key {entry['key']}")
            found[entry["key"]] = _kind(entry, data["group"])
    return MappingProxyType(found)


def finding_kind(key: str) -> FindingKind:
    """Return a kind of finding.

    Raises:
        UnknownName: there is none of that name.
    """
    kinds = finding_kinds()
    if key not in kinds:
        raise UnknownName(f"There is no finding “{key}”.", fix="Choose one from the list.", where=(key,))
    return kinds[key]


def looked_for(words: str) -> Iterator[FindingKind]:
    """Yield the kinds in whose words all that is typed is found."""
    wanted = words.casefold().split()
    for kind in finding_kinds().values():
        text = " ".join((kind.seen, kind.cause, kind.words, *(r.title for r in kind.remedies))).casefold()
        if all(word in text for word in wanted):
            yield kind


def _kind(entry: Mapping[str, Any], group: str) -> FindingKind:
    return FindingKind(
        key=entry["key"],
        seen=entry["seen"],
        cause=entry["cause"],
        words=entry.get("words", ""),
        group=group,
        needs=tuple(entry.get("needs", ())),
        spot=Spot(**entry["spot"]),
        places=tuple(
            OnPiece(Zone(on["zone"]) if "zone" in on else None, Role(on["role"]) if "role" in on else None)
            for on in entry.get("on", ())
        ),
        movement=entry.get("movement", "stand"),
        work=Work(entry["work"]),
        one_half=entry.get("one_half", False),
        marks=entry.get("marks", False),
        normal=entry.get("normal", ""),
        inputs=tuple(_input(item) for item in entry.get("input", ())),
        remedies=tuple(_remedy(item) for item in entry.get("remedy", ())),
        house=tuple(House(one["symbol"], Formula.parse(one["by"])) for one in entry.get("house", ())),
    )


def _input(entry: Mapping[str, Any]) -> Input:
    return Input(**{**entry, "counted": Counted(entry.get("counted", "here")), "needs": tuple(entry.get("needs", ()))})


def _remedy(entry: Mapping[str, Any]) -> Remedy:
    return Remedy(
        key=entry["key"],
        title=entry["title"],
        reason=entry["reason"],
        needs=tuple(entry.get("needs", ())),
        sum=Formula.parse(entry["sum"]) if "sum" in entry else None,
        sum_label=entry.get("sum_label", ""),
        edges=entry.get("edges", 2),
        centre=entry.get("centre", False),
        tells=tuple(
            Tells(one["reading"], Formula.parse(one["by"]), one.get("within", WITHIN)) for one in entry.get("tells", ())
        ),
        steps=tuple(_step(one) for one in entry.get("steps", ())),
    )


def _step(entry: Mapping[str, Any]) -> StepPlan | AmendPlan:
    amounts = {name: Formula.parse(text) for name, text in entry.get("amounts", {}).items()}
    if "amend" in entry:
        return AmendPlan(
            entry["amend"],
            entry.get("where", {}),
            Region(entry["region"]) if "region" in entry else None,
            Zone(entry["zone"]) if "zone" in entry else None,
            amounts,
            entry.get("values", {}),
        )
    return StepPlan(
        entry["kind"], entry.get("under", True), entry.get("values", {}), amounts, entry.get("on_one_half", {})
    )
