"""Aim a dart: its point moves to where the muslin was marked, or stands further back from it.

By hand: mark the new point, redraw the legs, true them to equal length. A dart on a vertical seam is closed about
the old point and opened by the same angle about the new one, so that legs and seam lengths stay exactly equal; the
seam above it follows by what that takes. A waist dart keeps its upright axis and slides with its mouth. Common
practice, no single source.
"""

from collections.abc import Iterator
from dataclasses import replace
from math import cos, sin

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.curve import Curve
from izett.geometry.point import Point, Vector, add, distance, scale, subtract, unit
from izett.pattern.facts import Role, SeamKind
from izett.pattern.halves import origin
from izett.pattern.piece import Intake, LevelLine, Piece, dart_angle
from izett.pattern.redraw import redrawn
from izett.pattern.working import Readable
from izett.styling.operation import SHAPES, Context, Group, Keeps, Offer, Operation, Outcome, Sum, length
from izett.styling.references import DartRef, Params
from izett.styling.subject import Subject
from izett.styling.words import dart_words, signed
from izett.wording import cm

#: cm. A dart shorter than this is a pucker.
SHORTEST_DART = 3.0
#: cm. A level line ends on a seam if it ends within this of it.
ON_LINE = 1e-3


class AimDart(Params):
    """Which dart, and how its point moves."""

    dart: DartRef = Field(description="the dart, or all of a family")
    outwards: float = length(0.0, low=-4, high=4, meaning="towards the side (−: towards the centre)")
    upwards: float = length(0.0, low=-4, high=4, meaning="up (−: down)")
    set_back: float = length(0.0, low=-3, high=4, meaning="how much further the tip stays from the point (−: nearer)")


def apply(params: AimDart, context: Context) -> Outcome:
    """Move the point of each dart meant."""
    piece, darts = context.darts(params.dart)
    shift = (params.outwards, params.upwards)
    aims = {dart.name: add(dart.pivot, shift) for dart in darts}
    bust = next((dart for dart in darts if dart.family == "bust"), None)
    apexes = [key for key in piece.marks if origin(key).name == "apex"]
    if bust is not None and apexes:
        own = min(apexes, key=lambda key: distance(piece.marks[key], bust.pivot))
        piece = replace(
            piece,
            marks={**piece.marks, own: add(piece.marks[own], shift)},
            lines=_parted(piece.lines, darts[0].pivot, params.outwards),
        )
    for name, aim in aims.items():
        dart = piece.dart(name)
        if _opens_on_waist(piece, dart):
            piece = _slid(piece, dart, shift)
        elif aim != dart.pivot:
            piece = _reopened(piece, dart, aim)
        piece = _set_back(piece, name, params.set_back)
    sums = (("towards the side", params.outwards), ("up", params.upwards), ("further back", params.set_back))
    return Outcome(context.garment.with_pieces(piece), tuple(Sum(what, by) for what, by in sums if by))


def _opens_on_waist(piece: Piece, dart: Intake) -> bool:
    return any(edge.end == dart.mouth[0] and edge.role is Role.WAIST for edge in piece.edges)


def _parted(lines: tuple[LevelLine, ...], pivot: Point, outwards: float) -> tuple[LevelLine, ...]:
    """Return the level lines parted under the new point of the dart, their height and total length kept.

    The inner part ends, and the outer part begins, where the new slash will cross them.
    """
    parted: list[LevelLine] = []
    for line in lines:
        if pivot in line.points[1:-1]:
            at = line.points.index(pivot)
            parted += [replace(line, points=line.points[: at + 1]), replace(line, points=line.points[at:])]
        else:
            parted.append(line)
    if len(parted) < 2:
        return lines
    inner, outer = parted[0], parted[1]
    along_inner = unit(subtract(inner.points[-1], inner.points[-2]))
    along_outer = unit(subtract(outer.points[1], outer.points[0]))
    return (
        replace(inner, points=(*inner.points[:-1], add(inner.points[-1], scale(along_inner, outwards)))),
        replace(outer, points=(add(outer.points[0], scale(along_outer, outwards)), *outer.points[1:])),
        *parted[2:],
    )


def _slid(piece: Piece, dart: Intake, shift: Vector) -> Piece:
    moves = {name: add(piece.vertex(name), (shift[0], 0.0)) for name in dart.mouth}
    moved = replace(dart, pivot=add(dart.pivot, shift))
    return redrawn(piece, moves=moves, darts=[moved if d.name == dart.name else d for d in piece.darts])


