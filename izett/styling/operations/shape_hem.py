"""Shape the hem: longer or shorter at the centre front, the side and the centre back, blended between them.

Alike everywhere it is the length; more behind than in front a high–low hem; much more behind a train. The side corners
slide along their seams, front and back alike, and the hem stays square at the seams and the centre. Common practice, no
single source.
"""

from collections.abc import Callable, Iterator
from dataclasses import replace

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.curve import Curve
from izett.geometry.fit import through
from izett.geometry.point import Point, Vector, add, between, scale, unit
from izett.pattern.facts import Role, SeamKind, Zone
from izett.pattern.piece import Edge, Piece
from izett.pattern.redraw import redrawn
from izett.pattern.working import Readable, Working
from izett.pattern.worn import is_body
from izett.styling.operation import SHAPES, Context, Group, Keeps, Offer, Operation, Outcome, Sum, length
from izett.styling.references import Params
from izett.styling.subject import Kind, Subject
from izett.styling.words import signed
from izett.wording import cm

#: Marks on a hem piece between its corners.
MARKS = 6
#: cm. Of a seam at the hem this much must be left.
LEAST_LEFT = 3.0


class ShapeHem(Params):
    """How much longer the hem becomes, and where."""

    line: str = Field("hem", max_length=20, description="hem, or waist where the garment ends there")
    front: float = length(0.0, low=-60, high=80, meaning="longer at the centre front")
    side: float = length(0.0, low=-60, high=80, meaning="longer at the side seams")
    back: float = length(0.0, low=-60, high=120, meaning="longer at the centre back")


def apply(params: ShapeHem, context: Context) -> Outcome:
    """Slide the hem's corners along their seams and draw it anew."""
    role = Role.WAIST if params.line == "waist" else Role.HEM
    if role is Role.WAIST and context.garment.seams_of(SeamKind.WAIST):
        raise StepRefused(
            "The waist is sewn to a skirt: it is no hem.",
            fix="Shape the skirt's hem, or transpose the waist.",
            where=("waist",),
        )
    pattern = context.garment
    done = 0
    for piece in context.garment.with_role(role):
        hems = [edge for edge in piece.edges if edge.role is role]
        front = piece.zone is Zone.FRONT
        if not is_body(piece):
            continue
        pattern = pattern.with_pieces(
            _shaped(pattern, piece, hems, params.front if front else params.back, params.side)
        )
        done += 1
    if not done:
        raise StepRefused("The pattern has no such hem.", fix="Choose hem or waist.", where=(params.line,))
    return Outcome(
        pattern,
        (
            Sum("longer at the centre front", params.front),
            Sum("longer at the sides", params.side),
            Sum("longer at the centre back", params.back),
        ),
    )


def _shaped(pattern: Working, piece: Piece, hems: list[Edge], centre: float, side: float) -> Piece:
    """Return a piece with its hem drawn anew; on a panel the amounts run on from where its neighbour's end."""
    reach = _reach(pattern, piece.part, hems[0].role)

    def amount(point: Point) -> float:
        share = min(max(point[0] / reach, 0.0), 1.0) if reach else 1.0
        # Level at both ends, so that the hem stays square there.
        eased = share * share * (3 - 2 * share)
        return centre + (side - centre) * eased

    moves: dict[str, Point] = {}
    for edge in hems:
        for name, at_start in ((edge.start, True), (edge.end, False)):
            down = _down(piece, name)
            spot = edge.curve.start if at_start else edge.curve.end
            if name not in moves:
                moves[name] = add(spot, scale(down, amount(spot)))
    for edge in piece.edges:
        if edge.role is not hems[0].role and not edge.is_leg and {edge.start, edge.end} & moves.keys():
            for name in {edge.start, edge.end} & moves.keys():
                if edge.curve.length + amount(piece.vertex(name)) < LEAST_LEFT:
                    raise StepRefused(
                        f"{piece.title}: that leaves less than {cm(LEAST_LEFT, 2)} of seam above the hem.",
                        fix="Shorten less.",
                        where=(edge.lineage,),
                    )
    drawn = {edge.start: _hem(piece, edge, moves, amount) for edge in hems}
    new = redrawn(piece, moves=moves, curves=drawn)
    ring = tuple(
        replace(e, curve=drawn[e.start]) if e.start in drawn and e.role is hems[0].role else e for e in new.edges
    )
    return replace(new, edges=ring)


