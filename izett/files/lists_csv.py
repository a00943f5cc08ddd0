"""Lists as CSV: the lengths of all seams, and what is cut."""

from collections.abc import Sequence

from izett.cutting.cloth import USES, Use
from izett.cutting.order import ToCut
from izett.errors import ReferenceLost
from izett.files.reading import write_rows
from izett.pattern.document import Pattern
from izett.pattern.halves import origin
from izett.pattern.sewn import seam_lengths

#: Decimals of a length in a table: the tenth of a millimetre.
DECIMALS = 2


def write_seam_lengths(pattern: Pattern) -> str:
    """Return every seam with the lengths of its sides as sewn, cm, and the ease that is meant; what lost its end is left out."""
    rows: list[Sequence[str]] = [("# unit=cm",), ("seam", "kind", "half", "first", "second", "ease_from", "ease_to")]
    for seam in pattern.seams:
        try:
            lengths = seam_lengths(pattern, seam)
        except ReferenceLost:
            continue
        numbers = (f"{value:.{DECIMALS}f}" for value in (*lengths, *seam.ease))
        title = pattern.title_of(seam.name) or origin(seam.name).name
        rows.append((title, seam.kind.value, seam.half.value, *numbers))
    return write_rows(rows)


def write_cutting_list(lists: Sequence[tuple[Use, Sequence[ToCut]]]) -> str:
    """Return what is cut, cloth by cloth, in the order of cutting."""
    rows: list[Sequence[str]] = [("cloth", "piece", "cut", "on_fold", "straight_cut", "area_cm2", "note", "label")]
    for use, cut in lists:
        for row in cut:
            yes = ("yes" if row.on_fold else "no", "yes" if row.straight else "no")
            rows.append((USES[use], row.title, str(row.number), *yes, f"{row.area:.0f}", row.says, row.label))
    return write_rows(rows)
