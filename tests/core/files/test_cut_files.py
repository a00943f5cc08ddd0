"""Files that are cut by: DXF by ezdxf, SVG by svgelements, HPGL by the plotter's eye, PDF as a reader renders it."""

import io
import re
from collections import defaultdict
from dataclasses import replace

import ezdxf
import numpy as np
import pypdfium2
import pytest
import shapely
from ezdxf.filemanagement import read as read_dxf_file

from izett.cutting.cloth import Use
from izett.cutting.lay.cutouts import Wanted
from izett.cutting.order import cutting_order
from izett.errors import UnknownName, UnreadableFile
from izett.files.dxf import Layer, write_dxf
from izett.files.hpgl import CUT, LARGEST, MARK, SEW, Lettering, Stroke, read_hpgl, write_hpgl
from izett.files.lists_csv import write_cutting_list, write_seam_lengths
from izett.files.pdf import GAP, HEAD_HEIGHT, ROLL_WIDTH, write_pdf
from izett.files.stacks import nested
from izett.files.svg import write_svg
from izett.finishing.sheet import BRACKET_WITHIN, sheet_pieces
from izett.geometry.outline import signed_area
from izett.pattern.facts import Half
from izett.pattern.sewn import seam_lengths
from izett.recipe.model import Recipe, Section, Step
from tests.core.blocks import cut_for

#: cm, and a share: how closely files are read back.
LENGTH, AREA = 0.01, 0.001


@pytest.fixture
def sheets(evaluator, middling):
    pattern = evaluator.evaluate(Recipe("bodice", middling, also=("sleeve", "skirt"))).pattern
    return sheet_pieces(cut_for(pattern, "home"), title="Recital dress", wearer="M. S.")


def ring(points):
    return shapely.Polygon(points)


def same(read, drawn):
    """Whether an outline that was read has the length and area of the one that was drawn."""
    return read.length == pytest.approx(drawn.length, abs=LENGTH) and read.area == pytest.approx(drawn.area, rel=AREA)


def test_a_dxf_by_number_is_read_back_by_ezdxf_without_a_fault(sheets):
    document = read_dxf_file(io.StringIO(write_dxf(sheets, numbered=True)))
    audit = document.audit()
    assert not audit.errors and not audit.fixes
    assert document.header["$INSUNITS"] == ezdxf.units.MM
    on = defaultdict(list)
    for entity in document.modelspace():
        on[int(entity.dxf.layer)].append(entity)
    for layer, lines in ((Layer.BOUNDARY, "cutting"), (Layer.SEWING, "sewing")):
        read = [ring([(x / 10, y / 10) for x, y in e.get_points("xy")]) for e in on[layer]]
        assert len(read) == len(sheets)
        assert all(e.closed for e in on[layer])
        for outline, sheet in zip(read, sheets, strict=True):
            assert same(outline, ring(getattr(sheet, lines)))
    assert len(on[Layer.GRAIN]) == len(sheets)
    assert len(on[Layer.FOLD]) == sum(sheet.fold is not None for sheet in sheets)
    assert len(on[Layer.NOTCHES]) == sum(len(sheet.notches) for sheet in sheets)
    assert len(on[Layer.DRILLS]) == sum(len(sheet.drills) for sheet in sheets) > 0
    words = [e.dxf.text for e in on[Layer.WORDS]]
    assert [text for sheet in sheets for text in sheet.label] == words
    # Every corner of a boundary is told apart from the points of its curves.
    corners = {(round(e.dxf.location.x, 3), round(e.dxf.location.y, 3)) for e in (*on[Layer.TURNS], *on[Layer.CURVES])}
    assert len(on[Layer.TURNS]) >= 4 * len(sheets)
    assert corners == {(round(x, 3), round(y, 3)) for e in on[Layer.BOUNDARY] for x, y in e.get_points("xy")}


