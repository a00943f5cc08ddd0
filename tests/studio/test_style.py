"""What the page asks while styling: the steps there are, offers, runs of lines, what a removal breaks, seams walked."""

import pytest

pytestmark = pytest.mark.django_db(transaction=True)

#: Steps that are made by laying patterns together, by marks, on a check or in the cutting: their form shows what they say.
SHAPED_ELSEWHERE = ("combine_lines", "redraw_edge", "accept", "set_allowances")
SHOULDER = {"start": "front.neck_shoulder", "end": "front.shoulder_tip", "along": "front.shoulder", "fraction": 0.5}


@pytest.fixture
def asked(page):
    """Ask about a recipe on the job's sheet."""
    job = page.job()

    def ask(path, steps=(), **more):
        recipe = {
            **job["recipe"],
            "steps": [{"uid": f"s{i}", "kind": k, "params": p} for i, (k, p) in enumerate(steps)],
        }
        return page.post(f"/api/{path}", {"sheet": job["sheet"]["id"], "recipe": recipe, **more})

    return ask


def test_every_step_has_a_form(page):
    answer = page.get("/api/operations").json()
    assert len(answer) > 35
    for operation in answer:
        assert operation["fields"]
        assert all(field["meaning"] for field in operation["fields"])
        for field in operation["fields"]:
            if field["kind"] in ("length", "number", "count"):
                assert field["low"] < field["high"]
            assert field["kind"] != "other" or operation["key"] in SHAPED_ELSEWHERE


def test_a_dart_a_line_a_piece_and_the_garment_are_offered_what_can_be_done(asked):
    dart = asked("offers", kind="dart", name="front.bust_dart", piece="bodice_front").json()
    assert {"move_dart", "split_dart", "aim_dart", "shape_dart", "true_dart", "princess"} <= {o["kind"] for o in dart}
    line = asked("offers", kind="line", name="front.armhole", piece="bodice_front", fraction=0.4).json()
    princess = next(o for o in line if o["kind"] == "princess")
    assert princess["params"]["start"]["fraction"] == 0.4
    assert "fold_open" in {
        o["kind"] for o in asked("offers", kind="piece", name="bodice_front", piece="bodice_front").json()
    }
    assert "change_ease" in {o["kind"] for o in asked("offers", kind="garment").json()}
    assert asked("offers", kind="dart", name="gone", piece="bodice_front").json() == []
    wrong = asked("offers", kind="cloud")
    assert wrong.status_code == 404
    assert "Point at one of" in wrong.json()["fix"]


def test_every_offer_can_be_worked_or_says_why_not(asked):
    """Each thing that is offered on a fresh bodice acts, or is refused in words; none of them breaks."""
    for name, piece in (("front.neck", "bodice_front"), ("back.side", "bodice_back"), ("front.waist", "bodice_front")):
        for offer in asked("offers", kind="line", name=name, piece=piece, fraction=0.45).json():
            stage = asked("preview", [(offer["kind"], offer["params"])], known=[]).json()["stages"][0]
            assert stage["words"]
            assert not stage["failure"] or stage["fix"], offer


def test_a_line_is_run_over_a_cut(asked):
    cut = [
        (
            "princess",
            {
                "start": {
                    "start": "front.underarm",
                    "end": "front.shoulder_tip",
                    "along": "front.armhole",
                    "fraction": 0.5,
                }
            },
        )
    ]
    lower = asked("lines", cut, kind="line", name="front.armhole", piece="s0.side", fraction=0.5).json()
    upper = asked("lines", cut, kind="line", name="front.armhole", piece="bodice_front", fraction=0.5).json()
    assert (lower["start"], lower["end"]) == ("front.underarm", "front.shoulder_tip")
    assert lower["fraction"] == pytest.approx(0.25, abs=0.02)
    assert upper["fraction"] == pytest.approx(0.75, abs=0.02)
    assert asked("lines", kind="line", name="gone", piece="bodice_front").status_code == 404


def test_what_taking_a_step_out_breaks_is_told_before(asked):
    steps = [
        ("move_dart", {"dart": "front.bust_dart", "to": SHOULDER, "share": 0.5}),
        ("convert_dart", {"dart": "s0.bust_dart", "into": "gathers"}),
        ("change_shoulder", {"amount": 0.5}),
    ]
    stages = asked("preview", steps, known=[]).json()["stages"]
    assert [s["needs"] for s in stages] == [[], ["s0"], []]
    answer = asked("without", steps, uid="s0").json()
    assert [b["uid"] for b in answer["broken"]] == ["s1"]
    assert "There is no bust dart here" in answer["broken"][0]["why"]
    assert asked("without", steps, uid="s2").json()["broken"] == []


def test_a_seam_is_walked(asked):
    walk = asked("walk", seam="side").json()
    assert walk["lengths"][0] == pytest.approx(walk["lengths"][1], abs=1e-6)
    assert len(walk["steps"]) > 8
    assert asked("walk", seam="gone").status_code == 404


def test_the_preview_tells_fixes_and_the_ease_on_the_body(asked):
    answer = asked("preview", [("change_armhole", {"lower": 2.0})], known=[]).json()
    assert {p["key"] for p in answer["ease_map"]} >= {"bust", "waist", "neck"}
    assert all(fix["words"] and fix["kind"] for check in answer["checks"] for fix in check["fixes"])
