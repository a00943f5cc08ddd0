"""The drawn figure: outlines from front, back and side, with a tape for each measure of the catalogue."""

from collections.abc import Mapping
from dataclasses import dataclass
from math import cos, pi, sin

from izett.geometry.point import Point, between
from izett.measuring.figure.build import Build, Level, build_of
from izett.measuring.figure.silhouette import Line, front_outline, mirrored, side_arm, side_outline, smooth
from izett.measuring.measure import measures
from izett.rules.formula import clamp

VIEWS = ("front", "back", "side")
#: A tape around the body hangs this share of its breadth below its level in front, so that it reads as round.
SAG = 0.09
#: Levels of the arm: their tapes are not drawn in the side view, where the arm lies over the trunk.
ARM = ("bicep", "elbow", "wrist", "hand")


@dataclass(frozen=True, slots=True)
class Tape:
    """Where a tape runs in one view: a line in cm, y up, waist at 0."""

    view: str
    line: Line


@dataclass(frozen=True, slots=True)
class Figure:
    """A body as drawn.

    Attributes:
        outlines: by view, the closed outline.
        details: by view, a few inner lines.
        tapes: by measure, where its tape runs.
        levels: the body's levels, for whoever puts something on the figure.
    """

    outlines: Mapping[str, Line]
    details: Mapping[str, tuple[Line, ...]]
    tapes: Mapping[str, tuple[Tape, ...]]
    levels: Mapping[str, Level]


def figure_of(taken: Mapping[str, float]) -> Figure:
    """Return the figure of a body from its taken measures (cm by symbol); the rest is estimated."""
    build = build_of(taken)
    front = front_outline(build)
    points = {view: _points(build, view) for view in VIEWS}
    return Figure(
        outlines={"front": front, "back": front, "side": side_outline(build)},
        details={"front": _front_details(build), "back": _back_details(build), "side": (side_arm(build),)},
        tapes={symbol: _tapes(what.tape, build, points) for symbol, what in measures().items()},
        levels=build.levels,
    )


def _tapes(text: str, build: Build, points: Mapping[str, Mapping[str, Point]]) -> tuple[Tape, ...]:
    """Read a tape's text: `ring LEVEL`, or `VIEW POINT POINT …`, several parted by semicolons."""
    tapes: list[Tape] = []
    for part in text.split(";"):
        word, *names = part.split()
        if word == "ring":
            tapes += _ring(names[0], build)
        else:
            tapes.append(Tape(word, smooth([_point(points[word], name) for name in names])))
    return tuple(tapes)


def _point(points: Mapping[str, Point], name: str) -> Point:
    """Return a named point; `_left` after a name is its mirror image."""
    if name in points:
        return points[name]
    x, y = points[name.removesuffix("_left")]
    return (-x, y)


def _ring(name: str, build: Build) -> list[Tape]:
    if name == "neck":
        return _neck_ring(build)
    level = _hem_level(build) if name == "hem" else build.levels[name]
    rings = [
        Tape("front", _arc(level, below=True)),
        Tape("back", mirrored(_arc(level, below=False))),
    ]
    if name not in ARM:
        rings.append(Tape("side", smooth([(level.back, level.y), (level.front, level.y)])))
    return rings


def _hem_level(build: Build) -> Level:
    """Return the level of the wished hem, around both legs: as broad as they are there, from the knee down narrower."""
    knee, ankle = build.levels["knee"], build.levels["ankle"]
    share = clamp((build.hem - knee.y) / (ankle.y - knee.y), 0, 1)
    outer = knee.middle + knee.half
    return Level(build.hem, outer + share * (ankle.middle + ankle.half - outer), knee.front, knee.back)


def _arc(level: Level, *, below: bool) -> Line:
    sag = -SAG * level.half * 2 if below else SAG * level.half
    turn = [pi * k / 16 for k in range(17)]
    return [(level.middle - level.half * cos(a), level.y + sag * sin(a)) for a in turn]


def _neck_ring(build: Build) -> list[Tape]:
    x, y = build.neck_point
    front = smooth(
        [(-x, y), (-x * 0.75, build.neck_pit + 2.2), (0, build.neck_pit), (x * 0.75, build.neck_pit + 2.2), (x, y)]
    )
    back = smooth([(-x, y), (-x * 0.5, build.nape + 0.5), (0, build.nape), (x * 0.5, build.nape + 0.5), (x, y)])
    neck = build.levels["neck"]
    return [
        Tape("front", front),
        Tape("back", back),
        Tape("side", [(neck.back + 0.6, build.nape), (neck.front, build.neck_pit)]),
    ]


def _points(build: Build, view: str) -> dict[str, Point]:
    return _side_points(build) if view == "side" else _upright_points(build)


