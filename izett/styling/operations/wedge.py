"""A wedge: paper let in or folded out along a line across, as much as is given at one end and nothing at the other.

By hand: slash along the line to the seam at its far end, open or lap the near end, and draw the edge there straight again.
Here the part that moves slides by less and less towards the far end, which comes to the same and keeps the centre on the
grain. Above the across line the neck goes as a whole, and the shoulder gains or loses what lies between it and the tip: as
ease, or at the tip. Common practice, no single source.
"""

from collections.abc import Iterator
from dataclasses import replace
from enum import StrEnum
from typing import NamedTuple

from pydantic import Field

from izett.errors import ReferenceLost, StepRefused
from izett.geometry.motion import Motion
from izett.geometry.point import Point, Vector, add, between, cross, scale, subtract, unit
from izett.pattern.facts import CENTRE_LINES, Corner, Region, Role, SeamKind, Zone
from izett.pattern.levels import settled_since
from izett.pattern.piece import Piece
from izett.pattern.redraw import redrawn
from izett.pattern.working import Readable, Working
from izett.styling.bending import bent, smooth_step
from izett.styling.operation import SHAPES, Context, Group, Keeps, Offer, Operation, Outcome, Sum, length
from izett.styling.references import Params
from izett.styling.shoulder_line import eased, shoulder_long, shoulder_of, shoulder_seam, tip_along
from izett.styling.subject import Kind, Subject
from izett.styling.told import long_in, told_alike
from izett.styling.words import signed
from izett.wording import cm

#: cm. Lines that cross the wedge are drawn smooth over so much.
BLENDED = 4.0
#: The wedge at the waist lies so far up from the waist to the underarm, as a share.
OVER_WAIST = 0.35
#: The wedge of a sloping hip lies so far down from the waist to the hip, as a share.
UNDER_WAIST = 0.5
#: cm. This much must be left between the wedge and the edge that comes nearer to it.
LEAST_LEFT = 2.0


class Line(StrEnum):
    """Where the wedge lies, and from where it opens."""

    ACROSS_BACK = "across_back"
    CHEST = "chest"
    BACK_WAIST = "back_waist"
    FRONT_WAIST = "front_waist"
    SIDE_WAIST = "side_waist"
    BACK_HIP = "back_hip"
    FRONT_HIP = "front_hip"
    SIDE_HIP = "side_hip"


class Surplus(StrEnum):
    """What becomes of what the shoulder gains or loses."""

    TIP = "tip"
    EASE = "ease"


class Wedge(Params):
    """Where, how much, and what becomes of the shoulder."""

    line: Line = Field(Line.ACROSS_BACK, description="where the wedge lies; it opens at the centre, or at the side")
    amount: float = length(1.0, low=-4, high=5, meaning="let in at that end (−: folded out)")
    surplus: Surplus = Field(
        Surplus.TIP,
        description="what the shoulder gains: taken at the tip, or eased in",
        json_schema_extra={"only": [Line.ACROSS_BACK]},
    )


class Lies(NamedTuple):
    """A wedge: on which zones, in which blocks, whether what lies above it moves, and whether it opens at the side."""

    zones: tuple[Zone, ...]
    regions: tuple[Region, ...]
    above: bool
    at_side: bool = False


BOTH = (Zone.FRONT, Zone.BACK)
UPPER, LOWER = (Region.UPPER,), (Region.SKIRT, Region.LEGS)
LINES = {
    Line.ACROSS_BACK: Lies((Zone.BACK,), UPPER, above=True),
    Line.CHEST: Lies((Zone.FRONT,), UPPER, above=True),
    Line.BACK_WAIST: Lies((Zone.BACK,), UPPER, above=False),
    Line.FRONT_WAIST: Lies((Zone.FRONT,), UPPER, above=False),
    Line.SIDE_WAIST: Lies(BOTH, UPPER, above=False, at_side=True),
    Line.BACK_HIP: Lies((Zone.BACK,), LOWER, above=True),
    Line.FRONT_HIP: Lies((Zone.FRONT,), LOWER, above=True),
    Line.SIDE_HIP: Lies(BOTH, LOWER, above=True, at_side=True),
}
#: Wedges that raise or lower the neck.
UNDER_NECK = (Line.ACROSS_BACK, Line.CHEST)
WORDS = {
    Line.ACROSS_BACK: "across the back, from the centre back to the armhole",
    Line.CHEST: "above the bust, from the centre front to the armhole",
    Line.BACK_WAIST: "above the waist, from the centre back to the side",
    Line.FRONT_WAIST: "above the waist, from the centre front to the side",
    Line.SIDE_WAIST: "above the waist, from the side to the centres",
    Line.BACK_HIP: "along the hip line, from the centre back to the side",
    Line.FRONT_HIP: "along the hip line, from the centre front to the side",
    Line.SIDE_HIP: "under the waist, from the side to the centres",
}


