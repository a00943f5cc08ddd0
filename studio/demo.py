"""The demo: a two-person workroom that makes concert clothes for the players of a small chamber orchestra.

Everybody in it is invented. Bow arms need reach across the back, cellists sit with their knees apart; the bodices
here are the tops of concert dresses and jackets.
"""

from datetime import date, timedelta
from typing import Any, Literal
from uuid import uuid4

from django.db import transaction

from izett.catalogue import catalogue
from izett.drafting.ease import Kind
from izett.drafting.sets import starter_sets
from izett.files.recipe_json import RecipeClothDoc, StepDoc
from izett.pattern.naming import in_titles
from studio.actions.answer_finding import answer_finding
from studio.actions.apply_remedy import apply_remedy
from studio.actions.close_muslin import close_muslin
from studio.actions.cut_muslin import cut_muslin
from studio.actions.keep_fit import keep_fit
from studio.actions.keep_sheet import keep_sheet
from studio.actions.look_again import look_again
from studio.actions.open_job import open_job
from studio.actions.photograph import add_photo
from studio.actions.prepare_muslin import prepare_muslin
from studio.actions.record_finding import record_finding
from studio.actions.revise import revise
from studio.actions.spend_time import type_time
from studio.actions.take_size import take_size
from studio.demo_cutting import cut_the_dress
from studio.demo_drape import draped_bustier
from studio.demo_photo import photo_of_a_pinch
from studio.demo_trace import old_cardigan
from studio.locking import job_of
from studio.models import Job, Wearer
from studio.round_schemas import FittingIn
from studio.schemas import (
    AnswerIn,
    CloseIn,
    FindingIn,
    JobIn,
    LengthIn,
    RemedyIn,
    RevisionIn,
    RoundIn,
    SheetIn,
    TakenIn,
)
from studio.sheet_schemas import SizeIn
from studio.state import head_of
from studio.workroom import evaluate, recipe_document

#: Readings as they were typed; Marit's tape has inches on its front.
VIOLA = {
    "height": "171", "neck_girth": "37.5", "high_bust_girth": "93", "bust_girth": "101.5", "front_bust_arc": "54.5",
    "underbust_girth": "81", "waist_girth": "80", "hip_girth": "106", "across_back": "36.6", "across_front": "34.4",
    "apex_span": "20.5", "shoulder_length": "12.6", "back_waist_length": "42.2", "front_length": "47.4",
    "neck_to_apex": "28.9", "armhole_depth": "20.2", "bicep_girth": "30.5", "front_shoulder_slope_length": "45.6",
    "back_shoulder_slope_length": "45.0",
}  # fmt: skip
#: What was taken again two days ago: the waist is back from the summer, the arm that bows is fuller.
LATER = {
    "waist_girth": ("77.5", "77.8"), "hip_girth": ("105", "105.4"), "bust_girth": ("101", "101.4"),
    "bicep_girth": ("31.2",), "across_shoulder": ("40.2",), "back_length": ("43.8",), "arm_length.left": ("59.5",),
    "arm_length.right": ("60.4",), "waist_to_hip": ("21",), "cup": ("D",),
}  # fmt: skip
CELLO = {
    "height": "69 3/4", "neck_girth": "13 7/8", "high_bust_girth": "31 1/2", "bust_girth": "33", "waist_girth": "25 1/2",
    "hip_girth": "36 3/4", "across_back": "13 1/4", "across_front": "12 1/2", "apex_span": "7", "shoulder_length": "4 7/8",
    "back_waist_length": "17", "front_length": "17 7/8", "neck_to_apex": "10 3/8", "armhole_depth": "7 5/8",
    "bicep_girth": "10",
}  # fmt: skip
OBOE = {
    "height": "158", "high_bust_girth": "106", "bust_girth": "116", "waist_girth": "112", "hip_girth": "120",
    "across_back": "39.5", "back_waist_length": "39.5", "bicep_girth": "35.5", "neck_girth": "40",
}  # fmt: skip


