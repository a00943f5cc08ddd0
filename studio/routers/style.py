"""Styling: the steps there are, what can be done to a thing, what a removal would break, and seams walked."""

from dataclasses import asdict

from django.http import HttpRequest
from ninja import Router
from pydantic import ValidationError

from izett.catalogue import catalogue
from izett.checking.check import Verdict
from izett.errors import UnknownName
from izett.files.recipe_json import StepDoc
from izett.fitting.compare import moves
from izett.pattern.document import Pattern
from izett.pattern.facts import Half
from izett.pattern.halves import origin
from izett.pattern.naming import in_titles
from izett.pattern.piece import NotchKind
from izett.pattern.walking import Met, walked
from izett.recipe.evaluation import Evaluation
from izett.styling.fields import fields_of, handy_params
from izett.styling.operation import Section
from izett.styling.places import lines_of_places
from izett.styling.subject import Kind, Subject, subject_of
from studio.lanes import LOOK, in_turn
from studio.models import MeasureSheet
from studio.problems import not_found
from studio.style_schemas import (
    BrokenOut,
    DeedOut,
    FieldOut,
    MovedIn,
    OperationOut,
    PlaceLineOut,
    PlacePartOut,
    PointedIn,
    RunOut,
    SubjectIn,
    WalkIn,
    WalkNotchOut,
    WalkOut,
    WalkStepOut,
    WithoutIn,
    WithoutOut,
)
from studio.table_schemas import MoveOut
from studio.workroom import evaluate

router = Router(tags=["style"])


@router.get("/operations", response=list[OperationOut])
def operations(request: HttpRequest) -> list[OperationOut]:
    """Return every kind of step with its fields."""
    return [
        OperationOut(
            key=o.key,
            title=o.title,
            group=o.group.value,
            sections=[section.value for section in o.sections],
            sided=o.sided,
            version=o.version,
            fields=[
                FieldOut(
                    **{
                        **asdict(field),
                        "choices": list(field.choices),
                        "only": list(field.only),
                        "called": dict(field.called),
                    }
                )
                for field in fields_of(o.params)
            ],
        )
        for o in catalogue().operations.values()
    ]


@router.post("/offers", response=list[DeedOut])
@in_turn(LOOK)
def offers(request: HttpRequest, data: PointedIn) -> list[DeedOut]:
    """Return what can be done to the thing pointed at, on the half on which it lies where the halves differ."""
    pointed = _pointed(data)
    if pointed is None:
        return []
    subject, pattern, half = pointed
    return [
        DeedOut(
            words=in_titles(offer.words, pattern),
            kind=o.key,
            group=o.group.value,
            version=o.version,
            params=handy_params(o.params, offer.params, data.unit),
            half=(half if o.sided else Half.BOTH).value,
        )
        for o in catalogue().operations.values()
        for offer in o.offers(subject, pattern)
    ]


@router.post("/lines", response=RunOut)
@in_turn(LOOK)
def line(request: HttpRequest, data: SubjectIn) -> RunOut:
    """Return the whole run of the line pointed at, as a step's parameters name it."""
    pointed = _pointed(data)
    if pointed is None or pointed[0].span is None:
        raise not_found("line")
    return RunOut(**pointed[0].line(), fraction=round(pointed[0].fraction, 3))


@router.post("/places", response=dict[str, PlaceLineOut])
@in_turn(LOOK)
def places(request: HttpRequest, data: WithoutIn) -> dict[str, PlaceLineOut]:
    """Return the lines that the places of a step lie on, as they are where it stands in the recipe."""
    step = next((step for step in data.recipe.steps if step.uid == data.uid), None)
    if step is None:
        raise not_found("step")
    worked = sorted(data.recipe.steps, key=lambda one: list(Section).index(_section_of(one)))
    before = worked[: worked.index(step)]
    evaluation = evaluate(data.recipe.model_copy(update={"steps": before}), _sheet(data.sheet), owner=data.job)
    pattern = evaluation.half(Half.RIGHT if step.half is Half.RIGHT else Half.BOTH)
    operation = catalogue().operations.get(step.kind)
    if operation is None:
        return {}
    try:
        params = operation.params.model_validate(operation.upgraded(step.params, step.version))
    except ValidationError:
        # What is wrong with it is told where the step is worked.
        return {}
    return {
        name: PlaceLineOut(
            length=line.length,
            start=in_titles(line.start, pattern),
            end=in_titles(line.end, pattern),
            parts=[PlacePartOut(piece=part.piece, points=list(part.points)) for part in line.parts],
        )
        for name, line in lines_of_places(params, pattern).items()
    }


