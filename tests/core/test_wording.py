"""Sentences: lengths as quantities, things by their titles, both put in where somebody reads them."""

import pytest

from izett.wording import cm, named, plain, titled

TITLES = {"front.neck": "front neck", "front.bust_dart": "front bust dart", "s1.yoke": "yoke"}


@pytest.mark.parametrize(
    ("length", "decimals", "text"),
    [(12.04, 1, "12 cm"), (0.25, 2, "0.25 cm"), (-0.25, 2, "−0.25 cm"), (-0.01, 1, "0 cm"), (100.0, 0, "100 cm")],
)
def test_a_length_has_no_zeros_at_its_end_and_no_minus_before_nothing(length, decimals, text):
    assert plain(cm(length, decimals)) == text


def test_a_title_is_put_in_and_begins_a_sentence_with_a_capital():
    assert titled(f"Close {named('s1.yoke')} first.", TITLES) == "Close yoke first."
    assert titled(f"{named('front.neck')} is gone.", TITLES) == "Front neck is gone."


def test_what_has_no_title_is_told_without_a_steps_own_name():
    assert titled(f"Close {named('s-4f2a9.corner_2')}.", TITLES) == "Close corner 2."
    assert titled(f"Aim {named('front.waist')}.", TITLES) == "Aim front waist."


def test_a_family_of_darts_is_called_darts_once():
    assert titled(f"Aim the {named('front.bust', 'darts')}.", TITLES) == "Aim the front bust darts."
    assert titled(f"Aim the {named('front.bust_dart', 'darts')}.", TITLES) == "Aim the front bust dart."
    assert titled(f"Aim the {named('front.waist_dart_2', 'darts')}.", TITLES) == "Aim the front waist dart 2."


def test_a_plain_sentence_stays_what_it_is():
    for text in ("", "Take in less.", "“yoke” & so on ½"):
        assert plain(text) == titled(text, TITLES) == text
