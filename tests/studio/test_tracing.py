"""Tracing over the wire: a picture sent, traced in the worker's place, laid under its panel; drawings read."""

import json
import os
from base64 import b64encode

import cv2
import numpy as np
import pytest
import shapely
from django.core.files.uploadedfile import SimpleUploadedFile

from izett.files.pattern_json import read_pattern
from studio.models import Photo
from studio.storage import incoming, photos
from tests.draped import truth_of
from tests.pictured import pencilled, pictured
from tests.studio.test_draping import draped_job

pytestmark = pytest.mark.django_db
BODY = {"bust_girth": 92.0, "waist_girth": 74.0, "hip_girth": 98.0, "height": 168.0}


@pytest.fixture(scope="module")
def taken():
    from izett.tracing.camera_stand_in import Shot

    piece = truth_of("bustier", BODY).pieces[0]
    return pictured(piece, shot=Shot(seed=6, above=80, width=1640, height=1230), pencil=pencilled(piece, 6, seed=3))


@pytest.fixture
def here(settings, tmp_path, monkeypatch):
    settings.LONG_WORK_HERE = True
    monkeypatch.setattr(photos, "folder", lambda: tmp_path / "photos")
    monkeypatch.setattr(incoming, "folder", lambda: tmp_path / "incoming")


@pytest.fixture
def job(page, here):
    return draped_job(page)


def sent(page, job, taken, name="piece.png"):
    content = cv2.imencode(".png", taken.picture)[1].tobytes()
    return page.client.post(f"/api/jobs/{job['id']}/pictures", {"file": SimpleUploadedFile(name, content)})


def trace(page, job, picture, photo, **more):
    question = {"uid": "w-" + "a" * 8, "picture": picture, "title": "Centre front", "tap": list(photo.tap), **more}
    return page.post(f"/api/jobs/{job['id']}/trace", question)


def test_a_picture_becomes_a_panel_and_lies_under_it(page, job, taken):
    picture = sent(page, job, taken)
    assert picture.status_code == 201
    assert (picture.json()["width"], picture.json()["height"]) == (1640, 1230)
    work = trace(page, job, picture.json()["uid"], taken).json()
    assert work["state"] == "done", work["problem"]
    found = work["result"]
    assert (found["panel"]["name"], len(found["lines"]), found["notches"]) == ("centre_front", 4, 2)
    assert found["checked"] < 0.06 and found["warnings"] == []
    assert len(found["ghosts"]) == 6
    outline = np.array([spot for line in found["lines"] for spot in line["seen"]])
    assert (outline > 0).all() and (outline < (1640, 1230)).all()
    kept = page.post(
        f"/api/jobs/{job['id']}/under-panels", {"picture": found["picture"], "lies": found["lies"]}, job["version"]
    )
    assert kept.status_code == 201, kept.content
    (under,) = kept.json()["pictures"]
    assert under["lies"]["panel"] == "centre_front"
    shown = page.get(f"/api/photos/{under['uid']}")
    seen = cv2.imdecode(np.frombuffer(shown.content, np.uint8), cv2.IMREAD_GRAYSCALE)
    # Where the panel's lines lie the picture goes from light to dark: the middle of the panel is light, its corners are not.
    lies = under["lies"]
    xs, ys = zip(*((m["across"], m["along"]) for m in found["panel"]["marks"]), strict=True)
    middle = (sum(xs) / len(xs), sum(ys) / len(ys))
    column = (middle[0] - lies["across"] - lies["left"]) * lies["px_per_cm"]
    row = (lies["top"] - (middle[1] - lies["along"])) * lies["px_per_cm"]
    assert seen[round(row), round(column)] > 150 > seen[5, 5]


def test_a_traced_job_goes_out_and_in_again_with_its_picture(page, job, taken):
    picture = sent(page, job, taken).json()["uid"]
    found = trace(page, job, picture, taken).json()["result"]
    recipe = {**job["recipe"], "given": {"source": "trace", "panels": [found["panel"]]}}
    changed = page.put(f"/api/jobs/{job['id']}/recipe", {"recipe": recipe, "why": "traced"}, job["version"])
    assert changed.status_code == 200, changed.content
    page.post(
        f"/api/jobs/{job['id']}/under-panels",
        {"picture": found["picture"], "lies": found["lies"]},
        changed.json()["version"],
    )
    out = page.get(f"/api/jobs/{job['id']}/export").content
    into = page.client.post("/api/jobs/import", {"file": SimpleUploadedFile("job.json", out)})
    assert into.status_code == 201, into.content
    again = page.get(f"/api/jobs/{into.json()['id']}/export").content
    first, second = json.loads(out), json.loads(again)
    assert first["pictures"] == second["pictures"] and len(first["pictures"]) == 1
    assert first["revisions"] == second["revisions"]
    assert Photo.objects.filter(job=into.json()["id"]).count() == 1


@pytest.mark.parametrize(
    ("change", "code", "told"),
    [
        ({"bar": 17.0}, "picture-refused", "drawn 20 cm long"),
        ({"by": "points", "spots": [[1, 1]], "lengths": [10]}, "picture-refused", "2 and 1 are needed"),
        ({"by": "grid", "spots": [[800, 600]], "lengths": [2.54]}, "picture-refused", "No grid"),
        ({"tap": [5000, 20]}, "picture-refused", "outside the picture"),
    ],
)
def test_what_cannot_be_traced_is_told(page, job, taken, change, code, told):
    picture = sent(page, job, taken).json()["uid"]
    work = trace(page, job, picture, taken, **change).json()
    assert (work["state"], work["problem"]["code"]) == ("failed", code)
    assert told in work["problem"]["message"].replace("⟦", "").replace("⟧", "")


