"""A draping session as a muslin of a garment: marks in, the new line out, asked again, carried, taken back."""

import pytest

from tests.studio.test_carrying import carry_in

pytestmark = pytest.mark.django_db


def marked(job, page):
    """Marks of a lower front neckline, measured from the guides that the page is told."""
    guides = page.get(f"/api/jobs/{job['id']}/guides?piece=bodice_front&line=front.neck").json()
    (part,) = guides["parts"]
    (ax, ay), (bx, by) = part["starts"], part["ends"]
    assert (guides["across_from"], guides["along_from"]) == ("the centre line", "the bust line")
    assert (bx, part["length"]) == (pytest.approx(0.0), pytest.approx(12.0, abs=6))
    spots = [(ax + (bx - ax) * s, ay + (by - 1.0 - ay) * s - 3.0 * s * (1 - s)) for s in (0.25, 0.5, 0.75)]
    marks = [{"kind": "dot", "across": x, "along": y} for x, y in spots]
    return {"marks": [*marks, {"kind": "cross", "across": 0.0, "along": by - 1.0}], "way": "dots"}


def draped(job, page, **more):
    return {"uid": "anew-1", "kind": "draped_anew", "piece": "bodice_front", "line": "front.neck"} | more


def test_a_line_draped_anew_is_drawn_asked_again_carried_and_taken_back(page):
    job = page.cut(page.job())
    marks = marked(job, page)
    seen = {k: v for k, v in draped(job, page, marked=marks).items() if k != "uid"}
    ways = page.post(f"/api/jobs/{job['id']}/remedies", seen).json()
    assert [(way["key"], way["refused"] or "") for way in ways] == [("under", ""), ("finished", "")]
    assert ways[0]["under"] and not ways[1]["under"]
    base = f"/api/jobs/{job['id']}/rounds/1/findings"
    job = page.post(base, draped(job, page, marked=marks), job["version"]).json()
    assert job["rounds"][0]["findings"][0]["marked"] == marks
    job = page.post(f"{base}/anew-1/remedy", {"remedy": "under", "uids": ["anew_step"]}, job["version"]).json()
    (step,) = job["recipe"]["steps"]
    assert (step["kind"], step["section"], step["uid"]) == ("redraw_edge", "fit", "anew_step")
    moves = {m["lineage"]: m for m in page.preview(job, against=1)["against"]["moves"]}
    assert moves["front.neck"]["distance"] > 0.8
    back = carry_in(page, page.get(f"/api/jobs/{job['id']}/export").content).json()
    assert back["rounds"][0]["findings"][0]["marked"] == marks
    assert back["recipe"] == job["recipe"]
    told = page.get(f"/api/jobs/{job['id']}/story").json()["story"]["rounds"][0]["findings"][0]
    assert any("3 dots and 1 cross" in line for line in told["amounts"])
    job = page.cut(page.close(job))
    assert [f["uid"] for f in job["rounds"][1]["asks"]] == ["anew-1"]


def test_it_is_withdrawn_with_all_that_it_changed(page):
    job = page.cut(page.job())
    before = job["recipe"]
    base = f"/api/jobs/{job['id']}/rounds/1/findings"
    job = page.post(base, draped(job, page, marked=marked(job, page)), job["version"]).json()
    job = page.post(f"{base}/anew-1/remedy", {"remedy": "finished", "uids": ["anew_step"]}, job["version"]).json()
    job = page.send("delete", f"{base}/anew-1", None, job["version"]).json()
    assert (job["recipe"], job["rounds"][0]["findings"]) == (before, [])


@pytest.mark.parametrize(
    ("change", "status", "says"),
    [
        ({"line": ""}, 422, "asks for the line"),
        ({"marked": None}, 422, "asks for the line"),
        ({"marked": {"marks": []}}, 422, ""),
        ({"marked": {"marks": [{"across": 1e9, "along": 0}]}}, 422, ""),
        ({"piece": "nowhere"}, 422, "is gone"),
    ],
)
def test_what_is_missing_is_said(page, change, status, says):
    job = page.cut(page.job())
    asked = draped(job, page, marked=marked(job, page)) | change
    answer = page.post(f"/api/jobs/{job['id']}/rounds/1/findings", asked, job["version"])
    assert answer.status_code == status
    assert says in answer.json().get("detail", "")


def test_guides_of_what_is_not_there_are_refused(page):
    job = page.job()
    for piece, line in (("nowhere", "front.neck"), ("bodice_front", "nowhere")):
        answer = page.get(f"/api/jobs/{job['id']}/guides?piece={piece}&line={line}")
        assert "Point at the line" in answer.json()["fix"]
