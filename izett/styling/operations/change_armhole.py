"""Raise, lower or scoop the armhole.

The underarm slides along the side seam, front and back alike, so the seam stays equal; the scoop is a smooth shift of
the lower armhole into the piece. A dart that opens close under the armhole is moved down the side with it. The armhole's
length changes: the sleeve is capped again. Common practice, no single source.
"""

from collections.abc import Iterator
from dataclasses import replace
from math import cos, pi

from izett.errors import StepRefused
from izett.geometry.curve import Curve
from izett.geometry.fit import displaced
from izett.geometry.point import Point, Vector
from izett.pattern.facts import Role, SeamKind, Zone
from izett.pattern.paper import shortened
from izett.pattern.piece import Edge, Piece, Span
from izett.pattern.redraw import redrawn
from izett.pattern.working import Readable, Working
from izett.styling.laid import laid_together, run_in_zone, turned_round
from izett.styling.operation import SHAPES, Context, Group, Offer, Operation, Outcome, Sum, as_ease, length
from izett.styling.references import Params
from izett.styling.subject import Kind, Subject
from izett.styling.told import long_in, told_alike, told_armholes
from izett.styling.words import signed
from izett.wording import cm

#: cm. Of the side seam above a dart or a corner this much must be left.
LEAST_LEFT = 1.0
#: cm. A dart that goes down with the armhole opens so much lower than it must, and at least so much lower than it did.
SPARE, LEAST_MOVED = 0.2, 0.8


class ChangeArmhole(Params):
    """How the armhole changes."""

    lower: float = length(0.0, low=-3, high=14, meaning="lower at the underarm, front and back (−: raise)")
    scoop_front: float = length(0.0, low=-2, high=4, meaning="cut further into the front (−: filled out)")
    scoop_back: float = length(0.0, low=-2, high=4, meaning="cut further into the back (−: filled out)")


def apply(params: ChangeArmhole, context: Context) -> Outcome:
    """Slide the underarm, then draw the armhole."""
    pattern, told = _room_made(params.lower, context)
    lower: dict[str, float] = {}
    for piece in pattern.with_role(Role.ARMHOLE):
        new = _lowered(piece, params.lower)
        if new is not piece:
            lower[piece.title.lower()] = long_in(piece, Role.SIDE) - long_in(new, Role.SIDE)
            pattern = pattern.with_pieces(new)
    drawn: set[str] = set()
    for piece in context.garment.with_role(Role.ARMHOLE):
        scoop = params.scoop_front if piece.zone is Zone.FRONT else params.scoop_back
        if piece.name not in drawn and scoop:
            pieces = _scooped(pattern, pattern.piece(piece.name), scoop)
            pattern = pattern.with_pieces(*pieces)
            drawn |= {each.name for each in pieces}
    if not context.garment.with_role(Role.ARMHOLE):
        raise StepRefused("The pattern has no armhole.", fix="Add a bodice or a top.", where=("armhole",))
    return Outcome(
        pattern, (*told, *told_alike("lower at the underarm", lower), *told_armholes(context.garment, pattern))
    )


def _room_made(lower: float, context: Context) -> tuple[Working, list[Sum]]:
    """Return the pattern with darts that open close under the armhole moved down the side, as far as it is lowered past them."""
    pattern: Working = context.garment
    told: list[Sum] = []
    for piece in context.garment.with_role(Role.ARMHOLE) if lower > 0 else ():
        underarms = _underarms(piece)
        # A piece over both halves has no centre to stay still when its dart is turned: there the maker moves it first.
        if len(underarms) != 1:
            continue
        ((side, corner),) = underarms
        run = _run_below(piece, side)
        above = sum(edge.curve.length for edge in run)
        last = run[-1].start if corner == run[0].end else run[-1].end
        dart = next((dart for dart in piece.darts if last in dart.mouth), None)
        if dart is None or above - lower >= LEAST_LEFT:
            continue
        # The side, as sewn from the underarm down: to its last vertex.
        far = _foot(piece, side, corner)
        span = Span(corner, far, side.lineage)
        place = max(lower + LEAST_LEFT + SPARE, above + LEAST_MOVED)
        to = {"start": corner, "end": far, "along": side.lineage, "fraction": place / context.span_length(span)}
        pattern = context.work("move_dart", {"dart": dart.name, "to": to}, on=pattern, label=dart.name).garment
        told.append(Sum("dart lower on the side", place - above))
    return pattern, told


def _foot(piece: Piece, side: Edge, corner: str) -> str:
    """Return the end of a side seam that is not its underarm, beyond all its darts."""
    ends = [name for edge in piece.edges if edge.lineage == side.lineage for name in (edge.start, edge.end)]
    mouths = {name for dart in piece.darts for name in dart.mouth}
    return next(name for name in ends if name != corner and name not in mouths and ends.count(name) == 1)


def _underarms(piece: Piece) -> list[tuple[Edge, str]]:
    """Return each side edge at an underarm with its corner: a piece that goes over both halves has two."""
    found = []
    for i, edge in enumerate(piece.edges):
        following = piece.edges[(i + 1) % len(piece.edges)]
        if edge.role is Role.SIDE and following.role is Role.ARMHOLE:
            found.append((edge, edge.end))
        if edge.role is Role.ARMHOLE and following.role is Role.SIDE:
            found.append((following, following.start))
    return found


