"""What is prepared, learned and foretold around a fitting; two sheets held at a corner."""

from datetime import date, timedelta
from math import hypot

import pytest

from izett.errors import ReferenceLost
from izett.fitting.compare import LaidAt, laid_at, moves
from izett.fitting.finding import Taken, finding_kind
from izett.fitting.forecast import FEWEST_GARMENTS, FEWEST_ROUNDS, Course, forecast
from izett.fitting.garment import FACTS, Fitted
from izett.fitting.learned import FEWEST_WEARERS, Fittings, learned
from izett.fitting.preparing import checklist, estimated, items, movements, sewn_with
from izett.fitting.working_out import Seen
from izett.pattern.facts import Half
from izett.recipe.model import Recipe, Step
from izett.styling.operation import Section
from tests.garments import BODY, DRESS, whole_garment


def garment(evaluator, *blocks, steps=(), **more):
    recipe = Recipe(blocks[0], BODY, also=blocks[1:], steps=tuple(steps), **more)
    return Fitted(recipe, evaluator.evaluate(recipe))


def test_a_checklist_asks_what_its_garment_has(evaluator):
    # Handbook 5, 'Before': closures, foundation, allowances and balance lines are seen to on every muslin.
    bodice, dress, knit = (
        garment(evaluator, *blocks) for blocks in (("bodice",), ("bodice", "sleeve", "skirt"), ("knit_top",))
    )
    keys = [{item.key for item in checklist(one)} for one in (bodice, dress, knit)]
    assert all({"closures", "foundation", "wide_allowances", "balance_lines", "basted", "cloth"} <= one for one in keys)
    assert ("sleeve" in keys[1], "sleeve" in keys[0]) == (True, False)
    assert ("stay" in keys[0], "lacing" in keys[0]) == (False, False)
    assert {need for item in items() for need in item.needs} <= set(FACTS)
    assert [one.key for one in movements()] == [
        "stand", "sit", "reach forward", "arms up", "bend", "walk a step", "an hour of ordinary work"
    ]  # fmt: skip


@pytest.mark.parametrize(
    ("name", "asked", "left_out"),
    [
        ("Strapless sweetheart bodice", {"stay", "waist_tape", "stretch_woven"}, {"sleeve", "stretch"}),
        ("Long cardigan", {"stretch", "sleeve"}, {"stretch_woven", "stay"}),
        ("Pleated trousers", {"stretch_woven", "hem"}, {"sleeve", "stay", "stretch"}),
        ("Knit pencil skirt", {"stretch"}, {"sleeve", "stay"}),
        ("High–low gathered dress", {"sleeve", "waist_tape"}, {"stay", "lacing"}),
    ],
)
def test_a_styled_garment_is_asked_of_what_its_style_gave_it(evaluator, name, asked, left_out):
    recipe = whole_garment(name)
    keys = {item.key for item in checklist(Fitted(recipe, evaluator.evaluate(recipe)))}
    assert asked <= keys
    assert not left_out & keys


def test_what_nobody_measured_is_asked_and_the_allowances_are_those_on_the_paper(evaluator):
    dress = garment(evaluator, "bodice", "sleeve", "skirt")
    taken = {symbol: value for symbol, value in dress.evaluation.draft.values.items() if symbol not in BODY}
    assert estimated(dress) and len(estimated(dress)) < len(taken)
    everything = garment(evaluator, "bodice")
    assert set(estimated(everything)) < set(estimated(dress))
    sewn = {one.role.value: one.allowance for one in sewn_with(dress.evaluation.pattern)}
    # A fitting muslin: 2.5 at sides and shoulders (handbook 5).
    assert sewn["side"] == sewn["shoulder"] == 2.5
    cloth = {"purpose": "muslin", "lines": [{"line": "front.side", "width": 4.0}]}
    apart = Step("a", "set_allowances", cloth)
    wide = garment(evaluator, "bodice", steps=[apart])
    assert {one.role.value: one.allowance for one in sewn_with(wide.evaluation.pattern)}["side"] == 4.0


TODAY = date(2026, 11, 2)


def courses(garments, rounds=2, days=7.0):
    return [Course((days,) * rounds, finished=True)] * garments


