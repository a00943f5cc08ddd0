"""Whatever is chosen or measured, a block is drafted whole or refused in words; never an exception, never a broken outline."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from izett.catalogue import catalogue
from izett.drafting.ease import FITS, Cloth
from izett.drafting.method import measures_used
from izett.drafting.sets import starter_sets
from izett.errors import DraftRefused, IzettError
from izett.measuring.measure import measure
from tests.acting import PassedOver, acting
from tests.bodies import with_hips
from tests.core.blocks import drafted, faults

BODY = {"bust_girth": 92.0, "waist_girth": 74.0, "hip_girth": 98.0, "height": 168.0, "high_bust_girth": 87.0}
SETS = list(starter_sets().values())


def allowances_of(of):
    return drafted(of.blocks, BODY, fit=of.fit, cloth=of.cloth).sums.sheet.allowances


@pytest.mark.parametrize("of", SETS, ids=lambda of: of.key)
def test_every_allowance_can_be_set_to_its_limits(of):
    made, asked = 0, 0
    for allowance in allowances_of(of).values():
        for value in (allowance.low, allowance.high):
            asked += 1
            try:
                found = drafted(of.blocks, BODY, fit=of.fit, cloth=of.cloth, overrides={allowance.symbol: value})
            except DraftRefused as refused:
                assert refused.message and refused.fix and refused.where, allowance.symbol
                continue
            wrong = list(faults(found))
            assert wrong == [], (allowance.symbol, value)
            assert found.values[allowance.symbol] == value
            made += 1
    assert made >= 0.8 * asked


@pytest.mark.parametrize("of", SETS, ids=lambda of: of.key)
@settings(max_examples=25)
@given(data=st.data())
def test_no_measures_whatever_break_a_draft(of, data):
    """Nonsense within each measure's plausible range, and a little beyond it."""
    used = measures_used(*catalogue().in_order(of.blocks))
    body = {}
    for symbol in used:
        known = measure(symbol)
        if known.symbol in BODY or data.draw(st.booleans(), label=f"{symbol} taken"):
            body[symbol] = data.draw(st.floats(0.8 * known.low, 1.2 * known.high), label=symbol)
    try:
        found = drafted(of.blocks, body, fit=of.fit, cloth=of.cloth)
    except IzettError as refused:
        assert refused.message and refused.fix
        return
    for piece in found.pattern:
        assert all(abs(x) < 1000 and abs(y) < 1000 for x, y in piece.outline())
    assert all(line.label and line.group for line in found.lines)


@acting(least=0.9)
@given(st.sampled_from(SETS), st.sampled_from(FITS), st.sampled_from(["woven", "stretch", "knit"]), st.floats(0, 150))
def test_every_set_is_drafted_in_any_fit_and_cloth(of, fit, kind, stretch):
    cloth = Cloth(kind, 0.0 if kind == "woven" else stretch)
    made, bodies = 0, with_hips(400)
    for body in bodies:
        try:
            found = drafted(of.blocks, body, fit=fit, cloth=cloth)
        except DraftRefused as refused:
            assert refused.fix and refused.where
            continue
        assert list(faults(found)) == []
        assert found.pattern.intent.fit == fit and found.pattern.intent.cloth == kind
        made += 1
    if not made:
        raise PassedOver


@acting(least=0.9)
@given(st.sampled_from(with_hips(60)))
def test_a_draft_is_the_same_whenever_it_is_made(body):
    """Bit for bit, in one build: undo and redo rest on it."""
    same = 0
    for of in SETS:
        try:
            first = drafted(of.blocks, body, fit=of.fit, cloth=of.cloth)
        except DraftRefused:
            continue
        assert drafted(of.blocks, body, fit=of.fit, cloth=of.cloth).pattern == first.pattern
        same += 1
    if same < len(SETS) / 2:
        raise PassedOver


def test_an_empty_sheet_asks_for_what_it_cannot_do_without():
    for method in catalogue().methods.values():
        with pytest.raises(IzettError) as refused:
            drafted([method.key], {})
        assert "needs" in refused.value.message and refused.value.where
