"""What goes over the wire around a fitting: preparing, time, papers laid over each other, the wearer's fit, the story."""

from typing import Annotated

from pydantic import BaseModel, Field

from izett.fitting.story import Story
from studio.wire import HIGHEST, Day

#: Pins of one fitting.
Pins = Annotated[int, Field(ge=0, le=1000)]


class FittingIn(BaseModel):
    """What of a muslin is seen to: entries of its checklist, movements made, pins in and out; what is left out stays."""

    prepared: list[str] | None = Field(None, max_length=100)
    watched: list[str] | None = Field(None, max_length=20)
    pins_in: Pins | None = None
    pins_out: Pins | None = None


class TimeIn(BaseModel):
    """Minutes that were spent; fewer than none takes some off."""

    minutes: int = Field(ge=-6000, le=6000)


class ClockIn(BaseModel):
    """Starting or stopping the clock; `minutes` count instead of its own where it was forgotten."""

    runs: bool
    minutes: int | None = Field(None, ge=0, le=6000)


class LookAgainIn(BaseModel):
    """A note to come back to from a day on, tomorrow unless one is named; no words take it away."""

    words: str = Field("", max_length=2000)
    on: Day | None = None


class TakeFitIn(BaseModel):
    """Steps of the wearer's fit to take over."""

    uids: list[str] = Field(min_length=1, max_length=100)


class ConfirmIn(BaseModel):
    """The number of the sheet that a step of the wearer's fit holds for as well."""

    sheet: int = Field(ge=1, le=HIGHEST)


class KeptFitOut(BaseModel):
    """A step of the wearer's fit as a garment would take it: in words, its story, and why it cannot where it cannot.

    `anew` says that she was measured again since it proved right; `here` that this garment has it.
    """

    uid: str
    words: str
    story: str
    half: str
    proven_on: int
    anew: bool
    here: bool
    refused: str


class LessonOut(BaseModel):
    """What the fittings of several wearers keep changing the same way, as a house rule that can be set."""

    symbol: str
    label: str
    unit: str
    by: float
    value: float
    usual: float
    garments: int
    of: int
    wearers: int
    words: str


class ItemOut(BaseModel):
    """One thing to see to before a muslin goes on."""

    key: str
    title: str
    says: str


class MovementOut(BaseModel):
    """One movement of a fitting, and what to look at meanwhile."""

    key: str
    says: str


class SewnOut(BaseModel):
    """With which allowance (cm) lines of a role are sewn on a muslin."""

    role: str
    allowance: float


class MuslinOut(BaseModel):
    """The open muslin, or the next one, before its fitting: what to see to, what it should answer, how it is sewn.

    `estimated` are measures that nobody took, `changed` why each change was made that it tries for the first time.
    """

    number: int
    items: list[ItemOut]
    movements: list[MovementOut]
    estimated: list[str]
    changed: list[str]
    purpose: str
    sewn: list[SewnOut]
    cautions: list[str]


class StoryOut(BaseModel):
    """The story of a job, and its forecast in words; none where there is too little to tell from."""

    story: Story
    forecast: list[str]


class TrialIn(BaseModel):
    """A remedy of a recorded finding, tried in the place of what was done about it."""

    finding: str = Field(max_length=64)
    remedy: str = Field(max_length=200)


class PaperIn(BaseModel):
    """A state of a job: a muslin as it was cut, the draft from another sheet, a remedy on trial; else the job as it is now."""

    muslin: int | None = Field(None, ge=1, le=HIGHEST)
    sheet: int | None = Field(None, ge=1, le=HIGHEST)
    trial: TrialIn | None = None


class HeldIn(BaseModel):
    """Where two states are held: a piece, the corner that is pinned, the line from it that is laid on itself."""

    piece: str = Field(max_length=200)
    corner: str = Field(max_length=200)
    line: str = Field(max_length=200)


class PapersIn(BaseModel):
    """Two states to lay over each other; held nowhere, they lie as they were drafted."""

    under: PaperIn
    over: PaperIn = PaperIn()
    held: HeldIn | None = None
