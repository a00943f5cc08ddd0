"""Places of a remedy, found on this garment by facts: which dart, which line, which seam is meant.

In the data a place is written as what it is: `{ find = "dart", zone = "front", family = "bust" }`. One thing is found, or the
one that was pointed at; where several fit and none was pointed at, the maker is asked to point.
"""

from collections.abc import Callable, Mapping, Sequence
from types import MappingProxyType
from typing import Any, NamedTuple

from izett.errors import ReferenceLost, StepRefused
from izett.fitting.garment import Fitted, panel_seams
from izett.fitting.marked import Marked, drawn_anew, marked_piece, parts_of
from izett.pattern.document import Pattern
from izett.pattern.facts import Corner, Half, Region, Role, SeamKind, Zone
from izett.pattern.halves import origin
from izett.pattern.piece import Piece, Span, opens_on
from izett.pattern.worn import is_body
from izett.styling.blocks import line_of

#: How the data says that a step draws the line that was marked.
MARKED = "marked"


class Pointed(NamedTuple):
    """What the maker pointed at on the table: a piece, a line of it or nothing more, and new marks of that line."""

    piece: str
    line: str = ""
    marked: Marked | None = None


def placed(
    values: Mapping[str, Any], fitted: Fitted, *, under: bool, at: Pointed | None = None, half: Half = Half.BOTH
) -> dict[str, Any]:
    """Return fixed values of a step with its places found; all of them, where the step draws what was marked.

    Args:
        values: as the data has them.
        fitted: the garment.
        under: whether the step goes under the style, and acts on the source pieces.
        at: what was pointed at.
        half: the half that it is about.

    Raises:
        ReferenceLost: this garment does not have such a place.
        StepRefused: it has several, and none was pointed at.
    """
    if values.get("find") == MARKED:
        assert at is not None and at.marked is not None
        piece, line, own = marked_on(fitted, at, half)
        source = fitted.evaluation.source_of(own)
        return drawn_anew(at.marked, piece, line, source if under else None)
    pattern = fitted.source if under else fitted.final

    def found(value: Any) -> Any:
        if isinstance(value, Mapping) and "find" in value:
            return FINDERS[value["find"]](pattern, value, at)
        return value

    return {name: found(value) for name, value in values.items()}


def marked_on(fitted: Fitted, at: Pointed, half: Half) -> tuple[Piece, str, Half]:
    """Return the piece and the line that were pointed at, by their names on their half, and that half.

    Raises:
        ReferenceLost: the garment does not have such a piece or line.
    """
    line = origin(at.line)
    # A line of the right half was marked there, whichever half is drawn.
    own = line.half if line.half is Half.RIGHT else half
    piece = marked_piece(fitted.evaluation.half(own), origin(at.piece).name)
    parts_of(piece, line.name)
    return piece, line.name, own


def _region(wish: Mapping[str, Any]) -> Region:
    return Region(wish.get("region", Region.UPPER))


def _dart(pattern: Pattern, wish: Mapping[str, Any], at: Pointed | None) -> str:
    """Return the name of one dart, or of the family where all are meant."""
    zone, opens = Zone(wish["zone"]), Role(wish["opens"])
    regions = [Region(one) for one in wish.get("regions", (_region(wish),))]
    for region in regions:
        for piece in pattern.of_block((zone, region)):
            darts = [dart for dart in piece.darts if opens_on(piece, dart) is opens]
            if not darts:
                continue
            if wish.get("all"):
                return f"{piece.part}.{darts[0].family}"
            pointed = [dart for dart in darts if at is not None and at.line == dart.name]
            # Of two bust darts, or two darts of a waist, the one nearest to the bust point or to the centre is the first.
            return (pointed or darts)[0].name
    raise ReferenceLost(
        f"The {zone.value} has no dart that opens at the {opens.value}.",
        fix="Choose another remedy, or put the dart there first.",
        where=(zone.value, opens.value),
    )


def _line(pattern: Pattern, wish: Mapping[str, Any]) -> Span:
    for region in wish.get("regions", (_region(wish),)):
        ends = (Corner(wish["from"]), Corner(wish["to"]))
        try:
            return line_of(pattern, Zone(wish["zone"]), Role(wish["role"]), ends, Region(region))
        except ReferenceLost as error:
            lost = error
    raise lost


def _span(pattern: Pattern, wish: Mapping[str, Any], _at: Pointed | None) -> dict[str, Any]:
    line = _line(pattern, wish)
    return {"start": line.start, "end": line.end, "along": line.along}


def _point(pattern: Pattern, wish: Mapping[str, Any], at: Pointed | None) -> dict[str, Any]:
    return {**_span(pattern, wish, at), "fraction": wish["at"]}


def _lineage(pattern: Pattern, wish: Mapping[str, Any], _at: Pointed | None) -> str:
    zone, role = Zone(wish["zone"]), Role(wish["role"])
    regions = [Region(one) for one in wish.get("regions", (_region(wish),))]
    for piece in pattern:
        if piece.zone is zone and piece.region in regions and is_body(piece):
            for edge in piece.edges:
                if edge.role is role and edge.lineage != piece.on_fold:
                    return edge.lineage
    raise ReferenceLost(
        f"The {zone.value} has no {role.value.replace('_', ' ')} with a seam.",
        fix="Part the piece there first, or choose another remedy.",
        where=(zone.value, role.value),
    )


def _seam(pattern: Pattern, wish: Mapping[str, Any], at: Pointed | None) -> str:
    if wish["kind"] == SeamKind.PANEL:
        names = list(panel_seams(pattern, Zone(wish["zone"])))
    else:
        region = Region(wish["region"]) if "region" in wish else None
        names = [
            seam.name
            for seam in pattern.seams_of(SeamKind(wish["kind"]))
            if region is None or _lies_on(pattern, seam.sides, region)
        ]
    pointed = [name for name in names if at is not None and at.line and _runs_along(pattern, name, at.line)]
    if pointed or len(names) == 1 or (names and wish.get("first")):
        return (pointed or names)[0]
    if names:
        raise StepRefused(
            f"There are {len(names)} such seams.",
            fix="Point at the one that is meant on the table.",
            where=tuple(names),
        )
    raise ReferenceLost(
        f"The garment has no {wish['kind']} seam there.", fix="Choose another remedy.", where=(str(wish["kind"]),)
    )


def _lies_on(pattern: Pattern, sides: Sequence[Sequence[Span]], region: Region) -> bool:
    piece = pattern.find(sides[0][0].start)
    return piece is not None and piece.region is region


def _runs_along(pattern: Pattern, name: str, line: str) -> bool:
    seam = pattern.find_seam(name)
    return seam is not None and any(span.along == line for side in seam.sides for span in side)


FINDERS: Mapping[str, Callable[[Pattern, Mapping[str, Any], Pointed | None], Any]] = MappingProxyType(
    {"dart": _dart, "line": _span, "point": _point, "lineage": _lineage, "seam": _seam}
)
