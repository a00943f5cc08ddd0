"""Take in or let out along a seam or a centre line, by amounts at named levels, blended to nothing at the next ones.

A panel seam over the bust, under it, at the waist or over the shoulder blade, a centre back hollowed at the waist, a laced
edge that gapes: the line is drawn anew through what was pinned. Of a seam both sides move, alike or by a share (over a full
bust the fuller panel takes two thirds). Common practice, no single source.
"""

from collections.abc import Iterator, Mapping
from typing import Any

from pydantic import Field

from izett.errors import ReferenceLost, StepRefused
from izett.pattern.document import Seam
from izett.pattern.facts import CENTRE_LINES, Corner, Role, SeamKind, Zone
from izett.pattern.levels import settled_since
from izett.pattern.naming import readable
from izett.pattern.piece import Edge, Piece, has_role
from izett.pattern.sewn import holding, resolved, seam_lengths, walk
from izett.pattern.working import Readable, Working
from izett.pattern.worn import height_of, moved_levels
from izett.styling.across import slid_below
from izett.styling.by_level import AT_END, Amount, let_out
from izett.styling.operation import SHAPES, Context, Keeps, Offer, Operation, Outcome, as_ease, length, share
from izett.styling.references import AnyRef, Params
from izett.styling.seam_ends import slid
from izett.styling.subject import Kind, Subject, seam_at
from izett.styling.told import told_around
from izett.styling.words import signed

#: Lines that meet a centre line squarely.
SQUARE = (Role.NECK, Role.WAIST, Role.HEM)
#: cm. Sides that differ by less are alike.
EVEN = 0.05
#: Seams that can be shaped: upright ones.
UPRIGHT = (SeamKind.PANEL, SeamKind.SIDE, SeamKind.INSEAM)
#: The levels at which an amount can be given, from above, and in words.
LEVELS = {
    "top": "the upper end",
    "blade": "the shoulder blade",
    "bust": "the bust",
    "underbust": "under the bust",
    "waist": "the waist",
    "hip": "the hip",
    "foot": "the lower end",
}


def _at(meaning: str) -> Any:
    return length(0.0, low=-5, high=6, meaning=f"let out {meaning} (−: taken in), both edges together")


class ShapeSeam(Params):
    """Which line, and how much at each level."""

    line: AnyRef = Field(description="an upright seam, or a centre line that is not on the fold")
    top: float = _at("at the upper end")
    blade: float = _at("over the shoulder blade")
    bust: float = _at("at the bust")
    underbust: float = _at("under the bust")
    waist: float = _at("at the waist")
    hip: float = _at("at the hip")
    foot: float = _at("at the lower end")
    first: float = share(0.5, low=0, high=1, meaning="of it, on the seam’s first side")
    shift: bool = Field(False, description="the seam is moved: what the front gains the back gives")


def apply(params: ShapeSeam, context: Context) -> Outcome:
    """Move both sides of the seam, or the centre line, out or in."""
    given = context.garment
    amounts = {level: by for level in LEVELS if (by := getattr(params, level))}
    if not amounts:
        return Outcome(given)
    seam = given.find_seam(params.line)
    sides = _sides_of(context, seam, params) if seam is not None else [(_centre(context, params.line), 1.0)]
    reached: set[str] = set()
    at: float | None = None
    pattern = given
    for pieces, part in sides:
        for name, edges in pieces.items():
            piece = pattern.piece(name)
            amount, met = _amount(context, piece, edges, amounts, part)
            reached |= met
            pattern = pattern.with_pieces(let_out(piece, edges, amount, level="top" not in amounts))
            bust = _height(context, piece, "bust")
            at = bust if {"bust", "blade"}.intersection(amounts) and bust is not None else at
    if missed := [LEVELS[level] for level in amounts if level not in reached]:
        raise StepRefused(
            f"{_called(context, params.line)} does not reach {missed[0]}.",
            fix="Give the amount at a level that it passes.",
            where=(params.line,),
        )
    pattern = _run_on(context, seam, pattern, at) if seam is not None else _square(context, params.line, pattern)
    pattern = settled_since(given, pattern)
    return Outcome(pattern, tuple(told_around(given, moved_levels(given, pattern))), asks=tuple(_followed(amounts)))


def _followed(amounts: Mapping[str, float]) -> Iterator[SeamKind]:
    """Yield the seams across the ends of the line, where what is sewn there follows."""
    if "top" in amounts:
        yield SeamKind.CAP
    if not {"waist", "foot"}.isdisjoint(amounts):
        yield SeamKind.WAIST


