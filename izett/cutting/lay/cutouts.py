"""What is cut at once: a piece, through as many layers as lie there, in the poses that grain and nap allow.

Through two layers that face each other a pair is cut at once; against a fold a whole piece from its half. What cannot be
cut through all layers (a single piece, an odd one) is laid on the cloth with fewer: on a section of its own.
"""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property
from math import hypot

import numpy as np
import shapely
from numpy.typing import NDArray

from izett.cutting.cloth import Cloth, Fold
from izett.cutting.lay.bed import Bed, bed_of, beside_meeting
from izett.errors import IzettError
from izett.finishing.sheet import SheetPiece
from izett.geometry.point import Point
from izett.pattern.facts import CENTRES
from izett.wording import cm

#: Corners as rows of x and y, cm.
Outline = NDArray[np.float64]
#: What has no grain may lie at any of these angles.
ANY_TURN = tuple(float(turn) for turn in range(0, 360, 15))
#: cm. A point so near to the fold lies on it.
ON_FOLD = 1e-6
#: cm. How much too wide a piece must be before it is.
HAIR = 1e-6


class DoesNotFit(IzettError):
    """A piece is wider than the cloth as it lies; `where` names the pieces."""

    code = "wider-than-the-cloth"


@dataclass(frozen=True, eq=False)
class Pose:
    """A cutout as it may lie: turned, turned over, moved so that its lower left corner is at 0, 0.

    Attributes:
        turn: degrees, counter-clockwise; flipped: turned over, before it is turned round.
        outline: its corners, cm.
        level: how far up it what is to match lies; upright: how far to the right; None where nothing is matched.
    """

    turn: float
    flipped: bool
    outline: Outline
    level: float | None
    upright: float | None

    @cached_property
    def width(self) -> float:
        """How wide it lies."""
        return float(self.outline[:, 0].max())

    @cached_property
    def height(self) -> float:
        """How long it lies."""
        return float(self.outline[:, 1].max())


@dataclass(frozen=True, eq=False)
class Cutout:
    """What is cut at once.

    Attributes:
        piece, title: of which piece.
        copy: the number of the first of those that are cut.
        outline: as cut, grain upright, its lower left corner at 0, 0; on the fold its half, the fold at x = 0.
        on_fold: whether it lies against a fold.
        layers: through how many layers it is cut.
        ways: turns (degrees) and whether it is turned over, in which it may lie; on the fold beside one on its left.
        match: where on it what repeats is matched: across, along; None where it is not.
    """

    piece: str
    title: str
    copy: int
    outline: Outline
    on_fold: bool
    layers: int
    ways: tuple[tuple[float, bool], ...]
    match: tuple[float | None, float | None]

    @cached_property
    def poses(self) -> tuple[Pose, ...]:
        """The poses in which it may lie."""
        return tuple(posed(self, turn, flipped) for turn, flipped in self.ways)

    @cached_property
    def area(self) -> float:
        """The cloth that it takes of one layer, cm²."""
        return float(shapely.area(shapely.polygons(self.outline)))

    @property
    def narrowest(self) -> Pose:
        """The pose in which it takes the least width."""
        return min(self.poses, key=lambda pose: pose.width)


@dataclass(frozen=True, eq=False)
class Section:
    """A length of the cloth that is folded in one way, with what is cut from it."""

    bed: Bed
    cutouts: tuple[Cutout, ...]


@dataclass(frozen=True, slots=True)
class Wanted:
    """A piece to be cut, of one size.

    Attributes:
        sheet: made ready, its cutting line and all.
        times: of how many garments.
        size: what tells it from the same piece of another size; empty where there is one.
    """

    sheet: SheetPiece
    times: int = 1
    size: str = ""

    @property
    def name(self) -> str:
        """What it is called in the plan."""
        return f"{self.sheet.piece.name}:{self.size}" if self.size else self.sheet.piece.name

    @property
    def title(self) -> str:
        """What people call it."""
        return f"{self.sheet.piece.title}, {self.size}" if self.size else self.sheet.piece.title

    @property
    def number(self) -> int:
        """How many are cut."""
        return self.sheet.number * self.times


