"""The bench: every job as a ticket, from what is kept of it. Nothing is worked out here, and one bad job hides no other."""

from collections import defaultdict
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date
from typing import Any
from uuid import UUID

from django.db.models import F, OuterRef, Subquery, TextField
from django.db.models.functions import Cast

from izett.fitting.finding import Outcome
from studio.models import Answer, Finding, Job, LogEntry, Round
from studio.schemas import TicketOut
from studio.standing import Standing, known, unreadable


@dataclass
class _Fitting:
    """How far a job's fittings have come: its last muslin, and what is to be answered or decided on it."""

    number: int = 0
    is_open: bool = False
    asked: int = 0
    undecided: int = 0


def tickets() -> list[TicketOut]:
    """Return all jobs as tickets: due first, then the ones touched last."""
    # Not an aggregate: the database would sort by all that is asked of a job, its recipe too.
    newest = LogEntry.objects.filter(job=OuterRef("pk")).order_by("-id").values("at")[:1]
    jobs = Job.objects.annotate(
        said=Subquery(newest),
        text=Cast("head__document", TextField()),
        who=F("wearer__name"),
        kept=F("head__standing"),
    ).values("id", "garment", "due", "created", "said", "text", "who", "kept", "look_again", "look_again_on")
    fittings = _fittings()
    recent = sorted(jobs, key=lambda job: job["said"] or job["created"], reverse=True)
    found = [_ticket(job, fittings.get(job["id"], _Fitting())) for job in recent]
    return sorted(found, key=lambda t: (t.due is None, t.due.isoformat() if t.due else ""))


def _ticket(job: dict[str, Any], fitting: _Fitting) -> TicketOut:
    standing = known(job["kept"], job["text"]) if job["text"] is not None else None
    bad = "" if standing is not None else (unreadable(job["text"]) if job["text"] is not None else "it has no state")
    stage, stands, waiting = _stands(fitting)
    if bad:
        stage, stands, waiting = "measure", "Cannot be read", []
    elif standing is not None and standing.refused:
        stage, stands, waiting = "measure", "No draft", [standing.refused]
    else:
        waiting = [*_checked(standing), *waiting]
    return TicketOut(
        id=job["id"],
        wearer=job["who"],
        garment=job["garment"],
        due=job["due"],
        stage=stage,
        standing=stands,
        waiting=[*_noted(job["look_again"], job["look_again_on"]), *waiting, *_due(job["due"])],
        touched=job["said"] or job["created"],
        trouble=f"This job cannot be read: {bad}." if bad else "",
    )


def _checked(standing: Standing | None) -> list[str]:
    if standing is None:
        return ["not looked at yet by this version: open it to see its checks"]
    waiting = []
    if standing.failing:
        waiting.append(f"{standing.failing} {'check fails' if standing.failing == 1 else 'checks fail'}")
    if standing.skipped:
        waiting.append(f"{standing.skipped} {'step' if standing.skipped == 1 else 'steps'} skipped")
    return waiting


def _stands(fitting: _Fitting) -> tuple[str, str, list[str]]:
    if not fitting.number:
        return "draft", "Drafted, no muslin yet", ["cut a first muslin"]
    if not fitting.is_open:
        return "cut", f"Muslin {fitting.number} closed", ["cut the next muslin, or the cloth"]
    waiting = []
    if fitting.asked:
        waiting.append(f"{fitting.asked} earlier {'finding' if fitting.asked == 1 else 'findings'} to look at again")
    if fitting.undecided:
        waiting.append(f"{fitting.undecided} {'finding' if fitting.undecided == 1 else 'findings'} without a remedy")
    return "fit", f"Muslin {fitting.number} on the table", waiting or ["muslin to judge"]


def _fittings() -> dict[UUID, _Fitting]:
    """Return how far the fittings of every job have come."""
    found: dict[UUID, _Fitting] = defaultdict(_Fitting)
    for job, number, closed in Round.objects.order_by("number").values_list("job_id", "number", "closed"):
        found[job].number, found[job].is_open = number, closed is None
    told = Finding.objects.values_list("id", "round__job_id", "round__number", "remedy")
    answers: dict[int, list[tuple[int, str]]] = defaultdict(list)
    for finding, number, outcome in Answer.objects.values_list("finding_id", "round__number", "outcome"):
        answers[finding].append((number, outcome))
    for finding, job, number, remedy in told:
        fitting = found[job]
        if number == fitting.number:
            fitting.undecided += not remedy
        elif not _settled(answers[finding], fitting.number):
            fitting.asked += 1
    return found


def _settled(answers: Iterable[tuple[int, str]], now: int) -> bool:
    """Return whether a finding need not be looked at on the muslin of a number: answered there, or solved before."""
    return any(at == now or (at < now and outcome == Outcome.SOLVED) for at, outcome in answers)


def _noted(words: str, on: date | None) -> list[str]:
    """Return the note that the maker left, from its day on."""
    return [f"look again: {words}"] if words and on is not None and on <= date.today() else []


def _due(due: date | None) -> list[str]:
    if due is None or due >= date.today():
        return []
    return ["due date has passed"]
