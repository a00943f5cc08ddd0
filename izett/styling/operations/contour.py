"""Contour a close bodice without straps: take in at the panel seam under the bust, at the waist and below, and above it.

How much is solved, not guessed: the pattern's width at each level less what is wanted there (the body with its ease),
shared over the edges of the panel seam; at each level no more than the trade's start of 5 cm around (3.8 above the bust),
never past what is wanted, and never nearer to the bust point than 1.2 cm. Common practice, no single source.
"""

from collections.abc import Iterator
from dataclasses import replace

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.curve import Curve
from izett.geometry.fit import through
from izett.geometry.outline import along_line
from izett.geometry.point import add, distance, left_of, scale
from izett.pattern.document import Edge, Pattern, Piece, Role, Seam
from izett.pattern.redraw import redrawn
from izett.pattern.sewn import holding, walk
from izett.styling.fullness import with_levels
from izett.styling.operation import Context, Group, Offer, Operation, Outcome, Params, Sum, length
from izett.styling.parting import seam_named
from izett.styling.subject import Kind, Subject, seam_at

#: cm. The intake stops so far from the bust point.
CLEAR_OF_APEX = 1.2
#: cm. The trade's start, all around.
MOST_BELOW, MOST_ABOVE = 5.0, 3.8
#: Edges of a panel seam all around: two seams (left and right) with two edges each.
EDGES = 4
#: cm. Marks on the seam lie about so far apart.
MARKS_APART = 2.0


class Contour(Params):
    """Which panel seam, and what ease is wanted at the levels."""

    seam: str = Field(description="the panel seam over the bust", json_schema_extra={"refers": "seam"})
    underbust_ease: float = length(0.5, low=-4, high=4, meaning="ease wanted under the bust, all around")
    above: float = length(3.0, low=0, high=3.8, meaning="taken in above the bust at the upper edge, all around")
    under: float = length(
        0.0, low=0, high=5, meaning="taken in under the bust, all around (0: worked out from the body)"
    )
    below: float = length(5.0, low=0, high=5, meaning="most that is taken in under the bust, all around")


def apply(params: Contour, context: Context) -> Outcome:
    """Bend both edges of the seam inwards under and above the bust."""
    seam = seam_named(context, params.seam)
    pieces = [holding(context.pattern, side[0].start) for side in seam.sides]
    if any(len(side) != 1 for side in seam.sides) or any(_edge(p, seam, i).is_leg for i, p in enumerate(pieces)):
        raise StepRefused("That seam runs over several pieces.", mend="Choose a panel seam.", where=(seam.name,))
    under = params.under or _solved(context, params)
    apex_at = _apex_along(pieces, seam)
    pattern = context.pattern
    for side, piece in enumerate(pieces):
        pattern = pattern.with_pieces(_bent(piece, seam, side, under / EDGES, params.above / EDGES, apex_at[side]))
    return Outcome(
        replace(pattern, intent=with_levels(context.pattern, pattern)),
        (
            Sum("taken in under the bust, around", under),
            Sum("taken in above it, around", params.above),
            Sum("edges", float(EDGES), ""),
            Sum("clear of the bust point by", CLEAR_OF_APEX),
        ),
    )


def _solved(context: Context, params: Contour) -> float:
    """Return what is taken in under the bust: pattern less the body with its ease there, within the trade's start."""
    bust, underbust = context.measured("bust_girth"), context.measured("underbust_girth")
    ease = context.pattern.intent.ease.get("bust", 0.0)
    spare = (bust + ease) - (underbust + params.underbust_ease)
    waist_ease = context.pattern.intent.ease.get("waist", 0.0)
    # Between bust and waist the seams already run in: half-way down half of that is taken.
    taken = ((bust + ease) - (context.measured("waist_girth") + waist_ease)) / 2
    return min(max(spare - taken, 0.0), params.below, MOST_BELOW)


def _edge(piece: Piece, seam: Seam, side: int) -> Edge:
    return walk(piece, seam.sides[side][0])[0].edge


