"""Outlines read from SVG and DXF: closed lines become panels, as drawn.

What draws a pattern piece in such a file is a closed line; what lies within another closed line is a mark of it and left out.
A file is judged before it is read: its size, its entities, how much it draws. One that does not say its unit is asked about.
"""

import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from enum import StrEnum
from io import BytesIO, StringIO
from math import isfinite
from typing import Any

import shapely

from izett.draping.outlines import Named, lines_from_ring, panel_from_lines
from izett.draping.panel import MOST_LINES, MOST_PANELS, Given, Panel, Source, name_of
from izett.errors import IzettError, UnreadableFile
from izett.geometry.curve import Curve, straight
from izett.geometry.point import Point, distance
from izett.units import CM_PER_INCH
from izett.wording import cm

#: Bytes and drawn things that are read at most: more than a whole collection has, read within two seconds.
LARGEST, MOST_DRAWN, MOST_POINTS = 4 * 2**20, 8000, 60_000
#: cm². Smaller closed lines are marks; cm: wider ones are no piece, and ends nearer than this meet.
LEAST_AREA, WIDEST, MEETS = 4.0, 500.0, 0.02
#: An outline of more straight bits than this, all short, is a curve that was written as points.
MANY_BITS, SHORT_BIT = 24, 1.5


class DrawnIn(StrEnum):
    """What a file's numbers are in."""

    MM = "mm"
    CM = "cm"
    IN = "in"
    POINTS = "pt"


_INCH = float(CM_PER_INCH)
_CM = {DrawnIn.MM: 0.1, DrawnIn.CM: 1.0, DrawnIn.IN: _INCH, DrawnIn.POINTS: _INCH / 72}
#: DXF's own numbers for units.
_DXF_UNITS = {1: DrawnIn.IN, 4: DrawnIn.MM, 5: DrawnIn.CM}
#: SVG draws 96 of its own units an inch where a file says lengths in inches or millimetres.
_SVG_PER_INCH = 96.0


class UnitNotSaid(IzettError):
    """A file does not say what its numbers are in."""

    code = "unit-not-said"


@dataclass(frozen=True, slots=True)
class Closed:
    """A closed line of a file: what it is called there, its parts (cm, y up), and whether the file calls it a sewing line."""

    title: str
    parts: tuple[Curve, ...]
    sewn: bool = False

    @property
    def shape(self) -> Any:
        """Its area."""
        return shapely.Polygon([spot for part in self.parts for spot in part.flattened()[:-1]]).buffer(0)


def read_shapes(content: bytes, kind: str, *, unit: DrawnIn | None = None) -> Given:
    """Return the pieces that a file draws.

    Args:
        content: the file.
        kind: `svg` or `dxf`.
        unit: what its numbers are in, where it does not say.

    Raises:
        UnitNotSaid: nothing tells what its numbers are in.
        UnreadableFile: it cannot be read, is too large, or draws no piece.
    """
    if len(content) > LARGEST:
        raise UnreadableFile(
            f"The file has {len(content) / 2**20:.1f} MB; at most {LARGEST // 2**20} MB are read.",
            fix="Export the pieces' outlines alone.",
        )
    found = _svg(content, unit) if kind == "svg" else _dxf(content, unit)
    if not all(isfinite(n) for one in found for part in one.parts for spot in part.points for n in spot):
        raise UnreadableFile("The file draws a line to a place without end.", fix="Export it again.")
    pieces = _pieces(found)
    if not pieces:
        raise UnreadableFile(
            "The file draws no closed outline of a piece's size.",
            fix="Close each piece's outline, and look whether the unit is right.",
        )
    return Given(source=Source.FILE, panels=tuple(_panels(pieces)))


