"""What goes over the wire: requests and answers, all lengths in cm unless typed as text with a unit.

Plain pydantic models: the framework's own base class reads every attribute through a getter, which a preview feels.
"""

from datetime import date, datetime
from typing import Annotated, Literal
from uuid import UUID

from pydantic import BaseModel, Field, StringConstraints

from izett.drafting.ease import FITTED
from izett.files.recipe_json import RecipeClothDoc, RecipeDoc, StepDoc
from izett.fitting.finding import Counted, Outcome, Taken
from izett.fitting.marked import Marked
from izett.measuring.taking import MOST_READINGS
from izett.pattern.facts import Half
from izett.units import Unit
from studio.form_schemas import OnForm
from studio.trace_schemas import UnderPanelOut
from studio.wire import HIGHEST, Day

Pair = tuple[float, float]
#: What somebody or something is called: with something in it.
Title = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]


class LengthIn(BaseModel):
    """A length as typed, in the field's unit unless it states its own."""

    text: str = Field(max_length=64)
    unit: Unit = Unit.CM


class NumberIn(BaseModel):
    """A number as typed: a length in the field's unit unless it states its own, or a plain number where there is none."""

    text: str = Field(max_length=64)
    unit: Unit | None = None
    low: float | None = None
    high: float | None = None


class NumberOut(BaseModel):
    """A number read, a length in cm; or why it is none that can be entered there."""

    value: float | None = None
    error: str = ""


class TakenIn(LengthIn):
    """A measure as typed, with what the tape said when it was read again."""

    again: list[LengthIn] = Field([], max_length=MOST_READINGS - 1)


class ReadingOut(BaseModel):
    """A measure with its readings as typed; `cm` is what counts."""

    symbol: str
    text: str
    unit: Unit
    again: list[LengthIn] = []
    cm: float


class SheetIn(BaseModel):
    """A sheet to keep, or under way: readings by symbol, with `.left` or `.right` where the sides were taken apart."""

    taken_on: Day
    taken_by: Literal["helper", "alone", "scan", "chart"] = "helper"
    worn: str = Field("", max_length=200)
    readings: dict[str, TakenIn] = Field(max_length=200)


class UnderWayIn(SheetIn):
    """A sheet under way: also which preparations are done, at which measure it stopped, and the version it was made on."""

    prepared: list[str] = Field([], max_length=40)
    place: str = Field("", max_length=64)
    version: int | None = Field(None, ge=0, le=HIGHEST)


class UnderWayOut(UnderWayIn):
    """A sheet under way, when it was last touched, and how often: a page that knows an older state must look first."""

    saved: datetime


class SheetOut(BaseModel):
    """A kept sheet."""

    id: int
    number: int
    taken_on: date
    taken_by: str
    worn: str
    readings: list[ReadingOut]


class WearerIn(BaseModel):
    """A wearer to add."""

    name: Title
    note: str = Field("", max_length=4000)


class WearerOut(BaseModel):
    """A wearer with their newest sheet."""

    id: UUID
    name: str
    note: str
    size: str
    sheets: int
    newest: SheetOut | None
    under_way: UnderWayOut | None


class JobIn(BaseModel):
    """A job to open: the wearer's newest sheet counts. The blocks may be changed later."""

    wearer: UUID
    garment: Title
    due: Day | None = None
    #: None are needed where the garment is draped, wrapped or traced.
    blocks: list[str] = Field(["bodice"], max_length=20)
    fit: str = FITTED
    cloth: RecipeClothDoc = RecipeClothDoc()


class HouseRuleIn(BaseModel):
    """A rule or allowance of the maker's own, in the symbol's unit, with the reason for it."""

    value: float = Field(allow_inf_nan=False)
    reason: str = Field(min_length=1, max_length=2000)


class HouseRuleOut(BaseModel):
    """A house rule, beside what it replaces."""

    symbol: str
    label: str
    unit: str
    value: float
    usual: str
    reason: str
    since: datetime


