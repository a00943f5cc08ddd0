"""Where a block's corners and lines lie now: asked for by what they are, whatever they are called and however they were cut."""

from izett.errors import ReferenceLost
from izett.pattern.facts import Corner, Region, Role, Zone
from izett.pattern.piece import Piece, Span
from izett.pattern.working import Readable


def corner_of(garment: Readable, zone: Zone, corner: Corner, region: Region = Region.UPPER) -> tuple[Piece, str]:
    """Return the piece that has a corner of a block, and the corner's name.

    Raises:
        ReferenceLost: the garment does not have it (any more).
    """
    for piece in garment.of_block((zone, region)):
        if (name := piece.corner(corner)) is not None:
            return piece, name
    words = str(corner).replace("_", " ")
    raise ReferenceLost(
        f"The {zone.value} has no {words}.",
        fix="Add the block that has it, or put this step before the one that cut it away.",
        where=(str(zone), str(corner)),
    )


def line_of(
    garment: Readable, zone: Zone, role: Role, ends: tuple[Corner, Corner], region: Region = Region.UPPER
) -> Span:
    """Return a line of a block from one corner to another; where cuts parted it, over all its parts.

    Raises:
        ReferenceLost: the garment does not have it (any more).
    """
    piece, start = corner_of(garment, zone, ends[0], region)
    _, end = corner_of(garment, zone, ends[1], region)
    at = piece.aliases.get(start, start)
    along = next((e.lineage for e in piece.edges if e.role is role and at in (e.start, e.end)), None)
    if along is None:
        raise ReferenceLost(
            f"The {zone.value} has no {role.value.replace('_', ' ')} there.",
            fix="Put this step before the one that cut it away.",
            where=(str(zone), str(role)),
        )
    return Span(start, end, along)
