"""The `izett-job` document: a whole job as open JSON; and `izett-studio`: all that a studio holds.

Nothing in them depends on a database: sheets, revisions and rounds are told by their numbers, so that what is exported,
imported and exported again is the same document.
"""

from collections import Counter
from collections.abc import Iterable
from typing import Annotated, Any, Literal, Self

from pydantic import BaseModel, ConfigDict, Field, model_validator

from izett.cutting.cloth import Cloth
from izett.files.pattern_doc import PatternDoc
from izett.files.recipe_json import LONGEST_REASON, RecipeDoc, StepDoc
from izett.fitting.finding import Outcome, Taken
from izett.fitting.marked import Marked
from izett.units import Unit
from studio.cutting_schemas import CutTable
from studio.form_schemas import OnForm
from studio.limits import (
    LONGEST_NAME,
    LONGEST_NOTE,
    LONGEST_STORY,
    MOST_CHARTS,
    MOST_CLOTHS,
    MOST_FINDINGS,
    MOST_JOBS,
    MOST_KEPT_FITS,
    MOST_LOG_LINES,
    MOST_PHOTOS,
    MOST_PHOTOS_OF_A_JOB,
    MOST_READINGS_ON_A_SHEET,
    MOST_REVISIONS,
    MOST_ROUNDS,
    MOST_SHEETS,
    MOST_SPELLS,
    MOST_WEARERS,
)
from studio.schemas import LengthIn, UnderWayIn
from studio.storage.photos import LARGEST_KEPT
from studio.trace_schemas import Lies
from studio.wire import HIGHEST, Day, Moment

Number = Annotated[int, Field(ge=1, le=HIGHEST)]
Count = Annotated[int, Field(ge=0, le=HIGHEST)]
Uid = Annotated[str, Field(min_length=1, max_length=64)]

FORMAT: Literal["izett-job"] = "izett-job"


class _Part(BaseModel):
    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)


class KeptFitPart(_Part):
    """A step of the wearer's fit, its story, and the number of the sheet that it proved right with."""

    uid: Uid
    step: StepDoc
    story: str = Field(max_length=LONGEST_NOTE)
    proven_on: Number
    kept: Moment


class WearerPart(_Part):
    """The wearer, with what was kept of her fit."""

    name: str = Field(min_length=1, max_length=LONGEST_NAME)
    note: str = Field("", max_length=LONGEST_NOTE)
    size: str = Field("", max_length=200)
    fit: list[KeptFitPart] = Field([], max_length=MOST_KEPT_FITS)


class ReadingPart(_Part):
    """A reading as typed; its length follows from text and unit."""

    symbol: str = Field(max_length=64)
    text: str = Field(max_length=64)
    unit: Unit
    again: list[LengthIn] = Field([], max_length=8)


class SheetPart(_Part):
    """A sheet."""

    number: Number
    taken_on: Day
    taken_by: Literal["helper", "alone", "scan", "chart"]
    worn: str = Field(max_length=200)
    readings: list[ReadingPart] = Field(max_length=MOST_READINGS_ON_A_SHEET)


class RevisionPart(_Part):
    """A revision; `parent` and `sheet` are numbers."""

    number: Number
    parent: Number | None
    sheet: Number
    recipe: RecipeDoc
    why: str = Field(max_length=LONGEST_REASON)
    created: Moment


class AnswerPart(_Part):
    """An answer given in a round to an earlier finding."""

    finding: Uid
    outcome: Outcome
    note: str = Field(max_length=LONGEST_REASON)


class AmendedPart(_Part):
    """What a remedy changed of a step that was there."""

    uid: Uid
    before: dict[str, Any]
    after: dict[str, Any]


