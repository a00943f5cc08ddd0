"""Optimistic locking: a change names the version that it was made on, and fails where the job has moved on."""

import json
import re
from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any
from uuid import UUID

from django.db import transaction
from django.db.models import F, Prefetch, Sum, TextField
from django.db.models.functions import Cast, Length

from studio.limits import LARGEST_FILE, MOST_LOG_LINES, refuse_more
from studio.models import Finding, Job, LogEntry, Photo, Round, Wearer
from studio.problems import Refusal, not_found
from studio.state import job_state

#: A job is weighed at every so manieth change, and whenever something of so many bytes or more is added.
WEIGHED_EVERY, HEAVY = 50, 100_000
#: It is full when it fills so much of its file: the file has spaces besides, and what is added before it is weighed again.
FULL_AT = 0.5

#: What a photo takes in a file, beside its own bytes.
BASE64 = 4 / 3

#: A version as a header names it: no job counts further.
_VERSION = re.compile("[0-9]{1,10}")


def job_of(job_id: UUID) -> Job:
    """Return a job with what every deed reads of it.

    Raises:
        Refusal: there is none.
    """
    jobs = Job.objects.select_related("wearer__under_way", "head__sheet")
    rounds = Prefetch("rounds", Round.objects.defer("as_cut"))
    job = jobs.prefetch_related("head__sheet__readings", rounds).filter(id=job_id).first()
    if job is None:
        raise not_found("job")
    return job


def wearer_of(wearer_id: UUID) -> Wearer:
    """Return a wearer.

    Raises:
        Refusal: there is none.
    """
    wearer = Wearer.objects.filter(id=wearer_id).first()
    if wearer is None:
        raise not_found("wearer")
    return wearer


def version_named(header: str | None) -> int:
    """Return the version that an If-Match header names.

    Raises:
        Refusal: 428 where it is missing or not one.
    """
    text = (header or "").strip().removeprefix("W/").strip('"')
    if not _VERSION.fullmatch(text):
        raise Refusal(
            428, "version-missing", "The change does not say which version it was made on.", fix="Load the job again."
        )
    return int(text)


@contextmanager
def changing(job: Job, version: int, *, adding: Any = None) -> Iterator[Job]:
    """Open the one short transaction of a deed, claiming the job's next version; `adding` is a document that it adds.

    Raises:
        Refusal: 409 where the job is full; 412 where the job is not at `version` any more, with what it is at now.
    """
    refuse_more(version, MOST_LOG_LINES, "changes of one job")
    refuse_too_heavy(job, version, len(json.dumps(adding)))
    with transaction.atomic():
        claimed = Job.objects.filter(id=job.id, version=version).update(version=F("version") + 1)
        if not claimed:
            raise stale(job.id, version)
        job.version = version + 1
        yield job


def refuse_too_heavy(job: Job, version: int, adding: int) -> None:
    """Let pass a job that can be carried out as a file and come in again with so many bytes added.

    Raises:
        Refusal: it holds more than a file may.
    """
    if version % WEIGHED_EVERY and adding < HEAVY:
        return
    findings = Finding.objects.filter(round__job=job)
    kept = ((job.revisions, "document"), (job.rounds, "as_cut"), (job.log, "text"), (findings, "words"))
    held = adding + sum(
        rows.aggregate(bytes=Sum(Length(Cast(field, TextField()))))["bytes"] or 0 for rows, field in kept
    )
    shown = Photo.objects.filter(finding__round__job=job).aggregate(bytes=Sum("size"))["bytes"] or 0
    held += round(shown * BASE64)
    if held > LARGEST_FILE * FULL_AT:
        raise Refusal(
            409,
            "job-full",
            f"This job holds {held / 2**20:.0f} MB: more could not be carried out as a file and come in again.",
            fix="Carry it out, and go on with the garment in a new ticket.",
        )


def stale(job_id: UUID, version: int) -> Refusal:
    """Return the refusal of a change to an outdated version, with both sides."""
    current = job_of(job_id)
    return Refusal(
        412,
        "job-changed",
        f"This job was changed elsewhere: you worked on version {version}, it is now at {current.version}.",
        fix="Look at the newer state, then make your change again; nothing of either was lost.",
        extra={"yours": version, "theirs": current.version, "job": job_state(current).model_dump(mode="json")},
    )


def open_round(job: Job) -> Round | None:
    """Return the job's open round, or None."""
    return job.rounds.filter(closed=None).order_by("-number").first()


def round_of(job: Job, number: int, *, to_change: bool = False) -> Round:
    """Return a round.

    Raises:
        Refusal: there is none, or it is closed and was to be changed.
    """
    found = job.rounds.filter(number=number).first()
    if found is None:
        raise not_found("round")
    if to_change and found.closed is not None:
        raise Refusal(
            409,
            "round-closed",
            f"Muslin {number} is closed: what was seen and cut then stays as it was.",
            fix="Open the next muslin and record it there.",
        )
    return found


def finding_of(round_: Round, uid: str) -> Finding:
    """Return a finding of a round.

    Raises:
        Refusal: there is none of that name.
    """
    finding = round_.findings.filter(uid=uid).first()
    if finding is None:
        raise not_found("finding")
    return finding


def tell(job: Job, deed: str, text: str) -> None:
    """Add a line to the job's story."""
    LogEntry.objects.create(job=job, deed=deed, text=text)
