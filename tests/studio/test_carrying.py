"""A job carried out and in again is the same job; a damaged file adds nothing."""

import json

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from studio.limits import LARGEST_FILE
from studio.locking import HEAVY
from studio.models import Job, Wearer
from tests.studio.conftest import problem

pytestmark = pytest.mark.django_db


def story(page):
    job = page.cut(page.close(page.fix(page.find(page.cut(page.job()), words="“tight” & so on ½"))))
    return page.post(
        f"/api/jobs/{job['id']}/rounds/2/answers", {"finding": "finding-1", "outcome": "better"}, job["version"]
    ).json()


def carry_in(page, content):
    return page.client.post("/api/jobs/import", {"file": SimpleUploadedFile("job.json", content)})


def test_export_and_import_round_trip_exactly(page):
    job = story(page)
    out = page.get(f"/api/jobs/{job['id']}/export")
    assert "attachment" in out["Content-Disposition"]
    answer = carry_in(page, out.content)
    assert answer.status_code == 201, answer.content
    copy = answer.json()
    assert copy["id"] != job["id"]
    again = page.get(f"/api/jobs/{copy['id']}/export")
    assert json.loads(again.content) == json.loads(out.content)
    assert page.preview(copy)["order"] == page.preview(job)["order"]
    assert (
        page.get(f"/api/jobs/{copy['id']}/rounds/1/pattern").json()
        == page.get(f"/api/jobs/{job['id']}/rounds/1/pattern").json()
    )


def test_the_file_stands_on_its_own(page):
    job = story(page)
    content = page.get(f"/api/jobs/{job['id']}/export").content
    page.client.delete(f"/api/wearers/{job['wearer']['id']}")
    assert Job.objects.count() == 0
    copy = carry_in(page, content).json()
    assert copy["recipe"] == job["recipe"]
    assert [r["findings"] for r in copy["rounds"]] == [r["findings"] for r in job["rounds"]]
    assert copy["log"] == job["log"]


def spoilt(document, change):
    data = json.loads(document)
    change(data)
    return json.dumps(data).encode()


@pytest.mark.parametrize(
    "change",
    [
        lambda d: d.update(format="other"),
        lambda d: d.update(version=99),
        lambda d: d.pop("sheets"),
        lambda d: d.update(head=77),
        lambda d: d["revisions"][0].update(sheet=9),
        lambda d: d["revisions"][-1].update(parent=55),
        lambda d: d["sheets"][0]["readings"][0].update(text="wide"),
        lambda d: d["sheets"][0]["readings"][0].update(symbol="bust"),
        lambda d: d["rounds"][0]["findings"][0].update(taken="guess"),
        lambda d: d["rounds"][0]["as_cut"]["pieces"][0]["edges"][0].update(curve=[["x", 1]]),
        lambda d: d["rounds"][0].update(cut_from=40),
        lambda d: d["rounds"][1]["answers"][0].update(finding="nobody"),
        lambda d: d.update(extra=1),
        lambda d: d.update(cutting={"purpose": 3}),
    ],
)
def test_a_damaged_or_foreign_job_file_adds_nothing(page, change):
    job = story(page)
    content = page.get(f"/api/jobs/{job['id']}/export").content
    answer = carry_in(page, spoilt(content, change))
    assert answer.status_code in (404, 422), answer.content
    body = answer.json()
    assert body["detail"] and body["fix"]
    assert (Job.objects.count(), Wearer.objects.count()) == (1, 1)


def test_a_file_far_too_large_is_refused_unread(page):
    body = problem(carry_in(page, b" " * (LARGEST_FILE + 1)), 422, "unreadable-file")
    assert "more than 64 MB" in body["detail"]


@pytest.mark.parametrize("content", [b"", b"{", b"\xff\xfe\x00", b"[]", b"null", b'"text"', b"{}", b"PK\x03\x04"])
def test_what_is_no_job_file_at_all_is_told(page, content):
    problem(carry_in(page, content), 422, "unreadable-file")
    assert Job.objects.count() == 0


def test_blocks_choices_and_house_rules_are_carried_as_they_stood(page):
    page.put("/api/house-rules/bust_ease", {"value": 7.0, "reason": "our house gives seven"})
    wearer = page.wearer(readings={"bust_girth": "92", "waist_girth": "74", "hip_girth": "98", "height": "168"})
    body = {"wearer": wearer["id"], "garment": "dress", "blocks": ["bodice", "sleeve", "skirt"], "fit": "easy"}
    job = page.post("/api/jobs", body).json()
    recipe = {**job["recipe"], "schools": {"shoulder": "dart"}, "overrides": {"hip_ease": 9.0}}
    recipe["why"] = {**recipe["why"], "hip_ease": "she cycles"}
    job = page.put(f"/api/jobs/{job['id']}/recipe", {"recipe": recipe, "why": "room"}, job["version"]).json()
    content = page.get(f"/api/jobs/{job['id']}/export").content
    page.send("delete", "/api/house-rules/bust_ease")
    copy = carry_in(page, content).json()
    assert copy["recipe"] == job["recipe"]
    assert copy["recipe"]["house"] == {"bust_ease": 7.0}
    assert page.get("/api/house-rules").json() == [], "a job that is brought in makes no house rule"
    assert page.preview(copy)["order"] == page.preview(job)["order"]


@pytest.mark.parametrize(("heavy", "every"), [(HEAVY // 64, 50), (HEAVY, 5)], ids=["by heavy changes", "by light ones"])
def test_a_job_is_full_before_it_could_not_come_in_again(page, monkeypatch, heavy, every):
    """At a sixty-fourth of its size."""
    size = LARGEST_FILE // 64
    monkeypatch.setattr("studio.locking.LARGEST_FILE", size)
    monkeypatch.setattr("studio.locking.HEAVY", heavy)
    monkeypatch.setattr("studio.locking.WEIGHED_EVERY", every)
    monkeypatch.setattr("studio.actions.revise.look_later", lambda _: None)
    job, answer = page.job(), None
    for n in range(100):
        steps = [
            {"uid": f"s{i}", "kind": "mark_point", "params": {"n": n}, "why": "because", "on": False}
            for i in range(200)
        ]
        recipe = {**job["recipe"], "steps": steps}
        answer = page.put(f"/api/jobs/{job['id']}/recipe", {"recipe": recipe, "why": f"change {n}"}, job["version"])
        if answer.status_code != 200:
            break
        job = answer.json()
    assert problem(answer, 409, "job-full")["fix"]
    out = page.get(f"/api/jobs/{job['id']}/export").content
    assert size / 4 < len(out) < size
    assert carry_in(page, out).status_code == 201