def posed(cutout: Cutout, turn: float, flipped: bool) -> Pose:
    """Return a cutout turned over, or not, and turned round."""
    way = _turned(turn, flipped)
    moved = cutout.outline @ way
    corner = moved.min(axis=0)
    across, along = (
        None if at is None else float((np.array([at, 0.0]) @ way)[0] - corner[0])
        if axis == 0
        else float((np.array([0.0, at]) @ way)[1] - corner[1])
        for axis, at in enumerate(cutout.match)
    )  # fmt: skip
    return Pose(turn, flipped, moved - corner, along, across)


def _turned(turn: float, flipped: bool) -> Outline:
    angle = np.radians(turn)
    cos, sin = np.cos(angle), np.sin(angle)
    if turn % 90 == 0:
        cos, sin = round(cos), round(sin)
    mirror = np.diag([-1.0 if flipped else 1.0, 1.0])
    return np.asarray(mirror @ np.array([[cos, sin], [-sin, cos]]), dtype=np.float64)


def sections(wanted: Sequence[Wanted], cloth: Cloth, fold: Fold | None = None) -> tuple[Section, ...]:
    """Return the sections of the cloth, each with what is cut from it.

    Raises:
        DoesNotFit: pieces are wider than the cloth as it lies.
    """
    laid: dict[Fold, list[Cutout]] = {}
    for one in wanted:
        for how, cutout in _cutouts(one, cloth, cloth.fold if fold is None else fold):
            laid.setdefault(how, []).append(cutout)
    order = sorted(laid, key=lambda how: -bed_of(cloth, how).layers)
    found = tuple(Section(bed_of(cloth, how), tuple(laid[how])) for how in order)
    _refuse_too_wide(found, cloth)
    return found


def _cutouts(one: Wanted, cloth: Cloth, fold: Fold) -> Iterator[tuple[Fold, Cutout]]:
    """Yield how the cloth is folded for each cutout of a piece, and the cutout."""
    half = _half_on_fold(one.sheet)
    left, copy = one.number, 1
    for how in _with_fewer_layers(fold):
        layers = bed_of(cloth, how).layers
        has_fold = how not in (Fold.OPEN, Fold.CROSSWISE)
        if half is not None:
            # A whole piece comes of every two layers at a lengthwise fold, of every one elsewhere.
            at_once = layers // 2 if has_fold else layers
            outline = half if has_fold else _whole(half)
        else:
            at_once, outline = layers, _upright(one.sheet)
        number, left = divmod(left, at_once)
        for i in range(number):
            # Of a pair the second is turned over; through two layers that face each other both come at once.
            flips = (False, True) if layers > 1 else (half is None and one.sheet.number > 1 and i % 2 == 1,)
            yield how, _cutout(one, cloth, outline, copy, layers, on_fold=half is not None and has_fold, flips=flips)
            copy += at_once


def _with_fewer_layers(fold: Fold) -> tuple[Fold, ...]:
    """Return a fold, and what is done with what cannot be cut in it."""
    if fold is Fold.OPEN:
        return (Fold.OPEN,)
    if fold is Fold.FOUR_LAYERS:
        return (fold, Fold.LENGTHWISE, Fold.OPEN)
    return (fold, Fold.OPEN)


def _cutout(
    one: Wanted, cloth: Cloth, outline: Outline, copy: int, layers: int, *, on_fold: bool, flips: Sequence[bool]
) -> Cutout:
    corner = outline.min(axis=0)
    across, along = _matched(one.sheet, cloth)
    turns: tuple[float, ...] = (0.0,) if cloth.nap else (0.0, 180.0)
    if (cloth.grainless or one.sheet.ready.free) and not on_fold:
        turns = ANY_TURN
    ways = tuple((turn, turn == 180.0) for turn in turns) if on_fold else tuple((t, f) for t in turns for f in flips)
    return Cutout(
        one.name,
        one.title,
        copy,
        outline - corner,
        on_fold,
        layers,
        ways,
        (None if across is None else across - float(corner[0]), None if along is None else along - float(corner[1])),
    )


