"""The cutting table: cloths, worksheets, lay plans begun, bettered, moved, kept and stale; carried with the job."""

import json
from base64 import b64decode
from io import BytesIO
from math import ceil
from uuid import uuid4

import pypdfium2
import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from PIL import Image

from tests.studio.conftest import problem

CLOTH = {"name": "Black crêpe", "width": 140, "fold": "lengthwise", "price": 24}


@pytest.fixture
def job(page):
    return page.job()


def table(page, job):
    return page.get(f"/api/jobs/{job['id']}/cut-table").json()


def keep(page, job, **table):
    body = {"cloths": {"outer": CLOTH}, "sums": [], "times": 1, **table}
    answer = page.put(f"/api/jobs/{job['id']}/cut-table", body, page.fresh(job)["version"])
    assert answer.status_code == 200, answer.content
    return answer.json()


def lay(page, job, **asked):
    data = {"uid": uuid4().hex, "use": "outer", "effort": 0.1, **asked}
    answer = page.post(f"/api/jobs/{job['id']}/lay-plans", data)
    assert answer.status_code == 202, answer.content
    return answer.json()


def keep_plan(page, job, plan, **more):
    return page.put(f"/api/jobs/{job['id']}/lay-plans/outer", {"plan": plan, **more}, page.fresh(job)["version"])


def test_a_cloth_lies_on_the_shelf_until_it_is_put_away(page):
    kept = page.post("/api/cloths", CLOTH)
    assert kept.status_code == 201
    (one,) = page.get("/api/cloths").json()
    assert one["cloth"]["name"] == "Black crêpe" and one["cloth"]["selvedge"] == 1
    changed = page.put(f"/api/cloths/{one['id']}", {**CLOTH, "nap": True})
    assert changed.json()["cloth"]["nap"] is True
    assert page.send("delete", f"/api/cloths/{one['id']}").status_code == 204
    assert page.get("/api/cloths").json() == []
    problem(page.put(f"/api/cloths/{one['id']}", CLOTH), 404, "not-found")


@pytest.mark.parametrize(
    "wrong", [{"width": 0}, {"width": 140, "shrinkage": [0.6, 0]}, {"width": 140, "repeat": [200, 0]}]
)
def test_what_no_cloth_is_is_told(page, job, wrong):
    assert problem(page.post("/api/cloths", wrong), 422, "value-out-of-range")["fix"]
    body = {"cloths": {"outer": wrong}, "sums": [], "times": 1}
    problem(page.put(f"/api/jobs/{job['id']}/cut-table", body, job["version"]), 422, "value-out-of-range")
    assert table(page, job)["kept"]["cloths"] == {}


def test_worksheets_are_worked_and_kept_with_the_job(page, job):
    listed = page.get("/api/worksheets").json()
    assert {"fullness", "ruffle", "lacing"} <= {one["key"] for one in listed}
    fullness = next(one for one in listed if one["key"] == "fullness")
    assert {"kind": "add_band", "of": "ruffle", "param": "ratio", "symbol": "fullness"} in fullness["uses"]
    lines = page.post("/api/worksheets/fullness", {"values": {"before": 25, "after": 10}}).json()
    assert lines[0]["value"] == 2.5 and "÷" in lines[0]["worked"]
    problem(page.post("/api/worksheets/fullness", {"values": {"before": -1}}), 422, "value-out-of-range")
    problem(page.post("/api/worksheets/origami", {"values": {}}), 404, "unknown-name")
    sums = [{"uid": "a", "kind": "elastic", "values": {"girth": 70}, "note": "top"}]
    keep(page, job, sums=sums)
    now = table(page, job)
    assert now["kept"]["sums"] == sums
    assert any(row["what"] == "elastic" and row["amount"] == pytest.approx(0.87 * 70 + 2) for row in now["shopping"])
    bad = {"cloths": {}, "sums": [{"uid": "a", "kind": "elastic", "values": {"girth": 9000}}], "times": 1}
    problem(page.put(f"/api/jobs/{job['id']}/cut-table", bad, page.fresh(job)["version"]), 422, "value-out-of-range")
    assert table(page, job)["kept"]["sums"] == sums


