import pytest

from izett.drafting.method import measures_used
from izett.drafting.methods.bodice import METHOD
from izett.errors import UnknownName, UnreadableMeasure
from izett.measuring.measure import Concern, measures, read_measure, remark_on, stations, symbol_of
from izett.measuring.sheet import sheet_of
from izett.units import Unit


def test_a_waist_of_29_in_a_cm_field_is_asked_about():
    remark = remark_on("waist_girth", read_measure("waist_girth", "29", unit=Unit.CM))
    assert remark is not None
    assert remark.concern is Concern.OTHER_UNIT
    assert "inches?" in remark.message
    assert read_measure("waist_girth", remark.suggestion, unit=Unit.CM).cm == pytest.approx(73.66)


def test_a_waist_of_74_in_an_inch_field_is_asked_about():
    remark = remark_on("waist_girth", read_measure("waist_girth", "74", unit=Unit.INCH))
    assert remark is not None
    assert remark.suggestion == "74 cm"


def test_an_unusual_measure_is_remarked_on_and_kept():
    reading = read_measure("height", "128", unit=Unit.CM)
    remark = remark_on("height", reading)
    assert remark is not None
    assert remark.concern is Concern.IMPLAUSIBLE
    assert reading.cm == 128


def test_a_plausible_measure_is_left_alone():
    assert remark_on("bust_girth", read_measure("bust_girth", "36 1/4", unit=Unit.INCH)) is None


@pytest.mark.parametrize("text", ["0", "-5", "301", "1000000", "99999999999", "nan", "abc", "9e9"])
def test_what_cannot_be_a_length_on_a_body_is_refused_with_what_to_do(text):
    with pytest.raises(UnreadableMeasure) as told:
        read_measure("waist_girth", text, unit=Unit.CM)
    assert "Waist girth" in told.value.message
    assert told.value.fix
    assert told.value.where == ("waist_girth",)


def test_a_misspelt_measure_is_answered_with_the_nearest():
    with pytest.raises(UnknownName, match="bust_girth"):
        sheet_of({"bust_grith": 92})


def test_the_catalogue_is_whole():
    assert len(measures()) > 50
    for measure in measures().values():
        assert measure.low < measure.high
        assert measure.how.endswith(".")
        assert measure.drives.endswith(".")
        assert measure.tolerance > 0
        assert measure.alone == "" or measure.alone.endswith((".", "!"))
    assert set(measures_used(METHOD)) <= set(measures())
    assert {"bust_girth", "waist_girth", "side_length", "front_shoulder_slope_length"} <= set(measures_used(METHOD))


def test_the_order_of_taking_goes_from_station_to_station_and_girths_from_above():
    order = list(measures())
    places = [s.key for s in stations()]
    assert [places.index(measures()[symbol].station) for symbol in order] == sorted(
        places.index(measures()[symbol].station) for symbol in order
    )
    girths = [
        "high_bust_girth",
        "bust_girth",
        "underbust_girth",
        "waist_girth",
        "stomach_girth",
        "hip_girth",
        "thigh_girth",
    ]
    assert [symbol for symbol in order if symbol in girths] == girths


@pytest.mark.parametrize(("text", "cm"), [("B", 15), ("aa", 11), ("DD", 19), ("f", 23), ("15", 15)])
def test_a_cup_letter_stands_for_the_bust_over_the_underbust(text, cm):
    """EN 13402-3's cups in steps of 2 cm, from memory."""
    assert read_measure("cup", text, unit=Unit.CM).cm == cm


def test_a_cup_that_is_no_letter_is_told_what_to_type():
    with pytest.raises(UnreadableMeasure, match="letter on the bra"):
        read_measure("cup", "?!", unit=Unit.CM)


def test_sides_are_known_only_where_a_body_has_two():
    assert symbol_of("arm_length.left") == "arm_length"
    for key in ("bust_girth.left", "arm_length.up"):
        with pytest.raises(UnknownName):
            symbol_of(key)
