"""The build of a body for drawing: where its levels lie, how broad and how deep it is there, and its limbs.

Breadths and depths follow the girths by fixed shares, so that every girth shows. Where openintro bdims has the breadth
or depth, the share is near its mean, a little more for soft tissue that callipers press in (checked in
tests/core/measuring/test_figure.py); others by eye. A drawing, not a measure of anything.

Frame: waist at y = 0, up +, cm; x to the side in the front and back views, to the front in the side view.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from math import atan2, cos, degrees, radians, sin, sqrt

from izett.geometry.point import Point
from izett.measuring.estimates import worked_out
from izett.rules.formula import clamp

#: Half breadth and whole depth as shares of the girth.
BREADTH = {
    "head": 0.136, "neck": 0.150, "high_bust": 0.160, "bust": 0.158, "underbust": 0.163, "waist": 0.165, "stomach": 0.167,
    "high_hip": 0.168, "hip": 0.170, "thigh": 0.140, "knee": 0.146, "calf": 0.150, "ankle": 0.140, "bicep": 0.150,
    "elbow": 0.140, "wrist": 0.150, "hand": 0.110,
}  # fmt: skip
DEPTH = {
    "head": 0.345, "neck": 0.300, "high_bust": 0.212, "bust": 0.250, "underbust": 0.222, "waist": 0.222, "stomach": 0.235,
    "high_hip": 0.225, "hip": 0.226, "thigh": 0.300, "knee": 0.310, "calf": 0.320, "ankle": 0.340, "bicep": 0.300,
    "elbow": 0.270, "wrist": 0.270, "hand": 0.300,
}  # fmt: skip
#: cm. Where the middle of the body lies before (+) or behind (−) the plumb line at each level: head forward, waist
#: forward, seat back. By eye.
LEAN = {
    "head": 1.6, "neck": 0.4, "high_bust": -0.4, "bust": 0.2, "underbust": 0.3, "waist": 0.6, "stomach": 0.7,
    "high_hip": 0.2, "hip": -0.8, "thigh": -0.6, "knee": 0.2, "calf": -1.0, "ankle": -1.4,
}  # fmt: skip
#: Degrees. The shoulder as drawn; how far the arms hang off the body, at least.
SLOPE = 20.0
ARM_OFF = 9.0
#: cm: how high the chin is held over the neck point; and the head's height as a share of the body's, at least. By eye.
CHIN_OVER_NECK = 3.2
HEAD = 0.122
#: The tape over chest and spine is longer than the level difference: share of it that is height.
UPRIGHT = 0.975
OVER_CHEST = 0.93


@dataclass(frozen=True, slots=True)
class Level:
    """A level of the body.

    Attributes:
        y: its height over the waist.
        half: half its breadth; for a limb, half the limb's.
        front, back: how far it reaches before and behind the plumb line.
        middle: where its middle lies sideways: 0 for the trunk, the limb's middle for a limb.
    """

    y: float
    half: float
    front: float
    back: float
    middle: float = 0.0


@dataclass(frozen=True, slots=True)
class Build:
    """All that the drawing needs of a body: levels by name, and single points of trunk and arm in the front view."""

    levels: Mapping[str, Level]
    crown: float
    chin: float
    nape: float
    neck_pit: float
    floor: float
    crotch: float
    hem: float
    neck_point: Point
    shoulder_point: Point
    apex: Point
    across_front: Point
    across_back: Point
    arm: tuple[Point, ...]


def build_of(taken: Mapping[str, float]) -> Build:
    """Return the build of a body from its taken measures (cm by symbol); the rest is estimated."""
    v = worked_out(taken)
    nape = v["back_waist_length"] * UPRIGHT
    neck_half = v["neck_girth"] / 5 - 0.2
    neck_point = (neck_half, nape + neck_half / 3)
    slope = radians(SLOPE)
    shoulder = (
        neck_half + v["shoulder_length"] * cos(slope),
        neck_point[1] - v["shoulder_length"] * sin(slope),
    )
    underarm = clamp(nape - v["armhole_depth"] * UPRIGHT, 6, shoulder[1] - 8)
    half_span = v["apex_span"] / 2
    drop = sqrt(max(v["neck_to_apex"] ** 2 - (half_span - neck_half) ** 2, 1.0)) * OVER_CHEST
    apex = (half_span, clamp(neck_point[1] - drop, 4, underarm - 1))
    waist_high = v["waist_to_floor"]
    crotch = -clamp(waist_high - v["inside_leg"], 15, waist_high - 40)
    knee, ankle = -v["waist_to_knee"], -waist_high + 8
    # Where only estimated, it lies well above the waist: an estimate from estimates may end anywhere between.
    lowest_underbust = 2 if "waist_to_underbust" in taken else 0.42 * apex[1]
    heights = {
        "neck": nape + 1,
        "high_bust": underarm + 0.5,
        "bust": apex[1],
        "underbust": clamp(v["waist_to_underbust"], lowest_underbust, apex[1] - 3),
        "waist": 0.0,
        "high_hip": -v["waist_to_high_hip"],
        "stomach": -v["waist_to_stomach"],
        "hip": -v["waist_to_hip"],
        "thigh": crotch - 2,
        "knee": knee,
        "calf": knee + 0.32 * (ankle - knee),
        "ankle": ankle,
    }
    levels = {name: _level(name, y, v[f"{name}_girth"]) for name, y in heights.items()}
    levels["bust"] = _with_bust(levels["bust"], v)
    chin = neck_point[1] + CHIN_OVER_NECK
    crown = max(v["height"] - waist_high, chin + HEAD * v["height"])
    levels["head"] = _level("head", chin + 0.58 * (crown - chin), v["head_girth"])
    levels |= _legs(levels)
    arm = _arm(v, shoulder, levels)
    return Build(
        levels=levels | {name: _limb(name, arm[i], v) for name, i in _ON_ARM},
        crown=crown,
        chin=chin,
        nape=nape,
        neck_pit=clamp(v["front_waist_length"] * UPRIGHT, nape - 9, nape - 3.5),
        floor=-waist_high,
        crotch=crotch,
        hem=-clamp(taken.get("waist_to_hem", v["waist_to_knee"] - 6), 15, waist_high - 4),
        neck_point=neck_point,
        shoulder_point=shoulder,
        apex=apex,
        across_front=(v["across_front"] / 2 * 0.97, (nape - 5 + apex[1]) / 2),
        across_back=(v["across_back"] / 2 * 0.97, nape * 0.75),
        arm=arm,
    )


def _level(name: str, y: float, girth: float) -> Level:
    depth = DEPTH[name] * girth
    return Level(y, BREADTH[name] * girth, LEAN[name] + depth / 2, LEAN[name] - depth / 2)


def _with_bust(bust: Level, v: Mapping[str, float]) -> Level:
    """Return the bust level with its front drawn out by the front arc: a full cup stands forward, not sideways."""
    depth = bust.front - bust.back
    forward = clamp((v["front_bust_arc"] / v["bust_girth"] - 0.5) * 1.3, -0.06, 0.18) * depth
    broad = BREADTH["bust"] * min(v["bust_girth"], v["high_bust_girth"] + 4)
    return Level(bust.y, broad, bust.front + forward, bust.back + forward / 2)


def _legs(levels: Mapping[str, Level]) -> dict[str, Level]:
    """Return the leg's levels with their middles, the feet a little apart."""
    top = levels["thigh"]
    middles = {"thigh": top.half + 0.5, "knee": top.half * 0.92, "calf": top.half * 0.9, "ankle": top.half * 0.78}
    return {
        name: Level(levels[name].y, levels[name].half, levels[name].front, levels[name].back, middle)
        for name, middle in middles.items()
    }


