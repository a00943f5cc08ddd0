"""A reach wedge: cloth above the side seam and in the sleeve's underarm, so that a raised arm lifts that and not the hem.

The underarm corner goes up, and out as far as the lower armhole then keeps its length, until the side seam has grown;
the sleeve's corners likewise until the underarm seam has grown by as much. The curves are drawn to the raised corners,
as square to the seams as before: the armhole round, to above the place where it was hinged, and the sleeve follows it.
Common practice, no single source.
"""

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import replace
from math import tan

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.blend import refitted, towards_meeting, with_handles
from izett.geometry.curve import Curve, joined
from izett.geometry.fit import through
from izett.geometry.motion import Motion
from izett.geometry.point import Point, add, distance, scale, turn
from izett.geometry.root import root
from izett.pattern.facts import Role, SeamKind
from izett.pattern.piece import Edge, Piece, has_role
from izett.pattern.redraw import redrawn
from izett.pattern.working import Readable
from izett.styling.operation import SHAPES, Context, Group, Offer, Operation, Outcome, Sum, as_ease, length, share
from izett.styling.references import Params
from izett.styling.subject import Kind, Subject
from izett.styling.told import long_in, told_alike
from izett.wording import cm

#: The corner goes up, and out by at most this share of it: further out it would stand off as a wing.
WING = 0.6
#: rad. Nor does the seam turn there by more than this, however short its uppermost stretch is.
MOST_TURN = 0.12
#: Of the way to the meeting of its end tangents, how far the handles of the lower curve go.
FULLNESS, FLATTEST, FULLEST = 0.62, 0.3, 0.8
#: A round armhole is drawn anew so far above the hinge, at most up to there, and at its fullest so.
ABOVE_HINGE, HIGHEST, ROUND = 0.25, 0.75, 0.64
#: cm. Tangents that meet nearer than this would make a corner, not a curve.
LEAST_AHEAD = 0.5

#: Marks along a line that is drawn anew, and how near to its hinge, as a share of it, none of them counts.
FAIR_MARKS, BESIDE_HINGE = 10, 0.14


class ReachWedge(Params):
    """How much is added, and where the lower armhole turns."""

    amount: float = length(
        2.0, low=0.3, high=6, meaning="added to the side seam at the armhole and to the sleeve's underarm"
    )
    hinge: float = share(0.45, low=0.25, high=0.7, meaning="where armhole and cap begin to rise, from the underarm")
    rounded: bool = Field(True, description="the armhole is drawn round to above that place; the sleeve follows it")
    sweep: bool = Field(True, description="the cap is drawn as one sweep over that place")


def apply(params: ReachWedge, context: Context) -> Outcome:
    """Raise the corners of armhole and cap until the seams below have grown."""
    pieces: list[Piece] = []
    garment = context.garment
    worn = {piece.name: piece for role in (Role.ARMHOLE, Role.CAP) for piece in garment.with_role(role)}
    for piece in worn.values():
        new = piece
        for curved, seam in ((Role.ARMHOLE, Role.SIDE), (Role.CAP, Role.UNDERARM)):
            for edge, neighbour in _corners(piece, curved, seam):
                new = _wedged(new, edge.lineage, neighbour.lineage, params)
        if new is not piece:
            pieces.append(new)
    if not pieces:
        raise StepRefused("The pattern has no armhole with a side seam.", fix="Add a top.", where=("armhole",))
    return Outcome(
        context.garment.with_pieces(*pieces),
        (*_told(worn, pieces), Sum("pieces", float(len(pieces)), "")),
        asks=(SeamKind.CAP,) if params.rounded and garment.seams_of(SeamKind.CAP) else (),
    )


def _told(before: Mapping[str, Piece], after: Sequence[Piece]) -> Iterator[Sum]:
    """Yield by how much the seams that end at the underarm have become longer."""
    for role, seam in ((Role.SIDE, "side"), (Role.UNDERARM, "underarm seam")):
        longer = {
            piece.title.lower(): _each(piece, role) - _each(before[piece.name], role)
            for piece in after
            if has_role(piece, role)
        }
        yield from told_alike(f"longer at the {seam}", longer)


def _each(piece: Piece, role: Role) -> float:
    """Return how long (cm) each line of a role is: a sleeve has two underarm seams."""
    return long_in(piece, role) / len({edge.lineage for edge in piece.edges if edge.role is role})


def _corners(piece: Piece, curved: Role, seam: Role) -> Iterator[tuple[Edge, Edge]]:
    for i, edge in enumerate(piece.edges):
        following = piece.edges[(i + 1) % len(piece.edges)]
        if (edge.role, following.role) == (seam, curved):
            yield following, edge
        elif (edge.role, following.role) == (curved, seam):
            yield edge, following


