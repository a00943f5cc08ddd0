"""The command line: same core, errors in one line on stderr, exit status 2."""

import json
import subprocess
import sys

import pytest

from izett.cli import main
from izett.drafting.sets import starter_sets


@pytest.fixture
def measures(tmp_path, middling):
    path = tmp_path / "body.json"
    path.write_text(json.dumps({"format": "izett-measures", "version": 1, "unit": "cm", "readings": middling}))
    return path


def run(*arguments):
    return main([str(a) for a in arguments])


def test_a_draft_is_written_checked_and_passes(measures, tmp_path, capsys):
    out = tmp_path / "bodice.json"
    assert run("draft", "--measures", measures, "--block", "bodice", "--out", out) == 0
    assert run("check", out) == 0
    table = capsys.readouterr().out
    assert table.count("passes") >= 15
    assert "seams_match" in table
    data = json.loads(out.read_text())
    assert data["measures"]["bust_girth"] == 92
    assert data["symbols"]["armhole_depth"] == "estimated"
    assert data["allowances"]["bust_ease"] == 6


@pytest.mark.parametrize("suffix", ["svg", "pdf"])
def test_sheets_are_written(measures, tmp_path, suffix):
    out = tmp_path / f"bodice.{suffix}"
    assert run("draft", "--measures", measures, "--out", out, "--paper", "letter") == 0
    assert out.stat().st_size > 2000


def test_allowances_take_units(measures, tmp_path):
    out = tmp_path / "b.json"
    assert (
        run("draft", "--measures", measures, "--set", "bust_ease=3in", "--set", "front_ease_share=0.5", "--out", out)
        == 0
    )
    allowances = json.loads(out.read_text())["allowances"]
    assert (allowances["bust_ease"], allowances["front_ease_share"]) == (7.62, 0.5)


def test_a_recipe_is_worked_and_its_skipped_steps_told(measures, tmp_path, capsys):
    recipe = tmp_path / "recipe.json"
    steps = [
        {"uid": "a", "kind": "change_shoulder", "params": {"amount": 0.5}},
        {"uid": "b", "kind": "aim_dart", "params": {"dart": "front.none"}},
    ]
    recipe.write_text(json.dumps({"format": "izett-recipe", "steps": steps}))
    out = tmp_path / "b.json"
    assert run("draft", "--measures", measures, "--recipe", recipe, "--out", out) == 0
    assert "skipped" in capsys.readouterr().err


def test_the_proportional_school_estimates_what_direct_takes(tmp_path, capsys, middling):
    body = {**middling, "neck_girth": 40}
    path = tmp_path / "b.json"
    path.write_text(json.dumps({"format": "izett-measures", "version": 1, "unit": "cm", "readings": body}))
    assert run("worksheet", "--measures", path, "--block", "bodice") == 0
    direct = capsys.readouterr().out
    assert run("worksheet", "--measures", path, "--method", "proportional") == 0
    proportional = capsys.readouterr().out
    assert "so that" in direct and "÷" in direct
    assert direct.count("estimated") < proportional.count("estimated")


def test_a_failing_check_exits_with_one(measures, tmp_path, capsys):
    out = tmp_path / "b.json"
    run("draft", "--measures", measures, "--out", out)
    data = json.loads(out.read_text())
    for seam in data["seams"]:
        seam["ease"] = [3.0, 3.0]
    out.write_text(json.dumps(data))
    assert run("check", out) == 1
    assert "fails" in capsys.readouterr().out


@pytest.mark.parametrize(
    ("arguments", "says"),
    [
        (["draft", "--measures", "nowhere.json", "--out", "x.json"], "nowhere.json"),
        (["check", "nowhere.json"], "nowhere.json"),
    ],
)
def test_missing_files_are_told_in_one_line(arguments, says, capsys):
    assert main(arguments) == 2
    error = capsys.readouterr().err
    assert error.count("\n") == 1
    assert error.startswith("izett: ")
    assert says in error


