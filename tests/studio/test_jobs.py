import pytest

from studio.models import Job, Revision
from tests.studio.conftest import problem

pytestmark = pytest.mark.django_db


def eased(job, ease=7.0):
    return {**job["recipe"], "overrides": {"bust_ease": ease}}


def test_a_job_starts_drafted_and_lies_on_the_bench(page):
    job = page.job()
    assert (job["version"], job["revision"]) == (1, 1)
    (ticket,) = page.get("/api/bench").json()
    assert ticket["standing"] == "Drafted, no muslin yet"
    assert ticket["waiting"] == ["cut a first muslin"]
    assert ticket["due"] == "2027-01-15"


def test_tickets_that_are_due_come_first(page):
    wearer = page.wearer()
    page.post("/api/jobs", {"wearer": wearer["id"], "garment": "no hurry"})
    page.job(wearer, "in January")
    page.post("/api/jobs", {"wearer": wearer["id"], "garment": "late", "due": "2020-01-01"})
    tickets = page.get("/api/bench").json()
    assert [t["garment"] for t in tickets] == ["late", "in January", "no hurry"]
    assert "due date has passed" in tickets[0]["waiting"]


def test_a_change_is_kept_as_a_revision_with_its_reason(page):
    job = page.job()
    answer = page.put(f"/api/jobs/{job['id']}/recipe", {"recipe": eased(job), "why": "room to bow"}, job["version"])
    after = answer.json()
    assert (after["version"], after["revision"]) == (2, 2)
    assert after["recipe"]["overrides"] == {"bust_ease": 7.0}
    assert after["log"][-1]["text"] == "room to bow"
    assert Revision.objects.get(number=1).document["overrides"] == {}


def test_undo_and_redo_move_along_the_chain_and_nothing_is_removed(page):
    job = page.job()
    path = f"/api/jobs/{job['id']}"
    first = page.preview(job)["order"]
    changed = page.put(f"{path}/recipe", {"recipe": eased(job), "why": "a"}, 1).json()
    back = page.post(f"{path}/head", {"way": "undo"}, changed["version"]).json()
    assert page.preview(back)["order"] == first
    assert back["can_redo"] and back["redo_words"] == "a"
    again = page.post(f"{path}/head", {"way": "redo"}, back["version"]).json()
    assert again["recipe"]["overrides"] == {"bust_ease": 7.0}
    undone = page.post(f"{path}/head", {"way": "undo"}, again["version"]).json()
    problem(page.post(f"{path}/head", {"way": "undo"}, undone["version"]), 409, "nothing-to-undo")
    assert Revision.objects.count() == 2


def test_a_stale_tab_cannot_overwrite_a_newer_change(page):
    job = page.job()
    path = f"/api/jobs/{job['id']}/recipe"
    page.put(path, {"recipe": eased(job, 7.0), "why": "first tab"}, 1)
    body = problem(page.put(path, {"recipe": eased(job, 9.0), "why": "stale tab"}, 1), 412, "job-changed")
    assert (body["yours"], body["theirs"]) == (1, 2)
    assert body["job"]["recipe"]["overrides"] == {"bust_ease": 7.0}
    assert page.fresh(job)["recipe"]["overrides"] == {"bust_ease": 7.0}


def test_every_change_must_name_its_version(page):
    job = page.job()
    for call in (
        lambda: page.put(f"/api/jobs/{job['id']}/recipe", {"recipe": eased(job)}),
        lambda: page.post(f"/api/jobs/{job['id']}/head", {"way": "undo"}),
        lambda: page.post(f"/api/jobs/{job['id']}/rounds", {}),
    ):
        problem(call(), 428, "version-missing")
    assert page.fresh(job)["version"] == 1


def test_sending_a_change_twice_keeps_it_once(page):
    job = page.job()
    body = {"recipe": eased(job), "why": "once"}
    page.put(f"/api/jobs/{job['id']}/recipe", body, 1)
    again = page.put(f"/api/jobs/{job['id']}/recipe", body, 1)
    assert again.status_code == 200
    assert again.json()["revision"] == 2


@pytest.mark.parametrize(
    ("recipe", "code"),
    [
        ({"overrides": {"bust_ease": 99}}, "value-out-of-range"),
        ({"overrides": {"nothing": 1}}, "unknown-name"),
        ({"school": "bespoke"}, "unknown-name"),
        ({"block": "cape"}, "unknown-name"),
        ({"overrides": {"bust_ease": "wide"}}, "invalid-request"),
        ({"steps": [{"uid": "!", "kind": "x", "params": {}}]}, "invalid-request"),
    ],
)
def test_a_recipe_that_does_not_draft_is_told_and_not_kept(page, recipe, code):
    job = page.job()
    answer = page.put(f"/api/jobs/{job['id']}/recipe", {"recipe": {**job["recipe"], **recipe}}, 1)
    assert answer.json()["type"].endswith(code)
    assert page.fresh(job)["version"] == 1


