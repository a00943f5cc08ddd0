"""Level lines end on the outline whatever a step did, so that what is read at a level is what the outline has there."""

from dataclasses import replace
from math import dist, hypot

import pytest
import shapely

from izett.catalogue import catalogue
from izett.geometry.curve import straight
from izett.pattern.levels import AROUND, settled, straight_across
from izett.pattern.piece import LevelLine
from izett.recipe.model import Recipe, Step
from tests.bodies import with_hips
from tests.core.blocks import drafted

BODY = {"bust_girth": 92.0, "waist_girth": 74.0, "hip_girth": 98.0, "height": 168.0, "high_bust_girth": 87.0}
EXAMPLES = [
    pytest.param(key, params, id=f"{key}-{i}")
    for key, operation in catalogue().operations.items()
    for i, params in enumerate(operation.examples)
]
#: Twelve bodies over all kinds.
BODIES = with_hips(69)[:12]
#: Steps whose examples leave every level bent or parted: its ends are looked at only.
BENT = {"move_dart", "join_pieces", "change_shoulder"}
#: cm. Parts of a level that lie so near to each other within the paper are one place as sewn: over the point of a dart.
ONE_PLACE = 1.5
#: cm, by shapely on outlines flattened as finely.
SECTION, ON_OUTLINE, FINE = 0.1, 0.05, 0.001


def borders(piece):
    """What a level may end on: the outline, its diamonds, and the legs of its darts as far as their pivots."""
    lines = [[*piece.outline(flatness=FINE), piece.outline()[0]]]
    lines += [[*diamond.outline, diamond.top] for diamond in piece.diamonds]
    # A button stand lies beyond the centre, and is not around the body.
    lines += [line.points for line in piece.lines if line.level == "centre"]
    lines += [[piece.vertex(d.mouth[0]), d.pivot, piece.vertex(d.mouth[1])] for d in piece.darts]
    return shapely.multilinestrings([shapely.linestrings(line) for line in lines])


def section(piece, level):
    """The length of a level through the closed outline, cut by shapely; None where its parts are not in one line.

    Nor where an end of it lies on a corner along whose other edge the line runs: there a hair decides.
    """
    spots = [p for line in piece.lines if line.level == level for p in line.points]
    (ax, ay), (bx, by) = min(spots), max(spots)
    long = hypot(bx - ax, by - ay)
    ux, uy = (bx - ax) / long, (by - ay) / long
    if max(abs((x - ax) * uy - (y - ay) * ux) for x, y in spots) > SECTION / 2:
        return None
    paper = shapely.Polygon(piece.outline(flatness=FINE))
    for diamond in piece.diamonds:
        paper = paper.difference(shapely.Polygon(diamond.outline))
    cut = shapely.linestrings([(ax - 200 * ux, ay - 200 * uy), (bx + 200 * ux, by + 200 * uy)])
    beside = [
        shapely.transform(cut, lambda xy, by=by: xy + by) for by in ((-uy * 0.02, ux * 0.02), (uy * 0.02, -ux * 0.02))
    ]
    lengths = [paper.intersection(line).length for line in (cut, *beside)]
    return lengths[0] if max(lengths) - min(lengths) < SECTION else None


def assert_read_true(pattern):
    """Every end on the outline, every width that can be cut as cut; return how many were cut."""
    cut = 0
    for piece in pattern:
        for line in piece.lines:
            if line.level in AROUND:
                others = [o for o in piece.lines if o.level == line.level and o is not line]
                for end in (line.points[0], line.points[-1]):
                    met = any(dist(end, spot) < ONE_PLACE for o in others for spot in (o.points[0], o.points[-1]))
                    off = shapely.distance(borders(piece), shapely.points(end))
                    assert off < ON_OUTLINE or met, (piece.name, line.level)
        for level in {line.level for line in piece.lines} & AROUND:
            if (found := section(piece, level)) is not None:
                assert piece.level(level) == pytest.approx(found, abs=SECTION), (piece.name, level)
                cut += 1
    return cut


