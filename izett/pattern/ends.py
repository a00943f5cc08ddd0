"""The ends of a seam: where they lie in words, and at which of them its two sides came to differ."""

from collections.abc import Sequence

from izett.geometry.outline import along_line, gap
from izett.pattern.document import Seam
from izett.pattern.facts import Corner, Role
from izett.pattern.levels import AROUND
from izett.pattern.naming import readable
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


#: What else an end of a line is called, where it needs no telling apart from the other end of a seam.
ENDS = {
    **PLACES,
    Corner.HEM_CF: "hem",
    Corner.HEM_CB: "hem",
    Corner.HEM_INSEAM: "hem",
    Corner.NECK_CF: "centre front",
    Corner.NECK_CB: "centre back",
    Corner.UNDERARM_FRONT: "underarm",
    Corner.UNDERARM_BACK: "underarm",
    Corner.CAP_TOP: "top of the cap",
    Corner.WRIST_FRONT: "wrist",
    Corner.WRIST_BACK: "wrist",
    Corner.HIP_SIDE: "hip",
    Corner.BUST_SIDE: "bust dart",
}
#: Corners whose words say at which end of the body a line ends, by the lines for which they do: a hem ends at a side.
OTHERWISE = {
    (Corner.HEM_SIDE, Role.HEM): "side",
    (Corner.HEM_CF, Role.HEM): "centre front",
    (Corner.HEM_CB, Role.HEM): "centre back",
    (Corner.HEM_INSEAM, Role.HEM): "inseam",
    (Corner.WAIST_SIDE, Role.WAIST): "side",
    (Corner.WAIST_CF, Role.CENTRE_FRONT): "waist",
    (Corner.WAIST_CB, Role.CENTRE_BACK): "waist",
    (Corner.NECK_CF, Role.CENTRE_FRONT): "neck",
    (Corner.NECK_CB, Role.CENTRE_BACK): "neck",
    (Corner.WRIST_FRONT, Role.HEM): "front",
    (Corner.WRIST_BACK, Role.HEM): "back",
}


def line_end_words(pattern: Readable, vertex: str, along: str) -> str:
    """Return where an end of a line lies, in words: a corner of the block, or the line that it meets there."""
    piece = pattern.find(vertex)
    if piece is None:
        return "end"
    at = piece.aliases.get(vertex, vertex)
    role = next((edge.role for edge in piece.edges if edge.lineage == along), None)
    corner = piece.corner_at(vertex)
    if corner is not None and corner not in (Corner.LINE_START, Corner.LINE_END):
        by_line = OTHERWISE.get((corner, role)) if role is not None else None
        return by_line or ENDS.get(corner, corner.value.replace("_", " "))
    meets = (e.lineage for e in piece.edges if at in (e.start, e.end) and not e.is_leg and e.lineage != along)
    other = next(meets, None)
    return readable(other) if other is not None else "end"


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
