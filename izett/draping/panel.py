"""What was taken of a shape from outside: its marks as they were measured, and what was said of them.

Glossary. *Panel*: one piece of muslin, film or paper. *Guides*: the two lines drawn on it before it was hung, one upright
(centre or balance line), one level (bust, waist or hip); every mark is so far `across` from the first, towards the
side, and so far `along` up from the second. *Dash*: where a centre line ends. *Cross*: where two lines meet. *Dot*: on a
line. *Notch*: on a line, where it is matched. *Slash*: cut into the muslin to let it turn.

All lengths are cm. Marks stand in the order of walking round the panel, either way. Nothing here is worked out: lines,
pieces and seams are results (`truing.py`, `given.py`).
"""

import re
from collections.abc import Mapping
from enum import StrEnum
from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field, model_validator

from izett.geometry.point import Point
from izett.pattern.facts import Half, Layer, Region, Role, Zone

#: cm. A mark lies no further from its guides: more than twice any train.
FARTHEST = 500.0
#: Limits that nobody meets by hand; beyond them a panel could not be shown or kept.
MOST_MARKS, MOST_PANELS, MOST_LINES = 400, 40, 60
#: A body is so many times another at most, in any measure that pieces are graded by.
MOST_GRADED = 1.5
#: Control points of a line that was given as drawn, and how many parts of it darts leave.
MOST_CONTROLS, MOST_PARTS = 1201, 12

Name = Annotated[str, Field(max_length=60)]
Distance = Annotated[float, Field(ge=-FARTHEST, le=FARTHEST)]

#: A control point, across and along; a plain list of two numbers in a file.
Control = Annotated[tuple[float, ...], Field(min_length=2, max_length=2)]
#: A drawn line, or a part of one that a dart leaves: 2 control points, or 3n + 1 of joined cubics.
Part = Annotated[tuple[Control, ...], Field(min_length=2, max_length=MOST_CONTROLS)]


def name_of(title: str) -> str:
    """Return a panel's own name from what it is called.

    >>> name_of("Side front")
    'side_front'
    """
    return re.sub(r"[^a-z0-9]+", "_", title.strip().lower())[:60].strip("_") or "panel"


