"""Re-cap the sleeve: fit its cap to the armhole as it is now, with the ease that is wanted.

By width: the cap keeps its height and the sleeve grows wider or narrower at the bicep line; by height: the bicep keeps
its width. The shoulder point is set so that front and back each have half of the ease. It is worked after all that
shapes the armhole, so a later change of the armhole reaches it. Common practice, no single source.
"""

from collections.abc import Callable, Iterator
from dataclasses import replace
from enum import StrEnum

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.point import Point
from izett.geometry.root import root, roots
from izett.pattern.document import Seam
from izett.pattern.facts import Role, SeamKind, Zone
from izett.pattern.piece import Piece, Span
from izett.pattern.sewn import holding, seam_lengths, span_length, walk
from izett.pattern.working import Readable, Working
from izett.styling.caps import outline_warped, warped
from izett.styling.operation import Context, Group, Offer, Operation, Outcome, Section, Sum, as_ease, length
from izett.styling.parting import seam_named, seam_of
from izett.styling.references import Params, SeamRef
from izett.styling.subject import Kind, Subject, seam_at
from izett.wording import cm, named

#: Cap grown or shrunk beyond this is another sleeve.
LEAST_FACTOR, MOST_FACTOR = 0.3, 2.0
#: cm. A cap so near to what is meant fits.
AGREES = 0.02
#: cm. A cap whose front or back has so much more ease than the other is turned to its shoulder seam again.
UNEVEN = 0.4


class By(StrEnum):
    """What gives."""

    WIDTH = "width"
    HEIGHT = "height"


class RecapSleeve(Params):
    """How the cap is fitted."""

    by: By = Field(By.WIDTH, description="width: the bicep line grows; height: the cap rises")
    ease: float = length(2.5, low=-1, high=6, meaning="the cap is longer than the armhole")
    seam: SeamRef = Field(SeamRef(""), description="the seam of the cap, where it is a lining's (else the sleeve's)")
    as_meant: bool = Field(False, description="with the ease that is meant already, in whichever way fits")


def apply(params: RecapSleeve, context: Context) -> Outcome:
    """Draw the cap to the armhole's length."""
    seam = seam_named(context, params.seam) if params.seam else seam_of(context, SeamKind.CAP)
    if seam.kind is not SeamKind.CAP:
        raise StepRefused(
            f"{context.called(seam.name)} is no seam of a cap.", fix="Choose the cap's seam.", where=(seam.name,)
        )
    pattern = context.garment
    if len(seam.sides[1]) != 2:
        raise StepRefused(
            "The cap is parted: it cannot be fitted as one.", fix="Re-cap before that step.", where=("cap",)
        )
    front, back = seam.sides[1]
    sleeve = holding(pattern, front.start)
    before = seam_lengths(pattern, seam)
    ease = sum(seam.ease) / 2 if params.as_meant else params.ease
    wanted = _wanted(pattern, seam, ease)
    own = [span_length(sleeve, span) for span in (front, back)]
    even = all(abs(is_now - wish) <= UNEVEN for is_now, wish in zip(own, wanted, strict=True))
    if params.as_meant and even and abs(before[1] - before[0] - ease) <= AGREES:
        # The other half, perhaps, that nothing has changed: it stays as it is.
        return Outcome(pattern)
    old_width = sleeve.level("bicep")
    new = _fitted_so(params, sleeve, front.end, (front, back), wanted)
    after = pattern.with_pieces(new).with_seam(seam if params.as_meant else replace(seam, ease=(ease, ease)))
    height = new.vertex(front.end)[1] - new.vertex(front.start)[1]
    return Outcome(
        after,
        (
            Sum("armhole", before[0]),
            Sum("cap before", before[1]),
            Sum("cap now", seam_lengths(after, after.find_seam(seam.name) or seam)[1]),
            Sum("bicep line wider", new.level("bicep") - old_width),
            Sum("cap height", height),
        ),
    )


def _wanted(pattern: Working, seam: Seam, ease: float) -> tuple[float, float]:
    """Return the lengths of the front and the back cap: the armhole's, with half of the ease each."""
    halves = {Zone.FRONT: 0.0, Zone.BACK: 0.0}
    for span in seam.sides[0]:
        piece = holding(pattern, span.start)
        halves[Zone.FRONT if piece.zone_of(span.along) is Zone.FRONT else Zone.BACK] += span_length(piece, span)
    if not all(halves.values()):
        whole = sum(halves.values())
        halves = {Zone.FRONT: whole / 2, Zone.BACK: whole / 2}
    return halves[Zone.FRONT] + ease / 2, halves[Zone.BACK] + ease / 2