def _apex_along(pieces: list[Piece], seam: Seam) -> list[float]:
    """Return how far along each edge, in ring order, the bust point lies: where the edge is bent most."""
    found = []
    for side, piece in enumerate(pieces):
        curve = _edge(piece, seam, side).curve
        apex = piece.marks.get("apex")
        if apex is not None:
            found.append(along_line(curve.flattened(), apex))
        else:
            found.append(curve.length * 0.5)
    # Seams run together: both sides are measured from the same end.
    forward = [walk(p, seam.sides[i][0])[0].forward for i, p in enumerate(pieces)]
    known = next((i for i, p in enumerate(pieces) if "apex" in p.marks), 0)
    from_start = found[known] if forward[known] else _edge(pieces[known], seam, known).curve.length - found[known]
    return [from_start if forward[i] else _edge(p, seam, i).curve.length - from_start for i, p in enumerate(pieces)]


def _bent(piece: Piece, seam: Seam, side: int, under: float, above: float, apex: float) -> Piece:
    edge = _edge(piece, seam, side)
    curve, whole = edge.curve, edge.curve.length
    falls = curve.start[1] > curve.end[1]
    marks = []
    count = max(6, round(whole / MARKS_APART))
    for i in range(count + 1):
        along = whole * i / count
        spot = curve.at_distance(along)
        below = (along > apex) == falls
        room = abs(along - apex) - CLEAR_OF_APEX
        end = (whole - apex if falls else apex) if below else (apex if falls else whole - apex)
        share = min(max(room / max(end - CLEAR_OF_APEX, 0.1), 0.0), 1.0)
        # Under the bust most at a third of the way to the waist, nothing at the waist; above it grows to the edge.
        weight = _hump(share) * under if below else share * share * above
        inwards = left_of(_direction(curve, along))
        marks.append(add(spot, scale(inwards, weight)))
    new = through(marks, leaving=curve.start_direction, arriving=curve.end_direction)
    if distance(new.start, curve.start) or distance(new.end, curve.end):
        piece = redrawn(piece, moves={edge.start: new.start, edge.end: new.end})
    return replace(
        piece,
        edges=tuple(replace(e, curve=new) if (e.start, e.end) == (edge.start, edge.end) else e for e in piece.edges),
    )


def _hump(share: float) -> float:
    return (
        (share / 0.35) * (2 - share / 0.35)
        if share <= 0.35
        else ((1 - share) / 0.65) ** 2 * (1 + 2 * (share - 0.35) / 0.65)
    )


def _direction(curve: Curve, along: float) -> tuple[float, float]:
    before, after = curve.split(min(max(along, 1e-3), curve.length - 1e-3))
    return after.start_direction if after.length else before.end_direction


def describe(params: Contour) -> str:
    """Return the step in the maker's words."""
    return f"Contour the {params.seam.replace('_', ' ')} seam under and above the bust"


def offers(subject: Subject, pattern: Pattern) -> Iterator[Offer]:
    """Offer to contour a panel seam of a front."""
    if subject.kind is Kind.LINE and subject.role is Role.PANEL and subject.piece is not None:
        seam = seam_at(pattern, subject.piece, subject.name)
        if seam is not None and "front" in seam.name and len(seam.sides[0]) == 1:
            yield Offer("Contour it for a close fit without straps", {"seam": seam.name})


OPERATION = Operation(
    key="contour",
    title="Contour a close bodice",
    params=Contour,
    apply=apply,
    describe=describe,
    group=Group.SIZE,
    offers=offers,
    before=(
        (
            "princess",
            {
                "start": {
                    "start": "front.underarm",
                    "end": "front.shoulder_tip",
                    "along": "front.armhole",
                    "fraction": 0.55,
                },
            },
        ),
    ),
    examples=({"seam": "princess_front"}, {"seam": "princess_front", "above": 1.0, "below": 2.0}),
)
