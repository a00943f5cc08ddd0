"""Readings of a garment by which a remedy says what it changes, all from the outlines as sewn.

Those around the body are of the whole garment; the others are of one half, in cm.
"""

from collections.abc import Callable, Iterator, Mapping
from types import MappingProxyType

from izett.errors import ReferenceLost
from izett.pattern.document import Pattern
from izett.pattern.facts import Corner, Half, Region, Role, SeamKind, Zone
from izett.pattern.piece import Piece, mouth_width, opens_on
from izett.pattern.sewn import seam_lengths
from izett.pattern.worn import hem_width, is_body, is_sleeve, narrowest, on_body, place_width, width
from izett.recipe.evaluation import Evaluation

Reading = Callable[[Pattern], float]


def _around(level: str) -> Reading:
    return lambda pattern: width(pattern, level)


def _pieces(pattern: Pattern, zone: Zone | None, *regions: Region) -> Iterator[Piece]:
    for piece in pattern:
        if on_body(piece) and piece.region in regions and zone in (None, piece.zone):
            yield piece


def _long(zone: Zone | None, regions: tuple[Region, ...], *roles: Role) -> Reading:
    """Return how long all edges of some roles are, darts left out."""
    return lambda pattern: sum(
        edge.curve.length for piece in _pieces(pattern, zone, *regions) for edge in piece.edges if edge.role in roles
    )


def _between(zone: Zone, upper: Corner, lower: Corner) -> Reading:
    """Return how much higher one corner lies than another."""

    def read(pattern: Pattern) -> float:
        heights = {}
        for piece in _pieces(pattern, zone, Region.UPPER):
            for corner in (upper, lower):
                if (name := piece.corner(corner)) is not None:
                    heights[corner] = piece.vertex(name)[1]
        return heights[upper] - heights[lower] if len(heights) == 2 else 0.0

    return read


def _darts(zone: Zone, opens: Role, *regions: Region) -> Reading:
    """Return what the darts of a zone that open on edges of a role take in together."""

    def read(pattern: Pattern) -> float:
        found = 0.0
        for piece in _pieces(pattern, zone, *regions):
            for dart in piece.darts:
                if opens_on(piece, dart) is opens:
                    found += mouth_width(piece, dart)
        return found

    return read


def _cap_ease(pattern: Pattern) -> float:
    for seam in pattern.seams_of(SeamKind.CAP):
        try:
            armhole, cap = seam_lengths(pattern, seam)
        except ReferenceLost:
            continue
        return cap - armhole
    return 0.0


def _sleeve_hem(pattern: Pattern) -> float:
    return sum(e.curve.length for p in pattern if on_body(p) and is_sleeve(p) for e in p.edges if e.role is Role.HEM)


def _cap_height(pattern: Pattern) -> float:
    for piece in pattern:
        if on_body(piece) and is_sleeve(piece) and (top := piece.corner(Corner.CAP_TOP)) is not None:
            base = [piece.vertex(e.start)[1] for e in piece.edges if e.role is Role.CAP]
            return piece.vertex(top)[1] - min(base)
    return 0.0


def _apex(axis: int) -> Reading:
    def read(pattern: Pattern) -> float:
        spots = [piece.marks["apex"] for piece in pattern if "apex" in piece.marks]
        return spots[0][axis] if spots else 0.0

    return read


def _bands(kind: str) -> Reading:
    """Return how long each strip is that is called by a word, whole."""
    return lambda pattern: sum(
        (max(x for x, _ in p.outline()) - min(x for x, _ in p.outline())) * (2 if p.on_fold else 1)
        for p in pattern
        if p.zone is Zone.ADDED and kind in p.title.casefold()
    )


def _armhole(pattern: Pattern) -> float:
    return sum(e.curve.length for p in pattern if is_body(p) for e in p.edges if e.role is Role.ARMHOLE)


