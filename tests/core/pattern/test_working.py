"""A step's view of the garment: what it asks is kept, what it changes lies over it, and both can be done again elsewhere."""

from dataclasses import replace

import pytest

from izett.pattern.document import Accepted, CutFor, Machine
from izett.pattern.facts import Role, SeamKind
from izett.pattern.record import BODY, OWN, Asked, Record, RecordedBody
from izett.pattern.working import NOTHING, Changes, Working
from izett.recipe.model import Recipe, Step
from tests.core.blocks import with_pieces


@pytest.fixture
def pattern(evaluator, middling):
    return evaluator.evaluate(Recipe("bodice", middling, also=("sleeve",))).pattern


@pytest.fixture
def lowered(evaluator, middling):
    step = Step("s", "change_armhole", {"lower": 1.0})
    return evaluator.evaluate(Recipe("bodice", middling, also=("sleeve",), steps=(step,))).pattern


def retitled(pattern, name, title):
    return with_pieces(pattern, replace(pattern.piece(name), title=title))


def test_every_question_is_kept_once_with_its_answer(pattern):
    record = Record()
    working = Working(pattern, record)
    for _ in range(3):
        assert working.find_piece("sleeve") is pattern.piece("sleeve")
        assert working.find_seam("cap") == pattern.find_seam("cap")
        assert working.find_piece("cape") is None
    assert len(record.answers) == 3
    assert record.names() == {"sleeve", "cap", "cape"}


def test_a_record_holds_where_the_answers_are_the_same_and_nowhere_else(pattern, lowered):
    record = Record()
    working = Working(pattern, record)
    working.find_piece("sleeve")
    working.ease("bust")
    assert record.holds(pattern, pattern, {})
    assert record.holds(lowered, lowered, {}), "neither the sleeve nor the ease was touched"
    working.find_piece("bodice_back")
    assert record.holds(pattern, pattern, {})
    assert not record.holds(lowered, lowered, {})


def test_a_reading_is_kept_by_its_result(pattern, lowered):
    """A length that did not change is the same answer, though the piece that it was read from is another."""
    record = Record()
    Working(pattern, record).read(shoulder, "bodice_front")
    assert record.holds(retitled(pattern, "bodice_front", "Another"), pattern, {})
    assert record.holds(lowered, lowered, {})
    deeper = Record()
    Working(pattern, deeper).read(armhole, "bodice_front")
    assert not deeper.holds(lowered, lowered, {})


def shoulder(pattern, name):
    return sum(e.curve.length for e in pattern.piece(name).edges if e.role is Role.SHOULDER)


def armhole(pattern, name):
    return sum(e.curve.length for e in pattern.piece(name).edges if e.role is Role.ARMHOLE)


def test_the_other_half_and_the_body_are_asked_apart(pattern, lowered):
    record = Record()
    Working(pattern, record, of="other").find_piece("bodice_back")
    body = RecordedBody({"bust_girth": 92.0, "waist_girth": 74.0}, record)
    assert body["bust_girth"] == 92.0
    assert "neck_girth" not in body
    assert record.holds(lowered, pattern, {"bust_girth": 92.0})
    assert record.holds(lowered, pattern, {"bust_girth": 92.0, "waist_girth": 60.0}), "the waist was not asked for"
    assert not record.holds(pattern, lowered, {"bust_girth": 92.0})
    assert not record.holds(pattern, pattern, {"bust_girth": 93.0})
    assert not record.holds(pattern, pattern, {"bust_girth": 92.0, "neck_girth": 37.0}), "what was missing is there now"
    assert {asked.of for asked in record.answers} == {"other", BODY}


def test_what_the_step_itself_changed_is_not_asked_of_the_garment(pattern):
    record = Record()
    working = Working(pattern, record)
    front = working.find_piece("bodice_front")
    asked = len(record.answers)
    changed = working.with_pieces(replace(front, title="Front"))
    assert changed.find_piece("bodice_front").title == "Front"
    assert changed.find("front.underarm").title == "Front"
    assert len(record.answers) == asked
    assert working.find_piece("bodice_front").title == "Bodice front"
    assert Asked(OWN, "find_piece", "bodice_front") in record.answers


def test_changes_are_laid_on_another_garment_that_they_were_not_made_on(pattern, lowered):
    working = Working(pattern)
    sleeve = replace(working.find_piece("sleeve"), title="Arm")
    changes = working.with_pieces(sleeve).with_machine(Machine(1.0, 0.8)).with_ease({"bust": 1.0}).changes
    on = changes.on(lowered)
    assert on.piece("sleeve").title == "Arm"
    assert on.piece("bodice_back") is lowered.piece("bodice_back")
    assert on.machine == Machine(1.0, 0.8)
    assert on.ease("bust") == pytest.approx(lowered.ease("bust") + 1.0)
    assert pattern.machine is None


def test_nothing_changed_is_nothing_laid_on(pattern):
    assert NOTHING.on(pattern) == pattern
    assert Working(pattern).changes == Changes()


def test_a_seam_taken_away_is_gone_and_the_others_stay(pattern):
    cap = pattern.find_seam("cap")
    on = Working(pattern).without_seam(cap).changes.on(pattern)
    assert on.find_seam("cap") is None
    assert on.seams == tuple(seam for seam in pattern.seams if seam.kind is not SeamKind.CAP)


def test_what_holds_for_the_whole_garment_is_as_it_is_now(pattern):
    accepted = Accepted("seams_match", ("cap",), 1.0, "eased in")
    on = Working(pattern).with_accepted((accepted,)).cut_for(CutFor("home")).changes.on(pattern)
    assert on.accepted == (accepted,)
    assert on.allowances.purpose == "home"
    again = Working(on).with_accepted(()).changes.on(on)
    assert again.accepted == ()
    assert again.allowances.purpose == "home"
