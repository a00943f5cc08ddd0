"""Open a new dart: slash from an edge to a hinge on the opposite one and spread; the opening is sewn as a dart.

An elbow dart lets the arm bend: the lower sleeve turns forward about the front underarm, the dart opens behind at the
elbow. The drawn tip stays short of the hinge. Common practice, no single source.
"""

from collections.abc import Iterator
from dataclasses import replace

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.motion import Motion
from izett.geometry.point import between, distance
from izett.geometry.tolerance import SAME_POINT
from izett.pattern.facts import CENTRES, Role, SeamKind
from izett.pattern.paper import between_gates, parted_at
from izett.pattern.piece import Edge, Intake, Piece, has_role, legs, mouth_width
from izett.pattern.working import Readable
from izett.styling.carrying import carried, region_of
from izett.styling.fullness import meant
from izett.styling.operation import SHAPES, Context, Group, Offer, Operation, Outcome, Sum, as_fullness, length
from izett.styling.references import Params, PointRef
from izett.styling.spreading import NEAREST, Slash, opening
from izett.styling.subject import Kind, Subject, others_by_nearness, run_of
from izett.styling.words import line_words
from izett.wording import cm

#: cm. The drawn tip stays at least so far short of the hinge.
SHORT_OF_HINGE = 0.5


class OpenDart(Params):
    """Where it opens, what it turns about, how wide and how long."""

    at: PointRef = Field(description="the place on the edge where it opens")
    hinge: PointRef = Field(description="the place on the opposite edge about which the paper turns")
    width: float = length(2.0, low=0.3, high=8, meaning="width of the mouth")
    long: float = length(9.0, low=3, high=30, meaning="length of the dart as drawn")


def apply(params: OpenDart, context: Context) -> Outcome:
    """Turn the part beyond the slash and draw the dart."""
    piece, edge, along = context.place(params.at)
    other, far, far_along = context.place(params.hinge)
    if other is not piece or far is edge:
        raise StepRefused(
            "A dart opens on one edge and turns about another of the same piece.",
            fix="Choose another hinge.",
            where=(params.at.along, params.hinge.along),
        )
    corner = _corner_at(far, far_along)
    if (corner is None and min(far_along, far.curve.length - far_along) < NEAREST) or _corner_near(edge, along):
        raise StepRefused(
            f"The dart would open or turn closer than {cm(NEAREST, 2)} to a corner.",
            fix="Move the place along its line; the hinge may also lie at the corner itself.",
            where=(params.at.along, params.hinge.along),
        )
    if corner in (edge.start, edge.end):
        raise StepRefused(
            "The hinge lies at an end of the line on which the dart opens.",
            fix="Choose a hinge across the piece.",
            where=(params.at.along, params.hinge.along),
        )
    slash = Slash((edge, along), (far, far_along), params.width, 0.0)
    mouth, hinge = slash.line
    reach = distance(mouth, hinge)
    if params.long > reach - SHORT_OF_HINGE:
        raise StepRefused(
            f"The slash is {cm(reach)} long: a dart of {cm(params.long, 2)} does not fit.",
            fix="Make the dart shorter.",
            where=(edge.lineage,),
        )
    names = (context.named("a"), context.named("b"))
    ring = parted_at(piece.edges, edge, along, names)
    if corner is None:
        corner = context.named("hinge")
        ring = parted_at(ring, far, far_along, (corner, corner))
    before, after = between_gates(ring, corner, names[0]), between_gates(ring, names[1], corner)
    after_turns = not any(e.role in CENTRES for e in after) and _lower(after) <= _lower(before)
    motion: Motion = opening(slash, onwards=after_turns)
    turned = after if after_turns else before
    moved = [replace(e, curve=e.curve.mapped(motion)) for e in turned]
    before, after = (before, moved) if after_turns else (moved, after)
    dart = Intake(context.named("dart"), "new", hinge, reach - params.long, names, context.named("tip"))
    drawn = [*before, *legs(dart, before[-1].curve.end, after[0].curve.start), *after]
    # The hinge is no corner of the outline unless the two parts meet at an angle there: it stays as a corner of one line.
    start = next(i for i, e in enumerate(drawn) if e.start == piece.edges[0].start)
    names_turned = {e.start for e in turned}
    region = region_of(hinge, turned)
    new = replace(
        piece,
        edges=(*drawn[start:], *drawn[:start]),
        darts=(
            *(replace(d, pivot=motion(d.pivot)) if d.mouth[0] in names_turned else d for d in piece.darts),
            dart,
        ),
        lines=carried(piece.lines, ((hinge, mouth),), region, motion),
    )
    pattern, sums = meant(context.garment, context.garment.with_pieces(new))
    told = (Sum("mouth", mouth_width(new, dart)), Sum("length", _long(new, dart)))
    return Outcome(pattern, (*told, *sums), (dart.name, *names, dart.tip))


