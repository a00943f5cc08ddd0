"""Faults planted in good garments: each must be told by the check that should, and the good garment must tell nothing.

Each fault changes a finished pattern as a slip of the hand would, behind the back of every step.
"""

import math
from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from math import cos, radians, sin

from izett.checking.check import Garment, Verdict, run
from izett.geometry.curve import Curve, joined
from izett.geometry.point import subtract, turn
from izett.pattern.document import CutFor, Pattern
from izett.pattern.facts import Layer, Region, Role, SeamKind
from izett.pattern.piece import Piece
from izett.pattern.sewn import walk
from tests.bodies import Body

GOES_AROUND = ("hip", "bust", "waist", "bicep")


def replaced(pattern: Pattern, old: Piece, new: Piece) -> Pattern:
    return replace(pattern, pieces=tuple(new if piece is old else piece for piece in pattern.pieces))


def moved(piece: Piece, vertex: str, by) -> Piece:
    """Return the piece with one corner moved, the curves' handles left where they are."""
    edges = []
    for edge in piece.edges:
        points = list(edge.curve.points)
        if edge.start == vertex:
            points[0] = (points[0][0] + by[0], points[0][1] + by[1])
        if edge.end == vertex:
            points[-1] = (points[-1][0] + by[0], points[-1][1] + by[1])
        edges.append(replace(edge, curve=Curve(tuple(points))))
    return replace(piece, edges=tuple(edges))


def bent(points, degrees):
    """Return points with the second one turned about the first."""
    (ax, ay), (bx, by) = points[:2]
    x, y, t = bx - ax, by - ay, radians(degrees)
    return [points[0], (ax + x * cos(t) - y * sin(t), ay + x * sin(t) + y * cos(t)), *points[2:]]


def finer(curve: Curve) -> Curve:
    """Return a curve in stretches of about 2 cm, so that a part of it can be moved."""
    points = []
    rest = curve if not curve.is_straight else joined(list(curve.cubics()))
    while rest.length > 4.0:
        first, rest = rest.split(2.0)
        points += first.points[:-1]
    return Curve((*points, *rest.points))


def _outer(pattern: Pattern) -> Iterator[Piece]:
    return (piece for piece in pattern.pieces if piece.layer is Layer.OUTER)


def _curved(pattern: Pattern):
    return next(
        (
            (p, e)
            for p in _outer(pattern)
            for e in p.edges
            if not (e.is_leg or e.curve.is_straight) and e.curve.length > 8
        ),
        None,
    )


def _with_curve(pattern, piece, edge, points):
    edges = tuple(replace(e, curve=Curve(tuple(points))) if e is edge else e for e in piece.edges)
    return replaced(pattern, piece, replace(piece, edges=edges))


def hip_pulled_in(pattern, _body):
    for piece in _outer(pattern):
        hips = [q for line in piece.lines if line.level == "hip" for q in line.points]
        if not hips or not any(e.role is Role.SIDE for e in piece.edges):
            continue
        y, out = hips[0][1], max(x for x, _ in hips)

        def pulled(q, y=y, out=out):
            return (q[0] - 1.5 * max(0, 1 - abs(q[1] - y) / 12), q[1]) if q[0] > out * 0.6 else q

        edges = tuple(e if e.is_leg else replace(e, curve=finer(e.curve).mapped(pulled)) for e in piece.edges)
        return replaced(pattern, piece, replace(piece, edges=edges))
    return None


def level_left_behind(pattern, _body):
    for piece in _outer(pattern):
        for line in piece.lines:
            if line.level in GOES_AROUND:
                (ax, ay), (bx, by) = line.points[-2:]
                short = replace(line, points=(*line.points[:-1], (bx - (bx - ax) * 0.15, by - (by - ay) * 0.15)))
                lines = tuple(short if one is line else one for one in piece.lines)
                return replaced(pattern, piece, replace(piece, lines=lines))
    return None