def _run_on(context: Context, seam: Seam, pattern: Working, at: float | None) -> Working:
    """Return the garment with the sides of a seam as alike in length as they were, and the lines across it run on over it.

    Let out over a bulge the rounder side has become longer. A panel that has no side seam is lengthened across to match it,
    as a front is for a fuller bust; any other makes it good at the lower end.
    """
    was, now = (seam_lengths(garment, seam) for garment in (context.garment, pattern))
    off = (now[1] - now[0]) - (was[1] - was[0])
    start, end = (
        holding(context.garment, name).vertex(name)[1] for name in (seam.sides[0][0].start, seam.sides[0][-1].end)
    )
    if abs(off) > EVEN:
        shorter = 0 if off > 0 else 1
        panels = {holding(pattern, span.start).name for span in seam.sides[shorter]}
        if at is not None and len(panels) == 1 and not has_role(panel := pattern.piece(*panels), Role.SIDE):
            pattern = pattern.with_pieces(slid_below(panel, at, abs(off)))
        else:
            pattern = slid(pattern, seam, shorter, abs(off), at_start=start < end)
        pattern = context.work("match_notches", {"seam": seam.name}, on=pattern, label="notches").garment
    # An end that has kept its place and direction is met as before: nothing across it has turned.
    for at_start in (True, False):
        if _end_of(context.garment, seam, at_start=at_start) == _end_of(pattern, seam, at_start=at_start):
            continue
        across = {"how": "across", "line": seam.name, "at_start": at_start}
        pattern = context.work("true_line", across, on=pattern, label="across").garment
    for piece in [holding(pattern, span.start) for side in seam.sides for span in side]:
        for centre in (edge.lineage for edge in piece.edges if edge.role in CENTRE_LINES):
            pattern = _square(context, centre, pattern)
    return pattern


def _end_of(garment: Working, seam: Seam, *, at_start: bool) -> list[float]:
    """Return where the sides of a seam end and how they run there, as numbers that are equal where nothing has moved."""
    found: list[float] = []
    for side in seam.sides:
        span = side[0 if at_start else -1]
        curve = walk(holding(garment, span.start), span)[0 if at_start else -1].open_curve
        end, way = (curve.start, curve.start_direction) if at_start else (curve.end, curve.end_direction)
        found += [round(value, 3) for value in (*end, *way)]
    return found


def _square(context: Context, line: str, pattern: Working) -> Working:
    """Return the garment with the lines that meet a centre line square to it again."""
    for piece in pattern.with_lineage(line):
        ends = {name for edge in piece.edges if edge.lineage == line for name in (edge.start, edge.end)}
        for edge in piece.edges:
            if edge.role in SQUARE and not ends.isdisjoint((edge.start, edge.end)):
                squared = {"how": "square", "line": edge.lineage}
                pattern = context.work("true_line", squared, on=pattern, label="square").garment
    return pattern


#: Edges to be moved, by the name of their piece.
Edges = Mapping[str, list[Edge]]


def _sides_of(context: Context, seam: Seam, params: ShapeSeam) -> list[tuple[Edges, float]]:
    if seam.kind not in UPRIGHT:
        raise StepRefused(
            f"{_called(context, params.line)} does not run up and down.",
            fix="Choose a panel seam, a side seam or a centre line.",
            where=(params.line,),
        )
    found: list[tuple[Edges, float]] = []
    parts = (params.first, 1 - params.first)
    if params.shift:
        zones = [holding(context.garment, side[0].start).zone_of(side[0].along) for side in seam.sides]
        if set(zones) != {Zone.FRONT, Zone.BACK}:
            raise StepRefused(
                f"{_called(context, params.line)} does not lie between the front and the back.",
                fix="Choose a side seam, or move it by the step that shifts a seam.",
                where=(params.line,),
            )
        parts = (1.0, -1.0) if zones[0] is Zone.FRONT else (-1.0, 1.0)
    for side, part in zip(seam.sides, parts, strict=True):
        pieces: dict[str, list[Edge]] = {}
        for span in side:
            for stretch in resolved(context.garment, span):
                piece = holding(context.garment, stretch.start)
                pieces.setdefault(piece.name, []).extend(one.edge for one in walk(piece, stretch))
        found.append((pieces, part))
    return found


