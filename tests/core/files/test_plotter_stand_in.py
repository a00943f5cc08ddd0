"""The plotter that stands in: what its pen has drawn at a time, how long it takes, its queue, what runs off the roll."""

import io
from itertools import pairwise
from xml.etree import ElementTree

import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st
from svgelements import SVG, Path

from izett.errors import UnreadableFile
from izett.files.hpgl import CUT, STEPS, Lettering, Stroke, read_hpgl, write_hpgl
from izett.files.pdf import ROLL_WIDTH
from izett.files.plotter_stand_in import DRAWS, Waiting, plotted, turns, write_plot_svg
from izett.finishing.sheet import sheet_pieces
from izett.recipe.model import Recipe
from tests.core.blocks import cut_for

SQUARE = b"IN;SP1;PU400,400;PD4400,400,4400,4400,400,4400,400,400;PU;SP0;PG;"


@pytest.fixture
def sheets(evaluator, middling):
    return sheet_pieces(cut_for(evaluator.evaluate(Recipe("bodice", middling, also=("sleeve",))).pattern, "home"))


def length(marks):
    return sum(mark.length for mark in marks if isinstance(mark, Stroke))


def test_the_pen_draws_as_much_as_it_had_time_for():
    plot = plotted(SQUARE)
    assert plot.length == 11 and plot.travelled == 40 and plot.off_the_roll == 0
    (square,) = plot.drawn
    assert square.done - square.began == pytest.approx(40 / DRAWS)
    for share in (0.0, 0.2, 0.5, 0.9, 1.0):
        drawn = list(plot.until(square.began + share * (square.done - square.began)))
        assert length(drawn) == pytest.approx(40 * share)
        assert all(1 <= x <= 11 and 1 <= y <= 11 for mark in drawn for x, y in mark.points)
    assert list(plot.until(plot.seconds)) == read_hpgl(SQUARE)


def test_a_pattern_is_drawn_as_it_was_written(sheets):
    content = write_hpgl(sheets, width=ROLL_WIDTH).encode("latin-1", "replace")
    plot = plotted(content)
    assert plot.off_the_roll == 0 and plot.seconds > plot.travelled / DRAWS
    drawn = list(plot.until(plot.seconds))
    cut = sum(shapely.Polygon(mark.points).area for mark in drawn if isinstance(mark, Stroke) and mark.pen == CUT)
    assert cut == pytest.approx(sum(shapely.Polygon(sheet.cutting).area for sheet in sheets), rel=0.001)
    assert {text for sheet in sheets for text in sheet.label} == {m.text for m in drawn if isinstance(m, Lettering)}


def test_the_picture_shows_what_was_drawn_by_an_independent_reader(sheets):
    plot = plotted(write_hpgl(sheets, width=ROLL_WIDTH).encode("latin-1", "replace"))
    for share in (0.0, 0.3, 1.0):
        picture = write_plot_svg(plot, share * plot.seconds)
        ElementTree.fromstring(picture)
        # The first path is the paper.
        drawn = [e for e in SVG.parse(io.StringIO(picture), ppi=25.4).elements() if isinstance(e, Path)][1:]
        expected = length(plot.until(share * plot.seconds))
        assert sum(path.length(error=1e-4) for path in drawn) == pytest.approx(expected, abs=0.01 * max(len(drawn), 1))


def test_what_reaches_beyond_the_roll_is_told():
    wide = f"IN;SP1;PU0,0;PD0,{round((ROLL_WIDTH + 7) * STEPS)};PU;".encode()
    assert plotted(wide).off_the_roll == pytest.approx(7, abs=0.01)
    assert plotted(b"IN;SP1;PU0,-800;PD0,400;PU;").off_the_roll == pytest.approx(2)


@pytest.mark.parametrize("content", [b"IN;SP1;PU0,0;PG;", b"%PDF-1.7", b"IN;PD1,nan;", b""])
def test_what_draws_nothing_or_is_no_plot_file_is_refused(content):
    with pytest.raises(UnreadableFile) as refused:
        plotted(content)
    assert refused.value.fix


waiting = st.builds(
    Waiting,
    came=st.floats(0, 100),
    takes=st.floats(0.1, 50),
    stopped=st.none() | st.floats(100, 300),
)


@given(st.lists(waiting, min_size=1, max_size=8))
def test_one_plot_is_drawn_at_a_time_in_the_order_in_which_they_came(queue):
    queue = sorted(queue, key=lambda one: one.came)
    found = turns(queue)
    begun = [(one, turn) for one, turn in zip(queue, found, strict=True) if turn.began is not None]
    for (one, turn), (_, after) in pairwise(begun):
        assert one.came <= turn.began <= turn.ended <= after.began
        assert turn.ended - turn.began <= one.takes + 1e-9
    for one, turn in zip(queue, found, strict=True):
        # Whoever was never begun was stopped before its turn; nobody waits while the pen is idle.
        assert turn.began is not None or one.stopped is not None
        if turn.began is not None:
            ends = [other.ended for _, other in begun if other.ended <= turn.began]
            assert turn.began == one.came or turn.began in ends
