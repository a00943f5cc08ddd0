"""Around a fitting: checklist, pins, hours, the note to look again, the wearer's fit, papers, the story and its prints."""

import json
from datetime import date, timedelta

import pypdfium2
import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.utils import timezone

from studio.demo_photo import photo_of_a_pinch
from studio.models import Job, KeptFit, Round, Spell, Wearer
from tests.studio.conftest import problem
from tests.studio.test_photos import send

pytestmark = pytest.mark.django_db

WAIST = {"given": {"low": {"text": "3/8", "unit": "in"}}}


def see_to(page, job, number=1, **about):
    return page.send("patch", f"/api/jobs/{job['id']}/rounds/{number}", about, job["version"])


def do(page, job, what, body):
    return page.post(f"/api/jobs/{job['id']}/{what}", body, job["version"])


def answered(page, job, outcome, number=2, finding="finding-1"):
    body = {"finding": finding, "outcome": outcome}
    return page.post(f"/api/jobs/{job['id']}/rounds/{number}/answers", body, job["version"]).json()


def solved(page, job=None):
    """Return a job whose waist was shortened after its first muslin, which the second found solved."""
    job = page.fix(page.find(page.cut(job or page.job()), words="rides up", **WAIST))
    return answered(page, page.cut(page.close(job)), "solved")


def text_of(pdf):
    document = pypdfium2.PdfDocument(pdf)
    return " ".join(sheet.get_textpage().get_text_range() for sheet in document).replace("\r\n", " ")


def test_a_muslin_tells_what_to_see_to_and_keeps_what_was_seen_to(page):
    job = page.job()
    first = page.get(f"/api/jobs/{job['id']}/muslin").json()
    assert first["number"] == 1 and first["changed"] == [] and first["estimated"]
    job = page.cut(job)
    job = see_to(page, job, prepared=["closures"], watched=["stand"], pins_in=20).json()
    # What is left out stays.
    job = see_to(page, job, prepared=["closures", "foundation"]).json()
    round_ = job["rounds"][0]
    assert (round_["prepared"], round_["watched"], round_["pins_in"]) == (["closures", "foundation"], ["stand"], 20)
    assert problem(see_to(page, job, prepared=["nonsense"]), 404, "unknown-name")["where"] == ["nonsense"]
    assert problem(see_to(page, job, watched=["dance"]), 404, "unknown-name")["where"] == ["dance"]
    assert see_to(page, job, pins_in=-1).status_code == 422


def test_a_muslin_asks_what_was_changed_since_the_last(page):
    job = solved(page)
    job = page.close(job, 2)
    recipe = {**job["recipe"], "overrides": {"bust_ease": 8}}
    job = page.put(
        f"/api/jobs/{job['id']}/recipe", {"recipe": recipe, "why": "room for a jumper"}, job["version"]
    ).json()
    assert page.get(f"/api/jobs/{job['id']}/muslin").json()["changed"] == ["room for a jumper"]


def test_a_muslin_is_put_away_once_all_pins_are_out_or_one_is_said_to_be_lost(page):
    job = see_to(page, page.cut(page.job()), pins_in=14).json()
    path = f"/api/jobs/{job['id']}/rounds/1/close"
    assert "none were counted out" in problem(page.post(path, {}, job["version"]), 409, "pins-missing")["detail"]
    job = see_to(page, job, pins_out=13).json()
    assert (
        "14 pins went into muslin 1, 13 came out"
        in problem(page.post(path, {}, job["version"]), 409, "pins-missing")["detail"]
    )
    lost = page.post(path, {"pin_lost": True, "note": "under the table?"}, job["version"]).json()
    assert "although not all pins were found: under the table?" in lost["log"][-1]["text"]
    other = see_to(page, see_to(page, page.cut(page.job()), pins_in=9).json(), pins_out=9).json()
    assert page.close(other)["rounds"][0]["closed"]


