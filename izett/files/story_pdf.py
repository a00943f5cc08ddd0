"""The story on paper: muslin by muslin, with the photos beside what they show."""

from collections.abc import Callable
from datetime import datetime
from io import BytesIO

from izett.files.page import FAINT, HEAD, RIM, SMALL, SOFT, Page
from izett.files.pdf import POINTS_PER_CM
from izett.fitting.story import FindingTold, RoundTold, Story, forecast_told, in_hours
from izett.units import Unit
from izett.wording import cm

# Paper, in cm.
PHOTO = 3.6
INDENT = 0.5


def write_story(story: Story, *, photo: Callable[[str], bytes], paper: str = "a4", unit: Unit = Unit.CM) -> bytes:
    """Return the story as PDF.

    Args:
        story: the story.
        photo: returns the JPEG of a photo by its name.
        paper, unit: `a4` or `letter`; in which lengths are told.

    Raises:
        UnknownName: the paper is neither.
    """
    page = Page(f"The story of {story.garment}", paper, unit=unit)
    page.y -= 0.45
    page.text(RIM, page.y, story.garment, size=HEAD, bold=True)
    page.y -= 0.65
    about = [f"For {story.wearer}"]
    if story.due:
        about.append(f"due {story.due.day} {story.due:%b %Y}")
    if story.minutes:
        about.append(f"{in_hours(story.minutes)} of work noted")
    page.text(RIM, page.y, ", ".join(about) + ".", grey=SOFT)
    page.y -= 0.15
    for words in forecast_told(story.forecast, story.due) if story.forecast else ():
        page.words(words, grey=SOFT)
    if story.before:
        page.heading("Before the first muslin")
        for change in story.before:
            page.words(f"{_day(change.at)}  {change.why}")
    for told in story.rounds:
        _round(page, told, photo)
    return page.finish()


def _round(page: Page, told: RoundTold, photo: Callable[[str], bytes]) -> None:
    page.y -= 0.2
    page.heading(f"Muslin {told.number}", room=3.0)
    about = [f"cut {_day(told.opened)}"]
    about += [f"in {told.cloth}"] if told.cloth else []
    about += [f"worn over {told.worn}"] if told.worn else []
    about += [f"closed {_day(told.closed)}"] if told.closed else ["still on the table"]
    about += [in_hours(told.minutes)] if told.minutes else []
    about += [told.pins] if told.pins else []
    page.words(", ".join(about) + ".", grey=SOFT)
    if told.note:
        page.words(f"“{told.note}”")
    for finding in told.findings:
        _finding(page, finding, photo)
    if not told.findings:
        page.words("Nothing was found on it.", grey=SOFT)
    if told.changes:
        page.y -= 0.1
        page.words("Changed besides:", grey=SOFT)
        for change in told.changes:
            page.words(f"{_day(change.at)}  {change.why}", x=RIM + INDENT)
    if told.moved:
        page.y -= 0.1
        moved = ", ".join(f"{one.line} {cm(one.distance)}" for one in told.moved)
        page.words(f"Moved most since it was cut: {moved}.", grey=SOFT)


def _finding(page: Page, told: FindingTold, photo: Callable[[str], bytes]) -> None:
    page.room(1.4)
    page.y -= 0.5
    page.text(RIM, page.y, told.seen, bold=True)
    where = ", ".join(part for part in (told.half, *told.amounts, told.movement) if part)
    if where:
        page.words(where, x=RIM + INDENT, size=SMALL + 1, grey=SOFT)
    if told.words:
        page.words(f"“{told.words}”", x=RIM + INDENT)
    for words in told.done:
        page.words(words, x=RIM + INDENT)
    if told.left:
        page.words(told.left, x=RIM + INDENT, grey=SOFT)
    for number, outcome in told.proved:
        page.words(f"Muslin {number}: {outcome}.", x=RIM + INDENT, grey=FAINT)
    _photos(page, told.photos, photo)


def _photos(page: Page, names: tuple[str, ...], photo: Callable[[str], bytes]) -> None:
    from reportlab.lib.utils import ImageReader  # noqa: PLC0415  (it takes long to import)

    x = page.right
    for name in names:
        image = ImageReader(BytesIO(photo(name)))
        width, height = image.getSize()
        wide = PHOTO * width / height
        if x + wide > page.right:
            page.room(PHOTO + 0.3)
            page.y -= PHOTO + 0.25
            x = RIM + INDENT
        page.canvas.drawImage(image, *(v * POINTS_PER_CM for v in (x, page.y, wide, PHOTO)))
        x += wide + 0.3


def _day(at: datetime) -> str:
    return f"{at.day} {at:%b %Y}"
