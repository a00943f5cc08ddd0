"""The plan of a round: for each finding its remedies with their arithmetic, tried on the garment; in which order they are
worked, which go together in one step, and which of them are at odds.

A plan is tried, not guessed: each remedy is laid on the recipe and the garment worked again, so what it moves, what follows
and what would no longer agree are read from the result.
"""

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import combinations, islice
from typing import Any, NamedTuple

from izett.catalogue import catalogue
from izett.checking.check import ODD, Result, Verdict
from izett.errors import IzettError, StepRefused
from izett.finishing.allowances import Allowances, purposes
from izett.fitting.compare import LineMove, moves
from izett.fitting.finding import Remedy, Work
from izett.fitting.garment import Fitted
from izett.fitting.readings import reading
from izett.fitting.working_out import Adding, Amending, Deed, Seen, Worked, refuse, worked
from izett.pattern.alike import alike
from izett.pattern.facts import Half, Role
from izett.recipe.evaluation import Evaluation, Stage
from izett.recipe.model import Recipe, Step
from izett.styling.operation import Section
from izett.wording import cm

#: The name by which steps of a remedy are tried.
TRIED = "tried"
#: How a step's arithmetic begins a line that says why it could not go as far as it was asked.
LIMITED = "so that"
#: cm. A reading that is promised to change by less is not at odds with another.
NO_CHANGE = 0.05
#: Steps whose amounts add up: two of them on one half are one.
ADD_UP = frozenset(
    (
        "change_armhole", "change_arm", "change_bust", "change_crotch", "change_ease", "change_leg", "change_length",
        "change_neckline", "change_shoulder", "change_side", "shape_hem", "shape_seam", "wedge", "widen_across",
    )
)  # fmt: skip
#: Steps that let out at seams, and the role whose allowance of the muslin they use.
LET_OUT = {"change_side": Role.SIDE, "shape_seam": Role.PANEL, "change_leg": Role.INSEAM, "change_arm": Role.UNDERARM}

Evaluate = Callable[[Recipe], Evaluation]


@dataclass(frozen=True, slots=True)
class Came:
    """What a remedy came to when it was tried.

    Attributes:
        read: by how much each reading that it promises has changed, cm: where it is done under the style, read there.
        worn: the same, read on the finished garment.
        moved: the lines that moved, the largest move first.
        touched: the titles of the pieces that changed.
        follows: the steps that followed, in words.
        odd: what no longer agrees, in words; `failing` whether something of it fails.
        beyond: what the muslin cannot show of it, in words; empty where it can.
    """

    read: Mapping[str, float]
    worn: Mapping[str, float]
    moved: tuple[LineMove, ...]
    touched: tuple[str, ...]
    follows: tuple[str, ...]
    odd: tuple[str, ...]
    failing: bool
    beyond: str


@dataclass(frozen=True, slots=True)
class Way:
    """A remedy of a finding on this garment: worked and tried, or why it cannot be made."""

    remedy: Remedy
    worked: Worked | None = None
    came: Came | None = None
    refused: IzettError | None = None
    was_tried: bool = False


@dataclass(frozen=True, slots=True)
class Planned:
    """A finding with its ways, the one offered first before the others; `refused` where the finding is none of this garment."""

    seen: Seen
    ways: tuple[Way, ...]
    chosen: Way | None
    refused: IzettError | None = None


class Conflict(NamedTuple):
    """Findings whose remedies are at odds: which, and why."""

    uids: tuple[str, ...]
    words: str


class Together(NamedTuple):
    """What is done to the recipe, and for which findings."""

    deed: Deed
    uids: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Plan:
    """The plan of a round.

    Attributes:
        findings: in the order in which they are worked.
        deeds: what is done in all, one deed for several findings where they go together.
        conflicts: findings that are at odds.
        came: what it all came to together; None where there is nothing to do.
    """

    findings: tuple[Planned, ...]
    deeds: tuple[Together, ...]
    conflicts: tuple[Conflict, ...]
    came: Came | None