def test_a_plain_dxf_has_a_layer_for_each_line_of_each_piece(sheets):
    document = read_dxf_file(io.StringIO(write_dxf(sheets)))
    assert not document.audit().errors
    lines = {e.dxf.layer: e for e in document.modelspace().query("LWPOLYLINE")}
    for sheet in sheets:
        for suffix, line in (("CUT", sheet.cutting), ("SEW", sheet.sewing)):
            points = lines[f"{sheet.piece.name.upper()}_{suffix}"].get_points("xy")
            assert same(ring([(x / 10, y / 10) for x, y in points]), ring(line))
        marks = [e for e in document.modelspace() if e.dxf.layer == f"{sheet.piece.name.upper()}_MARKS"]
        straight = [e for e in marks if e.dxftype() == "LINE"]
        # Its notches, its grain, its fold; what is drilled.
        assert len(straight) == len(sheet.notches) + 1 + (sheet.fold is not None)
        assert sum(e.dxftype() == "POINT" for e in marks) == len(sheet.drills)
        drawn = [[(x / 10, y / 10) for x, y in e.get_points("xy")] for e in marks if e.dxftype() == "LWPOLYLINE"]
        shapes = sorted(shapely.LineString(points).length for points in drawn)
        assert all(min(abs(shapely.LineString(sign).length - long) for long in shapes) < LENGTH for sign in sheet.signs)


def test_an_svg_is_read_back_by_an_independent_reader(sheets):
    from svgelements import SVG, Path

    picture = SVG.parse(io.BytesIO(write_svg(sheets).encode()), ppi=25.4)
    read = defaultdict(list)
    for path in picture.elements(lambda e: isinstance(e, Path)):
        read[path.values["class"]].append(ring([(p.x / 10, -p.y / 10) for p in path.as_points() if p is not None]))
    for kind, line in (("cut", "cutting"), ("sew", "sewing")):
        assert len(read[kind]) == len(sheets)
        assert all(same(outline, ring(getattr(s, line))) for outline, s in zip(read[kind], sheets, strict=True))
    # The arrow of each piece with its two heads; three lines more for a bracket on a fold.
    assert len(read["grain"]) == sum(3 + 3 * (sheet.fold is not None) for sheet in sheets)


def test_unlike_halves_and_pieces_of_any_name_go_into_a_dxf(evaluator, middling):
    higher = Step("s", "change_shoulder", {"amount": 0.6}, section=Section.FIT, half=Half.LEFT)
    pattern = evaluator.evaluate(Recipe("bodice", middling, also=("sleeve",), steps=(higher,))).pattern
    assert any(piece.name.startswith("right:") for piece in pattern)
    named = [
        replace(piece, name=name) for piece, name in zip(pattern.pieces, ("a/b", "A:B", "旗袍", "<x>"), strict=False)
    ]
    for pieces in (pattern.pieces, (*named, *pattern.pieces[len(named) :])):
        sheets = sheet_pieces(replace(pattern, pieces=tuple(pieces)))
        for numbered in (False, True):
            document = read_dxf_file(io.StringIO(write_dxf(sheets, numbered=numbered)))
            assert not document.audit().errors
            outlines = [e for e in document.modelspace() if e.dxftype() == "LWPOLYLINE" and e.closed]
            assert len(outlines) == 2 * len(sheets)


def test_a_plotter_draws_what_is_to_be_cut(sheets):
    drawn = read_hpgl(write_hpgl(sheets, width=ROLL_WIDTH).encode("latin-1"))
    strokes = [one for one in drawn if isinstance(one, Stroke)]
    for pen, line in ((CUT, "cutting"), (SEW, "sewing")):
        read = sorted((ring(s.points) for s in strokes if s.pen == pen), key=lambda r: r.area)
        wanted = sorted((ring(getattr(sheet, line)) for sheet in sheets), key=lambda r: r.area)
        assert len(read) == len(wanted)
        assert all(same(outline, own) for outline, own in zip(read, wanted, strict=True))
    cuts = [ring(s.points) for s in strokes if s.pen == CUT]
    assert not any(a.intersects(b) for i, a in enumerate(cuts) for b in cuts[:i])
    # x runs along the roll, y across it, as on a plotter that feeds paper.
    assert all(0 <= y <= ROLL_WIDTH and x >= 0 for s in strokes for x, y in s.points)
    # Turned, not mirrored.
    assert all(signed_area(s.points) > 0 for s in strokes if s.pen == CUT)
    marked = [s.length for s in strokes if s.pen == MARK]
    signs = [shapely.LineString(sign).length for sheet in sheets for sign in sheet.signs]
    assert len(signs) > 2 * len(sheets)
    assert all(min(abs(long - sign) for long in marked) < LENGTH for sign in signs)
    words = [one.text for one in drawn if isinstance(one, Lettering)]
    assert "Recital dress" in words and "M. S." in words


