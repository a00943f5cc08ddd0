"""Cut away: along a line from edge to edge, the part beyond it is left off.

A short sleeve, a halter, a strapless edge, a low back are this. What was sewn to the part that is gone is no seam any
more; the new edge is a hem or an edge to be faced. Common practice, no single source.
"""

from collections.abc import Iterator
from dataclasses import replace

from pydantic import Field

from izett.geometry.blend import with_handles
from izett.geometry.curve import Curve
from izett.geometry.outline import signed_area
from izett.geometry.point import distance, left_of
from izett.pattern.facts import Role, Zone
from izett.pattern.piece import Piece, Span
from izett.pattern.working import Readable
from izett.styling.operation import Context, Group, Keeps, Offer, Operation, Outcome, Sum, length
from izett.styling.parting import Naming, left_off, parted, ready_between
from izett.styling.references import Params, PointRef
from izett.styling.subject import Kind, Subject, others_by_nearness, run_of
from izett.styling.words import line_words

#: A halter begins so far down the neckline from the shoulder, ends so far up the side seam, and bends by so much (cm).
HALTER = (0.3, 0.84, -3.0)


class CutAway(Params):
    """Where the line runs."""

    start: PointRef = Field(description="where the line begins")
    end: PointRef = Field(description="where it ends")
    bend: float = length(0.0, low=-10, high=10, meaning="bulge of the line in its middle (to the left from the start)")
    smaller: bool = Field(True, description="the smaller part is left off; otherwise the larger")


def apply(params: CutAway, context: Context) -> Outcome:
    """Cut, and keep one part."""
    ready = ready_between(context, params.start, params.end)
    naming = Naming("cut", "cut away", "cut_away", Role.HEM)
    cut = parted(context, ready, naming, bend=params.bend)
    pattern = cut.garment.without_seam(cut.seam)
    one, other = pattern.piece(ready.piece.name), pattern.piece(cut.cut_off)
    # Measured on paper: the part with less of it goes, unless the maker says otherwise.
    smaller, larger = sorted((one, other), key=lambda piece: abs(_area(piece)))
    kept, gone = (larger, smaller) if params.smaller else (smaller, larger)
    kept_named = replace(kept, name=ready.piece.name, title=ready.piece.title)
    if not params.bend:
        kept_named = _squared(kept_named, cut.lines)
    # The piece keeps its name, whichever of its parts stays.
    pattern = left_off(pattern, gone).with_parts(kept, kept_named)
    new = next(e for e in kept_named.edges if e.lineage in cut.lines)
    return Outcome(pattern, (Sum("length of the new edge", new.curve.length),), (new.lineage,))


def _squared(piece: Piece, new: frozenset[str]) -> Piece:
    """Return the piece with its new edge square to the seams at both ends, where it runs from seam to seam."""
    seams = (Role.SIDE, Role.UNDERARM, Role.INSEAM, Role.PANEL, Role.CENTRE_FRONT, Role.CENTRE_BACK)
    i = next(i for i, e in enumerate(piece.edges) if e.lineage in new)
    edge, before, after = piece.edges[i], piece.edges[i - 1], piece.edges[(i + 1) % len(piece.edges)]
    if before.role not in seams or after.role not in seams:
        return piece
    handle = distance(edge.curve.start, edge.curve.end) / 3
    curve = Curve(
        with_handles(
            edge.curve.start,
            left_of(before.curve.end_direction),
            edge.curve.end,
            left_of(after.curve.start_direction),
            start_handle=handle,
            end_handle=handle,
        )
    )
    return replace(piece, edges=tuple(replace(e, curve=curve) if e is edge else e for e in piece.edges))


def _area(piece: Piece) -> float:
    return signed_area(piece.outline())


def describe(params: CutAway) -> str:
    """Return the step in the maker's words."""
    return f"Cut away along a line from {line_words(params.start.along)} to {line_words(params.end.along)}"


def offers(subject: Subject, pattern: Readable) -> Iterator[Offer]:
    """Offer to cut away from the place pointed at to another line; across a sleeve at an even height."""
    piece = subject.piece
    if subject.kind is not Kind.LINE or piece is None or subject.span is None:
        return
    if subject.role is Role.UNDERARM:
        other = next((e.lineage for e in piece.edges if e.role is Role.UNDERARM and e.lineage != subject.name), None)
        span = run_of(pattern, piece, other) if other else None
        if span is not None:
            # The ring runs up one underarm and down the other.
            end = _at(span, round(1 - subject.fraction, 3))
            yield Offer("Short sleeve: cut off here", {"start": subject.place(), "end": end})
        return
    if subject.role is Role.NECK and piece.zone is Zone.FRONT:
        span = next((run_of(pattern, piece, e.lineage) for e in piece.edges if e.role is Role.SIDE), None)
        if span is not None:
            # Deep enough a bend to clear the armhole, and below its corner.
            yield Offer(
                "Halter: cut the shoulder away",
                {"start": {**subject.line(), "fraction": HALTER[0]}, "end": _at(span, HALTER[1]), "bend": HALTER[2]},
            )
    if piece.region and subject.role in (Role.NECK, Role.ARMHOLE, Role.CENTRE_BACK, Role.CENTRE_FRONT, Role.SIDE):
        for lineage in others_by_nearness(piece, subject):
            span = run_of(pattern, piece, lineage)
            if span is not None:
                yield Offer(
                    f"Cut away from here to {line_words(lineage)}", {"start": subject.place(), "end": _at(span, 0.5)}
                )


def _at(span: Span, fraction: float) -> dict[str, object]:
    return {"start": span.start, "end": span.end, "along": span.along, "fraction": fraction}


OPERATION = Operation(
    key="cut_away",
    title="Cut away",
    params=CutAway,
    apply=apply,
    describe=describe,
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.HEM,
    offers=offers,
    blocks=("bodice", "sleeve"),
    examples=(
        {
            "start": {
                "start": "sleeve.wrist_front",
                "end": "sleeve.underarm_front",
                "along": "sleeve.front_underarm",
                "fraction": 0.6,
            },
            "end": {
                "start": "sleeve.wrist_back",
                "end": "sleeve.underarm_back",
                "along": "sleeve.back_underarm",
                "fraction": 0.6,
            },
        },
    ),
)
