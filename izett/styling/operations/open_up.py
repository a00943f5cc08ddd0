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
from izett.pattern.facts import Region, Role
from izett.pattern.levels import CENTRE
from izett.pattern.piece import Edge, LevelLine, Piece, Span, in_ring_order
from izett.pattern.sewn import beginning, span_length
from izett.pattern.working import Readable, Working
from izett.styling.notching import notched, unnotched
from izett.styling.operation import Context, Group, Keeps, Offer, Operation, Outcome, Sum, length
from izett.styling.references import Params, SpanRef
from izett.styling.rims import line_under, under_waist
from izett.styling.subject import Kind, Subject
from izett.styling.words import line_words
from izett.units import whole_millimetres
from izett.wording import cm

#: cm. A zip that runs on through the waist goes so far below it.
BELOW_WAIST = 20.0
#: cm. An opening that ends so near to the end of its line runs to it.
ENDS = 1e-6
#: cm. A centre edge bent by more takes no button stand.
STRAIGHT = 0.3


class OpenUp(Params):
    """Where it opens, how it closes, how far."""

    closure: Closure = Field(Closure.ZIP, description="how it closes; a slit stays open")
    at: SpanRef = Field(description="the seam or edge; the opening begins where the line starts")
    on: tuple[SpanRef, ...] = Field(
        (), max_length=4, description="the lines that it runs on along, beyond a seam across"
    )
    long: float = length(20.0, low=0, high=150, meaning="length of the opening (0: the whole line)")
    stand: float = length(0.0, low=0, high=8, meaning="button stand beyond the centre: one diameter of a button")


def apply(params: OpenUp, context: Context) -> Outcome:
    """Note the opening, mark its end, and add the stand."""
    lines = (params.at, *params.on)
    lengths = [sum(span_length(context.piece_with(s.start), s) for s in context.chain(line.span)) for line in lines]
    whole = sum(lengths)
    if params.long > whole + 1e-6:
        along = " and ".join(line_words(line.along, begins=i == 0) for i, line in enumerate(lines))
        raise StepRefused(
            f"{along} {'is' if len(lines) == 1 else 'are'} {cm(whole)} long: an opening of {cm(params.long, 2)} is longer.",
            fix=f"Open at most {cm(whole)}.",
            where=tuple(line.along for line in lines),
        )
    context = context.on(_without(context, params.at.span, params.closure))
    pattern = context.garment
    left = params.long or whole
    openings = []
    for number, (line, long) in enumerate(zip(lines, lengths, strict=True)):
        here = min(left, long)
        if here <= 0:
            break
        label = "opening" if number == 0 else f"opening_{number + 1}"
        openings.append(Opening(context.named(label), params.closure, line.span, here))
        if not params.stand:
            pattern = _with_end(context.on(pattern), line, here)
        left -= here
    if params.stand:
        pattern = pattern.with_pieces(
            _with_stand(context.piece_with(context.chain(params.at.span)[0].start), params, context)
        )
    pattern = pattern.adding(openings=tuple(openings))
    told = [Sum("opening", sum(opening.length for opening in openings))]
    if params.stand:
        told.append(Sum("button stand", params.stand))
    return Outcome(pattern, tuple(told), tuple(opening.name for opening in openings))


def _without(context: Context, line: Span, closure: Closure) -> Working:
    """Return the garment without an opening of that kind that begins at the same place: this one lies in its stead."""
    garment = context.garment
    place = beginning(garment, line)
    alike = [opening for opening in garment.openings if opening.closure is closure]
    gone = [opening for opening in alike if beginning(garment, opening.span) == place]
    # What ran on beyond the waist goes with it.
    under = under_waist(garment.pieces) if gone else {}
    beyond = {under.get(opening.span.end) for opening in gone}
    gone += [opening for opening in alike if opening.span.start in beyond]
    for opening in gone:
        context = context.on(unnotched(context, opening.span, opening.length))
    return context.garment.with_openings(tuple(o for o in garment.openings if o not in gone)) if gone else garment


def _with_end(context: Context, line: SpanRef, long: float) -> Working:
    """Return the garment with a notch where an opening ends within a line, on both sides of its seam."""
    whole = context.span_length(line.span)
    return notched(context, line.span, long) if long < whole - ENDS else context.garment


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
    long = f"{cm(params.long, 2)} long" if params.long else "all along it"
    return f"{what.get(params.closure, 'Slit')} in {line_words(params.at.along)}, {long}{stand}"


def offers(subject: Subject, pattern: Readable) -> Iterator[Offer]:
    """Offer the closures that suit the line, from its upper end; a slit from the hem."""
    roles = (Role.CENTRE_BACK, Role.CENTRE_FRONT, Role.SIDE, Role.PANEL, Role.UNDERARM)
    if subject.kind is not Kind.LINE or subject.role not in roles or subject.piece is None or subject.span is None:
        return
    up, down = _upright(subject)
    whole = whole_millimetres(sum(e.curve.length for e in subject.piece.edges if e.lineage == subject.name))
    for closure in (Closure.ZIP, Closure.LACING, Closure.PLACKET):
        yield Offer(f"Open it: {closure.value}", {"closure": closure.value, "at": up, "long": min(20.0, whole)})
    under = under_waist(pattern.pieces).get(down["start"]) if subject.piece.region is Region.UPPER else None
    on = line_under(pattern, under) if under is not None else None
    if on is not None:
        lines = [{"start": on.start, "end": on.end, "along": on.along}]
        yield Offer(
            "Zip, on through the waist",
            {"closure": "zip", "at": up, "on": lines, "long": whole_millimetres(whole + BELOW_WAIST)},
        )
    hems = {name for e in subject.piece.edges if e.role in (Role.HEM, Role.CUT_EDGE) for name in (e.start, e.end)}
    if subject.piece.aliases.get(down["start"], down["start"]) in hems:
        yield Offer("Slit from the hem", {"closure": "slit", "at": down, "long": min(20.0, whole)})
    if subject.role in (Role.CENTRE_FRONT, Role.CENTRE_BACK):
        yield Offer("Buttons, with a stand", {"closure": "buttons", "at": up, "long": 0.0, "stand": 1.8})


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
