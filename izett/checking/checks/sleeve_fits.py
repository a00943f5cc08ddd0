"""The sleeve fits its armhole: cap ease, cap height, room at the bicep and half-way up, front and back in balance.

Cap height near a third of the armhole: set-in woven 0.28–0.40, knit 0.24–0.32, loose lower; cap ease 0–4; half of it in
front and half behind the shoulder notch. Common practice, no single source.
"""

from collections.abc import Iterator
from dataclasses import replace
from itertools import pairwise
from math import atan2, degrees

from izett.checking.check import Check, CheckParams, Finding, Fix, Garment, Verdict, Worse, tolerance, verdict
from izett.errors import ReferenceLost
from izett.geometry.point import subtract
from izett.pattern.document import Seam
from izett.pattern.facts import Role, SeamKind, Zone
from izett.pattern.levels import width_at
from izett.pattern.piece import Edge, Piece
from izett.pattern.sewn import holding, seam_lengths, span_length
from izett.pattern.working import Readable
from izett.wording import cm

#: Of the width at the bicep line, a cap half-way up is at least so wide.
HALF_WAY = 0.42


class Params(CheckParams):
    """The ease, height, room and balance that a cap may have."""

    least_ease: float = tolerance(-1.05, low=-3, high=2, unit="cm", meaning="least cap ease")
    most_ease: float = tolerance(4.0, low=1, high=8, unit="cm", meaning="most cap ease of a cap that is not gathered")
    low: float = tolerance(
        0.28, low=0.1, high=0.4, unit="", meaning="least cap height as a share of the armhole, woven"
    )
    high: float = tolerance(
        0.40, low=0.3, high=0.5, unit="", meaning="most cap height as a share of the armhole, woven"
    )
    knit_low: float = tolerance(0.24, low=0.1, high=0.4, unit="", meaning="the same for a knit: least")
    knit_high: float = tolerance(0.32, low=0.2, high=0.5, unit="", meaning="most")
    loose_low: float = tolerance(0.12, low=0.05, high=0.3, unit="", meaning="least in an easy or loose garment")
    uneven: float = tolerance(0.6, low=0.1, high=3, unit="cm", meaning="cap ease of the front less that of the back")
    square: float = tolerance(1.0, low=0.2, high=5, unit="°", meaning="bicep line off the square to the grain")


def find(garment: Garment, params: Params) -> Iterator[Finding]:
    """Yield ease, height, room and balance of the sleeve sewn to an armhole."""
    for seam in garment.pattern.seams_of(SeamKind.CAP):
        for finding in _of_sleeve(garment.pattern, seam, params):
            yield replace(finding, half=seam.half)


def _of_sleeve(pattern: Readable, seam: Seam, params: Params) -> Iterator[Finding]:
    try:
        hole, cap = seam_lengths(pattern, seam)
        sleeve = holding(pattern, seam.sides[1][0].start)
        uneven = _uneven(pattern, seam)
    except ReferenceLost:
        yield Finding(Verdict.NOT_APPLICABLE, (seam.name,), 0.0, 0.0)
        return
    if not any(edge.role is Role.CAP for edge in sleeve.edges):
        # A straight-cut sleeve has no cap.
        return
    gathered = "gather" in seam.lies
    over = cap - hole
    recap = tuple(
        Fix(f"Re-cap by {by}", "recap_sleeve", {"by": by, "ease": 2.5 if pattern.intent.cloth != "knit" else 0.5})
        for by in ("width", "height")
    )
    if not gathered:
        bound = params.most_ease if over > params.most_ease else params.least_ease
        fine = params.least_ease <= over <= params.most_ease
        yield Finding(
            Verdict.PASSES if fine else Verdict.FAILS,
            (seam.name,),
            over,
            bound,
            aspect="ease",
            fixes=() if fine else recap,
            worse=Worse.LESS if over < params.least_ease else Worse.MORE,
        )
        found = verdict(uneven, params.uneven, otherwise=Verdict.WARNS)
        yield Finding(
            found, (seam.name,), uneven, params.uneven, aspect="uneven", fixes=recap if found is Verdict.WARNS else ()
        )
    yield from _shape(pattern, seam, sleeve, hole, params, gathered=gathered)