@pytest.mark.parametrize(
    ("more", "says"),
    [
        (["--block", "cape", "--out", "x.svg"], "no block “cape”"),
        (["--block", "skirt", "--block", "trousers", "--out", "x.svg"], "would both clothe the body below the waist"),
        (["--cloth", "felt", "--out", "x.svg"], "no kind of cloth “felt”"),
        (["--cloth", "knit:very", "--out", "x.svg"], "not a number"),
        (["--school", "shoulder=pads", "--out", "x.svg"], "no way “pads”"),
        (["--fit", "baggy", "--out", "x.svg"], "no fit “baggy”"),
        (["--set", "bust_ease=99", "--out", "x.svg"], "outside 3 to 24"),
        (["--set", "bust_ease=wide", "--out", "x.svg"], "not a length"),
        (["--set", "nothing=1", "--out", "x.svg"], "no allowance"),
        (["--method", "bespoke", "--out", "x.svg"], "no way “bespoke”"),
        (["--purpose", "gala", "--out", "x.svg"], "no purpose"),
        (["--out", "x.doc"], "cannot be written"),
    ],
)
def test_errors_are_one_line_on_stderr_with_status_two(measures, more, says, capsys, monkeypatch, tmp_path):
    monkeypatch.chdir(tmp_path)
    assert run("draft", "--measures", measures, *more) == 2
    error = capsys.readouterr().err
    assert says in error
    assert error.count("\n") == 1


def test_lists_have_a_line_each(capsys):
    from izett.catalogue import catalogue

    for name, shelf in (("steps", "operations"), ("blocks", "methods"), ("checks", "checks")):
        assert main([name]) == 0
        assert len(capsys.readouterr().out.strip().splitlines()) == len(getattr(catalogue(), shelf))


def test_it_runs_as_a_module(measures, tmp_path):
    out = tmp_path / "b.svg"
    done = subprocess.run(
        [sys.executable, "-m", "izett", "draft", "--measures", measures, "--out", out], capture_output=True, check=False
    )
    assert done.returncode == 0, done.stderr
    assert out.exists()


def test_a_sheet_in_csv_is_judged_estimated_and_written_elsewhere(tmp_path, capsys):
    path = tmp_path / "sheet.csv"
    path.write_text("measure,reading\nbust_girth,36 1/2\nhigh_bust_girth,42\nwaist_girth,29\nheight,66\nnose,3\n")
    assert run("measures", path) == 2
    assert "cm or inches" in capsys.readouterr().err
    assert run("measures", path, "--unit", "in") == 0
    told = capsys.readouterr()
    assert "left out: Line 6" in told.err
    assert "The upper chest is larger than the bust. By 14 cm; up to 1.8 cm is usual." in told.out
    assert "take again: Upper-chest girth" in told.out
    assert "±" in told.out
    for suffix in ("json", "csv", "pdf"):
        out = tmp_path / f"out.{suffix}"
        assert run("measures", path, "--unit", "in", "--out", out) == 0
        assert out.stat().st_size > 100
    assert run("measures", path, "--unit", "in", "--out", tmp_path / "out.xls") == 2
    assert "92.71" in (tmp_path / "out.json").read_text() or "36 1/2 in" in (tmp_path / "out.json").read_text()


def test_a_standard_size_and_a_scan_are_drafted_like_any_body(measures, tmp_path, capsys):
    out = tmp_path / "size.json"
    assert run("draft", "--size", "en_13402_3_women:92@66in", "--out", out) == 0
    assert json.loads(out.read_text())["measures"] == {
        "bust_girth": 92, "waist_girth": 76, "hip_girth": 100, "height": pytest.approx(167.64),
    }  # fmt: skip
    assert run("draft", "--size", "nobody:92", "--out", out) == 2
    scan = tmp_path / "scan.json"
    assert run("scan", "--measures", measures, "--seed", "2", "--out", scan) == 0
    assert run("draft", "--measures", scan, "--out", out) == 0
    assert json.loads(out.read_text())["measures"]["bust_girth"] == pytest.approx(92, abs=2)
    assert run("sizes") == 0
    assert "en_13402_3_men" in capsys.readouterr().out


@pytest.mark.parametrize("of", starter_sets().values(), ids=lambda of: of.key)
def test_every_set_is_drafted_written_and_checked(of, tmp_path, capsys):
    out = tmp_path / "set.json"
    blocks = [part for key in of.blocks for part in ("--block", key)]
    cloth = f"{of.cloth.kind}:{of.cloth.stretch:g}" if of.cloth.stretch else of.cloth.kind
    assert (
        run("draft", "--size", "en_13402_3_women:96@168", *blocks, "--fit", of.fit, "--cloth", cloth, "--out", str(out))
        == 0
    )
    data = json.loads(out.read_text())
    assert data["intent"]["fit"] == of.fit
    assert {piece["part"] for piece in data["pieces"]}
    capsys.readouterr()
    assert run("check", str(out)) == 0
    assert "fails" not in capsys.readouterr().out
    assert run("worksheet", "--size", "en_13402_3_women:96@168", *blocks, "--fit", of.fit, "--cloth", cloth) == 0
    sums = capsys.readouterr().out
    assert "Measures" in sums and "estimated" in sums


