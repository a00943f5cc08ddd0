"""The table is told of a piece again whenever anything that is drawn of it has changed, and of nothing else."""

import pytest

pytestmark = pytest.mark.django_db

BODY = {
    "bust_girth": "92", "waist_girth": "74", "hip_girth": "98", "height": "168", "high_bust_girth": "87",
    "underbust_girth": "78",
}  # fmt: skip
LOWERED = ("change_armhole", {"lower": 1.0})


@pytest.fixture
def job(page):
    return page.job(page.wearer(readings=BODY))


def shown(page, job, *steps, half="both", **more):
    made = [{"uid": f"s{i}", "kind": kind, "params": params, "half": half} for i, (kind, params) in enumerate(steps)]
    recipe = {**job["recipe"], "also": ["sleeve"], "steps": made}
    answer = page.preview(job, recipe=recipe, **more)
    assert [stage["failure"] for stage in answer["stages"]] == [""] * len(answer["stages"])
    return answer


@pytest.mark.parametrize(
    ("steps", "told"),
    [
        ([("match_notches", {"seam": "cap"})], {"sleeve"}),
        ([("set_allowances", {"lines": [{"line": "back.neck", "width": 0.7}]})], {"bodice_back"}),
        ([("aim_dart", {"dart": "front.bust", "upwards": 0.5})], {"bodice_front"}),
    ],
)
def test_only_the_piece_that_changed_is_told_again(page, job, steps, told):
    before = shown(page, job, LOWERED)
    after = shown(page, job, LOWERED, *steps, known=before["order"])
    assert {piece["name"] for piece in after["pieces"]} == told
    assert len(set(after["order"]) & set(before["order"])) == 3 - len(told)


def test_a_garment_of_two_halves_is_drawn_left_and_right(page, job):
    answer = shown(page, job, ("change_shoulder", {"amount": -0.5}), half="left")
    halves = {(piece["half"], piece["region"]) for piece in answer["pieces"]}
    assert {half for half, _ in halves} >= {"left", "right"}
    assert len({piece["title"] for piece in answer["pieces"]}) == len(answer["pieces"])


def test_the_block_under_the_style_is_drawn_on_wish(page, job):
    neck = {"start": "front.underarm", "end": "front.shoulder_tip", "along": "front.armhole", "fraction": 0.55}
    style = ("princess", {"start": neck, "bow": 1.0})
    garment, source = shown(page, job, style), shown(page, job, style, source=True)
    assert len(garment["pieces"]) == len(source["pieces"]) + 1
