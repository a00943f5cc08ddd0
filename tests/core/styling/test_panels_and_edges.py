"""One edge over all panels, flare from a level, bands that follow their edges, places as a hand gives them.

Measured from outside: along the outline of the finished pattern, over many bodies. Common practice, no single source.
"""

from itertools import pairwise, permutations
from math import atan2, degrees

import pytest

from izett.catalogue import catalogue
from izett.checking.check import Garment, Verdict, run
from izett.geometry.outline import along_line, gap
from izett.geometry.point import distance
from izett.pattern.facts import Role
from izett.pattern.sewn import seam_lengths
from izett.pattern.worn import width
from izett.styling.places import lines_of_places
from tests.bodies import with_hips
from tests.core.styling.worked import line, sides, sums, worked

BODIES = [{"underbust_girth": body["bust_girth"] - 12, **body} for body in with_hips(60)]
PRINCESS = (
    ("princess", {"start": line("front", "underarm", "shoulder_tip", "armhole", 0.55), "bow": 1.2}),
    ("princess", {"start": line("back", "underarm", "shoulder_tip", "armhole", 0.6), "bow": 1.0}),
)
LONGER = ("shape_hem", {"front": 12.0, "side": 12.0, "back": 12.0})
FLARED = ("flare", {"hem": 5.0, "above": 20.0})
BELL = ("flare", {"hem": 5.0, "above": 20.0, "shape": "bell"})
BETWEEN = ("change_length", {"amount": 3.0, "between": "bust_waist"})


def told(evaluation, *checks):
    garment = Garment(evaluation.pattern, evaluation.body)
    results = (r for key in checks for r in run(catalogue().checks[key], garment))
    return [r.words for r in results if r.finding.verdict in (Verdict.FAILS, Verdict.WARNS)]


def acted(evaluation):
    assert [stage.failure for stage in evaluation.stages if stage.failure] == []
    return evaluation


def hem_long(piece):
    return sum(e.curve.length for e in piece.edges if e.role is Role.HEM)


@pytest.mark.parametrize("flare", [FLARED, BELL])
@pytest.mark.parametrize("body", BODIES)
def test_flared_panels_are_wider_at_the_hem_and_the_same_above_the_level(evaluator, body, flare):
    before = worked(evaluator, body, *PRINCESS, LONGER, blocks=("torso",))
    after = acted(worked(evaluator, body, *PRINCESS, LONGER, flare, blocks=("torso",)))
    for piece in after.pattern.pieces:
        seams = 1 if any(e.role in (Role.CENTRE_FRONT, Role.CENTRE_BACK) for e in piece.edges) else 2
        wider = hem_long(piece) - hem_long(before.pattern.piece(piece.name))
        assert wider == pytest.approx(5.0 * seams, rel=0.12)
    for level in ("bust", "waist"):
        assert width(after.pattern, level) == pytest.approx(width(before.pattern, level), abs=0.02)
    for seam in after.pattern.seams:
        was = seam_lengths(before.pattern, before.pattern.find_seam(seam.name))
        assert seam_lengths(after.pattern, seam) == pytest.approx(was, abs=0.02)
    assert told(after, "seams_match", "outline_sound", "ease_as_meant", "notches_meet") == told(
        before, "seams_match", "outline_sound", "ease_as_meant", "notches_meet"
    )


@pytest.mark.parametrize("order", list(permutations((LONGER, FLARED, BETWEEN))))
def test_panels_stay_partners_whatever_the_order_of_hem_flare_and_length(evaluator, order):
    for body in BODIES[::2]:
        after = acted(worked(evaluator, body, *PRINCESS, *order, blocks=("torso",)))
        assert told(after, "seams_match", "notches_meet") == []


@pytest.mark.parametrize("shape", ["plain", "sweetheart"])
def test_an_upper_edge_lies_at_its_heights_and_runs_on_over_all_panels(evaluator, shape):
    edge = ("upper_edge", {"shape": shape, "front": 3.0, "peak": 6.0, "side": 0.3, "back": 0.5})
    measured = 0
    for body in BODIES:
        after = acted(worked(evaluator, body, *PRINCESS, edge, blocks=("bodice",)))
        assert len(after.pattern.pieces) == 4
        front, back = after.pattern.piece("bodice_front"), after.pattern.piece("bodice_back")
        for piece, role, height in ((front, Role.CENTRE_FRONT, 3.0), (back, Role.CENTRE_BACK, 0.5)):
            points = [p for e in piece.edges if e.role is role for p in e.curve.flattened()]
            ends = [p for x in piece.lines if x.level == "bust" for p in x.points if gap(points, p) < 0.01]
            # Where the bust line runs off below the arm it is no level any more.
            if ends:
                measured += 1
                assert along_line(points, ends[0]) == pytest.approx(height, abs=0.01)
        assert {seam.name.split(".")[-1] for seam in after.pattern.seams} == {"side", "princess_front", "princess_back"}
        assert told(after, "seams_match", "runs_across", "square_at_centre", "outline_sound", "notches_meet") == []
        around = sum(p.times * e.curve.length for p in after.pattern.pieces for e in p.edges if e.role is Role.NECK)
        assert sums(after)["edge, around"] == pytest.approx(around)
    assert measured >= len(BODIES) / 2


@pytest.mark.parametrize("body", BODIES)
def test_a_straightened_side_is_one_line_on_both_pieces(evaluator, body):
    after = acted(
        worked(evaluator, body, ("true_line", {"how": "straight", "line": "front.side"}), blocks=("knit_top",))
    )
    for piece in after.pattern.pieces:
        side = [e for e in piece.edges if e.role is Role.SIDE]
        ends = {e.curve.start for e in side} ^ {e.curve.end for e in side}
        chord = tuple(ends)
        assert all(gap(chord, p) < 0.01 for e in side for p in e.curve.flattened())
    assert sides(after.pattern, "side")[0] == pytest.approx(sides(after.pattern, "side")[1], abs=0.02)
    assert told(after, "seams_match", "runs_across", "ease_as_meant") == []


