"""Draping in the studio: a session is prepared and kept, marks are tried and kept, both go out and in again."""

import json

import pypdfium2
import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from izett.draping.form import Hand, draped
from izett.files.marks_csv import read_marks, write_marks
from studio.demo_drape import GARMENT, draped_bustier
from studio.models import Job, Wearer
from tests.draped import truth_of
from tests.garments import BODY
from tests.studio.conftest import problem

pytestmark = pytest.mark.django_db

BUSTIER = [
    {"key": "centre_front", "title": "Centre front", "hangs": "centre", "length": 27, "width": 10.5},
    {"key": "side_front", "title": "Side front", "hangs": "balance", "length": 26, "width": None},
]
FORM = {"drape": "bustier", "muslin": 150, "panels": BUSTIER, "done": ["tape_1"]}


@pytest.fixture(scope="module")
def marks():
    return draped(truth_of("bustier", BODY), Hand())


def draped_job(page):
    wearer = page.wearer()
    answer = page.post("/api/jobs", {"wearer": wearer["id"], "garment": "Gala bustier", "blocks": []})
    assert answer.status_code == 201, answer.content
    return answer.json()


def with_marks(job, marks):
    return {**job["recipe"], "given": marks.model_dump(mode="json")}


def preview(page, job, recipe):
    answer = page.post("/api/preview", {"sheet": job["sheet"]["id"], "recipe": recipe, "job": job["id"]})
    assert answer.status_code == 200, answer.content
    return answer.json()


def test_what_there_is_to_drape_is_told_with_the_session(page):
    told = page.get("/api/drapes").json()
    assert [drape["key"] for drape in told["drapes"]] == ["bustier", "sheath", "under_bodice", "free"]
    assert len({step["key"] for step in told["steps"]}) == len(told["steps"]) >= 10
    assert told["allowances"]["panel"] == 7.5


def test_a_session_is_worked_out_kept_and_printed(page):
    job = draped_job(page)
    tear = page.post("/api/tear", FORM).json()
    assert [(b["title"], b["warp"]) for strip in tear["strips"] for b in strip["blocks"]] == [("Centre front", 34.5)]
    assert tear["missing"] == ["Side front"]
    refused = page.get(f"/api/jobs/{job['id']}/tear-list")
    assert problem(refused, 409, "nothing-measured")["fix"]
    answer = page.put(f"/api/jobs/{job['id']}/on-form", FORM, job["version"])
    kept = answer.json()
    assert kept["on_form"]["drape"] == "bustier"
    assert kept["version"] == job["version"] + 1
    assert "draping session" in kept["log"][-1]["text"]
    # The same again changes nothing; a page that is behind is told so.
    assert page.put(f"/api/jobs/{job['id']}/on-form", FORM, kept["version"]).json()["version"] == kept["version"]
    problem(page.put(f"/api/jobs/{job['id']}/on-form", {**FORM, "muslin": 90}, job["version"]), 412, "job-changed")
    problem(page.put(f"/api/jobs/{job['id']}/on-form", {**FORM, "drape": "sail"}, kept["version"]), 404, "unknown-name")
    paper = page.get(f"/api/jobs/{job['id']}/tear-list?paper=letter&unit=in")
    words = "".join(sheet.get_textpage().get_text_range() for sheet in pypdfium2.PdfDocument(paper.content))
    assert "Gala bustier" in words
    assert "Centre front" in words


def test_a_block_that_does_not_fit_across_the_muslin_is_told(page):
    wide = {**FORM, "panels": [{**BUSTIER[0], "width": 200}]}
    assert problem(page.post("/api/tear", wide), 422, "value-out-of-range")["fix"].startswith("Take muslin at least")


def test_marks_are_tried_kept_drawn_checked_and_printed(page, marks):
    job = draped_job(page)
    assert preview(page, job, job["recipe"])["pieces"] == []
    recipe = with_marks(job, marks)
    found = preview(page, job, recipe)
    assert len(found["pieces"]) == 4
    given = found["given"]
    assert all(panel["drawn"] for panel in given["panels"])
    assert all(seam["trued"] and not seam["proposed"] for seam in given["seams"])
    assert 0 < given["farthest"] < 0.4
    assert given["cubics"] >= 10
    for panel, typed in zip(given["panels"], marks.panels, strict=True):
        dots = [i for i, mark in enumerate(typed.marks) if mark.kind == "dot"]
        assert [i for i, off in enumerate(panel["off"]) if off is not None] == dots
        line = panel["lines"][0]
        # Lines are told from the panel's own guides, as its marks are.
        first = typed.marks[line["start"]]
        assert line["points"][0] == pytest.approx([first.across, first.along], abs=0.4)
    kept = page.put(f"/api/jobs/{job['id']}/recipe", {"recipe": recipe, "why": "marks"}, job["version"]).json()
    assert kept["recipe"]["given"] == recipe["given"]
    assert page.get(f"/api/jobs/{job['id']}/files/pdf").content.startswith(b"%PDF")
    table = page.get(f"/api/jobs/{job['id']}/files/marks").content.decode()
    assert [p.marks for p in read_marks(table).panels] == [p.marks for p in marks.panels]
    cut = page.cut(kept)
    assert len(cut["rounds"]) == 1


def test_a_table_of_marks_is_read_in_the_readers_unit_or_told_by_its_row(page, marks):
    read = page.post("/api/marks", {"text": write_marks(marks)}).json()["given"]
    assert [len(panel["marks"]) for panel in read["panels"]] == [len(panel.marks) for panel in marks.panels]
    inches = page.post("/api/marks", {"text": "panel,kind,across,along\nA,dot,1,2\n", "unit": "in"}).json()["given"]
    assert inches["panels"][0]["marks"][0]["across"] == pytest.approx(2.54)
    star = page.post("/api/marks", {"text": "panel,kind,across,along\nA,star,1,2\n"})
    assert "Row 2" in problem(star, 422, "unreadable-file")["detail"]
    assert page.post("/api/marks", {"text": "x" * 400_001}).status_code == 422


