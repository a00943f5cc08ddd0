import pytest

from izett.files.pattern_doc import PatternDoc
from izett.files.pattern_json import pattern_of
from studio.models import Round
from tests.studio.conftest import problem

pytestmark = pytest.mark.django_db


def test_the_whole_story_from_muslin_to_muslin(page):
    job = page.cut(page.job())
    as_cut = page.get(f"/api/jobs/{job['id']}/rounds/1/pattern").json()
    job = page.find(job, given={"low": {"text": "3/8", "unit": "in"}}, words="it rides up")
    finding = job["rounds"][0]["findings"][0]
    assert finding["given"] == {"low": 0.9525}
    job = page.fix(job)
    (step,) = job["recipe"]["steps"]
    assert step["params"]["amount"] == pytest.approx(-0.9525)
    assert "it rides up" in step["why"]
    assert job["rounds"][0]["findings"][0]["applied"]
    moves = {m["lineage"]: m for m in page.preview(job, against=1)["against"]["moves"]}
    assert moves["front.waist"]["distance"] == pytest.approx(0.95, abs=0.03)
    assert page.get(f"/api/jobs/{job['id']}/rounds/1/pattern").json() == as_cut, "what was cut stays as it was"
    job = page.cut(page.close(job, note="again with the sleeve"))
    assert [f["uid"] for f in job["rounds"][1]["asks"]] == ["finding-1"]
    assert page.preview(job, against=2)["against"]["moves"] == []
    answer = page.post(
        f"/api/jobs/{job['id']}/rounds/2/answers", {"finding": "finding-1", "outcome": "solved"}, job["version"]
    )
    job = page.close(answer.json(), 2)
    job = page.cut(job)
    assert job["rounds"][2]["asks"] == [], "what was solved is not asked again"
    deeds = [entry["deed"] for entry in job["log"]]
    assert deeds == ["open", "cut", "finding", "remedy", "close", "cut", "answer", "close", "cut"]


@pytest.mark.parametrize("outcome", ["better", "same", "worse", "not_looked_at"])
def test_what_is_not_solved_is_asked_again(page, outcome):
    job = page.cut(page.close(page.fix(page.find(page.cut(page.job())))))
    job = page.post(
        f"/api/jobs/{job['id']}/rounds/2/answers", {"finding": "finding-1", "outcome": outcome}, job["version"]
    ).json()
    assert job["rounds"][1]["asks"][0]["answers"][0]["outcome"] == outcome
    job = page.cut(page.close(job, 2))
    assert len(job["rounds"][2]["asks"]) == 1


def test_a_closed_round_is_not_edited(page):
    job = page.close(page.fix(page.find(page.cut(page.job()))))
    base = f"/api/jobs/{job['id']}/rounds/1"
    version = job["version"]
    for answer in (
        page.post(f"{base}/findings", {"uid": "late-1", "kind": "waist_low"}, version),
        page.post(f"{base}/findings/finding-1/remedy", {"remedy": "transpose", "uids": ["other"]}, version),
        page.post(f"{base}/close", {}, version),
        page.post(f"{base}/answers", {"finding": "finding-1", "outcome": "same"}, version),
    ):
        assert "stays as it was" in problem(answer, 409, "round-closed")["detail"]
    assert page.fresh(job) == job


def test_steps_of_a_closed_round_may_be_switched_off_but_not_changed(page):
    job = page.close(page.fix(page.find(page.cut(page.job()))))
    (step,) = job["recipe"]["steps"]
    path = f"/api/jobs/{job['id']}/recipe"
    changed = {**step, "params": {**step["params"], "amount": -3}}
    for steps in ([], [changed]):
        answer = page.put(path, {"recipe": {**job["recipe"], "steps": steps}}, job["version"])
        problem(answer, 409, "round-closed")
    off = page.put(
        path, {"recipe": {**job["recipe"], "steps": [{**step, "on": False}]}, "why": "try without"}, job["version"]
    )
    assert off.status_code == 200


def test_what_a_muslin_was_cut_from_is_not_undone(page):
    job = page.job()
    job = page.put(
        f"/api/jobs/{job['id']}/recipe", {"recipe": {**job["recipe"], "overrides": {"bust_ease": 7}}, "why": "x"}, 1
    ).json()
    job = page.cut(job)
    assert not job["can_undo"]
    problem(page.post(f"/api/jobs/{job['id']}/head", {"way": "undo"}, job["version"]), 409, "nothing-to-undo")


