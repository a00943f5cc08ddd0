"""The sums of the cutting table, against worked examples of the handbook and against geometry."""

from itertools import pairwise
from math import hypot, pi

import pytest

from izett.catalogue import catalogue
from izett.cutting.worksheets import CLOTH, OF_CLOTH, results, summed, sums
from izett.errors import UnknownName, ValueOutOfRange
from izett.rules.formula import Formula
from izett.rules.worksheet import State
from izett.wording import plain


@pytest.mark.parametrize("key", list(sums()))
def test_every_worksheet_shows_its_sums_with_their_numbers(key):
    """Substituted by hand, the written sum gives the result; every number has a range, a label and a reason or none."""
    found = sums()[key]
    assert found.title and found.says and found.gives
    lines = summed(key, {})
    values = {a.symbol: a.default for a in found.sheet.allowances.values()}
    for line in lines:
        assert line.state is State.COMPUTED and line.worked and line.source
        values[line.symbol] = Formula.parse(line.formula).evaluate(values)
        assert line.value == pytest.approx(values[line.symbol])
    assert set(found.gives) <= {line.symbol for line in lines} | set(found.sheet.allowances)
    assert all(a.low <= a.default <= a.high for a in found.sheet.allowances.values())


@pytest.mark.parametrize("key", list(sums()))
def test_what_a_worksheet_gives_is_a_parameter_that_its_step_has_or_a_number_of_a_cloth(key):
    for use in sums()[key].uses:
        if use.kind == CLOTH:
            assert use.param in OF_CLOTH
        else:
            fields = catalogue().operations[use.kind].params.model_fields
            assert use.param in fields, (key, use)
            # There is such a kind of it.
            assert not use.of or use.of in list(fields["kind"].annotation)
        assert use.symbol in {line.symbol for line in summed(key, {})} | set(sums()[key].sheet.allowances)


@pytest.mark.parametrize("key", list(sums()))
def test_numbers_at_either_end_of_their_ranges_give_a_result_or_are_told(key):
    for end in ("low", "high"):
        for symbol, allowance in sums()[key].sheet.allowances.items():
            try:
                lines = summed(key, {symbol: getattr(allowance, end)})
            except ValueOutOfRange as told:
                assert told.fix
                continue
            assert all(abs(line.value) < 1e9 for line in lines)


def test_fullness_is_before_over_after():
    """Handbook, cutting: 25 cm pleated to 10 are 2.5; the shirt's neck of 48 cm (worked example) then takes 120."""
    assert results("fullness", {"before": 25, "after": 10, "finished": 48}) == {"fullness": 2.5, "gathered_length": 120}


def test_a_five_centimetre_strip_binds_at_one_and_a_quarter():
    """Handbook, cutting: a 5 cm strip gives about 1.25 finished, double-fold."""
    assert results("binding", {"finished": 1.25})["binding_cut"] == 5.0


def test_a_bone_is_half_an_inch_shorter_than_its_channel():
    """Handbook, cutting: channel − 1.3."""
    assert results("bones", {"channel": 30.0})["bone"] == pytest.approx(28.7)


def test_shrinkage_is_cut_for():
    """Handbook, cutting: cut = finished ÷ (1 − shrinkage)."""
    found = results("shrinkage", {"marked": 50, "warp_after": 47.5, "weft_after": 50, "finished": 95})
    assert found["warp_shrinkage"] == pytest.approx(5)
    assert (found["cut_along"], found["cut_across"]) == (pytest.approx(100), pytest.approx(95))


def test_an_elastic_top_is_a_ring_of_0_87_and_two_to_lap():
    """Handbook, garments, stretch pencil skirt: ring 0.87 × waist, + 2 overlap, quartered."""
    found = results("elastic", {"girth": 74})
    assert found["elastic_cut"] == pytest.approx(0.87 * 74 + 2)
    assert found["elastic_quarter"] == pytest.approx(0.87 * 74 / 4)


