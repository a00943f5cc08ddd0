"""The forms of steps: lengths to begin with, as one says them in the reader's unit."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from izett.catalogue import catalogue
from izett.styling.fields import fields_of, handy_params
from izett.units import CM_PER_INCH, Unit, handy

OPERATIONS = catalogue().operations


@given(st.floats(-200, 200).filter(lambda cm: abs(cm) > 0.01))
def test_a_length_to_begin_with_is_a_round_fraction_near_by(cm):
    begun = handy(cm, unit=Unit.INCH)
    parts = begun / float(CM_PER_INCH) * (2 if abs(cm) > 28 else 16)
    assert parts == pytest.approx(round(parts), abs=1e-9)
    assert begun * cm > 0
    assert abs(begun - cm) <= max(1.27, 0.16)
    if abs(cm) >= 5.08:
        # It may be the length of a line: never longer than that.
        assert abs(begun) <= abs(cm) + 1e-9
    assert handy(begun, unit=Unit.INCH) == pytest.approx(begun)
    assert handy(cm, unit=Unit.CM) == cm


@pytest.mark.parametrize("key", OPERATIONS)
def test_in_inches_every_form_begins_in_its_range_with_round_fractions_of_what_its_kind_asks(key):
    operation = OPERATIONS[key]
    for params in operation.examples:
        found = handy_params(operation.params, params, Unit.INCH)
        assert handy_params(operation.params, params, Unit.CM) == params
        kind = str(params.get("kind", ""))
        for field in fields_of(operation.params):
            if field.kind != "length" or (field.only and kind and kind not in field.only):
                continue
            value = found.get(field.name)
            if value is not None:
                assert field.low <= value <= field.high
                sixteenths = value / 2.54 * 16
                at_bound = value in (field.low, field.high)
                assert at_bound or sixteenths == pytest.approx(round(sixteenths), abs=1e-6), field.name
        # The step can still be worked with them.
        operation.params.model_validate(found)