def test_hours_are_typed_or_counted_by_a_clock_that_outlives_the_page(page):
    job = do(page, page.cut(page.job()), "time", {"minutes": 95}).json()
    assert (job["minutes"], job["rounds"][0]["minutes"], job["clock"]) == (95, 95, None)
    problem(do(page, job, "time", {"minutes": -100}), 409, "too-little-time")
    job = do(page, job, "time", {"minutes": -20}).json()
    assert job["minutes"] == 75
    job = do(page, job, "clock", {"runs": True}).json()
    began = job["clock"]
    assert do(page, job, "clock", {"runs": True}).json()["clock"] == began, "a clock that runs goes on"
    Spell.objects.filter(minutes=None).update(began=timezone.now() - timedelta(minutes=42))
    job = do(page, page.fresh(job), "clock", {"runs": False}).json()
    assert (job["minutes"], job["clock"]) == (117, None)
    problem(do(page, job, "clock", {"runs": False}), 409, "clock-stands")
    job = do(page, job, "clock", {"runs": True}).json()
    Spell.objects.filter(minutes=None).update(began=timezone.now() - timedelta(hours=31))
    assert "31 h" in problem(do(page, job, "clock", {"runs": False}), 409, "clock-forgotten")["detail"]
    assert do(page, job, "clock", {"runs": False, "minutes": 60}).json()["minutes"] == 177


def waiting(page):
    (ticket,) = page.get("/api/bench").json()
    return ticket["waiting"]


def test_a_note_to_look_again_comes_back_on_the_bench_the_next_day(page):
    job = do(page, page.job(), "look-again", {"words": "the left armhole"}).json()
    assert job["look_again_on"] == (date.today() + timedelta(days=1)).isoformat()
    assert not any("look again" in one for one in waiting(page))
    Job.objects.update(look_again_on=date.today())
    assert waiting(page)[0] == "look again: the left armhole"
    job = do(page, page.fresh(job), "look-again", {"words": ""}).json()
    assert (job["look_again"], job["look_again_on"]) == ("", None)
    assert not any("look again" in one for one in waiting(page))


def keep(page, job, number=1, finding="finding-1"):
    return do(page, job, f"rounds/{number}/findings/{finding}/keep", {})


def test_what_proved_right_is_kept_with_the_wearer_and_offered_for_her_other_garments(page):
    job = solved(page)
    step = job["recipe"]["steps"][0]
    job = keep(page, job).json()
    assert keep(page, job).status_code == 200 and KeptFit.objects.count() == 1, "kept twice it is there once"
    other = page.job(job["wearer"], "Second bodice")
    (offered,) = page.get(f"/api/jobs/{other['id']}/wearer-fit").json()
    assert "Recital bodice, muslin 1: waist seam lies below the waist. “rides up”" in offered["story"]
    assert (offered["here"], offered["anew"], offered["refused"]) == (False, False, "")
    plain = page.preview(other)
    other = do(page, other, "wearer-fit", {"uids": [offered["uid"]]}).json()
    (taken,) = other["recipe"]["steps"]
    assert (taken["kind"], taken["params"], taken["section"]) == (step["kind"], step["params"], "fit")
    assert taken["why"].startswith("Her fit. Recital bodice, muslin 1")
    assert page.preview(other)["order"] != plain["order"]
    again = do(page, other, "wearer-fit", {"uids": [offered["uid"]]}).json()
    assert len(again["recipe"]["steps"]) == 1, "taken twice it is there once"
    # Measured anew it is asked again; it still holds, or it is forgotten; the garment keeps it.
    sheet = {"taken_on": "2026-11-21", "readings": {"bust_girth": {"text": "93"}, "waist_girth": {"text": "75"}}}
    page.post(f"/api/wearers/{job['wearer']['id']}/sheets", sheet)
    path = f"/api/wearers/{job['wearer']['id']}/fit/{offered['uid']}"
    assert page.get(f"/api/jobs/{other['id']}/wearer-fit").json()[0]["anew"]
    assert page.post(f"{path}/confirm", {"sheet": 9}).status_code == 404
    assert page.post(f"{path}/confirm", {"sheet": 2}).status_code == 204
    assert not page.get(f"/api/jobs/{other['id']}/wearer-fit").json()[0]["anew"]
    assert page.client.delete(path).status_code == 204 and page.client.delete(path).status_code == 404
    assert page.fresh(other)["recipe"] == other["recipe"]
    missing = do(page, page.fresh(other), "wearer-fit", {"uids": ["nothing"]})
    assert missing.status_code == 404 and "“nothing”" in missing.json()["detail"]


