"""Carrying out: a job, or everything, as open JSON. What cannot be read any more is carried out as it is stored."""

from base64 import b64encode
from typing import Any
from uuid import UUID

from django.db.models import Prefetch, QuerySet
from django.utils import timezone
from pydantic import BaseModel, ValidationError
from pydantic_core import to_json

import izett
from izett.files.pattern_doc import PatternDoc
from izett.files.recipe_json import RecipeDoc, StepDoc
from studio.carrying.document import EVERYTHING, FORMAT
from studio.cutting_schemas import CutTable
from studio.form_schemas import OnForm
from studio.models import Cloth, HouseRule, Job, MeasureSheet, Round, SizeChart, Wearer
from studio.problems import not_found
from studio.state import head_of, under_way_out
from studio.storage import photos


def job_document(job_id: UUID) -> dict[str, Any]:
    """Return a whole job as an `izett-job` document.

    Raises:
        Refusal: there is none.
    """
    job = _jobs().filter(id=job_id).first()
    if job is None:
        raise not_found("job")
    return _job(job)


def everything() -> dict[str, Any]:
    """Return all that the studio holds as one `izett-studio` document: wearers, sheets, jobs, house rules, charts, cloths."""
    return {
        "format": EVERYTHING,
        "version": 1,
        "program": izett.__version__,
        "written": _moment(timezone.now()),
        "wearers": [_wearer(wearer) for wearer in _wearers().iterator(AT_ONCE)],
        "house_rules": [
            {"symbol": rule.symbol, "value": rule.value, "reason": rule.reason, "since": _moment(rule.since)}
            for rule in HouseRule.objects.all()
        ],
        "charts": [
            {"title": chart.title, "source": chart.source, "sizes": chart.sizes, "created": _moment(chart.created)}
            for chart in SizeChart.objects.all()
        ],
        "cloths": [{"cloth": one.document, "created": _moment(one.created)} for one in Cloth.objects.all()],
    }


def as_text(document: dict[str, Any]) -> str:
    """Return a document as the text of its file, a line each entry: quickly, since all of a studio is long."""
    return to_json(document, indent=1, inf_nan_mode="constants").decode()


#: Wearers whose work is read at once: one by one, every job would be asked for by itself.
AT_ONCE = 50


def _wearers() -> QuerySet[Wearer]:
    """Return the wearers with all that is written of them, oldest first."""
    jobs = Prefetch("jobs", _jobs().order_by("created"))
    return (
        Wearer.objects.select_related("under_way")
        .prefetch_related("sheets__readings", "kept_fits", jobs)
        .order_by("created")
    )


def _jobs() -> QuerySet[Job]:
    """Return the jobs with all that is written of them."""
    return Job.objects.select_related("wearer", "head").prefetch_related(
        "wearer__sheets__readings",
        "wearer__kept_fits",
        "revisions",
        "rounds__findings__photos",
        "pictures",
        "rounds__answers__finding",
        "log",
        "spells",
    )


def _wearer(wearer: Wearer) -> dict[str, Any]:
    kept = getattr(wearer, "under_way", None)
    under_way = under_way_out(kept) if kept is not None else None
    return {
        **_about(wearer),
        "created": _moment(wearer.created),
        "sheets": [_sheet(sheet) for sheet in wearer.sheets.all()],
        "under_way": under_way.model_dump(mode="json", exclude={"saved"}) if under_way else None,
        "jobs": [_job(job) for job in wearer.jobs.all()],
    }


def _about(wearer: Wearer) -> dict[str, Any]:
    return {
        "name": wearer.name,
        "note": wearer.note,
        "size": wearer.size,
        "fit": [
            {
                "uid": kept.uid,
                "step": _as_now(StepDoc, kept.step),
                "story": kept.story,
                "proven_on": kept.proven_on,
                "kept": _moment(kept.kept),
            }
            for kept in wearer.kept_fits.all()
        ],
    }


