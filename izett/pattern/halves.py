"""The two halves of the body: a recipe describes one; here what differs between them becomes a left and a right.

Both halves are worked in the same frame, drawn the same way round, and use the same names. Laid together, what came
out equal stays one: a pair, or a piece on the fold. What differs becomes a left and a right piece; a piece on the fold one
whole piece. The right half's own things are then told apart by a mark that no step's name can have.
"""

from collections import ChainMap
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, replace
from types import MappingProxyType

from izett.geometry.curve import straight
from izett.geometry.motion import Motion
from izett.geometry.point import Point, cross, distance, dot, scale, subtract, turn, unit
from izett.geometry.tolerance import SAME_POINT
from izett.pattern.copies import called, flipped, moved
from izett.pattern.document import Accepted, Opening, Pattern, Seam
from izett.pattern.facts import Half
from izett.pattern.paper import between_gates
from izett.pattern.piece import Edge, Piece, Span, closed, in_ring_order
from izett.pattern.remembered import Remembered

#: Begins the names of the right half's own things; a step's name cannot hold it.
RIGHT_MARK = "right:"
#: Ends the title of a piece that two unlike halves were laid together to.
WHOLE = ", whole"
#: cm. Folds that leave one line by more are laid together first.
ONE_LINE = 1e-6

#: Levels and places that each half has one of.
ONE_OF_TWO = frozenset({"bicep", "elbow", "wrist", "shoulder"})

Rename = Callable[[str], str]


def of_right(name: str) -> str:
    """Return the name of the right half's own thing."""
    return f"{RIGHT_MARK}{name}"


@dataclass(frozen=True, slots=True)
class Origin:
    """What a thing of the garment laid together is called on its half."""

    half: Half
    name: str


def origin(name: str) -> Origin:
    """Return the half that a name is of, and what the thing is called there."""
    own = name.removeprefix(RIGHT_MARK)
    return Origin(Half.RIGHT if own != name else Half.BOTH, own)


def marked(piece: Piece, mark: str) -> tuple[Point, ...]:
    """Return the places of a mark on a piece: one, or one on each half of a whole piece."""
    return tuple(place for key, place in piece.marks.items() if origin(key).name == mark)


def joined_on_fold(left: Piece, right: Piece, rename: Rename) -> Piece:
    """Return one whole piece of two halves that lie on the fold, the right one turned over and laid against it.

    Where one half's fold is longer, its end runs on along the centre to the other's: that is how it would be cut.

    Args:
        left, right: the two halves, drawn alike.
        rename: what the right half's things are called.
    """
    mine, theirs = _fold(left), _fold(right)
    axis = (mine[0].curve.start, mine[-1].curve.end)
    own_axis = (theirs[0].curve.start, theirs[-1].curve.end)
    turned = called(flipped(right, own_axis), rename)
    turned = _laid(turned, own_axis, axis)
    start, end = mine[0].start, mine[-1].end
    far_start, far_end = rename(theirs[0].start), rename(theirs[-1].end)
    own = between_gates(left.edges, end, start)
    added = between_gates(turned.edges, far_start, far_end)
    names: dict[str, str] = {}
    ring: list[Edge] = [*own]
    ring += _bridge(mine[0], (start, own[-1].curve.end), (far_start, added[0].curve.start), names)
    ring += added
    ring += _bridge(mine[0], (far_end, added[-1].curve.end), (end, own[0].curve.start), names)
    ring = [replace(e, start=names.get(e.start, e.start), end=names.get(e.end, e.end)) for e in ring]
    aliases = {**left.aliases, **{k: names.get(v, v) for k, v in turned.aliases.items()}, **names}

    def on_whole(span: Span) -> Span:
        return Span(names.get(span.start, span.start), names.get(span.end, span.end), span.along)

    return replace(
        left,
        on_fold=None,
        edges=closed(ring),
        darts=(*left.darts, *turned.darts),
        diamonds=(*left.diamonds, *turned.diamonds),
        marks=MappingProxyType(
            {**{of_right(k): p for k, p in zip(right.marks, turned.marks.values(), strict=True)}, **left.marks}
        ),
        lines=(*left.lines, *turned.lines),
        # The fold is no line of the whole piece: nothing can be notched on it any more.
        notches=tuple(
            replace(n, span=on_whole(n.span)) if n in turned.notches else n
            for n in (*left.notches, *turned.notches)
            if n.span.along not in (left.on_fold, rename(right.on_fold or ""))
        ),
        aliases=MappingProxyType(aliases),
        corners=MappingProxyType({**turned.corners, **left.corners}),
    )


