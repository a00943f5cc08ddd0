"""Drafting several blocks on one worksheet: what a later block may ask of an earlier one, and what is told."""

from pathlib import Path

import pytest

from izett.drafting.method import MOST_STARTS, Adjustment, Choices, Method, Notice, draft, measures_used, sheet_for
from izett.drafting.schools import MEASURES_USED
from izett.errors import DraftRefused, MissingMeasure, UnknownName, ValueOutOfRange
from izett.geometry.curve import straight
from izett.pattern.document import Intent, Pattern, Seam, matching
from izett.pattern.facts import Role
from izett.pattern.piece import Edge, Piece
from izett.rules.sheet import load_sheet
from izett.rules.worksheet import State

SHEET = """
title = "{title}"
[[allowance]]
symbol = "{key}_drop"
label = "Drop of the {key}"
default = 1
low = 0
high = 9
unit = "cm"
reason = "For the test."
draws = ["{key}.side"]
[[line]]
symbol = "{key}_width"
label = "Width of the {key}"
group = "1"
unit = "cm"
formula = "waist_girth / 4 + {key}_drop"
draws = ["{key}.side"]
"""


def square(key: str, width: float) -> Piece:
    corners = ((0.0, 0.0), (width, 0.0), (width, 9.0), (0.0, 9.0))
    names = [f"{key}.{n}" for n in "abcd"]
    edges = tuple(
        Edge(Role.SIDE, f"{key}.side", names[i], names[(i + 1) % 4], straight(corners[i], corners[(i + 1) % 4]))
        for i in range(4)
    )
    return Piece(key, key, key, 1, None, ((1.0, 1.0), (1.0, 8.0)), edges)


@pytest.fixture
def block(tmp_path: Path):
    def made(key, work=None, **more):
        path = tmp_path / f"{key}.toml"
        path.write_text(SHEET.format(key=key, title=key.title()))

        def draw(sums, tell, before):
            if work:
                work(sums, tell, before)
            return before.joined((square(key, sums[f"{key}_width"]),), (), ease={"waist": sums[f"{key}_drop"]})

        return Method(key, key.title(), load_sheet(MEASURES_USED, path), (("waist_girth",),), draw, **more)

    return made


def ask(symbol, step, limit):
    refusal = DraftRefused("It cannot be.", fix="Retake it.", where=(symbol,))

    def work(sums, _tell, _before):
        if sums[symbol] < limit:
            raise Adjustment(symbol, sums[symbol] + step, reason="the later one needs it", otherwise=refusal)

    return work


BODY = {"waist_girth": 80.0}


def test_what_a_later_block_asks_is_drafted_from_the_beginning(block):
    told = []
    upper = block("upper", lambda sums, _tell, before: told.append((sums["upper_drop"], len(before.pieces))))
    found = draft(upper, BODY, also=[block("lower", ask("upper_drop", 0.5, 2.0))])
    assert told == [(1.0, 0), (1.5, 0), (2.0, 0)], "each time from nothing"
    assert found.values["upper_width"] == 22
    assert found.sums.reason("upper_drop", "") == "the later one needs it"
    assert found.sums.allowance_state("upper_drop") is State.CHOSEN
    assert [piece.name for piece in found.pattern] == ["upper", "lower"]
    assert draft(upper, BODY).values["upper_drop"] == 1, "alone it is as it was"


def test_asking_the_same_again_or_without_end_is_a_refusal(block):
    def take_back(sums, _tell, _before):
        sums.choose("upper_drop", 1.0, reason="it must stay")

    with pytest.raises(DraftRefused, match="It cannot be"):
        draft(block("upper", take_back), BODY, also=[block("lower", ask("upper_drop", 0.5, 2.0))])
    starts = []
    counting = block("upper", lambda sums, _tell, _before: starts.append(sums["upper_drop"]))
    with pytest.raises(DraftRefused, match="It cannot be"):
        draft(counting, BODY, also=[block("lower", ask("upper_drop", 0.01, 9.0))])
    assert len(starts) == MOST_STARTS + 1


def test_notices_of_a_start_that_was_given_up_are_not_told(block):
    upper = block("upper", lambda sums, tell, _before: tell(Notice("drop", f"drop {sums['upper_drop']:g}")))
    found = draft(upper, BODY, also=[block("lower", ask("upper_drop", 1.0, 3.0))])
    assert [notice.message for notice in found.notices] == ["drop 3"]


def test_an_earlier_blocks_level_stays_its_own(block):
    found = draft(block("upper"), BODY, also=[block("lower")], choices=Choices(overrides={"lower_drop": 4.0}))
    assert found.pattern.intent.ease == {"waist": 1.0}
    seam = Seam("side", matching(("upper", "lower"), "side", "a", "b"), (0.0, 0.0))
    joined = found.pattern.joined((), (seam,), ease={"hip": 5.0}, along={"hip": ()})
    assert joined.intent.ease == {"waist": 1.0, "hip": 5.0} and joined.intent.along == {"hip": ()}
    assert seam.sides[1][0].start == "lower.a"


def test_choices_are_checked_against_what_the_blocks_have(block):
    upper, lower = block("upper"), block("lower")
    with pytest.raises(ValueOutOfRange, match="outside 0 to 9"):
        draft(upper, BODY, overrides={"upper_drop": 10.0})
    with pytest.raises(UnknownName, match="lower_drop"):
        draft(upper, BODY, overrides={"lower_drop": 2.0})
    assert draft(upper, BODY, also=[lower], overrides={"lower_drop": 2.0}).values["lower_width"] == 22
    assert draft(upper, BODY, overrides={"upper_width": 30.0}).sums.state("upper_width") is State.OVERRIDDEN
    with pytest.raises(MissingMeasure, match="waist girth"):
        draft(upper, {"hip_girth": 90.0})
    assert measures_used(upper, lower) == ("waist_girth",)


def test_sheets_of_the_same_choice_are_made_once(block):
    upper = block("upper")
    one = sheet_for((upper,), (), "fitted", Choices().cloth)
    assert sheet_for((upper,), (), "fitted", Choices().cloth) is one
    assert sheet_for((upper,), (("measures", "proportional"),), "fitted", Choices().cloth) is not one


def test_a_pattern_with_nothing_in_it_is_where_each_draft_begins():
    empty = Pattern((), (), Intent("easy", "knit", stretch=40))
    assert list(empty) == [] and empty.intent.stretch == 40
    with pytest.raises(KeyError):
        empty.holding("front.neck_cf")