def _job(job: Job) -> dict[str, Any]:
    revisions = list(job.revisions.all())
    numbers = {revision.pk: revision.number for revision in revisions}
    used = {revision.sheet_id for revision in revisions}
    sheets = {sheet.pk: sheet for sheet in job.wearer.sheets.all() if sheet.pk in used}
    return {
        "format": FORMAT,
        "version": 1,
        "garment": job.garment,
        "due": job.due.isoformat() if job.due else None,
        "created": _moment(job.created),
        "wearer": _about(job.wearer),
        "sheets": [_sheet(sheet) for sheet in sheets.values()],
        "head": head_of(job).number,
        "revisions": [
            {
                "number": r.number,
                "parent": numbers.get(r.parent_id),
                "sheet": sheets[r.sheet_id].number,
                "recipe": _as_now(RecipeDoc, r.document),
                "why": r.why,
                "created": _moment(r.created),
            }
            for r in revisions
        ],
        "rounds": [_round(round_, numbers) for round_ in job.rounds.all()],
        "log": [{"at": _moment(entry.at), "deed": entry.deed, "text": entry.text} for entry in job.log.all()],
        "look_again": job.look_again,
        "cut_table": CutTable.model_validate(job.cut_table or {}).model_dump(mode="json", by_alias=True),
        "on_form": OnForm.model_validate(job.on_form or {}).model_dump(mode="json"),
        "pictures": [
            {"taken": _moment(photo.taken), "jpeg": b64encode(photos.read(photo)).decode(), "lies": photo.lies}
            for photo in job.pictures.all()
            if photos.is_there(photo)
        ],
        "look_again_on": job.look_again_on.isoformat() if job.look_again_on else None,
        "time": [
            {"round": spell.round, "began": _moment(spell.began), "minutes": spell.minutes}
            for spell in job.spells.all()
        ],
    }


def _sheet(sheet: MeasureSheet) -> dict[str, Any]:
    return {
        "number": sheet.number,
        "taken_on": sheet.taken_on.isoformat(),
        "taken_by": sheet.taken_by,
        "worn": sheet.worn,
        "readings": [
            {"symbol": r.symbol, "text": r.text, "unit": r.unit, "again": r.again} for r in sheet.readings.all()
        ],
    }


def _round(round_: Round, numbers: dict[int, int]) -> dict[str, Any]:
    return {
        "number": round_.number,
        "opened": _moment(round_.opened),
        "closed": _moment(round_.closed) if round_.closed else None,
        "cloth": round_.cloth,
        "worn": round_.worn,
        "note": round_.note,
        "cut_from": numbers[round_.cut_from_id],
        "closed_at": numbers.get(round_.closed_at_id),
        "core_version": round_.core_version,
        "as_cut": _as_now(PatternDoc, round_.as_cut),
        "findings": [
            {
                "uid": f.uid,
                "kind": f.kind,
                "side": f.side,
                "movement": f.movement,
                "words": f.words,
                "given": f.given,
                "taken": f.taken,
                "remedy": f.remedy,
                "steps": f.steps,
                "created": _moment(f.created),
                "counted": f.counted,
                "piece": f.piece,
                "line": f.line,
                "marked": f.marked,
                "normal": f.normal,
                "amended": f.amended,
                "photos": [
                    {"taken": _moment(photo.taken), "jpeg": b64encode(photos.read(photo)).decode()}
                    for photo in f.photos.all()
                    if photos.is_there(photo)
                ],
            }
            for f in round_.findings.all()
        ],
        "answers": [{"finding": a.finding.uid, "outcome": a.outcome, "note": a.note} for a in round_.answers.all()],
        "prepared": round_.prepared,
        "watched": round_.watched,
        "pins_in": round_.pins_in,
        "pins_out": round_.pins_out,
    }


def _as_now(kind: type[BaseModel], stored: Any) -> Any:
    """Return a stored document as this version writes it; as it is stored where it cannot be read."""
    try:
        return kind.model_validate(stored).model_dump(mode="json", by_alias=True)
    except ValidationError:
        return stored


def _moment(at: Any) -> str:
    return str(at.isoformat().replace("+00:00", "Z"))
