"""Standard names into facts: a block names its corners as the trade does, and here, once, the names become facts."""

from dataclasses import replace
from types import MappingProxyType

from izett.pattern.facts import Corner, Region, Zone
from izett.pattern.piece import Piece

_STANDARD = {str(corner): corner for corner in Corner}


def as_block(piece: Piece, zone: Zone, region: Region) -> Piece:
    """Return a drafted piece with the facts that steps and checks ask for.

    Args:
        piece: as drafted, its vertices called `part.corner` by the standard names.
        zone, region: what of the body it lies on, and which part of the body its block clothes.
    """
    own = {name: name.removeprefix(f"{piece.part}.") for name in piece.vertices}
    corners = {name: _STANDARD[word] for name, word in own.items() if word in _STANDARD}
    return replace(piece, zone=zone, region=region, corners=MappingProxyType(corners))
