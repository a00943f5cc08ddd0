"""Lengthen or shorten the fork of the trousers, in front and behind.

By hand: the fork is drawn further out along the crotch level and run out to nothing at the knee; the inseam keeps its
length, so the end of a longer fork drops a little. Behind first: there the seat needs it. Common practice, no single
source.
"""

from collections.abc import Iterator

from izett.errors import ReferenceLost, StepRefused
from izett.geometry.point import Point
from izett.pattern.facts import Corner, Region, Role, Zone
from izett.pattern.levels import settled_since
from izett.pattern.piece import Piece
from izett.pattern.working import Readable
from izett.styling.as_long import moved_as_long
from izett.styling.blocks import corner_of
from izett.styling.operation import SHAPES, Context, Keeps, Offer, Operation, Outcome, Sum, as_ease, length
from izett.styling.references import Params
from izett.styling.subject import Kind, Subject
from izett.styling.told import long_in
from izett.styling.words import signed
from izett.wording import cm

#: cm. Of a fork this much must be left.
LEAST_FORK = 1.5


class ChangeCrotch(Params):
    """How much further out the fork ends."""

    back: float = length(0.0, low=-4, high=6, meaning="longer at the back fork (−: shorter)")
    front: float = length(0.0, low=-3, high=4, meaning="longer at the front fork (−: shorter)")


def apply(params: ChangeCrotch, context: Context) -> Outcome:
    """Move the end of each fork out, its inseam kept."""
    given = context.garment
    pattern = given
    told: list[Sum] = []
    for zone, by in ((Zone.FRONT, params.front), (Zone.BACK, params.back)):
        if not by:
            continue
        piece, fork = corner_of(given, zone, Corner.FORK, Region.LEGS)
        pattern = pattern.with_pieces(_forked(piece, fork, by))
        now = pattern.piece(piece.name)
        told.append(Sum(f"{zone.value} crotch seam longer", long_in(now, Role.CROTCH) - long_in(piece, Role.CROTCH)))
        told.append(Sum(f"{zone.value} fork", _reach(now, fork)))
    return Outcome(settled_since(given, pattern), tuple(told))


def _forked(piece: Piece, fork: str, by: float) -> Piece:
    spot = piece.vertex(fork)
    top = _top(piece)
    out = -1.0 if spot[0] < top[0] else 1.0
    if _reach(piece, fork) + by < LEAST_FORK:
        raise StepRefused(
            f"The {piece.zone.value} fork of {cm(_reach(piece, fork))} cannot be shortened by {cm(-by, 2)}.",
            fix=f"Leave at least {cm(LEAST_FORK, 2)}.",
            where=(fork,),
        )
    return moved_as_long(piece, fork, (out * by, 0.0), Role.INSEAM)


def _top(piece: Piece) -> Point:
    name = piece.corner(Corner.CROTCH_TOP)
    if name is None:
        raise ReferenceLost(
            f"The {piece.title.lower()} has no crotch seam any more.",
            fix="Put this step before the one that cut it away.",
            where=(piece.name,),
        )
    return piece.vertex(name)


def _reach(piece: Piece, fork: str) -> float:
    """Return how far (cm) a fork ends from where its crotch curve leaves the centre seam, straight across."""
    return abs(piece.vertex(fork)[0] - _top(piece)[0])


def describe(params: ChangeCrotch) -> str:
    """Return the step in the maker's words."""
    parts = [
        f"{zone} {signed(by, 'longer by', 'shorter by')}"
        for zone, by in (("back", params.back), ("front", params.front))
        if by
    ]
    return f"Fork of the crotch: {', '.join(parts) or 'no change'}"


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer to change the fork where a crotch seam is pointed at."""
    if subject.kind is Kind.LINE and subject.role is Role.CROTCH and subject.piece is not None:
        zone = "front" if subject.piece.zone is Zone.FRONT else "back"
        yield Offer(f"Lengthen the {zone} fork", {zone: 0.8})


OPERATION = Operation(
    key="change_crotch",
    title="Lengthen or shorten the fork",
    params=ChangeCrotch,
    apply=apply,
    describe=describe,
    width=as_ease,
    sections=SHAPES,
    keeps=frozenset({Keeps.SEAMS}),
    offers=offers,
    blocks=("trousers",),
    examples=({"back": 1.0}, {"back": 0.6, "front": 0.4}, {"back": -0.8}),
)
