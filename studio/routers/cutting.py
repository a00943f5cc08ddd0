"""The cutting table: cloths on the shelf and of a job, worksheets, lay plans, lists."""

from dataclasses import asdict
from typing import Literal
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import File, Router, Status, UploadedFile

from izett.cutting.cloth import Cloth, Use
from izett.cutting.lay.thumb import rule_of_thumb
from izett.cutting.worksheets import summed, sums
from izett.files.lay_json import plan_of
from izett.files.lay_pdf import write_lay_pdf
from izett.files.lists_pdf import write_lists_pdf
from izett.files.test_square import printed
from izett.files.worksheet_pdf import by_group, worked_part, write_worksheet
from izett.units import Unit
from izett.wording import cm
from studio.actions.keep_cut_table import keep_cut_table
from studio.actions.keep_lay import keep_lay
from studio.actions.shelve import put_away, shelve
from studio.cut_files import Paper, cut_by_cloth, run_on_paper, title_of, worn_by
from studio.cutting_schemas import (
    CutTableIn,
    CutTableOut,
    KeptPlanIn,
    LaidOut,
    LayAskedIn,
    MovedPieceIn,
    PrintedIn,
    PrintedOut,
    ShelfClothOut,
    SwatchOut,
    WorksheetInputOut,
    WorksheetLineOut,
    WorksheetOut,
    WorksheetUseOut,
    WorksheetValuesIn,
)
from studio.downloads import files, paper_of
from studio.lanes import LOOK, SAVE, in_turn, printing, turn
from studio.lays import (
    cut_of,
    moved_by_hand,
    question_of_lay,
    shopping_of,
    state_of_table,
    table_of,
    uses_of,
    wanted_of,
)
from studio.locking import job_of, version_named
from studio.long_work import desk
from studio.long_work.schemas import WorkOut
from studio.models import Cloth as OnShelf
from studio.problems import Refusal
from studio.routers.jobs import answer
from studio.schemas import JobOut
from studio.state import head_of
from studio.storage.photos import LARGEST, swatch_of
from studio.wire import IfMatch
from studio.workroom import evaluate_revision

router = Router(tags=["cutting"])


@router.get("/worksheets", response=list[WorksheetOut])
def get_worksheets(request: HttpRequest) -> list[WorksheetOut]:
    """Return the worksheets of the cutting table."""
    return [
        WorksheetOut(
            key=one.key,
            title=one.title,
            says=one.says,
            inputs=[
                WorksheetInputOut(**{name: getattr(a, name) for name in WorksheetInputOut.model_fields})
                for a in one.sheet.allowances.values()
            ],
            gives=list(one.gives),
            uses=[WorksheetUseOut(**asdict(use)) for use in one.uses],
        )
        for one in sums().values()
    ]


@router.post("/worksheets/{key}", response=list[WorksheetLineOut])
def work_worksheet(request: HttpRequest, key: str, data: WorksheetValuesIn) -> list[WorksheetLineOut]:
    """Work a worksheet out; nothing is kept."""
    return [
        WorksheetLineOut(**{name: getattr(line, name) for name in WorksheetLineOut.model_fields})
        for line in summed(key, data.values)
    ]


@router.get("/cloths", response=list[ShelfClothOut])
def get_shelf(request: HttpRequest) -> list[ShelfClothOut]:
    """Return the cloths on the shelf."""
    return [_on_shelf(one) for one in OnShelf.objects.all()]


@router.post("/cloths", response={201: ShelfClothOut})
def post_cloth(request: HttpRequest, data: Cloth) -> Status[ShelfClothOut]:
    """Put a cloth on the shelf."""
    return Status(201, _on_shelf(shelve(data)))


@router.put("/cloths/{cloth_id}", response=ShelfClothOut)
def put_cloth(request: HttpRequest, cloth_id: UUID, data: Cloth) -> ShelfClothOut:
    """Change a cloth on the shelf; jobs that took it keep it as it was."""
    return _on_shelf(shelve(data, cloth_id))


