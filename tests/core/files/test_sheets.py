"""Sheets of measures in open files: exact round trips, what others write, what is asked, what is refused."""

import csv
import json
from datetime import date
from io import StringIO

import pypdfium2
import pytest
from hypothesis import given
from hypothesis import strategies as st

from izett.errors import UnknownName, UnreadableFile, UnreadableMeasure, UnstatedUnit
from izett.files.measure_sheet_pdf import write_measure_sheet
from izett.files.measures_csv import read_csv, write_csv
from izett.files.measures_json import read_measures, write_measures
from izett.files.scan_json import read_scan, write_scan
from izett.files.sheet_file import LARGEST_FILE, read_sheet_file
from izett.files.size_chart_csv import read_size_chart, write_size_chart
from izett.measuring.measure import measures, read_measure
from izett.measuring.scanner import NOISE, scan
from izett.measuring.sheet import Sheet, sheet_of
from izett.measuring.size_chart import SizeChart, standard_charts
from izett.measuring.taking import Taken
from izett.units import Unit
from tests.bodies import EN_13402_3

KEYS = [*sorted(s for s in measures() if s != "cup"), "arm_length.left", "arm_length.right"]
WRITINGS = st.one_of(
    st.integers(20, 117).map(str),
    st.floats(20, 117).map(lambda cm: f"{cm:.2f}"),
    st.tuples(st.integers(8, 47), st.sampled_from([" 1/2", "¾", "-7/8", " 3/16"])).map(lambda w: f"{w[0]}{w[1]}"),
    st.integers(20, 120).map(lambda cm: f"{cm} cm"),
    st.integers(20, 47).map(lambda inches: f'{inches}"'),
)


@st.composite
def sheets(draw):
    keys = draw(st.lists(st.sampled_from(KEYS), min_size=1, max_size=20, unique=True))
    taken = {}
    for key in keys:
        texts = draw(st.lists(WRITINGS, min_size=1, max_size=5))
        unit = draw(st.sampled_from(list(Unit)))
        taken[key] = Taken(key, tuple(read_measure(key, text, unit=unit) for text in texts))
    return Sheet(taken, date(2026, 11, 21), draw(st.sampled_from(["helper", "alone"])), "stays", "Odile; Varn, “O”")


def lengths(sheet):
    return {key: [(r.cm, r.unit) for r in taken.readings] for key, taken in sheet.taken.items()}


@given(sheets())
def test_a_sheet_comes_back_exactly_from_json_and_from_csv(sheet):
    for back in (
        read_measures(write_measures(sheet)),
        read_csv(write_csv(sheet)).sheet,
        read_sheet_file(write_csv(sheet).encode()).sheet,
        read_sheet_file(write_measures(sheet).encode("utf-8-sig")).sheet,
    ):
        assert lengths(back) == lengths(sheet)
        assert back.cm == sheet.cm
        assert (back.taken_on, back.taken_by, back.worn, back.wearer) == (
            sheet.taken_on, sheet.taken_by, sheet.worn, sheet.wearer,
        )  # fmt: skip


def test_the_csv_is_what_a_csv_reader_reads():
    """Python's own csv module, for a reader that is not ours."""
    rows = [r for r in csv.reader(StringIO(write_csv(sheet_of({"bust_girth": 92.5})))) if not r[0].startswith("#")]
    assert dict(zip(rows[0], rows[1], strict=False)) == {
        "measure": "bust_girth", "name": "Bust girth", "reading": "92.5 cm", "unit": "cm",
    }  # fmt: skip


@pytest.mark.parametrize(
    "text",
    [
        "measure,reading,unit\nbust_girth,36 1/2,in\nWaist girth,29,inches\n",
        "Measure;in\nBust girth;36 1/2\nwaist_girth;29\n",
        "name\tvalue\nbust girth\t36,5 in\nwaist girth\t29 in\n",
        'bust_girth,36.5"\nwaist_girth,29"\n',
        "symbol,inches\nBUST GIRTH,36½\nwaist girth,29\n",
    ],
)
def test_what_spreadsheets_write_is_read(text):
    assert read_csv(text).sheet.cm == pytest.approx({"bust_girth": 92.71, "waist_girth": 73.66})


