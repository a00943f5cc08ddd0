"""The server itself: what saved promises, the page, headers, refusals."""

import json
import os
import signal
import subprocess
import sys
import time
import urllib.request
from contextlib import contextmanager
from functools import cache
from pathlib import Path
from tempfile import TemporaryDirectory

import pytest
from django.test import Client

from tests.ports import free_port

ROOT = Path(__file__).parents[2]
#: Seconds until an answer is given up: a slow machine is no fault.
PATIENCE = 60


@cache
def _empty():
    """A database in which nothing is yet, as it is made by `migrate`: made once, for all who need one."""
    with TemporaryDirectory() as folder:
        environment = {**os.environ, "IZETT_DATA": folder}
        environment.pop("DJANGO_SETTINGS_MODULE", None)
        subprocess.run(
            [sys.executable, "manage.py", "migrate", "--verbosity", "0"], cwd=ROOT, env=environment, check=True
        )
        return Path(folder, "studio.sqlite3").read_bytes()


def begun(folder):
    """A folder of work, with an empty database where it has none."""
    folder.mkdir(mode=0o700, parents=True, exist_ok=True)
    file = folder / "studio.sqlite3"
    if not file.exists():
        file.write_bytes(_empty())
    return folder


@contextmanager
def served(folder, port):
    """A server of its own with its own data; yields the process."""
    begun(folder)
    environment = {**os.environ, "IZETT_DATA": str(folder)}
    environment.pop("DJANGO_SETTINGS_MODULE", None)
    process = subprocess.Popen(
        [sys.executable, "manage.py", "serve", "--port", str(port)],
        cwd=ROOT,
        env=environment,
        stdout=subprocess.DEVNULL,
    )
    try:
        given_up = time.monotonic() + PATIENCE
        while time.monotonic() < given_up:
            try:
                urllib.request.urlopen(f"http://127.0.0.1:{port}/api/bench", timeout=1)
                break
            except OSError:
                time.sleep(0.1)
        yield process
    finally:
        process.kill()
        process.wait()


def call(port, method, path, body, headers=None):
    opener = urllib.request.build_opener()
    page = opener.open(f"http://127.0.0.1:{port}/", timeout=PATIENCE)
    cookie = page.headers["Set-Cookie"].split(";")[0]
    request = urllib.request.Request(
        f"http://127.0.0.1:{port}{path}",
        data=None if body is None else json.dumps(body).encode(),
        method=method,
        headers={
            "Content-Type": "application/json",
            "Cookie": cookie,
            "X-CSRFToken": cookie.split("=")[1],
            **(headers or {}),
        },
    )
    return json.load(opener.open(request, timeout=PATIENCE))


@pytest.mark.django_db
def test_the_database_keeps_a_log_and_waits_for_its_turn():
    from django.db import connection

    with connection.cursor() as cursor:
        assert cursor.execute("PRAGMA journal_mode").fetchone()[0] == "wal"
        assert cursor.execute("PRAGMA synchronous").fetchone()[0] == 2
        assert cursor.execute("PRAGMA foreign_keys").fetchone()[0] == 1


@pytest.mark.django_db
def test_a_change_without_the_pages_token_is_refused():
    strict = Client(enforce_csrf_checks=True)
    answer = strict.post("/api/wearers", data=json.dumps({"name": "x"}), content_type="application/json")
    assert answer.status_code == 403


@pytest.mark.django_db
def test_every_answer_carries_its_guards():
    answer = Client().get("/api/bench")
    assert "default-src 'self'" in answer["Content-Security-Policy"]
    assert answer["X-Frame-Options"] == "DENY"
    assert answer["X-Content-Type-Options"] == "nosniff"
    assert Client().get("/api/bench", headers={"Host": "example.com"}).status_code == 400


def test_any_address_but_the_loopback_is_refused():
    done = subprocess.run(
        [sys.executable, "manage.py", "check"],
        cwd=ROOT,
        env={**os.environ, "IZETT_HOST": "0.0.0.0"},
        capture_output=True,
        text=True,
        check=False,
    )
    assert done.returncode != 0
    assert "loopback address only" in done.stderr


@pytest.mark.django_db
def test_the_demo_fills_an_empty_studio_and_leaves_a_used_one_alone(page):
    from studio.demo import load

    load()
    tickets = page.get("/api/bench").json()
    assert len(tickets) == 10
    assert {t["standing"] for t in tickets} >= {
        "Muslin 2 on the table",
        "Muslin 1 on the table",
        "Drafted, no muslin yet",
    }
    for ticket in tickets:
        job = page.get(f"/api/jobs/{ticket['id']}").json()
        preview = page.preview(job)
        assert [c["words"] for c in preview["checks"] if c["verdict"] == "fails"] == []
        assert [s["failure"] for s in preview["stages"] if s["failure"]] == []
    load()
    assert len(page.get("/api/bench").json()) == 10


@pytest.mark.django_db
def test_a_wearer_of_the_demo_has_no_contradictory_measures(page):
    from studio.demo import CELLO, OBOE, VIOLA

    for readings, unit in ((VIOLA, "cm"), (CELLO, "in"), (OBOE, "cm")):
        review = page.post(
            "/api/measures/review", {"readings": {s: {"text": t, "unit": unit} for s, t in readings.items()}}
        ).json()
        assert review["contradictions"] == []
        assert [r for r in review["readings"] if r["error"] or r["remark"]] == []


#: The studio, with solvers at work in several threads aside.
SOLVING = """
import sys
from threading import Thread
from time import sleep
import django
django.setup()
from django.core.management import call_command
from scipy.optimize import linprog
from studio.management.commands import serve

def solve():
    sys.stdout.write("solving\\n")
    sys.stdout.flush()
    while True:
        linprog([-1.0, -1.0], A_ub=[[1.0, 2.0]], b_ub=[4.0], method="highs")

def warm():
    for _ in range(SOLVERS):
        Thread(target=solve, daemon=True).start()

class Slow:
    def __del__(self):
        sleep(0.2)

# Python's own end, where it comes to that, takes long enough for every solver to come back meanwhile.
slow = Slow()
serve._warm = warm
call_command("serve", port=PORT)
"""


def test_a_server_that_is_stopped_while_something_is_solved_aside_ends_well(tmp_path):
    solvers, port = 4, free_port()
    with subprocess.Popen(
        [sys.executable, "-c", SOLVING.replace("SOLVERS", str(solvers)).replace("PORT", str(port))],
        cwd=ROOT,
        env={**os.environ, "IZETT_DATA": str(begun(tmp_path / "work")), "DJANGO_SETTINGS_MODULE": "studio.settings"},
        stdout=subprocess.PIPE,
        stderr=subprocess.PIPE,
        text=True,
    ) as process:
        try:
            said = [process.stdout.readline() for _ in range(1 + solvers)]
            process.send_signal(signal.SIGTERM)
            assert process.wait(PATIENCE) == 0, process.stderr.read()
        finally:
            process.kill()
        assert said[1:] == ["solving\n"] * solvers
