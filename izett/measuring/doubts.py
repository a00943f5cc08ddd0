"""Doubts about a sheet: what contradicts what, and which measure to take again first.

Each taken measure has a *witness*: what its estimate rule leads one to expect from the measures before it in the order
of the rules, and how far people lie apart there. So read, the witnesses are independent of each other, and the tension
of a sheet is the sum of their squared misses, in spreads. The measure to take again first is the one whose change would
resolve most of that tension; two measures are also tried exchanged, and one as if it had been typed in the other unit.

Method: least squares with one outlier at a time; weights are the spreads of the estimate rules.
"""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from itertools import combinations

from izett.measuring.cross_checks import missed
from izett.measuring.estimates import estimates, worked_out
from izett.measuring.measure import Concern, measures, remark_on
from izett.units import CM_PER_INCH, Reading, Unit

#: Squared spreads. A measure whose change would resolve this much is doubted even where no cross-check is missed. Of
#: whole sheets of measured people fewer than 3 of 100 come so far (tests/core/measuring/test_doubts.py).
DOUBTED = 15.0
#: Squared spreads. Exchanging two measures must resolve this much more than changing one, since it explains with two.
EXCHANGED = 6.0
#: cm. Two measures closer than this may be exchanged without anyone noticing, on paper as well.
NEARLY_SAME = 2.0
#: A measure that was taken alone is named first where it explains nearly as much as another: by this share less.
DOUBTED_SOONER = 1.1
#: How many measures to take again are named at once.
MOST_NAMED = 4
#: cm. A slip of the tape as it happens: a decade misread by half, a landmark missed, a tape slid off.
SLIP = 5.0
#: Squared spreads. A slip that adds this much tension is noticed nine times of ten: its root lies 1.3 spreads, the
#: margin of one in ten, beyond the root of DOUBTED.
SEEN = (DOUBTED**0.5 + 1.3) ** 2
#: cm. Half the step over which slopes are taken.
STEP = 0.5


@dataclass(frozen=True, slots=True)
class Witness:
    """What the measures before it say of one measure.

    Attributes:
        symbol: the measure that is spoken of.
        gap: taken less expected, in cm.
        spread: how far people lie from what is expected, in cm.
        slopes: how the gap changes for each cm of a measure, its own included.
    """

    symbol: str
    gap: float
    spread: float
    slopes: Mapping[str, float]


@dataclass(frozen=True, slots=True)
class Contradiction:
    """Measures that cannot all be right.

    Attributes:
        key: stable name of the cross-check.
        message: what contradicts what, in words without lengths.
        symbols: the measures concerned, the one to take again first.
        amount: by how much they lie outside what is usual, in cm.
        told: by how much they disagree, and how much is usual.
    """

    key: str
    message: str
    symbols: tuple[str, ...]
    amount: float
    told: str


@dataclass(frozen=True, slots=True)
class Retake:
    """A measure to take again.

    Attributes:
        symbol: the measure.
        would_fit: the length at which it would agree best with the others, in cm.
        explains: keys of the contradictions that would then be gone.
        disagrees_with: the measures with which it agrees least, the worst first.
        exchanged_with: the measure with which it seems to be exchanged; empty where it is not.
        other_unit: whether it looks as if it had been read in the other unit.
    """

    symbol: str
    would_fit: float
    explains: tuple[str, ...] = ()
    disagrees_with: tuple[str, ...] = ()
    exchanged_with: str = ""
    other_unit: bool = False


@dataclass(frozen=True, slots=True)
class Doubts:
    """All that is doubtful about a sheet: the contradictions, the largest first, and what to take again, in order."""

    contradictions: tuple[Contradiction, ...]
    retake: tuple[Retake, ...]


def doubts_about(body: Mapping[str, float], *, less_certain: Iterable[str] = ()) -> Doubts:
    """Return what is doubtful about a sheet.

    Args:
        body: the taken measures, cm by symbol.
        less_certain: measures that were taken alone and are so more easily wrong; where two explain a contradiction
            nearly as well, such a one is named first.
    """
    doubtful = frozenset(less_certain)
    retake: list[Retake] = []
    now: Mapping[str, float] = body
    first_heard = heard = witnesses(body)
    while len(retake) < MOST_NAMED:
        before = {check.key for check, _ in missed(now)}
        named = _worst(now, heard, spared={r.symbol for r in retake}, alarmed=bool(before), doubtful=doubtful)
        if named is None:
            break
        now = _fixed(now, named)
        heard = witnesses(now)
        gone = before - {check.key for check, _ in missed(now)}
        if retake and not gone:
            break
        retake.append(_with(named, tuple(sorted(gone))))
    pull = _pull(first_heard)
    first = retake[0].symbol if retake else ""
    found = [
        Contradiction(
            check.key,
            check.says,
            tuple(sorted(check.symbols, key=lambda s: (s != first, -pull.get(s, (0.0, 0.0))[0]))),
            excess,
            check.told(body),
        )
        for check, excess in missed(body)
    ]
    return Doubts(tuple(sorted(found, key=lambda c: -c.amount)), tuple(retake))


def unguarded(body: Mapping[str, float]) -> Sequence[str]:
    """Return the taken measures of the body for which a slip of the tape would pass unnoticed, in the order of taking.

    Nothing else on the sheet vouches for them: they are worth a second reading.
    """
    tension: dict[str, float] = {}
    for witness in witnesses(body):
        for symbol, slope in witness.slopes.items():
            tension[symbol] = tension.get(symbol, 0.0) + (slope * SLIP / witness.spread) ** 2
    return [s for s, what in measures().items() if s in body and what.body and tension.get(s, 0.0) < SEEN]