def _wedged(piece: Piece, curved: str, seam: str, params: ReachWedge) -> Piece:
    i = next(
        i
        for i, e in enumerate(piece.edges)
        if {e.lineage, piece.edges[(i + 1) % len(piece.edges)].lineage} == {curved, seam}
        and {e.role, piece.edges[(i + 1) % len(piece.edges)].role}
        in ({Role.ARMHOLE, Role.SIDE}, {Role.CAP, Role.UNDERARM})
    )
    first, second = piece.edges[i], piece.edges[(i + 1) % len(piece.edges)]
    seam_first = first.lineage == seam
    edge, neighbour = (second, first) if seam_first else (first, second)
    # Walked from the corner up.
    curve = edge.curve if seam_first else edge.curve.reversed()
    rounded = params.rounded and edge.role is Role.ARMHOLE
    lower, upper = curve.split(curve.length * (min(params.hinge + ABOVE_HINGE, HIGHEST) if rounded else params.hinge))
    up = neighbour.curve.end_direction if seam_first else scale(neighbour.curve.start_direction, -1.0)
    out = scale(curve.start_direction, -1.0)

    def grown(spot: Point) -> Curve:
        return refitted(neighbour.curve, end=spot) if seam_first else refitted(neighbour.curve, start=spot)

    def raised(aside: float) -> Point:
        """Return the corner raised by as much as the seam has grown, and moved out as far."""
        beside = add(lower.start, scale(out, aside))
        wanted = neighbour.curve.length + params.amount
        far = root(lambda by: grown(add(beside, scale(up, by))).length - wanted, -params.amount, 2 * params.amount)
        return add(beside, scale(up, far))

    def longer(aside: float) -> float:
        return _lower(lower, raised(aside), grown, neighbour.curve, seam_first=seam_first).length - lower.length

    last = list(neighbour.curve.cubics())[-1 if seam_first else 0]
    most = min(params.amount * WING, tan(MOST_TURN) * (Curve(last).length + params.amount))
    # It need not keep its length to the hair: between nothing and the most by proportion.
    short, long = longer(0.0), longer(most)
    aside = 0.0 if short >= 0 else most if long <= 0 else most * short / (short - long)
    spot = raised(aside)

    def drawn(fullness: float) -> Curve:
        return _lower(lower, spot, grown, neighbour.curve, seam_first=seam_first, fullness=fullness)

    # What is still too long or too short is drawn flatter or fuller; an armhole never so full that it has an elbow.
    fullest = ROUND if rounded else FULLEST
    flat, full = (drawn(fullness).length - lower.length for fullness in (FLATTEST, fullest))
    if flat < 0 < full:
        new = drawn(root(lambda f: drawn(f).length - lower.length, FLATTEST, fullest, within=1e-4))
    else:
        new = drawn(FLATTEST if flat >= 0 else fullest)
    whole = joined([*new.cubics(), *upper.cubics()])
    if edge.role is Role.CAP and params.sweep:
        whole = _faired(whole, new.length)
    corner = edge.start if seam_first else edge.end
    moved = redrawn(piece, moves={corner: spot})
    return replace(moved, edges=tuple(_with(e, edge, whole if seam_first else whole.reversed()) for e in moved.edges))


def _faired(line: Curve, hinge: float) -> Curve:
    """Return a line drawn as one sweep over the place where it was hinged: beside it the hand joins mark to mark."""
    long = line.length
    shares = [i / FAIR_MARKS for i in range(FAIR_MARKS + 1)]
    marks = [line.at_distance(long * share) for share in shares if abs(share - hinge / long) > BESIDE_HINGE]
    return through(marks, leaving=line.start_direction, arriving=line.end_direction)


def _lower(
    lower: Curve,
    corner: Point,
    grown: Callable[[Point], Curve],
    seam: Curve,
    *,
    seam_first: bool,
    fullness: float = FULLNESS,
) -> Curve:
    """Return the lower part drawn to the raised corner, as square to the grown seam as it was to the seam before."""
    new = grown(corner)
    angle = (
        turn(seam.end_direction, new.end_direction) if seam_first else turn(seam.start_direction, new.start_direction)
    )
    leaving = Motion.turning(angle, about=(0.0, 0.0)).direction(lower.start_direction)
    arriving = scale(lower.end_direction, -1.0)
    cubic = towards_meeting(
        corner, leaving, lower.end, arriving, start_fraction=fullness, end_fraction=fullness, least=LEAST_AHEAD
    )
    if cubic is None:
        third = distance(corner, lower.end) / 3
        cubic = with_handles(corner, leaving, lower.end, arriving, start_handle=third, end_handle=third)
    return Curve(cubic)


def _with(edge: Edge, of: Edge, curve: Curve) -> Edge:
    return replace(edge, curve=curve) if (edge.start, edge.end) == (of.start, of.end) else edge


def describe(params: ReachWedge) -> str:
    """Return the step in the maker's words."""
    return f"Reach wedge: {cm(params.amount, 2)} above the side seam and in the sleeve's underarm"


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer a wedge where an armhole, a cap or an underarm seam is pointed at."""
    if subject.kind is Kind.LINE and subject.role in (Role.ARMHOLE, Role.CAP, Role.UNDERARM):
        yield Offer("Add a reach wedge", {"amount": 2.0})


OPERATION = Operation(
    key="reach_wedge",
    version=3,
    # At first the cap kept the corner where it was hinged; then the armhole kept its length, with an elbow.
    upgrades={1: lambda params: {**params, "sweep": False}, 2: lambda params: {**params, "rounded": False}},
    title="Reach wedge",
    params=ReachWedge,
    apply=apply,
    describe=describe,
    width=as_ease,
    sections=SHAPES,
    group=Group.NECK,
    offers=offers,
    blocks=("bodice", "sleeve"),
    examples=({"amount": 2.0}, {"amount": 1.0, "hinge": 0.5}),
)
