"""Pieces made ready for paper, against shapely's buffers."""

from itertools import pairwise
from math import cos, dist, sin, tau
from random import Random

import pytest
from shapely import LineString, Polygon
from shapely import Point as ShapelyPoint

from izett.catalogue import catalogue
from izett.draping.form import Hand, draped
from izett.draping.panel import Source
from izett.errors import UnknownName, ValueOutOfRange
from izett.finishing.allowances import Allowances, purposes
from izett.finishing.cut_line import CutLine, cutting_line
from izett.finishing.dart_caps import cap_peak
from izett.finishing.sheet import sheet_pieces
from izett.geometry.motion import Motion
from izett.geometry.point import distance
from izett.pattern.facts import Role
from izett.pattern.piece import dart_angle
from izett.recipe.model import Recipe, Step
from tests.bodies import some_bodies
from tests.core.blocks import cut_for
from tests.draped import truth_of


@pytest.fixture
def pattern(evaluator, middling):
    return evaluator.evaluate(Recipe("bodice", middling)).pattern


def test_without_allowance_the_cutting_line_is_the_sewing_line(pattern):
    for sheet in sheet_pieces(cut_for(pattern, "none")):
        assert Polygon(sheet.cutting).symmetric_difference(Polygon(sheet.sewing)).area < 1e-6
        assert "NO seam allowance" in sheet.label


@pytest.mark.parametrize("purpose", [p for p in purposes() if p != "none"])
def test_the_cutting_line_holds_the_sewing_line_at_each_edges_allowance(evaluator, purpose):
    allowances = Allowances(purpose)
    for body in some_bodies(12):
        pattern = evaluator.evaluate(Recipe("bodice", body)).pattern
        for sheet in sheet_pieces(cut_for(pattern, purpose)):
            cut = Polygon(sheet.cutting)
            assert cut.is_valid
            assert cut.buffer(1e-6).contains(Polygon(sheet.sewing))
            for edge in sheet.piece.edges:
                if edge.is_leg:
                    continue
                width = allowances.of(sheet.piece, edge)
                middle = LineString(edge.curve.flattened()).interpolate(0.5, normalized=True)
                assert cut.exterior.distance(middle) <= width + 1e-3
                if edge.curve.length > 4 * width:
                    assert cut.exterior.distance(middle) == pytest.approx(width, abs=0.02)


STEPS = [
    pytest.param(key, example, id=f"{key}-{i}")
    for key, operation in catalogue().operations.items()
    for i, example in enumerate(operation.examples)
]


@pytest.mark.parametrize(("kind", "params"), STEPS)
def test_pieces_can_be_cut_after_every_step(evaluator, kind, params):
    """The cutting line stays one sound outline around the sewing line, whatever was changed before."""
    for body in some_bodies(2):
        pattern = evaluator.evaluate(Recipe("bodice", body, steps=(Step("s", kind, params),))).pattern
        for purpose in purposes():
            for sheet in sheet_pieces(cut_for(pattern, purpose)):
                cut, sewn = Polygon(sheet.cutting), Polygon(sheet.sewing)
                assert cut.is_valid, (sheet.piece.name, purpose, body)
                assert cut.buffer(0.02).contains(sewn)
                # A small piece has more allowance than cloth inside it: the widest allowance all around, and its corners.
                widest = max(line.width for line in sheet.lines)
                assert cut.area < sewn.area + 1.6 * widest * sewn.length + 4 * widest**2 + 0.01


def test_an_equal_allowance_is_shapelys_mitred_buffer(pattern):
    """On the back without its fold, 1 cm all round, against a mitred buffer of the sewing line."""
    by_lineage = {edge.lineage: 1.0 for piece in pattern for edge in piece.edges if not edge.is_leg}
    sheet = sheet_pieces(cut_for(pattern, "home", by_lineage))[1]
    ours, theirs = Polygon(sheet.cutting), Polygon(sheet.sewing).buffer(1.0, join_style="mitre", mitre_limit=4)
    assert ours.symmetric_difference(theirs).area < 0.01 * theirs.area


def test_a_fold_gets_no_allowance_and_no_step(pattern):
    sheet = sheet_pieces(cut_for(pattern, "muslin"))[0]
    assert sheet.fold is not None
    assert min(p[0] for p in sheet.cutting) == pytest.approx(0, abs=1e-9)


def test_a_single_line_can_be_cut_wider(pattern):
    plain = sheet_pieces(cut_for(pattern, "home"))[1]
    wide = sheet_pieces(cut_for(pattern, "home", {"back.side": 5.0}))[1]
    assert wide.bounds[2] > plain.bounds[2] + 3


def test_a_drape_has_the_allowances_of_its_fitting_and_production_one_centimetre():
    """Handbook, draping: 1.3 cm on neck, princess and waist, 2.5 cm at the sides; production 1 cm."""
    drape, production = purposes()["draped"].by_role, purposes()["production"].by_role
    assert [drape[role] for role in (Role.NECK, Role.PANEL, Role.WAIST, Role.SIDE)] == [1.3, 1.3, 1.3, 2.5]
    assert [production[role] for role in (Role.PANEL, Role.WAIST, Role.SIDE)] == [1, 1, 1]


