"""Photos: made safe and small when they come in, kept as files beside the database, gone with what they belong to.

Nothing of what was sent is kept: the picture is decoded, turned upright, scaled and written anew as a JPEG without any
metadata, so that neither a place nor a hidden second file comes along. What would be large to decode is refused before.
"""

import os
import re
import shutil
from base64 import b64encode
from contextlib import suppress
from functools import partial
from io import BytesIO
from pathlib import Path
from typing import Any, NamedTuple
from uuid import UUID

from django.db import transaction
from django.db.models.signals import post_delete
from PIL import Image, ImageOps, UnidentifiedImageError

from studio.models import Photo
from studio.problems import Refusal, not_found
from studio.storage.guard import FILE, FOLDER, database

#: Bytes of a picture that is sent: a camera's largest, and of one that is kept.
LARGEST, LARGEST_KEPT = 25 * 2**20, 3 * 2**20
#: Pixels: the longer edge of what is kept; the longest edge and the area of what is decoded, by format.
LONG_EDGE, LONGEST_EDGE = 2000, 12_000
LARGEST_AREA = {"JPEG": 60_000_000, "PNG": 24_000_000, "WEBP": 24_000_000}
QUALITY = 85
#: Pixels of a swatch's edge: as large as it is looked at.
SWATCH = 320
FOLDER_NAME = "photos"
MEDIA = "image/jpeg"

#: What else is often sent, by what it begins with or has in its first bytes, and what to do then.
FOREIGN = (
    (
        b"ftyphei",
        "a HEIC picture",
        "Set the camera to “most compatible”, or save the picture as a JPEG, and send that.",
    ),
    (
        b"ftypmif",
        "a HEIC picture",
        "Set the camera to “most compatible”, or save the picture as a JPEG, and send that.",
    ),
    (b"ftypavif", "an AVIF picture", "Save it as a JPEG, and send that."),
    (b"ftyp", "a film", "Send a still picture of it: JPEG, PNG or WebP."),
    (b"<svg", "an SVG drawing", "Send a photo: JPEG, PNG or WebP."),
    (b"<?xml", "an SVG drawing", "Send a photo: JPEG, PNG or WebP."),
    (b"%PDF", "a PDF file", "Send the picture itself: JPEG, PNG or WebP."),
    (b"GIF8", "a GIF picture", "Save it as a JPEG or PNG, and send that."),
    (b"PK\x03\x04", "a ZIP archive", "Unpack it, and send one picture: JPEG, PNG or WebP."),
)
_HEAD = 64
#: Where a camera notes how it was held, and the notes by which width and height change places.
_ORIENTATION, _ON_ITS_SIDE = 0x0112, (5, 6, 7, 8)


class Taken(NamedTuple):
    """A photo as it is kept: a JPEG and its size in pixels."""

    jpeg: bytes
    width: int
    height: int


def made_safe(sent: bytes) -> Taken:
    """Return a picture as it is kept: upright, at most 2,000 px long, a JPEG without metadata.

    Raises:
        Refusal: it is too large, of another format, cut off or damaged; the message says what to send instead.
    """
    if len(sent) > LARGEST:
        raise _too_heavy(sent)
    picture = _opened(sent)
    try:
        # A JPEG is decoded at the scale that is needed, in a fraction of the memory.
        picture.draft("RGB", (LONG_EDGE, LONG_EDGE))
        picture.load()
        upright = ImageOps.exif_transpose(picture)
        upright.thumbnail((LONG_EDGE, LONG_EDGE), Image.Resampling.LANCZOS)
        plain = _on_white(upright)
    except (OSError, ValueError, SyntaxError, MemoryError, Image.DecompressionBombError, EOFError) as error:
        raise _refused(
            "The picture is cut off or damaged: it cannot be shown whole.", "Take it again, or send another copy of it."
        ) from error
    return Taken(_written(plain), *plain.size)


def swatch_of(sent: bytes) -> str:
    """Return a picture as a swatch: small, square as far as it goes, a JPEG in base64.

    Raises:
        Refusal: it is too large, of another format, cut off or damaged.
    """
    picture = Image.open(BytesIO(made_safe(sent).jpeg))
    small = ImageOps.fit(picture, (SWATCH, SWATCH), Image.Resampling.LANCZOS)
    return b64encode(_written(small)).decode("ascii")


def looked_at(sent: bytes) -> tuple[int, int]:
    """Return how wide and high (pixels) a picture is that was sent to be measured in, turned upright.

    Raises:
        Refusal: it is too large, or of another format.
    """
    if len(sent) > LARGEST:
        raise _too_heavy(sent)
    picture = _opened(sent)
    width, height = picture.size
    # The camera's note that it was held on its side swaps both.
    turned = picture.getexif().get(_ORIENTATION, 1) in _ON_ITS_SIDE
    return (height, width) if turned else (width, height)


def _too_heavy(sent: bytes) -> Refusal:
    return _refused(
        f"The picture has {len(sent) / 2**20:.0f} MB; at most {LARGEST / 2**20:.0f} MB are taken.",
        "Send it smaller: 4,000 pixels along its longer edge are plenty.",
    )


def _opened(sent: bytes) -> Image.Image:
    try:
        picture = Image.open(BytesIO(sent), formats=tuple(LARGEST_AREA))
    except Image.DecompressionBombError as error:
        raise _too_many_pixels("far too many") from error
    except (UnidentifiedImageError, OSError, ValueError, SyntaxError) as error:
        head = sent[:_HEAD].lstrip(b"\xef\xbb\xbf \r\n\t")
        for mark, name, instead in FOREIGN:
            if mark in head:
                raise _refused(f"This is {name}; photos are kept as JPEG, PNG or WebP.", instead) from error
        if not sent:
            raise _refused("The file is empty.", "Take the picture again.") from error
        raise _refused(
            "This is no picture that can be read, or it is damaged from its first bytes.", "Send a JPEG, PNG or WebP."
        ) from error
    width, height = picture.size
    if max(width, height) > LONGEST_EDGE or width * height > LARGEST_AREA[picture.format or "PNG"]:
        raise _too_many_pixels(f"{width:,} × {height:,}")
    return picture


