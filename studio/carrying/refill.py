"""Filling an empty studio with all that another held; a job that cannot be read holds up no other."""

from django.db import transaction

from izett.errors import IzettError, UnreadableFile
from izett.measuring.measure import read_measure
from studio.actions.set_house_rule import set_house_rule
from studio.carrying.back import add_fit, add_job, add_sheet, judged, read_document
from studio.carrying.document import ChartPart, StudioDocument, WholeWearerPart
from studio.models import Cloth, HouseRule, SheetUnderWay, SizeChart, Wearer
from studio.schemas import HouseRuleIn
from studio.wire import plain_json


def import_everything(text: bytes) -> list[str]:
    """Fill an empty studio with an `izett-studio` document; return in words which of its jobs could not be read.

    Raises:
        UnreadableFile: the studio is not empty, or the document is damaged or foreign; nothing is added then.
        UnknownName, UnreadableMeasure, ValueOutOfRange: a reading or a value in it is not one.
    """
    if any(kind.objects.exists() for kind in (Wearer, HouseRule, SizeChart, Cloth)):
        raise UnreadableFile(
            "This studio holds work already, and everything would be there twice.",
            fix="Set IZETT_DATA to a new folder, or add single jobs on the bench.",
        )
    document = read_document(StudioDocument, plain_json(text), "studio")
    left_out: list[str] = []
    with transaction.atomic():
        for part in document.wearers:
            _add_wearer(part, left_out)
        for rule in document.house_rules:
            set_house_rule(rule.symbol, HouseRuleIn(value=rule.value, reason=rule.reason))
            HouseRule.objects.filter(symbol=rule.symbol).update(since=rule.since)
        for chart in document.charts:
            _add_chart(chart)
        for one in document.cloths:
            kept = Cloth.objects.create(document=one.cloth.model_dump(mode="json"))
            Cloth.objects.filter(pk=kept.pk).update(created=one.created)
    return left_out


def _add_wearer(part: WholeWearerPart, left_out: list[str]) -> None:
    wearer = Wearer.objects.create(name=part.name, note=part.note, size=part.size)
    Wearer.objects.filter(pk=wearer.pk).update(created=part.created)
    add_fit(wearer, part)
    sheets = {sheet.number: add_sheet(wearer, sheet) for sheet in part.sheets}
    if part.under_way is not None:
        kept = part.under_way.model_dump(mode="json", exclude={"version"})
        SheetUnderWay.objects.create(wearer=wearer, document=kept, version=part.under_way.version or 1)
    for job in part.jobs:
        try:
            document = judged(job)
            if missing := {sheet.number for sheet in document.sheets} - set(sheets):
                raise UnreadableFile(f"It names sheet {min(missing)}, which {part.name} does not have.", fix="")
        except IzettError as error:
            # It stays in the file, for a version that can read it; the others must not wait for that.
            left_out.append(f"“{job.get('garment')}” of {part.name} was left out. {error.message}")
            continue
        add_job(document, wearer, sheets)


def _add_chart(part: ChartPart) -> None:
    typed = {name: {s: one.model_dump(mode="json") for s, one in size.items()} for name, size in part.sizes.items()}
    for size in part.sizes.values():
        for symbol, one in size.items():
            read_measure(symbol, one.text, unit=one.unit)
    chart = SizeChart.objects.create(title=part.title, source=part.source, sizes=typed)
    SizeChart.objects.filter(pk=chart.pk).update(created=part.created)
