"""What would save cloth, and by how much: another fold, a nap that need not be obeyed, a piece narrower, or joined.

Each is tried quickly, against the plan laid in the same quick way, so that like is compared with like.
"""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from functools import partial

import numpy as np
import shapely

from izett.cutting.cloth import FOLDED, Cloth, Fold
from izett.cutting.lay.cutouts import Cutout, DoesNotFit, Section, Wanted, sections
from izett.cutting.lay.plan import Plan
from izett.cutting.lay.search import Effort, laid_quickly
from izett.progress import Progress, untold
from izett.wording import cm

#: cm. What saves less is not worth a word.
WORTH = 2.0
#: Of its width, by what share a piece is made narrower at most; and how many such ways are tried.
MOST_NARROWER, MOST_TRIED = 0.2, 6
#: cm. What a join takes for its seam, on either side of it.
JOIN = 1.0
#: How long each way is looked at.
TRY = Effort(rounds=250, looks=0.0)

Sections = Sequence[Section]


@dataclass(frozen=True, slots=True)
class Saving:
    """A way to save cloth: what is done, in words; how much it saves, cm; and the fold, where it is another fold."""

    words: str
    saves: float
    fold: Fold | None = None


def savings(
    wanted: Sequence[Wanted], cloth: Cloth, plan: Plan, *, seed: int = 1, progress: Progress = untold
) -> list[Saving]:
    """Return what would save cloth, the most first."""
    parts = [laid.section for laid in plan.laid]

    def length(found: Sections) -> float:
        return sum(laid.cloth for laid in laid_quickly(found, cloth, seed=seed, effort=TRY))

    now = length(parts)
    ways = list(_ways(wanted, cloth, plan, parts))
    found: list[Saving] = []
    for number, (words, fold, changed) in enumerate(ways):
        progress(number, len(ways))
        try:
            saves = now - length(changed())
        except DoesNotFit:
            continue
        if saves >= WORTH:
            found.append(Saving(words, saves, fold))
    progress(len(ways), len(ways))
    return sorted(found, key=lambda saving: -saving.saves)


def _ways(
    wanted: Sequence[Wanted], cloth: Cloth, plan: Plan, parts: Sections
) -> Iterator[tuple[str, Fold | None, Callable[[], Sections]]]:
    """Yield each way to try: in words, the other fold, and the sections that it makes."""
    for fold in Fold:
        if fold is not plan.fold:
            yield f"Cut it {FOLDED[fold][0]}.", fold, partial(sections, wanted, cloth, fold)
    if cloth.nap:
        plain = cloth.model_copy(update={"nap": False})
        words = "If the nap need not be obeyed, pieces may be turned top to bottom."
        yield words, None, partial(sections, wanted, plain, plan.fold)
    for narrower in _narrowings(parts, cloth):
        changed = partial(_with, parts, narrower.piece, partial(_narrower, by=narrower.by))
        yield narrower.words, None, changed
    if plan.decides is None:
        return
    decides = plan.decides.cutout
    if not decides.on_fold:
        words = f"Allow a join across {decides.title}, with {cm(JOIN)} for its seam on either side."
        yield words, None, partial(_with, parts, decides.piece, _halved)
    if not cloth.nap and not decides.on_fold and not any(cloth.repeat):
        words = f"Cut {decides.title} crosswise, if it may lie off the straight grain."
        yield words, None, partial(_with, parts, decides.piece, _crosswise)


@dataclass(frozen=True, slots=True)
class _Narrowing:
    """A piece made narrower by so much (cm), so that it lies beside another one."""

    piece: str
    by: float
    share: float
    words: str


def _narrowings(parts: Sections, cloth: Cloth) -> list[_Narrowing]:
    """Return what lies beside another piece if it is made a little narrower, the least narrower first."""
    found: dict[tuple[str, str], _Narrowing] = {}
    for part in parts:
        widest = max(strip.width for strip in part.bed.strips)
        for one in part.cutouts:
            own = one.narrowest.width
            for other in part.cutouts:
                left = widest - other.narrowest.width - cloth.gap
                if one.piece == other.piece or not 0 < own - left <= MOST_NARROWER * own:
                    continue
                by = (own - left) * (2 if one.on_fold else 1)
                words = f"Beside {other.title} there are {cm(left)} left: cut {one.title} {cm(by)} narrower."
                found[one.piece, other.piece] = _Narrowing(one.piece, by, (own - left) / own, words)
    return sorted(found.values(), key=lambda one: one.share)[:MOST_TRIED]


def _with(parts: Sections, piece: str, change: Callable[[Cutout], Sequence[Cutout]]) -> Sections:
    return [
        replace(part, cutouts=tuple(n for c in part.cutouts for n in (change(c) if c.piece == piece else (c,))))
        for part in parts
    ]


def _narrower(cutout: Cutout, *, by: float) -> Sequence[Cutout]:
    """Return a cutout narrower: on the fold its half by half as much."""
    width = float(cutout.outline[:, 0].max())
    share = (width - (by / 2 if cutout.on_fold else by)) / width
    return (replace(cutout, outline=cutout.outline * (max(share, 0.1), 1.0)),)


def _crosswise(cutout: Cutout) -> Sequence[Cutout]:
    return (replace(cutout, ways=tuple(((turn + 90) % 360, flipped) for turn, flipped in cutout.ways)),)


def _halved(cutout: Cutout) -> Sequence[Cutout]:
    """Return a cutout in an upper and a lower part, a seam on either side of the join."""
    whole = shapely.polygons(cutout.outline)
    high, wide = float(cutout.outline[:, 1].max()), float(cutout.outline[:, 0].max())
    parts: list[Cutout] = []
    for low, top in ((0.0, high / 2 + JOIN), (high / 2 - JOIN, high)):
        bits = shapely.get_parts(shapely.intersection(whole, shapely.box(0, low, wide, top)))
        for bit in (bit for bit in bits if bit.geom_type == "Polygon" and bit.area > 0):
            corners = np.array(bit.exterior.coords)[:-1]
            parts.append(replace(cutout, outline=corners - corners.min(axis=0)))
    return parts