def _lowered(piece: Piece, lower: float) -> Piece:
    for side, corner in _underarms(piece) if lower else ():
        piece = _lowered_at(piece, side, corner, lower)
    return piece


def _lowered_at(piece: Piece, side: Edge, corner: str, lower: float) -> Piece:
    run = sum(e.curve.length for e in _run_below(piece, side))
    if run - lower < LEAST_LEFT:
        raise StepRefused(
            f"{piece.title}: lowering the armhole by {cm(lower, 2)} leaves less than {cm(LEAST_LEFT, 2)} of the side seam "
            "above its dart or corner.",
            fix="Lower it less, or move the bust dart first.",
            where=(side.lineage,),
        )
    cut = shortened(piece, corner, side.lineage, lower)
    spot: Point = next(
        e.curve.start if e.start == corner else e.curve.end
        for e in cut.edges
        if e.lineage == side.lineage and corner in (e.start, e.end)
    )
    return redrawn(cut, moves={corner: spot})


def _run_below(piece: Piece, side: Edge) -> list[Edge]:
    """Return the edges of the side seam from the underarm down to the first dart or the seam's end."""
    index = piece.edges.index(side)
    above = piece.edges[(index + 1) % len(piece.edges)].role is Role.ARMHOLE
    ring = [*piece.edges[index::-1], *piece.edges[:index:-1]] if above else [*piece.edges[index:], *piece.edges[:index]]
    run = []
    for edge in ring:
        if edge.lineage != side.lineage:
            break
        run.append(edge)
    return run


def _scooped(pattern: Working, piece: Piece, scoop: float) -> tuple[Piece, ...]:
    """Return the pieces of a front or a back with the armhole cut further in: one line over all its panels."""
    run = run_in_zone(pattern, piece, Role.ARMHOLE)
    if not any(e.role is Role.SIDE and run[0].start in (e.start, e.end) for e in pattern.piece(run[0].piece).edges):
        run = turned_round(run)
    if len(run) == 1:
        return (_scooped_alone(piece, scoop),)
    # Upright as the panel with the shoulder lies.
    laid = laid_together(pattern, run, still=len(run) - 1)
    inwards = _inwards(laid.line, laid.pieces[-1])
    return laid.drawn(displaced(laid.line, lambda share: (inwards * scoop * _depth(share), 0.0)))


def _scooped_alone(piece: Piece, scoop: float) -> Piece:
    holes = [edge for edge in piece.edges if edge.role is Role.ARMHOLE]
    # Over both halves there is an armhole on either side of the grain.
    sides = {edge.curve.start[0] > piece.grain[0][0] for edge in holes} if len(_underarms(piece)) > 1 else {None}
    for side in sides:
        own = [e for e in holes if side in (None, e.curve.start[0] > piece.grain[0][0])]
        piece = _scooped_at(piece, max(own, key=lambda e: e.curve.length), scoop)
    return piece


def _scooped_at(piece: Piece, hole: Edge, scoop: float) -> Piece:
    inwards = _inwards(hole.curve, piece)
    rises = any(hole.start in (side.start, side.end) for side, _ in _underarms(piece))

    def shift(share: float) -> Vector:
        return (inwards * scoop * _depth(share if rises else 1 - share), 0.0)

    curve = displaced(hole.curve, shift)
    return replace(piece, edges=tuple(replace(e, curve=curve) if e is hole else e for e in piece.edges))


def _inwards(line: Curve, piece: Piece) -> float:
    return -1.0 if line.start[0] > piece.grain[0][0] else 1.0


def _depth(share: float) -> float:
    """Return how far in the armhole is scooped there: most at the lower third, nothing at either end."""
    return (1 - cos(2 * pi * share)) / 2 * _lower(share)


def _lower(share: float) -> float:
    """Weigh the lower part of the armhole, which begins at the underarm, more than the upper."""
    return 1.3 * (1 - 0.6 * share)


def describe(params: ChangeArmhole) -> str:
    """Return the step in the maker's words."""
    parts = []
    if params.lower:
        parts.append(signed(params.lower, "lower by", "raise by"))
    for where, by in (("front", params.scoop_front), ("back", params.scoop_back)):
        if by:
            parts.append(f"{signed(by, 'scoop', 'fill out')} in the {where}")
    return f"Armhole: {', '.join(parts) or 'as it is'}"


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer to lower or scoop the armhole pointed at."""
    if subject.kind is Kind.LINE and subject.role is Role.ARMHOLE:
        yield Offer("Lower or raise the armhole", {"lower": 1.0})
        yield Offer("Scoop the armhole", {"scoop_front": 0.5, "scoop_back": 0.3})


OPERATION = Operation(
    key="change_armhole",
    title="Raise, lower or scoop the armhole",
    params=ChangeArmhole,
    apply=apply,
    describe=describe,
    width=as_ease,
    sections=SHAPES,
    moves=(SeamKind.CAP,),
    group=Group.NECK,
    offers=offers,
    examples=({"lower": 1.0}, {"scoop_front": 0.6, "scoop_back": 0.4}),
)