#: Levels of the arm, and which point of its middle line each lies at.
_ON_ARM = (("bicep", 1), ("elbow", 2), ("wrist", 3), ("hand", 4))


def _arm(v: Mapping[str, float], shoulder: Point, levels: Mapping[str, Level]) -> tuple[Point, ...]:
    """Return the arm's middle line: joint, bicep, elbow, wrist, knuckles, finger tips."""
    radius = BREADTH["bicep"] * v["bicep_girth"]
    joint = (shoulder[0] - 0.75 * radius, shoulder[1] - 0.6 * radius)
    off = radians(clamp(max(ARM_OFF, *(_clearing(joint, radius, levels[name]) for name in _BESIDE_ARM)), 0, 32))
    upper, lower = (sin(off + 0.03), -cos(off + 0.03)), (sin(off - 0.03), -cos(off - 0.03))

    def on(start: Point, way: Point, far: float) -> Point:
        return (start[0] + way[0] * far, start[1] + way[1] * far)

    elbow = on(joint, upper, v["shoulder_to_elbow"] - 0.6 * radius)
    wrist = on(elbow, lower, max(v["arm_length"] - v["shoulder_to_elbow"], 8))
    knuckle = on(wrist, lower, clamp(v["shoulder_to_knuckle"] - v["arm_length"], 5, 14))
    return (joint, on(joint, upper, 0.42 * v["shoulder_to_elbow"]), elbow, wrist, knuckle, on(knuckle, lower, 7))


#: Levels of the trunk that the arm hangs beside.
_BESIDE_ARM = ("bust", "underbust", "waist", "stomach", "high_hip", "hip")


def _clearing(joint: Point, radius: float, level: Level) -> float:
    """Return how far off the body, in degrees, an arm must hang to pass a level with a little air."""
    return degrees(atan2(level.half + radius + 0.8 - joint[0], joint[1] - level.y))


def _limb(name: str, at: Point, v: Mapping[str, float]) -> Level:
    girth = v[f"{name}_girth"]
    return Level(at[1], BREADTH[name] * girth, DEPTH[name] * girth / 2, -DEPTH[name] * girth / 2, at[0])