UPPER, SKIRT, LEGS = (Region.UPPER,), (Region.SKIRT,), (Region.LEGS,)
BELOW = (Region.SKIRT, Region.LEGS)
#: Readings of the whole garment, by name.
WHOLE: Mapping[str, Reading] = MappingProxyType(
    {
        "around the bust": _around("bust"),
        "around the waist": _around("waist"),
        "around the hip": _around("hip"),
        "across the back": lambda pattern: narrowest(pattern, Zone.BACK),
        "across the front": lambda pattern: narrowest(pattern, Zone.FRONT),
        "around the hem": hem_width,
    }
)
#: Readings of one half, by name.
HALF: Mapping[str, Reading] = MappingProxyType(
    {
        "neck": lambda pattern: place_width(pattern, "neck"),
        "shoulder": lambda pattern: place_width(pattern, "shoulder"),
        "shoulder drop in front": _between(Zone.FRONT, Corner.NECK_SHOULDER, Corner.SHOULDER_TIP),
        "armhole": _armhole,
        "underarm in front": _between(Zone.FRONT, Corner.UNDERARM, Corner.WAIST_SIDE),
        "underarm behind": _between(Zone.BACK, Corner.UNDERARM, Corner.WAIST_SIDE),
        "centre front": _long(Zone.FRONT, UPPER, Role.CENTRE_FRONT),
        "centre back": _long(Zone.BACK, UPPER, Role.CENTRE_BACK),
        "side behind": _long(Zone.BACK, UPPER, Role.SIDE),
        "neck depth in front": _between(Zone.FRONT, Corner.NECK_SHOULDER, Corner.NECK_CF),
        "bust dart": _darts(Zone.FRONT, Role.SIDE, Region.UPPER),
        "front waist darts": _darts(Zone.FRONT, Role.WAIST, Region.UPPER),
        "back waist darts": _darts(Zone.BACK, Role.WAIST, Region.UPPER),
        "shoulder dart": _darts(Zone.BACK, Role.SHOULDER, Region.UPPER),
        "front darts below": _darts(Zone.FRONT, Role.WAIST, *BELOW),
        "back darts below": _darts(Zone.BACK, Role.WAIST, *BELOW),
        "bust point out": _apex(0),
        "bust point up": _apex(1),
        "centre front below": _long(Zone.FRONT, BELOW, Role.CENTRE_FRONT, Role.CROTCH),
        "centre back below": _long(Zone.BACK, BELOW, Role.CENTRE_BACK, Role.CROTCH),
        "side below": _long(Zone.BACK, BELOW, Role.SIDE),
        "front crotch": _long(Zone.FRONT, LEGS, Role.CROTCH),
        "back crotch": _long(Zone.BACK, LEGS, Role.CROTCH),
        "inseam": _long(Zone.BACK, LEGS, Role.INSEAM),
        "leg hem": _long(None, LEGS, Role.HEM),
        "bicep": lambda pattern: width(pattern, "bicep"),
        "elbow": lambda pattern: width(pattern, "elbow"),
        "sleeve hem": _sleeve_hem,
        "sleeve seam": _long(None, (Region.ARM,), Role.UNDERARM),
        "cap height": _cap_height,
        "cap ease": _cap_ease,
        "neckband": _bands("neckband"),
        "hem band": _bands("hem band"),
        "cuff": _bands("cuff"),
    }
)
#: What formulas call a reading of the garment; with `_under` it is read under the style.
IN_FORMULAS: Mapping[str, tuple[str, bool]] = MappingProxyType(
    {name.replace(" ", "_") + mark: (name, bool(mark)) for name in (*WHOLE, *HALF) for mark in ("", "_under")}
)


def reading(evaluation: Evaluation, name: str, half: Half = Half.BOTH, *, under: bool = False) -> float:
    """Return a reading of a garment in cm: around it, or of a half (the left where both are meant).

    Args:
        evaluation: the garment.
        name: of the reading.
        half: the half that is read.
        under: read on the source pieces, under the style.
    """
    if name in WHOLE:
        return WHOLE[name](evaluation.source if under else evaluation.pattern)
    return HALF[name](evaluation.source_of(half) if under else evaluation.half(half))