def test_a_job_is_drafted_again_from_a_new_sheet_with_its_steps_kept(page):
    wearer = page.wearer()
    job = page.fix(page.find(page.cut(page.job(wearer))))
    sheet = page.post(
        f"/api/wearers/{wearer['id']}/sheets",
        {
            "taken_on": "2026-12-01",
            "readings": {s: {"text": t} for s, t in (("bust_girth", "95"), ("waist_girth", "76"), ("height", "168"))},
        },
    ).json()
    after = page.put(
        f"/api/jobs/{job['id']}/recipe",
        {"recipe": job["recipe"], "sheet": sheet["id"], "why": "measured again"},
        job["version"],
    ).json()
    assert after["sheet"]["number"] == 2
    preview = page.preview(after)
    assert [stage["failure"] for stage in preview["stages"]] == [""]
    assert next(s["value"] for s in preview["sums"] if s["symbol"] == "bust_girth") == 95


def test_another_wearers_sheet_is_refused(page):
    job = page.job()
    stranger = page.wearer("Somebody Else", {"bust_girth": "99", "waist_girth": "80", "height": "170"})
    sheet = page.get(f"/api/wearers/{stranger['id']}").json()["newest"]["id"]
    problem(page.put(f"/api/jobs/{job['id']}/recipe", {"recipe": job["recipe"], "sheet": sheet}, 1), 404, "not-found")


def test_preview_sends_only_pieces_that_are_not_known(page):
    job = page.job()
    first = page.preview(job)
    assert [p["name"] for p in first["pieces"]] == ["bodice_front", "bodice_back"]
    assert page.preview(job, known=first["order"])["pieces"] == []
    step = {"uid": "s1", "kind": "widen_across", "params": {"part": "back", "amount": 0.4}}
    changed = {**job, "recipe": {**job["recipe"], "steps": [step]}}
    delta = page.preview(changed, known=first["order"])
    assert [p["name"] for p in delta["pieces"]] == ["bodice_back"]
    assert Job.objects.get().version == 1, "a preview keeps nothing"


def test_preview_shows_every_sum_and_allowance_with_where_it_comes_from(page):
    preview = page.preview(page.job())
    states = {s["symbol"]: s["state"] for s in preview["sums"]}
    assert states["bust_girth"] == "taken"
    assert states["armhole_depth"] == "estimated"
    assert states["neck_depth"] == "found"
    assert {a["state"] for a in preview["allowances"]} == {"usual"}
    # What cannot be compared (no hip was taken) is told so.
    # A block is closed all around: that it needs an opening is told.
    odd = [c for c in preview["checks"] if c["verdict"] not in ("passes", "not_applicable")]
    assert {c["check"] for c in odd} <= {"passes_over"}
    assert {s["name"] for s in preview["seams"]} == {"shoulder", "side"}


def test_preview_agrees_with_the_core_to_the_last_bit(page):
    from izett.drafting.method import draft
    from izett.drafting.methods.bodice import METHOD

    job = page.job()
    measures = {r["symbol"]: r["cm"] for r in job["sheet"]["readings"]}
    pattern = draft(METHOD, measures).pattern
    for sent, piece in zip(page.preview(job)["pieces"], pattern.pieces, strict=True):
        assert [[tuple(p) for p in e["curve"]] for e in sent["edges"]] == [list(e.curve.points) for e in piece.edges]


def allowances(job, **params):
    step = {"uid": "cut", "kind": "set_allowances", "params": params}
    return {"recipe": {**job["recipe"], "steps": [*job["recipe"]["steps"], step]}, "why": "Seam allowances"}


def test_allowances_are_a_step_of_the_recipe_undone_like_any_other(page):
    job = page.job()
    path = f"/api/jobs/{job['id']}/recipe"
    lines = [{"line": "front.side", "width": 2.0}]
    after = page.put(path, allowances(job, purpose="home", lines=lines), 1).json()
    side = {e["lineage"]: e["allowance"] for p in page.preview(after)["pieces"] for e in p["edges"]}
    assert (side["front.side"], side["back.side"]) == (2.0, 1.5)
    back = page.post(f"/api/jobs/{job['id']}/head", {"way": "undo"}, 2).json()
    side = {e["lineage"]: e["allowance"] for p in page.preview(back)["pieces"] for e in p["edges"]}
    assert side["front.side"] != 2.0


