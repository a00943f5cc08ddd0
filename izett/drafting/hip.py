"""From the waist to the hip: the side's hip curve, and a waist line with darts that open upwards.

Blocks below the waist are drafted with the paper upside down, so that one way of drawing a waist with its darts serves
above and below: y grows downwards here, and `upright` turns the result over.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from math import atan, cos, sin
from pathlib import Path

from izett.drafting.method import Notice, Tell
from izett.drafting.waistline import WaistDart, waist_panels
from izett.geometry.blend import with_handles
from izett.geometry.curve import Curve, joined
from izett.geometry.motion import STILL, Motion
from izett.geometry.point import Point, Vector
from izett.pattern.facts import Role
from izett.pattern.piece import Edge, Intake, legs
from izett.rules.worksheet import Worksheet
from izett.wording import cm

#: The sheet of what blocks over the hip share.
HIP_SHEET = Path(__file__).with_suffix(".toml")

#: The side leaves the waist on a lean whose tangent is this times the take over this share of waist to hip.
LEAN, LEAN_OVER = 1.35, 0.75


def upright(point: Point) -> Point:
    """Return a point of the paper upside down as it lies upright."""
    return (point[0], -point[1])


def lean_of(take: float, depth: float) -> Vector:
    """Return the direction in which the side leaves the waist (downwards, y growing downwards).

    Args:
        take: what the side takes in at the waist, cm.
        depth: waist to hip, cm.
    """
    angle = atan(LEAN * take / (LEAN_OVER * depth))
    return (sin(angle), cos(angle))


def hip_curve(waist: Point, hip: Point, take: float, sums: Worksheet) -> Curve:
    """Return the side from the waist to the hip line, upright there (y growing downwards)."""
    depth = sums["waist_to_hip"]
    return joined(
        [
            with_handles(
                waist,
                lean_of(take, depth),
                hip,
                (0.0, -1.0),
                start_handle=sums["hip_fullness"] * depth,
                end_handle=sums["hip_upright"] * depth,
            )
        ]
    )


def tell_tight_high_hip(sums: Worksheet, tell: Tell, symbol: str, what: str) -> None:
    """Tell where a block is tighter at the high hip than the body; `symbol` is its ease there, `what` the block in words."""
    if sums[symbol] < 0:
        tell(
            Notice(
                "high-hip-tight",
                f"The high hip of {cm(sums['high_hip_girth'])} is {cm(-sums[symbol])} larger than the {what} there: retake "
                "it, make the hip curve fuller, or use panels.",
                ("high_hip_girth", "waist_to_high_hip", "hip_fullness"),
            )
        )


@dataclass(frozen=True, slots=True)
class DrawnWaist:
    """A waist line with its darts, from the centre to the side (y growing downwards).

    `turned` is how the paper was turned while it was drawn, so that the waist lay level and the darts upright.
    """

    panels: tuple[Curve, ...]
    darts: tuple[WaistDart, ...]
    turned: Motion = STILL

    def on_paper(self, point: Point) -> Point:
        """Return where a point of the waist lies on the upright paper."""
        return upright(self.turned(point))

    @property
    def side(self) -> Point:
        """Where it meets the side (y growing downwards)."""
        return self.turned(self.panels[-1].end)

    @property
    def length(self) -> float:
        """Its length with the darts shut, cm."""
        return sum(panel.length for panel in self.panels)


def drawn_waist(
    centre: Point,
    out_of_centre: Vector,
    side: Point,
    lean: Vector,
    darts: Sequence[WaistDart],
    turned: Motion = STILL,
) -> DrawnWaist:
    """Return the waist line through the mouths of darts; all is given as it lies on the turned paper."""
    return DrawnWaist(tuple(waist_panels(centre, out_of_centre, side, lean, darts)), tuple(darts), turned)


def x_at(side: Curve, level: float) -> float:
    """Return where a side passes a level (y growing downwards); its end's place beyond its ends."""
    line = side.flattened()
    above = max((p for p in line if p[1] <= level), key=lambda p: p[1], default=line[0])
    below = min((p for p in line if p[1] >= level), key=lambda p: p[1], default=line[-1])
    share = (level - above[1]) / (below[1] - above[1]) if below[1] > above[1] else 0.0
    return above[0] + share * (below[0] - above[0])


def wide_at(side: Curve, waist: DrawnWaist, level: float) -> float:
    """Return how wide a half is from x = 0 to its side at a level below the waist, darts as far as they reach taken out.

    Args:
        side: the hip curve (y growing downwards).
        waist: the drawn waist.
        level: below the waist, cm; not below the end of `side`.
    """
    wide = x_at(side, level)
    return wide - sum(dart.intake * max(dart.tip - level, 0.0) / dart.tip for dart in waist.darts if dart.tip > 0)


def to_measure(draw: Callable[[float], DrawnWaist], aim: float) -> tuple[DrawnWaist, float]:
    """Return the waist line drawn so that it measures `aim` cm, and what had to be added to its darts for that.

    A curved line is longer than the straight one; its excess goes into the darts until the length is exact.
    """
    extra = 0.0
    for _ in range(60):
        waist = draw(extra)
        over = waist.length - aim
        if abs(over) < 1e-10:
            break
        extra += over
    return waist, extra


def waist_edges(part: str, waist: DrawnWaist, *, ends: tuple[str, str]) -> tuple[list[Edge], list[Intake]]:
    """Return the waist in ring order, upright: from the side to the centre, with the darts' legs.

    Args:
        part: the draft part.
        waist: the drawn waist.
        ends: the vertices at the side and at the centre.
    """
    edges: list[Edge] = []
    darts: list[Intake] = []
    start = ends[0]
    for i in range(len(waist.darts) - 1, -1, -1):
        number = "" if i == 0 else str(i + 1)
        a, b, tip = (f"{part}.waist{number}_{end}" for end in ("a", "b", "tip"))
        outer = waist.panels[i + 1].mapped(waist.on_paper).reversed()
        edges.append(Edge(Role.WAIST, f"{part}.waist", start, b, outer))
        dart = Intake(
            name=f"{part}.waist_dart" + (f"_{number}" if number else ""),
            family="waist",
            pivot=waist.on_paper((waist.darts[i].x, waist.darts[i].tip)),
            set_back=0.0,
            mouth=(b, a),
            tip=tip,
        )
        edges.extend(legs(dart, outer.end, waist.on_paper(waist.panels[i].end)))
        darts.append(dart)
        start = a
    edges.append(Edge(Role.WAIST, f"{part}.waist", start, ends[1], waist.panels[0].mapped(waist.on_paper).reversed()))
    return edges, darts[::-1]
