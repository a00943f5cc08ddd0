"""Plans moved by hand: what snaps, what stays, what is told; and plans read back from their files."""

import json

import numpy as np
import pytest

from izett.cutting.cloth import Cloth
from izett.cutting.lay.by_hand import faults_of, moved
from izett.cutting.lay.search import Effort, best_plan
from izett.cutting.lay.sound import Fault
from izett.errors import UnknownName, UnreadableFile
from izett.files.lay_json import PiecesChanged, lay_document, plan_of, read_lay, write_lay
from tests.laying import piece, wanted

QUICK = Effort(rounds=40, looks=0.0)
SQUARE = ((0.0, 0.0), (20.0, 0.0), (20.0, 30.0), (0.0, 30.0))
HALF = ((0.0, 40.0), (0.0, 0.0), (18.0, 0.0), (18.0, 40.0))


@pytest.fixture
def cut():
    return wanted(piece("square", SQUARE), piece("single", SQUARE, cut=1))


@pytest.fixture
def plan(cut):
    return best_plan(cut, Cloth(width=100, gap=0.5), effort=QUICK)


def box(plan, number):
    outline = plan.placed[number].outline
    return outline.min(axis=0), outline.max(axis=0)


def test_a_piece_that_is_put_near_another_is_drawn_up_to_it(plan):
    """Three lie side by side, half a centimetre apart; the last is put 1.4 cm off, and comes back to its neighbour."""
    last = int(np.argmax([box(plan, i)[0][0] for i in range(3)]))
    before = box(plan, last)[0]
    loose = moved(plan, last, across=1.4, along=0.9, snap=False)
    assert box(loose, last)[0] == pytest.approx(np.add(before, (1.4, 0.9)))
    drawn = moved(plan, last, across=1.4, along=0.9)
    assert box(drawn, last)[0] == pytest.approx(before, abs=0.15)
    assert not faults_of(drawn)


def test_a_piece_that_lies_over_another_by_little_is_moved_out_and_by_much_it_is_told(plan):
    order = sorted(range(3), key=lambda i: box(plan, i)[0][0])
    nudged = moved(plan, order[1], across=0.8, along=0.0)
    assert not faults_of(nudged)
    pushed = moved(plan, order[1], across=11.0, along=0.0)
    (fault,) = [f for f in faults_of(pushed) if f.fault is Fault.OVER_EACH_OTHER]
    assert set(fault.spots) == {order[1], order[2]}
    # It stays where it was put.
    assert box(pushed, order[1])[0][0] == pytest.approx(box(plan, order[1])[0][0] + 11.0, abs=2.0)


def test_a_piece_far_down_makes_the_plan_longer_and_off_the_cloth_is_told(plan):
    assert moved(plan, 0, across=0, along=50).length == pytest.approx(plan.length + 50, abs=2.1)
    assert {f.fault for f in faults_of(moved(plan, 0, across=200, along=0))} == {Fault.OFF_THE_CLOTH}


def test_a_piece_turns_only_as_its_grain_and_its_pair_allow(plan):
    turned = moved(plan, 0, across=0, along=0, turn=180.0)
    assert turned.placed[0].turn == 180.0
    for way in ({"turn": 45.0}, {"flipped": not plan.placed[0].flipped}):
        with pytest.raises(UnknownName, match="may not lie so"):
            moved(plan, 0, across=0, along=0, **way)
    with pytest.raises(UnknownName, match="no such piece"):
        moved(plan, 99, across=0, along=0)


def test_what_is_cut_on_a_fold_stays_on_one_and_goes_over_to_the_other():
    cut = wanted(piece("front", HALF, cut=1, on_fold=True), piece("back", HALF, cut=1, on_fold=True))
    cloth = Cloth(width=100, gap=0, fold="both_to_middle")
    plan = best_plan(cut, cloth, effort=QUICK)
    folds = {round(float(x), 6) for one in plan.placed for x in (one.outline[:, 0].min(), one.outline[:, 0].max())}
    assert {0.0, 50.0} <= folds
    first = next(i for i, one in enumerate(plan.placed) if one.outline[:, 0].min() == pytest.approx(0))
    same = moved(plan, first, across=3.0, along=60.0)
    assert same.placed[first].outline[:, 0].min() == pytest.approx(0)
    over = moved(plan, first, across=30.0, along=60.0)
    assert over.placed[first].outline[:, 0].max() == pytest.approx(50)
    assert not faults_of(over)


def test_a_plan_comes_back_from_its_file_just_as_it_lay(cut, plan):
    again = plan_of(read_lay(write_lay(plan)), cut)
    assert again.length == pytest.approx(plan.length, abs=1e-5)
    for one, other in zip(again.placed, plan.placed, strict=True):
        assert one.outline == pytest.approx(other.outline, abs=1e-5)
        assert (one.turn, one.flipped) == (other.turn, other.flipped)


@pytest.mark.parametrize("fold", ["lengthwise", "both_to_middle", "crosswise", "four_layers"])
def test_a_folded_plan_comes_back_too(fold):
    cut = wanted(
        piece("front", HALF, cut=2, on_fold=True), piece("square", SQUARE, cut=6), piece("single", SQUARE, cut=1)
    )
    plan = best_plan(cut, Cloth(width=110, gap=0.3, fold=fold), effort=QUICK)
    again = plan_of(lay_document(plan), cut)
    assert not faults_of(again)
    for one, other in zip(again.placed, plan.placed, strict=True):
        assert one.outline == pytest.approx(other.outline, abs=1e-5)


def test_a_plan_of_pieces_that_changed_is_told(cut, plan):
    document = lay_document(plan)
    more = wanted(piece("square", SQUARE), piece("single", SQUARE, cut=1), piece("new", SQUARE))
    larger = wanted(piece("square", tuple((x * 1.1, y) for x, y in SQUARE)), piece("single", SQUARE, cut=1))
    for pieces in (more, larger, cut[:1]):
        with pytest.raises(PiecesChanged, match="not those that this plan was laid of"):
            plan_of(document, pieces)


@pytest.mark.parametrize(
    "spoil",
    [
        lambda d: d.update(format="izett-cloth"),
        lambda d: d.update(placed="x"),
        lambda d: d.pop("cloth"),
        lambda d: d.update(length=None),
    ],
)
def test_a_damaged_plan_is_told(plan, spoil):
    data = json.loads(write_lay(plan))
    spoil(data)
    with pytest.raises(UnreadableFile):
        read_lay(json.dumps(data))