def _fold(piece: Piece) -> list[Edge]:
    """Return the edges on the fold in ring order, wherever the ring begins."""
    return in_ring_order(edge for edge in piece.edges if edge.lineage == piece.on_fold)


def _laid(piece: Piece, own: tuple[Point, Point], to: tuple[Point, Point]) -> Piece:
    """Return a turned half with its fold on the line of the other's; where both are one line it stays."""
    along = unit(subtract(to[1], to[0]))
    if all(abs(cross(along, subtract(point, to[0]))) <= ONE_LINE for point in own):
        return piece
    turned = Motion.turning(turn(subtract(own[1], own[0]), along), about=own[1])
    # The lower ends stay at one height: there the halves hang together.
    off = subtract(to[1], own[1])
    beside = subtract(off, scale(along, dot(off, along)))
    return moved(piece, turned.then(Motion.sliding(beside)))


def _bridge(fold: Edge, a: tuple[str, Point], b: tuple[str, Point], names: dict[str, str]) -> list[Edge]:
    """Return the edge along the centre from one half's end of the fold to the other's; none where they are one place."""
    if distance(a[1], b[1]) <= SAME_POINT:
        # One corner, known by the left half's name.
        mine, theirs = (a, b) if a[0] not in names and not a[0].startswith(RIGHT_MARK) else (b, a)
        names[theirs[0]] = mine[0]
        return []
    return [Edge(fold.role, fold.lineage, a[0], b[0], straight(a[1], b[1]))]


def joined(left: Pattern, right: Pattern) -> Pattern:
    """Return both halves as one garment: what came out equal once, what differs as a left and a right.

    Where both are the same object that is the garment.
    """
    if left is right:
        return left
    return _joined.of(left, (), lambda: _laid_together(left, right), beside=right)


_joined: Remembered[Pattern] = Remembered(most=64)


def _laid_together(left: Pattern, right: Pattern) -> Pattern:
    pairs = _paired(left, right)
    apart = {piece.name for piece in right.pieces if _apart(pairs, piece)}
    own = {name for piece in right.pieces if piece.name in apart for name in _names_on(piece)}

    def rename(name: str) -> str:
        return of_right(name) if name in own else name

    pieces = [part for mine, theirs in pairs for part in _together(mine, theirs, rename)]
    seams = _sorted_out(left.seams, right.seams, lambda seam: _seam(seam, rename))
    intent = replace(
        left.intent,
        ease=MappingProxyType(_over_both(left.intent.ease, right.intent.ease)),
        fullness=MappingProxyType(_over_both(left.intent.fullness, right.intent.fullness)),
        along={
            level: tuple(dict.fromkeys((*left.intent.along.get(level, ()), *(_span(s, rename) for s in spans))))
            for level, spans in {**left.intent.along, **right.intent.along}.items()
        },
    )
    titles = {**left.titles, **right.titles}
    told_apart = own | {origin(seam.name).name for seam in seams if seam.half is Half.RIGHT}
    titles |= {of_right(name): f"right {titles[name]}" for name in told_apart if name in titles}
    titles |= {name: f"left {title}" for name, title in left.titles.items() if name in told_apart}
    return replace(
        left,
        pieces=tuple(pieces),
        seams=tuple(seams),
        intent=intent,
        links=MappingProxyType({**left.links, **{rename(k): rename(v) for k, v in right.links.items()}}),
        openings=tuple(_openings(left.openings, right.openings, rename)),
        accepted=tuple(dict.fromkeys((*left.accepted, *right.accepted))),
        titles=MappingProxyType(titles),
    )


