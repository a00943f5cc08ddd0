"""A draping session as it is prepared and kept with its job."""

from typing import Annotated, Literal

from pydantic import BaseModel, Field, StringConstraints

from izett.draping.panel import MOST_PANELS
from izett.draping.tearing import LONGEST, WIDEST_MUSLIN

#: A name in a form's document: short, and never empty.
PanelKey = Annotated[str, StringConstraints(min_length=1, max_length=60, pattern=r"^[a-z0-9_]+$")]
Words = Annotated[str, Field(max_length=60)]


class FormPanel(BaseModel):
    """A panel to drape with what the form measures there, cm; None where it is not measured yet."""

    key: PanelKey
    title: Words
    kind: Literal["panel", "whole", "bias"] = "panel"
    hangs: Literal["centre", "balance"] = "centre"
    bust: bool = True
    length: float | None = Field(None, ge=0, le=LONGEST)
    width: float | None = Field(None, ge=0, le=LONGEST)
    train: float = Field(0.0, ge=0, le=LONGEST)


class OnForm(BaseModel):
    """A draping session being prepared: which drape, how wide the muslin is (cm), its panels, and what is done already."""

    drape: str = Field("", max_length=40)
    muslin: float = Field(150.0, ge=0, le=WIDEST_MUSLIN)
    panels: list[FormPanel] = Field([], max_length=MOST_PANELS)
    done: list[Annotated[str, Field(max_length=60)]] = Field([], max_length=200)
