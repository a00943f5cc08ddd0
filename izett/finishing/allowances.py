"""Seam allowances: how wide each edge is cut beyond its sewing line, by purpose, adjustable edge by edge.

A fold has none. Allowances differ from edge to edge; where they meet, the corner is clean.
"""

import tomllib
from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cache
from pathlib import Path
from types import MappingProxyType
from typing import Any

from izett.errors import IzettError, UnknownName, ValueOutOfRange
from izett.pattern.document import Closure, Pattern
from izett.pattern.facts import Layer, Role, SeamKind
from izett.pattern.halves import origin
from izett.pattern.piece import Edge, Piece
from izett.pattern.working import Readable
from izett.wording import cm, named

#: cm. The widest allowance that makes sense: bridal sides have 5, a deep hem up to 10.
WIDEST = 10.0
#: What the cloth of a garment is called that is a knit.
KNIT = "knit"


@dataclass(frozen=True, slots=True)
class Purpose:
    """What a sheet is cut for, with the allowances (cm) by role of edge.

    Attributes:
        key, title, reason: what it is called, and why its allowances are as they are.
        by_role: of each role.
        knit: of roles that differ in knit cloth; layers: of those that differ in a layer of the garment.
        zip: what a line takes at least that a zip is set into.
    """

    key: str
    title: str
    reason: str
    by_role: Mapping[Role, float]
    knit: Mapping[Role, float] = field(default_factory=lambda: MappingProxyType({}))
    layers: Mapping[Layer, Mapping[Role, float]] = field(default_factory=lambda: MappingProxyType({}))
    zip: float = 0.0

    def of(self, role: Role, layer: Layer, *, knit: bool) -> float:
        """Return the allowance of a role, in a layer, in knit cloth or woven."""
        for table in (self.layers.get(layer, {}), self.knit if knit else {}):
            if role in table:
                return table[role]
        return self.by_role[role]


@cache
def purposes() -> Mapping[str, Purpose]:
    """Return the purposes by key, the fitting muslin first."""
    data = tomllib.loads(Path(__file__).with_suffix(".toml").read_text(encoding="utf-8"))
    return {
        key: Purpose(
            key,
            entry["title"],
            entry["reason"],
            _by_role(entry),
            _by_role(entry.get("knit", {})),
            MappingProxyType({Layer(layer): _by_role(table) for layer, table in entry.get("layer", {}).items()}),
            float(entry.get("zip", 0)),
        )
        for key, entry in data.items()
    }


def _by_role(table: Mapping[str, Any]) -> Mapping[Role, float]:
    return MappingProxyType({role: float(table[role]) for role in Role if role in table})


@dataclass(frozen=True, slots=True)
class Allowances:
    """The allowances of one sheet: a purpose, and what the maker set for single lines (cm by lineage).

    `knit` says whether the cloth is one, `zips` are the lines that a zip is set into.
    """

    purpose: str = "muslin"
    by_lineage: Mapping[str, float] = field(default_factory=lambda: MappingProxyType({}))
    knit: bool = False
    zips: frozenset[str] = frozenset()

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
        zips = (origin(opening.span.along).name for opening in pattern.openings if opening.closure is Closure.ZIP)
        knit = pattern.intent.cloth == KNIT
        return cls(pattern.allowances.purpose, pattern.allowances.by_lineage, knit, frozenset(zips))

    def of(self, piece: Piece, edge: Edge) -> float:
        """Return an edge's allowance in cm; a fold and a dart's leg have none."""
        if edge.is_leg or edge.lineage == piece.on_fold:
            return 0.0
        line = origin(edge.lineage).name
        if line in self.by_lineage:
            return self.by_lineage[line]
        purpose = purposes()[self.purpose]
        usual = purpose.of(edge.role, piece.layer, knit=self.knit)
        return max(usual, purpose.zip) if line in self.zips else usual


def left_without(pattern: Readable) -> list[tuple[str, float]]:
    """Return the lines that were set to no allowance by hand, each with its usual one, cm.

    A line that a strip is sewn on along is bound, and has none; nor has a pattern without allowances.
    """
    usual = purposes()[pattern.allowances.purpose].by_role
    found: list[tuple[str, float]] = []
    for line in (line for line, width in pattern.allowances.by_lineage.items() if width == 0):
        edges = [e for piece in pattern.pieces for e in piece.edges if origin(e.lineage).name == line and not e.is_leg]
        bound = any(seam.kind is SeamKind.ADDED for e in edges for seam in pattern.seams_along(e.lineage))
        if edges and usual[edges[0].role] > 0 and not bound:
            found.append((line, usual[edges[0].role]))
    return found


def missing(pattern: Pattern) -> list[str]:
    """Return the lines that were left without an allowance and that nobody accepted so: they stop a print."""
    meant = {name for accepted in pattern.accepted for name in accepted.where}
    return [line for line, _ in left_without(pattern) if line not in meant]


def refuse_missing(pattern: Pattern) -> None:
    """Let pass a garment whose lines all have their allowances, or that has none on purpose.

    Raises:
        AllowanceMissing: some were left without.
    """
    lines = missing(pattern)
    if lines:
        raise AllowanceMissing(
            f"No seam allowance at {', '.join(named(line) for line in lines)}: nothing is printed.",
            fix="Give it one, or accept it with a reason; without any allowance, choose “No allowance”.",
            where=tuple(lines),
        )


class AllowanceMissing(IzettError):
    """A line was left without a seam allowance."""

    code = "allowance-missing"
