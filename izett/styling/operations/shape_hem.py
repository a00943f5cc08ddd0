"""Shape the hem: longer or shorter at the centre front, the side and the centre back, blended between them.

Alike everywhere it is the length; more behind than in front a high–low hem; much more behind a train. The hem is one edge
over all panels: where two meet in a seam both change alike, and the seam runs on in its own direction below its old end,
so that nothing above it moves: hip, waist and notches keep their places. Common practice, no single source.
"""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import replace
from enum import StrEnum
from itertools import pairwise

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.curve import Curve, straight
from izett.geometry.fit import through
from izett.geometry.motion import Motion
from izett.geometry.point import Point, Vector, add, between, scale, subtract, turn, unit
from izett.pattern.facts import Corner, Region, Role, SeamKind, Zone
from izett.pattern.paper import shortened
from izett.pattern.piece import Edge, LevelLine, Piece
from izett.pattern.redraw import redrawn
from izett.pattern.working import Readable, Working
from izett.pattern.worn import is_sleeve, on_body
from izett.styling.operation import SHAPES, Context, Group, Keeps, Offer, Operation, Outcome, Sum, length
from izett.styling.references import Params
from izett.styling.rims import RimPart, rims
from izett.styling.subject import Kind, Subject
from izett.styling.told import size
from izett.styling.words import line_words, signed
from izett.wording import cm

#: Marks on a hem piece between its corners.
MARKS = 6
#: The back of the arm lies so far round a sleeve's hem from its seam, as a share; the front as far from the other end.
BACK_OF_ARM = 0.3
#: cm. What lies no higher than this over the turning of a hem lies on it.
LEAST_MARK = 0.01
#: cm. Of a seam at the hem this much must be left.
LEAST_LEFT = 3.0


class Edged(StrEnum):
    """Which edge is shaped."""

    HEM = "hem"
    WAIST = "waist"
    SLEEVE = "sleeve"


#: What the edge is called, and its role.
CALLED = {Edged.HEM: "Hem", Edged.WAIST: "Waist", Edged.SLEEVE: "Sleeve hem"}
ROLES = {Edged.HEM: Role.HEM, Edged.WAIST: Role.WAIST, Edged.SLEEVE: Role.HEM}


class ShapeHem(Params):
    """How much longer the hem becomes, and where."""

    line: Edged = Field(Edged.HEM, description="the hem, the waist where the garment ends there, or the sleeve's hem")
    front: float = length(0.0, low=-60, high=80, meaning="longer at the centre front")
    side: float = length(0.0, low=-60, high=80, meaning="longer at the side seams; of a sleeve, at its seam")
    back: float = length(0.0, low=-60, high=120, meaning="longer at the centre back")


#: How much longer an edge becomes, by how far along it (cm) a place lies.
Amount = Callable[[float], float]


def apply(params: ShapeHem, context: Context) -> Outcome:
    """Let the seams run on, or cut them off, and draw the hem anew."""
    role = ROLES[params.line]
    if role is Role.WAIST and context.garment.seams_of(SeamKind.WAIST):
        raise StepRefused(
            "The waist is sewn to a skirt: it is no hem.",
            fix="Shape the skirt's hem, or transpose the waist.",
            where=("waist",),
        )
    pattern = context.garment
    arm = params.line is Edged.SLEEVE
    pieces = tuple(p for p in context.garment.with_role(role) if on_body(p) and p.region and is_sleeve(p) is arm)
    told: list[Sum] = []
    for rim in rims(context.garment, role, pieces):
        amount = _amount(params, context.garment, rim)
        for part in rim:
            pattern = pattern.with_pieces(_shaped(pattern, part, amount))
        told += _told(context.garment, pattern, rim)
    for piece in context.garment.with_role(Role.CUT_EDGE) if params.line is Edged.HEM else ():
        if piece.region is not Region.SKIRT or piece.corner(Corner.HEM_SIDE) is None:
            continue
        turned = _turned_up(piece, params)
        pattern = pattern.with_pieces(turned)
        told.append(Sum("longer all around", size(turned)[1] - size(piece)[1]))
    if not told:
        raise StepRefused("The pattern has no such hem.", fix="Choose another edge.", where=(params.line,))
    return Outcome(pattern, tuple(told))


