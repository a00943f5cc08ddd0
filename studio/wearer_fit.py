"""The wearer's fit as a garment of hers would take it; and what the fittings of all wearers teach the house."""

from izett.catalogue import catalogue
from izett.drafting.method import sheet_for
from izett.files.recipe_json import RecipeDoc, StepDoc
from izett.fitting.finding import Outcome, finding_kinds
from izett.fitting.learned import Fittings, Lesson, learned
from izett.recipe.evaluation import Stage
from izett.rules.sheet import Allowance
from studio.fittings import core_recipe, recorded, works_out
from studio.models import Finding, HouseRule, Job, KeptFit
from studio.round_schemas import KeptFitOut, LessonOut
from studio.state import head_of, readable_recipe
from studio.workroom import recipe_document


def offered_fit(job: Job) -> list[KeptFitOut]:
    """Return the steps of the wearer's fit, each tried on the garment by itself; nothing is kept."""
    document = readable_recipe(job)
    newest = job.wearer.sheets.order_by("-number").values_list("number", flat=True).first() or 0
    return [_offered(kept, job, document, newest) for kept in job.wearer.kept_fits.all()]


def _offered(kept: KeptFit, job: Job, document: RecipeDoc, newest: int) -> KeptFitOut:
    step = StepDoc.model_validate(kept.step)
    here = any(one.uid == step.uid for one in document.steps)
    tried = document if here else document.model_copy(update={"steps": [*document.steps, step]})
    stage = _stage_of(step.uid, tried, job)
    return KeptFitOut(
        uid=kept.uid,
        words=stage.words if stage else step.kind,
        story=kept.story,
        half=step.half.value,
        proven_on=kept.proven_on,
        anew=kept.proven_on < newest,
        here=here,
        refused=stage.failure.message if stage and stage.failure else "",
    )


def _stage_of(uid: str, document: RecipeDoc, job: Job) -> Stage | None:
    evaluation = works_out(core_recipe(document, head_of(job).sheet), job)
    return next((stage for stage in evaluation.stages if stage.step.uid == uid), None)


def lessons() -> list[LessonOut]:
    """Return what the fittings of several wearers keep changing the same way, where no house rule says so already."""
    jobs = Job.objects.filter(rounds__closed__isnull=False).distinct().select_related("head__sheet")
    found = learned([_fittings(job) for job in jobs.prefetch_related("head__sheet__readings")])
    ruled = set(HouseRule.objects.values_list("symbol", flat=True))
    return [lesson for one in found if one.symbol not in ruled and (lesson := _lesson(one)) is not None]


def _fittings(job: Job) -> Fittings:
    head = head_of(job)
    recipe = core_recipe(recipe_document(head.document), head.sheet)
    sheet = sheet_for(catalogue().in_order(recipe.blocks), (), recipe.fit, recipe.cloth)
    symbols = {rule.symbol for kind in finding_kinds().values() for rule in kind.house}
    solved = Finding.objects.filter(round__job=job, answers__outcome=Outcome.SOLVED).exclude(remedy="").distinct()
    return Fittings(
        str(job.wearer_id),
        str(job.pk),
        frozenset(symbol for symbol in symbols if sheet.entry(symbol) is not None),
        tuple(recorded(finding) for finding in solved if finding.kind in finding_kinds()),
    )


def _lesson(one: Lesson) -> LessonOut | None:
    """Return a lesson as a rule that can be set: the usual value and as much more or less, as far as a draft can have it."""
    allowance = next((e for e in catalogue().entries(one.symbol) if isinstance(e, Allowance)), None)
    if allowance is None:
        return None
    value = min(max(round(allowance.default + one.by, 2), allowance.low), allowance.high)
    way = "more" if one.by > 0 else "less"
    return LessonOut(
        symbol=one.symbol,
        label=allowance.label,
        unit=allowance.unit,
        by=one.by,
        value=value,
        usual=allowance.default,
        garments=one.garments,
        of=one.of,
        wearers=one.wearers,
        words=f"{allowance.label}: {way} was needed in {one.garments} of {one.of} fitted garments, on {one.wearers} wearers.",
    )
