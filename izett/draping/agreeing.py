"""Panels laid together: partners of a seam made equally long, and what runs across the seam drawn on smoothly.

Two marked lines of one seam differ by what pencil and tape were off. The difference is shared: each line is drawn out or
held back at its ends by half of it, over and under the level guide by itself, so that the guides still meet. A larger
difference is none of marking: it is left for the maker, who eases it in or looks at the marks again. Then waist, hem and
upper edge are drawn on across the seam without a corner. Common practice, no single source.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from math import inf, pi, sin

from izett.draping.seams import Proposed, sewn
from izett.geometry.curve import Curve, joined
from izett.geometry.motion import Motion
from izett.geometry.outline import along_line, crossing_of
from izett.geometry.point import add, between, distance, scale, turn
from izett.pattern.document import Intent, Pattern, Seam
from izett.pattern.facts import Role
from izett.pattern.piece import Edge, Piece, Span, in_ring_order
from izett.pattern.redraw import redrawn
from izett.pattern.sewn import seam_lengths

#: cm. What marking may be off on both sides of a seam together; a larger difference is left to the maker.
OF_MARKING = 0.6
#: cm. Partners agree, and so often they are drawn anew at most.
AGREED, MOST_ROUNDS = 1e-9, 40
#: Radians. A line that runs across a seam with a larger corner is meant to have it.
MEANT_CORNER = 0.8
#: cm. Where its end is turned, the line leaves its dots by no more than about this, and no further from the seam than that.
ASIDE, TURNED_WITHIN = 0.15, 2.5
#: Lines that run on across a seam.
ACROSS = (Role.NECK, Role.WAIST, Role.HEM, Role.ARMHOLE, Role.CAP)
#: cm. Beyond any panel.
FAR = 2000.0


@dataclass(frozen=True, slots=True)
class Agreed:
    """A seam of given pieces.

    Attributes:
        seam: the seam.
        of: what was said of it, or proposed.
        before: how long its two sides were as marked, cm.
        trued: whether they were made to agree.
    """

    seam: Seam
    of: Proposed
    before: tuple[float, float]
    trued: bool

    @property
    def differs(self) -> float:
        """How much longer the second side was than meant, as marked, cm."""
        return self.before[1] - self.before[0] - self.of.said.ease


def laid_together(
    pieces: Sequence[Piece], seams: Sequence[Proposed], guides: Mapping[str, float]
) -> tuple[list[Piece], list[Agreed]]:
    """Return pieces whose seams agree, and the seams.

    Args:
        pieces: as trued one by one.
        seams: which lines are sewn together.
        guides: how high the level guide of each piece lies in its frame, cm, by the piece's name.
    """
    by_name = {piece.name: piece for piece in pieces}
    found: list[Agreed] = []
    for one in seams:
        seam = sewn(one.said, by_name)
        before = seam_lengths(_pattern(by_name), seam)
        differs = abs(before[1] - before[0] - one.said.ease)
        found.append(Agreed(seam, one, before, differs <= OF_MARKING))
    by_name = _agreeing(by_name, [agreed.seam for agreed in found if agreed.trued], guides)
    for agreed in found:
        by_name = _run_across(by_name, agreed.seam)
    by_name = _agreeing(by_name, [agreed.seam for agreed in found if agreed.trued], guides)
    return [by_name[piece.name] for piece in pieces], found


def _pattern(pieces: Mapping[str, Piece]) -> Pattern:
    return Pattern(tuple(pieces.values()), (), Intent())


def _agreeing(pieces: Mapping[str, Piece], seams: Sequence[Seam], guides: Mapping[str, float]) -> dict[str, Piece]:
    """Return the pieces with the partners of seams equally long: each drawn out or held back at its ends by its share."""
    found = dict(pieces)
    for _ in range(MOST_ROUNDS):
        most = 0.0
        for seam in seams:
            sides = [_Side.of(found, side[0], guides) for side in seam.sides]
            first, second = sides
            ease = seam.ease[0]
            apart = second.length - first.length - ease
            most = max(most, abs(apart))
            if abs(apart) <= AGREED:
                continue
            if first.over is not None and second.over is not None:
                over = second.over - first.over - ease / 2
                shares = (over, apart - over)
            else:
                shares = (apart / 2, apart / 2)
            for side, sign in ((first, 1.0), (second, -1.0)):
                piece = found[side.piece.name]
                found[piece.name] = _drawn_out(piece, side.span, [sign * share / 2 for share in shares])
        if most <= AGREED:
            break
    return found


@dataclass(frozen=True, slots=True)
class _Side:
    """A side of a seam: its piece and span, how long it is, and how much of that lies before the level guide."""

    piece: Piece
    span: Span
    length: float
    over: float | None

    @classmethod
    def of(cls, pieces: Mapping[str, Piece], span: Span, guides: Mapping[str, float]) -> "_Side":
        piece = next(piece for piece in pieces.values() if piece.holds(span.start))
        run = in_ring_order(edge for edge in piece.edges if edge.lineage == span.along)
        length = sum(edge.curve.length for edge in run)
        height = guides.get(piece.name)
        line = [point for edge in run for point in edge.curve.flattened()]
        met = crossing_of(line, [(-FAR, height), (FAR, height)]) if height is not None and len(run) == 1 else None
        if met is None:
            return cls(piece, span, length, None)
        over = along_line(line, met)
        return cls(piece, span, length, over if run[0].start == span.start else length - over)


def _drawn_out(piece: Piece, span: Span, by: Sequence[float]) -> Piece:
    """Return a piece with a line drawn out (cm; held back where negative) at the start and the end of a span."""
    run = in_ring_order(edge for edge in piece.edges if edge.lineage == span.along)
    in_order = run[0].start == span.start
    before, after = by if in_order else (by[1], by[0])
    first, last = run[0], run[-1]
    return redrawn(
        piece,
        moves={
            first.start: add(first.curve.start, scale(first.curve.start_direction, -before)),
            last.end: add(last.curve.end, scale(last.curve.end_direction, after)),
        },
    )


def _run_across(pieces: Mapping[str, Piece], seam: Seam) -> dict[str, Piece]:
    """Return the pieces with what runs across a seam at its two ends drawn on without a corner, where none is meant."""
    found = dict(pieces)
    spans = [side[0] for side in seam.sides]
    for ends in ([span.start for span in spans], [span.end for span in spans]):
        holding = [next(p for p in found.values() if p.holds(vertex)) for vertex in ends]
        corners = [_corner(p, vertex, span.along) for p, vertex, span in zip(holding, ends, spans, strict=True)]
        one, other = corners
        if one is None or other is None or one.role is not other.role:
            continue
        off = one.angle + other.angle - pi
        if abs(off) > MEANT_CORNER:
            continue
        for piece, corner in zip(holding, (one, other), strict=True):
            found[piece.name] = _turned(found[piece.name], corner, off / 2)
    return found


@dataclass(frozen=True, slots=True)
class _Corner:
    """Where a line meets a seam: its edge, which end of it, its role, and the angle between both within the piece."""

    edge: str
    at_start: bool
    role: Role
    angle: float


def _corner(piece: Piece, vertex: str, seam: str) -> _Corner | None:
    """Return how a line that runs across a seam meets it at a corner; None where it is another seam, or a dart."""
    for before, after in zip(piece.edges, (*piece.edges[1:], piece.edges[0]), strict=True):
        if after.start != piece.aliases.get(vertex, vertex):
            continue
        line = after if before.lineage == seam else before
        if line.role not in ACROSS or seam not in (before.lineage, after.lineage):
            return None
        angle = pi - turn(before.curve.end_direction, after.curve.start_direction)
        return _Corner(line.start, line is after, line.role, angle)
    return None


def _turned(piece: Piece, corner: _Corner, by: float) -> Piece:
    """Return a piece with one end of an edge turned so that its corner is smaller by an angle in radians."""

    def anew(edge: Edge) -> Edge:
        if edge.start != corner.edge:
            return edge
        # The cloth lies to the left of the ring: a smaller corner turns a line that leaves it to the left.
        return replace(edge, curve=_end_turned(edge.curve, by if corner.at_start else -by, at_start=corner.at_start))

    return replace(piece, edges=tuple(anew(edge) for edge in piece.edges))


def _end_turned(curve: Curve, by: float, *, at_start: bool) -> Curve:
    """Return a curve with one end turned by an angle (radians); where that would take it off its dots, only its last cm are."""
    if not at_start:
        return _end_turned(curve.reversed(), by, at_start=True).reversed()
    cubics = list(curve.cubics())
    if distance(*cubics[0][:2]) * abs(sin(by)) > ASIDE:
        near, rest = curve.split(min(TURNED_WITHIN, curve.length / 3))
        cubics = [*near.cubics(), *rest.cubics()]
    first, handle, *others = cubics[0]
    turned = Motion.turning(by, about=first)(handle)
    most = ASIDE / abs(sin(by)) if by else inf
    handle = between(first, turned, min(1.0, most / distance(first, turned)))
    return joined([(first, handle, others[0], others[1]), *cubics[1:]])
