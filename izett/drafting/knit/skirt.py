"""The knit pencil skirt: one piece, on the fold, cut twice; its turnings are cut on and drawn as such."""

from math import atan2, cos, sin

from izett.drafting.standard import as_block
from izett.geometry.blend import with_handles
from izett.geometry.curve import joined, straight
from izett.pattern.document import Seam
from izett.pattern.facts import Region, Role, SeamKind, Zone
from izett.pattern.piece import Edge, LevelLine, Piece, Span
from izett.rules.worksheet import Worksheet

#: Handles of the hip curve, as shares of its height, and of the line below, as shares of its own: by eye.
ABOVE_HIP, BELOW_HIP = 0.36, 0.3
NAME = "knit_skirt"


def knit_skirt_piece(sums: Worksheet) -> Piece:
    """Return the skirt; the cut top edge has y = 0, the fold x = 0."""
    waist, hip, hem = sums["knit_skirt_waist"], sums["knit_skirt_hip"], sums["knit_skirt_hem"]
    top, hip_at, cut = -sums["top_turning"], -sums["knit_skirt_hip_level"], -sums["knit_skirt_length"]
    turned_up = cut + sums["hem_turning"]
    below = atan2(hip - hem, hip_at - turned_up)
    down_at_hip = (-sin(below / 2), -cos(below / 2))
    lean = atan2(1.35 * (hip - waist), 0.75 * (top - hip_at))
    depth, long = top - hip_at, hip_at - turned_up
    hip_curve = with_handles(
        (waist, top),
        (sin(lean), -cos(lean)),
        (hip, hip_at),
        (-down_at_hip[0], -down_at_hip[1]),
        start_handle=ABOVE_HIP * depth,
        end_handle=ABOVE_HIP * depth,
    )
    to_hem = with_handles(
        (hip, hip_at),
        down_at_hip,
        (hem, turned_up),
        (sin(below), cos(below)),
        start_handle=BELOW_HIP * long,
        end_handle=BELOW_HIP * long,
    )
    side, fold = f"{NAME}.side", f"{NAME}.fold"
    lower, upper = joined([to_hem]).reversed(), joined([hip_curve]).reversed()
    ring = (
        (Role.FOLD, fold, "top_fold", "hem_fold", straight((0.0, 0.0), (0.0, cut))),
        (Role.CUT_EDGE, f"{NAME}.hem", "hem_fold", "hem_side", straight((0.0, cut), (hem, cut))),
        (Role.SIDE, side, "hem_side", "turned_hem_side", straight((hem, cut), (hem, turned_up))),
        (Role.SIDE, side, "turned_hem_side", "hip_side", lower),
        (Role.SIDE, side, "hip_side", "waist_side", upper),
        (Role.SIDE, side, "waist_side", "top_side", straight((waist, top), (waist, 0.0))),
        (Role.CUT_EDGE, f"{NAME}.top", "top_side", "top_fold", straight((waist, 0.0), (0.0, 0.0))),
    )
    return as_block(
        Piece(
            name=NAME,
            title="Knit pencil skirt",
            part=NAME,
            cut=2,
            on_fold=fold,
            grain=((0.3 * hip, 0.8 * cut), (0.3 * hip, 1.3 * hip_at)),
            edges=tuple(Edge(role, name, f"{NAME}.{a}", f"{NAME}.{b}", curve) for role, name, a, b, curve in ring),
            lines=(
                LevelLine("waist", ((0.0, top), (waist, top))),
                LevelLine("hip", ((0.0, hip_at), (hip, hip_at))),
                LevelLine("hem", ((0.0, turned_up), (hem, turned_up))),
            ),
        ),
        Zone.BODY,
        Region.SKIRT,
    )


def knit_skirt_seams() -> tuple[Seam, ...]:
    """Return the side seam: both sides are the one piece, cut twice."""
    side = (Span(f"{NAME}.hem_side", f"{NAME}.top_side", f"{NAME}.side"),)
    return (Seam("knit_skirt_side", (side, side), (0.0, 0.0), kind=SeamKind.SIDE),)