def test_what_did_not_prove_right_or_is_of_the_style_is_not_kept_with_the_wearer(page):
    job = page.fix(page.find(page.cut(page.job()), **WAIST))
    problem(keep(page, job), 409, "not-solved")
    job = answered(page, page.cut(page.close(job)), "better")
    problem(keep(page, job), 409, "not-solved")
    style = page.find(job, 2, "neckline_place", "finding-2", given={"front": {"text": "1.5"}})
    plans = page.post(
        f"/api/jobs/{style['id']}/remedies", {"kind": "neckline_place", "given": {"front": {"text": "1.5"}}}
    ).json()
    plan = next(one for one in plans if not one["refused"])
    uids = [f"s{at}" for at, _ in enumerate(plan["steps"])]
    style = page.fix(style, 2, "finding-2", plan["key"], uids)
    style = answered(page, page.cut(page.close(style, 2)), "solved", 3, "finding-2")
    problem(keep(page, style, 2, "finding-2"), 409, "nothing-of-the-body")


def test_fittings_of_several_wearers_teach_a_house_rule_that_nobody_sets_but_the_maker(page):
    assert page.get("/api/lessons").json() == []
    for number in range(3):
        job = page.job(page.wearer(f"Wearer {number}"))
        job = page.cut(job)
        job = page.find(job, kind="back_tight", given={"missing": {"text": "1.6"}})
        job = page.fix(job, remedy="off_tip")
        job = page.cut(page.close(job))
        answered(page, job, "solved")
    (lesson,) = page.get("/api/lessons").json()
    assert (lesson["symbol"], lesson["garments"], lesson["of"]) == ("across_back_ease", 3, 3)
    # Half of the 1.6 that were missing across the whole back, on top of the usual 0.7.
    assert (lesson["by"], lesson["usual"], lesson["value"]) == pytest.approx((0.8, 0.7, 1.5))
    assert page.get("/api/house-rules").json() == []
    rule = {"value": lesson["value"], "reason": lesson["words"]}
    assert page.put("/api/house-rules/across_back_ease", rule).status_code == 200
    assert page.get("/api/lessons").json() == [], "what is a rule already is not offered"


def test_two_states_are_laid_over_each_other_and_another_sheet_under_before_it_is_taken(page):
    job = solved(page)
    path = f"/api/jobs/{job['id']}/papers"
    laid = page.post(path, {"under": {"muslin": 1}}).json()
    assert max(move["distance"] for move in laid["moves"]) == pytest.approx(3 / 8 * 2.54, abs=0.02)
    assert page.post(path, {"under": {"muslin": 2}}).json()["moves"] == []
    back = next(piece for piece in laid["over"]["pieces"] if piece["name"] == "bodice_back")
    side = next(edge for edge in back["edges"] if edge["role"] == "side")
    held = {"piece": back["name"], "corner": side["start"], "line": side["lineage"]}
    pinned = page.post(path, {"under": {"muslin": 1}, "held": held}).json()
    assert pinned["moves"] != laid["moves"]
    problem(page.post(path, {"under": {"muslin": 1}, "held": {**held, "corner": "nowhere"}}), 422, "reference-lost")
    assert page.post(path, {"under": {"muslin": 7}}).status_code == 404
    assert page.post(path, {"under": {"sheet": 2}}).status_code == 404
    readings = {"bust_girth": {"text": "96"}, "waist_girth": {"text": "80"}, "height": {"text": "168"}}
    page.post(f"/api/wearers/{job['wearer']['id']}/sheets", {"taken_on": "2026-11-21", "readings": readings})
    fuller = page.post(path, {"under": {"sheet": 2}}).json()
    assert fuller["moves"] and fuller["under"]["skipped"] == []
    # A step that cannot act on the other draft is named.
    steps = [*job["recipe"]["steps"], {"uid": "x", "kind": "true_dart", "params": {"dart": "front.nowhere"}}]
    lost = page.put(f"/api/jobs/{job['id']}/recipe", {"recipe": {**job["recipe"], "steps": steps}}, job["version"])
    assert page.post(path, {"under": {"sheet": 2}}).json()["under"]["skipped"]
    assert page.fresh(job)["version"] == lost.json()["version"], "looking keeps nothing"