def _corner_at(edge: Edge, along: float) -> str | None:
    """Return the corner at which a place on an edge lies, or None."""
    if along <= SAME_POINT:
        return edge.start
    return edge.end if along >= edge.curve.length - SAME_POINT else None


def _corner_near(edge: Edge, along: float) -> bool:
    return min(along, edge.curve.length - along) < NEAREST


def _lower(edges: list[Edge]) -> float:
    ys = [p[1] for e in edges for p in (e.curve.start, e.curve.end)]
    return sum(ys) / len(ys)


def _long(piece: Piece, dart: Intake) -> float:
    """Return how long (cm) a dart is, from the middle of its mouth to its tip."""
    a, b = (piece.vertex(name) for name in dart.mouth)
    return distance(between(a, b, 0.5), piece.vertex(dart.tip))


def describe(params: OpenDart) -> str:
    """Return the step in the maker's words."""
    return f"Open a dart of {cm(params.width, 2)} on {line_words(params.at.along)}, {cm(params.long, 2)} long"


def offers(subject: Subject, pattern: Readable) -> Iterator[Offer]:
    """Offer a dart at the place pointed at, hinged at the middle of each edge that does not touch it."""
    piece = subject.piece
    if subject.kind is not Kind.LINE or piece is None or subject.span is None or not piece.region:
        return
    if has_role(piece, Role.CUT_EDGE):
        # Cut straight: it has its shape from rectangles alone.
        return
    corners = {n for e in piece.edges if e.lineage == subject.name for n in (e.start, e.end)}
    touching = {e.lineage for e in piece.edges if {e.start, e.end} & corners}
    for lineage in others_by_nearness(piece, subject):
        edge = next(e for e in piece.edges if e.lineage == lineage)
        if lineage in touching or edge.role in (Role.CENTRE_FRONT, Role.CENTRE_BACK):
            continue
        span = run_of(pattern, piece, lineage)
        if span is not None:
            share = 1 - subject.fraction if edge.role is Role.UNDERARM else 0.5
            hinge = {"start": span.start, "end": span.end, "along": span.along, "fraction": round(share, 3)}
            word = (
                "Elbow dart here"
                if edge.role is Role.UNDERARM
                else f"Open a dart here, hinged at {line_words(edge.lineage)}"
            )
            yield Offer(word, {"at": subject.place(), "hinge": hinge})


OPERATION = Operation(
    key="open_dart",
    title="Open a new dart",
    params=OpenDart,
    apply=apply,
    describe=describe,
    width=as_fullness,
    sections=SHAPES,
    moves=(
        SeamKind.CAP,
        SeamKind.WAIST,
    ),
    group=Group.DARTS,
    offers=offers,
    blocks=("bodice", "sleeve"),
    examples=(
        {
            "at": {
                "start": "sleeve.wrist_back",
                "end": "sleeve.underarm_back",
                "along": "sleeve.back_underarm",
                "fraction": 0.55,
            },
            "hinge": {
                "start": "sleeve.wrist_front",
                "end": "sleeve.underarm_front",
                "along": "sleeve.front_underarm",
                "fraction": 0.55,
            },
            "width": 2.0,
            "long": 8.0,
        },
    ),
)
