"""Works recipes out: measures + a method + an ordered list of steps → the garment after each of them.

A pattern is never drawn, it is worked out. Steps are worked in the order of their sections, for each half of the body on
its own from where the halves first differ; what a step came to is remembered by what it read, so an edit costs what it
touches, wherever it stands. A step that cannot act is kept, visibly skipped, and evaluation goes on.
"""

import json
import logging
from collections import ChainMap
from collections.abc import Hashable, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import partial
from typing import Any, cast

from pydantic import ValidationError

import izett
from izett.checking.check import Check, Finding, Garment, Result, found_by, told, told_apart, unchecked
from izett.drafting.method import Choices, Draft, draft, sheet_for
from izett.draping.joining import with_given
from izett.errors import IzettError, place_of
from izett.pattern.document import Pattern
from izett.pattern.facts import Half, Region, SeamKind
from izett.pattern.halves import body_of_both
from izett.pattern.naming import in_titles, titles_of
from izett.pattern.piece import Piece
from izett.pattern.record import Record, RecordedBody
from izett.pattern.remembered import Remembered
from izett.pattern.working import Working
from izett.recipe.evaluation import Evaluation, Stage
from izett.recipe.memory import Memory
from izett.recipe.model import Recipe, Step
from izett.recipe.proving import proven
from izett.recipe.refusals import no_half, unknown, unknown_words, whole_refused
from izett.recipe.shelf import Catalogue
from izett.recipe.together import first_apart
from izett.recipe.worked import Worked, acted
from izett.styling.limits import invalid_params
from izett.styling.operation import Context, Operation, Section, Sum
from izett.styling.references import Params
from izett.wording import titled

#: Garments whose results are kept whole, of all jobs: what lies on the table, and what it is compared with.
MOST_GARMENTS = 64
#: What follows a fit step where a seam that it moves is sewn to another piece: the step, by the kind of the seam.
FOLLOWERS: Mapping[SeamKind, str] = {SeamKind.CAP: "recap_sleeve", SeamKind.WAIST: "follow_waist"}