def plan(
    seen: Sequence[Seen],
    recipe: Recipe,
    evaluation: Evaluation,
    evaluate: Evaluate,
    *,
    chosen: Mapping[str, str] | None = None,
) -> Plan:
    """Return the plan of a round.

    Args:
        seen: its findings.
        recipe, evaluation: the garment as it is now.
        evaluate: works a recipe out.
        chosen: the remedy that was chosen for a finding, by its uid; the first that can be made otherwise.
    """
    fitted = Fitted(recipe, evaluation)
    wished = chosen or {}
    found = [_planned(one, fitted, evaluate, wished.get(one.uid)) for one in seen]
    order = list(Work)
    found.sort(key=lambda planned: order.index(planned.seen.kind.work))
    deeds = together(
        [
            (planned.seen.uid, deed)
            for planned in found
            if planned.chosen and planned.chosen.worked
            for deed in planned.chosen.worked.deeds
        ]
    )
    conflicts = list(_conflicts(found))
    came = None
    if deeds:
        try:
            came = tried([one.deed for one in deeds], {}, fitted, evaluate)
        except IzettError as error:
            uids = tuple(dict.fromkeys(uid for one in deeds for uid in one.uids))
            conflicts.append(Conflict(uids, f"Together they cannot be made: {error.message}"))
    return Plan(tuple(found), tuple(deeds), tuple(conflicts), came)


def ways_of(seen: Seen, fitted: Fitted, evaluate: Evaluate | None) -> tuple[Way, ...]:
    """Return the remedies of a finding on a garment, those that did not help before behind the others.

    Args:
        seen: the finding.
        fitted: the garment.
        evaluate: works a recipe out; None where the ways are not to be tried.
    """
    ways = [_way(seen, remedy, fitted, evaluate) for remedy in seen.kind.remedies]
    return tuple(sorted(ways, key=lambda way: (way.refused is not None, way.was_tried)))


def _planned(seen: Seen, fitted: Fitted, evaluate: Evaluate, wish: str | None) -> Planned:
    try:
        refuse(seen, None, fitted)
    except IzettError as error:
        return Planned(seen, (), None, error)
    ways = ways_of(seen, fitted, evaluate)
    can = [way for way in ways if way.refused is None]
    wanted = next((way for way in can if way.remedy.key == wish), None)
    return Planned(seen, ways, wanted or (can[0] if can else None))


def _way(seen: Seen, remedy: Remedy, fitted: Fitted, evaluate: Evaluate | None) -> Way:
    before = remedy.key in seen.tried
    try:
        made = worked(seen, remedy, fitted)
        came = None
        if evaluate is not None and made.deeds:
            came = tried(made.deeds, made.promised, fitted, evaluate, half=seen.half, under=made.under)
    except IzettError as error:
        return Way(remedy, refused=error, was_tried=before)
    return Way(remedy, made, came, was_tried=before)


def with_deeds(recipe: Recipe, deeds: Sequence[Deed], names: Sequence[str], *, why: str = "") -> Recipe:
    """Return a recipe with deeds done: steps added at the end of their sections, others amended.

    Args:
        recipe: the recipe.
        deeds: what is done.
        names: the names of the steps that are added, in order.
        why: their reason.
    """
    left = iter(names)
    amended = {deed.uid: deed for deed in deeds if isinstance(deed, Amending)}
    kept = [
        replace(step, params=amended[step.uid].after, version=catalogue().operations[step.kind].version)
        if step.uid in amended
        else step
        for step in recipe.steps
    ]
    added = [
        Step(next(left), deed.kind, deed.params, section=deed.section, half=deed.half, why=why)
        for deed in deeds
        if isinstance(deed, Adding)
    ]
    return replace(recipe, steps=(*kept, *added))