def _pieces(found: Sequence[Closed]) -> list[Closed]:
    """Return the closed lines that are pieces: large enough, and within no other; sewing lines alone, where a file has them."""
    sewn = [one for one in found if one.sewn]
    shapes = [(one, one.shape) for one in sewn or found]
    shapes = [(one, shape) for one, shape in shapes if shape.geom_type == "Polygon" and shape.area >= LEAST_AREA]
    for one, shape in shapes:
        wide = max(shape.bounds[2] - shape.bounds[0], shape.bounds[3] - shape.bounds[1])
        if wide > WIDEST:
            raise UnreadableFile(
                f"“{one.title}” is {cm(wide)} long: no piece is.",
                fix="Say what the file's numbers are in: mm, cm or inches.",
            )
    if len(shapes) > MOST_PANELS * 4:
        raise UnreadableFile(f"The file draws {len(shapes)} closed lines.", fix=f"Export at most {MOST_PANELS} pieces.")
    inner = {
        i
        for i, (_, a) in enumerate(shapes)
        for j, (_, b) in enumerate(shapes)
        if i != j and b.buffer(MEETS).contains(a) and (b.area > a.area or j < i)
    }
    kept = [one for i, (one, _) in enumerate(shapes) if i not in inner]
    if len(kept) > MOST_PANELS:
        raise UnreadableFile(f"The file draws {len(kept)} pieces.", fix=f"Export at most {MOST_PANELS} of them.")
    return kept


def _panels(pieces: Sequence[Closed]) -> Iterable[Panel]:
    taken: set[str] = set()
    for number, one in enumerate(pieces, start=1):
        title = re.sub(r"[_\s]+", " ", one.title).strip()[:50]
        # A layer's or a path's number is no name.
        title = (
            title if re.match(r"[^\W\d]{3}", title) and not re.fullmatch(r"[a-z]+[-\d]+", title) else f"Piece {number}"
        )
        own, again = title, 2
        while name_of(own) in taken:
            own, again = f"{title} {again}", again + 1
        taken.add(name_of(own))
        lines = _lines(one)
        if len(lines) > MOST_LINES:
            raise UnreadableFile(
                f"“{title}” has {len(lines)} corners.", fix=f"A piece has at most {MOST_LINES}: export its sewing line."
            )
        named = [Named(f"line_{i + 1}", line) for i, line in enumerate(_at_nought(lines))]
        yield panel_from_lines(own, named)


def _at_nought(lines: Sequence[Curve]) -> list[Curve]:
    """Return lines moved so that their lower left corner is at 0, 0."""
    left = min(x for line in lines for x, _ in line.points)
    low = min(y for line in lines for _, y in line.points)
    return [line.mapped(lambda spot: (spot[0] - left, spot[1] - low)) for line in lines]


def _lines(one: Closed) -> list[Curve]:
    """Return the lines of an outline; of one that was written as many points, drawn through them anew."""
    bits = [part for part in one.parts if part.is_straight]
    short = sum(1 for part in bits if part.length <= SHORT_BIT)
    if len(bits) == len(one.parts) and short > MANY_BITS and short > len(bits) / 2:
        # Only such a file waits for numpy and scipy.
        from izett.tracing.trace import lines_through  # noqa: PLC0415

        return lines_through([part.start for part in one.parts])
    return lines_from_ring(one.parts)


