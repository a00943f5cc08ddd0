"""The `izett-pattern` document, version 1: what stands in a pattern file, and what it can be. Its schema lies in docs/formats."""

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, field_validator

from izett.pattern import document as d
from izett.pattern.facts import Corner, Half, Layer, Lie, Region, Role, SeamKind, Zone
from izett.pattern.piece import LARGEST_PIECE, Form, NotchKind

FORMAT: Literal["izett-pattern"] = "izett-pattern"
VERSION: Literal[1] = 1

Number = Annotated[float, Field(allow_inf_nan=False)]
Place = Annotated[float, Field(ge=-LARGEST_PIECE, le=LARGEST_PIECE, allow_inf_nan=False)]
Spot = tuple[Place, Place]

#: Points of a straight line; a curve has one more than three for each of its cubics.
STRAIGHT = 2
#: Of a file that is read: more than any garment has, and no more than a screen can show.
MOST_PIECES, MOST_EDGES, MOST_POINTS = 400, 2000, 1000


class _Document(BaseModel):
    model_config = ConfigDict(populate_by_name=True, extra="ignore")


class ClothDoc(_Document):
    """The cloth that the garment is meant for."""

    kind: str = "woven"
    stretch: Number = 0.0


class EdgeDoc(_Document):
    """An edge: 2 points where straight, else 3n + 1 control points of n joined cubics."""

    role: Role
    lineage: str
    start: str = Field(alias="from")
    end: str = Field(alias="to")
    curve: list[Spot] = Field(min_length=2, max_length=MOST_POINTS)
    allowance: Number = 0.0
    zone: Zone | None = None

    @field_validator("curve")
    @classmethod
    def _of_whole_cubics(cls, points: list[Spot]) -> list[Spot]:
        if len(points) != STRAIGHT and len(points) % 3 != 1:
            raise ValueError(f"a curve has 2 points, or 4, 7, 10 and so on; here are {len(points)}")
        return points


class DartDoc(_Document):
    """A dart; `pivot` is the point about which it closes, `tip` the drawn one."""

    name: str
    family: str
    form: Form = Form.EDGE
    sewn: bool = True
    pivot: Spot
    tip: Spot
    tip_vertex: str
    set_back: Number
    mouth: tuple[str, str]
    bow: Number = 0.0


class DiamondDoc(_Document):
    """A dart within the piece: its two tips, and where it is widest."""

    name: str
    family: str
    top: Spot
    bottom: Spot
    left: Spot
    right: Spot


class SpanDoc(_Document):
    """A stretch along edges of one lineage, darts on the way shut."""

    piece: str = ""
    start: str = Field(alias="from")
    end: str = Field(alias="to")
    along: str


class IntentDoc(_Document):
    """Fit, cloth, ease meant and fullness at each level (cm, total around), and spans along which some are measured."""

    fit: str = "fitted"
    cloth: ClothDoc = ClothDoc()
    ease: dict[str, Number] = {}
    along: dict[str, list[SpanDoc]] = {}
    fullness: dict[str, Number] = {}


class NotchDoc(SpanDoc):
    """A notch, `distance` cm as sewn from the start of its span."""

    distance: Number
    kind: NotchKind


class LineDoc(_Document):
    """A level line, in as many parts as the paper was cut into."""

    level: str
    points: list[Spot] = Field(min_length=2)


class LiningDoc(_Document):
    """The piece that a lining follows, line by line, and how much shorter it is meant to be at the hem, cm."""

    of: str
    shorter: Number
    lines: dict[str, str] = {}


class PieceDoc(_Document):
    """A piece: its ring of edges in counter-clockwise order, and what lies on it."""

    name: str
    title: str
    part: str
    cut: int
    on_fold: str | None = None
    grain: tuple[Spot, Spot]
    vertices: dict[str, Spot]
    edges: list[EdgeDoc] = Field(min_length=2, max_length=MOST_EDGES)
    darts: list[DartDoc] = []
    marks: dict[str, Spot] = {}
    lines: dict[str, list[Spot]] = {}
    line_parts: list[LineDoc] = []
    notches: list[NotchDoc] = []
    aliases: dict[str, str] = {}
    diamonds: list[DiamondDoc] = []
    zone: Zone | None = None
    region: Region | None = None
    half: Half = Half.BOTH
    layer: Layer = Layer.OUTER
    corners: dict[str, Corner] | None = None
    lining: LiningDoc | None = None
    lie: Lie = Lie.STRAIGHT


class SeamDoc(_Document):
    """A seam; `lengths` are as sewn, one a side, in cm."""

    name: str
    sides: tuple[list[SpanDoc], list[SpanDoc]]
    ease: tuple[Number, Number]
    lies: str = ""
    offset: Number = 0.0
    words: tuple[str, str] = ("front", "back")
    lengths: tuple[Number, Number] | None = None
    kind: SeamKind | None = None
    half: Half = Half.BOTH


class OpeningDoc(_Document):
    """An opening: `length` cm from the start of its span."""

    name: str
    closure: d.Closure
    span: SpanDoc
    length: Number


class AcceptedDoc(_Document):
    """A finding that the maker accepts; `worse` says in which direction it opens again."""

    check: str
    where: list[str]
    aspect: str = d.ANY_ASPECT
    half: Half = Half.BOTH
    up_to: Number
    worse: Literal["more", "less"] = "more"
    reason: str


class MachineDoc(_Document):
    """The seam allowance on paper, and the one that is sewn, cm."""

    paper: Number
    sewn: Number


class CutCornerDoc(_Document):
    """How a corner is cut, and along which of its lines."""

    kind: d.CornerCut
    along: str = ""


class ReadyDoc(_Document):
    """What is said of one piece when it is made ready."""

    cloth: str = ""
    cut: int = Field(0, ge=0, le=99)
    free: bool = False
    says: str = ""
    whole: bool = False


class TurningDoc(_Document):
    """How a hem or a facing is turned, cm."""

    depth: Number
    under: Number = 0.0


class CutForDoc(_Document):
    """What the sheets are cut for: lines with allowances of their own (cm), corners, single pieces, turnings."""

    purpose: str = "muslin"
    by_lineage: dict[str, Number] = {}
    corners: dict[str, CutCornerDoc] = {}
    pieces: dict[str, ReadyDoc] = {}
    turnings: dict[str, TurningDoc] = {}


class CheckDoc(_Document):
    """What a check found about one subject."""

    check: str
    state: str
    where: list[str]
    amount: Number
    tolerance: Number
    unit: str = "cm"
    words: str = ""
    aspect: str = ""
    half: Half = Half.BOTH


class PatternDoc(_Document):
    """An `izett-pattern` document."""

    format: Literal["izett-pattern"] = FORMAT
    version: Literal[1] = VERSION
    unit: Literal["cm"] = "cm"
    measures: dict[str, Number] = {}
    intent: IntentDoc = IntentDoc()
    pieces: list[PieceDoc] = Field(max_length=MOST_PIECES)
    seams: list[SeamDoc] = []
    values: dict[str, Number] = {}
    allowances: dict[str, Number] = {}
    symbols: dict[str, str] = {}
    checks: list[CheckDoc] = []
    links: dict[str, str] = {}
    openings: list[OpeningDoc] = []
    accepted: list[AcceptedDoc] = []
    machine: MachineDoc | None = None
    cut_for: CutForDoc = CutForDoc()
    titles: dict[str, str] = {}
