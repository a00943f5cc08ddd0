"""What a step means for the seams: added cloth that is gathered, eased or let hang is meant, not a mistake.

The ease of a seam is moved by what the step added to one of its sides, and told as a ratio: what is gathered 1.5 to 1
looks full, under 1.3 it looks plain, over 3 it does not go into its band in mid-weight cloth. Common practice, no
single source.
"""

from dataclasses import replace

from izett.errors import ReferenceLost
from izett.pattern.naming import readable
from izett.pattern.sewn import seam_lengths
from izett.pattern.working import Working
from izett.styling.operation import Sum

#: A full style sewn under this ratio looks like a plain one; over the other it does not fit into its band.
PLAIN_UNDER, TOO_FULL_OVER = 1.3, 3.0
#: So much is ease, not fullness: a cap over its armhole, a back shoulder over the front.
EASED_UP_TO = 1.1
#: cm. A change of a seam smaller than this is the rounding of a curve drawn anew.
LEAST = 0.02


def meant(before: Working, after: Working, *, lies: str = "", only: str = "") -> tuple[Working, tuple[Sum, ...]]:
    """Return the garment with the ease of seams moved by what a step changed, and the sums that say so.

    Args:
        before, after: two states of the same work.
        lies: where the ease lies, for the sewing sheet.
        only: the seam that may change; empty for all.
    """
    was, now = after.since(before)
    lines = dict.fromkeys(e.lineage for piece in (*was, *now) for e in piece.edges if not e.is_leg)
    seams = {seam.name: seam for line in lines for seam in after.seams_along(line)}
    sums: list[Sum] = []
    meant_so = after
    for seam in seams.values():
        old = before.find_seam(seam.name)
        if old is None or only not in ("", seam.name):
            continue
        try:
            then, lengths = seam_lengths(before, old), seam_lengths(after, seam)
        except ReferenceLost:
            continue
        change = (lengths[1] - lengths[0]) - (then[1] - then[0])
        if abs(change) > LEAST:
            longer, shorter = max(lengths), min(lengths)
            sums += [Sum(f"{readable(seam.name)}: the longer edge", longer), Sum("sewn to", shorter)]
            sums.append(ratio_of(longer, shorter))
            ease = (seam.ease[0] + change, seam.ease[1] + change)
            meant_so = meant_so.with_seam(replace(seam, ease=ease, lies=lies or seam.lies))
    return meant_so, tuple(sums)


def ratio_of(edge: float, sewn_to: float) -> Sum:
    """Return the fullness of an edge (cm) as a ratio to the edge it is sewn to (cm), with any warning that calls for."""
    ratio = edge / sewn_to if sewn_to else 0.0
    if EASED_UP_TO < ratio < PLAIN_UNDER:
        return Sum(f"ratio (under {PLAIN_UNDER} a full style looks plain)", ratio, "")
    if ratio > TOO_FULL_OVER:
        return Sum(f"ratio (over {TOO_FULL_OVER:g} it hardly goes into its band)", ratio, "")
    return Sum("ratio", ratio, "")
