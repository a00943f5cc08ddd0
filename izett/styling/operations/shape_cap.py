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
from izett.pattern.document import Edge, Pattern, Piece, Role
from izett.pattern.sewn import holding
from izett.styling.caps import warped
from izett.styling.fullness import meant
from izett.styling.operation import Context, Group, Offer, Operation, Outcome, Params, Sum, length
from izett.styling.parting import seam_named
from izett.styling.subject import Kind, Subject
from izett.styling.words import signed

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
    seam = seam_named(context, "cap")
    sleeve = holding(context.pattern, seam.sides[1][0].start)
    context.read.update(e.lineage for e in sleeve.edges if e.role is Role.CAP)
    new = sleeve
    factor = 1.0
    if params.height:
        new, factor = _higher(new, params.height)
    new = _wider(new, params.front, params.back)
    pattern, sums = meant(context.pattern, context.pattern.with_pieces(new), lies="above the notches")
    if params.pitch:
        pattern = _pitched(pattern, pattern.piece(new.name), params.pitch)
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
            f"A cap of {max(tall + higher, 0):.1f} cm is no cap.", mend="Lower it less.", where=(sleeve.name,)
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
            f"With a cap {abs(higher):g} cm {'higher' if higher > 0 else 'lower'} no width keeps its length.",
            mend="Change the height less.",
            where=(sleeve.name,),
        ) from None
    return warped(sleeve, grown(factor)), factor


def _wider(sleeve: Piece, front: float, back: float) -> Piece:
    ring: list[Edge] = []
    for edge in sleeve.edges:
        out = front if "front" in edge.lineage else back
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


def _pitched(pattern: Pattern, sleeve: Piece, forward: float) -> Pattern:
    """Return the pattern with the cap's notches turned forward: nearer to the front's underarm, further from the back's."""
    notches = tuple(
        replace(n, distance=n.distance + (-forward if "front" in n.span.along else forward)) for n in sleeve.notches
    )
    cap = next((e for e in sleeve.edges if e.role is Role.CAP and "front" in e.lineage), None)
    marks = dict(sleeve.marks)
    if cap is not None and "shoulder_notch" in marks:
        top_at_end = cap.curve.end[1] > cap.curve.start[1]
        at = cap.curve.length - forward if top_at_end else forward
        marks["shoulder_notch"] = cap.curve.at_distance(max(at, 0.0))
    pattern = pattern.with_pieces(replace(sleeve, notches=notches, marks=marks))
    seams = tuple(replace(s, offset=s.offset + forward) if s.name == "cap" else s for s in pattern.seams)
    return replace(pattern, seams=seams)


def describe(params: ShapeCap) -> str:
    """Return the step in the maker's words."""
    parts = []
    if params.height:
        parts.append(signed(params.height, "higher by", "lower by"))
    for where, cm in (("in front", params.front), ("behind", params.back)):
        if cm:
            parts.append(f"{signed(cm, 'wider by', 'narrower by')} half-way up {where}")
    if params.pitch:
        parts.append(f"turned {signed(params.pitch, 'forward by', 'back by')}")
    return f"Cap: {', '.join(parts) or 'as it is'}"


def offers(subject: Subject, pattern: Pattern) -> Iterator[Offer]:
    """Offer height, width and pitch where a cap is pointed at."""
    if subject.kind is Kind.LINE and subject.role is Role.CAP and any(seam.name == "cap" for seam in pattern.seams):
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
    group=Group.SLEEVE,
    offers=offers,
    blocks=("bodice", "sleeve"),
    examples=({"height": -2.0}, {"front": 0.4, "back": 0.8}, {"pitch": 1.0}),
)
