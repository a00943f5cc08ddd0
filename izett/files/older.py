"""Files of before facts were written: what things are, read once from the names that the program gave them then.

Only here is meaning taken from a name, for documents that have nothing else. They are read for ever.
"""

from collections.abc import Iterable, Mapping
from dataclasses import replace
from types import MappingProxyType
from typing import Any

from izett.pattern.document import in_words
from izett.pattern.facts import Corner, Layer, Region, Role, SeamKind, Zone
from izett.pattern.piece import Piece, Span, things_on

_CORNERS = {str(corner): corner for corner in Corner}
_SEAMS = {
    "shoulder": SeamKind.SHOULDER,
    "side": SeamKind.SIDE,
    "cap": SeamKind.CAP,
    "waist": SeamKind.WAIST,
    "underarm": SeamKind.UNDERARM,
    "inseam": SeamKind.INSEAM,
    "skirt_side": SeamKind.SIDE,
    "trouser_side": SeamKind.SIDE,
    "knit_skirt_side": SeamKind.SIDE,
    "shirt_side": SeamKind.SIDE,
    "shirt_armhole": SeamKind.CAP,
    "shirt_underarm": SeamKind.UNDERARM,
}
#: The draft parts of then: what of the body they lie on, and which part of it their block clothes.
_PARTS: Mapping[str, tuple[Zone, Region]] = {
    "front": (Zone.FRONT, Region.UPPER),
    "back": (Zone.BACK, Region.UPPER),
    "sleeve": (Zone.SLEEVE, Region.ARM),
    "skirt_front": (Zone.FRONT, Region.SKIRT),
    "skirt_back": (Zone.BACK, Region.SKIRT),
    "knit_skirt": (Zone.BODY, Region.SKIRT),
    "trouser_front": (Zone.FRONT, Region.LEGS),
    "trouser_back": (Zone.BACK, Region.LEGS),
    "shirt_body": (Zone.BODY, Region.UPPER),
    "shirt_sleeve": (Zone.SLEEVE, Region.ARM),
    "shirt_gusset": (Zone.GUSSET, Region.NONE),
}
#: What a step made, by what its title began with.
_LAYERS = {"Facing": Layer.FACING, "Patch pocket": Layer.APPLIED, "Elastic": Layer.STRENGTH}


def with_facts(piece: Piece) -> Piece:
    """Return a piece with the facts that its names say."""
    part = piece.part.split(".", 1)[-1]
    zone, region = _PARTS.get(part, (Zone.ADDED, Region.NONE))
    if piece.title == "Gusset":
        zone = Zone.GUSSET
    layer = next((layer for word, layer in _LAYERS.items() if piece.title.startswith(word)), piece.layer)
    layer = Layer.LINING if piece.title.endswith(", lining") else layer
    corners = {name: _CORNERS[own] for name in piece.vertices if (own := name.rsplit(".", 1)[-1]) in _CORNERS}
    halves = {Role.CAP, Role.UNDERARM}
    edges = tuple(
        replace(e, zone=Zone.FRONT if "front" in e.lineage else Zone.BACK) if e.role in halves else e
        for e in piece.edges
    )
    return replace(piece, zone=zone, region=region, layer=layer, corners=MappingProxyType(corners), edges=edges)


def seam_kind(name: str, sides: Iterable[Iterable[Span]], pieces: Iterable[Piece]) -> SeamKind:
    """Return which seam a seam of that name was: one that a step made was of a piece sewn on, or of a panel."""
    if name in _SEAMS:
        return _SEAMS[name]
    sewn_on = {vertex for piece in pieces if piece.zone is Zone.ADDED for vertex in piece.vertices}
    added = any(span.start in sewn_on for chain in sides for span in chain)
    return SeamKind.ADDED if added else SeamKind.PANEL


def titles(pieces: Iterable[Piece], seams: Iterable[str]) -> dict[str, str]:
    """Return what things were called: by the last part of a name that a step gave, else by the whole of it."""
    drafted = {f"{part}." for part in _PARTS}
    names = [name for piece in pieces for name in things_on(piece)] + list(seams)
    return {
        name: in_words(name if any(name.startswith(p) for p in drafted) else name.rsplit(".", 1)[-1]) for name in names
    }


def allowances_step(cutting: Mapping[str, Any]) -> dict[str, Any] | None:
    """Return the seam allowances that a job had beside its recipe as a step of it; None where they were the usual ones."""
    purpose, lines = cutting.get("purpose", "muslin"), cutting.get("by_lineage") or {}
    if purpose == "muslin" and not lines:
        return None
    params = {"purpose": purpose, "lines": [{"line": line, "width": width} for line, width in lines.items()]}
    return {"uid": "seam-allowances", "kind": "set_allowances", "params": params}