def test_what_is_draped_alone_is_cut_as_a_drape_until_somebody_says_otherwise(evaluator, middling):
    given = draped(truth_of("bustier", middling), Hand())
    plain = evaluator.evaluate(Recipe("", middling, given=given)).pattern
    cut = Allowances.of_pattern(plain)
    widths = {
        (edge.role, cut.of(piece, edge)) for piece in plain for edge in piece.edges if edge.lineage != piece.on_fold
    }
    assert {(Role.NECK, 1.3), (Role.PANEL, 1.3), (Role.WAIST, 1.3), (Role.SIDE, 2.5)} <= widths
    said = Step("s", "set_allowances", {"purpose": "home"})
    assert evaluator.evaluate(Recipe("", middling, given=given, steps=(said,))).pattern.allowances.purpose == "home"
    traced = given.model_copy(update={"source": Source.TRACE})
    assert evaluator.evaluate(Recipe("", middling, given=traced)).pattern.allowances.purpose == "muslin"


def test_what_is_no_allowance_is_told():
    with pytest.raises(UnknownName, match="muslin"):
        Allowances("gala")
    with pytest.raises(ValueOutOfRange, match="30 cm at side is outside 0 to 10 cm") as told:
        Allowances("home", {"back.side": 30.0})
    assert told.value.where == ("back.side",)
    assert all(set(p.by_role) == set(Role) - {Role.DART_LEG} for p in purposes().values())


def test_a_dart_cap_is_where_the_folded_cloth_meets_the_seam(evaluator):
    """Folding the dart shut lays the cap's first half along the neighbouring seam line (how a hand trues it)."""
    for body in some_bodies(15):
        for piece in evaluator.evaluate(Recipe("bodice", body)).pattern:
            for dart in piece.darts:
                a, b = (piece.vertex(name) for name in dart.mouth)
                peak = cap_peak(piece, dart)
                assert distance(peak, a) == pytest.approx(distance(peak, b), abs=1e-9)
                tip = piece.vertex(dart.tip)
                # The cap lies beyond the mouth, never inside the piece.
                middle = ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)
                assert distance(tip, peak) >= distance(tip, middle) - 1e-9
                assert Motion.turning(-dart_angle(piece, dart), about=dart.pivot)(b) == pytest.approx(a, abs=1e-6)


def test_notches_are_single_in_front_and_double_behind_and_point_outwards(pattern):
    front, back = sheet_pieces(cut_for(pattern, "muslin"))
    assert (len(front.notches), len(back.notches)) == (1, 2)
    for sheet in (front, back):
        for on_line, outside in sheet.notches:
            sewing, cutting = Polygon(sheet.sewing), Polygon(sheet.cutting)
            assert sewing.exterior.distance(ShapelyPoint(on_line)) < 0.02
            assert not sewing.contains(ShapelyPoint(outside))
            assert cutting.buffer(0.01).contains(ShapelyPoint(outside))


def test_labels_say_all_that_a_heap_of_pieces_needs(pattern):
    front, back = sheet_pieces(cut_for(pattern, "muslin"), title="Recital bodice", wearer="M. S.")
    assert front.label[:3] == ("Recital bodice", "1 of 2  Bodice front", "M. S.")
    assert "cut 1 on the fold" in front.label
    assert "cut 2, mirrored" in back.label
    assert "seam allowance INCLUDED" in front.label


#: cm. No side of a piece is cut shorter.
LEAST_SIDE = 1.0


def _polygon(random):
    """A polygon with inner and outer corners, with an allowance of its own at each side, some of them none."""
    turns = sorted(random.uniform(0, tau) for _ in range(random.choice((3, 4, 5, 6))))
    size = random.uniform(8, 40)
    corners = [(size * random.uniform(0.7, 1) * cos(turn), size * sin(turn)) for turn in turns]
    return [(side, random.choice((0.0, 0.0, 1.0, 1.5, 2.5, 4.0))) for side in pairwise([*corners, corners[0]])]


def test_whatever_the_allowances_of_its_sides_a_polygons_cutting_line_holds_it():
    """Gussets, godets, yokes: against shapely, corners of all angles, sides shorter than what is added to them."""
    random, tried, short = Random(2026), 0, 0
    for _ in range(1500):
        sides = _polygon(random)
        sewing = Polygon([side[0] for side, _ in sides])
        lengths = [dist(*side) for side, _ in sides]
        if not sewing.is_valid or not sewing.exterior.is_ccw or min(lengths) < LEAST_SIDE:
            continue
        tried += 1
        short += any(long < width for long, (_, width) in zip(lengths, sides, strict=True))
        cutting = Polygon(cutting_line([CutLine(side, width) for side, width in sides]))
        assert cutting.is_valid, sides
        assert cutting.buffer(1e-6).covers(sewing), sides
    assert tried >= 1000
    assert short >= 50
