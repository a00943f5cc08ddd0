"""Flare the panels: each seam leans out from a level of choice down to the hem, straight from there or like a bell.

Both sides of a seam get the same, so they stay equal: each keeps its length, and the hem runs square to it, which lifts
its corners a little. Flare is fullness, no ease. Common practice, no single source.
"""

from collections.abc import Iterator, Sequence
from dataclasses import replace
from enum import StrEnum

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.blend import with_handles
from izett.geometry.curve import Curve, joined, straight
from izett.geometry.fit import through
from izett.geometry.motion import Motion
from izett.geometry.outline import along_line, gap
from izett.geometry.point import Point, add, distance, left_of, right_of, scale, subtract, turn, unit
from izett.geometry.tolerance import SAME_POINT
from izett.pattern.facts import CENTRES, Role
from izett.pattern.piece import Edge, Piece
from izett.pattern.working import Readable
from izett.pattern.worn import is_sleeve, on_body
from izett.styling.operation import Context, Group, Keeps, Offer, Operation, Outcome, Sum, as_fullness, length
from izett.styling.references import Params, PieceRef
from izett.styling.rims import RimPart, rims
from izett.styling.subject import Kind, Subject
from izett.styling.uprights import Upright, upright_from
from izett.units import whole_millimetres
from izett.wording import cm, named

#: cm. Over so much on either side of the level the seam bends into its flare.
BLEND = 5.0
#: Share of the flared stretch that the bend takes at most.
MOST_BLEND = 0.3
#: cm. A stretch shorter than this is no flare but a corner.
LEAST_FLARED = 5.0
#: Marks on a hem that is no straight line.
MARKS = 5
#: cm. A hem that leaves the straight by no more is plain.
PLAIN = 1.0
#: Stretches of a seam that is drawn like a bell.
BELL_MARKS = 8
#: cm. A level line ends on a seam if it ends so near to it.
ON_SEAM = 0.05
#: A seam may lean out by no more than this of its length.
STEEPEST = 0.8


class Shape(StrEnum):
    """How the seams run from the level to the hem."""

    STRAIGHT = "straight"
    BELL = "bell"


class Flare(Params):
    """How much, from where, and on which panels."""

    hem: float = length(6.0, low=0.5, high=60, meaning="wider at the hem, each seam edge")
    above: float = length(40.0, low=LEAST_FLARED, high=150, meaning="it begins so far above the hem")
    shape: Shape = Field(Shape.STRAIGHT, description="how the seams run to the hem")
    panels: tuple[PieceRef, ...] = Field((), max_length=20, description="on these pieces only (none: on all)")


def apply(params: Flare, context: Context) -> Outcome:
    """Lean each seam edge out below the level, and draw the hem anew."""
    pattern = context.garment
    chosen = [context.piece(name).name for name in params.panels]
    told: list[Sum] = []
    pieces = tuple(p for p in pattern.with_role(Role.HEM) if on_body(p) and p.region and not is_sleeve(p))
    for rim in rims(pattern, Role.HEM, pieces):
        for part in rim:
            if chosen and part.piece not in chosen:
                continue
            piece = pattern.piece(part.piece)
            flared = _flared(piece, part, params)
            if flared is None:
                continue
            pattern = pattern.with_pieces(flared)
            wider = _hem_long(flared, part) - part.length
            told.append(Sum(f"wider at the hem of the {context.called(piece.name)}", wider))
    if not told:
        raise StepRefused(
            "No seam runs down to a hem here.", fix="Choose panels with a seam that ends on the hem.", where=("hem",)
        )
    return Outcome(pattern, tuple(told))


def _hem_long(piece: Piece, part: RimPart) -> float:
    starts = {edge.start for edge in part.edges}
    return sum(edge.curve.length for edge in piece.edges if edge.start in starts)


