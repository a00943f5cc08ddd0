"""The silhouette of a build from the front (and back) and from the side, as closed outlines, and a few inner lines."""

from collections.abc import Iterable, Sequence
from itertools import pairwise
from math import cos, pi, sin

from izett.geometry.outline import united
from izett.geometry.point import Point, between, distance, left_of, subtract, unit
from izett.measuring.figure.build import Build

#: Points drawn on each stretch between two given ones.
FINE = 7
#: Catmull–Rom: how much of the chord over a point is given to its tangent. A half passes without overshooting.
TENSION = 0.5

Line = list[Point]


def smooth(points: Sequence[Point], *, closed: bool = False) -> Line:
    """Return a smooth line through points (Catmull–Rom), finely divided."""
    if len(points) < 3:
        return list(points)
    before, after = (points[-1], points[0]) if closed else (points[0], points[-1])
    row = [before, *points, after, *(points[1:2] if closed else [])]
    drawn: Line = []
    for i in range(1, len(row) - 2):
        p0, p1, p2, p3 = row[i - 1 : i + 3]
        for step in range(FINE):
            drawn.append(_on_stretch(p0, p1, p2, p3, step / FINE))
    return drawn if closed else [*drawn, points[-1]]


def _on_stretch(p0: Point, p1: Point, p2: Point, p3: Point, t: float) -> Point:
    a, b = 2 * t**3 - 3 * t**2 + 1, t**3 - 2 * t**2 + t
    c, d = -2 * t**3 + 3 * t**2, t**3 - t**2

    def mixed(k: int) -> float:
        return a * p1[k] + b * TENSION * (p2[k] - p0[k]) + c * p2[k] + d * TENSION * (p3[k] - p1[k])

    return (mixed(0), mixed(1))


def mirrored(line: Iterable[Point]) -> Line:
    """Return a line on the other side of the body."""
    return [(-x, y) for x, y in line]


def front_outline(build: Build) -> Line:
    """Return the outline from the front, which is that from the back as well."""
    parts = [_trunk(build), _head(build), _limb_outline(build), _leg(build)]
    return united([*parts, *(mirrored(part) for part in parts[2:])])


def _head(build: Build) -> Line:
    half, middle = build.levels["head"].half, (build.crown + build.chin) / 2
    tall = (build.crown - build.chin) / 2
    right = [(half * 0.45, middle - tall * 0.94), (half * 0.83, middle - tall * 0.55), (half, middle + tall * 0.12)]
    right += [(half * 0.86, middle + tall * 0.62), (half * 0.5, middle + tall * 0.9)]
    return smooth([(0, build.chin), *right, (0, build.crown), *reversed(mirrored(right))], closed=True)


def _trunk(build: Build) -> Line:
    at = build.levels
    neck_x, neck_y = build.neck_point
    tip_x, tip_y = build.shoulder_point
    column = at["neck"].half
    thigh = at["thigh"]
    right: Line = [
        *smooth(
            [
                (column * 0.96, build.chin + 4),
                (column * 0.97, build.chin - 0.4),
                (column + (neck_x - column) * 0.45, neck_y + 0.8),
                (neck_x + 2.2, neck_y - 1.0),
                (tip_x - 3, tip_y + 1.1),
                (tip_x - 0.4, tip_y - 0.5),
            ]
        ),
        *smooth(
            [
                (at["high_bust"].half - 0.4, at["high_bust"].y),
                (at["bust"].half, at["bust"].y),
                (at["underbust"].half, at["underbust"].y),
                (at["waist"].half, 0.0),
                *_between_waist_and_hip(build),
                (at["hip"].half, at["hip"].y),
                (thigh.middle + thigh.half, thigh.y),
            ]
        ),
        (0.3, build.crotch),
    ]
    return [*right, *reversed(mirrored(right))]


def _between_waist_and_hip(build: Build) -> Line:
    """Return high hip and stomach from above, as their tape levels lie."""
    pair = sorted((build.levels[name] for name in ("high_hip", "stomach")), key=lambda level: -level.y)
    inside = [level for level in pair if build.levels["hip"].y + 3 < level.y < -3]
    return [(level.half, level.y) for level in inside[:1]]


def _leg(build: Build) -> Line:
    names = ("thigh", "knee", "calf", "ankle")
    levels = [build.levels[name] for name in names]
    foot = build.levels["ankle"].middle
    hip = build.levels["hip"]
    outer = [(hip.half, hip.y), *((level.middle + level.half, level.y) for level in levels)]
    inner = [(0.3, build.crotch + 1), *((level.middle - level.half, level.y) for level in levels)]
    sole = [(foot + 4.6, build.floor + 1.2), (foot + 4.0, build.floor), (foot - 2.2, build.floor)]
    sole += [(foot - 3.2, build.floor + 1.6)]
    return [*smooth(outer), *sole, *reversed(smooth(inner))]


