"""Several seeds of the packer on one strip, a few at a time: what they find, and the shortest of it.

Which find comes first depends on the machine; the shortest of all does not.
"""

from collections.abc import Iterator, Sequence
from contextlib import closing
from dataclasses import dataclass, replace
from queue import LifoQueue
from threading import Event, Thread

from izett.cutting.lay.columns import Ground, Spot, length_of
from izett.cutting.lay.compacting import compacted
from izett.cutting.lay.packer import Found
from izett.cutting.lay.packing import Packing
from izett.cutting.lay.sound import wrong_with

#: What the packer tries on a strip of up to so many pieces, and of more: how many seeds, and for each of them how many looks
#: to begin with and for each piece. Few pieces need few. From 11 to 20, seeds differ most. With many, a look takes long.
TRIES, TRIES_OF_MANY = {10: (2, 9, 1.5), 20: (4, 20, 2.2), 30: (2, 20, 2.2)}, (2, 9, 0.9)
#: How many seeds are tried at once.
AT_ONCE = 2
#: Two plans of neighbouring seeds have no seed in common.
SEEDS_APART = 1000
#: A find this much shorter than the strip was, or than the last such find of its seed, is pressed together as it comes; with
#: more pieces than this, none is before the end: it would take as long as finding others.
PRESSED_EVERY, MOST_PRESSED = 0.97, 20
#: cm. A plan that is shorter by less is no better one.
BETTER = 0.05
#: Decimals of a length in which two plans are equally long.
ROUNDED = 6


@dataclass(frozen=True, slots=True)
class Find:
    """A plan of a strip: of which seed, its number among what that seed finds, whether it is worth pressing as it comes."""

    seed: int
    number: int
    spots: list[Spot]
    worth_pressing: bool = False

    @property
    def rank(self) -> tuple[float, int, int]:
        """Return its length, then what parts those that are equally long: the first of the first seed is the best."""
        return round(length_of(self.spots), ROUNDED), self.seed, self.number

    def pressed(self, ground: Ground) -> "Find":
        """Return it pressed together."""
        return replace(self, spots=compacted(self.spots, ground))

    def is_sound(self, ground: Ground) -> bool:
        """Return whether nothing is wrong with it."""
        return not any(wrong_with([replace(spot, strip=0) for spot in self.spots], [ground]))


def shorter(ground: Ground, strip: int, first: Sequence[Spot], *, seed: int, looks: float) -> Iterator[list[Spot]]:
    """Yield plans of a strip as they come, each shorter by a word's worth; at the end the shortest of all.

    Some are pressed together as they come, the same ones on any machine; the shortest of those as they came, at the end.

    Args:
        ground, strip: the strip and its number.
        first: how its pieces lie already.
        seed: the same seed and looks give the same last plan.
        looks: of the packer, as a share of the usual.
    """
    begun = Find(-1, 0, list(first))
    shown, enough = begun, begun.rank[0] - BETTER
    best = {False: begun, True: begun}
    for find in finds(ground, strip, first, seed, looks):
        for pressed in (False, True) if find.worth_pressing else (False,):
            one = find.pressed(ground) if pressed else find
            if one.rank[0] >= enough or one.rank >= best[pressed].rank or not one.is_sound(ground):
                continue
            best[pressed] = one
            if one.rank[0] < shown.rank[0] - BETTER:
                shown = one
                yield one.spots
    last = min(best.values(), key=lambda find: find.rank)
    pressed_last = best[False].pressed(ground)
    if pressed_last.rank < last.rank and pressed_last.is_sound(ground):
        last = pressed_last
    if last is not shown:
        yield last.spots


def finds(ground: Ground, strip: int, first: Sequence[Spot], seed: int, looks: float) -> Iterator[Find]:
    """Yield what several seeds find; closing it ends them all.

    The packers can find plans faster than they are slid together here, so the newest comes first: the shortest of its seed.
    """
    seeds, some, each = next((tries for most, tries in TRIES.items() if len(first) <= most), TRIES_OF_MANY)
    own_looks = round((some + each * len(first)) * looks)
    packing = [
        Packing(ground, strip, first, seed=seed * SEEDS_APART + number, looks=own_looks) for number in range(seeds)
    ]
    told: LifoQueue[tuple[int, int, bool, Found | None]] = LifoQueue()
    unwanted = Event()

    def listen(own: Sequence[int]) -> None:
        for number in own:
            came, long = 0, length_of(first) if len(first) <= MOST_PRESSED else 0.0
            if not unwanted.is_set():
                with closing(packing[number].found()) as found:
                    if unwanted.is_set():
                        # Begun just as it was not wanted any more.
                        packing[number].stop()
                    for one in found:
                        if unwanted.is_set():
                            break
                        came += 1
                        if worth_pressing := one.length < long * PRESSED_EVERY:
                            long = one.length
                        told.put((number, came, worth_pressing, one))
            told.put((number, came, False, None))

    for begin in range(AT_ONCE):
        Thread(target=listen, args=(range(begin, seeds, AT_ONCE),), daemon=True).start()
    going = seeds
    try:
        while going or not told.empty():
            number, came, worth_pressing, found = told.get()
            if found is None:
                going -= 1
            else:
                yield Find(number, came, packing[number].spots(found), worth_pressing)
    finally:
        unwanted.set()
        for one in packing:
            one.stop()
