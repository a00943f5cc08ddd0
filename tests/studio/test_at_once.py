"""Several at once, and requests that no screen sends: one wins, the rest are told; nothing breaks."""

import json
from concurrent.futures import ThreadPoolExecutor

import pytest
from django.db import connections
from django.test import Client
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from izett.catalogue import catalogue
from studio.models import Job, Revision
from tests.studio.conftest import Page


@pytest.mark.django_db(transaction=True)
def test_of_many_changes_to_one_version_exactly_one_is_kept(transactional_db):
    page = Page(Client())
    job = page.job()

    def change(n):
        try:
            recipe = {**job["recipe"], "overrides": {"bust_ease": 4 + n / 10}}
            answer = Page(Client()).put(f"/api/jobs/{job['id']}/recipe", {"recipe": recipe, "why": f"hand {n}"}, 1)
            return answer.status_code, n
        finally:
            connections.close_all()

    with ThreadPoolExecutor(8) as hands:
        answers = list(hands.map(change, range(16)))
    assert sorted(status for status, _ in answers) == [200] + [412] * 15
    winner = next(n for status, n in answers if status == 200)
    assert Revision.objects.count() == 2
    assert Job.objects.get().head.document["overrides"]["bust_ease"] == 4 + winner / 10


@pytest.mark.django_db(transaction=True)
def test_previews_go_on_while_changes_are_kept(transactional_db):
    page = Page(Client())
    job = page.job()

    def look(n):
        try:
            recipe = {**job["recipe"], "overrides": {"waist_ease": 2 + n / 20}}
            return Page(Client()).post("/api/preview", {"sheet": job["sheet"]["id"], "recipe": recipe}).status_code
        finally:
            connections.close_all()

    with ThreadPoolExecutor(4) as hands:
        looks = [hands.submit(look, n) for n in range(30)]
        version = 1
        for n in range(10):
            recipe = {**job["recipe"], "overrides": {"bust_ease": 4 + n / 10}}
            answer = page.put(f"/api/jobs/{job['id']}/recipe", {"recipe": recipe, "why": "x"}, version)
            assert answer.status_code == 200
            version = answer.json()["version"]
        assert {one.result() for one in looks} == {200}


nonsense = st.recursive(
    st.none() | st.booleans() | st.integers(-(10**6), 10**6) | st.floats(-1e6, 1e6) | st.text(max_size=12),
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.text(max_size=8), inner, max_size=3),
    max_leaves=6,
)
steps = st.fixed_dictionaries(
    {
        "uid": st.text("abc123-", min_size=1, max_size=6),
        "kind": st.sampled_from([*catalogue().operations, "unheard_of"]),
        "params": st.dictionaries(
            st.sampled_from(["dart", "to", "amount", "waist", "up", "share", "part"]), nonsense, max_size=4
        ),
    }
)
typed = st.dictionaries(
    st.sampled_from(["bust_girth", "waist_girth", "height", "apex_span", "x"]),
    st.fixed_dictionaries({"text": st.text(max_size=20), "unit": st.sampled_from(["cm", "in"])}),
    max_size=4,
)


@pytest.mark.django_db
@settings(suppress_health_check=[HealthCheck.function_scoped_fixture, HealthCheck.too_slow], max_examples=80)
@given(
    st.lists(steps, max_size=4),
    st.dictionaries(st.sampled_from(["bust_ease", "side_share", "neck_depth", "x"]), nonsense, max_size=2),
)
def test_no_recipe_whatever_breaks_a_preview(page, steps, overrides):
    """A preview of nonsense is an answer with skipped steps, or a problem: never a server error."""
    if not hasattr(page, "kept"):
        page.kept = page.job()
    recipe = {**page.kept["recipe"], "steps": steps, "overrides": overrides}
    answer = page.post("/api/preview", {"sheet": page.kept["sheet"]["id"], "recipe": recipe})
    assert answer.status_code in (200, 404, 422), answer.content
    body = json.loads(answer.content)
    if answer.status_code == 200:
        assert len(body["stages"]) == len(steps)
        assert len(body["order"]) == 2
    else:
        assert body["detail"] and body["fix"]


@pytest.mark.django_db
@given(typed)
@settings(suppress_health_check=[HealthCheck.function_scoped_fixture])
def test_no_text_whatever_breaks_the_review_of_a_sheet(page, readings):
    answer = page.post("/api/measures/review", {"readings": readings})
    assert answer.status_code in (200, 404), answer.content
    if answer.status_code == 200:
        for one in answer.json()["readings"]:
            assert one["error"] or one["cm"] > 0
