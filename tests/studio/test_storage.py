"""The work on the disk: backups while others write, going back, what is deleted, a second server, a full disk."""

import json
import os
import shutil
import signal
import sqlite3
import subprocess
import sys
import urllib.error
import urllib.request
from concurrent.futures import ThreadPoolExecutor
from contextlib import closing, contextmanager, suppress
from http.client import HTTPException
from itertools import count
from random import Random
from time import sleep

import pytest

from tests.ports import free_port
from tests.studio.conftest import MIDDLING
from tests.studio.test_server import PATIENCE, ROOT, begun, call, served

pytestmark = pytest.mark.skipif(
    not (ROOT / "web" / "dist" / "index.html").exists(), reason="the page sets the CSRF cookie"
)
#: How often the server is killed.
KILLS = int(os.environ.get("IZETT_KILLS", "1"))
READINGS = {symbol: {"text": text} for symbol, text in MIDDLING.items()}


def manage(folder, *arguments, ok=True):
    """Run a command on a folder of work; return what it says."""
    environment = {**os.environ, "IZETT_DATA": str(folder)}
    environment.pop("DJANGO_SETTINGS_MODULE", None)
    command = [sys.executable, "manage.py", *map(str, arguments)]
    done = subprocess.run(
        command, cwd=ROOT, env=environment, capture_output=True, text=True, check=False, timeout=PATIENCE
    )
    assert (done.returncode == 0) == ok, done.stderr
    assert "Traceback" not in done.stderr
    return done.stdout + done.stderr


def opened(port, name="Odile Varn", garment="Recital bodice"):
    wearer = call(port, "POST", "/api/wearers", {"name": name, "note": f"words about {name}"})
    call(port, "POST", f"/api/wearers/{wearer['id']}/sheets", {"taken_on": "2026-11-20", "readings": READINGS})
    return wearer, call(port, "POST", "/api/jobs", {"wearer": wearer["id"], "garment": garment})


def saved(port, job, ease):
    recipe = {**job["recipe"], "overrides": {"bust_ease": ease}}
    path, version = f"/api/jobs/{job['id']}/recipe", {"If-Match": f'"{job["version"]}"'}
    return call(port, "PUT", path, {"recipe": recipe, "why": f"ease of {ease}"}, version)


def held(folder):
    """Everything that lies in a folder of work, as bytes."""
    return b"".join(path.read_bytes() for path in folder.rglob("*") if path.is_file())


def test_a_backup_made_while_others_write_has_every_deed_that_was_answered_before(tmp_path):
    work, restored = tmp_path / "work", tmp_path / "restored"
    port = free_port()
    with served(work, port):
        _, first = opened(port)
        jobs = [
            call(port, "POST", "/api/jobs", {"wearer": first["wearer"]["id"], "garment": f"G{n}"}) for n in range(4)
        ]

        def write(job):
            for n in range(8):
                job = saved(port, job, 4 + n / 10)
            return job

        with ThreadPoolExecutor(4) as hands:
            before = [saved(port, job, 3.5) for job in jobs]
            writing = [hands.submit(write, job) for job in before]
            told = manage(work, "backup")
            after = [one.result() for one in writing]
    (backup,) = (work / "backups").glob("izett-*.sqlite3")
    assert str(backup) in told
    assert (backup.stat().st_mode & 0o777, work.stat().st_mode & 0o777) == (0o600, 0o700)
    assert manage(restored, "restore", backup).startswith("Restored from")
    port = free_port()
    with served(restored, port):
        for job, last in zip(before, after, strict=True):
            found = call(port, "GET", f"/api/jobs/{job['id']}", None)
            assert job["version"] <= found["version"] <= last["version"]


def test_a_stopped_server_leaves_one_complete_file_and_restoring_keeps_what_it_replaces(tmp_path):
    work = tmp_path / "work"
    port = free_port()
    with served(work, port) as process:
        _, job = opened(port)
        backup = tmp_path / "first.sqlite3"
        manage(work, "backup", "--to", backup)
        job = saved(port, job, 7.5)
        process.send_signal(signal.SIGINT)
        assert process.wait(20) == 0
    # The single file, copied by itself, has the last answered deed.
    copy = shutil.copy(work / "studio.sqlite3", tmp_path / "copied.sqlite3")
    assert versions(copy) == [job["version"]] == [2]
    told = manage(work, "restore", backup)
    assert versions(work / "studio.sqlite3") == [1]
    (kept,) = (work / "backups").glob("before-restore-*.sqlite3")
    assert str(kept) in told
    assert versions(kept) == [2]


def versions(file):
    with closing(sqlite3.connect(file)) as database:
        return [version for (version,) in database.execute("SELECT version FROM studio_job")]


