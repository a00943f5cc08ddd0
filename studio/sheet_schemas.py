"""What the measuring stage is sent: readings judged, doubts, estimates, the figure, sheets compared, size charts."""

from uuid import UUID

from pydantic import BaseModel, Field

from izett.units import Unit
from studio.schemas import LengthIn, Pair, SheetIn, TakenIn
from studio.wire import RowId


class ReviewIn(BaseModel):
    """Readings to look at, by symbol; empty texts count as not taken.

    `against` is an earlier sheet of the wearer, `blocks` what is to be drafted from them.
    """

    readings: dict[str, TakenIn] = Field(max_length=200)
    taken_by: str = "helper"
    against: RowId | None = None
    blocks: list[str] = Field(["bodice"], max_length=20)


class ReadingReview(BaseModel):
    """What is thought of one measure; `cm` is the median of its readings, `apart` how far the nearest two lie."""

    symbol: str
    cm: float | None = None
    unit: Unit | None = None
    shown_cm: str = ""
    shown_in: str = ""
    readings: int = 0
    apart: float = 0.0
    asks_again: bool = False
    error: str = ""
    concern: str = ""
    remark: str = ""
    suggestion: str = ""


class ContradictionOut(BaseModel):
    """Measures that cannot all be right, the one to take again first; `drives` is what depends on them."""

    key: str
    message: str
    symbols: list[str]
    amount: float
    told: str


class RetakeOut(BaseModel):
    """A measure to take again: what would fit, what that would explain, with what it disagrees or is exchanged."""

    symbol: str
    would_fit: float
    explains: list[str]
    disagrees_with: list[str]
    exchanged_with: str
    other_unit: bool


class UnevenOut(BaseModel):
    """Left and right apart by more than the tolerance."""

    symbol: str
    left: float
    right: float


class EstimateOut(BaseModel):
    """A missing measure of the body: the rule, the rule with numbers, the value and how far it may be off."""

    symbol: str
    cm: float
    spread: float
    formula: str
    worked: str
    source: str


class DerivedOut(BaseModel):
    """What follows from the measures by a plain sum."""

    key: str
    name: str
    formula: str
    cm: float


class OfferOut(BaseModel):
    """An allowance that makes up for measuring alone."""

    allowance: str
    measure: str
    usual: float
    low: float
    high: float
    says: str


class TapeOut(BaseModel):
    """Where a tape runs in one view."""

    view: str
    line: list[Pair]


class LevelOut(BaseModel):
    """A level of the figure."""

    y: float
    half: float
    middle: float


class FigureOut(BaseModel):
    """The figure: outlines and inner lines by view, tapes by measure; cm, y up, waist at 0."""

    outlines: dict[str, list[Pair]]
    details: dict[str, list[list[Pair]]]
    tapes: dict[str, list[TapeOut]]
    levels: dict[str, LevelOut]


class DifferenceOut(BaseModel):
    """A measure on two sheets."""

    symbol: str
    before: float | None
    after: float | None
    beyond: bool


class ReviewOut(BaseModel):
    """All that is thought of a sheet being filled."""

    readings: list[ReadingReview]
    contradictions: list[ContradictionOut]
    retake: list[RetakeOut]
    unguarded: list[str]
    less_certain: list[str]
    uneven: list[UnevenOut]
    estimates: list[EstimateOut]
    derived: list[DerivedOut]
    offers: list[OfferOut]
    moved: list[DifferenceOut]
    figure: FigureOut
    missing: list[list[str]]
    can_draft: bool


class AdviceIn(BaseModel):
    """Readings of a wearer's sheet to advise on, for a job's recipe or else for the plain block; `uid` names the work."""

    uid: str = Field(min_length=1, max_length=64)
    wearer: UUID
    readings: dict[str, TakenIn] = Field(max_length=200)
    job: UUID | None = None


class NextOut(BaseModel):
    """A missing measure worth taking: how far the draft moves by the estimate's spread, and by the tape's tolerance."""

    symbol: str
    spread: float
    by_spread: float | None
    by_tolerance: float | None
    line: str


class EffectOut(BaseModel):
    """How far the draft moves if a taken measure is off by its tolerance; None where there is then no draft."""

    symbol: str
    off: float
    moves: float | None
    lines: list[str]


class DartSourceOut(BaseModel):
    """The bust dart by one source; degrees are None where something is missing for it."""

    key: str
    name: str
    degrees: float | None
    mouth: float
    counts: bool
    missing: list[str]


class AdviceOut(BaseModel):
    """What to take next, what each measure moves, and the bust dart by each source; empty without a draft."""

    next: list[NextOut]
    effects: list[EffectOut]
    darts: list[DartSourceOut]
    refused: str = ""


class PieceChangeOut(BaseModel):
    """How far a piece would change: the line that moves farthest, and the one whose length changes most."""

    piece: str
    title: str
    lineage: str
    distance: float
    stretched: str
    length_before: float
    length_after: float


class JobChangeOut(BaseModel):
    """What a job would change if it were drafted from the other sheet."""

    job: UUID
    garment: str
    sheet: int
    pieces: list[PieceChangeOut]
    refused: str = ""


class ComparisonOut(BaseModel):
    """Two sheets of a wearer: measures, and what the wearer's jobs would change from the first to the second."""

    before: int
    after: int
    differences: list[DifferenceOut]
    jobs: list[JobChangeOut]


class SheetReadOut(BaseModel):
    """A sheet read from a file, not kept: and what in the file could not be read."""

    sheet: SheetIn
    wearer: str
    left_out: list[str]


class SizeOut(BaseModel):
    """A size of a chart: its measures in cm."""

    name: str
    cm: dict[str, float]


class ChartOut(BaseModel):
    """A size chart; `own` ones can be deleted."""

    key: str
    title: str
    source: str
    own: bool
    sizes: list[SizeOut]
    heights: list[float]
    usual_height: float


class ChartIn(BaseModel):
    """A size chart to keep, as CSV: a heading of `size` and measures, a row a size."""

    title: str = Field(min_length=1, max_length=120)
    source: str = Field("", max_length=200)
    csv: str = Field(min_length=1, max_length=100_000)
    unit: Unit | None = None


class SizeIn(BaseModel):
    """A standard size to draft for."""

    chart: str = Field(max_length=80)
    size: str = Field(max_length=80)
    height: LengthIn | None = None


class ScanIn(BaseModel):
    """Who stands in the simulated scanner: a size of a chart."""

    size: SizeIn
    seed: int = Field(1, ge=0, le=10**9)


class ScanOut(BaseModel):
    """The scan file that the scanner delivered, as text."""

    file: str
