"""Darts are true: legs equal, the line runs on across them shut, the tip stays short of the bust point, the intake is
no larger than cloth takes in one place, waist darts stand upright, and what comes together in a waist seam, darts or
panel seams, meets.

Common practice, no single source.
"""

from collections.abc import Iterator
from functools import partial
from math import atan2, degrees, inf
from typing import NamedTuple

from izett.checking.check import Check, CheckParams, Finding, Fix, Garment, Verdict, Worse, tolerance, verdict
from izett.errors import ReferenceLost
from izett.geometry.point import Vector, between, cross, distance, dot, subtract
from izett.pattern.facts import CENTRE_LINES, CENTRES, Role, SeamKind, Zone
from izett.pattern.halves import marked
from izett.pattern.naming import readable
from izett.pattern.paper import broken_across
from izett.pattern.piece import Intake, Piece, Span, dart_angle, in_ring_order, mouth_width
from izett.pattern.remembered import Remembered
from izett.pattern.sewn import holding, walk
from izett.pattern.working import Readable
from izett.wording import cm

#: What is odd, in words.
ODD = {
    "across": "With the {dart} shut, the line across it has a corner of {amount:.1f}°",
    "set_back": "The tip of the {dart} lies {length} from the bust point: it would poke",
    "axis": "The {dart} leans {amount:.1f}° off the upright",
    "meet": "The {dart} and the dart across the seam are {length} off each other",
    "meet_seam": "The {dart} and the {across} across the seam are {length} off each other",
}
#: A dart stands on the inner or on the outer half of its piece's waist.
HALF = 0.5


class Params(CheckParams):
    """How far a dart's legs may differ, and how much it may take in."""

    legs: float = tolerance(0.1, low=0, high=0.5, unit="cm", meaning="difference of the two legs")
    intake: float = tolerance(5.0, low=2, high=8, unit="cm", meaning="largest waist dart before it is split")
    across: float = tolerance(6.0, low=0.5, high=30, unit="°", meaning="corner of the line with the dart shut")
    set_back: float = tolerance(0.3, low=0, high=3, unit="cm", meaning="least from the bust point to a bust dart's tip")
    axis: float = tolerance(6.0, low=0.5, high=20, unit="°", meaning="first waist dart off the upright")
    meet: float = tolerance(0.2, low=0.02, high=2, unit="cm", meaning="darts of two pieces off each other in the seam")
    shortest: float = tolerance(4.0, low=2, high=8, unit="cm", meaning="shortest leg that still shapes")


def find(garment: Garment, params: Params) -> Iterator[Finding]:
    """Yield for each dart its legs, and what is odd about its size."""
    for piece in garment.pattern.pieces:
        yield from _read.of(piece, params, partial(_found_on, piece, params))
    yield from _meeting(garment.pattern, params)


_read: Remembered[tuple[Finding, ...]] = Remembered()


def _found_on(piece: Piece, params: Params) -> tuple[Finding, ...]:
    return tuple(_of_piece(piece, params))


def _of_piece(piece: Piece, params: Params) -> Iterator[Finding]:
    for dart in piece.darts:
        a, b = (piece.vertex(name) for name in dart.mouth)
        tip = piece.vertex(dart.tip)
        leg = distance(a, tip)
        uneven = leg - distance(b, tip)
        yield Finding(verdict(uneven, params.legs), (dart.name,), uneven, params.legs, aspect="legs")
        width = mouth_width(piece, dart)
        if dart.family == "waist" and width > params.intake:
            split = (Fix("Split it in two", "split_dart", {"dart": dart.name}),)
            yield Finding(Verdict.WARNS, (dart.name,), width, params.intake, aspect="intake", fixes=split)
        if leg < params.shortest:
            yield Finding(Verdict.WARNS, (dart.name,), leg, params.shortest, aspect="short", worse=Worse.LESS)
        yield from _drawn(piece, dart, params)


def _drawn(piece: Piece, dart: Intake, params: Params) -> Iterator[Finding]:
    """Yield what is odd about the line across a dart, its tip, and a waist dart's axis."""
    broken = broken_across(piece.edges, dart.mouth, dart_angle(piece, dart))
    before = next(e for e in piece.edges if e.end == dart.mouth[0])
    if not before.curve.is_straight and abs(degrees(broken)) > params.across:
        true = (Fix("True the line across it", "true_dart", {"dart": dart.name}),)
        off = degrees(broken)
        yield Finding(Verdict.WARNS, (dart.name,), off, params.across, unit="°", aspect="across", fixes=true)
    tip = piece.vertex(dart.tip)
    near = min((distance(tip, apex) for apex in marked(piece, "apex")), default=inf)
    if dart.family == "bust" and near < params.set_back:
        more = round(params.set_back - near + 0.05, 2)
        back = (Fix("Set the tip back", "aim_dart", {"dart": dart.name, "set_back": more}),)
        yield Finding(
            Verdict.WARNS, (dart.name,), near, params.set_back, aspect="set_back", fixes=back, worse=Worse.LESS
        )
    first = next((d for d in piece.darts if d.family == "waist" and _line_of(piece, d) is Role.WAIST), None)
    if dart is first and _is_inner(piece, dart):
        middle = between(piece.vertex(dart.mouth[0]), piece.vertex(dart.mouth[1]), 0.5)
        along = subtract(dart.pivot, middle)
        centres = [e.curve.end_direction for e in piece.edges if e.role in CENTRE_LINES]
        # Parallel to the centre line or upright: on a slanted centre seam the dart lies between the two.
        off = min(_between(along, way) for way in (*centres, (0.0, 1.0)))
        if off > params.axis:
            yield Finding(Verdict.WARNS, (dart.name,), off, params.axis, unit="°", aspect="axis")


