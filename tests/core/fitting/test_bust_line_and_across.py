"""The bust line after what a fitting does to a front, and the back widened to its shoulder's tip: over many bodies."""

import re
from dataclasses import replace

import pytest

from izett.errors import StepRefused
from izett.fitting.finding import finding_kind
from izett.fitting.garment import Fitted
from izett.fitting.plan import on_trial, ways_of
from izett.fitting.readings import reading
from izett.fitting.working_out import Seen
from izett.geometry.motion import STILL
from izett.geometry.outline import gap
from izett.pattern.facts import Corner, Region, Role, SeamKind, Zone
from izett.pattern.levels import left_behind, settled
from izett.pattern.piece import LevelLine
from izett.recipe.model import Recipe, Step
from izett.styling.carrying import carried
from izett.styling.operation import Section
from izett.styling.shoulder_line import MOST_EASE
from tests.bodies import with_hips
from tests.garments import ARMHOLE_PRINCESS

BODIES = with_hips(11)
PRINCESS = tuple(Step(f"s{i}", kind, params) for i, (kind, params) in enumerate(ARMHOLE_PRINCESS))


def fit(kind, params, uid="f"):
    return Step(uid, kind, params, section=Section.FIT)


def front_of(pattern):
    return next(p for p in pattern if p.zone is Zone.FRONT and p.region is Region.UPPER)


def bust_line(piece):
    return [line for line in piece.lines if line.level == "bust"]


def evaluated(evaluator, body, *steps, style=()):
    return evaluator.evaluate(Recipe("bodice", {"height": 168.0, **body}, steps=(*style, *steps)), owner="bust line")


#: cm. A bust line lies under the bust point where it is lower by more.
UNDER = 0.5
#: Of what is asked of a bust, so much comes: the rest is what a level gains or loses where the side leans.
COMES = 0.12


@pytest.mark.parametrize("amount", [1.5, -0.8])
def test_a_bust_gains_what_is_asked_where_its_line_lies_at_the_bust_point_and_under_it(evaluator, amount):
    acted = under = 0
    for body in BODIES:
        before, after = evaluated(evaluator, body), evaluated(evaluator, body, fit("change_bust", {"amount": amount}))
        (stage,) = after.stages
        if stage.failure is not None:
            continue
        acted += 1
        piece = front_of(before.pattern)
        under += bust_line(piece)[0].points[0][1] < piece.marks["apex"][1] - UNDER
        came = reading(after, "around the bust") - reading(before, "around the bust")
        assert came == pytest.approx(2 * amount, abs=COMES * abs(2 * amount)), body
    assert acted > len(BODIES) / 2
    assert under >= 5


@pytest.mark.parametrize("lower", [0.0, 1.2])
def test_the_bust_line_runs_level_from_the_centre_and_ends_on_the_side_or_at_the_underarm(evaluator, lower):
    """However often the front was changed: a level that was lost would read as a bust of nothing."""
    acted = 0
    for body in BODIES:
        steps = [fit("change_armhole", {"lower": lower}, "a")] if lower else []
        steps += [fit("change_bust", {"amount": by}, f"b{i}") for i, by in enumerate((1.2, 0.6))]
        after = evaluated(evaluator, body, *steps)
        if any(stage.failure for stage in after.stages):
            continue
        acted += 1
        piece = front_of(after.pattern)
        parts = bust_line(piece)
        (x, y), (_, then) = parts[0].points[:2]
        assert x == pytest.approx(piece.vertex(piece.corner(Corner.NECK_CF))[0], abs=1e-6), body
        assert then == pytest.approx(y, abs=1e-6), body
        assert left_behind(piece) == ()
        sides = [edge.curve for edge in piece.edges if edge.role is Role.SIDE]
        end = parts[-1].points[-1]
        assert min(gap(side.flattened(), end) for side in sides) < 0.05, body
    assert acted > len(BODIES) / 2


def test_a_princess_line_keeps_the_bust_whatever_the_fitting_did_under_it(evaluator):
    acted = 0
    for body in BODIES[::2]:
        steps = (fit("change_armhole", {"lower": 1.0}, "a"), fit("change_bust", {"amount": 1.0}, "b"))
        plain, styled = evaluated(evaluator, body, *steps), evaluated(evaluator, body, *steps, style=PRINCESS)
        if any(stage.failure for stage in (*plain.stages, *styled.stages)):
            continue
        acted += 1
        assert reading(styled, "around the bust") == pytest.approx(reading(plain, "around the bust"), abs=1.2), body
    assert acted > len(BODIES) / 8