def test_a_circle_has_the_edge_that_it_is_cut_for():
    for share in (0.25, 0.5, 1, 2):
        found = results("circle", {"edge": 74, "share": share, "length": 60, "hem": 2})
        assert found["circle_radius"] * 2 * pi * share == pytest.approx(74)
        assert found["outer_radius"] - found["circle_radius"] == pytest.approx(62)
        assert found["circle_hem"] == pytest.approx((found["circle_radius"] + 60) * 2 * pi * share)


def test_ruffle_strips_are_whole_and_reach():
    """Handbook, cutting: strips = length × ratio ÷ usable width, joins."""
    for edge in (68, 136, 136.001, 500):
        found = results("ruffle", {"edge": edge, "fullness": 2, "usable": 138, "seam": 1})
        assert found["strips"] * 136 >= edge * 2 - 1e-6
        assert (found["strips"] - 1) * 136 < edge * 2
    assert results("ruffle", {"edge": 68, "usable": 138, "seam": 1})["strips"] == 1


def test_a_button_lies_at_the_bust_and_all_are_evenly_spaced():
    """Handbook, cutting: one at the bust level."""
    for line, bust in ((52, 24), (90, 22), (30, 12)):
        found = results("buttons", {"line": line, "bust": bust, "first": 1.5, "above": 3, "last": 6})
        places = [1.5 + i * found["button_spacing"] for i in range(int(found["button_count"]))]
        assert min(abs(place - bust) for place in places) < 1e-9
        assert places[-1] <= line - 6 + 1e-9 < places[-1] + found["button_spacing"]


def test_a_lace_is_as_long_as_its_way():
    """Walked from eyelet to eyelet, crossing at every step."""
    found = results("lacing", {"opening": 34, "ends": 1.3, "pitch": 2.5, "gap": 5, "inset": 1.3, "tail": 45})
    pairs = int(found["eyelets"] / 2)
    wide = 5 + 2 * 1.3
    spots = [(0 if i % 2 else wide, i * found["eyelet_pitch"]) for i in range(pairs)]
    way = sum(hypot(b[0] - a[0], b[1] - a[1]) for a, b in pairwise(spots))
    assert found["lace"] == pytest.approx(2 * way + wide + 2 * 45)
    assert (pairs - 1) * found["eyelet_pitch"] == pytest.approx(34 - 2.6)
    assert found["eyelet_pitch"] <= 2.5


def test_bias_of_a_rectangle_is_its_area_over_the_width():
    found = results("bias", {"wide": 5, "rectangle_width": 100, "rectangle_length": 100, "loss": 0})
    assert found["bias_length"] == pytest.approx(100 * 100 / 5)
    square = results("bias", {"wide": 5, "needed": 400})["bias_square"]
    assert square**2 >= 400 * 5


def test_the_rule_of_thumb_takes_a_second_length_where_pieces_do_not_lie_side_by_side():
    """Handbook, cutting: waist to hem plus 5 cm once, or twice."""
    assert results("rule_of_thumb", {"long": 65, "piece": 50, "usable": 138})["rough_cloth"] == 70
    assert results("rule_of_thumb", {"long": 65, "piece": 75, "usable": 138})["rough_cloth"] == 140


def test_a_knit_is_measured_across_along_and_lying_again():
    found = results(
        "stretch", {"rest": 10, "pulled_across": 15, "pulled_along": 11, "back": 10.5, "body": 90, "used": 0.2}
    )
    assert (found["stretch_across"], found["stretch_along"]) == (pytest.approx(50), pytest.approx(10))
    assert found["recovery"] == pytest.approx(90)
    assert found["knit_ease"] == pytest.approx(-9)


def test_wrong_numbers_and_names_are_told():
    with pytest.raises(UnknownName, match="no worksheet"):
        summed("origami", {})
    with pytest.raises(UnknownName, match="asks for no “colour”"):
        summed("fullness", {"colour": 1})
    with pytest.raises(ValueOutOfRange, match="Strip before of 3000 cm"):
        summed("fullness", {"before": 3000})
    with pytest.raises(ValueOutOfRange, match="no result"):
        summed("stretch", {"rest": 14, "pulled_across": 14})
    assert "÷" in plain(summed("fullness", {})[0].worked)
