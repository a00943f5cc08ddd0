"""Add a lining or a pocket: a lining is a copy of pieces with changes of its own, a pocket a patch with its place marked.

A lining is cut shorter at the hem and wider at the centre back by a pleat, so that it does not pull. Both follow the
pieces that they belong to. Common practice, no single source.
"""

from collections.abc import Iterator, Sequence
from dataclasses import replace
from enum import StrEnum

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.curve import Curve, straight
from izett.geometry.point import add, scale
from izett.pattern.copies import prefixed
from izett.pattern.document import Seam
from izett.pattern.facts import Layer, Role
from izett.pattern.naming import readable
from izett.pattern.piece import Edge, LevelLine, Lining, Piece, Span
from izett.pattern.redraw import redrawn
from izett.pattern.working import Readable
from izett.styling.making import outlined
from izett.styling.operation import Context, Group, Keeps, Offer, Operation, Outcome, Section, Sum, length
from izett.styling.references import Params, PieceRef
from izett.styling.subject import Kind, Subject
from izett.styling.told import told_alike
from izett.wording import cm

#: Of a pocket's width, how far its lower corners are rounded.
ROUND = 0.18


class Copy(StrEnum):
    """What is added."""

    LINING = "lining"
    POCKET = "pocket"


class AddCopy(Params):
    """Of which pieces, and how it differs."""

    kind: Copy = Field(Copy.LINING, description="lining or pocket")
    pieces: tuple[PieceRef, ...] = Field(min_length=1, max_length=20, description="the pieces' names")
    shorter: float = length(2.0, low=0, high=10, meaning="shorter at the hem by", only=(Copy.LINING,))
    pleat: float = length(1.0, low=0, high=4, meaning="wider at the centre back by", only=(Copy.LINING,))
    width: float = length(13.0, low=5, high=30, meaning="width", only=(Copy.POCKET,))
    height: float = length(14.0, low=5, high=40, meaning="height", only=(Copy.POCKET,))


def apply(params: AddCopy, context: Context) -> Outcome:
    """Copy the pieces, or make the pocket and mark its place."""
    pieces = [context.piece(name) for name in params.pieces]
    if params.kind is Copy.POCKET:
        return _pocket(params, context, pieces[0])
    copies = [_lining(piece, params, context.uid) for piece in pieces]
    seams = [
        _copied(seam, context)
        for seam in context.garment.seams
        if all(any(piece.holds(s.start) for piece in pieces) for side in seam.sides for s in side)
    ]
    pattern = context.garment.adding(*copies, seams=tuple(seams))
    told = (
        Sum("pieces", float(len(copies)), ""),
        *_told(list(zip(pieces, copies, strict=True))),
    )
    return Outcome(pattern, told, tuple(copy.name for copy in copies))


def _told(pairs: Sequence[tuple[Piece, Piece]]) -> tuple[Sum, ...]:
    """Return by how much linings are shorter than what they line, and wider at the centre back, where they are."""
    shorter: dict[str, float] = {}
    pleat: dict[str, float] = {}
    for piece, copy in pairs:
        for edge, own in zip(piece.edges, copy.edges, strict=True):
            if edge.role is Role.HEM:
                shorter.setdefault(piece.title.lower(), _shortened(piece, copy, edge))
            if edge.role is Role.CENTRE_BACK:
                pleat.setdefault(piece.title.lower(), abs(own.curve.start[0] - edge.curve.start[0]))
    return (*told_alike("shorter at the hem", shorter), *told_alike("pleat", pleat))


def _shortened(piece: Piece, copy: Piece, hem: Edge) -> float:
    """Return by how much the longer of the lines that a hem ends on is shorter on the lining."""
    ends = [
        (index, beside) for index, beside in enumerate(piece.edges) if {beside.start, beside.end} & {hem.start, hem.end}
    ]
    return max(beside.curve.length - copy.edges[index].curve.length for index, beside in ends if beside is not hem)


