"""Files: read back identical, true to scale as other readers measure them."""

import json
import re
import xml.etree.ElementTree as ET
from dataclasses import replace
from itertools import pairwise
from pathlib import Path

import numpy as np
import pypdfium2
import pytest
from svgpathtools import parse_path

from izett.drafting.sets import starter_sets
from izett.errors import UnknownName, UnreadableFile
from izett.files.pattern_json import (
    PatternDoc,
    evaluated_document,
    pattern_document,
    pattern_of,
    read_pattern,
    write_pattern,
)
from izett.files.pdf import OVERLAP, PAPERS, write_pdf
from izett.files.recipe_json import RecipeDoc, read_recipe
from izett.files.svg import write_svg
from izett.finishing.sheet import sheet_pieces
from izett.pattern.document import Machine
from izett.pattern.facts import Half
from izett.pattern.sewn import span_length
from izett.recipe.model import Recipe, Step
from izett.styling.operation import Section
from izett.wording import plain
from tests.bodies import some_bodies
from tests.core.blocks import cut_for
from tests.garments import GARMENTS, garment

#: Where each block of the garments is lengthened: low on its front.
LOW = {
    "bodice": {"start": "front.waist_side", "end": "front.underarm", "along": "front.side", "fraction": 0.3},
    "skirt": {
        "start": "skirt_front.hem_side",
        "end": "skirt_front.waist_side",
        "along": "skirt_front.side",
        "fraction": 0.3,
    },
    "knit_top": {"start": "front.hem_side", "end": "front.underarm", "along": "front.side", "fraction": 0.3},
}
SVG = "{http://www.w3.org/2000/svg}"
#: dots an inch at which a page is looked at; one dot is 0.04 mm.
DPI = 600


@pytest.fixture
def pattern(evaluator, middling):
    return evaluator.evaluate(Recipe("bodice", middling)).pattern


def document(pattern, **more):
    return pattern_document(
        pattern,
        measures={"bust_girth": 92.0},
        values={},
        allowances={},
        symbols={},
        **more,
    )


def test_json_gives_back_the_identical_pattern_for_every_body(evaluator):
    for body in some_bodies(25):
        pattern = evaluator.evaluate(Recipe("bodice", body)).pattern
        text = write_pattern(document(pattern))
        again, doc = read_pattern(text)
        assert again == pattern
        assert write_pattern(doc) == text


@pytest.mark.parametrize("of", starter_sets().values(), ids=lambda of: of.key)
def test_json_gives_back_every_block(evaluator, middling, of):
    body = {**middling, "hip_girth": 98.0}
    pattern = evaluator.evaluate(Recipe(of.blocks[0], body, also=of.blocks[1:], fit=of.fit, cloth=of.cloth)).pattern
    text = write_pattern(document(pattern))
    again, doc = read_pattern(text)
    assert again == pattern
    assert write_pattern(doc) == text


@pytest.mark.parametrize("half", [Half.BOTH, Half.LEFT])
@pytest.mark.parametrize("name", GARMENTS)
def test_json_gives_back_all_that_a_styled_garment_has(evaluator, name, half):
    """Links, openings, acceptances, machine allowances, facts and halves: nothing of it is lost on the way."""
    recipe = garment(name)
    more = (
        Step("long", "lengthen", {"at": LOW[recipe.block], "amount": 0.4}, section=Section.FIT, half=half),
        Step("cloth", "set_allowances", {"purpose": "production", "lines": [{"line": "front.neck", "width": 0.7}]}),
        Step("needle", "machine_allowance", {"paper": 0.3, "machine": 0.6}),
        Step("so", "accept", {"check": "seams_agree", "where": ["shoulder"], "up_to": 1.0, "reason": "eased by hand"}),
    )
    evaluation = evaluator.evaluate(replace(recipe, steps=(*recipe.steps, *more)))
    pattern = evaluation.pattern
    again, doc = read_pattern(write_pattern(evaluated_document(evaluation, measures=recipe.measures)))
    assert again == pattern
    assert [str(stage.failure) for stage in evaluation.stages if stage.failure is not None] == []
    assert (pattern.allowances.purpose, pattern.machine, len(pattern.accepted)) == ("production", Machine(0.3, 0.6), 1)
    assert {p.half for p in pattern} & {Half.LEFT, Half.RIGHT} or half is Half.BOTH
    assert [c.words for c in doc.checks] == [plain(r.words) for r in evaluation.results]