@pytest.mark.parametrize(
    ("content", "words"),
    [
        (b"", "no plot file"),
        (b"hello", "no plot file"),
        (b"IN;PD1,2,3;", "two numbers"),
        (b"IN;PDnan,1;", "no instruction|no numbers"),
        (b"IN;PD1e99,1;", "no instruction|two numbers"),
        (b"IN;LBwithout end", "have no end"),
        (b"IN;" + b"\x00\x01\x02", "no instruction"),
        (b"IN;" + b"PU;" * 500_000, "never ends"),
        (b"IN;" + b"0" * (LARGEST + 1), "at most"),
    ],
)
def test_a_damaged_plot_file_is_told(content, words):
    with pytest.raises(UnreadableFile, match=words):
        read_hpgl(content)


def test_relative_moves_and_lower_case_are_understood():
    (stroke,) = read_hpgl(b"in;sp2;pu400,400;pd;pr400,0,0,800;pu;")
    assert stroke == Stroke(2, ((1.0, 1.0), (2.0, 1.0), (2.0, 3.0)))


# ---------------------------------------------------------------- PDF


def ink(page, scale=2.0):
    """The dark pixels of a page, and how many there are to a centimetre."""
    picture = np.asarray(page.render(scale=scale).to_pil().convert("L"))
    return picture < 140, scale * 72 / 2.54


def squares(dark, per_cm):
    """The widths in cm of the squares of about 10 cm that a page shows: between its two long upright lines."""
    found = []
    for column in range(dark.shape[1]):
        run = longest_run(dark[:, column])
        if 9.5 * per_cm < run < 10.6 * per_cm:
            found.append(column)
    groups = np.split(np.array(found), np.where(np.diff(found) > 3)[0] + 1)
    return [float(group.mean()) / per_cm for group in groups if len(group)]


def longest_run(line):
    edges = np.flatnonzero(np.diff(np.concatenate(([0], line.astype(int), [0]))))
    return int((edges[1::2] - edges[::2]).max()) if len(edges) else 0


@pytest.mark.parametrize("paper", ["a4", "roll"])
def test_the_squares_are_true_within_a_thousandth(sheets, paper):
    page = pypdfium2.PdfDocument(write_pdf(sheets, paper=paper))[0]
    dark, per_cm = ink(page, scale=6.0 if paper == "a4" else 4.0)
    uprights = squares(dark[:, : round(30 * per_cm)], per_cm)
    # Both squares may begin at the same upright.
    widths = [b - a for i, b in enumerate(uprights) for a in uprights[:i]]
    assert any(abs(width - 10) <= 0.01 for width in widths)
    assert any(abs(width - 10.16) <= 0.011 for width in widths)


def test_a_roll_holds_all_pieces_at_true_size(sheets):
    pdf = pypdfium2.PdfDocument(write_pdf(sheets, paper="roll"))
    assert len(pdf) == 1
    width, height = (size / 72 * 2.54 for size in pdf[0].get_size())
    assert width == pytest.approx(ROLL_WIDTH, abs=0.01)
    text = pdf[0].get_textpage().get_text_range()
    for sheet in sheets:
        assert sheet.piece.title in text
    # The ink of the longest piece is as long as the piece.
    longest = max(sheets, key=lambda sheet: sheet.bounds[3] - sheet.bounds[1])
    assert height > longest.bounds[3] - longest.bounds[1]


