"""Extend, drop or shorten the shoulder seam at its tip, front and back alike; the armhole is blended to the new tip.

The armhole below the across line stays as it was. A shoulder dropped over the arm asks for a lower armhole and wider
sides: with the tip further out than the underarm the armhole would hook back. Common practice, no single source.
"""

from collections.abc import Iterator
from dataclasses import replace

from izett.errors import StepRefused
from izett.geometry.blend import towards_meeting, with_handles
from izett.geometry.curve import Curve
from izett.geometry.motion import Motion
from izett.geometry.point import Point, add, distance, left_of, scale
from izett.pattern.facts import Corner, Role, SeamKind, Zone
from izett.pattern.levels import settled_since
from izett.pattern.piece import Piece
from izett.pattern.redraw import redrawn
from izett.pattern.sewn import span_length, walk
from izett.pattern.working import Readable, Working
from izett.pattern.worn import moved_levels
from izett.styling.blocks import line_of
from izett.styling.operation import SHAPES, Context, Group, Keeps, Offer, Operation, Outcome, Sum, as_ease, length
from izett.styling.references import Params
from izett.styling.subject import Kind, Subject
from izett.styling.told import gone, told_alike, told_armholes, told_around, told_underarms
from izett.styling.words import signed
from izett.wording import cm

#: cm. A shorter shoulder carries no sleeve.
SHORTEST_SHOULDER = 4.0

#: cm. Extended by as much, the tip lies over the arm: the armhole is drawn anew, shallow, in one curve.
DROPPED = 3.0
#: Of the armhole's height, how far it runs square to the side seam at the underarm of a dropped shoulder.
UNDERARM_HANDLE = 0.18


class ChangeShoulder(Params):
    """How much longer the shoulder seam becomes."""

    amount: float = length(0.0, low=-8, high=16, meaning="longer at the tip (−: shorter), front and back")
    slope: float = length(0.0, low=-3, high=6, meaning="lower at the tip (−: higher), front and back")
    sides: float = length(0.0, low=0, high=8, meaning="wider at each side edge, all the way down")
    lower: float = length(0.0, low=0, high=12, meaning="armhole lower at the underarm, front and back")


def apply(params: ChangeShoulder, context: Context) -> Outcome:
    """Move both tips along their shoulder lines."""
    given = context.garment
    context = context.on(_roomier(params, context))
    pieces = []
    lengths: list[Sum] = []
    longer: dict[str, float] = {}
    lower: dict[str, float] = {}
    for zone in (Zone.FRONT, Zone.BACK):
        span = line_of(context.garment, zone, Role.SHOULDER, (Corner.NECK_SHOULDER, Corner.SHOULDER_TIP))
        whole = context.span_length(span)
        piece = context.piece_with(span.start)
        outer = walk(piece, span)[-1].open_curve
        if outer.length + params.amount < min(SHORTEST_SHOULDER, outer.length):
            raise StepRefused(
                f"The {zone} shoulder of {cm(whole)} cannot be shortened by {cm(-params.amount, 2)}.",
                fix=f"Leave at least {cm(SHORTEST_SHOULDER, 2)}, beyond any dart in it.",
                where=(span.along,),
            )
        tip: Point = add(outer.end, scale(outer.end_direction, params.amount))
        if params.slope:
            # Turned about the neck point (or the dart), so that the seam keeps its length.
            angle = -params.slope / distance(outer.start, tip) * (1 if tip[0] > outer.start[0] else -1)
            tip = Motion.turning(angle, about=outer.start)(tip)
        new = redrawn(piece, moves={span.end: tip})
        pieces.append(_dropped(new) if params.amount >= DROPPED else new)
        now = span_length(pieces[-1], span)
        longer[zone], lengths = now - whole, [*lengths, Sum(f"{zone} shoulder", now)]
        if params.slope:
            square = left_of(outer.end_direction)
            lower[zone] = abs(gone(piece, pieces[-1], span.end, square)) * (1 if params.slope > 0 else -1)
    pattern = settled_since(given, context.garment.with_pieces(*pieces))
    sums = [*told_alike("longer at the tip", longer), *told_alike("lower at the tip", lower)]
    if params.lower:
        sums += told_underarms(given, pattern)
    if params.sides:
        sums += told_around(given, moved_levels(given, pattern))
    return Outcome(pattern, (*sums, *told_armholes(given, pattern), *lengths))


def _roomier(params: ChangeShoulder, context: Context) -> Working:
    """Return the pattern with the sides wider and the armhole lower, where a dropped shoulder asks for that."""
    pattern = context.garment
    if params.sides:
        wider = dict.fromkeys(("underarm", "waist", "hip", "hem"), params.sides)
        pattern = context.work("change_side", wider, on=pattern).garment
    if params.lower:
        pattern = context.work("change_armhole", {"lower": params.lower}, on=pattern).garment
    return pattern


def _dropped(piece: Piece) -> Piece:
    """Return a piece whose armhole runs in one shallow curve to a tip that lies over the arm."""
    holes = [e for e in piece.edges if e.role is Role.ARMHOLE]
    if len(holes) != 1:
        return piece
    (edge,) = holes
    shoulder = next(e for e in piece.edges if e.start == edge.end or (e.end == edge.end and e is not edge))
    along = shoulder.curve.start_direction
    # Counter-clockwise the armhole comes to the tip square to the shoulder.
    back = left_of(along)
    cubic = towards_meeting(
        edge.curve.start, edge.curve.start_direction, edge.curve.end, back, start_fraction=0.55, end_fraction=0.4
    )
    if cubic is None:
        tall = distance(edge.curve.start, edge.curve.end)
        cubic = with_handles(
            edge.curve.start,
            edge.curve.start_direction,
            edge.curve.end,
            back,
            start_handle=UNDERARM_HANDLE * tall,
            end_handle=0.45 * tall,
        )
    return replace(piece, edges=tuple(replace(e, curve=Curve(cubic)) if e is edge else e for e in piece.edges))


def describe(params: ChangeShoulder) -> str:
    """Return the step in the maker's words."""
    parts = [f"{signed(params.amount, 'extend', 'shorten')} at the tip"] if params.amount or not params.slope else []
    if params.slope:
        parts.append(f"{signed(params.slope, 'slope down by', 'square up by')}")
    if params.sides:
        parts.append(f"sides wider by {cm(params.sides, 2)}")
    if params.lower:
        parts.append(f"armhole lower by {cm(params.lower, 2)}")
    return f"Shoulder seam: {', '.join(parts)}"


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer to extend, drop, narrow or slope the shoulder pointed at."""
    if subject.kind is Kind.LINE and subject.role is Role.SHOULDER:
        yield Offer("Extend the shoulder", {"amount": 1.0})
        yield Offer("Drop the shoulder over the arm", {"amount": 6.0, "slope": 1.5, "sides": 3.0, "lower": 4.0})
        yield Offer("Narrow the shoulder", {"amount": -1.0})
        yield Offer("Slope the shoulder", {"amount": 0.0, "slope": 0.5})


OPERATION = Operation(
    key="change_shoulder",
    title="Extend or shorten the shoulder",
    params=ChangeShoulder,
    apply=apply,
    describe=describe,
    width=as_ease,
    sections=SHAPES,
    moves=(SeamKind.CAP,),
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.NECK,
    offers=offers,
    examples=({"amount": 0.8}, {"amount": -1.0}, {"amount": 6.0, "slope": 1.5, "sides": 3.0, "lower": 2.0}),
)
