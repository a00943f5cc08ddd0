"""Square at the centre: neckline and waist meet the centre line at a right angle and stay level for the first cm.

Cut on a fold or mirrored, a line that is not square makes a point or a dip. Common practice, no single source.
"""

from collections.abc import Iterator
from itertools import pairwise
from math import asin, degrees

from izett.checking.check import Check, CheckParams, Finding, Fix, Garment, Verdict, tolerance, verdict
from izett.geometry.curve import Curve
from izett.geometry.outline import contains
from izett.geometry.point import between, cross, dot, subtract, unit
from izett.pattern.facts import CENTRE_LINES, Role
from izett.pattern.levels import CENTRE
from izett.pattern.naming import readable
from izett.pattern.piece import Edge, Piece
from izett.wording import cm

#: cm. How far from the centre the line must still lie about square.
STAYS_FOR = 1.0


class Params(CheckParams):
    """How far from square a line may be."""

    angle: float = tolerance(1.0, low=0.1, high=5, unit="°", meaning="off the right angle at the centre")
    rise: float = tolerance(0.2, low=0.02, high=0.5, unit="cm", meaning="off the square line 1 cm from the centre")


def find(garment: Garment, params: Params) -> Iterator[Finding]:
    """Yield each corner at the centre with its angle off square, and where the line leaves the square too soon."""
    for piece in garment.pattern.pieces:
        if _is_cut_back(piece):
            # The centre lies on a band that is sewn on, not on this edge.
            continue
        for before, after in pairwise((*piece.edges, piece.edges[0])):
            if (before.role in CENTRE_LINES) == (after.role in CENTRE_LINES) or Role.CROTCH in (
                before.role,
                after.role,
            ):
                # The crotch curve runs on out of the centre seam.
                continue
            line, centre = (after, before) if before.role in CENTRE_LINES else (before, after)
            where = (line.lineage, centre.lineage)
            off = degrees(asin(max(-1.0, min(1.0, dot(before.curve.end_direction, after.curve.start_direction)))))
            found = verdict(off, params.angle)
            fix = (Fix("Square it at the centre", "true_line", {"how": "square", "line": line.lineage}),)
            fixes = () if found is Verdict.PASSES else fix
            yield Finding(found, where, off, params.angle, unit="°", aspect="angle", fixes=fixes)
            rise = _rise(line, centre, at_start=line is after)
            if abs(rise) > params.rise:
                yield Finding(Verdict.WARNS, where, rise, params.rise, aspect="rise", fixes=fix)


def _is_cut_back(piece: Piece) -> bool:
    """Return whether the centre is marked beyond the paper: under a front band."""
    centres = [line.points for line in piece.lines if line.level == CENTRE]
    return any(not contains(piece.outline(), between(points[0], points[-1], 0.5)) for points in centres)


def _rise(line: Edge, centre: Edge, *, at_start: bool) -> float:
    out: Curve = line.curve if at_start else line.curve.reversed()
    spot = subtract(out.at_distance(STAYS_FOR), out.start)
    along = unit(subtract(centre.curve.end, centre.curve.start))
    square = (along[1], -along[0])
    return cross(square, spot)


def word(finding: Finding) -> str:
    """Return the finding in words."""
    line, centre = (readable(name) for name in finding.where)
    if finding.aspect == "rise":
        return f"The {line} leaves the square by {cm(abs(finding.amount), 2)} within 1 cm of the {centre}"
    if finding.verdict is Verdict.PASSES:
        return f"The {line} is square to the {centre}"
    return f"The {line} meets the {centre} {abs(finding.amount):.1f}° off the right angle"


CHECK = Check(
    key="square_at_centre",
    claim="Neckline and waist are square to the centre lines",
    params=Params,
    find=find,
    word=word,
    fix="Change both ends of the line alike, so that it stays level at the centre.",
    by_piece=True,
)