def _amount(params: ShapeHem, pattern: Readable, rim: Sequence[RimPart]) -> Amount:
    """Return how much longer an edge becomes along its length: even at the seams on both sides of them."""
    whole = rim[-1].gone + rim[-1].length
    zones = [pattern.piece(part.piece) for part in rim]
    if all(is_sleeve(piece) for piece in zones):
        return _around_arm(params, whole)
    sides = [
        part.gone / whole
        for piece, part, before in zip(zones[1:], rim[1:], zones, strict=False)
        if piece.zone is not before.zone
    ]
    ends = [(0.0, zones[0]), (1.0, zones[-1])]
    legs = any(piece.region is Region.LEGS for piece in zones)
    known = [
        (share, (params.front + params.back) / 2 if legs else params.front if piece.zone is Zone.FRONT else params.back)
        for share, piece in ends
    ]
    if legs:
        # Around a leg: it begins and ends at one seam, and passes the other.
        inner = _inseam_first(pattern, rim)
        known = [(share, by if inner else params.side) for share, by in known]
        return _blended(
            [
                known[0],
                *((share, params.side if inner else (params.front + params.back) / 2) for share in sides),
                known[1],
            ],
            whole,
        )
    if not sides and len({piece.zone for piece in zones}) == 1 and params.side != known[0][1]:
        # One piece from the centre to a side that is sewn to nothing.
        known[1] = (1.0, params.side)
    return _blended([known[0], *((share, params.side) for share in sides), known[1]], whole)


def _around_arm(params: ShapeHem, whole: float) -> Amount:
    """Return how much longer a sleeve's hem becomes, from its seam at the back round to the front."""
    # scipy takes long to import: only a program that shapes a sleeve's hem waits for it.
    from scipy.interpolate import PchipInterpolator  # noqa: PLC0415

    curve = PchipInterpolator(
        [0.0, BACK_OF_ARM, 1 - BACK_OF_ARM, 1.0], [params.side, params.back, params.front, params.side]
    )
    return lambda along: float(curve(min(max(along / whole, 0.0), 1.0)))


def _inseam_first(pattern: Readable, rim: Sequence[RimPart]) -> bool:
    piece = pattern.piece(rim[0].piece)
    return any(e.role is Role.INSEAM for e in piece.edges if rim[0].start in (e.start, e.end))


def _blended(known: Sequence[tuple[float, float]], whole: float) -> Amount:
    """Return an amount that is known at some shares of an edge, level there, so that the hem stays square at the seams."""

    def amount(along: float) -> float:
        at = min(max(along / whole, 0.0), 1.0) if whole else 0.0
        for (low, a), (high, b) in pairwise(known):
            if at <= high:
                share = (at - low) / (high - low) if high > low else 1.0
                return a + (b - a) * share * share * (3 - 2 * share)
        return known[-1][1]

    return amount


def _shaped(pattern: Working, part: RimPart, amount: Amount) -> Piece:
    """Return a piece with its part of the hem drawn anew: its seams run on below, or are cut off."""
    before = pattern.piece(part.piece)
    if not any(amount(part.gone + part.length * i / MARKS) for i in range(MARKS + 1)):
        # A hem that keeps its length is not drawn anew.
        return before
    openings = {opening.span.start for opening in pattern.openings}
    piece = before
    for corner, along in ((part.start, part.gone), (part.end, part.gone + part.length)):
        piece = _run_on(piece, part, corner, amount(along), marks_from=openings)
    gone = part.gone
    moves: dict[str, Point] = {}
    drawn: dict[str, Curve] = {}
    for edge in part.edges:
        long = edge.curve.length
        at_start, at_end = (gone, gone + long) if part.forward else (gone + long, gone)
        for name, along in ((edge.start, at_start), (edge.end, at_end)):
            if name not in (part.start, part.end):
                moves[name] = add(before.vertex(name), scale(_down(before, part, name), amount(along)))
        gone += long
    moves |= {name: _corner(piece, part, name) for name in (part.start, part.end)}
    gone = part.gone
    for edge in part.edges:
        long = edge.curve.length
        drawn[edge.start] = _hem(before, piece, part, edge, moves, gone, amount)
        gone += long
    inner = {name: spot for name, spot in moves.items() if name not in (part.start, part.end)}
    piece = redrawn(piece, moves=inner, curves=drawn) if inner else piece
    ring = tuple(
        replace(e, curve=drawn[e.start])
        if e.start in drawn and any(e.lineage == x.lineage for x in part.edges) and not e.is_leg
        else e
        for e in piece.edges
    )
    return replace(piece, edges=ring, lines=tuple(_guide(line, amount(part.gone)) for line in piece.lines))


