"""Lay plans: what holds of every one, what no cloth can do, and the straight-cut shirt as practice cuts it."""

import os
from contextlib import suppress
from dataclasses import replace
from pathlib import Path
from random import Random
from time import monotonic, sleep

import numpy as np
import pytest
import shapely

from izett.cutting.cloth import Cloth, Fold
from izett.cutting.lay import seeds
from izett.cutting.lay.columns import Ground, Spot, grown, length_of
from izett.cutting.lay.compacting import compacted
from izett.cutting.lay.cutouts import DoesNotFit, sections
from izett.cutting.lay.saving import savings
from izett.cutting.lay.search import Effort, best_plan, plans
from izett.cutting.lay.settling import slide
from izett.cutting.lay.sound import Fault, wrong_with
from izett.cutting.order import cutting_order
from izett.finishing.sheet import sheet_pieces
from izett.recipe.model import Recipe
from tests.laying import drafted, faults, piece, random_cloth, random_pieces, wanted

#: How many random sets: the sweep lays 500.
SETS = int(os.environ.get("IZETT_LAYS", "40"))
#: By the columns alone; and with the packer for a moment.
QUICK, SHORT = Effort(rounds=60, looks=0.0), Effort(rounds=60, looks=0.2)
SQUARE = ((0.0, 0.0), (20.0, 0.0), (20.0, 30.0), (0.0, 30.0))


def test_random_pieces_lie_on_random_cloths_as_they_may():
    """Never over each other, never off the cloth; grain, nap, fold and repeats obeyed; each piece as often as it is cut."""
    random, laid, by_fold, matched, packed = Random(17), 0, set(), 0, 0
    while laid < SETS:
        pieces, cloth = random_pieces(random), random_cloth(random)
        effort = SHORT if laid % 10 == 0 else QUICK
        try:
            plan = best_plan(wanted(*pieces), cloth, seed=laid, effort=effort)
        except DoesNotFit as told:
            assert (told.where and "wider" in told.fix) or "Fold" in told.fix
            continue
        if not plan.laid:
            continue
        laid += 1
        assert not list(faults(plan, pieces, cloth)), (laid, cloth)
        by_fold |= {section.section.bed.fold for section in plan.laid}
        matched += bool(cloth.repeat[1])
        packed += effort is SHORT and not any(cloth.repeat)
        # No plan is shorter than the cloth that its pieces take.
        area = sum(s.cutout.area * s.cutout.layers for part in plan.laid for s in part.spots)
        assert plan.length >= area / cloth.usable - 1e-6
        assert plan.utilisation <= 1
    assert by_fold == set(Fold)
    assert matched >= SETS / 10
    assert packed >= SETS / 40


def test_the_same_seed_gives_the_same_plan_and_better_ones_are_shorter(evaluator, middling):
    cut = wanted_of(evaluator.evaluate(Recipe("bodice", middling, also=("skirt",))).pattern)
    found = [list(plans(cut, Cloth(width=140), seed=5, effort=Effort(60, 0.4))) for _ in range(2)]
    for lengths in ([plan.length for plan in one] for one in found):
        assert lengths == sorted(lengths, reverse=True)
        assert len(lengths) > 1
    one, other = ([(p.spot.cutout.piece, p.turn, p.outline.tolist()) for p in plan[-1].placed] for plan in found)
    assert one == other


def wanted_of(pattern, times=1):
    from izett.cutting.lay.cutouts import Wanted

    return [Wanted(sheet, times) for sheet in sheet_pieces(pattern)]


def test_the_last_plan_is_the_same_in_whatever_order_the_finds_come(monkeypatch):
    found, asked = {}, seeds.finds

    def noted(*strip):
        for find in asked(*strip):
            found.setdefault(strip[1], (strip, []))[1].append(find)
            yield find

    monkeypatch.setattr(seeds, "finds", noted)
    last = best_plan(drafted(12), Cloth(width=140), effort=Effort(looks=0.3))
    ((ground, strip, first, *_), all_of_it) = found[0]
    assert sum(find.worth_pressing for find in all_of_it) >= 2
    for order in range(3):
        Random(order).shuffle(all_of_it)
        monkeypatch.setattr(seeds, "finds", lambda *_: iter(all_of_it))
        lengths = [length_of(spots) for spots in seeds.shorter(ground, strip, first, seed=1, looks=0.3)]
        assert lengths == sorted(lengths, reverse=True)
        assert lengths[-1] == pytest.approx(last.length, abs=1e-9)
        assert lengths[-1] <= min(length_of(compacted(find.spots, ground)) for find in all_of_it if find.worth_pressing)


