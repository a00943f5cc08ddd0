"""Muslins as they were cut: read from what was kept, which never changes again."""

from functools import lru_cache
from typing import Any
from uuid import UUID

from pydantic import ValidationError

from izett.files.pattern_doc import PatternDoc
from izett.files.pattern_json import pattern_of
from izett.pattern.document import Pattern
from studio.locking import job_of, round_of
from studio.problems import Refusal
from studio.standing import refusal_of


@lru_cache(maxsize=32)
def as_cut(job: UUID, number: int) -> Pattern:
    """Return the pattern as it was cut for a muslin.

    Raises:
        Refusal: there is no such muslin, or what was kept of it cannot be read.
    """
    return read_back(round_of(job_of(job), number).as_cut, number)


def read_back(document: Any, number: int) -> Pattern:
    """Return the pattern that is kept, or to be kept, of a muslin.

    Raises:
        Refusal: it cannot be read.
    """
    try:
        return pattern_of(PatternDoc.model_validate(document))
    except ValidationError as error:
        why = refusal_of(error)
    except (ArithmeticError, LookupError, ValueError) as error:
        why = str(error)
    raise Refusal(
        422,
        "muslin-unreadable",
        f"Muslin {number} cannot be drawn as it was cut: {why}.",
        fix="The job and its other muslins are not touched by that. Export the job to keep what is there.",
    )


def forget() -> None:
    """Forget every muslin that was read."""
    as_cut.cache_clear()
