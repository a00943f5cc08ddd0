"""Places marked on a piece: where they lie, as shapely measures it; in which files; what is bought for them."""

import io

import pypdfium2
import pytest
from ezdxf.filemanagement import read as read_dxf_file
from shapely import LineString, Point, Polygon

from izett.cutting.lay.cutouts import Wanted
from izett.cutting.notions import marked, notions
from izett.cutting.shopping import shopping
from izett.files.dxf import Layer, write_dxf
from izett.files.hpgl import Lettering, read_hpgl, write_hpgl
from izett.files.pdf import ROLL_WIDTH, write_pdf
from izett.files.svg import write_svg
from izett.finishing.sheet import sheet_pieces
from izett.pattern.placed import Placed, lines_called, places_of
from izett.recipe.model import Recipe, Step
from izett.units import Unit
from izett.wording import cm, plain
from tests.bodies import with_hips

BLOCKS = ("bodice", "sleeve", "skirt")
SIDE = {"start": "front.waist_side", "end": "front.underarm", "along": "front.side"}
CENTRE = {"start": "front.neck_cf", "end": "front.waist_cf", "along": "front.centre"}
OPENED = ("open_up", {"closure": "buttons", "at": CENTRE, "long": 0.0, "stand": 1.8})
STAND = {"start": "s0.stand_start", "end": "s0.stand_end", "along": "front.centre"}
BUTTONS = {"line": STAND, "number": 5, "last": 4.0}


def tried(evaluator, body, *steps):
    named = tuple(Step(f"s{i}", kind, params) for i, (kind, params) in enumerate(steps))
    return evaluator.evaluate(Recipe(BLOCKS[0], body, also=BLOCKS[1:], steps=named))


def worked(evaluator, body, *steps):
    found = tried(evaluator, body, *steps)
    assert not [stage.failure for stage in found.stages if stage.failure]
    return found.pattern


def from_waist(piece, lineage):
    """The parts of a side, as it is sewn past its darts, from the waist upwards."""
    parts = [e.curve.flattened() for e in piece.edges if e.lineage == lineage]
    return sorted(
        (LineString(sorted(part, key=lambda spot: spot[1])) for part in parts), key=lambda part: part.bounds[1]
    )


@pytest.mark.parametrize("kind", [kind for kind in Placed if kind is not Placed.NOTCH])
def test_a_marked_place_lies_so_far_along_its_line_and_so_far_into_the_piece(evaluator, kind):
    acted = 0
    for body in with_hips(60):
        for fraction, inwards in ((0.5, 2.0), (0.3, 5.0)):
            at = {**SIDE, "fraction": fraction}
            pattern = worked(evaluator, body, ("mark_place", {"at": at, "kind": kind.value, "inwards": inwards}))
            piece = pattern.piece("bodice_front")
            (place,) = places_of(piece, kind)
            assert Polygon(piece.outline()).contains(Point(place))
            parts = from_waist(piece, "front.side")
            nearest = min(range(len(parts)), key=lambda i: parts[i].distance(Point(place)))
            assert parts[nearest].distance(Point(place)) == pytest.approx(inwards, abs=0.02)
            along = sum(part.length for part in parts[:nearest]) + parts[nearest].project(Point(place))
            assert along == pytest.approx(fraction * sum(part.length for part in parts), abs=0.05)
            acted += 1
    assert acted >= 20


def test_a_notch_is_cut_at_the_same_place_of_both_sides_of_a_seam(evaluator):
    acted = 0
    for body in with_hips(60):
        plain_one, notched = (
            worked(evaluator, body, *steps)
            for steps in ((), (("mark_place", {"at": {**SIDE, "fraction": 0.25}, "kind": "notch"}),))
        )
        for name, lineage in (("bodice_front", "front.side"), ("bodice_back", "back.side")):
            before, after = plain_one.piece(name), notched.piece(name)
            (new,) = [notch for notch in after.notches if notch not in before.notches]
            assert new.span.along == lineage
            parts = from_waist(after, lineage)
            long = sum(part.length for part in parts)
            along = new.distance if "waist" in new.span.start else long - new.distance
            front = sum(part.length for part in from_waist(notched.piece("bodice_front"), "front.side"))
            assert along == pytest.approx(0.25 * front, abs=0.02)
            acted += 1
    assert acted >= 20


