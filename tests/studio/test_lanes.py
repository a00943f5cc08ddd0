"""Who works first, and who is not passed over for ever."""

from contextlib import ExitStack
from threading import Event, Thread

import pytest

from studio import lanes
from studio.lanes import ASIDE, LOOK, MOST_PASSED, MOST_WAITING, SAVE, Turns, printing
from studio.problems import Refusal

PATIENCE = 10


def came_in(turns, ranks):
    """The order in which hands of some ranks have their turn, who all came, in this order, while somebody had it."""
    order, hands = [], []

    def work(number, rank):
        with turns.turn(rank):
            order.append((rank, number))

    with turns.turn(SAVE):
        for number, rank in enumerate(ranks):
            before = len(turns._waiting)
            hands.append(Thread(target=work, args=(number, rank)))
            hands[-1].start()
            while len(turns._waiting) == before:
                Event().wait(0.001)
    for hand in hands:
        hand.join(PATIENCE)
    return order


def test_saves_come_before_looks_and_looks_before_what_is_done_aside_each_as_they_came():
    ranks = (ASIDE, LOOK, SAVE, LOOK, ASIDE, SAVE)
    assert came_in(Turns(), ranks) == [(SAVE, 2), (SAVE, 5), (LOOK, 1), (LOOK, 3), (ASIDE, 0), (ASIDE, 4)]


def test_whoever_is_passed_over_often_comes_next():
    order = came_in(Turns(), (LOOK, *(SAVE for _ in range(MOST_PASSED + 5))))
    assert order[MOST_PASSED] == (LOOK, 0)
    assert len(order) == MOST_PASSED + 6


def test_whoever_has_the_turn_goes_on_and_one_that_fails_gives_it_back():
    turns = Turns()
    with pytest.raises(ZeroDivisionError), turns.turn(LOOK), turns.turn(SAVE):
        raise ZeroDivisionError
    assert came_in(turns, (ASIDE,)) == [(ASIDE, 0)]


def test_prints_go_one_at_a_time_and_more_than_wait_for_it_are_told_to_come_again(monkeypatch):
    monkeypatch.setattr(lanes, "PATIENCE", 0.01)
    with ExitStack() as stack:
        stack.enter_context(printing())
        with pytest.raises(Refusal) as late, printing():
            pass
        assert (late.value.status, late.value.retry_after) == (503, 5)
        for _ in range(MOST_WAITING - 1):
            assert lanes._WAITING.acquire(blocking=False)
            stack.callback(lanes._WAITING.release)
        with pytest.raises(Refusal, match="waiting already"), printing():
            pass
    with printing():
        pass
