"""What must hold of every bodice draft (handbook of the trade: bust and waist sums, seams, darts, curves)."""

from collections.abc import Iterator
from itertools import pairwise
from math import degrees, radians, sin

from izett.drafting.method import Draft
from izett.geometry.outline import crossing, signed_area
from izett.geometry.point import cross, distance, dot, subtract, turn
from izett.geometry.tolerance import SAME_POINT
from izett.pattern.piece import Piece, Span
from izett.pattern.sewn import seam_lengths, shutting, span_length, walk

SUM = 0.05
CENTRE = {"front": "waist_cf", "back": "waist_cb"}


def broken(draft: Draft) -> Iterator[str]:
    values = draft.values
    pattern = draft.pattern
    front, back = pattern.pieces
    bust = 2 * (front.level("bust") + back.level("bust"))
    if abs(bust - values["bust_girth"] - values["back_expansion"] - values["bust_ease"]) > SUM:
        yield f"bust sum {bust:.3f}"
    waist = 2 * sum(
        span_length(
            piece,
            Span(f"{piece.part}.{CENTRE[piece.part]}", f"{piece.part}.waist_side", f"{piece.part}.waist"),
        )
        for piece in pattern
    )
    if abs(waist - values["waist_girth"] - values["waist_ease"]) > SUM:
        yield f"waist sum {waist:.3f}"
    for seam in pattern.seams:
        first, second = seam_lengths(pattern, seam)
        if not seam.ease[0] - SUM <= second - first <= seam.ease[1] + SUM:
            yield f"seam {seam.name} {first:.3f} {second:.3f}"
    ratio = values_armhole(front, back) / values["frame_bust"]
    if not 0.38 <= ratio <= 0.57:
        yield f"armhole ratio {ratio:.3f}"
    for side in ("front", "back"):
        if not 8 <= values[f"{side}_slope"] <= 34:
            yield f"{side} slope {values[f'{side}_slope']:.1f}"
    for piece in pattern:
        yield from _piece(piece)


def values_armhole(front: Piece, back: Piece) -> float:
    return sum(
        span_length(piece, Span(f"{piece.part}.underarm", f"{piece.part}.shoulder_tip", f"{piece.part}.armhole"))
        for piece in (front, back)
    )


def _piece(piece: Piece) -> Iterator[str]:
    if (spot := crossing(piece.outline())) is not None:
        yield f"{piece.name} crosses itself at {spot}"
    if signed_area(piece.outline()) <= 0:
        yield f"{piece.name} runs clockwise"
    for edge, following in pairwise((*piece.edges, piece.edges[0])):
        if edge.curve.end != following.curve.start or edge.end != following.start:
            yield f"{piece.name} ring open at {edge.end}"
    for dart in piece.darts:
        a, b = (piece.vertex(name) for name in dart.mouth)
        tip = piece.vertex(dart.tip)
        if abs(distance(a, tip) - distance(b, tip)) > 1e-6:
            yield f"{dart.name} legs differ"
        if distance(shutting(piece, dart, forward=True)(b), a) > 1e-6:
            yield f"{dart.name} does not shut about its pivot"
    yield from _square(piece)
    for lineage in {edge.lineage for edge in piece.edges if edge.lineage.split(".")[1] in ("neck", "armhole", "waist")}:
        for edge in piece.edges:
            if edge.lineage == lineage:
                kink = degrees(largest_turn(edge.curve.flattened(flatness=0.001)))
                if kink > 8:
                    yield f"{lineage} kinks by {kink:.1f}°"
    side = Span(f"{piece.part}.waist_side", f"{piece.part}.underarm", f"{piece.part}.side")
    points = [p for stretch in walk(piece, side) for p in (stretch.curve.start, stretch.curve.end)]
    straight = subtract(points[-1], points[0])
    bend = max(abs(cross(straight, subtract(p, points[0]))) / distance(points[0], points[-1]) for p in points)
    if bend > 0.01:
        yield f"{piece.part} side seam bends by {bend:.3f} with its darts shut"
    yield from _monotone(piece)


def _square(piece: Piece) -> Iterator[str]:
    for edge, following in pairwise((*piece.edges, piece.edges[0])):
        ends = (edge.role.value, following.role.value)
        if ends in (("neck", "centre_front"), ("neck", "centre_back"), ("centre_front", "waist"), ("centre_back", "waist"),
                    ("waist", "side"), ("side", "armhole"), ("armhole", "shoulder"), ("shoulder", "neck")):  # fmt: skip
            a, b = edge.curve.end_direction, following.curve.start_direction
            if abs(dot(a, b)) > sin(radians(1)):
                yield f"{piece.part}: {ends} meet at {degrees(turn(a, b)):.1f}°"


def _monotone(piece: Piece) -> Iterator[str]:
    neck = next(edge for edge in piece.edges if edge.role.value == "neck").curve.flattened()
    if any(b[0] > a[0] + 1e-6 or b[1] > a[1] + 1e-6 for a, b in pairwise(neck)):
        yield f"{piece.part} neck is not monotone"
    armhole = next(edge for edge in piece.edges if edge.role.value == "armhole").curve.flattened()
    heights = [p[1] for p in armhole]
    dip = heights[0] - min(heights)
    if dip > 3:
        yield f"{piece.part} armhole dips {dip:.1f} under the underarm"
    lowest = heights.index(min(heights))
    if any(b < a - 1e-6 for a, b in pairwise(heights[lowest:])):
        yield f"{piece.part} armhole turns down again"


def largest_turn(points: list) -> float:
    chords = [subtract(b, a) for a, b in pairwise(points) if distance(a, b) > SAME_POINT]
    return max((abs(turn(a, b)) for a, b in pairwise(chords)), default=0.0)
