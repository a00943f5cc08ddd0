"""A drape beside the draft of the same body: what it took in or let out, and how the draft could learn that.

Both are read in the same way, from their outlines as sewn: around the body by level, front and back apart, and along. What
differs is offered as an ease of the block, or as a paper change that comes to it, with its promise; nothing is changed by
itself. Common practice, no single source.
"""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from itertools import islice

from izett.errors import IzettError
from izett.fitting.finding import FindingKind, Remedy, StepPlan, finding_kinds
from izett.fitting.garment import Fitted, lacks
from izett.fitting.readings import HALF, WHOLE, reading
from izett.fitting.working_out import EDGES, Adding, Seen, Worked, worked
from izett.pattern.document import Pattern
from izett.pattern.facts import Region, Role, Zone
from izett.pattern.levels import width_at
from izett.pattern.worn import is_body
from izett.recipe.evaluation import Evaluation

#: Levels at which front and back are read apart.
LEVELS = ("bust", "waist", "hip")
#: Readings that lie where a pattern's frame has them, or are of the cap alone: they tell nothing of the body.
NOT_COMPARED = ("bust point out", "bust point up", "cap ease", "neckband", "hem band", "cuff", "around the hem")
#: Readings down to where the piece ends: of one that ends at the waist and one that does not they are no comparison.
TO_END = ("centre front", "centre back", "side behind")
#: cm. Less than this is the pencil's and the pins'.
SEEN = 0.2
#: So many ways to learn one difference are offered at most.
MOST_WAYS = 2


@dataclass(frozen=True, slots=True)
class Difference:
    """A reading of both: what it is, the drape's and the draft's, cm."""

    what: str
    drape: float
    draft: float

    @property
    def by(self) -> float:
        """How much more the drape has, cm."""
        return self.drape - self.draft

    @property
    def is_seen(self) -> bool:
        """Whether it is more than a pencil and a pin are off."""
        return abs(self.by) >= SEEN


@dataclass(frozen=True, slots=True)
class EaseTaught:
    """An ease of the block as the drape has it: its symbol and level, its value in the block's own unit, and all around, cm."""

    symbol: str
    label: str
    value: float
    around: float


@dataclass(frozen=True, slots=True)
class ChangeTaught:
    """A paper change that brings the draft to the drape's reading."""

    kind: FindingKind
    worked: Worked


def differences(drape: Evaluation, draft: Evaluation) -> tuple[Difference, ...]:
    """Return what both have, read from both; what only one has is left out."""
    left_out = {*NOT_COMPARED, *(() if _to_waist(drape.pattern) is _to_waist(draft.pattern) else TO_END)}
    found = [
        Difference(name, reading(drape, name), reading(draft, name)) for name in (*WHOLE, *HALF) if name not in left_out
    ]
    for level in LEVELS:
        for zone in (Zone.FRONT, Zone.BACK):
            here, there = (_wide(one.pattern, level, zone) for one in (drape, draft))
            found.append(Difference(f"{level}, {zone.value} alone", here, there))
    return tuple(one for one in found if one.drape > 0 and one.draft > 0)


def _to_waist(pattern: Pattern) -> bool:
    """Return whether what covers the upper body ends at the waist."""
    return any(e.role is Role.WAIST for p in pattern if is_body(p) and p.region is Region.UPPER for e in p.edges)


def _wide(pattern: Pattern, level: str, zone: Zone) -> float:
    """Return how wide the front or the back is at a level, both halves, cm."""
    return sum(
        width_at(piece, level) * piece.times
        for piece in pattern
        if is_body(piece) and piece.zone is zone and piece.level(level)
    )


def eases_taught(difference: Difference, draft: Evaluation) -> Iterator[EaseTaught]:
    """Yield the ease of the draft that a width around the body speaks of, as it would be; none that it may not have."""
    for ease in draft.draft.eases():
        around = ease.total + difference.by
        allowance = draft.draft.sums.sheet.allowances.get(ease.symbol)
        value = around / ease.around
        if (
            difference.what == f"around the {ease.key}"
            and allowance is not None
            and allowance.low <= value <= allowance.high
        ):
            yield EaseTaught(ease.symbol, ease.label, value, around)


def changes_taught(difference: Difference, draft: Fitted) -> list[ChangeTaught]:
    """Return the paper changes under the style that come to a difference on the draft, the plainest first."""
    return list(islice(_changes(difference, draft), MOST_WAYS))


def _changes(difference: Difference, draft: Fitted) -> Iterator[ChangeTaught]:
    for kind in finding_kinds().values():
        if kind.marks or kind.one_half or lacks(draft, kind.needs):
            continue
        for remedy in kind.remedies:
            made = _brought(difference, kind, remedy, draft)
            if made is not None:
                yield ChangeTaught(kind, made)
                break


def _brought(difference: Difference, kind: FindingKind, remedy: Remedy, draft: Fitted) -> Worked | None:
    """Return a remedy with the one amount that brings a reading as far as it differs; None where it cannot."""
    if not all(isinstance(step, StepPlan) and step.under for step in remedy.steps) or not remedy.steps:
        return None
    tells = next((one for one in remedy.tells if one.reading == difference.what), None)
    symbols = [entry.symbol for entry in kind.inputs if tells is not None and entry.symbol in tells.by.uses]
    if tells is None or len(symbols) != 1 or set(tells.by.uses) > {symbols[0], EDGES}:
        return None
    (asked,) = (entry for entry in kind.inputs if entry.symbol == symbols[0])
    still = {entry.symbol: 0.0 for entry in kind.inputs if entry is not asked}
    if any(entry.low > 0 for entry in kind.inputs if entry is not asked):
        return None
    known: Mapping[str, float] = {EDGES: float(remedy.edges)}
    each = tells.by.evaluate({**known, asked.symbol: 1.0})
    amount = difference.by / each if each else 0.0
    if not asked.low <= amount <= asked.high:
        return None
    try:
        made = worked(Seen(kind, {**still, asked.symbol: amount}), remedy, draft)
    except IzettError:
        return None
    return made if all(isinstance(deed, Adding) for deed in made.deeds) else None
