"""Given pieces beside what was drafted: one garment, or the given pieces alone."""

from collections.abc import Iterator
from dataclasses import replace

from izett.drafting.method import Draft, Notice
from izett.draping.given import Drawn, drawn
from izett.draping.panel import Given, Source
from izett.errors import DraftRefused
from izett.pattern.document import CutFor, Pattern
from izett.wording import cm

#: What the sheets of a garment that is draped alone are cut for, until the maker says otherwise.
AS_DRAPED = "draped"


def with_given(draft: Draft, given: Given) -> Draft:
    """Return a draft with given pieces beside its blocks; a garment that is draped alone is cut as a drape is.

    Raises:
        DraftRefused: a panel is called as something that was drafted.
    """
    found = drawn(given)
    _refuse_same_names(draft.pattern, found)
    pattern = draft.pattern.joined(found.pieces, found.sewn, ease=dict(given.ease), along=found.measured_along)
    if given.source is Source.DRAPE and not draft.pattern.pieces:
        pattern = replace(pattern, allowances=CutFor(AS_DRAPED))
    return replace(draft, pattern=pattern, notices=(*draft.notices, *_notices(found)))


def _refuse_same_names(pattern: Pattern, found: Drawn) -> None:
    """Let pass panels that can be told from what was drafted: names tell things apart."""
    for piece in found.pieces:
        if pattern.find_piece(piece.name) is not None or pattern.of_part(piece.part):
            raise DraftRefused(
                f"A drafted piece is called “{piece.name.replace('_', ' ')}” as well as a given one.",
                fix="Give the panel another name.",
                where=(piece.name,),
            )


def _notices(found: Drawn) -> Iterator[Notice]:
    for query in found.queries:
        yield Notice(query.code.value, f"{query.words} {query.fix}")
    for one in found.seams:
        if not one.trued:
            yield Notice("seam-differs", differs_words(one.seam.words, one.differs))


def differs_words(words: tuple[str, str], differs: float) -> str:
    """Return what is said of two lines of a seam that differ by more (cm) than marking explains."""
    longer, shorter = (words[1], words[0]) if differs > 0 else words
    return (
        f"Where they are sewn together, the {longer} is {cm(abs(differs))} longer than the {shorter}. "
        "Look at the marks again, ease it in over the bust, or leave it to be sewn otherwise."
    )
