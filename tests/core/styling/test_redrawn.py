"""Lines drawn along new marks: what was marked is what is cut, names and what lies on the line stay, what hangs on it follows."""

from collections import Counter

import pytest
import shapely

from izett.errors import StepRefused
from izett.geometry.motion import Motion
from izett.geometry.point import distance
from izett.pattern.facts import Role, SeamKind
from izett.pattern.sewn import seam_lengths, span_length
from izett.recipe.model import Recipe, Step
from izett.styling.operation import Section
from izett.styling.replacing import runs
from tests.bodies import with_hips
from tests.core.styling.worked import DRESS, worked

BODIES = [{"height": 165.0, **body} for body in with_hips(160)]
#: cm. A line through marks lies so near to the one that they were taken from: it is square at the centre, and no dot is exact.
WITHIN = 0.22
#: Lines that a draping session marks anew, by the piece that they are on.
LINES = {
    "front.armhole": "bodice_front", "back.armhole": "bodice_back", "front.neck": "bodice_front",
    "back.neck": "bodice_back", "front.shoulder": "bodice_front", "skirt_front.hem": "skirt_front",
}  # fmt: skip


def edge_of(pattern, piece, line):
    return next(edge for edge in pattern.piece(piece).edges if edge.lineage == line and not edge.is_leg)


def marked(edge, shift=(0.0, 0.0), *, dots=7, crosses=False):
    """Marks along an edge that was moved, as the step keeps them."""
    long = edge.curve.length
    spots = [edge.curve.at_distance(long * (i + 1) / (dots + 1)) for i in range(dots)]
    ends = [("cross", edge.curve.start), *(("dot", s) for s in spots), ("cross", edge.curve.end)]
    return [{"kind": kind, "at": (x + shift[0], y + shift[1])} for kind, (x, y) in ends if crosses or kind == "dot"]


def redraw(pattern, piece, line, marks, **more):
    edge = edge_of(pattern, piece, line)
    return (
        "redraw_edge",
        {"piece": piece, "line": line, "marks": marks, "was": edge.curve.points[:: len(edge.curve.points) - 1], **more},
    )


def apart(one, other):
    """The largest distance between two lines, cm."""
    return shapely.hausdorff_distance(*(shapely.LineString(c.flattened()) for c in (one, other)))


def test_a_line_moved_by_its_marks_lies_where_they_were_and_keeps_its_names_and_notches(evaluator):
    acted = Counter()
    for body in BODIES:
        before = worked(evaluator, body).pattern
        for line, name in LINES.items():
            edge = edge_of(before, name, line)
            shift = (0.0, -0.8) if edge.role in (Role.HEM, Role.NECK) else (-0.3, -0.4)
            done = worked(evaluator, body, redraw(before, name, line, marked(edge, shift, crosses=True)))
            assert done.stages[0].failure is None, (line, done.stages[0].failure)
            now = edge_of(done.stages[0].left, name, line)
            assert apart(now.curve, edge.curve.mapped(Motion.sliding(shift))) < WITHIN, line
            assert (now.start, now.end, now.role) == (edge.start, edge.end, edge.role)
            was, piece = before.piece(name), done.stages[0].left.piece(name)
            assert piece.vertices.keys() == was.vertices.keys()
            pairs = zip(was.notches, piece.notches, strict=True)
            for old, new in ((a, b) for a, b in pairs if a.span.along == line):
                share = [n.distance / span_length(p, n.span) for p, n in ((was, old), (piece, new))]
                assert share[0] == pytest.approx(share[1], abs=1e-9)
                acted["notches"] += 1
            acted[line] += 1
    assert all(acted[line] == len(BODIES) for line in LINES)
    assert acted["notches"] >= 2 * len(BODIES)


def test_the_marks_of_the_line_itself_change_nothing_that_a_hand_could_see(evaluator):
    for body in BODIES[:3]:
        before = worked(evaluator, body).pattern
        for line, name in LINES.items():
            edge = edge_of(before, name, line)
            done = worked(evaluator, body, redraw(before, name, line, marked(edge)))
            assert apart(edge_of(done.stages[0].left, name, line).curve, edge.curve) < WITHIN, line


@pytest.mark.parametrize("section", [Section.FIT, Section.STYLE])
def test_after_a_new_armhole_the_sleeve_is_capped_again(evaluator, middling, section):
    before = worked(evaluator, middling)
    edge = edge_of(before.pattern, "bodice_front", "front.armhole")
    kind, params = redraw(before.pattern, "bodice_front", "front.armhole", marked(edge, (-1.2, 0.0)))
    step = Step("d", kind, params, section=section)
    after = evaluator.evaluate(Recipe(DRESS[0], middling, also=DRESS[1:], steps=(step,)))
    grown = edge_of(after.pattern, "bodice_front", "front.armhole").curve.length - edge.curve.length
    assert grown > 0.3
    (cap,) = after.pattern.seams_of(SeamKind.CAP)
    (was,) = before.pattern.seams_of(SeamKind.CAP)
    lengths = [seam_lengths(one.pattern, seam) for one, seam in ((before, was), (after, cap))]
    eased = [max(pair) - min(pair) for pair in lengths]
    assert eased[1] == pytest.approx(eased[0], abs=0.16), "the same ease on a cap of another length"