def tried(
    deeds: Sequence[Deed],
    promised: Mapping[str, float],
    fitted: Fitted,
    evaluate: Evaluate,
    *,
    half: Half = Half.BOTH,
    under: bool = False,
) -> Came:
    """Return what deeds come to on a garment.

    Raises:
        IzettError: one of them cannot act, or changes nothing.
    """
    names = _names(fitted.recipe, len(deeds))
    after = evaluate(with_deeds(fitted.recipe, deeds, names))
    before = fitted.evaluation
    meant = {*names, *(deed.uid for deed in deeds if isinstance(deed, Amending))}
    for stage in after.stages:
        if stage.step.uid in meant and stage.failure is not None:
            raise stage.failure
    acted = [stage for stage in after.stages if stage.step.uid in meant]
    if all(stage.idle for stage in acted) or _is_same(before, after):
        why = next((line.what for stage in acted for line in stage.sums if line.what.startswith(LIMITED)), "")
        raise StepRefused(
            f"As the garment is now, this changes nothing{f': {why}' if why else ''}.",
            fix="Choose another remedy, or measure it again.",
            where=tuple(stage.step.uid for stage in acted),
        )
    for stage in after.stages:
        was = _stage(before, stage.step.uid)
        if stage.failure is not None and was is not None and was.failure is None:
            raise StepRefused(
                f"“{stage.words}” could not act any more: {stage.failure.message}",
                fix="Choose another remedy, or change that step first.",
                where=(stage.step.uid,),
            )
    moved = tuple(moves(before.pattern, after.pattern))
    old = {piece.name: piece for piece in before.pattern}
    touched = tuple(
        p.title for p in after.pattern if p.name not in old or (old[p.name] is not p and not alike(old[p.name], p))
    )
    odd = _newly_odd(before.results, after.results)
    return Came(
        {n: reading(after, n, half, under=under) - reading(before, n, half, under=under) for n in promised},
        {name: reading(after, name, half) - reading(before, name, half) for name in promised},
        moved,
        touched,
        tuple(_follows(before, after, meant)),
        tuple(result.words for result in odd),
        any(result.finding.verdict is Verdict.FAILS for result in odd),
        _beyond(deeds, fitted),
    )


def on_trial(seen: Seen, remedy: Remedy, fitted: Fitted) -> Recipe:
    """Return the recipe of a garment with a remedy of a finding done.

    Raises:
        IzettError: the remedy cannot be made on it.
    """
    deeds = worked(seen, remedy, fitted).deeds
    return with_deeds(fitted.recipe, deeds, _names(fitted.recipe, len(deeds)))


def _names(recipe: Recipe, count: int) -> list[str]:
    """Return so many names for steps on trial that no step of a recipe has."""
    taken = {step.uid for step in recipe.steps}
    free = (name for i in range(len(taken) + count) if (name := f"{TRIED}{i}") not in taken)
    return list(islice(free, count))


def _is_same(before: Evaluation, after: Evaluation) -> bool:
    """Return whether a garment is as it was: its pieces, how they are sewn, and what is said of it."""
    one, other = before.pattern, after.pattern
    return (
        alike(one.pieces, other.pieces)
        and alike(one.seams, other.seams)
        and one.machine == other.machine
        and (one.openings == other.openings)
    )


def _stage(evaluation: Evaluation, uid: str) -> Stage | None:
    return next((stage for stage in evaluation.stages if stage.step.uid == uid), None)


def _follows(before: Evaluation, after: Evaluation, meant: set[str]) -> Iterator[str]:
    """Yield in words the steps that followed: by themselves, or since what they are worked from has changed."""
    old = {piece.name: piece for piece in before.pattern}
    changed = {p.name for p in after.pattern if p.name in old and not (old[p.name] is p or alike(old[p.name], p))}
    for stage in after.stages:
        if stage.step.uid in meant or stage.failure is not None or stage.idle:
            continue
        was = _stage(before, stage.step.uid)
        made = any(name.startswith(f"{stage.step.uid}.") for name in changed)
        worked_anew = was is not None and not alike(was.sums, stage.sums)
        if stage.follows or (stage.section is Section.FOLLOW and (made or worked_anew)):
            yield stage.words


def _about(result: Result) -> tuple[Any, ...]:
    finding = result.finding
    return (result.check, finding.where, finding.aspect, finding.half)


def _newly_odd(before: Sequence[Result], after: Sequence[Result]) -> list[Result]:
    """Return what no longer agrees: what was as it should be, or only warned of and fails now."""
    was = {_about(result): result.finding.verdict for result in before if result.finding.verdict in ODD}
    return [
        result
        for result in after
        if result.finding.verdict in ODD and was.get(_about(result)) not in (result.finding.verdict, Verdict.FAILS)
    ]