def _fitted_so(
    params: RecapSleeve, sleeve: Piece, top: str, halves: tuple[Span, Span], wanted: tuple[float, float]
) -> Piece:
    try:
        return _fitted(sleeve, top, halves, wanted, params.by)
    except StepRefused:
        if not params.as_meant:
            raise
        return _fitted(sleeve, top, halves, wanted, By.HEIGHT if params.by is By.WIDTH else By.WIDTH)


def _fitted(sleeve: Piece, top: str, halves: tuple[Span, Span], wanted: tuple[float, float], by: By) -> Piece:
    crown = sleeve.vertex(top)
    base = sleeve.vertex(next(e.start for e in sleeve.edges if e.role is Role.CAP))[1]

    # Both halves of a cap may be one line: they are told apart by their edges.
    starts = [frozenset(stretch.edge.start for stretch in walk(sleeve, half)) for half in halves]

    def grown(factor: float, shift: float) -> Callable[[Point], Point]:
        def move(point: Point) -> Point:
            rise = (point[1] - base) / (crown[1] - base)
            x = crown[0] + (point[0] - crown[0]) * (factor if by is By.WIDTH else 1.0) + shift * rise
            y = base + (point[1] - base) * (factor if by is By.HEIGHT else 1.0)
            return (x, y)

        return move

    def off(factor: float, shift: float) -> tuple[float, float]:
        drawn = outline_warped(sleeve, grown(factor, shift))
        front, back = (sum(e.curve.length for e in drawn.edges if e.start in own) for own in starts)
        return front - wanted[0], back - wanted[1]

    try:
        factor, shift = _solved(off)
    except ValueError:
        raise StepRefused(
            f"The cap cannot be fitted to an armhole of {cm(sum(wanted))} with its ease by {by.value} alone.",
            fix="Fit it by the other way, or change the armhole.",
            where=("cap",),
        ) from None
    return warped(sleeve, grown(factor, shift))


def _solved(off: Callable[[float, float], tuple[float, float]]) -> tuple[float, float]:
    """Return by what factor and shift both halves fit: from the cap as it is, or else from one that fits as a whole."""
    try:
        factor, shift = roots(off, (1.0, 0.0))
        if LEAST_FACTOR <= factor <= MOST_FACTOR:
            return factor, shift
    except ValueError:
        pass
    return roots(off, (root(lambda f: sum(off(f, 0.0)), LEAST_FACTOR, MOST_FACTOR), 0.0))


def describe(params: RecapSleeve) -> str:
    """Return the step in the maker's words."""
    ease = "with its ease" if params.as_meant else f"with {cm(params.ease, 2)} of ease"
    what = f"the sleeve in the {named(params.seam)} seam" if params.seam else "the sleeve"
    return f"Re-cap {what} to its armhole by {params.by.value}, {ease}"


def offers(subject: Subject, pattern: Readable) -> Iterator[Offer]:
    """Offer to re-cap where an armhole or a cap with a seam between them is pointed at."""
    if subject.kind is not Kind.LINE or subject.role not in (Role.CAP, Role.ARMHOLE) or subject.piece is None:
        return
    own = seam_at(pattern, subject.piece, subject.name)
    usual = next(iter(pattern.seams_of(SeamKind.CAP)), None)
    if usual is None or (own is not None and own.kind is not SeamKind.CAP):
        return
    which = {"seam": own.name} if own is not None and own.name != usual.name else {}
    for by in By:
        yield Offer(
            f"Re-cap the {'lining' if which else 'sleeve'} by {by.value}", {"by": by.value, "ease": 2.5, **which}
        )


OPERATION = Operation(
    key="recap_sleeve",
    title="Re-cap the sleeve",
    params=RecapSleeve,
    apply=apply,
    describe=describe,
    width=as_ease,
    group=Group.SLEEVE,
    offers=offers,
    sections=(Section.FOLLOW,),
    blocks=("bodice", "sleeve"),
    examples=({"by": "width", "ease": 2.0}, {"by": "height", "ease": 3.0}),
)
