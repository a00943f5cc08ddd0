"""Job files of an earlier version come in whole: same geometry, same allowances, the muslins as they were cut."""

import json
from pathlib import Path

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from izett.files.pattern_doc import PatternDoc
from izett.files.pattern_json import read_pattern

pytestmark = pytest.mark.django_db

GOLDEN = Path(__file__).parents[1] / "golden"
SAME = 1e-9
#: cm. What the second version of the hem step draws elsewhere.
OF_A_HEM = 0.01


def carried_in(page, name):
    file = SimpleUploadedFile("job.json", (GOLDEN / name).read_bytes())
    answer = page.client.post("/api/jobs/import", {"file": file})
    assert answer.status_code == 201, answer.content
    return answer.json()


def shapes(text):
    pattern, _ = read_pattern(text)
    return sorted(sorted(piece.outline()) for piece in pattern)


def assert_same(old, new, within=SAME):
    assert [len(shape) for shape in old] == [len(shape) for shape in new]
    for before, after in zip(old, new, strict=True):
        for p, q in zip(before, after, strict=True):
            assert p == pytest.approx(q, abs=within)


def test_a_styled_job_of_then_gives_the_pattern_of_then(page):
    job = carried_in(page, "job_styled.json")
    now = page.get(f"/api/jobs/{job['id']}/files/json").content.decode()
    # A hem was drawn then by a first version of its step: blended across, not along its length.
    assert_same(shapes((GOLDEN / "pattern_styled.json").read_text()), shapes(now), within=OF_A_HEM)
    assert len(PatternDoc.model_validate_json(now).pieces) == 8


def test_its_allowances_have_become_a_step_that_says_the_same(page):
    then = json.loads((GOLDEN / "job_styled.json").read_text())["cutting"]
    job = carried_in(page, "job_styled.json")
    [step] = [step for step in job["recipe"]["steps"] if step["kind"] == "set_allowances"]
    assert step["params"]["purpose"] == then["purpose"]
    assert {x["line"]: x["width"] for x in step["params"]["lines"]} == then["by_lineage"] != {}
    doc = PatternDoc.model_validate_json(page.get(f"/api/jobs/{job['id']}/files/json").content)
    [width] = then["by_lineage"].values()
    [line] = then["by_lineage"]
    assert {e.allowance for p in doc.pieces for e in p.edges if e.lineage == line} == {width}


def test_a_fitted_job_of_then_keeps_its_rounds_and_its_muslins(page):
    then = json.loads((GOLDEN / "job_fitted.json").read_text())
    job = carried_in(page, "job_fitted.json")
    assert [r["number"] for r in job["rounds"]] == [r["number"] for r in then["rounds"]]
    assert [len(r["findings"]) for r in job["rounds"]] == [len(r["findings"]) for r in then["rounds"]]
    for part in then["rounds"]:
        cut = page.get(f"/api/jobs/{job['id']}/rounds/{part['number']}/pattern")
        assert cut.status_code == 200
        assert len(cut.json()) == len(part["as_cut"]["pieces"])
    assert len(job["log"]) == len(then["log"])


def test_a_muslin_of_then_is_what_its_recipe_still_gives(page):
    """The pattern that was cut in round one is drafted again from the revision that it was cut from."""
    then = json.loads((GOLDEN / "job_fitted.json").read_text())
    first = then["rounds"][0]
    then["head"] = first["cut_from"]
    file = SimpleUploadedFile("job.json", json.dumps(then).encode())
    job = page.client.post("/api/jobs/import", {"file": file}).json()
    now = page.get(f"/api/jobs/{job['id']}/files/json").content.decode()
    assert_same(shapes(json.dumps(first["as_cut"])), shapes(now))


def test_a_job_of_then_goes_out_as_one_of_now_and_comes_in_again(page):
    for name in ("job_styled.json", "job_fitted.json"):
        job = carried_in(page, name)
        out = page.get(f"/api/jobs/{job['id']}/export").content
        assert "cutting" not in json.loads(out)
        again = page.client.post("/api/jobs/import", {"file": SimpleUploadedFile("job.json", out)}).json()
        assert page.get(f"/api/jobs/{again['id']}/export").content == out
