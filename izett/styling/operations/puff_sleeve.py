"""Puff the cap: slashed from the cap to the hem, spread, and raised, so that it is gathered into the armhole.

Hinged at the hem only the cap becomes fuller; parallel the whole sleeve does. Common practice, no single source.
"""

from collections.abc import Iterator
from dataclasses import replace

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.fit import smoothed
from izett.geometry.point import Point
from izett.pattern.facts import Role, SeamKind
from izett.pattern.piece import Edge, Piece
from izett.pattern.sewn import holding
from izett.pattern.working import Readable
from izett.styling.fullness import meant
from izett.styling.operation import Context, Group, Offer, Operation, Outcome, Sum, as_fullness, count, length
from izett.styling.parting import seam_of
from izett.styling.references import Params
from izett.styling.spreading import Slash, spread
from izett.styling.subject import Kind, Subject
from izett.styling.told import long_in, top
from izett.wording import cm


class PuffSleeve(Params):
    """How full and how high."""

    fullness: float = length(8.0, low=1, high=40, meaning="added across the cap")
    height: float = length(2.0, low=0, high=8, meaning="the crown rises by")
    lines: int = count(4, low=2, high=8, meaning="lines the cap is slashed along, half in front and half behind")
    whole: bool = Field(False, description="spread down to the hem as well, not hinged there")


def apply(params: PuffSleeve, context: Context) -> Outcome:
    """Spread the cap and raise its crown."""
    seam = seam_of(context, SeamKind.CAP)
    sleeve = holding(context.garment, seam.sides[1][0].start)
    caps = [e for e in sleeve.edges if e.role is Role.CAP]
    hem = next((e for e in sleeve.edges if e.role is Role.HEM), None)
    if len(caps) != 2 or hem is None:
        raise StepRefused(
            "The cap is parted, or the sleeve has no hem.", fix="Puff it before that step.", where=("cap",)
        )
    opened = spread(sleeve, _slashes(caps, hem, params))
    new = _raised(opened.piece, params.height)
    pattern, sums = meant(context.garment, context.garment.with_pieces(new), lies="gathered over the crown")
    told = (
        Sum("added along the cap", long_in(new, Role.CAP) - long_in(sleeve, Role.CAP)),
        Sum("crown higher", top(new.outline()) - top(sleeve.outline())),
    )
    return Outcome(pattern, (*told, *sums))


def _slashes(caps: list[Edge], hem: Edge, params: PuffSleeve) -> list[Slash]:
    half = (params.lines + 1) // 2
    each = params.fullness / (2 * half)
    starts: list[tuple[Edge, float]] = []
    for cap, rising in zip(caps, (True, False), strict=True):
        # Over the upper half of the cap, which is gathered: in ring order up the first cap, down the second.
        shares = [0.5 + 0.45 * (i + 0.5) / half for i in range(half)]
        shares = shares if rising else [1 - share for share in reversed(shares)]
        starts += [(cap, cap.curve.length * share) for share in shares]
    n = len(starts)
    ends = [(hem, hem.curve.length * (1 - (i + 1) / (n + 1))) for i in range(n)]
    return [Slash(start, end, each, each if params.whole else 0.0) for start, end in zip(starts, ends, strict=True)]


def _raised(sleeve: Piece, height: float) -> Piece:
    """Return the sleeve with its crown raised, blended down both sides."""
    if not height:
        return sleeve
    caps = [e for e in sleeve.edges if e.role is Role.CAP]
    top = max(p[1] for e in caps for p in (e.curve.start, e.curve.end))
    # The underarm corners stay: of the two the higher is the base.
    base = sorted(p[1] for e in caps for p in (e.curve.start, e.curve.end))[1]

    def raised(point: Point) -> Point:
        share = max(0.0, (point[1] - base) / (top - base))
        return (point[0], point[1] + height * share**3)

    ring = tuple(
        replace(e, curve=smoothed([e.curve])[0].mapped(raised)) if e.role is Role.CAP else e for e in sleeve.edges
    )
    return replace(sleeve, edges=ring, marks={k: raised(p) for k, p in sleeve.marks.items()})


def describe(params: PuffSleeve) -> str:
    """Return the step in the maker's words."""
    how = "the whole sleeve" if params.whole else "the cap"
    return f"Puff {how}: {cm(params.fullness, 2)} fuller, {cm(params.height, 2)} higher"


def offers(subject: Subject, pattern: Readable) -> Iterator[Offer]:
    """Offer a puff where a cap is pointed at."""
    if subject.kind is Kind.LINE and subject.role is Role.CAP and pattern.seams_of(SeamKind.CAP):
        yield Offer("Puff the cap", {"fullness": 8.0})
        yield Offer("Gathered at cap and hem", {"fullness": 10.0, "whole": True})


OPERATION = Operation(
    key="puff_sleeve",
    title="Puff the sleeve",
    params=PuffSleeve,
    apply=apply,
    describe=describe,
    width=as_fullness,
    group=Group.SLEEVE,
    offers=offers,
    blocks=("bodice", "sleeve"),
    examples=({"fullness": 8.0, "height": 2.0}, {"fullness": 10.0, "whole": True, "lines": 6}),
)
