"""The demo's cutting table: cloths on the shelf, and the chamber dress laid on one of them."""

from io import BytesIO

from PIL import Image, ImageDraw

from izett.cutting.cloth import Cloth, Fold, Use
from izett.cutting.lay.search import Effort, best_plan
from izett.files.lay_json import lay_document
from izett.files.recipe_json import StepDoc
from studio.actions.keep_cut_table import keep_cut_table
from studio.actions.keep_lay import keep_lay
from studio.actions.revise import revise
from studio.actions.shelve import shelve
from studio.cutting_schemas import CutTableIn, KeptPlanIn, SumKept
from studio.lays import cut_of, table_of, wanted_of
from studio.locking import job_of
from studio.models import Job
from studio.schemas import RevisionIn
from studio.state import head_of
from studio.storage.photos import SWATCH, swatch_of
from studio.workroom import recipe_document


def _swatch(colour: str, *, stripe: str = "", every: int = 40) -> str:
    """Return an invented swatch: a plain weave, with a stripe where it has one."""
    picture = Image.effect_noise((SWATCH, SWATCH), 18).convert("RGB")
    picture = Image.blend(picture, Image.new("RGB", picture.size, colour), 0.82)
    draw = ImageDraw.Draw(picture)
    for at in range(0, SWATCH, 3):
        draw.line(((0, at), (SWATCH, at)), fill=colour)
    for at in range(every // 2, SWATCH, every) if stripe else ():
        draw.line(((at, 0), (at, SWATCH)), fill=stripe, width=3)
    written = BytesIO()
    picture.save(written, "PNG")
    return swatch_of(written.getvalue())


CREPE = Cloth(
    name="Black wool crêpe", width=150, fold=Fold.LENGTHWISE, weight=240, price=34, length=400,
    shrinkage=(0.03, 0.01), note="Stage black: no shine under the lights.",
    swatch=_swatch("#1c1b1f"),
)  # fmt: skip
SHELF = (
    CREPE,
    Cloth(name="Unbleached calico", use=Use.MUSLIN, width=160, price=6),
    Cloth(
        name="Midnight velvet",
        swatch=_swatch("#1d2340"),
        width=140,
        nap=True,
        weight=310,
        price=42,
        note="Pile up: darker so.",
    ),
    Cloth(name="Viscose lining, black", use=Use.LINING, width=140, price=9),
    Cloth(name="Pinstripe, grey", swatch=_swatch("#5c6066", stripe="#d9d9d4"), width=150, repeat=(2.5, 0), price=28),
)
#: A first plan is enough to be looked at: the maker looks longer.
QUICK = Effort(rounds=400, looks=0.0)


def cut_the_dress(job: Job) -> None:
    """Put cloths on the shelf, and lay a dress on one of them."""
    for cloth in SHELF:
        shelve(cloth)
    recipe = recipe_document(head_of(job_of(job.id)).document)
    sewn = StepDoc(uid="s-allowances", kind="set_allowances", params={"purpose": "home"})
    final = recipe.model_copy(update={"steps": [*recipe.steps, sewn]})
    revise(job.id, job_of(job.id).version, RevisionIn(recipe=final, why="Seam allowances: sewn at home"))
    values = {"line": 5.0, "first": 1.2, "bust": 3.7, "above": 2.0, "last": 1.0, "button": 1.1}
    sums = [SumKept(uid="cuffs", kind="buttons", values=values, note="at the cuffs")]
    keep_cut_table(job.id, job_of(job.id).version, CutTableIn(cloths={Use.OUTER: CREPE}, sums=sums))
    job = job_of(job.id)
    plan = best_plan(wanted_of(cut_of(job, table_of(job)), Use.OUTER), CREPE, effort=QUICK)
    keep_lay(job.id, job_of(job.id).version, Use.OUTER, KeptPlanIn(plan=lay_document(plan)))
