"""Let in a gore: a godet in a seam, a gusset at an underarm or fork, or a flounce cut from a circle.

A godet's two sides are as long as the slit that it is let into; a gusset is a square (or a diamond) sewn into a slash;
a flounce is a part of a circle whose inner edge is as long as the edge that it hangs from, or as both sides of the slit
that it is let into. Common practice, no single source.
"""

from collections.abc import Iterator
from enum import StrEnum
from math import cos, pi, sin, sqrt, tan

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.curve import Cubic, Curve, joined, straight
from izett.geometry.point import Point
from izett.pattern.document import Closure, Opening
from izett.pattern.facts import Role, Zone
from izett.pattern.piece import Span
from izett.pattern.working import Readable
from izett.styling.making import chain_of, is_half, length_of, outlined, sewn_on
from izett.styling.operation import Context, Group, Keeps, Offer, Operation, Outcome, Section, Sum, length, share
from izett.styling.references import Params, SpanRef
from izett.styling.subject import Kind, Subject
from izett.styling.told import long_in, size
from izett.styling.words import line_words
from izett.wording import cm

#: rad. One cubic follows a circle's arc of so much to within a thousandth of a millimetre at these radii.
ARC = pi / 8
#: cm. A slit leaves so much of its seam shut at least.
LEAST_ABOVE = 2.0
#: cm. A flounce so deep is a skirt.
LONG_AS_SKIRT = 40.0
#: Radius of a round top, as a share of the godet's width; its straight sides begin at most this far down the slit.
ROUND_TOP, MOST_ROUND = 0.15, 0.5


class Gore(StrEnum):
    """What is let in."""

    GODET = "godet"
    ROUND_GODET = "round_godet"
    GUSSET = "gusset"
    FLOUNCE = "flounce"
    SLIT_FLOUNCE = "slit_flounce"


#: What is let into a slit from the hem, and what is cut from a circle.
IN_SLIT = (Gore.GODET, Gore.ROUND_GODET, Gore.SLIT_FLOUNCE)
FROM_CIRCLE = (Gore.FLOUNCE, Gore.SLIT_FLOUNCE)


class AddGore(Params):
    """What is let in, where, and how large."""

    kind: Gore = Field(Gore.GODET, description="what is let in or hung")
    edges: tuple[SpanRef, ...] = Field(min_length=1, max_length=8, description="the seam, or the edges")
    width: float = length(
        20.0,
        low=2,
        high=120,
        meaning="width at the hem",
        called={Gore.GUSSET: "length of each side", Gore.FLOUNCE: "depth", Gore.SLIT_FLOUNCE: "depth"},
    )
    long: float = length(30.0, low=3, high=120, meaning="length of the slit, from the hem", only=IN_SLIT)
    circle: float = share(0.5, low=0.05, high=1, meaning="of a whole circle", only=FROM_CIRCLE)


def apply(params: AddGore, context: Context) -> Outcome:
    """Make the piece from the edges as they are now."""
    chain = chain_of(context, params.edges)
    if params.kind in FROM_CIRCLE:
        return _flounce(params, context, chain)
    if params.kind is Gore.GUSSET:
        return _gusset(params, context, chain)
    return _godet(params, context, chain)


def _arc(centre: Point, radius: float, start: float, end: float) -> Curve:
    steps = max(1, round(abs(end - start) / ARC))
    each = (end - start) / steps
    handle = 4 / 3 * tan(each / 4) * radius
    cubics: list[Cubic] = []

    def at(angle: float) -> Point:
        return (centre[0] + radius * cos(angle), centre[1] + radius * sin(angle))

    for i in range(steps):
        a, b = start + i * each, start + (i + 1) * each
        p, q = at(a), at(b)
        cubics.append(
            (p, (p[0] - handle * sin(a), p[1] + handle * cos(a)), (q[0] + handle * sin(b), q[1] - handle * cos(b)), q)
        )
    return joined(cubics)


