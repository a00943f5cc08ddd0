"""Cloths: what they are, how they are sold, and what no cloth is."""

import json

import pytest
from pydantic import ValidationError

from izett.cutting.cloth import Cloth, Fold, cut_for, sold
from izett.cutting.lay.bed import bed_of
from izett.errors import UnreadableFile, UnstatedUnit, ValueOutOfRange
from izett.files.cloth_json import read_cloth, write_cloth
from izett.units import Unit

#: cm. An inch.
INCH = 2.54


def file(**data):
    return json.dumps({"format": "izett-cloth", "version": 1, "unit": "cm", **data})


def test_a_cloth_comes_back_from_its_file_as_it_was():
    cloth = Cloth(name="Crêpe", width=150, nap=True, repeat=(4, 6), match="waist", shrinkage=(0.05, 0.02), length=240)
    assert read_cloth(write_cloth(cloth)) == cloth


def test_a_file_in_inches_is_read_in_inches():
    cloth = read_cloth(file(unit="in", width=55, selvedge=0.5, repeat=[2, 3], length=72, gap=0.125))
    assert cloth.width == pytest.approx(55 * INCH)
    assert cloth.selvedge == pytest.approx(0.5 * INCH)
    assert cloth.repeat == pytest.approx((2 * INCH, 3 * INCH))
    assert (cloth.length, cloth.gap) == pytest.approx((72 * INCH, 0.125 * INCH))


def test_a_file_that_does_not_say_its_unit_is_asked_about():
    text = file(width=55).replace('"unit": "cm", ', "")
    with pytest.raises(UnstatedUnit, match="what its lengths are in"):
        read_cloth(text)
    assert read_cloth(text, unit=Unit.INCH).width == pytest.approx(55 * INCH)


@pytest.mark.parametrize(
    ("data", "words"),
    [
        ({"width": 0}, "The cloth is 0 cm wide"),
        ({"width": -140}, "is -140 cm wide|−140 cm wide"),
        ({"width": 140, "selvedge": 70}, "leave nothing"),
        ({"width": 140, "repeat": [150, 0]}, "A repeat of 150 cm across the cloth is more than"),
        ({"width": 140, "repeat": [0, 600]}, "A repeat of 600 cm along"),
        ({"width": 140, "repeat": [0.1, 0]}, "too small to match"),
        ({"width": 140, "shrinkage": [0.6, 0]}, "Shrinkage of 60% along the warp"),
        ({"width": 140, "shrinkage": [0, -0.1]}, "Shrinkage of -10% along the weft"),
    ],
)
def test_what_no_cloth_is_is_told_with_what_to_do(data, words):
    with pytest.raises(ValueOutOfRange, match=words) as told:
        read_cloth(file(**data))
    assert told.value.fix and told.value.where


@pytest.mark.parametrize(
    "text",
    ["", "[]", "{", file(width="wide"), file(width=140, colour="red"), file(width=1e999), '{"format": "izett-lay"}'],
)
def test_what_is_no_cloth_file_is_told(text):
    with pytest.raises(UnreadableFile):
        read_cloth(text)


def test_a_cloth_is_never_changed():
    with pytest.raises(ValidationError):
        Cloth(width=140).width = 150


def test_shops_sell_by_ten_centimetres_and_by_an_eighth_of_a_yard():
    """Common practice, no single source: 212 cm are 2.20 m, or 2 3/8 yd (2.32 yd rounded up)."""
    assert [sold(length, unit=Unit.CM) for length in (212, 220, 220.0000001, 0.5)] == [220, 220, 220, 10]
    assert sold(212, unit=Unit.INCH) / 91.44 == pytest.approx(2.375)


def test_what_shrinks_is_cut_longer_and_bought_longer():
    """Handbook, cutting: cut = finished ÷ (1 − shrinkage)."""
    assert cut_for(95, 0.05) == pytest.approx(100)
    cloth = Cloth(width=150, shrinkage=(0.05, 0.04))
    assert cloth.to_buy(95) == pytest.approx(100)
    assert cloth.left_of_width == pytest.approx(144)
    assert cloth.usable == pytest.approx(142)
    unwashed = cloth.model_copy(update={"washed": False})
    assert (unwashed.to_buy(95), unwashed.left_of_width) == (95, 150)


@pytest.mark.parametrize(
    ("fold", "width", "layers", "usable", "folds"),
    [
        (Fold.OPEN, 140, 1, 138, 0),
        (Fold.LENGTHWISE, 70, 2, 69, 1),
        (Fold.BOTH_TO_MIDDLE, 70, 2, 68, 2),
        (Fold.CROSSWISE, 140, 2, 138, 0),
        (Fold.FOUR_LAYERS, 70, 4, 69, 1),
    ],
)
def test_how_a_cloth_lies(fold, width, layers, usable, folds):
    bed = bed_of(Cloth(width=140, fold=fold))
    assert (bed.width, bed.layers) == (width, layers)
    assert sum(strip.width for strip in bed.strips) == usable
    assert len([strip for strip in bed.strips if strip.fold is not None]) == folds
