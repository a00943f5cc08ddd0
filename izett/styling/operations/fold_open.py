"""Unfold a piece, or put an edge on the fold.

On the fold a piece is drawn as its half; unfolded, its other half is drawn as the other half of the body has it, its names
begin with the step's own, and the piece goes on as one. Common practice, no single source.
"""

from collections.abc import Iterator
from dataclasses import replace
from enum import StrEnum

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.point import Point, cross, subtract, unit
from izett.pattern.copies import flipped, prefixed
from izett.pattern.facts import Half, Role
from izett.pattern.halves import joined_on_fold
from izett.pattern.naming import readable
from izett.pattern.piece import Piece, Span
from izett.pattern.working import Readable, Working
from izett.styling.operation import Context, Group, Keeps, Offer, Operation, Outcome
from izett.styling.references import LineRef, Params, PieceRef
from izett.styling.subject import Kind, Subject
from izett.styling.words import line_words
from izett.wording import cm

#: cm. An edge bent by more cannot lie on a fold.
STRAIGHT = 0.05


class Fold(StrEnum):
    """What is done."""

    UNFOLD = "unfold"
    ON_FOLD = "on_fold"
    PART = "part"


class FoldOpen(Params):
    """Which piece, and what is done with it."""

    piece: PieceRef = Field(description="the piece's name")
    what: Fold = Field(
        Fold.UNFOLD,
        description="unfold: both halves in one; on_fold: the edge is placed on a fold; part: left and right differ",
    )
    edge: LineRef = Field(LineRef(""), description="the straight edge that is placed on the fold")


def apply(params: FoldOpen, context: Context) -> Outcome:
    """Mirror the piece, or place it on the fold."""
    piece = context.piece(params.piece)
    if params.what is Fold.ON_FOLD:
        return Outcome(context.garment.with_pieces(_on_fold(piece, params.edge)), (), (piece.name,))
    if params.what is Fold.UNFOLD:
        # The other half is drawn from the other half of the body: where both are alike it is the mirror image.
        other = context.other.find_piece(piece.name)
        if other is None:
            raise StepRefused(
                f"Only one half of the {piece.title.lower()} is there.",
                fix="Put this step before the one that made the halves differ.",
                where=(piece.name,),
            )
        whole = _unfolded(piece, other, context)
        return Outcome(_with_mirrored(context, context.garment.with_pieces(whole), whole), (), (whole.name,))
    if piece.on_fold or piece.cut != 2:
        raise StepRefused(
            f"{piece.title} is not cut as a pair.",
            fix="Unfold it instead: its halves then differ.",
            where=(piece.name,),
        )
    left = replace(piece, cut=1, title=f"{piece.title}, left", half=Half.LEFT)
    right = _mirrored(piece, context.uid, axis=(piece.grain[0], piece.grain[1]))
    name = context.named(piece.name)
    right = replace(right, cut=1, title=f"{piece.title}, right", name=name, half=Half.RIGHT)
    garment = context.garment.with_parts(piece, left, right)
    return Outcome(_with_mirrored(context, garment, right), (), (right.name,))


def _on_fold(piece: Piece, lineage: str) -> Piece:
    edges = [edge for edge in piece.edges if edge.lineage == lineage]
    if not edges:
        raise StepRefused(
            f"{piece.title} has no edge {readable(lineage)}.",
            fix="Point at the edge for the fold.",
            where=(piece.name,),
        )
    along = unit(subtract(edges[-1].curve.end, edges[0].curve.start))
    bent = max(abs(cross(along, subtract(p, edges[0].curve.start))) for edge in edges for p in edge.curve.points)
    if bent > STRAIGHT:
        raise StepRefused(
            f"{line_words(lineage, begins=True)} leaves the straight by {cm(bent, 2)}: it cannot lie on a fold.",
            fix="Straighten it first, or keep the seam.",
            where=(lineage,),
        )
    return replace(piece, on_fold=lineage, cut=max(piece.cut // 2, 1))


def _name(uid: str, name: str) -> str:
    return f"{uid}.{name}"


def _mirrored(piece: Piece, uid: str, *, axis: tuple[Point, Point]) -> Piece:
    """Return the mirror image of a piece, every name of it beginning with the step's."""
    return replace(prefixed(flipped(piece, axis), uid), on_fold=None)


def _span(uid: str, span: Span) -> Span:
    return Span(_name(uid, span.start), _name(uid, span.end), _name(uid, span.along))


def _unfolded(piece: Piece, beyond: Piece, context: Context) -> Piece:
    folds = [edge for edge in piece.edges if edge.lineage == piece.on_fold]
    if not folds:
        raise StepRefused(
            f"{piece.title} does not lie on the fold.",
            fix="Choose a piece that does.",
            where=(piece.name,),
        )
    return replace(joined_on_fold(piece, beyond, context.named), title=f"{piece.title}, whole")


def _with_mirrored(context: Context, garment: Working, whole: Piece) -> Working:
    """Return the garment with the seams of the mirrored half: to the mirrored partner where there is one, else to the same.

    Those that there were are the left half's from now on, the new ones the right half's.
    """

    def other(span: Span) -> Span:
        twin = _span(context.uid, span)
        return twin if garment.find(twin.start) and garment.find(twin.end) else span

    lineages = {edge.lineage for edge in whole.edges}
    for seam in garment.seams:
        sides = tuple(tuple(other(span) for span in side) for side in seam.sides)
        if sides != seam.sides and any(span.along in lineages for side in sides for span in side):
            mirrored = replace(seam, name=context.named(seam.name), sides=(sides[0], sides[1]), half=Half.RIGHT)
            garment = garment.with_seam(replace(seam, half=Half.LEFT)).adding(seams=(mirrored,))
    for level, spans in garment.measured_along.items():
        twins = tuple(twin for span in spans if (twin := other(span)) != span)
        if twins:
            garment = garment.with_along({level: (*spans, *twins)})
    return garment


def describe(params: FoldOpen) -> str:
    """Return the step in the maker's words."""
    piece = readable(params.piece)
    return {
        Fold.UNFOLD: f"Unfold the {piece}",
        Fold.ON_FOLD: f"Place the {piece} on the fold along {line_words(params.edge)}",
        Fold.PART: f"Left and right of the {piece} are cut apart",
    }[params.what]


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer to unfold, or to place a straight edge on the fold."""
    piece = subject.piece
    if piece is None:
        return
    if subject.kind is Kind.PIECE and piece.on_fold:
        yield Offer("Unfold it", {"piece": piece.name, "what": "unfold"})
    if subject.kind is Kind.LINE and not piece.on_fold and piece.region and subject.role is not Role.CUT_EDGE:
        edges = [edge for edge in piece.edges if edge.lineage == subject.name]
        if all(edge.curve.is_straight for edge in edges):
            yield Offer("Place it on a fold", {"piece": piece.name, "what": "on_fold", "edge": subject.name})


OPERATION = Operation(
    key="fold_open",
    title="Unfold, or place on the fold",
    params=FoldOpen,
    apply=apply,
    describe=describe,
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.LINES,
    halves=False,
    joins=True,
    offers=offers,
    examples=(
        {"piece": "bodice_front", "what": "unfold"},
        {"piece": "bodice_back", "what": "part"},
    ),
)
