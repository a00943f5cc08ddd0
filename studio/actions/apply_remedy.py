"""Apply a remedy: the paper change on every piece that it touches, with the finding as its reason.

What a fitting told of a body is worked under the style, on the half that the finding is about; what it told of the style
amends the style's own amounts, or is added to it.
"""

from collections.abc import Sequence
from typing import Any, NamedTuple
from uuid import UUID

from izett.errors import StepRefused
from izett.files.recipe_json import RecipeDoc
from izett.fitting.finding import finding_kind
from izett.fitting.plan import tried
from izett.fitting.working_out import Adding, Amending, worked
from studio.actions.revise import add_revision
from studio.fittings import (
    added_steps,
    amended_steps,
    fitted,
    recorded,
    with_steps,
    without_remedy,
    works_out,
)
from studio.locking import changing, finding_of, job_of, round_of, tell
from studio.models import Finding, Job
from studio.problems import Refusal
from studio.schemas import RemedyIn
from studio.standing import look_later
from studio.state import document_of, head_of
from studio.workroom import recipe_document


class Change(NamedTuple):
    """What a remedy makes of a job: the recipe, why, the steps added, and what was amended."""

    recipe: RecipeDoc
    why: str
    remedy: str
    steps: list[str]
    amended: list[dict[str, Any]]


def apply_remedy(job_id: UUID, version: int, number: int, finding_uid: str, data: RemedyIn) -> Job:
    """Work a remedy into the recipe; an earlier remedy of the same finding is replaced.

    Raises:
        Refusal: the round is closed, the finding missing, or the job has moved on.
        IzettError: the remedy does not apply, or a step of it cannot act on this pattern; nothing is changed then.
    """
    job = job_of(job_id)
    round_ = round_of(job, number, to_change=True)
    finding = finding_of(round_, finding_uid)
    if finding.remedy == data.remedy and finding.steps == data.uids:
        return job
    change = changed_by_remedy(job, finding, data.remedy, data.uids)
    with changing(job, version, adding=document_of(change.recipe)):
        keep_change(job, finding, change)
        finding.normal = ""
        finding.save()
        tell(job, "remedy", f"Muslin {number}: {change.why}")
    look_later(job.pk)
    return job


def changed_by_remedy(job: Job, finding: Finding, remedy: str, uids: Sequence[str]) -> Change:
    """Return what a remedy makes of a job; without one, the job without what the finding's remedy did.

    Raises:
        UnknownName: the finding has no such remedy.
        Refusal: too few names were sent for its steps, or a step that was amended was changed since.
        IzettError: it cannot act.
    """
    head = head_of(job)
    base = without_remedy(recipe_document(head.document), finding)
    if not remedy:
        return Change(base, "Withdrawn", "", [], [])
    garment = fitted(base, head.sheet, job)
    kind = finding_kind(finding.kind)
    plan = worked(recorded(finding), kind.remedy(remedy), garment)
    adding = sum(isinstance(deed, Adding) for deed in plan.deeds)
    if len(uids) != adding:
        raise Refusal(
            422,
            "step-names",
            f"This remedy adds {adding} steps, {len(uids)} names were sent.",
            fix="Try again.",
        )
    if plan.deeds:
        tried(plan.deeds, {}, garment, lambda recipe: works_out(recipe, job))
    number = finding.round.number
    why = f"Muslin {number}: {kind.seen.lower()}" + (f": ‘{finding.words}’" if finding.words else "")
    recipe = with_steps(base, added_steps(plan.deeds, uids, why), amended_steps(plan.deeds, base))
    if len({step.uid for step in recipe.steps}) != len(recipe.steps):
        raise StepRefused(
            "A step of that name is there already.", fix="Try again: the page makes new names.", where=tuple(uids)
        )
    amended = [
        {"uid": deed.uid, "before": deed.before, "after": deed.after}
        for deed in plan.deeds
        if isinstance(deed, Amending)
    ]
    return Change(recipe, plan.remedy.title, remedy, list(uids) if adding else [], amended)


def keep_change(job: Job, finding: Finding, change: Change) -> None:
    """Keep what a remedy makes of a job; call within the job's transaction, and save the finding."""
    add_revision(job, document_of(change.recipe), head_of(job).sheet, change.why)
    finding.remedy, finding.steps, finding.amended = change.remedy, change.steps, change.amended