def test_rectangles_lie_as_tight_as_sums_say():
    """Six of 20 by 30 on 60 of cloth: two rows of three, 60 long, nothing lost."""
    plan = best_plan(wanted(piece("square", SQUARE, cut=6)), Cloth(width=60, selvedge=0, gap=0), effort=QUICK)
    assert plan.length == pytest.approx(60, abs=1e-6)
    assert plan.utilisation == pytest.approx(1, abs=1e-6)


@pytest.mark.parametrize(("fold", "length"), [("lengthwise", 30), ("both_to_middle", 30), ("four_layers", 60)])
def test_a_pair_is_cut_once_through_two_layers_and_four_through_four(fold, length):
    """Through two layers four of 20 wide take two places side by side; through four, one place of a bed folded across."""
    cloth = Cloth(width=80, selvedge=0, gap=0, fold=fold)
    plan = best_plan(wanted(piece("square", SQUARE, cut=4)), cloth, effort=QUICK)
    assert plan.length == pytest.approx(length)
    assert {s.cutout.layers for part in plan.laid for s in part.spots} == {4 if fold == "four_layers" else 2}


def test_what_is_single_is_laid_open_after_what_is_cut_double():
    cloth = Cloth(width=80, selvedge=0, gap=0, fold="lengthwise")
    plan = best_plan(wanted(piece("pair", SQUARE), piece("single", SQUARE, cut=1)), cloth, effort=QUICK)
    assert [(part.section.bed.fold, len(part.spots)) for part in plan.laid] == [(Fold.LENGTHWISE, 1), (Fold.OPEN, 1)]
    assert plan.length == pytest.approx(60)


def test_front_and_back_on_two_folds_take_half_the_cloth():
    """Handbook, cutting: both selvedges folded to the middle, front and back each on a fold, side by side."""
    half = ((0.0, 30.0), (0.0, 0.0), (20.0, 0.0), (20.0, 30.0))
    pieces = [piece("front", half, cut=1, on_fold=True), piece("back", half, cut=1, on_fold=True)]
    one = best_plan(wanted(*pieces), Cloth(width=80, selvedge=0, gap=0, fold="lengthwise"), effort=QUICK)
    two = best_plan(wanted(*pieces), Cloth(width=80, selvedge=0, gap=0, fold="both_to_middle"), effort=QUICK)
    assert (one.length, two.length) == (pytest.approx(60), pytest.approx(30))


def test_a_piece_wider_than_the_cloth_is_named_with_by_how_much():
    wide = ((0.0, 0.0), (95.0, 0.0), (95.0, 20.0), (0.0, 20.0))
    with pytest.raises(DoesNotFit, match=r"Wide \(by 7 cm\)") as told:
        sections(wanted(piece("wide", wide)), Cloth(width=90))
    assert "97 cm" in told.value.fix and told.value.where == ("wide",)
    with pytest.raises(DoesNotFit, match=r"by 51 cm") as told:
        sections(wanted(piece("wide", wide)), Cloth(width=90, fold="lengthwise"))
    assert "102 cm" in told.value.fix


@pytest.mark.parametrize("seed", [81, 112])
def test_pieces_on_either_side_of_where_raw_edges_meet_are_as_far_apart_as_any(seed):
    """Cloth without a selvedge, both edges folded inwards: half of what lies between pieces is left on either side."""
    random = Random(f"lay {seed}")
    pieces, cloth = random_pieces(random), random_cloth(random)
    assert cloth.fold is Fold.BOTH_TO_MIDDLE and cloth.gap > 2 * cloth.selvedge
    plan = best_plan(wanted(*pieces), cloth, effort=Effort(rounds=200, looks=0.05))
    assert not list(faults(plan, pieces, cloth))


def test_sharp_pieces_as_wide_as_the_cloth_are_laid_with_what_is_left_free_around_them():
    random, laid = Random(3), 0
    for _ in range(60):
        wide, gap = random.uniform(20, 60), random.choice((0.3, 0.5, 1.0))
        thin = random.uniform(0.05, 0.4) * wide
        kite = piece(
            "kite", [(0.0, thin), (wide / 2, 0.0), (wide, thin), (wide / 2, 2 * thin)], cut=random.choice((1, 2, 4))
        )
        (sheet,) = wanted(kite)
        (pose, *_) = sections([sheet], Cloth(width=400))[0].cutouts[0].poses
        around = shapely.Polygon(grown(pose, gap / 2))
        # All that is nearer than half the gap, and no wider: the point of a mitre would stand out.
        assert around.buffer(1e-6).covers(shapely.Polygon(pose.outline).buffer(gap / 2, quad_segs=32))
        assert around.bounds[2] - around.bounds[0] == pytest.approx(wide + gap)
        for fold in (Fold.OPEN, Fold.LENGTHWISE, Fold.BOTH_TO_MIDDLE):
            layers = 1 if fold is Fold.OPEN else 2
            cloth = Cloth(width=layers * (wide + random.choice((1e-9, 0.01, 0.3, 7.0))), selvedge=0, gap=gap, fold=fold)
            with suppress(DoesNotFit):
                plan = best_plan([sheet], cloth, effort=QUICK)
                assert not list(faults(plan, [kite], cloth))
                laid += 1
    assert laid >= 120