@transaction.atomic
def load() -> None:
    """Fill an empty studio, wholly or not at all; a studio with wearers in it is left alone."""
    if Wearer.objects.exists():
        return
    viola = concert_top()
    cello = _wearer("Marit Sollendine", "Cello. Plays seated with the arms forward. Likes a close waist.", CELLO, "in")
    oboe = _wearer("Philippa Ntarrow", "Oboe. Breath first: nothing tight at the waist.", OBOE, "cm")
    _first_round(_job(cello, "Black recital bodice", 45))
    _job(oboe, "Soft concert jacket, block", None, "loose")
    _job(cello, "Long black recital dress", 70, "dress")
    draped_bustier(viola)
    old_cardigan(viola)
    cut_the_dress(chamber_dress(cello))
    _job(viola, "Concert trousers", 38, "trousers")
    _job(viola, "Rehearsal T-shirt", None, "t_shirt")
    size = take_size(SizeIn(chart="en_13402_3_women", size="96", height=LengthIn(text="172")))
    _job(size, "Choir top, size 96", 60)


def concert_top() -> Wearer:
    """Add the viola player, measured twice, with a fitted top on its second muslin; return her."""
    viola = _wearer(
        "Hanneke Oduvale", "Viola. Right arm bows; wants room across the back when the arm goes forward.", VIOLA, "cm"
    )
    _second_round(_job(viola, "Concert dress, fitted top", 24))
    _measured_again(viola)
    return viola


def chamber_dress(cello: Wearer | None = None) -> Job:
    """Add a princess dress with full sleeves, cuffs and a zip for the cello player; return it."""
    cello = cello or _wearer("Marit Sollendine", "Cello. Plays seated with the arms forward.", CELLO, "in")
    job = _job(cello, "Chamber dress, princess line", 52, "dress")
    _styled(job)
    return job


def _wearer(name: str, note: str, readings: dict[str, str], unit: str) -> Wearer:
    wearer = Wearer.objects.create(name=name, note=note)
    keep_sheet(
        wearer.id,
        SheetIn(
            taken_on=date.today() - timedelta(days=30),
            taken_by="helper",
            worn="everyday foundation, barefoot",
            readings={symbol: TakenIn(text=text, unit=unit) for symbol, text in readings.items()},
        ),
    )
    return wearer


def _measured_again(wearer: Wearer) -> None:
    """Keep a second sheet, a summer later and read twice where nothing else vouches; no job is drafted from it yet."""
    first = wearer.sheets.get(number=1)
    readings = {r.symbol: TakenIn(text=r.text, unit=r.unit) for r in first.readings.all()}
    for symbol, texts in LATER.items():
        taken, *again = [LengthIn(text=text) for text in texts]
        readings[symbol] = TakenIn(text=taken.text, again=again)
    keep_sheet(
        wearer.id,
        SheetIn(taken_on=date.today() - timedelta(days=2), worn="concert foundation", readings=readings),
    )


def _job(wearer: Wearer, garment: str, days: int | None, key: str = "bodice") -> Job:
    due = date.today() + timedelta(days=days) if days is not None else None
    of = starter_sets()[key]
    cloth = RecipeClothDoc(kind=Kind(of.cloth.kind), stretch=of.cloth.stretch)
    return open_job(JobIn(wearer=wearer.id, garment=garment, due=due, blocks=list(of.blocks), fit=of.fit, cloth=cloth))


def _fresh(job: Job) -> Job:
    return job_of(job.id)


def _found(
    job: Job,
    number: int,
    kind: str,
    remedy: str,
    steps: int,
    *,
    words: str = "",
    side: Literal["both", "left", "right"] = "both",
    **given: str,
) -> str:
    uid = f"f-{uuid4().hex[:10]}"
    record_finding(
        job.id,
        _fresh(job).version,
        number,
        FindingIn(uid=uid, kind=kind, words=words, side=side, given={k: LengthIn(text=v) for k, v in given.items()}),
    )
    if remedy:
        uids = [f"s-{uuid4().hex[:10]}" for _ in range(steps)]
        apply_remedy(job.id, _fresh(job).version, number, uid, RemedyIn(remedy=remedy, uids=uids))
    return uid


