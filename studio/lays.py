"""Lay plans of a job: what is asked, what comes of it, what a hand makes of it."""

from collections.abc import Mapping, Sequence
from dataclasses import asdict
from hashlib import sha256

from izett.cutting.cloth import USES, Cloth, Use
from izett.cutting.lay.by_hand import faults_of, moved
from izett.cutting.lay.cutouts import Wanted
from izett.cutting.lay.plan import Plan
from izett.cutting.lay.saving import savings
from izett.cutting.lay.search import USUAL, Effort, plans
from izett.cutting.lay.thumb import rule_of_thumb
from izett.cutting.order import cutting_order
from izett.cutting.shopping import ClothUsed, ToBuy, shopping
from izett.cutting.uses import cut_from, use_of
from izett.errors import IzettError, UnknownName
from izett.files.lay_json import lay_document, plan_of
from izett.files.lay_picture import headline
from izett.files.recipe_json import RecipeDoc
from izett.finishing.sheet import sheet_pieces
from izett.pattern.document import Pattern
from izett.units import Unit
from studio.advising import trying
from studio.cutting_schemas import (
    CutRowOut,
    CutTable,
    CutTableOut,
    CutUseOut,
    FaultOut,
    LaidOut,
    LayAskedIn,
    LayQuestion,
    MovedPieceIn,
    SavingOut,
    ToBuyOut,
)
from studio.long_work.telling import Teller
from studio.models import Job
from studio.problems import Refusal
from studio.state import head_of, readable_recipe
from studio.workroom import evaluate_revision, measures_of, sides_of

#: Decimals of a centimetre to which outlines are told apart.
SAME = 3
#: What of a cloth no plan depends on; how it is folded stands in the plan itself.
NOT_LAID_BY = {"name", "use", "fold", "note", "price", "weight", "length", "stretch", "recovery", "swatch"}


def table_of(job: Job) -> CutTable:
    """Return a job's cutting table as it is kept."""
    return CutTable.model_validate(job.cut_table or {})


def cut_of(job: Job, table: CutTable, left_out: list[str] | None = None) -> list[Wanted]:
    """Return what is cut of a job's pieces as they stand: for its wearer, or for each size of its run.

    Args:
        job, table: the job with its cutting table.
        left_out: takes up which sizes give no draft, and why; without it such a size is refused.

    Raises:
        IzettError: a size gives no draft.
    """
    recipe = readable_recipe(job)
    if table.run is None:
        return _ready(evaluate_revision(head_of(job)).pattern, table.times)
    return _of_run(recipe, table.run.bodies, table.times, left_out)


def _of_run(
    recipe: RecipeDoc, bodies: Mapping[str, dict[str, float]], times: int, left_out: list[str] | None = None
) -> list[Wanted]:
    found: list[Wanted] = []
    for size, body in bodies.items():
        try:
            found += _ready(trying().evaluate(recipe.recipe(body, {})).pattern, times, size)
        except IzettError as error:
            if left_out is None:
                raise
            left_out.append(f"Size {size}: {error.message} {error.fix}")
    return found


def _ready(pattern: Pattern, times: int, size: str = "") -> list[Wanted]:
    return [Wanted(sheet, times, size) for sheet in sheet_pieces(pattern)]


def wanted_of(cut: Sequence[Wanted], use: Use) -> list[Wanted]:
    """Return what is cut of a cloth.

    Raises:
        UnknownName: nothing is.
    """
    own = {id(sheet) for sheet in cut_from([one.sheet for one in cut], use)}
    return [one for one in cut if id(one.sheet) in own]


def digest_of(wanted: list[Wanted], cloth: Cloth) -> str:
    """Return what tells one set of pieces on one cloth from another: outlines, grain, levels, counts and the cloth."""
    told = sha256()
    for one in wanted:
        sheet = one.sheet
        # The grain says how it lies, its levels where it is matched.
        lines = (sheet.cutting, sheet.grain, *sheet.levels)
        spots = [[(round(x, SAME), round(y, SAME)) for x, y in line] for line in lines]
        told.update(repr((one.name, one.number, sheet.fold is not None, sheet.ready.free, spots)).encode())
    laid = cloth.model_dump(mode="json", exclude=NOT_LAID_BY)
    told.update(repr(sorted(laid.items())).encode())
    return told.hexdigest()


def cloth_for(table: CutTable, use: Use) -> Cloth:
    """Return the cloth of a job for a use.

    Raises:
        Refusal: none is chosen.
    """
    if use not in table.cloths:
        raise Refusal(
            409, "no-cloth", f"No cloth is chosen yet: {USES[use]}.", fix="Take one from the shelf, or type its width."
        )
    return table.cloths[use]


