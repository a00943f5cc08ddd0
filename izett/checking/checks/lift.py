"""Arms raised: how far the hem rises with them.

A plain trigonometric model. The sleeve hangs from the shoulder point at its own angle: the lower and wider its cap, the
further out. The underarm corner turns about the shoulder point with the sleeve until the arm is level, and draws the side
seam up with it. Nothing slides and no cloth but stretch gives; a belt or a tight waist holds the hem down and strains
instead. Common practice, no single source.
"""

from collections.abc import Iterator
from math import atan2, cos, degrees, pi

from izett.checking.check import Check, CheckParams, Finding, Fix, Garment, Verdict, tolerance
from izett.errors import ReferenceLost
from izett.geometry.point import subtract
from izett.pattern.document import Seam
from izett.pattern.facts import Role, SeamKind
from izett.pattern.sewn import holding
from izett.wording import cm


class Params(CheckParams):
    """How far the hem may rise."""

    most: float = tolerance(12.0, low=2, high=25, unit="cm", meaning="rise of the hem with the arms level")


def find(garment: Garment, params: Params) -> Iterator[Finding]:
    """Yield the predicted rise for the sleeve sewn to an armhole."""
    for seam in garment.pattern.seams_of(SeamKind.CAP):
        yield from _of_sleeve(garment, seam, params)


def _of_sleeve(garment: Garment, seam: Seam, params: Params) -> Iterator[Finding]:
    pattern = garment.pattern
    try:
        sleeve = holding(pattern, seam.sides[1][0].start)
        body = holding(pattern, seam.sides[0][0].start)
        corner, tip = (body.vertex(getattr(seam.sides[0][0], end)) for end in ("start", "end"))
    except (ReferenceLost, KeyError):
        return
    caps = [e for e in sleeve.edges if e.role is Role.CAP]
    if not caps or sleeve.level("bicep") == 0:
        return
    ys = [p[1] for e in caps for p in (e.curve.start, e.curve.end)]
    tall = max(ys) - min(ys)
    # At rest the sleeve stands out by the angle of its cap.
    rest = atan2(sleeve.level("bicep") / 2, tall)
    raised = max(pi / 2 - rest, 0.0)
    arm = subtract(corner, tip)
    reach = (arm[0] ** 2 + arm[1] ** 2) ** 0.5
    hangs = atan2(abs(arm[0]), abs(arm[1]))
    rise = reach * (cos(hangs) - cos(min(hangs + raised, pi))) * (1 - min(garment.pattern.intent.stretch, 100) / 200)
    fine = rise <= params.most
    fixes = (
        Fix("Lower the cap, the width following", "shape_cap", {"height": -2.0}),
        Fix("Add a reach wedge", "reach_wedge", {"amount": 2.0}),
        Fix("Raise the armhole", "change_armhole", {"lower": -1.0}),
    )
    yield Finding(
        Verdict.PASSES if fine else Verdict.WARNS,
        (seam.name,),
        rise,
        params.most,
        fixes=() if fine else fixes,
        half=seam.half,
        beside=degrees(rest),
    )


def word(finding: Finding) -> str:
    """Return the finding in words."""
    return (
        f"With the arms level the hem rises by about {cm(finding.amount, 0)} "
        f"(the sleeve rests at {finding.beside:.0f}° from the body)"
    )


CHECK = Check(
    key="lift",
    claim="The arms can be raised without drawing up the hem",
    params=Params,
    find=find,
    word=word,
    fix="Lower the cap and widen the sleeve, add a reach wedge, or raise the armhole.",
)