def test_two_trials_are_laid_over_each_other_in_the_place_of_what_was_done(page):
    job = page.job(page.wearer("Isaura Penhallow"))
    job = page.fix(page.find(page.cut(job), kind="back_tight", given={"missing": {"text": "1"}}), remedy="off_tip")
    path = f"/api/jobs/{job['id']}/papers"

    def trial(remedy, finding="finding-1"):
        return {"trial": {"finding": finding, "remedy": remedy}}

    (planned,) = page.get(f"/api/jobs/{job['id']}/rounds/1/plan").json()["order"]
    assert [way["remedy"] for way in planned["ways"] if not way["refused"]] == ["off_tip", "ease"]
    # What was done is what its trial shows; the other one takes its place and is not added to it.
    assert page.post(path, {"under": trial("off_tip")}).json()["moves"] == []
    both = page.post(path, {"under": trial("off_tip"), "over": trial("ease")}).json()
    assert max(move["distance"] for move in both["moves"]) == pytest.approx(0.5, abs=0.1), (
        "the tip, out along the shoulder"
    )
    since = page.post(path, {"under": {"muslin": 1}, "over": trial("ease")}).json()
    assert max(move["distance"] for move in since["moves"]) == pytest.approx(0.5, abs=0.02)
    problem(page.post(path, {"under": trial("none_such")}), 404, "unknown-name")
    assert page.post(path, {"under": trial("ease", "finding-9")}).status_code == 404
    assert page.fresh(job)["version"] == job["version"], "looking keeps nothing"


def test_the_story_tells_what_was_seen_changed_and_proved_and_prints(page):
    job = solved(page)
    job = do(page, job, "time", {"minutes": 50}).json()
    told = page.get(f"/api/jobs/{job['id']}/story").json()
    first, second = told["story"]["rounds"]
    (finding,) = first["findings"]
    assert finding["seen"] == "Waist seam lies below the waist" and finding["words"] == "rides up"
    assert finding["proved"] == [[2, "solved"]] and "Shorten" in finding["done"][0]
    assert any("⟦0.95 cm⟧" in words for words in finding["amounts"])
    assert first["moved"][0]["distance"] == pytest.approx(0.9525, abs=0.03) and second["minutes"] == 50
    assert told["forecast"] == [], "one garment is too little to tell from"
    words = text_of(page.get(f"/api/jobs/{job['id']}/story.pdf?unit=in").content)
    for part in ("Muslin 1", "Waist seam lies below the waist", "rides up", "3/8 in", "Muslin 2: solved", "50 min"):
        assert part in words
    assert "⟦" not in words


def test_a_forecast_is_told_from_the_rounds_of_other_garments(page):
    for number in range(3):
        job = solved(page, page.job(page.wearer(f"Wearer {number}")))
        page.close(job, 2)
    Round.objects.filter(number=1).update(opened=timezone.now() - timedelta(days=9))
    new = page.job(page.wearer("New"))
    forecast = page.get(f"/api/jobs/{new['id']}/story").json()["forecast"]
    assert "6 rounds of your own, on 3 finished garments" in forecast[-1]
    assert any("By the due date" in words for words in forecast)


