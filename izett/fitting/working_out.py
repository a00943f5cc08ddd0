"""Remedies worked out: from what was pinned, counted openly, to amounts on edges, and to what is done to the recipe."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any, NamedTuple

from pydantic import ValidationError

from izett.catalogue import catalogue
from izett.errors import ReferenceLost, StepRefused, UnknownName, ValueOutOfRange
from izett.fitting.finding import AmendPlan, Counted, FindingKind, Input, Remedy, StepPlan, Taken
from izett.fitting.garment import Fitted, amended, lacks
from izett.fitting.pointing import Pointed, marked_on, placed
from izett.fitting.readings import IN_FORMULAS, reading
from izett.pattern.facts import Half
from izett.pattern.piece import Span
from izett.pattern.sewn import holding, resolved, span_length
from izett.rules.formula import Formula
from izett.styling.limits import invalid_params
from izett.styling.operation import Section
from izett.wording import cm

#: What formulas call the number of edges that a remedy cuts, what stands in the step that it amends, and the length of the
#: line that this step names.
EDGES, NOW, ALONG = "edges", "now", "along"
#: A pinch folds the cloth: it holds twice what is measured.
FOLDS = 2.0
#: The body has two sides.
SIDES = 2.0


@dataclass(frozen=True, slots=True)
class Seen:
    """A finding as it was recorded.

    Attributes:
        kind: what was seen.
        given: the amounts as they were measured, cm by symbol; what is left out has its default.
        taken: whether they were pinched.
        counted: what they are counted over; None as each amount usually is.
        half: where it was seen.
        at: what was pointed at on the table.
        uid: its own name.
        tried: remedies that an earlier round made for the same, and that did not solve it.
    """

    kind: FindingKind
    given: Mapping[str, float] = field(default_factory=dict)
    taken: Taken = Taken.WHOLE
    counted: Counted | None = None
    half: Half = Half.BOTH
    at: Pointed | None = None
    uid: str = ""
    tried: tuple[str, ...] = ()


class Turned(NamedTuple):
    """An amount turned openly into what counts: what was measured, by what it is multiplied and why, and what that makes."""

    label: str
    given: float
    ways: tuple[tuple[str, float], ...]
    whole: float
    unit: str = "cm"


class Adding(NamedTuple):
    """A step that a remedy adds: kind, parameters, section and half."""

    kind: str
    params: dict[str, Any]
    section: Section
    half: Half


class Amending(NamedTuple):
    """A step of the style that a remedy amends: its name, its kind, and its parameters before and after."""

    uid: str
    kind: str
    before: dict[str, Any]
    after: dict[str, Any]


Deed = Adding | Amending


@dataclass(frozen=True, slots=True)
class Worked:
    """A remedy with its amounts worked out for a garment.

    Attributes:
        remedy: the remedy.
        deeds: what is done to the recipe, in order.
        sum_text, sum_value: the arithmetic with the numbers put in, and its result.
        promised: by how much each reading that it tells is to change, cm.
    """

    remedy: Remedy
    deeds: tuple[Deed, ...]
    sum_text: str
    sum_value: float
    promised: Mapping[str, float]

    @property
    def under(self) -> bool:
        """Whether all that is done is done under the style."""
        return all(isinstance(deed, Adding) and deed.section is Section.FIT for deed in self.deeds)


def asked_for(kind: FindingKind, fitted: Fitted) -> tuple[Input, ...]:
    """Return the amounts that are asked for on this garment."""
    return tuple(entry for entry in kind.inputs if not lacks(fitted, entry.needs))


def turned(seen: Seen, fitted: Fitted) -> dict[str, Turned]:
    """Return each amount turned into whole cloth, counted as its formulas count it.

    Raises:
        UnknownName: an amount is given that the finding does not ask for.
        ValueOutOfRange: an amount lies outside its range, or there is less cloth than that.
    """
    inputs = {entry.symbol: entry for entry in asked_for(seen.kind, fitted)}
    for symbol in seen.given:
        if symbol not in inputs:
            raise UnknownName(
                f"“{seen.kind.seen}” does not ask for “{symbol}” on this garment.",
                fix=f"Needed: {', '.join(inputs) or 'no amount'}.",
                where=(symbol,),
            )
    return {symbol: _turned(entry, seen, fitted) for symbol, entry in inputs.items()}


def _turned(entry: Input, seen: Seen, fitted: Fitted) -> Turned:
    given = seen.given.get(entry.symbol, entry.default)
    if not entry.low <= given <= entry.high:
        said, low, high = (cm(one, 2) if entry.unit else f"{one:g}" for one in (given, entry.low, entry.high))
        raise ValueOutOfRange(
            f"{entry.label}: {said} is outside {low} to {high}.",
            fix="Measure it again; larger changes are better made in two rounds.",
            where=(entry.symbol,),
        )
    whole = in_whole(entry, seen)
    if entry.within:
        there = reading(fitted.evaluation, entry.within, seen.half)
        if there and abs(whole) >= there:
            raise ValueOutOfRange(
                f"{entry.label}: {cm(whole, 2)} is more than there is: {entry.within}, {cm(there)}.",
                fix="Measure the pin again.",
                where=(entry.symbol,),
            )
    return Turned(entry.label, given, tuple(_ways(entry, seen)), whole, entry.unit)


def _ways(entry: Input, seen: Seen) -> Iterator[tuple[str, float]]:
    if entry.pinch and seen.taken is Taken.PINCH:
        yield "pinched: the fold holds twice as much", FOLDS
    counted = seen.counted if seen.counted is not None and entry.counted is not Counted.HERE else entry.counted
    if counted is entry.counted or seen.half is not Half.BOTH:
        # All that was pinned on one side is on that side, however it is counted.
        return
    if counted is Counted.EACH_SIDE:
        yield "each side: there are two", SIDES
    elif counted is Counted.AROUND:
        yield "all around: a half on each side", 1 / SIDES


def in_whole(entry: Input, seen: Seen) -> float:
    """Return an amount as it was given, turned into whole cloth and counted as its formulas count it."""
    whole = seen.given.get(entry.symbol, entry.default)
    for _, factor in _ways(entry, seen):
        whole *= factor
    return whole


def worked(seen: Seen, remedy: Remedy, fitted: Fitted) -> Worked:
    """Return a remedy with its amounts worked out from what was seen on a garment.

    Raises:
        UnknownName, ValueOutOfRange: as `turned`.
        StepRefused: the remedy does not apply to this garment or this half, or asks for more than a step allows.
        ReferenceLost: a place that it needs is not on this garment.
    """
    refuse(seen, remedy, fitted)
    whole = {symbol: one.whole for symbol, one in turned(seen, fitted).items()}
    # What is not asked for on this garment is nothing there.
    absent = {entry.symbol: 0.0 for entry in seen.kind.inputs if entry.symbol not in whole}
    known = {**absent, **whole, EDGES: float(remedy.edges_on(seen.half))}
    deeds: list[Deed] = []
    for plan in remedy.steps:
        deeds += (
            _added(plan, seen, fitted, known) if isinstance(plan, StepPlan) else _amended(plan, seen, fitted, known)
        )
    if remedy.steps and not deeds:
        raise StepRefused(
            "These amounts come to nothing: there is nothing to change.",
            fix="Give the amount that was pinned.",
            where=(remedy.key,),
        )
    text, value = "", 0.0
    if remedy.sum is not None:
        values = _values(remedy.sum, fitted, seen, known)
        text, value = remedy.sum.decided(values).worked(values, _shown), remedy.sum.evaluate(values)
    promised = {one.reading: one.by.evaluate(_values(one.by, fitted, seen, known)) for one in remedy.tells}
    return Worked(remedy, tuple(deeds), text, value, promised)


def refuse(seen: Seen, remedy: Remedy | None, fitted: Fitted) -> None:
    """Let pass a finding, or a remedy of it, that this garment and this half can have.

    Raises:
        StepRefused: it cannot; the message says what is missing.
    """
    needs = (*seen.kind.needs, *(remedy.needs if remedy else ()))
    if missing := lacks(fitted, needs):
        raise StepRefused(
            f"This garment does not have {' or '.join(missing)}.",
            fix="Choose what fits this garment.",
            where=(remedy.key if remedy else seen.kind.key,),
        )
    if seen.kind.one_half and seen.half is Half.BOTH:
        raise StepRefused(
            f"“{seen.kind.seen}” is about one half.", fix="Say whether it is the left or the right.", where=("half",)
        )
    if seen.kind.marks and (seen.at is None or not seen.at.line or seen.at.marked is None):
        raise StepRefused(
            f"“{seen.kind.seen}” asks for the line, and for its new marks.",
            fix="Point at the line on the table, then type its marks.",
            where=("line", "marks"),
        )
    if seen.kind.marks and seen.at is not None:
        marked_on(fitted, seen.at, seen.half)
    if remedy is None or seen.half is Half.BOTH:
        return
    if remedy.centre:
        raise StepRefused(
            "This change lies at the centre, where both halves meet: it cannot be made on one alone.",
            fix="Choose another remedy, or set the finding to both halves.",
            where=(remedy.key, seen.half.value),
        )
    for step in remedy.steps:
        if isinstance(step, AmendPlan) or not catalogue().operations[step.kind].sided:
            raise StepRefused(
                "This change reaches both halves: it cannot be made on one alone.",
                fix="Choose another remedy, or set the finding to both halves.",
                where=(remedy.key, seen.half.value),
            )


def _values(formula: Formula, fitted: Fitted, seen: Seen, known: Mapping[str, float]) -> dict[str, float]:
    found = dict(known)
    for symbol in formula.uses:
        if symbol not in found and symbol in IN_FORMULAS:
            name, under = IN_FORMULAS[symbol]
            found[symbol] = reading(fitted.evaluation, name, seen.half, under=under)
    return found


def _amounts(
    amounts: Mapping[str, Formula], fitted: Fitted, seen: Seen, known: Mapping[str, float]
) -> dict[str, float]:
    return {name: formula.evaluate(_values(formula, fitted, seen, known)) for name, formula in amounts.items()}


def _added(plan: StepPlan, seen: Seen, fitted: Fitted, known: Mapping[str, float]) -> Iterator[Adding]:
    operation = catalogue().operations[plan.kind]
    amounts = _amounts(plan.amounts, fitted, seen, known)
    if amounts and not any(amounts.values()):
        return
    values = plan.values if seen.half is Half.BOTH else {**plan.values, **plan.on_one_half}
    params = {**placed(values, fitted, under=plan.under, at=seen.at, half=seen.half), **amounts}
    _refuse_limits(plan.kind, params)
    under = plan.under and Section.FIT in operation.sections
    half = seen.half if operation.sided else Half.BOTH
    yield Adding(plan.kind, params, Section.FIT if under else operation.section, half)


def _refuse_limits(kind: str, params: Mapping[str, Any]) -> None:
    operation = catalogue().operations[kind]
    try:
        operation.params.model_validate(dict(params))
    except ValidationError as error:
        wrong = invalid_params(operation.params, error)
        raise StepRefused(
            f"{operation.title}: {wrong.message}",
            fix="Make the change in two rounds, or choose another remedy.",
            where=wrong.where,
        ) from error


def _amended(plan: AmendPlan, seen: Seen, fitted: Fitted, known: Mapping[str, float]) -> Iterator[Amending]:
    operation = catalogue().operations[plan.kind]
    steps = list(amended(fitted, plan.kind, plan.where, plan.region, plan.zone))
    if not steps:
        raise ReferenceLost(
            f"The recipe has no step “{operation.title.lower()}” to amend there.",
            fix="Choose another remedy.",
            where=(plan.kind,),
        )
    for step in steps:
        before = operation.upgraded(step.params, step.version)
        own = operation.params.model_validate(before)
        after = {**before, **plan.values}
        for name, formula in plan.amounts.items():
            field_, key = _field(own, name)
            now = {**known, NOW: key, ALONG: _along(own, fitted)}
            value = formula.evaluate(_values(formula, fitted, seen, now))
            after = _with(after, field_, value)
        if after != before:
            _refuse_limits(plan.kind, after)
            yield Amending(step.uid, plan.kind, before, after)


def _field(params: Any, name: str) -> tuple[Sequence[str], float]:
    """Return the way to an amount within parameters (`at.fraction`), and what stands there."""
    way = name.split(".")
    value = params
    for part in way:
        value = getattr(value, part)
    return way, float(value)


def _with(params: dict[str, Any], way: Sequence[str], value: float) -> dict[str, Any]:
    first, *rest = way
    return {**params, first: _with(dict(params.get(first, {})), rest, value) if rest else value}


def _along(params: Any, fitted: Fitted) -> float:
    """Return the length in cm of the line that a step's own place lies on; 0 where it names none."""
    for name in type(params).model_fields:
        value = getattr(params, name)
        span = getattr(value, "span", None)
        if isinstance(span, Span):
            try:
                return sum(
                    span_length(holding(fitted.final, part.start), part) for part in resolved(fitted.final, span)
                )
            except ReferenceLost:
                return 0.0
    return 0.0


def _shown(symbol: str, value: float) -> str:
    return f"{value:g}" if symbol == EDGES else cm(value, 2)
