"""The table: working a recipe out without keeping it, and writing files of it."""

from functools import lru_cache
from typing import Literal
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import Router

from izett.catalogue import catalogue
from izett.files.pattern_json import PatternDoc, evaluated_document, pattern_of, write_pattern
from izett.files.pdf import write_pdf
from izett.files.recipe_json import StepDoc
from izett.files.svg import write_svg
from izett.finishing.allowances import Allowances, purposes
from izett.finishing.sheet import sheet_pieces
from izett.fitting.compare import moves
from izett.pattern.document import Pattern
from izett.pattern.sewn import seam_lengths
from izett.recipe import Evaluation
from studio.cautions import CAUTIONS
from studio.downloads import attachment, filename
from studio.drawing import drawn, piece_key
from studio.locking import job_of, round_of
from studio.models import Job, MeasureSheet
from studio.problems import not_found
from studio.state import head_of
from studio.table_schemas import (
    AllowanceOut,
    MoveOut,
    NoticeOut,
    PreviewIn,
    PreviewOut,
    ResultOut,
    SeamOut,
    StageOut,
    SumOut,
)
from studio.workroom import evaluate, evaluate_revision, measures_of

router = Router(tags=["table"])


@router.post("/preview", response=PreviewOut)
def preview(request: HttpRequest, data: PreviewIn) -> HttpResponse:
    """Work a recipe out for a sheet; nothing is kept. Pieces whose keys are known are left out."""
    # Written here, so that the answer is not validated a second time on its way out.
    return HttpResponse(_previewed(data).model_dump_json(), content_type="application/json")


def _previewed(data: PreviewIn) -> PreviewOut:
    sheet = MeasureSheet.objects.filter(id=data.sheet).prefetch_related("readings").first()
    if sheet is None:
        raise not_found("sheet")
    evaluation = evaluate(data.recipe, measures_of(sheet))
    sheets = sheet_pieces(evaluation.pattern, Allowances(data.cutting.purpose, data.cutting.by_lineage))
    keyed = {piece_key(s, cut=data.cut): s for s in sheets}
    return PreviewOut(
        order=list(keyed),
        pieces=[drawn(s, key, cut=data.cut) for key, s in keyed.items() if key not in data.known],
        seams=[
            SeamOut(name=seam.name, lengths=seam_lengths(evaluation.pattern, seam), ease=seam.ease, lies=seam.lies)
            for seam in evaluation.pattern.seams
        ],
        sums=[SumOut(**{f: getattr(line, f) for f in SumOut.model_fields}) for line in evaluation.draft.lines],
        allowances=_allowances(data.recipe.block, evaluation),
        notices=[NoticeOut(code=n.code, message=n.message, symbols=list(n.symbols)) for n in evaluation.draft.notices],
        stages=_stages(evaluation),
        checks=[
            ResultOut(
                check=r.check,
                claim=r.claim,
                verdict=r.finding.verdict.value,
                where=list(r.finding.where),
                amount=r.finding.amount,
                tolerance=r.finding.tolerance,
                unit=r.finding.unit,
                words=r.words,
                mend=r.mend,
            )
            for r in evaluation.results
        ],
        moves=_moves(data, evaluation),
    )


def _stages(evaluation: Evaluation) -> list[StageOut]:
    return [
        StageOut(
            step=StepDoc(**stage.step.as_data()),
            words=stage.words,
            sums=list(stage.sums),
            made=list(stage.made),
            failure=stage.failure.message if stage.failure else "",
            mend=stage.failure.mend if stage.failure else "",
        )
        for stage in evaluation.stages
    ]


def _allowances(block: str, evaluation: Evaluation) -> list[AllowanceOut]:
    values = evaluation.draft.values
    return [
        AllowanceOut(
            symbol=a.symbol,
            label=a.label,
            unit=a.unit,
            value=values[a.symbol],
            default=a.default,
            low=a.low,
            high=a.high,
            reason=evaluation.draft.sums.reasons.get(a.symbol, a.reason),
            source=a.source,
            state=evaluation.draft.sums.allowance_state(a.symbol).value,
            draws=list(a.draws),
        )
        for a in catalogue().method(block).sheet.allowances.values()
    ]


@lru_cache(maxsize=32)
def _as_cut(job: UUID, number: int) -> Pattern:
    """Return the pattern as it was cut for a muslin; it never changes again."""
    return pattern_of(PatternDoc.model_validate(round_of(job_of(job), number).as_cut))


def _moves(data: PreviewIn, evaluation: Evaluation) -> list[MoveOut]:
    if data.job is None or data.against is None:
        return []
    before = _as_cut(data.job, data.against)
    return [
        MoveOut(
            piece=m.piece,
            lineage=m.lineage,
            distance=m.distance,
            length_before=m.length_before,
            length_after=m.length_after,
        )
        for m in moves(before, evaluation.pattern)
    ]


@router.get("/jobs/{job_id}/files/{kind}")
def file(
    request: HttpRequest, job_id: UUID, kind: Literal["svg", "pdf", "json"], paper: Literal["a4", "letter"] = "a4"
) -> HttpResponse:
    """Return the job's pattern as it stands, as a file to print or to keep."""
    job = job_of(job_id)
    evaluation = evaluate_revision(head_of(job))
    content, media = _written(job, evaluation, kind, paper)
    name = f"{filename(f'{job.garment} {job.wearer.name}')}.{'izett-pattern.json' if kind == 'json' else kind}"
    return attachment(content, media, name)


def _written(job: Job, evaluation: Evaluation, kind: str, paper: str) -> tuple[str | bytes, str]:
    allowances = Allowances(**(job.cutting or {}))
    title = f"{job.garment}, revision {head_of(job).number}"
    if kind == "json":
        measures = measures_of(head_of(job).sheet)
        document = evaluated_document(evaluation, measures=measures, seam_allowances=allowances)
        return write_pattern(document), "application/json"
    sheets = sheet_pieces(evaluation.pattern, allowances, title=title, wearer=initials(job.wearer.name))
    if kind == "svg":
        return write_svg(sheets), "image/svg+xml"
    notes = (f"Allowances: {purposes()[allowances.purpose].title.lower()}.", *CAUTIONS["cut"])
    return write_pdf(sheets, paper=paper, title=title, notes=notes), "application/pdf"


def initials(name: str) -> str:
    """Return a wearer's initials: sheets lie about, names need not."""
    return "".join(word[0].upper() + "." for word in name.split() if word)
