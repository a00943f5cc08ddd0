"""Open a job for a wearer on their newest sheet."""

from django.db import transaction

from izett.catalogue import catalogue
from izett.files.recipe_json import RecipeDoc
from studio.limits import MOST_JOBS, refuse_more
from studio.locking import tell, wearer_of
from studio.models import HouseRule, Job, Revision
from studio.problems import Refusal
from studio.schemas import JobIn
from studio.standing import look_later
from studio.state import document_of


def open_job(data: JobIn) -> Job:
    """Open a job with a first, plain revision.

    Raises:
        Refusal: there is no such wearer, or no measures of them yet.
        UnknownName, DraftRefused: the blocks do not exist, or do not go together.
    """
    refuse_more(Job.objects.count() + 1, MOST_JOBS, "tickets")
    document = first_recipe(data)
    wearer = wearer_of(data.wearer)
    sheet = wearer.sheets.order_by("-number").first()
    if sheet is None:
        raise Refusal(
            409, "no-measures", f"{wearer.name} has not been measured yet.", fix="Keep a sheet of measures first."
        )
    with transaction.atomic():
        job = Job.objects.create(wearer=wearer, sheet=sheet, garment=data.garment, due=data.due)
        head = Revision.objects.create(job=job, number=1, sheet=sheet, document=document_of(document), why="begun")
        job.head = head
        job.save(update_fields=["head"])
        how = f"drafted from sheet {sheet.number}" if document.block else "to be draped, wrapped or traced"
        tell(job, "open", f"{data.garment} for {wearer.name}, {how}")
    look_later(job.pk)
    return job


def first_recipe(data: JobIn) -> RecipeDoc:
    """Return the recipe that a job begins with: its blocks, and the house rules as they stand today.

    Raises:
        UnknownName, DraftRefused: the blocks do not exist, or do not go together.
    """
    first, *also = [method.key for method in catalogue().in_order(data.blocks)] or [""]
    rules = list(HouseRule.objects.all())
    return RecipeDoc(
        block=first,
        also=also,
        fit=data.fit,
        cloth=data.cloth,
        house={rule.symbol: rule.value for rule in rules},
        why={rule.symbol: rule.reason for rule in rules},
    )