class PhotoPart(_Part):
    """A photo of a finding: when it was put there, and its JPEG in base64."""

    taken: Moment
    jpeg: str = Field(min_length=1, max_length=LARGEST_KEPT * 4 // 3 + 4)


class PicturePart(PhotoPart):
    """A picture under a panel, and how it lies there."""

    lies: Lies


class FindingPart(_Part):
    """A finding."""

    uid: Uid
    kind: str = Field(max_length=64)
    side: Literal["both", "left", "right"]
    movement: str = Field(max_length=40)
    words: str = Field(max_length=LONGEST_REASON)
    given: dict[str, float] = Field(max_length=20)
    taken: Taken
    remedy: str = Field(max_length=64)
    steps: list[Uid] = Field(max_length=20)
    created: Moment
    counted: Literal["", "around", "each_side", "here"] = ""
    piece: str = Field("", max_length=200)
    line: str = Field("", max_length=200)
    marked: Marked | None = None
    normal: str = Field("", max_length=LONGEST_REASON)
    amended: list[AmendedPart] = Field([], max_length=20)
    photos: list[PhotoPart] = Field([], max_length=MOST_PHOTOS)


class RoundPart(_Part):
    """A round with its as-cut geometry."""

    number: Number
    opened: Moment
    closed: Moment | None
    cloth: str = Field(max_length=LONGEST_NAME)
    worn: str = Field(max_length=200)
    note: str = Field(max_length=LONGEST_NOTE)
    cut_from: Number
    closed_at: Number | None
    core_version: str = Field(max_length=20)
    as_cut: PatternDoc
    findings: list[FindingPart] = Field(max_length=MOST_FINDINGS)
    answers: list[AnswerPart] = Field(max_length=MOST_FINDINGS)
    prepared: list[Uid] = Field([], max_length=100)
    watched: list[Uid] = Field([], max_length=20)
    pins_in: Count | None = None
    pins_out: Count | None = None


class CuttingPart(_Part):
    """Seam allowances as jobs had them beside their recipes."""

    purpose: str = Field("muslin", max_length=64)
    by_lineage: dict[str, float] = Field({}, max_length=500)


class LogPart(_Part):
    """A line of the story."""

    at: Moment
    deed: str = Field(max_length=40)
    text: str = Field(max_length=LONGEST_STORY)


class SpellPart(_Part):
    """Time spent; no minutes while the clock runs."""

    round: Number | None
    began: Moment
    minutes: Annotated[int, Field(ge=-HIGHEST, le=HIGHEST)] | None


class JobDocument(_Part):
    """An `izett-job` document."""

    format: Literal["izett-job"] = FORMAT
    version: Literal[1] = 1
    garment: str = Field(min_length=1, max_length=LONGEST_NAME)
    due: Day | None
    created: Moment
    wearer: WearerPart
    sheets: list[SheetPart] = Field(min_length=1, max_length=MOST_SHEETS)
    head: Number
    revisions: list[RevisionPart] = Field(min_length=1, max_length=MOST_REVISIONS)
    rounds: list[RoundPart] = Field(max_length=MOST_ROUNDS)
    log: list[LogPart] = Field(max_length=MOST_LOG_LINES)
    look_again: str = Field("", max_length=LONGEST_NOTE)
    look_again_on: Day | None = None
    on_form: OnForm = OnForm()
    cut_table: CutTable = CutTable()
    pictures: list[PicturePart] = Field([], max_length=MOST_PHOTOS_OF_A_JOB)
    time: list[SpellPart] = Field([], max_length=MOST_SPELLS)
    #: Of files of before seam allowances were steps: they become one.
    cutting: Annotated[CuttingPart | None, Field(exclude=True)] = None

    @model_validator(mode="after")
    def _agrees(self) -> Self:
        """Refuse a document in which two things have one number, or something names a number that is not there."""
        sheets = _once("sheet", (part.number for part in self.sheets))
        revisions = _once("revision", (part.number for part in self.revisions))
        rounds = _once("muslin", (part.number for part in self.rounds))
        _known("revision", [self.head], revisions)
        for part in self.sheets:
            _once(f"reading on sheet {part.number}", (reading.symbol for reading in part.readings))
        for revision in self.revisions:
            _known("sheet", [revision.sheet], sheets)
            if revision.parent is not None:
                _known("earlier revision", [revision.parent], {n for n in revisions if n < revision.number})
            _once(f"step of revision {revision.number}", (step.uid for step in revision.recipe.steps))
        _once("finding", (f.uid for part in self.rounds for f in part.findings))
        for part in self.rounds:
            cut = [part.cut_from] if part.closed_at is None else [part.cut_from, part.closed_at]
            _known("revision", cut, revisions)
            earlier = {f.uid for other in self.rounds if other.number < part.number for f in other.findings}
            asked = _once(f"answer of muslin {part.number}", (answer.finding for answer in part.answers))
            _known("earlier finding", asked, earlier)
        _once("step of the wearer’s fit", (kept.uid for kept in self.wearer.fit))
        if len([spell for spell in self.time if spell.minutes is None]) > 1:
            raise ValueError("more than one clock runs")
        if len([part for part in self.rounds if part.closed is None]) > 1:
            raise ValueError(f"more than one of its {len(rounds)} muslins is open")
        return self


EVERYTHING: Literal["izett-studio"] = "izett-studio"


class WholeWearerPart(WearerPart):
    """A wearer with all sheets, the one under way, and the jobs, which are judged one by one."""

    created: Moment
    sheets: list[SheetPart] = Field(max_length=MOST_SHEETS)
    under_way: UnderWayIn | None
    jobs: list[dict[str, Any]] = Field(max_length=MOST_JOBS)


class HouseRulePart(_Part):
    """A house rule."""

    symbol: str = Field(max_length=64)
    value: float
    reason: str
    since: Moment


class ChartPart(_Part):
    """A size chart of the maker's own: measures as typed, by size and symbol."""

    title: str = Field(min_length=1, max_length=LONGEST_NAME)
    source: str = Field(max_length=200)
    sizes: dict[str, dict[str, LengthIn]]
    created: Moment


class ShelfPart(_Part):
    """A cloth on the shelf."""

    cloth: Cloth
    created: Moment


class StudioDocument(_Part):
    """An `izett-studio` document."""

    format: Literal["izett-studio"] = EVERYTHING
    version: Literal[1] = 1
    program: str = Field(max_length=20)
    written: Moment
    wearers: list[WholeWearerPart] = Field(max_length=MOST_WEARERS)
    house_rules: list[HouseRulePart]
    charts: list[ChartPart] = Field(max_length=MOST_CHARTS)
    cloths: list[ShelfPart] = Field([], max_length=MOST_CLOTHS)

    @model_validator(mode="after")
    def _agrees(self) -> Self:
        _once("house rule", (rule.symbol for rule in self.house_rules))
        for wearer in self.wearers:
            _once(f"sheet of {wearer.name}", (part.number for part in wearer.sheets))
            _once(f"step of {wearer.name}’s fit", (kept.uid for kept in wearer.fit))
        return self


def _once(what: str, names: Iterable[int | str]) -> set[int | str]:
    counted = Counter(names)
    for name, times in counted.items():
        if times > 1:
            raise ValueError(f"{what} {name} is there {times} times")
    return set(counted)


def _known(what: str, names: Iterable[int | str], known: set[int | str]) -> None:
    for name in names:
        if name not in known:
            raise ValueError(f"it names {what} {name}, which it does not have")
