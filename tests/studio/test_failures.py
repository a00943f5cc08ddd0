"""A failure stays in its job; storage faults, lost tokens and other troubles are told in words."""

import json
import sqlite3

import pytest
from django.db import OperationalError, connection
from django.test import Client

from izett.files.recipe_json import RecipeDoc
from studio.models import Job, Revision, Round
from studio.standing import look_at, look_at_all
from tests.studio.conftest import problem

pytestmark = pytest.mark.django_db


def poisoned(job, change):
    """Put something into the recipe of a job that no program of this version would write there."""
    head = Job.objects.get(id=job["id"]).head
    change(head.document)
    Revision.objects.filter(pk=head.pk).update(document=head.document)


def tickets(page):
    answer = page.get("/api/bench")
    assert answer.status_code == 200
    return {ticket["id"]: ticket for ticket in answer.json()}


@pytest.mark.parametrize(
    ("change", "says"),
    [
        (lambda recipe: recipe.update(lining={"cloth": "silk"}), "has an entry “lining”"),
        (lambda recipe: recipe.update(version=2), "is of version 2"),
        (lambda recipe: recipe["steps"].append({"uid": "s1"}), "steps → 0 → kind"),
        (lambda recipe: recipe.update(overrides={"bust_ease": "wide"}), "overrides → bust_ease"),
    ],
)
def test_a_job_that_cannot_be_read_says_why_and_hides_no_other(page, change, says):
    wearer = page.wearer()
    bad, good = page.job(wearer), page.job(wearer, garment="Recital skirt")
    poisoned(bad, change)
    found = tickets(page)
    assert says in found[bad["id"]]["trouble"]
    assert found[good["id"]]["trouble"] == ""
    assert "cut a first muslin" in found[good["id"]]["waiting"]
    body = problem(page.get(f"/api/jobs/{bad['id']}"), 422, "job-unreadable")
    assert says in body["detail"]
    problem(page.get(f"/api/jobs/{bad['id']}/files/pdf"), 422, "job-unreadable")
    # It is carried out as it is stored, and can be deleted by itself.
    document = json.loads(page.get(f"/api/jobs/{bad['id']}/export").content)
    assert document["revisions"][0]["recipe"] == Job.objects.get(id=bad["id"]).head.document
    assert page.client.delete(f"/api/jobs/{bad['id']}").status_code == 204
    assert set(tickets(page)) == {good["id"]}
    assert page.get(f"/api/wearers/{wearer['id']}").json()["sheets"] == 1


def test_a_wild_value_that_was_stored_before_there_were_bounds_is_told_on_the_ticket(page):
    job = page.job()
    poisoned(job, lambda recipe: recipe.update(overrides={"bust_ease": 1e12}))
    look_at(job["id"])
    ticket = tickets(page)[job["id"]]
    assert (ticket["standing"], ticket["trouble"]) == ("No draft", "")
    assert "outside 3 to" in ticket["waiting"][0]
    assert page.post(f"/api/jobs/{job['id']}/head", {"way": "undo"}, job["version"]).status_code == 409


def test_the_bench_works_nothing_out(page, monkeypatch):
    job = page.job()
    before = tickets(page)
    monkeypatch.setattr("studio.workroom.evaluator", None)
    assert tickets(page) == before
    assert before[job["id"]]["waiting"] == ["cut a first muslin"]


def test_what_was_changed_by_other_hands_is_looked_at_again(page):
    job = page.job()
    poisoned(job, lambda recipe: recipe["steps"].append({"uid": "s1", "kind": "unheard_of", "params": {}}))
    assert "not looked at yet" in tickets(page)[job["id"]]["waiting"][0]
    look_at_all()
    assert tickets(page)[job["id"]]["waiting"] == ["1 step skipped", "cut a first muslin"]


