"""The table: working a recipe out without keeping it, and writing files of it."""

from dataclasses import asdict, fields
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import Router

from izett.advice.effect import effect_of
from izett.catalogue import catalogue
from izett.checking.ease_map import ease_map
from izett.drafting.handles import handles_of
from izett.drafting.method import Ease
from izett.errors import IzettError, ReferenceLost
from izett.files.recipe_json import StepDoc
from izett.finishing.sheet import sheet_pieces
from izett.fitting.compare import moves
from izett.measuring.measure import measure
from izett.pattern.document import Pattern, Seam
from izett.pattern.halves import doubled
from izett.pattern.sewn import seam_lengths
from izett.recipe.evaluation import Evaluation
from izett.recipe.refusals import IDLE
from izett.rules.sheet import SETTABLE
from studio.advising import trying
from studio.cut_files import KINDS, MEDIA, FileKind, Paper, written
from studio.downloads import attachment, filename, files
from studio.drapes import given_state
from studio.drawing import drawn, piece_key
from studio.lanes import LOOK, printing, turn
from studio.locking import job_of
from studio.models import MeasureSheet
from studio.muslins import as_cut
from studio.problems import Refusal, not_found
from studio.state import head_of, readable_recipe
from studio.table_schemas import (
    AllowanceOut,
    AsCutOut,
    EaseOut,
    FixOut,
    HandleOut,
    MovedByIn,
    MovedByOut,
    MoveOut,
    NoticeOut,
    PlaceOut,
    PreviewIn,
    PreviewOut,
    ResultOut,
    SchoolOut,
    SeamOut,
    StageOut,
    SumOut,
    WayOut,
)
from studio.workroom import evaluate, evaluate_revision, measures_of, proven, sides_of

router = Router(tags=["table"])

#: What is sent of a line of the worksheet.
SUM = SumOut.model_fields.keys()
#: cm. A measure is tried so much more and less to see what moves with it: about what a tape is off.
TRIED_OFF = 0.5


@router.post("/preview", response=PreviewOut)
def preview(request: HttpRequest, data: PreviewIn) -> HttpResponse:
    """Work a recipe out for a sheet; nothing is kept. Pieces whose keys are known are left out."""
    # Written here, so that the answer is not validated a second time on its way out.
    with turn(LOOK):
        return HttpResponse(_previewed(data).model_dump_json(), content_type="application/json")


@router.post("/moved-by", response=MovedByOut)
def moved_by(request: HttpRequest, data: MovedByIn) -> MovedByOut:
    """Tell exactly which lines of a draft move with a measure, by drafting with it a little more and a little less."""
    known = measure(data.symbol).symbol
    sheet = _sheet(data.sheet)
    measures = measures_of(sheet)
    recipe = data.recipe.recipe(measures, sides_of(sheet))
    with printing():
        around = measures.get(known) or trying().evaluate(recipe).value(known)
        if around is None:
            # Neither taken nor drafted from: no line can move with it.
            return MovedByOut(off=TRIED_OFF, lines=[])
        effect = effect_of(trying(), recipe, known, around=around, off=TRIED_OFF)
    return MovedByOut(off=TRIED_OFF, lines=[line.split(": ", 1)[1] for line in effect.lines])


def _sheet(number: int) -> MeasureSheet:
    sheet = MeasureSheet.objects.filter(id=number).prefetch_related("readings").first()
    if sheet is None:
        raise not_found("sheet")
    return sheet


def _previewed(data: PreviewIn) -> PreviewOut:
    sheet = _sheet(data.sheet)
    measures = measures_of(sheet)
    evaluation = evaluate(data.recipe, sheet, owner=data.job)
    pattern = evaluation.source if data.source else evaluation.pattern
    sheets = sheet_pieces(pattern, whole=data.cut)
    keyed = {piece_key(s, cut=data.cut): s for s in sheets}
    against, unread = _against(data, pattern)
    return PreviewOut(
        order=list(keyed),
        pieces=[drawn(s, key, cut=data.cut) for key, s in keyed.items() if key not in data.known],
        seams=[
            SeamOut(
                name=seam.name,
                kind=seam.kind.value,
                half=seam.half.value,
                lines=[span.along for side in seam.sides for span in side],
                lengths=_lengths(pattern, seam),
                ease=seam.ease,
                lies=seam.lies,
            )
            for seam in pattern.seams
        ],
        sums=_sums(evaluation),
        allowances=_allowances(evaluation),
        eases=[_ease(ease) for ease in evaluation.draft.eases()],
        schools=_schools(evaluation, measures),
        handles=[HandleOut(**asdict(handle)) for handle in handles_of(evaluation.draft.sums.sheet, pattern)],
        notices=[
            *([unread] if unread else []),
            *(NoticeOut(code=n.code, message=n.message, symbols=list(n.symbols)) for n in evaluation.notices),
        ],
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
                fix=r.fix,
                fixes=[FixOut(words=m.words, kind=m.kind, params=dict(m.params)) for m in r.finding.fixes],
                reason=r.reason,
                aspect=r.finding.aspect,
                half=r.finding.half.value,
                worse=r.finding.worse.value,
            )
            for r in proven(data.recipe, sheet, evaluation, owner=data.job)
        ],
        ease_map=[
            PlaceOut(
                key=p.key,
                label=p.label,
                view=p.view,
                pattern=p.pattern,
                body=p.body,
                wanted=p.wanted,
                state=p.state,
                half=p.half.value,
                fullness=p.fullness,
                because=p.because,
            )
            for p in ease_map(evaluation.pattern, evaluation.body)
        ],
        against=against,
        than=_than(data, pattern, sheet),
        titles=dict(pattern.in_words),
        cut_for=pattern.allowances.purpose,
        cut_apart=sorted(pattern.allowances.by_lineage),
        given=given_state(data.recipe.given, measures),
    )