def _svg(content: bytes, unit: DrawnIn | None) -> list[Closed]:
    from defusedxml import DefusedXmlException  # noqa: PLC0415
    from defusedxml.ElementTree import ParseError, fromstring  # noqa: PLC0415
    from svgelements import SVG, Path, Shape  # noqa: PLC0415

    try:
        root = fromstring(content, forbid_dtd=True)
    except DefusedXmlException as error:
        raise UnreadableFile(
            "The SVG holds declarations that a drawing has no need of.", fix="Save it as plain SVG."
        ) from error
    except (ParseError, ValueError, LookupError) as error:
        raise UnreadableFile(f"The SVG is damaged: {error}.", fix="Export it again.") from error
    drawn = sum(1 for _ in root.iter())
    points = len(re.findall(rb"[-+.\d]+", content)) // 2 if drawn else 0
    if drawn > MOST_DRAWN or points > MOST_POINTS or any(e.tag.endswith("}use") for e in root.iter()):
        raise UnreadableFile(
            f"The SVG draws {drawn:,} things with {points:,} numbers, or repeats parts of itself.",
            fix=f"Export outlines alone: at most {MOST_DRAWN:,} things, nothing repeated.",
        )
    says = bool(re.match(r"^\s*[\d.]+\s*(mm|cm|in|pt|pc)\s*$", root.get("width", "")))
    if not says and unit is None:
        raise _unit("The SVG does not say how large it is.")
    scale = _INCH / _SVG_PER_INCH if says else _CM[unit or DrawnIn.MM]
    try:
        picture = SVG.parse(BytesIO(content), reify=True, ppi=_SVG_PER_INCH)
        shapes = [Path(e) for e in picture.elements() if isinstance(e, Shape)]
    except Exception as error:
        raise UnreadableFile(
            f"The SVG cannot be drawn ({type(error).__name__}).", fix="Export it as plain paths."
        ) from error
    if not says:
        # Lengths without a unit: the view box is the drawing's own.
        box = [float(n) for n in re.findall(r"[-+.\deE]+", root.get("viewBox", ""))]
        if len(box) == 4 and picture.width and box[2] > 0:
            scale *= box[2] / float(picture.width)
    found = []
    told = list(_svg_told(root, ""))
    for i, shape in enumerate(shapes):
        title, sewn = told[i] if len(told) == len(shapes) else ("", False)
        shape.approximate_arcs_with_cubics()
        for part in shape.as_subpaths():
            closed = _svg_closed(Path(part), scale)
            if closed is not None:
                found.append(Closed(title, closed, sewn))
    return found


_SHAPES = {"path", "polygon", "polyline", "rect", "circle", "ellipse", "line"}
_UNSEEN = {"defs", "symbol", "clipPath", "mask", "pattern", "marker"}


def _svg_told(element: Any, group: str) -> Iterable[tuple[str, bool]]:
    """Yield of each shape, in their order, what it or its group is called, and whether it is a sewing line."""
    for child in element:
        tag = str(child.tag).rsplit("}", 1)[-1]
        own = child.get("{http://www.inkscape.org/namespaces/inkscape}label") or child.get("id") or ""
        if tag in _SHAPES:
            yield own or group, "sew" in (child.get("class") or "").split()
        elif tag not in _UNSEEN:
            yield from _svg_told(child, own or group)


def _svg_closed(path: Any, scale: float) -> tuple[Curve, ...] | None:
    from svgelements import Close, CubicBezier, Line, QuadraticBezier  # noqa: PLC0415

    def spot(p: Any) -> Point:
        return (float(p.x) * scale, -float(p.y) * scale)

    parts = []
    for segment in path:
        if isinstance(segment, (Line, Close)):
            if segment.start is not None and segment.end is not None:
                parts.append(straight(spot(segment.start), spot(segment.end)))
        elif isinstance(segment, CubicBezier):
            parts.append(
                Curve(tuple(spot(p) for p in (segment.start, segment.control1, segment.control2, segment.end)))
            )
        elif isinstance(segment, QuadraticBezier):
            parts.append(_quadratic(spot(segment.start), spot(segment.control), spot(segment.end)))
    return _ring(parts)


def _quadratic(a: Point, b: Point, c: Point) -> Curve:
    """Return the cubic that a quadratic curve is."""

    def between(p: Point, q: Point) -> Point:
        return (p[0] + (q[0] - p[0]) * 2 / 3, p[1] + (q[1] - p[1]) * 2 / 3)

    return Curve((a, between(a, b), between(c, b), c))


def _ring(parts: Sequence[Curve]) -> tuple[Curve, ...] | None:
    """Return parts that close, or None."""
    kept = [part for part in parts if distance(part.start, part.end) > 1e-6 or len(part.points) > 2]
    if len(kept) < 2 or distance(kept[0].start, kept[-1].end) > MEETS:
        return None
    return tuple(kept)