def test_a_muslin_that_cannot_be_read_leaves_the_pattern_on_the_table(page):
    job = page.cut(page.job())
    round_ = Round.objects.get()
    round_.as_cut["pieces"][0]["edges"][0]["curve"] = [[0, 0], [1, 1], [2, 2]]
    round_.save()
    problem(page.get(f"/api/jobs/{job['id']}/rounds/1/pattern"), 422, "muslin-unreadable")
    preview = page.preview(job, against=1)
    assert len(preview["order"]) == 2
    assert preview["against"] is None
    assert next(n["code"] for n in preview["notices"]) == "muslin-unreadable"


def test_a_muslin_with_gaps_of_a_hair_opens_again(page):
    job = page.cut(page.job())
    round_ = Round.objects.get()
    for piece in round_.as_cut["pieces"]:
        x, y = piece["edges"][0]["curve"][0]
        piece["edges"][0]["curve"][0] = [x + 1e-15, y - 4e-15]
    round_.save()
    assert page.get(f"/api/jobs/{job['id']}/rounds/1/pattern").status_code == 200


@pytest.mark.parametrize(
    ("fault", "status", "code", "says"),
    [
        ("database or disk is full", 507, "disk-full", "disk is full"),
        ("disk I/O error", 507, "disk-full", "cannot be written"),
        ("database is locked", 503, "busy", "Another program"),
        ("attempt to write a readonly database", 503, "read-only", "can only be read"),
        ("database disk image is malformed", 500, "database-damaged", "damaged"),
    ],
)
def test_faults_of_the_storage_are_told_in_words_and_nothing_is_changed(page, monkeypatch, fault, status, code, says):
    job = page.job()

    def failing(*args, **kwargs):
        raise OperationalError(fault)

    recipe = {**job["recipe"], "overrides": {"bust_ease": 5.0}}
    with monkeypatch.context() as broken:
        broken.setattr("studio.actions.revise.add_revision", failing)
        answer = page.put(f"/api/jobs/{job['id']}/recipe", {"recipe": recipe, "why": "x"}, job["version"])
    body = problem(answer, status, code)
    assert says in body["detail"]
    assert ("Retry-After" in answer) == (code == "busy")
    assert page.fresh(job) == job
    # The very same deed works once what stood in the way is gone.
    assert page.put(f"/api/jobs/{job['id']}/recipe", {"recipe": recipe, "why": "x"}, job["version"]).status_code == 200


def test_a_fault_of_the_program_is_a_problem_too_and_the_log_tells_nobodys_words(page, monkeypatch, caplog):
    def failing(*args, **kwargs):
        raise KeyError("Odile Varn")

    monkeypatch.setattr("studio.routers.people.wearer_state", failing)
    body = problem(page.get(f"/api/wearers/{page_wearer_id(page)}"), 500, "fault")
    assert "Odile" not in json.dumps(body)
    assert "Odile" not in caplog.text
    assert "KeyError at" in caplog.text


def page_wearer_id(page):
    from studio.models import Wearer

    return Wearer.objects.create(name="Odile Varn").id


def test_a_change_without_the_token_is_refused_as_a_problem():
    strict = Client(enforce_csrf_checks=True)
    problem(strict.post("/api/wearers", data="{}", content_type="application/json"), 403, "token-missing")


@pytest.mark.parametrize("header", ["²", "9" * 5000, "-1", "1e3", "", "٣"])
def test_a_version_that_is_none_is_told(page, header):
    job = page.job()
    answer = page.client.put(
        f"/api/jobs/{job['id']}/recipe",
        data=json.dumps({"recipe": job["recipe"]}),
        content_type="application/json",
        headers={"If-Match": f'"{header}"'},
    )
    problem(answer, 428, "version-missing")