def _shape(
    pattern: Readable, seam: Seam, sleeve: Piece, hole: float, params: Params, *, gathered: bool
) -> Iterator[Finding]:
    low, high = (params.knit_low, params.knit_high) if pattern.intent.cloth == "knit" else (params.low, params.high)
    if pattern.intent.fit in ("easy", "loose"):
        low = params.loose_low
    caps = [e for e in sleeve.edges if e.role is Role.CAP]
    ys = [p[1] for e in caps for p in (e.curve.start, e.curve.end)]
    ratio = (max(ys) - min(ys)) / hole if hole else 0.0
    if not gathered:
        fine = low - 0.005 <= ratio <= high + 0.005
        fixes = (
            ()
            if fine
            else (Fix("Cap height, the width following", "shape_cap", {"height": 1.0 if ratio < low else -1.0}),)
        )
        bound = low if ratio < low else high
        yield Finding(
            Verdict.PASSES if fine else Verdict.WARNS,
            (seam.name,),
            ratio,
            bound,
            unit="",
            aspect="height",
            fixes=fixes,
            worse=Worse.LESS if ratio < low else Worse.MORE,
        )
    half = _width_at(caps, (max(ys) + min(ys)) / 2)
    whole = width_at(sleeve, "bicep")
    if half and whole:
        fine = half >= whole * HALF_WAY
        fixes = () if fine else (Fix("Widen half-way up", "shape_cap", {"front": 0.5, "back": 0.5}),)
        yield Finding(
            Verdict.PASSES if fine else Verdict.WARNS,
            (seam.name,),
            half,
            whole * HALF_WAY,
            aspect="half_way",
            fixes=fixes,
            worse=Worse.LESS,
        )
    bicep = next((line for line in sleeve.lines if line.level == "bicep"), None)
    if bicep is not None and bicep.length:
        along, up = subtract(bicep.points[-1], bicep.points[0]), subtract(sleeve.grain[1], sleeve.grain[0])
        off = degrees(atan2(along[0] * up[0] + along[1] * up[1], abs(along[0] * up[1] - along[1] * up[0])))
        yield Finding(
            verdict(off, params.square, otherwise=Verdict.WARNS),
            (sleeve.name,),
            off,
            params.square,
            unit="°",
            aspect="square",
        )


def _uneven(pattern: Readable, seam: Seam) -> float:
    """Return the front's cap ease less the back's, cm."""
    ease = {Zone.FRONT: 0.0, Zone.BACK: 0.0}
    for side, sign in ((seam.sides[0], -1.0), (seam.sides[1], 1.0)):
        for span in side:
            piece = holding(pattern, span.start)
            zone = Zone.FRONT if piece.zone_of(span.along) is Zone.FRONT else Zone.BACK
            ease[zone] += sign * span_length(piece, span)
    return ease[Zone.FRONT] - ease[Zone.BACK]


def _width_at(caps: list[Edge], y: float) -> float:
    xs = []
    for edge in caps:
        points = edge.curve.flattened()
        for a, b in pairwise(points):
            if (a[1] - y) * (b[1] - y) < 0:
                xs.append(a[0] + (b[0] - a[0]) * (y - a[1]) / (b[1] - a[1]))
    return max(xs) - min(xs) if len(xs) > 1 else 0.0


def word(finding: Finding) -> str:
    """Return the finding in words."""
    amount, bound, fine = finding.amount, finding.tolerance, finding.verdict is Verdict.PASSES
    how = "shorter" if amount < 0 else "longer"
    more = "front" if amount > 0 else "back"
    words = {
        "ease": (f"The cap has {cm(amount)} of ease", f"The cap is {cm(abs(amount))} {how} than its armhole"),
        "uneven": (
            "The cap's ease lies half in front and half behind",
            f"The {more} of the cap has {cm(abs(amount))} more ease than the other half",
        ),
        "height": (
            f"The cap height is {amount:.2f} of the armhole",
            f"The cap height is {amount:.2f} of the armhole, beyond {bound:.2f}",
        ),
        "half_way": (
            f"Half-way up the cap is {cm(amount)} wide",
            f"Half-way up the cap is {cm(amount)} wide, under {cm(bound)}",
        ),
        "square": ("The bicep line is square to the grain", f"The bicep line is {amount:.1f}° off the square"),
        "": ("", "The sleeve cannot be compared with its armhole"),
    }
    return words[finding.aspect][0 if fine else 1]


CHECK = Check(
    key="sleeve_fits",
    claim="The sleeve fits its armhole: ease, height, room and balance of the cap",
    params=Params,
    find=find,
    word=word,
    fix="Re-cap the sleeve to its armhole.",
)