def test_one_muslin_lies_on_the_table_at_a_time(page):
    job = page.cut(page.job())
    problem(page.post(f"/api/jobs/{job['id']}/rounds", {}, job["version"]), 409, "round-open")


def test_another_remedy_replaces_the_first(page):
    job = page.fix(page.find(page.cut(page.job())))
    job = page.fix(job, remedy="transpose", uids=("step-2",))
    assert [s["uid"] for s in job["recipe"]["steps"]] == ["step-2"]
    assert job["recipe"]["steps"][0]["kind"] == "transpose_waist"


def test_a_remedy_that_cannot_act_changes_nothing(page):
    job = page.find(page.cut(page.job()), kind="back_tight", given={"missing": {"text": "4"}})
    path = f"/api/jobs/{job['id']}/rounds/1/findings/finding-1/remedy"
    body = problem(page.post(path, {"remedy": "off_tip", "uids": ["s-1"]}, job["version"]), 422, "step-refused")
    assert "past the shoulder tip" in body["detail"]
    assert page.fresh(job) == job
    problem(page.post(path, {"remedy": "prayer", "uids": ["s-1"]}, job["version"]), 404, "unknown-name")
    problem(page.post(path, {"remedy": "off_tip", "uids": ["s-1", "s-2"]}, job["version"]), 422, "step-names")


def test_recording_twice_records_once(page):
    job = page.cut(page.job())
    first = page.find(job)
    assert page.find(job)["rounds"][0]["findings"] == first["rounds"][0]["findings"]
    fixed = page.fix(first)
    assert page.fix(first)["version"] == fixed["version"]


@pytest.mark.parametrize(
    ("more", "code"),
    [
        ({"kind": "moon_phase"}, "unknown-name"),
        ({"given": {"low": {"text": "much"}}}, "value-out-of-range"),
        ({"given": {"low": {"text": "40"}}}, "value-out-of-range"),
        ({"given": {"depth": {"text": "1"}}}, "unknown-name"),
        ({"side": "inside"}, "invalid-request"),
        ({"uid": "x"}, "invalid-request"),
    ],
)
def test_a_finding_that_makes_no_sense_is_told(page, more, code):
    job = page.cut(page.job())
    body = {"uid": "finding-9", "kind": "waist_low", **more}
    answer = page.post(f"/api/jobs/{job['id']}/rounds/1/findings", body, job["version"])
    assert answer.json()["type"].endswith(code)
    assert page.fresh(job)["rounds"][0]["findings"] == []


def ways(page, job, **body):
    answer = page.post(f"/api/jobs/{job['id']}/remedies", body)
    assert answer.status_code == 200, answer.content
    return {way["key"]: way for way in answer.json()}


def test_remedies_are_worked_out_and_tried_without_keeping_anything(page):
    job = page.job()
    given = {"bust": {"text": "1"}, "waist": {"text": "1 in"}}
    way = ways(page, job, kind="sides_loose", given=given, taken="pinch")["take_in"]
    params = way["steps"][0]["params"]
    assert (params["underarm"], params["waist"]) == (-0.5, pytest.approx(-1.27))
    assert (way["edges"], way["under"], way["refused"]) == (4, True, "")
    waist = next(one for one in way["turned"] if "waist" in one["label"])
    assert waist["whole"] == pytest.approx(5.08) and waist["ways"][0]["by"] == 2
    around = next(one for one in way["read"] if one["what"] == "around the waist")
    assert around["came"] == pytest.approx(around["asked"], abs=0.1)
    assert "Bodice front" in way["touched"]
    assert page.fresh(job) == job


def test_what_a_garment_cannot_show_is_said_and_not_recorded(page):
    job = page.cut(page.job())
    here = {one["key"]: one for one in page.get(f"/api/jobs/{job['id']}/findings").json()}
    assert here["waist_low"]["missing"] == [] and here["waist_low"]["inputs"] == ["low"]
    assert here["crotch_cuts"]["missing"] == ["trousers"]
    assert here["sides_tight"]["inputs"] == ["bust", "waist"], "a bodice has no hip"
    body = {"uid": "finding-9", "kind": "crotch_cuts"}
    answer = page.post(f"/api/jobs/{job['id']}/rounds/1/findings", body, job["version"])
    assert "trousers" in problem(answer, 422, "step-refused")["detail"]


