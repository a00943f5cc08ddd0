"""Apply a remedy: the paper change on every piece that it touches, as steps of the recipe with their reason."""

from uuid import UUID

from izett.files.recipe_json import RecipeDoc, StepDoc
from izett.fitting.finding import Taken, finding_kind, worked
from studio.actions.revise import add_revision
from studio.locking import changing, job_of, round_of, tell
from studio.models import Finding, Job
from studio.problems import Refusal, not_found
from studio.schemas import RemedyIn
from studio.state import document_of, head_of
from studio.workroom import evaluate, measures_of, recipe_document


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
    _refuse_failing(recipe, measures_of(head.sheet), set(data.uids))
    title = finding_kind(finding.kind).remedy(data.remedy).title
    with changing(job, version):
        add_revision(job, document_of(recipe), head.sheet, title)
        finding.remedy = data.remedy
        finding.steps = [step.uid for step in steps]
        finding.save(update_fields=["remedy", "steps"])
        tell(job, "remedy", f"Muslin {number}: {title}")
    return job


def remedy_steps(finding: Finding, remedy: str, uids: list[str], number: int) -> list[StepDoc]:
    """Return a remedy's steps with the finding as their reason.

    Raises:
        UnknownName: the finding has no such remedy.
        Refusal: too few names were sent for its steps.
    """
    kind = finding_kind(finding.kind)
    plan = worked(kind, kind.remedy(remedy), finding.given, Taken(finding.taken))
    if len(uids) != len(plan.steps):
        raise Refusal(
            422,
            "step-names",
            f"This remedy has {len(plan.steps)} steps, {len(uids)} names were sent.",
            mend="Try again.",
        )
    why = f"Muslin {number}: {kind.seen.lower()}" + (f" — “{finding.words}”" if finding.words else "")
    return [
        StepDoc(uid=uid, kind=step_kind, params=params, why=why)
        for uid, (step_kind, params) in zip(uids, plan.steps, strict=True)
    ]


def _refuse_failing(recipe: RecipeDoc, measures: dict[str, float], uids: set[str]) -> None:
    for stage in evaluate(recipe, measures).stages:
        if stage.step.uid in uids and stage.failure is not None:
            raise stage.failure
