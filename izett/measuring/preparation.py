"""What to prepare before the tape."""

import tomllib
from dataclasses import dataclass
from functools import cache
from pathlib import Path


@dataclass(frozen=True, slots=True)
class Preparation:
    """One thing to do before measuring."""

    key: str
    title: str
    says: str


@cache
def preparation() -> tuple[Preparation, ...]:
    """Return the preparations of `preparation.toml`, in order."""
    data = tomllib.loads(Path(__file__).with_suffix(".toml").read_text(encoding="utf-8"))
    return tuple(Preparation(**entry) for entry in data["item"])