def test_panels_with_one_name_or_a_mark_that_is_no_number_are_refused_and_nothing_is_lost(page, marks):
    job = draped_job(page)
    recipe = with_marks(job, marks)
    twice = {**recipe, "given": {**recipe["given"], "panels": [recipe["given"]["panels"][0]] * 2}}
    assert page.put(f"/api/jobs/{job['id']}/recipe", {"recipe": twice}, job["version"]).status_code == 422
    assert page.fresh(job)["version"] == job["version"]


def test_a_draped_job_goes_out_and_comes_in_byte_for_byte(page, marks):
    job = draped_job(page)
    job = page.put(f"/api/jobs/{job['id']}/recipe", {"recipe": with_marks(job, marks)}, job["version"]).json()
    page.put(f"/api/jobs/{job['id']}/on-form", FORM, job["version"])
    out = page.get(f"/api/jobs/{job['id']}/export")
    document = json.loads(out.content)
    assert document["on_form"]["panels"][0]["length"] == 27
    file = SimpleUploadedFile("job.json", out.content, "application/json")
    back = page.client.post("/api/jobs/import", {"file": file})
    assert back.status_code == 201, back.content
    again = json.loads(page.get(f"/api/jobs/{back.json()['id']}/export").content)
    assert again["revisions"] == document["revisions"]
    assert again["on_form"] == document["on_form"]


def test_the_demos_bustier_is_prepared_marked_and_trued_with_nothing_to_ask(page):
    page.wearer("Hanneke Oduvale")
    job = draped_bustier(Wearer.objects.get())
    state = page.get(f"/api/jobs/{job.id}").json()
    assert state["garment"] == GARMENT
    found = preview(page, state, state["recipe"])
    assert [piece["title"] for piece in found["pieces"]] == ["Centre front", "Side front", "Side back", "Centre back"]
    assert not [query for panel in found["given"]["panels"] for query in panel["queries"]]
    assert not [check for check in found["checks"] if check["verdict"] == "fails"]
    assert Job.objects.get(pk=job.id).on_form["done"]


def test_a_drape_is_laid_beside_a_draft_of_the_same_wearer_alone(page):
    job = page.job()
    mine = page.get(f"/api/jobs/{job['id']}").json()
    other = page.job(wearer=mine["wearer"], garment="Second top")
    wide = {**other["recipe"], "overrides": {"across_back_ease": 2.0}}
    other = page.put(f"/api/jobs/{other['id']}/recipe", {"recipe": wide, "why": "wider"}, other["version"]).json()
    found = page.get(f"/api/jobs/{other['id']}/beside/{job['id']}").json()
    rows = {row["what"]: row for row in found["differences"]}
    back = rows["across the back"]
    assert back["drape"] > back["draft"] + 0.2
    assert back["seen"] and back["learns"][0]["steps"][0]["kind"] == "widen_across"
    assert not rows["shoulder"]["seen"] and rows["shoulder"]["learns"] == []
    stranger = page.job(garment="Another's top")
    for wrong in (job["id"], stranger["id"]):
        answer = page.get(f"/api/jobs/{job['id']}/beside/{wrong}")
        assert answer.status_code == 422 and answer.json()["type"].endswith("other-wearer")


def test_graded_pieces_are_marked_as_such_wherever_they_go_and_a_known_length_enlarges_them(page):
    page.wearer("Hanneke Oduvale")
    state = page.get(f"/api/jobs/{draped_bustier(Wearer.objects.get()).id}").json()
    plain = preview(page, state, state["recipe"])["given"]
    body = plain["body"]
    graded = {"widths": {"bust": {"of": body["bust"] - 5, "to": body["bust"]}}, "above": None, "below": None}
    recipe = {**state["recipe"], "given": {**state["recipe"]["given"], "graded": graded}}
    kept = page.put(f"/api/jobs/{state['id']}/recipe", {"recipe": recipe, "why": "graded"}, state["version"])
    assert kept.status_code == 200, kept.content
    found = preview(page, kept.json(), kept.json()["recipe"])
    assert all(piece["title"].endswith(" (graded)") for piece in found["pieces"])
    wide, was = (
        next(one["around"] for one in given["around"] if one["level"] == "bust") for given in (found["given"], plain)
    )
    assert wide / was == pytest.approx(body["bust"] / (body["bust"] - 5), rel=0.01)
    assert "graded" in page.get(f"/api/jobs/{state['id']}/files/svg").content.decode()
    panel = plain["panels"][0]
    of = {"panel": panel["name"], "line": panel["lines"][0]["name"]}
    length = sum(line["length"] for line in panel["lines"] if line["name"] == of["line"])
    large = {**state["recipe"], "given": {**state["recipe"]["given"], "enlarged": {"of": of, "length": length * 2}}}
    doubled = preview(page, kept.json(), large)["given"]
    assert doubled["panels"][0]["spots"][0] == pytest.approx([2 * n for n in panel["spots"][0]], abs=0.1)
    refused = {**graded, "widths": {"bust": {"of": 40, "to": 92}}}
    answer = page.put(
        f"/api/jobs/{state['id']}/recipe",
        {"recipe": {**recipe, "given": {**recipe["given"], "graded": refused}}, "why": "too far"},
        kept.json()["version"],
    )
    assert answer.status_code == 422 and "more than any grading" in answer.content.decode()
