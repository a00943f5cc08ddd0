"""The recipe: measures + a method + an ordered list of steps → the pattern after each of them.

A pattern is never drawn, it is worked out. Every prefix of a recipe is remembered under a hash of all that it
depends on, so that an edit at the end costs one step, and undo gives back the identical geometry because it is the
same evaluation. A step that cannot act is kept, visibly skipped, and evaluation goes on.
"""

import json
import logging
from collections import ChainMap, OrderedDict
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from hashlib import blake2b
from threading import Lock
from types import MappingProxyType
from typing import Any, cast

from pydantic import ValidationError
from shapely.errors import ShapelyError

import izett
from izett.checking.check import Check, Garment, Result, run
from izett.drafting.ease import FITTED, KNIT, WOVEN, Cloth
from izett.drafting.method import DIRECT, Choices, Draft, Method, draft, sheet_for
from izett.errors import DraftRefused, IzettError, StepBroke, StepRefused, UnknownName
from izett.geometry.outline import crossing
from izett.geometry.tolerance import CROSSING_FLATNESS
from izett.pattern.document import Pattern
from izett.rules.sheet import Allowance, Found, Rule
from izett.styling.kept import lost
from izett.styling.operation import Context, Operation, Outcome, Params, Phase, Sum


@dataclass(frozen=True, slots=True)
class Catalogue:
    """What can be drafted, done and checked, by key."""

    methods: Mapping[str, Method]
    operations: Mapping[str, Operation]
    checks: Mapping[str, Check]

    def method(self, key: str) -> Method:
        """Return a drafting method.

        Raises:
            UnknownName: there is none of that name.
        """
        if key not in self.methods:
            raise UnknownName(
                f"There is no block “{key}”.",
                mend=f"Those there are: {', '.join(self.methods)}.",
                where=(key,),
            )
        return self.methods[key]

    def in_order(self, blocks: Sequence[str]) -> tuple[Method, ...]:
        """Return the methods of blocks in the order of drafting, with the usual base of one that has none.

        Raises:
            UnknownName: there is no such block.
            DraftRefused: two of them would clothe the same part of the body.
        """
        wanted = {key: self.method(key) for key in blocks}
        for method in tuple(wanted.values()):
            if method.stands_on and not any(base in wanted for base in method.stands_on):
                base = self.method(method.stands_on[0])
                wanted[base.key] = base
        for part in dict.fromkeys(part for method in wanted.values() for part in method.clothes):
            clothing = [method for method in wanted.values() if part in method.clothes]
            if len(clothing) > 1:
                raise DraftRefused(
                    f"{' and '.join(method.title for method in clothing)} would both clothe the body {part} the waist.",
                    mend="Keep one of them, and open another ticket for the other.",
                    where=tuple(method.key for method in clothing),
                )
        found: list[Method] = []
        while len(found) < len(wanted):
            placed = {method.key for method in found}
            waiting = [m for m in wanted.values() if m.key not in placed]
            found.append(next(m for m in waiting if not {*m.stands_on, *m.joins} & (wanted.keys() - placed)))
        return tuple(found)

    def entries(self, symbol: str) -> Iterator[Allowance | Rule | Found]:
        """Yield what blocks have by that name, in any cloth and school: an allowance, a rule or a found value."""
        for method in self.methods.values():
            for cloth in (WOVEN, KNIT):
                if (entry := sheet_for((method,), (), FITTED, cloth).entry(symbol)) is not None:
                    yield entry


@dataclass(frozen=True)
class Step:
    """One entry of a recipe.

    Attributes:
        uid: its own name, made once, never reused.
        kind: the operation's key.
        params: the operation's parameters, as plain data.
        on: whether it acts.
        version: the operation's version that the parameters were written for.
        why: the reason, in the maker's words.
    """

    uid: str
    kind: str
    params: Mapping[str, Any]
    on: bool = True
    version: int = 1
    why: str = ""

    def as_data(self) -> dict[str, Any]:
        """Return the step as plain data, as stored."""
        return {
            "uid": self.uid,
            "kind": self.kind,
            "params": dict(self.params),
            "on": self.on,
            "version": self.version,
            "why": self.why,
        }