def _upright_points(build: Build) -> dict[str, Point]:
    at = build.levels
    _, _, elbow, wrist, knuckle, _ = build.arm
    tip_x, tip_y = build.shoulder_point
    neck_x, neck_y = build.neck_point
    apex_x, apex_y = build.apex
    outer = at["elbow"].half * 0.8
    return {
        "crown": (0, build.crown),
        "floor": (0, build.floor),
        "chin": (0, build.chin),
        "neck_pit": (0, build.neck_pit),
        "nape": (0, build.nape),
        "neck_point": (neck_x, neck_y),
        "shoulder_point": (tip_x, tip_y),
        "mid_shoulder": between((neck_x, neck_y), (tip_x, tip_y), 0.5),
        "apex": (apex_x, apex_y),
        "under_apex": (apex_x, at["underbust"].y),
        "waist_under_apex": (apex_x, 0),
        "bust_centre": (0, apex_y - 0.8),
        "bust_side": (at["bust"].half, apex_y),
        "across_front": build.across_front,
        "across_diagonal": (tip_x * 0.55, apex_y + 1),
        "waist_front": (0, 0),
        "stomach_front": (0, at["stomach"].y),
        "lap_front": (0, max(build.crotch * 0.5, -14)),
        "hem_front": (0, build.hem),
        "crotch": (0.6, build.crotch),
        "inner_ankle": (at["ankle"].middle - at["ankle"].half, build.floor),
        "across_back": build.across_back,
        "waist_back": (0, 0),
        "blade": (neck_x + 2.5, build.nape * 0.66),
        "waist_under_blade": (neck_x + 1.5, 0),
        "underarm_back": (0, at["high_bust"].y - 0.5),
        "elbow": (elbow[0] + outer, elbow[1]),
        "wrist": (wrist[0] + at["wrist"].half, wrist[1]),
        "knuckle": (knuckle[0] + at["hand"].half, knuckle[1]),
    }


def _side_points(build: Build) -> dict[str, Point]:
    at = build.levels
    head = at["head"]
    return {
        "neck_pit": (at["neck"].front, build.neck_pit),
        "nape": (at["neck"].back + 0.6, build.nape),
        "crown": ((head.front + head.back) / 2, build.crown + 0.3),
        "crown_front": (head.front + 0.4, head.y + 0.15 * (build.crown - build.chin)),
        "crown_back": (head.back, head.y),
        "bust_side_seam": (-1.2, at["bust"].y),
        "bust_front": (at["bust"].front, at["bust"].y),
        "underarm_side": (-1.2, at["high_bust"].y - 0.5),
        "underbust_side": (-0.6, at["underbust"].y),
        "waist_side": (0, 0),
        "high_hip_side": (0, at["high_hip"].y),
        "hip_side": (-0.4, at["hip"].y),
        "knee_side": (0, at["knee"].y),
        "hem_side": (0, build.hem),
        "floor_side": (0, build.floor),
        "crotch_level_side": (-0.4, build.crotch),
        "waist_front_side": (at["waist"].front, 0),
        "belly_side": (at["stomach"].front, at["stomach"].y),
        "crotch_side": (0, build.crotch),
        "seat_side": (at["hip"].back, at["hip"].y),
        "waist_back_side": (at["waist"].back, 0),
        "heel": (at["ankle"].back - 1.6, build.floor + 1),
        "instep": (at["ankle"].front + 2.5, build.floor + 6),
    }


def _front_details(build: Build) -> tuple[Line, ...]:
    at = build.levels
    x, y = build.apex
    under = max(at["underbust"].y, y - 8)
    breast = smooth([(x * 0.35, y - 1.5), (x * 0.9, under), (min(x * 1.6, at["bust"].half - 0.6), y - 0.5)])
    bone = smooth(
        [
            (1.2, build.neck_pit),
            (build.neck_point[0] + 1, build.neck_pit + 1.6),
            (build.shoulder_point[0] - 2, build.shoulder_point[1] - 1.2),
        ]
    )
    return (breast, mirrored(breast), bone, mirrored(bone))


def _back_details(build: Build) -> tuple[Line, ...]:
    seat = build.levels["hip"]
    blade = smooth(
        [
            (build.neck_point[0] + 4.5, build.nape * 0.86),
            (build.neck_point[0] + 0.5, build.nape * 0.7),
            (build.neck_point[0] + 2.5, build.nape * 0.55),
        ]
    )
    fold = smooth([(0.8, build.crotch), (seat.half * 0.45, build.crotch - 1.4), (seat.half * 0.8, build.crotch + 0.2)])
    return ([(0, build.nape), (0, build.levels["hip"].y + 6)], blade, mirrored(blade), fold, mirrored(fold))
