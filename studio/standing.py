"""How a job stands, for the bench: kept with its revision when the recipe is worked out, so that the bench works out nothing.

What is kept is of one very text of the recipe and one version of the program. Where either is another now, the bench says
so; the job is looked at again aside, behind whatever a person waits for.
"""

import json
import logging
from contextlib import suppress
from hashlib import blake2b
from threading import Lock, Thread
from time import monotonic, sleep
from typing import Any
from uuid import UUID

from django.conf import settings
from django.db import DatabaseError, connection
from django.db.models import TextField
from django.db.models.functions import Cast
from pydantic import BaseModel, ValidationError

import izett
from izett.checking.check import Verdict
from izett.errors import IzettError, place_of
from izett.files.reading import wrong_in
from izett.files.recipe_json import RecipeDoc
from izett.recipe.evaluation import Evaluation
from studio.lanes import ASIDE, turn
from studio.models import Job, Revision
from studio.workroom import evaluate_revision

#: Seconds without a change after which a job is looked at.
QUIET = 2.0


class Standing(BaseModel):
    """What came of a recipe: checks that fail, steps that were skipped, or why there is no draft.

    `of` tells the recipe's text, `core` the version of the program.
    """

    core: str
    of: str
    failing: int = 0
    skipped: int = 0
    refused: str = ""


def text_of(document: Any) -> str:
    """Return a recipe's text as the database has it."""
    return json.dumps(document)


def mark_of(text: str) -> str:
    """Return a short mark that changes with the text of a recipe."""
    return blake2b(text.encode("utf-8", "surrogatepass"), digest_size=12).hexdigest()


def unreadable(text: str) -> str:
    """Return why a stored recipe cannot be read by this version, in words; empty where it can."""
    try:
        RecipeDoc.model_validate_json(text)
    except ValidationError as error:
        return refusal_of(error)
    except (RecursionError, ValueError):
        return "its text is damaged"
    return ""


def refusal_of(error: ValidationError) -> str:
    """Return in words what a stored document has that this version cannot read."""
    place, words, kind = wrong_in(error)
    if kind == "extra_forbidden":
        return f"it has an entry “{place}”, which this version does not know"
    if place == "version":
        return f"it is of version {error.errors()[0].get('input')!r}, which a later version of the program wrote"
    return f"at {place}: {words}" if place else words


def known(stored: Any, text: str) -> Standing | None:
    """Return what is kept of a recipe, where it is of this text and this version of the program."""
    if not isinstance(stored, dict):
        return None
    with suppress(ValidationError):
        standing = Standing.model_validate(stored)
        if (standing.core, standing.of) == (izett.__version__, mark_of(text)):
            return standing
    return None


def standing_of(revision: Revision) -> Standing:
    """Work a revision out and return how it stands."""
    mark = mark_of(text_of(revision.document))
    try:
        evaluation = evaluate_revision(revision)
        return _counted(evaluation, mark)
    except ValidationError as error:
        return Standing(core=izett.__version__, of=mark, refused=f"The recipe cannot be read: {refusal_of(error)}.")
    except IzettError as error:
        return Standing(core=izett.__version__, of=mark, refused=error.message)
    except Exception as error:  # whatever a recipe holds stays in its job
        logging.getLogger(__name__).error("standing: %s", place_of(error))
        words = f"This job cannot be worked out: a fault in the program ({type(error).__name__})."
        return Standing(core=izett.__version__, of=mark, refused=words)


def _counted(evaluation: Evaluation, mark: str) -> Standing:
    return Standing(
        core=izett.__version__,
        of=mark,
        failing=sum(r.finding.verdict is Verdict.FAILS for r in evaluation.results),
        skipped=sum(stage.failure is not None or stage.idle for stage in evaluation.stages),
    )


def look_at(job_id: UUID) -> None:
    """Keep how a job stands, unless that is known; where the database cannot be written it is left for later."""
    job = Job.objects.select_related("head", "head__sheet").filter(pk=job_id).first()
    if job is None or job.head is None or is_known(job):
        return
    standing = standing_of(job.head)
    with suppress(DatabaseError):
        Revision.objects.filter(pk=job.head.pk).update(standing=standing.model_dump())


def is_known(job: Job) -> bool:
    """Return whether it is known how a job stands."""
    return job.head is not None and known(job.head.standing, text_of(job.head.document)) is not None


def look_later(job_id: UUID) -> None:
    """See to it that a job is looked at, once it has been left alone for a while."""
    if settings.LONG_WORK_HERE:
        look_at(job_id)
    else:
        _ASIDE.add(job_id)


def look_at_all() -> None:
    """See to it that every job of which nothing is known is looked at: after a start, or a change by other hands."""
    jobs = Job.objects.exclude(head=None).annotate(text=Cast("head__document", TextField()))
    for job_id, text, kept in jobs.order_by().values_list("id", "text", "head__standing"):
        if known(kept, text) is None and not unreadable(text):
            look_later(job_id)


class _Aside:
    """Looks at jobs one after another in a thread of its own, each once nothing has been done to it for a while."""

    def __init__(self) -> None:
        self._due: dict[UUID, float] = {}
        self._lock = Lock()
        self._thread: Thread | None = None

    def add(self, job_id: UUID) -> None:
        with self._lock:
            self._due[job_id] = monotonic() + QUIET
            if self._thread is None:
                self._thread = Thread(target=self._go_on, daemon=True)
                self._thread.start()

    def _next(self) -> tuple[UUID | None, float]:
        """Return the job that is to be looked at now, or how long to wait; neither where there is nothing left."""
        with self._lock:
            if not self._due:
                self._thread = None
                return None, 0.0
            job_id = min(self._due, key=lambda one: self._due[one])
            wait = self._due[job_id] - monotonic()
            if wait <= 0:
                del self._due[job_id]
            return job_id, wait

    def _go_on(self) -> None:
        try:
            while (found := self._next())[0] is not None:
                job_id, wait = found
                if wait > 0:
                    sleep(wait)
                elif job_id is not None:
                    with turn(ASIDE), suppress(DatabaseError):
                        look_at(job_id)
        finally:
            connection.close()


_ASIDE = _Aside()