def test_allowances_that_cannot_be_are_refused_and_nothing_is_kept(page):
    job = page.job()
    path = f"/api/jobs/{job['id']}/recipe"
    wide = [{"line": "front.side", "width": 99}]
    answer = problem(page.put(path, allowances(job, lines=wide), 1), 422, "step-refused")
    assert "Width cannot be ⟦99 cm⟧." in answer["detail"]
    assert answer["fix"] == "Enter a value from ⟦0 cm⟧ to ⟦10 cm⟧."
    problem(page.put(path, allowances(job, purpose="gala"), 1), 422, "step-refused")
    assert page.fresh(job)["version"] == 1


@pytest.mark.parametrize(
    ("kind", "media", "ending"),
    [
        ("svg", "image/svg+xml", ".svg"),
        ("pdf", "application/pdf", ".pdf"),
        ("json", "application/json", ".izett-pattern.json"),
        ("dxf", "image/vnd.dxf", ".dxf"),
        ("dxf-numbered", "image/vnd.dxf", ".numbered.dxf"),
        ("plt", "application/vnd.hp-hpgl", ".plt"),
        ("seams", "text/csv", ".seams.csv"),
        ("cutting-list", "text/csv", ".cutting-list.csv"),
    ],
)
def test_files_are_written_of_the_job_as_it_stands(page, kind, media, ending):
    job = page.job()
    answer = page.get(f"/api/jobs/{job['id']}/files/{kind}?paper=letter")
    assert answer.status_code == 200
    assert answer["Content-Type"] == media
    assert "recital-bodice" in answer["Content-Disposition"] and f'{ending}";' in answer["Content-Disposition"]
    assert len(answer.content) > (3000 if media != "text/csv" else 80)
    if kind != "json":
        assert b"Odile" not in answer.content, "sheets carry initials, not names"


@pytest.mark.parametrize("paper", ["a0", "roll"])
def test_a_pattern_is_printed_on_large_paper(page, paper):
    answer = page.get(f"/api/jobs/{page.job()['id']}/files/pdf?paper={paper}")
    assert answer.status_code == 200 and answer.content.startswith(b"%PDF")


def test_a_missing_allowance_stops_what_is_cut_by_and_nothing_else(page):
    job = page.job()
    bare = allowances(job, lines=[{"line": "front.side", "width": 0}])
    assert page.put(f"/api/jobs/{job['id']}/recipe", bare, job["version"]).status_code == 200
    for kind in ("pdf", "svg", "dxf", "plt"):
        answer = problem(page.get(f"/api/jobs/{job['id']}/files/{kind}"), 422, "allowance-missing")
        assert "nothing is printed" in answer["detail"] and "No allowance" in answer["fix"]
    for kind in ("json", "seams", "cutting-list"):
        assert page.get(f"/api/jobs/{job['id']}/files/{kind}").status_code == 200


def test_what_is_not_there_is_told(page):
    nowhere = "00000000-0000-0000-0000-000000000000"
    problem(page.get(f"/api/jobs/{nowhere}"), 404, "not-found")
    problem(page.get(f"/api/wearers/{nowhere}"), 404, "not-found")
    problem(page.post("/api/preview", {"sheet": 99, "recipe": {}}), 404, "not-found")
    job = page.job()
    problem(page.get(f"/api/jobs/{job['id']}/rounds/3/pattern"), 404, "not-found")
    problem(page.get(f"/api/jobs/{job['id']}/files/docx"), 422, "invalid-request")


def test_a_fix_whose_finding_is_gone_changes_nothing_and_says_so(page):
    """Fixed in one window, it cannot be fixed again from another that still shows the finding."""
    job = page.job()
    preview = page.post("/api/preview", {"sheet": job["sheet"]["id"], "recipe": job["recipe"], "known": []}).json()
    odd = next(check for check in preview["checks"] if check["verdict"] == "warns" and check["fixes"])
    fix = odd["fixes"][0]
    about = {key: odd[key] for key in ("check", "where", "aspect", "half")}

    def fixed(uid, now):
        step = {"uid": uid, "kind": fix["kind"], "params": fix["params"]}
        recipe = {**now["recipe"], "steps": [*now["recipe"].get("steps", []), step]}
        body = {"recipe": recipe, "why": fix["words"], "fixes": about}
        return page.put(f"/api/jobs/{job['id']}/recipe", body, now["version"])

    first = fixed("a", job)
    assert first.status_code == 200, first.content
    # Behind the job, it is told that first; on the newer state there is nothing left to fix.
    assert fixed("b", job).status_code == 412
    gone = fixed("b", first.json())
    assert (gone.status_code, gone.json()["title"]) == (409, "finding gone")
    assert "not found any more" in gone.json()["detail"]
    assert page.fresh(job)["recipe"]["steps"] == first.json()["recipe"]["steps"]