def doubled(pattern: Pattern, like: Pattern) -> Pattern:
    """Return a pattern with its pieces as a left and a right, or whole, wherever another has them so.

    The right halves lie where the other's lie, so that line can be laid on line.
    """
    return replace(pattern, pieces=tuple(part for piece in pattern for part in _doubled(piece, pattern, like)))


def _doubled(piece: Piece, pattern: Pattern, like: Pattern) -> Iterable[Piece]:
    whole, right = like.find_piece(piece.name), like.find_piece(of_right(piece.name))
    if right is not None and pattern.find_piece(right.name) is None:
        return (_left(piece), replace(called(flipped(piece, right.grain), of_right), name=right.name, half=Half.RIGHT))
    if piece.on_fold and whole is not None and any(origin(edge.lineage).half is Half.RIGHT for edge in whole.edges):
        return (joined_on_fold(piece, piece, of_right),)
    return (piece,)


def _over_both(left: Mapping[str, float], right: Mapping[str, float]) -> dict[str, float]:
    """Return what is meant at each level over both halves: around the body half of each half's, around a limb its own."""
    found: dict[str, float] = {}
    for level in dict.fromkeys((*left, *right)):
        mine, other = left.get(level, 0.0), right.get(level, left.get(level, 0.0))
        found[level] = mine if level in ONE_OF_TWO else (mine + other) / 2
        if level in ONE_OF_TWO and other != mine:
            found[of_right(level)] = other
    return found


def _paired(left: Pattern, right: Pattern) -> list[tuple[Piece | None, Piece | None]]:
    pairs: list[tuple[Piece | None, Piece | None]] = [(p, right.find_piece(p.name)) for p in left.pieces]
    pairs += [(None, piece) for piece in right.pieces if left.find_piece(piece.name) is None]
    return [pair for pair in pairs if any(pair)]


def _apart(pairs: Iterable[tuple[Piece | None, Piece | None]], piece: Piece) -> bool:
    """Return whether a piece of the right half is one of its own."""
    mine = next((a for a, b in pairs if b is piece), None)
    return piece.half is Half.BOTH and not (mine is piece or mine == piece) and not (mine is not None and mine.is_whole)


def _together(mine: Piece | None, theirs: Piece | None, rename: Rename) -> list[Piece]:
    if mine is None:
        return [] if theirs is None or theirs.half is Half.LEFT else [_right(theirs, rename)]
    if theirs is None:
        return [] if mine.half is Half.RIGHT else [_left(mine)]
    if mine.half is not Half.BOTH:
        return [mine if mine.half is Half.LEFT else theirs]
    if mine is theirs or mine == theirs or mine.is_whole:
        return [mine]
    if mine.on_fold and theirs.on_fold:
        whole = joined_on_fold(mine, theirs, rename)
        return [replace(whole, title=f"{mine.title}{WHOLE}")]
    return [_left(mine), _right(theirs, rename)]


def _left(piece: Piece) -> Piece:
    if piece.half is not Half.BOTH or piece.is_whole:
        return piece
    return replace(piece, half=Half.LEFT, on_fold=None, cut=_of_one(piece), title=f"{piece.title}, left")


def _right(piece: Piece, rename: Rename) -> Piece:
    if piece.half is not Half.BOTH or piece.is_whole:
        return piece
    turned = called(flipped(piece, (piece.grain[0], piece.grain[1])), rename)
    return replace(
        turned,
        name=of_right(piece.name),
        half=Half.RIGHT,
        on_fold=None,
        cut=_of_one(piece),
        title=f"{piece.title}, right",
    )


