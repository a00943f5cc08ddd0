import pytest

from studio.models import Finding, Job, Reading, Revision, Round, Wearer
from tests.studio.conftest import problem

pytestmark = pytest.mark.django_db


def test_readings_are_kept_as_typed_beside_their_length(page):
    wearer = page.wearer()
    kept = {r["symbol"]: r for r in page.get(f"/api/wearers/{wearer['id']}").json()["newest"]["readings"]}
    assert kept["waist_girth"] == {
        "symbol": "waist_girth",
        "text": "29 1/8 in",
        "unit": "in",
        "again": [],
        "cm": 73.9775,
    }
    assert kept["bust_girth"]["cm"] == 92


def test_a_new_sheet_never_overwrites_an_old_one(page):
    wearer = page.wearer()
    body = {"taken_on": "2026-11-21", "readings": {"bust_girth": {"text": "93", "unit": "cm"}}}
    path = f"/api/wearers/{wearer['id']}/sheets"
    assert page.post(path, body).json()["number"] == 2
    assert page.post(path, body).json()["number"] == 2, "the same sheet sent twice is kept once"
    assert Reading.objects.filter(symbol="bust_girth").values_list("cm", flat=True).order_by("cm")[0] == 92


@pytest.mark.parametrize(
    ("text", "code"),
    [
        ("abc", "unreadable-measure"),
        ("-3", "unreadable-measure"),
        ("0", "unreadable-measure"),
        ("5000", "unreadable-measure"),
    ],
)
def test_a_reading_that_is_none_keeps_nothing_of_the_sheet(page, text, code):
    wearer = page.post("/api/wearers", {"name": "Odile Varn"}).json()
    readings = {"bust_girth": {"text": "92"}, "waist_girth": {"text": text}}
    answer = page.post(f"/api/wearers/{wearer['id']}/sheets", {"taken_on": "2026-11-21", "readings": readings})
    assert problem(answer, 422, code)["where"] == ["waist_girth"]
    assert Reading.objects.count() == 0


def test_an_empty_sheet_and_an_unknown_measure_are_told(page):
    wearer = page.post("/api/wearers", {"name": "Odile Varn"}).json()
    path = f"/api/wearers/{wearer['id']}/sheets"
    problem(page.post(path, {"taken_on": "2026-11-21", "readings": {}}), 422, "unreadable-measure")
    answer = page.post(path, {"taken_on": "2026-11-21", "readings": {"bust_grith": {"text": "92"}}})
    assert "bust_girth" in problem(answer, 404, "unknown-name")["fix"]


def test_a_sheet_is_reviewed_while_it_is_typed(page):
    readings = {
        "waist_girth": {"text": "29", "unit": "cm"},
        "bust_girth": {"text": "36 1/4", "unit": "in"},
        "high_bust_girth": {"text": "97", "unit": "cm"},
        "height": {"text": "tall", "unit": "cm"},
        "hip_girth": {"text": "  ", "unit": "cm"},
    }
    review = page.post("/api/measures/review", {"readings": readings}).json()
    by = {r["symbol"]: r for r in review["readings"]}
    assert by["waist_girth"]["concern"] == "other_unit"
    assert by["waist_girth"]["suggestion"] == "29.0 in"
    assert by["bust_girth"]["shown_cm"] == "92.1"
    assert by["bust_girth"]["unit"] == "in"
    assert by["bust_girth"]["shown_in"] == "36¼"
    assert "not a length" in by["height"]["error"]
    assert "hip_girth" not in by
    assert review["contradictions"][0]["key"] == "bust_over_high_bust"
    assert review["missing"] == [["height", "back_waist_length"]]
    assert not review["can_draft"]


@pytest.mark.parametrize(
    ("body", "value"),
    [
        ({"text": "37½", "unit": "in"}, 95.25),
        ({"text": "-3/8", "unit": "in", "low": -2, "high": 2}, -0.9525),
        ({"text": "0", "unit": "cm", "low": 0, "high": 4}, 0),
        ({"text": "1/2"}, 0.5),
        ({"text": "30 %", "low": 0, "high": 1}, 0.3),
    ],
)
def test_numbers_are_read_for_every_field(page, body, value):
    assert page.post("/api/numbers", body).json() == {"value": pytest.approx(value), "error": ""}


@pytest.mark.parametrize(
    ("body", "error"),
    [
        ({"text": "wide", "unit": "cm"}, "“wide” is not a length: type 92.5,"),
        ({"text": "3 in"}, "“3 in” is not a number: type 12, 0.5, 1/2 or 30%."),
        ({"text": "2 in", "unit": "cm", "low": 0, "high": 4}, "Enter a value from ⟦0 cm⟧ to ⟦4 cm⟧."),
        ({"text": "7", "low": 0, "high": 1}, "Enter a value from 0 to 1."),
    ],
)
def test_a_number_that_cannot_be_says_what_can(page, body, error):
    found = page.post("/api/numbers", body).json()
    assert found["value"] is None
    assert found["error"].startswith(error)


def test_deleting_a_wearer_deletes_everything_for_good(page):
    job = page.fix(page.find(page.cut(page.job())))
    wearer = job["wearer"]["id"]
    assert page.client.delete(f"/api/wearers/{wearer}").status_code == 204
    for model in (Wearer, Job, Revision, Round, Finding, Reading):
        assert model.objects.count() == 0, model
    problem(page.client.delete(f"/api/wearers/{wearer}"), 404, "not-found")


def test_a_job_needs_measures_first(page):
    wearer = page.post("/api/wearers", {"name": "Odile Varn"}).json()
    problem(page.post("/api/jobs", {"wearer": wearer["id"], "garment": "x"}), 409, "no-measures")


def test_a_request_that_makes_no_sense_is_told_where(page):
    body = problem(page.post("/api/wearers", {"name": ""}), 422, "invalid-request")
    assert "name" in body["where"]
    problem(page.post("/api/wearers", {"name": "x" * 200}), 422, "invalid-request")
