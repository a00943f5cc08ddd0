"""The garment as worn: what is around the body, by layer and half, against tapes laid around it by shapely."""

import pytest
from shapely import LineString, Polygon

from izett.pattern.facts import Half, Layer
from izett.pattern.worn import across, around, edges_around, halves_of, hem_width, is_body, levels, width
from izett.recipe.model import Recipe, Step
from izett.styling.operation import Section
from tests.bodies import with_hips
from tests.garments import BODY, DRESS, DRESS_BLOCKS

LINING = Step("lining", "add_copy", {"kind": "lining", "pieces": ("skirt_front", "skirt_back"), "shorter": 2.5})
CUFF = {"kind": "lining", "pieces": ("bodice_front", "bodice_back", "sleeve"), "shorter": 0.0}


def worked(evaluator, body, *steps, blocks=DRESS_BLOCKS):
    evaluation = evaluator.evaluate(Recipe(blocks[0], body, also=blocks[1:], steps=steps))
    assert len(evaluation.stages) >= len(steps)
    assert all(stage.failure is None for stage in evaluation.stages)
    return evaluation.pattern


@pytest.mark.parametrize("lining", [LINING, Step("lining", "add_copy", CUFF)])
def test_a_lining_never_doubles_a_level(evaluator, lining):
    plain, lined = worked(evaluator, BODY), worked(evaluator, BODY, lining)
    assert any(piece.layer is Layer.LINING for piece in lined)
    for level in levels(plain):
        assert width(lined, level) == pytest.approx(width(plain, level), abs=1e-9)
        assert width(plain, level) > 20
    assert hem_width(lined) == pytest.approx(hem_width(plain), abs=1e-9)
    assert edges_around(lined) == edges_around(plain)


def test_a_straight_tape_across_a_piece_is_as_long_as_shapely_lays_it(evaluator):
    checked = 0
    for body in with_hips(120):
        pattern = worked(evaluator, body)
        for piece in pattern:
            if not is_body(piece) or piece.darts or piece.diamonds:
                continue
            low, high = (f(p[1] for p in piece.outline()) for f in (min, max))
            for share in (0.3, 0.5, 0.7):
                y = low + share * (high - low)
                cut = Polygon(piece.outline()).intersection(LineString([(-200, y), (200, y)]))
                assert across(piece, y) == pytest.approx(cut.length, abs=0.02)
                checked += 1
        level = around(pattern, -10.0)
        laid = sum(
            Polygon(p.outline()).intersection(LineString([(-200, -10.0), (200, -10.0)])).length * p.times
            for p in pattern
            if is_body(p)
        )
        # Between the legs of a dart there is no cloth: the tape is at most as long as the paper.
        assert 0 < level <= laid + 0.05
        checked += 1
    assert checked >= 4


def test_the_edges_of_a_dress_are_those_that_a_hand_counts(evaluator):
    """Two side seams and a centre back: six edges; a princess line adds two to each quarter (common practice)."""
    assert edges_around(worked(evaluator, BODY)) == 6
    princess = [Step(f"s{i}", kind, params) for i, (kind, params) in enumerate(DRESS[1:3])]
    assert edges_around(worked(evaluator, BODY, *princess)) == 6 + 8


@pytest.mark.parametrize("half", [Half.LEFT, Half.RIGHT])
def test_a_level_of_unlike_halves_is_each_halfs_half(evaluator, half):
    step = {"underarm": 0.8, "waist": 0.6}
    one = Step("f", "change_side", step, section=Section.FIT, half=half)
    both = Step("f", "change_side", step, section=Section.FIT)
    plain, apart, wide = (worked(evaluator, BODY, *s, blocks=("bodice", "sleeve")) for s in ((), (one,), (both,)))
    assert halves_of(plain) == (Half.BOTH,)
    assert halves_of(apart) == (Half.LEFT, Half.RIGHT)
    for level in ("bust", "waist"):
        assert width(apart, level) == pytest.approx((width(plain, level) + width(wide, level)) / 2, abs=1e-6)
    changed, same = (width(apart, "bicep", h) for h in (half, half.other))
    assert changed == pytest.approx(width(wide, "bicep"), abs=1e-6)
    assert same == pytest.approx(width(plain, "bicep"), abs=1e-6)