def _run_on(piece: Piece, part: RimPart, corner: str, by: float, *, marks_from: set[str]) -> Piece:
    """Return the piece with the seam that ends at a corner of the hem longer there by `by` cm, or cut off.

    Its notches keep their places; one that marks the end of an opening from the hem goes with it.
    """
    seam = _upright(piece, part, corner)
    if seam is None or by == 0.0:
        return piece
    left = _reach(piece, seam, corner)
    if left + by < LEAST_LEFT:
        raise StepRefused(
            f"{piece.title}: that leaves less than {cm(LEAST_LEFT, 2)} of {line_words(seam.lineage)} above the hem.",
            fix=f"Shorten by at most {cm(max(left - LEAST_LEFT, 0.0))}.",
            where=(seam.lineage,),
        )
    new = shortened(piece, corner, seam.lineage, -by)
    notches = tuple(
        replace(n, distance=n.distance + by)
        if piece.aliases.get(n.span.start, n.span.start) == corner
        and n.span.along == seam.lineage
        and n.span.start not in marks_from
        else n
        for n in new.notches
    )
    return replace(new, notches=tuple(n for n in notches if n.distance > 0))


def _turned_up(piece: Piece, params: ShapeHem) -> Piece:
    """Return a straight-cut piece whose hem is turned up longer above the turning, which keeps its depth."""
    if not params.front == params.side == params.back:
        raise StepRefused(
            f"The hem of the {piece.title.lower()} is cut straight and turned up: it cannot be shaped.",
            fix="Give the same amount at front, side and back.",
            where=(piece.name,),
        )
    by = params.side
    turning = min(
        (line.points[0][1] for line in piece.lines if line.level == "hem"), default=min(p[1] for p in piece.outline())
    )
    below = {name for name, spot in piece.vertices.items() if spot[1] < turning + LEAST_MARK}
    top = max(below, key=lambda name: piece.vertex(name)[1])
    side = next(e for e in piece.edges if e.role is Role.SIDE and e.start == top)
    if side.curve.length + by < LEAST_LEFT:
        raise StepRefused(
            f"{piece.title}: that leaves less than {cm(LEAST_LEFT, 2)} of {line_words(side.lineage)} above the hem.",
            fix=f"Shorten by at most {cm(max(side.curve.length - LEAST_LEFT, 0.0))}.",
            where=(side.lineage,),
        )
    long = shortened(piece, top, side.lineage, -by)
    corner = next(e for e in long.edges if e.start == top).curve.start
    shift = subtract(corner, piece.vertex(top))
    moves = {name: add(piece.vertex(name), (shift[0] if piece.vertex(name)[0] else 0.0, shift[1])) for name in below}
    ring = tuple(
        e
        if e.start == top
        else replace(e, curve=straight(moves.get(e.start, e.curve.start), moves.get(e.end, e.curve.end)))
        if {e.start, e.end} & below
        else e
        for e in long.edges
    )
    return replace(long, edges=ring, lines=tuple(_guide(line, by) for line in long.lines))


def _upright(piece: Piece, part: RimPart, corner: str) -> Edge | None:
    """Return the edge that meets the hem at a corner; None at a dart's mouth."""
    lines = {edge.lineage for edge in part.edges}
    return next(
        (e for e in piece.edges if corner in (e.start, e.end) and not e.is_leg and e.lineage not in lines), None
    )


def _reach(piece: Piece, seam: Edge, corner: str) -> float:
    """Return how long (cm) a line is from a corner to its end, or to the first dart in it."""
    leaving = seam.start == corner
    ring = piece.edges if leaving else piece.edges[::-1]
    at = next(i for i, e in enumerate(ring) if e is seam)
    long = 0.0
    for edge in (*ring[at:], *ring[:at]):
        if edge.lineage != seam.lineage:
            break
        long += edge.curve.length
    return long


def _corner(piece: Piece, part: RimPart, corner: str) -> Point:
    seam = _upright(piece, part, corner)
    return piece.vertex(corner) if seam is None else seam.curve.start if seam.start == corner else seam.curve.end


def _down(piece: Piece, part: RimPart, corner: str) -> Vector:
    """Return the direction in which a hem's corner slides: on along the line that ends there, or a dart's axis."""
    for dart in piece.darts:
        if corner in dart.mouth:
            middle = between(piece.vertex(dart.mouth[0]), piece.vertex(dart.mouth[1]), 0.5)
            return unit((middle[0] - dart.pivot[0], middle[1] - dart.pivot[1]))
    seam = _upright(piece, part, corner)
    if seam is None:
        return (0.0, -1.0)
    return scale(seam.curve.start_direction, -1.0) if seam.start == corner else seam.curve.end_direction


