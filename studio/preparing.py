"""A muslin before its fitting: what is to be seen to, what it should answer, how it is sewn; and its sheet of paper."""

from datetime import date

from izett.files.fitting_sheet_pdf import FittingSheet
from izett.finishing.allowances import purposes
from izett.finishing.sheet import sheet_pieces
from izett.fitting.finding import finding_kinds
from izett.fitting.garment import FACTS, Fitted
from izett.fitting.preparing import checklist, estimated, movements, sewn_with
from izett.fitting.story import amounts_told
from izett.pattern.document import Pattern
from izett.pattern.facts import Layer
from izett.wording import cm
from studio.cautions import CAUTIONS
from studio.fittings import fitted
from studio.locking import open_round
from studio.models import Job, Revision, Round
from studio.muslins import as_cut
from studio.round_schemas import ItemOut, MovementOut, MuslinOut, SewnOut
from studio.schemas import FindingOut
from studio.state import asked_at, head_of, readable_recipe
from studio.workroom import measures_of


def muslin_state(job: Job) -> MuslinOut:
    """Return what there is to say of the open muslin, or of the next one, before it is fitted."""
    garment = fitted(readable_recipe(job), head_of(job).sheet, job)
    round_ = open_round(job)
    last = job.rounds.order_by("-number").first()
    number = round_.number if round_ else (last.number if last else 0) + 1
    asks = asked_at(job, number)
    pattern = as_cut(job.id, number) if round_ else garment.evaluation.pattern
    return MuslinOut(
        number=number,
        items=[ItemOut(key=item.key, title=item.title, says=item.says) for item in checklist(garment)],
        movements=[MovementOut(key=one.key, says=one.says) for one in movements()],
        estimated=estimated(garment),
        # What a finding changed is asked again with the finding.
        changed=[why for why in _changed(job, number, round_) if why not in {one.remedy_title for one in asks}],
        purpose=purposes()[pattern.allowances.purpose].title,
        sewn=[SewnOut(role=one.role.value, allowance=one.allowance) for one in sewn_with(pattern)],
        cautions=cautions_of(garment),
    )


def cautions_of(garment: Fitted) -> list[str]:
    """Return the cautions of a fitting, with those of this garment."""
    return [*CAUTIONS["fit"], *(CAUTIONS["reduction"] if FACTS["laced"].holds(garment) else ())]


def _changed(job: Job, number: int, round_: Round | None) -> list[str]:
    """Return why each change was made that this muslin tries for the first time, in order."""
    before = job.rounds.filter(number__lt=number).order_by("-number").first()
    if before is None:
        return []
    parents = {r.pk: r for r in Revision.objects.filter(job=job).defer("document", "standing")}
    at = parents.get(round_.cut_from_id if round_ else head_of(job).pk)
    whys: list[str] = []
    while at is not None and at.pk != before.cut_from_id:
        if at.why:
            whys.append(at.why)
        at = parents.get(at.parent_id)
    return whys[::-1]


def fitting_sheet(job: Job) -> FittingSheet:
    """Return the sheet of paper for the open muslin, or for the next one."""
    muslin = muslin_state(job)
    round_ = open_round(job)
    pattern: Pattern = as_cut(job.id, muslin.number) if round_ else _now(job)
    asks: list[FindingOut] = asked_at(job, muslin.number)
    prepared = set(round_.prepared) if round_ else set()
    return FittingSheet(
        garment=job.garment,
        wearer=job.wearer.name,
        muslin=muslin.number,
        day=date.today().isoformat(),
        cloth=round_.cloth if round_ else "",
        worn=round_.worn if round_ else "",
        items=[(item.title, item.says, item.key in prepared) for item in muslin.items],
        sewn=[f"{one.role.replace('_', ' ')} {cm(one.allowance, 2)}" for one in muslin.sewn],
        asked=[(f"{one.seen}{_half(one.side)}", _done(one)) for one in asks],
        questions=[
            *(f"{label}: estimated, never taken. Measure it on the wearer now." for label in muslin.estimated),
            *(f"Changed since the last muslin: {why}" for why in muslin.changed),
        ],
        movements=[(one.key, one.says) for one in muslin.movements],
        body=measures_of(head_of(job).sheet),
        pieces=[sheet for sheet in sheet_pieces(pattern) if sheet.piece.layer is Layer.OUTER],
        cautions=muslin.cautions,
    )


def _now(job: Job) -> Pattern:
    return fitted(readable_recipe(job), head_of(job).sheet, job).evaluation.pattern


def _half(side: str) -> str:
    return "" if side == "both" else f", {side} half"


def _done(finding: FindingOut) -> str:
    kind = finding_kinds().get(finding.kind)
    given = (
        ", ".join(
            amounts_told(kind, finding.given, finding.taken, finding.counted, marked=finding.marked, line=finding.line)
        )
        if kind
        else ""
    )
    return f"Muslin {finding.round}: {finding.remedy_title or 'left as it was'}" + (f" ({given})" if given else "")
