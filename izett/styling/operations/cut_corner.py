"""Cut the corner at the end of a line in a way of its own: mitred, squared to that line, or folded back along it.

Hems are folded back where they meet a side, and everything else is mitred, until the maker says otherwise. The end of a
panel seam at a neck or an armhole is often squared, so that its allowances, pressed open, lie edge on edge with the
other's. No shape changes. Common practice, no single source.
"""

from collections.abc import Iterator
from dataclasses import replace

from pydantic import Field

from izett.errors import ReferenceLost
from izett.pattern.document import CornerCut, CutCorner
from izett.pattern.halves import origin
from izett.pattern.piece import in_ring_order
from izett.pattern.working import Readable
from izett.styling.operation import Context, Group, Keeps, Offer, Operation, Outcome, Section, Sum
from izett.styling.references import LineRef, Params
from izett.styling.subject import Kind, Subject
from izett.styling.words import line_words

WORDS = {CornerCut.MITRE: "mitred", CornerCut.SQUARE: "squared", CornerCut.FOLDED: "folded back"}


class CutTheCorner(Params):
    """Which corner, and how."""

    kind: CornerCut = Field(CornerCut.SQUARE, description="mitred, squared to the line, or folded back along it")
    line: LineRef = Field(description="the line that ends at the corner")
    at_start: bool = Field(False, description="where the line begins, walking round the piece counter-clockwise")


def apply(params: CutTheCorner, context: Context) -> Outcome:
    """Note on the garment how the corner is cut, on every piece that has the line."""
    line = str(params.line)
    corners: dict[str, CutCorner] = {}
    for piece in context.garment.with_lineage(line):
        run = in_ring_order(edge for edge in piece.edges if edge.lineage == line)
        corner = run[0].start if params.at_start else run[-1].end
        corners[origin(corner).name] = CutCorner(params.kind, origin(line).name)
    if not corners:
        raise ReferenceLost(
            f"{line_words(params.line, begins=True)} is not there (any more).",
            fix="Choose another line.",
            where=(line,),
        )
    now = context.garment.allowances
    cut_for = replace(now, corners={**now.corners, **corners})
    return Outcome(context.garment.cut_for(cut_for), (Sum("corners", float(len(corners)), ""),))


def describe(params: CutTheCorner) -> str:
    """Return the step in the maker's words."""
    end = "beginning" if params.at_start else "end"
    return f"The corner at the {end} of {line_words(params.line)}: {WORDS[params.kind]}"


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer both ends of a line that is pointed at."""
    if subject.kind is not Kind.LINE or subject.role is None:
        return
    for at_start, end in ((True, "beginning"), (False, "end")):
        yield Offer(f"Square its corner, at its {end}", {"line": subject.name, "at_start": at_start})


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
        {"line": "front.side", "at_start": False},
        {"kind": "folded", "line": "front.neck", "at_start": True},
    ),
)
