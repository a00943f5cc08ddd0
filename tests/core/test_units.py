import json
from fractions import Fraction
from pathlib import Path

import pint
import pytest
from hypothesis import given
from hypothesis import strategies as st

from izett.units import Unit, UnreadableLength, UnreadableNumber, read_length, read_number, show_length

FIXTURE = Path(__file__).parent.parent / "lengths.json"


@pytest.mark.parametrize(
    ("text", "unit", "cm"),
    [
        ("37 1/2", Unit.INCH, 95.25),
        ("37-1/2", Unit.INCH, 95.25),
        ("37½", Unit.INCH, 95.25),
        ("37.5", Unit.INCH, 95.25),
        ("37,5", Unit.INCH, 95.25),
        ("½", Unit.INCH, 1.27),
        ("3/8", Unit.INCH, 0.9525),
        ("95.2cm", Unit.INCH, 95.2),
        ("952 mm", Unit.INCH, 95.2),
        ('14"', Unit.CM, 35.56),
        ("14''", Unit.CM, 35.56),
        ("14 in", Unit.CM, 35.56),
        ("14 inches", Unit.CM, 35.56),
        ("7 5⁄16 in.", Unit.CM, 18.57375),
        ("92", Unit.CM, 92.0),
        ("92.", Unit.CM, 92.0),
        (".5", Unit.CM, 0.5),
        ("  92  ", Unit.CM, 92.0),
        ("-1.2", Unit.CM, -1.2),
        ("−1 1/4", Unit.INCH, -3.175),
        ("92 CM", Unit.INCH, 92.0),
    ],
)
def test_a_length_is_read_in_every_form_that_people_type(text, unit, cm):
    assert read_length(text, unit=unit).cm == cm


@pytest.mark.parametrize(
    "text",
    ["", " ", "abc", "12 34", "1/0", "3 1/", "12kg", "1e5", "nan", "inf", "--2", "5 ft", "½½", "1" * 40, "9 1/2/3"],
)
def test_what_is_not_a_length_is_told_with_what_can_be_typed(text):
    with pytest.raises(UnreadableLength) as told:
        read_length(text, unit=Unit.CM)
    assert str(told.value)


def test_the_unit_stated_in_the_text_wins_over_the_fields():
    assert read_length("14in", unit=Unit.CM).unit is Unit.INCH
    assert read_length("14", unit=Unit.CM).unit is Unit.CM


@given(st.integers(0, 300 * 16))
def test_every_sixteenth_of_an_inch_comes_back_exact(sixteenths):
    whole, rest = divmod(sixteenths, 16)
    reading = read_length(f"{whole} {rest}/16", unit=Unit.INCH)
    assert Fraction(reading.cm) == Fraction(float(Fraction(sixteenths, 16) * Fraction(254, 100)))
    again = read_length(show_length(reading.cm, unit=Unit.INCH), unit=Unit.INCH)
    assert again.cm == reading.cm


@given(st.integers(0, 3000))
def test_every_millimetre_comes_back_exact(mm):
    cm = read_length(str(mm / 10), unit=Unit.CM).cm
    assert read_length(show_length(cm, unit=Unit.CM), unit=Unit.CM).cm == cm


@given(st.floats(-250, 250, allow_nan=False))
def test_what_is_shown_is_within_half_the_last_place(cm):
    shown = read_length(show_length(cm, unit=Unit.CM), unit=Unit.CM).cm
    assert abs(shown - cm) <= 0.05 + 1e-9
    in_inches = read_length(show_length(cm, unit=Unit.INCH), unit=Unit.CM).cm
    assert abs(in_inches - cm) <= 2.54 / 32 + 1e-9


UNITS = pint.UnitRegistry()


@given(st.floats(0.01, 300, allow_nan=False))
def test_conversion_agrees_with_a_units_library(cm):
    """Against pint, whose inch is the international inch of 1959 (2.54 cm exactly)."""
    units = UNITS
    inches = (cm * units.centimeter).to(units.inch).magnitude
    assert read_length(f"{inches:.12f}", unit=Unit.INCH).cm == pytest.approx(cm, abs=1e-10)


def cases():
    values = [
        0,
        0.04,
        0.05,
        0.1,
        0.25,
        1,
        2.54,
        3.175,
        6.35,
        18.57375,
        35.56,
        92,
        95.25,
        99.95,
        101.6,
        120.015,
        -0.4,
        -3.175,
    ]
    return [
        {"cm": cm, "unit": unit.value, "shown": show_length(cm, unit=unit)}
        for cm in values
        for unit in (Unit.CM, Unit.INCH)
    ]


def test_the_screens_cases_are_the_cores():
    """The front end shows lengths itself; its test reads these cases (python -m tests.core.test_units writes them)."""
    assert json.loads(FIXTURE.read_text(encoding="utf-8")) == cases()


if __name__ == "__main__":
    FIXTURE.write_text(json.dumps(cases(), indent=1, ensure_ascii=False) + "\n", encoding="utf-8")


def test_a_ratio_is_typed_as_a_sample_was_measured():
    """What a sample measured before over what it measures after: 10 cm pleated to 3.4 is a fullness of 2.9."""
    assert read_number("10/3.4") == pytest.approx(2.941, abs=1e-3)
    assert read_number("10 / 4") == 2.5
    with pytest.raises(UnreadableNumber):
        read_number("10/0")