def test_a_nap_keeps_all_pieces_one_way_up():
    plan = best_plan(wanted(piece("square", SQUARE, cut=8)), Cloth(width=90, nap=True), effort=SHORT)
    assert {placed.turn for placed in plan.placed} == {0.0}


def test_what_is_free_of_the_grain_may_lie_at_an_angle():
    """A strip of 100 by 5 does not lie across 90 of cloth; slanted, it does: only what may."""
    strip = ((0.0, 0.0), (100.0, 0.0), (100.0, 5.0), (0.0, 5.0))
    cloth = Cloth(width=90, selvedge=0, gap=0)
    with pytest.raises(DoesNotFit):
        best_plan(wanted(piece("strip", strip, cut=1)), cloth, effort=QUICK)
    plan = best_plan(wanted(piece("strip", strip, cut=1), ready={"strip": {"free": True}}), cloth, effort=QUICK)
    assert plan.placed[0].turn not in (0.0, 180.0)
    assert plan.length <= 100


def test_stripes_meet_at_the_level_that_was_chosen():
    lower = piece("front", SQUARE, level=10.0)
    upper = piece("back", ((0.0, 0.0), (25.0, 0.0), (25.0, 41.0), (0.0, 41.0)), level=17.3)
    cloth = Cloth(width=30, repeat=(0, 7), match="waist")
    plan = best_plan(wanted(lower, upper), cloth, effort=QUICK)
    assert not list(faults(plan, [lower, upper], cloth))
    # One above the other: each waits for its stripe.
    unmatched = best_plan(wanted(lower, upper), Cloth(width=30), effort=QUICK)
    assert plan.length > unmatched.length


def test_a_piece_whose_stripes_fall_nowhere_on_the_cloth_is_told_and_not_left_out():
    """90 wide on 91 of cloth has a centimetre to move in: a stripe every 40 that must run through its middle is not there."""
    wide = ((0.0, 0.0), (90.0, 0.0), (90.0, 20.0), (0.0, 20.0))
    lopsided = piece("wide", wide, cut=1)
    cloth = Cloth(width=91, selvedge=0, gap=0, repeat=(40, 0), match="waist")
    assert best_plan(wanted(lopsided), cloth, effort=QUICK).length == pytest.approx(20)
    off = replace(lopsided, grain=((20.0, 4.0), (20.0, 16.0)))
    with pytest.raises(DoesNotFit, match="where the stripes meet: Wide") as told:
        best_plan(wanted(off), cloth, effort=QUICK)
    assert told.value.where == ("wide",)


def test_a_search_that_is_not_wanted_any_more_leaves_no_process_behind(evaluator, middling):
    """Cancelled after the first better plan, and when whoever asked is gone: the packer ends at once."""
    cut = wanted_of(evaluator.evaluate(Recipe("bodice", middling, also=("sleeve", "skirt"))).pattern)
    found = plans(cut, Cloth(width=140), effort=Effort(rounds=20, looks=20.0))
    next(found)
    next(found)
    assert packers()
    found.close()
    began = monotonic()
    while packers() and monotonic() - began < 5:
        sleep(0.05)
    assert not packers()


def packers():
    """The packers that this process began and that still run."""
    found = []
    for status in Path("/proc").glob("[0-9]*/status"):
        # A process may be gone between being listed and being read.
        with suppress(OSError):
            own = f"\nPPid:\t{os.getpid()}\n" in status.read_text()
            if own and b"packer.py" in (status.parent / "cmdline").read_bytes():
                found.append(status.parent.name)
    return found


# ---------------------------------------------------------------- what reads a plan


