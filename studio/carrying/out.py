"""Carrying out: a job, or everything, as open JSON. What cannot be read any more is carried out as it is stored."""

from typing import Any
from uuid import UUID

from django.utils import timezone
from pydantic import BaseModel, ValidationError

import izett
from izett.files.pattern_doc import PatternDoc
from izett.files.recipe_json import RecipeDoc
from studio.carrying.document import FORMAT
from studio.locking import job_of
from studio.models import HouseRule, Job, MeasureSheet, Round, SizeChart, Wearer
from studio.state import head_of, under_way_state

EVERYTHING = "izett-studio"


def job_document(job_id: UUID) -> dict[str, Any]:
    """Return a whole job as an `izett-job` document.

    Raises:
        Refusal: there is none.
    """
    return _job(job_of(job_id))


def everything() -> dict[str, Any]:
    """Return all that the studio holds as one `izett-studio` document: wearers, sheets, jobs, house rules, charts."""
    return {
        "format": EVERYTHING,
        "version": 1,
        "program": izett.__version__,
        "written": _moment(timezone.now()),
        "wearers": [_wearer(wearer) for wearer in Wearer.objects.order_by("created")],
        "house_rules": [
            {"symbol": rule.symbol, "value": rule.value, "reason": rule.reason, "since": _moment(rule.since)}
            for rule in HouseRule.objects.all()
        ],
        "charts": [
            {"title": chart.title, "source": chart.source, "sizes": chart.sizes, "created": _moment(chart.created)}
            for chart in SizeChart.objects.all()
        ],
    }


def _wearer(wearer: Wearer) -> dict[str, Any]:
    under_way = under_way_state(wearer)
    return {
        **_about(wearer),
        "created": _moment(wearer.created),
        "sheets": [_sheet(sheet) for sheet in wearer.sheets.prefetch_related("readings")],
        "under_way": under_way.model_dump(mode="json") if under_way else None,
        "jobs": [_job(job) for job in wearer.jobs.select_related("wearer", "head").order_by("created")],
    }


def _about(wearer: Wearer) -> dict[str, Any]:
    return {"name": wearer.name, "note": wearer.note, "size": wearer.size}


def _job(job: Job) -> dict[str, Any]:
    revisions = list(job.revisions.select_related("parent", "sheet"))
    used = {revision.sheet.pk for revision in revisions}
    sheets = job.wearer.sheets.filter(pk__in=used).prefetch_related("readings")
    return {
        "format": FORMAT,
        "version": 1,
        "garment": job.garment,
        "due": job.due.isoformat() if job.due else None,
        "created": _moment(job.created),
        "wearer": _about(job.wearer),
        "sheets": [_sheet(sheet) for sheet in sheets],
        "head": head_of(job).number,
        "revisions": [
            {
                "number": r.number,
                "parent": r.parent.number if r.parent else None,
                "sheet": r.sheet.number,
                "recipe": _as_now(RecipeDoc, r.document),
                "why": r.why,
                "created": _moment(r.created),
            }
            for r in revisions
        ],
        "rounds": [_round(round_) for round_ in job.rounds.select_related("cut_from", "closed_at")],
        "log": [{"at": _moment(entry.at), "deed": entry.deed, "text": entry.text} for entry in job.log.all()],
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


def _round(round_: Round) -> dict[str, Any]:
    return {
        "number": round_.number,
        "opened": _moment(round_.opened),
        "closed": _moment(round_.closed) if round_.closed else None,
        "cloth": round_.cloth,
        "worn": round_.worn,
        "note": round_.note,
        "cut_from": round_.cut_from.number,
        "closed_at": round_.closed_at.number if round_.closed_at else None,
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
            }
            for f in round_.findings.all()
        ],
        "answers": [
            {"finding": a.finding.uid, "outcome": a.outcome, "note": a.note}
            for a in round_.answers.select_related("finding")
        ],
    }


def _as_now(kind: type[BaseModel], stored: Any) -> Any:
    """Return a stored document as this version writes it; as it is stored where it cannot be read."""
    try:
        return kind.model_validate(stored).model_dump(mode="json", by_alias=True)
    except ValidationError:
        return stored


def _moment(at: Any) -> str:
    return str(at.isoformat().replace("+00:00", "Z"))
