"""Plans pressed together: never longer, as sound as before, and as short as they go where that is known."""

from dataclasses import replace
from random import Random

import pytest

from izett.cutting.cloth import Cloth, Fold
from izett.cutting.lay.bed import bed_of
from izett.cutting.lay.columns import Spot, length_of
from izett.cutting.lay.compacting import compacted
from izett.cutting.lay.cutouts import DoesNotFit, sections
from izett.cutting.lay.plan import grounds_of
from izett.cutting.lay.search import Effort, laid_quickly
from izett.cutting.lay.sound import wrong_with
from tests import laying


def boxes(*sizes):
    """Boxes cut once each."""
    return laying.wanted(
        *(laying.piece(f"box_{i}", [(0, 0), (w, 0), (w, h), (0, h)], cut=1) for i, (w, h) in enumerate(sizes))
    )


def apart(wanted, cloth, random):
    """All of a strip laid far apart, one beyond the other."""
    (section,) = sections(wanted, cloth, Fold.OPEN)
    spots, at = [], 0.0
    for cutout in section.cutouts:
        pose = cutout.poses[0]
        x = random.uniform(0, grounds_of(bed_of(cloth, Fold.OPEN), cloth)[0].width - pose.width)
        spots.append(Spot(cutout, pose, 0, x, at))
        at += pose.height + random.uniform(0.5, 1.8)
    return spots, grounds_of(section.bed, cloth)[0]


@pytest.mark.parametrize("gap", [0.0, 0.3])
def test_boxes_one_beyond_the_other_come_to_lie_edge_on_edge(gap):
    cloth = Cloth(width=60, selvedge=0, gap=gap)
    spots, ground = apart(boxes((40, 20), (50, 30), (45, 12)), cloth, Random(3))
    pressed = compacted(spots, ground)
    # No two of them lie side by side on so narrow a cloth: their heights, and what is left free between them.
    assert length_of(pressed) == pytest.approx(20 + 30 + 12 + 2 * gap, abs=0.05)
    assert not list(wrong_with(pressed, [ground]))


def test_random_plans_are_never_longer_and_stay_sound():
    shorter = tried = 0
    for seed in range(30):
        random = Random(f"pressed {seed}")
        pieces, cloth = laying.random_pieces(random), laying.random_cloth(random)
        cloth = cloth.model_copy(update={"repeat": (0.0, 0.0), "match": ""})
        if not pieces:
            continue
        try:
            laid = laid_quickly(
                sections(laying.wanted(*pieces), cloth, cloth.fold), cloth, seed=seed, effort=Effort(8, 0)
            )
        except DoesNotFit:
            continue
        for one in laid:
            grounds = grounds_of(one.section.bed, cloth)
            for strip, ground in enumerate(grounds):
                own = [replace(spot, strip=0) for spot in one.spots if spot.strip == strip]
                if len(own) < 2:
                    continue
                tried += 1
                pressed = compacted(own, ground)
                assert length_of(pressed) <= length_of(own) + 1e-9
                shorter += length_of(pressed) < length_of(own) - 0.02
                assert not list(wrong_with(pressed, [ground])), seed
                assert all(a.pose is b.pose for a, b in zip(own, pressed, strict=True))
    assert tried >= 20 and shorter >= 5


def test_the_same_is_pressed_to_the_same():
    cloth = Cloth(width=90, selvedge=0)
    spots, ground = apart(boxes((40, 20), (30, 30), (45, 12), (20, 50)), cloth, Random(4))
    assert compacted(spots, ground) == compacted(spots, ground)