def test_a_plan_is_looked_for_moved_by_hand_kept_and_printed(page, job):
    keep(page, job)
    work = lay(page, job)
    assert work["state"] == "done", work
    found = work["result"]
    assert found["plan"]["format"] == "izett-lay" and not found["faults"] and found["savings"] is not None
    assert "folded lengthwise" in found["headline"] and found["decides"]
    # The same again is answered with what is known.
    assert lay(page, job)["result"] == found
    moved = page.post(
        f"/api/jobs/{job['id']}/lay-plans/moved",
        {"use": "outer", "plan": found["plan"], "number": 0, "along": 40, "across": 0},
    ).json()
    assert moved["plan"]["length"] > found["plan"]["length"] + 30 and not moved["faults"]
    over = page.post(
        f"/api/jobs/{job['id']}/lay-plans/moved",
        {"use": "outer", "plan": found["plan"], "number": 1, "along": 0, "across": -200, "snap": False},
    ).json()
    assert over["faults"]
    assert keep_plan(page, job, moved["plan"], by_hand=True).status_code == 200
    now = table(page, job)
    assert now["kept"]["plans"]["outer"]["by_hand"] is True
    (outer,) = now["uses"]
    assert outer["stale"] is False and [row["title"] for row in outer["rows"]]
    bought = next(row for row in now["shopping"] if row["what"].startswith("outer cloth"))
    assert bought["amount"] == pytest.approx(moved["plan"]["length"], abs=1e-5) and bought["by_shop"]
    # Paid for by the ten centimetres, 24 a metre; by who reads inches, by the eighth of a yard.
    assert bought["cost"] == pytest.approx(ceil(bought["amount"] / 10) * 2.4)
    by_yard = page.get(f"/api/jobs/{job['id']}/cut-table?unit=in").json()["shopping"][0]
    eighth = 91.44 / 8
    assert by_yard["cost"] == pytest.approx(ceil(bought["amount"] / eighth) * eighth * 0.24)
    printed = page.get(f"/api/jobs/{job['id']}/lay-plans/outer/print")
    assert printed.status_code == 200 and printed.content.startswith(b"%PDF")
    assert (
        page.send("delete", f"/api/jobs/{job['id']}/lay-plans/outer", None, page.fresh(job)["version"]).status_code
        == 200
    )
    problem(page.get(f"/api/jobs/{job['id']}/lay-plans/outer/print"), 409, "no-plan")


def test_a_plan_says_so_when_the_pieces_have_changed(page, job):
    keep(page, job)
    plan = lay(page, job)["result"]["plan"]
    assert keep_plan(page, job, plan).status_code == 200
    wider = {"uid": "w", "kind": "change_side", "params": {"underarm": 1.0, "waist": 1.0}}
    recipe = {**job["recipe"], "steps": [*job["recipe"]["steps"], wider]}
    answer = page.put(f"/api/jobs/{job['id']}/recipe", {"recipe": recipe, "why": "wider"}, page.fresh(job)["version"])
    assert answer.status_code == 200
    now = table(page, job)
    assert now["uses"][0]["stale"] is True
    assert any("changed since" in row["note"] for row in now["shopping"])
    problem(page.get(f"/api/jobs/{job['id']}/lay-plans/outer/print"), 422, "pieces-changed")
    data = {"use": "outer", "plan": plan, "number": 0}
    problem(page.post(f"/api/jobs/{job['id']}/lay-plans/moved", data), 422, "pieces-changed")
    problem(keep_plan(page, job, plan), 422, "pieces-changed")


