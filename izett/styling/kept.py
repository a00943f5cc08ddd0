"""What a step must not change, read after it: the paper, and seams that agreed.

A step that only turns or cuts paper keeps all of it; a step that works on one edge leaves its seams as equal as they
were. Both are read after every step that says so, and what is off is told beside it: it would be found much later
otherwise, on cloth. Common practice (recheck after every change), no single source.
"""

from dataclasses import dataclass

from izett.errors import ReferenceLost
from izett.geometry.outline import signed_area
from izett.pattern.document import Seam
from izett.pattern.facts import SeamKind
from izett.pattern.naming import readable
from izett.pattern.piece import Piece
from izett.pattern.sewn import seam_lengths
from izett.pattern.working import Working
from izett.styling.operation import Keeps, Sum

#: cm. A seam may change by what sewing eases in; common practice.
SEAM_OFF = 0.15
#: cm². Trueing the line across a closed dart moves so much paper at most: a pencil line along a waist.
PAPER_OFF = 2.5


@dataclass(frozen=True, slots=True)
class Lost:
    """Something that a step changed and must not: a line of its arithmetic, and the kind of the seam, if it is one."""

    told: Sum
    seam: SeamKind | None = None


def lost(keeps: frozenset[Keeps], before: Working, after: Working) -> tuple[Lost, ...]:
    """Return what a step changed that it must not; nothing where all is kept."""
    found: list[Lost] = []
    was, now = after.since(before)
    if not now or not keeps:
        return ()
    if Keeps.PAPER in keeps:
        off = sum(paper(piece) for piece in now) - sum(paper(piece) for piece in was)
        if abs(off) > PAPER_OFF:
            found.append(Lost(Sum("check this: paper gained or lost", off, "cm²")))
    if Keeps.SEAMS in keeps:
        # A line none of whose edges was drawn anew is as long as it was.
        same = {id(edge) for piece in was for edge in piece.edges} & {id(edge) for piece in now for edge in piece.edges}
        edges = (edge for piece in (*was, *now) for edge in piece.edges if not edge.is_leg and id(edge) not in same)
        lines = dict.fromkeys(edge.lineage for edge in edges)
        for seam in {seam.name: seam for line in lines for seam in after.seams_along(line)}.values():
            old = before.find_seam(seam.name)
            if old is not None and abs(off := _uneven(after, seam) - _uneven(before, old)) > SEAM_OFF:
                found.append(Lost(Sum(f"check this: the {readable(seam.name)} seam has changed by", off), seam.kind))
    return tuple(found)


def paper(piece: Piece) -> float:
    """Return the area of a piece in cm², without what its darts take out as far as their pivots."""
    points = []
    for edge in piece.edges:
        if not edge.is_leg:
            points += edge.curve.flattened()[:-1]
        elif edge.end == piece.dart(edge.lineage).tip:
            # The first leg: from the mouth to the pivot, about which the paper turns.
            points += [edge.curve.start, piece.dart(edge.lineage).pivot]
    return signed_area(points)


def _uneven(pattern: Working, seam: Seam) -> float:
    """Return how much the second side is longer, cm, less what is meant; 0 where a side has lost its end."""
    try:
        first, second = seam_lengths(pattern, seam)
    except ReferenceLost:
        return 0.0
    return second - first - seam.ease[0]
