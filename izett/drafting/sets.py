"""Starter sets: what is often drafted together, with the fit and cloth that it is meant for. The sets stand in sets.toml."""

import tomllib
from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache
from pathlib import Path
from types import MappingProxyType

from izett.drafting.ease import FITTED, Cloth, Kind


@dataclass(frozen=True, slots=True)
class StarterSet:
    """Blocks that are drafted together; all of it can be changed later."""

    key: str
    title: str
    reason: str
    blocks: tuple[str, ...]
    fit: str
    cloth: Cloth


@cache
def starter_sets() -> Mapping[str, StarterSet]:
    """Return the starter sets by key, the usual one first."""
    data = tomllib.loads(Path(__file__).with_suffix(".toml").read_text(encoding="utf-8"))
    return MappingProxyType(
        {
            key: StarterSet(
                key,
                entry["title"],
                entry["reason"],
                tuple(entry["blocks"]),
                entry.get("fit", FITTED),
                Cloth(entry.get("cloth", Kind.WOVEN.value), float(entry.get("stretch", 0.0))),
            )
            for key, entry in data.items()
        }
    )