def test_a_forecast_is_silent_where_there_is_too_little_to_tell_from():
    assert forecast([], done=0, today=TODAY) is None
    assert forecast(courses(FEWEST_GARMENTS - 1, rounds=FEWEST_ROUNDS), done=0, today=TODAY) is None
    assert forecast([Course((7.0,) * 9, finished=False)] * 5, done=0, today=TODAY) is None
    assert forecast(courses(FEWEST_GARMENTS, rounds=FEWEST_ROUNDS // FEWEST_GARMENTS), done=0, today=TODAY) is not None


def test_a_forecast_counts_the_rounds_to_come_and_tells_its_spread():
    even = forecast(courses(4), done=0, today=TODAY, due=TODAY + timedelta(days=14))
    assert even.early == even.usual == even.late == TODAY + timedelta(days=14)
    assert even.in_time == pytest.approx(1.0)
    one_behind = forecast(courses(4), done=1, today=TODAY, due=TODAY + timedelta(days=6))
    assert one_behind.usual == TODAY + timedelta(days=7) and one_behind.in_time == 0.0
    # More rounds are behind than any garment took: one more at least.
    assert forecast(courses(4), done=9, today=TODAY).usual == TODAY + timedelta(days=7)
    mixed = [Course((2.0, 4.0), finished=True), Course((3.0, 20.0, 6.0), finished=True), Course((5.0,), finished=True)]
    told = forecast(mixed, done=0, today=TODAY, due=TODAY + timedelta(days=12))
    assert TODAY < told.early < told.usual < told.late
    assert 0 < told.in_time < 1 and (told.rounds, told.garments) == (6, 3)
    sooner = forecast(mixed, done=0, today=TODAY, due=TODAY + timedelta(days=6))
    assert sooner.in_time < told.in_time


def fittings(wearer, *solved, has=("across_back_ease", "bust_ease", "waist_ease")):
    return Fittings(wearer, f"{wearer} {len(solved)}", frozenset(has), tuple(solved))


def tight(missing=1.6, half=Half.BOTH, **more):
    return Seen(finding_kind("back_tight"), {"missing": missing}, half=half, **more)


def test_what_several_wearers_keep_changing_the_same_way_is_offered():
    fitted = [*(fittings(f"w{i}", tight(1.6 + 0.1 * i)) for i in range(5)), fittings("w9")]
    (lesson,) = learned(fitted)
    assert (lesson.symbol, lesson.garments, lesson.of, lesson.wearers) == ("across_back_ease", 5, 6, 5)
    # Half of what was missing across the whole back lies on each half: the middle one of 0.8 … 1.0.
    assert lesson.by == pytest.approx(0.9)
    wide = [fittings(f"w{i}", Seen(finding_kind("back_wide"), {"over": 1.0}, Taken.PINCH)) for i in range(3)]
    (less,) = learned(wide)
    assert less.by == pytest.approx(-1.0), "a folded pinch of 1 holds 2, half of it on each half"


@pytest.mark.parametrize(
    "fitted",
    [
        [fittings(f"w{i}", tight()) for i in range(FEWEST_WEARERS - 1)],
        [fittings("one wearer", tight()) for _ in range(6)],
        [fittings(f"w{i}", tight(half=Half.LEFT)) for i in range(6)],
        [fittings(f"w{i}", *([tight()] if i < 3 else [])) for i in range(8)],
        [fittings(f"w{i}", tight(0.2)) for i in range(6)],
        [fittings(f"w{i}", tight(), has=("bust_ease",)) for i in range(6)],
    ],
    ids=["too few", "one body", "one half", "too seldom", "within the pins", "no such rule"],
)
def test_what_is_one_body_or_chance_teaches_nothing(fitted):
    assert learned(fitted) == []


def test_sheets_are_held_at_a_corner_and_along_a_line(evaluator):
    before = garment(evaluator, "bodice", "sleeve").evaluation.pattern
    fit = Step("f", "change_shoulder", {"amount": 1.0}, section=Section.FIT)
    after = garment(evaluator, "bodice", "sleeve", steps=[fit]).evaluation.pattern
    acted = 0
    for piece in after:
        for edge in piece.edges:
            if edge.is_leg:
                continue
            at = LaidAt(piece.name, edge.start, edge.lineage)
            held = laid_at(before, after, at).find_piece(piece.name)
            acted += 1
            there = held.vertex(edge.start)
            assert hypot(there[0] - edge.curve.start[0], there[1] - edge.curve.start[1]) < 1e-9
            own = next(e for e in held.edges if e.lineage == edge.lineage and e.start == edge.start)
            for line in (own, edge):
                assert hypot(*(b - a for a, b in zip(line.curve.start, line.curve.end, strict=True))) > 0
            ways = [tuple(b - a for a, b in zip(e.curve.start, e.curve.end, strict=True)) for e in (own, edge)]
            assert abs(ways[0][0] * ways[1][1] - ways[0][1] * ways[1][0]) < 1e-6
            assert own.curve.length == pytest.approx(
                next(e for e in before.find_piece(piece.name).edges if e.start == edge.start).curve.length
            )
    assert acted > 12
    with pytest.raises(ReferenceLost, match="cannot be laid together"):
        laid_at(before, after, LaidAt("bodice_front", "front.nowhere", "front.side"))
    # Held as drafted they lie as `moves` tells.
    assert {m.lineage for m in moves(before, after)} >= {"front.shoulder", "back.shoulder"}


def test_a_dress_laid_on_itself_lies_still_wherever_it_is_held(evaluator):
    steps = [Step(f"s{i}", kind, params) for i, (kind, params) in enumerate(DRESS)]
    dress = garment(evaluator, "bodice", "sleeve", "skirt", steps=steps).evaluation.pattern
    for piece in dress:
        edge = next(edge for edge in piece.edges if not edge.is_leg)
        assert moves(laid_at(dress, dress, LaidAt(piece.name, edge.start, edge.lineage)), dress) == []