class TicketOut(BaseModel):
    """A job on the bench: where it stands and what is waiting; `trouble` says why it cannot be opened."""

    id: UUID
    wearer: str
    garment: str
    due: date | None
    stage: str
    standing: str
    waiting: list[str]
    touched: datetime
    trouble: str


class AnswerOut(BaseModel):
    """What a later muslin showed of a finding."""

    round: int
    outcome: Outcome
    note: str


class PhotoOut(BaseModel):
    """A photo of a finding, shown at `/api/photos/{uid}`."""

    uid: UUID
    width: int
    height: int
    taken: datetime


class FindingOut(BaseModel):
    """A recorded finding."""

    uid: str
    kind: str
    seen: str
    side: str
    movement: str
    words: str
    given: dict[str, float]
    taken: Taken
    counted: str
    piece: str
    line: str
    marked: Marked | None
    normal: str
    remedy: str
    remedy_title: str
    steps: list[str]
    amended: list[str]
    applied: bool
    round: int
    answers: list[AnswerOut]
    photos: list[PhotoOut]


class RoundOut(BaseModel):
    """A muslin."""

    number: int
    opened: datetime
    closed: datetime | None
    cloth: str
    worn: str
    note: str
    cut_from: int
    closed_at: int | None
    prepared: list[str]
    watched: list[str]
    pins_in: int | None
    pins_out: int | None
    minutes: int
    findings: list[FindingOut]
    asks: list[FindingOut]


class LogOut(BaseModel):
    """A line of the story."""

    at: datetime
    deed: str
    text: str


class JobOut(BaseModel):
    """A job, whole; `minutes` are all that were noted, `clock` is since when it runs."""

    id: UUID
    version: int
    garment: str
    due: date | None
    wearer: WearerOut
    sheet: SheetOut
    revision: int
    recipe: RecipeDoc
    can_undo: bool
    can_redo: bool
    undo_words: str
    redo_words: str
    rounds: list[RoundOut]
    log: list[LogOut]
    look_again: str
    look_again_on: date | None
    minutes: int
    clock: datetime | None
    on_form: OnForm
    pictures: list[UnderPanelOut]


class AboutIn(BaseModel):
    """What a finding of a check is about."""

    check: str = Field(max_length=60)
    where: list[str] = Field(max_length=40)
    aspect: str = Field("", max_length=60)
    half: Half = Half.BOTH


class RevisionIn(BaseModel):
    """A new state of the recipe, and why."""

    recipe: RecipeDoc
    #: Where it fixes what a check found: that must still be found.
    fixes: AboutIn | None = None
    sheet: int | None = Field(None, ge=1, le=HIGHEST)
    why: str = Field("", max_length=2000)


class MoveIn(BaseModel):
    """Undo or redo."""

    way: Literal["undo", "redo"]


class RoundIn(BaseModel):
    """A muslin to cut from the pattern as it is now."""

    cloth: str = Field("", max_length=120)
    worn: str = Field("", max_length=200)


class CloseIn(BaseModel):
    """Closing a muslin, with a note; `pin_lost` says that a pin which was counted in was not found again."""

    note: str = Field("", max_length=4000)
    pin_lost: bool = False


class SeenIn(BaseModel):
    """What is seen: amounts as they were measured, the half that they are about, and what was pointed at on the table."""

    kind: str = Field(max_length=64)
    side: Literal["both", "left", "right"] = "both"
    given: dict[str, LengthIn] = Field({}, max_length=20)
    taken: Taken = Taken.WHOLE
    counted: Counted | None = None
    piece: str = Field("", max_length=200)
    line: str = Field("", max_length=200)
    marked: Marked | None = None


class FindingIn(SeenIn):
    """A finding to record; its name is made by the sender, so that sending twice records once."""

    uid: str = Field(min_length=4, max_length=64, pattern=r"^[A-Za-z0-9_-]+$")
    movement: str = Field("", max_length=40)
    words: str = Field("", max_length=2000)


