"""Cut a muslin: open a round with the geometry as it is cut, which from then on counts as it is."""

from uuid import UUID

import izett
from izett.files.pattern_json import evaluated_document
from izett.recipe.evaluation import Evaluation
from studio.limits import MOST_ROUNDS, refuse_more
from studio.locking import changing, job_of, open_round, tell
from studio.models import Job, Round
from studio.muslins import read_back
from studio.problems import Refusal
from studio.schemas import RoundIn
from studio.state import head_of
from studio.workroom import evaluate_revision, measures_of


def cut_muslin(job_id: UUID, version: int, data: RoundIn) -> Job:
    """Open the next round.

    Raises:
        Refusal: a round is open already, the pattern could not be read again, or the job has moved on.
        IzettError: there is no draft to cut.
    """
    job = job_of(job_id)
    if (still := open_round(job)) is not None:
        raise Refusal(409, "round-open", f"Muslin {still.number} is still being judged.", fix="Close it first.")
    head = head_of(job)
    evaluation = evaluate_revision(head)
    document = as_cut(evaluation, measures_of(head.sheet))
    last = job.rounds.order_by("-number").first()
    number = (last.number if last else 0) + 1
    refuse_more(number, MOST_ROUNDS, "muslins")
    # What cannot be read again must not be kept: it would be found out when the cloth is cut already.
    read_back(document, number)
    with changing(job, version, adding=document):
        Round.objects.create(
            job=job,
            number=number,
            cloth=data.cloth,
            worn=data.worn,
            cut_from=head,
            as_cut=document,
            core_version=izett.__version__,
        )
        tell(job, "cut", f"Muslin {number} cut" + (f" in {data.cloth}" if data.cloth else ""))
    return job


def as_cut(evaluation: Evaluation, measures: dict[str, float]) -> dict[str, object]:
    """Return the pattern document that is kept with a round."""
    document = evaluated_document(evaluation, measures=measures)
    return dict(document.model_dump(mode="json", by_alias=True))
