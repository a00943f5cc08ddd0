"""From the waist to the hip: the side's hip curve, and a waist line with darts that open upwards.

Blocks below the waist are drafted with the paper upside down, so that one way of drawing a waist with its darts serves
above and below: y grows downwards here, and `upright` turns the result over.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from math import atan, cos, sin
from pathlib import Path

from izett.drafting.waistline import WaistDart, waist_panels
from izett.geometry.blend import with_handles
from izett.geometry.curve import Curve, joined
from izett.geometry.point import Point, Vector
from izett.pattern.document import Edge, Intake, Role, legs
from izett.rules.worksheet import Worksheet

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


@dataclass(frozen=True, slots=True)
class DrawnWaist:
    """A waist line with its darts, from the centre to the side (y growing downwards)."""

    panels: tuple[Curve, ...]
    darts: tuple[WaistDart, ...]

    @property
    def length(self) -> float:
        """Its length with the darts shut, cm."""
        return sum(panel.length for panel in self.panels)

    @property
    def narrowest(self) -> float:
        """The width of its narrowest panel, cm."""
        return min(panel.end[0] - panel.start[0] for panel in self.panels)


def drawn_waist(
    centre: Point, out_of_centre: Vector, side: Point, lean: Vector, darts: Sequence[WaistDart]
) -> DrawnWaist:
    """Return the waist line through the mouths of darts."""
    return DrawnWaist(tuple(waist_panels(centre, out_of_centre, side, lean, darts)), tuple(darts))


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
        outer = waist.panels[i + 1].mapped(upright).reversed()
        edges.append(Edge(Role.WAIST, f"{part}.waist", start, b, outer))
        dart = Intake(
            name=f"{part}.waist_dart" + (f"_{number}" if number else ""),
            family="waist",
            pivot=upright((waist.darts[i].x, waist.darts[i].tip)),
            set_back=0.0,
            mouth=(b, a),
            tip=tip,
        )
        edges.extend(legs(dart, outer.end, upright(waist.panels[i].end)))
        darts.append(dart)
        start = a
    edges.append(Edge(Role.WAIST, f"{part}.waist", start, ends[1], waist.panels[0].mapped(upright).reversed()))
    return edges, darts[::-1]
