"""The demo's draped bustier: a session on the simulated form, its marks as they were typed."""

from datetime import date, timedelta

from izett.draping.form import Hand, draped
from izett.draping.panel import Given
from izett.draping.tearing import drapes, session
from izett.fitting.marked import LaidMark, Marked, guides_of
from izett.pattern.facts import Role
from izett.recipe.model import Recipe, Step
from izett.styling.operations.redraw_edge import MarkedAs
from studio.actions.apply_remedy import apply_remedy
from studio.actions.cut_muslin import cut_muslin
from studio.actions.open_job import open_job
from studio.actions.prepare_drape import prepare_drape
from studio.actions.record_finding import record_finding
from studio.actions.revise import revise
from studio.form_schemas import FormPanel, OnForm
from studio.locking import job_of
from studio.models import Job, Wearer
from studio.schemas import FindingIn, JobIn, RemedyIn, RevisionIn, RoundIn
from studio.state import head_of, readable_recipe
from studio.workroom import evaluate_revision, evaluator, measures_of

GARMENT = "Gala bustier, draped"
#: What hangs on the form: the wearer's bodice with princess lines, cut off along an upper edge.
HUNG = (
    # What the princess line does not take in hangs loose: a draped panel has no dart.
    ("convert_dart", {"dart": "front.waist_dart_2", "into": "loose"}),
    ("princess", {"start": {"start": "front.underarm", "end": "front.shoulder_tip", "along": "front.armhole", "fraction": 0.5}}),
    ("princess", {"start": {"start": "back.underarm", "end": "back.shoulder_tip", "along": "back.armhole", "fraction": 0.5}}),
    ("upper_edge", {"front": 3.0, "peak": 6.0, "side": 1.0, "back": 0.5}),
)  # fmt: skip
#: In the order in which they are draped, by the names of the pieces that hang there.
PANELS = {
    "bodice_front": "Centre front",
    "h1.side": "Side front",
    "h2.side": "Side back",
    "bodice_back": "Centre back",
}
#: How the pencil and the tape of this session went: 1.5 mm about the truth, dots a good 3 cm apart.
HAND = Hand(apart=3.2, scatter=0.15, seed=11)
#: The panel whose upper edge is marked anew, and how much lower it is at the centre, cm.
FRONT, LOWER = "centre_front", 1.2
#: Longest and widest of each panel on the form, cm.
MEASURED = {
    "centre_front": (27.0, 10.5), "side_front": (26.0, 14.5), "side_back": (21.5, 15.0), "centre_back": (20.0, 10.5),
}  # fmt: skip


def draped_bustier(wearer: Wearer) -> Job:
    """Add a bustier that was draped, for a wearer: prepared, marked, trued; return its job."""
    job = open_job(JobIn(wearer=wearer.id, garment=GARMENT, due=date.today() + timedelta(days=33), blocks=[]))
    prepare_drape(job.id, job.version, _prepared())
    job = job_of(job.id)
    recipe = readable_recipe(job).model_copy(update={"given": _marked(job)})
    revise(job.id, job.version, RevisionIn(recipe=recipe, why="marks of the bustier, four panels"))
    _draped_anew(job_of(job.id))
    return job_of(job.id)


def _draped_anew(job: Job) -> None:
    """Cut the bustier in muslin, and mark its upper edge anew on the wearer: a little lower at the centre front."""
    cut_muslin(job.id, job.version, RoundIn(cloth="unbleached calico", worn="without a bra"))
    job = job_of(job.id)
    piece = evaluate_revision(head_of(job)).pattern.piece(FRONT)
    edge = next(edge for edge in piece.edges if edge.role is Role.NECK)
    guides = guides_of(piece, edge.lineage)
    long = edge.curve.length
    # The ring runs from the princess line to the centre: the cross is the end at the centre.
    spots = [edge.curve.at_distance(long * share) for share in (0.2, 0.4, 0.6, 0.8, 1.0)]
    marks = [
        LaidMark(
            kind=MarkedAs.CROSS if spot is spots[-1] else MarkedAs.DOT,
            across=round(guides.measured(spot)[0], 1),
            along=round(guides.measured(spot)[1] - LOWER * ((1 + i) / len(spots)) ** 2, 1),
        )
        for i, spot in enumerate(spots)
    ]
    data = FindingIn(
        uid="draped-anew",
        kind="draped_anew",
        piece=piece.name,
        line=edge.lineage,
        marked=Marked(marks=tuple(marks)),
        words="I can feel it when I bow",
    )
    record_finding(job.id, job.version, 1, data)
    job = job_of(job.id)
    apply_remedy(job.id, job.version, 1, data.uid, RemedyIn(remedy="finished", uids=["upper_edge_anew"]))


def _prepared() -> OnForm:
    drape = drapes()["bustier"]
    panels = [
        FormPanel(
            key=panel.key,
            title=panel.title,
            kind="panel",
            hangs="centre" if panel.hangs == "centre" else "balance",
            length=MEASURED[panel.key][0],
            width=MEASURED[panel.key][1],
        )
        for panel in drape.panels
    ]
    tapes = [f"tape_{i}" for i in range(1, len(drape.tape) + 1)]
    steps = [f"step_{i}" for i in range(1, len(session()) + 1)]
    return OnForm(drape=drape.key, muslin=150.0, panels=panels, done=[*tapes, *steps])


def _marked(job: Job) -> Given:
    steps = tuple(Step(f"h{i}", kind, params) for i, (kind, params) in enumerate(HUNG))
    hung = evaluator().evaluate(Recipe("bodice", measures_of(head_of(job).sheet), steps=steps)).pattern
    given = draped(hung, HAND, titles=PANELS)
    by_title = {panel.title: panel for panel in given.panels}
    return given.model_copy(update={"panels": tuple(by_title[title] for title in PANELS.values())})