def _flounce(params: AddGore, context: Context, chain: tuple[Span, ...]) -> Outcome:
    whole = length_of(context.garment, chain)
    in_slit = params.kind is Gore.SLIT_FLOUNCE
    if in_slit:
        _refuse_long(params, chain, whole)
    # Up one side of the slit and down the other.
    edge = 2 * params.long if in_slit else whole
    half = not in_slit and is_half(context.garment, chain)
    # Half of it is drawn on the fold where half the garment is drawn.
    angle = 2 * pi * params.circle / (2 if half else 1)
    radius = edge / angle
    low, high = -pi / 2 - angle / 2, -pi / 2 + angle / 2
    if half:
        low, high = -pi / 2, -pi / 2 + angle
    outer = radius + params.width
    centre = (0.0, 0.0)
    inner_line, hem = _arc(centre, radius, low, high), _arc(centre, outer, low, high)
    made = outlined(
        context,
        title="Flounce" if in_slit or params.width < LONG_AS_SKIRT else "Circle skirt",
        cut=2 if in_slit else 1,
        edges=[
            (Role.FOLD if half else Role.PANEL, "start", straight(inner_line.start, hem.start)),
            (Role.HEM, "hem", hem),
            (Role.PANEL, "end", straight(hem.end, inner_line.end)),
            (Role.PANEL, "edge", inner_line.reversed()),
        ],
        fold=0 if half else None,
    )
    told = (Sum("edge", edge), Sum("radius", radius), Sum("hem", hem.length * (2 if half else 1)))
    if in_slit:
        slit = Opening(context.named("slit"), Closure.SLIT, chain[0], params.long)
        return Outcome(context.garment.adding(made, openings=(slit,)), told, (made.name, slit.name))
    pattern = sewn_on(context, context.garment, made, chain, context.named("edge"), "flounce", lies="")
    return Outcome(pattern, told, (made.name,))


def _refuse_long(params: AddGore, chain: tuple[Span, ...], whole: float) -> None:
    if params.long > whole - LEAST_ABOVE:
        raise StepRefused(
            f"The seam is {cm(whole)} long: a slit of {cm(params.long, 2)} does not fit.",
            fix="Make it shorter.",
            where=(chain[0].along,),
        )


def _godet(params: AddGore, context: Context, chain: tuple[Span, ...]) -> Outcome:
    whole = length_of(context.garment, chain)
    _refuse_long(params, chain, whole)
    half = params.width / 2
    # Both sides are as long as the slit: the hem lies on a circle about the point.
    opening_angle = 2 * half / params.long
    if opening_angle > pi:
        raise StepRefused(
            "The godet would be wider than half a circle.",
            fix="Make it narrower, or make the slit longer.",
            where=(chain[0].along,),
        )
    low, high = -pi / 2 - opening_angle / 2, -pi / 2 + opening_angle / 2
    slope = opening_angle / 2
    # A round top touches both sides; over half of it they are still as long as the slit.
    top = (
        min(ROUND_TOP * params.width, MOST_ROUND * params.long * tan(slope)) if params.kind is Gore.ROUND_GODET else 0.0
    )
    straight_from = top / tan(slope)
    long = params.long + straight_from - top * (pi / 2 - slope)
    hem = _arc((0.0, 0.0), long, low, high)
    # A pointed godet's crown is a point.
    crown = (
        _arc((0.0, -straight_from / cos(slope)), top, slope, pi - slope) if top else straight((0.0, 0.0), (0.0, 0.0))
    )
    ring = [
        (Role.PANEL, "left", straight(crown.end, hem.start)),
        (Role.HEM, "hem", hem),
        (Role.PANEL, "right", straight(hem.end, crown.start)),
        *([(Role.PANEL, "crown", crown)] if top else []),
    ]
    made = outlined(context, title="Godet", cut=2, edges=ring, fold=None)
    opening = Opening(context.named("slit"), Closure.SLIT, chain[0], params.long)
    pattern = context.garment.adding(made, openings=(opening,))
    told = (Sum("each side", long_in(made, Role.PANEL) / 2), Sum("hem of the godet", hem.length))
    return Outcome(pattern, told, (made.name, opening.name))


def _gusset(params: AddGore, context: Context, chain: tuple[Span, ...]) -> Outcome:
    side = params.width
    h = side / sqrt(2)
    corners: list[Point] = [(0.0, -h), (h, 0.0), (0.0, h), (-h, 0.0)]
    labels = ("front", "upper", "back", "lower")
    ring = [(Role.PANEL, labels[i], straight(corners[i], corners[(i + 1) % 4])) for i in range(4)]
    made = outlined(context, title="Gusset", cut=2, edges=ring, fold=None, zone=Zone.GUSSET)
    slash = Opening(context.named("slash"), Closure.SLIT, chain[0], side)
    pattern = context.garment.adding(made, openings=(slash,))
    told = (
        Sum("each side", made.edges[0].curve.length),
        Sum("slash", slash.length),
        Sum("added across", size(made)[0]),
    )
    return Outcome(pattern, told, (made.name, slash.name))


