"""Before a fitting: what is done to the muslin of this garment, the movements to make, what this muslin should answer."""

import tomllib
from dataclasses import dataclass
from functools import cache
from pathlib import Path
from typing import Any

from izett.finishing.allowances import Allowances
from izett.fitting.garment import Fitted, lacks
from izett.pattern.document import Pattern
from izett.pattern.facts import Layer, Role
from izett.rules.worksheet import State


@dataclass(frozen=True, slots=True)
class Item:
    """One thing to see to before the muslin goes on; `needs` are the facts of a garment that is asked for it."""

    key: str
    title: str
    says: str
    needs: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Movement:
    """One movement of a fitting, and what to look at meanwhile."""

    key: str
    says: str


@dataclass(frozen=True, slots=True)
class Sewn:
    """With which allowance (cm) lines of a role are sewn on a muslin."""

    role: Role
    allowance: float


@cache
def _data() -> dict[str, Any]:
    return tomllib.loads(Path(__file__).with_suffix(".toml").read_text(encoding="utf-8"))


@cache
def items() -> tuple[Item, ...]:
    """Return the whole checklist, in the order in which it is gone through."""
    return tuple(Item(**{**entry, "needs": tuple(entry.get("needs", ()))}) for entry in _data()["item"])


@cache
def movements() -> tuple[Movement, ...]:
    """Return the movements of a fitting, in their order."""
    return tuple(Movement(**entry) for entry in _data()["movement"])


def checklist(garment: Fitted) -> list[Item]:
    """Return what is to be seen to before a muslin of this garment goes on."""
    return [item for item in items() if not lacks(garment, item.needs)]


def estimated(garment: Fitted) -> list[str]:
    """Return, by label, the measures of the draft that nobody took: this muslin is their first test."""
    return [line.label for line in garment.evaluation.draft.lines if line.state is State.ESTIMATED]


def sewn_with(pattern: Pattern) -> list[Sewn]:
    """Return the allowances of a muslin's lines by role, the widest first; of a role that has several, the widest."""
    allowances = Allowances.of_pattern(pattern)
    widest: dict[Role, float] = {}
    for piece in pattern:
        if piece.layer is not Layer.OUTER:
            continue
        for edge in piece.edges:
            if not edge.is_leg and edge.lineage != piece.on_fold:
                widest[edge.role] = max(widest.get(edge.role, 0.0), allowances.of(piece, edge))
    return sorted((Sewn(role, cm) for role, cm in widest.items()), key=lambda one: (-one.allowance, one.role))