def _too_many_pixels(count: str) -> Refusal:
    return _refused(
        f"The picture has {count} pixels: more than is decoded here.",
        "Send it smaller: 4,000 pixels along its longer edge are plenty.",
    )


def _on_white(picture: Image.Image) -> Image.Image:
    """Return a picture in plain colours; what was see-through is paper."""
    if picture.mode in ("RGBA", "LA", "PA", "P"):
        layered = picture.convert("RGBA")
        paper = Image.new("RGB", layered.size, "white")
        paper.paste(layered, mask=layered.getchannel("A"))
        return paper
    return picture.convert("RGB")


def _written(picture: Image.Image) -> bytes:
    stream = BytesIO()
    # Made from the bare pixels: nothing that hung on the picture can come along.
    bare = Image.frombytes("RGB", picture.size, picture.tobytes())
    bare.save(stream, "JPEG", quality=QUALITY, optimize=True)
    return stream.getvalue()


def judged(jpeg: bytes) -> Taken:
    """Return a photo out of a job's file, byte for byte; it must be one as they are kept.

    Raises:
        Refusal: it is none.
    """
    if len(jpeg) > LARGEST_KEPT or not _is_bare(jpeg):
        raise _refused("A photo in the file is none that was kept by this program.", "Take an undamaged copy.")
    picture = _opened(jpeg)
    if picture.format != "JPEG" or max(picture.size) > LONG_EDGE:
        raise _refused("A photo in the file is none that was kept by this program.", "Take an undamaged copy.")
    try:
        picture.load()
    except (OSError, ValueError, SyntaxError) as error:
        raise _refused("A photo in the file is cut off or damaged.", "Take an undamaged copy.") from error
    return Taken(jpeg, *picture.size)


#: Segments of a JPEG that carry the picture: tables, a frame, a scan, and the plain JFIF header. All others carry other things.
_PLAIN_SEGMENTS = {0xC0, 0xC4, 0xDB, 0xDD, 0xE0}
_BEGIN, _END, _SCAN = b"\xff\xd8", b"\xff\xd9", 0xDA
#: A marker within a scan that is neither a byte of it nor a restart.
_MARKER = re.compile(rb"\xff[^\x00\xd0-\xd7]")


def _is_bare(jpeg: bytes) -> bool:
    """Return whether a JPEG holds a picture and nothing else, from its first byte to its last."""
    if jpeg[:2] != _BEGIN or jpeg[-2:] != _END:
        return False
    at = 2
    while at + 4 <= len(jpeg) and jpeg[at] == 0xFF:
        after = at + 2 + int.from_bytes(jpeg[at + 2 : at + 4], "big")
        if jpeg[at + 1] == _SCAN:
            return _MARKER.search(jpeg, after, len(jpeg) - 2) is None
        if jpeg[at + 1] not in _PLAIN_SEGMENTS:
            return False
        at = after
    return False


def _refused(message: str, fix: str) -> Refusal:
    return Refusal(422, "photo-refused", message, fix=f"{fix} Nothing else was changed.")


def folder() -> Path:
    """Return the folder of the photos, beside the database."""
    return database().parent / FOLDER_NAME


def _file(uid: UUID) -> Path:
    return folder() / f"{uid}.jpg"


def keep(photo: Photo, jpeg: bytes) -> None:
    """Write the file of a photo; call within the transaction that adds it, which leaves no file behind where it fails."""
    folder().mkdir(mode=FOLDER, exist_ok=True)
    path = _file(photo.uid)
    path.write_bytes(jpeg)
    path.chmod(FILE)


def is_there(photo: Photo) -> bool:
    """Return whether the file of a photo is there: somebody may have moved it away."""
    return _file(photo.uid).exists()


def read(photo: Photo) -> bytes:
    """Return the file of a photo.

    Raises:
        Refusal: it is not there any more.
    """
    try:
        return _file(photo.uid).read_bytes()
    except OSError as error:
        raise not_found("photo") from error


def copy_to(place: Path) -> None:
    """Have all photos lie beside a backup too, as second names of the same files where the disk can do that."""
    _copied(folder(), place / FOLDER_NAME)


def copy_from(place: Path) -> None:
    """Bring back the photos that lie beside a backup; those that are here stay."""
    _copied(place / FOLDER_NAME, folder())


def _copied(of: Path, to: Path) -> None:
    if not of.is_dir():
        return
    to.mkdir(mode=FOLDER, parents=True, exist_ok=True)
    for path in of.glob("*.jpg"):
        if (there := to / path.name).exists():
            continue
        try:
            os.link(path, there)
        except OSError:
            shutil.copy2(path, there)


def sweep() -> None:
    """Delete files that belong to no photo: what was written when the program ended in the middle of it."""
    known = {_file(uid).name for uid in Photo.objects.values_list("uid", flat=True)}
    for path in folder().glob("*.jpg"):
        if path.name not in known:
            path.unlink(missing_ok=True)


def gone_with_its_row(instance: Photo, **_: Any) -> None:
    """Delete the file of a photo once its row is gone for good."""

    def unlink(path: Path) -> None:
        with suppress(OSError):
            path.unlink(missing_ok=True)

    transaction.on_commit(partial(unlink, _file(instance.uid)))


def watch() -> None:
    """Have files go with their rows."""
    post_delete.connect(gone_with_its_row, sender=Photo, dispatch_uid="photo-file")
