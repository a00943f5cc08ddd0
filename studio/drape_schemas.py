"""What goes over the wire of draping: what there is to drape, what the form measures, what given panels came to."""

from pydantic import BaseModel, Field

from izett.draping.panel import Given, Way
from izett.files.recipe_json import RecipeDoc, StepDoc
from izett.units import Unit
from studio.schemas import Pair


class ToDrapeOut(BaseModel):
    """A panel of a drape, and where the form is measured for it."""

    key: str
    title: str
    kind: str
    hangs: str
    bust: bool
    length: str
    width: str


class DrapeOut(BaseModel):
    """A garment as it is draped."""

    key: str
    title: str
    tape: list[str]
    panels: list[ToDrapeOut]


class SessionStepOut(BaseModel):
    """A step of the session; `key` is what ticks it off."""

    key: str
    part: str
    does: str
    watch: str


class DrapesOut(BaseModel):
    """What there is to drape, and how a session goes; the allowance each way by kind of block, cm."""

    drapes: list[DrapeOut]
    steps: list[SessionStepOut]
    allowances: dict[str, float]


class GuideOut(BaseModel):
    """A line to draw on a block."""

    what: str
    along: bool
    at: float


class MuslinBlockOut(BaseModel):
    """A block of muslin, cm."""

    key: str
    title: str
    warp: float
    weft: float
    allowance: float
    guides: list[GuideOut]


class StripOut(BaseModel):
    """A strip torn across, cm."""

    length: float
    left: float
    blocks: list[MuslinBlockOut]


class TearOut(BaseModel):
    """The tear list, cm; `missing` are the panels that are not measured yet."""

    muslin: float
    usable: float
    length: float
    bought: float
    strips: list[StripOut]
    missing: list[str]


class MarksIn(BaseModel):
    """A table of marks as text, and what its lengths are in where it does not say so."""

    text: str = Field(max_length=400_000)
    unit: Unit = Unit.CM


class MarksOut(BaseModel):
    """The panels of a table of marks."""

    given: Given


class DrawnLineOut(BaseModel):
    """A line of a panel as trued, its control points from the panel's guides, cm."""

    name: str
    lineage: str
    role: str
    way: Way
    start: int
    end: int
    points: list[Pair]
    length: float
    dots: int
    cubics: int
    farthest: float


class QueryOut(BaseModel):
    """Something to look at again; it stops the panel from being drawn, or not."""

    code: str
    panel: str
    words: str
    fix: str
    marks: list[int]
    lines: list[str]
    stops: bool


class GivenPanelOut(BaseModel):
    """A panel as trued; `off` says how far each dot lies from its line, cm, None for other marks.

    `spots` are its marks from its guides, cm, at the size that was asked for.
    """

    name: str
    title: str
    drawn: bool
    zone: str
    region: str
    fold: str
    cut: int
    lines: list[DrawnLineOut]
    off: list[float | None]
    spots: list[Pair]
    queries: list[QueryOut]


class GivenEndOut(BaseModel):
    """A line of a panel that is sewn, or could be."""

    panel: str
    line: str


class GivenSeamOut(BaseModel):
    """A seam between given panels: as marked, and whether it was trued; cm."""

    name: str
    sides: tuple[GivenEndOut, GivenEndOut]
    words: tuple[str, str]
    kind: str
    before: Pair
    differs: float
    ease: float
    trued: bool
    proposed: bool


class LevelSumOut(BaseModel):
    """What given panels add up to around the body at a level, beside the girth that was taken there, cm."""

    level: str
    around: float
    girth: float
    agrees: bool


class CapOut(BaseModel):
    """The seam of a given sleeve: how long armhole and cap are, front and back together, cm; and whether it fits."""

    armhole: float
    cap: float
    fits: bool


class GivenOut(BaseModel):
    """What given shapes came to; `free` are lines that could be sewn and are not.

    `levels` are how high body levels lie over the level guide at the size that was asked for, cm; `body` the wearer's own
    measures that shapes are graded by: girths by level, and what lies above and below the waist; `most_graded` how many times
    another's a measure may be.
    """

    panels: list[GivenPanelOut]
    seams: list[GivenSeamOut]
    free: list[GivenEndOut]
    cubics: int
    farthest: float
    cap: CapOut | None
    around: list[LevelSumOut]
    levels: dict[str, float]
    body: dict[str, float]
    most_graded: float


class LearnOut(BaseModel):
    """A way in which a draft could learn what a drape showed: an ease with its value, or steps under its style."""

    words: str
    symbol: str
    value: float
    steps: list[StepDoc]


class BesideRowOut(BaseModel):
    """A reading of a drape beside that of a draft, cm; `seen` says that it is more than pencil and pins are off."""

    what: str
    drape: float
    draft: float
    seen: bool
    learns: list[LearnOut]


class BesideOut(BaseModel):
    """A drape beside a draft of the same wearer: the draft's state that was read, and all that both have."""

    garment: str
    version: int
    recipe: RecipeDoc
    differences: list[BesideRowOut]
