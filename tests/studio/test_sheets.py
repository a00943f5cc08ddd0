"""Sheets in the studio: taken twice, left and right, under way, over time, in and out; size charts and the scanner."""

import json

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from izett.drafting.method import draft
from izett.drafting.methods.bodice import METHOD
from studio.models import MeasureSheet, Reading, SheetUnderWay, SizeChart, Wearer
from tests.studio.conftest import MIDDLING, problem


def typed(text, *again, unit="cm"):
    return {"text": text, "unit": unit, "again": [{"text": more, "unit": unit} for more in again]}


def keep(page, wearer, readings, **about):
    body = {"taken_on": "2026-11-21", "readings": readings, **about}
    return page.post(f"/api/wearers/{wearer['id']}/sheets", body)


def whole(**more):
    return {**{s: typed(t) for s, t in MIDDLING.items()}, **more}


def read(page, content, name="sheet.csv", **query):
    return page.client.post(
        "/api/measures/read", {"file": SimpleUploadedFile(name, content)}, query_params=query or None
    )


def test_a_measure_read_three_times_counts_by_its_median_and_keeps_all_readings(page):
    wearer = page.wearer()
    kept = keep(page, wearer, whole(bust_girth=typed("92", "97", "92.4"))).json()
    bust = next(r for r in kept["readings"] if r["symbol"] == "bust_girth")
    assert bust["cm"] == 92.4
    assert [r["text"] for r in (bust, *bust["again"])] == ["92", "97", "92.4"]


def test_left_and_right_are_kept_apart_and_drafted_by_their_mean(page):
    wearer = page.wearer()
    sides = {"shoulder_length.left": typed("12"), "shoulder_length.right": typed("13")}
    keep(page, wearer, whole(**sides))
    job = page.job(wearer)
    assert {r["symbol"] for r in job["sheet"]["readings"]} >= set(sides)
    sums = {s["symbol"]: s["value"] for s in page.preview(job)["sums"]}
    assert sums["shoulder_length"] == 12.5
    review = page.post("/api/measures/review", {"readings": whole(**sides)}).json()
    assert review["uneven"] == [{"symbol": "shoulder_length", "left": 12.0, "right": 13.0}]


def test_the_review_says_what_to_retake_what_to_read_again_and_what_is_estimated(page):
    readings = whole(
        bust_girth=typed("92", "95"),
        back_waist_length=typed("41"),
        armhole_depth=typed("19.6"),
        side_length=typed("26.5"),
    )
    review = page.post("/api/measures/review", {"readings": readings, "taken_by": "alone"}).json()
    judged = {r["symbol"]: r for r in review["readings"]}
    assert judged["bust_girth"]["asks_again"]
    assert judged["bust_girth"]["apart"] == pytest.approx(3)
    assert judged["bust_girth"]["cm"] == pytest.approx(93.5)
    assert review["retake"][0]["symbol"] == review["contradictions"][0]["symbols"][0] == "side_length"
    assert review["retake"][0]["would_fit"] == pytest.approx(21.4, abs=1)
    estimate = next(e for e in review["estimates"] if e["symbol"] == "neck_girth")
    assert estimate["spread"] > 0.5 and "×" in estimate["worked"]
    assert "waist_girth" in review["unguarded"] and "bust_girth" not in review["unguarded"]
    assert "back_waist_length" in review["less_certain"]
    assert [o["allowance"] for o in review["offers"]] == ["back_expansion"]
    assert {d["key"] for d in review["derived"]} >= {"cup_difference", "waist_drop"}
    assert set(review["figure"]["outlines"]) == {"front", "back", "side"}


def test_what_moved_since_an_earlier_sheet_is_told_while_typing(page):
    wearer = page.wearer()
    old = MeasureSheet.objects.get()
    review = page.post(
        "/api/measures/review",
        {"readings": whole(waist_girth=typed("79"), bust_girth=typed("92.5")), "against": old.pk},
    ).json()
    assert [m["symbol"] for m in review["moved"]] == ["waist_girth"]
    assert page.post("/api/measures/review", {"readings": {}, "against": 10**6}).status_code == 404
    assert wearer["id"]