def _of_one(piece: Piece) -> int:
    """Return how many are cut of one half's own piece: of a pair one, of a piece on the fold as many as before."""
    return piece.cut if piece.on_fold else max(piece.cut // 2, 1)


def _names_on(piece: Piece) -> Iterable[str]:
    yield from piece.vertices
    yield from piece.aliases
    yield from (edge.lineage for edge in piece.edges)
    yield from (dart.name for dart in piece.darts)
    yield from (diamond.name for diamond in piece.diamonds)


def _span(span: Span, rename: Rename) -> Span:
    """Return a span under the names of a half; where its piece is one that both halves share, so is its line there."""
    start, end = rename(span.start), rename(span.end)
    shared = (start, end) == (span.start, span.end)
    return Span(start, end, span.along if shared else rename(span.along))


def _seam(seam: Seam, rename: Rename) -> Seam:
    first, second = (tuple(_span(span, rename) for span in side) for side in seam.sides)
    return replace(seam, sides=(first, second))


def _sorted_out(left: Iterable[Seam], right: Iterable[Seam], renamed: Callable[[Seam], Seam]) -> list[Seam]:
    """Return the seams of both halves: one where both have the same, else a left and a right."""
    theirs: Mapping[str, Seam] = {seam.name: renamed(seam) for seam in right if seam.half is not Half.LEFT}
    found: list[Seam] = []
    mine: set[str] = set()
    for seam in left:
        if seam.half is Half.RIGHT:
            continue
        mine.add(seam.name)
        twin = theirs.get(seam.name)
        if seam.half is Half.LEFT or twin == seam:
            found.append(seam)
            continue
        found.append(replace(seam, half=Half.LEFT))
        if twin is not None:
            found.append(replace(twin, name=of_right(seam.name), half=Half.RIGHT))
    for name, seam in theirs.items():
        if name not in mine:
            found.append(seam if seam.half is Half.RIGHT else replace(seam, name=of_right(name), half=Half.RIGHT))
    return found


def _openings(left: Iterable[Opening], right: Iterable[Opening], rename: Rename) -> Iterable[Opening]:
    mine = tuple(left)
    yield from mine
    for opening in right:
        span = _span(opening.span, rename)
        if span != opening.span:
            yield replace(opening, name=of_right(opening.name), span=span)
        elif opening not in mine:
            yield opening


def body_of_both(left: Mapping[str, float], right: Mapping[str, float]) -> Mapping[str, float]:
    """Return the body that both halves are for, cm by symbol: what differs as its mean, and as each half has it.

    Where both are the same object that is the body.
    """
    if left is right:
        return left
    apart = {s: (left[s], right[s]) for s in left if s in right and left[s] != right[s]}
    each = {_of_half(s, half): cm for s, both in apart.items() for half, cm in zip(SIDES, both, strict=True)}
    return ChainMap({s: sum(both) / 2 for s, both in apart.items()}, each, dict(left))


def on_half(body: Mapping[str, float], symbol: str, half: Half) -> float | None:
    """Return what a body measures on one half, cm, or all in all; None where it has no such measure."""
    own = None if half is Half.BOTH else body.get(_of_half(symbol, half))
    return own if own is not None else body.get(symbol)


SIDES = (Half.LEFT, Half.RIGHT)


def _of_half(symbol: str, half: Half) -> str:
    return f"{half.value}:{symbol}"


def titles_on(titles: Mapping[str, str], half: Half) -> Mapping[str, str]:
    """Return titles by the names that things have on one half."""
    if half is not Half.RIGHT:
        return titles
    return _titles_on_right.of(titles, (), lambda: ChainMap(_own_titles(titles), dict(titles)))


_titles_on_right: Remembered[Mapping[str, str]] = Remembered(most=64)


def _own_titles(titles: Mapping[str, str]) -> dict[str, str]:
    """Return the titles of the right half's own things, by what they are called there."""
    return {name.removeprefix(RIGHT_MARK): title for name, title in titles.items() if name.startswith(RIGHT_MARK)}


def accepted_on(accepted: Accepted, where: tuple[str, ...]) -> bool:
    """Return whether a finding about things of either half is the one that was accepted."""
    return accepted.where == tuple(origin(name).name for name in where)