@pytest.mark.parametrize(("paper", "size"), [("a4", (595, 842)), ("letter", (612, 792))])
def test_the_fitting_sheet_has_the_garments_own_pieces_and_what_is_asked_again(page, paper, size):
    job = page.fix(page.find(page.cut(page.job()), **WAIST))
    job = page.cut(page.close(job))
    answer = page.get(f"/api/jobs/{job['id']}/fitting-sheet?paper={paper}")
    assert answer.status_code == 200 and "muslin-2.pdf" in answer["Content-Disposition"]
    assert pypdfium2.PdfDocument(answer.content)[0].get_size() == pytest.approx(size, abs=1)
    words = text_of(answer.content)
    for part in ("Fitting sheet: muslin 2", "Did it help?", "Waist seam lies below the waist", "Bodice back", "Bodice front",
                 "Closures in", "Pins counted in", "Reach forward", "Found on it", "side 2.5 cm", "Count pins"):  # fmt: skip
        assert part in words, part
    # Ink where the pieces and the figure are: it is no empty frame.
    picture = pypdfium2.PdfDocument(answer.content)[1].render(scale=0.5, grayscale=True).to_pil()
    assert sum(value < 128 for value in picture.get_flattened_data()) > 300
    inches = text_of(page.get(f"/api/jobs/{job['id']}/fitting-sheet?unit=in").content)
    assert "side 1 in" in inches


def five_rounds(page):
    """Return a job with five muslins: photos, a remedy on one half, an amended answer, hours, a note, kept fit."""
    job = solved(page)
    job = keep(page, job).json()
    for number in range(2, 6):
        uid = f"finding-{number}"
        job = page.find(
            job, number, "shoulder_slopes", uid, side="left" if number % 2 else "right", given={"drop": {"text": "0.6"}}
        )
        job = page.fix(job, number, uid, "with_armhole", [f"step-{number}-{at}" for at in (0, 1)])
        path = (
            f"/api/jobs/{job['id']}/rounds/{number}/findings/{uid}/photos/0000000{number}-0000-4000-8000-000000000000"
        )
        headers = {"If-Match": f'"{job["version"]}"'}
        sent = SimpleUploadedFile("x.png", photo_of_a_pinch(number))
        job = page.client.post(path, {"file": sent}, headers=headers).json()
        job = see_to(page, job, number, prepared=["cloth"], watched=["sit"], pins_in=7, pins_out=7).json()
        job = do(page, job, "time", {"minutes": 10 * number}).json()
        if number < 5:
            job = page.cut(page.close(job, number))
            job = answered(page, job, "better", number + 1, uid)
    return do(page, job, "look-again", {"words": "the left shoulder"}).json()


def test_five_rounds_with_photos_go_out_and_in_again_byte_for_byte(page, kept_in):
    job = five_rounds(page)
    out = page.get(f"/api/jobs/{job['id']}/export").content
    document = json.loads(out)
    assert len(document["rounds"]) == 5 and document["wearer"]["fit"] and len(document["time"]) == 4
    assert sum(len(f["photos"]) for r in document["rounds"] for f in r["findings"]) == 4
    assert any(step["half"] == "left" for step in document["revisions"][-1]["recipe"]["steps"])
    copy = page.client.post("/api/jobs/import", {"file": SimpleUploadedFile("job.json", out)}).json()
    assert copy["id"] != job["id"]
    assert page.get(f"/api/jobs/{copy['id']}/export").content == out
    assert len(list(kept_in.iterdir())) == 8
    # All of the studio, into an empty one.
    whole = page.get("/api/everything").content
    for wearer in Wearer.objects.all():
        page.client.delete(f"/api/wearers/{wearer.id}")
    from studio.carrying.refill import import_everything

    assert import_everything(whole) == []
    again = json.loads(page.get("/api/everything").content)
    assert again["wearers"] == json.loads(whole)["wearers"]


def test_a_page_that_is_behind_is_told_so_and_nothing_of_it_is_kept(page):
    job = page.cut(page.job())
    behind = dict(job)
    job = see_to(page, job, pins_in=3).json()
    assert see_to(page, behind, pins_in=4).status_code == 412
    assert do(page, behind, "time", {"minutes": 5}).status_code == 412
    assert send(page, page.find(job), photo_of_a_pinch()).status_code == 201
    assert page.fresh(job)["rounds"][0]["pins_in"] == 3
    job = page.close(see_to(page, page.fresh(job), pins_out=3).json())
    problem(see_to(page, job, pins_in=4), 409, "round-closed")
