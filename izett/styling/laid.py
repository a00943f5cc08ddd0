"""An edge over several panels drawn as one line: the panels are laid together at their seams, as sewn, on one paper.

By hand the panels are pinned together at the top of their seams, the neckline or the armhole is drawn over all of them in
one curve, and each is cut along its stretch; both sides of a seam are cut at the same height. Common practice, no single
source.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

from izett.errors import StepRefused
from izett.geometry.curve import Curve, joined
from izett.geometry.motion import STILL, Motion
from izett.geometry.outline import along_line, crossing_of
from izett.geometry.point import Point, Vector, add, distance, negated, scale, subtract, turn
from izett.pattern.facts import Role
from izett.pattern.paper import shortened
from izett.pattern.piece import Piece
from izett.pattern.working import Readable
from izett.styling.rims import RimPart, rim_of
from izett.styling.uprights import Upright, upright_from
from izett.wording import named

#: cm. A seam is sought so far above the panels: an edge may be filled out.
ABOVE = 12.0


def run_in_zone(pattern: Readable, piece: Piece, role: Role) -> tuple[RimPart, ...]:
    """Return what the front, or the back, has of an edge that a piece has a part in: over all its panels, in one order."""
    rim = rim_of(pattern, piece, role)
    inside = [pattern.piece(part.piece).zone is piece.zone for part in rim]
    if all(inside):
        return rim
    # A closed round may begin within the zone: it is walked from where the zone begins.
    first = next(i for i in range(len(rim)) if inside[i] and not inside[i - 1])
    turned = [*rim[first:], *rim[:first]]
    count = next(i for i, part in enumerate([*turned, turned[0]]) if pattern.piece(part.piece).zone is not piece.zone)
    return tuple(turned[:count])


def turned_round(parts: Sequence[RimPart]) -> tuple[RimPart, ...]:
    """Return the parts of an edge walked the other way."""
    return tuple(replace(part, edges=part.edges[::-1], forward=not part.forward) for part in reversed(parts))


@dataclass(frozen=True, slots=True)
class Laid:
    """The panels of an edge laid together.

    Attributes:
        parts: what each has of the edge, in the order in which they are walked.
        pieces: the panels.
        motions: each panel's move from its own paper to the one on which all lie.
    """

    parts: tuple[RimPart, ...]
    pieces: tuple[Piece, ...]
    motions: tuple[Motion, ...]

    @property
    def line(self) -> Curve:
        """The edge as it is, in the order in which it is walked."""
        return joined(
            [
                cubic
                for part, motion in zip(self.parts, self.motions, strict=True)
                for edge in part.edges
                for cubic in (edge.curve if part.forward else edge.curve.reversed()).mapped(motion).cubics()
            ]
        )

    def with_piece(self, number: int, piece: Piece) -> "Laid":
        """Return the same with another state of a panel."""
        pieces = tuple(piece if i == number else old for i, old in enumerate(self.pieces))
        return replace(self, pieces=pieces)

    def drawn(self, line: Curve) -> tuple[Piece, ...]:
        """Return the panels cut along a line over all of them: from the edge's first corner, where it is now, to its last.

        Raises:
            StepRefused: the line does not cross a seam between two of them.
        """
        points = line.flattened()
        pieces, cuts = list(self.pieces), [0.0]
        for i, (part, after) in enumerate(pairwise(self.parts)):
            seam = self._seam(i, part.end)
            deep, along = _crossing(points, [self.motions[i](spot) for spot in _drawn_on(seam)], seam.lineage)
            # Both sides of the seam are cut at the same height.
            pieces[i] = shortened(pieces[i], part.end, seam.lineage, deep)
            pieces[i + 1] = shortened(pieces[i + 1], after.start, self._seam(i + 1, after.start).lineage, deep)
            cuts.append(along)
        cuts.append(line.length)
        return tuple(
            _with_edge(piece, part, _stretch(line, low, high).mapped(motion.inverse()))
            for piece, part, motion, (low, high) in zip(pieces, self.parts, self.motions, pairwise(cuts), strict=True)
        )

    def _seam(self, number: int, corner: str) -> Upright:
        return _seam_at(self.pieces[number], self.parts[number], corner)


def laid_together(pattern: Readable, parts: tuple[RimPart, ...], *, still: int) -> Laid:
    """Return the panels of an edge laid to each other; the paper of one of them, by its number, lies still.

    Raises:
        StepRefused: a panel has a corner or a dart in its stretch, or no seam where it ends.
    """
    pieces = tuple(pattern.piece(part.piece) for part in parts)
    for piece, part in zip(pieces, parts, strict=True):
        if len(part.edges) > 1:
            raise StepRefused(
                f"{piece.title}: a dart or a corner parts {named(part.edges[0].lineage)}.",
                fix="Draw the line before that step.",
                where=(part.edges[0].lineage,),
            )
    motions = [STILL] * len(parts)
    for i in range(still + 1, len(parts)):
        motions[i] = _beside(pieces, parts, i, i - 1, motions[i - 1])
    for i in range(still - 1, -1, -1):
        motions[i] = _beside(pieces, parts, i, i + 1, motions[i + 1])
    return Laid(parts, pieces, tuple(motions))


def _beside(pieces: Sequence[Piece], parts: Sequence[RimPart], number: int, other: int, motion: Motion) -> Motion:
    """Return the move that lays a panel to its neighbour: corner on corner, seam along seam."""
    own, there = (parts[number].start, parts[other].end) if other < number else (parts[number].end, parts[other].start)
    mine, its = (_seam_at(pieces[i], parts[i], corner) for i, corner in ((number, own), (other, there)))
    spot = pieces[number].vertex(own)
    turned = Motion.turning(turn(_leaving(mine), motion.direction(_leaving(its))), about=spot)
    return turned.then(Motion.sliding(subtract(motion(pieces[other].vertex(there)), spot)))


def _seam_at(piece: Piece, part: RimPart, corner: str) -> Upright:
    up = upright_from(piece, corner, frozenset(edge.lineage for edge in part.edges))
    if up is None:
        raise StepRefused(
            f"{piece.title}: {named(part.edges[0].lineage)} ends in a dart.",
            fix="Draw the line before that step.",
            where=(part.edges[0].lineage,),
        )
    return up


def _leaving(seam: Upright) -> Vector:
    return seam.curve(seam.edges[0]).start_direction


def _drawn_on(seam: Upright) -> list[Point]:
    """Return a seam as points from its corner on, run on straight beyond it."""
    points = [point for edge in seam.edges for point in seam.curve(edge).flattened()]
    return [add(points[0], scale(negated(_leaving(seam)), ABOVE)), *points]


def _crossing(line: Sequence[Point], seam: Sequence[Point], lineage: str) -> tuple[float, float]:
    """Return how far (cm) down a seam a line crosses it, and how far along the line that is."""
    spot = crossing_of(line, seam)
    if spot is None:
        raise StepRefused(
            f"The line does not cross {named(lineage)}.",
            fix="Choose smaller amounts, or draw the line before the panels are parted.",
            where=(lineage,),
        )
    return along_line(seam, spot) - ABOVE, along_line(line, spot)


def _stretch(line: Curve, low: float, high: float) -> Curve:
    upper = line.split(high)[0] if high < line.length else line
    return upper.split(low)[1] if low > 0 else upper


def _with_edge(piece: Piece, part: RimPart, line: Curve) -> Piece:
    """Return a panel with its stretch of the edge drawn, from corner to corner as they lie now."""
    edge = next(each for each in piece.edges if each.start == part.edges[0].start)
    curve = line if part.forward else line.reversed()
    ends = (_corner(piece, edge.lineage, edge.start), _corner(piece, edge.lineage, edge.end))
    drawn = replace(edge, curve=_between(curve, ends[0], ends[1]))
    return replace(piece, edges=tuple(drawn if each is edge else each for each in piece.edges))


def _between(curve: Curve, start: Point, end: Point) -> Curve:
    """Return a line turned and stretched as a whole to two new ends: so a short stretch gets no hook."""
    old, new = subtract(curve.end, curve.start), subtract(end, start)
    angle, factor = turn(old, new), distance(start, end) / distance(curve.start, curve.end)
    turned = Motion.turning(angle, about=(0.0, 0.0))
    return curve.mapped(lambda spot: add(start, scale(turned(subtract(spot, curve.start)), factor)))


def _corner(piece: Piece, lineage: str, corner: str) -> Point:
    """Return where a corner lies on the line beside an edge: that was cut, the edge itself is still to be drawn."""
    beside = next(e for e in piece.edges if e.lineage != lineage and corner in (e.start, e.end))
    return beside.curve.start if beside.start == corner else beside.curve.end