@dataclass(frozen=True)
class Recipe:
    """All that a pattern is worked out from.

    Attributes:
        block: the method's key.
        measures: what was taken, cm by symbol.
        school: which measures it uses.
        overrides: allowances and rules set for this job, by symbol.
        steps: the changes, in order.
        also: the keys of further blocks that are drafted with it.
        schools: the ways chosen where makers differ otherwise, by the school's key.
        fit, cloth: how close, in what.
        house: the maker's house rules as they stood when the job was opened, by symbol.
        why: the reasons of overrides and house rules, by symbol.
    """

    block: str
    measures: Mapping[str, float]
    school: str = DIRECT
    overrides: Mapping[str, float] = field(default_factory=lambda: MappingProxyType({}))
    steps: Sequence[Step] = ()
    also: Sequence[str] = ()
    schools: Mapping[str, str] = field(default_factory=lambda: MappingProxyType({}))
    fit: str = FITTED
    cloth: Cloth = WOVEN
    house: Mapping[str, float] = field(default_factory=lambda: MappingProxyType({}))
    why: Mapping[str, str] = field(default_factory=lambda: MappingProxyType({}))

    def drafted_from(self) -> list[Any]:
        """Return all that the draft depends on, as plain data."""
        return [
            self.block,
            list(self.also),
            dict(self.measures),
            [self.school, dict(self.schools), self.fit, self.cloth.kind, self.cloth.stretch],
            [dict(self.overrides), dict(self.house), dict(self.why)],
        ]


@dataclass(frozen=True, slots=True)
class Stage:
    """The pattern after one step.

    Attributes:
        step: the step.
        pattern: the pattern after it (unchanged where the step did not act).
        words: the step in the maker's words.
        sums: its arithmetic.
        made, read: names that it made and that it looked for.
        failure: why it could not act, or None.
    """

    step: Step
    pattern: Pattern
    words: str
    sums: tuple[Sum, ...] = ()
    made: tuple[str, ...] = ()
    read: frozenset[str] = frozenset()
    failure: IzettError | None = None


@dataclass(frozen=True, slots=True)
class Evaluation:
    """A recipe worked out."""

    draft: Draft
    stages: tuple[Stage, ...]
    results: tuple[Result, ...]

    @property
    def pattern(self) -> Pattern:
        """The pattern after the last step."""
        return self.stages[-1].pattern if self.stages else self.draft.pattern

    def needs(self, stage: Stage) -> list[str]:
        """Return the uids of the earlier steps whose work a step acts on: it read a name that they made."""
        found = []
        for other in self.stages:
            if other is stage:
                break
            if any(name in stage.read or any(r.startswith(f"{name}.") for r in stage.read) for name in other.made):
                found.append(other.step.uid)
        return found


