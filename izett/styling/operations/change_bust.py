"""Full-bust and small-bust change: the front is slashed through the bust point and spread there, or lapped.

By hand: slash from the waist up to the bust point and on to the armhole, and from the side through the bust dart to the
point; swing the side of the front out about the armhole until it stands off by what is missing; the bust dart opens by
the same angle, and what lies under it slides down beside it, the centre as well, so that the waist is even again. The side
and the armhole stay as long as they are, the waist dart takes up the width at the waist. Half of what the whole front
misses belongs to each half. Into the waist dart instead, the side swings out in one down to the waist. Common practice, no
single source.
"""

from collections.abc import Iterator
from enum import StrEnum

from pydantic import Field

from izett.pattern.facts import Corner, Region, Role, SeamKind, Zone
from izett.pattern.levels import settled_since
from izett.pattern.piece import mouth_width, opens_on
from izett.pattern.working import Readable
from izett.pattern.worn import moved_levels
from izett.styling.blocks import corner_of
from izett.styling.operation import SHAPES, Context, Group, Keeps, Offer, Operation, Outcome, Sum, as_ease, length
from izett.styling.references import Params
from izett.styling.slashed_front import BUST, into_bust, into_waist_dart, slashed, swing_of
from izett.styling.subject import Subject
from izett.styling.told import long_in, told_around
from izett.styling.words import signed


class Into(StrEnum):
    """Which dart takes up the fullness."""

    BUST_DART = "bust_dart"
    WAIST_DART = "waist_dart"


class ChangeBust(Params):
    """How much, and into which dart."""

    amount: float = length(1.5, low=-3, high=5, meaning="wider over the bust, each half of the front (−: narrower)")
    into: Into = Field(Into.BUST_DART, description="the dart that takes up the fullness")
    centre: bool = Field(
        True, description="the centre front becomes longer too; otherwise that runs out to nothing there"
    )


def apply(params: ChangeBust, context: Context) -> Outcome:
    """Swing the side of the front about the armhole, and even the front out below the bust."""
    piece, _ = corner_of(context.garment, Zone.FRONT, Corner.UNDERARM)
    front = slashed(piece, into_waist=params.into is Into.WAIST_DART)
    swing, at_centre = swing_of(front, params.amount), 1.0 if params.centre else 0.0
    whole = (
        into_bust(front, swing, at_centre)
        if params.into is Into.BUST_DART
        else into_waist_dart(front, swing, at_centre)
    )
    pattern = context.garment.with_pieces(whole)
    if front.bust is not None:
        # The point of the bust dart has gone out with the side: it is aimed at the bust point again, midway.
        aimed = {"dart": f"{whole.part}.{BUST}", "outwards": -params.amount / 2}
        pattern = context.work("aim_dart", aimed, on=pattern).garment
    if front.waist is not None:
        # Its legs stand otherwise now: the waist is drawn to run on over the dart again.
        pattern = context.work("true_dart", {"dart": front.waist.name}, on=pattern, label="waist").garment
    pattern = settled_since(context.garment, pattern)
    after = pattern.piece(piece.name)
    taken = front.bust if params.into is Into.BUST_DART else front.waist
    told = [
        Sum("longer at the centre front", long_in(after, Role.CENTRE_FRONT) - long_in(piece, Role.CENTRE_FRONT)),
        *told_around(context.garment, moved_levels(context.garment, pattern)),
    ]
    if taken is not None:
        told += [
            Sum("dart before", mouth_width(piece, taken)),
            Sum("dart now", mouth_width(after, after.dart(taken.name))),
        ]
    return Outcome(pattern, tuple(told))


def describe(params: ChangeBust) -> str:
    """Return the step in the maker's words."""
    into = "bust dart" if params.into is Into.BUST_DART else "waist dart"
    return f"Bust, each half of the front: {signed(params.amount, 'spread by', 'lap by')} at the point, into the {into}"


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer the change where a bust dart, or a waist dart of the front, is pointed at."""
    dart = subject.dart
    if dart is None or subject.piece is None or subject.piece.zone is not Zone.FRONT:
        return
    opens = opens_on(subject.piece, dart)
    if subject.piece.region is Region.UPPER and opens in (Role.SIDE, Role.WAIST):
        into = Into.BUST_DART if opens is Role.SIDE else Into.WAIST_DART
        yield Offer("More room for a fuller bust", {"amount": 1.0, "into": into})
        yield Offer("Less room for a smaller bust", {"amount": -0.8, "into": into})


OPERATION = Operation(
    key="change_bust",
    title="Full-bust or small-bust change",
    params=ChangeBust,
    apply=apply,
    describe=describe,
    width=as_ease,
    sections=SHAPES,
    moves=(SeamKind.CAP, SeamKind.WAIST),
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.DARTS,
    offers=offers,
    examples=(
        {"amount": 1.5},
        {"amount": -0.8},
        {"amount": 1.0, "into": "waist_dart"},
        {"amount": -0.5, "into": "waist_dart"},
    ),
)
