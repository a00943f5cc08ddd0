from pathlib import Path

import pytest

from izett.errors import UnknownName, ValueOutOfRange
from izett.rules.sheet import borrow, load_sheet
from izett.rules.worksheet import State, Worksheet
from izett.wording import plain

SHEET = """
title = "A small sheet"
[school.measures]
label = "drafted from"
[school.measures.all]
title = "all"
[school.measures.few]
title = "few"
uses = ["bust"]
[[allowance]]
symbol = "ease"
label = "Ease"
default = 4
low = 2
high = 8
unit = "cm"
reason = "to breathe"
[[line]]
symbol = "quarter"
label = "Quarter"
group = "1"
unit = "cm"
formula = "(bust + ease) / 4"
[[line]]
symbol = "depth"
label = "Depth"
group = "1"
unit = "cm"
low = 0
high = 9
condition = "the curve fits"
[[line]]
symbol = "twice"
label = "Twice"
group = "1"
unit = "cm"
ways = [{ needs = ["waist"], formula = "waist / 2" }, { formula = "2 * depth + quarter" }]
"""


@pytest.fixture
def sheet(tmp_path: Path):
    path = tmp_path / "small.toml"
    path.write_text(SHEET, encoding="utf-8")
    return load_sheet(path)


def worksheet(sheet, taken=None, overrides=None):
    return Worksheet(
        sheet, taken=taken or {"bust": 92.0}, overrides=overrides or {}, measure_symbols=frozenset({"bust"})
    )


def test_values_are_pulled_through_the_rules(sheet):
    assert worksheet(sheet)["quarter"] == 24


def test_setting_a_found_value_renews_all_that_follow_from_it(sheet):
    sums = worksheet(sheet)
    sums.settle("depth", 1.0)
    assert sums["twice"] == 26
    sums.settle("depth", 3.0, residual=0.01)
    assert sums["twice"] == 30
    assert sheet.dependants["ease"] == ("quarter", "twice") or set(sheet.dependants["ease"]) == {"quarter", "twice"}


def test_the_first_way_whose_needs_were_taken_counts(sheet):
    assert worksheet(sheet, {"bust": 92.0, "waist": 74.0})["twice"] == 37


def test_an_overridden_found_value_stays_and_reports_what_it_misses(sheet):
    sums = worksheet(sheet, overrides={"depth": 5.0})
    sums.settle("depth", 1.0, residual=0.4)
    assert sums["depth"] == 5
    line = next(line for line in sums.lines() if line.symbol == "depth")
    assert (line.state, line.residual) == (State.OVERRIDDEN, 0.4)


def test_each_value_tells_where_it_comes_from(sheet):
    sums = worksheet(sheet, overrides={"quarter": 25.0})
    sums.settle("depth", 1.0)
    sums.choose("ease", 6.0, reason="the arm needs it")
    states = {symbol: sums.state(symbol) for symbol in ("bust", "depth", "quarter", "ease", "twice")}
    assert states == {
        "bust": State.TAKEN,
        "depth": State.FOUND,
        "quarter": State.OVERRIDDEN,
        "ease": State.CHOSEN,
        "twice": State.COMPUTED,
    }
    assert worksheet(sheet).allowance_state("ease") is State.USUAL
    assert sums["twice"] == 27


def test_lines_can_be_checked_by_substitution(sheet):
    sums = worksheet(sheet)
    sums.settle("depth", 1.5)
    lines = {line.symbol: line for line in sums.lines()}
    assert plain(lines["quarter"].worked) == "(92 + 4) ÷ 4"
    assert plain(lines["twice"].worked) == "2 × 1.5 + 24"
    assert lines["depth"].condition == "the curve fits"


def test_an_allowance_has_a_range_and_says_so(sheet):
    with pytest.raises(ValueOutOfRange, match="outside 2 to 8 cm"):
        sheet.allowance("ease").checked(9)
    with pytest.raises(UnknownName, match="ease"):
        sheet.allowance("eas")


def test_every_allowance_of_every_block_has_a_reason_and_a_default_within_its_range():
    from izett.catalogue import catalogue

    for method in catalogue().methods.values():
        for allowance in method.sheet.allowances.values():
            assert allowance.reason, allowance.symbol
            assert allowance.low <= allowance.default <= allowance.high, allowance.symbol
        for rule in method.sheet.rules.values():
            for way in rule.ways:
                assert way.formula.uses or way.formula.text.replace(".", "").isdigit(), rule.symbol


SHEET_WITH_SPREAD = """
[[line]]
symbol = "frame"
label = "Frame"
group = "Measures"
unit = "cm"
ways = [{ needs = ["chest"], formula = "chest + 5", spread = 1 }, { formula = "90", spread = 6 }]

[[line]]
symbol = "neck"
label = "Neck"
group = "Measures"
unit = "cm"
formula = "0.2 * frame + 19"
spread = 1.5

[[line]]
symbol = "collar"
label = "Collar"
group = "Measures"
unit = "cm"
formula = "neck + 1"
"""
MEASURES = frozenset({"chest", "frame", "neck", "collar", "hip"})


@pytest.fixture
def lent(tmp_path):
    path = tmp_path / "lent.toml"
    path.write_text(SHEET_WITH_SPREAD, encoding="utf-8")
    return load_sheet(path)


def spread_of(sheet, symbol, **taken):
    return Worksheet(sheet, taken=taken, overrides={}, measure_symbols=MEASURES).spread(symbol)


def test_an_estimate_passes_on_the_uncertainty_of_what_it_reads_as_steeply_as_it_reads_it(lent):
    assert spread_of(lent, "neck", frame=92.0) == pytest.approx(1.5)
    assert spread_of(lent, "neck", chest=87.0) == pytest.approx((1.5**2 + 0.2**2 * 1) ** 0.5)
    assert spread_of(lent, "neck") == pytest.approx((1.5**2 + (0.2 * 6) ** 2) ** 0.5)
    assert spread_of(lent, "collar") == pytest.approx(spread_of(lent, "neck"))


def test_what_was_taken_or_set_is_not_uncertain(lent):
    assert spread_of(lent, "neck", neck=38.0) == 0
    set_for_job = Worksheet(lent, taken={}, overrides={"neck": 38.0}, measure_symbols=MEASURES)
    assert set_for_job.spread("collar") == 0


def test_the_worksheet_shows_the_spread_of_estimates_only(lent):
    sums = Worksheet(lent, taken={"chest": 87.0, "neck": 38.0}, overrides={}, measure_symbols=MEASURES)
    by_symbol = {line.symbol: line for line in sums.lines()}
    assert by_symbol["frame"].spread == 1
    assert by_symbol["neck"].spread == 0
    assert by_symbol["collar"].state is State.ESTIMATED


def test_a_block_borrows_what_its_own_rules_read_at_any_remove_and_no_more(lent, tmp_path):
    path = tmp_path / "own.toml"
    path.write_text(
        '[[line]]\nsymbol = "band"\nlabel = "Band"\ngroup = "1"\nunit = "cm"\n'
        'ways = [{ needs = ["collar"], formula = "collar" }, { formula = "neck" }]\n',
        encoding="utf-8",
    )
    own = borrow(load_sheet(path), lent)
    # Where the collar was taken its rule is not needed; where it was not, the way that reads it is not taken.
    assert own.order == ("frame", "neck", "band")
    assert borrow(load_sheet(path), lent, never=("neck",)).order == ("band",)
