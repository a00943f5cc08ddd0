"""The set-in sleeve against its armhole: lengths, notches, the cap's height, and what gives way when it will not go in."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from izett.drafting.ease import Cloth
from izett.errors import DraftRefused, IzettError
from izett.pattern.sewn import seam_lengths, span_length
from tests.acting import PassedOver, acting
from tests.bodies import extremes, measured_women, some_bodies, with_hips
from tests.core.blocks import drafted

BODICE = ["bodice", "sleeve"]


@acting(least=0.9)
@given(st.sampled_from(some_bodies(60)), st.floats(0.5, 3.5))
def test_the_cap_measures_its_armhole_and_its_ease_half_by_half(body, cap_ease):
    try:
        found = drafted(BODICE, body, overrides={"cap_ease": cap_ease})
    except DraftRefused as refused:
        assert "cap" in refused.message
        raise PassedOver from None
    pattern = found.pattern
    cap = next(seam for seam in pattern.seams if seam.name == "cap")
    armhole, round_ = seam_lengths(pattern, cap)
    assert round_ - armhole == pytest.approx(cap_ease, abs=1e-6)
    sleeve = pattern.piece("sleeve")
    for half, span in zip(("front", "back"), cap.sides[1], strict=True):
        body_half = found.values[f"{half}_armhole_length"]
        assert span_length(sleeve, span) - body_half == pytest.approx(cap_ease / 2, abs=1e-6)


def test_notches_of_cap_and_armhole_lie_at_one_distance_from_the_underarm(middling):
    pattern = drafted(BODICE, middling).pattern
    on_sleeve = [notch.distance for notch in pattern.piece("sleeve").notches]
    on_body = [notch.distance for name in ("bodice_front", "bodice_back") for notch in pattern.piece(name).notches]
    assert on_sleeve == pytest.approx(on_body)


def test_the_cap_is_about_a_third_of_the_armhole():
    """The trade's rule of thumb (common practice, no single source); outside 0.28 to 0.40 no sleeve is drawn."""
    ratios, bodies = [], (*measured_women()[::4], *extremes()[::6])
    for body in bodies:
        try:
            values = drafted(BODICE, body).values
        except IzettError:
            continue
        ratios.append(values["cap_ratio"])
    assert len(ratios) >= 0.8 * len(bodies)
    assert all(0.28 <= ratio <= 0.40 for ratio in ratios)
    assert sorted(ratios)[len(ratios) // 2] == pytest.approx(1 / 3, abs=0.05)


@pytest.mark.parametrize(("wide", "high"), [(0.70, 0.365), (0.77, 0.33), (0.80, 0.317)])
def test_height_against_width_as_the_handbook_has_it(wide, high, middling):
    """Cap height over armhole against sleeve width over armhole at a cap ease of 2.5: the trade's table, tuned."""
    armhole = drafted(BODICE, middling).values["armhole_length"]
    bicep = wide * armhole - 5
    values = drafted(
        BODICE, {**middling, "bicep_girth": bicep, "elbow_girth": bicep - 4}, overrides={"bicep_ease": 5}
    ).values
    assert values["sleeve_width"] / values["armhole_length"] == pytest.approx(wide, abs=0.02)
    assert values["cap_ratio"] == pytest.approx(high, abs=0.015)


def test_the_cap_lies_near_a_published_formula():
    """Against the Bunka sleeve, from memory: cap height a quarter of the armhole and 2.5. That sleeve is cut wider at the
    upper arm; this block's cap is up to 2 higher, by proportion, from bust 80 to 104."""
    for bust in range(80, 105, 4):
        body = {"bust_girth": float(bust), "waist_girth": bust - 18.0, "height": 166.0}
        values = drafted(BODICE, body, school="proportional").values
        assert 0 <= values["cap_height"] - (values["armhole_length"] / 4 + 2.5) <= 2


def test_a_centimetre_of_bicep_lowers_the_cap_by_half_of_one(middling):
    """The trade's sensitivity: 1 cm of upper arm is about −0.5 of cap height (common practice, no single source)."""
    low, high = (drafted(BODICE, {**middling, "bicep_girth": 29.0 + more}).values["cap_height"] for more in (1, 0))
    assert low - high == pytest.approx(-0.5, abs=0.2)


def test_the_arm_has_the_room_that_common_practice_gives_it():
    """Upper arm 4 to 6 cm of ease in a fitted woven (common practice, no single source), more only where it is told."""
    for body in measured_women()[::20]:
        found = drafted(BODICE, body)
        room = found.values["sleeve_width"] - found.values["bicep_girth"]
        told = any(notice.code == "bicep-ease-changed" for notice in found.notices)
        assert room >= 3 and (told or room >= 4)
        assert found.pattern.intent.ease["bicep"] == pytest.approx(room)


def test_an_arm_too_large_for_its_armhole_lowers_the_armhole_then_is_refused_in_words(middling):
    plain = drafted(BODICE, middling).values
    large = drafted(BODICE, {**middling, "bicep_girth": 36.5})
    assert large.values["underarm_drop"] > plain["underarm_drop"]
    assert "sleeve cap suits" in large.sums.reasons["underarm_drop"]
    alone = drafted(["bodice"], {**middling, "bicep_girth": 36.5})
    assert alone.values["underarm_drop"] == plain["underarm_drop"], "the bodice alone needs no deeper armhole for it"
    with pytest.raises(DraftRefused, match="cap cannot reach it") as refused:
        drafted(BODICE, {**middling, "bicep_girth": 50.0, "elbow_girth": 36.0})
    assert "gusset" in refused.value.fix and refused.value.where[0] == "bicep_girth"
    with pytest.raises(DraftRefused, match="too little is left below"):
        drafted(BODICE, {**middling, "arm_length": 16.0, "shoulder_to_elbow": 8.0})


def test_a_drop_set_by_hand_is_left_alone(middling):
    with pytest.raises(DraftRefused, match="too large"):
        drafted(BODICE, {**middling, "bicep_girth": 37.0}, overrides={"underarm_drop": 1.0, "bicep_ease": 5.0})


def test_a_loose_sleeve_has_a_lower_cap_on_a_deeper_armhole(middling):
    """Loose variant of common practice: armhole deepened by a third of the added bust ease a half, shoulder out by a
    fifth, the cap lower."""
    fitted, loose = (drafted(BODICE, middling, fit=fit) for fit in ("fitted", "loose"))
    added = loose.values["bust_ease"] - fitted.values["bust_ease"]
    assert loose.values["armhole_deepening"] == pytest.approx(added / 2 / 3)
    assert loose.values["shoulder_extension"] == pytest.approx(added / 2 / 5)
    assert loose.values["cap_ratio"] < fitted.values["cap_ratio"]
    assert loose.values["sleeve_length"] == pytest.approx(fitted.values["sleeve_length"] - added / 2 / 5)


def test_a_knit_sleeve_is_set_in_flat_with_a_low_cap():
    """Cap ease 0, height 0.24 to 0.32 of the armhole, front and back nearly alike (common practice, no single source)."""
    for body in with_hips(40):
        values = drafted(["knit_sleeve"], body, fit="close", cloth=Cloth("knit", 50)).values
        assert values["cap_ease"] == 0
        assert 0.24 - 1e-6 <= values["cap_ratio"] <= 0.32 + 1e-6
        assert abs(values["front_sleeve_width"] / values["sleeve_width"] - 0.5) < 0.06
