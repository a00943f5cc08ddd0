"""A line across all pieces that meet: pieces are cut along it, and what lies below slides down or up.

The line lies at the same distance along each seam on both of its pieces, so that their edges stay equal, whatever panels
the garment has been cut into. Straight lines are joined again, curves keep their character, darts grow or shrink in
length only. Common practice, no single source.
"""

from collections.abc import Iterator
from dataclasses import replace
from types import MappingProxyType

from izett.errors import ReferenceLost, StepRefused
from izett.geometry.blend import with_handles
from izett.geometry.curve import Curve, joined
from izett.geometry.motion import Motion
from izett.geometry.point import Point, Vector, add, between, distance, scale, subtract, unit
from izett.pattern.document import Seam
from izett.pattern.facts import Role
from izett.pattern.levels import AROUND
from izett.pattern.piece import Diamond, Edge, Notch, Piece, Span
from izett.pattern.redraw import redrawn
from izett.pattern.sewn import place_on, span_length, walk
from izett.styling.operation import Context
from izett.styling.words import dart_words, line_words
from izett.wording import cm

#: cm. Of a line that is shortened, this much must be left.
LEAST_LEFT = 1.5
#: Upright edges, over whose seams the line runs on.
UPRIGHT = (Role.SIDE, Role.UNDERARM, Role.INSEAM, Role.PANEL, Role.CENTRE_FRONT, Role.CENTRE_BACK)
#: Edges that the line may not cut through.
RIMS = (Role.WAIST, Role.HEM, Role.NECK)
#: A curved line is drawn anew on both sides of the cut over this share of what there is, and at most so far, cm.
SHORT_OF, MOST_BESIDE = 0.9, 14.0
#: cm. A place on an edge is found within this.
WITHIN = 1e-6


def heights_across(context: Context, piece: Piece, height: float) -> dict[str, float]:
    """Return the height (cm) of a line across on each piece that it runs over, from its height on one of them."""
    found = {piece.name: height}
    waiting = [piece.name]
    while waiting:
        name = waiting.pop()
        for partner, at in _beyond(context, context.piece(name), found[name]):
            if partner.name not in found:
                found[partner.name] = at
                waiting.append(partner.name)
    return found


def _beyond(context: Context, piece: Piece, height: float) -> Iterator[tuple[Piece, float]]:
    """Yield the pieces that are sewn to one where a line at a height meets its seams, with the line's height on them."""
    for edge in piece.edges:
        below = [edge.curve.start[1] < height, edge.curve.end[1] < height]
        if edge.role not in UPRIGHT or below[0] == below[1]:
            continue
        along = _crossing_of(edge, height)
        for seam in context.garment.seams_along(edge.lineage):
            yield from _partner(context, seam, piece, edge, along)


def _crossing_of(edge: Edge, height: float) -> float:
    """Return how far (cm) along an edge it crosses a height, from its start in ring order."""
    low, high = 0.0, edge.curve.length
    falls = edge.curve.start[1] > edge.curve.end[1]
    while high - low > WITHIN:
        middle = (low + high) / 2
        if (edge.curve.at_distance(middle)[1] > height) == falls:
            low = middle
        else:
            high = middle
    return (low + high) / 2


def _partner(context: Context, seam: Seam, piece: Piece, edge: Edge, along: float) -> Iterator[tuple[Piece, float]]:
    for number, side in enumerate(seam.sides):
        gone = 0.0
        for span in side:
            holder = context.piece_with(span.start)
            stretches = walk(holder, span)
            for stretch in stretches:
                if stretch.edge is edge and holder is piece:
                    at = gone + (along if stretch.forward else edge.curve.length - along)
                    yield from _at(context, seam.sides[1 - number], at)
                gone += stretch.edge.curve.length


def _at(context: Context, side: tuple[Span, ...], along: float) -> Iterator[tuple[Piece, float]]:
    for span in side:
        piece = context.piece_with(span.start)
        long = span_length(piece, span)
        if along <= long:
            stretch, on_edge = place_on(piece, span, along)
            yield piece, stretch.open_curve.at_distance(on_edge)[1]
            return
        along -= long


