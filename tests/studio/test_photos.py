"""Photos: made safe and small, kept beside the database, carried with the job, gone with the wearer; hostile ones are refused."""

import io
import json
import struct
import subprocess
import sys
import zlib
from time import process_time
from uuid import uuid4

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client
from PIL import Image

from studio.demo_photo import photo_of_a_pinch
from studio.models import Photo
from studio.storage import photos
from tests.studio.conftest import Page, problem

#: Seconds and MB within which a hostile picture is refused.
SECONDS, MEGABYTES = 2.0, 200


def found(page):
    return page.find(page.cut(page.job()))


def send(page, job, content, name=None, number=1):
    path = f"/api/jobs/{job['id']}/rounds/{number}/findings/finding-1/photos/{name or uuid4()}"
    headers = {"If-Match": f'"{job["version"]}"'}
    return page.client.post(path, {"file": SimpleUploadedFile("x.jpg", content)}, headers=headers)


def png(width, height, data=b"", text=b""):
    """Return a PNG that says a size, whatever is in it, with a compressed text before its picture."""

    def chunk(kind, body):
        return struct.pack(">I", len(body)) + kind + body + struct.pack(">I", zlib.crc32(kind + body))

    written = chunk(b"zTXt", b"x\0\0" + zlib.compress(text, 9)) if text else b""
    head = struct.pack(">IIBBBBB", width, height, 8, 2, 0, 0, 0)
    return b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", head) + written + chunk(b"IDAT", data) + chunk(b"IEND", b"")


def jpeg(size=(60, 40), **more):
    stream = io.BytesIO()
    Image.new("RGB", size, "beige").save(stream, "JPEG", **more)
    return stream.getvalue()


def exif(orientation):
    data = Image.Exif()
    data[0x0112] = orientation
    data[0x010E] = "taken at home, 52.1 N"
    return data


@pytest.mark.django_db
def test_a_photo_is_turned_upright_scaled_and_stripped_of_all_that_hung_on_it(page, kept_in):
    job = found(page)
    name = uuid4()
    sent = jpeg((3000, 1500), exif=exif(6), comment=b"secret")
    assert b"52.1 N" in sent
    answer = send(page, job, sent, name)
    assert answer.status_code == 201, answer.content
    (photo,) = answer.json()["rounds"][0]["findings"][0]["photos"]
    assert (photo["width"], photo["height"]) == (1000, 2000)
    shown = page.get(f"/api/photos/{name}")
    assert shown["Content-Type"] == "image/jpeg" and shown["X-Content-Type-Options"] == "nosniff"
    picture = Image.open(io.BytesIO(shown.content))
    assert picture.size == (1000, 2000) and not picture.getexif() and "comment" not in picture.info
    assert b"52.1 N" not in shown.content and b"secret" not in shown.content
    assert [path.name for path in kept_in.iterdir()] == [f"{name}.jpg"]
    # Sent twice it is kept once; what is see-through is paper.
    again = send(page, answer.json(), sent, name)
    assert len(again.json()["rounds"][0]["findings"][0]["photos"]) == 1
    clear = io.BytesIO()
    Image.new("RGBA", (8, 8), (255, 0, 0, 0)).save(clear, "PNG")
    made = photos.made_safe(clear.getvalue())
    assert Image.open(io.BytesIO(made.jpeg)).getpixel((4, 4)) == (255, 255, 255)


def hostile():
    bomb = zlib.compress(bytes(60_000_000), 9)
    cases = {
        "20,000 px": (png(20_000, 20_000, zlib.compress(b"")), "pixels"),
        "a bomb": (png(11_000, 11_000, bomb), "pixels"),
        "a bomb that says it is small": (png(3000, 3000, bomb[:2000]), "cut off or damaged"),
        "cut off": (jpeg((900, 900))[:-400], "cut off or damaged"),
        "cut off in its head": (jpeg()[:12], "no picture"),
        "nothing": (b"", "empty"),
        "an SVG": (b'<?xml version="1.0"?><svg xmlns="http://www.w3.org/2000/svg"><script/></svg>', "SVG"),
        "a PDF": (b"%PDF-1.7\n", "PDF"),
        "a GIF": (b"GIF89a" + bytes(30), "GIF"),
        "a ZIP": (b"PK\x03\x04" + bytes(30), "ZIP"),
        "HEIC": (b"\x00\x00\x00\x18ftypheic\x00\x00\x00\x00mif1heic" + bytes(60), "HEIC"),
        "AVIF": (b"\x00\x00\x00\x18ftypavif\x00\x00\x00\x00" + bytes(60), "AVIF"),
        "a page that calls itself a picture": (b"<html><script>alert(1)</script>", "no picture"),
        "too many bytes": (bytes(photos.LARGEST + 1), "MB"),
        "a text bomb": (png(10, 10, zlib.compress(bytes(310)), text=bytes(80_000_000)), "damaged"),
    }
    return [pytest.param(*case, id=name) for name, case in cases.items()]