def question_of_lay(job: Job, data: LayAskedIn) -> LayQuestion:
    """Return what a plan depends on.

    Raises:
        Refusal: no cloth is chosen for it.
        UnknownName: no piece is cut from it.
    """
    table, sheet = table_of(job), head_of(job).sheet
    cloth = cloth_for(table, data.use).model_copy(update={"use": data.use, "swatch": ""})
    wanted = wanted_of(cut_of(job, table), data.use)
    return LayQuestion(
        recipe=readable_recipe(job),
        body=measures_of(sheet),
        sides=sides_of(sheet),
        run=table.run.bodies if table.run else {},
        cloth=cloth,
        fold=data.fold,
        times=table.times,
        seed=data.seed,
        effort=data.effort,
        of=digest_of(wanted, cloth),
    )


def laid(question: LayQuestion, tell: Teller) -> LaidOut:
    """Look for a plan, showing each better one; then for what would save cloth.

    Raises:
        DoesNotFit: pieces are wider than the cloth.
    """
    if question.run:
        cut = _of_run(question.recipe, question.run, question.times)
    else:
        recipe = question.recipe.recipe(question.body, question.sides)
        cut = _ready(trying().evaluate(recipe).pattern, question.times)
    wanted = wanted_of(cut, question.cloth.use)
    effort = Effort(round(USUAL.rounds * question.effort), USUAL.looks * question.effort)
    plan: Plan | None = None
    thumb = rule_of_thumb(wanted, question.cloth, question.fold).words
    tell(0, 0)
    for plan in plans(wanted, question.cloth, fold=question.fold, seed=question.seed, effort=effort):
        tell.found(told_of(plan, question.of, thumb=thumb))
    if plan is None:
        raise UnknownName("There is nothing to lay.", fix="Draft a piece first.", where=("pieces",))
    found = savings(wanted, question.cloth, plan, seed=question.seed, progress=tell)
    saving = [SavingOut(words=one.words, saves=one.saves, fold=one.fold) for one in found]
    return told_of(plan, question.of, thumb=thumb).model_copy(update={"savings": saving})


def told_of(plan: Plan, of: str, *, unit: Unit = Unit.CM, thumb: str = "") -> LaidOut:
    """Return a plan with all that is said of it."""
    at_hand = plan.cloth.length
    return LaidOut(
        of=of,
        plan=lay_document(plan, unit=unit),
        bought=plan.bought,
        headline=headline(plan, unit),
        decides=plan.decides.cutout.title if plan.decides else "",
        too_little=plan.bought - at_hand if at_hand is not None and plan.bought > at_hand else None,
        thumb=thumb,
        faults=[FaultOut(fault=one.fault.value, words=one.words, placed=list(one.spots)) for one in faults_of(plan)],
    )


def moved_by_hand(job: Job, data: MovedPieceIn) -> LaidOut:
    """Return a plan with one piece put elsewhere; nothing is kept.

    Raises:
        PiecesChanged: the pieces are not those of the plan any more.
        UnknownName: there is no such piece, or it may not lie so.
    """
    wanted = wanted_of(cut_of(job, table_of(job)), data.use)
    plan = plan_of(data.plan, wanted)
    after = moved(
        plan,
        data.number,
        across=data.across,
        along=data.along,
        turn=data.turn,
        flipped=data.flipped,
        snap=data.snap,
    )
    thumb = rule_of_thumb(wanted, plan.cloth, plan.fold).words
    return told_of(after, digest_of(wanted, data.plan.cloth), unit=data.unit, thumb=thumb)


def state_of_table(job: Job, unit: Unit) -> CutTableOut:
    """Return a job's cutting table with what follows of its pieces as they are now; `unit` is what the shop sells by."""
    table = table_of(job)
    left_out: list[str] = []
    cut = cut_of(job, table, left_out)
    uses = uses_of(table, cut)
    shopping = [ToBuyOut(**asdict(row)) for row in shopping_of(table, cut, uses, unit=unit)]
    return CutTableOut(kept=table, uses=uses, shopping=shopping, left_out=left_out)


def uses_of(table: CutTable, cut: Sequence[Wanted]) -> list[CutUseOut]:
    """Return what is cut of each cloth, in the order of cutting, and whether its kept plan is of these pieces still."""
    uses: list[CutUseOut] = []
    for use in Use:
        own = [one for one in cut if use_of(one.sheet) is use]
        if not own:
            continue
        kept, cloth = table.plans.get(use), table.cloths.get(use)
        of = digest_of(own, cloth) if cloth is not None else ""
        stale = None if kept is None else kept.of != of
        rows = [
            CutRowOut(**{name: getattr(row, name) for name in CutRowOut.model_fields}) for row in cutting_order(own)
        ]
        uses.append(CutUseOut(use=use, title=USES[use], rows=rows, stale=stale, of=of))
    return uses


def shopping_of(table: CutTable, cut: Sequence[Wanted], uses: list[CutUseOut], *, unit: Unit) -> list[ToBuy]:
    """Return what is to be bought: each cloth with its length, what is marked on the pieces, what the sums came to."""
    used = []
    for one in uses:
        kept = table.plans.get(one.use)
        length = None if kept is None else kept.plan.length
        used.append(ClothUsed(one.use, table.cloths.get(one.use), length, stale=bool(one.stale)))
    return shopping(used, cut, [(kept.kind, kept.values, kept.note) for kept in table.sums], unit=unit)