def _hem(
    before: Piece, after: Piece, part: RimPart, edge: Edge, moves: dict[str, Point], gone: float, amount: Amount
) -> Curve:
    """Return one edge of the hem drawn anew, as square to its seams as it was."""
    whole = edge.curve.length
    first, last = _down(before, part, edge.start), _down(before, part, edge.end)
    marks = [moves[edge.start]]
    for i in range(1, MARKS + 1):
        share = i / (MARKS + 1)
        spot = edge.curve.at_distance(whole * share)
        along = gone + whole * (share if part.forward else 1 - share)
        marks.append(add(spot, scale(unit(between(first, last, share)), amount(along))))
    marks.append(moves[edge.end])
    turned = [
        Motion.turning(turn(_down(before, part, name), _down(after, part, name)), about=(0.0, 0.0)).direction
        for name in (edge.start, edge.end)
    ]
    return through(marks, leaving=turned[0](edge.curve.start_direction), arriving=turned[1](edge.curve.end_direction))


def _guide(line: LevelLine, by: float) -> LevelLine:
    """Return a guide that belongs to the hem gone down with it: where it is turned up, or where a crease ends in it."""
    if line.level == "hem":
        return line.moved(lambda p: (p[0], p[1] - by))
    if line.level != "crease":
        return line
    low = min(line.points, key=lambda p: p[1])
    return line.moved(lambda p: (p[0], p[1] - by) if p == low else p)


def _told(before: Readable, after: Working, rim: Sequence[RimPart]) -> list[Sum]:
    """Return by how much the seams at the corners of an edge have changed, read before and after."""
    found: dict[str, float] = {}
    for part in rim:
        for corner in (part.start, part.end):
            was, now = before.piece(part.piece), after.piece(part.piece)
            seam, new = _upright(was, part, corner), _upright(now, part, corner)
            if seam is not None and new is not None:
                found.setdefault(seam.lineage, _reach(now, new, corner) - _reach(was, seam, corner))
    return [Sum(f"longer at {line_words(line)}", by) for line, by in found.items()]


def describe(params: ShapeHem) -> str:
    """Return the step in the maker's words."""
    at = (("centre front", params.front), ("sides", params.side), ("centre back", params.back))
    if len({by for _, by in at}) == 1:
        return f"{CALLED[params.line]}: {signed(params.front, 'lengthen by', 'shorten by')} all around"
    parts = [f"{signed(by, 'longer by', 'shorter by')} at the {where}" for where, by in at if by]
    return f"{CALLED[params.line]}: {', '.join(parts)}"


def offers(subject: Subject, pattern: Readable) -> Iterator[Offer]:
    """Offer length, a high–low hem and a train where a hem is pointed at."""
    if subject.kind is not Kind.LINE or subject.piece is None or not on_body(subject.piece):
        return
    if subject.role is Role.HEM and is_sleeve(subject.piece):
        yield Offer("Lengthen or shorten the sleeve's hem", {"line": "sleeve", "front": 3.0, "side": 3.0, "back": 3.0})
        return
    if subject.role is Role.CUT_EDGE and subject.piece.region is Region.SKIRT and _is_lowest(subject):
        # Turned up in one with the skirt: it is as long all around.
        yield Offer("Lengthen or shorten the hem", {"line": "hem", "front": 3.0, "side": 3.0, "back": 3.0})
        return
    sewn = bool(pattern.seams_of(SeamKind.WAIST))
    if subject.piece.region and (subject.role is Role.HEM or (subject.role is Role.WAIST and not sewn)):
        line = "hem" if subject.role is Role.HEM else "waist"
        yield Offer("Lengthen or shorten the hem", {"line": line, "front": 3.0, "side": 3.0, "back": 3.0})
        yield Offer("High–low hem", {"line": line, "front": -12.0, "side": 0.0, "back": 12.0})
        yield Offer("Add a train", {"line": line, "front": 0.0, "side": 10.0, "back": 60.0})


def _is_lowest(subject: Subject) -> bool:
    """Return whether a line lies at the foot of its piece."""
    assert subject.piece is not None
    lowest = min(y for _, y in subject.piece.outline())
    own = [e for e in subject.piece.edges if e.lineage == subject.name]
    return all(max(e.curve.start[1], e.curve.end[1]) <= lowest + LEAST_MARK for e in own)


OPERATION = Operation(
    key="shape_hem",
    title="Shape the hem",
    params=ShapeHem,
    apply=apply,
    describe=describe,
    sections=SHAPES,
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.HEM,
    version=2,
    # Since then the hem is one edge over all panels, and what lies above it stays where it is.
    upgrades={1: dict},
    offers=offers,
    blocks=("bodice", "sleeve", "skirt"),
    examples=(
        {"front": -12.0, "side": 0.0, "back": 14.0},
        {"front": 5.0, "side": 5.0, "back": 5.0},
        {"front": 0.0, "side": 10.0, "back": 60.0},
        {"line": "sleeve", "front": -30.0, "side": -30.0, "back": -28.0},
    ),
)
