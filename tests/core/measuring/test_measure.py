import pytest
from izett.measuring.body import body_of, read_body

from izett.drafting.method import measures_used
from izett.drafting.methods.bodice import METHOD
from izett.errors import UnknownName, UnreadableFile, UnreadableMeasure
from izett.measuring.cross_checks import CROSS_CHECKS, contradictions
from izett.measuring.measure import Concern, measures, read_measure, remark_on
from izett.units import Unit
from tests.bodies import measured_women, tape_measured


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
    assert told.value.mend
    assert told.value.where == ("waist_girth",)


def test_a_misspelt_measure_is_answered_with_the_nearest():
    with pytest.raises(UnknownName, match="bust_girth"):
        body_of({"bust_grith": 92})


def test_the_catalogue_is_whole():
    assert len(measures()) > 50
    for measure in measures().values():
        assert measure.low < measure.high
        assert measure.how.endswith(".")
        assert measure.tolerance > 0
    assert set(measures_used(METHOD)) <= set(measures())
    assert {"bust_girth", "waist_girth", "side_length", "front_shoulder_slope_length"} <= set(measures_used(METHOD))


@pytest.mark.parametrize(
    ("body", "key", "first"),
    [
        ({"bust_girth": 92, "high_bust_girth": 97}, "bust_over_high_bust", "high_bust_girth"),
        ({"bust_girth": 92, "front_bust_arc": 62}, "front_arc_share", "front_bust_arc"),
        ({"bust_girth": 92, "underbust_girth": 95}, "underbust_under_bust", "underbust_girth"),
        ({"front_length": 34, "front_waist_length": 40}, "front_lengths", "front_length"),
        ({"back_length": 48, "back_waist_length": 40}, "back_lengths", "back_length"),
        ({"front_length": 60, "back_length": 42}, "length_difference", "front_length"),
        ({"armhole_depth": 25, "side_length": 22, "back_waist_length": 41}, "underarm_level", "armhole_depth"),
        ({"shoulder_length": 9, "across_shoulder": 44, "neck_girth": 37}, "shoulders_across", "shoulder_length"),
        ({"neck_to_apex": 44, "front_length": 44}, "apex_within_front", "neck_to_apex"),
        ({"apex_span": 40, "front_bust_arc": 46}, "apex_span_in_front", "apex_span"),
        ({"shoulder_to_apex": 45, "shoulder_to_waist": 42}, "apex_above_waist", "shoulder_to_apex"),
        ({"neck_to_apex": 22, "shoulder_to_apex": 26}, "apex_lengths", "neck_to_apex"),
        ({"across_back": 48, "across_shoulder": 38}, "across_back_in_shoulders", "across_back"),
        (
            {"front_shoulder_slope_length": 62, "front_length": 43, "shoulder_length": 12},
            "front_diagonal_reach",
            "front_shoulder_slope_length",
        ),
    ],
)
def test_contradictory_measures_are_told_with_which_to_retake_first(body, key, first):
    found = {c.key: c for c in contradictions({k: float(v) for k, v in body.items()})}
    assert found[key].symbols[0] == first
    assert found[key].amount > 0


def test_every_cross_check_is_tried_above():
    assert len(CROSS_CHECKS) == 14


def test_measured_women_contradict_nothing():
    """Over openintro bdims: real girths raise no false alarm."""
    assert [body for body in measured_women() if list(contradictions(body))] == []


def test_bodies_measured_with_a_tape_rarely_contradict():
    alarms = sum(bool(list(contradictions(body))) for body in tape_measured())
    assert alarms <= 0.03 * len(tape_measured())


def test_a_measures_file_is_read_in_its_unit_or_the_readings_own():
    text = '{"format": "izett-measures", "version": 1, "unit": "in", "readings": {"bust_girth": 36.5, "waist_girth": "74cm"}}'
    assert dict(read_body(text).taken) == {"bust_girth": pytest.approx(92.71), "waist_girth": 74}


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("{", "not valid JSON"),
        ("[]", "not a measures file"),
        ('{"format": "other"}', "not a measures file"),
        ('{"format": "izett-measures", "version": 2}', "version 2"),
        ('{"format": "izett-measures", "version": 1}', "does not state its unit"),
        ('{"format": "izett-measures", "version": 1, "unit": "cm"}', "no “readings”"),
        ('{"format": "izett-measures", "version": 1, "unit": "cm", "readings": {"bust_girth": true}}', "not a length"),
        ('{"format": "izett-measures", "version": 1, "unit": "cm", "readings": {"bust_girth": null}}', "not a length"),
    ],
)
def test_a_damaged_or_foreign_measures_file_is_told(text, says):
    with pytest.raises(UnreadableFile, match=says):
        read_body(text)
