"""The story of a garment's fittings, by round: what was seen, what was changed, by how much, why, from which fitting."""

from dataclasses import dataclass
from datetime import date, datetime

from izett.fitting.finding import Counted, FindingKind, Outcome, Taken
from izett.fitting.forecast import Forecast
from izett.fitting.marked import Marked, marks_told
from izett.wording import cm

#: What is said of how an amount was measured.
_TAKEN = {Taken.PINCH: "as a folded pinch", Taken.WHOLE: ""}
_COUNTED = {Counted.AROUND: "all around", Counted.EACH_SIDE: "on each side", Counted.HERE: ""}
OUTCOMES = {
    Outcome.SOLVED: "solved",
    Outcome.BETTER: "better",
    Outcome.SAME: "the same",
    Outcome.WORSE: "worse",
    Outcome.NOT_LOOKED_AT: "not looked at",
}


@dataclass(frozen=True, slots=True)
class FindingTold:
    """What was seen and done about it.

    Attributes:
        seen, half, amounts, movement, words: what was seen, where, how much, when, and what the wearer said.
        done: what was changed: the remedy, and each of its steps with its amounts.
        left: why nothing was changed, where nothing was.
        proved: what later muslins showed of it: the muslin's number, and in words.
        photos: their names.
    """

    seen: str
    half: str
    amounts: tuple[str, ...]
    movement: str
    words: str
    done: tuple[str, ...]
    left: str
    proved: tuple[tuple[int, str], ...]
    photos: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class ChangeTold:
    """A change that was made by hand while this muslin was the last one: when, and why."""

    at: datetime
    why: str


@dataclass(frozen=True, slots=True)
class MovedTold:
    """How far a line moved from this muslin to the next: the piece, the line's name, cm."""

    piece: str
    line: str
    distance: float


@dataclass(frozen=True, slots=True)
class RoundTold:
    """A muslin from its cutting to its closing, with what lies between it and the next."""

    number: int
    opened: datetime
    closed: datetime | None
    cloth: str
    worn: str
    note: str
    minutes: int
    pins: str
    findings: tuple[FindingTold, ...]
    changes: tuple[ChangeTold, ...]
    moved: tuple[MovedTold, ...]


@dataclass(frozen=True, slots=True)
class Story:
    """The whole story: what came before the first muslin, then muslin by muslin."""

    garment: str
    wearer: str
    due: date | None
    minutes: int
    before: tuple[ChangeTold, ...]
    rounds: tuple[RoundTold, ...]
    forecast: Forecast | None


def amounts_told(
    kind: FindingKind,
    given: dict[str, float],
    taken: Taken,
    counted: str,
    *,
    marked: Marked | None = None,
    line: str = "",
) -> tuple[str, ...]:
    """Return the amounts of a finding in words, each as it was measured, and how many marks of which line were taken."""
    told = []
    for entry in kind.inputs:
        if entry.symbol not in given:
            continue
        value = given[entry.symbol]
        how = _TAKEN[taken] if entry.pinch else ""
        over = _COUNTED[Counted(counted)] if counted else ""
        said = cm(value, 2) if entry.unit else f"{value:g}"
        told.append(" ".join(part for part in (f"{entry.label}: {said}", how, over) if part))
    return (*told, marks_told(marked, line)) if marked is not None else tuple(told)


def in_hours(minutes: int) -> str:
    """Return a time in hours and minutes.

    >>> in_hours(95), in_hours(-20), in_hours(120)
    ('1 h 35 min', '−20 min', '2 h')
    """
    hours, rest = divmod(abs(minutes), 60)
    said = " ".join([*([f"{hours} h"] if hours else []), *([f"{rest} min"] if rest or not hours else [])])
    return f"−{said}" if minutes < 0 else said


def forecast_told(forecast: Forecast, due: date | None) -> tuple[str, ...]:
    """Return a forecast in words, with what it was told from."""
    span = (
        f"Through its fittings about {_day(forecast.usual)}; of five such garments one by {_day(forecast.early)}, "
        f"four by {_day(forecast.late)}."
    )
    told = [span]
    if due is not None and forecast.in_time is not None:
        told.append(f"By the due date, {_day(due)}: {_share(forecast.in_time)}.")
    told.append(f"Told from {forecast.rounds} rounds of your own, on {forecast.garments} finished garments.")
    return tuple(told)


#: Shares that are told in words: a forecast from a few rounds is no finer.
_WORDS = (
    (0.05, "hardly one of ten"),
    (0.3, "about one of five"),
    (0.45, "two of five"),
    (0.6, "about half"),
    (0.75, "two of three"),
    (0.95, "four of five"),
    (1.01, "nearly all"),
)


def _share(share: float) -> str:
    return next(words for below, words in _WORDS if share < below) + " would be"


def _day(day: date) -> str:
    return f"{day.day} {day:%B}"


def halves_told(half: str) -> str:
    """Return in words on which half something was seen; nothing where it was both."""
    return "" if half == "both" else f"{half} half only"
