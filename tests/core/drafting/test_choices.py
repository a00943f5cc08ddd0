"""Schools, ease, overrides and house rules: layers over the rules, each with what it changes."""

import pytest

from izett.catalogue import catalogue
from izett.drafting.ease import FITS, Cloth, levels
from izett.drafting.handles import handles_of
from izett.errors import MissingMeasure, UnknownName, ValueOutOfRange
from izett.geometry.outline import farthest_apart
from izett.recipe.evaluator import Evaluator
from izett.recipe.model import Recipe
from izett.rules.worksheet import State
from tests.core.blocks import drafted, faults

BODY = {"bust_girth": 92.0, "waist_girth": 74.0, "hip_girth": 98.0, "height": 168.0, "high_bust_girth": 87.0}
DRESS = ["bodice", "sleeve", "skirt"]


def test_every_way_of_every_school_drafts_whole_or_asks_for_what_it_needs():
    for method in catalogue().methods.values():
        usual = drafted([method.key], BODY)
        for school in method.sheet.schools.values():
            assert len(school.ways) > 1 and school.label
            for way in school.ways.values():
                assert way.title and way.source
                if set(way.needs) - set(BODY):
                    with pytest.raises(MissingMeasure):
                        drafted([method.key], BODY, schools={school.key: way.key})
                    continue
                chosen = {"school": way.key} if school.key == "measures" else {"schools": {school.key: way.key}}
                found = drafted([method.key], BODY, **chosen)
                assert list(faults(found)) == []
                assert found.sums.school(school.key) == way.key
        assert usual.sums.school("measures") == "direct"


def test_the_dart_by_each_school():
    taken = {**BODY, "front_length": 44.5, "back_waist_length": 41.0}
    by = {way: drafted(["bodice"], taken, schools={"bust_dart": way}).values for way in ("length", "cup", "proportion")}
    assert by["cup"]["bust_dart_angle"] != by["length"]["bust_dart_angle"]
    assert by["proportion"]["dart_by_proportion"] == pytest.approx(0.8 * (92 / 4 - 2.5))
    with pytest.raises(MissingMeasure, match="front length"):
        drafted(["bodice"], BODY, schools={"bust_dart": "length"})


def test_an_equal_split_and_a_measured_front_arc():
    taken = {**BODY, "front_bust_arc": 50.0}
    measured = drafted(["bodice"], taken).values
    equal = drafted(["bodice"], taken, schools={"front_arc": "equal"}).values
    assert measured["front_bust_arc"] == 50
    assert equal["front_bust_arc"] == pytest.approx(92 / 2 + 2 * equal["front_arc_shift"])


def test_a_shoulder_dart_takes_what_the_ease_took():
    eased = drafted(["bodice"], BODY)
    dart = drafted(["bodice"], BODY, schools={"shoulder": "dart"})
    assert [d.name for d in dart.pattern.piece("bodice_back").darts if d.family == "shoulder"] == ["back.shoulder_dart"]
    assert next(s.ease for s in eased.pattern.seams if s.name == "shoulder") == (0.7, 0.7)
    assert next(s.ease for s in dart.pattern.seams if s.name == "shoulder") == (0, 0)
    # Bunka, from memory: bust / 32 − 0.8.
    assert dart.values["shoulder_dart"] == pytest.approx(max(min(dart.values["frame_bust"] / 32 - 0.8, 2), 1.2))


def test_one_dart_holds_the_angle_of_both():
    two = drafted(["bodice"], BODY).pattern.piece("bodice_front")
    one = drafted(["bodice"], BODY, schools={"darts": "one"}).pattern.piece("bodice_front")
    assert {dart.family for dart in two.darts} == {"bust", "waist"}
    assert [dart.name for dart in one.darts] == ["front.waist_dart"]
    assert one.marks["apex"] == two.marks["apex"]


@pytest.mark.parametrize("fit", FITS)
def test_ease_is_the_tables_at_each_level_with_its_reason(fit):
    found = drafted(DRESS, BODY, fit=fit)
    eases = {ease.key: ease for ease in found.eases()}
    assert set(eases) >= {"bust", "waist", "hip", "bicep", "across_back", "across_front", "neck", "wrist"}
    for key in ("bust", "waist", "hip"):
        least, usual, most = levels()[key].by_fit[fit]
        assert eases[key].total == pytest.approx(usual)
        assert eases[key].usual == pytest.approx((least, most))
        assert eases[key].reason
    assert found.pattern.intent.fit == fit


