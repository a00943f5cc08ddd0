"""Long work, from the question to what came of it: begun, looked at, stopped, worked out.

A piece of work is a row of the database, so that its result outlives the page and the server that asked for it. Asked
again, the same question in the same place is answered with what is known; another question there takes its place.
"""

import logging
from time import monotonic
from typing import Any
from uuid import uuid4

from django.conf import settings
from django.db import transaction
from django.utils import timezone
from pydantic import BaseModel

import izett
from izett.errors import IzettError, place_of
from studio.long_work.kinds import KINDS
from studio.long_work.worker import Worker
from studio.models import Wearer, Work

#: This run of the server: work of an earlier one that was not ended never will be.
RUN = uuid4().hex
#: Seconds between two words on how far the work has come.
TELL_EVERY = 0.2


AGAIN = "Nothing of the job is lost. Start it again."


class Unwanted(Exception):
    """The work was stopped, or its row is gone."""


def begin(kind: str, question: Any, *, uid: str, place: str, wearer: Wearer | None) -> Work:
    """Return the work on a question, begun now unless the same is known or under way in that place.

    Args:
        kind, question: what is to be worked out.
        uid: the name of the work, made by the asker, so that a repeated call begins nothing twice.
        place: what it is for; a new question there stops an older one.
        wearer: with whom it is deleted.
    """
    asked = question.model_dump(mode="json")
    if (known := Work.objects.filter(uid=uid).first()) is not None:
        return look(known)
    for other in Work.objects.filter(kind=kind, place=place, question=asked, core_version=izett.__version__):
        if look(other).state in (Work.WAITING, Work.RUNNING, Work.DONE):
            return other
    with transaction.atomic():
        here = Work.objects.filter(kind=kind, place=place)
        here.exclude(state__in=Work.UNDER_WAY).delete()
        older = [other.uid for other in here]
        here.update(state=Work.STOPPED, ended=timezone.now())
        work = Work.objects.create(
            uid=uid, kind=kind, place=place, question=asked, wearer=wearer, run=RUN, core_version=izett.__version__
        )
    for other_uid in older:
        WORKER.let_go(other_uid)
    if settings.LONG_WORK_HERE:
        work_out(uid)
        # A later question of the same place may have taken its place meanwhile.
        work = Work.objects.filter(uid=uid).first() or work
    else:
        WORKER.hand(uid)
    return work


def look(work: Work) -> Work:
    """Return the work as it stands; what an earlier run of the server left undone has failed."""
    if work.state in Work.UNDER_WAY and work.run != RUN:
        _fail(work.uid, "work-lost", f"{KINDS[work.kind].title}: the program was stopped before this was done.", AGAIN)
        work.refresh_from_db()
    return work


def found(uid: str) -> Work | None:
    """Return the work of a name, as it stands; None where there is none, or none any more."""
    work = Work.objects.filter(uid=uid).first()
    return None if work is None else look(work)


def stop(uid: str) -> Work | None:
    """Stop work that is under way; what has ended stays as it is. None where there is none."""
    if found(uid) is None:
        return None
    _end(uid, state=Work.STOPPED)
    WORKER.let_go(uid)
    return found(uid)


def work_out(uid: str) -> None:
    """Work a question out and keep what came of it; whatever goes wrong is kept as a problem."""
    if not Work.objects.filter(uid=uid, state=Work.WAITING).update(state=Work.RUNNING):
        return
    work = Work.objects.get(uid=uid)
    kind = KINDS[work.kind]
    try:
        result = kind.work(kind.question.model_validate(work.question), _Telling(uid))
        _end(uid, state=Work.DONE, result=result.model_dump(mode="json", by_alias=True))
    except Unwanted:
        return
    except IzettError as error:
        _fail(uid, error.code, error.message, error.fix)
    except Exception as error:  # whatever it is, who waits must be told
        logging.getLogger(__name__).error("work %s: %s", kind.key, place_of(error))
        fault = f"{kind.title} could not be worked out: a fault in the program ({type(error).__name__})."
        _fail(uid, "work-failed", fault, AGAIN)


class _Telling:
    """Tells of a piece of work in its row of the database."""

    def __init__(self, uid: str) -> None:
        self._uid = uid
        self._told = 0.0

    def __call__(self, done: int, of: int, /) -> None:
        """Tell how far it has come, now and then.

        Raises:
            Unwanted: it was stopped, or its row is gone.
        """
        now = monotonic()
        if now - self._told >= TELL_EVERY:
            self._told = now
            self._tell(done=done, of=of)

    def found(self, result: BaseModel) -> None:
        """Show what has been found so far: the page that waits has it at its next look.

        Raises:
            Unwanted: as above.
        """
        self._tell(result=result.model_dump(mode="json", by_alias=True))

    def _tell(self, **what: Any) -> None:
        if not Work.objects.filter(uid=self._uid, state=Work.RUNNING).update(**what):
            raise Unwanted


def _died(uid: str) -> None:
    _fail(uid, "work-failed", "The part of the program that works this out broke down.", AGAIN)


WORKER = Worker(_died)


def _fail(uid: str, code: str, message: str, fix: str) -> None:
    _end(uid, state=Work.FAILED, problem={"code": code, "message": message, "fix": fix})


def _end(uid: str, **what: Any) -> None:
    Work.objects.filter(uid=uid, state__in=Work.UNDER_WAY).update(ended=timezone.now(), **what)