def _than(data: PreviewIn, pattern: Pattern, sheet: MeasureSheet) -> list[MoveOut] | None:
    """Return how far lines lie from those of the other recipe; None where there is none, or no draft of it."""
    if data.than is None:
        return None
    try:
        evaluation = evaluate(data.than, sheet, owner=data.job)
    except IzettError:
        return None
    other = evaluation.source if data.source else evaluation.pattern
    return [MoveOut(**asdict(m)) for m in moves(other, pattern)]


def _sums(evaluation: Evaluation) -> list[SumOut]:
    sheet = evaluation.draft.sums.sheet
    found = []
    for line in evaluation.draft.lines:
        can_be = sheet.allowances.get(line.symbol) or SETTABLE[line.unit]
        found.append(
            SumOut(
                **{f.name: getattr(line, f.name) for f in fields(line) if f.name in SUM},
                low=can_be.low,
                high=can_be.high,
            )
        )
    return found


def _ease(ease: Ease) -> EaseOut:
    return EaseOut(
        key=ease.key,
        label=ease.label,
        symbol=ease.symbol,
        total=ease.total,
        per=ease.around,
        usual=ease.usual,
        reason=ease.reason,
        state=ease.state.value,
    )


def _schools(evaluation: Evaluation, measures: dict[str, float]) -> list[SchoolOut]:
    sums = evaluation.draft.sums
    return [
        SchoolOut(
            key=school.key,
            label=school.label,
            way=sums.school(school.key),
            ways=[
                WayOut(
                    key=way.key,
                    title=way.title,
                    reason=way.reason,
                    source=way.source,
                    lacks=[symbol for symbol in way.needs if symbol not in measures],
                )
                for way in school.ways.values()
            ],
        )
        for school in sums.sheet.schools.values()
    ]


def _lengths(pattern: Pattern, seam: Seam) -> tuple[float, float]:
    try:
        return seam_lengths(pattern, seam)
    except ReferenceLost:
        # A seam that has lost an end has no lengths; the checks tell it.
        return (0.0, 0.0)


def _stages(evaluation: Evaluation) -> list[StageOut]:
    operations = catalogue().operations
    return [
        StageOut(
            step=StepDoc(**stage.step.as_data()),
            words=stage.words,
            section=stage.section.value,
            may_stand=[s.value for s in operations[stage.step.kind].sections] if stage.step.kind in operations else [],
            sided=stage.step.kind in operations and operations[stage.step.kind].sided,
            follows=list(stage.follows),
            sums=[(line.what, line.value, line.unit) for line in stage.sums],
            made=list(stage.made),
            needs=evaluation.needs(stage),
            failure=stage.failure.message if stage.failure else "",
            fix=stage.failure.fix if stage.failure else "",
            idle=IDLE if stage.idle else "",
        )
        for stage in evaluation.stages
    ]


def _allowances(evaluation: Evaluation) -> list[AllowanceOut]:
    values, sums = evaluation.draft.values, evaluation.draft.sums
    return [
        AllowanceOut(
            symbol=a.symbol,
            label=a.label,
            unit=a.unit,
            value=values[a.symbol],
            default=a.default,
            low=a.low,
            high=a.high,
            reason=sums.reason(a.symbol, a.reason),
            source=a.source,
            state=sums.allowance_state(a.symbol).value,
            draws=list(a.draws),
        )
        for a in sums.sheet.allowances.values()
    ]


def _against(data: PreviewIn, pattern: Pattern) -> tuple[AsCutOut | None, NoticeOut | None]:
    """Return a muslin as it was cut, in halves where the pattern has them now, with what has moved since; or why not."""
    if data.job is None or data.against is None:
        return None, None
    try:
        before = as_cut(data.job, data.against)
    except Refusal as refusal:
        if refusal.code != "muslin-unreadable":
            raise
        # The pattern as it is now is not touched by that.
        return None, NoticeOut(code=refusal.code, message=refusal.message, symbols=[])
    sheets = sheet_pieces(doubled(before, pattern))
    laid_under = AsCutOut(
        pieces=[drawn(sheet, piece_key(sheet, cut=False), cut=False) for sheet in sheets],
        moves=[MoveOut(**asdict(move)) for move in moves(before, pattern)],
    )
    return laid_under, None


@router.get("/jobs/{job_id}/files/{kind}", openapi_extra=files(*MEDIA))
def file(request: HttpRequest, job_id: UUID, kind: FileKind, paper: Paper = Paper.A4) -> HttpResponse:
    """Return the job's pattern as it stands, as a file to print, to cut by or to keep."""
    job = job_of(job_id)
    readable_recipe(job)
    with printing():
        with turn(LOOK):
            evaluation = evaluate_revision(head_of(job))
        content = written(job, evaluation, kind, paper)
    name = f"{filename(f'{job.garment} {job.wearer.name}')}.{KINDS[kind].ending}"
    return attachment(content, KINDS[kind].media, name)
