"""What goes over the wire of tracing: a picture, what tells its scale, what was found, how a picture lies under its panel."""

from typing import Annotated, Literal
from uuid import UUID

from pydantic import BaseModel, Field

from izett.draping.panel import FARTHEST, Given, MarkKind, Panel
from izett.files.shapes import DrawnIn
from studio.form_schemas import PanelKey, Words

#: A place in a picture: pixels to the right and down.
Pixel = Annotated[list[float], Field(min_length=2, max_length=2)]
#: cm.
Known = Annotated[float, Field(gt=0, le=FARTHEST)]


#: cm. A piece that is traced is no thicker.
THICKEST = 5.0
#: More corners, notches and marks than any piece has.
MOST_TAKEN = 500


class PictureOut(BaseModel):
    """A picture that was sent to be traced; it is kept for a day."""

    uid: UUID
    width: int
    height: int


class TakenPlace(BaseModel):
    """A corner, a notch or a pencil mark that a person takes in a picture.

    What is `exact` lies just there; else it goes to what is near: a mark, a corner, the outline.
    """

    kind: Literal["corner", "notch", "dot", "cross", "dash"]
    at: Pixel
    exact: bool = False


class TapeClicked(BaseModel):
    """A tape that lies in the picture: two places on it, and what it reads between them, cm."""

    ends: list[Pixel] = Field(min_length=2, max_length=2)
    known: Known


class TapeMeasured(BaseModel):
    """How the picture measures a tape that lies in it, cm."""

    known: float
    measured: float
    agrees: bool


class TraceIn(BaseModel):
    """What is to be traced in a picture, and what tells its scale.

    `uid` names the work, `picture` the picture. `spots` are clicked: two points, four corners from the top left, or a place
    in the grid; `lengths` (cm) are those between the points, the rectangle's width and height, or a square of the grid.
    `thick` (cm) is how thick the piece is. `taken` are all corners, notches and marks that a person takes; none leaves what
    was found.
    """

    uid: str = Field(min_length=8, max_length=64, pattern=r"^[A-Za-z0-9-]+$")
    picture: UUID
    title: Words = "Traced piece"
    by: Literal["sheets", "points", "rectangle", "grid"] = "sheets"
    paper: Literal["a4", "letter"] = "a4"
    bar: Known = 20.0
    spots: list[Pixel] = Field([], max_length=4)
    lengths: list[Known] = Field([], max_length=2)
    tap: Pixel
    of: Literal["outline", "marks"] = "outline"
    upright: int | None = Field(None, ge=0, le=100)
    thick: float = Field(0.0, ge=0, le=THICKEST)
    taken: list[TakenPlace] | None = Field(None, max_length=MOST_TAKEN)
    tape: TapeClicked | None = None


class TraceQuestion(TraceIn):
    """What a trace depends on: the picture's own digest beside what is asked of it."""

    digest: str


class Lies(BaseModel):
    """How a picture lies under its panel: its upper left corner (cm, before the turn), pixels a cm, a turn and a shift.

    A place of the picture is turned by `turn` radians about 0, 0 and then moved by `across` and `along`.
    """

    panel: PanelKey
    left: float
    top: float
    px_per_cm: float = Field(gt=0, le=200)
    turn: float = 0.0
    across: float = 0.0
    along: float = 0.0


class LinePicked(BaseModel):
    """A line of what was traced: how long it is and how far the edge lies off it at most, cm; `seen` is it in the picture."""

    name: str
    seen: list[Pixel]
    length: float
    off: float
    ragged: bool


class GhostOut(BaseModel):
    """A pencil mark that is proposed; `seen` is where it is in the picture."""

    seen: Pixel
    kind: MarkKind
    across: float
    along: float


class TracedOut(BaseModel):
    """What a picture comes to; a proposal that is looked at over the picture.

    `taken` are its corners, notches and marks as they stand. `picture` names the picture as seen from straight above.
    `checked` and `share` say how well the calibration holds where each sheet is left out in turn: cm and a share; None where
    no sheets told the scale.
    """

    panel: Panel
    picture: UUID
    lies: Lies
    width: int
    height: int
    lines: list[LinePicked]
    notches: int
    darts: int
    taken: list[TakenPlace]
    ghosts: list[GhostOut]
    tape: TapeMeasured | None = None
    contrast: float
    px_per_cm: float
    checked: float | None = None
    share: float | None = None
    tilt: float | None = None
    warnings: list[str]


class LayIn(BaseModel):
    """A traced picture that is to lie under a panel of the job from now on."""

    picture: UUID
    lies: Lies


class UnderPanelOut(BaseModel):
    """A picture under a panel, shown at `/api/photos/{uid}`."""

    uid: UUID
    width: int
    height: int
    lies: Lies


class ShapesOut(BaseModel):
    """Pieces that a file draws."""

    given: Given


class ShapesIn(BaseModel):
    """A drawing to read pieces from: its kind, its content in base64, and what its numbers are in where it does not say."""

    kind: Literal["svg", "dxf", "json"]
    content: str = Field(max_length=8 * 2**20)
    unit: DrawnIn | None = None
