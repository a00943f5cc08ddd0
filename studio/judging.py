"""Judging a sheet being filled, for the screen."""

from collections.abc import Mapping
from dataclasses import asdict

from izett.advice.sheets import differences
from izett.catalogue import catalogue
from izett.errors import IzettError
from izett.measuring.alone import less_certain, offered
from izett.measuring.derived import derived_from
from izett.measuring.doubts import doubts_about, unguarded
from izett.measuring.estimates import missing_measures
from izett.measuring.figure.draw import Figure, figure_of
from izett.measuring.measure import remark_on
from izett.measuring.taking import Taken, settled, uneven
from izett.units import Reading, Unit, show_length
from studio.models import MeasureSheet
from studio.problems import not_found
from studio.readings import taken_of
from studio.sheet_schemas import (
    ContradictionOut,
    DerivedOut,
    DifferenceOut,
    EstimateOut,
    FigureOut,
    LevelOut,
    OfferOut,
    ReadingReview,
    RetakeOut,
    ReviewIn,
    ReviewOut,
    TapeOut,
    UnevenOut,
)
from studio.workroom import measures_of

#: A figure is drawn a few hundred pixels tall: hundredths of a cm are finer than that.
DRAWN_TO = 2


def reviewed(data: ReviewIn) -> ReviewOut:
    """Judge a sheet being filled."""
    reviews: list[ReadingReview] = []
    taken: dict[str, Taken] = {}
    for key, entry in data.readings.items():
        try:
            found = taken_of(key, entry)
        except IzettError as error:
            reviews.append(ReadingReview(symbol=key, error=f"{error.message} {error.fix}"))
            continue
        if found is not None:
            taken[key] = found
            reviews.append(_judged(found))
    by_key = {key: found.cm for key, found in taken.items()}
    body = settled(by_key)
    doubtful = less_certain(body, taken_by=data.taken_by)
    doubts = doubts_about(body, less_certain=doubtful)
    required = dict.fromkeys(group for method in catalogue().in_order(data.blocks) for group in method.requires)
    missing = [list(group) for group in required if not any(symbol in body for symbol in group)]
    return ReviewOut(
        readings=reviews,
        contradictions=[ContradictionOut(**asdict(found)) for found in doubts.contradictions],
        retake=[RetakeOut(**asdict(found)) for found in doubts.retake],
        unguarded=[s for s in unguarded(body) if s in taken and len(taken[s].readings) == 1],
        less_certain=list(doubtful),
        uneven=[UnevenOut(**asdict(found)) for found in uneven(by_key)],
        estimates=[EstimateOut(**asdict(found)) for found in missing_measures(body).values()],
        derived=[
            DerivedOut(
                key=d.key, name=d.name, formula=d.formula.in_words(frozenset(d.formula.uses), length=True), cm=cm
            )
            for d, cm in derived_from(body)
        ],
        offers=[OfferOut(**asdict(offer)) for offer in offered(body, taken_by=data.taken_by)],
        moved=_moved(data.against, body),
        figure=figure_out(figure_of(body)),
        missing=missing,
        can_draft=not missing and not any(r.error for r in reviews),
    )


def shown(cm: float) -> dict[str, str]:
    """Return a length as it is shown in both units."""
    return {
        "shown_cm": show_length(cm, unit=Unit.CM, with_unit=False),
        "shown_in": show_length(cm, unit=Unit.INCH, with_unit=False),
    }


def figure_of_sheet(sheet: MeasureSheet) -> FigureOut:
    """Return the figure of a kept sheet."""
    return figure_out(figure_of(measures_of(sheet)))


def figure_out(figure: Figure) -> FigureOut:
    """Return a figure as it is sent."""
    return FigureOut(
        outlines={view: _line(line) for view, line in figure.outlines.items()},
        details={view: [_line(line) for line in lines] for view, lines in figure.details.items()},
        tapes={
            symbol: [TapeOut(view=tape.view, line=_line(tape.line)) for tape in tapes]
            for symbol, tapes in figure.tapes.items()
        },
        levels={name: LevelOut(y=at.y, half=at.half, middle=at.middle) for name, at in figure.levels.items()},
    )


def _line(line: list[tuple[float, float]]) -> list[tuple[float, float]]:
    return [(round(x, DRAWN_TO), round(y, DRAWN_TO)) for x, y in line]


def _judged(found: Taken) -> ReadingReview:
    unit = found.readings[0].unit
    remark = remark_on(found.key, Reading(found.readings[0].text, unit, found.cm))
    return ReadingReview(
        symbol=found.key,
        cm=found.cm,
        unit=unit,
        readings=len(found.readings),
        apart=found.apart,
        asks_again=found.asks_again,
        concern=remark.concern.value if remark else "",
        remark=remark.message if remark else "",
        suggestion=remark.suggestion if remark else "",
        **shown(found.cm),
    )


def _moved(against: int | None, body: Mapping[str, float]) -> list[DifferenceOut]:
    """Return the measures on both sheets that moved beyond tolerance since the earlier one."""
    if against is None:
        return []
    sheet = MeasureSheet.objects.filter(id=against).first()
    if sheet is None:
        raise not_found("sheet")
    found = differences(measures_of(sheet), body)
    return [DifferenceOut(**asdict(d)) for d in found if d.beyond and d.before is not None and d.after is not None]
