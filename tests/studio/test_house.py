"""House rules, starter sets, a recipe laid beside another, and what moves with a measure: over the wire."""

import pytest

from izett.drafting.sets import starter_sets
from tests.studio.conftest import MIDDLING

pytestmark = pytest.mark.django_db


def previewed(page, job, recipe=None, **more):
    body = {"sheet": job["sheet"]["id"], "recipe": recipe or job["recipe"], "job": job["id"], **more}
    return page.post("/api/preview", body).json()


def test_a_house_rule_counts_for_jobs_opened_from_then_on(page):
    wearer = page.wearer()
    before = page.job(wearer)
    answer = page.put("/api/house-rules/bust_ease", {"value": 7.0, "reason": "our house gives seven"})
    assert answer.json()["usual"] == "6 cm"
    page.put("/api/house-rules/back_neck_width", {"value": 7.4, "reason": "collars sit better"})
    assert [rule["label"] for rule in page.get("/api/house-rules").json()] == ["Back neck width", "Bust ease"]
    after = page.job(wearer, "another")
    assert page.fresh(before)["recipe"]["house"] == {}
    assert after["recipe"]["house"] == {"back_neck_width": 7.4, "bust_ease": 7.0}
    drawn = previewed(page, after)
    bust = next(a for a in drawn["allowances"] if a["symbol"] == "bust_ease")
    assert (bust["state"], bust["value"], bust["reason"]) == ("house", 7, "our house gives seven")
    neck = next(s for s in drawn["sums"] if s["symbol"] == "back_neck_width")
    assert (neck["state"], neck["value"], neck["reason"]) == ("house", 7.4, "collars sit better")
    assert page.send("delete", "/api/house-rules/bust_ease").status_code == 204
    assert page.fresh(after)["recipe"]["house"]["bust_ease"] == 7, "an open job keeps what it was opened with"
    assert page.send("delete", "/api/house-rules/bust_ease").status_code == 404


def test_a_house_rule_is_checked_and_says_what_is_wrong(page):
    wide = page.put("/api/house-rules/bust_ease", {"value": 99, "reason": "wide"})
    assert wide.status_code == 422 and "outside 3 to 24" in wide.json()["detail"]
    unknown = page.put("/api/house-rules/bust_eas", {"value": 5, "reason": "?"})
    assert unknown.status_code == 404 and "No block" in unknown.json()["detail"]
    assert page.put("/api/house-rules/bust_ease", {"value": 5, "reason": ""}).status_code == 422


def test_a_house_rule_of_a_searched_value_says_its_condition(page):
    rule = page.put("/api/house-rules/neck_depth", {"value": 9.0, "reason": "one depth for all"}).json()
    assert rule["usual"]


@pytest.mark.parametrize("key", starter_sets())
def test_every_starter_set_opens_as_a_job_and_draws(page, key):
    of = next(s for s in page.get("/api/catalogue").json()["sets"] if s["key"] == key)
    wearer = page.wearer(readings={**MIDDLING, "hip_girth": "98"})
    body = {"wearer": wearer["id"], "garment": of["title"], **{k: of[k] for k in ("blocks", "fit", "cloth")}}
    job = page.post("/api/jobs", body).json()
    drawn = previewed(page, job, cut=True)
    assert drawn["pieces"] and not [c for c in drawn["checks"] if c["verdict"] == "fails"]
    assert {s["key"] for s in drawn["schools"]} >= {"measures"}
    assert all(len(piece["cutting"]) > 3 for piece in drawn["pieces"])
    for kind in ("svg", "json"):
        assert page.get(f"/api/jobs/{job['id']}/files/{kind}").status_code == 200


def test_blocks_that_clothe_the_body_twice_are_no_job(page):
    wearer = page.wearer()
    answer = page.post("/api/jobs", {"wearer": wearer["id"], "garment": "both", "blocks": ["skirt", "trousers"]})
    assert "both clothe the body below" in answer.json()["detail"]
    assert page.get("/api/bench").json() == []


def test_a_recipe_is_compared_with_another_line_by_line(page):
    job = page.job()
    other = {**job["recipe"], "schools": {"shoulder": "dart"}}
    moves = previewed(page, job, recipe=other, than=job["recipe"])["than"]
    assert moves[0]["distance"] > 1
    assert [m["distance"] for m in moves] == sorted((m["distance"] for m in moves), reverse=True)
    back = previewed(page, job, than=other)["than"]
    assert {m["lineage"]: m["distance"] for m in back} == {
        m["lineage"]: pytest.approx(m["distance"], abs=0.02) for m in moves
    }
    no_draft = {**job["recipe"], "schools": {"bust_dart": "length"}}
    assert previewed(page, job, than=no_draft)["than"] is None
    assert previewed(page, job)["than"] is None


def test_exactly_what_moves_with_a_measure_is_told(page):
    wearer = page.wearer(readings={**MIDDLING, "hip_girth": "98"})
    body = {"wearer": wearer["id"], "garment": "dress", "blocks": ["bodice", "sleeve", "skirt"]}
    job = page.post("/api/jobs", body).json()

    def lines(symbol):
        body = {"sheet": job["sheet"]["id"], "recipe": job["recipe"], "symbol": symbol}
        return set(page.post("/api/moved-by", body).json()["lines"])

    assert lines("waist_to_knee") == {
        f"skirt_{half}.{line}" for half in ("front", "back") for line in ("hem", "side", "centre")
    }
    assert {line.split(".")[0] for line in lines("arm_length")} == {"sleeve"}
    assert {"skirt_front.side", "skirt_back.side"} <= lines("hip_girth")
    assert not [line for line in lines("hip_girth") if line.startswith(("front", "back", "sleeve"))]
    body = {"sheet": job["sheet"]["id"], "recipe": job["recipe"], "symbol": "moon"}
    assert page.post("/api/moved-by", body).status_code == 404


def test_a_sheet_is_judged_for_the_blocks_that_are_to_be_drafted(page):
    readings = {s: {"text": t} for s, t in {"waist_girth": "74", "hip_girth": "98", "height": "168"}.items()}
    ask = lambda blocks: page.post("/api/measures/review", {"readings": readings, "blocks": blocks}).json()  # noqa: E731
    assert ask(["skirt"])["can_draft"]
    assert ask(["bodice"])["missing"] == [["bust_girth"]]
    assert ask(["knit_sleeve"])["missing"] == [["bust_girth"]], "what it stands on is needed too"