FRONT_BAND = {
    "kind": "front_band",
    "edges": [
        line("back", "neck_cb", "neck_shoulder", "neck"),
        line("front", "neck_shoulder", "neck_cf", "neck"),
        line("front", "neck_cf", "waist_cf", "centre"),
    ],
    "height": 3.0,
}


@pytest.mark.parametrize("body", BODIES)
def test_a_front_band_is_as_long_as_its_edges_and_leaves_the_garment_as_wide_as_it_was(evaluator, body):
    before = worked(evaluator, body, blocks=("bodice",))
    after = acted(worked(evaluator, body, ("add_band", FRONT_BAND), blocks=("bodice",)))
    front, back = after.pattern.piece("bodice_front"), after.pattern.piece("bodice_back")
    edges = sum(e.curve.length for e in front.edges if e.role in (Role.NECK, Role.CENTRE_FRONT))
    edges += sum(e.curve.length for e in back.edges if e.role is Role.NECK)
    band = next(piece for piece in after.pattern.pieces if piece.title == "Front band")
    assert max(x for x, _ in band.outline()) == pytest.approx(edges)
    assert front.on_fold is None and front.cut == 2
    centre = next(e for e in front.edges if e.role is Role.CENTRE_FRONT)
    assert centre.curve.start[0] == pytest.approx(1.5, abs=0.005), "half of the band, which laps over the centre"
    for level in ("bust", "waist"):
        assert width(after.pattern, level) == pytest.approx(width(before.pattern, level), abs=0.03)


def test_a_waistband_leaves_out_the_gathers_and_a_binding_is_cut_on_the_bias(evaluator, middling):
    waist = [line("front", "waist_cf", "waist_side", "waist"), line("back", "waist_side", "waist_cb", "waist")]
    gathers = [("convert_dart", {"dart": name, "into": "gathers"}) for name in ("front.waist_dart", "back.waist_dart")]
    plain = worked(evaluator, middling, ("add_band", {"kind": "waistband", "edges": waist}), blocks=("bodice",))
    full = acted(
        worked(evaluator, middling, *gathers, ("add_band", {"kind": "waistband", "edges": waist}), blocks=("bodice",))
    )
    assert sums(full)["finished length"] == pytest.approx(sums(plain)["finished length"], abs=0.4)
    neck = [line("front", "neck_shoulder", "neck_cf", "neck"), line("back", "neck_shoulder", "neck_cb", "neck")]
    bound = acted(
        worked(evaluator, middling, ("add_band", {"kind": "binding", "edges": neck, "ratio": 1.0}), blocks=("bodice",))
    )
    binding = next(piece for piece in bound.pattern.pieces if piece.title == "Bias binding")
    (ax, ay), (bx, by) = binding.grain
    assert degrees(atan2(by - ay, bx - ax)) == pytest.approx(45)


def test_a_rectangle_skirt_takes_whole_widths_of_the_cloth(evaluator, middling):
    waist = [line("front", "waist_cf", "waist_side", "waist"), line("back", "waist_side", "waist_cb", "waist")]
    skirt = {"kind": "skirt", "edges": waist, "height": 60.0, "cloth_width": 112.0, "widths": 2}
    after = acted(worked(evaluator, middling, ("add_band", skirt), blocks=("bodice",)))
    assert sums(after)["finished length"] == pytest.approx(224.0)
    assert sums(after)["joins"] == 1
    narrow = worked(evaluator, middling, ("add_band", {**skirt, "cloth_width": 30.0}), blocks=("bodice",))
    assert "do not go around" in narrow.stages[0].failure.message


def test_buttons_lie_at_even_distances_and_ties_are_notched_on_both_pieces(evaluator, middling):
    opening = (
        "open_up",
        {"closure": "buttons", "at": line("front", "neck_cf", "waist_cf", "centre"), "long": 0.0, "stand": 1.8},
    )
    edge = {"start": "s0.stand_start", "end": "s0.stand_end", "along": "front.centre"}
    buttons = ("button_places", {"line": edge, "number": 5, "first": 1.5, "last": 4.0})
    after = acted(worked(evaluator, middling, opening, buttons, blocks=("bodice",)))
    holes = [x.points for x in after.pattern.piece("bodice_front").lines if x.level == "buttonhole"]
    apart = [distance(a[0], b[0]) for a, b in pairwise(holes)]
    assert len(holes) == 5 and apart == pytest.approx([apart[0]] * 4)
    assert all(distance(*hole) == pytest.approx(2.1) for hole in holes)
    tie = ("add_tie", {"at": line("front", "waist_side", "underarm", "side", 0.3), "width": 3.0})
    tied = acted(worked(evaluator, middling, tie, blocks=("bodice",)))
    assert told(tied, "notches_meet") == []
    assert sum(n.span.along == "back.side" for n in tied.pattern.piece("bodice_back").notches) == 2


def test_a_place_is_so_far_from_a_named_end(evaluator, middling):
    pattern = worked(evaluator, middling, blocks=("bodice",)).pattern
    tie = catalogue().operations["add_tie"].params
    found = lines_of_places(tie.model_validate({"at": line("front", "waist_side", "underarm", "side", 0.3)}), pattern)
    assert found["at"].length == pytest.approx(sides(pattern, "side")[0])
    assert (found["at"].start, found["at"].end) == ("waist", "underarm")
