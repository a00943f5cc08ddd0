"""A simulated fitter: sees where a muslin does not lie on a body, pins it with a hand's error, and takes the first remedy.

What is seen is read from the body and the pattern: the reading of the muslin beside what the body asks for at that place. The
recipe is not looked at. Invented wearers, for tests alone.
"""

from dataclasses import dataclass, field

from izett.fitting.finding import finding_kind
from izett.fitting.plan import plan, with_deeds
from izett.fitting.readings import reading
from izett.fitting.working_out import Seen
from izett.pattern.facts import Corner, Half, Zone

#: cm. What lies within this is not seen on a muslin.
SEEN = 0.3
#: cm. A pin is set within this.
PINNED = 0.3
#: Of what is missing around the bust, a full-bust change gives about a third in length at the centre front. Common practice.
LENGTH_OF_BUST = 0.34
#: How high the front's shoulder tip lies over the waist. A fold across the chest leaves it where it is on the body.
TIP = "shoulder tip"
#: cm. A muslin fits where no reading is further off: around the body, across it, and where a seam lies.
FITS = {
    "around the bust": 1.0,
    "around the waist": 1.0,
    "around the hip": 1.0,
    "across the back": 0.6,
    "across the front": 0.6,
    "shoulder": 0.5,
    TIP: 0.5,
    "underarm behind": 0.6,
    "centre front": 0.6,
    "centre back": 0.6,
    "side behind": 0.6,
    "centre front below": 0.6,
    "centre back below": 0.6,
    "inseam": 1.0,
    "leg hem": 1.0,
    "sleeve forward": 0.5,
}


@dataclass
class Fitting:
    """What came of the rounds of one wearer: how far each reading was off before each muslin and at the end."""

    off: list[dict] = field(default_factory=list)
    found: list[list[str]] = field(default_factory=list)
    refused: list[str] = field(default_factory=list)

    def fits(self, number=-1):
        return self.worst(number) <= 1.0

    def worst(self, number):
        return max(abs(by) / FITS[name.removeprefix(RIGHT)] for name, by in self.off[number].items())


#: What is read of the right half besides, where the halves differ: the left one is read otherwise.
RIGHT = "right "


def read(evaluation, name):
    """Return a reading of a garment; of its right half, where the name says so."""
    if name.removeprefix(RIGHT) == TIP:
        half = Half.RIGHT if name.startswith(RIGHT) else Half.LEFT
        front = next(
            p
            for p in evaluation.pattern
            if p.corner(Corner.SHOULDER_TIP) and p.zone is Zone.FRONT and p.half in (Half.BOTH, half)
        )
        return front.vertex(front.corner(Corner.SHOULDER_TIP))[1] - front.vertex(front.corner(Corner.WAIST_CF))[1]
    if name == "sleeve forward":
        sleeve = next(p for p in evaluation.pattern if "shoulder_notch" in p.marks)
        return sleeve.marks["shoulder_notch"][0] - sleeve.vertex(sleeve.corner(Corner.CAP_TOP))[0]
    if name.startswith(RIGHT):
        return reading(evaluation, name.removeprefix(RIGHT), Half.RIGHT)
    return reading(evaluation, name)


def off(evaluation, needs):
    return {name: need - read(evaluation, name) for name, need in needs.items()}


def bodice(off):
    """What a fitter sees of a bodice, as findings with amounts: lengths first, then what is left."""
    left = dict(off)
    # A full bust pulls the front up: what its change gives in length at the centre is not asked for twice.
    if left["around the bust"] > SEEN:
        for name in ("centre front", *(name for name in (TIP, RIGHT + TIP) if name in left)):
            left[name] -= LENGTH_OF_BUST * left["around the bust"]
    return [*lengths(left), *one_shoulder(left), *shoulders(left), *centres(left), *widths(left)]


def dress(off):
    """What a fitter sees of a dress: its bodice, how its sleeve hangs, and the hip under it."""
    yield from bodice(off)
    if abs(off["sleeve forward"]) > SEEN:
        yield "sleeve_twists", {"forward": off["sleeve forward"]}
    yield from either(off["around the hip"], ("hip_tight", "missing"), ("hip_loose", "over"))


def trousers(off):
    """What a fitter sees of trousers: how deep they are, where they are tight, how long the leg is."""
    # How deep they are is judged in front; what the back asks for besides goes in or out at its centre.
    deep = off["centre front below"]
    back = off["centre back below"] - (deep if abs(deep) > SEEN else 0.0)
    yield from either(deep, ("crotch_high", "high"), ("crotch_low", "low"))
    yield from either(off["around the hip"], ("hip_tight", "missing"), ("hip_loose", "over"))
    yield from either(off["around the waist"], ("sides_tight", "waist"), ("sides_loose", "waist"))
    if back > SEEN:
        yield "back_rise_short", {"short": back}
    elif back < -SEEN:
        yield "seat_baggy", {"fold": -back, "fork": 0.0}
    if abs(off["leg hem"]) > SEEN:
        # The crease halves it: a leg that is wider at its hem is so at the knee as well, by less.
        yield "legs_wide", {"knee": off["leg hem"] / 2, "hem": off["leg hem"]}
    if abs(off["inseam"]) > SEEN:
        yield "legs_long", {"long": -off["inseam"]}