def _reach(pattern: Working, part: str, role: Role) -> float:
    """Return how far from the centre the hem of a half reaches on paper."""
    return max(
        (max(e.curve.start[0], e.curve.end[0]) for p in pattern.of_part(part) for e in p.edges if e.role is role),
        default=0.0,
    )


def _down(piece: Piece, corner: str) -> Vector:
    """Return the direction in which a hem's corner slides: on along the line that ends there, or a dart's axis."""
    for dart in piece.darts:
        if corner in dart.mouth:
            middle = between(piece.vertex(dart.mouth[0]), piece.vertex(dart.mouth[1]), 0.5)
            return unit((middle[0] - dart.pivot[0], middle[1] - dart.pivot[1]))
    for edge in piece.edges:
        if edge.role in (Role.HEM, Role.WAIST) or edge.is_leg:
            continue
        if edge.end == corner:
            return edge.curve.end_direction
        if edge.start == corner:
            return scale(edge.curve.start_direction, -1.0)
    return (0.0, -1.0)


def _hem(piece: Piece, edge: Edge, moves: dict[str, Point], amount: Callable[[Point], float]) -> Curve:
    whole = edge.curve.length
    first, last = _down(piece, edge.start), _down(piece, edge.end)
    marks = [moves[edge.start]]
    for i in range(1, MARKS + 1):
        share = i / (MARKS + 1)
        spot = edge.curve.at_distance(whole * share)
        marks.append(add(spot, scale(unit(between(first, last, share)), amount(spot))))
    marks.append(moves[edge.end])
    return through(marks, leaving=edge.curve.start_direction, arriving=edge.curve.end_direction)


def describe(params: ShapeHem) -> str:
    """Return the step in the maker's words."""
    at = (("centre front", params.front), ("sides", params.side), ("centre back", params.back))
    if len({by for _, by in at}) == 1:
        return f"{params.line.capitalize()}: {signed(params.front, 'lengthen by', 'shorten by')} all around"
    parts = [f"{signed(by, 'longer by', 'shorter by')} at the {where}" for where, by in at if by]
    return f"{params.line.capitalize()}: {', '.join(parts)}"


def offers(subject: Subject, pattern: Readable) -> Iterator[Offer]:
    """Offer length, a high–low hem and a train where a hem is pointed at."""
    sewn = bool(pattern.seams_of(SeamKind.WAIST))
    if subject.kind is not Kind.LINE or subject.piece is None or not is_body(subject.piece):
        return
    if subject.role is Role.HEM or (subject.role is Role.WAIST and not sewn):
        line = "hem" if subject.role is Role.HEM else "waist"
        yield Offer("Lengthen or shorten the hem", {"line": line, "front": 3.0, "side": 3.0, "back": 3.0})
        yield Offer("High–low hem", {"line": line, "front": -12.0, "side": 0.0, "back": 12.0})
        yield Offer("Add a train", {"line": line, "front": 0.0, "side": 10.0, "back": 60.0})


OPERATION = Operation(
    key="shape_hem",
    title="Shape the hem",
    params=ShapeHem,
    apply=apply,
    describe=describe,
    sections=SHAPES,
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.HEM,
    offers=offers,
    blocks=("bodice", "skirt"),
    examples=(
        {"front": -12.0, "side": 0.0, "back": 14.0},
        {"front": 5.0, "side": 5.0, "back": 5.0},
        {"front": 0.0, "side": 10.0, "back": 60.0},
    ),
)
