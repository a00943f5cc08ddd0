"""Unfold a piece, put an edge on the fold, or make left and right different.

On the fold a piece is drawn as its half; unfolded, its other half is the mirror image, whose names begin with the
step's own. A pair that shall differ becomes two pieces. Common practice, no single source.
"""

from collections.abc import Iterator, Mapping
from dataclasses import replace
from enum import StrEnum
from types import MappingProxyType

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.point import Point, cross, subtract, unit
from izett.pattern.copies import flipped, prefixed
from izett.pattern.document import Notch, Pattern, Piece, Seam, Span
from izett.pattern.naming import readable
from izett.pattern.paper import between_gates
from izett.styling.operation import Context, Group, Keeps, Offer, Operation, Outcome, Params
from izett.styling.parting import unused
from izett.styling.subject import Kind, Subject
from izett.styling.words import line_words

#: cm. An edge bent by more cannot lie on a fold.
STRAIGHT = 0.05


class Fold(StrEnum):
    """What is done."""

    UNFOLD = "unfold"
    ON_FOLD = "on_fold"
    PART = "part"


class FoldOpen(Params):
    """Which piece, and what is done with it."""

    piece: str = Field(description="the piece's name", json_schema_extra={"refers": "piece"})
    what: Fold = Field(
        Fold.UNFOLD,
        description="unfold: both halves in one; on_fold: the edge is placed on a fold; part: left and right differ",
    )
    edge: str = Field("", max_length=80, description="the straight edge that is placed on the fold")


def apply(params: FoldOpen, context: Context) -> Outcome:
    """Mirror the piece, or place it on the fold."""
    piece = context.piece(params.piece)
    if params.what is Fold.ON_FOLD:
        return Outcome(context.pattern.with_pieces(_on_fold(piece, params.edge)), (), (piece.name,))
    if params.what is Fold.UNFOLD:
        whole = _unfolded(piece, context.uid)
        pattern = context.pattern.with_pieces(whole)
        return Outcome(_with_mirrored_seams(pattern, whole, context.uid), (), (whole.name,))
    if piece.on_fold or piece.cut != 2:
        raise StepRefused(
            f"{piece.title} is not cut as a pair.",
            mend="Unfold it instead: its halves then differ.",
            where=(piece.name,),
        )
    left = replace(piece, cut=1, title=f"{piece.title}, left")
    right = _mirrored(piece, context.uid, axis=_own_axis(piece))
    right = replace(right, cut=1, title=f"{piece.title}, right", name=f"{piece.name}.{context.uid}")
    pattern = context.pattern.with_parts(piece, left, right)
    return Outcome(_with_mirrored_seams(pattern, right, context.uid), (), (right.name,))


