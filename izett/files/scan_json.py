"""What a body scanner delivers, as open JSON: `izett-scan`, version 1. Lengths in mm under the terms of ISO 8559-1.

A scanner's own noise stands with each length, so that a reader knows how far to trust it.
"""

from datetime import date
from types import MappingProxyType
from typing import Literal

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from izett.errors import UnreadableFile
from izett.files.measures_csv import SheetRead
from izett.files.reading import read_json, wrong_in
from izett.measuring.measure import measures, read_measure
from izett.measuring.scanner import Scan
from izett.measuring.sheet import Sheet
from izett.measuring.taking import Taken
from izett.units import Unit

FORMAT: Literal["izett-scan"] = "izett-scan"
MM_PER_CM = 10


class Measurement(BaseModel):
    """One length: the term of ISO 8559-1 or our own name, the symbol where known, length and noise in mm."""

    model_config = ConfigDict(extra="ignore", allow_inf_nan=False)

    term: str = Field(max_length=120)
    symbol: str = Field("", max_length=64)
    value: float
    noise: float = 0.0


class ScanDoc(BaseModel):
    """An `izett-scan` document."""

    model_config = ConfigDict(extra="ignore", allow_inf_nan=False)

    format: Literal["izett-scan"] = FORMAT
    version: Literal[1] = 1
    device: str = Field(max_length=120)
    taken_on: date
    unit: Literal["mm"] = "mm"
    measurements: list[Measurement] = Field(max_length=500)


def write_scan(scan: Scan, *, taken_on: date) -> str:
    """Return a scan as JSON."""
    found = [
        Measurement(
            term=measures()[symbol].term or measures()[symbol].name.lower(),
            symbol=symbol,
            value=round(cm * MM_PER_CM, 1),
            noise=scan.noise[symbol] * MM_PER_CM,
        )
        for symbol, cm in scan.cm.items()
    ]
    document = ScanDoc(device=scan.device, taken_on=taken_on, measurements=found)
    return document.model_dump_json(indent=1)


def read_scan(text: str) -> SheetRead:
    """Read a scan as a sheet; lengths that the catalogue has no measure for are left out and named.

    Raises:
        UnreadableFile: it is damaged or foreign; the message says where.
        UnreadableMeasure: a length in it cannot be one of a body.
    """
    try:
        document = ScanDoc.model_validate(read_json(text))
    except ValidationError as error:
        place, words, _ = wrong_in(error)
        raise UnreadableFile(f"This is not a whole izett-scan file: at {place}: {words}.", fix="Scan again.") from error
    by_term = {what.term: symbol for symbol, what in measures().items() if what.term}
    taken: dict[str, Taken] = {}
    left_out: list[str] = []
    for found in document.measurements:
        symbol = found.symbol if found.symbol in measures() else by_term.get(found.term.lower(), "")
        if not symbol:
            left_out.append(f"“{found.term}” is none of the catalogue's measures.")
            continue
        reading = read_measure(symbol, f"{found.value / MM_PER_CM:g}", unit=Unit.CM)
        taken[symbol] = Taken(symbol, (reading,))
    sheet = Sheet(
        MappingProxyType(taken), taken_on=document.taken_on, taken_by="scan", worn=f"scan by {document.device}"
    )
    return SheetRead(sheet, tuple(left_out))
