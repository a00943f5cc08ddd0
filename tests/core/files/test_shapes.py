"""Outlines out of SVG and DXF: as drawn, in the right unit, and hostile files refused at once.

Independent readers: svgpathtools and ezdxf's own writer make and measure the drawings.
"""

import io
from time import process_time

import ezdxf
import pytest
import shapely
from svgpathtools import parse_path

from izett.draping.given import drawn
from izett.draping.outlines import panel_from_piece
from izett.draping.panel import Given, Source
from izett.errors import UnreadableFile
from izett.files.dxf import write_dxf
from izett.files.shapes import LARGEST, DrawnIn, UnitNotSaid, read_shapes
from izett.files.svg import write_svg
from izett.finishing.sheet import sheet_pieces
from tests.draped import truth_of

#: A front in mm: straight sides, an armhole of one cubic, a neck of a quadratic.
PATH = "M0 0 L240 0 L260 250 C210 260 200 330 215 400 L90 430 Q60 360 0 350 Z"
BODY = {"bust_girth": 92.0, "waist_girth": 74.0, "hip_girth": 98.0, "height": 168.0}


def svg(body, head='width="300mm" height="500mm" viewBox="0 0 300 500"'):
    return f'<svg xmlns="http://www.w3.org/2000/svg" {head}>{body}</svg>'.encode()


def lengths(given):
    return [sum(edge.curve.length for edge in piece.edges) for piece in drawn(given).pieces]


def test_an_svg_comes_in_as_it_is_drawn():
    given = read_shapes(svg(f'<g id="Side front"><path d="{PATH}"/></g>'), "svg")
    (panel,) = given.panels
    assert (panel.name, panel.title, given.source) == ("side_front", "Side front", Source.FILE)
    assert len(panel.lines) == 6
    assert lengths(given) == pytest.approx([parse_path(PATH).length() / 10], abs=1e-3)
    (piece,) = drawn(given).pieces
    assert [edge.curve.is_straight for edge in piece.edges].count(False) == 2


@pytest.mark.parametrize(
    ("head", "unit", "cm"),
    [
        ('width="300mm" height="500mm" viewBox="0 0 300 500"', None, 0.1),
        ('width="30cm" height="50cm" viewBox="0 0 300 500"', None, 0.1),
        ('width="10in" height="20in" viewBox="0 0 100 200"', None, 0.254),
        ('viewBox="0 0 300 500"', DrawnIn.MM, 0.1),
        ('width="600" height="1000" viewBox="0 0 300 500"', DrawnIn.MM, 0.1),
        ("", DrawnIn.POINTS, 2.54 / 72),
    ],
)
def test_the_unit_is_what_the_file_says_or_what_was_answered(head, unit, cm):
    given = read_shapes(svg(f'<path d="{PATH}"/>', head), "svg", unit=unit)
    assert lengths(given) == pytest.approx([parse_path(PATH).length() * cm], rel=1e-4)


def test_without_a_unit_it_is_asked_for():
    with pytest.raises(UnitNotSaid, match="mm, cm, inches"):
        read_shapes(svg(f'<path d="{PATH}"/>', ""), "svg")
    document = ezdxf.new(units=0)
    document.modelspace().add_lwpolyline([(0, 0), (200, 0), (200, 300)], close=True)
    with pytest.raises(UnitNotSaid):
        read_shapes(as_bytes(document), "dxf")


def as_bytes(document):
    stream = io.StringIO()
    document.write(stream)
    return stream.getvalue().encode()


def test_a_dxf_of_loose_lines_arcs_and_blocks_closes():
    document = ezdxf.new(units=4)
    block = document.blocks.new("BACK")
    block.add_line((0, 0), (200, 0))
    block.add_line((200, 300), (200, 0))
    block.add_arc((100, 300), 100, 0, 180)
    block.add_line((0, 300), (0, 0))
    document.modelspace().add_blockref("BACK", (500, 100))
    given = read_shapes(as_bytes(document), "dxf")
    assert lengths(given) == pytest.approx([20 + 30 + 30 + 3.14159265 * 10], abs=0.01)
    assert drawn(given).queries == ()


@pytest.mark.parametrize("kind", ["bustier", "sheath"])
def test_our_own_files_come_back_as_they_went_out(kind):
    pattern = truth_of(kind, BODY)
    sheets = sheet_pieces(pattern)
    # On such a sheet a dart is drawn beside its piece's line, which runs over its mouth.
    want = [shapely.Polygon(sheet.sewing) for sheet in sheets]
    for content, ending in ((write_svg(sheets), "svg"), (write_dxf(sheets), "dxf")):
        given = read_shapes(content.encode(), ending)
        pieces = drawn(given).pieces
        assert len(pieces) == len(want), ending
        for piece, real in zip(pieces, want, strict=True):
            found = shapely.Polygon(piece.outline())
            assert found.area == pytest.approx(real.area, rel=0.004), (ending, piece.title)
    exact = drawn(Given(source=Source.FILE, panels=tuple(panel_from_piece(piece) for piece in pattern)))
    for piece, real in zip(exact.pieces, pattern, strict=True):
        assert [e.role for e in piece.edges] == [e.role for e in real.edges]
        # Partners that differ by what is eased in are laid together: only then a line changes.
        assert sum(e.curve.length for e in piece.edges) == pytest.approx(
            sum(e.curve.length for e in real.edges), abs=0.3
        )
        assert len(piece.darts) == len(real.darts) and len(piece.diamonds) == len(real.diamonds)


#: Of processor time: a clock would count the other tests too.
SECONDS = 2.0
BOMB = (
    b'<?xml version="1.0"?><!DOCTYPE s [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;&a;&a;&a;">]>'
    b'<svg xmlns="http://www.w3.org/2000/svg" width="10mm">&b;</svg>'
)


@pytest.mark.parametrize(
    ("content", "kind", "told"),
    [
        (BOMB, "svg", "declarations"),
        (b"<svg", "svg", "damaged"),
        (svg("<path d='M0 0 L1 1 Z'/>" * 9000), "svg", "draws"),
        (svg("<path d='M0 0" + " L1 1" * 70_000 + " Z'/>"), "svg", "draws"),
        (svg('<g id="a"/><use href="#a"/>'), "svg", "repeats"),
        (svg('<path d="M0 0 L5 5"/>'), "svg", "no closed outline"),
        (svg('<path d="M0 0 L9000 0 L9000 9000 Z"/>'), "svg", "long"),
        (b" " * (LARGEST + 1), "svg", "MB"),
        (b"no drawing", "dxf", "DXF"),
        (b"  0\nLINE\n" * 9000, "dxf", "entries"),
        (b"\x00\xff" * 500, "dxf", "DXF"),
    ],
    ids=lambda value: value if isinstance(value, str) else "",
)
def test_what_is_hostile_or_damaged_is_refused_at_once(content, kind, told):
    began = process_time()
    with pytest.raises(UnreadableFile, match=told):
        read_shapes(content, kind)
    assert process_time() - began < SECONDS
