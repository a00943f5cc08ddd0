"""The API against its description, by schemathesis: a fixed part of what `make sweep` tries."""

import os

import pytest

from tests.contract import tried, tried_in_a_row

#: Cases of each operation; the sweep asks for more.
EACH = int(os.environ.get("IZETT_CASES", "4"))


@pytest.mark.django_db(transaction=True)
def test_every_answer_is_one_that_the_description_has(transactional_db, page):
    seen = tried(page, EACH)
    assert seen.total() > 40 * EACH
    assert {status for status in seen if status >= 500} == set()
    # The cases reach what the API does, not only its refusals.
    assert sum(n for status, n in seen.items() if status < 300) > seen.total() / 4


@pytest.mark.django_db(transaction=True)
def test_calls_that_follow_from_each_other_are_answered_as_the_description_says(transactional_db, page):
    seen, done = tried_in_a_row(page, EACH)
    assert seen.total() >= 2 * EACH
    assert {status for status in seen if status >= 500} == set()
    # Rows go on from what was answered: they do something, and not always the same.
    assert sum(done.values()) > seen.total() / 4
    assert len(done) >= 5
