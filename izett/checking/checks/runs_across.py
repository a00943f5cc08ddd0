"""Lines run across seams: where a seam ends, the lines on both pieces go on into each other without a corner.

Neckline and armhole across the shoulder, armhole and waist across the side: the two pieces' angles add to 180°.
Common practice, no single source.
"""

from collections.abc import Iterator
from math import degrees

from izett.checking.check import Check, CheckParams, Finding, Garment, Mend, Verdict, tolerance, verdict
from izett.errors import ReferenceLost
from izett.geometry.point import turn
from izett.pattern.document import Pattern, Role, Span
from izett.pattern.naming import readable
from izett.pattern.sewn import holding, walk

#: Corners in the maker's words: whole names, and what a name ends with.
PLACES = {
    "neck_shoulder": "neck point",
    "waist_side": "waist",
    "line_start": "upper end",
    "line_start_beyond": "upper end",
    "line_end": "lower end",
    "line_end_beyond": "lower end",
}
ENDINGS = {"_cf": " at the centre front", "_cb": " at the centre back", "_a": "", "_b": ""}


class Params(CheckParams):
    """How large a corner may be."""

    angle: float = tolerance(3.0, low=0.5, high=10, unit="°", meaning="off a straight run across the seam")


def find(garment: Garment, params: Params) -> Iterator[Finding]:
    """Yield each end of each seam with the angle by which the lines across it break."""
    # Rectangles meet at right angles, not in one line.
    cut_straight = {e.lineage for piece in garment.pattern for e in piece.edges if e.role is Role.CUT_EDGE}
    for seam in garment.pattern.seams:
        first, second = seam.sides
        for end in ("start", "end"):
            spans = (first[0 if end == "start" else -1], second[0 if end == "start" else -1])
            vertices = tuple(getattr(span, end) for span in spans)
            if any(span.along in cut_straight for span in spans):
                continue
            try:
                corner = sum(_corner(garment.pattern, span, end) for span in spans)
            except ReferenceLost:
                yield Finding(Verdict.NOT_APPLICABLE, (seam.name, *vertices), 0.0, params.angle, unit="°")
                continue
            off = corner - 180
            found = verdict(off, params.angle)
            way = {"how": "across", "line": seam.name, "at_start": end == "start"}
            mends = () if found is Verdict.PASSES else (Mend("Let the lines run on across it", "true_line", way),)
            yield Finding(found, (seam.name, *vertices), off, params.angle, unit="°", mends=mends)


def _corner(pattern: Pattern, span: Span, end: str) -> float:
    """Return the inner angle in degrees between the seam and the other line at one of its ends."""
    piece = holding(pattern, span.start)
    stretches = walk(piece, span)
    edge = (stretches[0] if end == "start" else stretches[-1]).edge
    vertex = piece.aliases.get(getattr(span, end), getattr(span, end))
    index = piece.edges.index(edge)
    if edge.start == vertex:
        arriving, leaving = piece.edges[index - 1], edge
    else:
        arriving, leaving = edge, piece.edges[(index + 1) % len(piece.edges)]
    # Counter-clockwise, the inside lies to the left: a straight run has 180° inside, a left turn less.
    return 180 - degrees(turn(arriving.curve.end_direction, leaving.curve.start_direction))


def _place(corner: str) -> str:
    if corner in PLACES:
        return PLACES[corner]
    for ending, words in ENDINGS.items():
        if corner.endswith(ending):
            return readable(corner.removesuffix(ending)) + words
    return readable(corner)


def word(finding: Finding) -> str:
    """Return the finding in words."""
    name, a, _ = finding.where
    seam = readable(name)
    place = _place(a.split(".")[-1])
    if finding.verdict is Verdict.PASSES:
        return f"The lines run on across the {seam} seam at the {place}"
    if finding.verdict is Verdict.NOT_APPLICABLE:
        return f"The {seam} seam has lost its end at the {place}"
    shape = "point outwards" if finding.amount < 0 else "dip inwards"
    return f"Across the {seam} seam at the {place} the lines make a {shape} of {abs(finding.amount):.1f}°"


CHECK = Check(
    key="runs_across",
    claim="Necklines, armholes and waists run across their seams without a corner",
    params=Params,
    find=find,
    word=word,
    mend="True the line with both pieces laid together at the seam.",
)
