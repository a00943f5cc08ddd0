"""The shoulder seam is straight once its dart is shut, and slopes like a shoulder.

Common practice, no single source.
"""

from collections.abc import Iterator
from math import atan2, degrees

from izett.checking.check import Check, CheckParams, Finding, Fix, Garment, Verdict, Worse, tolerance, verdict
from izett.errors import ReferenceLost
from izett.geometry.point import cross, subtract, unit
from izett.pattern.facts import Role, SeamKind
from izett.pattern.naming import readable
from izett.pattern.sewn import holding, walk
from izett.wording import cm


class Params(CheckParams):
    """How far a shoulder may leave a straight slope."""

    bent: float = tolerance(0.2, low=0.02, high=1, unit="cm", meaning="off the straight with the dart shut")
    least: float = tolerance(4.0, low=0, high=20, unit="°", meaning="flattest slope")
    most: float = tolerance(38.0, low=20, high=60, unit="°", meaning="steepest slope")


def find(garment: Garment, params: Params) -> Iterator[Finding]:
    """Yield each side of the shoulder seam with how far it leaves the straight, and an odd slope."""
    for seam in garment.pattern.seams_of(SeamKind.SHOULDER):
        for span in (*seam.sides[0], *seam.sides[1]):
            try:
                piece = holding(garment.pattern, span.start)
                stretches = walk(piece, span)
            except ReferenceLost:
                continue
            if stretches[0].edge.role is not Role.SHOULDER:
                continue
            points = [p for stretch in stretches for p in stretch.curve.flattened()]
            along = unit(subtract(points[-1], points[0]))
            bent = max(abs(cross(along, subtract(p, points[0]))) for p in points)
            fixes = (
                ()
                if bent <= params.bent
                else (
                    Fix("Straighten it", "true_line", {"how": "straight", "line": span.along}),
                    Fix("Smooth it", "true_line", {"how": "smooth", "line": span.along}),
                )
            )
            yield Finding(
                verdict(bent, params.bent, otherwise=Verdict.WARNS), (span.along,), bent, params.bent, fixes=fixes
            )
            slope = abs(degrees(atan2(along[1], along[0])))
            slope = min(slope, 180 - slope)
            # A panel that a princess line took off has been turned: its slope is told by the one with the neck. So has a
            # shoulder beside a neckline that was opened for gathers.
            full = garment.pattern.fullness("neck") > 0
            turned = full or not any(edge.role is Role.NECK for edge in piece.edges)
            if not turned and not params.least <= slope <= params.most:
                nearest = params.least if slope < params.least else params.most
                worse = Worse.LESS if slope < params.least else Worse.MORE
                yield Finding(Verdict.WARNS, (span.along,), slope, nearest, unit="°", aspect="slope", worse=worse)


def word(finding: Finding) -> str:
    """Return the finding in words."""
    line = readable(finding.where[0])
    if finding.aspect == "slope":
        return f"The {line} slopes by {finding.amount:.0f}°, which no shoulder does"
    if finding.verdict is Verdict.PASSES:
        return f"The {line} is straight"
    return f"The {line} leaves the straight by {cm(finding.amount, 2)}, its dart shut"


CHECK = Check(
    key="shoulder_straight",
    claim="Shoulder seams are straight with their darts shut, and slope like shoulders",
    params=Params,
    find=find,
    word=word,
    fix="Straighten the shoulder, or true the dart in it.",
)