class Evaluator:
    """Works recipes out and remembers what came of them; safe to share between threads.

    Args:
        catalogue: what can be drafted, done and checked.
        memory: where results are remembered; a new one where none is given.
    """

    def __init__(self, catalogue: Catalogue, *, memory: Memory | None = None) -> None:
        self.catalogue = catalogue
        self.memory = memory if memory is not None else Memory()
        self._bodies: Remembered[Mapping[str, float]] = Remembered(most=MOST_GARMENTS)
        self._results: Remembered[tuple[Result, ...]] = Remembered(most=MOST_GARMENTS)

    def evaluate(self, recipe: Recipe, *, owner: Hashable = None) -> Evaluation:
        """Work a recipe out.

        Args:
            recipe: the recipe.
            owner: whose it is, by which results are remembered.

        Raises:
            UnknownName, MissingMeasure, ValueOutOfRange, DraftRefused: there is no draft to step on from.
        """
        refused: dict[str, IzettError] = {}
        while True:
            found = self._evaluated(recipe, owner, refused)
            apart = first_apart(found.stages)
            if apart is None:
                return found
            # Each half can be cut by itself, but not both together: the step after which that is so does not act.
            stage, why = apart
            refused[stage.step.uid] = why

    def _evaluated(self, recipe: Recipe, owner: Hashable, refused: Mapping[str, IzettError]) -> Evaluation:
        """Return a recipe worked out, but for the steps that are refused already, by uid."""
        (mine, body), (theirs, right_body) = (self._drafted(recipe, half, owner) for half in (Half.LEFT, Half.RIGHT))
        left, right = mine.pattern, theirs.pattern
        stages: list[Stage] = []
        asked: dict[SeamKind, list[str]] = {}
        waiting = self.in_sections(recipe.steps)
        work = _HalvesWorked(self, (body, right_body), owner, refused)
        for section in Section:
            steps = [step for step in waiting if self.section_of(step) is section]
            if section is Section.FOLLOW:
                for step, follows in self._followers(asked, steps, left, right):
                    stage = work.stage(step, section, left, right, follows)
                    stages.append(stage)
                    left, right = stage.left, stage.right
            for step in steps:
                stage = work.stage(step, section, left, right)
                stages.append(stage)
                left, right = stage.left, stage.right
                operation = self.catalogue.operations.get(step.kind)
                acts = operation is not None and stage.failure is None and step.on
                moves = operation.moves if acts and operation and section is Section.FIT else ()
                for kind in dict.fromkeys((*moves, *stage.asks)):
                    asked.setdefault(kind, []).append(step.uid)
        whole = self._bodies.of(body, (), lambda: body_of_both(body, right_body), beside=right_body)
        check = partial(self._checked, body=whole, owner=owner)
        return Evaluation(mine, theirs, tuple(stages), whole, check, recipe.apart)

    def proven(self, recipe: Recipe, found: Evaluation, *, owner: Hashable = None) -> tuple[Result, ...]:
        """Return what the checks found on a recipe that was worked out, each with the fixes that were tried and help."""
        return proven(recipe, found, lambda other: self.evaluate(other, owner=owner), self.catalogue)

    def refuse_undraftable(self, recipe: Recipe, *, owner: Hashable = None) -> None:
        """Let pass a recipe whose blocks can be drafted; a step that cannot act refuses nothing, so none is worked.

        Raises:
            UnknownName, MissingMeasure, ValueOutOfRange, DraftRefused: there is no draft to step on from.
        """
        for half in (Half.LEFT, Half.RIGHT):
            self._drafted(recipe, half, owner)

    def section_of(self, step: Step) -> Section:
        """Return where a step stands: where it says, if its kind may stand there, else where its kind usually does."""
        operation = self.catalogue.operations.get(step.kind)
        if operation is None:
            return step.section or Section.STYLE
        return step.section if step.section in operation.sections else operation.section

    def in_sections(self, steps: Sequence[Step]) -> list[Step]:
        """Return steps in the order in which they are worked: by section, else in their own order."""
        order = list(Section)
        return sorted(map(self._versioned, steps), key=lambda step: order.index(self.section_of(step)))

    def _versioned(self, step: Step) -> Step:
        """Return a step with its version: what was written down has one, what is made in a program is of now."""
        if step.version is not None:
            return step
        operation = self.catalogue.operations.get(step.kind)
        return replace(step, version=operation.version if operation else 1)

    def _followers(
        self, asked: Mapping[SeamKind, Sequence[str]], steps: Sequence[Step], left: Pattern, right: Pattern
    ) -> list[tuple[Step, tuple[str, ...]]]:
        """Return the steps that follow a fitting: for a seam that it moved, unless the recipe says itself what follows."""
        found = []
        given = {step.kind for step in steps if step.on}
        for seam_kind, kind in FOLLOWERS.items():
            here = left.seams_of(seam_kind) or right.seams_of(seam_kind)
            if seam_kind in asked and here and kind not in given and kind in self.catalogue.operations:
                version = self.catalogue.operations[kind].version
                step = Step(f"{asked[seam_kind][0]}-{seam_kind.value}", kind, {"as_meant": True}, version=version)
                found.append((step, tuple(asked[seam_kind])))
        return found

    def _drafted(self, recipe: Recipe, half: Half, owner: Hashable) -> tuple[Draft, Mapping[str, float]]:
        """Return the draft of a half with the body that its steps ask: measures and the draft's values, cm by symbol."""
        side = half if recipe.apart else Half.BOTH

        def work() -> tuple[Draft, Mapping[str, float]]:
            found = self._draft(recipe, side)
            # What was taken and no block reads is known of the body all the same.
            return found, ChainMap(dict(recipe.measures_of(side)), cast("dict[str, float]", found.values))

        key = _key(izett.__version__, recipe.drafted_from(side))
        drafted: tuple[Draft, Mapping[str, float]] = self.memory.kept(owner, "draft", key, work)
        return drafted

    def _draft(self, recipe: Recipe, half: Half) -> Draft:
        methods = self.catalogue.in_order(recipe.blocks)
        sheet = sheet_for(methods, tuple(sorted(recipe.schools.items())), recipe.fit, recipe.cloth)

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
        first, also = (methods[0], methods[1:]) if methods else (None, ())
        drafted = draft(first, recipe.measures_of(half), also=also, choices=choices)
        return with_given(drafted, recipe.given) if recipe.given.panels else drafted

    def _checked(self, pattern: Pattern, body: Mapping[str, float], owner: Hashable) -> tuple[Result, ...]:
        def work() -> tuple[Result, ...]:
            checks = self.catalogue.checks.values()
            return told_apart([one for check in checks for one in self._told(check, pattern, body, owner)], pattern)

        return self._results.of(pattern, (), work, beside=body)

    def _told(self, check: Check, pattern: Pattern, body: Mapping[str, float], owner: Hashable) -> tuple[Result, ...]:
        try:
            return tuple(told(check, pattern, finding) for finding in self._found(check, pattern, body, owner))
        except Exception as fault:
            # The other checks, and the pattern, must not be lost with it.
            logging.getLogger(__name__).error("check %s: %s", check.key, place_of(fault))
            return (unchecked(check),)

    def _found(self, check: Check, pattern: Pattern, body: Mapping[str, float], owner: Hashable) -> tuple[Finding, ...]:
        if check.by_piece:
            # Remembered by piece already.
            return tuple(found_by(check, Garment(pattern, body)))

        def work() -> tuple[Record, tuple[Finding, ...]]:
            record = Record()
            garment = Garment(Working(pattern, record), RecordedBody(body, record))
            return record, tuple(found_by(check, garment))

        found: tuple[Finding, ...] = self.memory.read(owner, ("check", check.key), None, (pattern, pattern, body), work)
        return found

    def forget(self) -> None:
        """Forget everything (for benchmarks and tests)."""
        self.memory.forget()
        self._bodies.forget()
        self._results.forget()


