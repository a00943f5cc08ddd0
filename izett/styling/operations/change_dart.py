"""Change a dart: what it takes in at its mouth, and how long it is.

Made good at the side seam, the dart opens towards it and the side goes out by as much: the waist stays as wide as it is, and
what is sewn to it stays in line. Not made good, the mouth opens to both sides and the waist gives it. Common practice, no single source.
"""

from collections.abc import Iterator, Sequence
from dataclasses import replace

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.point import Point, add, between, distance, scale, subtract, unit
from izett.pattern.facts import Corner, Role, SeamKind
from izett.pattern.levels import settled_since
from izett.pattern.piece import Intake, Piece, mouth_width, opens_on
from izett.pattern.redraw import redrawn
from izett.pattern.working import Readable
from izett.pattern.worn import moved_levels
from izett.styling.as_long import moved_as_long
from izett.styling.operation import SHAPES, Context, Group, Keeps, Offer, Operation, Outcome, Sum, Width, length
from izett.styling.references import DartRef, Params
from izett.styling.subject import Kind, Subject
from izett.styling.told import told_around
from izett.styling.words import dart_words, signed
from izett.wording import cm

#: cm. A dart narrower or shorter than this is a pucker.
LEAST_INTAKE, SHORTEST = 0.4, 3.0
#: Of the line beside a dart so much may go into it.
MOST_TAKEN = 0.6


class ChangeDart(Params):
    """Which dart, and how it changes."""

    dart: DartRef = Field(description="the dart, or all of a family")
    intake: float = length(0.0, low=-4, high=4, meaning="takes in more at its mouth (−: less)")
    longer: float = length(0.0, low=-6, high=6, meaning="longer (−: shorter)")
    side: bool = Field(True, description="made good at the side seam: the waist stays as it is")


def apply(params: ChangeDart, context: Context) -> Outcome:
    """Open or close the mouth of each dart meant, and move its tip along its axis."""
    given = context.garment
    piece, darts = context.darts(params.dart)
    for dart in darts:
        _refuse_little(piece, dart, params)
    opened = (
        _made_good(piece, darts, params.intake)
        if params.side and params.intake
        else _opened(piece, darts, params.intake)
    )
    new = redrawn(
        opened, moves={}, darts=[_longer(opened, d, params.longer) if _is_one(d, darts) else d for d in opened.darts]
    )
    pattern = settled_since(given, given.with_pieces(new))
    first = darts[0]
    told = [
        Sum("dart before", mouth_width(piece, first)),
        Sum("dart now", mouth_width(new, new.dart(first.name))),
        *told_around(given, moved_levels(given, pattern)),
    ]
    if params.longer:
        told.append(Sum("longer from mouth to tip", _long(new, new.dart(first.name)) - _long(piece, first)))
    return Outcome(pattern, tuple(told), asks=(SeamKind.WAIST,) if params.intake and not params.side else ())


def _middle(piece: Piece, dart: Intake) -> Point:
    return between(piece.vertex(dart.mouth[0]), piece.vertex(dart.mouth[1]), 0.5)


def _long(piece: Piece, dart: Intake) -> float:
    return distance(_middle(piece, dart), piece.vertex(dart.tip))


def _is_one(dart: Intake, darts: Sequence[Intake]) -> bool:
    return any(dart.name == one.name for one in darts)


def _refuse_little(piece: Piece, dart: Intake, params: ChangeDart) -> None:
    """Refuse a dart that would be a pucker, or a mouth that takes too much of the line beside it."""
    was = mouth_width(piece, dart)
    if was + params.intake < LEAST_INTAKE:
        raise StepRefused(
            f"{dart_words(dart.name, begins=True)} of {cm(was)} cannot take in {cm(-params.intake, 2)} less.",
            fix=f"Leave at least {cm(LEAST_INTAKE, 2)}, or close it into another dart.",
            where=(dart.name,),
        )
    if _long(piece, dart) + params.longer < SHORTEST:
        raise StepRefused(
            f"{dart_words(dart.name, begins=True)} would be shorter than {cm(SHORTEST, 2)}.",
            fix="Shorten it by less.",
            where=(dart.name,),
        )
    beside = [e for e in piece.edges if not e.is_leg and (e.end == dart.mouth[0] or e.start == dart.mouth[1])]
    least = min(edge.curve.length for edge in beside)
    if not params.side and params.intake / 2 > MOST_TAKEN * least:
        raise StepRefused(
            f"Beside {dart_words(dart.name)} only {cm(least)} are left to take from.",
            fix="Take less, or make it good at the side seam.",
            where=(dart.name,),
        )