class Evaluator:
    """Works recipes out and remembers every prefix, up to a bound; safe to share between threads.

    Args:
        catalogue: what can be drafted, done and checked.
        remembered: how many prefixes are kept; the longest unused goes first.
    """

    def __init__(self, catalogue: Catalogue, *, remembered: int = 512) -> None:
        self.catalogue = catalogue
        self._memory: OrderedDict[bytes, Any] = OrderedDict()
        self._remembered = remembered
        self._lock = Lock()

    def evaluate(self, recipe: Recipe) -> Evaluation:
        """Work a recipe out.

        Raises:
            UnknownName, MissingMeasure, ValueOutOfRange, DraftRefused: there is no draft to step on from.
        """
        key = _hash(b"", [izett.__version__, *recipe.drafted_from()])
        drafted: Draft = self._remember(key, lambda: self._draft(recipe))
        stages: list[Stage] = []
        pattern = drafted.pattern
        # What was taken and no block reads is known of the body all the same.
        body = ChainMap(dict(recipe.measures), cast("dict[str, float]", drafted.values))
        for step in self._in_phases(recipe.steps):
            key = _hash(key, step.as_data())
            stage: Stage = self._remember(key, lambda step=step, before=pattern: self._stage(step, before, body))
            stages.append(stage)
            pattern = stage.pattern
        garment = Garment(pattern, body)
        results: tuple[Result, ...] = self._remember(
            _hash(key, "checks"),
            lambda: tuple(result for check in self.catalogue.checks.values() for result in run(check, garment)),
        )
        return Evaluation(drafted, tuple(stages), results)

    def _in_phases(self, steps: Sequence[Step]) -> list[Step]:
        """Return steps as they are worked: what follows the final edges after what shapes them; else in their order."""
        order = list(Phase)

        def phase(step: Step) -> int:
            operation = self.catalogue.operations.get(step.kind)
            return order.index(operation.phase if operation else Phase.SHAPE)

        return sorted(steps, key=phase)

    def _draft(self, recipe: Recipe) -> Draft:
        first, *also = self.catalogue.in_order((recipe.block, *recipe.also))
        sheet = sheet_for((first, *also), tuple(sorted(recipe.schools.items())), recipe.fit, recipe.cloth)

        def concerns(symbol: str) -> bool:
            # What was set for a block, cloth or school that is not drafted now is kept in the recipe for when it is.
            return sheet.has(symbol) or next(self.catalogue.entries(symbol), None) is None

        choices = Choices(
            recipe.school,
            recipe.schools,
            recipe.fit,
            recipe.cloth,
            {symbol: value for symbol, value in recipe.overrides.items() if concerns(symbol)},
            recipe.house,
            recipe.why,
        )
        return draft(first, recipe.measures, also=also, choices=choices)

    def _stage(self, step: Step, before: Pattern, body: Mapping[str, float]) -> Stage:
        operation = self.catalogue.operations.get(step.kind)
        if operation is None or step.version > operation.version:
            return Stage(
                step,
                before,
                f"Unknown step “{step.kind}”",
                failure=UnknownName(
                    f"This version of the program does not know the step “{step.kind}” (version {step.version}).",
                    mend="It is kept and skipped; a newer version can work it.",
                    where=(step.kind,),
                ),
            )
        try:
            params = operation.params.model_validate(dict(step.params))
        except ValidationError as error:
            return Stage(step, before, operation.title, failure=invalid_params(operation.title, error))
        words = operation.describe(params)
        if not step.on:
            return Stage(step, before, words)
        context = Context(step.uid, before, body, self.catalogue.operations)
        outcome = _applied(step, operation, params, context)
        read = frozenset(context.read)
        failure = outcome if isinstance(outcome, IzettError) else _crossed(words, before, outcome.pattern)
        if isinstance(outcome, IzettError) or failure is not None:
            return Stage(step, before, words, read=read, failure=failure)
        off = lost(operation.keeps, before, outcome.pattern)
        return Stage(step, outcome.pattern, words, (*outcome.sums, *off), outcome.made, read)

    def _remember(self, key: bytes, work: Any) -> Any:
        with self._lock:
            if key in self._memory:
                self._memory.move_to_end(key)
                return self._memory[key]
        result = work()
        with self._lock:
            self._memory[key] = result
            while len(self._memory) > self._remembered:
                self._memory.popitem(last=False)
        return result

    def forget(self) -> None:
        """Forget every prefix (for benchmarks and tests)."""
        with self._lock:
            self._memory.clear()


def _applied(step: Step, operation: Operation, params: Params, context: Context) -> Outcome | IzettError:
    try:
        return operation.apply(params, context)
    except IzettError as failure:
        return failure
    except (ArithmeticError, AssertionError, LookupError, StopIteration, ValueError, ShapelyError) as fault:
        # The other steps must not be lost with it; the tests take it for the fault that it is.
        logging.getLogger(__name__).exception("step %s (%s)", step.kind, step.uid)
        return _broke(operation.describe(params), fault)


def _broke(words: str, fault: Exception) -> StepBroke:
    return StepBroke(
        f"{words}: this shape is one that the step was not made for ({type(fault).__name__}).",
        mend="Put the step earlier, or choose another place or amount. It is a fault of the program: please report it.",
    )


def _crossed(words: str, before: Pattern, after: Pattern) -> StepRefused | None:
    """Return the refusal of a step that makes an outline cross itself, whichever step it is."""
    old = {id(piece) for piece in before}
    for piece in after:
        if id(piece) not in old and (spot := crossing(piece.outline(flatness=CROSSING_FLATNESS))) is not None:
            return StepRefused(
                f"{words}: the outline of the {piece.title.lower()} would cross itself near "
                f"{spot[0]:.1f}, {spot[1]:.1f} cm.",
                mend="Use a smaller amount, or choose another place.",
                where=(piece.name,),
            )
    return None


def invalid_params(title: str, error: ValidationError) -> StepRefused:
    """Return what is wrong with a step's parameters, in words."""
    first = error.errors()[0]
    name = ".".join(str(part) for part in first["loc"]) or "parameters"
    return StepRefused(
        f"{title}: {name.replace('_', ' ')}: {first['msg'].lower()} (it is {first.get('input')!r}).",
        mend="Set it within its range.",
        where=(name,),
    )


def _hash(before: bytes, data: Any) -> bytes:
    text = json.dumps(data, sort_keys=True, allow_nan=False).encode()
    return blake2b(before + text, digest_size=16).digest()