def _flared(piece: Piece, part: RimPart, params: Flare) -> Piece | None:
    """Return a piece with its seams leaning out; None where only a fold or a centre ends on its hem."""
    around = frozenset(edge.lineage for edge in part.edges)
    uprights = [up for name in (part.start, part.end) if (up := upright_from(piece, name, around)) is not None]
    seams = [up for up in uprights if up.edges[0].role not in CENTRES]
    if not seams:
        return None
    drawn: dict[str, Curve] = {}
    corners: dict[str, tuple[Point, Motion]] = {}
    for up in seams:
        line = _leaning(piece, up, params)
        drawn |= _parted(up, line)
        old = up.curve(up.edges[0])
        way = Motion.turning(turn(old.start_direction, line.start_direction), about=(0.0, 0.0))
        corners[up.corner] = (line.start, way)
    ring = tuple(
        replace(edge, curve=drawn[edge.start])
        if edge.start in drawn
        else replace(edge, curve=_hem(edge, corners))
        if any(edge is own for own in part.edges)
        else edge
        for edge in piece.edges
    )
    return replace(piece, edges=ring)


def _leaning(piece: Piece, up: Upright, params: Flare) -> Curve:
    """Return a seam from the hem up, as long as it was, its part below the level leaning out."""
    whole = up.length
    if params.above > whole:
        raise StepRefused(
            f"{named(up.lineage).capitalize()} of the {piece.title.lower()} is only {cm(whole)} long.",
            fix=f"Let the flare begin at most {cm(whole)} above the hem.",
            where=(up.lineage,),
        )
    if params.hem > STEEPEST * params.above:
        raise StepRefused(
            f"A flare of {cm(params.hem, 2)} over {cm(params.above, 2)} is too steep.",
            fix="Flare less, or begin higher up.",
            where=(up.lineage,),
        )
    line = joined([cubic for edge in up.edges for cubic in up.curve(edge).cubics()])
    lower, upper = line.split(params.above) if params.above < whole else (line, None)
    # Walked upwards in ring order the piece lies to the left, so that the outside is to the right.
    chord = subtract(lower.end, lower.start)
    out = unit(right_of(chord) if up.forward else left_of(chord))
    if params.shape is Shape.BELL:
        marks = [
            add(lower.at_distance(lower.length * share), scale(out, params.hem * (1 - share) ** 2))
            for share in (i / BELL_MARKS for i in range(BELL_MARKS + 1))
        ]
        bell = through(marks, leaving=subtract(marks[1], marks[0]), arriving=lower.end_direction)
        return joined([*_as_long(bell, lower).cubics(), *(upper.cubics() if upper else ())])
    foot = add(lower.start, scale(out, params.hem))
    way = unit(subtract(foot, lower.end))
    if upper is None:
        return straight(add(lower.end, scale(way, lower.length)), lower.end)
    reach = min(BLEND, MOST_BLEND * params.above, MOST_BLEND * upper.length)
    bend_from = add(lower.end, scale(way, reach))
    rest = upper.split(reach)[1]
    bend = with_handles(
        bend_from,
        scale(way, -1.0),
        rest.start,
        scale(rest.start_direction, -1.0),
        start_handle=reach * 2 / 3,
        end_handle=reach * 2 / 3,
    )
    gone = joined([bend]).length + rest.length
    foot = add(bend_from, scale(way, whole - gone))
    return joined([*straight(foot, bend_from).cubics(), bend, *rest.cubics()])


def _as_long(line: Curve, as_before: Curve) -> Curve:
    """Return a line cut off or run on at its start so that it is as long as another."""
    over = line.length - as_before.length
    if over >= 0:
        return line.split(over)[1]
    start = add(line.start, scale(line.start_direction, over))
    return joined([*straight(start, line.start).cubics(), *line.cubics()])


def _parted(up: Upright, line: Curve) -> dict[str, Curve]:
    """Return the new curves of a line's edges by the vertex that they start from: parted where they were."""
    found: dict[str, Curve] = {}
    rest = line
    for number, edge in enumerate(up.edges):
        last = number == len(up.edges) - 1
        own, rest = (rest, rest) if last else rest.split(edge.curve.length)
        # Parted where two of its stretches meet, a line leaves a speck of nothing.
        own = joined([cubic for cubic in own.cubics() if distance(cubic[0], cubic[-1]) > SAME_POINT])
        found[edge.start] = own if up.forward else own.reversed()
    return found


