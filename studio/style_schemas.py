"""What goes over the wire while styling: steps with their fields, offers, what a removal breaks, a seam walked."""

from typing import Any, Literal
from uuid import UUID

from pydantic import BaseModel, Field

from izett.files.recipe_json import RecipeDoc
from izett.units import Unit
from studio.schemas import Pair
from studio.table_schemas import MoveOut
from studio.wire import RowId


class FieldOut(BaseModel):
    """A parameter of a step, as a field of its form."""

    name: str
    meaning: str
    kind: str
    unit: str
    low: float | None
    high: float | None
    default: Any
    choices: list[str]
    only: list[str]
    called: dict[str, str]


class OperationOut(BaseModel):
    """A kind of step."""

    key: str
    title: str
    group: str
    sections: list[str]
    sided: bool
    version: int
    fields: list[FieldOut]


class SubjectIn(BaseModel):
    """A thing that is pointed at on a recipe's table."""

    sheet: RowId
    recipe: RecipeDoc
    kind: str
    name: str = ""
    piece: str = ""
    fraction: float = Field(0.5, allow_inf_nan=False)
    job: UUID | None = None


class PointedIn(SubjectIn):
    """A thing that is pointed at to ask what can be done with it; lengths to begin with are said in the reader's unit."""

    unit: Unit = Unit.CM


class RunOut(BaseModel):
    """The whole run of a line over cuts, and how far along it was pointed at."""

    start: str
    end: str
    along: str
    fraction: float


class PlacePartOut(BaseModel):
    """What of a line lies on one piece between two darts: points along it, cm, in the piece's own frame."""

    piece: str
    points: list[tuple[float, float]]


class PlaceLineOut(BaseModel):
    """The line that a place of a step lies on: its length as sewn, cm, what its ends are called, where it runs."""

    length: float
    start: str
    end: str
    parts: list[PlacePartOut]


class DeedOut(BaseModel):
    """Something that can be done to it: the step to begin with."""

    words: str
    kind: str
    group: str
    version: int
    params: dict[str, Any]
    half: str


class WithoutIn(BaseModel):
    """A step that might be taken out."""

    sheet: RowId
    recipe: RecipeDoc
    uid: str
    job: UUID | None = None


class MovedIn(WithoutIn):
    """A step that might stand in another section."""

    section: Literal["fit", "style", "follow", "finish", "accept"]


class BrokenOut(BaseModel):
    """A later step that could not act any more, and why."""

    uid: str
    words: str
    why: str


class WithoutOut(BaseModel):
    """What taking a step out would do: which later steps lose what they act on, and which checks would fail newly."""

    broken: list[BrokenOut]
    checks: list[str]
    moves: list[MoveOut]


class WalkIn(BaseModel):
    """A seam to be walked."""

    sheet: RowId
    recipe: RecipeDoc
    seam: str
    job: UUID | None = None


class WalkStepOut(BaseModel):
    """A moment of a walk: where the second piece lies on the first."""

    along: float
    other: float
    first: str
    second: str
    at: Pair
    turned: float
    shifted: Pair
    over: bool
    gap: float


class WalkNotchOut(BaseModel):
    """A notch met on a walk."""

    along: float
    double: bool


class WalkOut(BaseModel):
    """A seam walked from end to end."""

    seam: str
    words: tuple[str, str]
    lengths: Pair
    ease: Pair
    steps: list[WalkStepOut]
    first: list[WalkNotchOut]
    second: list[WalkNotchOut]
