"""Outlines are sound: no self-crossing, no kink inside a curve, folds straight.

Common practice, no single source: a turn over 4° inside one line shows in cloth.
"""

from collections.abc import Iterator, Sequence
from itertools import pairwise
from math import degrees

from izett.checking.check import Check, CheckParams, Finding, Fix, Garment, Verdict, tolerance, verdict
from izett.geometry.curve import Curve
from izett.geometry.outline import crossing
from izett.geometry.point import cross, distance, subtract, turn, unit
from izett.geometry.tolerance import FLATNESS
from izett.pattern.facts import Role
from izett.pattern.levels import left_behind
from izett.pattern.naming import readable
from izett.pattern.piece import Edge
from izett.wording import cm

#: cm. A hook lies within so much of a corner; how the line sweeps is read over so much beyond it.
HOOKED, BESIDE_HOOK = 1.5, 6.0
#: A curve may bend so many times as much at its end as beside it, before that is a hook.
CLOSING = 3.0


class Params(CheckParams):
    """How much a line may turn at one point."""

    hook: float = tolerance(
        10.0, low=2, high=30, unit="°", meaning="bend just before a corner that the line beside it does not have"
    )
    kink: float = tolerance(4.0, low=0.5, high=15, unit="°", meaning="turn at one point inside a curve")


def find(garment: Garment, params: Params) -> Iterator[Finding]:
    """Yield each piece with its largest kink, and where it crosses itself or has a bent fold."""
    for piece in garment.pattern.pieces:
        spot = crossing(piece.outline())
        if spot is not None:
            yield Finding(Verdict.FAILS, (piece.name,), spot[1], 0.0, aspect="crossing")
        worst = max(((_kink(edge.curve), edge.lineage) for edge in piece.edges), default=(0.0, ""))
        found = verdict(worst[0], params.kink)
        fix = () if found is Verdict.PASSES else (Fix("Smooth it", "true_line", {"how": "smooth", "line": worst[1]}),)
        yield Finding(found, (piece.name, worst[1]), worst[0], params.kink, unit="°", aspect="kink", fixes=fix)
        hook = max(((_hook(edge), edge.lineage) for edge in piece.edges if not edge.is_leg), default=(0.0, ""))
        if hook[0] > params.hook:
            yield Finding(
                Verdict.WARNS, (piece.name, hook[1]), hook[0], params.hook, unit="°", aspect="hook",
                fixes=(Fix("Smooth it", "true_line", {"how": "smooth", "line": hook[1]}),),
            )  # fmt: skip
        for level in left_behind(piece):
            yield Finding(Verdict.FAILS, (piece.name, level), 0.0, 0.0, aspect="level")
        folds = [edge for edge in piece.edges if edge.lineage == piece.on_fold]
        if folds and not _one_line(folds):
            yield Finding(Verdict.FAILS, (piece.name, piece.on_fold or ""), 0.0, 0.0, aspect="fold")


def _one_line(edges: Sequence[Edge]) -> bool:
    """Return whether edges that follow on each other make one straight line."""
    first, last = edges[0].curve.start, edges[-1].curve.end
    along = unit(subtract(last, first))
    follow_on = all(a.end == b.start for a, b in pairwise(edges))
    return follow_on and all(
        edge.curve.is_straight and abs(cross(along, subtract(edge.curve.end, first))) <= FLATNESS for edge in edges
    )


def _hook(edge: Edge) -> float:
    """Return by how many degrees a curve bends beyond its own sweep in its last stretch, at the worse of its ends.

    Against the sweep every bend counts; with it, what is more than a curve that closes up steadily would bend. A neckline
    may turn as sharply as it likes into the shoulder: a wide one has no room for more.
    """
    curve = edge.curve
    if curve.is_straight or curve.length < 4 * HOOKED:
        return 0.0
    points = curve.flattened()
    found = 0.0
    for way in (points, points[::-1]):
        gone, last, beside, rest = 0.0, 0.0, 0.0, 0.0
        for a, b, c in zip(way, way[1:], way[2:], strict=False):
            gone += distance(a, b)
            bend = degrees(turn(subtract(b, a), subtract(c, b)))
            if gone <= HOOKED:
                last += bend
            elif gone <= BESIDE_HOOK:
                beside += bend if gone <= 2 * HOOKED else 0.0
                rest += bend
        if last * rest < 0:
            found = max(found, abs(last))
        elif edge.role is not Role.NECK:
            found = max(found, abs(last) - CLOSING * abs(beside))
    return found


def _kink(curve: Curve) -> float:
    return max((abs(degrees(angle)) for angle in curve.turns()), default=0.0)


def word(finding: Finding) -> str:
    """Return the finding in words."""
    piece = readable(finding.where[0])
    if finding.aspect == "crossing":
        return f"The outline of the {piece} crosses itself {cm(finding.amount)} above the waist"
    if finding.aspect == "level":
        return f"The {finding.where[1]} line of the {piece} does not end on its outline"
    if finding.aspect == "hook":
        return f"The {readable(finding.where[1])} has a hook of {finding.amount:.0f}° at its end"
    if finding.aspect == "fold":
        return f"The fold of the {piece} is not one straight line"
    if finding.verdict is Verdict.PASSES:
        return f"The outline of the {piece} is sound"
    line = readable(finding.where[1])
    return f"The {line} has a kink of {finding.amount:.1f}°"


CHECK = Check(
    key="outline_sound",
    claim="Outlines do not cross themselves, curves have no kinks, folds are straight",
    params=Params,
    find=find,
    word=word,
    fix="Change the last step's amount; undo it if the outline crosses itself.",
    by_piece=True,
)