def _frame(sheet: SheetPiece) -> tuple[Outline, Outline]:
    """Return the turn that sets a piece's grain upright, and the point that is turned about."""
    (ax, ay), (bx, by) = sheet.grain
    long = hypot(bx - ax, by - ay)
    cos, sin = (by - ay) / long, (bx - ax) / long
    about = np.array(sheet.fold[0] if sheet.fold is not None else sheet.grain[0])
    return np.array([[cos, sin], [-sin, cos]]), about


def _set_up(sheet: SheetPiece, points: Iterable[Point]) -> Outline:
    turn, about = _frame(sheet)
    return np.asarray((np.array(list(points)) - about) @ turn, dtype=np.float64)


def _upright(sheet: SheetPiece) -> Outline:
    return _set_up(sheet, sheet.cutting)


def _half_on_fold(sheet: SheetPiece) -> Outline | None:
    """Return the half of a piece on the fold, the fold at x = 0 and the piece to its right; None where it is no such piece.

    One whose grain does not run along its fold cannot be laid there: it is on its sheet whole.
    """
    if sheet.fold is None:
        return None
    outline = _upright(sheet)
    if outline[:, 0].mean() < 0:
        outline = outline * (-1.0, 1.0)
        outline = outline[::-1]
    outline[np.abs(outline[:, 0]) < 1e-3, 0] = 0.0
    return outline


def _whole(half: Outline) -> Outline:
    """Return the whole piece of a half whose fold is at x = 0."""
    one = shapely.polygons(half)
    other = shapely.polygons((half * (-1.0, 1.0))[::-1])
    both = shapely.union(one, other, grid_size=0)
    largest = max(shapely.get_parts(both), key=shapely.area)
    return np.array(shapely.orient_polygons(largest).exterior.coords)[:-1]


def _matched(sheet: SheetPiece, cloth: Cloth) -> tuple[float | None, float | None]:
    """Return where a piece, its grain upright, is matched to what repeats: across and along; None where it is not.

    Along the cloth its level is, across it the line in its middle, or else its grain.
    """
    along = across = None
    if cloth.repeat[1] and cloth.match:
        spots = [point for line in sheet.piece.lines if line.level == cloth.match for point in line.points]
        if spots:
            along = float(_set_up(sheet, spots)[:, 1].mean())
    if cloth.repeat[0]:
        centre = [point for edge in sheet.piece.edges if edge.role in CENTRES for point in edge.curve.flattened()]
        across = 0.0 if sheet.fold is not None else float(_set_up(sheet, centre or sheet.grain)[:, 0].mean())
    return across, along


def _refuse_too_wide(found: Sequence[Section], cloth: Cloth) -> None:
    """Let pass pieces that lie on the cloth at all.

    Raises:
        DoesNotFit: some are wider.
    """
    too_wide: dict[str, tuple[str, float]] = {}
    for section in found:
        strips = section.bed.strips
        # Where selvedges meet, they can meet anywhere: one strip can be as wide as both.
        room = strips[-1].right - strips[0].left - (len(strips) - 1) * 2 * beside_meeting(cloth)
        for cutout in section.cutouts:
            over = cutout.narrowest.width - room
            if over > HAIR:
                too_wide[cutout.piece] = (cutout.title, over)
    if not too_wide:
        return
    words = ", ".join(f"{title} (by {cm(over)})" for title, over in too_wide.values())
    # Each layer that lies beside itself asks for the same again.
    times = 1 if found[0].bed.width == cloth.left_of_width else 2
    wider = max(over for _, over in too_wide.values()) * times
    raise DoesNotFit(
        f"Wider than the cloth as it lies: {words}.",
        fix=f"Take cloth that is {cm(wider)} wider ({cm(cloth.width + wider)}), fold it otherwise, turn the piece "
        "crosswise if its grain allows, or piece it with a seam.",
        where=tuple(too_wide),
    )
