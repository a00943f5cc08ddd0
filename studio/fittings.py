"""Findings of a job as the core knows them: on the garment as it is, with what was tried before."""

from collections.abc import Sequence
from typing import Any

from izett.catalogue import catalogue
from izett.errors import ValueOutOfRange
from izett.files.recipe_json import RecipeDoc, StepDoc
from izett.fitting.finding import Counted, Outcome, Taken, finding_kind, finding_kinds
from izett.fitting.garment import Fitted
from izett.fitting.marked import Marked
from izett.fitting.pointing import Pointed
from izett.fitting.working_out import Adding, Amending, Deed, Seen
from izett.pattern.facts import Half
from izett.recipe.evaluation import Evaluation
from izett.recipe.model import Recipe
from izett.units import UnreadableLength, read_length
from studio.models import Finding, Job, MeasureSheet
from studio.problems import Refusal
from studio.schemas import LengthIn, SeenIn
from studio.workroom import evaluate, evaluator, measures_of, sides_of


def amounts_in_cm(given: dict[str, LengthIn]) -> dict[str, float]:
    """Return typed amounts in cm.

    Raises:
        ValueOutOfRange: one of them is not a length.
    """
    read: dict[str, float] = {}
    for symbol, entry in given.items():
        try:
            read[symbol] = read_length(entry.text, unit=entry.unit).cm
        except UnreadableLength as error:
            raise ValueOutOfRange(f"{symbol}: {error}.", fix="Type it again.", where=(symbol,)) from error
    return read


def fitted(document: RecipeDoc, sheet: MeasureSheet, job: Job) -> Fitted:
    """Return the garment of a recipe as a fitting meets it."""
    return Fitted(core_recipe(document, sheet), evaluate(document, sheet, owner=job.id))


def core_recipe(document: RecipeDoc, sheet: MeasureSheet) -> Recipe:
    """Return a recipe for the body of a sheet."""
    return document.recipe(measures_of(sheet), sides_of(sheet))


def works_out(recipe: Recipe, job: Job) -> Evaluation:
    """Work a recipe of a job out."""
    return evaluator().evaluate(recipe, owner=job.id)


def typed(data: SeenIn, *, uid: str = "", tried: Sequence[str] = ()) -> Seen:
    """Return a finding as it was typed.

    Raises:
        UnknownName, ValueOutOfRange: there is no such finding, or an amount is no length.
    """
    at = Pointed(data.piece, data.line, data.marked) if data.piece else None
    given = amounts_in_cm(data.given)
    return Seen(finding_kind(data.kind), given, data.taken, data.counted, Half(data.side), at, uid, tuple(tried))


def recorded(finding: Finding, *, tried: Sequence[str] = ()) -> Seen:
    """Return a finding as it was recorded.

    Raises:
        UnknownName: this version does not know its kind.
    """
    return Seen(
        finding_kind(finding.kind),
        finding.given,
        Taken(finding.taken),
        Counted(finding.counted) if finding.counted else None,
        Half(finding.side),
        Pointed(finding.piece, finding.line, marks_of(finding)) if finding.piece else None,
        finding.uid,
        tuple(tried),
    )


def marks_of(finding: Finding) -> Marked | None:
    """Return the new marks of the line that a finding is about; None where it has none."""
    return Marked.model_validate(finding.marked) if finding.marked else None


def seen_of(finding: Finding) -> str:
    """Return in words what was seen; the key of a kind that this version does not know."""
    kind = finding_kinds().get(finding.kind)
    return kind.seen if kind else finding.kind


def remedy_title(finding: Finding) -> str:
    """Return in words what was done about a finding; the key of a remedy that this version does not know, '' for none."""
    kind = finding_kinds().get(finding.kind)
    remedies = kind.remedies if kind else ()
    return next((one.title for one in remedies if one.key == finding.remedy), finding.remedy)


def tried_before(job: Job, kind: str, number: int) -> list[str]:
    """Return the remedies that earlier muslins made for a kind of finding and that did not solve it."""
    earlier = Finding.objects.filter(round__job=job, round__number__lt=number, kind=kind).exclude(remedy="")
    return [
        finding.remedy
        for finding in earlier.prefetch_related("answers")
        if not any(answer.outcome == Outcome.SOLVED for answer in finding.answers.all())
    ]


def without_remedy(document: RecipeDoc, finding: Finding) -> RecipeDoc:
    """Return a recipe without what the remedy of a finding did to it.

    Raises:
        Refusal: a step that it amended was changed since.
    """
    before = {one["uid"]: one for one in finding.amended}
    steps = []
    for step in document.steps:
        if step.uid in finding.steps:
            continue
        if step.uid in before:
            steps.append(_as_before(step, before[step.uid]))
            continue
        steps.append(step)
    return document.model_copy(update={"steps": steps})


def _as_before(step: StepDoc, amended: dict[str, Any]) -> StepDoc:
    if step.params != amended["after"]:
        title = catalogue().operations[step.kind].title if step.kind in catalogue().operations else step.kind
        raise Refusal(
            409,
            "step-changed",
            f"“{title}”, which the remedy amended, was changed since.",
            fix="Set its amount by hand, in Style; the finding stays as it is.",
        )
    return step.model_copy(update={"params": amended["before"]})


def added_steps(deeds: Sequence[Deed], names: Sequence[str], why: str) -> list[StepDoc]:
    """Return the steps that deeds add, under these names."""
    adding = [deed for deed in deeds if isinstance(deed, Adding)]
    return [
        StepDoc(
            uid=name,
            kind=deed.kind,
            params=deed.params,
            why=why,
            section=deed.section,
            half=deed.half,
            version=catalogue().operations[deed.kind].version,
        )
        for name, deed in zip(names, adding, strict=True)
    ]


def amended_steps(deeds: Sequence[Deed], document: RecipeDoc) -> list[StepDoc]:
    """Return the steps that deeds amend, as they become."""
    after = {deed.uid: deed for deed in deeds if isinstance(deed, Amending)}
    return [
        step.model_copy(update={"params": after[step.uid].after, "version": catalogue().operations[step.kind].version})
        for step in document.steps
        if step.uid in after
    ]


def with_steps(document: RecipeDoc, added: Sequence[StepDoc], amended: Sequence[StepDoc]) -> RecipeDoc:
    """Return a recipe with steps added at its end and others as they were amended."""
    by_uid = {step.uid: step for step in amended}
    return document.model_copy(update={"steps": [*(by_uid.get(s.uid, s) for s in document.steps), *added]})
