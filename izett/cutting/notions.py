"""What of a worksheet is bought: elastic, tape, bones, eyelets, lace, buttons, bias."""

from collections.abc import Mapping
from dataclasses import dataclass

from izett.cutting.worksheets import results

#: Of each worksheet, which results are bought: as what, in which unit.
BOUGHT: Mapping[str, Mapping[str, tuple[str, str]]] = {
    "elastic": {"elastic_cut": ("elastic", "cm")},
    "waist_tape": {"tape_cut": ("waist tape", "cm")},
    "bones": {"bone": ("bones of this length", "cm")},
    "lacing": {"eyelets": ("eyelets", ""), "lace": ("lace", "cm")},
    "buttons": {"button_count": ("buttons", "")},
    "binding": {"binding_length": ("binding", "cm")},
    "interfacing": {"interfacing_length": ("interfacing", "cm")},
}


@dataclass(frozen=True, slots=True)
class Notion:
    """Something to buy, and how much of it: a length in cm, or a number."""

    what: str
    amount: float
    unit: str


def notions(kind: str, values: Mapping[str, float]) -> list[Notion]:
    """Return what is bought of a worksheet's results.

    Raises:
        UnknownName, ValueOutOfRange: there is no such worksheet, or its numbers give no result.
    """
    if kind not in BOUGHT:
        return []
    found = results(kind, values)
    return [Notion(what, found[symbol], unit) for symbol, (what, unit) in BOUGHT[kind].items() if symbol in found]