def test_rules_schools_and_recipes_on_the_command_line(measures, tmp_path):
    out, recipe = tmp_path / "b.json", tmp_path / "recipe.json"
    recipe.write_text(
        json.dumps(
            {"format": "izett-recipe", "version": 1, "also": ["sleeve"], "schools": {"darts": "one"}, "fit": "easy"}
        )
    )
    more = ["--recipe", str(recipe), "--school", "shoulder=dart", "--set", "back_neck_width=3in", "--out", str(out)]
    assert run("draft", "--measures", measures, *more) == 0
    data = json.loads(out.read_text())
    assert {piece["name"] for piece in data["pieces"]} == {"bodice_front", "bodice_back", "sleeve"}
    assert data["values"]["back_neck_width"] == pytest.approx(7.62)
    darts = {dart["name"] for piece in data["pieces"] for dart in piece["darts"]}
    assert "back.shoulder_dart" in darts and "front.bust_dart" not in darts
    assert data["intent"]["fit"] == "easy"


STEP = "change_side underarm=1cm"


def test_steps_are_given_for_both_halves_or_one(measures, tmp_path):
    out = {half: tmp_path / f"{half}.json" for half in ("both", "left")}
    for half, path in out.items():
        assert run("draft", "--measures", measures, "--step", STEP, "--half", half, "--out", path) == 0
    both, left = (json.loads(path.read_text())["pieces"] for path in out.values())
    assert [(p["half"], bool(p["on_fold"]), p["cut"]) for p in both] == [("both", True, 1), ("both", False, 2)]
    # The front lay on the fold: it is one whole piece now. The back is two unlike pieces.
    assert [(p["half"], bool(p["on_fold"]), p["cut"]) for p in left] == [
        ("both", False, 1), ("left", False, 1), ("right", False, 1),
    ]  # fmt: skip


def test_a_step_says_its_section_and_half_itself(measures, tmp_path):
    fit = tmp_path / "fit.json"
    step = "widen_across part=back amount=1/4in section=fit half=right"
    assert run("draft", "--measures", measures, "--step", step, "--out", fit) == 0
    assert {p["half"] for p in json.loads(fit.read_text())["pieces"]} >= {"left", "right"}


def test_measures_taken_apart_draft_the_halves_apart(tmp_path, middling, capsys):
    path, out = tmp_path / "body.json", tmp_path / "apart.json"
    readings = {**middling, "shoulder_length.left": 12.0, "shoulder_length.right": 12.6}
    path.write_text(json.dumps({"format": "izett-measures", "version": 1, "unit": "cm", "readings": readings}))
    assert run("draft", "--measures", path, "--apart", "shoulder_length", "--out", out) == 0
    seams = {s["half"]: s["lengths"][0] for s in json.loads(out.read_text())["seams"] if s["kind"] == "shoulder"}
    assert seams["right"] - seams["left"] == pytest.approx(0.6, abs=0.01)


@pytest.mark.parametrize(
    ("more", "says"),
    [
        (["--step", "fly away=1"], "no step “fly”"),
        (
            ["--step", """set_allowances lines='[{"line": "front.neck", "width": 251}]'"""],
            "Width cannot be 251 cm. Enter a value from 0 cm to 10 cm.",
        ),
        (["--step", "change_side underarm=far"], "Underarm cannot be “far”. Enter a number."),
        (["--step", "change_side underarm=40"], "Enter a value from"),
        (["--step", "change_side underarm=1 half=middle"], "half"),
        (["--step", "set_allowances purpose=home", "--half", "left"], "no left half"),
        (["--apart", "shoulder_length"], "left and right"),
        (["--apart", "elegance"], "elegance"),
    ],
)
def test_a_step_or_a_measure_that_cannot_be_so_is_told(measures, more, says, capsys, tmp_path):
    run("draft", "--measures", measures, *more, "--out", tmp_path / "x.json")
    assert says in capsys.readouterr().err
