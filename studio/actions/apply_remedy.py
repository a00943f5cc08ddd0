"""Apply a remedy: the paper change on every piece that it touches, as steps of the recipe with their reason.

What a fitting told of a body is worked under the style, on the half that the finding is about.
"""

from typing import Any
from uuid import UUID

from izett.catalogue import catalogue
from izett.files.recipe_json import RecipeDoc, StepDoc
from izett.fitting.finding import Taken, finding_kind, worked
from izett.pattern.facts import Half
from izett.styling.operation import Section
from studio.actions.revise import add_revision
from studio.locking import changing, job_of, round_of, tell
from studio.models import Finding, Job, MeasureSheet
from studio.problems import Refusal, not_found
from studio.schemas import RemedyIn
from studio.standing import look_later
from studio.state import document_of, head_of
from studio.workroom import evaluate, recipe_document


def apply_remedy(job_id: UUID, version: int, number: int, finding_uid: str, data: RemedyIn) -> Job:
    """Add the remedy's steps to the recipe; an earlier remedy of the same finding is replaced.

    Raises:
        Refusal: the round is closed, the finding missing, or the job has moved on.
        StepRefused, ReferenceLost: a step cannot act on this pattern; nothing is changed then.
    """
    job = job_of(job_id)
    round_ = round_of(job, number, to_change=True)
    finding = round_.findings.filter(uid=finding_uid).first()
    if finding is None:
        raise not_found("finding")
    if finding.remedy == data.remedy and finding.steps == data.uids:
        return job
    head = head_of(job)
    steps = remedy_steps(finding, data.remedy, data.uids, number)
    document = recipe_document(head.document)
    recipe = document.model_copy(update={"steps": [*(s for s in document.steps if s.uid not in finding.steps), *steps]})
    _refuse_failing(recipe, head.sheet, set(data.uids), job)
    title = finding_kind(finding.kind).remedy(data.remedy).title
    stored = document_of(recipe)
    with changing(job, version, adding=stored):
        add_revision(job, stored, head.sheet, title)
        finding.remedy = data.remedy
        finding.steps = [step.uid for step in steps]
        finding.save(update_fields=["remedy", "steps"])
        tell(job, "remedy", f"Muslin {number}: {title}")
    look_later(job.pk)
    return job


def remedy_steps(finding: Finding, remedy: str, uids: list[str], number: int) -> list[StepDoc]:
    """Return a remedy's steps with the finding as their reason.

    Raises:
        UnknownName: the finding has no such remedy.
        Refusal: too few names were sent for its steps.
    """
    kind = finding_kind(finding.kind)
    plan = worked(kind, kind.remedy(remedy), finding.given, Taken(finding.taken), Half(finding.side))
    if len(uids) != len(plan.steps):
        raise Refusal(
            422,
            "step-names",
            f"This remedy has {len(plan.steps)} steps, {len(uids)} names were sent.",
            fix="Try again.",
        )
    why = f"Muslin {number}: {kind.seen.lower()}" + (f": ‘{finding.words}’" if finding.words else "")
    return [
        fit_step(uid, step_kind, params, finding.side, why)
        for uid, (step_kind, params) in zip(uids, plan.steps, strict=True)
    ]


def fit_step(uid: str, kind: str, params: dict[str, Any], side: str, why: str) -> StepDoc:
    """Return a step of a remedy: under the style where its kind may stand there, on the half that was found."""
    operation = catalogue().operations[kind]
    section = Section.FIT if Section.FIT in operation.sections else operation.section
    half = Half(side) if operation.sided else Half.BOTH
    return StepDoc(uid=uid, kind=kind, params=params, why=why, section=section, half=half, version=operation.version)


def _refuse_failing(recipe: RecipeDoc, sheet: MeasureSheet, uids: set[str], job: Job) -> None:
    for stage in evaluate(recipe, sheet, owner=job.id).stages:
        if stage.step.uid in uids and stage.failure is not None:
            raise stage.failure