def test_a_finding_is_set_right_and_its_remedy_is_worked_again(page):
    job = page.fix(page.find(page.cut(page.job()), given={"low": {"text": "1"}}))
    path = f"/api/jobs/{job['id']}/rounds/1/findings/finding-1"
    body = {"uid": "finding-1", "kind": "waist_low", "given": {"low": {"text": "1.6"}}, "words": "still"}
    job = page.put(path, body, job["version"]).json()
    (step,) = job["recipe"]["steps"]
    assert (step["uid"], step["params"]["amount"]) == ("step-1", -1.6)
    finding = job["rounds"][0]["findings"][0]
    assert (finding["given"], finding["words"], finding["applied"]) == ({"low": 1.6}, "still", True)
    assert page.put(path, body, job["version"]).json()["version"] == job["version"], "the same again changes nothing"
    problem(page.put(path, {**body, "given": {"low": {"text": "40"}}}, job["version"]), 422, "value-out-of-range")
    problem(page.put(path, {**body, "words": "late"}, 1), 412, "job-changed")


def test_a_finding_set_right_to_another_kind_takes_back_what_its_remedy_changed(page):
    job = page.fix(page.find(page.cut(page.job())))
    assert [step["uid"] for step in job["recipe"]["steps"]] == ["step-1"]
    path = f"/api/jobs/{job['id']}/rounds/1/findings/finding-1"
    job = page.put(path, {"uid": "finding-1", "kind": "neckline_place"}, job["version"]).json()
    finding = job["rounds"][0]["findings"][0]
    assert (finding["kind"], finding["remedy"], finding["steps"]) == ("neckline_place", "", [])
    assert job["recipe"]["steps"] == [], "a step that no finding asked for would stand there for ever"

    job = page.find(styled(page), number=2, kind="neckline_place", given={"front": {"text": "-1"}})
    job = page.fix(job, number=2, remedy="amend", uids=())
    path = f"/api/jobs/{job['id']}/rounds/2/findings/finding-1"
    job = page.put(path, {"uid": "finding-1", "kind": "waist_low"}, job["version"]).json()
    assert job["recipe"]["steps"][0]["params"]["front"] == 3.0, "the style has its own amount again"


def test_a_finding_is_withdrawn_with_what_its_remedy_changed(page):
    before = page.cut(page.job())
    job = page.fix(page.find(before))
    path = f"/api/jobs/{job['id']}/rounds/1/findings/finding-1"
    job = page.send("delete", path, None, job["version"]).json()
    assert (job["rounds"][0]["findings"], job["recipe"]["steps"]) == ([], [])
    assert "withdrawn" in job["log"][-1]["text"] and any(
        "rides" in e["text"] or e["deed"] == "finding" for e in job["log"]
    )
    problem(page.send("delete", path, None, job["version"]), 404, "not-found")


def test_the_same_is_not_found_twice_on_one_muslin(page):
    job = page.find(page.cut(page.job()), side="left")
    base = f"/api/jobs/{job['id']}/rounds/1/findings"
    again = {"uid": "finding-2", "kind": "waist_low", "side": "both"}
    problem(page.post(base, again, job["version"]), 409, "finding-twice")
    other = page.post(base, {**again, "side": "right"}, job["version"])
    assert other.status_code == 201


def test_normal_for_this_cut_is_an_answer_that_changes_nothing_and_is_not_asked_again(page):
    job = page.find(page.cut(page.job()))
    recipe = job["recipe"]
    path = f"/api/jobs/{job['id']}/rounds/1/findings/finding-1/normal"
    job = page.post(path, {"why": "it blouses on purpose"}, job["version"]).json()
    finding = job["rounds"][0]["findings"][0]
    assert (finding["normal"], finding["remedy"], job["recipe"]) == ("it blouses on purpose", "", recipe)
    job = page.cut(page.close(job))
    assert job["rounds"][1]["asks"] == []
    problem(page.post(path, {"why": ""}, job["version"]), 422, "invalid-request")


def styled(page):
    """A job whose neckline was drawn by a step, in a muslin that was closed."""
    job = page.job()
    step = {"uid": "neck", "kind": "change_neckline", "params": {"front": 3.0}, "version": 1}
    recipe = {**job["recipe"], "steps": [step]}
    answer = page.put(f"/api/jobs/{job['id']}/recipe", {"recipe": recipe, "why": "lower"}, job["version"])
    assert answer.status_code == 200, answer.content
    return page.cut(page.close(page.cut(answer.json())))