def test_what_is_no_picture_is_refused_when_it_is_sent(page, job):
    for content, told in ((b"", "empty"), (b"GIF89a" + b"0" * 99, "GIF"), (b"<svg/>", "SVG")):
        refused = page.client.post(f"/api/jobs/{job['id']}/pictures", {"file": SimpleUploadedFile("x.png", content)})
        assert refused.status_code in (400, 422)
        assert told in refused.json()["detail"]
    gone = page.post(
        f"/api/jobs/{job['id']}/trace",
        {"uid": "w-bbbbbbbb", "picture": "00000000-0000-4000-8000-000000000000", "tap": [1, 1]},
    )
    assert gone.status_code == 404


def test_the_pencil_marks_make_a_panel_in_the_order_of_walking_round(page, job, taken):
    picture = sent(page, job, taken).json()["uid"]
    found = trace(page, job, picture, taken, of="marks").json()["result"]
    marks = found["panel"]["marks"]
    assert len(marks) == 6
    assert {mark["kind"] for mark in marks} == {"dot", "cross", "dash"}
    edge = shapely.LinearRing([spot for line in found["lines"] for spot in line["seen"]])
    spots = [shapely.Point(ghost["seen"]) for ghost in found["ghosts"]]
    by_place = {(g["across"], g["along"]): edge.project(s) for g, s in zip(found["ghosts"], spots, strict=True)}
    along = [
        by_place[min(by_place, key=lambda at, m=m: np.hypot(at[0] - m["across"], at[1] - m["along"]))] for m in marks
    ]
    steps = np.diff(along) % edge.length
    assert steps.sum() < edge.length, "once round, the same way"


def test_what_is_taken_over_the_picture_makes_the_panel_and_comes_back_as_it_stands(page, job, taken):
    picture = sent(page, job, taken).json()["uid"]

    def traced(uid, **more):
        work = trace(page, job, picture, taken, uid=uid, **more).json()
        assert work["state"] == "done", work["problem"]
        return work["result"]

    found = traced("w-first-one")
    assert [one["kind"] for one in found["taken"]] == ["corner"] * 4 + ["notch"] * 2
    again = traced("w-as-it-stands", taken=found["taken"])
    spots = [[[mark[way] for way in ("across", "along")] for mark in one["panel"]["marks"]] for one in (found, again)]
    # Told in pixels and read from them again: within the last decimal in which marks are kept.
    assert np.allclose(*spots, rtol=0, atol=1.5e-4)
    assert [one["kind"] for one in again["taken"]] == [one["kind"] for one in found["taken"]]
    assert np.allclose([one["at"] for one in again["taken"]], [one["at"] for one in found["taken"]], rtol=0, atol=1e-4)
    ghost = found["ghosts"][0]
    asked = [*found["taken"][:-1], {"kind": "dot", "at": [ghost["seen"][0] + 3, ghost["seen"][1]]}]
    tape = {"ends": [found["taken"][0]["at"], found["taken"][1]["at"]], "known": found["lines"][0]["length"] + 1}
    mended = traced("w-mended-here", taken=asked, tape=tape)
    assert mended["notches"] == 1
    assert mended["taken"][-1]["kind"] == ghost["kind"]
    assert np.allclose(mended["taken"][-1]["at"], ghost["seen"], atol=0.1)
    inside = [mark for mark in mended["panel"]["marks"] if mark["lines"] == ["inside"]]
    assert [mark["kind"] for mark in inside] == [ghost["kind"]]
    assert mended["tape"]["agrees"] is False and mended["tape"]["known"] > mended["tape"]["measured"]
    few = trace(page, job, picture, taken, uid="w-too-few-there", taken=found["taken"][:1]).json()
    assert few["problem"]["code"] == "picture-refused" and "1 is left" in few["problem"]["message"]


def test_drawings_are_read_and_asked_for_their_unit(page, job):
    drawing = '<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0H200V300H0Z"/></svg>'
    question = {"kind": "svg", "content": b64encode(drawing.encode()).decode()}

    def asked(**more):
        return page.post("/api/shapes", {**question, **more})

    assert asked().json()["type"].endswith("unit-not-said")
    (panel,) = asked(unit="mm").json()["given"]["panels"]
    assert max(mark["along"] for mark in panel["marks"]) == pytest.approx(30)
    assert asked(kind="dxf").status_code == 422
    assert asked(content="%%%").status_code == 422
    pattern = page.get(f"/api/jobs/{job['id']}/files/json")
    if pattern.status_code == 200:
        read_pattern(pattern.content.decode())


def test_the_sheets_are_printed(page, here):
    for paper in ("a4", "letter"):
        answer = page.get(f"/api/trace-sheets?paper={paper}")
        assert answer.status_code == 200 and answer.content.startswith(b"%PDF")


def test_a_picture_is_kept_for_a_day_and_goes_with_whoever_is_deleted(page, job, taken):
    uid = sent(page, job, taken).json()["uid"]
    file = incoming.folder() / uid
    assert file.stat().st_mode & 0o777 == 0o600
    incoming.sweep()
    assert file.exists()
    old = file.stat().st_mtime - incoming.KEPT_FOR - 5
    os.utime(file, (old, old))
    incoming.sweep()
    assert not file.exists()
    uid = sent(page, job, taken).json()["uid"]
    assert page.client.delete(f"/api/jobs/{job['id']}").status_code == 204
    assert not (incoming.folder() / uid).exists()