def test_a_plan_says_so_when_its_cloth_has_changed_and_not_when_its_price_has(page, job):
    keep(page, job)
    assert keep_plan(page, job, lay(page, job)["result"]["plan"]).status_code == 200
    keep(page, job, cloths={"outer": {**CLOTH, "price": 30, "name": "Cheaper"}})
    assert table(page, job)["uses"][0]["stale"] is False
    keep(page, job, cloths={"outer": {**CLOTH, "width": 150}})
    assert table(page, job)["uses"][0]["stale"] is True


@pytest.mark.parametrize("said", [{"lie": "bias"}, {"lie": "across"}, {"whole": True}, {"free": True}, {"cut": 4}])
def test_a_plan_is_stale_when_a_piece_is_made_ready_in_another_way(page, job, said):
    keep(page, job)
    assert keep_plan(page, job, lay(page, job)["result"]["plan"]).status_code == 200
    name = "bodice_front" if "whole" in said else "bodice_back"
    step = {"uid": "r", "kind": "ready_piece", "params": {"pieces": [name], **said}}
    recipe = {**job["recipe"], "steps": [*job["recipe"]["steps"], step]}
    answer = page.put(f"/api/jobs/{job['id']}/recipe", {"recipe": recipe, "why": "ready"}, page.fresh(job)["version"])
    assert answer.status_code == 200
    assert table(page, job)["uses"][0]["stale"] is True


def test_a_plan_that_cannot_be_cut_is_not_kept(page, job):
    keep(page, job)
    plan = lay(page, job)["result"]["plan"]
    data = {"use": "outer", "plan": plan, "number": 1, "along": 0, "across": -200, "snap": False}
    off = page.post(f"/api/jobs/{job['id']}/lay-plans/moved", data).json()["plan"]
    problem(keep_plan(page, job, off), 409, "plan-cannot-be-cut")
    assert table(page, job)["kept"]["plans"] == {}


def test_what_is_missing_is_told(page, job):
    asked = {"uid": "x", "use": "outer"}
    problem(page.post(f"/api/jobs/{job['id']}/lay-plans", asked), 409, "no-cloth")
    keep(page, job, cloths={"outer": CLOTH, "lining": CLOTH})
    problem(page.post(f"/api/jobs/{job['id']}/lay-plans", {**asked, "use": "lining"}), 404, "unknown-name")
    keep(page, job, cloths={"outer": {**CLOTH, "width": 30}})
    work = lay(page, job)
    assert work["state"] == "failed" and work["problem"]["code"] == "wider-than-the-cloth"
    assert "wider" in work["problem"]["fix"]


def test_the_cutting_table_goes_out_and_in_with_its_job(page, job):
    keep(page, job, sums=[{"uid": "a", "kind": "fullness", "values": {"after": 9.0}, "note": ""}], times=2)
    plan = lay(page, job)["result"]["plan"]
    assert keep_plan(page, job, plan).status_code == 200
    document = page.get(f"/api/jobs/{job['id']}/export").content
    assert json.loads(document)["cut_table"]["times"] == 2
    file = SimpleUploadedFile("job.json", document)
    back = page.client.post("/api/jobs/import", {"file": file}).json()
    before, after = table(page, job)["kept"], table(page, back)["kept"]
    assert before == after and after["plans"]["outer"]["plan"]["placed"]


def test_the_table_keeps_its_version(page, job):
    body = {"cloths": {"outer": CLOTH}, "sums": [], "times": 1}
    path = f"/api/jobs/{job['id']}/cut-table"
    problem(page.put(path, body, None), 428, "version-missing")
    assert page.put(path, body, job["version"]).status_code == 200
    problem(page.put(path, {**body, "times": 3}, job["version"]), 412, "job-changed")


# ---------------------------------------------------------------- sizes of a run, lists, swatches, the test square

RUN = {"chart": "en_13402_3_women", "sizes": ["84", "92", "100"], "height": 168}


def words_of(pdf):
    document = pypdfium2.PdfDocument(pdf)
    return "\n".join(page.get_textpage().get_text_range() for page in document)