@router.delete("/cloths/{cloth_id}", response={204: None})
def delete_cloth(request: HttpRequest, cloth_id: UUID) -> HttpResponse:
    """Take a cloth off the shelf; jobs that took it keep it."""
    put_away(cloth_id)
    return HttpResponse(status=204)


@router.post("/test-square", response=PrintedOut)
def measure_square(request: HttpRequest, data: PrintedIn) -> PrintedOut:
    """Return what the printed test square says of the printer."""
    found = printed(data.side, data.square)
    return PrintedOut(scale=found.scale, true=found.true, words=found.words)


@router.post("/swatches", response=SwatchOut)
def post_swatch(request: HttpRequest, file: File[UploadedFile]) -> SwatchOut:
    """Return a photo of a swatch, made small and safe, as a cloth keeps it; nothing is kept here."""
    with printing():
        return SwatchOut(swatch=swatch_of(file.read(LARGEST + 1)))


def _on_shelf(one: OnShelf) -> ShelfClothOut:
    return ShelfClothOut(id=one.id, cloth=Cloth.model_validate(one.document))


@router.get("/jobs/{job_id}/cut-table", response=CutTableOut)
def get_cut_table(request: HttpRequest, job_id: UUID, unit: Unit = Unit.CM) -> CutTableOut:
    """Return a job's cutting table, with what follows of its pieces as they are now; `unit` is what the shop sells by."""
    with turn(LOOK):
        return state_of_table(job_of(job_id), unit)


@router.put("/jobs/{job_id}/cut-table", response=JobOut)
@in_turn(SAVE)
def put_cut_table(request: HttpRequest, job_id: UUID, data: CutTableIn, if_match: IfMatch = None) -> JobOut:
    """Keep a job's cloths and sums."""
    return answer(keep_cut_table(job_id, version_named(if_match), data))


@router.post("/jobs/{job_id}/lay-plans", response={202: WorkOut})
def lay_plan(request: HttpRequest, job_id: UUID, data: LayAskedIn) -> Status[WorkOut]:
    """Begin to look for a lay plan; nothing of the job is changed."""
    job = job_of(job_id)
    with turn(LOOK):
        question = question_of_lay(job, data)
    work = desk.begin("lay", question, uid=data.uid, place=f"lay {job_id} {data.use}", wearer=job.wearer)
    return Status(202, WorkOut.model_validate(work))


@router.post("/jobs/{job_id}/lay-plans/moved", response=LaidOut)
def move_on_plan(request: HttpRequest, job_id: UUID, data: MovedPieceIn) -> LaidOut:
    """Return a plan with one piece put elsewhere, drawn up to what it nearly touches, and read; nothing is kept."""
    with turn(LOOK):
        return moved_by_hand(job_of(job_id), data)


@router.put("/jobs/{job_id}/lay-plans/{use}", response=JobOut)
@in_turn(SAVE)
def put_lay(request: HttpRequest, job_id: UUID, use: Use, data: KeptPlanIn, if_match: IfMatch = None) -> JobOut:
    """Keep a plan of one of a job's cloths."""
    return answer(keep_lay(job_id, version_named(if_match), use, data))


@router.delete("/jobs/{job_id}/lay-plans/{use}", response=JobOut)
@in_turn(SAVE)
def delete_lay(request: HttpRequest, job_id: UUID, use: Use, if_match: IfMatch = None) -> JobOut:
    """Let go of a plan that was kept."""
    return answer(keep_lay(job_id, version_named(if_match), use, None))


