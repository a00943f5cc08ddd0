"""The demo's old cardigan: traced from its paper pieces, its armhole taken from the wearer's own block."""

from pathlib import Path

from izett.catalogue import catalogue
from izett.checking.check import Fix, Verdict
from izett.drafting.ease import Cloth, Kind
from izett.draping.panel import Given
from izett.files.recipe_json import RecipeClothDoc, StepDoc
from izett.pattern.document import Pattern
from izett.pattern.facts import Role
from izett.pattern.piece import Edge, Piece
from izett.recipe.model import Recipe
from studio.actions.open_job import open_job
from studio.actions.revise import revise
from studio.models import Job, Wearer
from studio.schemas import JobIn, RevisionIn
from studio.state import head_of, readable_recipe
from studio.workroom import evaluate_revision, evaluator, measures_of

GARMENT = "Old rehearsal cardigan, traced"
#: Its three pieces as they were traced from photos and named.
TRACED = Path(__file__).parent / "demo_cardigan.json"
KNIT = Cloth(Kind.KNIT, 40)
SOURCE = "her knit block"
#: What no longer agrees at the ends of the new armhole is mended as it is offered, in so many steps at most.
MOST_MENDED = 4


def traced_cardigan(wearer: Wearer) -> Job:
    """Add the cardigan as it was traced, for a wearer; return its job."""
    job = open_job(JobIn(wearer=wearer.id, garment=GARMENT, due=None, blocks=[]))
    given = Given.model_validate_json(TRACED.read_text(encoding="utf-8"))
    cloth = RecipeClothDoc(kind=KNIT.kind, stretch=KNIT.stretch)
    recipe = readable_recipe(job).model_copy(update={"given": given, "cloth": cloth})
    return revise(job.id, job.version, RevisionIn(recipe=recipe, why="traced from the old paper, three pieces"))


def old_cardigan(wearer: Wearer) -> Job:
    """Add a cardigan that was traced, for a wearer, with the armhole of her block; return its job."""
    job = traced_cardigan(wearer)
    measures = measures_of(head_of(job).sheet)
    block = evaluator().evaluate(Recipe("knit_top", measures, cloth=KNIT)).pattern
    old = evaluate_revision(head_of(job)).pattern
    steps = [_taken(piece, block) for piece in old.with_role(Role.ARMHOLE)]
    recipe = readable_recipe(job).model_copy(update={"steps": steps})
    job = revise(job.id, job.version, RevisionIn(recipe=recipe, why="the old armhole cut her under the arm"))
    for number in range(1, MOST_MENDED + 1):
        mend = _first_mend(job)
        if mend is None:
            break
        recipe = readable_recipe(job)
        step = StepDoc(
            uid=f"mend_{number}",
            kind=mend.kind,
            params=dict(mend.params),
            version=catalogue().operations[mend.kind].version,
        )
        recipe = recipe.model_copy(update={"steps": [*recipe.steps, step]})
        job = revise(job.id, job.version, RevisionIn(recipe=recipe, why=mend.words))
    return job


def _first_mend(job: Job) -> Fix | None:
    """Return how the first thing that does not agree any more is mended, as its check offers it."""
    results = evaluate_revision(head_of(job)).results
    failing = (result.finding for result in results if result.finding.verdict is Verdict.FAILS)
    return next((finding.fixes[0] for finding in failing if finding.fixes), None)


def _taken(piece: Piece, block: Pattern) -> StepDoc:
    """Return the step that takes the armhole of the block for a piece, laid together at the shoulder tip."""
    line = _armhole(piece)
    hers = _armhole(next(other for other in block.with_role(Role.ARMHOLE) if other.zone is piece.zone))
    return StepDoc(
        uid=f"armhole_{piece.zone.value}",
        kind="combine_lines",
        params={
            "piece": piece.name,
            "at": line.end,
            "given_at": hers.curve.end,
            "lines": [{"along": line.lineage, "points": hers.curve.points}],
            "source": SOURCE,
        },
        why="her own armhole: the old one cut under the arm",
        version=catalogue().operations["combine_lines"].version,
    )


def _armhole(piece: Piece) -> Edge:
    return next(edge for edge in piece.edges if edge.role is Role.ARMHOLE)
