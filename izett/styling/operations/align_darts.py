"""Align darts: those above and below a seam meet in it, and stay together when either moves.

Worked after all that shapes the pieces: the lower dart slides along the seam until it lies where the upper one does,
measured from the centre as sewn. Common practice, no single source.
"""

from collections.abc import Iterator
from dataclasses import replace

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.point import add, scale, subtract, unit
from izett.pattern.piece import Intake, Piece
from izett.pattern.redraw import redrawn
from izett.pattern.sewn import holding, walk
from izett.pattern.working import Readable, Working
from izett.styling.operation import Context, Group, Keeps, Offer, Operation, Outcome, Section, Sum
from izett.styling.references import DartRef, Params
from izett.styling.subject import Subject
from izett.styling.words import dart_words

#: cm. Slid closer than this they meet.
MET = 1e-4
#: Sliding along a curved line is done so often at most: each time it comes about ten times nearer.
MOST_SLIDES = 8


class AlignDarts(Params):
    """The dart that follows, and the one that it follows."""

    dart: DartRef = Field(description="the dart that is moved")
    to: DartRef = Field(description="the dart on the other side of the seam")


def apply(params: AlignDarts, context: Context) -> Outcome:
    """Slide the dart along its line until it meets the other."""
    piece, (dart, *_) = context.darts(params.dart)
    fixed_piece, (fixed, *_) = context.darts(params.to)
    aim, first = _from_seam_start(context.garment, fixed_piece, fixed), _from_seam_start(context.garment, piece, dart)
    pattern, still = context.garment, piece
    by, off = 0.0, aim - first
    last_by, last_off = 0.0, 0.0
    for _ in range(MOST_SLIDES):
        if abs(off) <= MET:
            break
        # As far again as the last slide showed is needed: at first, as far as it is off.
        slope = (off - last_off) / (by - last_by) if by != last_by else -1.0
        last_by, last_off = by, off
        by -= off / slope if slope else -off
        piece = _slid(still, dart, by)
        pattern = pattern.with_pieces(piece)
        off = aim - _from_seam_start(pattern, piece, piece.dart(dart.name))
    return Outcome(pattern, (Sum("along the seam before", first), Sum("along the seam now", aim)))


def _from_seam_start(pattern: Working, piece: Piece, dart: Intake) -> float:
    """Return how far, as sewn, a dart lies from where its seam starts."""
    lineage = next(e.lineage for e in piece.edges if e.end == dart.mouth[0])
    for seam in pattern.seams_along(lineage):
        for side in seam.sides:
            gone = 0.0
            for span in side:
                on = holding(pattern, span.start)
                for stretch in walk(on, span):
                    gone += stretch.edge.curve.length
                    far = stretch.edge.end if stretch.forward else stretch.edge.start
                    if on is piece and span.along == lineage and far in dart.mouth:
                        return gone
    raise StepRefused(
        f"{dart_words(dart.name, begins=True)} does not open on a seam.",
        fix="Choose darts that meet in a seam, such as bodice and skirt at the waist.",
        where=(dart.name,),
    )


def _slid(piece: Piece, dart: Intake, by: float) -> Piece:
    a, b = (piece.vertex(name) for name in dart.mouth)
    outwards = unit(subtract(b, a)) if b[0] > a[0] else unit(subtract(a, b))
    shift = scale(outwards, by)
    moves = {name: add(piece.vertex(name), shift) for name in dart.mouth}
    slid = replace(dart, pivot=add(dart.pivot, shift))
    return redrawn(piece, moves=moves, darts=[slid if d is dart else d for d in piece.darts])


def describe(params: AlignDarts) -> str:
    """Return the step in the maker's words."""
    return f"Keep {dart_words(params.dart)} in line with {dart_words(params.to)}"


def offers(subject: Subject, pattern: Readable) -> Iterator[Offer]:
    """Offer the first dart of the same kind on the other side of the seam."""
    dart, piece = subject.dart, subject.piece
    if dart is None or piece is None:
        return
    for other in pattern.in_zone(piece.zone):
        if other is not piece:
            for fixed in other.darts:
                if fixed.family == dart.family:
                    yield Offer(f"Keep in line with {dart_words(fixed.name)}", {"dart": dart.name, "to": fixed.name})


OPERATION = Operation(
    key="align_darts",
    title="Keep darts in line",
    params=AlignDarts,
    apply=apply,
    describe=describe,
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.DARTS,
    offers=offers,
    sections=(Section.FOLLOW,),
    blocks=("bodice", "skirt"),
    examples=({"dart": "skirt_back.waist_dart", "to": "back.waist_dart"},),
)
