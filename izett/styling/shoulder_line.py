"""The shoulder seam of a block: its line, its seam, and what is eased into it."""

from dataclasses import replace

from izett.errors import StepRefused
from izett.geometry.point import Point, add, scale
from izett.pattern.document import Seam
from izett.pattern.facts import Corner, Role, SeamKind, Zone
from izett.pattern.piece import Span
from izett.pattern.sewn import span_length, walk
from izett.pattern.working import Readable
from izett.styling.blocks import line_of
from izett.wording import cm

#: cm. Of shoulder ease, this much can be eased in over a shoulder blade.
MOST_EASE = 1.2
#: cm. What the last digit of a number says of an ease.
HAIR = 1e-9


def shoulder_of(garment: Readable, zone: Zone) -> Span:
    """Return the shoulder line of a zone, from the neck to the tip.

    Raises:
        ReferenceLost: the garment does not have it (any more).
    """
    return line_of(garment, zone, Role.SHOULDER, (Corner.NECK_SHOULDER, Corner.SHOULDER_TIP))


def shoulder_seam(garment: Readable, line: Span) -> Seam:
    """Return the shoulder seam that a line is sewn in.

    Raises:
        StepRefused: there is none.
    """
    for seam in garment.seams_along(line.along):
        if seam.kind is SeamKind.SHOULDER:
            return seam
    raise StepRefused("The pattern has no shoulder seam.", fix="Take the surplus off the tip.", where=(line.along,))


def room_for_ease(seam: Seam, line: Span) -> float:
    """Return by how much (cm) one of the lines of a shoulder seam can grow and still be sewn to the other."""
    high = seam.ease[1]
    return max(MOST_EASE - high if _is_longer(seam, line) else high, 0.0)


def _is_longer(seam: Seam, line: Span) -> bool:
    """Return whether a line is the one that is eased in: a seam's ease is its second side less its first."""
    return any(span.along == line.along for span in seam.sides[1])


def eased(seam: Seam, line: Span, amount: float) -> Seam:
    """Return a shoulder seam with more ease (cm) on one of its lines.

    Raises:
        StepRefused: more than can be eased in, or less than nothing.
    """
    more = amount if _is_longer(seam, line) else -amount
    low, high = seam.ease[0] + more, seam.ease[1] + more
    if high < -HAIR:
        raise StepRefused(
            f"The back shoulder would be {cm(-high, 2)} shorter than the front.",
            fix="Keep the shoulder's length at the tip, or take less.",
            where=(seam.name,),
        )
    if high > MOST_EASE + HAIR:
        raise StepRefused(
            f"The back shoulder would be {cm(high)} longer than the front: at most {cm(MOST_EASE, 2)} can be eased in.",
            fix="Take the surplus off the tip, or add less.",
            where=(seam.name,),
        )
    return replace(seam, ease=(low, high))


def tip_along(garment: Readable, line: Span, by: float) -> Point:
    """Return where the tip of a shoulder lies, run on along its line by so much (cm; −: back)."""
    piece = garment.find(line.end)
    assert piece is not None
    outer = walk(piece, line)[-1].open_curve
    return add(outer.end, scale(outer.end_direction, by))


def shoulder_long(garment: Readable, line: Span) -> float:
    """Return how long (cm) a shoulder line is, its darts shut."""
    piece = garment.find(line.start)
    assert piece is not None
    return span_length(piece, line)