def partner_longer(pattern, _body):
    kinds = (SeamKind.SIDE, SeamKind.SHOULDER, SeamKind.PANEL, SeamKind.UNDERARM, SeamKind.INSEAM)
    for seam in pattern.seams:
        if seam.kind in kinds and seam.sides[0] != seam.sides[1]:
            span = seam.sides[1][-1]
            piece = pattern.find(span.end)
            way = walk(piece, span)[-1].open_curve.end_direction
            vertex = piece.aliases.get(span.end, span.end)
            return replaced(pattern, piece, moved(piece, vertex, (way[0] * 0.5, way[1] * 0.5)))
    return None


def notch_off(pattern, _body):
    for seam in pattern.seams:
        for span in (span for side in seam.sides for span in side):
            piece = pattern.find(span.start)
            for notch in piece.notches if piece else ():
                if notch.span.along == span.along:
                    away = 1.0 if notch.distance < 2 else -1.0
                    notches = tuple(replace(n, distance=n.distance + away) if n is notch else n for n in piece.notches)
                    return replaced(pattern, piece, replace(piece, notches=notches))
    return None


def cap_short(pattern, _body):
    for seam in pattern.seams_of(SeamKind.CAP):
        span = seam.sides[1][0]
        piece = pattern.find(span.start)
        top = piece.aliases.get(span.end, span.end)
        return replaced(pattern, piece, moved(piece, top, (0.0, -0.8)))
    return None


def dart_leg_off(pattern, _body):
    for piece in _outer(pattern):
        for dart in piece.darts:
            tip, mouth = piece.vertex(dart.tip), piece.vertex(dart.mouth[0])
            way = subtract(mouth, tip)
            long = math.hypot(*way)
            return replaced(pattern, piece, moved(piece, dart.mouth[0], (way[0] / long * 0.3, way[1] / long * 0.3)))
    return None


def kink(pattern, _body):
    found = _curved(pattern)
    if found is not None:
        piece, edge = found
        first, second = edge.curve.split(edge.curve.length / 2)
        return _with_curve(pattern, piece, edge, (*first.points, *bent(second.points, 10)[1:]))
    return None


def hook(pattern, _body):
    found = _curved(pattern)
    if found is not None:
        piece, edge = found
        first, second = edge.curve.split(edge.curve.length - 1.2)
        flat = edge.curve.flattened(flatness=0.002)
        sweep = sum(turn(subtract(b, a), subtract(c, b)) for a, b, c in zip(flat, flat[1:], flat[2:], strict=False))
        back = bent(second.points[::-1], 30 if sweep > 0 else -30)[::-1]
        return _with_curve(pattern, piece, edge, (*first.points, *back[1:]))
    return None


def allowance_missing(pattern, _body):
    for piece in _outer(pattern):
        for edge in piece.edges:
            if edge.role in (Role.SIDE, Role.SHOULDER, Role.UNDERARM, Role.PANEL, Role.INSEAM):
                return replace(pattern, allowances=CutFor(pattern.allowances.purpose, {edge.lineage: 0.0}))
    return None


def _at_waist(piece, edge, region):
    return piece.layer is Layer.OUTER and piece.region is region and edge.role is Role.WAIST


def opening_short(pattern, body):
    over = {Region.SKIRT: "hip_girth", Region.LEGS: "hip_girth", Region.UPPER: "bust_girth"}
    for region, girth in over.items():
        waist = sum(p.times * e.curve.length for p in pattern.pieces for e in p.edges if _at_waist(p, e, region))
        # Three on either side, and it gapes; a waist that passes the body without an opening needs none.
        if not pattern.openings or not waist or waist + 3 * 3 > body[girth]:
            continue
        return replace(pattern, openings=tuple(replace(one, length=3.0) for one in pattern.openings))
    return None


def band_off(pattern, _body):
    for seam in pattern.seams_of(SeamKind.ADDED):
        span = seam.sides[1][0]
        piece = pattern.find(span.start)
        middle = max(x for x, _ in piece.outline()) / 2

        def longer(q, middle=middle):
            return (q[0] + (2 if q[0] > middle else 0), q[1])

        edges = tuple(replace(e, curve=e.curve.mapped(longer)) for e in piece.edges)
        return replaced(pattern, piece, replace(piece, edges=edges))
    return None