def _beyond(deeds: Sequence[Deed], fitted: Fitted) -> str:
    """Return in words what is let out by more than the muslin has allowance for; empty where it has enough."""
    by_role = purposes()[Allowances.of_pattern(fitted.final).purpose].by_role
    for deed in deeds:
        role = LET_OUT.get(deed.kind)
        if role is None or not isinstance(deed, Adding):
            continue
        most = max((value for value in deed.params.values() if isinstance(value, float)), default=0.0)
        if most > by_role[role]:
            return (
                f"{cm(most, 2)} at an edge is more than the allowance of {cm(by_role[role], 2)}: this muslin cannot be "
                "let out so far, the next one shows it."
            )
    return ""


def together(deeds: Sequence[tuple[str, Deed]]) -> list[Together]:
    """Return what is done in all: deeds that add up to one are one, for all the findings that ask for it."""
    found: list[Together] = []
    for uid, deed in deeds:
        at = next((i for i, other in enumerate(found) if _adds_up(other.deed, deed)), None)
        if at is None:
            found.append(Together(deed, (uid,)))
        else:
            found[at] = Together(_added(found[at].deed, deed), (*found[at].uids, uid))
    return found


def _adds_up(one: Deed, other: Deed) -> bool:
    if isinstance(one, Amending) and isinstance(other, Amending):
        return one.uid == other.uid
    if not (isinstance(one, Adding) and isinstance(other, Adding)) or one.kind not in ADD_UP:
        return False
    return (one.kind, one.section, one.half) == (other.kind, other.section, other.half) and _fixed(one) == _fixed(other)


def _fixed(deed: Adding) -> dict[str, Any]:
    """Return what of a step is no amount in cm."""
    fields = catalogue().operations[deed.kind].params.model_fields
    return {name: value for name, value in deed.params.items() if not _is_length(fields[name])}


def _is_length(field: Any) -> bool:
    return isinstance(field.json_schema_extra, Mapping) and field.json_schema_extra.get("unit") == "cm"


def _added(one: Deed, other: Deed) -> Deed:
    if isinstance(one, Amending) and isinstance(other, Amending):
        changed = {k: v for k, v in other.after.items() if other.before.get(k) != v}
        after = dict(one.after)
        for name, value in changed.items():
            before = one.before.get(name)
            both = (
                isinstance(value, float)
                and isinstance(before, float | int)
                and isinstance(after.get(name), float | int)
            )
            after[name] = after[name] + value - before if both else value
        return one._replace(after=after)
    assert isinstance(one, Adding) and isinstance(other, Adding)
    sums = {
        name: one.params.get(name, 0.0) + other.params.get(name, 0.0)
        if isinstance(one.params.get(name, 0.0), float) and isinstance(other.params.get(name, 0.0), float)
        else one.params.get(name, other.params.get(name))
        for name in {**one.params, **other.params}
        if _is_length(catalogue().operations[one.kind].params.model_fields[name])
    }
    return one._replace(params={**one.params, **sums})


def _conflicts(found: Sequence[Planned]) -> Iterator[Conflict]:
    for one, other in combinations(found, 2):
        if not _meet(one.seen.half, other.seen.half):
            continue
        uids = (one.seen.uid, other.seen.uid)
        if one.seen.kind is other.seen.kind and one.seen.kind.marks and one.seen.at != other.seen.at:
            # Two lines that were draped anew are two findings.
            continue
        if one.seen.kind is other.seen.kind:
            yield Conflict(uids, f"“{one.seen.kind.seen}” was recorded twice. Withdraw one of them.")
            continue
        mine, theirs = (_promises(planned) for planned in (one, other))
        for name in mine.keys() & theirs.keys():
            if mine[name] * theirs[name] < 0:
                yield Conflict(
                    uids,
                    f"“{one.seen.kind.seen}” and “{other.seen.kind.seen}” undo each other: {name}, "
                    f"{cm(mine[name], 2)} and {cm(theirs[name], 2)}.",
                )
            else:
                yield Conflict(
                    uids,
                    f"“{one.seen.kind.seen}” and “{other.seen.kind.seen}” may have one cause: both change the reading "
                    f"{name}. Make one, and look again.",
                )


def _meet(one: Half, other: Half) -> bool:
    return one is other or Half.BOTH in (one, other)


def _promises(planned: Planned) -> dict[str, float]:
    if planned.chosen is None or planned.chosen.worked is None:
        return {}
    return {name: by for name, by in planned.chosen.worked.promised.items() if abs(by) > NO_CHANGE}
