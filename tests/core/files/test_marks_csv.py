"""Marks as a table: read as it was written, to the last digit; what cannot be read is told by its row."""

import csv
from io import StringIO

import pytest

from izett.draping.form import Hand, draped
from izett.draping.panel import MarkKind
from izett.errors import UnreadableFile, ValueOutOfRange
from izett.files.marks_csv import read_marks, write_marks
from izett.units import Unit
from tests.draped import truth_of
from tests.garments import BODY


@pytest.mark.parametrize("tape", [0.05, 0.0])
def test_marks_that_are_written_and_read_are_the_same_to_the_last_digit(tape):
    given = draped(truth_of("sheath", BODY), Hand(tape=tape))
    back = read_marks(write_marks(given))
    assert [panel.marks for panel in back.panels] == [panel.marks for panel in given.panels]
    assert back.levels == given.levels
    assert write_marks(back) == write_marks(back.model_copy())


def test_a_plain_csv_reader_finds_numbers_in_its_cells():
    text = write_marks(draped(truth_of("bustier", BODY), Hand()))
    rows = list(csv.DictReader(StringIO("".join(line for line in text.splitlines(True) if not line.startswith("#")))))
    assert all(isinstance(float(row["along"]), float) for row in rows)
    assert any(float(row["along"]) < 0 for row in rows)


def test_inches_fractions_other_separators_and_signs_are_read():
    text = '# unit=in\npanel;kind;across;along;line;name\nFront;cross;4 7/8;-1 3/8;Neck + Princess;\nFront;Dot;−2.5cm;3";princess;\n'
    (panel,) = read_marks(text).panels
    first, second = panel.marks
    assert (first.across, first.along) == pytest.approx((12.3825, -3.4925))
    assert first.lines == ("neck", "princess")
    assert second.kind is MarkKind.DOT
    assert (second.across, second.along) == pytest.approx((-2.5, 7.62))
    (plain,) = read_marks("panel,kind,across,along\nA,dot,1,2\n", unit=Unit.INCH).panels
    assert plain.marks[0].across == pytest.approx(2.54)


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("panel,kind,across\nFront,dot,1\n", "no column “along”"),
        ("panel,kind,across,along\nFront,star,1,2\n", "Row 2: “star”"),
        ("panel,kind,across,along\nFront,dot,1,2\n,dot,1,2\n", "Row 3 names no panel"),
        ("panel,kind,across,along\nFront,dot,one,2\n", "Row 2, across"),
        ("panel,kind,across,along\nFront,dot,9999,2\n", "Row 2, across"),
        ("panel,kind,across,along,line\nFront,cross,1,2,a+b+c\n", "Row 2, lines"),
        ("# unit=ell\npanel,kind,across,along\nFront,dot,1,2\n", "unit “ell”"),
        ("", "no mark in the table"),
        ("panel,kind,across,along\n", "no mark in the table"),
    ],
)
def test_what_cannot_be_read_is_told_by_its_row(text, words):
    with pytest.raises(UnreadableFile, match=words) as told:
        read_marks(text)
    assert told.value.fix


def test_more_marks_than_anyone_makes_are_refused():
    rows = "".join(f"Front,dot,{i % 90},{i % 70},hem\n" for i in range(500))
    with pytest.raises(ValueOutOfRange, match="400 marks"):
        read_marks(f"panel,kind,across,along,line\n{rows}")