def test_diamonds_and_what_is_marked_across_are_on_paper(evaluator, middling):
    torso = evaluator.evaluate(Recipe("torso", {**middling, "hip_girth": 98.0})).pattern
    svg = write_svg(sheet_pieces(torso))
    diamonds = sum(len(piece.diamonds) for piece in torso)
    assert svg.count('class="dart"') == diamonds + sum(len(piece.darts) for piece in torso)
    assert svg.count('class="level"') == sum(len(piece.lines) for piece in torso)
    assert len(pypdfium2.PdfDocument(write_pdf(sheet_pieces(torso), paper="a4", title="torso"))) > 2


def test_json_has_the_published_shape(pattern):
    data = json.loads(write_pattern(document(pattern)))
    assert (data["format"], data["version"], data["unit"]) == ("izett-pattern", 1, "cm")
    front = data["pieces"][0]
    assert front["name"] == "bodice_front"
    for edge, following in zip(front["edges"], [*front["edges"][1:], front["edges"][0]], strict=True):
        assert edge["to"] == following["from"]
        assert edge["curve"][-1] == following["curve"][0]
        assert front["vertices"][edge["from"]] == edge["curve"][0]
        assert len(edge["curve"]) == 2 or len(edge["curve"]) % 3 == 1
    assert front["darts"][0].keys() >= {"name", "form", "pivot", "tip", "mouth"}
    assert {"apex"} <= front["marks"].keys()
    assert {"bust"} <= front["lines"].keys()
    side = next(seam for seam in data["seams"] if seam["name"] == "side")
    assert side["sides"][0][0].keys() >= {"piece", "from", "to"}
    assert side["lengths"][0] == pytest.approx(side["lengths"][1])


def test_the_lengths_in_the_file_are_those_of_its_own_curves(pattern):
    """Measured again from the file by svgpathtools."""
    from svgpathtools import CubicBezier, Line

    doc = document(pattern)
    read = pattern_of(doc)
    for seam in read.seams:
        for side in seam.sides:
            for span in side:
                piece = read.holding(span.start)
                edges = [e for e in piece.edges if e.lineage == span.along]
                total = 0.0
                for edge in edges:
                    points = [complex(*p) for p in edge.curve.points]
                    total += (
                        Line(*points).length()
                        if len(points) == 2
                        else sum(CubicBezier(*points[i : i + 4]).length() for i in range(0, len(points) - 1, 3))
                    )
                assert span_length(piece, span) == pytest.approx(total, abs=1e-6)


def test_the_schemas_in_the_docs_are_the_programs():
    formats = Path(__file__).parents[3] / "docs" / "formats"
    assert json.loads((formats / "izett-pattern.schema.json").read_text()) == PatternDoc.model_json_schema(
        by_alias=True
    )
    assert json.loads((formats / "izett-recipe.schema.json").read_text()) == RecipeDoc.model_json_schema()


