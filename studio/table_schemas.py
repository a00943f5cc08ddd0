"""What the table and the shelves are sent: pieces as drawn, sums, checks, moves; the catalogue to choose from."""

from typing import Any
from uuid import UUID

from pydantic import BaseModel, Field

from izett.files.recipe_json import RecipeClothDoc, RecipeDoc, StepDoc
from studio.drape_schemas import GivenOut
from studio.schemas import Pair
from studio.wire import RowId


class EdgeOut(BaseModel):
    """An edge by its control points (2, or 3n + 1)."""

    role: str
    lineage: str
    start: str
    end: str
    curve: list[Pair]
    length: float
    allowance: float


class DartOut(BaseModel):
    """A dart as drawn; a pleat is not sewn, and marked by its fold lines."""

    name: str
    family: str
    sewn: bool
    legs: list[Pair]
    cap: list[Pair]
    mouth: float
    angle: float


class DiamondOut(BaseModel):
    """A dart within the piece: its outline, closed, and what it takes in, cm."""

    name: str
    outline: list[Pair]
    intake: float


class LineOut(BaseModel):
    """A line at a level around the body or a limb, a guide, or the mark of a place."""

    level: str
    around: bool
    place: bool = False
    points: list[Pair]


class PieceOut(BaseModel):
    """A piece as the table shows it."""

    name: str
    title: str
    part: str
    zone: str
    region: str
    half: str
    layer: str
    key: str
    cut: int
    on_fold: str | None
    edges: list[EdgeOut]
    darts: list[DartOut]
    diamonds: list[DiamondOut]
    marks: dict[str, Pair]
    lines: list[LineOut]
    notches: list[tuple[Pair, Pair]]
    grain: tuple[Pair, Pair]
    cutting: list[Pair]
    label: list[str]


class SumOut(BaseModel):
    """A line of the worksheet; `low` and `high` are between what it can be set to by hand."""

    symbol: str
    label: str
    group: str
    unit: str
    state: str
    value: float
    written: str
    worked: str
    condition: str
    residual: float
    reason: str
    source: str
    uses: list[str]
    draws: list[str]
    spread: float
    low: float
    high: float


class EaseOut(BaseModel):
    """The ease at a level: all around, with what is usual for the fit; `per` of its symbol lie all around."""

    key: str
    label: str
    symbol: str
    total: float
    per: int
    usual: Pair | None
    reason: str
    state: str


class WayOut(BaseModel):
    """A way of a school."""

    key: str
    title: str
    reason: str
    source: str
    lacks: list[str]


class SchoolOut(BaseModel):
    """A question on which makers differ, with the way that this job follows."""

    key: str
    label: str
    way: str
    ways: list[WayOut]


class HandleOut(BaseModel):
    """Where an allowance that shapes a curve can be pulled: `moves` cm outwards for one unit more."""

    symbol: str
    piece: str
    at: Pair
    outwards: Pair
    moves: float


class AllowanceOut(BaseModel):
    """An allowance with its value in this job."""

    symbol: str
    label: str
    unit: str
    value: float
    default: float
    low: float
    high: float
    reason: str
    source: str
    state: str
    draws: list[str]


class NoticeOut(BaseModel):
    """Something that the draft tells the maker."""

    code: str
    message: str
    symbols: list[str]


class StageOut(BaseModel):
    """A step with what it did; `needs` are the steps before it whose work it acts on.

    `follows` are the steps that asked for it: one that follows by itself is no step of the recipe. `may_stand` says in
    which sections its kind may stand, `sided` whether it can be for one half; `idle` says that it changes nothing.
    """

    step: StepDoc
    words: str
    section: str
    may_stand: list[str]
    sided: bool
    follows: list[str]
    sums: list[tuple[str, float, str]]
    made: list[str]
    needs: list[str]
    failure: str
    fix: str
    idle: str


class FixOut(BaseModel):
    """A step that would fix a finding."""

    words: str
    kind: str
    params: dict[str, Any]


class PlaceOut(BaseModel):
    """Ease at a level or a local width: the pattern's and the body's cm, what is wanted, and how it is.

    `fullness` is what of the pattern's is gathers, pleats or flare, and no ease; `because` says why it is as it is.
    """

    key: str
    label: str
    view: str
    pattern: float
    body: float
    wanted: float
    state: str
    half: str = "both"
    fullness: float = 0.0
    because: str = ""


class ResultOut(BaseModel):
    """A check's finding; `reason` where it is accepted."""

    check: str
    claim: str
    verdict: str
    where: list[str]
    amount: float
    tolerance: float
    unit: str
    words: str
    fix: str
    fixes: list[FixOut]
    reason: str
    aspect: str
    half: str
    worse: str


class SeamOut(BaseModel):
    """A seam with its lengths as sewn, and the lines that it is made of."""

    name: str
    kind: str
    half: str
    lines: list[str]
    lengths: Pair
    ease: Pair
    lies: str


