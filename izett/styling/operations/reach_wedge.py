"""A reach wedge: cloth above the side seam and in the sleeve's underarm, so that a raised arm lifts that and not the hem.

The underarm corner turns up and out about the notch until the side seam has grown; the sleeve's corners turn up about
the cap's notches until the underarm seam has grown by as much. The curves are drawn to the raised corners, as square to
the seams as before. Common practice, no single source.
"""

from collections.abc import Iterator
from dataclasses import replace

from izett.errors import StepRefused
from izett.geometry.blend import refitted
from izett.geometry.curve import Curve
from izett.geometry.motion import Motion
from izett.geometry.point import Point, subtract, turn
from izett.geometry.root import root
from izett.pattern.document import Edge, Pattern, Piece, Role
from izett.pattern.redraw import redrawn
from izett.styling.operation import Context, Group, Offer, Operation, Outcome, Params, Sum, length, share
from izett.styling.subject import Kind, Subject

#: rad. The lower armhole turns up by no more than this.
MOST_TURN = 0.9


class ReachWedge(Params):
    """How much is added, and where the lower armhole turns."""

    amount: float = length(
        2.0, low=0.3, high=6, meaning="added to the side seam at the armhole and to the sleeve's underarm"
    )
    hinge: float = share(0.45, low=0.25, high=0.7, meaning="where armhole and cap turn up, from the underarm")


def apply(params: ReachWedge, context: Context) -> Outcome:
    """Turn the lower armhole and the lower cap up until the seams below have grown."""
    pieces: list[Piece] = []
    for piece in context.pattern:
        new = piece
        for curved, seam in ((Role.ARMHOLE, Role.SIDE), (Role.CAP, Role.UNDERARM)):
            for edge, neighbour in _corners(piece, curved, seam):
                context.read.update((edge.lineage, neighbour.lineage))
                new = _turned_up(new, edge.lineage, neighbour.lineage, params)
        if new is not piece:
            pieces.append(new)
    if not pieces:
        raise StepRefused("The pattern has no armhole with a side seam.", mend="Add a top.", where=("armhole",))
    return Outcome(
        context.pattern.with_pieces(*pieces),
        (Sum("longer at the side and the underarm seam", params.amount), Sum("pieces", float(len(pieces)), "")),
    )


def _corners(piece: Piece, curved: Role, seam: Role) -> Iterator[tuple[Edge, Edge]]:
    for i, edge in enumerate(piece.edges):
        following = piece.edges[(i + 1) % len(piece.edges)]
        if (edge.role, following.role) == (seam, curved):
            yield following, edge
        elif (edge.role, following.role) == (curved, seam):
            yield edge, following


def _turned_up(piece: Piece, curved: str, seam: str, params: ReachWedge) -> Piece:
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
    # Walked from the corner: the lower part turns about where it ends.
    curve = edge.curve if seam_first else edge.curve.reversed()
    lower, _ = curve.split(curve.length * params.hinge)
    before = neighbour.curve.length

    def turned(angle: float) -> Motion:
        return Motion.turning(angle, about=lower.end)

    def more(angle: float) -> float:
        spot = turned(angle)(lower.start)
        grown = refitted(neighbour.curve, end=spot) if seam_first else refitted(neighbour.curve, start=spot)
        return grown.length - before - params.amount

    sign = 1.0 if more(MOST_TURN) > more(-MOST_TURN) else -1.0
    if more(sign * MOST_TURN) < 0:
        raise StepRefused(
            f"{piece.title}: the lower armhole cannot be turned up by {params.amount:g} cm.",
            mend="Add less, or turn it from further up.",
            where=(edge.lineage,),
        )
    angle = sign * root(lambda a: more(sign * a), 0.0, MOST_TURN)
    raised = turned(angle)(lower.start)
    # Drawn as square to the grown seam as it was to the seam before.
    grown = Motion.turning(_turned_at(neighbour, raised, seam_first=seam_first), about=(0.0, 0.0))
    new = refitted(curve, start=raised, turn_start=grown.direction)
    corner = edge.start if seam_first else edge.end
    whole = new if seam_first else new.reversed()
    spot: Point = whole.start if seam_first else whole.end
    moved = redrawn(piece, moves={corner: spot})
    return replace(moved, edges=tuple(_with(e, edge, whole) for e in moved.edges))


def _turned_at(seam: Edge, corner: Point, *, seam_first: bool) -> float:
    """Return by how much (rad) a seam turns at its corner when that moves."""
    old = seam.curve
    if old.is_straight:
        far, near = (old.start, old.end) if seam_first else (old.end, old.start)
        return turn(subtract(near, far), subtract(corner, far))
    new = refitted(old, end=corner) if seam_first else refitted(old, start=corner)
    if seam_first:
        return turn(old.end_direction, new.end_direction)
    return turn(old.start_direction, new.start_direction)


def _with(edge: Edge, of: Edge, curve: Curve) -> Edge:
    return replace(edge, curve=curve) if (edge.start, edge.end) == (of.start, of.end) else edge


def describe(params: ReachWedge) -> str:
    """Return the step in the maker's words."""
    return f"Reach wedge: {params.amount:g} cm above the side seam and in the sleeve's underarm"


def offers(subject: Subject, _pattern: Pattern) -> Iterator[Offer]:
    """Offer a wedge where an armhole, a cap or an underarm seam is pointed at."""
    if subject.kind is Kind.LINE and subject.role in (Role.ARMHOLE, Role.CAP, Role.UNDERARM):
        yield Offer("Add a reach wedge", {"amount": 2.0})


OPERATION = Operation(
    key="reach_wedge",
    title="Reach wedge",
    params=ReachWedge,
    apply=apply,
    describe=describe,
    group=Group.NECK,
    offers=offers,
    blocks=("bodice", "sleeve"),
    examples=({"amount": 2.0}, {"amount": 1.0, "hinge": 0.5}),
)