def _dxf(content: bytes, unit: DrawnIn | None) -> list[Closed]:
    entities = len(re.findall(rb"(?m)^\s*0\r?$", content))
    if entities > MOST_DRAWN:
        raise UnreadableFile(
            f"The DXF has {entities:,} entries; at most {MOST_DRAWN:,} are read.",
            fix="Export the pieces' outlines alone.",
        )
    from ezdxf import path as dxf_path  # noqa: PLC0415  (they take a while, and what is too much needs none of them)
    from ezdxf.disassemble import recursive_decompose  # noqa: PLC0415
    from ezdxf.filemanagement import read as read_dxf  # noqa: PLC0415

    try:
        document = read_dxf(StringIO(content.decode("utf-8", errors="replace")))
        said = _DXF_UNITS.get(int(document.header.get("$INSUNITS", 0)))
        if said is None and unit is None:
            raise _unit("The DXF does not say what its numbers are in.")
        scale = _CM[unit or said or DrawnIn.MM]
        found: dict[str, list[Curve]] = {}
        closed: list[Closed] = []
        for i, entity in enumerate(recursive_decompose(document.modelspace())):
            if i > MOST_DRAWN:
                raise UnreadableFile("The DXF repeats its blocks too often.", fix="Export each piece once.")
            if entity.dxftype() not in ("LINE", "LWPOLYLINE", "POLYLINE", "SPLINE", "ARC", "CIRCLE", "ELLIPSE"):
                continue
            parts = _dxf_parts(dxf_path.make_path(entity), scale)
            ring = _ring(parts)
            if ring is not None:
                closed.append(_of_layer(str(entity.dxf.layer), ring))
            else:
                found.setdefault(str(entity.dxf.layer), []).extend(parts)
    except IzettError:
        raise
    except Exception as error:
        raise UnreadableFile(
            f"The DXF cannot be read ({type(error).__name__}).",
            fix="Export it again, as plain DXF of lines and curves.",
        ) from error
    return [*closed, *(_of_layer(layer, ring) for layer, parts in found.items() for ring in _chained(parts))]


def _of_layer(layer: str, ring: tuple[Curve, ...]) -> Closed:
    name, _, last = layer.rpartition("_")
    return Closed(name.capitalize() if last in ("SEW", "CUT") else layer, ring, last == "SEW")


def _dxf_parts(path: Any, scale: float) -> list[Curve]:
    from ezdxf.path import Command  # noqa: PLC0415

    def spot(p: Any) -> Point:
        return (float(p.x) * scale, float(p.y) * scale)

    parts, at = [], spot(path.start)
    for command in path.commands():
        to = spot(command.end)
        if command.type == Command.LINE_TO:
            parts.append(straight(at, to))
        elif command.type == Command.CURVE4_TO:
            parts.append(Curve((at, spot(command.ctrl1), spot(command.ctrl2), to)))
        elif command.type == Command.CURVE3_TO:
            parts.append(_quadratic(at, spot(command.ctrl), to))
        at = to
    return parts


def _chained(parts: Sequence[Curve]) -> Iterable[tuple[Curve, ...]]:
    """Yield the closed lines that loose parts make, joined where their ends meet."""
    left = list(parts)
    while left:
        chain = [left.pop()]
        while distance(chain[0].start, chain[-1].end) > MEETS:
            end = chain[-1].end
            near = min(left, key=lambda part: min(distance(part.start, end), distance(part.end, end)), default=None)
            if near is None or min(distance(near.start, end), distance(near.end, end)) > MEETS:
                break
            left.remove(near)
            chain.append(near if distance(near.start, end) <= distance(near.end, end) else near.reversed())
        ring = _ring(chain)
        if ring is not None:
            yield ring


def _unit(message: str) -> UnitNotSaid:
    return UnitNotSaid(message, fix="Say whether its numbers are in mm, cm, inches or points.")
