"""`lay`, `convert` and `run` from the command line: what they write, and what they say of bad input."""

import json
from dataclasses import replace

import pytest
import shapely

from izett.cli import main
from izett.errors import IzettError
from izett.finishing.allowances import missing, purposes, refuse_missing
from izett.finishing.sheet import sheet_pieces
from izett.pattern.facts import Layer, Role
from izett.recipe.model import Recipe, Step
from tests.core.blocks import cut_for

BODY = {"bust_girth": 92, "waist_girth": 74, "hip_girth": 98, "height": 168}


@pytest.fixture
def files(tmp_path):
    body = {"format": "izett-measures", "version": 1, "unit": "cm", "readings": BODY}
    (tmp_path / "body.json").write_text(json.dumps(body))
    cloth = {"format": "izett-cloth", "version": 1, "unit": "cm", "width": 140, "fold": "lengthwise"}
    (tmp_path / "cloth.json").write_text(json.dumps(cloth))
    drafted = ["draft", "--measures", str(tmp_path / "body.json"), "--block", "bodice", "--block", "skirt"]
    assert main([*drafted, "--purpose", "home", "--out", str(tmp_path / "p.json")]) == 0
    return tmp_path


def lay(files, *more, out="plan.json"):
    return main(
        [
            "lay",
            str(files / "p.json"),
            "--cloth",
            str(files / "cloth.json"),
            "--effort",
            "0.1",
            "--out",
            str(files / out),
            *more,
        ]
    )


def test_a_plan_is_written_as_the_format_says(files, capsys):
    assert lay(files) == 0
    plan = json.loads((files / "plan.json").read_text())
    assert (plan["format"], plan["version"], plan["unit"]) == ("izett-lay", 1, "cm")
    assert {p["piece"] for p in plan["placed"]} == {"bodice_front", "bodice_back", "skirt_front", "skirt_back"}
    for placed in plan["placed"]:
        outline = shapely.Polygon(placed["outline"])
        assert outline.is_valid and placed["layers"] == 2
        left, low, right, top = outline.bounds
        assert left >= -1e-4 and right <= 69 + 1e-4 and low >= -1e-4 and top <= plan["length"] + 1e-4
        assert not placed["on_fold"] or left == pytest.approx(0, abs=1e-4)
    assert plan["bought"] >= plan["length"] and plan["bought"] % 10 == 0
    area = sum(shapely.Polygon(p["outline"]).area * p["layers"] for p in plan["placed"])
    assert plan["utilisation"] == pytest.approx(area / (140 * plan["length"]), rel=1e-4)
    said = capsys.readouterr().out
    assert "folded lengthwise" in said and "decides the length" in said


@pytest.mark.parametrize("out", ["plan.svg", "plan.pdf"])
def test_a_plan_is_drawn(files, out):
    assert lay(files, out=out) == 0
    content = (files / out).read_bytes()
    assert (b"Skirt front" in content) if out.endswith("svg") else content.startswith(b"%PDF")


def test_several_garments_take_more_and_too_little_at_hand_is_told(files, capsys):
    cloth = json.loads((files / "cloth.json").read_text())
    (files / "cloth.json").write_text(json.dumps({**cloth, "length": 100}))
    assert lay(files, "--times", "2") == 0
    assert "too little" in capsys.readouterr().out
    plan = json.loads((files / "plan.json").read_text())
    assert len(plan["placed"]) == 8


@pytest.mark.parametrize(
    ("changes", "words"),
    [
        ({"width": 30}, "Wider than the cloth"),
        ({"width": 0}, "0 cm wide"),
        ({"use": "lining"}, "No piece of this garment is cut from the lining"),
        ({"unit": None}, "does not say what its lengths are in"),
    ],
)
def test_a_cloth_that_will_not_do_is_told_in_one_line(files, capsys, changes, words):
    cloth = json.loads((files / "cloth.json").read_text())
    (files / "cloth.json").write_text(json.dumps({**cloth, **changes}))
    assert lay(files) == 2
    said = capsys.readouterr().err
    assert words in said and said.count("\n") == 1
    assert not (files / "plan.json").exists()


def test_a_pattern_goes_into_every_file_and_json_comes_back_as_it_was(files):
    for out in ("p.svg", "p.dxf", "p.plt", "p.pdf", "p.csv", "q.json"):
        assert main(["convert", str(files / "p.json"), str(files / out)]) == 0
    assert (files / "q.json").read_text() == (files / "p.json").read_text()
    assert main(["convert", str(files / "p.json"), str(files / "n.dxf"), "--numbered"]) == 0
    assert (files / "n.dxf").read_text() != (files / "p.dxf").read_text()
    assert main(["convert", str(files / "p.json"), str(files / "r.pdf"), "--paper", "roll"]) == 0


