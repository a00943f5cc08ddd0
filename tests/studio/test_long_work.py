"""Long work: a place on the server, with progress, a stop, and a result that outlives the page and the server."""

import json
import os
import signal
import time
import urllib.request
from contextlib import suppress
from pathlib import Path

import pytest

from studio.long_work import desk
from studio.models import Work
from tests.ports import free_port
from tests.studio.conftest import MIDDLING
from tests.studio.test_server import PATIENCE, ROOT, call, served

READINGS = {symbol: {"text": text} for symbol, text in MIDDLING.items()}
built = pytest.mark.skipif(not (ROOT / "web" / "dist" / "index.html").exists(), reason="the page sets the CSRF cookie")


def test_what_was_worked_out_is_there_when_it_is_asked_again(page):
    wearer = page.wearer()
    first = page.advice(wearer, READINGS, uid="a").json()
    assert first["state"] == "done" and first["result"]["next"]
    again = page.advice(wearer, READINGS, uid="b").json()
    assert again == first
    assert page.get("/api/long-work/a").json() == first


def test_work_that_is_deleted_with_its_wearer_is_no_error_to_a_page_that_still_asks(page):
    wearer = page.wearer()
    page.advice(wearer, READINGS, uid="a")
    page.client.delete(f"/api/wearers/{wearer['id']}")
    assert not Work.objects.exists()
    assert page.get("/api/long-work/a").status_code == 204
    assert page.post("/api/long-work/a/stop").status_code == 204


def test_a_new_question_in_the_same_place_takes_the_place_of_the_old(page):
    wearer = page.wearer()
    page.advice(wearer, READINGS, uid="a")
    other = page.advice(wearer, {**READINGS, "bust_girth": {"text": "96"}}, uid="b").json()
    assert other["uid"] == "b"
    assert [work.uid for work in Work.objects.all()] == ["b"]


def test_work_that_is_stopped_stays_stopped_and_says_how_far_it_came(page, monkeypatch):
    monkeypatch.setattr(desk, "TELL_EVERY", 0)
    stopped = []

    def stopping(question, progress):
        progress(1, 9)
        stopped.append(page.post("/api/long-work/a/stop").json())
        progress(2, 9)
        raise AssertionError("it went on")

    monkeypatch.setattr(desk, "KINDS", {"advice": _kind(stopping)})
    work = page.advice(page.wearer(), READINGS, uid="a").json()
    assert (work["state"], work["done"], work["of"]) == ("stopped", 1, 9)
    assert stopped[0]["state"] == "stopped"
    assert page.post("/api/long-work/a/stop").json()["state"] == "stopped"


def test_what_breaks_in_the_work_is_told_and_can_be_started_again(page, monkeypatch):
    def broken(question, progress):
        raise ZeroDivisionError("by nothing")

    kinds = desk.KINDS
    monkeypatch.setattr(desk, "KINDS", {"advice": _kind(broken)})
    wearer = page.wearer()
    work = page.advice(wearer, READINGS, uid="a").json()
    assert work["state"] == "failed" and "ZeroDivisionError" in work["problem"]["message"] and work["problem"]["fix"]
    monkeypatch.setattr(desk, "KINDS", kinds)
    assert page.advice(wearer, READINGS, uid="b").json()["state"] == "done"


def test_work_of_an_earlier_run_of_the_server_does_not_seem_to_go_on_for_ever(page):
    wearer = page.wearer()
    page.advice(wearer, READINGS, uid="a")
    Work.objects.update(state=Work.RUNNING, run="an earlier one", result=None)
    work = page.get("/api/long-work/a").json()
    assert work["state"] == "failed" and work["problem"]["code"] == "work-lost"


def test_work_goes_with_the_wearer_whom_it_was_for(page):
    wearer = page.wearer()
    page.advice(wearer, READINGS)
    page.client.delete(f"/api/wearers/{wearer['id']}")
    assert not Work.objects.exists()


def _kind(work):
    return desk.KINDS["advice"].__class__("advice", "Advice", desk.KINDS["advice"].question, work)


@built
def test_work_is_done_beside_the_server_and_is_begun_anew_when_its_process_dies(tmp_path):
    port = free_port()
    with served(tmp_path, port) as server:
        wearer = call(port, "POST", "/api/wearers", {"name": "Odile Varn"})

        def ask(uid, bust):
            readings = {**READINGS, "bust_girth": {"text": bust}}
            return call(
                port, "POST", "/api/measures/advice", {"uid": uid, "wearer": wearer["id"], "readings": readings}
            )

        assert ask("first", "92")["state"] in ("waiting", "running")
        assert ended(port, "first")["result"]["next"]
        (worker,) = children(server.pid)
        os.kill(worker, signal.SIGSTOP)  # held still, so that it is certainly at work when it is killed
        ask("second", "93")
        os.kill(worker, signal.SIGKILL)
        assert ended(port, "second")["problem"]["code"] == "work-failed"
        assert ask("third", "94")["state"] in ("waiting", "running")
        assert ended(port, "third")["state"] == "done"
        (worker,) = children(server.pid)
        # Work that takes no notice of being stopped is ended with its process.
        os.kill(worker, signal.SIGSTOP)
        ask("fourth", "95")
        assert call(port, "POST", "/api/long-work/fourth/stop", {})["state"] == "stopped"
        ask("fifth", "96")
        assert ended(port, "fifth")["state"] == "done"
        (worker,) = children(server.pid)
    assert gone(worker)
    with served(tmp_path, port := free_port()):
        assert ended(port, "fifth")["result"]["next"], "a result outlives the server"


def ended(port, uid, patience=60):
    for _ in range(patience * 20):
        work = json.load(urllib.request.urlopen(f"http://127.0.0.1:{port}/api/long-work/{uid}", timeout=PATIENCE))
        if work["state"] not in ("waiting", "running"):
            return work
        time.sleep(0.05)
    raise AssertionError(f"{uid} did not end: {work}")


def children(parent):
    found = []
    for task in Path(f"/proc/{parent}/task").iterdir():
        # A thread may end between being listed and being read: its children are another's then.
        with suppress(FileNotFoundError, ProcessLookupError):
            found += [int(child) for child in (task / "children").read_text().split()]
    return found


def gone(process, patience=10):
    for _ in range(patience * 10):
        try:
            state = Path(f"/proc/{process}/stat").read_text().split()[2]
        except (FileNotFoundError, ProcessLookupError):
            return True
        if state == "Z":
            return True
        time.sleep(0.1)
    return False