def test_fits_grow_at_every_level():
    for level in levels().values():
        usual = [level.by_fit[fit][1] for fit in FITS]
        assert usual == sorted(usual)
        assert all(low <= middle <= high for low, middle, high in level.by_fit.values())


def test_a_cloth_is_checked():
    with pytest.raises(UnknownName, match="felt"):
        Cloth("felt")
    with pytest.raises(ValueOutOfRange, match="outside 0 to 150"):
        Cloth("knit", 400)
    with pytest.raises(UnknownName, match="baggy"):
        drafted(["bodice"], BODY, fit="baggy")
    assert drafted(["bodice"], BODY, cloth=Cloth("knit", 10)).values["bust_ease"] == 4, "as a close woven"
    half = drafted(["bodice"], BODY, fit="close", cloth=Cloth("stretch", 40)).values["bust_ease"]
    assert half == pytest.approx(
        drafted(["bodice"], BODY, fit="close", cloth=Cloth("knit", 40)).values["bust_ease"] / 2
    )


def test_rules_allowances_and_found_values_can_be_set_with_a_reason():
    found = drafted(
        ["bodice"],
        BODY,
        overrides={"back_neck_width": 7.6, "neck_depth": 9.0},
        house={"bust_ease": 7.0, "hip_ease": 9.0},
        why={"back_neck_width": "her necks sit wide", "bust_ease": "our house gives seven"},
    )
    lines = {line.symbol: line for line in found.lines}
    assert (lines["back_neck_width"].state, lines["back_neck_width"].value) == (State.OVERRIDDEN, 7.6)
    assert lines["back_neck_width"].reason == "her necks sit wide"
    assert lines["neck_depth"].state is State.OVERRIDDEN
    assert found.sums.state("bust_ease") is State.HOUSE
    assert found.values["bust_ease"] == 7
    assert "hip_ease" not in found.sums.sheet.allowances, "a house rule of another block does not concern this one"
    here = drafted(["bodice"], BODY, overrides={"bust_ease": 5.0}, house={"bust_ease": 7.0})
    assert (here.values["bust_ease"], here.sums.state("bust_ease")) == (5, State.OVERRIDDEN)


def test_what_is_set_for_a_block_that_is_not_drafted_waits():
    evaluator = Evaluator(catalogue())
    skirt_only = Recipe("bodice", BODY, overrides={"hip_ease": 8.0})
    assert evaluator.evaluate(skirt_only).pattern == evaluator.evaluate(Recipe("bodice", BODY)).pattern
    for waits in ({"shoulder_dart": 1.5}, {"knit_share": 0.03}):
        assert (
            evaluator.evaluate(Recipe("bodice", BODY, overrides=waits)).pattern
            == evaluator.evaluate(Recipe("bodice", BODY)).pattern
        )
    knit = Recipe("knit_top", BODY, overrides={"knit_share": 0.1}, fit="close", cloth=Cloth("knit", 50))
    assert evaluator.evaluate(knit).draft.values["bust_ease"] == pytest.approx(-9.2)
    with pytest.raises(UnknownName, match="hip_eas"):
        evaluator.evaluate(Recipe("bodice", BODY, overrides={"hip_eas": 8.0}))


def test_a_handle_moves_its_line_outwards_by_about_what_it_says():
    found = drafted(DRESS, BODY)
    handles = {handle.symbol: handle for handle in handles_of(found.sums.sheet, found.pattern)}
    assert {"front_armhole_scoop", "back_armhole_scoop", "neck_scoop", "front_cap_fullest", "hip_fullness"} <= set(
        handles
    )
    for symbol, handle in handles.items():
        allowance = found.sums.sheet.allowances[symbol]
        step = 0.2 * (allowance.high - allowance.low)
        way = 1 if allowance.default + step <= allowance.high else -1
        after = drafted(DRESS, BODY, overrides={symbol: found.values[symbol] + way * step}).pattern
        lines = [
            [e.curve.flattened(flatness=0.001) for e in p.piece(handle.piece).edges if e.lineage == allowance.handle[0]]
            for p in (found.pattern, after)
        ]
        assert farthest_apart(*lines) > 0.02, symbol
        # How far the new line lies from the handle's place, along its direction: the right way, and about that much.
        near = min(
            (p for line in lines[1] for p in line),
            key=lambda p: (p[0] - handle.at[0]) ** 2 + (p[1] - handle.at[1]) ** 2,
        )
        along = (near[0] - handle.at[0]) * handle.outwards[0] + (near[1] - handle.at[1]) * handle.outwards[1]
        assert along * handle.moves * way > 0, symbol
        assert 0.2 < along / (handle.moves * way * step) < 5, (symbol, along, handle.moves * way * step)