def _on_fold(piece: Piece, lineage: str) -> Piece:
    edges = [edge for edge in piece.edges if edge.lineage == lineage]
    if not edges:
        raise StepRefused(
            f"{piece.title} has no edge “{lineage}”.", mend="Point at the edge for the fold.", where=(piece.name,)
        )
    along = unit(subtract(edges[-1].curve.end, edges[0].curve.start))
    bent = max(abs(cross(along, subtract(p, edges[0].curve.start))) for edge in edges for p in edge.curve.points)
    if bent > STRAIGHT:
        raise StepRefused(
            f"{line_words(lineage).capitalize()} leaves the straight by {bent:.2f} cm: it cannot lie on a fold.",
            mend="Straighten it first, or keep the seam.",
            where=(lineage,),
        )
    return replace(piece, on_fold=lineage, cut=max(piece.cut // 2, 1))


def _own_axis(piece: Piece) -> tuple[Point, Point]:
    """Return an upright axis to the left of a piece: its mirror image lies beside it."""
    return (piece.grain[0], piece.grain[1])


def _name(uid: str, name: str) -> str:
    return f"{uid}.{name}"


def _mirrored(piece: Piece, uid: str, *, axis: tuple[Point, Point]) -> Piece:
    """Return the mirror image of a piece, every name of it beginning with the step's."""
    return replace(prefixed(flipped(piece, axis), uid), on_fold=None)


def _span(uid: str, span: Span) -> Span:
    return Span(_name(uid, span.start), _name(uid, span.end), _name(uid, span.along))


def _unfolded(piece: Piece, uid: str) -> Piece:
    folds = [edge for edge in piece.edges if edge.lineage == piece.on_fold]
    if not folds:
        raise StepRefused(
            f"{piece.title} does not lie on the fold.",
            mend="Choose a piece that does, or part a pair.",
            where=(piece.name,),
        )
    start, end = folds[0].start, folds[-1].end
    other = _mirrored(piece, uid, axis=(folds[0].curve.start, folds[-1].curve.end))
    ends = {_name(uid, start): start, _name(uid, end): end}
    own = between_gates(piece.edges, end, start)
    added = [
        replace(e, start=ends.get(e.start, e.start), end=ends.get(e.end, e.end))
        for e in between_gates(other.edges, _name(uid, start), _name(uid, end))
    ]
    return replace(
        piece,
        on_fold=None,
        title=f"{piece.title}, whole",
        edges=(*own, *added),
        darts=(*piece.darts, *other.darts),
        diamonds=(*piece.diamonds, *other.diamonds),
        marks=MappingProxyType({**other.marks, **piece.marks}),
        lines=(*piece.lines, *other.lines),
        notches=(*piece.notches, *(_at(n, ends) for n in other.notches)),
        aliases=MappingProxyType({**piece.aliases, **other.aliases, **ends}),
    )


def _at(notch: Notch, ends: Mapping[str, str]) -> Notch:
    span = notch.span
    return replace(notch, span=Span(ends.get(span.start, span.start), ends.get(span.end, span.end), span.along))


def _with_mirrored_seams(pattern: Pattern, whole: Piece, uid: str) -> Pattern:
    """Return the pattern with the seams of the mirrored half: to the mirrored partner where there is one, else to the same."""
    made: list[Seam] = []
    have = {edge.start for piece in pattern for edge in piece.edges} | {k for piece in pattern for k in piece.aliases}

    def other(span: Span) -> Span:
        twin = _span(uid, span)
        return twin if {twin.start, twin.end} <= have else span

    lineages = {edge.lineage for edge in whole.edges}
    for seam in pattern.seams:
        sides = tuple(tuple(other(span) for span in side) for side in seam.sides)
        if sides != seam.sides and any(span.along in lineages for side in sides for span in side):
            made.append(replace(seam, name=unused(pattern, f"{seam.name}_right", uid), sides=(sides[0], sides[1])))
    return replace(pattern, seams=(*pattern.seams, *made))


def describe(params: FoldOpen) -> str:
    """Return the step in the maker's words."""
    piece = readable(params.piece)
    return {
        Fold.UNFOLD: f"Unfold the {piece}",
        Fold.ON_FOLD: f"Place the {piece} on the fold along {line_words(params.edge)}",
        Fold.PART: f"Left and right of the {piece} are cut apart",
    }[params.what]


def offers(subject: Subject, _pattern: Pattern) -> Iterator[Offer]:
    """Offer to unfold, to part a pair, or to place a straight edge on the fold."""
    piece = subject.piece
    if piece is None:
        return
    if subject.kind is Kind.PIECE and piece.on_fold:
        yield Offer("Unfold it", {"piece": piece.name, "what": "unfold"})
    if subject.kind is Kind.PIECE and not piece.on_fold and piece.cut == 2:
        yield Offer("Make left and right different", {"piece": piece.name, "what": "part"})
    if subject.kind is Kind.LINE and not piece.on_fold:
        edges = [edge for edge in piece.edges if edge.lineage == subject.name]
        if all(edge.curve.is_straight for edge in edges):
            yield Offer("Place it on a fold", {"piece": piece.name, "what": "on_fold", "edge": subject.name})


OPERATION = Operation(
    key="fold_open",
    title="Unfold, fold, or part left and right",
    params=FoldOpen,
    apply=apply,
    describe=describe,
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.LINES,
    offers=offers,
    examples=(
        {"piece": "bodice_front", "what": "unfold"},
        {"piece": "bodice_back", "what": "part"},
    ),
)
