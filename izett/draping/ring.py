"""Walking round a panel: which lines its marks make, where they meet, and what does not hold together.

A line runs from one corner (dash or cross) to the next, along the dots and notches between them. Its name is what its
marks say: the dots, or what both corners have in common. A line whose name ends in `dart` is a dart's leg: two of them in
a row, from mouth to tip and back, are a dart that opens on the edge; four marks of such a line and no other are a dart
within the panel, widest between its tips.
"""

from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field, replace
from enum import StrEnum
from itertools import pairwise

from izett.draping.panel import CORNERS, Mark, MarkKind, Panel
from izett.geometry.outline import signed_area
from izett.geometry.point import Point, distance
from izett.pattern.facts import Role
from izett.wording import cm

#: cm. Two corners nearer to each other than this are one place, typed twice.
ONE_PLACE = 0.3
#: A panel has an area from so many corners on, or from two where both lines between them are bent.
LEAST_CORNERS = 3
#: A dart within a panel: its two tips and its widest place.
DIAMOND_MARKS = 4
#: What a dart's line is called at its end.
DART = "dart"
#: The mark that is no corner: where the bust point lies.
APEX = "apex"
#: What a mark says that lies within the panel, on no line.
INSIDE = "inside"

#: Names in use beside the roles' own.
CALLED = {
    "upper": Role.NECK,
    "upper_edge": Role.NECK,
    "top": Role.NECK,
    "neckline": Role.NECK,
    "princess": Role.PANEL,
    "panel": Role.PANEL,
    "style": Role.PANEL,
    "cf": Role.CENTRE_FRONT,
    "cb": Role.CENTRE_BACK,
    "side_seam": Role.SIDE,
    "lower_edge": Role.HEM,
}


class Wrong(StrEnum):
    """What can be wrong with a panel as taken."""

    OPEN = "panel-open"
    TWICE = "corners-at-one-place"
    UNNAMED = "line-unnamed"
    CROSSING = "lines-cross"
    DART_OPEN = "dart-open"
    DOT_OFF = "dot-off"
    FOLD_BENT = "fold-bent"
    NOT_SQUARE = "not-square"
    BROKE = "panel-broke"
    NO_WAIST = "no-waist"
    NO_LENGTH = "no-known-length"
    GRADED_FAR = "graded-far"


@dataclass(frozen=True, slots=True)
class Query:
    """Something to look at again.

    Attributes:
        code: which kind.
        panel: the panel, by name.
        words, fix: what is seen, and what to do.
        marks: the marks concerned, by their places in the panel's list.
        lines: the lines concerned.
        stops: whether the panel cannot be drawn because of it.
    """

    code: Wrong
    panel: str
    words: str
    fix: str
    marks: tuple[int, ...] = ()
    lines: tuple[str, ...] = ()
    stops: bool = False


@dataclass(frozen=True, slots=True)
class Line:
    """A line from one corner to the next.

    Attributes:
        name: what its marks call it; empty where they do not agree.
        start, end: the corners' places in the panel's list of marks.
        dots, notches: the same of what lies between them, in the order of the walk.
    """

    name: str
    start: int
    end: int
    dots: tuple[int, ...] = ()
    notches: tuple[int, ...] = ()


@dataclass(frozen=True)
class Round:
    """A panel as walked round, counter-clockwise.

    Attributes:
        panel: the panel.
        lines: from corner to corner; the last ends where the first begins, if it is closed.
        inside: marks within the panel, by their places in the list.
        diamonds: darts within it, by name, with their four marks.
        queries: what does not hold together.
    """

    panel: Panel
    lines: tuple[Line, ...]
    inside: tuple[int, ...] = ()
    diamonds: tuple[tuple[str, tuple[int, ...]], ...] = ()
    queries: tuple[Query, ...] = field(default_factory=tuple)

    def spot(self, mark: int) -> Point:
        """Return where a mark lies, by its place in the list."""
        return self.panel.marks[mark].spot


