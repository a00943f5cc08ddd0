"""`tear` and `marks` on the command line."""

import json

import pytest

from izett.cli import main
from izett.draping.form import Hand, draped
from izett.files.marks_csv import write_marks
from tests.draped import truth_of
from tests.garments import BODY


@pytest.fixture
def marks(tmp_path):
    path = tmp_path / "marks.csv"
    path.write_text(write_marks(draped(truth_of("bustier", BODY), Hand())), encoding="utf-8")
    return path


@pytest.mark.parametrize("suffix", ["json", "svg", "pdf"])
def test_marks_become_pieces_in_every_format(marks, tmp_path, capsys, suffix):
    out = tmp_path / f"pieces.{suffix}"
    assert main(["marks", str(marks), "--out", str(out)]) == 0
    told = capsys.readouterr().out
    assert told.count("cubics") == 4
    assert told.count("trued") == 3
    assert out.stat().st_size > 1000
    if suffix == "json":
        document = json.loads(out.read_text())
        assert document["format"] == "izett-pattern"
        assert len(document["pieces"]) == 4
        assert {p["zone"] for p in document["pieces"]} == {"front", "back"}
        assert main(["check", str(out)]) == 0


def test_a_panel_that_does_not_close_is_told_and_the_exit_status_says_so(tmp_path, capsys):
    path = tmp_path / "open.csv"
    path.write_text("panel,kind,across,along,line\nFront,dash,0,4,neck\nFront,dash,0,-18,waist\n")
    assert main(["marks", str(path), "--out", str(tmp_path / "out.json")]) == 1
    assert "does not close yet" in capsys.readouterr().err


def test_a_tear_list_is_written_on_paper_and_as_data_for_any_muslin(tmp_path, capsys):
    form = tmp_path / "form.csv"
    form.write_text("# unit=in\npanel,length,width\nCentre front,14,6 1/2\nSide front,13,7\n")
    data, paper = tmp_path / "tear.json", tmp_path / "tear.pdf"
    assert main(["tear", str(form), "--muslin", "36in", "--out", str(data)]) == 0
    assert json.loads(data.read_text())["muslin"]["width"] == pytest.approx(91.44)
    assert main(["tear", str(form), "--out", str(paper)]) == 0
    assert paper.read_bytes().startswith(b"%PDF")


@pytest.mark.parametrize(
    ("arguments", "says"),
    [
        (["tear", "FORM", "--muslin", "wide", "--out", "x.json"], "--muslin"),
        (["tear", "FORM", "--muslin", "12in", "--out", "x.json"], "none that is sold"),
        (["tear", "FORM", "--out", "x.docx"], "cannot be written"),
        (["marks", "FORM", "--out", "x.json"], "no column"),
    ],
)
def test_what_cannot_be_done_is_one_line_with_what_to_do(arguments, says, tmp_path, capsys, monkeypatch):
    monkeypatch.chdir(tmp_path)
    form = tmp_path / "form.csv"
    form.write_text("panel,length,width\nFront,35,16\n")
    assert main([str(form) if part == "FORM" else part for part in arguments]) == 2
    error = capsys.readouterr().err.strip()
    assert says in error
    assert "\n" not in error
