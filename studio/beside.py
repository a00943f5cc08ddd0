"""A draped garment beside a draft of the same wearer, and what the draft could learn from it."""

from collections.abc import Iterator
from uuid import uuid4

from izett.fitting.beside import Difference, changes_taught, differences, eases_taught
from izett.fitting.garment import Fitted
from izett.wording import cm
from studio.drape_schemas import BesideOut, BesideRowOut, LearnOut
from studio.fittings import added_steps, fitted
from studio.models import Job
from studio.problems import Refusal
from studio.state import head_of, readable_recipe


def beside_draft(job: Job, other: Job) -> BesideOut:
    """Return a job's garment beside another's, both as they are now.

    Raises:
        Refusal: the other is of somebody else, or is drafted from no block.
    """
    if other.wearer_id != job.wearer_id or other.pk == job.pk:
        raise Refusal(
            422, "other-wearer", "A drape is compared with a draft of the same wearer.", fix="Choose one of hers."
        )
    here = fitted(readable_recipe(job), head_of(job).sheet, job)
    recipe = readable_recipe(other)
    there = fitted(recipe, head_of(other).sheet, other)
    if not there.recipe.blocks:
        raise Refusal(422, "not-drafted", f"“{other.garment}” is drafted from no block.", fix="Choose one that is.")
    return BesideOut(
        garment=other.garment,
        version=other.version,
        recipe=recipe,
        differences=[
            BesideRowOut(
                what=one.what,
                drape=one.drape,
                draft=one.draft,
                seen=one.is_seen,
                learns=list(_learns(one, there, job.garment)) if one.is_seen else [],
            )
            for one in differences(here.evaluation, there.evaluation)
        ],
    )


def _learns(difference: Difference, draft: Fitted, garment: str) -> Iterator[LearnOut]:
    why = f"{garment}: {difference.what} {cm(difference.drape)}, the draft {cm(difference.draft)}"
    for ease in eases_taught(difference, draft.evaluation):
        words = f"Ease at the {ease.label.lower()}: {cm(ease.around)} all around"
        yield LearnOut(words=words, symbol=ease.symbol, value=ease.value, steps=[])
    for change in changes_taught(difference, draft):
        names = [f"s{uuid4().hex[:12]}" for _ in change.worked.deeds]
        steps = added_steps(change.worked.deeds, names, why)
        yield LearnOut(words=change.worked.remedy.title, symbol="", value=0.0, steps=steps)
