"""The search for a plan: a first one at once, then better ones, until the looks are used up.

The columns lay every section first. Where nothing is to be matched, the packer goes on from there with several seeds at a
time. A plan is shown only when nothing is wrong with it.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from izett.cutting.cloth import Cloth, Fold
from izett.cutting.lay.bed import bed_of, beside_meeting
from izett.cutting.lay.columns import Columns, Ground, Spot, length_of
from izett.cutting.lay.cutouts import DoesNotFit, Section, Wanted, sections
from izett.cutting.lay.plan import Laid, Plan, grounds_of, in_order
from izett.cutting.lay.seeds import shorter
from izett.cutting.lay.settling import settled
from izett.cutting.lay.sound import wrong_with

#: Orders that the columns try at first, and where the selvedges could meet.
ROUNDS, MEETING_ROUNDS = 600, 40
#: Fewer pieces on a strip are laid as well as they can be by their columns.
WORTH_PACKING = 3
#: cm. Where selvedges that are folded inwards meet is tried in such steps.
MEET_EVERY = 5.0


@dataclass(frozen=True, slots=True)
class Effort:
    """How long is looked for a better plan: the rounds of the columns; the looks of the packer as a share of the usual."""

    rounds: int = ROUNDS
    looks: float = 1.0


USUAL = Effort()


def plans(
    wanted: Sequence[Wanted], cloth: Cloth, *, fold: Fold | None = None, seed: int = 1, effort: Effort = USUAL
) -> Iterator[Plan]:
    """Yield a plan, then each better one that is found.

    Args:
        wanted: what is cut.
        cloth: from what; `fold` how it is folded, if not as it says.
        seed: the same seed and effort give the same last plan.
        effort: how long is looked.

    Raises:
        DoesNotFit: pieces are wider than the cloth as it lies.
    """
    fold = cloth.fold if fold is None else fold
    best = list(laid_quickly(sections(wanted, cloth, fold), cloth, seed=seed, effort=effort))
    yield Plan(cloth, fold, tuple(best))
    for number, laid in enumerate(best):
        for spots in _better(laid.section, cloth, list(laid.spots), seed, effort):
            best[number] = Laid(laid.section, tuple(spots))
            yield Plan(cloth, fold, in_order([(one.section, one.spots) for one in best]))


def best_plan(
    wanted: Sequence[Wanted], cloth: Cloth, *, fold: Fold | None = None, seed: int = 1, effort: Effort = USUAL
) -> Plan:
    """Return the last of the plans that are found.

    Raises:
        DoesNotFit: pieces are wider than the cloth as it lies.
    """
    plan = Plan(cloth, cloth.fold if fold is None else fold, ())
    for found in plans(wanted, cloth, fold=fold, seed=seed, effort=effort):
        plan = found
    return plan


def laid_quickly(parts: Sequence[Section], cloth: Cloth, *, seed: int, effort: Effort) -> tuple[Laid, ...]:
    """Return sections with everything laid on them by the columns alone.

    Raises:
        DoesNotFit: pieces are wider than the cloth as it lies.
    """
    return in_order([_first(section, cloth, seed, effort) for section in parts])


def _first(section: Section, cloth: Cloth, seed: int, effort: Effort) -> tuple[Section, list[Spot]]:
    """Return a section, its selvedges meeting where that is best, and a plan of it."""
    if section.bed.fold is Fold.BOTH_TO_MIDDLE:
        section = _meeting(section, cloth, seed)
    grounds = grounds_of(section.bed, cloth)
    spots: list[Spot] = []
    for found in Columns(grounds, section.cutouts, seed=seed).plans(effort.rounds):
        spots = found
    if len(spots) < len(section.cutouts):
        raise _no_place(section, spots)
    return section, _sound(settled(spots, dict(enumerate(grounds))), spots, grounds)


def _no_place(section: Section, spots: Sequence[Spot]) -> DoesNotFit:
    """Return what is said of pieces that fit the width, and whose stripes do not fall on it."""
    laid = {spot.cutout for spot in spots}
    left = [cutout for cutout in section.cutouts if cutout not in laid]
    return DoesNotFit(
        f"No place on the cloth where the stripes meet: {', '.join(dict.fromkeys(c.title for c in left))}.",
        fix="Take wider cloth, or let the repeat across the cloth go unmatched (0).",
        where=tuple(dict.fromkeys(cutout.piece for cutout in left)),
    )


def _sound(spots: list[Spot], before: list[Spot], grounds: Sequence[Ground]) -> list[Spot]:
    """Return spots with nothing wrong: those that were before, where sliding them together went wrong."""
    return before if any(wrong_with(spots, grounds)) else spots


def _meeting(section: Section, cloth: Cloth, seed: int) -> Section:
    """Return a section whose selvedges meet where its pieces lie shortest.

    Raises:
        DoesNotFit: they lie nowhere.
    """
    half, edge = section.bed.width, beside_meeting(cloth)
    steps = max(int(half / 2 / MEET_EVERY), 1)
    just = {cutout.narrowest.width + edge for cutout in section.cutouts}
    places = sorted({half / 2 * i / steps for i in range(1, steps + 1)} | {at for at in just if edge < at <= half / 2})
    found: list[tuple[float, float, Section]] = []
    for at in [*places, *(half - at for at in just if half / 2 < at < half - edge)]:
        bed = bed_of(cloth, Fold.BOTH_TO_MIDDLE, meet=at)
        tried = Section(bed, section.cutouts)
        *_, spots = Columns(grounds_of(bed, cloth), section.cutouts, seed=seed).plans(MEETING_ROUNDS)
        if len(spots) == len(section.cutouts):
            found.append((length_of(spots), at, tried))
    if not found:
        widest = max(section.cutouts, key=lambda cutout: cutout.narrowest.width)
        raise DoesNotFit(
            f"{widest.title} does not lie beside the others with both selvedges folded inwards.",
            fix="Fold the cloth once lengthwise, or lay it open.",
            where=(widest.piece,),
        )
    return min(found, key=lambda one: one[:2])[2]


def _better(section: Section, cloth: Cloth, spots: list[Spot], seed: int, effort: Effort) -> Iterator[list[Spot]]:
    """Yield better plans of a section: each strip by the packer, where nothing is to be matched."""
    if any(cloth.repeat) or not effort.looks:
        return
    grounds = grounds_of(section.bed, cloth)
    now = list(spots)
    for strip, ground in enumerate(grounds):
        own = [spot for spot in now if spot.strip == strip]
        if len(own) < WORTH_PACKING:
            continue
        for found in shorter(ground, strip, own, seed=seed, looks=effort.looks):
            now = [*(spot for spot in now if spot.strip != strip), *found]
            yield now
