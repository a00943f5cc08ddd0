"""Give a job a new state of its recipe: a draft change, a step added, edited, switched off or removed."""

from collections import Counter
from collections.abc import Iterable
from uuid import UUID

from pydantic import ValidationError

from izett.catalogue import catalogue
from izett.checking.check import ODD, Result
from izett.errors import StepRefused
from izett.files.recipe_json import RecipeDoc
from izett.styling.limits import invalid_params
from studio.limits import MOST_REVISIONS, refuse_more
from studio.locking import changing, job_of, tell
from studio.models import Job, MeasureSheet, Revision
from studio.problems import Refusal, not_found
from studio.schemas import AboutIn, RevisionIn
from studio.standing import look_later
from studio.state import document_of, head_of
from studio.workroom import evaluate, recipe_document, refuse_undraftable


def revise(job_id: UUID, version: int, data: RevisionIn) -> Job:
    """Add a revision and move the job's head to it.

    Sending the state that the job already has changes nothing, so a repeated call is safe.

    Raises:
        Refusal: the job has moved on, or the sheet is not this wearer's.
        IzettError: the recipe does not draft.
    """
    job = job_of(job_id)
    head = head_of(job)
    sheet = _sheet(job, data.sheet) if data.sheet is not None else head.sheet
    document = document_of(data.recipe)
    if recipe_document(head.document) == data.recipe and head.sheet.pk == sheet.pk:
        return job
    keep_closed_steps(job, data.recipe)
    refuse_out_of_range(data.recipe, recipe_document(head.document))
    refuse_undraftable(data.recipe, sheet, owner=job.id)
    found = evaluate(recipe_document(head.document), head.sheet, owner=job.id).results if data.fixes else ()
    with changing(job, version, adding=document):
        # A page that is behind is told that first: it is on the newer state that a finding may be gone.
        if data.fixes is not None:
            refuse_gone(data.fixes, found)
        add_revision(job, document, sheet, data.why)
        tell(job, "revise", data.why or "recipe changed")
    look_later(job.pk)
    return job


def add_revision(job: Job, document: dict[str, object], sheet: MeasureSheet, why: str) -> Revision:
    """Add a revision after the head and make it the head; call within the job's transaction."""
    last = job.revisions.order_by("-number").values_list("number", flat=True).first()
    number = (last or 0) + 1
    refuse_more(number, MOST_REVISIONS, "states of one job")
    job.head = Revision.objects.create(
        job=job,
        number=number,
        parent=job.head,
        sheet=sheet,
        document=document,
        why=why,
    )
    job.sheet = sheet
    job.save(update_fields=["head", "sheet"])
    return job.head


def refuse_gone(about: AboutIn, results: Iterable[Result]) -> None:
    """Let pass the fix of a finding that is still found.

    Raises:
        Refusal: it is not: it was fixed meanwhile, in another window perhaps.
    """
    wanted = (about.check, tuple(about.where), about.aspect, about.half)
    for result in results:
        found = result.finding
        if (result.check, found.where, found.aspect, found.half) == wanted and found.verdict in ODD:
            return
    raise Refusal(
        409,
        "finding-gone",
        "What this fixes is not found any more: nothing was changed.",
        fix="Look at the checks again; it may have been fixed in another window.",
    )


def refuse_out_of_range(recipe: RecipeDoc, before: RecipeDoc) -> None:
    """Let pass a recipe whose new and changed steps have parameters that their kinds can have.

    Raises:
        StepRefused: one has not; nothing is kept then.
    """
    for symbol, value in {**recipe.house, **recipe.overrides}.items():
        catalogue().checked(symbol, value)
    for uid, times in Counter(step.uid for step in recipe.steps).items():
        if times > 1:
            raise StepRefused(
                f"Two steps of the recipe are called “{uid}”.", fix="Give one of them another name.", where=(uid,)
            )
    known = {step.uid: step for step in before.steps}
    for step in recipe.steps:
        operation = catalogue().operations.get(step.kind)
        if operation is None or step.version > operation.version or known.get(step.uid) == step:
            continue
        try:
            operation.params.model_validate(operation.upgraded(step.params, step.version))
        except ValidationError as error:
            wrong = invalid_params(operation.params, error)
            raise StepRefused(f"{operation.title}: {wrong.message}", fix=wrong.fix, where=wrong.where) from error


def keep_closed_steps(job: Job, recipe: RecipeDoc) -> None:
    """Let pass a recipe that keeps the steps that a closed muslin stands on.

    Raises:
        Refusal: one of them was changed or removed; switching it off is a change of the open muslin and allowed.
    """
    closed = [round_ for round_ in job.rounds.all() if round_.closed_at_id is not None]
    if not closed:
        return
    last = closed[-1]
    # What the open muslin amended of them was changed there, with its finding as the reason.
    amended = {
        one["uid"]: one["after"] for round_ in job.rounds.all() for f in round_.findings.all() for one in f.amended
    }
    now = {step.uid: step for step in recipe.steps}
    for step in recipe_document(last.closed_at.document).steps:
        kept = now.get(step.uid)
        if kept is not None and kept.params == amended.get(step.uid):
            continue
        if kept is None or kept.model_copy(update={"on": True}) != step.model_copy(update={"on": True}):
            raise Refusal(
                409,
                "round-closed",
                f"A step of muslin {last.number} was changed, and that muslin is closed.",
                fix="Switch the step off, and add a new one in the open muslin.",
            )


def _sheet(job: Job, sheet_id: int) -> MeasureSheet:
    sheet = job.wearer.sheets.filter(id=sheet_id).first()
    if sheet is None:
        raise not_found("sheet of this wearer")
    return sheet