def test_terms_of_the_standard_are_understood():
    """ISO 8559-1's terms, from memory."""
    assert set(read_csv("term,cm\nneck base girth,37\nback waist length,41\n").sheet.cm) == {
        "neck_girth",
        "back_waist_length",
    }


def test_a_unit_that_stands_nowhere_is_asked_for_and_never_guessed():
    text = "measure,reading\nbust_girth,36\n"
    with pytest.raises(UnstatedUnit):
        read_csv(text)
    assert read_csv(text, unit=Unit.INCH).sheet.cm["bust_girth"] == pytest.approx(91.44)
    document = json.dumps({"format": "izett-measures", "version": 1, "readings": {"bust_girth": 36}})
    with pytest.raises(UnstatedUnit):
        read_measures(document)
    assert read_measures(document, unit=Unit.CM).cm == {"bust_girth": 36}


def test_rows_that_cannot_be_read_are_told_with_their_line_and_the_rest_is_kept():
    read = read_csv("measure,cm\nbust_girth,92\nnose,3\nwaist_girth,much\nhip_girth,98\n")
    assert set(read.sheet.cm) == {"bust_girth", "hip_girth"}
    assert read.left_out[0].startswith("Line 3: There is no measure “nose”")
    assert read.left_out[1].startswith("Line 4: Waist girth: “much” is not a length")


def test_a_measures_file_is_read_in_its_unit_or_the_readings_own():
    text = '{"format": "izett-measures", "version": 1, "unit": "in", "readings": {"bust_girth": 36.5, "waist_girth": "74cm"}}'
    assert read_measures(text).cm == {"bust_girth": pytest.approx(92.71), "waist_girth": 74}


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("{", "not valid JSON"),
        ("[]", "not a measures file"),
        ('{"format": "other"}', "not a measures file"),
        ('{"format": "izett-measures", "version": 2}', "version 2"),
        ('{"format": "izett-measures", "version": 1, "unit": "cm"}', "no “readings”"),
        ('{"format": "izett-measures", "version": 1, "unit": "cm", "readings": {"bust_girth": true}}', "not a length"),
        ('{"format": "izett-measures", "version": 1, "unit": "cm", "readings": {"bust_girth": null}}', "not a length"),
        ('{"format": "izett-measures", "version": 1, "unit": "cm", "readings": {"bust_girth": []}}', "0 readings"),
        ('{"format": "izett-measures", "version": 1, "unit": "cm", "taken_on": "May", "readings": {}}', "not a day"),
        ('{"format": "izett-scan", "version": 1}', "not a whole izett-scan file"),
        ("", "No measure was found"),
        ("measure,cm\nnose,3\n", "There is no measure “nose”"),
    ],
)
def test_a_damaged_or_foreign_file_is_told(text, says):
    with pytest.raises(UnreadableFile, match=says):
        read_sheet_file(text.encode())


def test_what_is_no_text_or_far_too_large_is_refused():
    with pytest.raises(UnreadableFile, match="not text"):
        read_sheet_file(b"\xff\xfe\x00\x01")
    with pytest.raises(UnreadableFile, match="far smaller"):
        read_sheet_file(b" " * (LARGEST_FILE + 1))


def test_an_impossible_length_is_refused_wherever_it_comes_from():
    with pytest.raises(UnreadableMeasure):
        sheet_of({"bust_girth": -1.0})
    assert read_csv("measure,cm\nbust_girth,999\nhip_girth,98\n").left_out[0].startswith("Line 2: Bust girth")


def test_a_scan_comes_back_within_its_stated_noise():
    body = dict(standard_charts()["en_13402_3_women"].body("96", height=170.0))
    scanned = scan(body, seed=4)
    read = read_scan(write_scan(scanned, taken_on=date(2026, 11, 21)))
    assert read.left_out == ()
    assert read.sheet.taken_by == "scan"
    assert read.sheet.cm == scanned.cm
    for symbol, cm in body.items():
        assert abs(scanned.cm[symbol] - cm) < 4 * scanned.noise[symbol]
    assert scan(body, seed=4) == scanned != scan(body, seed=5)
    errors = [(scan(body, seed=seed).cm["bust_girth"] - 96.0) / NOISE["large_girth"] for seed in range(300)]
    assert (sum(e * e for e in errors) / len(errors)) ** 0.5 == pytest.approx(1, rel=0.15)