def _opened(piece: Piece, darts: Sequence[Intake], by: float) -> Piece:
    """Return the piece with the mouths of some darts opened alike to both sides: the line beside them gives it."""
    moves: dict[str, Point] = {}
    for dart in darts:
        a, b = (piece.vertex(mouth) for mouth in dart.mouth)
        half = scale(unit(subtract(b, a)), by / 2)
        moves |= {dart.mouth[0]: subtract(a, half), dart.mouth[1]: add(b, half)}
    return redrawn(piece, moves=moves)


def _longer(piece: Piece, dart: Intake, by: float) -> Intake:
    return replace(dart, pivot=add(dart.pivot, scale(unit(subtract(dart.pivot, _middle(piece, dart))), by)))


def _made_good(piece: Piece, darts: Sequence[Intake], by: float) -> Piece:
    """Return the piece with some darts of its waist opened towards the side, which goes out by all of it.

    As sewn every place of the waist stays as far from the centre as it was, so a dart across the seam stays in line.
    """
    side = piece.corner(Corner.WAIST_SIDE)
    waist = [edge for edge in piece.edges if edge.role is Role.WAIST]
    mouths = {name for edge in waist for name in (edge.start, edge.end)}
    if side is None or not all(mouths.issuperset(dart.mouth) for dart in darts):
        raise StepRefused(
            f"{dart_words(darts[0].name, begins=True)} does not open on a waist with a side seam.",
            fix="Let the width change with it.",
            where=(darts[0].name,),
        )
    # From the centre outwards, which is in ring order or against it.
    last = next(edge for edge in waist if side in (edge.start, edge.end))
    forward = last.end == side
    on_waist = [dart for dart in piece.darts if mouths.issuperset(dart.mouth)]
    order = {edge.start: i for i, edge in enumerate(piece.edges)}
    on_waist.sort(key=lambda dart: order[dart.mouth[1]], reverse=not forward)
    moves: dict[str, Point] = {}
    moved: dict[str, Intake] = {}
    gone = 0.0
    for dart in on_waist:
        inner, outer = dart.mouth if forward else dart.mouth[::-1]
        out = unit(subtract(piece.vertex(outer), piece.vertex(inner)))
        more = by if _is_one(dart, darts) else 0.0
        moves[inner] = add(piece.vertex(inner), scale(out, gone))
        moves[outer] = add(piece.vertex(outer), scale(out, gone + more))
        moved[dart.name] = replace(dart, pivot=add(dart.pivot, scale(out, gone + more / 2)))
        gone += more
    ends = last.curve.end_direction if forward else scale(last.curve.start_direction, -1.0)
    opened = redrawn(piece, moves=moves, darts=[moved.get(dart.name, dart) for dart in piece.darts])
    return moved_as_long(opened, side, scale(ends, gone), Role.SIDE)


def _meant(params: ChangeDart, _level: str) -> Width:
    """Mean a waist that is not made good at the side."""
    return Width.NOTHING if params.side else Width.EASE


def describe(params: ChangeDart) -> str:
    """Return the step in the maker's words."""
    named = dart_words(params.dart)
    parts = []
    if params.intake:
        good = ", made good at the side" if params.side else ""
        parts.append(f"{signed(params.intake, 'take in more by', 'take in less by')}{good}")
    if params.longer:
        parts.append(signed(params.longer, "longer by", "shorter by"))
    return f"{named[:1].upper()}{named[1:]}: {', '.join(parts) or 'no change'}"


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer to change the dart pointed at."""
    if subject.kind is Kind.DART and subject.piece is not None and subject.dart is not None:
        at_waist = (
            opens_on(subject.piece, subject.dart) is Role.WAIST and subject.piece.corner(Corner.WAIST_SIDE) is not None
        )
        yield Offer("Take more or less in this dart", {"dart": subject.name, "intake": 0.5, "side": at_waist})
        yield Offer("Make this dart longer or shorter", {"dart": subject.name, "longer": 1.0})


OPERATION = Operation(
    key="change_dart",
    title="Change a dart",
    params=ChangeDart,
    apply=apply,
    describe=describe,
    width=_meant,
    sections=SHAPES,
    moves=(SeamKind.WAIST,),
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.DARTS,
    offers=offers,
    blocks=("bodice", "skirt"),
    examples=(
        {"dart": "back.waist_dart", "intake": 0.6},
        {"dart": "skirt_back.waist_dart", "intake": -0.5, "longer": -1.0},
        {"dart": "back.waist_dart", "intake": 0.5, "side": False},
        {"dart": "front.waist_dart", "longer": -1.5},
    ),
)