def describe(params: AddGore) -> str:
    """Return the step in the maker's words."""
    along = " and ".join(line_words(line.along) for line in params.edges)
    if params.kind is Gore.SLIT_FLOUNCE:
        return (
            f"Flounce in a slit of {cm(params.long, 2)} in {along}: {params.circle:g} of a circle, "
            f"{cm(params.width, 2)} deep"
        )
    if params.kind is Gore.FLOUNCE:
        return f"Flounce on {along}: {params.circle:g} of a circle, {cm(params.width, 2)} deep"
    if params.kind is Gore.GUSSET:
        return f"Gusset of {cm(params.width, 2)} at {along}"
    return f"Godet in {along}: {cm(params.width, 2)} wide, {cm(params.long, 2)} long"


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer a godet in a seam, a gusset at an underarm or fork, a flounce on a free edge."""
    if subject.kind is not Kind.LINE or subject.span is None:
        return
    line = subject.line()
    if subject.role in (Role.SIDE, Role.PANEL, Role.CENTRE_BACK):
        up = _from_hem(subject)
        if up is not None:
            yield Offer("Let in a godet", {"kind": "godet", "edges": [up], "width": 20.0, "long": 25.0})
            slit = {"kind": "slit_flounce", "edges": [up], "width": 12.0, "long": 25.0, "circle": 0.5}
            yield Offer("Slit with a flounce", slit)
    if subject.role in (Role.UNDERARM, Role.INSEAM, Role.SIDE):
        yield Offer("Let in a gusset", {"kind": "gusset", "edges": [line], "width": 8.0})
    if subject.role in (Role.HEM, Role.WAIST, Role.NECK):
        yield Offer(
            "Add: flounce, part of a circle", {"kind": "flounce", "edges": [line], "width": 15.0, "circle": 0.5}
        )
        if subject.role is Role.WAIST:
            yield Offer("Add: circle skirt", {"kind": "flounce", "edges": [line], "width": 60.0, "circle": 1.0})


def _from_hem(subject: Subject) -> dict[str, str] | None:
    """Return a line from the hem up; None where it does not come to one."""
    assert subject.piece is not None and subject.span is not None
    line = subject.line()
    hems = {name for e in subject.piece.edges if e.role is Role.HEM for name in (e.start, e.end)}
    for start, end in ((line["start"], line["end"]), (line["end"], line["start"])):
        if subject.piece.aliases.get(start, start) in hems:
            return {"start": start, "end": end, "along": line["along"]}
    return None


OPERATION = Operation(
    key="add_gore",
    title="Let in a godet or gusset, hang a flounce",
    params=AddGore,
    apply=apply,
    describe=describe,
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.FULLNESS,
    offers=offers,
    sections=(Section.FOLLOW,),
    blocks=("bodice", "skirt"),
    examples=(
        {
            "kind": "godet",
            "edges": ({"start": "skirt_front.hem_side", "end": "skirt_front.waist_side", "along": "skirt_front.side"},),
            "width": 20.0,
            "long": 25.0,
        },
        {
            "kind": "round_godet",
            "edges": ({"start": "skirt_back.hem_cb", "end": "skirt_back.waist_cb", "along": "skirt_back.centre"},),
            "width": 24.0,
            "long": 30.0,
        },
        {
            "kind": "gusset",
            "edges": ({"start": "front.underarm", "end": "front.waist_side", "along": "front.side"},),
            "width": 8.0,
        },
        {
            "kind": "flounce",
            "edges": (
                {"start": "skirt_front.hem_cf", "end": "skirt_front.hem_side", "along": "skirt_front.hem"},
                {"start": "skirt_back.hem_side", "end": "skirt_back.hem_cb", "along": "skirt_back.hem"},
            ),
            "width": 15.0,
            "circle": 0.5,
        },
        {
            "kind": "slit_flounce",
            "edges": ({"start": "skirt_front.hem_side", "end": "skirt_front.waist_side", "along": "skirt_front.side"},),
            "width": 12.0,
            "long": 25.0,
            "circle": 0.5,
        },
    ),
)
