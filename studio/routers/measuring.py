"""Reading and judging what is typed, without keeping it; the catalogue that the screens are made of."""

from django.http import HttpRequest
from ninja import Router

from izett.catalogue import catalogue
from izett.drafting.method import measures_used
from izett.errors import UnreadableMeasure, ValueOutOfRange
from izett.finishing.allowances import purposes
from izett.fitting.finding import finding_kinds
from izett.measuring.cross_checks import contradictions
from izett.measuring.measure import measures, read_measure, remark_on
from izett.units import Unit, UnreadableLength, read_length, show_length
from studio.cautions import CAUTIONS, MOVEMENTS
from studio.schemas import ContradictionOut, LengthIn, LengthOut, ReadingReview, ReviewIn, ReviewOut
from studio.table_schemas import CatalogueOut, InputOut, KindOut, MeasureOut, PurposeOut

router = Router(tags=["measuring"])

BLOCK = "bodice"


@router.post("/lengths", response=LengthOut)
def length(request: HttpRequest, data: LengthIn) -> LengthOut:
    """Read one typed length."""
    try:
        cm = read_length(data.text, unit=data.unit).cm
    except UnreadableLength as error:
        raise ValueOutOfRange(f"{error}.", mend="Type it again.") from error
    return LengthOut(cm=cm, **_shown(cm))


@router.post("/measures/review", response=ReviewOut)
def review(request: HttpRequest, data: ReviewIn) -> ReviewOut:
    """Judge a sheet being filled: what cannot be read, what looks odd, what contradicts what, what is missing."""
    reviews: list[ReadingReview] = []
    body: dict[str, float] = {}
    for symbol, entry in data.readings.items():
        if not entry.text.strip():
            continue
        try:
            reading = read_measure(symbol, entry.text, unit=entry.unit)
        except UnreadableMeasure as error:
            reviews.append(ReadingReview(symbol=symbol, error=f"{error.message} {error.mend}"))
            continue
        body[symbol] = reading.cm
        remark = remark_on(symbol, reading)
        reviews.append(
            ReadingReview(
                symbol=symbol,
                cm=reading.cm,
                unit=reading.unit,
                concern=remark.concern.value if remark else "",
                remark=remark.message if remark else "",
                suggestion=remark.suggestion if remark else "",
                **_shown(reading.cm),
            )
        )
    required = catalogue().method(BLOCK).requires
    missing = [list(group) for group in required if not any(symbol in body for symbol in group)]
    return ReviewOut(
        readings=reviews,
        contradictions=[
            ContradictionOut(key=c.key, message=c.message, symbols=list(c.symbols), amount=c.amount)
            for c in contradictions(body)
        ],
        missing=missing,
        can_draft=not missing and not any(r.error for r in reviews),
    )


def _shown(cm: float) -> dict[str, str]:
    return {
        "shown_cm": show_length(cm, unit=Unit.CM, with_unit=False),
        "shown_in": show_length(cm, unit=Unit.INCH, with_unit=False),
    }


@router.get("/catalogue", response=CatalogueOut)
def everything(request: HttpRequest) -> CatalogueOut:
    """Return what there is to choose from: measures, findings, purposes, movements, cautions."""
    method = catalogue().method(BLOCK)
    return CatalogueOut(
        measures=[
            MeasureOut(symbol=m.symbol, name=m.name, how=m.how, low=m.low, high=m.high, tolerance=m.tolerance)
            for m in measures().values()
        ],
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
