"""Ease as a layer: what the tables set, how knits turn it into a share, and what the sets promise."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from izett.catalogue import catalogue
from izett.drafting.ease import FITS, KNIT, WOVEN, Cloth, band_of, bands, eased, levels
from izett.drafting.sets import starter_sets
from izett.rules.worksheet import State
from tests.core.blocks import drafted

BODICE = catalogue().method("bodice").sheet
BODY = {"bust_girth": 92.0, "waist_girth": 74.0, "hip_girth": 98.0, "height": 168.0, "high_bust_girth": 87.0}


def test_every_level_is_read_by_a_block():
    for level in levels().values():
        assert any(level.symbol in method.sheet.allowances for method in catalogue().methods.values()), level.key
        assert level.reason.endswith(".") and level.around in (1, 2)


def test_bands_of_stretch_follow_on_each_other():
    assert [band.start for band in bands()] == [15, 30, 50, 75]
    for lower, upper in zip(bands(), bands()[1:], strict=False):
        assert lower.end == upper.start and lower.high == upper.low
    assert band_of(WOVEN) is None and band_of(Cloth("knit", 14.9)) is None
    assert band_of(KNIT) is bands()[2]


@given(st.floats(15, 150), st.sampled_from(["knit", "stretch"]))
def test_more_stretch_never_cuts_wider(stretch, kind):
    here, more = (
        eased(BODICE, "close", Cloth(kind, s)).allowances["knit_share"].default
        for s in (stretch, min(stretch + 5, 150))
    )
    assert 0 <= here <= more <= 0.15
    knit = eased(BODICE, "close", Cloth("knit", stretch)).allowances["knit_share"].default
    half = eased(BODICE, "close", Cloth("stretch", stretch)).allowances["knit_share"].default
    assert half == pytest.approx(knit / 2, abs=1e-3), "a woven with stretch recovers less"


@pytest.mark.parametrize("fit", FITS)
def test_a_woven_takes_the_tables_centimetres_and_keeps_the_whole_range(fit):
    sheet = eased(BODICE, fit, WOVEN)
    bust = sheet.allowances["bust_ease"]
    assert (bust.default, bust.usual) == (levels()["bust"].by_fit[fit][1], levels()["bust"].by_fit[fit][::2])
    assert bust.low <= 3 and bust.high >= 24, "another fit's ease may be set by hand"
    across = sheet.allowances["across_back_ease"]
    assert across.default == levels()["across_back"].by_fit[fit][1] / 2, "the table has the whole width"
    assert f"usual for a {fit} fit" in bust.reason
    assert sheet.rules.keys() == BODICE.rules.keys()


def test_a_knit_turns_girths_into_shares_and_leaves_widths():
    sheet = eased(BODICE, "easy", KNIT)
    assert "bust_ease" not in sheet.allowances
    assert sheet.rules["bust_ease"].ways[0].formula.text == "bust_ease_over_close - knit_share * bust_girth"
    assert sheet.allowances["bust_ease_over_close"].default == 10 - 4
    assert sheet.allowances["across_back_ease"].default == pytest.approx(2.5 / 2)
    assert {"front.side", "back.side"} <= sheet.lines_of("knit_share")


def test_where_the_ease_of_a_draft_comes_from_is_said():
    found = drafted(["knit_top", "knit_sleeve"], BODY, fit="close", cloth=KNIT, overrides={"across_back_ease": 0.7})
    eases = {ease.key: ease for ease in found.eases()}
    assert eases["bust"].usual is None and eases["bust"].total < 0
    assert eases["across_back"].state is State.OVERRIDDEN
    assert eases["across_back"].total == pytest.approx(1.4), "half the width, twice"
    assert eases["bicep"].state is State.CHOSEN and "cap" in eases["bicep"].reason
    plain = {ease.key: ease for ease in drafted(["bodice"], BODY).eases()}
    assert plain["bust"].state is State.USUAL and "hip" not in plain


def test_starter_sets_name_blocks_that_go_together():
    for of in starter_sets().values():
        assert of.title and of.reason.endswith(".") and of.fit in FITS
        assert [method.key for method in catalogue().in_order(of.blocks)] == list(of.blocks), (
            "in the order of drafting, whole"
        )
    assert next(iter(starter_sets())) == "bodice"


@given(st.floats(0, 0.12))
def test_the_share_of_a_knit_can_be_set_as_any_sum(share):
    values = drafted(["knit_top"], BODY, fit="close", cloth=KNIT, overrides={"knit_share": share}).values
    assert values["bust_ease"] == pytest.approx(-share * 92)
    assert values["front_width"] == pytest.approx(92 * (1 - share) / 4)
