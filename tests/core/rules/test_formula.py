from math import asin, degrees

import pytest

from izett.rules.formula import BadFormula, Formula


def test_a_formula_tells_what_it_reads_and_what_it_gives():
    formula = Formula.parse("clamp(bust / 4 + ease, 0, 30) if bust > 60 else -ease")
    assert set(formula.uses) == {"bust", "ease"}
    assert formula.evaluate({"bust": 92, "ease": 1.5}) == 24.5
    assert formula.evaluate({"bust": 40, "ease": 1.5}) == -1.5


def test_the_functions_of_drafting_are_there():
    assert Formula.parse("degrees(asin(0.5))").evaluate({}) == pytest.approx(degrees(asin(0.5)))
    assert Formula.parse("sqrt(3 * 3 + 4 * 4)").evaluate({}) == 5
    assert Formula.parse("max(1, 2, 3) - min(1, 2)").evaluate({}) == 2


def test_the_sum_with_its_numbers_reads_as_on_paper():
    values = {"waist": 74.0, "ease": 4.0, "offset": 0.75}
    assert Formula.parse("(waist + ease) / 4 - offset").worked(values) == "(74 + 4) ÷ 4 − 0.75"
    assert Formula.parse("0.3 * waist").worked(values) == "0.3 × 74"


@pytest.mark.parametrize(
    "text",
    [
        "__import__('os')",
        "().__class__",
        "x[0]",
        "[1, 2]",
        "lambda: 1",
        "'text'",
        "open(1)",
        "max(a=1)",
        "x ** 99",
        "True",
        "1 +",
        "x.real",
        "f'{x}'",
        "(x := 1)",
        "x and y",
    ],
)
def test_nothing_but_arithmetic_parses(text):
    with pytest.raises(BadFormula):
        Formula.parse(text)


@pytest.mark.parametrize(
    ("text", "worked"),
    [
        ("clamp(a / 2, 3, b)", "8 ÷ 2 held within 3 and 5"),
        ("2.5 + clamp(0.2 * (a - 5), -1, 2.5)", "2.5 + (0.2 × (8 − 5) held within −1 and 2.5)"),
        ("clamp(clamp(a, 0, 9), 1, max(b, 2))", "(8 held within 0 and 9) held within 1 and max(5, 2)"),
    ],
)
def test_a_bound_is_written_in_words(text, worked):
    assert Formula.parse(text).worked({"a": 8.0, "b": 5.0}) == worked
