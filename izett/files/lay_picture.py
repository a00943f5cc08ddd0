"""A lay plan as a picture to scale: the cloth as it lies, its length from left to right, with folds, selvedges and pieces."""

from collections.abc import Iterator
from dataclasses import dataclass
from enum import StrEnum
from html import escape

import shapely

from izett.cutting.cloth import FOLDED, sold_words
from izett.cutting.lay.plan import Laid, Placed, Plan
from izett.geometry.point import Point
from izett.units import Unit, show_length

#: The picture's scale, and the rim around it (cm of cloth).
SCALE, RIM = 10, 4.0
#: cm of cloth. Letters, large and small; how far beside its edge a fold is drawn; the heads of a grain's arrow.
LETTERING, SMALL, BESIDE, HEAD = 3.2, 2.4, 0.9, 1.2
#: Of a piece's length, how long its grain is drawn.
GRAIN = 0.3


class Ink(StrEnum):
    """What a line of the picture is."""

    CLOTH = "cloth"
    FOLD = "fold"
    SELVEDGE = "selvedge"
    PIECE = "piece"
    GRAIN = "grain"


@dataclass(frozen=True, slots=True)
class Stroke:
    """A line of the picture, cm of cloth: length first, then across from the top."""

    ink: Ink
    points: tuple[Point, ...]
    closed: bool = False


@dataclass(frozen=True, slots=True)
class Word:
    """A word of the picture, centred on a place."""

    text: str
    at: Point
    size: float = LETTERING


def picture(plan: Plan) -> Iterator[Stroke | Word]:
    """Yield what is drawn of a plan."""
    for laid in plan.laid:
        yield from _cloth(laid)
    for one in plan.placed:
        yield from _piece(one)


def _cloth(laid: Laid) -> Iterator[Stroke | Word]:
    bed = laid.section.bed
    near, far = laid.start, laid.start + laid.length
    corners = ((near, 0.0), (far, 0.0), (far, bed.width), (near, bed.width))
    yield Stroke(Ink.CLOTH, corners, closed=True)
    folds = {strip.fold for strip in bed.strips if strip.fold is not None}
    for across in folds:
        # Beside the cloth's edge, where no piece lies over it.
        beside = across + (BESIDE if across > 0 else -BESIDE)
        yield Stroke(Ink.FOLD, ((near, beside), (far, beside)))
        yield Word("fold", ((near + far) / 2, beside + (LETTERING if across > 0 else -LETTERING / 3)), SMALL)
    for strip in bed.strips:
        for across in {strip.left, strip.right} - folds:
            yield Stroke(Ink.SELVEDGE, ((near, across), (far, across)))
    if bed.lengths > 1:
        yield Stroke(Ink.FOLD, ((near - BESIDE, 0.0), (near - BESIDE, bed.width)))


def _piece(one: Placed) -> Iterator[Stroke | Word]:
    corners = tuple((float(y), float(x)) for x, y in one.outline)
    yield Stroke(Ink.PIECE, corners, closed=True)
    middle = shapely.point_on_surface(shapely.polygons(corners))
    at = (float(middle.x), float(middle.y))
    long = max(x for x, _ in corners) - min(x for x, _ in corners)
    low, high, beneath = at[0] - GRAIN * long / 2, at[0] + GRAIN * long / 2, at[1] + LETTERING
    yield Stroke(Ink.GRAIN, ((low, beneath), (high, beneath)))
    for end, way in ((low, 1), (high, -1)):
        head = ((end + way * HEAD, beneath - HEAD / 2), (end, beneath), (end + way * HEAD, beneath + HEAD / 2))
        yield Stroke(Ink.GRAIN, head)
    # Through two layers that face each other one comes each way round.
    over = one.flipped and one.spot.cutout.layers == 1
    how = " (on the fold)" if one.spot.cutout.on_fold else " (turned over)" if over else ""
    yield Word(f"{one.spot.cutout.title}{how}", at)


def headline(plan: Plan, unit: Unit) -> str:
    """Return in words what a plan needs."""
    length = show_length(plan.length, unit=unit)
    bought = sold_words(plan.bought, unit=unit)
    name = f"{plan.cloth.name}: " if plan.cloth.name else ""
    wide = show_length(plan.cloth.width, unit=unit)
    return (
        f"{name}{length} of cloth {wide} wide, {FOLDED[plan.fold][0]}; buy {bought}. "
        f"{plan.utilisation:.0%} of it becomes pieces."
    )


_STYLE = (
    ".cloth{fill:#f6f1e4;stroke:#555;stroke-width:.3}.fold{fill:none;stroke:#222;stroke-width:.6;stroke-dasharray:6 2 1 2}"
    ".selvedge{fill:none;stroke:#999;stroke-width:.3;stroke-dasharray:1 1}.piece{fill:#fff;stroke:#222;stroke-width:.4}"
    ".grain{fill:none;stroke:#222;stroke-width:.25}text{font-family:sans-serif;fill:#222}"
)


def write_lay_svg(plan: Plan, *, unit: Unit = Unit.CM) -> str:
    """Return the picture as an SVG, a tenth of the cloth's size."""
    wide = max(laid.section.bed.width for laid in plan.laid)
    long = plan.laid[-1].start + plan.laid[-1].length
    width, height = round(long + 2 * RIM, 3), round(wide + 3 * RIM + LETTERING, 3)
    top = 2 * RIM + LETTERING
    drawn = []
    for mark in picture(plan):
        if isinstance(mark, Word):
            x, y = mark.at[0] + RIM, mark.at[1] + top
            drawn.append(
                f'<text x="{x:.2f}" y="{y:.2f}" font-size="{mark.size}" text-anchor="middle">{escape(mark.text)}</text>'
            )
            continue
        spots = " L".join(f"{x + RIM:.3f} {y + top:.3f}" for x, y in mark.points)
        drawn.append(f'<path class="{mark.ink}" d="M{spots}{" Z" if mark.closed else ""}"/>')
    head = (
        f'<text x="{RIM}" y="{RIM + LETTERING}" font-size="{LETTERING * 1.2:.2f}">{escape(headline(plan, unit))}</text>'
    )
    mm = 10 / SCALE
    return (
        '<?xml version="1.0" encoding="UTF-8"?>\n'
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width * mm:g}mm" height="{height * mm:g}mm" '
        f'viewBox="0 0 {width:g} {height:g}">\n<style>{_STYLE}</style>\n{head}\n' + "\n".join(drawn) + "\n</svg>\n"
    )