def test_a_scanner_of_another_make_is_read_by_the_terms_of_the_standard():
    document = {
        "format": "izett-scan", "version": 1, "device": "another", "taken_on": "2026-11-21", "unit": "mm",
        "measurements": [{"term": "Bust girth", "value": 925}, {"term": "ear width", "value": 40}],
    }  # fmt: skip
    read = read_scan(json.dumps(document))
    assert read.sheet.cm == {"bust_girth": 92.5}
    assert "ear width" in read.left_out[0]


def test_the_charts_are_the_published_series():
    """EN 13402-3, women by bust and men by chest, from memory."""
    women = standard_charts()["en_13402_3_women"]
    assert [(s["bust_girth"], s["waist_girth"], s["hip_girth"]) for s in women.sizes.values()] == [
        tuple(map(float, row)) for row in EN_13402_3
    ]
    men = standard_charts()["en_13402_3_men"]
    assert all(s["bust_girth"] - s["waist_girth"] == 12 for s in men.sizes.values())
    with pytest.raises(UnknownName, match="no size “XS”"):
        women.body("XS")


def test_a_chart_comes_back_exactly_and_a_makers_own_may_be_in_inches():
    women = standard_charts()["en_13402_3_women"]
    back = read_size_chart(write_size_chart(women))
    assert {n: {s: r.cm for s, r in size.items()} for n, size in back.items()} == {
        name: dict(size) for name, size in women.sizes.items()
    }
    odd = read_size_chart("size,bust_girth (in)\nS,34 3/16\n")["S"]["bust_girth"].cm
    chart = SizeChart("odd", "Odd", "", {"S": {"bust_girth": odd}})
    assert read_size_chart(write_size_chart(chart))["S"]["bust_girth"].cm == odd
    assert sheet_of(chart.body("S")).taken["bust_girth"].readings[0].text == "86.83625"
    own = read_size_chart("size, bust girth (in), waist_girth\nS, 34 1/2, 69 cm\n")
    assert {s: r.cm for s, r in own["S"].items()} == {"bust_girth": 87.63, "waist_girth": 69.0}


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("size,bust_girth (cm)\n", "no sizes"),
        ("size,bust_girth (cm)\nS,80\nS,84\n", "Line 3"),
        ("size,bust_girth (cm)\nS,wide\n", "Line 2: Bust girth"),
    ],
)
def test_a_chart_that_is_none_is_told_where(text, says):
    with pytest.raises(UnreadableFile, match=says):
        read_size_chart(text)
    with pytest.raises(UnknownName):
        read_size_chart("size,nose (cm)\nS,3\n")
    with pytest.raises(UnstatedUnit):
        read_size_chart("size,bust_girth\nS,80\n")


@pytest.mark.parametrize(("paper", "size"), [("a4", (595, 842)), ("letter", (612, 792))])
def test_the_printed_sheet_has_every_measure_and_what_was_taken(paper, size):
    sheet = read_csv(
        "# wearer,Odile Varn\nmeasure,reading,reading 2,reading 3,unit\nbust_girth,36 5/8,38,36¾,in\ncup,C,,,\n"
    ).sheet
    for content, taken in (
        (write_measure_sheet(None, paper=paper), False),
        (write_measure_sheet(sheet, paper=paper), True),
    ):
        pdf = pypdfium2.PdfDocument(content)
        assert (round(pdf[0].get_width()), round(pdf[0].get_height())) == size
        text = "\n".join(page.get_textpage().get_text_range() for page in pdf)
        for what in measures().values():
            assert what.name in text
        assert ("36 5/8 in" in text) is taken
        assert ("93.0 cm" in text) is taken
        assert ("then 36¾ in" in text) is taken
        assert ("Odile Varn" in text) is taken
    with pytest.raises(UnknownName):
        write_measure_sheet(None, paper="napkin")
