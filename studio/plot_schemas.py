"""The plotter's queue as the page sees it."""

from enum import StrEnum
from uuid import UUID

from pydantic import BaseModel


class PlotState(StrEnum):
    """How a plot stands."""

    WAITING = "waiting"
    PLOTTING = "plotting"
    DONE = "done"
    STOPPED = "stopped"


class PlotOut(BaseModel):
    """A plot file in the queue.

    `seconds` is how long it takes, `drawn` how long the pen has been at it; `length` of the roll it takes and `width` of
    paper it needs, cm; `off_the_roll` is how far it reaches beyond the paper.
    """

    id: UUID
    name: str
    state: PlotState
    seconds: float
    drawn: float
    length: float
    width: float
    off_the_roll: float


class PlotterOut(BaseModel):
    """The plotter: how wide its roll is, cm, and its queue in order."""

    roll: float
    queue: list[PlotOut]