def apply(params: Wedge, context: Context) -> Outcome:
    """Slide what lies on one side of the line by less and less towards the wedge's far end."""
    lies = LINES[params.line]
    given = context.garment
    pieces = [
        piece
        for region in lies.regions
        for zone in lies.zones
        for piece in given.of_block((zone, region))
        if _is_whole_block(piece, params.line)
    ]
    if not pieces:
        raise ReferenceLost(
            f"There is no piece in one from centre to side for a wedge {WORDS[params.line]}.",
            fix="Add the block that has it, or put this step under the style, before the step that cut it.",
            where=(str(params.line),),
        )
    eases: list[Sum] = []
    if params.line in UNDER_NECK:
        pattern, eases = _with_neck(given, pieces[0], params)
    else:
        pattern = given.with_pieces(*(_wedged(piece, params) for piece in pieces))
    pattern = settled_since(given, pattern)
    return Outcome(pattern, (*_told(pieces, pattern, lies), *eases))


def _is_whole_block(piece: Piece, line: Line) -> bool:
    """Return whether a piece has all corners that the wedge is measured from."""
    return all(piece.corner(corner) is not None for corner in _corners(piece, line))


def _corners(piece: Piece, line: Line) -> tuple[Corner, ...]:
    front = piece.zone is Zone.FRONT
    waist, neck = (Corner.WAIST_CF, Corner.NECK_CF) if front else (Corner.WAIST_CB, Corner.NECK_CB)
    if line in UNDER_NECK:
        return (neck, Corner.NECK_SHOULDER, Corner.SHOULDER_TIP, Corner.UNDERARM)
    if LINES[line].regions == UPPER:
        return (waist, Corner.WAIST_SIDE, Corner.UNDERARM)
    return (waist, Corner.WAIST_SIDE, Corner.HIP_SIDE)


def _wedged(piece: Piece, params: Wedge) -> Piece:
    lies = LINES[params.line]
    centre, side, far = (piece.vertex(piece.corner(corner) or "") for corner in _corners(piece, params.line))
    if lies.above:
        level, end = far[1] + (UNDER_WAIST * (side[1] - far[1]) if lies.at_side else 0.0), min(centre[1], side[1])
    else:
        level, end = side[1] + OVER_WAIST * (far[1] - side[1]), max(centre[1], side[1])
    _refuse_little(piece, abs(end - level), params.amount)
    share, blend = _Falling(centre[0], side[0]), min(BLENDED, abs(end - level))

    # Trousers have no straight centre to keep on the grain: there the paper swings about the side as it does by hand.
    swings = piece.region is Region.LEGS and not lies.at_side
    swing = Motion.turning(-params.amount / _lever(piece, far), about=far)

    def shift(spot: Point) -> Vector:
        y = spot[1]
        if swings:
            return scale(subtract(swing(spot), spot), smooth_step(y, level, level + blend))
        moved = smooth_step(y, level, level + blend) if lies.above else -smooth_step(-y, -level, blend - level)
        at = share(spot[0])
        return (0.0, params.amount * moved * (1 - at if lies.at_side else at))

    return bent(piece, shift)


def _lever(piece: Piece, hinge: Point) -> float:
    """Return how far (cm) the centre seam lies from the side at the hip, square to it: a turn opens it there by so much."""
    seams = [e.curve for e in piece.edges if e.role in CENTRE_LINES]
    if not seams:
        raise ReferenceLost(
            f"The {piece.title.lower()} has no centre seam.", fix="Choose another place.", where=(piece.name,)
        )
    way = unit(subtract(seams[0].end, seams[0].start))
    return abs(cross(way, subtract(hinge, seams[0].start)))


def _refuse_little(piece: Piece, left: float, amount: float) -> None:
    if left + amount < LEAST_LEFT:
        raise StepRefused(
            f"{piece.title}: a wedge of {cm(-amount, 2)} leaves less than {cm(LEAST_LEFT, 2)} beside it.",
            fix="Fold out less, or shorten the piece all across.",
            where=(piece.name,),
        )


