"""As worn: which parts of a pattern go around the body, and how often each is cut. The one place that knows both.

Half a garment is drawn, and a sleeve stands for two: a piece says how often the garment has it (`Piece.times`), and here
that is added up around the body, or around one arm. Only the outer layer counts: a lining, a facing or a pocket lies on
the same body.
"""

from collections.abc import Iterable, Iterator, Mapping, Sequence
from itertools import pairwise

from izett.errors import ReferenceLost
from izett.geometry.outline import gap
from izett.geometry.point import Point
from izett.pattern.document import PLACES, Seam
from izett.pattern.facts import CENTRE_CORNERS, CENTRE_LINES, Half, Layer, Region, Role, SeamKind, Zone
from izett.pattern.levels import CENTRE, width_at
from izett.pattern.piece import Piece, Span
from izett.pattern.remembered import Remembered
from izett.pattern.sewn import holding, resolved, seam_lengths, span_length
from izett.pattern.working import Readable, Working

#: Levels around a limb: there are two arms.
LIMBS: Mapping[str, int] = {"bicep": 2, "elbow": 2, "wrist": 2}
#: cm. From the bust line to the ribs under it, where that was not measured.
BREADTH = 7.0
#: cm. A change of a level smaller than this is the rounding of a curve drawn anew.
LEAST_CHANGE = 0.02


def on_body(piece: Piece) -> bool:
    """Return whether a piece lies around the body or an arm: linings, facings and pockets lie on what does."""
    return piece.layer is Layer.OUTER


def is_sleeve(piece: Piece) -> bool:
    """Return whether a piece goes around an arm."""
    return piece.region is Region.ARM


def is_body(piece: Piece) -> bool:
    """Return whether a piece is the front or the back of what goes around the body."""
    return on_body(piece) and piece.zone in (Zone.FRONT, Zone.BACK) and not is_sleeve(piece)


def halves_of(pieces: Iterable[Piece]) -> tuple[Half, ...]:
    """Return the halves that some pieces are to be looked at on: both at once, or left and right where they differ."""
    apart = {piece.half for piece in pieces} - {Half.BOTH}
    return (Half.LEFT, Half.RIGHT) if apart else (Half.BOTH,)


def _of_half(pieces: Iterable[Piece], half: Half) -> list[tuple[Piece, float]]:
    """Return the outer pieces of a half with how often they count around a limb: a pair once, a single one once."""
    return [
        (p, p.times / 2 if p.half is Half.BOTH else float(p.times))
        for p in pieces
        if on_body(p) and p.half in (Half.BOTH, half)
    ]


def width(pattern: Readable, level: str, half: Half = Half.LEFT) -> float:
    """Return the garment's width at a level, around in cm, darts shut; 0 where it has none.

    Args:
        pattern: the garment.
        level: `bust`, `bicep`.
        half: of a level around a limb, the limb that is meant, where the two differ.
    """
    spans = pattern.along(level)
    if spans is None:
        pieces = pattern.with_level(level)
        if level in LIMBS:
            return sum(width_at(piece, level) * times for piece, times in _of_half(pieces, half))
        return _drawn(pieces, level)
    try:
        return sum(_worn(pattern, part) for span in spans for part in resolved(pattern, span))
    except ReferenceLost:
        return 0.0


def _drawn(pieces: Iterable[Piece], level: str) -> float:
    return sum(width_at(piece, level) * piece.times for piece in pieces if on_body(piece))


def _worn(pattern: Readable, part: Span) -> float:
    piece = holding(pattern, part.start)
    return (span_length(piece, part) + _on_band(piece, part)) * piece.times


def _on_band(piece: Piece, part: Span) -> float:
    """Return what of a line lies on a front band, cm: where the piece is cut back, its centre is marked beyond its edge."""
    centre = next((line for line in piece.lines if line.level == CENTRE), None)
    if centre is None:
        return 0.0
    ends = [name for name in (part.start, part.end) if piece.corner_at(name) in CENTRE_CORNERS]
    return sum(gap(centre.points, piece.vertex(name)) for name in ends)


def place_width(pattern: Readable, place: str, half: Half = Half.LEFT) -> float:
    """Return the width of a place that is not a level, cm: around the neck or wrist, along a shoulder; 0 where there is none."""
    if place == "neck":
        return _edges(pattern.with_role(Role.NECK), Role.NECK)
    if place == "wrist":
        return _wrists(pattern.with_role(Role.HEM), half)
    try:
        return sum(seam_lengths(pattern, seam)[0] for seam in shoulders(pattern, half)[:1])
    except ReferenceLost:
        return 0.0


def shoulders(pattern: Readable, half: Half = Half.LEFT) -> tuple[Seam, ...]:
    """Return the shoulder seams of a half."""
    return tuple(seam for seam in pattern.seams_of(SeamKind.SHOULDER) if seam.half in (Half.BOTH, half))


def _edges(pieces: Iterable[Piece], role: Role) -> float:
    return sum(e.curve.length * p.times for p in pieces if on_body(p) for e in p.edges if e.role is role)


def _wrists(pieces: Iterable[Piece], half: Half) -> float:
    sleeves = _of_half((piece for piece in pieces if is_sleeve(piece)), half)
    return sum(e.curve.length * times for p, times in sleeves for e in p.edges if e.role is Role.HEM)