def _second_round(job: Job) -> None:
    head = recipe_document(head_of(_fresh(job)).document)
    eased = head.model_copy(update={"overrides": {"across_back_ease": 0.9}})
    revise(job.id, _fresh(job).version, RevisionIn(recipe=eased, why="a little more across the back, for the bow arm"))
    cut_muslin(job.id, _fresh(job).version, RoundIn(cloth="unbleached calico", worn="concert foundation"))
    _see_to(job, 1, pins_in=24, watched=["stand", "sit", "reach forward"])
    back = _found(
        job, 1, "back_tight", "ease", 1, words="it holds me when I reach for the lowest string", missing="0.8"
    )
    aim = _found(job, 1, "bust_dart_aims", "aim", 2, outwards="0.4", upwards="-1.2")
    waist = _found(job, 1, "waist_low", "shorten", 1, words="rides under the ribs when I sit", low="0.8")
    add_photo(job.id, _fresh(job).version, 1, waist, uuid4(), photo_of_a_pinch())
    _see_to(job, 1, pins_out=24)
    type_time(job.id, _fresh(job).version, 95)
    close_muslin(job.id, _fresh(job).version, 1, CloseIn(note="Played ten minutes in it. Look again with the sleeve."))
    cut_muslin(job.id, _fresh(job).version, RoundIn(cloth="unbleached calico", worn="concert foundation"))
    for uid, outcome in ((back, "better"), (aim, "solved"), (waist, "solved")):
        answer_finding(job.id, _fresh(job).version, 2, AnswerIn(finding=uid, outcome=outcome))
    _found(job, 2, "sides_loose", "take_in", 1, words="soft under the bow arm", side="right", bust="1.2", waist="0.6")
    _found(job, 2, "shoulder_long", "", 0, long="0.4")
    keep_fit(job.id, _fresh(job).version, 1, waist)
    _see_to(job, 2, prepared=["cloth", "closures", "foundation"], pins_in=18)
    type_time(job.id, _fresh(job).version, 50)
    look_again(job.id, _fresh(job).version, "the right side seam, with the viola under her chin", date.today())


def _see_to(job: Job, number: int, **about: Any) -> None:
    prepare_muslin(job.id, _fresh(job).version, number, FittingIn(**about))


def _line(part: str, start: str, end: str, line: str, **at: float) -> dict[str, Any]:
    return {"start": f"{part}.{start}", "end": f"{part}.{end}", "along": f"{part}.{line}", **at}


#: A dress from the blocks: kind, parameters, why.
CHAMBER: tuple[tuple[str, dict[str, Any], str], ...] = (
    (
        "princess",
        {"start": _line("front", "underarm", "shoulder_tip", "armhole", fraction=0.55), "bow": 1.2},
        "a side dart would show under the stage lights",
    ),
    (
        "princess",
        {"start": _line("back", "underarm", "shoulder_tip", "armhole", fraction=0.6), "bow": 1.0},
        "",
    ),
    ("change_neckline", {"wider": 2.0, "front": 4.0, "back": 1.0}, "clear of the neck of the cello"),
    ("change_side", {"hem": 5.0}, "she plays with her knees apart"),
    ("shape_hem", {"front": -6.0, "side": 0.0, "back": 4.0}, "the front clears the foot"),
    (
        "spread_piece",
        {
            "edge": _line("sleeve", "wrist_back", "wrist_front", "hem"),
            "opposite": _line("sleeve", "underarm_front", "cap_top", "front_cap"),
            "amount": 12.0,
            "lines": 5,
            "stop": "elbow",
            "back": 1.5,
        },
        "room for the bow arm below the elbow",
    ),
    (
        "add_band",
        {"kind": "cuff", "edges": [_line("sleeve", "wrist_back", "wrist_front", "hem")], "ratio": 0.62, "height": 5.0},
        "",
    ),
    (
        "open_up",
        {
            "closure": "zip",
            "at": _line("back", "neck_cb", "waist_cb", "centre"),
            "on": [_line("skirt_back", "waist_cb", "hem_cb", "centre")],
            "long": 56.0,
        },
        "",
    ),
)


def _styled(job: Job) -> None:
    recipe = recipe_document(head_of(_fresh(job)).document)
    for kind, params, why in CHAMBER:
        version = catalogue().operations[kind].version
        step = StepDoc(uid=f"s-{uuid4().hex[:10]}", kind=kind, params=params, version=version, why=why)
        recipe = recipe.model_copy(update={"steps": [*recipe.steps, step]})
        evaluation = evaluate(recipe, head_of(_fresh(job)).sheet, owner=job.id)
        stage = next(stage for stage in evaluation.stages if stage.step.uid == step.uid)
        revise(job.id, _fresh(job).version, RevisionIn(recipe=recipe, why=in_titles(stage.words, evaluation.pattern)))


def _first_round(job: Job) -> None:
    cut_muslin(job.id, _fresh(job).version, RoundIn(cloth="cotton sheeting"))