def role_of(name: str) -> Role | None:
    """Return the role that a line's name tells, or None.

    >>> role_of("side"), role_of("princess"), role_of("armhole_2").value
    (<Role.SIDE: 'side'>, <Role.PANEL: 'panel'>, 'armhole')
    """
    word = name.rstrip("0123456789").rstrip("_ ").lower().replace(" ", "_")
    known = {**{role.value: role for role in Role}, **CALLED}
    # The longest name counts: `centre_front_2` is no `centre`.
    begun = [name for name in known if word == name or word.startswith(f"{name}_")]
    return known[max(begun, key=len)] if begun else None


def in_words(name: str) -> str:
    """Return what a line is called in a sentence."""
    return name.replace("_", " ") or "line"


def is_dart(name: str) -> bool:
    """Return whether a line's name is that of a dart."""
    return name.rstrip("0123456789").rstrip("_ ").lower().endswith(DART)


def walked(panel: Panel) -> Round:
    """Return a panel walked round counter-clockwise, with what does not hold together told."""
    diamonds = tuple(_diamonds(panel))
    taken = {mark for _, marks in diamonds for mark in marks}
    ring = [i for i, mark in enumerate(panel.marks) if i not in taken and not _is_inside(mark)]
    inside = tuple(i for i, mark in enumerate(panel.marks) if i not in taken and _is_inside(mark))
    if len(ring) >= LEAST_CORNERS and signed_area([panel.marks[i].spot for i in ring]) < 0:
        ring.reverse()
    first = next((at for at, i in enumerate(ring) if panel.marks[i].kind in CORNERS), None)
    if first is None:
        return Round(panel, (), inside, diamonds, (_open(panel, 0),))
    ring = [*ring[first:], *ring[:first]]
    lines = tuple(_named(panel, list(_lines(panel, ring))))
    return Round(panel, lines, inside, diamonds, tuple(_queries(panel, lines, diamonds)))


def _is_inside(mark: Mark) -> bool:
    """Return whether a mark lies within the panel: told so, the bust point, or a slash that no line is named for."""
    return mark.lines == (INSIDE,) or (not mark.lines and (mark.kind is MarkKind.SLASH or mark.name == APEX))


def _diamonds(panel: Panel) -> Iterator[tuple[str, tuple[int, ...]]]:
    """Yield the darts within a panel: marks that name no line but the dart's, four of them."""
    alone: dict[str, list[int]] = {}
    mouths = Counter(line for mark in panel.marks if len(mark.lines) > 1 for line in mark.lines if is_dart(line))
    for i, mark in enumerate(panel.marks):
        if len(mark.lines) == 1 and is_dart(mark.lines[0]) and not mouths[mark.lines[0]]:
            alone.setdefault(mark.lines[0], []).append(i)
    yield from ((name, tuple(marks)) for name, marks in alone.items())


def _lines(panel: Panel, ring: Sequence[int]) -> Iterator[Line]:
    start = ring[0]
    dots: list[int] = []
    notches: list[int] = []
    for i in (*ring[1:], ring[0]):
        kind = panel.marks[i].kind
        if kind in CORNERS:
            yield Line("", start, i, tuple(dots), tuple(notches))
            start, dots, notches = i, [], []
        elif kind is MarkKind.DOT:
            dots.append(i)
        else:
            notches.append(i)


def _named(panel: Panel, lines: Sequence[Line]) -> list[Line]:
    """Return the lines with their names: what the marks between two corners say, else what both corners have in common.

    What is left is told by its corners: of the two names of a cross one is the line before it, the other the one after.
    """
    names = [_told(panel, line) for line in lines]
    for _ in lines:
        for i, line in enumerate(lines):
            if not names[i]:
                before, after = names[i - 1], names[(i + 1) % len(lines)]
                names[i] = _left(panel.marks[line.start], before) or _left(panel.marks[line.end], after)
    return [replace(line, name=name) for line, name in zip(lines, _told_apart(lines, names), strict=True)]


def _told(panel: Panel, line: Line) -> str:
    said = {name for i in (*line.dots, *line.notches) for name in panel.marks[i].lines}
    shared = set(panel.marks[line.start].lines) & set(panel.marks[line.end].lines)
    names = said if len(said) == 1 else shared & said if said else shared
    return next(iter(names)) if len(names) == 1 else ""


