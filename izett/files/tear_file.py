"""The tear list on paper and as open JSON, and the form's lengths and widths as CSV.

The table's heading is `panel,kind,length,width,train,hangs`; only panel, length and width are needed. Lengths are cm unless
its first row says `# unit=in`; `# muslin=150` says how wide the muslin is.
"""

import json
from collections.abc import Mapping
from dataclasses import dataclass

from izett.draping.panel import name_of
from izett.draping.tearing import Measured, TearList, ToDrape, kinds, session
from izett.errors import UnreadableFile
from izett.files.measures_csv import delimiter, unit_of
from izett.files.page import HEAD, RIM, RULE, SMALL, SOFT, TEXT, Page
from izett.files.reading import read_rows
from izett.units import Unit, UnreadableLength, read_length
from izett.wording import cm

#: cm. Muslin as it is mostly sold, where the table does not say.
USUAL_MUSLIN = 150.0
_PATTERN = "panel,kind,length,width,train"
#: Names by which a whole front or back is meant, where the table gives no kind.
_WHOLE = ("front", "back")


@dataclass(frozen=True, slots=True)
class FormRead:
    """A form's lengths and widths, panel by panel, and how wide the muslin is, cm."""

    panels: tuple[Measured, ...]
    muslin: float


def read_form(text: str, *, unit: Unit = Unit.CM) -> FormRead:
    """Return what was measured on the form.

    Args:
        text: the table.
        unit: what lengths without a unit are in where the table does not say so.

    Raises:
        UnreadableFile: a row cannot be read; the message says which.
    """
    muslin, columns = USUAL_MUSLIN, None
    found: list[Measured] = []
    for number, cells in enumerate(read_rows(text, delimiter(text)), 1):
        if not any(cells):
            continue
        if cells[0].startswith("#"):
            key, _, value = " ".join(cells).lstrip("# ").partition("=")
            if key.strip().lower() == "unit":
                unit = unit_of(value) or unit
            elif key.strip().lower() == "muslin":
                muslin = _length(number, "muslin", value, unit)
        elif columns is None:
            columns = {cell.strip().lower(): at for at, cell in enumerate(cells)}
            missing = [name for name in ("panel", "length", "width") if name not in columns]
            if missing:
                raise UnreadableFile(f"The table has no column “{missing[0]}”.", fix=f"Its heading is {_PATTERN}.")
        else:
            found.append(_row(number, cells, columns, unit))
    if not found:
        raise UnreadableFile(
            "There is no panel in the table.", fix=f"Its heading is {_PATTERN}, then a row for each panel."
        )
    return FormRead(tuple(found), muslin)


def _row(number: int, cells: list[str], columns: Mapping[str, int], unit: Unit) -> Measured:
    def cell(name: str) -> str:
        at = columns.get(name, len(cells))
        return cells[at].strip() if at < len(cells) else ""

    title = cell("panel")
    if not title:
        raise UnreadableFile(f"Row {number} names no panel.", fix="Write the panel in the first column of each row.")
    words = title.lower().replace("_", " ")
    kind = cell("kind").lower() or ("whole" if words in _WHOLE else "panel")
    if kind not in kinds():
        raise UnreadableFile(f"Row {number}: “{kind[:20]}” is no kind of block.", fix=f"Write {', '.join(kinds())}.")
    hangs = cell("hangs").lower() or ("balance" if "side" in words else "centre")
    panel = ToDrape(name_of(title), title, kind, hangs, bust=cell("bust").lower() not in ("no", "0", "false"))
    train = cell("train")
    return Measured(
        panel,
        _length(number, "length", cell("length"), unit),
        _length(number, "width", cell("width"), unit),
        _length(number, "train", train, unit) if train else 0.0,
    )


def _length(number: int, column: str, text: str, unit: Unit) -> float:
    try:
        return read_length(text.strip(), unit=unit).cm
    except UnreadableLength as error:
        raise UnreadableFile(
            f"Row {number}, {column}: “{text[:20]}” is not a length.", fix="Write a number, as 42.5 or 16 3/4 in."
        ) from error