def test_a_remedy_amends_a_step_of_the_style_that_an_earlier_muslin_stands_on(page):
    job = styled(page)
    given = {"front": {"text": "-1"}}
    way = ways(page, job, kind="neckline_place", given=given)["amend"]
    assert (way["under"], way["steps"]) == (False, [])
    assert way["amends"][0]["step"]["params"]["front"] == 2.0
    job = page.find(job, number=2, kind="neckline_place", given=given)
    job = page.fix(job, number=2, remedy="amend", uids=())
    (step,) = job["recipe"]["steps"]
    assert step["params"]["front"] == 2.0
    assert job["rounds"][1]["findings"][0]["amended"] == ["neck"]
    # Going on from there is no breach of the muslin that is closed; changing it otherwise still is.
    path = f"/api/jobs/{job['id']}/recipe"
    eased = {**job["recipe"], "overrides": {"bust_ease": 7}}
    job = page.put(path, {"recipe": eased, "why": "ease"}, job["version"]).json()
    other = {**job["recipe"], "steps": [{**step, "params": {"front": 5.0}}]}
    problem(page.put(path, {"recipe": other, "why": "x"}, job["version"]), 409, "round-closed")
    gone = page.send("delete", f"/api/jobs/{job['id']}/rounds/2/findings/finding-1", None, job["version"]).json()
    assert gone["recipe"]["steps"][0]["params"]["front"] == 3.0, "withdrawn, the style has its own amount again"


def test_the_plan_of_a_round_is_in_the_order_of_work_and_names_what_is_at_odds(page):
    job = page.cut(page.job())
    job = page.find(job, kind="sides_tight", uid="finding-1", given={"waist": {"text": "2"}, "bust": {"text": "0"}})
    job = page.find(job, kind="sides_loose", uid="finding-2", given={"waist": {"text": "1"}, "bust": {"text": "0"}})
    job = page.find(job, kind="waist_low", uid="finding-3")
    plan = page.get(f"/api/jobs/{job['id']}/rounds/1/plan").json()
    assert [one["finding"] for one in plan["order"]] == ["finding-3", "finding-1", "finding-2"]
    assert any("undo each other" in one["words"] for one in plan["conflicts"])
    assert plan["together"] == [["finding-1", "finding-2"]]
    assert page.fresh(job) == job


def test_what_did_not_help_before_is_offered_last(page):
    job = page.cut(page.close(page.fix(page.find(page.cut(page.job())))))
    path = f"/api/jobs/{job['id']}/rounds/2/answers"
    job = page.post(path, {"finding": "finding-1", "outcome": "same"}, job["version"]).json()
    found = ways(page, job, kind="waist_low")
    assert list(found) == ["transpose", "shorten"] and found["shorten"]["was_tried"]


def test_the_as_cut_geometry_is_kept_whole(page):
    job = page.cut(page.job())
    kept = pattern_of(PatternDoc.model_validate(Round.objects.get().as_cut))
    shown = page.preview(job)["pieces"]
    assert [[tuple(p) for p in e["curve"]] for e in shown[0]["edges"]] == [
        list(e.curve.points) for e in kept.pieces[0].edges
    ]


def test_the_bench_says_what_is_waiting(page):
    job = page.find(page.cut(page.job()))
    assert page.get("/api/bench").json()[0]["waiting"] == ["1 finding without a remedy"]
    page.cut(page.close(page.fix(job)))
    ticket = page.get("/api/bench").json()[0]
    assert ticket["standing"] == "Muslin 2 on the table"
    assert ticket["waiting"] == ["1 earlier finding to look at again"]


def test_the_bench_does_not_count_what_was_solved(page):
    job = page.cut(page.close(page.fix(page.find(page.cut(page.job())))))
    assert page.get("/api/bench").json()[0]["waiting"] == ["1 earlier finding to look at again"]
    answer = {"finding": "finding-1", "outcome": "solved"}
    assert page.post(f"/api/jobs/{job['id']}/rounds/2/answers", answer, job["version"]).status_code == 200
    assert page.get("/api/bench").json()[0]["waiting"] == ["muslin to judge"]


def test_a_remedy_taken_back_is_not_asked_about(page):
    """Switched off, it can have helped nothing; switched on again, it is asked about again."""
    job = page.cut(page.close(page.fix(page.find(page.cut(page.job())))))
    assert [f["uid"] for f in job["rounds"][1]["asks"]] == ["finding-1"]

    def switched(job, on):
        steps = [{**step, "on": on} for step in job["recipe"]["steps"]]
        body = {"recipe": {**job["recipe"], "steps": steps}, "why": "taken back"}
        return page.put(f"/api/jobs/{job['id']}/recipe", body, job["version"]).json()

    job = switched(job, on=False)
    assert job["rounds"][1]["asks"] == []
    assert not job["rounds"][0]["findings"][0]["applied"]
    assert [f["uid"] for f in switched(job, on=True)["rounds"][1]["asks"]] == ["finding-1"]
