"""Keep a lay plan with its job, or let go of it."""

from uuid import UUID

from izett.cutting.cloth import USES, Use
from izett.cutting.lay.by_hand import faults_of
from izett.cutting.lay.plan import Plan
from izett.files.lay_json import plan_of
from studio.actions.keep_cut_table import put_table
from studio.cutting_schemas import KeptPlanIn, PlanKept
from studio.lays import cut_of, digest_of, table_of, wanted_of
from studio.locking import job_of
from studio.models import Job
from studio.problems import Refusal


def keep_lay(job_id: UUID, version: int, use: Use, data: KeptPlanIn | None) -> Job:
    """Keep a plan of a cloth, in the place of the one before it; None lets go of that.

    Raises:
        Refusal: the job has moved on, or the plan cannot be cut.
        PiecesChanged: the plan was laid of other pieces.
    """
    job = job_of(job_id)
    table = table_of(job)
    plans = {other: plan for other, plan in table.plans.items() if other is not use}
    words = f"The lay plan of the {USES[use]} is let go"
    if data is not None:
        wanted = wanted_of(cut_of(job, table), use)
        refuse_faulty(plan_of(data.plan, wanted))
        plans[use] = PlanKept(of=digest_of(wanted, data.plan.cloth), plan=data.plan, by_hand=data.by_hand)
        words = f"A lay plan of the {USES[use]} is kept"
    after = table.model_copy(update={"plans": plans})
    return job if after == table else put_table(job, version, after, words)


def refuse_faulty(plan: Plan) -> None:
    """Let pass a plan that can be cut as it lies.

    Raises:
        Refusal: pieces lie over each other, off the cloth, or as they may not.
    """
    faults = faults_of(plan)
    if faults:
        raise Refusal(409, "plan-cannot-be-cut", faults[0].words, fix="Move the piece, or lay them again.")
