"""Cut a corner in a way of its own: mitred, squared to one of its lines, or folded back along one.

Hems are folded back where they meet a side, and everything else is mitred, until the maker says otherwise. The end of a
panel seam at a neck or an armhole is often squared, so that its allowances, pressed open, lie edge on edge with the
other's. No shape changes. Common practice, no single source.
"""

from collections.abc import Iterator
from dataclasses import replace

from pydantic import Field

from izett.errors import StepRefused
from izett.pattern.document import CornerCut, CutCorner
from izett.pattern.halves import origin
from izett.pattern.naming import readable
from izett.pattern.working import Readable
from izett.styling.operation import Context, Group, Keeps, Offer, Operation, Outcome, Section, Sum
from izett.styling.references import LineRef, Params, VertexRef
from izett.styling.subject import Kind, Subject
from izett.styling.words import line_words

WORDS = {CornerCut.MITRE: "mitred", CornerCut.SQUARE: "squared", CornerCut.FOLDED: "folded back"}


class CutTheCorner(Params):
    """Which corner, and how."""

    at: VertexRef = Field(description="the corner")
    kind: CornerCut = Field(CornerCut.SQUARE, description="mitred, squared or folded back")
    along: LineRef | None = Field(None, description="the line that is squared, or turned up; none for a mitre")


def apply(params: CutTheCorner, context: Context) -> Outcome:
    """Note on the garment how the corner is cut."""
    piece = context.piece_with(str(params.at))
    corner = piece.aliases.get(str(params.at), str(params.at))
    meet = [edge for edge in piece.edges if corner in (edge.start, edge.end) and not edge.is_leg]
    lines = {edge.lineage for edge in meet}
    if params.kind is not CornerCut.MITRE and (params.along is None or str(params.along) not in lines):
        raise StepRefused(
            f"Which of the two lines at this corner is {WORDS[params.kind]}?",
            fix=f"Choose {' or '.join(line_words(line) for line in sorted(lines))}.",
            where=(str(params.at),),
        )
    now = context.garment.allowances
    cut = CutCorner(params.kind, origin(str(params.along)).name if params.along is not None else "")
    corners = {**now.corners, origin(corner).name: cut}
    return Outcome(
        context.garment.cut_for(replace(now, corners=corners)), (Sum("corners set apart", len(corners), ""),)
    )


def describe(params: CutTheCorner) -> str:
    """Return the step in the maker's words."""
    along = f" along {line_words(params.along)}" if params.along is not None else ""
    return f"The corner {readable(str(params.at))}: {WORDS[params.kind]}{along}"


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer the three ways at the end of a line that is pointed at."""
    if subject.kind is not Kind.LINE or subject.span is None or subject.role is None:
        return
    for kind in (CornerCut.SQUARE, CornerCut.FOLDED):
        params = {"at": subject.span.end, "kind": kind.value, "along": subject.name}
        yield Offer(f"Its end at the corner: {WORDS[kind]}", params)


OPERATION = Operation(
    key="cut_corner",
    title="Cut a corner",
    params=CutTheCorner,
    apply=apply,
    describe=describe,
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.AGREE,
    offers=offers,
    sections=(Section.FINISH,),
    examples=(
        {"at": "front.underarm", "kind": "square", "along": "front.side"},
        {"at": "front.neck_shoulder", "kind": "folded", "along": "front.neck"},
    ),
)