def _hem(edge: Edge, corners: dict[str, tuple[Point, Motion]]) -> Curve:
    """Return one edge of the hem drawn to its corners' new places, as square to the seams as it was."""
    still = Motion.turning(0.0, about=(0.0, 0.0))
    start, first = corners.get(edge.start, (edge.curve.start, still))
    end, last = corners.get(edge.end, (edge.curve.end, still))
    marks = [start]
    chord = (edge.curve.start, edge.curve.end)
    shaped = max(gap(chord, spot) for spot in edge.curve.flattened()) > PLAIN
    # A plain hem is drawn as one sweep; one that was shaped keeps its shape.
    for i in range(1, MARKS + 1) if shaped else ():
        share = i / (MARKS + 1)
        spot = edge.curve.at_distance(edge.curve.length * share)
        moved = [subtract(start, edge.curve.start), subtract(end, edge.curve.end)]
        marks.append(add(spot, add(scale(moved[0], 1 - share), scale(moved[1], share))))
    marks.append(end)
    return through(
        marks,
        leaving=first.direction(edge.curve.start_direction),
        arriving=last.direction(edge.curve.end_direction),
    )


def describe(params: Flare) -> str:
    """Return the step in the maker's words."""
    where = f" on {len(params.panels)} of its panels" if params.panels else ""
    how = "straight" if params.shape is Shape.STRAIGHT else "like a bell"
    return f"Flare{where}: {cm(params.hem, 2)} at each seam edge, {how} from {cm(params.above, 2)} above the hem"


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer flare from the levels that lie over a hem, on all panels, or on the one pointed at."""
    piece = subject.piece
    if subject.kind is not Kind.LINE or piece is None or not on_body(piece) or is_sleeve(piece) or not piece.region:
        return
    if subject.role not in (Role.HEM, Role.SIDE, Role.PANEL) or not any(e.role is Role.HEM for e in piece.edges):
        return
    heights = dict(_heights(piece))
    for level, above in heights.items():
        yield Offer(f"Flare all panels from the {level}", {"hem": 6.0, "above": above})
    if heights:
        above = max(heights.values())
        yield Offer("Flare all panels like a bell", {"hem": 8.0, "above": above, "shape": "bell"})
        yield Offer("Flare this panel only", {"hem": 6.0, "above": above, "panels": [piece.name]})


def _heights(piece: Piece) -> Iterator[tuple[str, float]]:
    """Yield the levels over the hem of a piece with how far above it they meet its seam."""
    hems = [e for e in piece.edges if e.role is Role.HEM]
    around = frozenset(e.lineage for e in hems)
    ups = [up for e in hems for name in (e.start, e.end) if (up := upright_from(piece, name, around)) is not None]
    seam = next((up for up in ups if up.edges[0].role not in CENTRES), None)
    if seam is None:
        return
    if any(e.role is Role.WAIST for e in piece.edges):
        yield "waist", whole_millimetres(seam.length)
    for level in ("waist", "high_hip", "hip", "knee"):
        for line in (line for line in piece.lines if line.level == level):
            gone = _along(seam, (line.points[0], line.points[-1]))
            if gone is not None and gone > LEAST_FLARED:
                yield level.replace("_", " "), whole_millimetres(gone)


def _along(up: Upright, ends: Sequence[Point]) -> float | None:
    """Return how far up a line one of two places lies on it, cm; None where neither does."""
    points = joined([cubic for edge in up.edges for cubic in up.curve(edge).cubics()]).flattened()
    return next((along_line(points, spot) for spot in ends if gap(points, spot) <= ON_SEAM), None)


OPERATION = Operation(
    key="flare",
    title="Flare the panels",
    params=Flare,
    apply=apply,
    describe=describe,
    width=as_fullness,
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.FULLNESS,
    offers=offers,
    blocks=("skirt",),
    examples=(
        {"hem": 6.0, "above": 38.0},
        {"hem": 8.0, "above": 45.0, "shape": "bell"},
        {"hem": 5.0, "above": 30.0, "panels": ("skirt_back",)},
    ),
)
