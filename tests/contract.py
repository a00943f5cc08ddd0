"""The API as its description says it is, tried with what the description allows and with what it does not.

The cases are schemathesis's; what exists is put into them more often than not (a wearer, a sheet, a job, its version), so
that they reach what the API does, one upon the other. Every answer must be one that the description has, none a server
error, none slow.
"""

import copy
import json
from collections import Counter
from random import Random
from time import process_time
from typing import Any
from uuid import UUID

import schemathesis
from django.core.management import call_command
from django.middleware.csrf import _get_new_csrf_string
from hypothesis import HealthCheck, Phase, given, seed, settings
from hypothesis import strategies as st
from schemathesis.specs.openapi.checks import (
    content_type_conformance,
    response_headers_conformance,
    response_schema_conformance,
    status_code_conformance,
)

from studio.api import api
from studio.models import Finding, Job, MeasureSheet, Photo, Wearer
from studio.workroom import evaluate_revision
from studio.wsgi import application
from tests.hostile import a_step

#: What an answer is held against: its status, kind, headers and content as the description has them. What a request may hold
#: is said there in part only: that a step fits its garment no schema can say.
CHECKS = [
    status_code_conformance, content_type_conformance, response_headers_conformance, response_schema_conformance
]  # fmt: skip
#: Seconds of processor time that an answer may take: a clock would count the other tests too.
SLOWEST = 5.0
TOKEN = _get_new_csrf_string()
#: Answers that the framework gives before the API is asked, and those that say the storage is busy.
UNAVAILABLE = {503}
#: What ids in an address stand for.
KEPT = {"job_id": Job, "wearer_id": Wearer, "sheet_id": MeasureSheet}
#: How often what exists is put in the place of what was made up.
OFTEN = 0.85
#: A day that a job can be due on. The description knows a day by its form alone, and most of those are of no century of ours.
A_DAY = "2027-05-14"
#: Where something is made that has an address of its own, and can be deleted there.
SHELVES = ("/api/jobs", "/api/wearers")
#: What follows from something else: of the rest, one call is as good as many.
IN_ROWS = "/(jobs|wearers|sheets)"


def exists(name: str, given: Any) -> bool:
    """Return whether an id in an address is that of something kept."""
    try:
        return name in KEPT and bool(KEPT[name].objects.filter(id=UUID(str(given))).exists())
    except ValueError:
        return False


def described(environ: dict[str, Any], start_response: Any) -> Any:
    """The studio with its description at an address, asked by a page that has its token."""
    if environ["PATH_INFO"] == "/openapi.json":
        start_response("200 OK", [("Content-Type", "application/json")])
        return [json.dumps(api.get_openapi_schema(), default=str).encode()]
    environ["HTTP_COOKIE"] = f"csrftoken={TOKEN}"
    environ["HTTP_X_CSRFTOKEN"] = TOKEN
    environ["HTTP_HOST"] = "localhost"
    return application(environ, start_response)


class Known:
    """What exists while the cases run: put into them, and learnt from what is answered."""

    def __init__(self, page: Any) -> None:
        self.page = page
        self.renew()

    def renew(self) -> None:
        """Begin with a wearer of its own, measured, with a job, a muslin on the table and a finding on it."""
        self.wearer = self.page.wearer("Isaura Penhallow")
        job = self.page.cut(self.page.job(self.wearer))
        self.job = self.page.find(job)
        finding = Finding.objects.get(round__job=self.job["id"])
        self.photo = str(Photo.objects.create(finding=finding, width=8, height=8, size=1).uid)

    def alive(self) -> None:
        """See to it that there is something to do things to."""
        if not self.turned_to(self.job["id"]):
            self.renew()

    def turned_to(self, job_id: str) -> bool:
        """Take a job for the one that is spoken of, if there is one of that id."""
        fresh = self.page.get(f"/api/jobs/{job_id}")
        if fresh.status_code == 200:
            self.job = fresh.json()
        return bool(fresh.status_code == 200)

    def put_into(self, case: Any, random: Random) -> None:
        """Put what exists into a case, here and there; what a case names already and exists stays."""
        self.alive()
        path = case.path_parameters or {}
        names = {"job_id": self.job["id"], "wearer_id": self.wearer["id"], "sheet_id": self.job["sheet"]["id"],
                 "number": 1, "uid": "finding-1", "photo": self.photo, "key": "en_13402_3_women", "symbol": "bust_ease"}  # fmt: skip
        for name in path:
            if name in names and not exists(name, path[name]) and random.random() < OFTEN:
                path[name] = names[name]
        if "job_id" in path:
            self.turned_to(path["job_id"])
        if "If-Match" in (case.headers or {}) or random.random() < OFTEN:
            case.headers = {**(case.headers or {}), "If-Match": f'"{self.job["version"]}"'}
        if isinstance(case.body, dict):
            case.body = self.filled(case.body, random)

    def filled(self, body: dict[str, Any], random: Random) -> dict[str, Any]:
        """Return a body with what exists in the place of what was made up, here and there."""
        body = copy.deepcopy(body)
        known = {"sheet": self.job["sheet"]["id"], "wearer": self.wearer["id"], "job": self.job["id"], "against": 1,
                 "finding": "finding-1", "kind": "waist_low", "due": A_DAY, "taken_on": A_DAY}  # fmt: skip
        for name, value in known.items():
            if name in body and random.random() < OFTEN:
                body[name] = value
        if isinstance(body.get("recipe"), dict) and random.random() < 0.7:
            body["recipe"] = self.recipe(random)
        return body

    def recipe(self, random: Random) -> dict[str, Any]:
        """Return the job's recipe with another step of random parameters, more often than not."""
        recipe = copy.deepcopy(self.job["recipe"])
        if random.random() < 0.6:
            pattern = evaluate_revision(Job.objects.get(id=self.job["id"]).head).pattern
            step = a_step(random, pattern, f"c{random.randrange(10**6)}")
            recipe["steps"] = [*recipe["steps"], step.as_data()]
        return recipe


