"""The cutting table of a job: its cloths, its sums, its lay plans; and the shelf of cloths that all jobs share."""

from typing import Annotated
from uuid import UUID

from pydantic import BaseModel, Field

from izett.cutting.cloth import Cloth, Fold, Use
from izett.files.lay_json import LayDoc
from izett.files.recipe_json import RecipeDoc
from izett.units import Unit

Uid = Annotated[str, Field(min_length=1, max_length=64)]
#: Sums and garments of one job; numbers of one sum.
MOST_SUMS, MOST_TIMES, MOST_VALUES = 100, 50, 30
#: Sizes that can be listed: what can be told apart is fewer, and is told in words.
MOST_LISTED = 200


class SumKept(BaseModel):
    """A worksheet of the cutting table with its numbers, in their units."""

    uid: Uid
    kind: str = Field(max_length=40)
    values: dict[Annotated[str, Field(max_length=40)], float] = Field({}, max_length=MOST_VALUES)
    note: str = Field("", max_length=200)


class PlanKept(BaseModel):
    """A lay plan that was kept: of which pieces and cloth (a digest of them), and whether a hand moved it."""

    of: str = Field(max_length=64)
    plan: LayDoc
    by_hand: bool = False


class SizesOfRun(BaseModel):
    """Sizes of a chart that are cut together, in place of the wearer's own measures.

    `bodies` are their measures in cm, as they were when the sizes were chosen: the server fills them in.
    """

    chart: str = Field(max_length=80)
    sizes: list[Annotated[str, Field(max_length=40)]] = Field(max_length=MOST_LISTED)
    height: float | None = Field(None, gt=0, le=300)
    bodies: dict[str, dict[str, float]] = {}


class CutTableIn(BaseModel):
    """What of the cutting table is kept: cloths by what they are for, sums, how many garments are cut, in which sizes."""

    cloths: dict[Use, Cloth] = {}
    sums: list[SumKept] = Field([], max_length=MOST_SUMS)
    times: int = Field(1, ge=1, le=MOST_TIMES)
    run: SizesOfRun | None = None


class CutTable(CutTableIn):
    """The cutting table as it is kept, its plans too."""

    plans: dict[Use, PlanKept] = {}


class CutRowOut(BaseModel):
    """A row of the cutting list."""

    piece: str
    title: str
    number: int
    on_fold: bool
    straight: bool
    area: float
    says: str
    label: str
    how: str


class CutUseOut(BaseModel):
    """What is cut of one cloth: its rows in the order of cutting; whether its kept plan is of these pieces still.

    `of` tells these pieces on this cloth from others, as a plan says what it was laid of; empty where no cloth is chosen.
    """

    use: Use
    title: str
    rows: list[CutRowOut]
    stale: bool | None
    of: str


class ToBuyOut(BaseModel):
    """A row of the shopping list; `amount` in cm where it is a length, or a number; None where no plan says it yet.

    `by_shop` says that it is sold in steps, as cloth is: the page rounds it up in the reader's unit, once.
    """

    what: str
    amount: float | None
    unit: str
    note: str
    cost: float | None = None
    by_shop: bool = False


class CutTableOut(BaseModel):
    """The cutting table: what is kept, and what follows of the pieces as they are now; which sizes give no draft, and why."""

    kept: CutTable
    uses: list[CutUseOut]
    shopping: list[ToBuyOut]
    left_out: list[str] = []


class WorksheetInputOut(BaseModel):
    """A number that a worksheet asks for."""

    symbol: str
    label: str
    unit: str
    default: float
    low: float
    high: float
    reason: str


class WorksheetUseOut(BaseModel):
    """Where a result is needed: a parameter of a step (`of` one of its kinds, or any), or a number of a `cloth`."""

    kind: str
    param: str
    symbol: str
    of: str


class WorksheetOut(BaseModel):
    """A worksheet of the cutting table."""

    key: str
    title: str
    says: str
    inputs: list[WorksheetInputOut]
    gives: list[str]
    uses: list[WorksheetUseOut]


class WorksheetValuesIn(BaseModel):
    """Numbers for a worksheet, by symbol; what is left out is the usual."""

    values: dict[Annotated[str, Field(max_length=40)], float] = Field({}, max_length=MOST_VALUES)


class WorksheetLineOut(BaseModel):
    """A line of a worksheet: a sum with the numbers put in."""

    symbol: str
    label: str
    unit: str
    value: float
    worked: str
    reason: str
    source: str


class ShelfClothOut(BaseModel):
    """A cloth of the shelf."""

    id: UUID
    cloth: Cloth


class SwatchOut(BaseModel):
    """A photo as a cloth keeps it: small, a JPEG in base64."""

    swatch: str


class PrintedIn(BaseModel):
    """The side of a printed square as it measures on paper, cm; which of the two, by its unit."""

    side: float = Field(ge=0, le=1000, allow_inf_nan=False)
    square: Unit = Unit.CM


class PrintedOut(BaseModel):
    """How large a page came out, as a share of its true size; whether it may be cut by, and what to do."""

    scale: float
    true: bool
    words: str


class LayAskedIn(BaseModel):
    """A plan to be looked for: of which cloth of the job, how it is folded if not as it says, from which seed, how long."""

    uid: Uid
    use: Use
    fold: Fold | None = None
    seed: int = Field(1, ge=0, le=2**31 - 1)
    effort: float = Field(1.0, ge=0.1, le=10)


class LayQuestion(BaseModel):
    """All that a plan depends on."""

    recipe: RecipeDoc
    body: dict[str, float]
    sides: dict[str, tuple[float, float]]
    run: dict[str, dict[str, float]] = {}
    cloth: Cloth
    fold: Fold | None
    times: int
    seed: int
    effort: float
    of: str


class FaultOut(BaseModel):
    """What is wrong with a plan, and which of its pieces it is about."""

    fault: str
    words: str
    placed: list[int]


class SavingOut(BaseModel):
    """A way to save cloth, and how much (cm)."""

    words: str
    saves: float
    fold: Fold | None


class LaidOut(BaseModel):
    """A plan: of which pieces and cloth, what is wrong with it, what would save cloth.

    `headline` says what it needs, `thumb` what a cutter would reckon without it.
    """

    of: str
    plan: LayDoc
    bought: float
    headline: str
    decides: str
    too_little: float | None
    thumb: str = ""
    faults: list[FaultOut] = []
    savings: list[SavingOut] = []


class MovedPieceIn(BaseModel):
    """A piece put elsewhere on a plan: by how much (cm), how it lies from now on, and whether it snaps."""

    use: Use
    plan: LayDoc
    number: int = Field(ge=0, le=2000)
    across: float = Field(0.0, ge=-1e5, le=1e5)
    along: float = Field(0.0, ge=-1e5, le=1e5)
    turn: float | None = Field(None, ge=0, lt=360)
    flipped: bool | None = None
    snap: bool = True
    unit: Unit = Unit.CM


class KeptPlanIn(BaseModel):
    """A plan to keep for a cloth."""

    plan: LayDoc
    by_hand: bool = False