def either(by, more, less):
    """A finding where a reading is off by enough to be seen: one kind where it is short, another where it is over."""
    if abs(by) > SEEN:
        (kind, symbol), more_given = (more, by) if by > 0 else (less, -by)
        yield kind, {symbol: more_given}


def lengths(left):
    """The waist lies too high or too low: both centres say so, and the side is off as well."""
    by = (left["centre front"], left["centre back"])
    length = min(by) if min(by) > 0 else max(by) if max(by) < 0 else 0.0
    if abs(left["side behind"]) <= SEEN or abs(length) <= SEEN:
        return
    for name in ("centre front", "centre back", "side behind", "underarm behind", TIP, RIGHT + TIP):
        if name in left:
            left[name] -= length
    yield from either(length, ("waist_high", "high"), ("waist_low", "low"))


def one_shoulder(left):
    """One shoulder lies lower than the other: that half by itself, and both by what they have in common."""
    of = {Half.LEFT: TIP, Half.RIGHT: RIGHT + TIP}
    if of[Half.RIGHT] not in left:
        return
    apart = left[of[Half.LEFT]] - left[of[Half.RIGHT]]
    left[of[Half.LEFT]] = max(left[name] for name in of.values())
    if abs(apart) > SEEN:
        yield "one_shoulder_low", {"lower": abs(apart)}, Half.RIGHT if apart > 0 else Half.LEFT


def shoulders(left):
    """The shoulder's end is loose or strained, and the underarm lies lower or higher with it, or by itself."""
    drop, under = -left[TIP], left["underarm behind"]
    if abs(drop) > SEEN:
        # The underarm goes the way of the tip, or stays.
        with_it = -under if drop > 0 else under
        with_it = with_it if with_it > SEEN else 0.0
        kind, symbol = ("shoulder_slopes", "drop") if drop > 0 else ("shoulder_square", "rise")
        yield kind, {symbol: abs(drop), "under": with_it}
        under += with_it if drop > 0 else -with_it
    for kind, given in either(under, ("armhole_low", "fill"), ("armhole_cuts", "lower")):
        yield kind, given | ({"scoop": 0.0} if kind == "armhole_cuts" else {})


def centres(left):
    """The upper back is longer or shorter; the bust is fuller or flatter, or only the chest is."""
    yield from either(left["centre back"], ("round_back", "short"), ("erect_back", "fold"))
    yield from either(left["around the bust"], ("bust_tight", "missing"), ("bust_empty", "over"))
    if left["centre front"] < -SEEN:
        yield "chest_hollow", {"fold": -left["centre front"]}


def widths(left):
    """Around the waist, across the back and the front, along the shoulder."""
    for kind, given in either(left["around the waist"], ("sides_tight", "waist"), ("sides_loose", "waist")):
        yield kind, {"bust": 0.0, **given}
    yield from either(left["across the back"], ("back_tight", "missing"), ("back_wide", "over"))
    yield from either(left["across the front"], ("chest_tight", "missing"), ("chest_wide", "over"))
    yield from either(left["shoulder"], ("shoulder_short", "short"), ("shoulder_long", "long"))


def pinned(found, random):
    """Findings as they are pinned: each amount with a hand's error, within what may be typed."""
    for i, (key, given, *half) in enumerate(found):
        kind = finding_kind(key)
        amounts = {}
        for entry in kind.inputs:
            if entry.symbol in given:
                by = given[entry.symbol] + (random.uniform(-PINNED, PINNED) if given[entry.symbol] else 0.0)
                amounts[entry.symbol] = min(max(by, entry.low), entry.high)
        yield Seen(kind, amounts, half=half[0] if half else Half.BOTH, uid=f"f{i}")


def fitted(recipe, needs, evaluator, random, *, looks=bodice, rounds=3):
    """Fit a muslin in rounds; `looks` is what is seen of such a garment. Return what came of it, and the recipe."""
    came = Fitting()
    evaluation = evaluator.evaluate(recipe, owner="sim")
    came.off.append(off(evaluation, needs))
    for number in range(rounds):
        seen = list(pinned(looks(came.off[-1]), random))
        came.found.append([one.kind.key for one in seen])
        if seen:
            made = plan(seen, recipe, evaluation, lambda one: evaluator.evaluate(one, owner="sim"))
            came.refused += [one.seen.kind.key for one in made.findings if one.chosen is None]
            names = [f"r{number}x{i}" for i in range(len(made.deeds))]
            recipe = with_deeds(recipe, [one.deed for one in made.deeds], names)
            evaluation = evaluator.evaluate(recipe, owner="sim")
        came.off.append(off(evaluation, needs))
    return came, recipe