class NormalIn(BaseModel):
    """Why a finding is normal for this cut, and changes nothing."""

    why: str = Field(min_length=1, max_length=2000)


class RemedyIn(BaseModel):
    """A remedy to apply to a finding; the step names are made by the sender."""

    remedy: str
    uids: list[str] = Field(max_length=8)


class AnswerIn(BaseModel):
    """Whether a remedy helped."""

    finding: str
    outcome: Outcome
    note: str = Field("", max_length=2000)


class LineEndsOut(BaseModel):
    """A part of a line that darts leave: where its ends lie, across and along from the guides, and how long it is, cm."""

    starts: list[float]
    ends: list[float]
    length: float


class GuidesOut(BaseModel):
    """From where the marks of a line of a piece are measured: the guides' crossing in its frame, what they are in words; and how
    the line lies now."""

    origin: list[float]
    across_from: str
    along_from: str
    parts: list[LineEndsOut]


class WorkIn(SeenIn):
    """A finding to work out remedies for; `finding` where it was recorded already, so that its own remedy does not count."""

    finding: str = Field("", max_length=64)


class FactorOut(BaseModel):
    """What an amount was multiplied by, and why."""

    words: str
    by: float


class TurnedOut(BaseModel):
    """An amount turned openly into what counts: what was measured, what it was multiplied by and why, and the whole."""

    label: str
    given: float
    ways: list[FactorOut]
    whole: float
    unit: str


class ReadOut(BaseModel):
    """A reading that a remedy promises: what was asked, what it came to, and on the finished garment."""

    what: str
    asked: float
    came: float
    worn: float


class AmendedOut(BaseModel):
    """A step of the style that a remedy amends: as it would be, and in words what changes."""

    step: StepDoc
    words: list[str]


class WorkedOut(BaseModel):
    """A remedy worked out and tried on the garment; `refused` says why it cannot be made, `farthest` which line moves most."""

    key: str
    title: str
    reason: str
    sum_text: str
    sum_value: float
    sum_label: str
    edges: int
    steps: list[StepDoc]
    amends: list[AmendedOut]
    under: bool
    refused: str = ""
    fix: str = ""
    was_tried: bool = False
    turned: list[TurnedOut] = []
    read: list[ReadOut] = []
    farthest: str = ""
    farthest_by: float = 0.0
    touched: list[str] = []
    follows: list[str] = []
    odd: list[str] = []
    failing: bool = False
    beyond: str = ""


class AppliesOut(BaseModel):
    """Whether a kind of finding can be found on a job's garment: why not, and which amounts are asked for."""

    key: str
    missing: list[str]
    inputs: list[str]


class ConflictOut(BaseModel):
    """Findings whose remedies are at odds."""

    findings: list[str]
    words: str


class PlannedWayOut(BaseModel):
    """A remedy of a finding, and why it cannot be made here, if so."""

    remedy: str
    title: str
    refused: str


class PlannedOut(BaseModel):
    """A finding in the order of work: its remedy, and why there is none; all its remedies, the first offered first."""

    finding: str
    seen: str
    remedy: str
    title: str
    refused: str
    ways: list[PlannedWayOut]


class PlanOut(BaseModel):
    """The plan of a round: what is worked in which order, what goes together, what is at odds, what comes of it."""

    order: list[PlannedOut]
    together: list[list[str]]
    conflicts: list[ConflictOut]
    touched: list[str]
    follows: list[str]
    odd: list[str]


class KeepingOut(BaseModel):
    """Whether the work can be kept, when it was last copied, and what to say of that."""

    read_only: bool
    last: datetime | None
    remind: str


class BackupOut(BaseModel):
    """A backup that was made: its name, and the folder that it lies in beside the database."""

    name: str
    folder: str