def test_what_is_no_backup_is_refused_and_nothing_is_changed(tmp_path):
    work = tmp_path / "work"
    begun(work)
    before = (work / "studio.sqlite3").read_bytes()
    damaged, foreign, newer = (tmp_path / f"{name}.sqlite3" for name in ("damaged", "foreign", "newer"))
    damaged.write_bytes(before[:5000] + bytes(3000) + before[8000:])
    with closing(sqlite3.connect(foreign)) as database:
        database.execute("CREATE TABLE a (b)")
    shutil.copy(work / "studio.sqlite3", newer)
    with closing(sqlite3.connect(newer)) as database, database:
        database.execute(
            "INSERT INTO django_migrations (app, name, applied) VALUES ('studio', '0099_later', '2027-01-01')"
        )
    assert "There is no file" in manage(work, "restore", tmp_path / "none", ok=False)
    assert "damaged" in manage(work, "restore", damaged, ok=False)
    assert "no backup of Izett" in manage(work, "restore", foreign, ok=False)
    assert "newer version of Izett (0099_later)" in manage(work, "restore", newer, ok=False)
    assert (work / "studio.sqlite3").read_bytes() == before
    # Nor does an older program open newer work.
    shutil.copy(newer, work / "studio.sqlite3")
    assert "newer version of Izett" in manage(work, "serve", "--port", free_port(), ok=False)
    assert "newer version of Izett" in manage(work, "demo", ok=False)


def written(port, jobs, hand, answered):
    """Save and add wearers without pause until the server is gone; note each deed that was answered."""
    with suppress(OSError, HTTPException, ValueError):
        for n in count():
            jobs[hand] = saved(port, jobs[hand], round(4 + n % 50 / 10, 1))
            answered.append(("job", jobs[hand]["id"], jobs[hand]["version"]))
            name = f"Hand {hand} of port {port}, {n}"
            answered.append(("wearer", call(port, "POST", "/api/wearers", {"name": name})["id"], name))


def missing(port, answered):
    """The answered deeds that a server does not have; of each job it may have the one that was under way besides."""
    wearers = {wearer["id"]: wearer["name"] for wearer in call(port, "GET", "/api/wearers", None)}
    latest = {uid: version for kind, uid, version in answered if kind == "job"}
    now = {uid: call(port, "GET", f"/api/jobs/{uid}", None)["version"] for uid in latest}
    lost = [uid for uid, version in latest.items() if now[uid] - version not in (0, 1)]
    return lost + [name for kind, uid, name in answered if kind == "wearer" and wearers.get(uid) != name]


def test_killed_in_the_middle_of_writes_it_has_every_deed_that_was_answered(tmp_path):
    """The sweep kills more often."""
    work, random, jobs, answered, lost = tmp_path / "work", Random(KILLS), [], [], []
    for n in range(KILLS + 1):
        port = free_port()
        with served(work, port) as process:
            lost += missing(port, answered)
            if n == KILLS:
                break
            if not jobs:
                jobs = [opened(port, f"Hand {hand}")[1] for hand in range(4)]
            # The first draft loads the solvers; the killer is let loose after it.
            now = [call(port, "GET", f"/api/jobs/{job['id']}", None) for job in jobs]
            jobs = [saved(port, job, round(3 + n % 10 / 10, 1)) for job in now]
            answered += [("job", job["id"], job["version"]) for job in jobs]
            with ThreadPoolExecutor(4) as hands:
                writing = [hands.submit(written, port, jobs, hand, answered) for hand in range(4)]
                while len(answered) < 10 * (n + 1):
                    sleep(0.05)
                sleep(random.uniform(0, 0.3))
                process.kill()
                [one.result() for one in writing]
        with closing(sqlite3.connect(work / "studio.sqlite3")) as database:
            assert database.execute("PRAGMA integrity_check").fetchone() == ("ok",)
    assert lost == []


def test_a_second_server_and_a_taken_port_are_told(tmp_path):
    port = free_port()
    with served(tmp_path / "work", port):
        told = manage(tmp_path / "work", "serve", "--port", free_port(), ok=False)
        assert f"http://127.0.0.1:{port}/" in told
        assert "Nothing is lost" in told
        told = manage(tmp_path / "work", "restore", tmp_path / "work" / "studio.sqlite3", ok=False)
        assert "open already" in told
        begun(tmp_path / "other")
        told = manage(tmp_path / "other", "serve", "--port", port, ok=False)
        assert f"port {port}" in told
        assert f"--port {port + 1}" in told


