"""Darts are true: legs equal, the line runs on across them shut, the tip stays short of the bust point, the intake is
no larger than cloth takes in one place, waist darts stand upright, and darts that meet in a seam meet.

Common practice, no single source.
"""

from collections.abc import Iterator
from functools import partial
from math import atan2, degrees

from izett.checking.check import Check, CheckParams, Finding, Garment, Mend, Verdict, tolerance, verdict
from izett.errors import ReferenceLost
from izett.geometry.point import Vector, between, cross, distance, dot, subtract
from izett.pattern.document import Intake, Pattern, Piece, Role, Span, dart_angle, mouth_width
from izett.pattern.naming import readable
from izett.pattern.paper import broken_across
from izett.pattern.remembered import Remembered
from izett.pattern.sewn import holding, walk

#: What is odd, in words.
ODD = {
    "across": "With the {dart} shut, the line across it has a corner of {amount:.1f}°",
    "set_back": "The tip of the {dart} lies {amount:.1f} cm from the bust point: it would poke",
    "axis": "The {dart} leans {amount:.1f}° off the upright",
    "meet": "The {dart} and the dart across the seam are {amount:.1f} cm off each other",
}


class Params(CheckParams):
    """What a dart may differ and take in."""

    legs: float = tolerance(0.1, low=0, high=0.5, unit="cm", meaning="difference of the two legs")
    intake: float = tolerance(5.0, low=2, high=8, unit="cm", meaning="largest waist dart before it is split")
    across: float = tolerance(6.0, low=0.5, high=30, unit="°", meaning="corner of the line with the dart shut")
    set_back: float = tolerance(0.3, low=0, high=3, unit="cm", meaning="least from the bust point to a bust dart's tip")
    axis: float = tolerance(6.0, low=0.5, high=20, unit="°", meaning="first waist dart off the upright")
    meet: float = tolerance(0.2, low=0.02, high=2, unit="cm", meaning="darts of two pieces off each other in the seam")
    shortest: float = tolerance(4.0, low=2, high=8, unit="cm", meaning="shortest leg that still shapes")


def find(garment: Garment, params: Params) -> Iterator[Finding]:
    """Yield for each dart its legs, and what is odd about its size."""
    for piece in garment.pattern:
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
            split = (Mend("Split it in two", "split_dart", {"dart": dart.name}),)
            yield Finding(Verdict.WARNS, (dart.name,), width, params.intake, aspect="intake", mends=split)
        if leg < params.shortest:
            yield Finding(Verdict.WARNS, (dart.name,), leg, params.shortest, aspect="short")
        yield from _drawn(piece, dart, params)


def _drawn(piece: Piece, dart: Intake, params: Params) -> Iterator[Finding]:
    """Yield what is odd about the line across a dart, its tip, and a waist dart's axis."""
    broken = broken_across(piece.edges, dart.mouth, dart_angle(piece, dart))
    before = next(e for e in piece.edges if e.end == dart.mouth[0])
    if not before.curve.is_straight and abs(degrees(broken)) > params.across:
        true = (Mend("True the line across it", "true_dart", {"dart": dart.name}),)
        off = degrees(broken)
        yield Finding(Verdict.WARNS, (dart.name,), off, params.across, unit="°", aspect="across", mends=true)
    apex = piece.marks.get("apex")
    tip = piece.vertex(dart.tip)
    if dart.family == "bust" and apex is not None and distance(tip, apex) < params.set_back:
        more = round(params.set_back - distance(tip, apex) + 0.05, 2)
        back = (Mend("Set the tip back", "aim_dart", {"dart": dart.name, "set_back": more}),)
        yield Finding(Verdict.WARNS, (dart.name,), distance(tip, apex), params.set_back, aspect="set_back", mends=back)
    first = next((d for d in piece.darts if d.family == "waist" and "waist" in d.mouth[0]), None)
    if dart is first:
        middle = between(piece.vertex(dart.mouth[0]), piece.vertex(dart.mouth[1]), 0.5)
        along = subtract(dart.pivot, middle)
        centres = [e.curve.end_direction for e in piece.edges if e.role in (Role.CENTRE_FRONT, Role.CENTRE_BACK)]
        # Parallel to the centre line or upright: on a slanted centre seam the dart lies between the two.
        off = min(_between(along, way) for way in (*centres, (0.0, 1.0)))
        if off > params.axis:
            yield Finding(Verdict.WARNS, (dart.name,), off, params.axis, unit="°", aspect="axis")


def _between(a: Vector, b: Vector) -> float:
    """Return the angle between two lines in degrees, 0 to 90."""
    return degrees(atan2(abs(cross(a, b)), abs(dot(a, b))))


def _meeting(pattern: Pattern, params: Params) -> Iterator[Finding]:
    """Yield darts above and below a waist seam that do not meet in it."""
    seam = next((s for s in pattern.seams if s.name == "waist"), None)
    if seam is None:
        return
    for half in ("front", "back"):
        places = [_first_dart(pattern, side, half) for side in seam.sides]
        if places[0] is None or places[1] is None:
            continue
        (upper, above), (lower, below) = places[0], places[1]
        off = below - above
        if abs(off) > params.meet:
            line_up = (Mend("Keep them in line", "align_darts", {"dart": lower, "to": upper}),)
            yield Finding(Verdict.WARNS, (upper, lower), off, params.meet, aspect="meet", mends=line_up)


def _first_dart(pattern: Pattern, side: tuple[Span, ...], half: str) -> tuple[str, float] | None:
    """Return the first waist dart of a half on one side of the waist, and how far from the seam's start it lies."""
    gone = 0.0
    found: list[tuple[str, float]] = []
    for span in side:
        try:
            piece = holding(pattern, span.start)
            stretches = walk(piece, span)
        except ReferenceLost:
            return None
        for stretch in stretches:
            gone += stretch.edge.curve.length
            far = stretch.edge.end if stretch.forward else stretch.edge.start
            for dart in piece.darts:
                if dart.family == "waist" and far in dart.mouth and half in piece.part:
                    found.append((dart.name, gone))
    return next((pair for pair in found if pair[0].endswith("waist_dart")), None)


def word(finding: Finding) -> str:
    """Return the finding in words."""
    dart = readable(finding.where[0])
    if finding.aspect in ODD:
        return ODD[finding.aspect].format(dart=dart, amount=abs(finding.amount))
    if finding.aspect == "intake":
        return f"The {dart} takes in {finding.amount:.1f} cm: it pokes out, better split"
    if finding.aspect == "short":
        return f"The {dart} is only {finding.amount:.1f} cm long"
    if finding.verdict is Verdict.PASSES:
        return f"The {dart} has equal legs"
    return f"The legs of the {dart} differ by {abs(finding.amount):.2f} cm"


CHECK = Check(
    key="darts_true",
    claim="Darts have equal legs, a fair length and an intake that cloth takes in one place",
    params=Params,
    find=find,
    word=word,
    mend="Aim the dart again, or share its intake with another one.",
)
