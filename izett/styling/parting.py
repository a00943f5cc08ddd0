"""Cutting a piece along a style line: where the line meets the outline, what it takes up, and the seam that it makes."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from izett.errors import ReferenceLost, StepRefused
from izett.geometry.curve import Curve
from izett.geometry.outline import runs_inside
from izett.geometry.point import Point, Vector, add, between, distance, dot, left_of, scale, subtract, unit
from izett.pattern.document import Seam
from izett.pattern.facts import CENTRES, Corner, Role, SeamKind
from izett.pattern.naming import readable
from izett.pattern.paper import Gate, Label, between_gates, cut, gate_of, parted_at
from izett.pattern.piece import Diamond, Edge, Piece, Span, bowed
from izett.pattern.sewn import holding
from izett.pattern.working import Working
from izett.styling.operation import Context
from izett.styling.references import PointRef
from izett.styling.style_curve import Corners, both_lines
from izett.styling.words import line_words
from izett.wording import cm

#: cm. A line that ends so near to a dart's mouth ends in the dart, and takes it up.
IN_DART = 1.5
#: cm. A line ends at least so far from a corner that it does not take up.
NEAREST_CORNER = 0.5
#: cm. Over the bust, the longer of two panels is eased to the other by at most this; common practice.
MOST_OVER_BUST = 0.6
#: cm. Between its ends a style line stays so far from the outline: narrower paper cannot be sewn.
CLEAR = 0.2


@dataclass(frozen=True)
class Ready:
    """A ring parted for a cut, with the gates where the cut begins and ends."""

    piece: Piece
    edges: list[Edge]
    gates: tuple[Gate, Gate]


def ready_between(context: Context, start: PointRef, end: PointRef) -> Ready:
    """Return a piece made ready to be cut between two places; a dart near to a place is taken up.

    Raises:
        StepRefused: the places lie on two pieces, on one line that cannot be cut, or too near to a corner.
        ReferenceLost: a place is not there.
    """
    piece, first_edge, first_along = context.place(start)
    other, second_edge, second_along = context.place(end)
    if piece is not other:
        raise StepRefused(
            f"{line_words(start.along, begins=True)} lies on {piece.title.lower()}, "
            f"{line_words(end.along)} on {other.title.lower()}.",
            fix="Choose two places on one piece.",
            where=(start.along, end.along),
        )
    spots = [
        (first_edge, first_along, (context.named("line_start"), context.named("line_start_beyond"))),
        (second_edge, second_along, (context.named("line_end"), context.named("line_end_beyond"))),
    ]
    edges = list(piece.edges)
    gates: list[Gate] = []
    # On one edge the later place first: parting keeps what lies before it.
    order = sorted((0, 1), key=lambda i: (piece.edges.index(spots[i][0]), spots[i][1]), reverse=True)
    found: dict[int, Gate] = {}
    for i in order:
        edge, along, names = spots[i]
        dart = _dart_near(piece, edge, along)
        if dart is not None:
            found[i] = gate_of(piece.dart(dart))
            continue
        if min(along, edge.curve.length - along) < NEAREST_CORNER:
            raise StepRefused(
                f"The place on {line_words(edge.lineage)} is closer than {cm(NEAREST_CORNER, 2)} to a corner.",
                fix="Choose a place further along.",
                where=(edge.lineage,),
            )
        current = next(e for e in edges if e.start == edge.start)
        edges = parted_at(edges, current, along, names)
        found[i] = Gate(*names)
    gates = [found[0], found[1]]
    if gates[0] == gates[1]:
        raise StepRefused("The line begins and ends in one dart.", fix="Choose another end.", where=(start.along,))
    return Ready(piece, edges, (gates[0], gates[1]))


def _dart_near(piece: Piece, edge: Edge, along: float) -> str | None:
    for dart in piece.darts:
        if edge.end == dart.mouth[0] and edge.curve.length - along < IN_DART:
            return dart.name
        if edge.start == dart.mouth[1] and along < IN_DART:
            return dart.name
    return None


@dataclass(frozen=True, slots=True)
class Naming:
    """What a cut makes: the seam's name, the title and the short name of the part cut off, what its new edges are."""

    seam: str
    title: str
    called: str
    role: Role = Role.PANEL
    ease: tuple[float, float] = (0.0, 0.0)
    lies: str = ""


@dataclass(frozen=True, slots=True)
class Parted:
    """A piece cut in two: the garment after it, the seam between the parts, the name of the part cut off, the new lines."""

    garment: Working
    seam: Seam
    cut_off: str
    lines: frozenset[str]


