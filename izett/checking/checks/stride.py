"""A hem lets the wearer step: its sweep against a stride at that height.

A plain model. The legs are two straight lines from the hip joint, at 0.52 of the height; a walking step is 0.40 of the
height between the heels. At the hem's height the legs are apart by the step's share there; the cloth goes around both:
twice that distance and half of each leg's girth at the knee. Below the knee only; slits and stretch count. The figures
are from memory, of walking on level ground; stairs want more.
"""

from collections.abc import Iterator

from izett.checking.check import Check, CheckParams, Finding, Fix, Garment, Verdict, Worse, tolerance
from izett.pattern.document import Closure
from izett.pattern.facts import Region, Role
from izett.pattern.worn import hem_width, on_body
from izett.wording import cm

#: Of the height: hip joint, step between the heels, knee, and the girth of a knee where it was not taken.
HIP, STEP, KNEE, KNEE_GIRTH = 0.52, 0.40, 0.285, 0.215


class Params(CheckParams):
    """How much the sweep may be under the stride."""

    short: float = tolerance(0.0, low=0, high=20, unit="cm", meaning="sweep under what a step needs")


def find(garment: Garment, params: Params) -> Iterator[Finding]:
    """Yield the skirt's hem with its sweep, stretched, less what a step needs there."""
    pattern, body = garment.pattern, garment.body
    hems = [
        (piece, edge)
        for piece in pattern.with_role(Role.HEM)
        for edge in piece.edges
        if edge.role is Role.HEM and piece.region is Region.SKIRT and on_body(piece)
    ]
    if not hems or "height" not in body:
        return
    height = body["height"]
    waist = body.get("waist_to_floor", 0.625 * height)
    above_floor = waist + min(min(e.curve.start[1], e.curve.end[1]) for _, e in hems)
    if above_floor > KNEE * height:
        yield Finding(Verdict.PASSES, ("hem",), 0.0, params.short, aspect="short_skirt")
        return
    sweep = hem_width(pattern, (Region.SKIRT,))
    slits = any(o.closure is Closure.SLIT and {o.span.start, o.span.end} & {n for _, e in hems for n in (e.start, e.end)}
                for o in pattern.openings)  # fmt: skip
    apart = STEP * height * (HIP * height - max(above_floor, 0.0)) / (HIP * height)
    needs = 2 * apart + body.get("knee_girth", KNEE_GIRTH * height)
    spare = sweep * (1 + pattern.intent.stretch / 100) - needs
    if slits or spare >= -params.short:
        yield Finding(Verdict.PASSES, ("hem",), spare, params.short, aspect="slit" if slits and spare < 0 else "")
        return
    side = next(((p, e) for p, e in hems if any(x.role is Role.SIDE for x in p.edges)), None)
    fixes = []
    if side is not None:
        run = [x for x in side[0].edges if x.role is Role.SIDE]
        at = {"start": run[0].start, "end": run[-1].end, "along": run[0].lineage}
        fixes.append(Fix("Slit in the side seam", "open_up", {"closure": "slit", "at": at, "long": 20.0}))
        fixes.append(Fix("Flare the side seams to the hem", "change_side", {"hem": min(round(-spare / 4, 1), 30.0)}))
    yield Finding(Verdict.WARNS, ("hem",), spare, params.short, fixes=tuple(fixes), worse=Worse.LESS)


def word(finding: Finding) -> str:
    """Return the finding in words."""
    if finding.aspect == "short_skirt":
        return "The hem ends above the knee: a step is free"
    if finding.aspect == "slit":
        return "A slit lets the wearer step"
    if finding.verdict is Verdict.PASSES:
        return f"The hem has {cm(finding.amount, 0)} more than a step needs"
    return f"The hem is {cm(-finding.amount, 0)} narrower than a walking step (legs as straight lines, level ground)"


CHECK = Check(
    key="stride",
    claim="The hem lets the wearer step",
    params=Params,
    find=find,
    word=word,
    fix="Add a slit or a vent, flare the hem, or use a cloth that stretches.",
)