def test_a_run_of_sizes_is_nested_or_written_size_by_size(tmp_path, capsys):
    run = ["run", "--block", "bodice", "--sizes", "en_13402_3_women:84,92"]
    assert main([*run, "--out", str(tmp_path / "run.json")]) == 0
    found = json.loads((tmp_path / "run.json").read_text())
    assert [one["size"] for one in found["sizes"]] == ["84", "92"]
    assert all(one["pattern"]["format"] == "izett-pattern" for one in found["sizes"])
    assert main([*run, "--out", str(tmp_path / "nest.pdf"), "--paper", "roll"]) == 0
    assert main([*run[:-1], "en_13402_3_women:", "--out", str(tmp_path / "run.json")]) == 2
    many = ",".join(str(size) for size in range(50))
    assert main([*run[:-1], f"en_13402_3_women:{many}", "--out", str(tmp_path / "run.json")]) == 2
    assert "A run of 50 sizes" in capsys.readouterr().err


# ---------------------------------------------------------------- a missing allowance, and whose allowance it is


def test_a_missing_allowance_stops_the_print_until_it_is_accepted(evaluator, middling):
    bare = Step("a", "set_allowances", {"purpose": "home", "lines": [{"line": "front.side", "width": 0.0}]})
    found = evaluator.evaluate(Recipe("bodice", middling, steps=(bare,)))
    assert missing(found.pattern) == ["front.side"]
    with pytest.raises(IzettError, match="No seam allowance at") as told:
        refuse_missing(found.pattern)
    assert told.value.code == "allowance-missing" and told.value.where == ("front.side",)
    meant = Step("b", "accept", {"check": "allowances_agree", "where": ["front.side"], "aspect": "without",
                                 "reason": "bound with bias", "worse": "less"})  # fmt: skip
    refuse_missing(evaluator.evaluate(Recipe("bodice", middling, steps=(bare, meant))).pattern)
    refuse_missing(cut_for(found.pattern, "none"))


def test_knit_is_serged_and_a_zip_takes_two(evaluator, middling):
    """Handbook, cutting: 0.6 in serged knit, hems 1.3; centre back with a zip 2."""
    home, production = purposes()["home"], purposes()["production"]
    assert [home.of(role, Layer.OUTER, knit=True) for role in (Role.SIDE, Role.ARMHOLE, Role.HEM)] == [0.6, 0.6, 1.3]
    assert production.of(Role.SIDE, Layer.OUTER, knit=False) == 1.0
    assert home.of(Role.HEM, Layer.LINING, knit=False) == 2.0
    assert purposes()["bridal"].by_role[Role.SIDE] == 5.0
    zipped = Step("z", "open_up", {"closure": "zip", "long": 20.0,
                                   "at": {"start": "back.neck_cb", "end": "back.waist_cb", "along": "back.centre"}})  # fmt: skip
    serged = Step("s", "set_allowances", {"purpose": "serged"})
    plain, with_zip = (
        evaluator.evaluate(Recipe("bodice", middling, steps=steps)).pattern for steps in ((serged,), (zipped, serged))
    )

    def at_back(pattern):
        sheets = sheet_pieces(pattern)
        return {
            sheet.allowances.of(sheet.piece, edge)
            for sheet in sheets
            for edge in sheet.piece.edges
            if edge.lineage == "back.centre"
        }

    assert (at_back(plain), at_back(with_zip)) == ({0.6}, {2.0})


def test_a_second_cloth_a_count_and_words_stand_on_the_label(evaluator, middling):
    said = Step(
        "r", "ready_piece", {"pieces": ["bodice_back"], "cloth": "contrast", "cut": 4, "says": "mind the match"}
    )
    pattern = evaluator.evaluate(Recipe("bodice", middling, steps=(said,))).pattern
    front, back = sheet_pieces(pattern)
    assert back.number == 4 and "cut 4, mirrored" in back.label and "mind the match" in back.label
    assert any(text.startswith("CONTRAST") for text in back.label)
    assert not any("CONTRAST" in text for text in front.label)
    odd = Step("r", "ready_piece", {"pieces": ["bodice_back"], "cut": 3})
    (stage,) = evaluator.evaluate(Recipe("bodice", middling, steps=(odd,))).stages
    assert "pairs" in str(stage.failure)
    assert replace(pattern.allowances).pieces["bodice_back"].cloth == "contrast"
