"""A recipe worked out: the garment after each of its steps, what the draft told, what the checks found."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from functools import cached_property

from izett.checking.check import Result
from izett.drafting.method import Draft, Notice
from izett.errors import IzettError
from izett.measuring.measure import measure
from izett.pattern.document import Pattern
from izett.pattern.facts import Half, SeamKind
from izett.pattern.halves import joined
from izett.recipe.model import Step
from izett.styling.operation import Section, Sum
from izett.wording import cm


@dataclass(frozen=True, slots=True)
class Stage:
    """The garment after one step.

    Attributes:
        step: the step.
        section: where it stood.
        left, right: both halves after it (unchanged where the step did not act).
        words: the step in the maker's words.
        sums: its arithmetic.
        made, read: names that it made and that it looked for.
        failure: why it could not act, or None.
        follows: the uids of the steps that asked for it; empty for a step of the recipe.
        asks: seams whose other side is to follow.
        idle: whether it acted and changed nothing.
    """

    step: Step
    section: Section
    left: Pattern
    right: Pattern
    words: str
    sums: tuple[Sum, ...] = ()
    made: tuple[str, ...] = ()
    read: frozenset[str] = frozenset()
    failure: IzettError | None = None
    follows: tuple[str, ...] = ()
    asks: tuple[SeamKind, ...] = ()
    idle: bool = False

    @property
    def pattern(self) -> Pattern:
        """Both halves after the step as one garment."""
        return joined(self.left, self.right)


@dataclass(frozen=True)
class Evaluation:
    """A recipe worked out.

    Attributes:
        draft: the draft; where measures draft the halves apart, the left one.
        right_draft: the draft of the right half, the same object where both are drafted alike.
        stages: each step, in the order in which they were worked.
        body: measures and the draft's values, cm by symbol, with what each half has of its own.
        check: checks the garment; it is asked when the results are first looked at.
        apart: left and right of the measures by which the halves were drafted apart, cm.
    """

    draft: Draft
    right_draft: Draft
    stages: tuple[Stage, ...]
    body: Mapping[str, float]
    check: Callable[[Pattern], tuple[Result, ...]]

    apart: Mapping[str, tuple[float, float]] = field(default_factory=dict)

    @cached_property
    def notices(self) -> tuple[Notice, ...]:
        """What the draft tells the maker: of both halves, and by how much they were drafted apart."""
        told = [
            Notice(
                "halves-apart",
                f"Left and right are drafted apart: {measure(symbol).name.lower()} {cm(left)} left, {cm(right)} right.",
                (symbol,),
            )
            for symbol, (left, right) in self.apart.items()
        ]
        return tuple(dict.fromkeys((*told, *self.draft.notices, *self.right_draft.notices)))

    @cached_property
    def pattern(self) -> Pattern:
        """The garment after the last step, both halves as one."""
        return joined(self.left, self.right)

    @cached_property
    def results(self) -> tuple[Result, ...]:
        """What the checks found."""
        return self.check(self.pattern)

    @cached_property
    def source(self) -> Pattern:
        """The source pieces under the style: as drafted, with what a fitting told of this body."""
        fitted = [stage for stage in self.stages if stage.section is Section.FIT]
        return fitted[-1].pattern if fitted else joined(self.draft.pattern, self.right_draft.pattern)

    def source_of(self, half: Half) -> Pattern:
        """Return the source pieces of a half under the style; the left where both are alike."""
        fitted = [stage for stage in self.stages if stage.section is Section.FIT]
        if fitted:
            return fitted[-1].right if half is Half.RIGHT else fitted[-1].left
        return (self.right_draft if half is Half.RIGHT else self.draft).pattern

    @property
    def left(self) -> Pattern:
        """The left half after the last step."""
        return self.stages[-1].left if self.stages else self.draft.pattern

    @property
    def right(self) -> Pattern:
        """The right half after the last step."""
        return self.stages[-1].right if self.stages else self.right_draft.pattern

    def half(self, half: Half) -> Pattern:
        """Return a half after the last step; the left where both are alike."""
        return self.right if half is Half.RIGHT else self.left

    def value(self, symbol: str) -> float | None:
        """Return a value of the draft in its unit, or None where these blocks have none of that name."""
        return self.draft.sums[symbol] if self.draft.sums.knows(symbol) else None

    def of(self, uid: str) -> Stage:
        """Return the stage of a step (KeyError where there is none)."""
        for stage in self.stages:
            if stage.step.uid == uid:
                return stage
        raise KeyError(uid)

    def needs(self, stage: Stage) -> list[str]:
        """Return the uids of the earlier steps whose work a step acts on: it asked for a name that they made."""
        found = []
        for other in self.stages:
            if other is stage:
                break
            if any(name in stage.read or any(r.startswith(f"{name}.") for r in stage.read) for name in other.made):
                found.append(other.step.uid)
        return found
