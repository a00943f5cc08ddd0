"""Rounds as sheets of tracing paper: any two states of a job laid over each other, held at a point and along a line."""

from dataclasses import asdict

from izett.finishing.sheet import sheet_pieces
from izett.fitting.compare import LaidAt, laid_at, moves
from izett.fitting.plan import on_trial
from izett.pattern.document import Pattern
from izett.pattern.halves import doubled
from izett.recipe.evaluation import Evaluation
from studio.drawing import drawn, piece_key
from studio.fittings import fitted, recorded, without_remedy, works_out
from studio.models import Finding, Job, MeasureSheet
from studio.muslins import as_cut
from studio.problems import not_found
from studio.round_schemas import PaperIn, PapersIn, TrialIn
from studio.state import head_of, readable_recipe
from studio.table_schemas import MoveOut, PaperOut, PapersOut
from studio.workroom import evaluate


def laid_over(job: Job, data: PapersIn) -> PapersOut:
    """Return two states over each other, and how far each line of the upper lies from the lower, the farthest first.

    Raises:
        Refusal: there is no such muslin or sheet, or it cannot be drawn any more.
        ReferenceLost: they cannot be held there.
        IzettError: one of them gives no draft.
    """
    under, tells_under = _state(job, data.under)
    over, tells_over = _state(job, data.over)
    if data.held is not None:
        under = laid_at(under, over, LaidAt(data.held.piece, data.held.corner, data.held.line))
    both = (doubled(under, over), doubled(over, under))
    return PapersOut(
        under=_paper(both[0], tells_under),
        over=_paper(both[1], tells_over),
        moves=[MoveOut(**asdict(move)) for move in moves(under, over)],
        titles=dict(over.in_words),
    )


def _state(job: Job, asked: PaperIn) -> tuple[Pattern, list[str]]:
    """Return a state's pattern, and in words the steps that could not act on it."""
    if asked.muslin is not None:
        if not job.rounds.filter(number=asked.muslin).exists():
            raise not_found("muslin")
        return as_cut(job.id, asked.muslin), []
    if asked.trial is not None:
        evaluation = _tried(job, asked.trial)
    else:
        sheet = _sheet(job, asked.sheet) if asked.sheet is not None else head_of(job).sheet
        evaluation = evaluate(readable_recipe(job), sheet, owner=job.id)
    return evaluation.pattern, _skipped(evaluation)


def _tried(job: Job, trial: TrialIn) -> Evaluation:
    """Return the job with a remedy of a finding in the place of what was done about it."""
    finding = Finding.objects.filter(round__job=job, uid=trial.finding).first()
    if finding is None:
        raise not_found("finding")
    seen = recorded(finding)
    garment = fitted(without_remedy(readable_recipe(job), finding), head_of(job).sheet, job)
    return works_out(on_trial(seen, seen.kind.remedy(trial.remedy), garment), job)


def _sheet(job: Job, number: int) -> MeasureSheet:
    sheet = job.wearer.sheets.filter(number=number).prefetch_related("readings").first()
    if sheet is None:
        raise not_found("sheet")
    return sheet


def _skipped(evaluation: Evaluation) -> list[str]:
    return [f"{stage.words}: {stage.failure.message}" for stage in evaluation.stages if stage.failure is not None]


def _paper(pattern: Pattern, skipped: list[str]) -> PaperOut:
    return PaperOut(
        pieces=[drawn(sheet, piece_key(sheet, cut=False), cut=False) for sheet in sheet_pieces(pattern)],
        skipped=skipped,
    )
