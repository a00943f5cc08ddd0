"""Turn a hem or a facing: its allowance is its depth and what of the raw edge is turned under, its ends folded back.

A hem of 4 cm with 1 cm turned under is cut 5 cm longer than it is sewn; a facing in one with its piece is a deep turning
along an edge. Its fold is the sewing line; where the raw edge is turned under, a line is drawn. At both ends the allowance
mirrors what it will lie against. No shape changes. Common practice, no single source.
"""

from collections.abc import Iterator
from dataclasses import replace

from pydantic import Field

from izett.errors import ReferenceLost, StepRefused
from izett.finishing.allowances import WIDEST
from izett.pattern.document import CornerCut, CutCorner, Turning
from izett.pattern.facts import Role
from izett.pattern.halves import origin
from izett.pattern.piece import in_ring_order
from izett.pattern.working import Readable
from izett.styling.operation import Context, Group, Keeps, Offer, Operation, Outcome, Section, Sum, length
from izett.styling.references import LineRef, Params
from izett.styling.subject import Kind, Subject
from izett.styling.words import line_words
from izett.wording import cm

#: Lines that are turned: hems, and edges that a facing in one with the piece lies along.
TURNED = (Role.HEM, Role.CENTRE_FRONT, Role.CENTRE_BACK, Role.PANEL, Role.WAIST)


class TurnEdge(Params):
    """Which line, and how deep."""

    line: LineRef = Field(description="the line that is turned")
    depth: float = length(4.0, low=0.3, high=WIDEST, meaning="depth, from the fold to where it ends")
    under: float = length(1.0, low=0, high=WIDEST / 2, meaning="turned under at the raw edge; 0 where it is not")


def apply(params: TurnEdge, context: Context) -> Outcome:
    """Note the turning, its allowance, and how its ends are cut."""
    line = str(params.line)
    whole = params.depth + params.under
    if params.under >= params.depth or whole > WIDEST:
        raise StepRefused(
            f"{cm(params.under, 2)} cannot be turned under a depth of {cm(params.depth, 2)}.",
            fix=f"Turn less under; depth and what is turned under are at most {cm(WIDEST)} together.",
            where=(line,),
        )
    name = origin(line).name
    corners: dict[str, CutCorner] = {}
    for piece in context.garment.with_lineage(line):
        run = in_ring_order(edge for edge in piece.edges if edge.lineage == line)
        for corner in (run[0].start, run[-1].end):
            corners[origin(corner).name] = CutCorner(CornerCut.FOLDED, name)
    if not corners:
        raise ReferenceLost(
            f"{line_words(params.line, begins=True)} is not there (any more).",
            fix="Choose another line.",
            where=(line,),
        )
    now = context.garment.allowances
    cut_for = replace(
        now,
        by_lineage={**now.by_lineage, name: whole},
        corners={**now.corners, **corners},
        turnings={**now.turnings, name: Turning(params.depth, params.under)},
    )
    told = (Sum("allowance", whole), Sum("depth", params.depth), Sum("turned under", params.under))
    return Outcome(context.garment.cut_for(cut_for), told)


def describe(params: TurnEdge) -> str:
    """Return the step in the maker's words."""
    under = f", {cm(params.under, 2)} turned under" if params.under else ""
    return f"{line_words(params.line, begins=True)}: turned {cm(params.depth, 2)} deep{under}"


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer it on hems, and on edges that can have their facing in one with the piece."""
    if subject.kind is Kind.LINE and subject.role in TURNED:
        words = "Turn the hem" if subject.role is Role.HEM else "Turn it to a facing"
        depth = 4.0 if subject.role is Role.HEM else 6.0
        yield Offer(words, {"line": subject.name, "depth": depth})


OPERATION = Operation(
    key="turn_edge",
    title="Turn a hem or a facing",
    params=TurnEdge,
    apply=apply,
    describe=describe,
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.HEM,
    offers=offers,
    sections=(Section.FINISH,),
    examples=({"line": "front.side", "depth": 3.0, "under": 0.7}, {"line": "back.waist", "depth": 5.0, "under": 0.0}),
)
