"""A wrap's panels add up to the girths that were taken before it, or it is told; its waist is on every panel, or it is told."""

import pytest

from izett.draping.form import Hand, draped
from izett.draping.given import drawn
from izett.draping.panel import Source
from izett.draping.ring import Wrong
from izett.draping.wrap import OFF, level_sums
from izett.pattern.worn import width
from tests.bodies import with_hips
from tests.draped import truth_of

BODIES = [{"height": 165.0, **body} for body in with_hips(240)]
GIRTH = {"bust": "bust_girth", "waist": "waist_girth"}


def wrapped(body, *, pulled=1.0, kind="sheath"):
    """A wrap of a body that is just as large as the shape; pulled tight, everything across is less."""
    truth = truth_of(kind, body)
    given = draped(truth, Hand(scatter=0.05, seed=4)).model_copy(update={"source": Source.WRAP})
    panels = tuple(
        panel.model_copy(
            update={"marks": tuple(m.model_copy(update={"across": m.across * pulled}) for m in panel.marks)}
        )
        for panel in given.panels
    )
    return given.model_copy(update={"panels": panels}), {GIRTH[level]: width(truth, level) for level in GIRTH}


def sums(given, girths):
    found = drawn(given)
    return level_sums(found.pieces, found.sewn, found.measured_along, girths)


def test_a_wrap_adds_up_to_the_girths_and_one_that_was_pulled_tight_does_not():
    for body in BODIES[:2]:
        given, girths = wrapped(body)
        # The shape ends about the hip: a level that runs off its hem is not summed.
        assert {one.level for one in sums(given, {**girths, "hip_girth": 999.0})} == set(GIRTH)
        assert all(one.agrees for one in sums(given, girths))
        tight, girths = wrapped(body, pulled=0.96)
        for one in sums(tight, girths):
            assert not one.agrees
            assert one.off == pytest.approx(-0.04 * one.girth, abs=OFF)


def test_a_level_that_was_not_measured_or_is_not_on_the_panels_is_not_summed():
    given, girths = wrapped(BODIES[0])
    assert [one.level for one in sums(given, {"waist_girth": girths["waist_girth"], "neck_girth": 36.0})] == ["waist"]
    assert sums(given, {}) == ()


def test_a_panel_without_its_waist_is_told_on_a_wrap_alone():
    given, _ = wrapped(BODIES[0], kind="bustier")
    panels = tuple(
        panel.model_copy(
            update={
                "marks": tuple(
                    m.model_copy(update={"lines": tuple(n.replace("waist", "low_edge") for n in m.lines)})
                    for m in panel.marks
                ),
                "lines": {},
                "levels": {},
            }
        )
        for panel in given.panels
    )
    waistless = given.model_copy(update={"panels": panels, "levels": {}, "seams": ()})
    told = [query for query in drawn(waistless).queries if query.code is Wrong.NO_WAIST]
    assert {query.panel for query in told} == {panel.name for panel in panels}
    assert all(query.fix and not query.stops for query in told)
    of_muslin = waistless.model_copy(update={"source": Source.DRAPE})
    assert not [query for query in drawn(of_muslin).queries if query.code is Wrong.NO_WAIST]
