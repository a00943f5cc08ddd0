"""What is remembered: by owner, by what was read, bounded, and safe between threads."""

from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace

import pytest

from izett.catalogue import catalogue
from izett.pattern.record import Record
from izett.pattern.working import Working
from izett.recipe.evaluator import Evaluator
from izett.recipe.memory import VARIANTS, Memory
from izett.recipe.model import Recipe, Step
from tests.garments import BODY, DRESS


@pytest.fixture
def patterns(evaluator, middling):
    def of(lower):
        steps = (Step("s", "change_armhole", {"lower": lower}),) if lower else ()
        return evaluator.evaluate(Recipe("bodice", middling, steps=steps)).pattern

    return [of(lower) for lower in (0.0, 0.3, 0.6, 0.9, 1.2, 1.5, 1.8, 2.1, 2.4)]


class Counted:
    """Reads the back of a bodice, and counts how often."""

    def __init__(self):
        self.times = 0

    def of(self, pattern):
        def work():
            self.times += 1
            record = Record()
            return record, Working(pattern, record).find_piece("bodice_back").outline()[0]

        return work


def test_a_result_holds_while_what_was_read_is_the_same(patterns):
    memory, counted = Memory(), Counted()
    for _ in range(3):
        for pattern in patterns[:3]:
            memory.read("job", "step", None, (pattern, pattern, {}), counted.of(pattern))
    assert counted.times == 3
    memory.read("another", "step", None, (patterns[0], patterns[0], {}), counted.of(patterns[0]))
    assert counted.times == 4, "each owner has its own"


def test_of_one_step_the_latest_variants_are_kept(patterns):
    memory, counted = Memory(), Counted()
    for pattern in patterns:
        memory.read("job", "step", None, (pattern, pattern, {}), counted.of(pattern))
    assert len(memory) == VARIANTS < len(patterns)
    newest = patterns[-1]
    memory.read("job", "step", None, (newest, newest, {}), counted.of(newest))
    assert counted.times == len(patterns)
    memory.read("job", "step", None, (patterns[0], patterns[0], {}), counted.of(patterns[0]))
    assert counted.times == len(patterns) + 1


def test_the_owner_longest_unused_goes_first(patterns):
    memory, counted = Memory(owners=2), Counted()
    pattern = patterns[0]

    def ask(owner):
        memory.read(owner, "step", None, (pattern, pattern, {}), counted.of(pattern))

    for owner in ("a", "b", "a", "c"):
        ask(owner)
    assert counted.times == 3
    ask("a")
    assert counted.times == 3, "it was used after b"
    ask("b")
    assert counted.times == 4


def test_what_depends_on_nothing_else_is_worked_once():
    memory, calls = Memory(per_owner=2), []
    for key in ("x", "x", "y", "x", "z", "y"):
        memory.kept("job", key, None, lambda key=key: calls.append(key))
    assert calls == ["x", "y", "z", "y"]
    assert len(memory) == 2


def test_a_step_that_is_pulled_for_long_takes_no_more_room(patterns):
    """Each amount on its way is another set of parameters of one step; what is used again and again stays."""
    memory, counted = Memory(), Counted()
    pattern = patterns[0]
    for amount in range(100):
        for params in ("as it was", amount):
            memory.read("job", "step", params, (pattern, pattern, {}), counted.of(pattern))
    assert counted.times == 101
    assert len(memory) == VARIANTS


def test_for_the_very_same_garment_no_question_is_asked(patterns, monkeypatch):
    memory, counted = Memory(), Counted()
    one, other = patterns[:2]
    body = {}
    for pattern in (one, other):
        memory.read("job", "step", None, (pattern, pattern, body), counted.of(pattern))
    asked = []
    holds = Record.holds
    monkeypatch.setattr(Record, "holds", lambda self, *before: asked.append(1) or holds(self, *before))
    memory.read("job", "step", None, (other, other, body), counted.of(other))
    assert asked == []
    # Another object may be alike: it is asked.
    memory.read("job", "step", None, (replace(other), replace(other), body), counted.of(other))
    assert asked and counted.times == 2


def test_a_failure_is_not_remembered():
    memory = Memory()

    def broken():
        raise ValueError("once")

    with pytest.raises(ValueError, match="once"):
        memory.kept("job", "x", None, broken)
    assert memory.kept("job", "x", None, lambda: 7) == 7


def test_threads_that_ask_at_once_get_what_one_gets_alone():
    steps = tuple(Step(f"s{i}", kind, params) for i, (kind, params) in enumerate(DRESS))
    recipes = [
        Recipe("bodice", {**BODY, "bust_girth": 88.0 + n}, also=("sleeve", "skirt"), steps=steps) for n in range(6)
    ]
    alone = [Evaluator(catalogue()).evaluate(recipe).pattern for recipe in recipes]
    shared = Evaluator(catalogue(), memory=Memory(owners=2, per_owner=40))
    with ThreadPoolExecutor(4) as pool:
        found = list(pool.map(lambda n: shared.evaluate(recipes[n % 6], owner=n % 3).pattern, range(24)))
    assert all(pattern == alone[n % 6] for n, pattern in enumerate(found))