@dataclass(frozen=True)
class _HalvesWorked:
    """Works steps on both halves."""

    evaluator: Evaluator
    bodies: tuple[Mapping[str, float], Mapping[str, float]]
    owner: Hashable
    refused: Mapping[str, IzettError]

    def stage(
        self, step: Step, section: Section, left: Pattern, right: Pattern, follows: tuple[str, ...] = ()
    ) -> Stage:
        """Return both halves after a step."""
        operation = self.evaluator.catalogue.operations.get(step.kind)
        skipped = Stage(step, section, left, right, unknown_words(step), follows=follows)
        if operation is None or step.version is None or not 1 <= step.version <= operation.version:
            return replace(skipped, failure=unknown(step))
        return self._known(step, operation, skipped)

    def _known(self, step: Step, operation: Operation, skipped: Stage) -> Stage:
        """Return both halves after a step of a known kind; `skipped` is the stage where it does not act."""
        left, right = skipped.left, skipped.right
        try:
            params = operation.params.model_validate(operation.upgraded(step.params, step.version))
        except ValidationError as error:
            return replace(skipped, words=operation.title, failure=invalid_params(operation.params, error))
        words = _sided(titled(operation.describe(params), titles_of(left, right)), step.half)
        skipped = replace(skipped, words=words)
        if step.half is not Half.BOTH and not operation.sided:
            return replace(skipped, failure=no_half(step.half))
        if not step.on:
            return skipped
        if step.uid in self.refused:
            return replace(skipped, failure=self.refused[step.uid])
        return self._told(step, skipped, self._worked(step, operation, params, left, right))

    def _told(self, step: Step, skipped: Stage, worked: Mapping[Half, Worked]) -> Stage:
        """Return the stage of a step that was worked on the halves that it is for."""
        left, right = skipped.left, skipped.right
        failures = [(half, one.failure) for half, one in worked.items() if one.failure is not None]
        read = frozenset().union(*(one.read for one in worked.values()))
        if failures:
            half, failure = failures[0]
            whole = _whole_of(left, read) if step.half is not Half.BOTH else None
            if whole is not None:
                return replace(skipped, read=read, failure=whole_refused(step.half, whole))
            apart = len(worked) > 1 and len(failures) < len(worked)
            return replace(skipped, read=read, failure=_told_of(failure, half if apart else Half.BOTH, left, right))
        after = self._laid(step, worked, left, right)
        if isinstance(after, IzettError):
            return replace(skipped, read=read, failure=after)
        operation = self.evaluator.catalogue.operations[step.kind]
        # What a fit step is there to move is followed by what is sewn to it: that is not lost.
        follows = operation.moves if skipped.section is Section.FIT else ()
        told_so = [line.plainly for line in _sums(worked, step.half, follows)]
        sums = tuple(line._replace(what=in_titles(line.what, *after)) for line in told_so)
        made = tuple(dict.fromkeys(name for one in worked.values() for name in one.made))
        now = titled(skipped.words, titles_of(*after))
        asks = tuple(dict.fromkeys(kind for one in worked.values() for kind in one.asks))
        acted_on = replace(
            skipped, left=after[0], right=after[1], words=now, sums=sums, made=made, read=read, asks=asks
        )
        return replace(acted_on, idle=all(one.idle for one in worked.values()) and not skipped.follows)

    def _worked(
        self, step: Step, operation: Operation, params: Params, left: Pattern, right: Pattern
    ) -> dict[Half, Worked]:
        """Return what a step comes to on each half that it is for; once where the halves are alike."""
        left_body, right_body = self.bodies
        alike = left is right and left_body is right_body
        found: dict[Half, Worked] = {}
        if step.half is not Half.RIGHT:
            found[Half.LEFT] = self._of_half(step, operation, params, left, right, left_body)
        if step.half is Half.RIGHT or (step.half is Half.BOTH and not alike and not operation.joins):
            found[Half.RIGHT] = self._of_half(step, operation, params, right, left, right_body)
        return found

    def _of_half(
        self,
        step: Step,
        operation: Operation,
        params: Params,
        own: Pattern,
        other: Pattern,
        body: Mapping[str, float],
    ) -> Worked:
        def work() -> tuple[Record, Worked]:
            context = Context.before(step.uid, own, body, self.evaluator.catalogue.operations, other=other)
            return context.record, acted(operation, params, context)

        of = (step.kind, operation.version, step.uid, step.version)
        found: Worked = self.evaluator.memory.read(self.owner, of, _key(step.params), (own, other, body), work)
        return found

    def _laid(
        self, step: Step, worked: Mapping[Half, Worked], left: Pattern, right: Pattern
    ) -> tuple[Pattern, Pattern] | IzettError:
        """Return both halves with the changes laid on, or why that cannot be."""
        if step.half is Half.BOTH and Half.RIGHT not in worked:
            # Worked once for both: the halves are alike, or the step joined them.
            return worked[Half.LEFT].on(left, step.uid), worked[Half.LEFT].on(right, step.uid)
        mine = worked[Half.LEFT].on(left, step.uid) if Half.LEFT in worked else left
        theirs = worked[Half.RIGHT].on(right, step.uid) if Half.RIGHT in worked else right
        for piece in (*mine.pieces, *theirs.pieces):
            if (piece.is_whole or piece.half is not Half.BOTH) and _differs(mine, theirs, piece.name):
                return whole_refused(step.half, piece)
        return mine, theirs