@pytest.mark.django_db
@pytest.mark.parametrize(("content", "said"), hostile())
def test_a_hostile_picture_is_refused_in_words_and_nothing_is_kept(page, kept_in, content, said):
    job = found(page)
    began = process_time()
    body = problem(send(page, job, content), 422, "photo-refused")
    assert process_time() - began < SECONDS
    assert said in body["detail"] and "Nothing else was changed" in body["fix"]
    assert not list(kept_in.glob("*")) and not Photo.objects.exists()
    assert page.fresh(job)["version"] == job["version"]


def test_hostile_pictures_and_the_largest_that_is_taken_stay_within_their_memory(tmp_path):
    files = [*(case.values[0] for case in hostile()), jpeg((9000, 6600), progressive=True)]
    for at, content in enumerate(files):
        (tmp_path / f"{at}").write_bytes(content)
    script = (
        "import os, resource, sys; os.environ['DJANGO_SETTINGS_MODULE'] = 'studio.settings'\n"
        "import django; django.setup()\n"
        "from pathlib import Path; from studio.problems import Refusal; from studio.storage import photos\n"
        "before = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss; taken = 0\n"
        "for path in sorted(Path(sys.argv[1]).iterdir(), key=lambda p: int(p.name)):\n"
        "    try: photos.made_safe(path.read_bytes()); taken += 1\n"
        "    except Refusal: pass\n"
        "print(taken, resource.getrusage(resource.RUSAGE_SELF).ru_maxrss - before)"
    )
    done = subprocess.run([sys.executable, "-c", script, str(tmp_path)], capture_output=True, text=True, check=True)
    taken, kilobytes = map(int, done.stdout.split())
    assert taken == 1
    assert kilobytes / 1024 < MEGABYTES


def test_a_picture_that_is_also_something_else_loses_that(kept_in):
    hidden = jpeg() + b"PK\x03\x04" + b"<script>alert(1)</script>"
    made = photos.made_safe(hidden)
    assert b"script" not in made.jpeg
    assert photos.judged(made.jpeg).jpeg == made.jpeg
    for odd in (hidden, jpeg(exif=exif(1)), jpeg(comment=b"x"), made.jpeg[:-200], photo_of_a_pinch(), b""):
        with pytest.raises(Exception, match="photo in the file"):
            photos.judged(odd)


@pytest.mark.django_db
def test_a_photo_goes_with_its_wearer_and_a_closed_muslin_keeps_its_own(
    page, kept_in, django_capture_on_commit_callbacks
):
    job = send(page, found(page), photo_of_a_pinch()).json()
    (photo,) = job["rounds"][0]["findings"][0]["photos"]
    closed = page.close(job)
    body = page.send(
        "delete", f"/api/jobs/{job['id']}/rounds/1/findings/finding-1/photos/{photo['uid']}", {}, closed["version"]
    )
    problem(body, 409, "round-closed")
    assert len(list(kept_in.iterdir())) == 1
    with django_capture_on_commit_callbacks(execute=True):
        page.client.delete(f"/api/wearers/{job['wearer']['id']}")
    assert not list(kept_in.iterdir()) and not Photo.objects.exists()
    assert page.get(f"/api/photos/{photo['uid']}").status_code == 404


@pytest.mark.django_db
def test_too_many_photos_are_refused_and_one_is_deleted_for_good(page, kept_in, django_capture_on_commit_callbacks):
    job = found(page)
    small = jpeg()
    for _ in range(6):
        job = send(page, job, small).json()
    problem(send(page, job, small), 409, "too-many")
    uid = job["rounds"][0]["findings"][0]["photos"][0]["uid"]
    with django_capture_on_commit_callbacks(execute=True):
        answer = page.send(
            "delete", f"/api/jobs/{job['id']}/rounds/1/findings/finding-1/photos/{uid}", {}, job["version"]
        )
    assert answer.status_code == 200 and len(list(kept_in.iterdir())) == 5


@pytest.mark.django_db
def test_a_file_without_a_photo_is_swept_and_one_with_it_stays(page, kept_in):
    send(page, found(page), jpeg())
    (kept_in / f"{uuid4()}.jpg").write_bytes(b"left over")
    photos.sweep()
    assert [path.stem for path in kept_in.iterdir()] == [str(Photo.objects.get().uid)]


@pytest.mark.django_db
@pytest.mark.parametrize("spoil", ["base64", "with exif", "html"])
def test_a_job_file_with_a_photo_that_is_none_of_ours_adds_nothing(page, kept_in, spoil):
    from base64 import b64encode

    job = send(page, found(page), jpeg()).json()
    document = json.loads(page.get(f"/api/jobs/{job['id']}/export").content)
    bad = {"base64": "%%%", "with exif": b64encode(jpeg(exif=exif(1))).decode(), "html": b64encode(b"<html>").decode()}
    document["rounds"][0]["findings"][0]["photos"][0]["jpeg"] = bad[spoil]
    answer = Client().post("/api/jobs/import", {"file": SimpleUploadedFile("j.json", json.dumps(document).encode())})
    assert answer.status_code == 422 and "othing was added" in answer.json()["fix"]
    assert Photo.objects.count() == 1 and isinstance(page, Page)
