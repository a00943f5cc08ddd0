"""The plotter's queue through the API: sent, watched, stopped, taken off, gone with the wearer."""

from datetime import timedelta

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.utils.timezone import now

from studio import plotting
from studio.actions import plot as deeds
from studio.limits import MOST_PLOTS
from tests.studio.conftest import problem

#: Some five minutes of a pen's work, and some seconds.
LONG = b"IN;SP1;PU0,0;PD4000000,0,0,0;PU;"
SHORT = b"IN;SP1;PU0,0;PD4000,0;PU;"


@pytest.fixture
def clock(monkeypatch):
    """A clock that stands until it is put on."""

    class Clock:
        at = now()

        def on(self, seconds):
            self.at += timedelta(seconds=seconds)

    clock = Clock()
    for module in (plotting, deeds):
        monkeypatch.setattr(module, "now", lambda: clock.at)
    return clock


def send(page, content, name="nest.plt"):
    return page.client.post("/api/plotter/plots", {"file": SimpleUploadedFile(name, content)})


def stands(page):
    return [one["state"] for one in page.get("/api/plotter").json()["queue"]]


def picture(page, plot, seconds):
    return page.get(f"/api/plotter/plots/{plot}/picture?seconds={seconds}").content.decode()


def test_plots_are_drawn_one_after_another_and_the_one_at_work_can_be_stopped(page, clock):
    first = send(page, LONG).json()["queue"][0]
    assert first["name"] == "nest.plt" and first["length"] == 10_000
    clock.on(1)
    send(page, SHORT)
    second = send(page, SHORT).json()["queue"][2]
    assert stands(page) == ["plotting", "waiting", "waiting"]
    clock.on(20)
    drawn = page.get("/api/plotter").json()["queue"][0]["drawn"]
    assert drawn == pytest.approx(21)
    # Nobody sees further than the pen has come.
    assert picture(page, first["id"], 21) == picture(page, first["id"], 1e6)
    assert picture(page, first["id"], 10) != picture(page, first["id"], 21)
    problem(page.send("delete", f"/api/plotter/plots/{first['id']}"), 409, "plotting")
    stopped = page.post(f"/api/plotter/plots/{first['id']}/stop", {}).json()["queue"]
    assert [one["state"] for one in stopped] == ["stopped", "plotting", "waiting"]
    assert stopped[0]["drawn"] == pytest.approx(21)
    # A stopped plot stays as far as it was, whatever the clock says, and leaves the queue without moving the others.
    clock.on(1)
    at_work = page.get("/api/plotter").json()["queue"][1]
    left = page.send("delete", f"/api/plotter/plots/{first['id']}").json()["queue"]
    assert left[0] == at_work
    page.post(f"/api/plotter/plots/{second['id']}/stop", {})
    clock.on(600)
    assert stands(page) == ["done", "stopped"]
    assert page.post(f"/api/plotter/plots/{left[0]['id']}/stop", {}).json()["queue"][0]["state"] == "done"
    assert page.get(f"/api/plotter/plots/{left[0]['id']}/file").content == SHORT
    problem(page.get(f"/api/plotter/plots/{first['id']}/file"), 404, "not-found")
    problem(page.get(f"/api/plotter/plots/{first['id']}/picture"), 404, "not-found")


def test_a_jobs_pattern_is_plotted_and_goes_with_its_wearer(page):
    job = page.job()
    queue = page.post(f"/api/jobs/{job['id']}/plots", {}).json()["queue"]
    assert len(queue) == 1 and queue[0]["name"].startswith(job["garment"]) and queue[0]["off_the_roll"] == 0
    assert queue[0]["state"] == "plotting" and 40 < queue[0]["length"] < 400
    page.send("delete", f"/api/wearers/{job['wearer']['id']}")
    assert page.get("/api/plotter").json()["queue"] == []


@pytest.mark.parametrize("content", [b"\x89PNG", b"IN;SP1;PG;", b"IN;PD1,2,3;"])
def test_what_is_no_plot_file_is_refused_and_the_queue_stands(page, content):
    send(page, SHORT)
    assert problem(send(page, content), 422, "unreadable-file")["fix"]
    assert len(stands(page)) == 1


def test_a_full_queue_is_told(page):
    for _ in range(MOST_PLOTS):
        assert send(page, SHORT).status_code == 201
    problem(send(page, SHORT), 409, "too-many")
    assert len(stands(page)) == MOST_PLOTS