def _section_of(step: StepDoc) -> Section:
    operation = catalogue().operations.get(step.kind)
    return step.section or (operation.section if operation else Section.STYLE)


#: So many of the lines that a change moves are told, the farthest first.
MOST_MOVES = 12
#: A place pointed at lies at least this share of the line from its ends: a corner is hit by accident.
NEAREST_END = 0.02


def _pointed(data: SubjectIn) -> tuple[Subject, Pattern, Half] | None:
    """Return what is pointed at as its half knows it, that half, and which it is."""
    try:
        kind = Kind(data.kind)
    except ValueError:
        raise UnknownName(
            f"Nothing of the kind “{data.kind}” can be pointed at.",
            fix=f"Point at one of: {', '.join(Kind)}.",
            where=(data.kind,),
        ) from None
    evaluation = evaluate(data.recipe, _sheet(data.sheet), owner=data.job)
    name, piece_name = origin(data.name), origin(data.piece)
    shown = evaluation.pattern.find_piece(data.piece)
    half = Half.RIGHT if Half.RIGHT in (name.half, piece_name.half) else shown.half if shown else Half.BOTH
    pattern = evaluation.half(half)
    fraction = min(max(data.fraction, NEAREST_END), 1 - NEAREST_END)
    subject = subject_of(pattern, kind, name.name, piece_name.name, fraction)
    return None if subject is None else (subject, pattern, half)


@router.post("/without", response=WithoutOut)
@in_turn(LOOK)
def without(request: HttpRequest, data: WithoutIn) -> WithoutOut:
    """Work the recipe out without one of its steps, and tell what that would break."""
    sheet = _sheet(data.sheet)
    now = evaluate(data.recipe, sheet, owner=data.job)
    rest = data.recipe.model_copy(update={"steps": [s for s in data.recipe.steps if s.uid != data.uid]})
    then = evaluate(rest, sheet, owner=data.job)
    return _effect(now, then)


@router.post("/moved", response=WithoutOut)
@in_turn(LOOK)
def moved(request: HttpRequest, data: MovedIn) -> WithoutOut:
    """Work a recipe out with one of its steps in another section, and tell what that would break."""
    sheet = _sheet(data.sheet)
    steps = [
        step.model_copy(update={"section": Section(data.section)}) if step.uid == data.uid else step
        for step in data.recipe.steps
    ]
    now = evaluate(data.recipe, sheet, owner=data.job)
    then = evaluate(data.recipe.model_copy(update={"steps": steps}), sheet, owner=data.job)
    return _effect(now, then)


def _effect(now: Evaluation, then: Evaluation) -> WithoutOut:
    """Return what a changed recipe breaks: steps that acted and cannot any more, checks that fail where they did not."""
    acted = {stage.step.uid for stage in now.stages if stage.failure is None}
    return WithoutOut(
        broken=[
            BrokenOut(uid=stage.step.uid, words=stage.words, why=stage.failure.message)
            for stage in then.stages
            if stage.failure is not None and stage.step.uid in acted
        ],
        checks=sorted(_odd(then) - _odd(now)),
        moves=[MoveOut(**asdict(move)) for move in moves(now.pattern, then.pattern)[:MOST_MOVES]],
    )


def _odd(evaluation: Evaluation) -> set[str]:
    return {r.words for r in evaluation.results if r.finding.verdict is Verdict.FAILS}


@router.post("/walk", response=WalkOut)
@in_turn(LOOK)
def walk(request: HttpRequest, data: WalkIn) -> WalkOut:
    """Walk a seam from end to end."""
    pattern = evaluate(data.recipe, _sheet(data.sheet), owner=data.job).pattern
    seam = pattern.find_seam(data.seam)
    if seam is None:
        raise not_found("seam")
    found = walked(pattern, seam)
    first, second = ([_notch(met) for met in side] for side in found.notches)
    return WalkOut(
        seam=found.seam,
        words=seam.words,
        lengths=found.lengths,
        ease=seam.ease,
        steps=[WalkStepOut(**asdict(step)) for step in found.steps],
        first=first,
        second=second,
    )


def _notch(met: Met) -> WalkNotchOut:
    return WalkNotchOut(along=met.along, double=met.kind is NotchKind.DOUBLE)


def _sheet(number: int) -> MeasureSheet:
    sheet = MeasureSheet.objects.filter(id=number).prefetch_related("readings").first()
    if sheet is None:
        raise not_found("sheet")
    return sheet