def test_advice_ranks_what_to_take_next_through_the_jobs_own_recipe(page):
    wearer = page.wearer()
    job = page.job(wearer)
    advice = page.advice(wearer, whole(), job).json()["result"]
    moves = [n["by_spread"] for n in advice["next"]]
    assert moves == sorted(moves, reverse=True) and moves[0] > 0.5
    assert {e["symbol"] for e in advice["effects"]} == set(MIDDLING)
    assert [d["counts"] for d in advice["darts"]].count(True) == 1
    refused = page.advice(wearer, {"bust_girth": typed("92")}, uid="advice-2").json()["result"]
    assert refused["next"] == [] and "Take it first" in refused["refused"]


def test_a_sheet_under_way_waits_as_it_was_left_until_it_is_kept(page):
    wearer = page.wearer()
    path = f"/api/wearers/{wearer['id']}/under-way"
    under_way = {
        "taken_on": "2026-11-21", "taken_by": "alone", "worn": "stays", "place": "waist_girth", "prepared": ["chain"],
        "readings": {"bust_girth": typed("not yet a len", "92")},
    }  # fmt: skip
    assert page.put(path, under_way).status_code == 200
    found = page.get(f"/api/wearers/{wearer['id']}").json()["under_way"]
    assert {key: found[key] for key in under_way} == under_way
    assert page.put(path, {**under_way, "place": "hip_girth"}).json()["place"] == "hip_girth"
    assert SheetUnderWay.objects.count() == 1
    assert keep(page, wearer, whole()).status_code == 201
    assert page.get(f"/api/wearers/{wearer['id']}").json()["under_way"] is None
    page.put(path, under_way)
    assert page.send("delete", path).status_code == 204
    assert SheetUnderWay.objects.count() == 0
    problem(page.put("/api/wearers/00000000-0000-0000-0000-000000000000/under-way", under_way), 404, "not-found")


def test_two_sheets_are_compared_with_what_each_job_would_change(page):
    wearer = page.wearer()
    job = page.job(wearer)
    keep(page, wearer, whole(waist_girth=typed("79")))
    path = f"/api/wearers/{wearer['id']}/sheets"
    assert [s["number"] for s in page.get(path).json()] == [2, 1]
    found = page.get(f"{path}/compare?before=1&after=2").json()
    assert [d["symbol"] for d in found["differences"] if d["beyond"]] == ["waist_girth"]
    assert found["jobs"][0]["job"] == job["id"]
    assert {p["piece"] for p in found["jobs"][0]["pieces"]} == {"bodice_front", "bodice_back"}
    assert found["jobs"][0]["sheet"] == 1
    assert page.get(f"{path}/compare?before=1&after=9").status_code == 404


def test_a_job_keeps_its_steps_when_it_is_drafted_from_another_sheet(page):
    wearer = page.wearer()
    job = page.job(wearer)
    step = {"uid": "s-longer-1", "kind": "change_shoulder", "params": {"amount": 0.5}}
    recipe = {**job["recipe"], "steps": [step], "overrides": {"bust_ease": 7}}
    job = page.put(f"/api/jobs/{job['id']}/recipe", {"recipe": recipe, "why": "longer"}, job["version"]).json()
    new = keep(page, wearer, whole(waist_girth=typed("79"))).json()
    body = {"recipe": job["recipe"], "sheet": new["id"], "why": "drafted from sheet 2"}
    again = page.put(f"/api/jobs/{job['id']}/recipe", body, job["version"]).json()
    assert again["sheet"]["number"] == 2
    assert again["recipe"] == job["recipe"]
    assert page.preview(again)["stages"][0]["failure"] == ""


def test_sheets_go_out_as_files_and_come_in_the_same(page):
    wearer = page.wearer()
    kept = keep(page, wearer, whole(bust_girth=typed("36 1/2", "36 5/8", unit="in"), cup=typed("C"))).json()
    for kind in ("csv", "json"):
        out = page.get(f"/api/sheets/{kept['id']}/files/{kind}")
        assert "odile-varn" in out["Content-Disposition"]
        back = read(page, out.content, f"sheet.{kind}").json()
        assert back["wearer"] == "Odile Varn" and back["left_out"] == []
        second = keep(page, page.wearer(f"Another {kind}"), back["sheet"]["readings"]).json()
        assert {r["symbol"]: r["cm"] for r in second["readings"]} == {r["symbol"]: r["cm"] for r in kept["readings"]}
    assert page.get(f"/api/sheets/{kept['id']}/files/pdf?paper=letter").content.startswith(b"%PDF")
    assert page.get("/api/measures/sheet.pdf").content.startswith(b"%PDF")
    assert page.get("/api/sheets/987654/files/pdf").status_code == 404
    assert page.get(f"/api/sheets/{kept['id']}/figure").json()["levels"]["waist"]["half"] > 8