def _lining(piece: Piece, params: AddCopy, uid: str) -> Piece:
    copy = prefixed(piece, uid)
    hems = [e for e in copy.edges if e.role is Role.HEM]
    moves = {}
    for edge in hems:
        for name, neighbour, at_end in (
            (edge.start, copy.edges[copy.edges.index(edge) - 1], True),
            (edge.end, copy.edges[(copy.edges.index(edge) + 1) % len(copy.edges)], False),
        ):
            if neighbour.role is Role.HEM or neighbour.curve.length < params.shorter + 1:
                continue
            up = scale(neighbour.curve.end_direction, -1.0) if at_end else neighbour.curve.start_direction
            moves[name] = add(copy.vertex(name), scale(up, params.shorter))
    backs = {n for e in copy.edges if e.role is Role.CENTRE_BACK for n in (e.start, e.end)}
    for name in backs:
        x, y = moves.get(name, copy.vertex(name))
        moves[name] = (x - params.pleat, y)
    drawn = redrawn(copy, moves=moves)
    return replace(
        drawn,
        name=f"{uid}.{piece.name}",
        title=f"{piece.title}, lining",
        lines=(),
        layer=Layer.LINING,
        lining=Lining(
            piece.name,
            params.shorter if hems else 0.0,
            tuple(dict.fromkeys((own.lineage, old.lineage) for own, old in zip(copy.edges, piece.edges, strict=True))),
        ),
    )


def _copied(seam: Seam, context: Context) -> Seam:
    def chain(spans: tuple[Span, ...]) -> tuple[Span, ...]:
        return tuple(Span(*(context.named(name) for name in (s.start, s.end, s.along))) for s in spans)

    name = context.named(f"{seam.name}_lining")
    return replace(seam, name=name, sides=(chain(seam.sides[0]), chain(seam.sides[1])))


def _pocket(params: AddCopy, context: Context, piece: Piece) -> Outcome:
    w, h = params.width, params.height
    r = w * ROUND
    foot = Curve(((0.0, r), (0.0, r * 0.45), (r * 0.45, 0.0), (r, 0.0)))
    other = Curve(((w - r, 0.0), (w - r * 0.45, 0.0), (w, r * 0.45), (w, r)))
    made = outlined(
        context,
        title="Patch pocket",
        cut=2,
        edges=[
            (Role.PANEL, "left_corner", foot),
            (Role.PANEL, "foot", straight((r, 0.0), (w - r, 0.0))),
            (Role.PANEL, "right_corner", other),
            (Role.PANEL, "right", straight((w, r), (w, h))),
            (Role.HEM, "mouth", straight((w, h), (0.0, h))),
            (Role.PANEL, "left", straight((0.0, h), (0.0, r))),
        ],
        fold=None,
        layer=Layer.APPLIED,
    )
    middle = _middle(piece.edges)
    corners = ((-w / 2, h / 2), (w / 2, h / 2))
    place = LevelLine("pocket", (add(middle, corners[0]), add(middle, corners[1])))
    if piece.on_fold and middle[0] < w / 2:
        raise StepRefused(
            f"{piece.title} is too narrow for a pocket of {cm(w, 2)}.", fix="Make it narrower.", where=(piece.name,)
        )
    pattern = context.garment.with_pieces(replace(piece, lines=(*piece.lines, place))).adding(made)
    return Outcome(pattern, (Sum("width", w), Sum("height", h)), (made.name,))


def _middle(edges: tuple[Edge, ...]) -> tuple[float, float]:
    xs = [e.curve.start[0] for e in edges]
    ys = [e.curve.start[1] for e in edges]
    return ((min(xs) + max(xs)) / 2, (min(ys) + max(ys)) / 2)


def describe(params: AddCopy) -> str:
    """Return the step in the maker's words."""
    names = ", ".join(readable(name) for name in params.pieces)
    if params.kind is Copy.POCKET:
        return f"Patch pocket on the {names}, {params.width:g} × {cm(params.height, 2)}"
    return f"Line the {names}: {cm(params.shorter, 2)} shorter, a pleat of {cm(params.pleat, 2)}"


def offers(subject: Subject, pattern: Readable) -> Iterator[Offer]:
    """Offer a lining and a pocket where a piece is pointed at."""
    if subject.kind is Kind.PIECE and subject.piece is not None:
        yield Offer("Add: lining of this piece", {"kind": "lining", "pieces": [subject.piece.name]})
        yield Offer("Add: patch pocket", {"kind": "pocket", "pieces": [subject.piece.name]})
    if subject.kind is Kind.GARMENT:
        yield Offer(
            "Line the whole garment",
            {"kind": "lining", "pieces": [piece.name for piece in pattern.pieces if piece.layer is Layer.OUTER]},
        )


OPERATION = Operation(
    key="add_copy",
    title="Add a lining or a pocket",
    params=AddCopy,
    apply=apply,
    describe=describe,
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.ADDED,
    offers=offers,
    sections=(Section.FOLLOW,),
    blocks=("skirt",),
    examples=(
        {"kind": "lining", "pieces": ("skirt_front", "skirt_back"), "shorter": 2.0, "pleat": 1.0},
        {"kind": "pocket", "pieces": ("skirt_front",)},
    ),
)
