"""Match notches: walk a seam and mark on the second side where the first side's notches come to lie.

Each notch is put at the same distance as sewn; where the second side has ease, the distance beyond the ease's place is
carried on from the other end. Common practice, no single source.
"""

from collections.abc import Iterator
from dataclasses import replace

from pydantic import Field

from izett.pattern.document import Seam
from izett.pattern.naming import readable
from izett.pattern.piece import Notch
from izett.pattern.sewn import holding, seam_lengths, span_length
from izett.pattern.working import Readable, Working
from izett.styling.operation import Context, Group, Keeps, Offer, Operation, Outcome, Section, Sum
from izett.styling.parting import seam_named
from izett.styling.references import Params, SeamRef
from izett.styling.subject import Kind, Subject, seam_at


class MatchNotches(Params):
    """Which seam."""

    seam: SeamRef = Field(description="the seam's name")


def apply(params: MatchNotches, context: Context) -> Outcome:
    """Put the first side's notches on the second side."""
    seam = seam_named(context, params.seam)
    pattern = _without(context.garment, seam)
    lengths = seam_lengths(pattern, seam)
    placed = places(pattern, seam, 0)
    for distance, notch in placed:
        # From the nearer end, so that ease lies between the notches; a second side that begins before the first, as of a
        # sleeve that was turned, has them so much nearer to its start.
        along = distance if distance <= lengths[0] / 2 else lengths[1] - (lengths[0] - distance)
        along = max(along - seam.offset, 0.0)
        for span in seam.sides[1]:
            piece = holding(pattern, span.start)
            long = span_length(piece, span)
            if along <= long + 1e-9:
                new = Notch(span, min(along, long), notch.kind)
                pattern = pattern.with_pieces(replace(piece, notches=(*piece.notches, new)))
                break
            along -= long
    return Outcome(pattern, (Sum("notches", float(len(placed)), ""),))


def places(pattern: Working, seam: Seam, side: int) -> list[tuple[float, Notch]]:
    """Return a side's notches with their distance (cm) from the seam's start, as sewn."""
    found: list[tuple[float, Notch]] = []
    gone = 0.0
    for span in seam.sides[side]:
        piece = holding(pattern, span.start)
        long = span_length(piece, span)
        for notch in piece.notches:
            if notch.span == span:
                found.append((gone + notch.distance, notch))
            elif (notch.span.start, notch.span.end, notch.span.along) == (span.end, span.start, span.along):
                found.append((gone + long - notch.distance, notch))
        gone += long
    return sorted(found, key=lambda pair: pair[0])


def _without(pattern: Working, seam: Seam) -> Working:
    """Return the pattern without the notches of a seam's second side."""
    for span in seam.sides[1]:
        piece = holding(pattern, span.start)
        kept = tuple(
            n
            for n in piece.notches
            if n.span.along != span.along or {n.span.start, n.span.end} != {span.start, span.end}
        )
        pattern = pattern.with_pieces(replace(piece, notches=kept))
    return pattern


def describe(params: MatchNotches) -> str:
    """Return the step in the maker's words."""
    return f"Walk the {readable(params.seam)} seam and carry its notches over"


def offers(subject: Subject, pattern: Readable) -> Iterator[Offer]:
    """Offer to carry notches over where the first side has some."""
    if subject.kind is Kind.LINE and subject.piece is not None:
        seam = seam_at(pattern, subject.piece, subject.name)
        if seam is not None:
            yield Offer("Walk it and carry the notches over", {"seam": seam.name})


OPERATION = Operation(
    key="match_notches",
    title="Carry notches over",
    params=MatchNotches,
    apply=apply,
    describe=describe,
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.AGREE,
    offers=offers,
    sections=(Section.FOLLOW,),
    blocks=("bodice", "sleeve"),
    examples=({"seam": "cap"},),
)