class _Falling(NamedTuple):
    """How much of the wedge is left at a distance from the centre: all up to one place, nothing from another on.

    It runs out level at both, so that the line at the edge stays square to the centre and runs on across the side.
    """

    full: float
    none: float

    def __call__(self, x: float) -> float:
        return 1.0 - smooth_step(x, self.full, self.none)


def _with_neck(garment: Working, piece: Piece, params: Wedge) -> tuple[Working, list[Sum]]:
    """Return the garment with its neck raised as a whole, its shoulder as long as it was or what it gained eased in."""
    neck, neck_point, tip, underarm = (piece.vertex(piece.corner(c) or "") for c in _corners(piece, params.line))
    _refuse_little(piece, neck[1] - underarm[1], params.amount)
    up, share = (0.0, params.amount), _Falling(neck_point[0], tip[0])
    line = shoulder_of(garment, piece.zone)
    moves = {name: add(piece.vertex(name), up) for e in piece.edges if e.role is Role.NECK for name in (e.start, e.end)}
    darts = []
    for dart in piece.darts:
        middle = between(piece.vertex(dart.mouth[0]), piece.vertex(dart.mouth[1]), 0.5)
        if any(e.end == dart.mouth[0] and e.role is Role.SHOULDER for e in piece.edges):
            by = (0.0, params.amount * share(middle[0]))
            moves |= {name: add(piece.vertex(name), by) for name in dart.mouth}
            dart = replace(dart, pivot=add(dart.pivot, by))  # noqa: PLW2901
        darts.append(dart)
    slid = {e.start: e.curve.mapped(lambda spot: add(spot, up)) for e in piece.edges if e.role is Role.NECK}
    raised = redrawn(piece, moves=moves, curves=slid, darts=darts)
    after = garment.with_pieces(raised)
    more = shoulder_long(after, line) - shoulder_long(garment, line)
    if params.surplus is Surplus.EASE and piece.zone is Zone.BACK:
        seam = eased(shoulder_seam(garment, line), line, more)
        return after.with_seam(seam), [Sum("eased into the back shoulder, more", more)]
    moves[line.end] = tip_along(after, line, -more)
    return garment.with_pieces(redrawn(piece, moves=moves, curves=slid, darts=darts)), []


def _told(pieces: list[Piece], after: Readable, lies: Lies) -> Iterator[Sum]:
    """Yield by how much the edges on which the wedge opens have become longer."""
    longer: dict[str, float] = {}
    for piece in pieces:
        centre = Role.CENTRE_FRONT if piece.zone is Zone.FRONT else Role.CENTRE_BACK
        roles = (Role.SIDE,) if lies.at_side else (centre, Role.CROTCH)
        now = after.find_piece(piece.name)
        assert now is not None
        longer[piece.zone.value] = sum(long_in(now, role) - long_in(piece, role) for role in roles)
    if lies.at_side:
        yield from told_alike("longer at the side", longer)
    for zone, by in () if lies.at_side else longer.items():
        yield Sum(f"longer at the centre {zone}", by)


def describe(params: Wedge) -> str:
    """Return the step in the maker's words."""
    return f"{signed(params.amount, 'Let in a wedge of', 'Fold out a wedge of')} {WORDS[params.line]}"


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer the wedges that open where a centre line is pointed at."""
    if subject.kind is not Kind.LINE or subject.piece is None:
        return
    zone = {Role.CENTRE_FRONT: Zone.FRONT, Role.CENTRE_BACK: Zone.BACK}.get(subject.role or Role.HEM)
    for line, lies in LINES.items():
        if lies.zones == (zone,) and subject.piece.region in lies.regions and _is_whole_block(subject.piece, line):
            yield Offer(f"Let in a wedge {WORDS[line]}", {"line": line, "amount": 1.0})


OPERATION = Operation(
    key="wedge",
    title="Let in or fold out a wedge",
    params=Wedge,
    apply=apply,
    describe=describe,
    sections=SHAPES,
    moves=(SeamKind.CAP, SeamKind.WAIST),
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.SIZE,
    offers=offers,
    blocks=("bodice", "skirt"),
    examples=(
        {"line": "across_back", "amount": 1.0},
        {"line": "across_back", "amount": 0.6, "surplus": "ease"},
        {"line": "chest", "amount": -0.6},
        {"line": "back_waist", "amount": -1.0},
        {"line": "side_waist", "amount": -0.8},
        {"line": "front_hip", "amount": 1.0},
        {"line": "back_hip", "amount": 1.2},
        {"line": "side_hip", "amount": -0.8},
    ),
)
