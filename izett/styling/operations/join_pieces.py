"""Join two pieces along a seam: close it, lay the papers together, and draw the lines that ran across it as one.

The piece sewn on is laid rigidly to the other, both ends of the seam as near as they come. Darts that meet in the seam
become one dart within the piece. What the shapes do not share is told: where they part, cloth is added or taken.
Common practice, no single source.
"""

from collections.abc import Iterator
from dataclasses import replace
from types import MappingProxyType

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.curve import Curve
from izett.geometry.motion import Motion
from izett.geometry.outline import farthest_apart
from izett.geometry.point import Point, between, cross, distance, subtract, turn, unit
from izett.pattern.copies import flipped, moved
from izett.pattern.document import Seam
from izett.pattern.facts import CENTRES, SeamKind
from izett.pattern.naming import readable
from izett.pattern.paper import between_gates
from izett.pattern.piece import Diamond, Edge, Intake, Piece, Span
from izett.pattern.redraw import redrawn
from izett.pattern.sewn import walk
from izett.pattern.working import Readable, Working
from izett.styling.operation import Context, Group, Keeps, Offer, Operation, Outcome, Sum
from izett.styling.parting import seam_named
from izett.styling.references import LineRef, Params, SeamRef
from izett.styling.subject import Kind, Subject, seam_at
from izett.styling.words import line_words
from izett.wording import cm

#: cm. Pieces that part by more than this along the seam are not one piece of paper.
MOST_APART = 3.0
#: cm. Darts whose mouths differ by more, or lie further apart, do not meet.
DARTS_MEET = 0.6
#: cm. Two folds that leave one line by more are two folds.
IN_LINE = 0.1

#: Seams that can be closed to one piece: an armhole goes around, and a waist has its own ways.
CLOSES = (SeamKind.PANEL, SeamKind.SIDE, SeamKind.SHOULDER, SeamKind.UNDERARM, SeamKind.INSEAM)


class JoinPieces(Params):
    """Which seam is closed."""

    seam: SeamRef = Field(description="the seam's name")
    part: LineRef = Field(LineRef(""), description="of a seam over several pieces: the line that is closed")


def apply(params: JoinPieces, context: Context) -> Outcome:
    """Lay the second piece to the first and drop the seam between them."""
    seam = seam_named(context, params.seam)
    one, two = _pair(seam, params.part)
    first, second = context.piece_with(one.start), context.piece_with(two.start)
    if first is second:
        raise StepRefused(
            f"The {readable(seam.name)} seam joins a piece to itself.",
            fix="Choose another seam.",
            where=(seam.name,),
        )
    if _holds_centre(second) and not _holds_centre(first):
        first, second, one, two = second, first, two, one
    kept, gone = first, second
    if walk(first, one)[0].forward == walk(second, two)[0].forward:
        # Two halves drawn the same way round: one is turned over before they are laid edge to edge.
        second = flipped(second, (second.grain[0], second.grain[1]))
    mine, theirs = _line(first, one), _line(second, two)
    motion = _laid(mine, theirs)
    laid = moved(second, motion)
    apart = farthest_apart([_points(mine)], [[motion(p) for p in _points(theirs)]])
    if apart > MOST_APART:
        raise StepRefused(
            f"Laid together, the edges of the {readable(seam.name)} seam part by {cm(apart)}.",
            fix="Change their shapes until they agree; then join.",
            where=(seam.name,),
        )
    diamonds = _met(first, one, laid, two)
    joined = _one_piece(first, one, laid, two, diamonds)
    pattern = _without(context.garment, seam, one, two).with_parts(gone).with_parts(kept, joined)
    ends = {*_corners(one), *_corners(two)}
    pattern = pattern.with_links({name: None for name in ends if pattern.link(name) in ends})
    sums = (Sum("the edges part by at most", apart), Sum("length of the closed seam", _length(mine)))
    return Outcome(pattern, sums, (joined.name, *(d.name for d in diamonds)))


def _pair(seam: Seam, part: str) -> tuple[Span, Span]:
    a, b = seam.sides
    if len(a) == 1 and len(b) == 1:
        return a[0], b[0]
    if len(a) == len(b):
        for one, two in zip(a, b, strict=True):
            if part in (one.along, two.along):
                return one, two
    raise StepRefused(
        f"The {readable(seam.name)} seam runs over several pieces.",
        fix=f"Say which line of it is closed: {', '.join(span.along for span in a)}.",
        where=(seam.name,),
    )


def _line(piece: Piece, span: Span) -> list[Curve]:
    return [stretch.open_curve for stretch in walk(piece, span)]


def _points(line: list[Curve]) -> list[Point]:
    return [point for curve in line for point in curve.flattened()]


def _length(line: list[Curve]) -> float:
    return sum(curve.length for curve in line)


def _holds_centre(piece: Piece) -> bool:
    return any(edge.role in CENTRES for edge in piece.edges)


def _laid(mine: list[Curve], theirs: list[Curve]) -> Motion:
    """Return the move that lays their line on mine: the same direction, the middles of both chords together."""
    a, b = mine[0].start, mine[-1].end
    c, d = theirs[0].start, theirs[-1].end
    turned = Motion.turning(turn(subtract(d, c), subtract(b, a)), about=c)
    return turned.then(Motion.sliding(subtract(between(a, b, 0.5), between(turned(c), turned(d), 0.5))))


def _corners(span: Span) -> tuple[str, str]:
    return span.start, span.end


def _darts_on(piece: Piece, span: Span) -> list[Intake]:
    passed = {edge.start for edge in (s.edge for s in walk(piece, span))} | {s.edge.end for s in walk(piece, span)}
    return [dart for dart in piece.darts if set(dart.mouth) <= passed]