def test_sizes_of_a_run_are_laid_listed_and_nested_together(page, job):
    problem(page.get(f"/api/jobs/{job['id']}/run/print"), 409, "no-sizes")
    keep(page, job, run=RUN)
    now = table(page, job)
    assert set(now["kept"]["run"]["bodies"]) == {"84", "92", "100"}
    (outer,) = now["uses"]
    labels = {row["label"] for row in outer["rows"]}
    assert {"1 of 2, size 84", "2 of 2, size 100"} <= labels and len(outer["rows"]) == 6
    # A larger size has larger pieces.
    area = {row["label"]: row["area"] for row in outer["rows"]}
    assert area["1 of 2, size 84"] < area["1 of 2, size 92"] < area["1 of 2, size 100"]
    found = lay(page, job)["result"]
    assert {piece["piece"] for piece in found["plan"]["placed"]} == {
        f"{name}:{size}" for name in ("bodice_front", "bodice_back") for size in RUN["sizes"]
    }
    assert not found["faults"] and "rule of thumb" in found["thumb"]
    assert keep_plan(page, job, found["plan"]).status_code == 200
    assert table(page, job)["uses"][0]["stale"] is False
    for paper in ("a0", "roll", "a4", "letter"):
        printed = page.get(f"/api/jobs/{job['id']}/run/print?paper={paper}")
        assert printed.status_code == 200 and printed.content.startswith(b"%PDF")
    assert all(
        size in words_of(page.get(f"/api/jobs/{job['id']}/run/print?paper=roll").content) for size in RUN["sizes"]
    )
    # Another size, and the plan is of other pieces.
    keep(page, job, run={**RUN, "sizes": ["84", "92"]})
    assert table(page, job)["uses"][0]["stale"] is True
    keep(page, job)
    assert table(page, job)["kept"]["run"] is None


def test_measures_of_a_run_are_the_charts_whatever_is_sent(page, job):
    keep(page, job, run={**RUN, "bodies": {"84": {"bust_girth": 300.0}}})
    assert table(page, job)["kept"]["run"]["bodies"]["84"]["bust_girth"] == 84


@pytest.mark.parametrize(
    ("run", "status", "code"),
    [
        ({**RUN, "sizes": [str(n) for n in range(50)]}, 422, "value-out-of-range"),
        ({**RUN, "sizes": []}, 422, "value-out-of-range"),
        ({**RUN, "sizes": ["84", "vast"]}, 404, "unknown-name"),
        ({**RUN, "chart": "nowhere"}, 404, "unknown-name"),
    ],
)
def test_a_run_that_cannot_be_is_told(page, job, run, status, code):
    body = {"cloths": {}, "sums": [], "times": 1, "run": run}
    assert problem(page.put(f"/api/jobs/{job['id']}/cut-table", body, job["version"]), status, code)["fix"]
    assert table(page, job)["kept"]["run"] is None


def test_a_run_goes_out_and_in_with_its_job(page, job):
    keep(page, job, run=RUN)
    file = SimpleUploadedFile("job.json", page.get(f"/api/jobs/{job['id']}/export").content)
    back = page.client.post("/api/jobs/import", {"file": file}).json()
    assert table(page, back)["kept"]["run"] == table(page, job)["kept"]["run"]


def test_the_lists_are_printed_with_boxes_amounts_and_a_label_for_every_piece(page, job):
    keep(page, job, sums=[{"uid": "b", "kind": "buttons", "values": {}, "note": "down the back"}])
    assert keep_plan(page, job, lay(page, job)["result"]["plan"]).status_code == 200
    rows = table(page, job)["uses"][0]["rows"]
    for paper, unit, sold in (("a4", "cm", " m"), ("letter", "in", " yd")):
        printed = page.get(f"/api/jobs/{job['id']}/lists/print?paper={paper}&unit={unit}").content
        words = words_of(printed)
        assert "Cut from the outer cloth" in words and "Black crêpe" in words and "down the back" in words
        assert sold in words
        for row in rows:
            assert f"{row['title']} ({row['label']}): {row['how']}" in words
            assert words.count(f"of {row['number']} cut") >= row["number"]
        assert words.count("piece ") >= sum(row["number"] for row in rows)
        size = pypdfium2.PdfDocument(printed)[0].get_size()
        assert round(size[0]) == (595 if paper == "a4" else 612)


