"""What a step means for the seams: added cloth that is gathered, eased or let hang is meant, not a mistake.

The ease of a seam is moved by what the step added to one of its sides, and told as a ratio: what is gathered 1.5 to 1
looks full, under 1.3 it looks plain, over 3 it does not go into its band in mid-weight cloth. Common practice, no
single source.
"""

from dataclasses import replace

from izett.errors import ReferenceLost
from izett.pattern.document import Intent, Pattern, Seam
from izett.pattern.levels import PLACES, place_width, width
from izett.pattern.sewn import seam_lengths
from izett.styling.operation import Sum

#: A full style sewn under this ratio looks like a plain one; over the other it does not fit into its band.
PLAIN_UNDER, TOO_FULL_OVER = 1.3, 3.0
#: So much is ease, not fullness: a cap over its armhole, a back shoulder over the front.
EASED_UP_TO = 1.1
#: cm. A change of a seam smaller than this is the rounding of a curve drawn anew.
LEAST = 0.02


def meant(before: Pattern, after: Pattern, *, lies: str = "", only: str = "") -> tuple[Pattern, tuple[Sum, ...]]:
    """Return the pattern with the ease of seams and levels moved by what a step changed, and the sums that say so.

    Args:
        before, after: the pattern before and after the step.
        lies: where the ease lies, for the sewing sheet.
        only: the seam that may change; empty for all.
    """
    old = {seam.name: seam for seam in before.seams}
    seams: list[Seam] = []
    sums: list[Sum] = []
    for seam in after.seams:
        change = 0.0
        if seam.name in old and only in ("", seam.name):
            try:
                was, now = seam_lengths(before, old[seam.name]), seam_lengths(after, seam)
            except ReferenceLost:
                was = now = (0.0, 0.0)
            change = (now[1] - now[0]) - (was[1] - was[0])
            if abs(change) > LEAST:
                longer, shorter = max(now), min(now)
                sums += [
                    Sum(f"{seam.name.replace('_', ' ')}: the longer edge", longer),
                    Sum("sewn to", shorter),
                    ratio_of(longer, shorter),
                ]
        if abs(change) > LEAST:
            seams.append(replace(seam, ease=(seam.ease[0] + change, seam.ease[1] + change), lies=lies or seam.lies))
        else:
            seams.append(seam)
    return replace(after, seams=tuple(seams), intent=with_levels(before, after)), tuple(sums)


def ratio_of(edge: float, sewn_to: float) -> Sum:
    """Return the fullness of an edge (cm) as a ratio to what it is sewn to (cm), with the warning that it calls for."""
    ratio = edge / sewn_to if sewn_to else 0.0
    if EASED_UP_TO < ratio < PLAIN_UNDER:
        return Sum(f"ratio (under {PLAIN_UNDER} a full style looks plain)", ratio, "")
    if ratio > TOO_FULL_OVER:
        return Sum(f"ratio (over {TOO_FULL_OVER:g} it hardly goes into its band)", ratio, "")
    return Sum("ratio", ratio, "")


def with_levels(before: Pattern, after: Pattern) -> Intent:
    """Return what the garment is meant to be, with the ease of each level and place moved by what a step changed there."""
    added = {}
    for level in after.intent.ease:
        was, now = width(before, level), width(after, level)
        if was and now and abs(now - was) > LEAST:
            added[level] = now - was
    for place, ease in PLACES.items():
        was, now = place_width(before, place), place_width(after, place)
        if was and now and abs(now - was) > LEAST:
            added[place] = now - was + (0.0 if place in after.intent.ease else ease)
    return after.intent.with_ease(added) if added else after.intent
