"""Rule sheets: schools as layers, what depends on what, sheets joined, lent and shared."""

from dataclasses import replace

import pytest

from izett.catalogue import catalogue
from izett.errors import UnknownName
from izett.measuring.measure import measures
from izett.rules.sheet import MEASURES, borrow, combined, load_sheet, sharing

SHEET = """
title = "A small skirt"
[[allowance]]
symbol = "ease"
label = "Ease"
default = 4
low = 2
high = 8
unit = "cm"
reason = "to sit"
draws = ["skirt.side"]
[school.split]
label = "Front hip"
[school.split.quarter]
title = "a quarter"
[school.split.wider]
title = "wider than a quarter"
needs = ["belly"]
lays_aside = ["seat"]
[[school.split.wider.line]]
symbol = "front"
label = "Front hip"
group = "1"
unit = "cm"
formula = "(hip + ease) / 4 + more"
draws = ["skirt.side"]
[[school.split.wider.line]]
symbol = "more"
label = "How much wider"
group = "1"
unit = "cm"
formula = "belly / 50"
[[line]]
symbol = "hip"
label = "Hip"
group = "Measures"
unit = "cm"
formula = "waist + 24"
[[line]]
symbol = "front"
label = "Front hip"
group = "1"
unit = "cm"
formula = "(hip + ease) / 4"
draws = ["skirt.side"]
[[line]]
symbol = "hem"
label = "Hem"
group = "1"
unit = "cm"
low = 1
high = 99
condition = "it hangs level"
uses = ["front"]
draws = ["skirt.hem"]
[[line]]
symbol = "curve"
label = "Curve"
group = "1"
unit = "cm"
formula = "1"
reads = ["depth"]
draws = ["skirt.waist"]
"""


@pytest.fixture
def sheet(tmp_path):
    path = tmp_path / "skirt.toml"
    path.write_text(SHEET)
    return load_sheet(path)


def test_a_way_puts_its_rules_in_place_and_adds_its_own(sheet):
    assert sheet.rules["front"].ways[0].formula.text == "(hip + ease) / 4"
    wider = sheet.layered({"split": "wider"})
    assert wider.rules["front"].ways[0].formula.text == "(hip + ease) / 4 + more"
    assert wider.order == (*sheet.order, "more")
    assert sheet.layered({"split": "quarter"}).rules == sheet.rules
    assert sheet.school("split").usual == "quarter"
    way = sheet.school("split").way("wider")
    assert (way.needs, way.admits("seat"), way.admits("hip")) == (("belly",), False, True)


def test_what_is_not_there_is_said_with_what_there_is(sheet):
    with pytest.raises(UnknownName, match="no way “narrow”") as refused:
        sheet.layered({"split": "narrow"})
    assert "quarter or wider" in refused.value.fix
    with pytest.raises(UnknownName, match="no school “shoulder”"):
        sheet.school("shoulder")
    assert sheet.entry("more") is not None, "a rule of a way that is not in force"
    assert not sheet.has("more")
    assert sheet.has("ease") and sheet.has("hem") and not sheet.has("seat")
    assert sheet.entry("seat") is None


def test_lines_depend_on_a_symbol_through_rules_searches_and_what_a_drawing_reads(sheet):
    assert sheet.lines_of("waist") == {"skirt.side", "skirt.hem"}
    assert sheet.lines_of("ease") == {"skirt.side", "skirt.hem"}
    assert sheet.lines_of("depth") == {"skirt.waist"}
    assert sheet.lines_of("belly") == frozenset()
    assert sheet.layered({"split": "wider"}).lines_of("belly") == {"skirt.side", "skirt.hem"}


def test_sheets_are_joined_measures_first_and_agree_on_what_they_share(sheet):
    other = replace(sheet, title="Another", order=sheet.order)
    both = combined([sheet, other])
    assert both.title == "A small skirt + Another"
    assert both.order[0] == "hip" and set(both.order) == set(sheet.order)
    assert combined([sheet]) is sheet
    disagreeing = replace(sheet, rules={**sheet.rules, "hip": sheet.rules["front"]})
    with pytest.raises(ValueError, match="hip means two things"):
        combined([sheet, disagreeing])


def test_what_a_way_reads_is_lent_too(sheet, tmp_path):
    path = tmp_path / "lender.toml"
    line = '[[line]]\nsymbol = "{0}"\nlabel = "{0}"\ngroup = "Measures"\nunit = "cm"\nformula = "{1}"\n'
    path.write_text(line.format("waist", "70") + line.format("belly", "waist + 5") + line.format("moon", "1"))
    lender = load_sheet(path)
    lent = borrow(sheet, lender)
    assert {"waist", "belly"} <= lent.rules.keys() and "moon" not in lent.rules
    assert lent.order[:2] == ("waist", "belly")
    assert "moon" in borrow(sheet, lender, also=("moon",)).rules
    assert "waist" not in borrow(sheet, lender, never=("waist",)).rules
    shared = sharing(lender, sheet, ("ease", "front", "hem"))
    assert (set(shared.allowances), set(shared.found)) == ({"ease"}, {"hem"})
    assert shared.order == ("front", "hem", "waist", "belly", "moon")
    with pytest.raises(ValueError, match="cannot lend stars"):
        sharing(lender, sheet, ("stars",))


def test_blocks_that_can_be_drafted_together_agree_on_every_symbol():
    methods = catalogue().methods
    for below in ("skirt", "trousers"):
        for upper in (["bodice"], ["bodice", "sleeve"]):
            both = combined([methods[key].sheet for key in (*upper, below)])
            groups = [(both.rules.get(symbol) or both.found[symbol]).group for symbol in both.order]
            last = max(i for i, group in enumerate(groups) if group == MEASURES)
            assert all(group == MEASURES for group in groups[: last + 1])
    for pair in (("torso", "sleeve"), ("knit_top", "knit_sleeve")):
        combined([methods[key].sheet for key in pair])


def test_every_allowance_has_a_reason_a_range_and_a_source():
    for method in catalogue().methods.values():
        for allowance in method.sheet.allowances.values():
            assert allowance.low <= allowance.default <= allowance.high, allowance.symbol
            assert allowance.label and allowance.reason.endswith(".") and allowance.source
            if allowance.handle:
                line, share, moves = allowance.handle
                assert 0 < share < 1 and moves and line in allowance.draws
        for found in method.sheet.found.values():
            assert found.low < found.high and found.condition
        for rule in method.sheet.all_rules:
            assert rule.label and rule.group and rule.ways


def test_every_symbol_that_a_sheet_names_exists():
    """In formulas, searches and what a drawing reads: a slip of the pen would be a dependency lost."""
    methods = catalogue().methods.values()
    sheets = [
        layer
        for method in methods
        for layer in (
            method.sheet,
            *(method.sheet.layered({s.key: way}) for s in method.sheet.schools.values() for way in s.ways),
        )
    ]
    known = set(measures()).union(*({*one.allowances, *one.rules, *one.found} for one in sheets))
    for one in sheets:
        read = {s for rule in one.rules.values() for way in rule.ways for s in (*way.formula.uses, *way.needs)}
        read |= {s for rule in one.rules.values() for s in rule.reads}
        read |= {s for found in one.found.values() for s in found.uses}
        assert read <= known, (one.title, read - known)