def _left(corner: Mark, other: str) -> str:
    """Return the name of a corner that its other line has not."""
    rest = [name for name in corner.lines if name != other]
    return rest[0] if other in corner.lines and len(rest) == 1 else ""


def _told_apart(lines: Sequence[Line], names: Sequence[str]) -> list[str]:
    """Return the names with a number where two lines of a panel have one.

    A line that a corner or a dart on its way parts stays one line.
    """
    found = list(names)
    follows = {i for i in range(len(lines)) if _before(names, i) == names[i] and len(set(names)) > 1}
    seen: Counter[str] = Counter()
    # Numbered in the order of the marks, so that another mark in the list changes no other line's name.
    for i in sorted(set(range(len(lines))) - follows, key=lambda i: min(lines[i].start, lines[i].end)):
        if names[i] and not is_dart(names[i]):
            seen[names[i]] += 1
            found[i] = names[i] if seen[names[i]] == 1 else f"{names[i]}_{seen[names[i]]}"
            j = (i + 1) % len(lines)
            while j in follows or (is_dart(names[j]) and j != i):
                if j in follows and names[j] == names[i]:
                    found[j] = found[i]
                j = (j + 1) % len(lines)
    return found


def _before(names: Sequence[str], i: int) -> str:
    """Return the name of the line before one, darts on the way left out."""
    j = i - 1
    while is_dart(names[j]) and j > i - len(names):
        j -= 1
    return names[j]


def _queries(panel: Panel, lines: Sequence[Line], diamonds: Sequence[tuple[str, tuple[int, ...]]]) -> Iterator[Query]:
    corners = [line.start for line in lines]
    bent = len(lines) == 2 and all(line.dots or panel.said(line.name).drawn for line in lines)
    if len(corners) < LEAST_CORNERS and not bent:
        yield _open(panel, len(corners))
        return
    for a, b in pairwise((*corners, corners[0])):
        if distance(panel.marks[a].spot, panel.marks[b].spot) < ONE_PLACE:
            yield Query(
                Wrong.TWICE,
                panel.name,
                f"Marks {a + 1} and {b + 1} of the {panel.called.lower()} lie {cm(distance(panel.marks[a].spot, panel.marks[b].spot), 2)} "
                "apart: two corners at one place.",
                "Remove one of them, or correct its distances.",
                (a, b),
                stops=True,
            )
    for line in lines:
        if not line.name:
            yield Query(
                Wrong.UNNAMED,
                panel.name,
                f"The line from mark {line.start + 1} to mark {line.end + 1} of the {panel.called.lower()} has no name.",
                "Name it in one of its marks: hem, side, princess …",
                (line.start, line.end),
            )
    for name, marks in diamonds:
        if len(marks) != DIAMOND_MARKS:
            yield Query(
                Wrong.DART_OPEN,
                panel.name,
                f"The {in_words(name)} of the {panel.called.lower()} has {len(marks)} marks.",
                "A dart within a panel has four: both tips and both sides of its widest place. One that opens on an edge "
                "names that edge at both ends of its mouth: side+bust_dart.",
                marks,
                (name,),
            )
    legs = Counter(line.name for line in lines if is_dart(line.name))
    for name, count in legs.items():
        if count != 2:
            yield Query(
                Wrong.DART_OPEN,
                panel.name,
                f"The {in_words(name)} of the {panel.called.lower()} has {count} leg{'' if count == 1 else 's'}.",
                "Mark both ends of its mouth and its tip, each with a cross that names the dart.",
                tuple(i for line in lines if line.name == name for i in (line.start, line.end)),
                (name,),
                stops=True,
            )


def _open(panel: Panel, corners: int) -> Query:
    return Query(
        Wrong.OPEN,
        panel.name,
        f"The {panel.called.lower()} does not close yet: {corners} corner{'' if corners == 1 else 's'} so far.",
        "Go on round it: a cross wherever two lines meet.",
        stops=True,
    )
