"""The recipe: measures, a method with its choices, and an ordered list of steps. Stored as it is; geometry is a result."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from types import MappingProxyType
from typing import Any

from izett.drafting.ease import FITTED, WOVEN, Cloth
from izett.drafting.method import DIRECT
from izett.draping.panel import NOTHING_GIVEN, Given
from izett.pattern.facts import Half
from izett.styling.operation import Section


@dataclass(frozen=True)
class Step:
    """One entry of a recipe.

    Attributes:
        uid: its own name, made once, never reused.
        kind: the operation's key.
        params: the operation's parameters, as plain data.
        on: whether it acts.
        version: the operation's version that the parameters were written for; None for the one that it has now.
        why: the reason, in the maker's words.
        section: where it stands; None leaves it to its kind.
        half: the half of the body that it is for.
    """

    uid: str
    kind: str
    params: Mapping[str, Any]
    on: bool = True
    version: int | None = None
    why: str = ""
    section: Section | None = None
    half: Half = Half.BOTH

    def as_data(self) -> dict[str, Any]:
        """Return the step as plain data, as stored."""
        return {
            "uid": self.uid,
            "kind": self.kind,
            "params": dict(self.params),
            "on": self.on,
            "version": self.version,
            "why": self.why,
            "section": self.section.value if self.section else None,
            "half": self.half.value,
        }


@dataclass(frozen=True)
class Recipe:
    """All that a pattern is worked out from.

    Attributes:
        block: the method's key; empty where the garment is made of given pieces alone.
        measures: what was taken, cm by symbol.
        school: which measures it uses.
        overrides: allowances and rules set for this job, by symbol.
        steps: the changes, in order.
        also: the keys of further blocks that are drafted with it.
        schools: the ways chosen where makers differ otherwise, by the school's key.
        fit, cloth: how close, in what.
        house: the maker's house rules as they stood when the job was opened, by symbol.
        why: the reasons of overrides and house rules, by symbol.
        apart: measures that draft the halves apart: the left and the right in cm by symbol.
        given: pieces from outside, alone or beside the blocks.
    """

    block: str
    measures: Mapping[str, float]
    school: str = DIRECT
    overrides: Mapping[str, float] = field(default_factory=lambda: MappingProxyType({}))
    steps: Sequence[Step] = ()
    also: Sequence[str] = ()
    schools: Mapping[str, str] = field(default_factory=lambda: MappingProxyType({}))
    fit: str = FITTED
    cloth: Cloth = WOVEN
    house: Mapping[str, float] = field(default_factory=lambda: MappingProxyType({}))
    why: Mapping[str, str] = field(default_factory=lambda: MappingProxyType({}))
    apart: Mapping[str, tuple[float, float]] = field(default_factory=lambda: MappingProxyType({}))
    given: Given = NOTHING_GIVEN

    @property
    def blocks(self) -> tuple[str, ...]:
        """The keys of all blocks that are drafted."""
        return tuple(key for key in (self.block, *self.also) if key)

    def measures_of(self, half: Half) -> Mapping[str, float]:
        """Return the body as one half of the garment is drafted for it."""
        side = 1 if half is Half.RIGHT else 0
        return {**self.measures, **{symbol: sides[side] for symbol, sides in self.apart.items()}}

    def drafted_from(self, half: Half = Half.BOTH) -> list[Any]:
        """Return all that the draft of a half depends on, as plain data."""
        return [
            self.block,
            list(self.also),
            dict(self.measures_of(half)),
            [self.school, dict(self.schools), self.fit, self.cloth.kind, self.cloth.stretch],
            [dict(self.overrides), dict(self.house), dict(self.why)],
            self.given.model_dump(mode="json") if self.given.panels else None,
        ]