def test_a_fold_is_seen_on_paper(sheets):
    """Along it the line is heavy for a stretch, then fine, and so on; the bracket stands within."""
    acted = 0
    for sheet in (sheet for sheet in sheets if sheet.fold is not None):
        page = pypdfium2.PdfDocument(write_pdf([sheet], paper="roll"))[0]
        dark, per_cm = ink(page, scale=4.0)
        # Its left edge: all pieces are drafted to the right of their centre.
        assert sheet.fold[0][0] == pytest.approx(sheet.bounds[0], abs=1e-6)
        left = GAP - sheet.bounds[0]
        up = HEAD_HEIGHT + GAP - sheet.bounds[1]

        def black(x, y, left=left, up=up, dark=dark, per_cm=per_cm):
            """How wide the ink is across a spot of the piece, in pixels."""
            row = dark[dark.shape[0] - round((y + up) * per_cm)]
            at = round((x + left) * per_cm)
            return int(row[max(at - 8, 0) : at + 9].sum())

        low, high = sorted(y for _, y in sheet.fold)
        heights = np.arange(low + 1, high - 1, 0.05)
        wide = np.array([black(sheet.fold[0][0], y) for y in heights])
        # Never without a line, heavy for about two thirds of its length.
        assert wide.min() >= 2
        heavy = wide > 1.5 * wide.min()
        assert 0.5 < heavy.mean() < 0.8
        assert int(np.abs(np.diff(heavy.astype(int))).sum()) > len(heights) * 0.05
        within = sheet.fold[0][0] + BRACKET_WITHIN
        assert all(black(within, (low + high) / 2 + by) > 0 for by in np.arange(-4, 4, 0.5))
        acted += 1
    assert acted >= 2


def test_a0_takes_fewer_sheets_than_a4(sheets):
    few, many = (len(pypdfium2.PdfDocument(write_pdf(sheets, paper=paper))) for paper in ("a0", "a4"))
    assert few < many / 4


def test_sizes_are_nested_each_in_its_own_kind_of_line(evaluator):
    from izett.measuring.size_chart import standard_charts

    chart = standard_charts()["en_13402_3_women"]
    run = {
        size: sheet_pieces(evaluator.evaluate(Recipe("bodice", chart.body(size))).pattern)
        for size in ("84", "92", "100")
    }
    stacks = nested(run)
    assert [len(stack.sheets) for stack in stacks] == [3, 3]
    content = write_pdf(stacks, paper="roll")
    page = pypdfium2.PdfDocument(content)[0]
    text = page.get_textpage().get_text_range()
    assert all(re.search(rf"\b{size}\b", text) for size in run)
    # Marks and levels of every size; what is cut and what is sewn told apart; the words are as black as the lines.
    assert "thick: cut; thin: sew" in text
    dark, _ = ink(page)
    words = page.get_textpage()
    found = words.search("thick")
    at, many = found.get_next()
    left, bottom, right, top = words.get_charbox(at)
    upside = dark[::-1]
    assert many == len("thick")
    assert upside[round(2 * bottom) : round(2 * top), round(2 * left) : round(2 * right)].any()
    dashes = set(re.findall(rb"\[([\d. ]*)\] 0 d", uncompressed(content)))
    assert len(dashes) >= 3


def uncompressed(content):
    from pypdf import PdfReader

    return b"".join(page.get_contents().get_data() for page in PdfReader(io.BytesIO(content)).pages)


def test_an_unknown_paper_is_told_with_what_there_is(sheets):
    with pytest.raises(UnknownName, match="a4, letter, a0 or roll"):
        write_pdf(sheets, paper="papyrus")


# ---------------------------------------------------------------- lists


def test_seam_lengths_are_those_as_sewn(evaluator, middling):
    pattern = evaluator.evaluate(Recipe("bodice", middling, also=("sleeve",))).pattern
    unit, head, *rows = [line.split(",") for line in write_seam_lengths(pattern).splitlines()]
    assert unit == ["# unit=cm"] and head[0] == "seam"
    assert len(rows) == len(pattern.seams)
    for row, seam in zip(rows, pattern.seams, strict=True):
        assert [float(cell) for cell in row[3:5]] == pytest.approx(seam_lengths(pattern, seam), abs=0.006)


def test_the_cutting_list_says_cloth_count_and_fold(sheets):
    rows = write_cutting_list([(Use.OUTER, cutting_order([Wanted(sheet) for sheet in sheets]))]).splitlines()
    assert rows[0].startswith("cloth,piece,cut,on_fold")
    assert len(rows) == 1 + len(sheets)
    assert any(row.startswith("outer cloth,Bodice front,1,yes") for row in rows)
    assert any(row.startswith("outer cloth,Sleeve,2,no") for row in rows)
