"""The knit family and the straight-cut shirt."""

import pytest

from izett.drafting.ease import Cloth
from izett.errors import DraftRefused
from izett.units import Unit, read_length
from tests.bodies import with_hips
from tests.core.blocks import drafted

BODY = {"bust_girth": 92.0, "waist_girth": 74.0, "hip_girth": 98.0, "height": 168.0, "high_bust_girth": 87.0}


def knit(blocks, body, stretch, fit="close", **choices):
    return drafted(blocks, body, fit=fit, cloth=Cloth("knit", stretch), **choices)


def test_a_dropped_dart_is_kept_half_in_the_armhole_and_half_eased_as_far_as_the_cloth_takes_it():
    found = knit(["knit_top"], BODY, 60)
    values = found.values
    assert values["kept_in_armhole"] == pytest.approx(values["bust_rise"] / 2)
    assert values["front_side_ease"] == pytest.approx(values["bust_rise"] / 2)
    firm = knit(["knit_top"], BODY, 10).values
    assert firm["front_side_ease"] < firm["bust_rise"] / 2
    assert firm["kept_in_armhole"] == pytest.approx(values["kept_in_armhole"], abs=0.3)


def test_a_large_cup_in_a_firm_knit_had_better_keep_a_dart():
    """Cup difference over about 10 with a cloth under 30 % stretch (common practice, no single source)."""
    full = {**BODY, "bust_girth": 104.0, "high_bust_girth": 92.0}
    assert "keep-a-dart" in {notice.code for notice in knit(["knit_top"], full, 20).notices}
    assert "keep-a-dart" not in {notice.code for notice in knit(["knit_top"], full, 40).notices}


def test_front_and_back_of_a_knit_top_differ_only_at_neck_and_armhole():
    for body in with_hips(90):
        pattern = knit(["knit_top"], body, 50).pattern
        front, back = pattern.pieces
        for vertex in ("hem_side", "waist_side", "bust_side"):
            assert front.vertex(f"front.{vertex}") == back.vertex(f"back.{vertex}")
        assert front.on_fold == "front.centre" and back.on_fold == "back.centre"


@pytest.mark.parametrize(
    ("stretch", "low", "high"), [(20, 0.0, 0.02), (40, 0.02, 0.05), (60, 0.05, 0.10), (90, 0.10, 0.15)]
)
def test_a_close_knit_is_cut_under_the_body_by_its_stretch(stretch, low, high):
    """Shares of common practice by bands of stretch (no single source)."""
    found = knit(["knit_top"], BODY, stretch)
    share = -found.values["bust_ease"] / BODY["bust_girth"]
    assert low <= share <= high
    easier = knit(["knit_top"], BODY, stretch, fit="easy").values["bust_ease"]
    assert easier - found.values["bust_ease"] == pytest.approx(10 - 4), "what a woven has over its close fit"


def test_a_pencil_skirt_is_pulled_on_over_the_hip():
    """A 74 waist on a 98 hip needs 37 % stretch to be pulled on (worked as common practice does)."""
    found = knit(["knit_skirt"], BODY, 40)
    assert found.values["stretch_to_pull_on"] == pytest.approx(37, abs=0.5)
    assert not found.notices
    firm = knit(["knit_skirt"], BODY, 25)
    assert [notice.code for notice in firm.notices] == ["waist-widened-to-pull-on"]
    assert 4 * firm.values["knit_skirt_waist"] * 1.25 == pytest.approx(98)


def test_its_turnings_are_cut_on_and_not_hidden_in_the_measure():
    """From the cut top edge the hip lies at waist to hip + 2.5, and the cut hem at waist to hem + 3.8."""
    piece = knit(["knit_skirt"], {**BODY, "waist_to_hip": 20.0, "waist_to_hem": 60.0}, 50).pattern.piece("knit_skirt")
    levels = {line.level: line.points[0][1] for line in piece.lines}
    assert levels["hip"] == pytest.approx(-(20 + 2.5))
    assert min(y for _, y in piece.outline()) == pytest.approx(-(60 + 3.8))
    assert levels["waist"] == pytest.approx(-2.5) and levels["hem"] == pytest.approx(-(60 + 2.5))
    taken = knit(["knit_skirt"], {**BODY, "hem_girth": 84.0}, 50)
    assert taken.values["knit_skirt_hem"] == 21
    taper = knit(["knit_skirt"], {**BODY, "hem_girth": 84.0}, 50, schools={"hem": "taper"})
    assert taper.values["knit_skirt_hem"] == pytest.approx(taper.values["knit_skirt_hip"] - 2.5)


def inches(text: str) -> float:
    return read_length(text, unit=Unit.INCH).cm


def test_the_straight_cut_example_comes_out_to_the_inch():
    """Worked as common practice does, in inches: neck to hem 29, collar 3, allowance ½ make a length of 33; half neck 24
    and shoulder 5 a width of 35; the collar's edge 48 + 1; the sleeve 23 + 1."""
    body = {
        "neck_girth": inches("14"), "neck_height": inches("3"), "shoulder_length": inches("5"), "neck_to_hem": inches("29"),
        "shoulder_to_knuckle": inches("30"), "wrist_girth": inches("6 1/2"), "hand_girth": inches("8"),
        "bicep_girth": inches("12"), "head_girth": inches("22"),
    }  # fmt: skip
    chosen = {
        "finished_neck_ease": inches("2"), "fullness_ratio": 3.0, "shirt_seam": inches("1/2"), "collar_height": inches("3"),
        "shirt_sleeve_width": inches("23"),
    }  # fmt: skip
    found = drafted(["straight_shirt"], body, overrides=chosen)
    sizes = {}
    for piece in found.pattern:
        xs, ys = zip(*piece.outline(), strict=True)
        sizes[piece.name] = ((max(xs) - min(xs)) / 2.54, (max(ys) - min(ys)) / 2.54)
    assert sizes["shirt_body"] == pytest.approx((35, 33), abs=1e-9)
    assert sizes["shirt_sleeve"][0] == pytest.approx(24, abs=1e-9)
    assert found.values["half_neck"] / 2.54 == pytest.approx(24)
    assert found.values["collar_edge"] / 2.54 == pytest.approx(49)
    assert sizes["shirt_neck_stay"] == pytest.approx((17, 3.5))
    assert sizes["shirt_gusset"][0] == sizes["shirt_gusset"][1]
    assert not found.notices


def test_the_shirts_cuff_and_warnings():
    closing = drafted(["straight_shirt"], {**BODY, "wrist_girth": 16.0, "hand_girth": 21.0}).values
    slip_on = drafted(
        ["straight_shirt"], {**BODY, "wrist_girth": 16.0, "hand_girth": 21.0}, schools={"cuff": "slip_on"}
    )
    assert closing["cuff"] == pytest.approx(16.6)
    assert slip_on.values["cuff"] == 21
    high = drafted(["straight_shirt"], {**BODY, "neck_height": 5.0})
    assert [notice.code for notice in high.notices] == ["collar-above-neck"]
    with pytest.raises(DraftRefused, match="side slits"):
        drafted(["straight_shirt"], {**BODY, "neck_to_hem": 40.0})