def write_tear_json(found: TearList) -> str:
    """Return a tear list as `izett-tear`: strips in the order of tearing, lengths in cm."""
    return (
        json.dumps(
            {
                "format": "izett-tear",
                "version": 1,
                "unit": "cm",
                "muslin": {
                    "width": found.muslin,
                    "usable": found.usable,
                    "length": found.length,
                    "bought": found.bought,
                },
                "strips": [
                    {
                        "length": strip.length,
                        "left": strip.left,
                        "blocks": [
                            {
                                "panel": block.panel.key,
                                "title": block.panel.title,
                                "kind": block.panel.kind,
                                "warp": block.warp,
                                "weft": block.weft,
                                "allowance": block.allowance,
                                "guides": [
                                    {
                                        "line": guide.what,
                                        "runs": "along" if guide.along else "across",
                                        "from": "left" if guide.along else "top",
                                        "at": guide.at,
                                    }
                                    for guide in block.guides
                                ],
                            }
                            for block in strip.blocks
                        ],
                    }
                    for strip in found.strips
                ],
            },
            indent=1,
        )
        + "\n"
    )


def write_tear_pdf(
    found: TearList, *, title: str = "Tear list", tape: tuple[str, ...] = (), paper: str = "a4", unit: Unit = Unit.CM
) -> bytes:
    """Return a tear list on paper: what to tape, the blocks to tick off, the muslin as it is torn, the session's steps.

    Raises:
        UnknownName: the paper is neither `a4` nor `letter`.
    """
    page = Page(title, paper, (), unit)
    page.y -= 0.45
    page.text(RIM, page.y, title, size=HEAD, bold=True)
    page.y -= 0.5
    page.words(
        f"Muslin {cm(found.muslin)} wide, {cm(found.usable)} without its selvedges: {cm(found.length)} of it, bought as {cm(found.bought)}."
    )
    if tape:
        page.heading("Tape on the form")
        for line in tape:
            _tick(page, line)
    page.heading("Tear, in this order")
    for number, strip in enumerate(found.strips, 1):
        page.room(1.2 + 0.9 * len(strip.blocks))
        page.words(f"{number}. Tear across, {cm(strip.length)} from the end; then along the warp:")
        for block in strip.blocks:
            guides = "; ".join(
                f"{guide.what} {cm(guide.at)} from the {'left edge' if guide.along else 'top'}"
                for guide in block.guides
            )
            _tick(
                page,
                f"{block.panel.title}: {cm(block.warp)} long (warp) × {cm(block.weft)} wide. Draw: {guides}.",
                x=RIM + 0.6,
            )
        if strip.left > SELDOM_LEFT:
            page.words(f"{cm(strip.left)} is left beside them.", x=RIM + 0.6, size=SMALL + 0.8, grey=SOFT)
    _drawn(page, found)
    part = ""
    for step in session():
        if step.part != part:
            part = step.part
            page.heading(part)
        _tick(page, step.does, step.watch)
    return page.finish()


#: cm. Less muslin beside the blocks of a strip is not worth a word.
SELDOM_LEFT = 1.0
BOX = 0.3
#: cm of paper: the muslin is drawn no larger.
WIDEST, TALLEST = 9.0, 11.0


def _tick(page: Page, words: str, watch: str = "", *, x: float = RIM) -> None:
    """Write words beside a box to tick, and what to watch under them."""
    page.room(0.7)
    page.y -= 0.08
    top = page.y - 0.12
    page.line([(x, top), (x + BOX, top), (x + BOX, top - BOX), (x, top - BOX), (x, top)], width=0.6, grey=SOFT)
    page.words(words, x=x + 0.55, size=TEXT)
    if watch:
        page.words(watch, x=x + 0.55, size=SMALL + 0.8, grey=SOFT)


def _drawn(page: Page, found: TearList) -> None:
    """Draw the muslin to scale with its strips and blocks."""
    scale = min(WIDEST / found.muslin, TALLEST / found.length)
    page.heading("The muslin", room=found.length * scale + 1.2)
    left, top = RIM, page.y - 0.2
    across = found.muslin * scale
    y = top
    margin = (found.muslin - found.usable) / 2 * scale
    for number, strip in enumerate(found.strips, 1):
        low, x = y - strip.length * scale, left + margin
        page.line([(left, low), (left + across, low)], width=0.9, grey=SOFT)
        for block in strip.blocks:
            wide, tall = block.weft * scale, block.warp * scale
            page.line([(x + wide, y), (x + wide, y - tall)], width=0.6, grey=SOFT)
            page.line([(x, y - tall), (x + wide, y - tall)], width=0.6, grey=RULE)
            page.text(x + 0.1, y - 0.35, page.split(block.panel.title, wide - 0.2)[0], size=SMALL)
            x += wide
        page.text(left + across + 0.25, y - 0.35, f"{number}.  {cm(strip.length)}", size=SMALL, grey=SOFT)
        y = low
    page.line([(left, top), (left + across, top), (left + across, y), (left, y), (left, top)], width=0.9, grey=SOFT)
    page.y = y - 0.3
