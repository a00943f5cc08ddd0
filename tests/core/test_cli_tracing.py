"""`trace`, `sheets` and `convert` as they are typed."""

import json

import cv2
import numpy as np
import pypdfium2
import pytest

from izett.cli import main
from izett.files.pattern_json import read_pattern
from izett.tracing.calibration import found_sheets
from izett.tracing.camera_stand_in import Shot, cut_out, diagram
from izett.tracing.sheets import SHEETS
from tests.draped import truth_of
from tests.pictured import pictured

BODY = {"bust_girth": 92.0, "waist_girth": 74.0, "hip_girth": 98.0, "height": 168.0}


@pytest.fixture(scope="module")
def panel():
    return truth_of("bustier", BODY).pieces[0]


def test_a_photo_becomes_a_pattern_file(panel, tmp_path, capsys):
    taken = pictured(panel, shot=Shot(seed=4, above=80, width=1640, height=1230), notches=False)
    photo = tmp_path / "photo.png"
    cv2.imwrite(str(photo), taken.picture)
    x, y = taken.tap
    out = tmp_path / "piece.json"
    assert main(["trace", str(photo), "--tap", f"{x:.0f},{y:.0f}", "--title", "Centre front", "--out", str(out)]) == 0
    assert "calibration checked to 0." in capsys.readouterr().out
    pattern, _ = read_pattern(out.read_text())
    (piece,) = pattern
    assert piece.title == "Centre front"
    around = sum(edge.curve.length for edge in piece.edges)
    assert around == pytest.approx(sum(edge.curve.length for edge in panel.edges), abs=0.3)
    assert main(["trace", str(photo), "--bar", "17cm", "--out", str(out)]) == 2
    assert "drawn 20 cm long" in capsys.readouterr().err


@pytest.mark.parametrize("by", ["points", "rectangle"])
def test_a_scan_is_traced_by_known_lengths(by, tmp_path):
    scan = np.full((900, 1200, 3), 40, np.uint8)
    cv2.rectangle(scan, (300, 200), (899, 599), (200, 210, 215), -1)
    file, out = tmp_path / "scan.png", tmp_path / "piece.json"
    cv2.imwrite(str(file), scan)
    known = {"points": "100,50:1100,50=50cm", "rectangle": "100,50:1100,50:1100,850:100,850=50cmx40cm"}[by]
    assert main(["trace", str(file), "--by", by, "--known", known, "--out", str(out)]) == 0
    (piece,) = read_pattern(out.read_text())[0]
    # 20 pixels a cm: 600 × 400 pixels.
    assert sorted(edge.curve.length for edge in piece.edges) == pytest.approx([20, 20, 30, 30], abs=0.1)


def test_what_tells_no_scale_is_refused(tmp_path, capsys):
    file = tmp_path / "scan.png"
    cv2.imwrite(str(file), np.full((400, 400, 3), 90, np.uint8))
    out = str(tmp_path / "piece.json")
    for by, known, told in (
        ("points", "10,10:12,10=50cm", "2 pixels apart"),
        ("points", "10,10:300,10=0cm", "tells no scale"),
        ("rectangle", "10,10:300,10:10,300:300,300=20cmx20cm", "no rectangle"),
        ("grid", "200,200=1in", "No grid"),
        ("points", "x,10:300,10=5cm", "no place"),
        ("points", "", "needs --known"),
        ("rectangle", "10,10:300,10=20cm", "4 and 2 are needed"),
    ):
        assert main(["trace", str(file), "--by", by, "--known", known, "--out", out]) == 2
        assert told in capsys.readouterr().err


@pytest.mark.parametrize("curl", [0.0, 0.3])
def test_a_diagram_is_measured_by_its_own_grid(curl, middling):
    from izett.catalogue import catalogue
    from izett.recipe.evaluator import Evaluator
    from izett.recipe.model import Recipe
    from izett.tracing.scales import by_grid

    piece = Evaluator(catalogue()).evaluate(Recipe("bodice", middling)).pattern.piece("bodice_back")
    outline, _ = cut_out(piece, notches=False)
    picture, seen = diagram(outline, square=2.54, curl=curl)
    found = by_grid(picture, tuple(seen.mean(axis=0)), 2.54)
    assert found.crossings > 100
    real, measured = (np.linalg.norm(spots[:, None] - spots[None], axis=-1) for spots in (outline, found.spots(seen)))
    # A twentieth of a square; four clicked corners give no better.
    assert np.abs(real - measured).max() <= 0.05 * 2.54


@pytest.mark.parametrize("paper", ["a4", "letter"])
def test_the_sheets_print_at_true_size_and_are_read_from_the_print(paper, tmp_path):
    out = tmp_path / "sheets.pdf"
    assert main(["sheets", "--paper", paper, "--out", str(out)]) == 0
    document = pypdfium2.PdfDocument(out)
    assert len(document) == SHEETS
    for number in range(SHEETS):
        page = np.ascontiguousarray(document[number].render(scale=200 / 72).to_numpy()[:, :, :3])
        (found,) = found_sheets(page)
        assert (found.sheet.number, len(found.spots)) == (number + 1, 35)
        px, cm = (np.linalg.norm(spots[-1] - spots[0]) for spots in (found.pixels, found.spots))
        assert px / cm * 2.54 / 200 == pytest.approx(1.0, abs=0.001)


def test_pieces_go_from_file_to_file(tmp_path, capsys):
    first, second, third = (tmp_path / name for name in ("block.json", "block.dxf", "again.json"))
    assert main(["draft", "--size", "en_13402_3_women:92@168", "--block", "torso", "--out", str(first)]) == 0
    assert main(["convert", str(first), str(second)]) == 0
    assert main(["convert", str(second), str(third)]) == 0
    assert [p["title"] for p in json.loads(third.read_text())["pieces"]] == ["Torso front", "Torso back"]
    assert main(["convert", str(tmp_path / "x.doc"), str(third)]) == 2
    assert "cannot be read" in capsys.readouterr().err