def _with_ends(garment: Working, ready: Ready) -> Working:
    """Return the garment with the ends of a new line known as such, where they are corners of its own."""
    ends = {
        name: corner
        for gate, corner in zip(ready.gates, (Corner.LINE_START, Corner.LINE_END), strict=True)
        if not gate.inwards
        for name in (gate.arrive, gate.leave)
    }
    for name, corner in ends.items():
        piece = garment.holding(name)
        garment = garment.with_pieces(replace(piece, corners={**piece.corners, name: corner}))
    return garment


def parted(
    context: Context, ready: Ready, naming: Naming, *, bend: float = 0.0, bow: float = 0.0, by: Diamond | None = None
) -> Parted:
    """Cut a piece made ready; the part with the centre, or else the larger one, keeps the piece's name.

    Args:
        context, ready: the step, and the piece with its gates.
        naming: of what is made.
        bend: how far (cm) the line bulges, to the left when walked from the first gate.
        bow: how far (cm) its first stretch, from the first gate inwards, bulges towards the centre.
        by: a dart within the piece that the line takes up.
    """
    one, two = ready.gates
    spots = corners_of(ready.edges)
    runs = (between_gates(ready.edges, one.leave, two.arrive), between_gates(ready.edges, two.leave, one.arrive))
    centre = 0 if _is_main(runs[0], runs[1]) else 1
    # As each part has the line: of the first from the second gate to the first, of the other the other way.
    corners = (
        [spots[two.arrive], *two.inwards, *reversed(one.inwards), spots[one.leave]],
        [spots[one.arrive], *one.inwards, *reversed(two.inwards), spots[two.leave]],
    )
    if by is not None:
        corners = (
            _with_diamond(corners[0], by, spots[two.arrive], towards_centre=centre == 0),
            _with_diamond(corners[1], by, spots[one.arrive], towards_centre=centre == 1),
        )
    roles = {edge.start: edge for edge in ready.edges if edge.role in CENTRES}
    square = tuple(
        _inwards(roles[gate.leave]) if gate.leave in roles and not gate.inwards else None for gate in (two, one)
    )
    if len(corners[0]) == 2 and len(corners[1]) == 2:
        lines = _plain(corners[0], bend, (square[0], square[1]))
    else:
        lines = both_lines(
            Corners(tuple(corners[0]), bow if centre == 0 else -bow),
            Corners(tuple(corners[1]), bow if centre == 1 else -bow, bowed_first=True),
        )
    outline = [point for edge in ready.edges for point in edge.curve.flattened()[:-1]]
    if not any(gate.inwards for gate in ready.gates) and not runs_inside(outline, lines[0].flattened(), clear=CLEAR):
        raise StepRefused(
            f"The line would leave the paper of {ready.piece.title.lower()}.",
            fix="Bend it less or the other way, or choose other ends.",
            where=(ready.piece.name,),
        )
    uid = context.uid
    labels = [
        Label(ready.piece.name, ready.piece.title, f"{uid}.{naming.seam}"),
        Label(context.named(naming.called), naming.title, f"{uid}.{naming.seam}_edge"),
    ]
    pattern = cut(
        context.garment,
        ready.piece,
        ready.edges,
        ready.gates,
        lines,
        (labels[centre], labels[1 - centre]),
        role=naming.role,
    )
    lineages = (labels[centre].lineage, labels[1 - centre].lineage)
    # Both sides are named from the second gate on: the first part has the line that way round, the other against it.
    sides = (Span(two.arrive, one.leave, lineages[0]), Span(two.leave, one.arrive, lineages[1]))
    # The shorter side is the first, so that what the other has more is ease on it.
    lengths = tuple(line.length for line in lines)
    order = (0, 1) if lengths[0] <= lengths[1] else (1, 0)
    words = ("centre", "side") if order[0] == centre else ("side", "centre")
    seam = Seam(context.named(naming.seam), ((sides[order[0]],), (sides[order[1]],)), naming.ease, naming.lies, words)
    return Parted(_with_ends(pattern.adding(seams=(seam,)), ready), seam, labels[1].name, frozenset(lineages))


def left_off(garment: Working, gone: Piece) -> Working:
    """Return the garment without a part that was cut off: what was sewn to it is not sewn there any more."""
    lost = {edge.start for edge in gone.edges} | {edge.end for edge in gone.edges}
    garment = garment.with_parts(gone)
    for seam in dict.fromkeys(s for e in gone.edges for s in garment.seams_along(e.lineage)):
        left = _left_of(seam, lost)
        garment = garment.without_seam(seam) if left is None else garment.with_seam(left)
    for level, spans in garment.measured_along.items():
        if any({span.start, span.end} & lost for span in spans):
            garment = garment.with_along({level: None})
    partners = {name: garment.link(name) for name in lost}
    return garment.with_links({n: None for k, v in partners.items() if v is not None for n in (k, v)})


