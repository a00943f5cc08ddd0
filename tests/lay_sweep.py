"""`make sweep`: random sets of pieces laid on random cloths, read by shapely, and measured against two bounds.

The bounds are the area of the pieces over the width of the cloth, which no plan can beat, and spyrrow, a packer of irregular
shapes for open cloth, given three times the time on the very same pieces. `IZETT_LAYS` is the number of sets,
`IZETT_LOOKS` the share of the usual looks that a plan gets (the packer's time follows it), `IZETT_LAYS_TOLD=1` tells each set.
"""

import os
import sys
import time
from collections import Counter
from dataclasses import dataclass
from random import Random
from statistics import mean, quantiles

import numpy as np
import shapely
import spyrrow

from izett.cutting.cloth import Cloth, Fold
from izett.cutting.lay.by_hand import faults_of
from izett.cutting.lay.cutouts import DoesNotFit
from izett.cutting.lay.search import Effort, plans
from tests import laying

#: How much longer a plan may be than the packer's, and how much longer that one works.
LONGER, TIMES = 1.03, 3
SETS = 500
EFFORT = Effort(looks=float(os.environ.get("IZETT_LOOKS", "1")))


@dataclass
class Found:
    """What came of one set: the plan, how long it took (s), what is wrong with it."""

    plan: object
    took: float
    faults: list


def laid(pieces, cloth) -> Found:
    began = time.perf_counter()
    *_, plan = plans([*laying.wanted(*pieces)], cloth, effort=EFFORT)
    return Found(plan, time.perf_counter() - began, list(laying.faults(plan, pieces, cloth)))


def by_the_packer(plan, cloth, seconds: float) -> float:
    """The length (cm) that spyrrow finds for the pieces of an open plan, as each may be turned."""
    turns = [0.0] if cloth.nap else [0.0, 180.0]
    items = [
        # Lengths first, as it packs along x.
        spyrrow.Item(str(i), [(float(y), -float(x)) for x, y in np.asarray(one.outline)], 1, turns)
        for i, one in enumerate(plan.placed)
    ]
    width = cloth.width - 2 * cloth.selvedge
    strip = spyrrow.StripPackingInstance("", width, items)
    config = spyrrow.StripPackingConfig(
        total_computation_time=max(1, round(seconds)), min_items_separation=cloth.gap or None, num_workers=2, seed=7
    )
    return strip.solve(config).width


#: Cut pieces of drafted garments, and the width (cm) of the open cloth that they are laid on.
DRAFTED = ((8, 140), (12, 140), (15, 150), (18, 112), (24, 150), (30, 140), (43, 150))


def drafted_garments(cut: int, cloth: Cloth, after: int) -> tuple[Found, float]:
    """Women's dresses and trousers laid, and the packer's length of the same."""
    wanted = laying.drafted(cut, after=after)
    began = time.perf_counter()
    *_, plan = plans(wanted, cloth, effort=EFFORT)
    took = time.perf_counter() - began
    faults = [fault.words for fault in faults_of(plan)]
    return Found(plan, took, faults), by_the_packer(plan, cloth, TIMES * took)


def open_cloth(random: Random) -> Cloth:
    """A cloth as the packer knows it: laid open, nothing to match."""
    return laying.random_cloth(random, Fold.OPEN).model_copy(update={"repeat": (0.0, 0.0), "match": ""})


def widest(plan) -> float:
    return max(shapely.Polygon(one.outline).bounds[2] - shapely.Polygon(one.outline).bounds[0] for one in plan.placed)


def main(sets: int) -> int:
    done: Counter[str] = Counter()
    wrong: list[str] = []
    ratios: list[tuple[float, int, float]] = []
    filled: list[float] = []
    for seed in range(sets):
        random = Random(f"lay {seed}")
        pieces, cloth = laying.random_pieces(random), laying.random_cloth(random)
        if not pieces:
            done["empty"] += 1
            continue
        try:
            found = laid(pieces, cloth)
        except DoesNotFit:
            done["does not fit, told"] += 1
        else:
            done[cloth.fold.value] += 1
            wrong += [f"{seed}: {fault}" for fault in found.faults]
            filled.append(found.plan.utilisation)
        cloth = open_cloth(random)
        # What is cut on the fold is cut whole on open cloth: here, each once as it is drawn.
        flat = [one for one in pieces if one.on_fold is None and cloth.width - 2 * cloth.selvedge > 42]
        if len(flat) < 2:
            continue
        found = laid(flat, cloth)
        wrong += [f"{seed}, open: {fault}" for fault in found.faults]
        # An item as wide as the strip brings the packer down.
        if widest(found.plan) > cloth.width - 2 * cloth.selvedge - 1:
            continue
        other = by_the_packer(found.plan, cloth, TIMES * found.took)
        ratios.append((found.plan.length / other, seed, found.took))
        if os.environ.get("IZETT_LAYS_TOLD"):
            count = len(found.plan.placed)
            print(f"{seed:4} {count:3} pieces {found.took:6.1f} s {found.plan.length / other:.3f}", flush=True)
    for after, (cut, width) in enumerate(DRAFTED):
        found, other = drafted_garments(cut, Cloth(width=width), after)
        wrong += [f"{cut} drafted: {fault}" for fault in found.faults]
        ratios.append((found.plan.length / other, -cut, found.took))
        if os.environ.get("IZETT_LAYS_TOLD"):
            print(f"{cut:9} drafted {found.took:6.1f} s {found.plan.length / other:.3f}", flush=True)
    own = [ratio for ratio, _, _ in ratios]
    over = [(round(ratio, 3), seed) for ratio, seed, _ in ratios if ratio > LONGER]
    print(f"lay plans: {dict(done)}; {len(wrong)} faults {wrong[:5]}")
    print(f"  of their cloth becomes pieces: {mean(filled):.1%} on average, {min(filled):.1%} to {max(filled):.1%}")
    print(
        f"  against the packer at {TIMES} times the time, {len(own)} sets: {mean(own):.3f} on average, "
        f"95 % within {quantiles(own, n=20)[18]:.3f}, the longest {max(own):.3f}; over {LONGER}: {over}"
    )
    return 1 if wrong or over else 0


if __name__ == "__main__":
    sys.exit(main(int(os.environ.get("IZETT_LAYS", SETS))))