def _reopened(piece: Piece, dart: Intake, aim: Point) -> Piece:
    """Close about the old point, open about the new: what follows on the dart's line slides by a little."""
    angle = dart_angle(piece, dart)
    x, y = subtract(aim, dart.pivot)
    # (1 − R(angle)) · shift, with R the turn that opens the dart
    slide = (x - x * cos(angle) + y * sin(angle), y - x * sin(angle) - y * cos(angle))
    following = _until_corner(piece, dart.mouth[1])
    moves = {name: add(piece.vertex(name), slide) for name in following}
    darts = [
        replace(d, pivot=aim)
        if d.name == dart.name
        else replace(d, pivot=add(d.pivot, slide))
        if d.mouth[0] in following
        else d
        for d in piece.darts
    ]
    sliding = [e.curve for e in piece.edges if e.start in following and e.end in following and not e.is_leg]
    lines = [_slid_line(line, slide) if _ends_on(line, sliding) else line for line in piece.lines]
    return redrawn(piece, moves=moves, darts=darts, lines=lines)


def _until_corner(piece: Piece, start: str) -> list[str]:
    """Return the vertices from `start` to the end of the line on which it lies, those of darts on the way included."""
    index = next(i for i, edge in enumerate(piece.edges) if edge.start == start)
    ring = [*piece.edges[index:], *piece.edges[:index]]
    lineage = ring[0].lineage
    found = [start]
    for i, edge in enumerate(ring):
        if edge.is_leg:
            continue
        if edge.lineage != lineage:
            break
        if i and ring[i - 1].is_leg:
            found.append(edge.start)
        found.append(edge.end)
    return found


def _ends_on(line: LevelLine, curves: list[Curve]) -> bool:
    end = line.points[-1]
    return any(
        abs(distance(curve.start, end) + distance(end, curve.end) - distance(curve.start, curve.end)) < ON_LINE
        for curve in curves
    )


def _slid_line(line: LevelLine, slide: Vector) -> LevelLine:
    return replace(line, points=tuple(add(point, slide) for point in line.points))


def _set_back(piece: Piece, name: str, more: float) -> Piece:
    dart = piece.dart(name)
    new = dart.set_back + more
    legs_length = distance(piece.vertex(dart.mouth[0]), dart.pivot) - new
    if legs_length < SHORTEST_DART:
        raise StepRefused(
            f"{dart_words(name, begins=True)} would be only {cm(max(legs_length, 0))} long.",
            fix=f"Leave it at least {cm(SHORTEST_DART, 0)}.",
            where=(name,),
        )
    changed = replace(dart, set_back=max(new, 0.0))
    return redrawn(piece, moves={}, darts=[changed if d.name == name else d for d in piece.darts])


def describe(params: AimDart) -> str:
    """Return the step in the maker's words."""
    parts = []
    if params.outwards:
        parts.append(signed(params.outwards, "outwards", "inwards"))
    if params.upwards:
        parts.append(signed(params.upwards, "up", "down"))
    if params.set_back:
        parts.append(signed(params.set_back, "set back", "set nearer by"))
    return f"Aim {dart_words(params.dart)}: " + (", ".join(parts) or "as it is")


def offers(subject: Subject, _pattern: Readable) -> Iterator[Offer]:
    """Offer to aim a dart, or to set its tip back."""
    if subject.dart is not None:
        yield Offer("Aim its point elsewhere", {"dart": subject.name, "outwards": 0.5, "upwards": -0.5})
        yield Offer("Set its tip back", {"dart": subject.name, "set_back": 0.5})


OPERATION = Operation(
    key="aim_dart",
    title="Aim a dart",
    params=AimDart,
    apply=apply,
    describe=describe,
    sections=SHAPES,
    moves=(
        SeamKind.CAP,
        SeamKind.WAIST,
    ),
    keeps=frozenset({Keeps.SEAMS}),
    group=Group.DARTS,
    offers=offers,
    examples=(
        {"dart": "front.bust", "outwards": 0.6, "upwards": -1.0},
        {"dart": "front.bust", "set_back": 0.8},
        {"dart": "front.waist_dart", "outwards": 0.5, "upwards": -1.0},
    ),
)