def _centre(context: Context, line: str) -> Edges:
    found: dict[str, list[Edge]] = {}
    for piece in context.garment.with_lineage(line):
        if piece.on_fold == line:
            raise StepRefused(
                f"{_called(context, line)} lies on the fold: there is no seam to take in.",
                fix="Part the piece there first, or use the side seams or the darts.",
                where=(line,),
            )
        if edges := [edge for edge in piece.edges if edge.lineage == line and edge.role in CENTRE_LINES]:
            found[piece.name] = edges
    if not found:
        raise ReferenceLost(
            f"There is no seam or centre line {readable(line)} here.",
            fix="Switch on the step that makes it, or choose another line.",
            where=(line,),
        )
    return found


def _called(context: Context, line: str) -> str:
    words = context.called(line)
    return f"The {words[:1].lower()}{words[1:]}"


def _amount(
    context: Context, piece: Piece, edges: list[Edge], amounts: Mapping[str, float], part: float
) -> tuple[Amount, set[str]]:
    """Return how far the edges of a piece go out by height, and which of the levels lie on them."""
    ys = [y for edge in edges for _, y in edge.curve.flattened()]
    low, high = min(ys), max(ys)
    heights: dict[str, float] = {"top": high, "foot": low}
    for level in ("bust", "underbust", "waist", "hip"):
        at = _height(context, piece, level)
        if at is not None and low - AT_END <= at <= high + AT_END:
            heights[level] = min(max(at, low), high)
    if "bust" in heights and high - heights["bust"] > AT_END:
        heights["blade"] = (heights["bust"] + high) / 2
    given = {heights[level]: part * by for level, by in amounts.items() if level in heights}
    # Two levels at one height, the waist at the foot of a bodice, are one.
    others = [y for y in heights.values() if all(abs(y - at) > AT_END for at in given)]
    blade_only = [y for level, y in heights.items() if level == "blade" and level not in amounts]
    return Amount.blended(given, [y for y in others if y not in blade_only]), {
        level for level in amounts if level in heights
    }


def _height(context: Context, piece: Piece, level: str) -> float | None:
    """Return the height of a level on a piece: of its line there, of its corner at the waist, or of the body's frame."""
    for line in piece.lines:
        if line.level == level:
            return line.points[0][1]
    if level == "waist":
        for corner in (Corner.WAIST_SIDE, Corner.WAIST_CF, Corner.WAIST_CB):
            if (name := piece.corner(corner)) is not None:
                return piece.vertex(name)[1]
    return None if level in ("bust", "hip") else height_of(context.garment, context.body, level)


def describe(params: ShapeSeam) -> str:
    """Return the step in the maker's words."""
    more, less = ("the front gains", "the back gains") if params.shift else ("let out", "take in")
    parts = [
        f"{signed(by, more, less)} {words if words.startswith('under') else f'at {words}'}"
        for level, words in LEVELS.items()
        if (by := getattr(params, level))
    ]
    named = readable(params.line)
    where = named if "centre" in named else f"{named} seam"
    return f"{where[:1].upper()}{where[1:]}: {', '.join(parts) or 'no change'}"


def offers(subject: Subject, pattern: Readable) -> Iterator[Offer]:
    """Offer to take in or let out where an upright seam or an open centre line is pointed at."""
    if subject.kind is not Kind.LINE or subject.piece is None or subject.role is None:
        return
    if subject.role in CENTRE_LINES and subject.piece.on_fold != subject.name:
        yield Offer("Take in or let out here, by level", {"line": subject.name, "waist": -0.5})
    elif subject.role in (Role.PANEL, Role.SIDE):
        seam = seam_at(pattern, subject.piece, subject.name)
        if seam is not None and seam.kind in UPRIGHT:
            yield Offer("Take in or let out here, by level", {"line": seam.name, "waist": -0.5})


OPERATION = Operation(
    key="shape_seam",
    title="Take in or let out a seam",
    params=ShapeSeam,
    apply=apply,
    describe=describe,
    width=as_ease,
    sections=SHAPES,
    moves=(SeamKind.CAP, SeamKind.WAIST),
    keeps=frozenset({Keeps.SEAMS}),
    offers=offers,
    before=(
        (
            "princess",
            {
                "start": {
                    "start": "front.underarm",
                    "end": "front.shoulder_tip",
                    "along": "front.armhole",
                    "fraction": 0.55,
                },
                "bow": 1.2,
            },
        ),
    ),
    examples=(
        {"line": "s0.princess_front", "bust": 0.9, "first": 0.67},
        {"line": "s0.princess_front", "waist": -0.6},
        {"line": "s0.princess_front", "underbust": -0.5},
        {"line": "back.centre", "waist": -0.5},
        {"line": "side", "waist": 0.6},
        {"line": "side", "waist": 0.8, "shift": True},
    ),
)
