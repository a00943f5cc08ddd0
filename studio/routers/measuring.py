"""Reading and judging what is typed, without keeping it; the catalogue that the screens are made of."""

from django.http import HttpRequest
from ninja import Router

from izett.catalogue import catalogue
from izett.drafting.method import measures_used
from izett.errors import ValueOutOfRange
from izett.finishing.allowances import purposes
from izett.fitting.finding import finding_kinds
from izett.measuring.measure import measures, stations
from izett.measuring.preparation import preparation
from izett.units import UnreadableLength, read_length
from studio.cautions import CAUTIONS, MOVEMENTS
from studio.judging import BLOCK, advised, reviewed, shown
from studio.schemas import LengthIn, LengthOut
from studio.sheet_schemas import AdviceIn, AdviceOut, ReviewIn, ReviewOut
from studio.table_schemas import CatalogueOut, InputOut, KindOut, MeasureOut, PreparationOut, PurposeOut, StationOut

router = Router(tags=["measuring"])


@router.post("/lengths", response=LengthOut)
def length(request: HttpRequest, data: LengthIn) -> LengthOut:
    """Read one typed length."""
    try:
        cm = read_length(data.text, unit=data.unit).cm
    except UnreadableLength as error:
        raise ValueOutOfRange(f"{error}.", mend="Type it again.") from error
    return LengthOut(cm=cm, **shown(cm))


@router.post("/measures/review", response=ReviewOut)
def review(request: HttpRequest, data: ReviewIn) -> ReviewOut:
    """Judge a sheet being filled: what cannot be read, what looks odd, what contradicts what, what is missing."""
    return reviewed(data)


@router.post("/measures/advice", response=AdviceOut)
def advice(request: HttpRequest, data: AdviceIn) -> AdviceOut:
    """Work out what to take next and what each measure moves, by drafting with each a little off."""
    return advised(data)


@router.get("/catalogue", response=CatalogueOut)
def everything(request: HttpRequest) -> CatalogueOut:
    """Return what there is to choose from: measures, findings, purposes, movements, cautions."""
    method = catalogue().method(BLOCK)
    return CatalogueOut(
        measures=[
            MeasureOut(**{name: getattr(m, name) for name in MeasureOut.model_fields}) for m in measures().values()
        ],
        stations=[StationOut(key=s.key, title=s.title, stand=s.stand) for s in stations()],
        preparation=[PreparationOut(key=i.key, title=i.title, says=i.says) for i in preparation()],
        used=list(measures_used(method)),
        required=[list(group) for group in method.requires],
        findings=[
            KindOut(
                key=kind.key,
                seen=kind.seen,
                cause=kind.cause,
                view=kind.spot.view,
                across=kind.spot.across,
                level=kind.spot.level,
                movement=kind.movement,
                inputs=[
                    InputOut(symbol=i.symbol, label=i.label, default=i.default, low=i.low, high=i.high, pinch=i.pinch)
                    for i in kind.inputs
                ],
            )
            for kind in finding_kinds().values()
        ],
        purposes=[
            PurposeOut(key=p.key, title=p.title, reason=p.reason, by_role={r.value: w for r, w in p.by_role.items()})
            for p in purposes().values()
        ],
        movements=list(MOVEMENTS),
        cautions={key: list(lines) for key, lines in CAUTIONS.items()},
    )