def hem_width(pattern: Readable, regions: Iterable[Region] = (Region.UPPER, Region.SKIRT, Region.LEGS)) -> float:
    """Return the length of the hem around the body in cm, of the parts of the body that are named."""
    wanted = tuple(regions)
    return _edges((p for p in pattern.with_role(Role.HEM) if p.region in wanted), Role.HEM)


def edges_around(pattern: Readable) -> int:
    """Return how many seam edges are cut around the body: above the waist, or else of all that lies on it."""
    upright = (Role.SIDE, Role.PANEL, *CENTRE_LINES)
    body = [piece for piece in pattern.pieces if is_body(piece)]
    pieces = [p for p in body if p.region is Region.UPPER] or body
    return sum(
        p.times * len({e.lineage for e in p.edges if e.role in upright and e.lineage != p.on_fold}) for p in pieces
    )


def moved_levels(before: Working, after: Working) -> dict[str, float]:
    """Return by how much (cm, total around) the levels and places have moved between two states of the same work.

    Only what changed is read, so a step does not come to depend on the rest of the garment.
    """
    was, now = after.since(before)
    if not now:
        return {}
    found: dict[str, float] = {}
    for level in after.levels_meant:
        if level in PLACES:
            continue
        spans = before.along(level)
        if spans is None:
            one = LIMBS.get(level, 1)
            _note(found, level, _drawn(was, level) / one, _drawn(now, level) / one)
        elif any(piece.holds(span.start) for piece in was for span in spans):
            _note(found, level, width(before, level), width(after, level))
    _note(found, "neck", _edges(was, Role.NECK), _edges(now, Role.NECK))
    _note(found, "wrist", _wrists(was, Half.LEFT), _wrists(now, Half.LEFT))
    for seam in shoulders(before):
        if any(piece.holds(span.start) for piece in was for span in seam.sides[0]):
            _note(found, "shoulder", place_width(before, "shoulder"), place_width(after, "shoulder"))
    return found


def _note(found: dict[str, float], level: str, was: float, now: float) -> None:
    if was and now and abs(now - was) > LEAST_CHANGE:
        found[level] = now - was


def levels(pattern: Readable) -> list[str]:
    """Return the levels that a pattern has, from lines on its pieces and from spans."""
    drawn = (line.level for piece in pattern.pieces for line in piece.lines)
    return list(dict.fromkeys([*drawn, *pattern.measured_along]))


def height_of(pattern: Readable, body: Mapping[str, float], key: str) -> float | None:
    """Return the height over the waist (cm) at which the body has a level, on an unaltered draft's frame; or None."""
    below = {"stomach": "waist_to_stomach", "high_hip": "waist_to_high_hip", "underbust": "waist_to_underbust"}
    if key in below and below[key] in body:
        return body[below[key]] if key == "underbust" else -body[below[key]]
    if key == "waist":
        return 0.0
    bust = next(
        (line.points[0][1] for p in pattern.with_level("bust") for line in p.lines if line.level == "bust"), None
    )
    if bust is None:
        return None
    # A hand's breadth below the bust line, where it was not measured.
    return bust - BREADTH if key == "underbust" else None


def around(pattern: Readable, height: float) -> float:
    """Return the garment's width at a height, total around in cm, straight across the paper of front and back."""
    return sum(across(piece, height) * piece.times for piece in pattern.pieces if is_body(piece))


def narrowest(pattern: Readable, zone: Zone) -> float:
    """Return how wide the front or the back is where its armholes come nearest to each other, cm, straight across.

    Read on the pieces that run from armhole to centre, or from one armhole to the other; 0 where there are none.
    """
    return sum(_narrowest(piece) * piece.times for piece in pattern.in_zone(zone) if is_body(piece))


_narrow: Remembered[float] = Remembered()


def _narrowest(piece: Piece) -> float:
    return _narrow.of(piece, (), lambda: _from_hole(piece))


def _from_hole(piece: Piece) -> float:
    holes = [edge.curve.flattened() for edge in piece.edges if edge.role is Role.ARMHOLE]
    centre = [edge.curve.flattened() for edge in piece.edges if edge.role in CENTRE_LINES]
    if piece.is_whole:
        # Its other armhole lies on the other side of its middle.
        middle = sum(x for line in holes for x, _ in line) / max(sum(map(len, holes)), 1)
        centre = [line for line in holes if sum(x for x, _ in line) / len(line) < middle]
        holes = [line for line in holes if line not in centre]
    found = (abs(x - at) for line in holes for x, y in line for at in _crossed(centre, y))
    return min(found, default=0.0)


def _crossed(lines: Iterable[Sequence[Point]], height: float) -> Iterator[float]:
    """Yield where lines cross a height: x in cm. Half open, so that a corner at that very height counts once."""
    for line in lines:
        for a, b in pairwise(line):
            if (a[1] <= height) != (b[1] <= height):
                yield a[0] + (b[0] - a[0]) * (height - a[1]) / (b[1] - a[1])


def across(piece: Piece, height: float) -> float:
    """Return how much paper lies straight across a piece at a height, cm; what darts take in is left out."""
    points = piece.outline()
    xs = sorted(_crossed([[*points, points[0]]], height))
    return sum(b - a for a, b in zip(xs[::2], xs[1::2], strict=False)) - sum(
        d.intake for d in piece.diamonds if min(d.top[1], d.bottom[1]) < height < max(d.top[1], d.bottom[1])
    )