def test_a_level_that_is_drawn_anew_from_the_side_keeps_its_order(evaluator):
    """Its parts were turned around once: what came after took the side for the centre."""
    acted = 0
    for body in BODIES[::3]:
        piece = front_of(evaluated(evaluator, body).pattern)
        parts = bust_line(piece)
        if len(parts) < 2:
            continue
        (x, y), *rest = parts[0].points
        # The centre's end was left a little inside, as by a centre that was moved.
        short = replace(parts[0], points=((x + 0.5, y), *rest))
        anew, lost = settled(replace(piece, lines=(short, *(line for line in piece.lines if line is not parts[0]))))
        assert lost == frozenset()
        assert bust_line(anew)[0].points[0] == pytest.approx((x, y), abs=0.02)
        assert sum(line.length for line in bust_line(anew)) == pytest.approx(sum(p.length for p in parts), abs=0.05)
        acted += 1
    assert acted >= 5


@pytest.mark.parametrize("off", [0.0, 4e-15])
def test_a_level_with_its_corner_on_the_point_of_a_dart_is_parted_there(off):
    bent = LevelLine("bust", ((0.0, 0.0), (10.0, 0.0), (20.0, 5.0)))
    none = LevelLine("bust", ((10.0, 0.0), (10.0, 0.0)))
    slash = (((10.0, off), (10.0, 30.0)),)
    region = [(10.0, off), (30.0, -1.0), (30.0, 30.0)]
    parts = carried([bent, none], slash, region, STILL)
    assert [spot for part in parts for spot in part.points][-1] == (20.0, 5.0)
    assert sum(part.length for part in parts) == pytest.approx(bent.length)
    assert all(part.length > 0 for part in parts)


#: Of what is asked across a back, so much comes where it is narrowest.
LEAST_ACROSS = 0.8
#: What a refusal says can be added, in cm as it stands in its words.
AT_MOST = re.compile(r"at most ⟦([\d.]+) cm⟧")


@pytest.mark.parametrize("surplus", ["off_tip", "ease"])
def test_the_back_is_widened_by_what_is_asked_or_by_as_much_as_its_refusal_says(evaluator, surplus):
    acted = refused = 0
    for body in BODIES:
        for amount in (0.4, 1.0, 1.8):
            wide = {"part": "back", "amount": amount, "surplus": surplus}
            before, after = evaluated(evaluator, body), evaluated(evaluator, body, fit("widen_across", wide))
            (stage,) = after.stages
            if stage.failure is not None:
                refused += 1
                assert isinstance(stage.failure, StepRefused)
                (most,) = AT_MOST.findall(stage.failure.message)
                # Rounded to the last digit, it may be a hair too much.
                can = evaluated(evaluator, body, fit("widen_across", {**wide, "amount": max(float(most) - 0.005, 0.0)}))
                assert can.stages[0].failure is None, (body, amount, most)
                continue
            acted += 1
            assert {one.what: one.value for one in stage.sums}["wider across the whole back"] == pytest.approx(
                2 * amount, abs=0.02
            )
            # Close to the tip the armhole comes to be narrowest above the across line: there it gains a little less.
            across = reading(after, "across the back") - reading(before, "across the back")
            assert LEAST_ACROSS * 2 * amount < across < 2 * amount + 0.1, (body, amount)
            (seam,) = (seam for seam in after.pattern.seams_of(SeamKind.SHOULDER))
            assert seam.ease[1] <= MOST_EASE + 1e-9
            longer = reading(after, "shoulder") - reading(before, "shoulder")
            assert (longer == pytest.approx(0.0, abs=1e-6)) if surplus == "off_tip" else (longer >= -1e-6)
    assert acted > len(BODIES)
    assert refused > len(BODIES) / 4


def test_a_remedy_on_trial_comes_to_what_its_way_says_and_leaves_the_garment(evaluator):
    recipe = Recipe("bodice", {"height": 168.0, **BODIES[3]})
    before = evaluator.evaluate(recipe, owner="trial")
    tried = 0
    for key in ("waist_low", "back_tight", "bust_tight", "shoulder_slopes", "sides_tight"):
        kind = finding_kind(key)
        seen = Seen(kind, {entry.symbol: entry.default for entry in kind.inputs})
        fitted = Fitted(recipe, before)
        for way in ways_of(seen, fitted, lambda one: evaluator.evaluate(one, owner="trial")):
            if way.came is None:
                continue
            made = evaluator.evaluate(on_trial(seen, way.remedy, fitted), owner="trial")
            for name, by in way.came.worn.items():
                assert reading(made, name) - reading(before, name) == pytest.approx(by, abs=1e-6), (key, name)
            tried += 1
    assert tried >= 6
    assert recipe.steps == ()