def test_what_is_wrong_with_a_plan_is_found():
    cut = sections(wanted(piece("square", SQUARE)), Cloth(width=100, selvedge=0, gap=0.5))[0].cutouts
    ground = Ground(100.0, 0.5)
    one, other = (Spot(c, c.poses[0], 0, 0.0, 0.0) for c in cut)

    def kinds(*spots):
        return {found.fault for found in wrong_with(spots, [ground])}

    assert kinds(one, Spot(other.cutout, other.pose, 0, 20.5, 0.0)) == set()
    assert kinds(one, Spot(other.cutout, other.pose, 0, 20.3, 0.0)) == {Fault.TOO_NEAR}
    assert kinds(one, Spot(other.cutout, other.pose, 0, 19.0, 0.0)) == {Fault.OVER_EACH_OTHER}
    assert kinds(Spot(one.cutout, one.pose, 0, 80.2, 0.0)) == {Fault.OFF_THE_CLOTH}
    assert kinds(Spot(one.cutout, one.pose, 0, 0.0, -0.5)) == {Fault.OFF_THE_CLOTH}
    over = next(c for c in cut if c.ways[0][1])
    assert kinds(Spot(one.cutout, over.poses[0], 0, 0.0, 0.0)) == {Fault.OFF_THE_GRAIN}


def test_a_fold_and_a_repeat_are_read_too():
    half = ((0.0, 30.0), (0.0, 0.0), (20.0, 0.0), (20.0, 30.0))
    folded = Cloth(width=100, selvedge=0, gap=0, fold="lengthwise")
    (cutout,) = sections(wanted(piece("front", half, cut=1, on_fold=True)), folded)[0].cutouts
    off = Spot(cutout, cutout.poses[0], 0, 0.4, 0.0)
    assert [found.fault for found in wrong_with([off], [Ground(50.0, 0.0)])] == [Fault.OFF_THE_FOLD]
    striped = Cloth(width=100, selvedge=0, gap=0, repeat=(0, 5), match="waist")
    one, other = sections(wanted(piece("front", SQUARE, level=10.0)), striped)[0].cutouts
    spots = [Spot(one, one.poses[0], 0, 0.0, 0.0), Spot(other, other.poses[0], 0, 30.0, 2.0)]
    assert [found.fault for found in wrong_with(spots, [Ground(100.0, 0.0, (0.0, 5.0))])] == [Fault.NOT_MATCHED]


def test_how_far_an_outline_slides_is_what_shapely_says():
    """Against bisection on shapely's intersections, for random outlines above each other."""
    random, met = Random(3), 0
    for _ in range(120):
        shapes = [np.array(p.outline()) for p in random_pieces(random)[:2]]
        if len(shapes) < 2:
            continue
        fixed, moving = shapes[0], shapes[1] + (random.uniform(-20, 20), 120.0)
        by = slide(moving, fixed)
        area = lambda down: shapely.Polygon(moving - (0, down)).intersection(shapely.Polygon(fixed)).area  # noqa: B023, E731
        if by == float("inf"):
            assert all(area(down) < 1e-6 for down in np.linspace(0, 240, 60))
            continue
        met += 1
        assert area(by - 1e-3) < 1e-6
        assert area(by + 0.2) > 0
    assert met >= 60


# ---------------------------------------------------------------- what saves cloth, and the shirt


def test_the_straight_cut_shirt_on_55_inches_leaves_20_beside_its_body():
    """Handbook, garments (common practice, inches): body 35 by 33, sleeve 24 wide, on cloth 55 wide."""
    inch = 2.54

    def rectangle(name, wide, long, cut=2):
        return piece(
            name, tuple((x * inch, y * inch) for x, y in ((0, 0), (wide, 0), (wide, long), (0, long))), cut=cut
        )

    shirt = wanted(rectangle("body", 35, 33), rectangle("sleeve", 24, 23))
    cloth = Cloth(width=55 * inch, selvedge=0, gap=0)
    plan = best_plan(shirt, cloth, effort=QUICK)
    assert plan.length / inch > 66 + 10
    told = {saving.words: saving.saves for saving in savings(shirt, cloth, plan)}
    words = next(words for words in told if words.startswith("Beside Body"))
    assert words == "Beside Body there are ⟦50.8 cm⟧ left: cut Sleeve ⟦10.2 cm⟧ narrower."
    # 20 in left, 4 in narrower: the sleeves then lie beside the bodies, which are 66 in long.
    assert told[words] / inch == pytest.approx(plan.length / inch - 66, abs=0.5)


def test_the_largest_is_cut_first_and_straight_cut_ones_before_all(evaluator, middling):
    pattern = evaluator.evaluate(Recipe("bodice", middling, also=("sleeve", "skirt"))).pattern
    rows = cutting_order(wanted_of(pattern))
    assert [row.area for row in rows] == sorted((row.area for row in rows), reverse=True)
    shirt = evaluator.evaluate(Recipe("straight_shirt", middling)).pattern
    assert all(row.straight for row in cutting_order(wanted_of(shirt)))
