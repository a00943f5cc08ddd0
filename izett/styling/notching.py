"""Notches that a step sets: at a place of a line, and on what is sewn to it there, so that both pieces have them."""

from collections.abc import Callable
from dataclasses import replace

from izett.pattern.facts import Zone
from izett.pattern.piece import Notch, NotchKind, Piece, Span
from izett.pattern.sewn import span_length
from izett.pattern.working import Working
from izett.styling.operation import Context
from izett.styling.subject import seam_at

#: cm. A notch that lies so near to a place lies there.
THERE = 0.05

#: What is done to a piece at a place so far (cm) along one of its lines.
At = Callable[[Piece, Span, float], Piece]


def notched(context: Context, span: Span, along: float) -> Working:
    """Return the garment with a notch `along` cm from the start of a line, and on what is sewn to it there."""
    return _done(context, span, along, _with_notch)


def unnotched(context: Context, span: Span, along: float) -> Working:
    """Return the garment without the notch that lies there, on both sides of the seam."""
    return _done(context, span, along, _without_notch)


def _done(context: Context, span: Span, along: float, change: At) -> Working:
    pattern = context.garment
    for part in context.chain(span):
        piece = context.piece_with(part.start)
        own = span_length(piece, part)
        if along <= own:
            pattern = pattern.with_pieces(change(piece, part, along))
            return _on_partner(pattern, piece, part, along, change)
        along -= own
    return pattern


def _with_notch(piece: Piece, span: Span, along: float) -> Piece:
    kind = NotchKind.DOUBLE if piece.zone is Zone.BACK else NotchKind.SINGLE
    return replace(piece, notches=(*piece.notches, Notch(span, along, kind)))


def _without_notch(piece: Piece, span: Span, along: float) -> Piece:
    whole = span_length(piece, span)

    def lies_there(notch: Notch) -> bool:
        if notch.span.along != span.along:
            return False
        from_start = {piece.aliases.get(name, name) for name in (notch.span.start, span.start)}
        at = notch.distance if len(from_start) == 1 else whole - notch.distance
        return abs(at - along) <= THERE

    return replace(piece, notches=tuple(notch for notch in piece.notches if not lies_there(notch)))


def _on_partner(pattern: Working, piece: Piece, span: Span, along: float, change: At) -> Working:
    """Return the garment with the change carried over to the other side of the seam, where both sides are one line."""
    seam = seam_at(pattern, piece, span.along)
    if seam is None or any(len(side) != 1 for side in seam.sides):
        return pattern
    own = next((i for i, side in enumerate(seam.sides) if side[0].along == span.along), None)
    if own is None:
        return pattern
    mine, other = seam.sides[own][0], seam.sides[1 - own][0]
    partner = pattern.find(other.start)
    if partner is None:
        return pattern
    same_way = piece.aliases.get(mine.start, mine.start) == piece.aliases.get(span.start, span.start)
    whole = span_length(partner, other)
    return pattern.with_pieces(change(partner, other, along if same_way else whole - along))
