"""Open the garment: a zip, buttons, a placket, lacing or a slit along a seam or an edge.

What cannot be pulled on needs one: a zip at the centre back or the side goes 18 to 20 cm below the waist, a slit gives
room to step. A button stand widens the centre front by the diameter of a button; the old centre stays marked. Common
practice, no single source.
"""

from collections.abc import Iterator
from dataclasses import replace
from itertools import pairwise

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.curve import straight
from izett.geometry.point import add, right_of, scale, subtract, unit
from izett.pattern.document import Closure, Opening
from izett.pattern.facts import Role
from izett.pattern.levels import CENTRE
from izett.pattern.piece import Edge, LevelLine, Notch, NotchKind, Piece, in_ring_order
from izett.pattern.sewn import span_length
from izett.pattern.working import Readable
from izett.styling.operation import Context, Group, Keeps, Offer, Operation, Outcome, Sum, length
from izett.styling.references import Params, SpanRef
from izett.styling.subject import Kind, Subject
from izett.styling.words import line_words
from izett.units import whole_millimetres
from izett.wording import cm

#: cm. A centre edge bent by more takes no button stand.
STRAIGHT = 0.3


class OpenUp(Params):
    """Where it opens, how it closes, how far."""

    closure: Closure = Field(Closure.ZIP, description="how it closes; a slit stays open")
    at: SpanRef = Field(description="the seam or edge; the opening begins where the line starts")
    long: float = length(20.0, low=0, high=150, meaning="length of the opening (0: the whole line)")
    stand: float = length(0.0, low=0, high=8, meaning="button stand beyond the centre: one diameter of a button")


def apply(params: OpenUp, context: Context) -> Outcome:
    """Note the opening, mark its end, and add the stand."""
    chain = context.chain(params.at.span)
    whole = sum(span_length(context.piece_with(span.start), span) for span in chain)
    if params.long > whole + 1e-6:
        raise StepRefused(
            f"{line_words(params.at.along, begins=True)} is {cm(whole)} long: an opening of {cm(params.long, 2)} is longer.",
            fix=f"Open at most {cm(whole)}.",
            where=(params.at.along,),
        )
    pattern = context.garment
    first = chain[0]
    piece = context.piece_with(first.start)
    opened = params.long or whole
    long = min(opened, span_length(piece, first))
    if params.stand:
        pattern = pattern.with_pieces(_with_stand(piece, params, context))
    elif long < span_length(piece, first):
        marked = replace(piece, notches=(*piece.notches, Notch(first, long, NotchKind.SINGLE)))
        pattern = pattern.with_pieces(marked)
    opening = Opening(context.named("opening"), params.closure, params.at.span, opened)
    pattern = pattern.adding(openings=(opening,))
    told = [Sum("opening", opened)]
    if params.stand:
        told.append(Sum("button stand", params.stand))
    return Outcome(pattern, tuple(told), (opening.name,))