def held(case: Any, seen: Counter[int]) -> Any:
    """Make a case's call, hold what is answered against the description, and return it.

    Raises:
        AssertionError: it is a server error, slow, or none of the answers that the description has.
    """
    began = process_time()
    answer = case.call()
    took = process_time() - began
    seen[answer.status_code] += 1
    told = f"{case.method} {case.path} {case.path_parameters} {case.query} {str(case.body)[:600]}"
    assert answer.status_code < 500 or answer.status_code in UNAVAILABLE, f"{told}: {answer.text[:400]}"
    assert took < SLOWEST, f"{told}: {took:.1f} s of processor time"
    case.validate_response(answer, checks=CHECKS)
    return answer


def _settings(cases: int) -> settings:
    return settings(
        max_examples=cases,
        database=None,
        deadline=None,
        phases=[Phase.generate],
        suppress_health_check=list(HealthCheck),
    )


def tried(page: Any, each: int, *, start: int = 0) -> Counter[int]:
    """Try so many cases of each operation, one by one; return how many answers there were of each status."""
    schema = schemathesis.openapi.from_wsgi("/openapi.json", described)
    known, seen = Known(page), Counter[int]()
    for number, found in enumerate(schema.get_all_operations()):

        @seed(start + number)
        @_settings(each)
        @given(case=found.ok().as_strategy(), draw=st.integers(0, 2**32))
        def one(case: Any, draw: int) -> None:
            known.put_into(case, Random(draw))
            held(case, seen)

        one()
    return seen


def tried_in_a_row(page: Any, rows: int, *, long: int = 12, start: int = 0) -> tuple[Counter[int], Counter[str]]:
    """Try so many rows of calls, each on what the one before it answered; return the answers by status and by operation.

    What was made is there afterwards, and what was deleted is not.
    """
    schema = schemathesis.openapi.from_wsgi("/openapi.json", described).include(path_regex=IN_ROWS)
    known, seen, done = Known(page), Counter[int](), Counter[str]()

    class Row(schema.as_state_machine()):  # type: ignore[misc]
        """Calls that follow from each other by what the description says of ids."""

        def setup(self) -> None:
            """Begin each row with the same, and with nothing else: the same calls must come to the same."""
            call_command("flush", interactive=False, verbosity=0)
            known.renew()
            self.asked = 0

        def call(self, case: Any, **_: Any) -> Any:
            self.asked += 1
            known.put_into(case, Random(f"{start} {self.asked}"))
            answer = held(case, seen)
            self.agrees(case, answer)
            if answer.status_code < 300:
                done[case.operation.label] += 1
            return answer

        def agrees(self, case: Any, answer: Any) -> None:
            """See whether what was done can be seen."""
            if answer.status_code == 201 and case.path in SHELVES:
                assert page.get(f"{case.path}/{answer.json()['id']}").status_code == 200, case.path
            if answer.status_code == 204 and case.path.rpartition("/")[0] in SHELVES:
                assert page.get(case.formatted_path).status_code == 404, case.formatted_path

        def validate_response(self, *_: Any, **__: Any) -> None:
            """It is held against the description where it is called."""

    # Each row is a run of its own: a run that repeats a row must find the ids of before, and they are drawn anew each time.
    # The first of a run is always the same shortest row, so a run has two.
    for row in range(rows):
        seed(start + row)(Row)
        Row.run(settings=settings(_settings(2), stateful_step_count=long))
    return seen, done