def witnesses(body: Mapping[str, float]) -> list[Witness]:
    """Return a witness for each taken measure that an estimate rule knows, in the order of the rules."""
    found: list[Witness] = []
    before: dict[str, float] = {}
    for symbol in estimates().rules:
        if symbol in body:
            found.append(_witness(symbol, body[symbol], before))
            before = {**before, symbol: body[symbol]}
    return found


def _witness(symbol: str, taken: float, before: Mapping[str, float]) -> Witness:
    sums = worked_out(before)
    gap = taken - sums[symbol]
    slopes = {symbol: 1.0}
    for other in [other for other in before if other in sums]:
        up, down = (worked_out({**before, other: before[other] + step})[symbol] for step in (STEP, -STEP))
        slopes[other] = (down - up) / (2 * STEP)
    return Witness(symbol, gap, sums.spread(symbol), slopes)


def _pull(heard: Sequence[Witness]) -> dict[str, tuple[float, float]]:
    """Return for each measure how much tension its best change would resolve, and that change in cm."""
    force: dict[str, float] = {}
    stiffness: dict[str, float] = {}
    for w in heard:
        for symbol, slope in w.slopes.items():
            force[symbol] = force.get(symbol, 0.0) + slope * w.gap / w.spread**2
            stiffness[symbol] = stiffness.get(symbol, 0.0) + slope * slope / w.spread**2
    return {s: (force[s] ** 2 / stiffness[s], -force[s] / stiffness[s]) for s in force if stiffness[s] > 0}


def _worst(
    body: Mapping[str, float], heard: Sequence[Witness], *, spared: set[str], alarmed: bool, doubtful: frozenset[str]
) -> Retake | None:
    """Return the measure that explains most of the tension, or None where there is nothing to explain."""
    pull = {s: found for s, found in _pull(heard).items() if s not in spared}
    for symbol in body:
        if symbol not in spared and (would_be := _in_other_unit(symbol, body[symbol])) is not None:
            moves = {symbol: would_be - body[symbol]}
            if symbol not in pull or _resolved(heard, moves) > EXCHANGED:
                return Retake(symbol, would_be, disagrees_with=_against(heard, symbol), other_unit=True)
    if not pull:
        return None
    symbol = max(pull, key=lambda s: pull[s][0] * (DOUBTED_SOONER if s in doubtful else 1.0))
    resolved, shift = pull[symbol]
    if resolved <= DOUBTED and not alarmed:
        return None
    exchange = _best_exchange(body, heard, pull, more_than=resolved + EXCHANGED)
    if exchange is not None:
        one, other = exchange
        return Retake(one, body[other], disagrees_with=_against(heard, one), exchanged_with=other)
    return Retake(symbol, body[symbol] + shift, disagrees_with=_against(heard, symbol))


def _in_other_unit(symbol: str, cm: float) -> float | None:
    """Return what an implausible length would be had it been read in the other unit, where that is plausible."""
    remark = remark_on(symbol, Reading("", Unit.CM, cm))
    if remark is None or remark.concern is not Concern.OTHER_UNIT:
        return None
    per_inch = float(CM_PER_INCH)
    return cm * per_inch if cm < measures()[symbol].low else cm / per_inch


def _best_exchange(
    body: Mapping[str, float],
    heard: Sequence[Witness],
    pull: Mapping[str, tuple[float, float]],
    *,
    more_than: float,
) -> tuple[str, str] | None:
    best: tuple[str, str] | None = None
    for one, other in combinations([s for s in pull if pull[s][0] > EXCHANGED], 2):
        apart = body[other] - body[one]
        if abs(apart) > NEARLY_SAME and (resolved := _resolved(heard, {one: apart, other: -apart})) > more_than:
            best, more_than = (one, other), resolved
    if best is None:
        return None
    one, other = sorted(best, key=lambda s: -pull[s][0])
    return one, other


def _resolved(heard: Sequence[Witness], moves: Mapping[str, float]) -> float:
    """Return how much tension moving measures (cm by symbol) would resolve, in squared spreads."""
    resolved = 0.0
    for w in heard:
        after = w.gap + sum(w.slopes.get(symbol, 0.0) * cm for symbol, cm in moves.items())
        resolved += (w.gap**2 - after**2) / w.spread**2
    return resolved


def _against(heard: Sequence[Witness], symbol: str) -> tuple[str, ...]:
    """Return the measures with which one agrees least, the worst first."""
    missing: dict[str, float] = {}
    for w in heard:
        if symbol in w.slopes:
            for other in w.slopes:
                if other != symbol:
                    share = abs(w.slopes[other] * w.slopes[symbol]) * (w.gap / w.spread) ** 2
                    missing[other] = missing.get(other, 0.0) + share
    return tuple(sorted((s for s in missing if missing[s] > 1), key=lambda s: -missing[s])[:3])


def _fixed(body: Mapping[str, float], named: Retake) -> dict[str, float]:
    fixed = {**body, named.symbol: named.would_fit}
    if named.exchanged_with:
        fixed[named.exchanged_with] = body[named.symbol]
    return fixed


def _with(named: Retake, explains: tuple[str, ...]) -> Retake:
    return Retake(named.symbol, named.would_fit, explains, named.disagrees_with, named.exchanged_with, named.other_unit)