@router.get("/jobs/{job_id}/lay-plans/{use}/print", openapi_extra=files("application/pdf"))
def print_lay(
    request: HttpRequest, job_id: UUID, use: Use, paper: Literal["a4", "letter"] = "a4", unit: Unit = Unit.CM
) -> HttpResponse:
    """Return a kept plan as PDF: the picture, how to fold, what to buy, and the pieces in the order of cutting."""
    job = job_of(job_id)
    table = table_of(job)
    kept = table.plans.get(use)
    if kept is None:
        raise Refusal(409, "no-plan", "No plan of this cloth is kept.", fix="Lay it, and keep the plan.")
    with printing():
        with turn(LOOK):
            wanted = wanted_of(cut_of(job, table), use)
        plan = plan_of(kept.plan, wanted)
        notes = [f"{plan.decides.cutout.title} decides the length."] if plan.decides else []
        notes.append(rule_of_thumb(wanted, plan.cloth, plan.fold).words)
        if plan.cloth.length is not None and plan.bought > plan.cloth.length:
            notes.append(
                f"There are {cm(plan.cloth.length)} at hand: {cm(plan.bought - plan.cloth.length)} too little."
            )
        content = write_lay_pdf(plan, wanted, title=f"Lay plan, {job.garment}", paper=paper, unit=unit, notes=notes)
    return paper_of(content, f"{job.garment} lay plan")


@router.get("/jobs/{job_id}/lists/print", openapi_extra=files("application/pdf"))
def print_lists(
    request: HttpRequest, job_id: UUID, paper: Literal["a4", "letter"] = "a4", unit: Unit = Unit.CM
) -> HttpResponse:
    """Return what is cut and what is bought as PDF, with boxes to tick, and a label for every piece."""
    job = job_of(job_id)
    with printing():
        with turn(LOOK):
            table = table_of(job)
            cut = cut_of(job, table)
            uses = uses_of(table, cut)
        content = write_lists_pdf(
            cut_by_cloth(cut),
            shopping_of(table, cut, uses, unit=unit),
            title=title_of(job),
            wearer="" if table.run else worn_by(job.wearer),
            paper=paper,
            unit=unit,
        )
    return paper_of(content, f"{job.garment} lists")


@router.get("/jobs/{job_id}/sums/print", openapi_extra=files("application/pdf"))
def print_sums(
    request: HttpRequest, job_id: UUID, paper: Literal["a4", "letter"] = "a4", unit: Unit = Unit.CM
) -> HttpResponse:
    """Return the sums that are kept with a job as PDF, each with its numbers in it."""
    job = job_of(job_id)
    kept = table_of(job).sums
    if not kept:
        raise Refusal(409, "no-sums", "No sum is kept with this job.", fix="Work one out, and keep it with the job.")
    with printing():
        content = write_worksheet(
            [worked_part(one.kind, one.values, one.note) for one in kept],
            title=f"Sums, {title_of(job)}",
            wearer=worn_by(job.wearer),
            paper=paper,
            unit=unit,
        )
    return paper_of(content, f"{job.garment} sums")


@router.get("/jobs/{job_id}/worksheet/print", openapi_extra=files("application/pdf"))
def print_worksheet(
    request: HttpRequest, job_id: UUID, paper: Literal["a4", "letter"] = "a4", unit: Unit = Unit.CM
) -> HttpResponse:
    """Return every sum of a job's draft as PDF."""
    job = job_of(job_id)
    with printing():
        with turn(LOOK):
            lines = evaluate_revision(head_of(job)).draft.lines
        content = write_worksheet(
            by_group(lines),
            title=f"Worksheet, {title_of(job)}",
            wearer=worn_by(job.wearer),
            paper=paper,
            unit=unit,
        )
    return paper_of(content, f"{job.garment} worksheet")


@router.get("/jobs/{job_id}/run/print", openapi_extra=files("application/pdf"))
def print_run(request: HttpRequest, job_id: UUID, paper: Paper = Paper.A0) -> HttpResponse:
    """Return the sizes that a job is cut in nested over each other, each in its own kind of line, as PDF."""
    job = job_of(job_id)
    with printing(), turn(LOOK):
        content = run_on_paper(job, paper)
    return paper_of(content, f"{job.garment} sizes")
