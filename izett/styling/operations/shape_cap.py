"""Shape the cap: higher or lower with the width following, wider half-way up, turned for the arm's pitch.

A lower cap is wider at the bicep and lets the arm rise; a higher one is narrow and hangs clean. Cap and armhole stay as
long as they were where only the height changes; what is added half-way up is ease on the cap. For an arm further forward
the crown turns back: the shoulder notch moves forward, and the underarm seam forward of the side seam. Common practice,
no single source.
"""

from collections.abc import Callable, Iterator
from dataclasses import replace
from math import cos, pi

from izett.errors import StepRefused
from izett.geometry.fit import displaced
from izett.geometry.point import Point, Vector
from izett.geometry.root import root
from izett.pattern.document import Seam
from izett.pattern.facts import Role, SeamKind, Zone
from izett.pattern.piece import Edge, Piece
from izett.pattern.sewn import holding
from izett.pattern.working import Readable, Working
from izett.styling.caps import warped
from izett.styling.fullness import meant
from izett.styling.operation import SHAPES, Context, Group, Offer, Operation, Outcome, Sum, as_ease, length
from izett.styling.parting import seam_of
from izett.styling.references import Params
from izett.styling.subject import Kind, Subject
from izett.styling.words import signed
from izett.wording import cm

#: A cap whose width grows or shrinks beyond this is another sleeve.
LEAST_FACTOR, MOST_FACTOR = 0.6, 1.8


class ShapeCap(Params):
    """How the cap changes."""

    height: float = length(
        0.0, low=-8, high=4, meaning="higher (−: lower); the width follows, the cap keeps its length"
    )
    front: float = length(0.0, low=-1, high=3, meaning="wider half-way up in front")
    back: float = length(0.0, low=-1, high=3, meaning="wider half-way up behind")
    pitch: float = length(0.0, low=-2, high=2.5, meaning="the shoulder notch and the underarm seam move forward by")


def apply(params: ShapeCap, context: Context) -> Outcome:
    """Change height and width, then the notches."""
    seam = seam_of(context, SeamKind.CAP)
    sleeve = holding(context.garment, seam.sides[1][0].start)
    if not any(edge.role is Role.CAP for edge in sleeve.edges):
        raise StepRefused(
            f"{sleeve.title} is cut straight: it has no cap to shape.",
            fix="Draft a sleeve with a cap.",
            where=(sleeve.name,),
        )
    new = sleeve
    factor = 1.0
    if params.height:
        new, factor = _higher(new, params.height)
    new = _wider(new, params.front, params.back)
    pattern, sums = meant(context.garment, context.garment.with_pieces(new), lies="above the notches")
    if params.pitch:
        pattern = _pitched(pattern, seam, pattern.piece(new.name), params.pitch)
    told = [Sum("cap height", _height(new)), Sum("bicep line", new.level("bicep")), Sum("width times", factor, "")]
    return Outcome(pattern, (*told, *sums))


def _height(sleeve: Piece) -> float:
    ys = [p[1] for e in sleeve.edges if e.role is Role.CAP for p in (e.curve.start, e.curve.end)]
    return max(ys) - min(ys)


def _cap_length(sleeve: Piece) -> float:
    return sum(e.curve.length for e in sleeve.edges if e.role is Role.CAP)


def _higher(sleeve: Piece, higher: float) -> tuple[Piece, float]:
    caps = [e for e in sleeve.edges if e.role is Role.CAP]
    crown = max((e.curve.end for e in caps), key=lambda p: p[1])
    base = min(p[1] for e in caps for p in (e.curve.start, e.curve.end))
    tall = crown[1] - base
    if tall + higher < 3:
        raise StepRefused(
            f"A cap of {cm(max(tall + higher, 0))} is no cap.", fix="Lower it less.", where=(sleeve.name,)
        )
    whole = _cap_length(sleeve)

    def grown(factor: float) -> Callable[[Point], Point]:
        def move(point: Point) -> Point:
            return (
                crown[0] + (point[0] - crown[0]) * factor,
                base + (point[1] - base) * (tall + higher) / tall,
            )

        return move

    try:
        factor = root(lambda f: _cap_length(warped(sleeve, grown(f))) - whole, LEAST_FACTOR, MOST_FACTOR, within=1e-6)
    except ValueError:
        raise StepRefused(
            f"With a cap {cm(abs(higher), 2)} {'higher' if higher > 0 else 'lower'} no width keeps its length.",
            fix="Change the height less.",
            where=(sleeve.name,),
        ) from None
    return warped(sleeve, grown(factor)), factor


