"""Aim a dart: its point moves to where the muslin was marked, or stands further back from it.

By hand: mark the new point, redraw the legs, true them to equal length. A dart on a vertical seam is closed about
the old point and opened by the same angle about the new one, so that legs and seam lengths stay exactly equal; the
seam above it follows by what that takes. A waist dart keeps its upright axis and slides with its mouth. Common
practice, no single source.
"""

from collections.abc import Iterator, Sequence
from dataclasses import replace
from math import cos, sin

from pydantic import Field

from izett.errors import StepRefused
from izett.geometry.motion import Motion
from izett.geometry.point import Point, Vector, add, distance, subtract
from izett.pattern.facts import Role, SeamKind
from izett.pattern.halves import origin
from izett.pattern.levels import straight_across
from izett.pattern.piece import Intake, LevelLine, Piece, dart_angle
from izett.pattern.redraw import redrawn
from izett.pattern.working import Readable
from izett.styling.operation import SHAPES, Context, Group, Keeps, Offer, Operation, Outcome, Sum, length
from izett.styling.references import DartRef, Params
from izett.styling.subject import Subject
from izett.styling.told import ALIKE, told_alike
from izett.styling.words import dart_words, signed
from izett.wording import cm

#: cm. A dart shorter than this is a pucker.
SHORTEST_DART = 3.0
#: cm. A bust line that lies so far under the point, or further, meets the dart.
UNDER = 1e-3


class AimDart(Params):
    """Which dart, and how its point moves."""

    dart: DartRef = Field(description="the dart, or all of a family")
    outwards: float = length(0.0, low=-4, high=4, meaning="towards the side (−: towards the centre)")
    upwards: float = length(0.0, low=-4, high=4, meaning="up (−: down)")
    set_back: float = length(0.0, low=-3, high=4, meaning="how much further the tip stays from the point (−: nearer)")


def apply(params: AimDart, context: Context) -> Outcome:
    """Move the point of each dart meant."""
    piece, darts = context.darts(params.dart)
    aimed = piece
    shift = (params.outwards, params.upwards)
    aims = {dart.name: add(dart.pivot, shift) for dart in darts}
    bust = next((dart for dart in darts if dart.family == "bust"), None)
    apexes = [key for key in piece.marks if origin(key).name == "apex"]
    if bust is not None and apexes:
        own = min(apexes, key=lambda key: distance(piece.marks[key], bust.pivot))
        piece = replace(piece, marks={**piece.marks, own: add(piece.marks[own], shift)})
    for name, aim in aims.items():
        dart = piece.dart(name)
        if _opens_on_waist(piece, dart):
            piece = _slid(piece, dart, shift)
        elif aim != dart.pivot:
            piece = _reopened(piece, dart, aim)
        piece = _set_back(piece, name, params.set_back)
    if bust is not None and shift != (0.0, 0.0):
        piece = _with_bust_line(piece, [piece.dart(name) for name in aims])
    return Outcome(context.garment.with_pieces(piece), _told(aimed, darts, piece))


def _behind(piece: Piece, dart: Intake) -> float:
    """Return how far (cm) a dart's tip stays from its point."""
    return distance(piece.vertex(dart.tip), dart.pivot)


def _told(piece: Piece, before: Sequence[Intake], after: Piece) -> tuple[Sum, ...]:
    """Return how the point and the tip of each dart have moved; what has not is not told."""
    moved = {dart.name: subtract(after.dart(dart.name).pivot, dart.pivot) for dart in before}
    back = {dart.name: _behind(after, after.dart(dart.name)) - _behind(piece, dart) for dart in before}
    ways = (
        ("towards the side", {dart_words(name): x for name, (x, _) in moved.items()}),
        ("up", {dart_words(name): y for name, (_, y) in moved.items()}),
        ("further back", {dart_words(name): by for name, by in back.items()}),
    )
    return tuple(line for what, by in ways for line in told_alike(what, by) if abs(line.value) > ALIKE)


def _opens_on_waist(piece: Piece, dart: Intake) -> bool:
    return any(edge.end == dart.mouth[0] and edge.role is Role.WAIST for edge in piece.edges)


def _with_bust_line(piece: Piece, darts: Sequence[Intake]) -> Piece:
    """Return the piece with its bust line drawn anew across the darts as they lie now."""
    parts = [line.points for line in piece.lines if line.level == "bust"]
    if not parts or piece.is_whole:
        return piece
    start, way, pivot = parts[0][0], subtract(parts[0][1], parts[0][0]), darts[0].pivot
    if start[1] < pivot[1] - UNDER or any(_opens_on_waist(piece, dart) for dart in darts):
        anew = straight_across(piece, start, way)
    else:
        # Over the point no dart is met: what lies beyond it has turned with the side all the same.
        over = (pivot[0], start[1])
        turned = Motion.turning(sum(dart_angle(piece, dart) for dart in darts), about=pivot)
        rest = straight_across(piece, turned(over), turned.direction(way))
        anew = [(start, over), *rest] if rest else []
    others = (line for line in piece.lines if line.level != "bust")
    return replace(piece, lines=(*(LevelLine("bust", part) for part in anew), *others)) if anew else piece


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
    return redrawn(piece, moves=moves, darts=darts)


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