@pytest.mark.parametrize("number", ["NaN", "Infinity", "-Infinity", "1e400", "[" * 500 + "]" * 500, "[" * 10**5])
def test_a_number_that_is_none_and_nesting_without_end_are_told(page, number):
    job = page.job()
    step = {"uid": "s1", "kind": "change_length", "params": {"amount": "@"}}
    text = json.dumps({"sheet": job["sheet"]["id"], "recipe": {**job["recipe"], "steps": [step]}})
    answer = page.client.post("/api/preview", data=text.replace('"@"', number), content_type="application/json")
    assert answer.status_code in (400, 422)
    assert answer.json()["fix"]


@pytest.mark.parametrize("symbol", ["hood_loop", "cup", "head_girth", "waist_to_hip"])
def test_a_measure_that_the_blocks_do_not_read_moves_no_line(page, symbol):
    job = page.job()
    answer = page.post("/api/moved-by", {"sheet": job["sheet"]["id"], "recipe": job["recipe"], "symbol": symbol})
    assert answer.status_code == 200
    assert answer.json()["lines"] == []


def test_control_characters_and_halves_of_characters_are_stripped(page):
    raw = b'{"name": "Od\\u0000ile\\ud800 V\\u0007arn\\u009f", "note": "two\\nlines"}'
    wearer = page.client.post("/api/wearers", data=raw, content_type="application/json").json()
    assert (wearer["name"], wearer["note"]) == ("Odile Varn", "two\nlines")


@pytest.mark.parametrize(
    ("garment", "name"), [("旗袍", "旗袍"), ("Жакет для виолончели", "жакет-для-виолончели"), ("Top ½", "top-½")]
)
def test_files_are_saved_under_their_own_names(page, garment, name):
    from urllib.parse import unquote

    job = page.job(garment=garment)
    answer = page.get(f"/api/jobs/{job['id']}/export")
    plain, _, named = answer["Content-Disposition"].partition("; filename*=UTF-8''")
    assert unquote(named) == f"{name}.izett-job.json"
    assert plain.startswith("attachment; filename=")
    assert plain.isascii()
    assert "sandbox" in answer["Content-Security-Policy"]
    assert answer["Cache-Control"] == "no-store"


def test_a_sheet_under_way_that_was_gone_on_with_elsewhere_is_not_written_over(page):
    wearer = page.wearer()
    path = f"/api/wearers/{wearer['id']}/under-way"
    body = {"taken_on": "2026-11-20", "readings": {"bust_girth": {"text": "92"}}}
    here = page.put(path, {**body, "version": 0}).json()
    there = page.put(path, {**body, "version": here["version"], "worn": "jumper"}).json()
    told = problem(page.put(path, {**body, "version": here["version"]}), 412, "sheet-changed")
    assert told["under_way"]["worn"] == "jumper"
    assert told["under_way"]["version"] == there["version"] == 2
    assert page.put(path, {**body, "version": 2}).json()["version"] == 3


def test_limits_are_told_in_words(page):
    job = page.job()
    step = {"uid": "s", "kind": "change_length", "params": {}}
    for recipe in (
        {"steps": [{**step, "uid": f"s{i}"} for i in range(301)]},
        {"overrides": {f"x{i}": 1.0 for i in range(501)}},
        {"why": {"bust_ease": "x" * 2001}},
        {"steps": [{**step, "params": {"line": "x" * 30_000}}]},
        {"steps": [step, step]},
    ):
        answer = page.put(f"/api/jobs/{job['id']}/recipe", {"recipe": {**job["recipe"], **recipe}}, job["version"])
        assert answer.status_code == 422, recipe
        assert answer.json()["fix"]
    assert page.fresh(job) == job


def test_a_recipe_as_the_program_writes_it_is_within_its_limits(page):
    job = page.job()
    assert RecipeDoc.model_validate(job["recipe"]).model_dump(mode="json") == job["recipe"]


def test_the_database_overwrites_what_is_deleted():
    with connection.cursor() as cursor:
        assert cursor.execute("PRAGMA secure_delete").fetchone()[0] == 1
    assert sqlite3.sqlite_version_info >= (3, 35)
