"""The printed test square: what a scaling printer is told to do."""

import pytest

from izett.errors import ValueOutOfRange
from izett.files.test_square import printed
from izett.units import Unit


@pytest.mark.parametrize("side", [10.0, 9.98, 10.02])
def test_what_a_ruler_cannot_tell_is_true(side):
    assert printed(side).true


@pytest.mark.parametrize(("side", "share"), [(9.7, "97.0%"), (9.4, "94.0%"), (10.3, "103.0%")])
def test_a_scaled_print_is_not_cut_by_and_says_what_to_do(side, share):
    found = printed(side)
    assert not found.true and share in found.words
    assert "Do not cut" in found.words and "fit to page" in found.words
    # Printed again at what it says, it comes out true.
    assert f"{10 / side:.1%}" in found.words and printed(side * 10 / side).true


def test_readers_of_inches_measure_the_square_of_four_inches():
    assert printed(10.16, Unit.INCH).true and not printed(10.0, Unit.INCH).true


@pytest.mark.parametrize("side", [0.0, 2.0, 29.7])
def test_something_else_was_measured(side):
    with pytest.raises(ValueOutOfRange) as told:
        printed(side)
    assert told.value.fix