def test_the_new_line_goes_with_the_line_that_it_replaces(evaluator, middling):
    """Fuller in the bust, the ends lie elsewhere: the marks keep their place to them, and the seams still agree at the ends."""
    before = worked(evaluator, middling).pattern
    edge = edge_of(before, "bodice_front", "front.armhole")
    step = redraw(before, "bodice_front", "front.armhole", marked(edge, (-0.8, 0.0)))
    own = edge_of(worked(evaluator, middling, step).stages[0].left, "bodice_front", "front.armhole").curve
    for more in (2.0, 6.0, 10.0):
        body = {**middling, "bust_girth": middling["bust_girth"] + more}
        plain = edge_of(worked(evaluator, body).pattern, "bodice_front", "front.armhole").curve
        now = edge_of(worked(evaluator, body, step).stages[0].left, "bodice_front", "front.armhole").curve
        assert (now.start, now.end) == (plain.start, plain.end)
        ratio = distance(now.start, now.end) / distance(own.start, own.end)
        assert now.length == pytest.approx(own.length * ratio, abs=0.05), "the same line, larger"
    far = {**middling, "height": 168.0, "bust_girth": 150.0, "waist_girth": 130.0, "high_bust_girth": 140.0}
    stage = worked(evaluator, far, step).stages[0]
    now = edge_of(worked(evaluator, far).pattern, "bodice_front", "front.armhole")
    ratio = distance(now.curve.start, now.curve.end) / distance(edge.curve.start, edge.curve.end)
    assert (stage.failure is not None) == (ratio > 1.4)


def test_a_part_of_a_line_between_a_corner_and_a_dart_is_redrawn_by_itself(evaluator, middling):
    before = worked(evaluator, middling).pattern
    first, second = runs(before.piece("bodice_front"), "front.waist")
    marks = [
        {"at": (x, y - 0.4)} for x, y in (second.edges[0].curve.at_distance(second.length * s) for s in (0.3, 0.5, 0.7))
    ]
    step = ("redraw_edge", {"piece": "bodice_front", "line": "front.waist", "marks": marks, "was": second.ends})
    piece = worked(evaluator, middling, step).stages[0].left.piece("bodice_front")
    now = runs(piece, "front.waist")
    assert now[0].edges == first.edges
    assert apart(now[1].edges[0].curve, second.edges[0].curve) == pytest.approx(0.4, abs=0.1)
    assert piece.darts == before.piece("bodice_front").darts
    leg = [{"kind": "cross", "at": (second.ends[0][0], second.ends[0][1] - 0.5)}, *marks]
    stage = worked(evaluator, middling, (step[0], {**step[1], "marks": leg})).stages[0]
    assert "dart's legs would differ" in str(stage.failure)


def test_a_line_between_two_crosses_keeps_its_character(evaluator, middling):
    before = worked(evaluator, middling).pattern
    edge = edge_of(before, "bodice_front", "front.neck")
    (x, y) = edge.curve.end
    step = redraw(before, "bodice_front", "front.neck", [{"kind": "cross", "at": (x, y - 1.0)}])
    now = edge_of(worked(evaluator, middling, step).stages[0].left, "bodice_front", "front.neck").curve
    assert now.end == pytest.approx((x, y - 1.0))
    assert now.start == edge.curve.start
    assert now.end_direction == pytest.approx(edge.curve.end_direction), "it stays square at the centre"


@pytest.mark.parametrize(
    ("change", "says"),
    [
        (lambda marks: [*marks[:3], {"at": (marks[3]["at"][0] + 0.9, marks[3]["at"][1])}, *marks[4:]], "off the line"),
        (lambda marks: [{**mark, "kind": "cross"} for mark in marks[:3]], "a line has two ends"),
        (lambda marks: [marks[0], marks[1], marks[1], *marks[2:]], "lie at one place"),
    ],
)
def test_marks_that_make_no_line_are_refused_and_nothing_is_lost(evaluator, middling, change, says):
    before = worked(evaluator, middling)
    marks = marked(edge_of(before.pattern, "bodice_front", "front.armhole"), (-0.5, 0.0))
    after = worked(evaluator, middling, redraw(before.pattern, "bodice_front", "front.armhole", change(marks)))
    assert isinstance(after.stages[0].failure, StepRefused)
    assert says in str(after.stages[0].failure)
    assert after.stages[0].failure.fix
    assert after.pattern.piece("bodice_front") == before.pattern.piece("bodice_front")


@pytest.mark.parametrize("backwards", [False, True])
def test_a_mark_is_told_by_the_number_that_it_was_typed_as_whichever_way_the_line_was_walked(
    evaluator, middling, backwards
):
    before = worked(evaluator, middling).pattern
    marks = marked(edge_of(before, "bodice_front", "front.armhole"), crosses=True)
    x, y = marks[4]["at"]
    marks[4] = {"kind": "dot", "at": (x - 0.9, y)}
    number = 5
    if backwards:
        marks.reverse()
        number = len(marks) - 4
    stage = worked(evaluator, middling, redraw(before, "bodice_front", "front.armhole", marks)).stages[0]
    assert f"Mark {number} lies" in str(stage.failure)


def test_two_crosses_at_one_place_are_told(evaluator, middling):
    before = worked(evaluator, middling).pattern
    at = edge_of(before, "bodice_front", "front.armhole").curve.start
    marks = [{"kind": "cross", "at": at}, {"kind": "cross", "at": (at[0] + 0.1, at[1])}]
    stage = worked(evaluator, middling, redraw(before, "bodice_front", "front.armhole", marks)).stages[0]
    assert "would lie at one place" in str(stage.failure)


def test_a_line_through_all_goes_through_the_dot_that_lay_off(evaluator, middling):
    before = worked(evaluator, middling).pattern
    marks = marked(edge_of(before, "bodice_front", "front.armhole"))
    x, y = marks[3]["at"]
    marks[3] = {"at": (x - 0.6, y)}
    step = redraw(before, "bodice_front", "front.armhole", marks, way="through_all")
    now = edge_of(worked(evaluator, middling, step).stages[0].left, "bodice_front", "front.armhole").curve
    assert shapely.Point(x - 0.6, y).distance(shapely.LineString(now.flattened())) < 0.02
