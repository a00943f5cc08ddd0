"""The ends of a seam: where they lie in words, and at which of them its two sides came to differ."""

from collections.abc import Sequence

from izett.geometry.outline import along_line, gap
from izett.pattern.document import Seam
from izett.pattern.facts import Corner
from izett.pattern.levels import AROUND
from izett.pattern.piece import Span
from izett.pattern.sewn import holding, seam_lengths, walk
from izett.pattern.working import Readable

#: Corners in the maker's words, where these are not their own.
PLACES = {
    Corner.NECK_SHOULDER: "neck point",
    Corner.SHOULDER_TIP: "shoulder tip",
    Corner.WAIST_SIDE: "waist",
    Corner.WAIST_CF: "centre front",
    Corner.WAIST_CB: "centre back",
    Corner.HEM_SIDE: "hem",
    Corner.LINE_START: "upper end",
    Corner.LINE_END: "lower end",
}
#: cm. A level ends on a seam if it ends so near to it.
ON_SEAM = 0.05


def at_end(seam: Seam, end: str) -> tuple[tuple[Span, ...], tuple[str, ...]]:
    """Return the spans of both sides that end at an end of a seam, and the corners there."""
    spans = tuple(side[0 if end == "start" else -1] for side in seam.sides)
    return spans, tuple(getattr(span, end) for span in spans)


def places_of(pattern: Readable, seam: Seam) -> dict[str, str]:
    """Return where both ends of a seam lie; where both have the same name, with the zone that each lies on."""
    corners = {end: at_end(seam, end)[1] for end in ("start", "end")}
    places = {end: _place(pattern, vertices, end) for end, vertices in corners.items()}
    if places["start"] != places["end"]:
        return places
    zones = {end: pattern.find(vertices[0]) for end, vertices in corners.items()}
    return {end: f"{piece.zone.value} {places[end]}" if piece else places[end] for end, piece in zones.items()}


def _place(pattern: Readable, vertices: Sequence[str], end: str) -> str:
    """Return where on a seam one of its ends lies, in the maker's words: the corner of the block, or which end it is."""
    for vertex in vertices:
        piece = pattern.find(vertex)
        corner = piece.corner_at(vertex) if piece is not None else None
        if corner is not None:
            return PLACES.get(corner, corner.value.replace("_", " "))
    return f"{end} of the seam"


def end_words(pattern: Readable, seam: Seam, *, at_start: bool) -> str:
    """Return where an end of a seam lies, in words: the hem, the underarm."""
    return places_of(pattern, seam)["start" if at_start else "end"]


def arose_at_start(pattern: Readable, seam: Seam) -> bool:
    """Return whether the two sides of a seam differ more before the first mark that both have than beyond the last one.

    The marks are the levels that end on both sides; where there is none, its end is meant.
    """
    one, two = (_levels_along(pattern, side) for side in seam.sides)
    both = [(one[level], two[level]) for level in one if level in two]
    if not both:
        return False
    lengths = seam_lengths(pattern, seam)
    first, last = min(both), max(both)
    before = abs(first[0] - first[1])
    beyond_last = abs((lengths[0] - last[0]) - (lengths[1] - last[1]))
    return before > beyond_last


def _levels_along(pattern: Readable, side: tuple[Span, ...]) -> dict[str, float]:
    """Return how far (cm) along a side each level that ends on it lies, as sewn."""
    found: dict[str, float] = {}
    gone = 0.0
    for span in side:
        piece = holding(pattern, span.start)
        for stretch in walk(piece, span):
            points = stretch.open_curve.flattened()
            for line in piece.lines:
                for spot in (line.points[0], line.points[-1]):
                    if line.level in AROUND and gap(points, spot) <= ON_SEAM:
                        found.setdefault(line.level, gone + along_line(points, spot))
            gone += stretch.edge.curve.length
    return found