@pytest.mark.parametrize(("kind", "params"), EXAMPLES)
def test_after_a_step_each_level_is_as_wide_as_the_outline_is_there(kind, params, evaluator):
    """Independent of the program: a section of the closed outline by shapely, on twelve bodies."""
    operation = catalogue().operations[kind]
    acted = cut = 0
    for body in BODIES:
        steps = (*operation.before, (kind, params))
        made = tuple(Step(f"s{i}", each, own) for i, (each, own) in enumerate(steps))
        known = {**body, "underbust_girth": body["bust_girth"] - 12}
        evaluation = evaluator.evaluate(Recipe(operation.blocks[0], known, also=operation.blocks[1:], steps=made))
        if evaluation.stages[-1].failure is None:
            acted += 1
            cut += assert_read_true(evaluation.left)
    assert acted >= 4
    assert cut >= acted / 2 or kind in BENT


def front(name="skirt_front", block="skirt"):
    return drafted([block], BODY).pattern.piece(name)


def test_a_line_that_ends_within_the_piece_is_run_on_and_one_that_runs_out_is_cut_back():
    piece = front()
    (hip,) = [line for line in piece.lines if line.level == "hip"]
    (ax, y), (bx, _) = hip.points
    for end in (bx - 4, bx + 5):
        moved = replace(piece, lines=(LevelLine("hip", ((ax, y), (end, y))),))
        anew, gone = settled(moved)
        assert gone == frozenset()
        assert anew.level("hip") == pytest.approx(piece.level("hip"), abs=0.01)
    assert settled(piece)[0] is piece


def test_a_level_below_the_hem_is_no_level_of_the_garment(evaluator):
    """A skirt cut off above its hip line has no hip any more, on any of its pieces."""
    short = Step("s0", "shape_hem", {"front": -40.0, "side": -40.0, "back": -40.0})
    long = Step("s0", "shape_hem", {"front": 4.0, "side": 4.0, "back": 4.0})
    for step, levels in ((short, set()), (long, {"hip"})):
        evaluation = evaluator.evaluate(Recipe("skirt", {**BODY, "waist_to_knee": 58.0}, steps=(step,)))
        assert evaluation.stages[0].failure is None, evaluation.stages[0].failure
        assert {line.level for piece in evaluation.pattern for line in piece.lines} == levels


def test_a_level_is_walked_straight_over_darts_as_sewn():
    """From the centre at bust height over the side dart: as wide as drafted; over a waist dart it loses what that takes in."""
    piece = front("bodice_front", "bodice")
    bust = [line for line in piece.lines if line.level == "bust"]
    apex = piece.marks["apex"]
    parts = straight_across(piece, (0.0, apex[1] - 1.0), (1.0, 0.0))
    assert sum(hypot(b[0] - a[0], b[1] - a[1]) for a, b in parts) == pytest.approx(sum(x.length for x in bust), abs=0.6)
    low = straight_across(piece, (0.0, 3.0), (1.0, 0.0))
    whole = straight_across(replace(piece, darts=(), edges=without_legs(piece)), (0.0, 3.0), (1.0, 0.0))
    taken = sum(hypot(b[0] - a[0], b[1] - a[1]) for a, b in whole) - sum(
        hypot(b[0] - a[0], b[1] - a[1]) for a, b in low
    )
    dart = piece.dart("front.waist_dart")
    a, b = (piece.vertex(name) for name in dart.mouth)
    share = (piece.vertex(dart.tip)[1] - 3.0) / (piece.vertex(dart.tip)[1] - a[1])
    # Beyond the dart the line goes on square to nothing but itself: the side leans, and is met a little higher.
    assert taken == pytest.approx(share * hypot(b[0] - a[0], b[1] - a[1]), rel=0.2)


def without_legs(piece):
    """The ring with its darts' mouths bridged straight."""
    found = []
    for edge in piece.edges:
        if edge.is_leg and edge.end == piece.dart(edge.lineage).tip:
            a, b = piece.dart(edge.lineage).mouth
            found.append(
                replace(edge, role=piece.edges[0].role, end=b, curve=straight(piece.vertex(a), piece.vertex(b)))
            )
        elif not edge.is_leg:
            found.append(edge)
    return tuple(found)
