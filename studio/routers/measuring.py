"""Reading and judging what is typed, without keeping it; the catalogue that the screens are made of."""

from django.http import HttpRequest
from ninja import Router

from izett.catalogue import catalogue
from izett.drafting.ease import FITS, Kind
from izett.drafting.method import measures_used
from izett.drafting.sets import starter_sets
from izett.files.recipe_json import RecipeClothDoc
from izett.finishing.allowances import WIDEST, purposes
from izett.fitting.finding import finding_kinds
from izett.fitting.preparing import movements
from izett.measuring.measure import measures, stations
from izett.measuring.preparation import preparation
from izett.units import UnreadableNumber, read_length, read_number
from izett.wording import cm
from studio.advising import advice_asked
from studio.cautions import CAUTIONS
from studio.judging import reviewed
from studio.locking import wearer_of
from studio.long_work.desk import begin
from studio.long_work.schemas import WorkOut
from studio.schemas import NumberIn, NumberOut
from studio.sheet_schemas import AdviceIn, ReviewIn, ReviewOut
from studio.table_schemas import (
    BlockOut,
    CatalogueOut,
    InputOut,
    KindOut,
    MeasureOut,
    OnPieceOut,
    PreparationOut,
    PurposeOut,
    StarterSetOut,
    StationOut,
)

router = Router(tags=["measuring"])

#: Decimals of a bound that is told: a quarter of a millimetre is finer than any.
FINEST = 2


@router.post("/numbers", response=NumberOut)
def number(request: HttpRequest, data: NumberIn) -> NumberOut:
    """Read a number as it is typed: a length where a unit is named, else a plain one; say where it cannot be one."""
    try:
        value = read_number(data.text) if data.unit is None else read_length(data.text, unit=data.unit).cm
    except UnreadableNumber as error:
        return NumberOut(error=f"{error}.")
    low, high = data.low, data.high
    if low is not None and high is not None and not low <= value <= high:
        ends = (f"{end:g}" if data.unit is None else cm(end, FINEST) for end in (low, high))
        return NumberOut(error=f"Enter a value from {' to '.join(ends)}.")
    return NumberOut(value=value)


@router.post("/measures/review", response=ReviewOut)
def review(request: HttpRequest, data: ReviewIn) -> ReviewOut:
    """Judge a sheet being filled: what cannot be read, what looks odd, what contradicts what, what is missing."""
    return reviewed(data)


@router.post("/measures/advice", response=WorkOut)
def advice(request: HttpRequest, data: AdviceIn) -> WorkOut:
    """Begin to work out what to take next and what each measure moves, by drafting with each a little off."""
    wearer = wearer_of(data.wearer)
    place = f"job {data.job}" if data.job else f"wearer {data.wearer}"
    return WorkOut.model_validate(begin("advice", advice_asked(data), uid=data.uid, place=place, wearer=wearer))


@router.get("/catalogue", response=CatalogueOut)
def everything(request: HttpRequest) -> CatalogueOut:
    """Return what there is to choose from: measures, findings, purposes, movements, cautions."""
    methods = catalogue().methods
    return CatalogueOut(
        blocks=[
            BlockOut(
                key=m.key,
                title=m.title,
                stands_on=list(m.stands_on),
                clothes=list(m.clothes),
                required=[list(group) for group in m.requires],
                used=list(measures_used(m)),
            )
            for m in methods.values()
        ],
        sets=[
            StarterSetOut(
                key=s.key,
                title=s.title,
                reason=s.reason,
                blocks=list(s.blocks),
                fit=s.fit,
                cloth=RecipeClothDoc(kind=Kind(s.cloth.kind), stretch=s.cloth.stretch),
            )
            for s in starter_sets().values()
        ],
        fits=list(FITS),
        cloths=list(Kind),
        measures=[
            MeasureOut(**{name: getattr(m, name) for name in MeasureOut.model_fields}) for m in measures().values()
        ],
        stations=[StationOut(key=s.key, title=s.title, stand=s.stand) for s in stations()],
        preparation=[PreparationOut(key=i.key, title=i.title, says=i.says) for i in preparation()],
        findings=[
            KindOut(
                key=kind.key,
                seen=kind.seen,
                cause=kind.cause,
                words=kind.words,
                group=kind.group,
                one_half=kind.one_half,
                marks=kind.marks,
                normal=kind.normal,
                places=[OnPieceOut(zone=p.zone or "", role=p.role or "") for p in kind.places],
                view=kind.spot.view,
                across=kind.spot.across,
                level=kind.spot.level,
                movement=kind.movement,
                inputs=[
                    InputOut(
                        symbol=i.symbol,
                        label=i.label,
                        default=i.default,
                        low=i.low,
                        high=i.high,
                        pinch=i.pinch,
                        unit=i.unit,
                        counted=i.counted,
                    )
                    for i in kind.inputs
                ],
            )
            for kind in finding_kinds().values()
        ],
        purposes=[
            PurposeOut(key=p.key, title=p.title, reason=p.reason, by_role={r.value: w for r, w in p.by_role.items()})
            for p in purposes().values()
        ],
        widest_allowance=WIDEST,
        movements=[movement.key for movement in movements()],
        cautions={key: list(lines) for key, lines in CAUTIONS.items()},
    )
