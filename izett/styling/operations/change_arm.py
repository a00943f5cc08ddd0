"""Let out or take in a sleeve at its underarm seam, by level: at the bicep, the elbow and the wrist.

Both edges of the seam change alike, so that it stays even. Where the bicep line has changed the cap is fitted again by its
height. Common
practice, no single source.
"""

from collections.abc import Iterator

from izett.errors import ReferenceLost, StepRefused
from izett.geometry.point import distance
from izett.pattern.facts import Corner, Region, Role, SeamKind, Zone
from izett.pattern.levels import settled_since
from izett.pattern.piece import Edge, Piece
from izett.pattern.working import Readable
from izett.styling.by_level import Amount, let_out
from izett.styling.operation import SHAPES, Context, Group, Keeps, Offer, Operation, Outcome, Sum, as_ease, length
from izett.styling.references import Params
from izett.styling.subject import Kind, Subject
from izett.styling.told import long_in
from izett.styling.words import signed
from izett.wording import cm

#: Of the width of a level so much must be left.
LEAST_SHARE = 0.6


class ChangeArm(Params):
    """Amounts at each edge of the underarm seam; positive lets out."""

    bicep: float = length(0.0, low=-3, high=4, meaning="at the bicep, each edge")
    elbow: float = length(0.0, low=-3, high=4, meaning="at the elbow, each edge")
    wrist: float = length(0.0, low=-4, high=6, meaning="at the wrist, each edge")


def apply(params: ChangeArm, context: Context) -> Outcome:
    """Move both edges of the underarm seam out or in."""
    given = context.garment
    pieces = [p for p in given.of_block((Zone.SLEEVE, Region.ARM)) if any(e.role is Role.UNDERARM for e in p.edges)]
    if not pieces:
        raise ReferenceLost(
            "There is no sleeve with an underarm seam.", fix="Add the sleeve first.", where=(str(Region.ARM),)
        )
    pattern = given
    told: list[Sum] = []
    for piece in pieces:
        new = _let_out(piece, params)
        pattern = pattern.with_pieces(new)
        told += [
            Sum("bicep line wider", new.level("bicep") - piece.level("bicep")),
            Sum("hem of the sleeve longer", long_in(new, Role.HEM) - long_in(piece, Role.HEM)),
        ]
    if params.bicep and given.seams_of(SeamKind.CAP):
        # Its width is wanted: the cap gives in its height.
        capped = context.work("recap_sleeve", {"by": "height", "as_meant": True}, on=pattern, label="cap")
        pattern, told = capped.garment, [*told, *(line for line in capped.sums if line.what == "cap height")]
    return Outcome(settled_since(given, pattern), tuple(told))


def _let_out(piece: Piece, params: ChangeArm) -> Piece:
    seams: dict[str, list[Edge]] = {}
    for edge in piece.edges:
        if edge.role is Role.UNDERARM:
            seams.setdefault(edge.lineage, []).append(edge)
    elbow = next((line.points[0][1] for line in piece.lines if line.level == "elbow"), None)
    new = piece
    for edges in seams.values():
        ys = [y for edge in edges for y in (edge.curve.start[1], edge.curve.end[1])]
        at = {max(ys): params.bicep, min(ys): params.wrist}
        if elbow is not None and min(ys) < elbow < max(ys):
            at[elbow] = params.elbow
        new = let_out(
            new, [e for e in new.edges if e.role is Role.UNDERARM and e in edges], Amount.blended(at), level=True
        )
    _refuse_narrow(piece, new)
    return new


def _refuse_narrow(before: Piece, after: Piece) -> None:
    def wide(piece: Piece) -> float:
        ends = [piece.corner(Corner.WRIST_BACK), piece.corner(Corner.WRIST_FRONT)]
        spots = [piece.vertex(name) for name in ends if name is not None]
        return distance(*spots) if len(spots) == 2 else long_in(piece, Role.HEM)

    for what, was, now in (
        ("bicep", before.level("bicep"), after.level("bicep")),
        ("wrist", wide(before), wide(after)),
    ):
        if now < LEAST_SHARE * was:
            raise StepRefused(
                f"The {what} of {cm(was)} would be only {cm(now)} wide.",
                fix="Take in less.",
                where=(before.name, what),
            )


def describe(params: ChangeArm) -> str:
    """Return the step in the maker's words."""
    levels = ("bicep", "elbow", "wrist")
    parts = [f"{signed(by, 'let out', 'take in')} at the {level}" for level in levels if (by := getattr(params, level))]
    return f"Sleeve, each edge of the underarm seam: {', '.join(parts) or 'no change'}"


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer to let out the sleeve where its underarm seam is pointed at."""
    if subject.kind is Kind.LINE and subject.role is Role.UNDERARM:
        yield Offer("Let out or take in the sleeve", {"bicep": 0.5, "elbow": 0.5})


OPERATION = Operation(
    key="change_arm",
    title="Let out or take in the sleeve",
    params=ChangeArm,
    apply=apply,
    describe=describe,
    width=as_ease,
    sections=SHAPES,
    moves=(SeamKind.CAP,),
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.SLEEVE,
    offers=offers,
    blocks=("bodice", "sleeve"),
    examples=({"elbow": 0.6}, {"wrist": 0.8}, {"bicep": 0.5, "elbow": 0.5}),
)