def _left_of(seam: Seam, lost: set[str]) -> Seam | None:
    """Return what is left of a seam, or None: where one side has lost a part, the partner is no longer sewn there."""

    def stays(span: Span) -> bool:
        return not {span.start, span.end} & lost

    if all(stays(span) for side in seam.sides for span in side):
        return seam
    if len(seam.sides[0]) == len(seam.sides[1]):
        pairs = [(a, b) for a, b in zip(*seam.sides, strict=True) if stays(a) and stays(b)]
        if pairs:
            return replace(seam, sides=(tuple(a for a, _ in pairs), tuple(b for _, b in pairs)))
        return None
    first, second = (tuple(span for span in side if stays(span)) for side in seam.sides)
    return replace(seam, sides=(first, second)) if first and second else None


def corners_of(edges: Sequence[Edge]) -> dict[str, Point]:
    """Return the corners of a ring, those that a cut will part included."""
    return {edge.start: edge.curve.start for edge in edges} | {edge.end: edge.curve.end for edge in edges}


def _is_main(run: Sequence[Edge], other: Sequence[Edge]) -> bool:
    held = (any(edge.role in CENTRES for edge in run), any(edge.role in CENTRES for edge in other))
    if held[0] != held[1]:
        return held[0]
    return _length(run) >= _length(other)


def _length(run: Sequence[Edge]) -> float:
    return sum(edge.curve.length for edge in run)


def _with_diamond(corners: list[Point], by: Diamond, start: Point, *, towards_centre: bool) -> list[Point]:
    """Return the corners of a cut with those of a dart within the piece, on this part's side of it."""
    inner = min((by.left, by.right), key=lambda p: abs(p[0]))
    outer = by.right if inner is by.left else by.left
    through = [by.top, inner if towards_centre else outer, by.bottom]
    if distance(start, by.bottom) < distance(start, by.top):
        through.reverse()
    # After what lies nearer to the start of the walk, before what lies nearer to its end.
    index = next(
        (i for i in range(1, len(corners)) if distance(start, corners[i]) > distance(start, through[0])),
        len(corners) - 1,
    )
    return [*corners[:index], *through, *corners[index:]]


def _inwards(edge: Edge) -> Vector:
    return left_of(edge.curve.start_direction)


#: A line that leaves the centre square keeps this share of its length before it turns to its other end.
SQUARE_FOR = 0.4


def _plain(corners: list[Point], bend: float, square: tuple[Vector | None, Vector | None]) -> tuple[Curve, Curve]:
    """Return a line without corners as both parts have it; where it meets the centre it leaves it square."""
    a, b = corners
    line = bowed(a, b, -bend)
    if any(square):
        chord = unit(subtract(b, a))
        points = line.points if len(line.points) == 4 else (a, between(a, b, 1 / 3), between(a, b, 2 / 3), b)
        room = SQUARE_FOR * distance(a, b)
        second = add(a, scale(square[0], room)) if square[0] and dot(square[0], chord) > 0 else points[1]
        third = add(b, scale(square[1], room)) if square[1] and dot(square[1], chord) < 0 else points[2]
        line = Curve((a, second, third, b))
    return line, line.reversed()


def seam_named(context: Context, name: str) -> Seam:
    """Return a seam of the garment by name, with both ends of each of its spans there.

    Raises:
        ReferenceLost: there is none, or it has lost an end.
    """
    seam = context.garment.find_seam(name)
    if seam is None:
        have = ", ".join(readable(seam.name) for seam in context.garment.seams)
        raise ReferenceLost(
            f"The seam {readable(name)} that this step names is gone.",
            fix=f"Switch on the step that makes it, or choose another. Seams now: {have}.",
            where=(name,),
        )
    return _whole(context, seam)


def seam_of(context: Context, kind: SeamKind) -> Seam:
    """Return the first seam of a kind, with both ends of each of its spans there.

    Raises:
        ReferenceLost: there is none, or it has lost an end.
    """
    for seam in context.garment.seams_of(kind):
        return _whole(context, seam)
    raise StepRefused(
        f"The pattern has no {kind.value} seam.", fix="Add the piece that is sewn there first.", where=(kind.value,)
    )


def _whole(context: Context, seam: Seam) -> Seam:
    for span in (*seam.sides[0], *seam.sides[1]):
        holding(context.garment, span.start)
    return seam
