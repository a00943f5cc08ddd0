"""The wearer's fit: what proved right on her is kept with her, and offered for her other garments."""

from uuid import UUID

from izett.catalogue import catalogue
from izett.files.recipe_json import StepDoc
from izett.fitting.finding import Outcome
from izett.styling.operation import Section
from studio.actions.revise import add_revision
from studio.fittings import seen_of
from studio.limits import MOST_KEPT_FITS, refuse_more
from studio.locking import changing, finding_of, job_of, round_of, tell, wearer_of
from studio.models import Finding, Job, KeptFit
from studio.problems import Refusal, not_found
from studio.standing import look_later
from studio.state import document_of, head_of
from studio.workroom import recipe_document, refuse_undraftable


def fit_steps(job: Job, finding: Finding) -> list[StepDoc]:
    """Return the fit steps that the remedy of a finding added, as they stand in the recipe now."""
    document = recipe_document(head_of(job).document)
    return [step for step in document.steps if step.uid in finding.steps and section_of(step) is Section.FIT]


def section_of(step: StepDoc) -> Section | None:
    """Return the section in which a step stands; None where this version does not know its kind."""
    if step.section is not None:
        return Section(step.section)
    operation = catalogue().operations.get(step.kind)
    return operation.section if operation else None


def keep_fit(job_id: UUID, version: int, number: int, finding_uid: str) -> Job:
    """Keep the fit steps of a finding that proved solved with the wearer.

    Raises:
        Refusal: it was not solved yet, its remedy changed nothing under the style, or the job has moved on.
    """
    job = job_of(job_id)
    finding = finding_of(round_of(job, number), finding_uid)
    if not finding.answers.filter(outcome=Outcome.SOLVED).exists():
        raise Refusal(
            409,
            "not-solved",
            "It has not proved right yet: no later muslin found it solved.",
            fix="Answer it on the next muslin first.",
        )
    steps = fit_steps(job, finding)
    if not steps:
        raise Refusal(
            409,
            "nothing-of-the-body",
            "Its remedy changed the style, not the fit: that belongs to this garment.",
            fix="Keep what was changed under the style.",
        )
    wearer = job.wearer
    kept = set(wearer.kept_fits.values_list("uid", flat=True))
    fresh = [step for step in steps if step.uid not in kept]
    refuse_more(len(kept) + len(fresh), MOST_KEPT_FITS, "steps of a wearer’s fit")
    said = f" “{finding.words}”" if finding.words else ""
    story = f"{job.garment}, muslin {number}: {seen_of(finding).lower()}.{said}"
    with changing(job, version):
        for step in fresh:
            KeptFit.objects.create(
                wearer=wearer, uid=step.uid, step=document_of(step), story=story, proven_on=head_of(job).sheet.number
            )
        tell(job, "fit", f"Kept with {wearer.name}: {seen_of(finding).lower()}")
    return job


def take_fit(job_id: UUID, version: int, uids: list[str]) -> Job:
    """Put steps of the wearer's fit under the style of a garment; those that it has stay.

    Raises:
        Refusal: there is no such step, or the job has moved on.
        IzettError: there would be no draft.
    """
    job = job_of(job_id)
    kept = {one.uid: one for one in job.wearer.kept_fits.filter(uid__in=uids)}
    if missing := [uid for uid in uids if uid not in kept]:
        raise not_found(f"step “{missing[0]}” of the wearer’s fit")
    head = head_of(job)
    document = recipe_document(head.document)
    there = {step.uid for step in document.steps}
    added = [
        StepDoc.model_validate(kept[uid].step).model_copy(update={"why": f"Her fit. {kept[uid].story}"})
        for uid in uids
        if uid not in there
    ]
    if not added:
        return job
    recipe = document.model_copy(update={"steps": [*document.steps, *added]})
    refuse_undraftable(recipe, head.sheet, owner=job.id)
    why = f"{job.wearer.name}’s fit taken over: {len(added)} {'step' if len(added) == 1 else 'steps'}"
    with changing(job, version, adding=document_of(recipe)):
        add_revision(job, document_of(recipe), head.sheet, why)
        tell(job, "fit", why)
    look_later(job.pk)
    return job


def confirm_fit(wearer_id: UUID, uid: str, sheet: int) -> None:
    """Say that a step of a wearer's fit holds for a newer sheet as well.

    Raises:
        Refusal: there is no such step or sheet.
    """
    wearer = wearer_of(wearer_id)
    if not wearer.sheets.filter(number=sheet).exists():
        raise not_found("sheet")
    if not wearer.kept_fits.filter(uid=uid).update(proven_on=sheet):
        raise not_found("step of the wearer’s fit")


def forget_fit(wearer_id: UUID, uid: str) -> None:
    """Forget a step of a wearer's fit; garments that have it keep it.

    Raises:
        Refusal: there is no such step.
    """
    if not wearer_of(wearer_id).kept_fits.filter(uid=uid).delete()[0]:
        raise not_found("step of the wearer’s fit")
