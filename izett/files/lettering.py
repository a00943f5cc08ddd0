"""Letters on paper: every name in its own script, with the letters embedded.

Plain Latin is set in the face that every reader of PDF files has. What it has not is set in Noto Sans (Latin, Greek,
Cyrillic), or in Noto Sans SC (Han characters as in GB 2312 and Big5, kana), cut down to what is named here, under the SIL
Open Font License.
"""

from collections.abc import Iterator
from functools import cache
from itertools import groupby
from pathlib import Path
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from reportlab.pdfgen.canvas import Canvas

FONTS = Path(__file__).with_name("fonts")
PLAIN, PLAIN_BOLD = "Helvetica", "Helvetica-Bold"
#: The encoding of the plain face.
PLAIN_LETTERS = "cp1252"


@cache
def _face(name: str) -> frozenset[int]:
    """Make a face known to the writer of PDF files; return the letters that it has."""
    # The library takes long to import, and a face to read: only who needs one waits for it.
    from reportlab.pdfbase.pdfmetrics import registerFont  # noqa: PLC0415
    from reportlab.pdfbase.ttfonts import TTFont  # noqa: PLC0415

    font = TTFont(name, str(FONTS / f"{name}.ttf"))
    registerFont(font)
    return frozenset(font.face.charToGlyph)


def _face_of(letter: str, *, bold: bool) -> str:
    try:
        letter.encode(PLAIN_LETTERS)
        return PLAIN_BOLD if bold else PLAIN
    except UnicodeEncodeError:
        own = "NotoSans-Bold" if bold else "NotoSans-Regular"
        return own if ord(letter) in _face(own) else "NotoSansSC-Subset"


def runs(text: str, *, bold: bool = False) -> Iterator[tuple[str, str]]:
    """Yield a text in runs of one face each, with the face's name; a letter that no face has stays as an empty box."""
    for face, letters in groupby(text, key=lambda letter: _face_of(letter, bold=bold)):
        if face not in (PLAIN, PLAIN_BOLD):
            _face(face)
        yield face, "".join(letters)


def write(canvas: "Canvas", place: tuple[float, float], text: str, *, size: float, bold: bool = False) -> None:
    """Write a line of text from a place on, all in points."""
    from reportlab.pdfbase.pdfmetrics import stringWidth  # noqa: PLC0415  (as above)

    x, y = place
    for face, letters in runs(text, bold=bold):
        canvas.setFont(face, size)
        canvas.drawString(x, y, letters)
        x += stringWidth(letters, face, size)