def test_after_a_deletion_nothing_of_the_wearer_is_found(tmp_path):
    port = free_port()
    with served(tmp_path / "work", port):
        opened(port, name="Ottoline Quarrendon")
        wearer, job = opened(port, name="Peregrine Vauxley", garment="Moth-grey tabard")
        saved(port, job, 6.25)
        path = f"/api/wearers/{wearer['id']}/under-way"
        call(port, "PUT", path, {"taken_on": "2026-11-20", "worn": "sealskin", "readings": {}})
        found = held(tmp_path / "work")
        for words in (b"Peregrine Vauxley", b"Moth-grey tabard", b"ease of 6.25", b"sealskin"):
            assert words in found
        assert delete(port, f"/api/jobs/{job['id']}") == 204
        found = held(tmp_path / "work")
        assert b"Moth-grey tabard" not in found
        assert b"ease of 6.25" not in found
        assert b"Peregrine Vauxley" in found
        assert delete(port, f"/api/wearers/{wearer['id']}") == 204
        found = held(tmp_path / "work")
        for words in (b"Peregrine Vauxley", b"sealskin", wearer["id"].replace("-", "").encode()):
            assert words not in found
        assert b"Ottoline Quarrendon" in found


def delete(port, path):
    page = urllib.request.urlopen(f"http://127.0.0.1:{port}/")
    cookie = page.headers["Set-Cookie"].split(";")[0]
    headers = {"Cookie": cookie, "X-CSRFToken": cookie.split("=")[1]}
    request = urllib.request.Request(f"http://127.0.0.1:{port}{path}", method="DELETE", headers=headers)
    return urllib.request.urlopen(request).status


def test_a_demo_that_was_killed_half_way_is_finished_at_the_next_start(tmp_path):
    work = tmp_path / "work"
    begun(work)
    environment = {**os.environ, "IZETT_DATA": str(work)}
    environment.pop("DJANGO_SETTINGS_MODULE", None)
    process = subprocess.Popen([sys.executable, "manage.py", "demo"], cwd=ROOT, env=environment)
    log = work / "studio.sqlite3-wal"
    for _ in range(400):
        if log.exists():
            break
        try:
            process.wait(0.02)
        except subprocess.TimeoutExpired:
            continue
    process.kill()
    process.wait()
    manage(work, "demo")
    jobs = sqlite3.connect(work / "studio.sqlite3").execute("SELECT count(*) FROM studio_job").fetchone()
    assert jobs == (10,)


@contextmanager
def small_disk(path, kilobytes):
    """A disk of a few kilobytes; where this machine lets nobody mount one, the test is passed over."""
    path.mkdir()
    mounted = subprocess.run(
        ["mount", "-t", "tmpfs", "-o", f"size={kilobytes}k", "tmpfs", str(path)], capture_output=True, check=False
    )
    if mounted.returncode:
        pytest.skip("nothing can be mounted here")
    try:
        yield path
    finally:
        subprocess.run(["umount", "-l", str(path)], check=False)


def test_on_a_full_disk_it_is_told_nothing_is_lost_and_it_goes_on_once_there_is_room(tmp_path):
    port = free_port()
    with small_disk(tmp_path / "disk", 1600) as disk, served(disk, port) as process:
        _, job = opened(port)
        job = saved(port, job, 5.5)
        (disk / "ballast").write_bytes(bytes(room(disk)))
        refused = None
        for n in range(200):
            try:
                job = saved(port, job, 4 + (n % 60) / 10)
            except urllib.error.HTTPError as error:
                refused = error.code, json.load(error)
                break
        assert refused is not None
        assert refused[0] == 507
        assert "disk is full" in refused[1]["detail"]
        assert call(port, "GET", f"/api/jobs/{job['id']}", None)["version"] == job["version"]
        assert len(call(port, "GET", "/api/bench", None)) == 1
        (disk / "ballast").unlink()
        again = saved(port, job, 8.0)
        assert again["version"] == job["version"] + 1
        process.send_signal(signal.SIGTERM)
        assert process.wait(20) == 0
        assert versions(disk / "studio.sqlite3") == [again["version"]]
        # Full at the start: it opens to be looked at.
        (disk / "ballast").write_bytes(bytes(room(disk)))
        port = free_port()
        with served(disk, port):
            assert call(port, "GET", "/api/keeping", None)["read_only"] is True
            assert len(call(port, "GET", "/api/bench", None)) == 1
            with pytest.raises(urllib.error.HTTPError) as read_only:
                saved(port, again, 9.0)
            assert read_only.value.code in (503, 507)
            assert "not saved" in json.load(read_only.value)["detail"]


def room(disk):
    found = os.statvfs(disk)
    return found.f_bavail * found.f_frsize