def _with_stand(piece: Piece, params: OpenUp, context: Context) -> Piece:
    """Return a piece whose centre edge lies further out; neckline and hem run on to it, the old centre is marked."""
    run = in_ring_order(e for e in piece.edges if e.lineage == params.at.along)
    start, end = run[0].curve.start, run[-1].curve.end
    along = unit(subtract(end, start))
    bent = max(abs((p[0] - start[0]) * along[1] - (p[1] - start[1]) * along[0]) for e in run for p in e.curve.points)
    if bent > STRAIGHT:
        raise StepRefused(
            f"{line_words(params.at.along, begins=True)} is not straight: a button stand cannot be added.",
            fix="Straighten it first.",
            where=(params.at.along,),
        )
    if any(one.end != other.start for one, other in pairwise(run)):
        raise StepRefused(
            f"{line_words(params.at.along, begins=True)} is interrupted: a button stand cannot be added along it.",
            fix="Choose a line that runs through, without a dart in it.",
            where=(params.at.along,),
        )
    out = scale(right_of(along), params.stand)
    i, j = piece.edges.index(run[0]), piece.edges.index(run[-1])
    before, after = piece.edges[i - 1], piece.edges[(j + 1) % len(piece.edges)]
    far_start, far_end = add(start, out), add(end, out)
    corners = (context.named("stand_start"), context.named("stand_end"))
    stand = (
        Edge(before.role, context.named("stand_before"), run[0].start, corners[0], straight(start, far_start)),
        Edge(run[0].role, run[0].lineage, corners[0], corners[1], straight(far_start, far_end)),
        Edge(after.role, context.named("stand_after"), corners[1], run[-1].end, straight(far_end, end)),
    )
    ring = [e for e in piece.edges if not any(e is gone for gone in run)]
    at = ring.index(before) + 1
    return replace(
        piece,
        edges=(*ring[:at], *stand, *ring[at:]),
        on_fold=None,
        cut=2 if piece.on_fold else piece.cut,
        lines=(*piece.lines, LevelLine(CENTRE, (start, end))),
    )


def describe(params: OpenUp) -> str:
    """Return the step in the maker's words."""
    what = {Closure.ZIP: "Zip", Closure.BUTTONS: "Buttons", Closure.PLACKET: "Placket", Closure.LACING: "Lacing"}
    stand = f", stand {cm(params.stand, 2)}" if params.stand else ""
    long = f"of {cm(params.long, 2)} in" if params.long else "all along"
    return f"{what.get(params.closure, 'Slit')} {long} {line_words(params.at.along)}{stand}"


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer the closures that suit the line, from its upper end; a slit from the hem."""
    roles = (Role.CENTRE_BACK, Role.CENTRE_FRONT, Role.SIDE, Role.PANEL, Role.UNDERARM)
    if subject.kind is not Kind.LINE or subject.role not in roles or subject.piece is None or subject.span is None:
        return
    up, down = _upright(subject)
    whole = whole_millimetres(sum(e.curve.length for e in subject.piece.edges if e.lineage == subject.name))
    for closure in (Closure.ZIP, Closure.LACING, Closure.PLACKET):
        yield Offer(f"Open it: {closure.value}", {"closure": closure.value, "at": up, "long": min(20.0, whole)})
    yield Offer("Slit from the hem", {"closure": "slit", "at": down, "long": min(20.0, whole)})
    if subject.role in (Role.CENTRE_FRONT, Role.CENTRE_BACK):
        yield Offer("Buttons, with a stand", {"closure": "buttons", "at": up, "long": whole, "stand": 1.8})


def _upright(subject: Subject) -> tuple[dict[str, str], dict[str, str]]:
    """Return the line from its upper end down, and from its lower end up."""
    assert subject.piece is not None and subject.span is not None
    span = subject.span
    line = subject.line()
    other = {"start": span.end, "end": span.start, "along": span.along}
    if not (subject.piece.holds(span.start) and subject.piece.holds(span.end)):
        return line, other
    falls = subject.piece.vertex(span.start)[1] > subject.piece.vertex(span.end)[1]
    return (line, other) if falls else (other, line)


OPERATION = Operation(
    key="open_up",
    title="Open it: zip, buttons, placket, lacing, slit",
    params=OpenUp,
    apply=apply,
    describe=describe,
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.HEM,
    offers=offers,
    examples=(
        {
            "closure": "zip",
            "at": {"start": "back.neck_cb", "end": "back.waist_cb", "along": "back.centre"},
            "long": 38.0,
        },
        {
            "closure": "slit",
            "at": {"start": "back.waist_side", "end": "back.underarm", "along": "back.side"},
            "long": 6.0,
        },
        {
            "closure": "buttons",
            "at": {"start": "front.neck_cf", "end": "front.waist_cf", "along": "front.centre"},
            "long": 30.0,
            "stand": 1.8,
        },
    ),
)
