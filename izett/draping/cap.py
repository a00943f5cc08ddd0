"""The seam of a sleeve that was given with its front and back: cap to armhole, which no two single lines make.

The armhole of front and back is one line as sewn, over their shoulder, and so is the cap over its top. What the cap is longer
by is its ease: it was cut so. Common practice, no single source.
"""

from collections.abc import Iterable, Sequence
from dataclasses import replace

from izett.draping.panel import SeamEnd
from izett.pattern.document import Intent, Pattern, Seam
from izett.pattern.facts import Corner, Layer, Role, SeamKind, Zone
from izett.pattern.piece import Piece, Span, in_ring_order
from izett.pattern.sewn import seam_lengths

#: cm. A cap that is longer by no more is eased in; one that is longer still, or shorter, does not fit its armhole.
MOST_EASED = 5.0


def cap_seam(pieces: Sequence[Piece], opened: Iterable[SeamEnd]) -> Seam | None:
    """Return the seam of cap and armhole of given pieces; None where they have no sleeve, or more than one.

    Args:
        pieces: as they lie together.
        opened: lines that are said to be sewn to none.
    """
    left_open = {f"{end.panel}.{end.line}" for end in opened}
    outer = [piece for piece in pieces if piece.layer is Layer.OUTER]
    caps = [piece for piece in outer if _runs(piece, Role.CAP, left_open)]
    front, back = (_armhole(outer, zone, left_open) for zone in (Zone.FRONT, Zone.BACK))
    if len(caps) != 1 or not front or not back:
        return None
    sleeve = caps[0]
    cap = _from_front(sleeve, _runs(sleeve, Role.CAP, left_open))
    seam = Seam(
        name=f"{sleeve.name}.cap",
        sides=((*front, *(_turned_round(span) for span in reversed(back))), cap),
        ease=(0.0, 0.0),
        words=("armhole", "cap"),
        kind=SeamKind.CAP,
    )
    first, second = seam_lengths(Pattern(tuple(pieces), (), Intent()), seam)
    eased = second - first
    if not 0 < eased <= MOST_EASED:
        return seam
    return replace(seam, ease=(eased, eased), lies="above the notches, half in front and half behind")


def front_cap(pieces: Sequence[Piece], opened: Iterable[SeamEnd]) -> float | None:
    """Return how long the front half of a given cap is meant to be, cm: its armhole and half of the ease; None without them."""
    seam = cap_seam(pieces, opened)
    if seam is None:
        return None
    pattern = Pattern(tuple(pieces), (), Intent())
    first, second = seam_lengths(pattern, seam)
    front = [s for s in seam.sides[0] if any(p.holds(s.start) and p.zone is Zone.FRONT for p in pieces)]
    return seam_lengths(pattern, replace(seam, sides=(tuple(front), seam.sides[1])))[0] + (second - first) / 2


def _runs(piece: Piece, role: Role, but: set[str]) -> list[Span]:
    """Return the lines of a role on a piece, each in ring order."""
    found = []
    for lineage in dict.fromkeys(e.lineage for e in piece.edges if e.role is role and e.lineage not in but):
        run = in_ring_order(e for e in piece.edges if e.lineage == lineage)
        found.append(Span(run[0].start, run[-1].end, lineage))
    return found


def _armhole(pieces: Sequence[Piece], zone: Zone, but: set[str]) -> list[Span]:
    """Return the armhole of a front or a back from its underarm up to its shoulder, over its panels."""
    found = []
    for piece in pieces:
        spans = _runs(piece, Role.ARMHOLE, but) if piece.zone is zone else []
        found += [_upwards(piece, span) for span in spans]
    return sorted(found, key=lambda span: _height(pieces, span))


def _upwards(piece: Piece, span: Span) -> Span:
    return span if piece.vertex(span.start)[1] <= piece.vertex(span.end)[1] else _turned_round(span)


def _height(pieces: Sequence[Piece], span: Span) -> float:
    return next(piece.vertex(span.start)[1] for piece in pieces if piece.holds(span.start))


def _turned_round(span: Span) -> Span:
    return Span(span.end, span.start, span.along)


def _from_front(sleeve: Piece, spans: Sequence[Span]) -> tuple[Span, ...]:
    """Return the lines of a cap from its front underarm over its top to its back."""
    first = sleeve.corner(Corner.UNDERARM_FRONT)
    ways = [span for each in spans for span in (each, _turned_round(each))]
    found: list[Span] = []
    at = first
    for _ in spans:
        following = next((s for s in ways if s.start == at and s.end not in {had.start for had in found}), None)
        if following is None:
            return tuple(spans)
        found.append(following)
        at = following.end
    return tuple(found)
