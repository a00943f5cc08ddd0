"""The tear list: blocks by the handbook's allowances, torn from muslin in an order that fits its width."""

import json
import random

import pypdfium2
import pytest

from izett.draping.tearing import Measured, ToDrape, block_of, drapes, kinds, session, tear_list
from izett.errors import UnknownName, UnreadableFile, ValueOutOfRange
from izett.files.tear_file import read_form, write_tear_json, write_tear_pdf
from izett.units import Unit


def measured(title, length, width, kind="panel", hangs="centre", train=0.0):
    return Measured(ToDrape(title.lower(), title, kind, hangs, True), length, width, train)


@pytest.mark.parametrize(("kind", "each_way"), [("panel", 7.5), ("whole", 12.0)])
def test_a_block_is_the_longest_by_the_widest_with_the_handbooks_allowance_each_way(kind, each_way):
    """Handbook: 7.5 cm for panels, about 12 cm for whole fronts and backs."""
    block = block_of(measured("Front", 40, 20, kind))
    assert (block.warp, block.weft) == (40 + each_way, 20 + each_way)
    assert kinds()[kind].allowance == each_way


def test_a_train_makes_the_block_longer_and_bias_takes_more_than_a_whole_piece():
    assert block_of(measured("Back", 110, 30, "whole", train=60)).warp == 110 + 60 + 12
    assert kinds()["bias"].allowance > kinds()["whole"].allowance


def test_guide_lines_lie_where_the_handbook_has_them():
    """Handbook: the centre line 2.5 cm from the edge, the balance line midway, the bust level about 15 cm from the top."""
    centre = block_of(measured("Centre front", 30, 12))
    assert [(g.what, g.along, g.at) for g in centre.guides] == [("centre line", True, 2.5), ("bust level", False, 15.0)]
    side = block_of(measured("Side", 30, 15, hangs="balance"))
    assert side.guides[0].at == side.weft / 2


def test_any_panels_are_torn_each_once_and_never_wider_than_the_muslin():
    chance = random.Random(7)
    acted = 0
    for _ in range(200):
        muslin = chance.uniform(60, 160)
        panels = [
            measured(f"p{i}", chance.uniform(10, 130), chance.uniform(8, 60), chance.choice(["panel", "whole"]))
            for i in range(chance.randint(1, 9))
        ]
        if max(p.width for p in panels) + 12 > muslin - 3:
            continue
        acted += 1
        found = tear_list(panels, muslin=muslin)
        assert sorted(block.panel.key for block in found.blocks) == sorted(p.panel.key for p in panels)
        for strip in found.strips:
            assert sum(block.weft for block in strip.blocks) <= found.usable + 1e-6
            assert strip.length == max(block.warp for block in strip.blocks)
            assert strip.left == pytest.approx(found.usable - sum(b.weft for b in strip.blocks))
        assert found.length == pytest.approx(sum(strip.length for strip in found.strips))
        assert 0 <= found.bought - found.length < 10
        # No longer than a strip for each block, no shorter than their area.
        assert found.length <= sum(block.warp for block in found.blocks) + 1e-6
        assert found.length * found.usable >= sum(b.warp * b.weft for b in found.blocks) - 1e-6
    assert acted > 100


@pytest.mark.parametrize(
    ("panels", "muslin", "error", "words"),
    [
        ([measured("Front", 40, 70)], 80, ValueOutOfRange, "does not fit across"),
        ([measured("Front", 0, 20)], 150, ValueOutOfRange, "length"),
        ([measured("Front", 40, 20, train=-3)], 150, ValueOutOfRange, "train"),
        ([measured("Front", 40, 20)], 5, ValueOutOfRange, "none that is sold"),
        ([], 150, ValueOutOfRange, "no panel"),
        ([measured("Front", 40, 20, "sail")], 150, UnknownName, "sail"),
    ],
)
def test_what_cannot_be_torn_is_refused_with_what_to_do(panels, muslin, error, words):
    with pytest.raises(error, match=words) as told:
        tear_list(panels, muslin=muslin)
    assert told.value.fix


def test_every_drape_has_its_tapes_and_its_panels_and_the_session_its_warnings():
    """Handbook: a bustier in four panels a half, a sheath front and back, an under-bodice, free; what to watch."""
    assert {key: len(drape.panels) for key, drape in drapes().items()} == {
        "bustier": 4, "sheath": 2, "under_bodice": 2, "free": 0,
    }  # fmt: skip
    assert all(len(drape.tape) >= 2 for drape in drapes().values())
    told = " ".join(f"{step.does} {step.watch}" for step in session())
    for word in ("iron the fold", "0.6 cm", "pinch of ease", "bias", "selvedges", "cross", "dash", "3.8"):
        assert word.lower() in told.lower()


FORM = "# unit=in\n# muslin=60\npanel,kind,length,width,train\nCentre front,,14,6 1/2,\nSide front,panel,13 3/8,7,\nback,,44,12,20\n"


def test_a_form_is_read_with_fractions_and_its_list_comes_back_as_json_and_on_paper():
    read = read_form(FORM)
    assert read.muslin == pytest.approx(152.4)
    assert [p.length for p in read.panels] == pytest.approx([35.56, 33.9725, 111.76])
    assert [p.panel.kind for p in read.panels] == ["panel", "panel", "whole"]
    assert [p.panel.hangs for p in read.panels] == ["centre", "balance", "centre"]
    found = tear_list(read.panels, muslin=read.muslin)
    data = json.loads(write_tear_json(found))
    assert data["format"] == "izett-tear"
    assert sum(len(strip["blocks"]) for strip in data["strips"]) == 3
    paper = pypdfium2.PdfDocument(write_tear_pdf(found, unit=Unit.INCH))
    words = "".join(page.get_textpage().get_text_range() for page in paper)
    assert "Centre front" in words
    assert "selvedges" in words


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("panel,length\nFront,20\n", "no column “width”"),
        ("panel,length,width\nFront,twenty,10\n", "Row 2, length"),
        ("panel,length,width\n,20,10\n", "Row 2 names no panel"),
        ("panel,kind,length,width\nFront,sail,20,10\n", "“sail” is no kind"),
        ("panel,length,width\n", "no panel in the table"),
    ],
)
def test_a_form_that_cannot_be_read_is_told_by_its_row(text, words):
    with pytest.raises(UnreadableFile, match=words):
        read_form(text)