def _met(first: Piece, one: Span, laid: Piece, two: Span) -> list[Diamond]:
    """Return the darts within the joined piece that darts on the two edges make."""
    upper, lower = _darts_on(first, one), _darts_on(laid, two)
    if len(upper) != len(lower):
        raise StepRefused(
            f"{len(upper)} darts open on {line_words(one.along)}, {len(lower)} on {line_words(two.along)}.",
            fix="Turn those without a partner into something else, or merge them first.",
            where=(one.along, two.along),
        )

    def middle(piece: Piece, dart: Intake) -> Point:
        return between(piece.vertex(dart.mouth[0]), piece.vertex(dart.mouth[1]), 0.5)

    found: list[Diamond] = []
    for dart in upper:
        partner = min(lower, key=lambda other: distance(middle(laid, other), middle(first, dart)))
        a, b = (first.vertex(name) for name in dart.mouth)
        c, d = (laid.vertex(name) for name in partner.mouth)
        if max(distance(a, d), distance(b, c)) > DARTS_MEET:
            raise StepRefused(
                f"{line_words(dart.name, begins=True)} and {line_words(partner.name)} do not meet.",
                fix="Line them up and make them equally wide before joining.",
                where=(dart.name, partner.name),
            )
        left, right = sorted((between(a, d, 0.5), between(b, c, 0.5)))
        tips = sorted((first.vertex(dart.tip), laid.vertex(partner.tip)), key=lambda p: p[1])
        found.append(Diamond(dart.name, dart.family, tips[1], tips[0], left, right))
    return found


def _one_piece(first: Piece, one: Span, laid: Piece, two: Span, diamonds: list[Diamond]) -> Piece:
    start, end = _ring_ends(first, one)
    other_start, other_end = _ring_ends(laid, two)
    # In ring order the two edges run against each other: where one starts, the other ends.
    names = {other_start: end, other_end: start}
    spots = {other_start: first.vertex(end), other_end: first.vertex(start)}
    dropped = {dart.name for dart in (*_darts_on(first, one), *_darts_on(laid, two))}
    laid = redrawn(laid, moves=spots)
    kept = between_gates(first.edges, end, start)
    added = [
        replace(e, start=names.get(e.start, e.start), end=names.get(e.end, e.end))
        for e in between_gates(laid.edges, other_end, other_start)
    ]
    aliases = {**first.aliases, **laid.aliases, other_start: end, other_end: start}
    folded = first.on_fold if first.on_fold and any(e.lineage == first.on_fold for e in kept) else None
    ring = [*kept, *added]
    return replace(
        first,
        on_fold=folded,
        edges=tuple(_with_one_fold(ring, folded, laid.on_fold)),
        darts=tuple(d for d in (*first.darts, *laid.darts) if d.name not in dropped),
        diamonds=(*first.diamonds, *laid.diamonds, *diamonds),
        marks=MappingProxyType({**laid.marks, **first.marks}),
        lines=(*first.lines, *laid.lines),
        notches=tuple(n for n in (*first.notches, *laid.notches) if n.span not in (one, two)),
        aliases=MappingProxyType(aliases),
        corners=MappingProxyType({**laid.corners, **first.corners}),
    )


def _with_one_fold(ring: list[Edge], fold: str | None, other: str | None) -> list[Edge]:
    """Return the ring with a fold of the piece laid on called as that of the first: they are one fold now.

    Raises:
        StepRefused: the two folds do not lie in one line.
    """
    if fold is None or other is None:
        return ring
    one = next(e for e in ring if e.lineage == fold)
    along = unit(subtract(one.curve.end, one.curve.start))
    for edge in ring:
        if edge.lineage == other and any(
            abs(cross(along, subtract(p, one.curve.start))) > IN_LINE for p in edge.curve.points
        ):
            raise StepRefused(
                "Both pieces lie on a fold, and joined their folds would not be one line.",
                fix="Unfold one of them first.",
                where=(fold, other),
            )
    return [replace(e, lineage=fold) if e.lineage == other else e for e in ring]


def _ring_ends(piece: Piece, span: Span) -> tuple[str, str]:
    """Return the corners at which a span's edges begin and end in ring order."""
    stretches = walk(piece, span)
    names = tuple(piece.aliases.get(name, name) for name in _corners(span))
    return (names[0], names[1]) if stretches[0].forward else (names[1], names[0])


def _without(pattern: Working, seam: Seam, one: Span, two: Span) -> Working:
    """Return the pattern without the closed part of a seam; the rest is still sewn."""
    gone = {one, two}
    first, second = (tuple(span for span in side if span not in gone) for side in seam.sides)
    if not first and not second:
        return pattern.without_seam(seam)
    return pattern.with_seam(replace(seam, sides=(first, second)))


def describe(params: JoinPieces) -> str:
    """Return the step in the maker's words."""
    along = f" along {line_words(params.part)}" if params.part else ""
    return f"Close the {readable(params.seam)} seam{along}: one piece"


def offers(subject: Subject, pattern: Readable) -> Iterator[Offer]:
    """Offer to close the seam that the line is sewn in."""
    if subject.kind is Kind.LINE and subject.piece is not None:
        seam = seam_at(pattern, subject.piece, subject.name)
        if seam is not None and seam.kind in CLOSES and len(seam.sides[0]) == len(seam.sides[1]):
            part = subject.name if len(seam.sides[0]) > 1 else ""
            yield Offer("Close this seam: join the two pieces", {"seam": seam.name, "part": part})


OPERATION = Operation(
    key="join_pieces",
    title="Join pieces along a seam",
    params=JoinPieces,
    apply=apply,
    describe=describe,
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.LINES,
    offers=offers,
    examples=({"seam": "shoulder"},),
)