def _is_inner(piece: Piece, dart: Intake) -> bool:
    """Return whether a waist dart opens nearer to the centre than to the side: one left over further out leans with the hip."""
    run = in_ring_order(edge for edge in piece.edges if edge.role is Role.WAIST)
    before = sum(e.curve.length for e in run[: next(i for i, e in enumerate(run) if e.end == dart.mouth[0]) + 1])
    share = before / sum(e.curve.length for e in run)
    return share < HALF if run[0].start in _at_centre(piece) else share > HALF


def _at_centre(piece: Piece) -> set[str]:
    return {name for e in piece.edges if e.role in CENTRES for name in (e.start, e.end)}


def _between(a: Vector, b: Vector) -> float:
    """Return the angle between two lines in degrees, 0 to 90."""
    return degrees(atan2(abs(cross(a, b)), abs(dot(a, b))))


def _meeting(pattern: Readable, params: Params) -> Iterator[Finding]:
    """Yield darts, or a dart and a panel seam, above and below a waist seam that do not meet in it."""
    for seam in pattern.seams_of(SeamKind.WAIST):
        for zone in (Zone.FRONT, Zone.BACK):
            upper, lower = (_first_upright(pattern, side, zone) for side in seam.sides)
            if upper is None or lower is None or not (upper.is_dart or lower.is_dart):
                continue
            off = lower.along - upper.along
            if abs(off) > params.meet:
                darts = upper.is_dart and lower.is_dart
                line_up = (Fix("Keep them in line", "align_darts", {"dart": lower.name, "to": upper.name}),)
                yield Finding(
                    Verdict.WARNS,
                    (upper.name, lower.name),
                    off,
                    params.meet,
                    aspect="meet" if darts else "meet_seam",
                    fixes=line_up if darts else (),
                )


class _Upright(NamedTuple):
    """A dart or a panel seam that ends on a waist: how far along the waist seam, cm."""

    name: str
    along: float
    is_dart: bool


def _first_upright(pattern: Readable, side: tuple[Span, ...], zone: Zone) -> _Upright | None:
    """Return the waist dart or the panel seam of a zone nearest to the centre on one side of a seam."""
    gone = 0.0
    found: list[_Upright] = []
    before: Piece | None = None
    from_centre = True
    for span in side:
        try:
            piece = holding(pattern, span.start)
            stretches = walk(piece, span)
        except ReferenceLost:
            return None
        if before is None:
            # The waist runs from one centre to the other: over the zone that it begins on, away from the centre.
            from_centre = piece.zone is zone
        elif before.zone is piece.zone is zone:
            first = stretches[0].edge.start if stretches[0].forward else stretches[0].edge.end
            panel = next((e for e in piece.edges if e.role is Role.PANEL and first in (e.start, e.end)), None)
            if panel is not None:
                found.append(_Upright(panel.lineage, gone, is_dart=False))
        before = piece
        for stretch in stretches:
            gone += stretch.edge.curve.length
            far = stretch.edge.end if stretch.forward else stretch.edge.start
            found += [
                _Upright(dart.name, gone, is_dart=True)
                for dart in piece.darts
                if dart.family == "waist" and far in dart.mouth and piece.zone is zone
            ]
    if not found:
        return None
    return found[0] if from_centre else found[-1]


def _line_of(piece: Piece, dart: Intake) -> Role | None:
    return next((edge.role for edge in piece.edges if edge.end == dart.mouth[0]), None)


def word(finding: Finding) -> str:
    """Return the finding in words."""
    dart = readable(finding.where[0])
    if finding.aspect in ODD:
        across = readable(finding.where[-1])
        amount = abs(finding.amount)
        return ODD[finding.aspect].format(dart=dart, across=across, amount=amount, length=cm(amount))
    if finding.aspect == "intake":
        return f"The {dart} takes in {cm(finding.amount)}: it pokes out, better split"
    if finding.aspect == "short":
        return f"The {dart} is only {cm(finding.amount)} long"
    if finding.verdict is Verdict.PASSES:
        return f"The {dart} has equal legs"
    return f"The legs of the {dart} differ by {cm(abs(finding.amount), 2)}"


CHECK = Check(
    key="darts_true",
    claim="Darts have equal legs, a fair length and an intake that cloth takes in one place",
    params=Params,
    find=find,
    word=word,
    fix="Aim the dart again, or share its intake with another one.",
)