def _limb_outline(build: Build) -> Line:
    """Return the arm's outline, a ribbon about its middle line."""
    joint, bicep, elbow, wrist, knuckle, tips = build.arm
    wide = {name: build.levels[name].half for name in ("bicep", "elbow", "wrist", "hand")}
    line = [
        (joint, wide["bicep"] * 0.98),
        (bicep, wide["bicep"]),
        (elbow, wide["elbow"] * 0.9),
        (between(elbow, wrist, 0.3), wide["elbow"] * 0.95),
        (wrist, wide["wrist"]),
        (knuckle, wide["hand"] * 1.25),
        (tips, wide["hand"] * 0.6),
    ]
    return ribbon(line)


def ribbon(line: Sequence[tuple[Point, float]]) -> Line:
    """Return the outline of a limb: points of its middle line, each with half its breadth."""
    middle = [point for point, _ in line]
    ways = [unit(subtract(b, a)) for a, b in pairwise(middle)]
    ways.append(ways[-1])
    left: Line = []
    right: Line = []
    for (point, half), way in zip(line, ways, strict=True):
        x, y = left_of(way)
        left.append((point[0] + x * half, point[1] + y * half))
        right.append((point[0] - x * half, point[1] - y * half))
    start, end = middle[0], middle[-1]
    back = distance(left[0], start) * 0.9
    cap = (start[0] - ways[0][0] * back, start[1] - ways[0][1] * back)
    tip = (end[0] + ways[-1][0], end[1] + ways[-1][1])
    return smooth([cap, *left, tip, *reversed(right)], closed=True)


def side_outline(build: Build) -> Line:
    """Return the outline from the side, facing right."""
    at = build.levels
    head = at["head"]
    tall = build.crown - build.chin
    middle, round_y = (head.front + head.back) / 2, build.crown - 0.42 * tall
    skull = [
        (middle + (head.front - middle) * cos(turn), round_y + 0.42 * tall * sin(turn))
        for turn in (2 * pi * k / 40 for k in range(40))
    ]
    jaw = smooth(
        [
            (middle, round_y),
            (head.front - 0.1, round_y),
            (head.front + 0.5, build.chin + 0.4 * tall),
            (head.front - 0.4, build.chin + 0.12 * tall),
            (head.front - 2.4, build.chin),
            (middle - 1.5, build.chin + 0.2 * tall),
        ],
        closed=True,
    )
    front = smooth(
        [
            (at["neck"].front - 1.2, build.chin + 4),
            (at["neck"].front - 0.6, build.neck_pit + 2.2),
            (at["neck"].front + 0.2, build.neck_pit),
            (at["high_bust"].front, (at["high_bust"].y + build.neck_pit) / 2 - 1),
            (at["bust"].front, at["bust"].y),
            (at["underbust"].front, at["underbust"].y),
            (at["waist"].front, 0.0),
            (at["stomach"].front, at["stomach"].y),
            ((at["hip"].front + at["thigh"].front) / 2, at["hip"].y - 2),
            (at["thigh"].front, at["thigh"].y - 4),
            (at["knee"].front, at["knee"].y),
            (at["calf"].front - 0.6, at["calf"].y),
            (at["ankle"].front, at["ankle"].y),
            (at["ankle"].front + 7, build.floor + 2.4),
            (at["ankle"].front + 11.5, build.floor + 0.8),
        ]
    )
    back = smooth(
        [
            (at["neck"].back + 2.4, build.chin + 8),
            (at["neck"].back + 1.4, build.chin + 3),
            (at["neck"].back + 0.6, build.nape + 1),
            (at["high_bust"].back + 0.6, build.nape - 6),
            (at["high_bust"].back, build.nape * 0.68),
            (at["waist"].back, 0.5),
            (at["hip"].back, at["hip"].y + 1),
            (at["thigh"].back, at["thigh"].y - 3),
            (at["knee"].back, at["knee"].y),
            (at["calf"].back, at["calf"].y),
            (at["ankle"].back, at["ankle"].y),
            (at["ankle"].back - 1.4, build.floor + 1),
        ]
    )
    sole = [(at["ankle"].front + 11.5, build.floor), (at["ankle"].back - 0.8, build.floor)]
    return united([skull, jaw, [*front, *sole, *reversed(back)]])


def side_arm(build: Build) -> Line:
    """Return the arm as it hangs in the side view, a little bent."""
    tip = build.shoulder_point[1]
    joint, bicep, elbow, wrist, knuckle, tips = (point[1] for point in build.arm)
    wide = {name: build.levels[name].front for name in ("bicep", "elbow", "wrist", "hand")}
    return ribbon(
        [
            ((-1.2, min(joint, tip - wide["bicep"])), wide["bicep"]),
            ((-1.6, bicep), wide["bicep"]),
            ((-1.8, elbow), wide["elbow"]),
            ((0.6, elbow * 0.65 + wrist * 0.35), wide["elbow"] * 0.96),
            ((3.2, wrist), wide["wrist"]),
            ((4.2, knuckle), wide["hand"] * 0.8),
            ((4.8, tips), wide["hand"] * 0.4),
        ]
    )
