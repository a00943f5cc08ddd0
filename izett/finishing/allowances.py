"""Seam allowances: how wide each edge is cut beyond its sewing line, by purpose, adjustable edge by edge.

A fold has none. Allowances differ from edge to edge; where they meet, the corner is clean.
"""

import tomllib
from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cache
from pathlib import Path
from types import MappingProxyType

from izett.errors import UnknownName, ValueOutOfRange
from izett.pattern.document import Pattern
from izett.pattern.facts import Role
from izett.pattern.halves import origin
from izett.pattern.piece import Edge, Piece
from izett.wording import cm, named

#: cm. The widest allowance that makes sense: bridal sides have 5, a deep hem up to 10.
WIDEST = 10.0


@dataclass(frozen=True, slots=True)
class Purpose:
    """What a sheet is cut for, with the allowances (cm) by role of edge."""

    key: str
    title: str
    reason: str
    by_role: Mapping[Role, float]


@cache
def purposes() -> Mapping[str, Purpose]:
    """Return the purposes by key, the fitting muslin first."""
    data = tomllib.loads(Path(__file__).with_suffix(".toml").read_text(encoding="utf-8"))
    return {
        key: Purpose(
            key,
            entry["title"],
            entry["reason"],
            MappingProxyType({role: float(entry[role]) for role in Role if role in entry}),
        )
        for key, entry in data.items()
    }


@dataclass(frozen=True, slots=True)
class Allowances:
    """The allowances of one sheet: a purpose, and what the maker set for single lines (cm by lineage)."""

    purpose: str = "muslin"
    by_lineage: Mapping[str, float] = field(default_factory=lambda: MappingProxyType({}))

    def __post_init__(self) -> None:
        if self.purpose not in purposes():
            raise UnknownName(
                f"There is no purpose “{self.purpose}”.",
                fix=f"Choose one of {', '.join(purposes())}.",
                where=(self.purpose,),
            )
        for lineage, width in self.by_lineage.items():
            if not 0 <= width <= WIDEST:
                raise ValueOutOfRange(
                    f"A seam allowance of {cm(width, 2)} at {named(lineage)} is outside 0 to {cm(WIDEST, 2)}.",
                    fix="Choose a width in that range.",
                    where=(lineage,),
                )

    @classmethod
    def of_pattern(cls, pattern: Pattern) -> "Allowances":
        """Return the allowances that a garment's sheets are cut with.

        Raises:
            UnknownName, ValueOutOfRange: a file says a purpose or a width that there is not.
        """
        return cls(pattern.allowances.purpose, pattern.allowances.by_lineage)

    def of(self, piece: Piece, edge: Edge) -> float:
        """Return an edge's allowance in cm; a fold and a dart's leg have none."""
        if edge.is_leg or edge.lineage == piece.on_fold:
            return 0.0
        line = origin(edge.lineage).name
        if line in self.by_lineage:
            return self.by_lineage[line]
        return purposes()[self.purpose].by_role[edge.role]
