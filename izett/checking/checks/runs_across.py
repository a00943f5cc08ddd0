"""Lines run across seams: where a seam ends, the lines on both pieces go on into each other without a corner.

Neckline and armhole across the shoulder, armhole and waist across the side: the two pieces' angles add to 180°.
Common practice, no single source.
"""

from collections.abc import Iterator
from math import degrees

from izett.checking.check import Check, CheckParams, Finding, Fix, Garment, Verdict, tolerance, verdict
from izett.errors import ReferenceLost
from izett.geometry.point import turn
from izett.pattern.document import Seam
from izett.pattern.ends import at_end, places_of
from izett.pattern.facts import CENTRE_CORNERS, Role, SeamKind, Zone
from izett.pattern.naming import readable
from izett.pattern.piece import Span
from izett.pattern.sewn import holding, walk
from izett.pattern.working import Readable


class Params(CheckParams):
    """How large a corner may be."""

    angle: float = tolerance(3.0, low=0.5, high=10, unit="°", meaning="off a straight run across the seam")


def find(garment: Garment, params: Params) -> Iterator[Finding]:
    """Yield each end of each seam with the angle by which the lines across it break."""
    # Rectangles meet at right angles, not in one line.
    cut_straight = {
        e.lineage for piece in garment.pattern.with_role(Role.CUT_EDGE) for e in piece.edges if e.role is Role.CUT_EDGE
    }
    for seam in garment.pattern.seams:
        if _is_strip(garment.pattern, seam):
            continue
        places = places_of(garment.pattern, seam)
        for end, place in places.items():
            spans, vertices = at_end(seam, end)
            if any(span.along in cut_straight for span in spans):
                continue
            if any(_goes_on(garment.pattern, vertex) for vertex in vertices):
                continue
            try:
                corner = sum(_corner(garment.pattern, span, end) for span in spans)
            except ReferenceLost:
                yield Finding(Verdict.NOT_APPLICABLE, (seam.name, *vertices), 0.0, params.angle, unit="°", aspect=place)
                continue
            off = corner - 180
            found = verdict(off, params.angle)
            way = {"how": "across", "line": seam.name, "at_start": end == "start"}
            fixes = () if found is Verdict.PASSES else (Fix("Let the lines run on across it", "true_line", way),)
            yield Finding(found, (seam.name, *vertices), off, params.angle, unit="°", aspect=place, fixes=fixes)


def _is_strip(pattern: Readable, seam: Seam) -> bool:
    """Return whether a straight strip is sewn on: its ends meet each other or lie flush, no line of it runs on."""
    strips = [pattern.find(span.start) for span in seam.sides[1]]
    return seam.kind is SeamKind.ADDED and all(
        piece is not None and piece.zone is Zone.ADDED and all(e.curve.is_straight for e in piece.edges)
        for piece in strips
    )


def _goes_on(pattern: Readable, vertex: str) -> bool:
    """Return whether a line goes on at a corner into the other half: on a whole piece the seam does not end there."""
    piece = pattern.find(vertex)
    return piece is not None and piece.is_whole and piece.corner_at(vertex) in CENTRE_CORNERS


def _corner(pattern: Readable, span: Span, end: str) -> float:
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


def word(finding: Finding) -> str:
    """Return the finding in words."""
    seam, place = readable(finding.where[0]), finding.aspect
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
    fix="True the line with both pieces laid together at the seam.",
)