def test_a_place_beside_a_line_that_is_off_the_piece_is_refused(evaluator, middling):
    found = tried(evaluator, middling, ("mark_place", {"at": {**SIDE, "fraction": 0.5}, "kind": "snap", "inwards": 60}))
    (stage,) = found.stages
    assert "not on the piece" in str(stage.failure) and stage.failure.fix


@pytest.fixture
def sheets(evaluator, middling):
    return sheet_pieces(
        worked(
            evaluator,
            middling,
            ("mark_place", {"at": {**SIDE, "fraction": 0.5}, "kind": "snap"}),
            ("mark_place", {"at": {**SIDE, "fraction": 0.3}, "kind": "drill hole"}),
            ("bone_channel", {"line": SIDE}),
        )
    )


def test_places_are_named_in_every_file_and_drilled_where_they_are_drilled(sheets):
    front = next(sheet for sheet in sheets if sheet.piece.name == "bodice_front")
    assert [place.level for place in front.places] == ["snap", "bone"]
    (drilled,) = places_of(front.piece, Placed.DRILL)
    assert drilled in front.drills
    document = read_dxf_file(io.StringIO(write_dxf([front], numbered=True)))
    assert not document.audit().errors
    words = [e.dxf.text for e in document.modelspace() if e.dxf.layer == str(Layer.WORDS.value)]
    assert words[:2] == ["snap", "bone"] or words[-2:] == ["snap", "bone"]
    drills = [e for e in document.modelspace() if e.dxf.layer == str(Layer.DRILLS.value)]
    assert len(drills) == len(front.drills)
    svg = write_svg([front])
    assert svg.count('class="place"') == 2 and svg.count("<circle") == len(front.drills)
    told = read_hpgl(write_hpgl([front], width=ROLL_WIDTH).encode("latin-1"))
    assert {"snap", "bone"} <= {one.text for one in told if isinstance(one, Lettering)}
    # On paper they are words among the label's.
    pages = pypdfium2.PdfDocument(write_pdf([front], paper="a0", title="Bodice"))
    text = "".join(page.get_textpage().get_text_range() for page in pages)
    assert "snap" in text and "bone" in text


def test_what_is_marked_is_bought(evaluator, middling):
    pattern = worked(
        evaluator,
        middling,
        OPENED,
        ("button_places", {**BUTTONS, "button": 1.8}),
        ("mark_place", {"at": {**STAND, "fraction": 0.1}, "kind": "snap"}),
        ("mark_place", {"at": {**STAND, "fraction": 0.2}, "kind": "eyelet"}),
        ("mark_place", {"at": {**SIDE, "fraction": 0.5}, "kind": "hook"}),
        ("mark_place", {"at": {**SIDE, "fraction": 0.5}, "kind": "pocket", "inwards": 6}),
        ("bone_channel", {"line": SIDE, "short": 1.3}),
    )
    cut = [Wanted(sheet) for sheet in sheet_pieces(pattern)]
    front = pattern.piece("bodice_front")
    (bone,) = lines_called(front, "bone")
    bought = {plain(one.what): one.amount for one in marked(cut)}
    # Of what closes at the centre, one front has the one part and the other the other; there are two sides, and eyelets
    # on both fronts.
    assert bought["buttons, 1.8 cm"] == 5
    assert bought["snaps"] == 1
    assert bought["hooks and eyes"] == 2 and bought["eyelets"] == 2
    assert sum(number for what, number in bought.items() if "bones" in what and plain(cm(bone.length)) in what) == 2
    assert not [what for what in bought if "pocket" in what]
    twice = {plain(one.what): one.amount for one in marked([Wanted(one.sheet, 2) for one in cut])}
    assert twice == {what: 2 * number for what, number in bought.items()}
    rows = shopping((), cut, [("elastic", {"girth": 74}, "waist")])
    assert [row.what for row in rows if row.note == "as marked on the pieces"] == [one.what for one in marked(cut)]
    assert rows[-1].note == "waist" and rows[-1].unit == "cm"
    assert rows[0].amount_words(Unit.INCH) == "5"
    # What was summed too is told, so that nobody buys it twice.
    (summed,) = shopping((), cut, [("buttons", {}, "down the front")])[len(marked(cut)) :]
    assert summed.note.startswith("down the front; ") and "once" in summed.note


def test_bones_of_a_worksheet_are_bought_by_number_and_length():
    (row,) = notions("bones", {"channel": 32, "short": 1.3, "how_many": 6})
    assert (plain(row.what), row.amount, row.unit) == ("bones, 30.7 cm", 6, "")
