"""The search for a plan: a first one at once, then better ones, until the looks are used up.

The columns lay every section first. Where nothing is to be matched, the packer goes on from there with several seeds at a
time. A plan is shown only when nothing is wrong with it.
"""

from collections.abc import Iterator, Sequence
from contextlib import closing
from dataclasses import dataclass, replace
from queue import LifoQueue
from threading import Event, Thread

from izett.cutting.cloth import Cloth, Fold
from izett.cutting.lay.bed import bed_of, beside_meeting
from izett.cutting.lay.columns import Columns, Ground, Spot, length_of
from izett.cutting.lay.compacting import compacted
from izett.cutting.lay.cutouts import DoesNotFit, Section, Wanted, sections
from izett.cutting.lay.packer import Packed
from izett.cutting.lay.packing import Packing
from izett.cutting.lay.plan import Laid, Plan, grounds_of, in_order
from izett.cutting.lay.settling import settled
from izett.cutting.lay.sound import wrong_with

#: Orders that the columns try at first, and where the selvedges could meet.
ROUNDS, MEETING_ROUNDS = 600, 40
#: Fewer pieces on a strip are laid as well as they can be by their columns.
WORTH_PACKING = 3
#: What the packer tries on a strip of up to so many pieces, and of more: how many seeds, and for each of them how many looks
#: to begin with and for each piece. Few pieces need few. From 11 to 20, seeds differ most. With many, a look takes long.
TRIES, TRIES_OF_MANY = {10: (2, 9, 1.5), 20: (4, 20, 2.2), 30: (2, 20, 2.2)}, (2, 9, 0.9)
#: How many seeds are tried at once.
AT_ONCE = 2
#: Two plans of neighbouring seeds have no seed in common.
SEEDS_APART = 1000
#: cm. Where selvedges that are folded inwards meet is tried in such steps.
MEET_EVERY = 5.0
#: cm. A plan that is shorter by less is no better one.
BETTER = 0.05
#: Decimals of a length in which two plans are equally long.
ROUNDED = 6


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
        seeds, some, each = next((tries for most, tries in TRIES.items() if len(own) <= most), TRIES_OF_MANY)
        looks = round((some + each * len(own)) * effort.looks)
        for found in _shorter(_side_by_side(ground, strip, own, seed, looks, seeds), own, ground):
            now = [*(spot for spot in now if spot.strip != strip), *found]
            yield now


def _shorter(
    found: Iterator[tuple[int, int, list[Spot]]], first: Sequence[Spot], ground: Ground
) -> Iterator[list[Spot]]:
    """Yield plans of a strip as they come, each shorter by a word's worth; at the end the shortest, pressed together.

    Which of them comes first depends on the machine: the shortest of all, and among equals the first of the first seed, is
    the same on any.
    """
    shown = length_of(first)
    best: tuple[float, int, int] | None = None
    shortest = showing = list(first)
    for seed, number, spots in found:
        rank = (round(length_of(spots), ROUNDED), seed, number)
        if rank[0] >= length_of(first) - BETTER or (best is not None and rank >= best):
            continue
        if any(wrong_with(_alone(spots), [ground])):
            continue
        best, shortest = rank, spots
        if rank[0] < shown - BETTER:
            shown, showing = rank[0], spots
            yield spots
    pressed = compacted(shortest, ground)
    if length_of(pressed) < length_of(shortest) and not any(wrong_with(_alone(pressed), [ground])):
        shortest = pressed
    if shortest is not showing:
        yield shortest


def _alone(spots: Sequence[Spot]) -> list[Spot]:
    return [replace(spot, strip=0) for spot in spots]


def _side_by_side(
    ground: Ground, strip: int, spots: Sequence[Spot], seed: int, looks: int, seeds: int
) -> Iterator[tuple[int, int, list[Spot]]]:
    """Yield what several seeds find, with the number of the seed and of the find; closing it ends them all.

    The packers can find plans faster than they are slid together here, so the newest comes first: the shortest of its seed.
    """
    packing = [Packing(ground, strip, spots, seed=seed * SEEDS_APART + number, looks=looks) for number in range(seeds)]
    told: LifoQueue[tuple[int, int, list[Packed] | None]] = LifoQueue()
    unwanted = Event()

    def listen(own: Sequence[int]) -> None:
        for number in own:
            came = 0
            if not unwanted.is_set():
                with closing(packing[number].found()) as found:
                    if unwanted.is_set():
                        # Begun just as it was not wanted any more.
                        packing[number].stop()
                    for one in found:
                        if unwanted.is_set():
                            break
                        came += 1
                        told.put((number, came, one))
            told.put((number, came, None))

    for first in range(AT_ONCE):
        Thread(target=listen, args=(range(first, seeds, AT_ONCE),), daemon=True).start()
    going = seeds
    try:
        while going or not told.empty():
            number, came, found = told.get()
            if found is None:
                going -= 1
            else:
                yield number, came, packing[number].spots(found)
    finally:
        unwanted.set()
        for one in packing:
            one.stop()
