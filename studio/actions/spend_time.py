"""Note the hours that a job takes: typed, or by a clock that goes on while no page is open."""

from datetime import datetime
from uuid import UUID

from django.utils import timezone

from izett.fitting.story import in_hours
from studio.limits import LONGEST_SPELL, MOST_SPELLS, refuse_more
from studio.locking import changing, job_of, open_round, tell
from studio.models import Job, Spell
from studio.problems import Refusal


def type_time(job_id: UUID, version: int, minutes: int) -> Job:
    """Add time that was spent; fewer than none takes off what was noted too much of on this muslin.

    Raises:
        Refusal: more is taken off than there is, or the job has moved on.
    """
    job = job_of(job_id)
    refuse_more(job.spells.count() + 1, MOST_SPELLS, "entries of time")
    number = _on_the_table(job)
    if minutes < 0 and sum(one.minutes or 0 for one in job.spells.filter(round=number)) < -minutes:
        raise Refusal(
            409, "too-little-time", "Less time than that is noted here.", fix="Take off what was noted, not more."
        )
    with changing(job, version):
        Spell.objects.create(job=job, round=number, began=timezone.now(), minutes=minutes)
        tell(job, "time", f"{in_hours(minutes)} noted")
    return job


def start_clock(job_id: UUID, version: int) -> Job:
    """Start the clock; one that runs goes on.

    Raises:
        Refusal: the job has moved on.
    """
    job = job_of(job_id)
    if job.spells.filter(minutes=None).exists():
        return job
    refuse_more(job.spells.count() + 1, MOST_SPELLS, "entries of time")
    with changing(job, version):
        Spell.objects.create(job=job, round=_on_the_table(job), began=timezone.now(), minutes=None)
    return job


def stop_clock(job_id: UUID, version: int, minutes: int | None, now: datetime | None = None) -> Job:
    """Stop the clock; `minutes` are noted instead of its own where they are given.

    Raises:
        Refusal: it does not run, it ran through the night and nobody says how long was worked, or the job has moved on.
    """
    job = job_of(job_id)
    spell = job.spells.filter(minutes=None).first()
    if spell is None:
        raise Refusal(409, "clock-stands", "The clock does not run.", fix="Start it, or type the time.")
    ran = max(round(((now or timezone.now()) - spell.began).total_seconds() / 60), 1)
    if minutes is None and ran > LONGEST_SPELL:
        raise Refusal(
            409,
            "clock-forgotten",
            f"The clock ran for {in_hours(ran)}: it was forgotten, by the look of it.",
            fix="Type how long you worked, then stop it.",
        )
    spell.minutes = ran if minutes is None else minutes
    with changing(job, version):
        spell.save(update_fields=["minutes"])
        tell(job, "time", f"{in_hours(spell.minutes)} by the clock")
    return job


def _on_the_table(job: Job) -> int | None:
    """Return the muslin that the time is spent on: the open one, else the last."""
    last = open_round(job) or job.rounds.order_by("-number").first()
    return last.number if last else None
