"""Change the ease of the whole garment: shared over the pieces by rule, the armhole lowered with it.

Side seams first, a quarter at each of the four edges, up to what a side seam takes before the garment twists; the rest
goes across the back and the front at the armhole. The underarm sinks by an eighth of what is added at the bust, so that
a roomier top has a roomier armhole; the sleeve that is set into it follows. Common practice, no single source.
"""

from collections.abc import Iterator

from izett.pattern.facts import SeamKind
from izett.pattern.working import Readable, Working
from izett.pattern.worn import moved_levels, width
from izett.styling.operation import SHAPES, Context, Group, Offer, Operation, Outcome, Sum, as_ease, length
from izett.styling.references import Params
from izett.styling.subject import Kind, Subject
from izett.styling.told import AROUND_BODY, told_armholes, told_around, told_underarms
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
    pattern, told = _with_sides(context, params, side, across)
    if params.bust:
        told += [*told_underarms(context.garment, pattern), *told_armholes(context.garment, pattern)]
    moved = moved_levels(context.garment, pattern)
    told += told_around(context.garment, moved)
    for level in AROUND_BODY:
        if (was := context.garment.ease(level)) is not None:
            told.append(Sum(f"ease at the {level} now", was + moved.get(level, 0.0)))
    return Outcome(pattern, tuple(told), asks=(SeamKind.CAP,) if params.bust else ())


def _with_sides(context: Context, params: ChangeEase, side: float, across: float) -> tuple[Working, list[Sum]]:
    """Return the pattern with so much more at each side edge at the bust, and across; and what was gained across.

    The underarm is given what brings the bust its ease, once the armhole has sunk as well: what is added runs out evenly
    from level to level, so what the bust gets is all but linear in what the underarm gets.
    """
    below = {"waist": params.waist / EDGES, "hip": params.hip / EDGES, "hem": params.hip / EDGES}
    sink = min(max(params.bust * SINKS, LEAST_SINK), MOST_SINK) if params.bust else 0.0
    before = width(context.garment, "bust")

    def made(underarm: float) -> tuple[Working, list[Sum]]:
        held = min(max(underarm, LEAST_UNDERARM), MOST_UNDERARM)
        pattern = context.work("change_side", {"underarm": held, **below}, on=context.garment).garment
        told: list[Sum] = []
        for part in ("back", "front") if across else ():
            done = context.work("widen_across", {"part": part, "amount": across}, on=pattern)
            pattern, told = done.garment, [*told, *done.sums]
        if sink:
            pattern = context.work("change_armhole", {"lower": sink}, on=pattern).garment
        return pattern, told

    def short(pattern: Working) -> float:
        return EDGES * side - (width(pattern, "bust") - before)

    found = made(side)
    if not before or abs(missing := short(found[0])) <= LEAST:
        return found
    gained = missing - short(made(side + TRIED)[0])
    return made(side + missing / gained * TRIED) if gained > 0 else found


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
