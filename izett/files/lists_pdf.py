"""The cutting list and the shopping list on paper, with boxes to tick, and a label for every piece that is cut.

Cut pieces lie in heaps for weeks: each gets a label, to cut out and to pin on.
"""

from collections.abc import Sequence

from izett.cutting.cloth import USES, Use
from izett.cutting.order import ToCut
from izett.cutting.shopping import ToBuy
from izett.files.page import HEAD, RIM, SMALL, SOFT, TEXT, Page
from izett.units import Unit

#: cm of paper. A box to tick, a row of a list; where the amounts of the shopping list stand.
BOX, ROW, AMOUNTS = 0.32, 0.55, 6.5
#: cm. A label: height, rim, step from line to line; how many lie side by side.
LABEL_HIGH, LABEL_RIM, LABEL_STEP, LABELS = 2.3, 0.25, 0.48, 3
#: Labels that are printed at most: nobody pins more on one garment.
MOST_LABELS = 400


def write_lists_pdf(
    lists: Sequence[tuple[Use, Sequence[ToCut]]],
    buy: Sequence[ToBuy],
    *,
    title: str,
    wearer: str = "",
    paper: str = "a4",
    unit: Unit = Unit.CM,
) -> bytes:
    """Return the lists of a garment as PDF: what is cut of each cloth, what is bought, and the labels.

    Args:
        lists: what is cut of each cloth, in the order of cutting; buy: what is bought.
        title: of the garment and its state; wearer: initials or the size, as they stand on the labels.
        paper: `a4` or `letter`; unit: in which lengths are read, and the shop sells.

    Raises:
        UnknownName: the paper is neither.
    """
    page = Page(title, paper, (f"{title}  {wearer}".strip(),), unit)
    page.y -= 0.5
    page.text(RIM, page.y, title, size=HEAD, bold=True)
    page.y -= 0.2
    for use, rows in lists:
        page.heading(f"Cut from the {USES[use]}")
        for row in rows:
            says = f"   {row.says}" if row.says else ""
            _row(page, f"{row.title} ({row.label}): {row.how}{says}")
    page.y -= 0.15
    page.words(
        "The largest first: while the cloth is whole, a mistake can still be mended. Pin a label on every piece.",
        grey=SOFT,
    )
    if buy:
        page.heading("Buy")
        for one in buy:
            _row(page, one.what, amount=one.amount_words(unit), more=_more(one))
    _labels(page, lists, title, wearer)
    return page.finish()


def _more(one: ToBuy) -> str:
    cost = f"{one.cost:.2f}" if one.cost else ""
    return "; ".join(part for part in (cost, one.note) if part)


def _row(page: Page, words: str, *, amount: str = "", more: str = "") -> None:
    """Write a row with its box; words that are long go on below."""
    left = RIM + 2 * BOX
    width = (AMOUNTS if amount else page.right - left) - 0.2
    lines = page.split(words, width, size=TEXT)
    page.room(ROW * max(len(lines), 1))
    for number, part in enumerate(lines):
        page.y -= ROW if number == 0 else ROW * 0.75
        if number == 0:
            page.box(RIM, page.y, BOX)
            if amount:
                page.text(left + AMOUNTS, page.y + 0.04, amount, bold=True)
                page.text(left + AMOUNTS + 3, page.y + 0.04, more, grey=SOFT)
        page.text(left, page.y + 0.04, part)


def _labels(page: Page, lists: Sequence[tuple[Use, Sequence[ToCut]]], title: str, wearer: str) -> None:
    """Draw the labels in rows, to be cut out."""
    every = [
        (f"{row.title}", f"piece {row.label}, {USES[use]}", f"{number} of {row.number} cut")
        for use, rows in lists
        for row in rows
        for number in range(1, row.number + 1)
    ][:MOST_LABELS]
    if not every:
        return
    page.heading("Labels: cut them out, and pin one on every piece", room=LABEL_HIGH + 1.5)
    page.y -= 0.3
    wide = (page.right - RIM) / LABELS
    for number, (name, which, count) in enumerate(every):
        column = number % LABELS
        if column == 0:
            page.room(LABEL_HIGH)
            page.y -= LABEL_HIGH
        x, y = RIM + column * wide, page.y
        corners = ((x, y), (x + wide, y), (x + wide, y + LABEL_HIGH), (x, y + LABEL_HIGH), (x, y))
        page.line(corners, width=0.4, grey=0.6)
        top = y + LABEL_HIGH - LABEL_RIM - 0.2
        room = wide - 2 * LABEL_RIM
        for step, (text, size) in enumerate(
            ((name, TEXT), (which, SMALL), (count, SMALL), (f"{title}  {wearer}".strip(), SMALL))
        ):
            line = next(iter(page.split(text, room, size=size)), "")
            page.text(x + LABEL_RIM, top - step * LABEL_STEP, line, size=size, bold=step == 0)
