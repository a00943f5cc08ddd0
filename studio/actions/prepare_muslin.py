"""See to a muslin before and while it is fitted: what is prepared, which movements were made, the pins."""

from uuid import UUID

from izett.errors import UnknownName
from izett.fitting.preparing import items, movements
from studio.locking import changing, job_of, round_of, tell
from studio.models import Job
from studio.round_schemas import FittingIn


def prepare_muslin(job_id: UUID, version: int, number: int, data: FittingIn) -> Job:
    """Keep what of an open muslin is prepared, watched and counted; what is left out stays as it is.

    Raises:
        Refusal: it is closed or missing, or the job has moved on.
        UnknownName: there is no such entry on the checklist, or no such movement.
    """
    job = job_of(job_id)
    round_ = round_of(job, number, to_change=True)
    _known(data.prepared, {item.key for item in items()}, "entry on the checklist")
    _known(data.watched, {movement.key for movement in movements()}, "movement")
    changed = {name: value for name, value in data if value is not None and getattr(round_, name) != value}
    if not changed:
        return job
    with changing(job, version):
        for name, value in changed.items():
            setattr(round_, name, value)
        round_.save(update_fields=list(changed))
        for name, words in (("pins_in", "went in"), ("pins_out", "came out")):
            if name in changed:
                tell(job, "pins", f"Muslin {number}: {changed[name]} pins {words}")
    return job


def _known(keys: list[str] | None, known: set[str], what: str) -> None:
    for key in keys or ():
        if key not in known:
            raise UnknownName(f"There is no {what} “{key}”.", fix="Load the page again.", where=(key,))