@pytest.mark.parametrize(
    ("spoil", "says"),
    [
        (lambda text: text[: len(text) // 2], "not valid JSON"),
        (lambda _: "[1, 2]", "not a pattern file"),
        (lambda text: text.replace('"izett-pattern"', '"other"'), "not a pattern file"),
        (lambda text: text.replace('"version":1', '"version":7').replace('"version": 1', '"version": 7'), "version 7"),
        (
            lambda text: text.replace('"role": "neck"', '"role": "nose"').replace('"role":"neck"', '"role":"nose"'),
            "damaged at",
        ),
        (lambda text: re.sub(r'"curve":\s*\[\s*\[', '"curve": [["x"],[', text, count=1), "damaged at"),
        (lambda text: text.replace('"to": "front.underarm"', '"to": "front.elsewhere"', 1), "contradicts itself"),
    ],
)
def test_a_damaged_or_foreign_file_is_told_with_the_place(pattern, spoil, says):
    with pytest.raises(UnreadableFile, match=says) as told:
        read_pattern(spoil(write_pattern(document(pattern))))
    assert told.value.fix


def test_no_number_that_is_none_gets_into_a_file(pattern):
    text = write_pattern(document(pattern)).replace("0.0", "NaN", 1)
    with pytest.raises(UnreadableFile):
        read_pattern(text)


def test_a_recipe_is_read_and_a_damaged_one_told():
    doc = read_recipe('{"format": "izett-recipe", "steps": [{"uid": "a", "kind": "x", "params": {}}]}')
    assert doc.recipe({"bust_girth": 92.0}).steps == (Step("a", "x", {}, version=1),)
    for text in ("{", "[]", '{"format": "izett-recipe", "steps": 3}', '{"format": "other"}'):
        with pytest.raises(UnreadableFile):
            read_recipe(text)


def test_svg_is_true_to_scale_in_millimetres(pattern):
    """Arc lengths and area of the sewing line as svgpathtools and shapely read them from the file."""
    sheets = sheet_pieces(cut_for(pattern, "muslin"))
    root = ET.fromstring(write_svg(sheets).split("\n", 1)[1])
    width, height = (float(root.attrib[side].removesuffix("mm")) for side in ("width", "height"))
    assert [float(v) for v in root.attrib["viewBox"].split()] == [0, 0, width, height]
    groups = root.findall(f"{SVG}g")
    assert [g.attrib["id"] for g in groups] == ["bodice_front", "bodice_back"]
    for group, sheet in zip(groups, sheets, strict=True):
        sew = next(p for p in group if p.attrib.get("class") == "sew")
        path = parse_path(sew.attrib["d"])
        ring = [*sheet.sewing, sheet.sewing[0]]
        ours = sum(np.hypot(b[0] - a[0], b[1] - a[1]) for a, b in pairwise(ring))
        assert path.length() == pytest.approx(10 * ours, rel=1e-4)
        x0, x1, y0, y1 = path.bbox()
        assert x0 >= 0 and x1 <= width and y0 >= 0 and y1 <= height
        # y runs down: the neck lies above the waist
        names = [t.text for t in group.findall(f"{SVG}text")]
        assert any("INCLUDED" in (name or "") for name in names)


def test_text_in_svg_is_escaped(pattern):
    text = write_svg(sheet_pieces(pattern, title="<Bodice & co>"))
    assert "&lt;Bodice &amp; co&gt;" in text
    ET.fromstring(text.split("\n", 1)[1])


# ---------------------------------------------------------------- print


def looked_at(pdf, page):
    bitmap = pdf[page].render(scale=DPI / 72, grayscale=True)
    return np.asarray(bitmap.to_numpy()).reshape(bitmap.height, bitmap.width) < 140


def long_runs(dark, axis, at_least):
    """Positions of dark lines along an axis: rows or columns that are dark for at least that many dots."""
    counts = dark.sum(axis=1 - axis)
    where = np.flatnonzero(counts > at_least)
    if not len(where):
        return []
    groups = np.split(where, np.flatnonzero(np.diff(where) > 3) + 1)
    return [float(group.mean()) for group in groups]


@pytest.mark.parametrize("paper", list(PAPERS))
def test_the_printed_squares_are_true_within_a_thousandth(pattern, paper):
    """The 10 cm and the 4 in square, measured by another PDF reader (pypdfium2) on the rendered page."""
    pdf = pypdfium2.PdfDocument(write_pdf(sheet_pieces(pattern), paper=paper))
    dark = looked_at(pdf, 0)
    cm = DPI / 2.54
    rows = long_runs(dark, 0, 9.5 * cm)
    sizes = sorted(abs(b - a) / cm for a in rows for b in rows if b > a)
    assert any(abs(size - 10) <= 0.01 for size in sizes), sizes
    assert any(abs(size - 10.16) <= 0.0102 for size in sizes), sizes
    columns = long_runs(dark, 1, 9.5 * cm)
    widths = [abs(b - a) / cm for a in columns for b in columns if b > a]
    assert any(abs(width - 10) <= 0.01 for width in widths), widths
    assert any(abs(width - 10.16) <= 0.0102 for width in widths), widths


def test_the_printed_pattern_is_true_within_a_thousandth(pattern):
    """The fold of the front, measured across two sheets that are joined with their stated overlap."""
    sheets = sheet_pieces(cut_for(pattern, "none"))
    pdf = pypdfium2.PdfDocument(write_pdf(sheets, paper="a4"))
    cm = DPI / 2.54
    pages = {name: n for n in range(1, len(pdf)) for name in ("A1", "B1") if f"page {name} " in text_of(pdf, n)}
    first, second = looked_at(pdf, pages["A1"]), looked_at(pdf, pages["B1"])
    a4_height = PAPERS["a4"][1] / 72 * 2.54
    fold_x = round((1.0 + 1.0) * cm)  # the sheet's rim and the piece's gap
    top = top_of(first[:, fold_x - 6 : fold_x + 7])
    foot = foot_of(second[:, fold_x - 6 : fold_x + 7], below=1.2 * cm)
    step = a4_height - 2 - OVERLAP
    measured = step + (foot - top) / cm
    fold = sheets[0].fold
    assert measured == pytest.approx(fold[0][1] - fold[1][1], rel=1e-3)


def text_of(pdf, page):
    return pdf[page].get_textpage().get_text_range() + " "


def top_of(strip):
    # The frame's rule lies in the first rows: the fold starts where darkness goes on for a centimetre.
    dark = strip.any(axis=1)
    run = int(0.4 * DPI / 2.54)
    return next(i for i in range(len(dark) - run) if dark[i : i + run].mean() > 0.7 and dark[i])


def foot_of(strip, below):
    dark = strip.any(axis=1)
    last = len(dark) - int(below)
    return next(i for i in range(last, 0, -1) if dark[i])


def test_every_sheet_says_what_it_is_and_how_to_join_it(pattern):
    pdf = pypdfium2.PdfDocument(
        write_pdf(sheet_pieces(pattern), paper="letter", title="Recital bodice", notes=("Mind the blades.",))
    )
    cover = pdf[0].get_textpage().get_text_range()
    for words in ("Recital bodice", "100 %", "10 cm", "4 in", "Mind the blades.", "A1"):
        assert words in cover
    joins: dict[str, int] = {}
    for number in range(1, len(pdf)):
        text = pdf[number].get_textpage().get_text_range()
        assert "print at 100 %" in text
        for pair in re.findall(r"[A-Z]\d·[A-Z]\d", text):
            joins[pair] = joins.get(pair, 0) + 1
    # each join's number stands on exactly the two sheets that it joins
    assert joins and set(joins.values()) == {2}
    assert pdf[1].get_size() == pytest.approx(PAPERS["letter"])


def test_the_same_pattern_prints_the_same_file(pattern):
    sheets = sheet_pieces(pattern)
    assert write_pdf(sheets) == write_pdf(sheets)


def test_an_unknown_paper_is_told(pattern):
    with pytest.raises(UnknownName, match="a4, letter, a0 or roll"):
        write_pdf(sheet_pieces(pattern), paper="napkin")