def test_the_sums_are_printed_each_with_its_numbers(page, job):
    printing = f"/api/jobs/{job['id']}/sums/print"
    assert "keep it" in problem(page.get(printing), 409, "no-sums")["fix"]
    keep(page, job, sums=[{"uid": "a", "kind": "elastic", "values": {"girth": 70}, "note": "top"},
                          {"uid": "b", "kind": "fullness", "values": {"before": 25, "after": 10}, "note": ""}])  # fmt: skip
    for unit, girth in (("cm", "70.0 cm"), ("in", "27 9/16 in")):
        words = words_of(page.get(f"{printing}?unit={unit}").content)
        assert (
            ": top" in words
            and "chosen" in words
            and "usual" in words
            and girth in words
            and "2.5" in words
            and "÷" in words
        )
        assert ("70.0 cm" in words) is (unit == "cm")


def test_the_worksheet_of_a_draft_is_printed_in_the_readers_unit(page, job):
    body = {"sheet": job["sheet"]["id"], "recipe": job["recipe"], "job": job["id"]}
    sums = page.post("/api/preview", body).json()["sums"]
    for paper, unit in (("a4", "cm"), ("letter", "in")):
        words = words_of(page.get(f"/api/jobs/{job['id']}/worksheet/print?paper={paper}&unit={unit}").content)
        flat = " ".join(words.split())
        missing = [one["label"] for one in sums if one["state"] != "taken" and one["label"] not in flat]
        assert len(sums) > 30 and not missing
        lengths = [one for one in sums if one["unit"] == "cm"]
        if unit == "cm":
            assert all(f"{one['value']:.1f} cm" in flat for one in lengths if abs(one["value"] * 10 % 1 - 0.5) > 0.01)
        else:
            assert " cm" not in flat and flat.count(" in") >= len(lengths)


def test_a_swatch_is_made_small_and_kept_with_its_cloth(page, job):
    picture = BytesIO()
    Image.new("RGB", (3000, 2000), "#334455").save(picture, "JPEG")
    made = page.client.post("/api/swatches", {"file": SimpleUploadedFile("swatch.jpg", picture.getvalue())}).json()
    small = Image.open(BytesIO(b64decode(made["swatch"])))
    assert small.format == "JPEG" and small.size == (320, 320)
    keep(page, job, cloths={"outer": {**CLOTH, **made}})
    assert table(page, job)["kept"]["cloths"]["outer"]["swatch"] == made["swatch"]
    # Nothing of it goes into a plan, nor does a plan depend on it.
    found = lay(page, job)["result"]
    assert not found["plan"]["cloth"]["swatch"]
    assert keep_plan(page, job, found["plan"]).status_code == 200
    keep(page, job)
    assert table(page, job)["uses"][0]["stale"] is False
    problem(page.client.post("/api/swatches", {"file": SimpleUploadedFile("x.svg", b"<svg/>")}), 422, "photo-refused")
    odd = {**CLOTH, "swatch": "aGVsbG8="}
    assert problem(page.post("/api/cloths", odd), 422, "value-out-of-range")["fix"]


def test_a_test_square_says_what_the_printer_did(page):
    true = page.post("/api/test-square", {"side": 10.0}).json()
    assert true["true"] and true["scale"] == 1
    small = page.post("/api/test-square", {"side": 9.4}).json()
    assert not small["true"] and "fit to page" in small["words"]
    problem(page.post("/api/test-square", {"side": 0}), 422, "value-out-of-range")