class MoveOut(BaseModel):
    """How far a line moved."""

    piece: str
    lineage: str
    distance: float
    length_before: float
    length_after: float
    leg: bool


class MovedByIn(BaseModel):
    """A measure, to ask what moves with it."""

    sheet: RowId
    recipe: RecipeDoc
    symbol: str


class MovedByOut(BaseModel):
    """The lines that move with a measure, the farthest first; by how much it was changed for that, cm."""

    off: float
    lines: list[str]


class PreviewIn(BaseModel):
    """A recipe to work out for a sheet; pieces whose keys are `known` are not sent again.

    `against` compares its lines with that muslin of the job, `than` with another recipe on the same sheet; `cut` asks for
    the cutting lines too, `source` for the source pieces under the style.
    """

    sheet: RowId
    recipe: RecipeDoc
    than: RecipeDoc | None = None
    known: list[str] = Field([], max_length=2000)
    against: RowId | None = None
    job: UUID | None = None
    cut: bool = False
    source: bool = False


class AsCutOut(BaseModel):
    """A muslin as it was cut, to be laid under: its pieces, and how far lines have moved since, the farthest first."""

    pieces: list[PieceOut]
    moves: list[MoveOut]


class PreviewOut(BaseModel):
    """A recipe worked out; `than` says how far lines lie from the other recipe's, None where that gives no draft."""

    order: list[str]
    pieces: list[PieceOut]
    seams: list[SeamOut]
    sums: list[SumOut]
    allowances: list[AllowanceOut]
    eases: list[EaseOut]
    schools: list[SchoolOut]
    handles: list[HandleOut]
    notices: list[NoticeOut]
    stages: list[StageOut]
    checks: list[ResultOut]
    ease_map: list[PlaceOut]
    against: AsCutOut | None
    than: list[MoveOut] | None
    titles: dict[str, str]
    cut_for: str
    cut_apart: list[str]
    given: GivenOut | None


class PaperOut(BaseModel):
    """A state of a job as a sheet of tracing paper, with the steps that could not act on it."""

    pieces: list[PieceOut]
    skipped: list[str]


class PapersOut(BaseModel):
    """Two states over each other, and how far lines lie from each other, the farthest first."""

    under: PaperOut
    over: PaperOut
    moves: list[MoveOut]
    titles: dict[str, str]


class MeasureOut(BaseModel):
    """A measure of the catalogue."""

    symbol: str
    name: str
    station: str
    how: str
    alone: str
    term: str
    landmarks: list[str]
    tools: list[str]
    drives: str
    schools: str
    sides: bool
    needs_help: bool
    body: bool
    kind: str
    low: float
    high: float
    tolerance: float


class StationOut(BaseModel):
    """A place in the order of taking."""

    key: str
    title: str
    stand: str


class PreparationOut(BaseModel):
    """One thing to do before measuring."""

    key: str
    title: str
    says: str


class InputOut(BaseModel):
    """An amount that a finding asks for."""

    symbol: str
    label: str
    default: float
    low: float
    high: float
    pinch: bool
    unit: str
    counted: str


class OnPieceOut(BaseModel):
    """Where on the pieces a kind of finding lies: edges of a role, on a zone, either or both."""

    zone: str
    role: str


class KindOut(BaseModel):
    """A kind of finding; `normal` says why it may be normal for its cut, `one_half` that it is about one half always, `marks`
    that it asks for new marks of a line."""

    key: str
    seen: str
    cause: str
    words: str
    group: str
    view: str
    across: float
    level: str
    movement: str
    one_half: bool
    marks: bool
    normal: str
    places: list[OnPieceOut]
    inputs: list[InputOut]


class PurposeOut(BaseModel):
    """A purpose with its allowances by role (cm)."""

    key: str
    title: str
    reason: str
    by_role: dict[str, float]


class BlockOut(BaseModel):
    """A block; `clothes` says which parts of the body it covers (none is covered twice); `used` are the measures it reads."""

    key: str
    title: str
    stands_on: list[str]
    clothes: list[str]
    required: list[list[str]]
    used: list[str]


class StarterSetOut(BaseModel):
    """Blocks that are often drafted together."""

    key: str
    title: str
    reason: str
    blocks: list[str]
    fit: str
    cloth: RecipeClothDoc


class CatalogueOut(BaseModel):
    """What there is to choose from."""

    blocks: list[BlockOut]
    sets: list[StarterSetOut]
    fits: list[str]
    cloths: list[str]

    measures: list[MeasureOut]
    stations: list[StationOut]
    preparation: list[PreparationOut]
    findings: list[KindOut]
    purposes: list[PurposeOut]
    widest_allowance: float
    movements: list[str]
    cautions: dict[str, list[str]]
