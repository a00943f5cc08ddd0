"""Let out or take in trouser legs at inseam and side, by level: at the thigh, the knee and the hem.

Both seams change alike, so that the crease stays in the middle and on the grain, and front and back alike, so that the
seams stay even. Common practice, no single source.
"""

from collections.abc import Iterator

from izett.errors import ReferenceLost, StepRefused
from izett.pattern.facts import Corner, Region, Role, Zone
from izett.pattern.levels import settled_since
from izett.pattern.piece import Edge, Piece
from izett.pattern.working import Readable, Working
from izett.styling.by_level import Amount, let_out
from izett.styling.operation import SHAPES, Context, Keeps, Offer, Operation, Outcome, Sum, as_ease, length
from izett.styling.references import Params
from izett.styling.seam_ends import run_on
from izett.styling.subject import Kind, Subject
from izett.styling.told import long_in, told_alike
from izett.styling.words import signed
from izett.wording import cm

#: The thigh is let out at the side so far down from the fork to the knee, as a share.
UNDER_FORK = 0.25
#: Of a hem so much must be left.
LEAST_SHARE = 0.5


class ChangeLeg(Params):
    """Amounts at each edge of inseam and side; positive lets out."""

    thigh: float = length(0.0, low=-3, high=4, meaning="at the thigh, each edge")
    knee: float = length(0.0, low=-4, high=8, meaning="at the knee, each edge")
    hem: float = length(0.0, low=-6, high=20, meaning="at the hem, each edge")


def apply(params: ChangeLeg, context: Context) -> Outcome:
    """Move inseam and side of every leg out or in."""
    given = context.garment
    legs = [p for zone in (Zone.FRONT, Zone.BACK) for p in given.of_block((zone, Region.LEGS))]
    legs = [piece for piece in legs if any(edge.role is Role.INSEAM for edge in piece.edges)]
    if not legs:
        raise ReferenceLost("There are no trouser legs.", fix="Add the trousers first.", where=(str(Region.LEGS),))
    pattern: Working = given
    for piece in legs:
        pattern = pattern.with_pieces(_let_out(piece, params))
    pattern = settled_since(given, pattern)
    wider = {
        piece.zone.value: long_in(pattern.piece(piece.name), Role.HEM) - long_in(piece, Role.HEM) for piece in legs
    }
    return Outcome(
        pattern,
        (
            *told_alike("hem of each leg longer", wider),
            Sum("edges cut", 8.0, "", both=True),
        ),
    )


def _let_out(piece: Piece, params: ChangeLeg) -> Piece:
    new = piece
    for role in (Role.INSEAM, Role.SIDE):
        edges: list[Edge] = [edge for edge in new.edges if edge.role is role]
        if not edges:
            continue
        ys = [y for edge in edges for y in (edge.curve.start[1], edge.curve.end[1])]
        knee = _height(piece, Corner.KNEE_INSEAM, min(ys))
        thigh = _height(piece, Corner.FORK, max(ys))
        if role is Role.SIDE:
            # Lower than the fork: from the hip the side runs out to it without a bulge.
            thigh -= UNDER_FORK * (thigh - knee)
        at = {min(ys): params.hem, knee: params.knee, thigh: params.thigh}
        hip = _height(piece, Corner.HIP_SIDE, max(ys))
        others = [y for y in (hip, max(ys)) if y > thigh] if role is Role.SIDE else []
        new = let_out(new, edges, Amount.blended(at, others), level=True)
        foot = piece.corner(Corner.HEM_INSEAM if role is Role.INSEAM else Corner.HEM_SIDE)
        if foot is not None:
            lineage = next(edge.lineage for edge in new.edges if edge.role is role and foot in (edge.start, edge.end))
            new = run_on(new, foot, lineage, long_in(piece, role) - long_in(new, role))
    was, now = long_in(piece, Role.HEM), long_in(new, Role.HEM)
    if now < LEAST_SHARE * was:
        raise StepRefused(
            f"The hem of the {piece.title.lower()}, {cm(was)}, would be only {cm(now)} wide.",
            fix="Take in less.",
            where=(piece.name,),
        )
    return new


def _height(piece: Piece, corner: Corner, otherwise: float) -> float:
    name = piece.corner(corner)
    return otherwise if name is None else piece.vertex(name)[1]


def describe(params: ChangeLeg) -> str:
    """Return the step in the maker's words."""
    levels = ("thigh", "knee", "hem")
    parts = [f"{signed(by, 'let out', 'take in')} at the {level}" for level in levels if (by := getattr(params, level))]
    return f"Legs, each edge of inseam and side: {', '.join(parts) or 'no change'}"


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer to let out the legs where their inseam is pointed at, or their side below the hip."""
    on_leg = subject.piece is not None and subject.piece.region is Region.LEGS
    if subject.kind is Kind.LINE and on_leg and subject.role in (Role.INSEAM, Role.SIDE):
        yield Offer("Let out or take in the legs", {"knee": 0.5, "hem": 0.5})


OPERATION = Operation(
    key="change_leg",
    title="Let out or take in the legs",
    params=ChangeLeg,
    apply=apply,
    describe=describe,
    width=as_ease,
    sections=SHAPES,
    keeps=frozenset({Keeps.SEAMS}),
    offers=offers,
    blocks=("trousers",),
    examples=({"thigh": 0.5}, {"knee": 0.8, "hem": 1.0}, {"hem": -1.0}),
)
