"""Change the ease of the whole garment: shared over the pieces by rule, the armhole lowered with it.

Side seams first, a quarter at each of the four edges, up to what a side seam takes before the garment twists; the rest
goes across the back and the front at the armhole. The underarm sinks by an eighth of what is added at the bust, so that
a roomier top has a roomier armhole; the sleeve that is set into it follows. Common practice, no single source.
"""

from collections.abc import Iterator, Mapping

from izett.pattern.facts import SeamKind
from izett.pattern.working import Readable, Working
from izett.pattern.worn import moved_levels, width
from izett.styling.operation import SHAPES, Context, Group, Offer, Operation, Outcome, Sum, as_ease, length
from izett.styling.references import Params
from izett.styling.subject import Kind, Subject
from izett.styling.words import signed

#: cm. At each edge of a side seam no more than this is added; the rest goes across.
MOST_AT_SIDE = 2.5
#: Of what is added at the bust all around, the armhole sinks by this share.
SINKS = 1 / 8
LEAST_SINK, MOST_SINK = -3.0, 14.0
EDGES = 4
#: cm. What a side edge may be given at the underarm; how much more is tried, to see what the bust gets of it; and from
#: what on it is set right.
LEAST_UNDERARM, MOST_UNDERARM = -4.0, 8.0
TRIED, LEAST = 0.5, 0.02


class ChangeEase(Params):
    """How much more ease, all around, and whether armhole and sleeve follow."""

    bust: float = length(0.0, low=-8, high=22, meaning="more ease at the bust, all around")
    waist: float = length(0.0, low=-8, high=32, meaning="more at the waist, all around")
    hip: float = length(0.0, low=-8, high=32, meaning="more at the hip, all around")


def apply(params: ChangeEase, context: Context) -> Outcome:
    """Share the change, and let the armhole sink with it."""
    side = min(max(params.bust / EDGES, -MOST_AT_SIDE), MOST_AT_SIDE)
    across = params.bust / EDGES - side
    pattern = context.garment
    told = [Sum("at each side edge, bust", side), Sum("edges", float(EDGES), "")]

    below = {"waist": params.waist / EDGES, "hip": params.hip / EDGES, "hem": params.hip / EDGES}
    pattern = _at_sides(context, side, below)
    if across:
        for part in ("back", "front"):
            pattern = context.work("widen_across", {"part": part, "amount": across}, on=pattern).garment
        told.append(Sum("across back and front, at each armhole", across))
    if params.bust:
        sink = min(max(params.bust * SINKS, LEAST_SINK), MOST_SINK)
        pattern = context.work("change_armhole", {"lower": sink}, on=pattern).garment
        told.append(Sum("armhole lower", sink))
    moved = moved_levels(context.garment, pattern)
    for level in ("bust", "waist", "hip"):
        if (was := context.garment.ease(level)) is not None:
            told.append(Sum(f"ease at the {level} now", was + moved.get(level, 0.0)))
    return Outcome(pattern, tuple(told), asks=(SeamKind.CAP,) if params.bust else ())


def _at_sides(context: Context, side: float, below: Mapping[str, float]) -> Working:
    """Return the pattern with so much at each side edge at the bust, which lies some way from the underarm to the waist."""

    def with_underarm(amount: float) -> Working:
        held = min(max(amount, LEAST_UNDERARM), MOST_UNDERARM)
        return context.work("change_side", {"underarm": held, **below}, on=context.garment).garment

    before = width(context.garment, "bust")
    as_said = with_underarm(side)
    if not before:
        return as_said
    # What is added runs out evenly from level to level, so what the bust gets is linear in what the underarm gets.
    got, more = width(as_said, "bust") - before, width(with_underarm(side + TRIED), "bust") - before
    missing = EDGES * side - got
    return with_underarm(side + missing / (more - got) * TRIED) if abs(missing) > LEAST and more > got else as_said


def describe(params: ChangeEase) -> str:
    """Return the step in the maker's words."""
    parts = [
        f"{signed(by, 'more by', 'less by')} at the {level}"
        for level, by in (("bust", params.bust), ("waist", params.waist), ("hip", params.hip))
        if by
    ]
    return f"Ease all around: {', '.join(parts) or 'as it is'}"


def offers(subject: Subject, pattern: Readable) -> Iterator[Offer]:
    """Offer to change the ease of the garment, or at the level pointed at."""
    levels = [level for level in ("bust", "waist", "hip") if level in pattern.intent.ease]
    if subject.kind is Kind.GARMENT and levels:
        yield Offer("Change the ease of the whole garment", dict.fromkeys(levels, 4.0))
    if subject.kind is Kind.LEVEL and subject.name in levels:
        yield Offer(f"More or less ease at the {subject.name}", {subject.name: 2.0})


OPERATION = Operation(
    key="change_ease",
    title="Change the ease of the garment",
    params=ChangeEase,
    apply=apply,
    describe=describe,
    width=as_ease,
    sections=SHAPES,
    moves=(SeamKind.WAIST,),
    group=Group.SIZE,
    halves=False,
    offers=offers,
    blocks=("bodice", "sleeve"),
    examples=({"bust": 4.0, "waist": 4.0}, {"waist": 3.0}),
)
