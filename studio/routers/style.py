"""Styling: the steps there are, what can be done to a thing, what a removal would break, and seams walked."""

from dataclasses import asdict

from django.http import HttpRequest
from ninja import Router

from izett.catalogue import catalogue
from izett.checking.check import Verdict
from izett.errors import UnknownName
from izett.pattern.document import NotchKind, Pattern
from izett.pattern.walking import Met, walked
from izett.recipe.evaluator import Evaluation
from izett.styling.fields import fields_of
from izett.styling.subject import Kind, Subject, subject_of
from studio.models import MeasureSheet
from studio.problems import not_found
from studio.style_schemas import (
    BrokenOut,
    DeedOut,
    FieldOut,
    OperationOut,
    RunOut,
    SubjectIn,
    WalkIn,
    WalkNotchOut,
    WalkOut,
    WalkStepOut,
    WithoutIn,
    WithoutOut,
)
from studio.workroom import evaluate, measures_of

router = Router(tags=["style"])


@router.get("/operations", response=list[OperationOut])
def operations(request: HttpRequest) -> list[OperationOut]:
    """Return every kind of step with its fields."""
    return [
        OperationOut(
            key=o.key,
            title=o.title,
            group=o.group.value,
            phase=o.phase.value,
            version=o.version,
            fields=[FieldOut(**{**asdict(field), "choices": list(field.choices)}) for field in fields_of(o.params)],
        )
        for o in catalogue().operations.values()
    ]


@router.post("/offers", response=list[DeedOut])
def offers(request: HttpRequest, data: SubjectIn) -> list[DeedOut]:
    """Return what can be done to the thing pointed at."""
    pattern = evaluate(data.recipe, _measures(data.sheet)).pattern
    subject = _pointed(data, pattern)
    if subject is None:
        return []
    return [
        DeedOut(words=offer.words, kind=o.key, group=o.group.value, version=o.version, params=offer.params)
        for o in catalogue().operations.values()
        for offer in o.offers(subject, pattern)
    ]


@router.post("/lines", response=RunOut)
def line(request: HttpRequest, data: SubjectIn) -> RunOut:
    """Return the whole run of the line pointed at, as a step's parameters name it."""
    subject = _pointed(data, evaluate(data.recipe, _measures(data.sheet)).pattern)
    if subject is None or subject.span is None:
        raise not_found("line")
    return RunOut(**subject.line(), fraction=round(subject.fraction, 3))


#: A place pointed at lies at least this share of the line from its ends: a corner is hit by accident.
NEAREST_END = 0.02


def _pointed(data: SubjectIn, pattern: Pattern) -> Subject | None:
    try:
        kind = Kind(data.kind)
    except ValueError:
        raise UnknownName(
            f"Nothing of the kind “{data.kind}” can be pointed at.",
            mend=f"Point at one of: {', '.join(Kind)}.",
            where=(data.kind,),
        ) from None
    return subject_of(pattern, kind, data.name, data.piece, min(max(data.fraction, NEAREST_END), 1 - NEAREST_END))


@router.post("/without", response=WithoutOut)
def without(request: HttpRequest, data: WithoutIn) -> WithoutOut:
    """Work the recipe out without one of its steps, and tell what that would break."""
    measures = _measures(data.sheet)
    now = evaluate(data.recipe, measures)
    rest = data.recipe.model_copy(update={"steps": [s for s in data.recipe.steps if s.uid != data.uid]})
    then = evaluate(rest, measures)
    acted = {stage.step.uid for stage in now.stages if stage.failure is None}
    return WithoutOut(
        broken=[
            BrokenOut(uid=stage.step.uid, words=stage.words, why=stage.failure.message)
            for stage in then.stages
            if stage.failure is not None and stage.step.uid in acted
        ],
        checks=sorted(_odd(then) - _odd(now)),
    )


def _odd(evaluation: Evaluation) -> set[str]:
    return {r.words for r in evaluation.results if r.finding.verdict is Verdict.FAILS}


@router.post("/walk", response=WalkOut)
def walk(request: HttpRequest, data: WalkIn) -> WalkOut:
    """Walk a seam from end to end."""
    pattern = evaluate(data.recipe, _measures(data.sheet)).pattern
    seam = next((seam for seam in pattern.seams if seam.name == data.seam), None)
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


def _measures(number: int) -> dict[str, float]:
    sheet = MeasureSheet.objects.filter(id=number).prefetch_related("readings").first()
    if sheet is None:
        raise not_found("sheet")
    return measures_of(sheet)
