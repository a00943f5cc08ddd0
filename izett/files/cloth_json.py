"""A cloth as an `izett-cloth` file: lengths in its unit, stretch and shrinkage as shares."""

import json
from typing import Any, Literal

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from izett.cutting.cloth import Cloth
from izett.errors import UnreadableFile, UnstatedUnit
from izett.files.reading import read_json, wrong_in
from izett.units import CM_PER_INCH, Unit

#: What of a cloth is a length.
LENGTHS = ("width", "selvedge", "length", "gap")


class _Head(BaseModel):
    """What every such file begins with."""

    model_config = ConfigDict(extra="allow")

    format: Literal["izett-cloth"]
    version: Literal[1]
    unit: Unit | None = Field(None)


def read_cloth(text: str | bytes, *, unit: Unit | None = None) -> Cloth:
    """Return the cloth of a file.

    Args:
        text: the file.
        unit: what its numbers are in, where it does not say.

    Raises:
        UnreadableFile: it is no such file.
        UnstatedUnit: nothing tells what its numbers are in.
        ValueOutOfRange: it is a cloth that cannot be.
    """
    data = read_json(text)
    try:
        head = _Head.model_validate(data)
    except ValidationError as error:
        wrong = wrong_in(error)
        raise UnreadableFile(
            f"This is no cloth of Izett's: {wrong.place or 'the file'}: {wrong.words}.",
            fix="Choose an izett-cloth file, version 1.",
        ) from error
    stated = head.unit or unit
    if stated is None:
        raise UnstatedUnit("The cloth's file does not say what its lengths are in.", fix='Add "unit": "cm" or "in".')
    own = {key: value for key, value in data.items() if key not in ("format", "version", "unit")}
    try:
        cloth = Cloth.model_validate(_scaled(own, float(CM_PER_INCH)) if stated is Unit.INCH else own)
    except ValidationError as error:
        wrong = wrong_in(error)
        raise UnreadableFile(f"The cloth's {wrong.place}: {wrong.words}.", fix="Correct it in the file.") from error
    return cloth


def _scaled(data: dict[str, Any], by: float) -> dict[str, Any]:
    """Return a cloth's data with its lengths in cm; what is no number is left for the reader to refuse."""
    found = dict(data)
    for key in LENGTHS:
        if isinstance(found.get(key), int | float):
            found[key] = found[key] * by
    if isinstance(repeat := found.get("repeat"), list):
        found["repeat"] = [one * by if isinstance(one, int | float) else one for one in repeat]
    return found


def cloth_data(cloth: Cloth) -> dict[str, Any]:
    """Return a cloth as it stands in a file."""
    return {"format": "izett-cloth", "version": 1, "unit": Unit.CM.value, **cloth.model_dump(mode="json")}


def write_cloth(cloth: Cloth) -> str:
    """Return a cloth as a file, in cm."""
    return json.dumps(cloth_data(cloth), indent=1) + "\n"