class Said(BaseModel):
    """Something that was said of a given shape: fixed, and nothing else than it names."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)


class MarkKind(StrEnum):
    """What the pencil made."""

    DASH = "dash"
    CROSS = "cross"
    DOT = "dot"
    NOTCH = "notch"
    SLASH = "slash"


#: Marks at which one line ends and the next begins.
CORNERS = (MarkKind.DASH, MarkKind.CROSS)


class Way(StrEnum):
    """How a line is drawn through its marks."""

    #: Straight where its dots lie straight, else curved.
    DOTS = "dots"
    STRAIGHT = "straight"
    CURVED = "curved"
    #: Through every dot, whatever it does.
    THROUGH_ALL = "through_all"


class Mark(Said):
    """One mark.

    Attributes:
        kind: what it is.
        across, along: from the upright guide towards the side, and up from the level guide, cm.
        lines: the lines that it lies on: a cross may name both that meet in it.
        name: what it is called, where it was named.
    """

    kind: MarkKind
    across: Distance
    along: Distance
    lines: tuple[Name, ...] = Field((), max_length=2)
    name: Name = ""

    @property
    def spot(self) -> Point:
        """Where it lies on its panel."""
        return (self.across, self.along)


class LineSaid(Said):
    """What was said of a line; what was not is read from its name and its marks.

    Attributes:
        role: what class of edge it is.
        way: how it is drawn through its marks.
        square: whether it leaves the centre line square; None leaves that to its marks.
        drawn: where it came as a drawn line and not as marks, its control points; of a line that darts part, each part's.
    """

    role: Role | None = None
    way: Way = Way.DOTS
    square: bool | None = None
    drawn: tuple[Part, ...] = Field((), max_length=MOST_PARTS)

    @model_validator(mode="after")
    def _are_lines(self) -> "LineSaid":
        if any(len(part) != 2 and len(part) % 3 != 1 for part in self.drawn):
            raise ValueError("a drawn line has 2 or 3n + 1 control points")
        return self


class Panel(Said):
    """One panel as taken.

    Attributes:
        name: its own name, by which seams speak of it: `side_front`.
        title: for people; empty where the name does.
        marks: in the order of walking round it.
        lines: what was said of its lines, by their names.
        zone, region, half, layer: what of the body it lies on; None where its lines tell.
        cut: how many are cut; None where its fold tells.
        fold: the line that lies on the fold; empty for none, None where its centre front tells.
        grain: the angle of the grain to the upright guide, degrees counter-clockwise.
        levels: how high body levels lie over its level guide, cm, where they lie otherwise than on the other panels.
    """

    name: str = Field(min_length=1, max_length=60, pattern=r"^[a-z0-9_]+$")
    title: Name = ""
    marks: tuple[Mark, ...] = Field((), max_length=MOST_MARKS)
    lines: Mapping[Name, LineSaid] = Field({}, max_length=MOST_LINES)
    zone: Zone | None = None
    region: Region | None = None
    half: Half = Half.BOTH
    layer: Layer = Layer.OUTER
    cut: int | None = Field(None, ge=1, le=12)
    fold: Name | None = None
    grain: float = Field(0.0, ge=-90, le=90)
    levels: Mapping[Name, Distance] = Field({}, max_length=20)

    @property
    def called(self) -> str:
        """What it is called in words."""
        return self.title or self.name.replace("_", " ").capitalize()

    def said(self, line: str) -> LineSaid:
        """Return what was said of a line."""
        return self.lines.get(line, _NOTHING_SAID)


_NOTHING_SAID = LineSaid()


class SeamEnd(Said):
    """One side of a seam: a line of a panel."""

    panel: Name
    line: Name


class SeamSaid(Said):
    """Two lines that are sewn together, and how much longer (cm) the second is meant to be: eased in over the bust."""

    first: SeamEnd
    second: SeamEnd
    ease: float = Field(0.0, ge=-10, le=10)

    @property
    def sides(self) -> tuple[SeamEnd, SeamEnd]:
        """Both of its sides."""
        return (self.first, self.second)


class Source(StrEnum):
    """Where given shapes come from."""

    DRAPE = "drape"
    WRAP = "wrap"
    TRACE = "trace"
    FILE = "file"


class Known(Said):
    """A line of a small diagram, and how long it is to be: all is enlarged alike, cm."""

    of: SeamEnd
    length: float = Field(gt=0, le=FARTHEST)


class Bodies(Said):
    """One measure of two bodies, cm: of the one that was draped on, and of the one that it is brought to."""

    of: float = Field(gt=0, le=FARTHEST)
    to: float = Field(gt=0, le=FARTHEST)

    @property
    def ratio(self) -> float:
        """How much larger the second is."""
        return self.to / self.of

    @model_validator(mode="after")
    def _alike(self) -> "Bodies":
        if not 1 / MOST_GRADED <= self.ratio <= MOST_GRADED:
            raise ValueError(
                f"{self.of:g} cm to {self.to:g} cm is more than any grading: drape it on the other body, "
                "or look whether a measure was misread"
            )
        return self


class Graded(Said):
    """How shapes of one body are brought to another.

    Attributes:
        widths: the girths of both bodies, by level.
        above: of both bodies what lies from the nape to the waist.
        below: from the waist to the hip.
    """

    widths: Mapping[Name, Bodies] = Field({}, max_length=20)
    above: Bodies | None = None
    below: Bodies | None = None


class Given(Said):
    """Shapes from outside that a garment is made of, wholly or beside drafted blocks.

    Attributes:
        source: where they come from.
        panels: in the order in which they lie side by side.
        seams: those that were said; the others are proposed.
        open: lines that are sewn to none, though they could be: an opening, or a seam to a drafted piece.
        levels: how high body levels lie over the level guide, cm: `{"bust": 0, "waist": -17}`.
        ease: the ease that is meant at each level, cm all around.
        enlarged: the known length by which small shapes are enlarged.
        graded: the bodies between which they are graded; every piece of them is marked as such.
    """

    source: Source = Source.DRAPE
    panels: tuple[Panel, ...] = Field((), max_length=MOST_PANELS)
    seams: tuple[SeamSaid, ...] = Field((), max_length=MOST_LINES)
    open: tuple[SeamEnd, ...] = Field((), max_length=MOST_LINES)
    levels: Mapping[Name, Distance] = Field({}, max_length=20)
    ease: Mapping[Name, float] = Field({}, max_length=20)
    enlarged: Known | None = None
    graded: Graded | None = None

    @model_validator(mode="after")
    def _apart(self) -> "Given":
        names = [panel.name for panel in self.panels]
        if len(names) != len(set(names)):
            raise ValueError("two panels have one name")
        return self


#: A garment that is drafted alone.
NOTHING_GIVEN = Given()