def _wider(sleeve: Piece, front: float, back: float) -> Piece:
    ring: list[Edge] = []
    for edge in sleeve.edges:
        out = front if edge.zone is Zone.FRONT else back
        if edge.role is not Role.CAP or not out:
            ring.append(edge)
            continue
        away = 1.0 if (edge.curve.start[0] + edge.curve.end[0]) / 2 > 0 else -1.0
        top_at_end = edge.curve.end[1] > edge.curve.start[1]
        ring.append(replace(edge, curve=displaced(edge.curve, _bulge(out * away, top_at_end=top_at_end))))
    return replace(sleeve, edges=tuple(ring))


def _bulge(out: float, *, top_at_end: bool) -> Callable[[float], Vector]:
    """Return the shift that is most half-way up and nothing at either end."""

    def shift(share: float) -> Vector:
        up = share if top_at_end else 1 - share
        return (out * (1 - cos(2 * pi * up)) / 2, 0.4 * abs(out) * (1 - cos(2 * pi * up)) / 2)

    return shift


def _pitched(pattern: Working, seam: Seam, sleeve: Piece, forward: float) -> Working:
    """Return the pattern with the cap's notches turned forward: nearer to the front's underarm, further from the back's."""
    notches = tuple(
        replace(n, distance=n.distance + (-forward if sleeve.zone_of(n.span.along) is Zone.FRONT else forward))
        for n in sleeve.notches
    )
    # How far the cap is turned in all, from its own top: by the steps before, and by this one.
    turned = seam.offset + forward
    zone = Zone.FRONT if turned >= 0 else Zone.BACK
    cap = next((e for e in sleeve.edges if e.role is Role.CAP and e.zone is zone), None)
    marks = dict(sleeve.marks)
    if cap is not None and "shoulder_notch" in marks:
        top_at_end = cap.curve.end[1] > cap.curve.start[1]
        at = cap.curve.length - abs(turned) if top_at_end else abs(turned)
        marks["shoulder_notch"] = cap.curve.at_distance(max(at, 0.0))
    pattern = pattern.with_pieces(replace(sleeve, notches=notches, marks=marks))
    now = pattern.find_seam(seam.name) or seam
    return pattern.with_seam(replace(now, offset=now.offset + forward))


def describe(params: ShapeCap) -> str:
    """Return the step in the maker's words."""
    parts = []
    if params.height:
        parts.append(signed(params.height, "higher by", "lower by"))
    for where, by in (("in front", params.front), ("behind", params.back)):
        if by:
            parts.append(f"{signed(by, 'wider by', 'narrower by')} half-way up {where}")
    if params.pitch:
        parts.append(f"turned {signed(params.pitch, 'forward by', 'back by')}")
    return f"Cap: {', '.join(parts) or 'as it is'}"


def offers(subject: Subject, pattern: Readable) -> Iterator[Offer]:
    """Offer height, width and pitch where a cap is pointed at."""
    if subject.kind is Kind.LINE and subject.role is Role.CAP and pattern.seams_of(SeamKind.CAP):
        yield Offer("Cap height, the width following", {"height": -1.5})
        yield Offer("Widen half-way up", {"front": 0.5, "back": 0.5})
        yield Offer("Add to the back cap", {"back": 1.0})
        yield Offer("Turn the sleeve for the arm's pitch", {"pitch": 1.0})


OPERATION = Operation(
    key="shape_cap",
    title="Shape the cap",
    params=ShapeCap,
    apply=apply,
    describe=describe,
    width=as_ease,
    sections=SHAPES,
    group=Group.SLEEVE,
    offers=offers,
    blocks=("bodice", "sleeve"),
    examples=({"height": -2.0}, {"front": 0.4, "back": 0.8}, {"pitch": 1.0}),
)