def test_a_file_without_a_unit_is_asked_about_and_a_foreign_one_told(page):
    content = b"measure,reading\nbust_girth,36\n"
    problem(read(page, content), 422, "unit-not-stated")
    assert read(page, content, unit="in").json()["sheet"]["readings"]["bust_girth"]["text"] == "36 in"
    problem(read(page, b"{}", "x.json"), 422, "unreadable-file")


def test_a_standard_size_is_a_wearer_like_any_other_and_stands_once(page):
    size = {"chart": "en_13402_3_women", "size": "92", "height": {"text": "65 3/16", "unit": "in"}}
    wearer = page.post("/api/sizes/take", size).json()
    assert page.post("/api/sizes/take", size).json()["id"] == wearer["id"]
    assert Wearer.objects.count() == 1
    assert wearer["newest"]["taken_by"] == "chart"
    readings = {r["symbol"]: r["cm"] for r in wearer["newest"]["readings"]}
    assert readings == {"bust_girth": 92, "waist_girth": 76, "hip_girth": 100, "height": 165.57625}
    assert wearer["sheets"] == page.post("/api/sizes/take", size).json()["sheets"] == 1
    sums = {s["symbol"]: s["value"] for s in page.preview(page.job(wearer))["sums"]}
    assert sums["front_width"] == pytest.approx(draft(METHOD, readings).values["front_width"])
    problem(page.post("/api/sizes/take", {**size, "size": "93"}), 404, "unknown-name")
    problem(page.post("/api/sizes/take", {**size, "chart": "nobody"}), 404, "unknown-name")


def test_a_makers_own_chart_is_kept_used_changed_by_a_new_one_and_deleted(page):
    chart = {
        "title": "Choir",
        "source": "measured last spring",
        "csv": "size,bust_girth,waist_girth,height\nS,34 1/2,27,65\n",
    }
    problem(page.post("/api/charts", chart), 422, "unit-not-stated")
    kept = page.post("/api/charts", {**chart, "unit": "in"}).json()
    assert kept["own"] and kept["sizes"] == [
        {"name": "S", "cm": {"bust_girth": 87.63, "waist_girth": 68.58, "height": 165.1}}
    ]
    assert [c["title"] for c in page.get("/api/charts").json()] == [
        "Women, by bust girth",
        "Men, by chest girth",
        "Choir",
    ]
    wearer = page.post("/api/sizes/take", {"chart": kept["key"], "size": "S"}).json()
    job = page.job(wearer)
    assert b"bust_girth (cm)" in page.get(f"/api/charts/{kept['key']}/files/csv").content
    assert page.send("delete", f"/api/charts/{kept['key']}").status_code == 204
    assert SizeChart.objects.count() == 0
    assert page.preview(page.fresh(job))["pieces"], "a job that was drafted from the chart keeps its sheet"


def test_the_simulated_scanner_delivers_a_file_that_the_sheet_takes(page):
    body = {"size": {"chart": "en_13402_3_men", "size": "100"}, "seed": 3}
    scan = page.post("/api/scans", body).json()["file"]
    assert json.loads(scan)["format"] == "izett-scan"
    back = read(page, scan.encode(), "scan.json").json()
    assert back["sheet"]["taken_by"] == "scan"
    assert keep(page, page.wearer(), back["sheet"]["readings"], taken_by="scan").status_code == 201
    assert Reading.objects.filter(sheet__taken_by="scan").count() == len(back["sheet"]["readings"]) > 40


def test_readings_taken_twice_travel_with_a_job_file(page):
    wearer = page.wearer()
    keep(page, wearer, whole(bust_girth=typed("92", "92.6"), **{"arm_length.left": typed("59")}))
    job = page.job(wearer)
    exported = page.get(f"/api/jobs/{job['id']}/export").content
    answer = page.client.post("/api/jobs/import", {"file": SimpleUploadedFile("job.json", exported)})
    assert answer.status_code == 201, answer.content
    assert answer.json()["sheet"]["readings"] == page.fresh(job)["sheet"]["readings"]