def _whole_of(pattern: Pattern, names: frozenset[str]) -> Piece | None:
    """Return a piece over both halves that is among the things with some names."""
    found = (pattern.find_piece(name) or pattern.find(name) for name in sorted(names))
    return next((p for p in found if p is not None and p.is_whole and p.region is not Region.NONE), None)


def _differs(left: Pattern, right: Pattern, name: str) -> bool:
    mine, theirs = left.find_piece(name), right.find_piece(name)
    return mine is not theirs and mine != theirs


def _sums(worked: Mapping[Half, Worked], half: Half, follows: Sequence[SeamKind]) -> Sequence[Sum]:
    """Return a step's arithmetic, and what it lost but for what follows; each half's where they come to something else."""
    found = [
        (each, (*one.sums, *(gone.told for gone in one.lost if gone.seam not in follows)))
        for each, one in worked.items()
    ]
    if half is not Half.BOTH:
        return [line._replace(value=line.value / 2) if line.both else line for line in found[0][1]]
    if len(found) == 1 or found[0][1] == found[1][1]:
        return found[0][1]
    return [Sum(f"{each.value}: {what}", value, unit) for each, sums in found for what, value, unit, _ in sums]


def _sided(words: str, half: Half) -> str:
    return words if half is Half.BOTH else f"{half.value.capitalize()} half: {words[:1].lower()}{words[1:]}"


def _told_of(failure: IzettError, half: Half, left: Pattern, right: Pattern) -> IzettError:
    """Return a failure with titles in it, and the half that it concerns where the other could be worked."""
    side = "" if half is Half.BOTH else f"On the {half.value} half: "
    message, fix = in_titles(failure.message, left, right), in_titles(failure.fix, left, right)
    return type(failure)(f"{side}{message}", fix=fix, where=failure.where)


def _key(*parts: Any) -> str:
    return json.dumps(parts, sort_keys=True, allow_nan=False, default=str)