def hem_uneven(pattern, _body):
    for piece in _outer(pattern):
        for edge in piece.edges:
            if edge.role is Role.HEM and any(e.role is Role.SIDE and e.start == edge.end for e in piece.edges):
                return replaced(pattern, piece, moved(piece, edge.end, (0.0, -1.0)))
    return None


def crossing(pattern, _body):
    piece = next(_outer(pattern))
    edge, outline = piece.edges[0], piece.outline()
    x, y = (sum(axis) / len(outline) for axis in zip(*outline, strict=True))
    at = edge.curve.start
    return replaced(pattern, piece, moved(piece, edge.start, ((x - at[0]) * 3, (y - at[1]) * 3)))


def lost_seam(pattern, _body):
    for seam in pattern.seams:
        if seam.kind in (SeamKind.SIDE, SeamKind.SHOULDER, SeamKind.UNDERARM):
            return replace(pattern, seams=tuple(one for one in pattern.seams if one is not seam))
    return None


def lost_band(pattern, _body):
    for seam in pattern.seams:
        if seam.kind is SeamKind.ADDED:
            return replace(pattern, seams=tuple(one for one in pattern.seams if one is not seam))
    return None


def wrong_grain(pattern, _body):
    for piece in _outer(pattern):
        if piece.on_fold or any(line.level in ("hip", "waist", "bicep") for line in piece.lines):
            (ax, ay), far = piece.grain
            return replaced(pattern, piece, replace(piece, grain=((ax, ay), bent([(ax, ay), far], 8)[1])))
    return None


def apex_off(pattern, _body):
    for piece in _outer(pattern):
        if "apex" in piece.marks and any(e.role in (Role.CENTRE_FRONT, Role.FOLD) for e in piece.edges):
            x, y = piece.marks["apex"]
            return replaced(pattern, piece, replace(piece, marks={**piece.marks, "apex": (x + 2, y)}))
    return None


def lining_shorter(pattern, _body):
    for piece in pattern.pieces:
        if piece.lining is not None:
            hem = next(e for e in piece.edges if e.role is Role.HEM)
            return replaced(pattern, piece, moved(moved(piece, hem.start, (0, 1.5)), hem.end, (0, 1.5)))
    return None


@dataclass(frozen=True)
class Plant:
    """A fault, how it is planted (nothing where a garment cannot have it), and the checks that should tell it."""

    plant: Callable[[Pattern, Body], Pattern | None]
    told_by: frozenset[str]


def _by(plant, *checks):
    return Plant(plant, frozenset(checks))


PLANTS = {
    "hip pulled in by 3": _by(hip_pulled_in, "ease_as_meant"),
    "level line left behind": _by(level_left_behind, "outline_sound"),
    "partner longer by 0.5": _by(partner_longer, "seams_match"),
    "notch off by 1": _by(notch_off, "notches_meet"),
    "cap short by 0.8": _by(cap_short, "seams_match", "sleeve_fits"),
    "dart leg off by 0.3": _by(dart_leg_off, "darts_true"),
    "kink of 10°": _by(kink, "outline_sound"),
    "hook at a corner": _by(hook, "outline_sound", "runs_across", "square_at_centre"),
    "allowance missing": _by(allowance_missing, "allowances_agree"),
    "opening too short": _by(opening_short, "passes_over"),
    "band 2 cm off": _by(band_off, "seams_match"),
    "hem uneven by 1": _by(hem_uneven, "seams_match", "runs_across"),
    "crossing outline": _by(crossing, "outline_sound"),
    "lost seam": _by(lost_seam, "edges_sewn"),
    "lost band": _by(lost_band, "edges_sewn"),
    "wrong grain": _by(wrong_grain, "papers_in_order"),
    "apex off by 2": _by(apex_off, "bust_point"),
    "lining shorter": _by(lining_shorter, "lining_follows"),
}


def told(checks, pattern, body) -> set[tuple[str, str, tuple[str, ...]]]:
    """Return what the checks find wrong, each with its check, aspect and place."""
    return {
        (found.check, found.finding.aspect, found.finding.where)
        for check in checks.values()
        for found in run(check, Garment(pattern, body))
        if found.finding.verdict in (Verdict.FAILS, Verdict.WARNS)
    }