def slid_below(piece: Piece, height: float, amount: float) -> Piece:
    """Return a piece with what lies below a height (cm) further down by an amount (cm), or up.

    Raises:
        StepRefused: nothing lies on one side of the line, it cuts through a hem or a waist, or too little would be left.
    """
    down = (0.0, -amount)
    slide = Motion.sliding(down)
    below = {name for name, spot in piece.vertices.items() if spot[1] < height}
    if not below or len(below) == len(piece.vertices):
        raise StepRefused(
            f"Nothing of {piece.title.lower()} lies {'below' if not below else 'above'} that line.",
            fix="Point at a place between two corners.",
            where=(piece.name,),
        )
    _refuse_rim(piece, below)
    moves: dict[str, Point] = {name: slide(piece.vertex(name)) for name in below}
    darts = []
    for dart in piece.darts:
        mouth_below = dart.mouth[0] in below
        if mouth_below and dart.pivot[1] < height:
            darts.append(replace(dart, pivot=slide(dart.pivot)))
            continue
        if mouth_below:
            # Along its own axis, so that both legs stay equal.
            shift = _along_axis(piece, dart.mouth, dart.pivot, amount)
            if distance(piece.vertex(dart.mouth[0]), piece.vertex(dart.tip)) + amount < 2 * LEAST_LEFT:
                raise StepRefused(
                    f"{piece.title}: shortening by {cm(-amount, 2)} leaves too little of {dart_words(dart.name)}.",
                    fix="Shorten less, or raise the point of the dart first.",
                    where=(dart.name,),
                )
            moves.update({name: add(piece.vertex(name), shift) for name in dart.mouth})
        elif dart.pivot[1] < height:
            shift = _along_axis(piece, dart.mouth, dart.pivot, -amount)
            darts.append(replace(dart, pivot=add(dart.pivot, shift)))
            continue
        darts.append(dart)
    curves = {}
    room = _room(piece, height)
    for edge in piece.edges:
        if edge.is_leg:
            continue
        crosses = (edge.start in below) != (edge.end in below)
        if crosses and edge.curve.length + amount < LEAST_LEFT:
            raise StepRefused(
                f"{piece.title}: shortening by {cm(-amount, 2)} leaves less than {cm(LEAST_LEFT, 2)} of "
                f"{line_words(edge.lineage)}.",
                fix=f"Shorten by at most {cm(max(edge.curve.length - LEAST_LEFT, 0.0))} there, or elsewhere.",
                where=(edge.lineage,),
            )
        if edge.curve.is_straight:
            continue
        if edge.start in below and edge.end in below:
            curves[edge.start] = edge.curve.mapped(slide)
        elif crosses and (anew := _bridged(edge, height, slide, room)) is not None:
            curves[edge.start] = anew
    new = redrawn(
        piece,
        moves=moves,
        darts=darts,
        curves=curves,
        lines=[
            replace(line, points=tuple(slide(p) for p in line.points)) if line.points[0][1] < height else line
            for line in piece.lines
        ],
        marks=MappingProxyType({k: slide(p) if p[1] < height else p for k, p in piece.marks.items()}),
    )
    diamonds = tuple(_slid_diamond(d, slide, height) for d in piece.diamonds)
    low, high = sorted(piece.grain, key=lambda p: p[1])
    new = replace(new, diamonds=diamonds, grain=(slide(low) if low[1] < height else low, high))
    return replace(new, notches=tuple(_kept_in_place(notch, piece, new, height) for notch in piece.notches))


def _slid_diamond(diamond: Diamond, slide: Motion, height: float) -> Diamond:
    """Return a dart within the piece whose tips and widest place each stay on their side of the line."""
    wide = diamond.left[1] < height
    return replace(
        diamond,
        top=slide(diamond.top) if diamond.top[1] < height else diamond.top,
        bottom=slide(diamond.bottom) if diamond.bottom[1] < height else diamond.bottom,
        left=slide(diamond.left) if wide else diamond.left,
        right=slide(diamond.right) if wide else diamond.right,
    )


def _room(piece: Piece, height: float) -> tuple[float, float]:
    """Return how far (cm) above and below a line across a piece a curve may be drawn anew: not as far as the next level."""
    levels = [
        spot[1] - height for line in piece.lines if line.level in AROUND for spot in (line.points[0], line.points[-1])
    ]
    above, below = (min((abs(y) for y in levels if (y > 0) is up), default=MOST_BESIDE) for up in (True, False))
    return min(above * SHORT_OF, MOST_BESIDE), min(below * SHORT_OF, MOST_BESIDE)


def _bridged(edge: Edge, height: float, slide: Motion, room: tuple[float, float]) -> Curve | None:
    """Return a curved edge cut at a height, its lower part slid, and drawn smooth over the gap or the lap between them.

    Above and below that stretch it stays as it is drawn. None where too little is left of it for that.
    """
    falls = edge.curve.start[1] > edge.curve.end[1]
    curve = edge.curve if falls else edge.curve.reversed()
    along = _crossing_of(replace(edge, curve=curve), height)
    above, below = min(room[0], along * SHORT_OF), min(room[1], (curve.length - along) * SHORT_OF)
    upper, lower = curve.split(along - above)[0], curve.split(along + below)[1].mapped(slide)
    chord = distance(upper.end, lower.start)
    if upper.end[1] - lower.start[1] < LEAST_LEFT:
        return None
    bridge = with_handles(
        upper.end,
        upper.end_direction,
        lower.start,
        scale(lower.start_direction, -1.0),
        start_handle=chord / 3,
        end_handle=chord / 3,
    )
    whole = joined([*upper.cubics(), bridge, *lower.cubics()])
    return whole if falls else whole.reversed()


def _refuse_rim(piece: Piece, below: set[str]) -> None:
    for edge in piece.edges:
        if edge.role in RIMS and (edge.start in below) != (edge.end in below):
            raise StepRefused(
                f"The line across the {piece.title.lower()} would run through {line_words(edge.lineage)}.",
                fix="Choose a place further away from it, or lengthen at the edge itself.",
                where=(edge.lineage,),
            )


def _kept_in_place(notch: Notch, before: Piece, after: Piece, height: float) -> Notch:
    """Return a notch that stays on the paper on which it was made, above the line or below it."""
    try:
        stretch, along = place_on(before, notch.span, notch.distance)
        grown = span_length(after, notch.span) - span_length(before, notch.span)
    except ReferenceLost:
        return notch
    low = stretch.open_curve.at_distance(along)[1] < height
    return (
        notch
        if low == (before.vertex(notch.span.start)[1] < height)
        else replace(notch, distance=notch.distance + grown)
    )


def _along_axis(piece: Piece, mouth: tuple[str, str], pivot: Point, amount: float) -> Vector:
    middle = between(piece.vertex(mouth[0]), piece.vertex(mouth[1]), 0.5)
    return scale(unit(subtract(middle, pivot)), amount)
