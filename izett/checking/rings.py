"""The closed rings of a garment that a part of the body passes through, and the openings that open them.

A ring is as long as the shortest band that is sewn on it. An opening opens a ring that it begins on, or whose line it runs
along to its end. Common practice, no single source.
"""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass

from izett.errors import ReferenceLost
from izett.pattern.document import Opening
from izett.pattern.facts import Half, Region, Role, SeamKind
from izett.pattern.piece import Piece, Span
from izett.pattern.sewn import holding, resolved, span_length
from izett.pattern.working import Readable
from izett.pattern.worn import halves_of, is_sleeve, on_body

#: cm. An opening that ends so near to a place reaches it.
REACHES = 0.5


@dataclass(frozen=True, slots=True)
class Ring:
    """A ring: its length all around, cm, and the corners that lie on it."""

    key: str
    half: Half
    around: float
    corners: frozenset[str]


def rings(pattern: Readable) -> Iterator[Ring]:
    """Yield what passes one part of the body each: the neck, the sleeves' hems, the legs' hems, each half's where they differ."""
    yield from _ring(pattern, "neck", Role.NECK, [p for p in pattern.with_role(Role.NECK) if on_body(p)])
    hemmed = [piece for piece in pattern.with_role(Role.HEM) if on_body(piece)]
    sleeves = [piece for piece in hemmed if is_sleeve(piece)]
    legs = [piece for piece in hemmed if piece.region is Region.LEGS]
    # There are two arms and two legs: a piece that stands for both counts once on each.
    for key, pieces in (("hand", sleeves), ("foot", legs)):
        for half in halves_of(pieces):
            own = [piece for piece in pieces if piece.half in (Half.BOTH, half)]
            yield from _ring(pattern, key, Role.HEM, own, half=half, limbs=2)


def hem_ring(pattern: Readable) -> Ring | None:
    """Return the hem around the body; None where there is none, or each leg has its own."""
    hemmed = [piece for piece in pattern.with_role(Role.HEM) if on_body(piece) and not is_sleeve(piece)]
    lowest = [p for p in hemmed if p.region is Region.SKIRT] or [p for p in hemmed if p.region is Region.UPPER]
    if any(piece.region is Region.LEGS for piece in hemmed):
        return None
    return next(_ring(pattern, "hem", Role.HEM, lowest), None)


def _ring(
    pattern: Readable, key: str, role: Role, pieces: Sequence[Piece], *, half: Half = Half.BOTH, limbs: int = 1
) -> Iterator[Ring]:
    edges = [(piece, edge) for piece in pieces for edge in piece.edges if edge.role is role]
    if edges:
        corners = frozenset(name for _, edge in edges for name in (edge.start, edge.end))
        around = sum(edge.curve.length * _times(piece, limbs) for piece, edge in edges)
        yield Ring(key, half, shortest(pattern, corners, around), corners)


def _times(piece: Piece, limbs: int) -> float:
    return piece.times / limbs if piece.half is Half.BOTH else float(piece.times)


def shortest(pattern: Readable, corners: Iterable[str], around: float) -> float:
    """Return how long (cm) a ring is with the bands that are sewn on it: as the shortest of them, where one is shorter.

    Args:
        pattern: the garment.
        corners: those that lie on the ring.
        around: its own length, cm.
    """
    on, lengths = frozenset(corners), [around]
    for seam in pattern.seams_of(SeamKind.ADDED):
        edges, bands = seam.sides
        if not any({span.start, span.end} & on for span in edges):
            continue
        try:
            bound = [(holding(pattern, span.start), span) for span in bands]
        except ReferenceLost:
            continue
        if all(on_body(piece) for piece, _ in bound):
            lengths.append(sum(span_length(piece, span) * (2 if piece.on_fold else 1) for piece, span in bound))
    return min(lengths)


def begins_on(pattern: Readable, opening: Opening, corners: frozenset[str]) -> bool:
    """Return whether an opening begins on a ring, or runs the whole length of its line to it."""
    return opening.span.start in corners or (opening.span.end in corners and _whole(pattern, opening))


def _whole(pattern: Readable, opening: Opening) -> bool:
    long = sewn_length(pattern, opening.span)
    return long is not None and opening.length >= long - REACHES


def sewn_length(pattern: Readable, line: Span) -> float | None:
    """Return how long (cm) a line is as sewn, over all its parts; None where it no longer runs from end to end."""
    try:
        return sum(span_length(holding(pattern, span.start), span) for span in resolved(pattern, line))
    except ReferenceLost:
        return None
