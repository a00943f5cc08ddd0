"""Notions: what of a worksheet is bought (elastic, tape, lace, bias), and what is marked on the pieces (buttons, bones)."""

from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

from izett.cutting.lay.cutouts import Wanted
from izett.cutting.worksheets import summed, sums
from izett.geometry.point import Point, between
from izett.pattern.piece import Piece
from izett.pattern.placed import (
    BONE,
    BUTTONHOLE,
    THICKNESS,
    Placed,
    closes_with_partner,
    is_straight,
    lines_called,
    places_of,
)
from izett.wording import cm


@dataclass(frozen=True, slots=True)
class Notion:
    """Something to buy, and how much of it: a length in cm, or a number; `kind` without its size."""

    what: str
    amount: float
    unit: str = ""
    kind: str = ""


@dataclass(frozen=True, slots=True)
class _Bought:
    """What of a worksheet is bought: called what, how much by which of its numbers, and how long each is."""

    what: str
    amount: str
    unit: str = ""
    each: str = ""


#: What is both summed and marked.
BUTTONS, BONES, EYELETS = "buttons", "bones", "eyelets"

BOUGHT: Mapping[str, tuple[_Bought, ...]] = {
    "elastic": (_Bought("elastic", "elastic_cut", "cm"),),
    "waist_tape": (_Bought("waist tape", "tape_cut", "cm"),),
    "bones": (_Bought(BONES, "how_many", each="bone"),),
    "lacing": (_Bought(EYELETS, "eyelets"), _Bought("lace", "lace", "cm")),
    "buttons": (_Bought(BUTTONS, "button_count"),),
    "binding": (_Bought("binding", "binding_length", "cm"),),
    "interfacing": (_Bought("interfacing", "interfacing_length", "cm"),),
}

#: What is bought for each place that is marked. Where a pair closes at its centre, one half of it has the one part of
#: these, and the other half the other; eyelets are on both.
CLOSES: Mapping[Placed, str] = {Placed.BUTTON: BUTTONS, Placed.SNAP: "snaps", Placed.HOOK: "hooks and eyes"}


def notions(kind: str, values: Mapping[str, float]) -> list[Notion]:
    """Return what is bought of a worksheet's results.

    Raises:
        UnknownName, ValueOutOfRange: there is no such worksheet, or its numbers give no result.
    """
    if kind not in BOUGHT:
        return []
    given = {symbol: allowance.default for symbol, allowance in sums()[kind].sheet.allowances.items()}
    found = {**given, **values, **{line.symbol: line.value for line in summed(kind, values)}}
    return [
        Notion(_sized(one.what, found[one.each]) if one.each else one.what, found[one.amount], one.unit, one.what)
        for one in BOUGHT[kind]
    ]


def marked(wanted: Sequence[Wanted]) -> list[Notion]:
    """Return what is bought for the places that are marked on the pieces: buttons, snaps, eyelets, bones by their length."""
    found: Counter[tuple[str, str]] = Counter()
    for one in wanted:
        piece = one.sheet.piece
        drawn = one.number * (2 if piece.on_fold else 1)
        for kind, what, at in _closing(piece):
            found[kind, what] += one.times if closes_with_partner(piece, at) else drawn
        for kind, what in _sewn_in(piece):
            found[kind, what] += drawn
    return [Notion(what, float(number), kind=kind) for (kind, what), number in found.items()]


def _sized(what: str, long: float) -> str:
    return f"{what}, {cm(long)}"


def _closing(piece: Piece) -> Iterator[tuple[str, str, Point]]:
    """Yield what is bought for each place of a piece that closes, as it is drawn: its kind, what it is, and where."""
    for hole in lines_called(piece, BUTTONHOLE):
        middle = between(hole.points[0], hole.points[-1], 0.5)
        yield BUTTONS, _sized(BUTTONS, hole.length - THICKNESS), middle
    for placed, what in CLOSES.items():
        yield from ((what, what, at) for at in places_of(piece, placed))


def _sewn_in(piece: Piece) -> Iterator[tuple[str, str]]:
    """Yield the eyelets and the bones of a piece as it is drawn: the kind of each, and what it is."""
    yield from ((EYELETS, EYELETS) for _ in places_of(piece, Placed.EYELET))
    for bone in lines_called(piece, BONE):
        yield BONES, _sized(f"{'flat' if is_straight(bone) else 'spiral'} {BONES}", bone.length)
