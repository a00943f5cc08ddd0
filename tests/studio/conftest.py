"""A studio with a wearer, a client that speaks as the page does."""

import json

import pytest
from django.test import Client

from studio.storage import photos

MIDDLING = {"bust_girth": "92", "waist_girth": "29 1/8 in", "height": "168", "high_bust_girth": "87"}


class Page:
    """The page's side: JSON in and out, versions sent with every change."""

    def __init__(self, client):
        self.client = client

    def get(self, path, **more):
        return self.client.get(path, **more)

    def send(self, method, path, body=None, version=None):
        headers = {"If-Match": f'"{version}"'} if version is not None else {}
        return getattr(self.client, method)(
            path, data=json.dumps(body or {}), content_type="application/json", headers=headers
        )

    def post(self, path, body=None, version=None):
        return self.send("post", path, body, version)

    def put(self, path, body=None, version=None):
        return self.send("put", path, body, version)

    def wearer(self, name="Odile Varn", readings=None):
        wearer = self.post("/api/wearers", {"name": name}).json()
        sheet = {
            "taken_on": "2026-11-20",
            "readings": {s: {"text": t, "unit": "cm"} for s, t in (readings or MIDDLING).items()},
        }
        answer = self.post(f"/api/wearers/{wearer['id']}/sheets", sheet)
        assert answer.status_code == 201, answer.content
        return wearer

    def job(self, wearer=None, garment="Recital bodice"):
        wearer = wearer or self.wearer()
        answer = self.post("/api/jobs", {"wearer": wearer["id"], "garment": garment, "due": "2027-01-15"})
        assert answer.status_code == 201, answer.content
        return answer.json()

    def fresh(self, job):
        return self.get(f"/api/jobs/{job['id']}").json()

    def cut(self, job):
        answer = self.post(f"/api/jobs/{job['id']}/rounds", {"cloth": "calico"}, job["version"])
        assert answer.status_code == 201, answer.content
        return answer.json()

    def find(self, job, number=1, kind="waist_low", uid="finding-1", **more):
        body = {"uid": uid, "kind": kind, **more}
        answer = self.post(f"/api/jobs/{job['id']}/rounds/{number}/findings", body, job["version"])
        assert answer.status_code == 201, answer.content
        return answer.json()

    def fix(self, job, number=1, uid="finding-1", remedy="shorten", uids=("step-1",)):
        path = f"/api/jobs/{job['id']}/rounds/{number}/findings/{uid}/remedy"
        answer = self.post(path, {"remedy": remedy, "uids": list(uids)}, job["version"])
        assert answer.status_code == 200, answer.content
        return answer.json()

    def close(self, job, number=1, note=""):
        answer = self.post(f"/api/jobs/{job['id']}/rounds/{number}/close", {"note": note}, job["version"])
        assert answer.status_code == 200, answer.content
        return answer.json()

    def advice(self, wearer, readings, job=None, uid="advice-1"):
        body = {"uid": uid, "wearer": wearer["id"], "readings": readings, "job": job and job["id"]}
        return self.post("/api/measures/advice", body)

    def preview(self, job, **more):
        body = {"sheet": job["sheet"]["id"], "recipe": job["recipe"], "job": job["id"], **more}
        answer = self.post("/api/preview", body)
        assert answer.status_code == 200, answer.content
        return answer.json()


@pytest.fixture(autouse=True)
def done_here(settings):
    # What is open in a test's transaction no other process and no other thread sees.
    settings.LONG_WORK_HERE = True


@pytest.fixture(autouse=True)
def kept_in(tmp_path, monkeypatch):
    """Keep the photos of a test in a folder of its own; return it."""
    monkeypatch.setattr(photos, "folder", lambda: tmp_path / "photos")
    return tmp_path / "photos"


@pytest.fixture
def page(db):
    return Page(Client())


def problem(answer, status, code):
    """Assert that an answer is a problem of that kind; return its body."""
    assert answer.status_code == status, answer.content
    assert answer["Content-Type"] == "application/problem+json"
    body = answer.json()
    assert body["type"] == f"urn:izett:problem:{code}"
    assert body["status"] == status
    assert body["detail"] and body["fix"]
    return body
