"""How long it may still take: told from this maker's own rounds, with its spread; nothing where there is too little to tell from."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta

import numpy as np

#: A forecast needs so many rounds and so many finished garments behind it: with fewer its spread would be a guess too.
FEWEST_ROUNDS, FEWEST_GARMENTS = 4, 2
#: The share of such garments that took no longer than the early, the usual and the late day.
EARLY, USUAL, LATE = 0.2, 0.5, 0.8


@dataclass(frozen=True, slots=True)
class Course:
    """The fittings of one garment: how many days each round took, from its cutting to the next; whether it is finished."""

    days: tuple[float, ...]
    finished: bool


@dataclass(frozen=True, slots=True)
class Forecast:
    """When a garment may be through its fittings.

    Attributes:
        early, usual, late: days by which one, of five such garments: one, half of them, and four are through.
        rounds, garments: what it was told from.
        in_time: the share of such garments that are through by the due date; None where there is no date.
    """

    early: date
    usual: date
    late: date
    rounds: int
    garments: int
    in_time: float | None


def forecast(courses: Sequence[Course], *, done: int, today: date, due: date | None = None) -> Forecast | None:
    """Return when a garment may be through its fittings; None where the maker's rounds are too few to tell.

    Every finished garment that took more rounds than are done says how many are to come; one that took fewer says: one
    more at least. Each of the coming rounds may take as long as any round took. All sums of the two are counted.

    Args:
        courses: the maker's garments that were fitted.
        done: how many rounds of this garment are behind.
        today, due: the day of asking, and the day by which it should be through.
    """
    took = [days for course in courses for days in course.days]
    to_come = [max(len(course.days) - done, 1) for course in courses if course.finished]
    if len(took) < FEWEST_ROUNDS or len(to_come) < FEWEST_GARMENTS:
        return None
    sums = np.concatenate([_sums(took, rounds) for rounds in to_come])
    weights = np.concatenate([np.full(len(_sums(took, rounds)), 1.0 / len(_sums(took, rounds))) for rounds in to_come])
    order = np.argsort(sums, kind="stable")
    share = np.cumsum(weights[order]) / weights.sum()
    early, usual, late = (
        today + timedelta(days=round(float(sums[order][np.searchsorted(share, at)]))) for at in (EARLY, USUAL, LATE)
    )
    in_time = None
    if due is not None:
        in_time = float(weights[sums <= (due - today).days].sum() / weights.sum())
    return Forecast(early, usual, late, len(took), len(to_come), in_time)


#: Sums are counted on so many places of the distribution: as fine as a day needs.
PLACES = 200


def _sums(took: Sequence[float], rounds: int) -> "np.ndarray[tuple[int], np.dtype[np.float64]]":
    """Return the distribution of the days of so many rounds, each as long as any that was seen."""
    one = np.sort(np.asarray(took, dtype=float))
    total = one
    for _ in range(rounds - 1):
        total = np.sort(np.add.outer(total, one).ravel())
        if len(total) > PLACES:
            total = np.quantile(total, (np.arange(PLACES) + 0.5) / PLACES)
    return total
